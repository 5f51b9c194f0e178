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

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) =>
        new ConfirmStep(step.Id, LookedAbove: AsksToLookAbove(card));

    protected override bool AsksToLookAbove(JobCard card) => card.ToolsAbove.Count > 0;

    // It is warmed before most of the work, and then nothing is looked over; only who worked up there before has to look.
    protected override Decision Pressed(StepAt at, ConfirmStep said) => AsksToLookAbove(at.Card) && !said.LookedAbove
        ? Decision.No($"There was work in the engine bay: {string.Join(", ", at.Card.ToolsAbove)}.",
            "Look it over for tools and rags, then say that nothing lies there.", field: "lookedAbove")
        : base.Pressed(at, said) is Accepted ? Decision.Yes(new StepDone(at.Id, LookedAbove: said.LookedAbove)) : base.Pressed(at, said);

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [new EngineHeats()];
}
