using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Filling;

/// <summary>What pouring at either step of a filling has in common.</summary>
internal static class Pouring
{
    /// <summary>The pour, or a question when it strays from the book and nobody has stood by it yet.</summary>
    internal static Decision Warned(Pour said, string warning, bool untilSaid = false) => warning.Length > 0 && !said.WarningSeen
        ? new Asked(new PourQuestion($"{warning} Was it really {said.Amount}?", said.Amount))
            : Yes(new Poured(said.Step, said.Amount, warning, untilSaid));

    /// <summary>What a pour by the marks of a gauge strays from; empty when from nothing.</summary>
    internal static string ByMarks(JobCard card, FluidId fluid, Typed<Volume> amount)
    {
        var (fill, state) = (card.FillOf(fluid), card.Fluid(fluid));
        var warning = fill.Warn(state.Poured, amount.Value, state.Level, state.SinceReading);
        return warning.PassesTop
            ? $"{amount} would bring the oil {warning.Reaches} of the {Words.Low(card.Sheet.Fluids[fluid].Gauge)}. Too much harms seals "
                + "and the particulate filter."
            : warning.OverBook
                ? $"{amount} makes {JobCard.Litres(state.Poured + amount.Value)} in all; the book says "
                    + $"{JobCard.Litres(fill.Book)}. Look for what does not agree."
            : "";
    }
}
