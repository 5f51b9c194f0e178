using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;

namespace Anakyklos.Core.Kit;

/// <summary>What came out of one container.</summary>
/// <param name="Can">Its number in the stores.</param>
/// <param name="Product">What is in it.</param>
/// <param name="Batch">Its batch, or empty.</param>
/// <param name="Takes">How much.</param>
public sealed record PouredFrom(int Can, string Product, string Batch, Quantity<Volume> Takes);

/// <summary>One pour, container by container: the whole ones first, and where to stop in the last.</summary>
/// <param name="Amount">All that goes in, in the unit on the container that is poured from first.</param>
/// <param name="From">From which containers, in the order in which they are taken.</param>
/// <param name="Elsewhere">What the stores do not have of it: it comes from a container that they do not know.</param>
/// <param name="Others">The other containers from which it could be poured.</param>
public sealed record PourPlan(Typed<Volume> Amount, IReadOnlyList<ContainerShare> From, Quantity<Volume> Elsewhere,
    IReadOnlyList<OilContainer> Others)
{
    /// <summary>Out of which containers an amount came that is in already, to the last drop.</summary>
    /// <param name="amount">What went in.</param>
    /// <param name="products">The products that were laid out for it.</param>
    /// <param name="shelf">Stores and oil book.</param>
    /// <param name="today">The day.</param>
    /// <param name="first">The container that was poured from before all others; null for none.</param>
    /// <returns>Null where the stores have none of it; less than the amount where they have less.</returns>
    public static IReadOnlyList<PouredFrom>? Emptied(Quantity<Volume> amount, IReadOnlyCollection<string> products, Shelf shelf,
        DateOnly today, int? first) => ContainerShare.Of(products, amount, shelf.Pourable(today), first) is { Count: > 0 } shares
            ? [.. shares.Select(s => new PouredFrom(s.Container.Id, s.Container.Product, s.Container.Batch, s.Takes))] : null;

    /// <summary>How an amount is poured.</summary>
    /// <param name="amount">What is wanted at most.</param>
    /// <param name="products">The products that were laid out for it.</param>
    /// <param name="shelf">Stores and oil book.</param>
    /// <param name="today">The day.</param>
    /// <param name="first">The container that is poured from before all others; null for none.</param>
    /// <param name="cup">The unit of the cup into which it is measured first; null when it is poured by the scale of the container.</param>
    /// <returns>The amount is rounded down to what the scale of the last container can show, and never above what is wanted; whole
    /// containers go in as they are. Null where the stores have none of it.</returns>
    public static PourPlan? Of(Quantity<Volume> amount, IReadOnlyCollection<string> products, Shelf shelf, DateOnly today,
        int? first = null, Unit<Volume>? cup = null)
    {
        IReadOnlyList<OilContainer> pourable = [.. shelf.Pourable(today).Where(c => products.Any(p => PartNumber.Same(c.Product, p)))];
        var wanted = cup is null ? amount : amount.RoundDown(cup);
        var shares = ContainerShare.Of(products, wanted, pourable, first);
        if (shares.Count == 0)
            return null;
        var elsewhere = wanted - Sum(shares);
        var last = shares[^1];
        if (cup is null && !last.EmptiesIt)
        {
            var takes = last.Takes.RoundDown(last.Container.Scale);
            shares = [.. shares.SkipLast(1), new(last.Container, takes, last.Container.Left - takes)];
        }
        return new(new(Sum(shares) + elsewhere, cup ?? shares[0].Container.Scale), shares, elsewhere,
            [.. pourable.Where(c => shares.All(s => s.Container.Id != c.Id))]);
    }

    private static Quantity<Volume> Sum(IReadOnlyList<ContainerShare> shares) =>
        shares.Aggregate(Quantity<Volume>.Zero, (sum, s) => sum + s.Takes);
}
