using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Cards;

/// <summary>What was looked at before the lift moves, lifting points or the space underneath, holds for that move alone; that nothing lies
/// in the engine bay, until somebody works there again.</summary>
public sealed partial class JobCard
{
    /// <summary>
    /// The looks that something made void: it moved the lift otherwise, drove the vehicle off its lifting points, was work in it, so that
    /// somebody may still sit there, was work below after the space there had been looked at, or work with tools above after the engine
    /// bay had been. They are to be done again.
    /// </summary>
    private IEnumerable<Effect> LooksVoidedBy(CardEvent e, IReadOnlyList<Effect> effects)
    {
        // Whatever ends a step was work there: also a joint tightened without a reading.
        var ended = effects.OfType<StepEnds>().Select(s => (StepId?)s.Step).FirstOrDefault();
        if (((e as IStepEvent)?.Step ?? ended) is not { } id || Step(id) is not { } step)
            return [];
        // A pull at one of several, or one that was too little, is work with a tool as well.
        var pulled = e is IStepEvent { GoesOn: false } && (step.Traits.Tightens || step.Traits.Checks);
        if (!pulled && !effects.Any(x => x is LiftMoves or StepEnds))
            return [];
        var moves = effects.Any(x => x is LiftMoves);
        return Steps.Where(look => look.Traits.Lift switch
        {
            LiftMove.ReadyToRaise => moves || step.IsDriven || step.Place == Place.Cab,
            LiftMove.ReadyToLower => moves || ((step.Lift == LiftNeed.Up || step.Place == Place.Below) && !step.MovesLift),
            _ => false,
        } && WasDone(look) && MoveAfter(look) is { } move && move.Id != id && IsLeft(move.Id))
            .Concat(Steps.Where(look => look.Traits.LooksOver && (WasDone(look) || (IsLeft(look.Id) && IsSweptInPart(look.Id)))
                && TakesToolsAbove(step)))
            .Select(look => new StepBeginsAgain(look.Id));
    }

    /// <summary>Whether a thing was looked for by itself at a step that looks a place over.</summary>
    internal bool IsSwept(StepId step, string what) => _state.Swept.Contains((step, what));

    private bool IsSweptInPart(StepId look) => _state.Swept.Any(s => s.Step == look);

    // Caps and some covers come off by hand; a fastener, or what it holds, takes a tool.
    private bool TakesToolsAbove(SheetStep step) => step.Place == Place.Top
        && (step.Traits.Fits || ((step.Traits.Opens || step.Traits.Fastens) && Sheet.Fasteners.ContainsKey(step.What))
            || ((step.Traits.Opens || step.Traits.Closes) && Sheet.Access.TryGetValue(step.What, out var access) && !access.IsByHand));

    /// <summary>The work with tools in the engine bay since it was last looked over, by title, in the order of the
    /// plan.</summary>
    /// <returns>Empty when nothing can lie there.</returns>
    public IReadOnlyList<string> ToolsAbove
    {
        get
        {
            var looked = Steps.Where(s => (s.Traits.LooksOver && s.Place != Place.Below)
                || State(s.Id).Through?.Event is StepDone { LookedAbove: true }).Where(WasDone)
                .Select(s => State(s.Id).Through!.Seq).DefaultIfEmpty(0).Max();
            return [.. Steps.Where(s => WasDone(s) && TakesToolsAbove(s) && State(s.Id).Through!.Seq > looked).Select(TitleOf)];
        }
    }

    private SheetStep? MoveAfter(SheetStep look) => Steps.SkipWhile(s => s.Id != look.Id)
        .FirstOrDefault(s => s.Traits.Lift == (look.Traits.Lift == LiftMove.ReadyToRaise ? LiftMove.Raises : LiftMove.Lowers));
}
