using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;

namespace Anakyklos.Core.Kit;

/// <summary>Work that is ahead.</summary>
/// <param name="For">Card or plate, for the list.</param>
/// <param name="Sheet">The model's sheet.</param>
/// <param name="Jobs">Jobs.</param>
/// <param name="Steps">The composed steps.</param>
public sealed record PlannedWork(string For, ModelSheet Sheet, IReadOnlyList<JobId> Jobs, IReadOnlyList<SheetStep> Steps)
{
    /// <summary>The fluids it fills in; work with the same steps may share them.</summary>
    public IReadOnlyList<FluidSystem> Fluids { get; init; } = KitCheck.Fluids(Sheet, Steps);

    /// <summary>Its parts, each number once with all its places.</summary>
    internal IReadOnlyList<IReadOnlyList<Part>> Parts { get; init; } = KitCheck.PartsOf(Sheet, Jobs);
}

/// <summary>A line of an order: pieces of a part, or an amount of a product.</summary>
/// <param name="Number">Part number or product.</param>
/// <param name="Name">What it is.</param>
/// <param name="Count">Pieces missing; null for a fluid.</param>
/// <param name="Amount">Amount missing; null for a part.</param>
/// <param name="For">What it is for.</param>
/// <param name="Boat">The day it can be here, or null.</param>
public sealed record OrderLine(string Number, string Name, int? Count, Quantity<Volume>? Amount, IReadOnlyList<string> For, DateOnly? Boat);

/// <summary>Adds up what several cards need beyond what is on the shelf.</summary>
public static class OrderList
{
    /// <summary>The lines of the order. What is on the shelf is promised to the work in its order, each piece and litre once.</summary>
    /// <param name="work">The work ahead.</param>
    /// <param name="shelf">Stores; what is reserved for the same work must count as free.</param>
    /// <param name="today">The day.</param>
    /// <param name="boat">When something can be here.</param>
    /// <returns>Parts by number, then fluids by name; nothing that the shelf has enough of. Parts are filled up to their minimum; one that
    /// is superseded is not.</returns>
    public static IReadOnlyList<OrderLine> Of(IReadOnlyList<PlannedWork> work, Shelf shelf, DateOnly today, Func<string, DateOnly?> boat)
    {
        var free = shelf.Parts.Where(p => p.Reserved > 0).Aggregate(shelf, (all, p) => all.With(p with { Reserved = 0 }));
        var (parts, oils) = (new Dictionary<string, Missing>(), new Dictionary<string, Missing>());
        // What is used up stays so: from then on all that is wanted of it is missing.
        var partGone = new Dictionary<string, Missing>();
        var oilGone = new Dictionary<FluidSystem, Missing>(ReferenceEqualityComparer.Instance);
        var (none, matches) = (new Dictionary<PartId, int>(), new OilMatches(shelf.Oils.Book, null));
        foreach (var w in work)
        {
            foreach (var uses in w.Parts)
                if (partGone.TryGetValue(uses[0].Number.Value, out var gone))
                    gone.Add(w.For, uses.Count, default);
                else
                    TakePart(uses, w.For);
            var left = w.Fluids;
            if (oilGone.Count > 0)
            {
                foreach (var fluid in w.Fluids)
                    if (oilGone.TryGetValue(fluid, out var gone))
                        gone.Add(w.For, 0, fluid.Amount.Value);
                left = [.. w.Fluids.Where(f => !oilGone.ContainsKey(f))];
            }
            if (left.Count > 0)
                foreach (var line in KitCheck.OilLines(w.Sheet, left, free, null, today, matches))
                    TakeOil(line, w.For);
        }
        // What the work leaves there is filled up to what is to lie there at least.
        foreach (var low in free.Parts.Where(p => p.OnShelf < p.Minimum && p.SupersededBy.Length == 0))
            Of(parts, PartNumber.Bare(low.Number), low.Number, low.Name).Add($"the shelf, at least {low.Minimum}",
                low.Minimum - low.OnShelf, default);
        return [.. parts.Values.OrderBy(p => p.Number, StringComparer.Ordinal)
            .Select(p => new OrderLine(p.Number, p.Name, p.Count, null, p.For, boat(p.Number))),
            .. oils.Values.OrderBy(o => o.Number, StringComparer.Ordinal)
                .Select(o => new OrderLine(o.Number, o.Name, null, o.Amount, o.For, boat(o.Number)))];

        void TakePart(IReadOnlyList<Part> uses, string forWhom)
        {
            var line = KitCheck.PartLine(uses, none, free);
            if (line.Found is { OnShelf: > 0 } found)
                free = free.With(found with { OnShelf = Math.Max(0, found.OnShelf - line.Wanted) });
            if (line.Missing == 0)
                return;
            var number = line.Found is { SupersededBy.Length: > 0 } old ? old.SupersededBy : line.Found?.Number ?? line.Number;
            var missing = Of(parts, PartNumber.Bare(number), number, line.Name);
            missing.Add(forWhom, line.Missing, default);
            if (line.Found is not { OnShelf: > 0 })
                partGone[uses[0].Number.Value] = missing;
        }

        void TakeOil(KitOilLine line, string forWhom)
        {
            if (line.Shares.Count > 0)
                free = free with { Containers = [.. free.Containers.Select(c =>
                    line.Shares.FirstOrDefault(s => s.Container.Id == c.Id) is { } share ? c with { Left = share.Leaves } : c)] };
            if (line.Short <= Quantity<Volume>.Zero)
                return;
            var product = line.Chosen?.Product ?? free.Oils.Products.FirstOrDefault(p => matches.Of(p, line.Wanted).Fits);
            var name = product?.Name ?? string.Join(" or ", line.Wanted.Approvals.Concat(line.Wanted.Grades.Select(g => g.Grade)).Take(2));
            var missing = Of(oils, name, name, line.Fluid.Name);
            missing.Add(forWhom, 0, line.Short);
            if (line.Chosen is null)
                oilGone[line.Fluid] = missing;
        }

        static Missing Of(Dictionary<string, Missing> all, string key, string number, string name)
        {
            if (!all.TryGetValue(key, out var missing))
                all[key] = missing = new(number, name);
            return missing;
        }
    }

    private sealed class Missing(string number, string name)
    {
        internal string Number => number;

        internal string Name => name;

        internal int Count { get; private set; }

        internal Quantity<Volume> Amount { get; private set; }

        internal List<string> For { get; } = [];

        // One work after the other is looked at, so that the same one twice stands side by side.
        internal void Add(string forWhom, int count, Quantity<Volume> amount)
        {
            (Count, Amount) = (Count + count, Amount + amount);
            if (For is not [.., var last] || last != forWhom)
                For.Add(forWhom);
        }
    }
}
