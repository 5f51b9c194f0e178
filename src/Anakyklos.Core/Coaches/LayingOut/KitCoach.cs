using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.LayingOut;

/// <summary>Parts, pans and oil are laid out and compared. It may be said again at any time: what a kit lacks is fetched and
/// said.</summary>
internal sealed class KitCoach : Coach
{
    private static readonly Dictionary<KitStrayOf, DeviationKind> Kinds = new()
    {
        [KitStrayOf.OldSealAgain] = DeviationKind.OldSealAgain,
        [KitStrayOf.OtherPart] = DeviationKind.OtherPart,
        [KitStrayOf.OtherOil] = DeviationKind.OtherOil,
    };

    public override string Kind => "kit";

    public override StepTraits Traits(SheetStep step) => new() { LaysOut = true, IsMeasured = true };

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => [];

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        ConfirmKit c when at.Card.State(at.Id).Status == StepStatus.Done => Judged(at, c),
        ConfirmKit c => at.NotNow() ?? Judged(at, c),
        ConfirmStep => No("The kit is confirmed part by part.", "Say what lies there.", ground: Ground.Kit),
        Deviate d => NeverLeftOut(at, d),
        _ => NotHere(at),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened is KitConfirmed
        ? card.Kit is null ? [new KitLies(), new StepEnds(step.Id)] : [new KitLies()] : throw Foreign(happened);

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) =>
        new ConfirmKit(step.Id, card.PartsWanted.ToDictionary(p => p.Id, _ => new KitPart(KitChoice.InHand)),
        [.. card.FluidsDrained.Select(f => f.Amount.Value)], card.FluidsWanted.ToDictionary(f => f.Id, f =>
            new OilLaidOut(f.Amount.Value, f.Name)));

    private static Decision Judged(StepAt at, ConfirmKit said)
    {
        var card = at.Card;
        var laid = card.Kit;
        var wanted = new KitWanted(card.Sheet, [.. card.PartsWanted], [.. card.FluidsWanted], PanPlan.Together(card.Sheet, card.Steps),
            card.Opened.SealsUsedAgain,
            (laid?.Parts.Where(p => card.IsFitted(p.Key)) ?? []).ToDictionary(),
            (laid?.Oils.Where(o => card.Fluid(o.Key).Pours > 0) ?? []).ToDictionary(o => o.Key, o => o.Value.Product));
        var (facts, lies) = (at.Facts, new LaidOut(said.Parts, said.Pans, said.Oils));
        var judged = KitJudgement.Of(wanted, lies, facts.Shelf, facts.Climate, facts.UnderWarranty,
            DateOnly.FromDateTime(at.Now.DateTime));
        if (judged.Refusals.Count > 0)
            return new Refused(judged.Refusals);
        var all = said.Pans.Aggregate(Quantity<Volume>.Zero, (sum, pan) => sum + pan);
        return new Accepted(
        [
            .. judged.Strays.Select(s => new DeviationTaken(at.Id, Kinds[s.Of], s.What, s.Says, s.Reason, s.NeedsSecondName)),
            new KitConfirmed(at.Id, judged.Numbers, all, judged.Oils, said.Pans),
        ]);
    }
}
