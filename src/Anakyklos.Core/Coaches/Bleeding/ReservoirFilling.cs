using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Bleeding;

/// <summary>What filling a reservoir has in common, at its own step and in between at a wheel.</summary>
internal static class ReservoirFilling
{
    /// <summary>Answers that it was filled: to the upper line, or with less because a can ran empty.</summary>
    internal static Decision Fill(StepAt at, FluidId fluid, FillReservoir said)
    {
        var missing = Reservoir.Of(at.Card, fluid).Missing;
        if (said.Amount is { } amount && amount.Value <= Quantity<Volume>.Zero)
            return No($"{amount} is nothing to fill in.", "Type what went in, or say that it stands at the upper line.", field: "amount");
        if (said.Amount is { } much && much.Value > missing)
            return No($"{much} do not go in: only {Millilitres(missing)} are missing to the upper line.",
                "Type what went in, or say that it stands at the upper line.", field: "amount");
        var filled = said.Amount ?? new(missing, Volume.Millilitre);
        return Yes(new ReservoirFilled(at.Id, filled, filled.Value < missing, filled.Value == Quantity<Volume>.Zero ? null
            : at.Card.Emptied(fluid, filled.Value, at.Facts.Shelf, at.Today, null)));
    }

    /// <summary>What went in; without an amount, on old cards, nobody knows how much.</summary>
    internal static IReadOnlyList<Effect> Goes(JobCard card, FluidId fluid, ReservoirFilled filled) =>
        filled.Filled is { } amount && amount.Value > Quantity<Volume>.Zero ? [new FluidGoesIn(fluid, amount.Value)] : [];

    internal static string Millilitres(Quantity<Volume> amount) => amount.Print(Volume.Millilitre).ToString();
}
