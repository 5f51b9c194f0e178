using System.Globalization;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Cards;

/// <summary>What stands in the way of a step whatever its kind: stops, lift, engine, waits, heat, what must be open, and the
/// order.</summary>
public sealed partial class JobCard
{
    /// <summary>
    /// Everything that stands in the way of a step now. None of these can be passed by anyone, save that a wait may be cut with a reason.
    /// </summary>
    /// <param name="step">A step of this card.</param>
    /// <param name="now">The time, for waits.</param>
    /// <returns>Every reason, each once; none when the step can be done now.</returns>
    public IReadOnlyList<Refusal> InTheWay(SheetStep step, DateTimeOffset now) => Standing(step, now);

    // Without a time: what stands in the way until somebody does something, and no wait.
    private IReadOnlyList<Refusal> Standing(SheetStep step, DateTimeOffset? now)
    {
        if (IsUnderWay(step))
            return [.. OwnWait(step.Id, now)];
        IReadOnlyList<Refusal> found = [.. Blocking(step, now).Distinct()];
        return found.Count > 0 ? found : [.. OrderInTheWay(step)];
    }

    private IEnumerable<Refusal> Blocking(SheetStep step, DateTimeOffset? now) =>
        UnderWayInTheWay(step).Concat(StopInTheWay(step)).Concat(LiftInTheWay(step)).Concat(EngineInTheWay(step))
            .Concat(WaitsInTheWay(step, now)).Concat(ColdInTheWay(step, now)).Concat(PanInTheWay(step, now)).Concat(Gate(step))
            .Concat(NeedsThere(step));

    // Too much torque is answered at the step itself, so it is where the hands go on. One reason is enough: no other is looked for.
    private bool CanBegin(SheetStep step) => IsUnderWay(step) || (IsOverTorqued(step.Id) ? BeforeSettling(step).Count == 0
        : !(Blocking(step, null).Any() || OrderInTheWay(step).Any()));

    // An engine that was started is watched, and a vehicle that set off comes back, whatever came up since.
    private bool IsUnderWay(SheetStep step) => IsAway(step) || StartedAt(step) is not null;

    /// <summary>What stands between the hands and a fastener that was tightened too far: it is slackened where it sits.</summary>
    /// <param name="step">A step at which it was.</param>
    /// <returns>Every reason; none when it can be slackened now.</returns>
    public IReadOnlyList<Refusal> BeforeSettling(SheetStep step) => [.. LiftInTheWay(step), .. EngineInTheWay(step),
        .. NeedsOpen(Sheet.Fasteners[step.What].Needs)];

    // The lift is not moved for nothing: something must be able to be done where it goes, or it comes down at the end. Nothing is looked
    // at for a later move while an earlier one is left.
    private bool IsWorthMoving(SheetStep move)
    {
        if (Remaining.TakeWhile(s => s.Id != move.Id).Any(s => s.MovesLift))
            return false;
        var there = Remaining.SkipWhile(s => s.Id != move.Id).SkipWhile(s => s.MovesLift).TakeWhile(s => !s.MovesLift).ToList();
        return there.Count == 0 ? LiftUp && move.Traits.Lift is LiftMove.ReadyToLower or LiftMove.Lowers
            : there.Any(s => !Unmoved(s).Any());
    }

    private IEnumerable<Refusal> Unmoved(SheetStep step) =>
        StopInTheWay(step).Concat(EngineInTheWay(step)).Concat(WaitsInTheWay(step, null)).Concat(Gate(step)).Concat(NeedsThere(step))
            .Concat(OrderInTheWay(step));

    // Whatever starts the engine goes through its gate, whatever else it is.
    private IEnumerable<Refusal> Gate(SheetStep step) => step.RunsEngine ? BeforeStarting(step) : Coach.Of(step).Gate(this, step);

    private IEnumerable<Refusal> OrderInTheWay(SheetStep step) => step.After.Select(Step).OfType<SheetStep>()
        .Where(s => IsLeft(s.Id))
        .Select(s => new Refusal($"“{TitleOf(s)}” comes first.", "Do that step first.", s.Id, Ground: Ground.Order));

    // Nobody is at a vehicle that is on the road, nor does anything else in the first seconds of an engine.
    private IEnumerable<Refusal> UnderWayInTheWay(SheetStep step)
    {
        if (_state.Away is { } away && away != step.Id)
            yield return IsOnRoad ? new("The vehicle is on the road.", "Say that it is back first.", away, Ground: Ground.UnderWay)
                : new("The engine runs to get warm.", "Say that it is warm and off first.", away, Ground: Ground.UnderWay);
        if (_state.Proving is { } proving && proving.Step != step.Id)
            yield return new("The engine was just started.", "Watch its oil light, and say what it does.", proving.Step,
                Ground: Ground.UnderWay);
    }

