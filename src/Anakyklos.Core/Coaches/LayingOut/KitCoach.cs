using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.LayingOut;

/// <summary>Parts, pans and oil are laid out and compared. It may be said again at any time: what a kit lacks is fetched and
/// said.</summary>
internal sealed class KitCoach : Coach
{
    public override string Kind => "kit";

    public override StepTraits Traits(SheetStep step) => new() { LaysOut = true, IsMeasured = true };

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => [];

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        ConfirmKit c when at.Card.State(at.Id).Status == StepStatus.Done => KitJudgement.Of(at.Card, c, at.Facts),
        ConfirmKit c => at.NotNow() ?? KitJudgement.Of(at.Card, c, at.Facts),
        ConfirmStep => No("The kit is confirmed part by part.", "Say what lies there."),
        Deviate d => NeverLeftOut(at, d),
        _ => NotHere(at),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened is KitConfirmed
        ? card.Kit is null ? [new KitLies(), new StepEnds(step.Id)] : [new KitLies()] : throw Foreign(happened);

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) =>
        new ConfirmKit(step.Id, card.PartsWanted.ToDictionary(p => p.Id, _ => new KitPart(KitChoice.InHand)),
        [.. card.FluidsDrained.Select(f => f.Amount.Value)], card.FluidsWanted.ToDictionary(f => f.Id, f =>
            new OilLaidOut(f.Amount.Value, f.Name)));
}
