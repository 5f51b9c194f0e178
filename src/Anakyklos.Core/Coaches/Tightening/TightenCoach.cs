using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Tightening;

/// <summary>A fastener that was out is tightened.</summary>
internal sealed class TightenCoach : TorqueCoach
{
    public override string Kind => "tighten";

    public override StepTraits Traits(SheetStep step) => new() { Tightens = true };

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        var fastener = Of(card.Sheet, step);
        if (!card.HasOpen(fastener))
            yield return new($"The {Words.Low(fastener.Name)} {fastener.Is} not open.", "Go on with the next step.");
        foreach (var part in fastener.Fitted.Where(p => !card.IsFitted(p)))
            yield return new($"The {Words.Low(card.Sheet.Parts[part].Name)} has not been fitted.", "Fit it first.",
                card.First(s => s.Traits.Fits && s.What == part));
        foreach (var r in card.NeedsOpen(fastener.Needs))
            yield return r;
        foreach (var r in StandsStill(card, step))
            yield return r;
    }

    protected override IEnumerable<Effect> Tight(SheetStep step) => [new Closes(new(OpenKind.Fastener, step.What))];

    protected override IEnumerable<Effect> Loose(JobCard card, SheetStep step, string why) => card.CountsAsOpen(step, why);
}
