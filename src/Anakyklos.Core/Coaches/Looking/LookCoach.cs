using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Looking;

/// <summary>
/// Opened joints are looked at for leaks, each by itself or all at once. One that weeps is wiped and looked at again; one that weeps again,
/// or leaks, is open.
/// </summary>
internal sealed class LookCoach : PressedCoach
{
    // A film shows again within minutes, or it was a rest of the work.
    private static readonly TimeSpan ShowsIn = TimeSpan.FromMinutes(5);

    public override string Kind => "look";

    public override StepTraits Traits(SheetStep step) => new() { LooksAtJoints = true, Engine = EngineUse.Either };

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        foreach (var r in card.OpenPlugs("Tighten it first."))
            yield return r;
        if (card.ClosedSinceRun || (!card.HasRun && card.Steps.Any(s => s.Traits.Engine == EngineUse.Starts)))
            yield return new("The engine has not run since the joints were closed.", "A leak shows only after it has run. Start it first.",
                card.First(s => s.Traits.Engine == EngineUse.Starts), Ground: Ground.Looked);
    }

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        // A leak is told whenever it is seen.
        ReportLeak leak => IsOpened(at, leak.Fastener) ? at.Card.Leaks(at.Id, leak.Fastener) : NotHere(at),
        ReportDry dry => IsOpened(at, dry.Fastener) ? Dry(at, dry.Fastener) : NotHere(at),
        ReportWeep weep => IsOpened(at, weep.Fastener) ? Weeps(at, weep.Fastener) : NotHere(at),
        _ => base.Decide(at, said),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        LeakFound leak => [.. card.OpensAgain(leak.Fastener), new StepBeginsAgain(step.Id), new WaitEnds(step.Id)],
        JointDry dry => [new JointLooks(step.Id, dry.Fastener, JointLook.Dry),
            .. IsLast(card, step, dry.Fastener) ? Ends(step) : []],
        JointWept wept => [new JointLooks(step.Id, wept.Fastener, JointLook.Wept),
            new WaitBegins(step.Id, $"Wiped: {Words.Low(card.Sheet.Fasteners[wept.Fastener].Name)}", wept.Again)],
        _ => base.Effects(card, step, happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) => FirstWept(card, step) is { } wept
        ? new ReportDry(step.Id, wept.Id) : base.ByTheBook(card, step);

    protected override Decision Pressed(StepAt at, ConfirmStep said) => FirstWept(at.Card, at.Step) is { } wept
        ? No($"The {Words.Low(wept.Name)} wept and was wiped.", "Look at it again, and say by itself what it does now.",
            ground: Ground.Looked)
        : base.Pressed(at, said);

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [new JointsSeen()];

    private static bool IsOpened(StepAt at, FastenerId joint) => at.Card.JointsOpened.Any(f => f.Id == joint);

    private static Fastener? FirstWept(JobCard card, SheetStep step) =>
        card.JointsOpened.FirstOrDefault(f => card.JointAt(step.Id, f.Id) == JointLook.Wept);

    private static bool IsLast(JobCard card, SheetStep step, FastenerId joint) =>
        card.JointsOpened.All(f => f.Id == joint || card.JointAt(step.Id, f.Id) == JointLook.Dry);

    private static IEnumerable<Effect> Ends(SheetStep step) => [new WaitEnds(step.Id), new StepEnds(step.Id), new JointsSeen()];

    // While one is left to show itself, the others are looked at.
    private static Decision Dry(StepAt at, FastenerId joint) =>
        (at.Card.JointAt(at.Id, joint) == JointLook.Wept ? at.NotNow() : at.Unwaited.NotNow())
            ?? (Decision)Yes(new JointDry(at.Id, joint));

    // What comes back after it was wiped is no rest of the work.
    private static Decision Weeps(StepAt at, FastenerId joint) => at.Card.JointAt(at.Id, joint) == JointLook.Wept
        ? at.Card.Leaks(at.Id, joint)
        : at.Unwaited.NotNow() ?? (Decision)Yes(new JointWept(at.Id, joint, ShowsIn));
}
