using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Bleeding;

/// <summary>A reservoir that is bled from is filled to its upper line, from one can or several.</summary>
internal sealed class RefillCoach : Coach
{
    public override string Kind => "refill";

    public override StepTraits Traits(SheetStep step) => new() { Fills = true, IsMeasured = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) => !sheet.Fluids.ContainsKey(step.What) ? "a fluid"
        : Reservoir.HeldBy(sheet, step.What) is null ? "a fluid that a step says how to bleed" : null;

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) =>
        card.NeedsOpen(card.Sheet.Fluids[step.What].Through).Concat(card.OpenPlugs("It would run out there. Tighten it first.",
            f => f.System == step.What));

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        FillReservoir c => at.NotNow() ?? ReservoirFilling.Fill(at, at.Step.What, c),
        ConfirmStep => at.NotNow() ?? No("This one is filled to a line.", "Say that it stands at the upper line, or what went in.",
            ground: Ground.Measured),
        Deviate d => NeverLeftOut(at, d),
        _ => NotHere(at),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        ReservoirFilled { Short: true } filled => ReservoirFilling.Goes(card, step.What, filled),
        ReservoirFilled filled => [.. ReservoirFilling.Goes(card, step.What, filled), new StepEnds(step.Id), new FluidIsIn(step.What),
            new Closes(new(OpenKind.Fluid, step.What))],
        _ => throw Foreign(happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) => new FillReservoir(step.Id);
}
