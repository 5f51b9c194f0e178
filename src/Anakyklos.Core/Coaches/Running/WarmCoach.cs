using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Running;

/// <summary>The engine is run warm and switched off again.</summary>
internal sealed class WarmCoach : PressedCoach
{
    public override string Kind => "warm";

    public override StepTraits Traits(SheetStep step) => new() { Engine = EngineUse.Warms, MayBeLeftOut = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Fluids.ContainsKey(step.What) ? null : "a fluid";

    // What stands in the way of an engine that is started stands in the way of this, too; it is asked for all kinds alike.
    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => [];

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [new EngineHeats()];
}
