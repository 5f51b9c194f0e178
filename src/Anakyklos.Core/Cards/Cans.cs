using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

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

    /// <summary>How much of what went in dispensers metered.</summary>
    /// <param name="fluid">Fluid id.</param>
    public Quantity<Volume> Metered(FluidId fluid) => Pours(fluid).Where(p => p.Device is not null)
        .Aggregate(Quantity<Volume>.Zero, (sum, p) => sum + p.Amount.Value);

    /// <summary>Why a fluid cannot come out of the container that was named: it must be one of the stores, with something left of what was
    /// laid out.</summary>
    /// <param name="fluid">Fluid id.</param>
    /// <param name="from">The container's number; null where none was named.</param>
    /// <param name="device">The dispenser that metered it; null for none.</param>
    /// <param name="shelf">The stores as they stand.</param>
    /// <param name="today">The day.</param>
    /// <returns>Null when it can.</returns>
    internal Refused? CannotPourFrom(FluidId fluid, int? from, DeviceId? device, Shelf shelf, DateOnly today)
    {
        if (from is not { } number)
            return null;
        if (shelf.Containers.FirstOrDefault(c => c.Id == number) is not { } can)
            return No($"There is no container {number} in the stores.", "Take one that is shown, or book it in first.", field: "from",
                ground: Ground.Container);
        var name = $"{char.ToUpperInvariant(can.Name[0])}{can.Name[1..]}";
        if (OilInHand(fluid) is not { } oil || !oil.Products.Any(p => PartNumber.Same(p, can.Product)))
            return No($"{name} holds {can.Product}, and {OilInHand(fluid)?.Product ?? "nothing"} was laid out.",
                device is null ? "Say at the kit that it goes in, or pour what was laid out."
                    : "It is in: say at the kit that it goes in, or let it out again, discard this and pour what was laid out.",
                Steps.FirstOrDefault(s => s.Traits.LaysOut)?.Id, "from", ground: Ground.Container);
        if (can.Left == Quantity<Volume>.Zero)
            return No($"{name} is empty by the stores' book.", "Pour from another, or count it in the stores.", field: "from",
                ground: Ground.Container);
        return shelf.IsOpenTooLong(can, today)
            ? No($"{name} has been open since {can.Opened:yyyy-MM-dd}; {can.Product} is poured within "
                + $"{shelf.Oils.Find(can.Product)!.OpenDays} days.", "Open a new one.", field: "from", ground: Ground.Container) : null;
    }

    private int? LastCanOf(FluidId fluid) => Pours(fluid).LastOrDefault()?.From?[^1].Can;

    // Also of a step that went with its job: what was poured there stays poured.
    private IEnumerable<IPourEvent> Pours(FluidId fluid)
    {
        var taken = TakenIn(_history);
        return _history.Where(r => !taken.Contains(r.Seq)).Select(r => r.Event).OfType<IPourEvent>()
            .Where(p => (Step(p.Step) ?? Opened.Steps.FirstOrDefault(s => s.Id == p.Step)) is { } step && Sheet.Pours(step)?.Id == fluid);
    }
}
