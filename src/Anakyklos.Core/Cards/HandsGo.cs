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

    /// <summary>What was left for later, needs the lift where it stands, and can be done: the last chance before it moves.</summary>
    /// <param name="step">The step that the hands are at.</param>
    /// <param name="now">The time.</param>
    /// <returns>In the card's order; nothing at a step that neither moves the lift nor makes ready to.</returns>
    public IReadOnlyList<SheetStep> LeftBehind(SheetStep step, DateTimeOffset now) => !step.MovesLift || IsDone(step) ? []
        : [.. Steps.Where(s => State(s.Id).Status == StepStatus.Aside && s.Lift == (LiftUp ? LiftNeed.Up : LiftNeed.Down)
            && !s.MovesLift && InTheWay(s, now).Count == 0)];
}
