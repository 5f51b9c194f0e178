using Anakyklos.Core.Kit;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Cards;

/// <summary>How things open, whichever work opens them.</summary>
public sealed partial class JobCard
{
    /// <summary>What stands in the way of opening an access.</summary>
    internal IEnumerable<Refusal> BeforeOpening(Access access)
    {
        if (HasOpen(access))
            yield return new($"The {Words.Low(access.Name)} is open already.", "Go on with the next step.", Ground: Ground.Already);
        foreach (var r in NeedsOpen(access.Needs))
            yield return r;
    }

    /// <summary>What stands in the way of undoing a fastener.</summary>
    internal IEnumerable<Refusal> BeforeUndoing(Fastener fastener)
    {
        if (HasOpen(fastener))
            yield return new($"The {Words.Low(fastener.Name)} {fastener.Is} open already.", "Go on with the next step.",
                Ground: Ground.Already);
        // A card that uses nothing up has no kit to lay out.
        if (Kit is null && Steps.FirstOrDefault(s => s.Traits.LaysOut) is { } kit)
        {
            var waits = string.Join(", ", Awaited.Select(a => $"{Words.Low(a.Name)} {a.Number}"));
            yield return new(waits.Length > 0 ? $"The kit has not been confirmed yet: the card waits for {waits}."
                : "The kit has not been confirmed yet.",
                "Lay out parts, pan and oil first: once it is open, a missing washer stops the job.", kit.Id, Ground: Ground.Kit);
        }
        foreach (var r in NeedsOpen(fastener.Needs))
            yield return r;
        if (fastener is { GoesWithDrain: true, System: { } fluid })
            foreach (var drain in Remaining.Where(s => s.Traits.LetsOut && Sheet.Fasteners[s.What].Drains == fluid))
                yield return new($"The old {Words.Low(Sheet.Fluids[fluid].Name)} is still in.",
                    "Let it out first: what is new goes in with new oil.", drain.Id, Ground: Ground.Order);
    }

    /// <summary>What it does that an access is open or a fastener out; a drain plug lets its fluid run.</summary>
    /// <param name="step">The step that opens it.</param>
    /// <param name="counted">Fasteners that came out; null for all of them.</param>
    internal IEnumerable<Effect> Opening(SheetStep step, int? counted)
    {
        if (Sheet.Access.TryGetValue(step.What, out var access))
        {
            var count = counted ?? access.Count;
            var detail = access.HoldsVehicle ? "in place" : access.Count > 0 ? $"{count} {access.CountOf} out" : "";
            yield return new Opens(new(OpenKind.Access, access.Id), access.Name, detail, step.Id, count);
            yield break;
        }
        var fastener = Sheet.Fasteners[step.What];
        yield return new Opens(new(OpenKind.Fastener, fastener.Id), fastener.Name, fastener.Seal is { } seal ? SealDetail(seal) : "",
            step.Id);
        foreach (var part in fastener.Fitted)
            yield return new PartComesOut(part);
        if (fastener.Drains is not { } fluid)
            yield break;
        foreach (var runs in RunningInto(step))
            yield return runs;
        yield return new FluidRunsOut(fluid);
        yield return new Opens(new(OpenKind.Fluid, fluid), Sheet.Fluids[fluid].Name, "not at the mark", step.Id);
    }

    private string SealDetail(PartId seal) => IsOldAgain(seal) ? "old seal again" : "new seal";
}
