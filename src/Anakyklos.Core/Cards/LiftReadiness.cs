using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Cards;

/// <summary>What was looked at before the lift moves, lifting points or the space underneath, holds for that move alone.</summary>
public sealed partial class JobCard
{
    /// <summary>
    /// The looks that something made void: it moved the lift otherwise, drove the vehicle off its lifting points, or was work below after
    /// the space there had been looked at. They are to be done again.
    /// </summary>
    private IEnumerable<Effect> LooksVoidedBy(CardEvent e, IReadOnlyList<Effect> effects)
    {
        if (e is not IStepEvent { Step: var id } || Step(id) is not { } step || !effects.Any(x => x is LiftMoves or StepEnds))
            return [];
        var moves = effects.Any(x => x is LiftMoves);
        return Steps.Where(look => look.Traits.Lift switch
        {
            LiftMove.ReadyToRaise => moves || step.IsDriven,
            LiftMove.ReadyToLower => moves || ((step.Lift == LiftNeed.Up || step.Place == Place.Below) && !step.MovesLift),
            _ => false,
        } && WasDone(look) && MoveAfter(look) is { } move && move.Id != id && IsLeft(move.Id)).Select(look => new StepBeginsAgain(look.Id));
    }

    private SheetStep? MoveAfter(SheetStep look) => Steps.SkipWhile(s => s.Id != look.Id)
        .FirstOrDefault(s => s.Traits.Lift == (look.Traits.Lift == LiftMove.ReadyToRaise ? LiftMove.Raises : LiftMove.Lowers));
}
