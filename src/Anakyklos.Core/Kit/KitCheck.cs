using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Kit;

/// <summary>Works out what a card needs and holds it against the shelf and the crib.</summary>
public static class KitCheck
{
    /// <summary>The kit of a card.</summary>
    /// <param name="sheet">The model's sheet.</param>
    /// <param name="jobs">Jobs of the card.</param>
    /// <param name="steps">Its steps in their order.</param>
    /// <param name="sealsUsedAgain">Seals of this vehicle that were used again, and how often.</param>
    /// <param name="shelf">Stores and crib. What is reserved for this very card must count as free.</param>
    /// <param name="climate">The weather the oils must bear, or null.</param>
    /// <param name="today">The day, for calibrations.</param>
    /// <returns>Parts by number, oils, tools by size, wrenches and pans, each with how it stands.</returns>
    public static KitList Of(ModelSheet sheet, IEnumerable<JobId> jobs, IReadOnlyList<SheetStep> steps,
        IReadOnlyDictionary<PartId, int> sealsUsedAgain, Shelf shelf, Climate? climate, DateOnly today)
    {
        var fasteners = steps.Where(s => s.Traits.Fastens || s.Traits.Checks).Select(s => sheet.Fasteners[s.What]).Distinct().ToList();
        var fluids = Fluids(sheet, steps);
        return new(PartLines(sheet, jobs, sealsUsedAgain, shelf), OilLines(sheet, fluids, shelf, climate, today),
            ToolLines(sheet, steps, fasteners, shelf),
            [.. steps.Where(s => s.Traits.Fastens || s.Traits.Checks).Select(s => (Fastener: sheet.Fasteners[s.What], s.Traits.Checks))
                .SelectMany(s => s.Fastener.Plan(s.Checks).Torques.Select(t => (s.Fastener, Torque: t))).Distinct()
                .Select(t => TorqueLine(t.Fastener, t.Torque, shelf, today))],
            PanLine(sheet, steps, shelf),
            [.. fluids.Where(f => f.FillBy == FillBy.Overflow)],
            [.. steps.Where(s => s.Traits.Opens && sheet.Fasteners.ContainsKey(s.What)).Select(s => sheet.Fasteners[s.What])
                .Where(f => f.Drips).Distinct()]);
    }

    /// <summary>The fluids that steps fill in, each once.</summary>
    internal static IReadOnlyList<FluidSystem> Fluids(ModelSheet sheet, IEnumerable<SheetStep> steps) =>
        [.. steps.Where(s => s.Traits.Fills).Select(s => sheet.Fluids[s.What]).Distinct()];

    /// <summary>The parts of jobs, each number once, held against the shelf.</summary>
    internal static IReadOnlyList<KitPartLine> PartLines(ModelSheet sheet, IEnumerable<JobId> jobs,
        IReadOnlyDictionary<PartId, int> sealsUsedAgain, Shelf shelf) =>
        [.. PartsOf(sheet, jobs).Select(uses => PartLine(uses, sealsUsedAgain, shelf))];

    /// <summary>The parts of jobs, each number once with all its places.</summary>
    internal static IReadOnlyList<IReadOnlyList<Part>> PartsOf(ModelSheet sheet, IEnumerable<JobId> jobs) =>
        [.. jobs.SelectMany(j => sheet.Jobs[j].Parts).Distinct().Select(id => sheet.Parts[id])
            .GroupBy(p => PartNumber.Bare(p.Number.Value)).Select(IReadOnlyList<Part> (g) => [.. g])];

    /// <summary>A part with all its places, held against the shelf.</summary>
    internal static KitPartLine PartLine(IReadOnlyList<Part> uses, IReadOnlyDictionary<PartId, int> usedAgain, Shelf shelf)
    {
        var found = shelf.Find(uses[0].Number.Value);
        var missing = Math.Max(0, uses.Count - (found?.Part.Free ?? 0));
        var again = uses.Max(p => usedAgain.GetValueOrDefault(p.Id));
        // The seals that have sat there longest get the new ones, so the old ones that may stay are those used again least.
        var mayStay = uses.Count(p => p.IsSeal && usedAgain.GetValueOrDefault(p.Id) < p.ReusableTimes);
        return new(uses[0].Number.Value, uses, found?.Part, found?.As ?? FoundAs.Itself, missing, again,
            missing == 0 ? KitVerdict.InHand : missing <= mayStay ? KitVerdict.Worse : KitVerdict.Stops);
    }

