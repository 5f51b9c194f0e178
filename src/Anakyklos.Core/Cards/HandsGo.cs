using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Cards;

/// <summary>Where the hands go after a step: how much more there is in the same place, and what takes them elsewhere.</summary>
/// <param name="Here">The place they are in.</param>
/// <param name="More">Waiting steps in the same place before anything else.</param>
/// <param name="LiftUp">The way the lift goes then, or null when it stays.</param>
/// <param name="Then">Where they go then without a move of the lift; null when the lift moves first or nothing is left.</param>
public sealed record HandsGo(Place Here, int More, bool? LiftUp, Place? Then);

public sealed partial class JobCard
{
    /// <summary>Where the hands go after a step, in the card's order.</summary>
    /// <param name="step">A step of this card.</param>
    public HandsGo HandsAfter(SheetStep step)
    {
        var ahead = Steps.SkipWhile(s => s.Id != step.Id).Skip(1).Where(s => State(s.Id).Status == StepStatus.Waiting).ToList();
        var here = ahead.TakeWhile(s => s.Place == step.Place && !s.MovesLift).Count();
        var then = ahead.Skip(here).FirstOrDefault();
        bool? lift = then is { MovesLift: true } ? ahead.Skip(here)
            .First(s => s.Traits.Lift is LiftMove.Raises or LiftMove.Lowers).Traits.Lift == LiftMove.Raises : null;
        return new(step.Place, here, lift, lift is null ? then?.Place : null);
    }
}