    /// <summary>The step during which nothing else is done to the vehicle, since it is on the road or runs warm; null while it stands
    /// here, cold or not.</summary>
    public StepId? Away => _state.Away;

    /// <summary>Whether the vehicle is on the road, or runs warm, with a step.</summary>
    /// <param name="step">A step of this card.</param>
    public bool IsAway(SheetStep step) => _state.Away == step.Id;

    /// <summary>How something went that was tried on the road; null where nobody has said.</summary>
    internal TryWent? TriedAt(StepId step, int which) => _state.Tried.TryGetValue((step, which), out var went) ? went : null;

    // One that is run warm where it stands is not driven.
    private bool IsOnRoad => _state.Away is { } away && Step(away) is { IsDriven: true };

    private IEnumerable<Refusal> StopInTheWay(SheetStep step)
    {
        if (!step.RunsEngine)
            yield break;
        foreach (var stop in Stops)
            yield return new($"“{stop.Event.Text}” was graded stop.",
                "The workshop lead decides about it at hand-over, before anything is started or driven.", Ground: Ground.Stop);
        if (!step.IsDriven)
            yield break;
        foreach (var left in Deviations.Where(HoldsVehicle))
            yield return new($"{left.Event.What}: the vehicle is held.",
                "The workshop lead decides about it at hand-over, before it is driven.", Ground: Ground.Stop);
    }

    private IEnumerable<Refusal> ColdInTheWay(SheetStep step, DateTimeOffset? now)
    {
        if (!step.Cold || now is not { } at || HotUntil is not { } until || until <= at)
            yield break;
        if (_state.HotAt is { } hot)
            yield return new($"The engine was run at {OnTheClock(hot, at)} and is still hot.",
                $"Do something else until {OnTheClock(until, at)}: this is done cold.", Ground: Ground.Heat);
        else
            yield return new($"Nobody has felt whether the engine is cold; the vehicle came in at {OnTheClock(_history[0].At, at)}.",
                $"Bring the back of a hand near it, then feel it; or do something else until {OnTheClock(until, at)}: this is done cold.",
                    Ground: Ground.Heat);
    }

    // Nobody knows how a vehicle came in: it counts as driven in just then until somebody has felt that it is cold.
    private DateTimeOffset? HotUntil => (_state.HotAt ?? (_state.IsFeltCold ? null : _history[0].At)) + Sheet.CoolsIn;

    /// <summary>Whether the back of a hand would tell that a step can be done: it is done cold, and nothing is known but that the vehicle
    /// came in a short while ago.</summary>
    /// <param name="step">A step of this card.</param>
    /// <param name="now">The time.</param>
    public bool AsksIfCold(SheetStep step, DateTimeOffset now) => step.Cold && _state.HotAt is null && HotUntil > now;

    // Events come back from the disk in UTC; a person reads the workshop's clock, which the present time carries.
    private static string OnTheClock(DateTimeOffset at, DateTimeOffset now) =>
        at.ToOffset(now.Offset).ToString("HH:mm", CultureInfo.InvariantCulture);

    // A step that looks at, or works on, something that is opened needs it open.
    private IEnumerable<Refusal> NeedsThere(SheetStep step)
    {
        foreach (var r in NeedsOpen(step.Needs.Select(n => (AccessId)n).Where(Sheet.Access.ContainsKey)))
            yield return r;
        foreach (var f in step.Needs.Select(n => (FastenerId)n).Where(Sheet.Fasteners.ContainsKey)
            .Select(id => Sheet.Fasteners[id]).Where(f => !IsOut(f)))
            yield return new($"The {Words.Low(f.Name)} {f.Is} not out.", "Undo it first.", First(s => s.Traits.Opens && s.What == f.Id),
                Ground: Ground.Opened);
    }

    internal IEnumerable<Refusal> LiftInTheWay(SheetStep step)
    {
        if (step.Lift == LiftNeed.Up && !LiftUp)
            yield return new("The vehicle is down.", "Raise it first.", First(s => s.Traits.Lift == LiftMove.Raises), Ground: Ground.Lift);
        if (step.Lift == LiftNeed.Down && LiftUp)
            yield return new("The vehicle is up on the lift.", "Lower it first.", First(s => s.Traits.Lift == LiftMove.Lowers),
                Ground: Ground.Lift);
    }

