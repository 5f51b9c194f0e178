using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;

namespace Anakyklos.Core.Booking;

/// <summary>Something that came out of a vehicle goes into a drum.</summary>
/// <param name="Waste">What it is.</param>
/// <param name="Name">Its name.</param>
/// <param name="Amount">How much; zero for pieces.</param>
/// <param name="Pieces">How many; 0 for fluids.</param>
public sealed record WasteMove(Waste Waste, string Name, Quantity<Volume> Amount, int Pieces);

/// <summary>Says what events of cards bring into the drums.</summary>
public static class WasteMoves
{
    /// <summary>What goes into the drums with an event: what stood in each pan that it empties, and with the last of it the filters that
    /// oil stood in and what was caught in a bottle at the reservoir and the bleed screws.</summary>
    /// <param name="card">The card, with the event.</param>
    /// <param name="e">The event.</param>
    /// <returns>What was measured where it was measured, or else what the book has in it; nothing for most events.</returns>
    public static IReadOnlyList<WasteMove> Of(JobCard card, Recorded e)
    {
        var pans = card.EffectsOf(e.Event).OfType<PanIsEmpty>().Select(p => p.Pan).ToList();
        if (e.Event is PanEmptied one)
            pans.Add(one.Pan);
        var away = e.Event is IStepEvent at && card.Step(at.Step) is { Traits.EmptiesPans: true } step
            && card.State(step.Id).Through?.Seq == e.Seq;
        if (pans.Count == 0 && !away)
            return LateStrokes(card, e);
        var before = JobCard.Replay(card.Sheet, [.. card.History.Take(e.Seq - 1)]);
        var fluids = pans.SelectMany(p => before.Pans[p].In).GroupBy(c => c.Fluid.Id).Select(g => new WasteMove(
            DrumStand.Of(g.First().Fluid), g.First().Fluid.Name, before.Fluid(g.Key).CameOut
                ?? g.Aggregate(Quantity<Volume>.Zero, (sum, c) => sum + c.Amount), 0));
        var filters = away ? card.FiltersOut.Select(p => new WasteMove(Waste.Filters, p.Name, Quantity<Volume>.Zero, 1)) : [];
        return [.. fluids, .. away ? InTheBottle(card) : [], .. filters];
    }

    /// <summary>What was caught in a bottle at the reservoir and the bleed screws of a card so far.</summary>
    /// <param name="card">The card.</param>
    /// <returns>A line a fluid. Nobody measures it: it is what the reservoir holds, where it was sucked out, and what the strokes
    /// drove out.</returns>
    public static IEnumerable<WasteMove> InTheBottle(JobCard card) =>
        from fluid in card.Sheet.Fluids.Values
        where card.Steps.Any(s => s.Spec is BleedSpec bleed && bleed.Fluid == fluid.Id)
        let stands = Reservoir.Of(card, fluid.Id)
        let sucked = card.Steps.Any(s => s.Traits.SucksOut && s.What == fluid.Id && card.State(s.Id).Status == StepStatus.Done)
        let amount = stands.DrivenOut + (sucked ? stands.Holds : Quantity<Volume>.Zero)
        where amount > Quantity<Volume>.Zero
        select new WasteMove(DrumStand.Of(fluid), fluid.Name, amount, 0);

    // Bled once more after all was taken away: each lot goes after it.
    private static IReadOnlyList<WasteMove> LateStrokes(JobCard card, Recorded e) =>
        e.Event is StrokesMade made && card.Step(made.Step)?.Spec is BleedSpec spec
            && card.Steps.Any(s => s.Traits.EmptiesPans && card.State(s.Id).Through is { } away && away.Seq < e.Seq)
            ? [new(DrumStand.Of(card.Sheet.Fluids[spec.Fluid]), card.Sheet.Fluids[spec.Fluid].Name, spec.PerStroke * made.Strokes, 0)] : [];
}
