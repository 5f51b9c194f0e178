using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Running;

/// <summary>The engine is switched off, and what it moved settles.</summary>
internal sealed class SettleCoach : PressedCoach
{
    public override string Kind => "settle";

    public override StepTraits Traits(SheetStep step) => new() { Engine = EngineUse.Stops };

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => card.EngineRuns ? []
        : [new("The engine is not running.", "Start it first.", card.First(s => s.Traits.Engine == EngineUse.Starts))];

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) =>
        [new EngineStops(), new Closes(OpenRef.Engine)];
}
