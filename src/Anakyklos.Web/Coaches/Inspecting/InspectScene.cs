using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Records;
using Anakyklos.Core.Sheets;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Inspecting;

/// <summary>A list of inspections: the point that is next with what passes, where it sits, what was found at the others, and what the last
/// card of the vehicle had there.</summary>
public sealed class InspectScene : WorkScene
{
    private const string Here = "~/Coaches/Inspecting/";

    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["inspect"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        var inspection = Inspection.Of(scene.Card, scene.Step);
        scene.Point = scene.IsDone ? null : inspection.Spec.Points.FirstOrDefault(p => p.Id == to.Point) ?? inspection.Next;
        scene.Pictures = new(Here + "_List.cshtml", "", PointPicture.Of(scene) is null ? "" : Here + "_Where.cshtml");
        if (scene.Point is not { } point)
        {
            foreach (var (p, found) in inspection.Spec.Points.Select(p => (p, inspection.At(p))).Where(f => f.Item2 is not null))
                scene.Facts.Add(new(p.Name, Says(found!)));
            return;
        }
        scene.Pictures = scene.Pictures with { Middle = Here + "_Point.cshtml" };
        Before(scene, point, to.Today);
        if (point.Measure is { } ask)
        {
            (scene.Number, scene.Unit) = Figure(ask);
            scene.Sends = ("measured", "That is the reading");
            if (inspection.At(point) is { Settled: false })
                scene.Others.Add(new("It stays so", "stays", "y", Fields: [("point", point.Id)]));
            return;
        }
        if (inspection.At(point) is { Settled: false })
            scene.Others.Add(new("It cannot be put right", "stays", "y", Fields: [("point", point.Id)]));
        scene.Main = new(High(point.Answers[0].Says), "answered", ("point", point.Id), ("says", point.Answers[0].Says),
            ("again", IsSettled(scene) ? "yes" : "no"));
        if (inspection.RestIsAnswered && point == inspection.Next)
            scene.Others.Add(new(inspection.Left.All(p => p.Answers[0].Says == point.Answers[0].Says)
                ? $"All {inspection.Left.Count}: {point.Answers[0].Says}" : $"All {inspection.Left.Count} as they should be", "rest", "a"));
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e switch
    {
        PointInspected p => $"{Name(card, p.Step, p.Point)}: {Reads(p.Reads)}{Outcome(p.Outcome)}",
        PointStays p => $"{Name(card, p.Step, p.Point)} stays as it is",
        _ => null,
    };

    /// <summary>How a point was found and left, in words.</summary>
    public static string Says(PointFound found) => Says(found.Found, found.Left);

    /// <inheritdoc cref="Says(PointFound)"/>
    public static string Says(InspectedLine line) => Says(line.Found, line.Left);

    private static string Says(string found, string left) => found == left ? Reads(left) : $"{Reads(left)}, found {Reads(found)}";

    /// <summary>What was read, as a person reads it: rounded, several with a comma between.</summary>
    public static string Reads(string written)
    {
        var all = written.Split("; ").Select(Gauged.Find).ToList();
        return all.Exists(g => g is null) ? written
            : string.Join(", ", all.SkipLast(1).Select(g => g!.Value.Number).Append(all[^1]!.Value.ToString()));
    }

    /// <summary>What passes on the other scales of its kind, such as "33 to 35 psi"; empty where there is none.</summary>
    public static IReadOnlyList<string> Elsewhere(GaugeAsk ask) => [.. ask.In.Others.Select(o => (ask.Low?.On(o), ask.High?.On(o)) switch
    {
        ({ } low, { } high) => $"{low.Number} to {high}",
        ({ } low, null) => $"at least {low}",
        (null, { } high) => $"at most {high}",
        _ => "",
    }).Where(s => s.Length > 0)];

    /// <summary>Shows how far an adjuster is turned, at a step that comes after a reading which tells it.</summary>
    internal static void TellTurns(LiftScene scene)
    {
        // The plan keeps only the nearest of what comes before; the sheet has them all.
        IEnumerable<StepId> after = scene.Card.Sheet.Steps.TryGetValue(scene.Step.Id, out var own) ? own.After : [];
        // What was measured after it was set, and did not pass, tells it anew.
        var anew = scene.Card.Steps.Where(s => s.Spec is InspectSpec { Slackens: { } held } && scene.Step.Needs.Contains(held));
        foreach (var before in after.Select(scene.Card.Step).OfType<SheetStep>().Where(s => s.Spec is InspectSpec).Concat(anew))
            foreach (var point in ((InspectSpec)before.Spec!).Points.Where(p => p.Measure is { PerTurn: not null }))
                if (scene.Card.FoundAt(before.Id).FirstOrDefault(f => f.Point == point.Id) is { } found
                    && Gauged.Find(found.Left) is { } read)
                {
                    (scene.Number, scene.Unit) = Inspection.Turns(point.Measure!, read) is { } turns && turns != 0
                        ? (Quarters(Math.Abs(turns)), turns > 0 ? "turn tighter" : "turn looser") : ("0", "it passes as it is");
                    scene.Beside = [$"Found {read}"];
                }
    }

    /// <summary>Says at what is slackened once more which reading asked for it.</summary>
    internal static void TellWhySlackened(LiftScene scene)
    {
        var what = scene.Step.Traits.Opens ? scene.Step.What.Text : "";
        foreach (var set in scene.Card.Steps.Where(s => s.Spec is InspectSpec { Slackens: { } held } && held.Text == what))
            foreach (var found in scene.Card.FoundAt(set.Id).Where(f => !f.Settled))
                scene.Beside = [$"{TooMuchOrLittle(found)}: set it again"];
    }

    /// <summary>Whether the point that is shown was settled before: whoever chose it from the list does it once more.</summary>
    internal static bool IsSettled(LiftScene scene) =>
        scene.Card.FoundAt(scene.Step.Id).FirstOrDefault(f => f.Point == scene.Point?.Id) is { Settled: true };

    /// <summary>What was read last at the point and does not pass, as a sentence without a full stop; empty where nothing was.</summary>
    internal static string Outside(LiftScene scene) => scene.Card.FoundAt(scene.Step.Id).FirstOrDefault(f => f.Point == scene.Point?.Id)
        is not { Settled: false } found ? "" : found.Outcome == PointOutcome.Amiss ? $"{High(found.Left)}: that is not right"
            : TooMuchOrLittle(found);

    private static string TooMuchOrLittle(PointFound found) =>
        $"{Reads(found.Left)} is too {(found.Outcome == PointOutcome.TooLittle ? "little" : "much")}";

    internal static string High(string text) => AnswerForm.High(text);

    /// <summary>What was found at the point before, where that became a finding; empty for nothing.</summary>
    internal static string JustFound(LiftScene scene) => scene.Card.History is { Count: > 0 } all && all[^1].Event is FindingNoted f
        && f.Step == scene.Step.Id && all.Any(h => h.Command == all[^1].Command && h.Event is PointInspected) ? f.Text : "";

    /// <summary>What is done about the answer that was given last and is not right; empty for none.</summary>
    internal static string Mends(LiftScene scene) => scene.Point is { } point
        && scene.Card.FoundAt(scene.Step.Id).FirstOrDefault(f => f.Point == point.Id)
            is { Settled: false, Outcome: PointOutcome.Amiss } found
        ? point.Answers.FirstOrDefault(a => a.Says == found.Left)?.Means ?? "" : "";

    private static string Quarters(decimal turns) => (Math.Truncate(turns), turns - Math.Truncate(turns)) switch
    {
        (0, 0.25m) => "1/4",
        (0, 0.5m) => "1/2",
        (0, 0.75m) => "3/4",
        (var whole, 0) => $"{whole:0}",
        var (whole, part) => $"{whole:0} {Quarters(part)}",
    };

    private static (string Number, string Unit) Figure(GaugeAsk ask) => (ask.Low, ask.High) switch
    {
        ({ } low, { } high) when low != high => ($"{low.Number} to {high.Number}", ask.In.Symbol),
        ({ } low, null) => (low.Number, $"{ask.In.Symbol} at least"),
        (null, { } high) => (high.Number, $"{ask.In.Symbol} at most"),
        ({ } low, _) => (low.Number, ask.In.Symbol),
        _ => ("", ""),
    };

    private static void Before(LiftScene scene, InspectPoint point, DateOnly today)
    {
        if (scene.Card.InspectedBefore(scene.Step.Id, point.Id) is not { } before)
            return;
        var (_, next) = scene.Card.WearOf(scene.Step, point.Id, before.Least, today);
        scene.Facts.Add(new("Last time", $"{before.Least} at {OdometerText.Of(before.Odometer, Distance.Kilometre)}, "
            + $"{before.Day:d MMM yyyy}" + (next is { } far ? $"; next service in {OdometerText.Of(far, Distance.Kilometre)}" : "")));
    }

    /// <summary>What followed, to be put behind what was read; empty where nothing did.</summary>
    public static string Outcome(PointOutcome outcome) => outcome switch
    {
        PointOutcome.Good => "",
        PointOutcome.TooLittle => ", too little",
        PointOutcome.TooMuch => ", too much",
        PointOutcome.Watch => ", keep an eye on it",
        PointOutcome.Plan => ", plan it",
        PointOutcome.Stop => ", the lead decides",
        PointOutcome.Amiss => ", not right",
        _ => throw new ArgumentOutOfRangeException(nameof(outcome), outcome, "Nobody has said what that means."),
    };

    private static string Name(JobCard card, StepId step, string point) =>
        (card.StepEver(step)?.Spec as InspectSpec)?.Points.FirstOrDefault(p => p.Id == point)?.Name ?? point;
}
