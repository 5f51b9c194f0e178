using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Fitting;

/// <summary>A part is fitted, ready for what holds it.</summary>
internal sealed class FitCoach : PressedCoach
{
    public override string Kind => "fit";

    public override StepTraits Traits(SheetStep step) => new() { Fits = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Parts.ContainsKey(step.What) ? null : "a part";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        var holder = card.Sheet.Fasteners.Values.FirstOrDefault(f => f.Fitted.Contains(step.What));
        if (holder is not null && !card.HasOpen(holder))
            yield return new($"The {Words.Low(holder.Name)} {holder.Has} not been opened.", "Open it first.",
                card.First(s => s.Traits.Opens && s.What == holder.Id));
        if (holder is null && card.Sheet.Parts.TryGetValue(step.What, out var part))
            foreach (var r in card.NeedsOpen(part.Needs))
                yield return r;
    }

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [new PartGoesIn(step.What)];
}
