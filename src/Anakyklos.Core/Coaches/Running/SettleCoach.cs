using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Running;

/// <summary>The engine is switched off, and what it moved settles. What is under pressure and in sight is looked at before that, while it
/// runs; a leak switches it off at once.</summary>
internal sealed class SettleCoach : PressedCoach
{
    public override string Kind => "settle";

    public override StepTraits Traits(SheetStep step) => new() { Engine = EngineUse.Stops };

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => card.EngineRuns ? []
        : [new("The engine is not running.", "Start it first.", card.First(s => s.Traits.Engine == EngineUse.Starts),
            Ground: Ground.Engine)];

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        SwitchOffDry => at.NotNow() ?? (Decision)(at.Card.JointsInSight.Select(f => f.Id).ToList() is { Count: > 0 } joints
            ? Yes(new SwitchedOffDry(at.Id, joints))
            : No("No joint that this card opened is in sight and under pressure.", "Say that it is switched off.")),
        // It drips while it runs, however long that was to be.
        ReportLeak leak when at.Card.JointsInSight.Any(f => f.Id == leak.Fastener) =>
            at.Unwaiting().NotNow() ?? at.Card.Leaks(at.Id, leak.Fastener),
        _ => base.Decide(at, said),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        SwitchedOffDry => [new StepEnds(step.Id), .. Off],
        LeakFound leak => [.. card.OpensAgain(leak.Fastener), .. Off, .. step.Awaits.Select(w => new WaitEnds(w))],
        _ => base.Effects(card, step, happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) =>
        card.JointsInSight.Any() ? new SwitchOffDry(step.Id) : base.ByTheBook(card, step);

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => Off;

    private static IReadOnlyList<Effect> Off => [new EngineStops(), new Closes(OpenRef.Engine)];
}
