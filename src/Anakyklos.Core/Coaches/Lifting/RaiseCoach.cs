using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Lifting;

/// <summary>The lift goes up.</summary>
internal sealed class RaiseCoach : PressedCoach
{
    public override string Kind => "raise";

    public override StepTraits Traits(SheetStep step) => new() { Lift = LiftMove.Raises };

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) =>
    [
        .. card.NotDoneBefore(step, s => s.Traits.Sets || s.Traits.Lift == LiftMove.ReadyToRaise,
            "Nothing is raised before chocks and lifting points were looked at."),
        .. card.HeldDown(),
    ];

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [new LiftMoves(true)];
}