    internal IEnumerable<Refusal> EngineInTheWay(SheetStep step)
    {
        if (EngineRuns && (step.Alone || step.Traits.Engine is not (EngineUse.Stops or EngineUse.Either)))
            yield return new("The engine is running.", "Switch it off first.", First(s => s.Traits.Engine == EngineUse.Stops),
                Ground: Ground.Engine);
    }

    /// <summary>When a step started the engine that goes on while it runs; null for every other.</summary>
    /// <param name="step">A step of this card.</param>
    internal DateTimeOffset? StartedAt(SheetStep step) => _state.Proving is { } proving && proving.Step == step.Id ? proving.At : null;

    private IEnumerable<Refusal> WaitsInTheWay(SheetStep step, DateTimeOffset? now)
    {
        foreach (var id in step.Awaits.Append(step.Id))
        {
            if (OwnWait(id, now).ToList() is { Count: > 0 } waits)
                yield return waits[0];
            else if (id != step.Id && Step(id) is { } before && IsLeft(id))
                yield return new($"“{TitleOf(before)}” comes first.", "Do that step, then wait for it.", id, Ground: Ground.Wait);
        }
    }

    private IEnumerable<Refusal> OwnWait(StepId id, DateTimeOffset? now)
    {
        if (_state.Waits.FirstOrDefault(w => w.Id == id) is { } wait && now is { } at && wait.Until > at)
            yield return new($"{wait.For}: {Left(wait.Until - at)} to go.",
                $"{(_state.Away == id ? "Wait until its time is over" : "Do something else meanwhile")}, or end the wait with a reason.",
                    Ground: Ground.Wait);
    }

    private static string Left(TimeSpan t) => t.TotalMinutes >= 1 ? $"{(int)Math.Ceiling(t.TotalMinutes)} min"
        : $"{(int)Math.Ceiling(t.TotalSeconds)} s";

    private IEnumerable<Refusal> BeforeStarting(SheetStep step)
    {
        foreach (var system in Sheet.Fluids.Values)
            if (system.SafeToStart?.Value is { } safe && Fluid(system.Id) is { Out: true } fluid && fluid.Poured < safe)
                yield return new($"Only {Litres(fluid.Poured)} of {Words.Low(system.Name)} is in.",
                    $"Starting needs at least {Litres(safe)}.",
                    First(s => s.Traits.Fills && s.What == system.Id), Ground: Ground.Filled);
        foreach (var prime in Remaining.Where(s => s.Traits.Primes && (step.Traits.Engine == EngineUse.Starts || IsBegun(s))))
            yield return new($"“{TitleOf(prime)}” is not done yet.", "Without it the engine would only be cranked.", prime.Id,
                Ground: Ground.Filled);
        foreach (var r in OpenPlugs("Tighten it before the engine runs."))
            yield return r;
        foreach (var a in Sheet.Access.Values.Where(a => (a.ClosedToRun || a.Intake) && HasOpen(a)))
            yield return new($"The {Words.Low(a.Name)} is still open.", "Close it before the engine runs.",
                First(s => s.Traits.Closes && s.What == a.Id), Ground: Ground.Shut);
        if (step.Traits.Engine == EngineUse.Starts || step.IsDriven)
            foreach (var r in NotDoneBefore(step, s => s.Traits.LooksOver, "Nothing may lie loose when the engine runs."))
                yield return r;
        if (step.IsDriven)
            foreach (var r in BeforeDriving())
                yield return r;
    }

    // What has to be primed has been opened or fitted on this card: from then on nothing runs before it is primed, not even to warm up.
    private bool IsBegun(SheetStep prime) => Steps.Any(s => State(s.Id).Status == StepStatus.Done && s.Jobs.Intersect(prime.Jobs).Any()
        && (s.Traits.Fits || s.Traits.LetsOut || (s.Traits.Opens && Sheet.Fasteners.ContainsKey(s.What))));

    // What goes on only after a look stays off where there is another look after the road.
    private IEnumerable<Refusal> BeforeDriving() => Open.Where(o => o.Kind is OpenKind.Fastener or OpenKind.Access or OpenKind.Lift)
        .Where(o => o.Kind != OpenKind.Access || !Sheet.Access[o.Id].AfterLeakCheck || First(s => s.Traits.LooksAtJoints) is null)
        .Select(o => new Refusal($"{o.Name}: still {(o.Kind == OpenKind.Access && Sheet.Access[o.Id].HoldsVehicle ? "in place" : "open")}.",
            "Close it before the vehicle is driven.", Closing(o)?.Id, Ground: Ground.Shut));

