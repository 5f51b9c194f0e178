using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Draining;

/// <summary>What came out is measured.</summary>
internal sealed class MeasureCoach : Coach
{
    public override string Kind => "measure";

    public override StepTraits Traits(SheetStep step) => new() { MeasuresOut = true, IsMeasured = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Fluids.ContainsKey(step.What) ? null : "a fluid";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        if (!card.Fluid(step.What).Out)
            yield return new($"The {Words.Low(card.Sheet.Fluids[step.What].Name)} is not out yet.", "Let it out first.",
                card.First(s => s.Traits.LetsOut && card.Sheet.Fasteners[s.What].Drains == step.What), Ground: Ground.Measured);
    }

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        Measure or Weigh => at.NotNow() ?? Measuring.Of(at, at.Sheet.Fluids[at.Step.What], said),
        ConfirmStep => at.NotNow() ?? No("This one needs an amount or a level.", "Enter what you poured or read."),
        Deviate { Kind: DeviationKind.NoReading } d => at.Leave(d,
            $"{at.Sheet.Fluids[at.Step.What].Name}: what came out was not measured, the book's amount goes back", false),
        Deviate d => NeverLeftOut(at, d),
        _ => NotHere(at),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        Measured m => [new FluidMeasured(step.What, m.Amount.Value), new StepEnds(step.Id)],
        DeviationTaken { Kind: DeviationKind.NoReading } left => [new StepLeftOut(step.Id, left.Reason)],
        _ => throw Foreign(happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) =>
        new Measure(step.Id, new(card.Sheet.Fluids[step.What].Amount.Value, Volume.Litre));
}
