using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;

namespace Anakyklos.Core.Kit;

/// <summary>What is taken from a container, and what stays in it.</summary>
/// <param name="Container">The container.</param>
/// <param name="Takes">What is taken.</param>
/// <param name="Leaves">What will be left.</param>
public sealed record ContainerShare(OilContainer Container, Quantity<Volume> Takes, Quantity<Volume> Leaves)
{
    /// <summary>Whether nothing is left in it.</summary>
    public bool EmptiesIt => Leaves == Quantity<Volume>.Zero;

    /// <summary>From which containers a fill comes: opened ones first, the oldest before the others, then the smallest that are still shut.
    /// Less than the amount when there is less.</summary>
    /// <param name="products">Names of the products that may be taken.</param>
    /// <param name="amount">How much is wanted.</param>
    /// <param name="containers">The containers that may be poured from, with what is left in each.</param>
    /// <param name="first">The container that is poured from before all others; null for none.</param>
    /// <returns>Their sum is the amount, or less when there is not enough.</returns>
    public static IReadOnlyList<ContainerShare> Of(IReadOnlyCollection<string> products, Quantity<Volume> amount,
        IEnumerable<OilContainer> containers, int? first = null)
    {
        var shares = new List<ContainerShare>();
        foreach (var c in containers.Where(c => products.Any(p => PartNumber.Same(c.Product, p)) && c.Left > Quantity<Volume>.Zero)
            .OrderBy(c => c.Id != first).ThenBy(c => c.Opened is null).ThenBy(c => c.Opened).ThenBy(c => c.Left).ThenBy(c => c.Id))
        {
            if (amount <= Quantity<Volume>.Zero)
                break;
            var takes = amount < c.Left ? amount : c.Left;
            shares.Add(new(c, takes, c.Left - takes));
            amount -= takes;
        }
        return shares;
    }
}