    /// <summary>The first step that is left of those that a coach asks for: the one that would help.</summary>
    internal StepId? First(Func<SheetStep, bool> which) => Remaining.FirstOrDefault(which)?.Id;

    internal IEnumerable<Refusal> NeedsOpen(IEnumerable<AccessId> accesses) => accesses.Select(id => Sheet.Access[id])
        .Where(a => !HasOpen(a)).Select(a => new Refusal($"The {Words.Low(a.Name)} is in the way.", "Take it off or open it first.",
            First(s => s.Traits is { Opens: true, LetsOut: false } && s.What == a.Id), Ground: Ground.Opened));

    internal IEnumerable<Refusal> WithoutCurrent() => Sheet.Access.Values.Where(a => a.CutsCurrent && HasOpen(a))
        .Select(a => new Refusal($"The {Words.Low(a.Name)} is off: there is no current.", "Put it back first.",
            First(s => s.Traits.Closes && s.What == a.Id), Ground: Ground.Shut));

    internal IEnumerable<Refusal> NotDoneBefore(SheetStep step, Func<SheetStep, bool> which, string what) =>
        Steps.TakeWhile(s => s.Id != step.Id).Where(s => which(s) && State(s.Id).Status != StepStatus.Done)
            .Select(s => new Refusal($"“{TitleOf(s)}” is not done yet.", what, s.Id, Ground: Ground.Looked));

    internal IEnumerable<Refusal> HeldDown() => Sheet.Access.Values.Where(a => a.HoldsVehicle && !HasOpen(a))
        .Select(a => new Refusal($"{a.Name}: not in place.", "Set them first.", First(s => s.Traits.Sets && s.What == a.Id),
            Ground: Ground.Shut));

    internal IEnumerable<Refusal> OpenPlugs(string say, Func<Fastener, bool>? which = null) => Sheet.Fasteners.Values
        .Where(f => HasOpen(f) && which?.Invoke(f) != false)
        .Select(f => new Refusal($"The {Words.Low(f.Name)} {f.Is} not tightened.", say, First(s => s.Traits.Fastens && s.What == f.Id),
            Ground: Ground.Shut));

    /// <summary>The joints that were opened on this card, closed again or not.</summary>
    public IEnumerable<Fastener> JointsOpened => Sheet.Fasteners.Values
        .Where(f => f.IsJoint && (HasOpen(f) || _state.ClosedAt.ContainsKey(f.Id)));

    /// <summary>How a joint looked at a step; null where nobody has said.</summary>
    internal JointLook? JointAt(StepId step, FastenerId joint) => _state.Joints.TryGetValue((step, joint), out var look) ? look : null;

    /// <summary>Whether the engine puts pressure on what runs through a joint.</summary>
    internal bool IsPumped(Fastener f) => (f.System ?? f.Fills) is not { } fluid || Sheet.Fluids[fluid].Pumped;

    /// <summary>Whether every joint that was opened was closed and looked at since, those under pressure after a run.</summary>
    internal bool JointsLookedAt => JointsOpened.All(f => _state.ClosedAt.TryGetValue(f.Id, out var at) && at < _state.LookedAt
        && (!IsPumped(f) || (at < _state.RanAt && _state.RanAt < _state.LookedAt)));

    /// <summary>Whether any fastener was closed on this card.</summary>
    internal bool AnyClosed => _state.ClosedAt.Count > 0;

    /// <summary>Whether the engine was started on this card.</summary>
    internal bool HasRun => _state.RanAt > 0;

    /// <summary>Whether a joint under pressure was closed after the engine was last started.</summary>
    internal bool ClosedSinceRun => JointsOpened.Any(f => IsPumped(f) && _state.ClosedAt.TryGetValue(f.Id, out var at)
        && at > _state.RanAt);

    /// <summary>Whether a fastener of a kind was closed after the engine was last started.</summary>
    internal bool IsClosedSinceRun(Func<Fastener, bool> which) =>
        _state.ClosedAt.Any(c => c.Value > _state.RanAt && which(Sheet.Fasteners[c.Key]));

    internal static string Litres(Quantity<Volume> v) => v.Print(Volume.Litre).ToString();
}
