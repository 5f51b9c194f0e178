using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Draining;

/// <summary>A fluid is let out through its drain plug.</summary>
internal sealed class DrainCoach : PressedCoach
{
    public override string Kind => "drain";

    public override StepTraits Traits(SheetStep step) => new() { Opens = true, LetsOut = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) =>
        sheet.Fasteners.GetValueOrDefault(step.What)?.Drains is not null ? null : "a fastener that drains a fluid";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        var plug = card.Sheet.Fasteners[step.What];
        foreach (var r in card.BeforeUndoing(plug))
            yield return r;
        if (card.Kit is not { } laid)
            yield break;
        var fluid = card.Sheet.Fluids[plug.Drains!.Value];
        var kit = card.Steps.FirstOrDefault(s => s.Traits.LaysOut)?.Id;
        foreach (var r in card.BeforeRunningBelow(step))
            yield return r;
        if ((laid.Oils.GetValueOrDefault(fluid.Id)?.Amount ?? Quantity<Volume>.Zero) is var oil && oil < fluid.Amount.Value)
            yield return new($"Only {JobCard.Litres(oil)} of {Words.Low(fluid.Name)} is in hand, and "
                + $"{JobCard.Litres(fluid.Amount.Value)} must go back in.",
                "Fetch the rest and say so at the kit.", kit);
        foreach (var fill in card.Sheet.Fasteners.Values.Where(f => f.Fills == fluid.Id && !card.HasOpen(f)))
            yield return new($"The {Words.Low(fill.Name)} has not been loosened yet.",
                $"Loosen it first, or the {Words.Low(fluid.Name)} cannot be filled again.",
                card.First(s => s.Traits is { Opens: true, LetsOut: false } && s.What == fill.Id));
    }

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => card.Opening(step, done.Count);
}
