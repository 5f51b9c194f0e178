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

    /// <summary>The fluids that steps let out, in groups that are out at the same time: where one of them must be out before the drain plug
    /// of the other goes in, no pan can be emptied between the two.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="steps">The steps, each naming what comes before it.</param>
    /// <returns>Each fluid in one group, in the order in which they run out.</returns>
    public static IReadOnlyList<IReadOnlyList<FluidSystem>> Together(ModelSheet sheet, IReadOnlyList<SheetStep> steps)
    {
        var byId = steps.ToDictionary(s => s.Id);
        var groups = new List<List<FluidSystem>>();
        foreach (var drain in steps.Where(s => s.Traits.LetsOut))
        {
            var closing = steps.Where(s => s.Traits.Fastens && s.What == drain.What).SelectMany(s => Before(s, byId)).Append(drain.Id);
            var here = closing.Distinct().Select(id => byId[id]).Where(s => s.Traits.LetsOut)
                .Select(s => sheet.Fluids[sheet.Fasteners[s.What].Drains!.Value]).Distinct().ToList();
            var met = groups.Where(g => g.Intersect(here).Any()).ToList();
            groups.RemoveAll(met.Contains);
            groups.Add([.. met.SelectMany(g => g).Concat(here).Distinct()]);
        }
        var order = Drained(sheet, steps).ToList();
        return [.. groups.Select(g => g.OrderBy(order.IndexOf).ToList()).OrderBy(g => order.IndexOf(g[0]))];
    }

    // Everything that must be done before a step, however far back.
    private static HashSet<StepId> Before(SheetStep step, Dictionary<StepId, SheetStep> byId)
    {
        var (found, ask) = (new HashSet<StepId>(), new Stack<SheetStep>([step]));
        while (ask.TryPop(out var at))
            foreach (var id in at.After.Concat(at.Awaits).Where(i => byId.ContainsKey(i) && found.Add(i)))
                ask.Push(byId[id]);
        return found;
    }

    /// <summary>Whether two fluids may run into one pan.</summary>
    /// <returns>True when both are oils and neither is measured afterwards.</returns>
    public static bool MayShare(FluidSystem a, FluidSystem b) => a.FillBy != FillBy.MeasuredReturn && b.FillBy != FillBy.MeasuredReturn
        && IsOil(a) && IsOil(b);

    /// <summary>What runs over when a fluid is filled until it does, and finds its pan below: as much as the sheet lets it stray.</summary>
    /// <param name="fluid">The fluid.</param>
    /// <returns>Zero where nothing runs over.</returns>
    public static Quantity<Volume> RunsOver(FluidSystem fluid) =>
        fluid.FillBy == FillBy.Overflow ? fluid.Tolerance.Value : Quantity<Volume>.Zero;

    /// <summary>The pan of each fluid, into empty pans.</summary>
    /// <param name="drained">What comes out; book amounts count.</param>
    /// <param name="pans">What each pan holds.</param>
    /// <returns>For each fluid, in its order, the index of its pan; null when there is no room for all of them at once.</returns>
    public static IReadOnlyList<int>? Of(IReadOnlyList<FluidSystem> drained, IReadOnlyList<Quantity<Volume>> pans) =>
        Of([.. drained.Select(f => (f, f.Amount.Value))], [.. pans.Select(p => new PanInUse(p))]);

    /// <summary>The pan of each fluid, into pans that may hold something already.</summary>
    /// <param name="coming">What comes out, and how much.</param>
    /// <param name="pans">The pans with what is in them.</param>
    /// <returns>For each fluid, in its order, the index of its pan; null when there is no room for all of them at once.</returns>
    public static IReadOnlyList<int>? Of(IReadOnlyList<(FluidSystem Fluid, Quantity<Volume> Amount)> coming, IReadOnlyList<PanInUse> pans)
    {
        // The largest first: it has the fewest pans to choose from.
        int[] order = [.. Enumerable.Range(0, coming.Count).OrderByDescending(i => coming[i].Amount)];
        var (chosen, stands) = (new int[coming.Count], pans.ToArray());
        return Place(0) ? chosen : null;

        bool Place(int at)
        {
            if (at == order.Length)
                return true;
            var (fluid, amount) = coming[order[at]];
            for (var pan = 0; pan < stands.Length; pan++)
            {
                var before = stands[pan];
                if (!before.Takes(fluid, amount))
                    continue;
                (chosen[order[at]], stands[pan]) = (pan, before.With(fluid, amount));
                if (Place(at + 1))
                    return true;
                stands[pan] = before;
            }
            return false;
        }
    }

    /// <summary>The pan that a fluid runs into now: one that leaves room for what comes later, where there is such a one.</summary>
    /// <param name="fluid">The fluid, and how much of it comes.</param>
    /// <param name="before">What must find room too before any pan can be emptied.</param>
    /// <param name="later">What comes after that.</param>
    /// <param name="pans">The pans with what is in them.</param>
    /// <param name="stands">Whether a pan stands below something that still runs: another is taken where it can be.</param>
    /// <returns>Its index; null when none has room for it now.</returns>
    public static int? Into((FluidSystem Fluid, Quantity<Volume> Amount) fluid,
        IReadOnlyList<(FluidSystem Fluid, Quantity<Volume> Amount)> before,
        IReadOnlyList<(FluidSystem Fluid, Quantity<Volume> Amount)> later, IReadOnlyList<PanInUse> pans, Func<PanInUse, bool> stands)
    {
        int[] order = [.. Enumerable.Range(0, pans.Count).Where(i => pans[i].Takes(fluid.Fluid, fluid.Amount))
            .OrderBy(i => stands(pans[i]))];
        bool Leaves(int pan, IReadOnlyList<(FluidSystem, Quantity<Volume>)> room) =>
            Of(room, [.. pans.Select((p, i) => i == pan ? p.With(fluid.Fluid, fluid.Amount) : p)]) is not null;
        return order.Where(i => Leaves(i, [.. before, .. later])).Concat(order.Where(i => Leaves(i, before))).Select(i => (int?)i)
            .FirstOrDefault();
    }

    /// <summary>The pan that is emptied so that a fluid finds room.</summary>
    /// <param name="fluid">The fluid, and how much of it comes.</param>
    /// <param name="pans">The pans with what is in them.</param>
    /// <param name="wanted">Whether a fluid must stay where it is, since it still runs or has not been measured.</param>
    /// <returns>Its index: the smallest that would hold it; null when none may be emptied that would.</returns>
    public static int? ToEmpty((FluidSystem Fluid, Quantity<Volume> Amount) fluid, IReadOnlyList<PanInUse> pans,
        Func<FluidSystem, bool> wanted) => Enumerable.Range(0, pans.Count)
            .Where(i => pans[i].In.Count > 0 && new PanInUse(pans[i].Holds).Takes(fluid.Fluid, fluid.Amount)
                && !pans[i].In.Any(c => wanted(c.Fluid)))
            .OrderBy(i => pans[i].Holds).Select(i => (int?)i).FirstOrDefault();

    /// <summary>What is wrong with the pans in hand, or null when all that is out at the same time finds room; between such groups a pan
    /// is emptied.</summary>
    /// <param name="together">The groups.</param>
    /// <param name="pans">What each pan holds.</param>
    /// <returns>What is wrong with the first group that finds none, and what to take; null when the pans suffice.</returns>
    public static Refusal? Short(IReadOnlyList<IReadOnlyList<FluidSystem>> together, IReadOnlyList<Quantity<Volume>> pans)
    {
        if (together.FirstOrDefault(g => Of(g, pans) is null) is not { } drained)
            return null;
        var comes = string.Join(", ", drained.Select(f => $"{f.Amount.Value.Print(Volume.Litre)} of {Words.Low(f.Name)}"));
        var holds = pans.Count == 0 ? "No pan is here"
            : pans.Count == 1 ? $"The pan holds {pans[0].Print(Volume.Litre)}"
            : $"The pans hold {string.Join(" and ", pans.Select(p => p.Print(Volume.Litre).ToString()))}";
        var own = drained.Count > 1 ? string.Join(" and ", drained.Where(f => drained.Any(o => o != f && !MayShare(f, o)))
            .Select(f => $"the {Words.Low(f.Name)}")) : "";
        return new($"{holds}, but {comes} will come out{(drained.Count > 1 ? " together" : "")}"
            + $"{(own.Length > 0 ? $", and {own} cannot share one" : "")}.", "Take a larger pan or one more and say so at the kit.");
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
