using System.Globalization;
using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Desk;
using Anakyklos.Web.Coaches;
using Anakyklos.Web.Commands;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.WebUtilities;

namespace Anakyklos.Web.Pages;

/// <summary>Answers to one question from which the card goes on in the same way.</summary>
/// <param name="Handler">The command that takes the answer.</param>
/// <param name="Field">The field into which it is typed.</param>
/// <param name="Usual">One of them, to go ahead with.</param>
/// <param name="Answers">All of them, as they would be typed.</param>
public sealed record AlikeAnswers(string Handler, string Field, string Usual, IReadOnlyList<string> Answers);

/// <summary>The moves on the way ahead as a screen sends them, and the answers that it need not ask about.</summary>
public static class Ahead
{
    private const int Longest = 20_000;

    /// <summary>Reads moves: an array of forms as they would be sent, each with its command under "handler", or with how
    /// long nothing is said, in milliseconds, under "passes".</summary>
    /// <param name="text">JSON.</param>
    /// <returns>Null when it is nothing of the kind.</returns>
    public static IReadOnlyList<AheadMove>? Read(string? text)
    {
        if (text is null || text.Length > Longest * AheadDesk.Most)
            return null;
        try
        {
            return JsonSerializer.Deserialize<string[]>(text) is { } moves && moves.All(m => m is { Length: < Longest })
                ? [.. moves.Select(Move)] : null;
        }
        catch (Exception e) when (e is JsonException or ArgumentException or InvalidOperationException)
        {
            return null;
        }
    }

    private static AheadMove Move(string form)
    {
        var fields = QueryHelpers.ParseQuery(form);
        if (fields.TryGetValue("passes", out var passes))
            return new(null, int.TryParse(passes, NumberStyles.None, CultureInfo.InvariantCulture, out var ms)
                ? TimeSpan.FromMilliseconds(ms) : null);
        if (!fields.TryGetValue("handler", out var handler) || CommandBook.Find(handler) is not { WantsPin: false })
            return new(null, null);
        var read = CommandBook.Read(handler, new FormFields(new FormCollection(fields)), out var problems);
        return new(problems.Count == 0 ? read : null, null);
    }

    /// <summary>The answers at a step that mean the same to the card.</summary>
    internal static IReadOnlyList<AlikeAnswers> Alike(LiftScene scene, Viewer viewer, Func<IReadOnlyList<CardCommand?>, int,
        IReadOnlyList<int>> alike)
    {
        if (scene.IsDone || scene.WaitsFor is not null || scene.InTheWay.Count > 0)
            return [];
        List<AlikeAnswers> all = [];
        foreach (var (handler, field, usual, answers) in Asked(scene, viewer))
        {
            IReadOnlyList<string> said = [usual, .. answers.Where(a => a != usual)];
            var taken = alike([.. said.Select(s => Said(scene.Step.Id, handler, field, s))], 0);
            if (taken.Count > 0)
                all.Add(new(handler, field, usual, [.. taken.Select(i => said[i])]));
        }
        return all;
    }

    private static CardCommand? Said(StepId step, string handler, string field, string answer) => CommandBook.Read(handler,
        new FormFields(new FormCollection(new() { ["step"] = step.Text, [field] = answer })), out var problems) is { } command
        && problems.Count == 0 ? command : null;

    private static IEnumerable<AlikeAnswers> Asked(LiftScene scene, Viewer viewer)
    {
        if (scene.WantsReading && scene.Fluid!.Rod?.Value is { } rod)
            yield return new("rod", "depth", Depth(rod, 1), [.. Enumerable.Range(-10, 41).Select(i => Depth(rod, i / 20m)).Distinct()]);
        else if (scene.WantsReading)
            yield return new("gauge", "level", "1", [.. Enumerable.Range(-20, 61).Select(i => Text(i / 20m)),
                .. Coaches.Filling.GaugeReadings.BetweenMarks.Select(m => m.Value)]);
        if (scene.Torque?.Target is { } target && !scene.IsOverTorqued)
        {
            var unit = viewer.TorqueUnits[0];
            var usual = Math.Round(target.In(unit), 0);
            var least = (int)Math.Max(1, Math.Floor(usual * 0.7m));
            int[] around = [.. Enumerable.Range(least, (int)Math.Min(200, Math.Ceiling(usual * 1.3m) - least + 1))];
            yield return new("reading", "torque", Text(usual), [.. around.SelectMany(n => (string[])[$"{n}", $"{n} {unit.Symbol}"])]);
        }
        if (scene.WantsAmount && scene.Fluid is { } fluid)
        {
            var unit = viewer.VolumeUnits[0];
            var book = Math.Round(fluid.Amount.Value.In(unit), 1);
            yield return new("measure", "amount", $"{Text(book)} {unit.Symbol}",
                [.. Enumerable.Range(1, (int)Math.Min(200, book * 14)).Select(i => $"{Text(i / 10m)} {unit.Symbol}")]);
        }
    }

    private static string Depth(RodMarks rod, decimal level) =>
        $"{Math.Round(rod.DepthOf(new(level)).In(Length.Millimetre), MidpointRounding.AwayFromZero)} {Length.Millimetre.Symbol}";

    private static string Text(decimal number) => number.ToString("0.##", CultureInfo.InvariantCulture);
}
