using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Tightening;

/// <summary>The tightening of a fastener that stays in is checked.</summary>
internal sealed class RetightenCoach : TorqueCoach
{
    public override string Kind => "retighten";

    public override StepTraits Traits(SheetStep step) => new() { Checks = true };

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        var fastener = Of(card.Sheet, step);
        if (card.HasOpen(fastener))
            yield return new($"The {Words.Low(fastener.Name)} {fastener.Is} not tight yet.", "Tighten first, then check.",
                card.First(s => s.Traits.Tightens && s.What == step.What), Ground: Ground.Shut);
        foreach (var r in card.NeedsOpen(fastener.Needs).Concat(StandsStill(card, step)))
            yield return r;
    }

    protected override IEnumerable<Effect> Tight(SheetStep step) => [];

    protected override IEnumerable<Effect> Loose(JobCard card, SheetStep step, string why) =>
        [new StepBeginsAgain(step.Id), .. card.IsDoneAgain(step, false, false)];
}
