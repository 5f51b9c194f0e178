using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Filling;

/// <summary>What pouring at either step of a filling has in common.</summary>
internal static class Pouring
{
    /// <summary>The pour, or a question when it strays from the book and nobody has stood by it yet.</summary>
    internal static Decision Warned(StepAt at, FluidId fluid, Pour said, string warning, bool untilSaid = false)
    {
        if (at.Card.CannotPourFrom(fluid, said.From, said.Device, at.Facts.Shelf, at.Today) is { } refused)
            return refused;
        if (warning.Length > 0 && !said.WarningSeen)
            return new Asked(new PourQuestion($"{warning} Was it really {said.Amount}?", said.Amount, said.From));
        // What a dispenser metered came out of the one container in which it hangs, whatever the stores' book says that was left there.
        var shelf = said.Device is null ? at.Facts.Shelf
            : at.Facts.Shelf with { Containers = [.. at.Facts.Shelf.Containers.Where(c => c.Id == said.From)] };
        return Yes(new Poured(said.Step, said.Amount, warning, untilSaid,
            at.Card.Emptied(fluid, said.Amount.Value, shelf, at.Today, said.From), said.Device));
    }

    /// <summary>What is told when a dispenser metered something that goes in here; null when what was measured is no volume.</summary>
    internal static Pour? By(DeviceId device, SheetStep step, MeasuredValue measured) =>
        measured is MeasuredVolume { Volume: var amount, From: var from } ? new(step.Id, amount, From: from, Device: device) : null;

    /// <summary>The dispenser that metered a pour; null for none.</summary>
    internal static DeviceId? Metered(CardEvent happened) => (happened as Poured)?.Device;

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
