using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Draining;

/// <summary>How what came out is measured: by volume, or by weight where the sheet says what a litre weighs.</summary>
internal static class Measuring
{
    /// <summary>The measurement, a question where it strays from the book, or what is wrong with it.</summary>
    /// <param name="at">Where.</param>
    /// <param name="fluid">What came out.</param>
    /// <param name="said">A <see cref="Measure"/> or a <see cref="Weigh"/>.</param>
    internal static Decision Of(StepAt at, FluidSystem fluid, CardCommand said) => said switch
    {
        Measure c => Implausible(c.Amount) ?? Came(at, fluid, c.Amount, null, c.Meant),
        Weigh c => Scaled(at, fluid, c),
        _ => throw new ArgumentOutOfRangeException(nameof(said), said, "That measures nothing."),
    };

    // What a scale shows is a weight; the sheet says what a litre weighs.
    private static Decision Scaled(StepAt at, FluidSystem fluid, Weigh said)
    {
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
            : Came(at, fluid, amount, new(said.Full, said.Empty), said.Meant);
    }

    private static Decision Came(StepAt at, FluidSystem fluid, Typed<Volume> amount, Weighed? weighed, bool meant)
    {
        var doubt = Doubt(fluid, amount);
        return doubt is not null && !meant ? new Asked(new MeasureQuestion($"{doubt} Was it really {amount}?", amount, weighed, at.Id))
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
                + "another oil in the same pan."
                + (fluid.FillBy == FillBy.MeasuredReturn ? " No more than the book goes back." : "")
            : null;
    }
}
