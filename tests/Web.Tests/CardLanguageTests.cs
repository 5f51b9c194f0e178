using System.Globalization;
using System.Text.RegularExpressions;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tests;
using Anakyklos.Core.Wording;
using Anakyklos.Web.Coaches;
using Anakyklos.Web.Coaches.Looking;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Languages;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>What cards say that are worked against the grain: titles, presses, facts, refusals, questions, lines of the record.</summary>
public sealed partial class CardLanguageTests() : InTheDemo("una")
{
    // What the walks type: it stays as it is, and a name stands for it here.
    private static readonly string[] _typed = ["Part is on the boat", "Looked at and let go", "Mended", "Plug is seized", "No time today",
        "It stopped dripping", "New part, thread is good", "Read the wrong line"];

    private static readonly string[] _names = ["Iona", "Una", "Tavish", "Corran", "Hespin", "Lumen", "Maelor", "Ostler", "Skelling",
        "Tarn"];

    // They are the same in both languages.
    private static readonly string[] _same = ["Magnet", "Normal", "Ring", "Sensor"];

    [Fact]
    public void Whatever_a_card_says_against_the_grain_is_said_in_German()
    {
        var german = Host.Services.GetRequiredService<WorkshopWords>().Book(CultureInfo.GetCultureInfo("de"))!;
        var viewer = Host.Services.GetRequiredService<Viewer>();
        var texts = new SortedDictionary<string, string>(StringComparer.Ordinal);
        for (var seed = 0; seed < 140; seed++)
        {
            var walk = seed;
            Wanderer.Through(seed, (card, now, decided) =>
            {
                foreach (var text in Texts(card, now, decided, viewer))
                    texts.TryAdd(_typed.Aggregate(text, (t, typed) => t.Replace(typed, "Tavish", StringComparison.Ordinal)),
                        $"walk {walk}");
            });
        }
        foreach (var card in Shipped.Sheets.Values.SelectMany(s => s.Jobs.Keys.Select(j => Workbench.On(s.Id.Text, j))))
            foreach (var text in OnOldSeals(card))
                texts.TryAdd(text, $"{card.Sheet.Id}, old seals");
        foreach (var look in Enum.GetValues<LookSubject>().SelectMany(s => LookRules.Of(s).Select(l => new Look(s, l))))
            texts.TryAdd(LookRules.Says(look), "a look");
        foreach (var swept in Enum.GetValues<SweepFor>())
            texts.TryAdd(SweepScene.Says(swept), "a sweep");
        var known = Offered.Entries(CultureInfo.GetCultureInfo("de")).Select(e => e.Value)
            .Concat(Shipped.Files.SelectMany(f => Saids().Matches(File.ReadAllText(f)).Select(m => m.Groups[1].Value)))
            .SelectMany(Tokens).ToHashSet(StringComparer.OrdinalIgnoreCase);
        string[] unsaid = [.. texts.Select(t => (Text: t.Key, Said: german.Say(t.Key), From: t.Value))
            // An id of a step is nobody's word.
            .Where(t => !t.Text.StartsWith("There is no step “", StringComparison.Ordinal))
            .Where(t => !t.Said.IsKnown || (t.Said.Text == t.Text && !t.Text.Any(char.IsDigit)
                    && Tokens(t.Text).Except(_names).Except(_same).Any())
                || Tokens(t.Said.Text).Intersect(Tokens(t.Text)).Except(_names).Any(w => !known.Contains(w)))
            .Select(t => $"{t.From}: {t.Text} -> {t.Said.Text}")];
        Assert.True(texts.Count > 1000, $"Only {texts.Count} texts were heard.");
        Assert.True(unsaid.Length == 0, $"{unsaid.Length} of {texts.Count}\n{string.Join('\n', unsaid)}");
    }

    // Every seal goes back.
    private static IEnumerable<string> OnOldSeals(JobCard card)
    {
        if (card.Next is not { Traits.LaysOut: true } kit || UsualPress.Of(card, kit) is not ConfirmKit all)
            return [];
        var old = all with
        {
            Parts = all.Parts.ToDictionary(p => p.Key, p => card.Sheet.Parts[p.Key].IsSeal
                ? new KitPart(KitChoice.OldAgain, Reason: "Tavish") : p.Value),
        };
        var accepted = Assert.IsType<Accepted>(card.Decide(old, Workbench.Iona, card.History[^1].At, UsualPress.Facts(card.Sheet)));
        var laid = card.Taking(accepted, Guid.NewGuid(), Workbench.Iona, card.History[^1].At).Card;
        return laid.Steps.Select(laid.TitleOf).Concat(laid.Open.Select(o => o.Detail))
            .Concat(laid.History.Select(h => CardLine.Of(laid, h)));
    }

    private static IEnumerable<string> Texts(JobCard card, DateTimeOffset now, Decision decided, Viewer viewer)
    {
        foreach (var item in card.Open)
        {
            yield return item.Name;
            yield return item.Detail;
        }
        foreach (var refusal in decided is Refused refused ? refused.Reasons : [])
        {
            yield return refusal.What;
            yield return refusal.Do;
        }
        if (decided is Asked asked)
            yield return asked.Question.Text;
        yield return CardLine.Of(card, card.History[^1]);
        if (card.Next is not { } step)
            yield break;
        var scene = LiftScene.Of(card, step, now, new(viewer, [], Shelf.Empty, DateOnly.FromDateTime(now.DateTime), null, []));
        foreach (var text in scene.Beside.Concat(scene.Cautions).Append(scene.Title).Append($"{scene.Number} {scene.Unit}")
            .Append(scene.Main?.Words ?? "").Append(scene.Sends?.Words ?? "").Append(scene.Asks?.Words ?? "")
            .Concat(scene.Others.Concat(scene.Meanwhile).Select(o => o.Words))
            .Concat(scene.Facts.SelectMany(f => new[] { f.Label, f.Text }))
            .Concat(scene.InTheWay.SelectMany(r => new[] { r.What, r.Do })))
            yield return text;
    }

    private static IEnumerable<string> Tokens(string text) => Words().Matches(text).Select(m => m.Value);

    [GeneratedRegex(@"(?<![\w-])[A-Za-z]?[a-z]{2,}(?![\w-])")]
    private static partial Regex Words();

    [GeneratedRegex(@"""said"":\s*""([^""]+)""")]
    private static partial Regex Saids();
}
