using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Kit;

/// <summary>Which fluid runs into which pan: everything that comes out must find room, what is measured has a pan of its own, and oil,
/// coolant, fuel and brake fluid never share one. Kit, gate and lift ask here.</summary>
public static class PanPlan
{
    /// <summary>The fluids that steps let out, each once, in the order of the steps.</summary>
    /// <returns>Each once, in the order in which they run out.</returns>
    public static IEnumerable<FluidSystem> Drained(ModelSheet sheet, IEnumerable<SheetStep> steps) =>
        steps.Where(s => s.Traits.LetsOut).Select(s => sheet.Fluids[sheet.Fasteners[s.What].Drains!.Value]).Distinct();

    /// <summary>Whether two fluids may run into one pan.</summary>
    /// <returns>True when both are oils and neither is measured afterwards.</returns>
    public static bool MayShare(FluidSystem a, FluidSystem b) => a.FillBy != FillBy.MeasuredReturn && b.FillBy != FillBy.MeasuredReturn
        && IsOil(a) && IsOil(b);

    /// <summary>The pan of each fluid.</summary>
    /// <param name="drained">What comes out; book amounts count.</param>
    /// <param name="pans">What each pan holds.</param>
    /// <returns>For each fluid, in its order, the index of its pan; null when there is no room.</returns>
    public static IReadOnlyList<int>? Of(IReadOnlyList<FluidSystem> drained, IReadOnlyList<Quantity<Volume>> pans)
    {
        // The largest first: it has the fewest pans to choose from.
        int[] order = [.. Enumerable.Range(0, drained.Count).OrderByDescending(i => drained[i].Amount.Value)];
        var (chosen, left) = (new int[drained.Count], pans.ToArray());
        return Place(0) ? chosen : null;

        bool Place(int at)
        {
            if (at == order.Length)
                return true;
            var fluid = drained[order[at]];
            for (var pan = 0; pan < left.Length; pan++)
            {
                if (left[pan] < fluid.Amount.Value || order.Take(at).Any(i => chosen[i] == pan && !MayShare(drained[i], fluid)))
                    continue;
                (chosen[order[at]], left[pan]) = (pan, left[pan] - fluid.Amount.Value);
                if (Place(at + 1))
                    return true;
                left[pan] += fluid.Amount.Value;
            }
            return false;
        }
    }

    /// <summary>What is wrong with the pans in hand, or null when all that comes out finds room.</summary>
    /// <returns>What is wrong and what to take, or null when the pans suffice.</returns>
    public static Refusal? Short(IReadOnlyList<FluidSystem> drained, IReadOnlyList<Quantity<Volume>> pans)
    {
        if (drained.Count == 0 || Of(drained, pans) is not null)
            return null;
        var comes = string.Join(", ", drained.Select(f => $"{f.Amount.Value.Print(Volume.Litre)} of {Words.Low(f.Name)}"));
        var holds = pans.Count == 1 ? $"The pan holds {pans[0].Print(Volume.Litre)}"
            : $"The pans hold {string.Join(" and ", pans.Select(p => p.Print(Volume.Litre).ToString()))}";
        var own = drained.Count > 1 ? string.Join(" and ", drained.Where(f => drained.Any(o => o != f && !MayShare(f, o)))
            .Select(f => $"the {Words.Low(f.Name)}")) : "";
        return new($"{holds}, but {comes} will come out{(own.Length > 0 ? $", and {own} cannot share one" : "")}.",
            "Take a larger pan or one more and say so at the kit; one that is emptied in between counts twice.");
    }

    /// <summary>The fewest and smallest pans of a crib in which all finds room, or null when even all of them are too small.</summary>
    /// <param name="drained">What comes out.</param>
    /// <param name="crib">The crib's pans; of more than twelve the largest count.</param>
    /// <returns>The fewest pans, of those the smallest; null when not even all of them suffice.</returns>
    public static IReadOnlyList<Stores.DrainPan>? Choose(IReadOnlyList<FluidSystem> drained, IReadOnlyList<Stores.DrainPan> crib)
    {
        var pans = crib.OrderByDescending(p => p.Holds).Take(12).ToList();
        return Enumerable.Range(1, (1 << pans.Count) - 1)
            .Select(mask => pans.Where((_, i) => (mask >> i & 1) != 0).ToList())
            .Where(set => set.Count <= drained.Count)
            .OrderBy(set => set.Count).ThenBy(set => set.Aggregate(Quantity<Volume>.Zero, (sum, p) => sum + p.Holds))
            .FirstOrDefault(set => Of(drained, [.. set.Select(p => p.Holds)]) is not null);
    }

    private static bool IsOil(FluidSystem f) => f.Grades.Value.Any(g => g.StartsWith("SAE", StringComparison.OrdinalIgnoreCase)
        || g.StartsWith("ATF", StringComparison.OrdinalIgnoreCase));
}
