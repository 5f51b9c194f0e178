using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Lifting;

/// <summary>The lift comes down.</summary>
internal sealed class LowerCoach : PressedCoach
{
    public override string Kind => "lower";

    public override StepTraits Traits(SheetStep step) => new() { Lift = LiftMove.Lowers };

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        if (!card.LiftUp)
            yield return new("The vehicle is down already.", "Go on with the next step.", Ground: Ground.Already);
        foreach (var r in card.OpenPlugs("The pan cannot follow the vehicle down. Tighten it first.", f => f.IsUnderneath))
            yield return r;
        foreach (var r in card.NotDoneBefore(step, s => s.Traits.Lift == LiftMove.ReadyToLower,
            "Nothing comes down before the space underneath was looked at."))
            yield return r;
    }

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [new LiftMoves(false)];
}
