using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Draining;

/// <summary>What the pans caught goes into its drums, with filters and rags.</summary>
internal sealed class EmptyCoach : PressedCoach
{
    public override string Kind => "empty";

    public override StepTraits Traits(SheetStep step) => new() { EmptiesPans = true, Engine = EngineUse.Either, MayBeLeftOut = true };

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => card.BeforeEmptying();

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) =>
        Enumerable.Range(0, card.Pans.Count).Where(i => card.Pans[i].In.Count > 0).Select(i => new PanIsEmpty(i));
}
