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
                card.First(s => s.Traits.LetsOut && card.Sheet.Fasteners[s.What].Drains == step.What));
    }

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        Measure c => at.NotNow() ?? Implausible(c.Amount) ?? Came(at, c.Amount, null, c.Meant),
        Weigh c => at.NotNow() ?? Scaled(at, c),
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

    // What a scale shows is a weight; the sheet says what a litre weighs.
    private static Decision Scaled(StepAt at, Weigh said)
    {
        var fluid = at.Sheet.Fluids[at.Step.What];
        if (fluid.LitreWeighs is not { Value: var litre })
            return No($"Nobody has said what a litre of {Words.Low(fluid.Name)} weighs.", "Measure it by volume.", field: "full");
        if (said.Empty.Value < Quantity<Mass>.Zero)
            return No("A pan weighs nothing or more.", "Type what the empty pan weighs; 0 kg where the scale was set to zero with it.",
                field: "empty");
        if (said.Full.Value <= said.Empty.Value)
            return No($"{said.Full} is no more than the empty pan weighs.", "Type what pan and oil weigh together.", field: "full");
        Typed<Volume> amount = new(Quantity<Volume>.Of((said.Full.Value - said.Empty.Value) / litre, Volume.Litre), Volume.Litre);
        return Implausible(amount) is not null
            ? No($"That makes {amount}, more than any sump here holds.", "Type what the scale showed, with its unit.", field: "full")
            : Came(at, amount, new(said.Full, said.Empty), said.Meant);
    }

    private static Decision Came(StepAt at, Typed<Volume> amount, Weighed? weighed, bool meant)
    {
        var doubt = Doubt(at.Sheet.Fluids[at.Step.What], amount);
        return doubt is not null && !meant ? new Asked(new MeasureQuestion($"{doubt} Was it really {amount}?", amount, weighed))
            : Yes(new Measured(at.Id, amount, weighed, doubt));
    }

    // Twice what the sheet lets it stray: less than that is in what drips, clings and expands.
    private static string? Doubt(FluidSystem fluid, Typed<Volume> amount)
    {
        var (book, stray) = (fluid.Amount.Value, fluid.Tolerance.Value * 2);
        return amount.Value + stray < book
            ? $"Only {amount} came out, and the book has {JobCard.Litres(book)}. It may not all have run out yet, or it was low: then it "
                + "is lost somewhere, and a leak is looked for."
            : amount.Value > book + stray
            ? $"{amount} came out, and the book has {JobCard.Litres(book)}. It was overfilled, or something else is in it: water, fuel, "
                + "another oil in the same pan. No more than the book goes back."
            : null;
    }
}
