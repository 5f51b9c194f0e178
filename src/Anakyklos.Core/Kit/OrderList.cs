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
public sealed record PlannedWork(string For, ModelSheet Sheet, IReadOnlyList<JobId> Jobs, IReadOnlyList<SheetStep> Steps);

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
    /// <returns>Parts by number, then fluids by name; nothing that the shelf has enough of.</returns>
    public static IReadOnlyList<OrderLine> Of(IReadOnlyList<PlannedWork> work, Shelf shelf, DateOnly today, Func<string, DateOnly?> boat)
    {
        var free = shelf with { Parts = [.. shelf.Parts.Select(p => p with { Reserved = 0 })] };
        var parts = new Dictionary<string, (string Number, string Name, int Count, List<string> For)>();
        var oils = new Dictionary<string, (string Name, Quantity<Volume> Amount, List<string> For)>();
        foreach (var w in work)
        {
            var kit = KitCheck.Of(w.Sheet, w.Jobs, w.Steps, new Dictionary<PartId, int>(), free, null, today);
            foreach (var line in kit.Parts)
            {
                if (line.Found is { } found)
                    free = free with { Parts = [.. free.Parts.Select(p => p == found
                        ? p with { OnShelf = Math.Max(0, p.OnShelf - line.Wanted) } : p)] };
                if (line.Missing == 0)
                    continue;
                var number = line.Found is { SupersededBy.Length: > 0 } old ? old.SupersededBy : line.Found?.Number ?? line.Number;
                var at = parts.GetValueOrDefault(PartNumber.Bare(number), (number, line.Name, 0, []));
                at.For.Add(w.For);
                parts[PartNumber.Bare(number)] = at with { Count = at.Count + line.Missing };
            }
            foreach (var line in kit.Oils)
            {
                free = free with { Containers = [.. free.Containers.Select(c =>
                    line.Shares.FirstOrDefault(s => s.Container.Id == c.Id) is { } share ? c with { Left = share.Leaves } : c)] };
                if (line.Short <= Quantity<Volume>.Zero)
                    continue;
                var product = line.Chosen?.Product ?? free.Oils.Products.FirstOrDefault(p =>
                    OilMatch.Of(p, line.Wanted, free.Oils.Book, null).Fits);
                var name = product?.Name ?? string.Join(" or ",
                    line.Wanted.Approvals.Concat(line.Wanted.Grades.Select(g => g.Grade)).Take(2));
                var at = oils.GetValueOrDefault(name, (line.Fluid.Name, Quantity<Volume>.Zero, []));
                at.For.Add(w.For);
                oils[name] = at with { Amount = at.Amount + line.Short };
            }
        }
        return [.. parts.Values.OrderBy(p => p.Number, StringComparer.Ordinal)
            .Select(p => new OrderLine(p.Number, p.Name, p.Count, null, [.. p.For.Distinct()], boat(p.Number))),
            .. oils.OrderBy(o => o.Key, StringComparer.Ordinal)
                .Select(o => new OrderLine(o.Key, o.Value.Name, null, o.Value.Amount, [.. o.Value.For.Distinct()], boat(o.Key)))];
    }
}