    /// <summary>Fluids held against the containers.</summary>
    /// <param name="sheet">The model's sheet.</param>
    /// <param name="fluids">The fluids.</param>
    /// <param name="shelf">The stores.</param>
    /// <param name="climate">The weather the oils must bear, or null.</param>
    /// <param name="today">The day.</param>
    /// <param name="matches">What was found out for other work already, with the same book and weather; null for nothing.</param>
    internal static List<KitOilLine> OilLines(ModelSheet sheet, IReadOnlyList<FluidSystem> fluids, Shelf shelf, Climate? climate,
        DateOnly today, OilMatches? matches = null)
    {
        matches ??= new(shelf.Oils.Book, climate);
        var left = shelf.Pourable(today).ToList();
        var lines = new List<KitOilLine>();
        foreach (var fluid in fluids)
        {
            var wanted = matches.Wanted(sheet, fluid);
            var fits = left.Where(c => c.Left > Quantity<Volume>.Zero).Select(c => c.Product)
                .Distinct(StringComparer.OrdinalIgnoreCase)
                .Select(shelf.Oils.Find).OfType<OilProduct>().Select(p => matches.Of(p, wanted)).ToList();
            // The product that is short by least; of equals the one that opens fewest new containers, then the one on which the code stands
            // itself.
            var best = fits.Where(f => f.Fits).Select(f =>
                (Fit: f, Shares: ContainerShare.Of([f.Product.Name], fluid.Amount.Value, left)))
                .OrderBy(x => Missing(fluid, x.Shares)).ThenBy(x => x.Shares.Count(s => s.Container.Opened is null))
                    .ThenBy(x => x.Fit.Way.Count).FirstOrDefault();
            foreach (var share in best.Shares ?? [])
                left[left.IndexOf(share.Container)] = share.Container with { Left = share.Leaves };
            lines.Add(new(fluid, wanted, best.Fit, best.Shares ?? [],
                best.Shares is null ? fluid.Amount.Value : Missing(fluid, best.Shares),
                [.. fits.Where(f => f != best.Fit && matches.AreNear(f.Product, wanted))]));
        }
        return lines;
    }

    private static Quantity<Volume> Missing(FluidSystem fluid, IReadOnlyList<ContainerShare> shares) =>
        shares.Aggregate(fluid.Amount.Value, (rest, s) => rest - s.Takes);

    private static List<KitToolLine> ToolLines(ModelSheet sheet, IReadOnlyList<SheetStep> steps, IReadOnlyList<Fastener> fasteners,
        Shelf shelf)
    {
        var accesses = steps.Where(s => (s.Traits.Opens || s.Traits.Closes) && sheet.Access.ContainsKey(s.What))
            .Select(s => sheet.Access[s.What]).Distinct();
        return [.. accesses.Select(a => (Size: a.Tool, a.Name)).Concat(fasteners.Select(f => (Size: f.Drive, f.Name)))
            .Where(u => u.Size.Length > 0 && !u.Size.Contains("by hand", StringComparison.OrdinalIgnoreCase))
            .GroupBy(u => PartNumber.Bare(u.Size)).OrderBy(g => g.First().Size, StringComparer.OrdinalIgnoreCase)
            .Select(g => new KitToolLine(g.First().Size, [.. g.Select(u => u.Name).Distinct()],
                shelf.Tools.FirstOrDefault(t => PartNumber.Bare(t.Size) == g.Key)))];
    }

    private static KitTorqueLine TorqueLine(Fastener fastener, ToTorque spec, Shelf shelf, DateOnly today)
    {
        CribWrench? Best(IEnumerable<CribWrench> crib) => TorqueWrench.For(crib.Select(w => w.Wrench), spec, fastener.CrowFoot) is { } best
            ? shelf.Wrenches.First(w => w.Wrench == best) : null;
        var wrench = Best(shelf.Wrenches.Where(w => w.IsCalibrated(today)));
        return new(fastener, spec, wrench, wrench is null ? Best(shelf.Wrenches) : null);
    }

    private static KitPanLine? PanLine(ModelSheet sheet, IReadOnlyList<SheetStep> steps, Shelf shelf)
    {
        var drained = PanPlan.Drained(sheet, steps).ToList();
        if (drained.Count == 0)
            return null;
        var sum = drained.Aggregate(Quantity<Volume>.Zero, (total, f) => total + f.Amount.Value);
        var pans = PanPlan.Choose(drained, shelf.Pans);
        IReadOnlyList<Quantity<Volume>> holds = [.. (pans ?? shelf.Pans).Select(p => p.Holds)];
        var places = PanPlan.Of(drained, holds);
        return new(pans ?? shelf.Pans,
            [.. holds.Select((_, i) => (IReadOnlyList<FluidSystem>)[.. drained.Where((_, f) => places?[f] == i)])], sum,
            PanPlan.Short(PanPlan.Together(sheet, steps), holds));
    }
}
