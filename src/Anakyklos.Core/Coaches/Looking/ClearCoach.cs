using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Looking;

/// <summary>Looked over: nothing is left lying about. Below, it is what is looked at before the lift comes down.</summary>
internal sealed class ClearCoach : PressedCoach
{
    public override string Kind => "clear";

    public override StepTraits Traits(SheetStep step) =>
        step.Place == Place.Below ? new() { Lift = LiftMove.ReadyToLower } : new() { LooksOver = true };

    // What is open underneath still drips: the pan stays.
    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => step.Traits.Lift != LiftMove.ReadyToLower ? []
        : card.OpenPlugs("The pan stays under it until then. Tighten it first.",
            f => f.IsUnderneath && (f.Drains is not null || f.System is not null));

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [];
}
