using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Reading;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Coaches.Reading;

/// <summary>What came out is looked at: a picture for each way it may look, from the best to the worst, and what was seen last
/// time.</summary>
public sealed class ReadScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["read"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        if (scene.Card.ToLookAt(scene.Step) is not [var subject, ..])
        {
            foreach (var seen in scene.Card.SeenAt(scene.Step.Id))
                scene.Facts.Add(new(scene.Card.LookedAt(scene.Step, seen.Look.Subject), LookRules.Says(seen.Look)));
            return;
        }
        if (scene.Card.SeenBefore(scene.Step.Id, subject) is { } before)
            scene.Facts.Add(new("Last time", $"{High(LookRules.Says(before.Look))}, {before.Day:d MMM yyyy}{Laboratory(scene)}"));
        scene.Pictures = scene.Pictures with { Middle = "~/Coaches/Reading/_Looks.cshtml" };
        var usual = new Look(subject, LookRules.Usual(subject));
        scene.Main = new(High(LookRules.Says(usual)), "see", ("subject", Word(subject)), ("looks", Word(usual.Looks)));
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e is not Seen seen ? null
        : $"{(card.StepEver(seen.Step) is { } step ? card.LookedAt(step, seen.Look.Subject) : $"{seen.Look.Subject}")}: "
            + $"{LookRules.Says(seen.Look)}{(Follows(seen.Leads) is { Length: > 0 } follows ? $". {follows}" : "")}";

    /// <summary>What follows, as a sentence without a full stop; empty where nothing does.</summary>
    /// <param name="leads">The outcome.</param>
    public static string Follows(LookOutcome leads) => leads switch
    {
        LookOutcome.CarryOn => "",
        LookOutcome.Shorten => "Half the next interval",
        LookOutcome.Sample => "A sample to the laboratory, and half the next interval",
        LookOutcome.Specialist => "A specialist looks at it before it runs",
        LookOutcome.Hold => "The vehicle is held",
        _ => throw new ArgumentOutOfRangeException(nameof(leads), leads, "Nobody has said what that means."),
    };

    /// <summary>The word of an appearance in a form.</summary>
    /// <param name="word">The appearance or the subject.</param>
    public static string Word<T>(T word) where T : struct, Enum => System.Text.Json.JsonNamingPolicy.KebabCaseLower.ConvertName($"{word}");

    // What the laboratory said of this fluid last, where that was more than to carry on.
    private static string Laboratory(LiftScene scene) => scene.Step.Spec is ReadSpec read && scene.Card.Opened.SampledBefore is { } samples
        && samples.FirstOrDefault(s => s.Fluid == read.Fluid && s.Leads > LookOutcome.CarryOn) is { } said
            ? $"; laboratory: {said.Says}" : "";

    internal static string High(string text) => text.Length == 0 ? "" : $"{char.ToUpperInvariant(text[0])}{text[1..]}";
}
