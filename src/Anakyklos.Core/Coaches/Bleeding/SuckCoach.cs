using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Bleeding;

/// <summary>Old fluid is sucked out of its reservoir from above, before fresh fluid goes in.</summary>
internal sealed class SuckCoach : PressedCoach
{
    public override string Kind => "suck";

    public override StepTraits Traits(SheetStep step) => new() { SucksOut = true, CatchesInABottle = true, MayBeLeftOut = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Fluids.ContainsKey(step.What) ? null : "a fluid";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => card.NeedsOpen(card.Sheet.Fluids[step.What].Through);

    // At the press and not at the gate: who has filled it already leaves the step out.
    protected override Decision Pressed(StepAt at, ConfirmStep said) => at.Card.Fluid(at.Step.What).Pours > 0
        || at.Card.Steps.Any(s => s.Traits.Fills && s.What == at.Step.What && at.Card.State(s.Id).Status == StepStatus.Done)
        ? No($"Fresh {Words.Low(at.Sheet.Fluids[at.Step.What].Name)} is in already.", "It is not sucked out again: leave this step out.",
            ground: Ground.Already)
        : base.Pressed(at, said);

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [new FluidRunsOut(step.What),
        new Opens(new(OpenKind.Fluid, step.What), card.Sheet.Fluids[step.What].Name, "sucked out of its reservoir", step.Id)];
}
