using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Stores;

namespace Anakyklos.Core.Cards;

/// <summary>The containers that a card is filled from.</summary>
public sealed partial class JobCard
{
    /// <summary>How an amount is poured, container by container.</summary>
    /// <param name="fluid">Fluid id.</param>
    /// <param name="amount">What is wanted at most.</param>
    /// <param name="shelf">The stores as they stand.</param>
    /// <param name="today">The day.</param>
    /// <param name="first">The container that is poured from first; null for the one that stands there since the last pour, and then as the
    /// stores give them out.</param>
    /// <param name="cup">The unit of the cup into which it is measured first; null when it is poured by the scale of the container.</param>
    /// <returns>Null before the kit was laid out, and where the stores have none of what was.</returns>
    public PourPlan? PlanOfPour(FluidId fluid, Quantity<Volume> amount, Shelf shelf, DateOnly today, int? first = null,
        Unit<Volume>? cup = null) => OilInHand(fluid) is { } oil
            ? PourPlan.Of(amount, oil.Products, shelf, today, first ?? LastCanOf(fluid), cup) : null;

    /// <summary>Out of which containers an amount came that was poured now.</summary>
    /// <param name="fluid">Fluid id.</param>
    /// <param name="amount">What went in.</param>
    /// <param name="shelf">The stores as they stood.</param>
    /// <param name="today">The day.</param>
    /// <param name="first">As for <see cref="PlanOfPour"/>.</param>
    internal IReadOnlyList<PouredFrom>? Emptied(FluidId fluid, Quantity<Volume> amount, Shelf shelf, DateOnly today, int? first) =>
        OilInHand(fluid) is { } oil ? PourPlan.Emptied(amount, oil.Products, shelf, today, first ?? LastCanOf(fluid)) : null;

    /// <summary>What was poured of a fluid on this card, by container, in the order in which they were first poured from.</summary>
    /// <param name="fluid">Fluid id.</param>
    /// <returns>Empty where it came from no container of the stores.</returns>
    public IReadOnlyList<PouredFrom> CansOf(FluidId fluid) => [.. Pours(fluid).SelectMany(p => p.From ?? [])
        .GroupBy(c => c.Can).Select(g => g.Aggregate((sum, c) => sum with { Takes = sum.Takes + c.Takes }))];

    /// <summary>The dispenser that metered what was poured of a fluid, or some of it.</summary>
    /// <param name="fluid">Fluid id.</param>
    /// <returns>Null where none did.</returns>
    public DeviceId? MeteredBy(FluidId fluid) => Pours(fluid).Select(p => p.Device).LastOrDefault(d => d is not null);

    private int? LastCanOf(FluidId fluid) => Pours(fluid).LastOrDefault()?.From?[^1].Can;

    // Also of a step that went with its job: what was poured there stays poured.
    private IEnumerable<IPourEvent> Pours(FluidId fluid)
    {
        var taken = TakenIn(_history);
        return _history.Where(r => !taken.Contains(r.Seq)).Select(r => r.Event).OfType<IPourEvent>()
            .Where(p => (Step(p.Step) ?? Opened.Steps.FirstOrDefault(s => s.Id == p.Step)) is { } step && Sheet.Pours(step)?.Id == fluid);
    }
}
