using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Running;

/// <summary>The engine is started and runs on.</summary>
internal sealed class RunCoach : PressedCoach
{
    public override string Kind => "run";

    public override StepTraits Traits(SheetStep step) => new() { Engine = EngineUse.Starts };

    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Fluids.ContainsKey(step.What) ? null : "a fluid";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => [];

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) =>
        [new EngineStarts(), new Opens(OpenRef.Engine, "Engine running", "until it is switched off", step.Id)];
}
