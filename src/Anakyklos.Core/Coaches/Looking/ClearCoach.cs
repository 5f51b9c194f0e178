using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Looking;

/// <summary>Looked over: nothing is left lying about, thing by thing or all at once. Below, it is what is looked at before the lift comes
/// down.</summary>
internal sealed class ClearCoach : PressedCoach
{
    public override string Kind => "clear";

    public override StepTraits Traits(SheetStep step) =>
        step.Place == Place.Below ? new() { Lift = LiftMove.ReadyToLower } : new() { LooksOver = true };

    // What is open underneath still drips: the pan stays.
    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => step.Traits.Lift != LiftMove.ReadyToLower ? []
        : card.OpenPlugs("The pan stays under it until then. Tighten it first.",
            f => f.IsUnderneath && (f.Drains is not null || f.System is not null));

    internal override Decision Decide(StepAt at, CardCommand said) => said is not SweepOne one ? base.Decide(at, said)
        : at.NotNow() ?? (Decision)(SweepItem.Of(at.Card, at.Step).FirstOrDefault(i => i.What == one.What) switch
        {
            null => No("That is not among what is looked for here.", "Choose one from the list.", field: "what"),
            { Seen: true } => No($"{one.What}: somebody has said so already.", "Go on with what is left.", ground: Ground.Already),
            _ => Yes(new SweptFor(at.Id, one.What)),
        });

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened is SweptFor one
        ? [new ThingIsSeen(step.Id, one.What),
            .. SweepItem.Of(card, step).All(i => i.Seen || i.What == one.What) ? new Effect[] { new StepEnds(step.Id) } : []]
        : base.Effects(card, step, happened);

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [];
}
