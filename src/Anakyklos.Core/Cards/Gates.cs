using System.Globalization;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Cards;

public sealed partial class JobCard
{
    /// <summary>
    /// Everything that stands in the way of a step now. None of these can be passed by anyone, save that a wait may be cut with a reason.
    /// </summary>
    /// <param name="step">A step of this card.</param>
    /// <param name="now">The time, for waits.</param>
    public IReadOnlyList<Refusal> InTheWay(SheetStep step, DateTimeOffset now) => Standing(step, now);

    // Without a time: what stands in the way until somebody does something, and no wait.
    private IReadOnlyList<Refusal> Standing(SheetStep step, DateTimeOffset? now)
    {
        IReadOnlyList<Refusal> found =
        [
            .. StopInTheWay(step), .. LiftInTheWay(step), .. EngineInTheWay(step), .. WaitsInTheWay(step, now), .. ColdInTheWay(step, now),
                .. Gate(step),
            .. NeedsThere(step),
        ];
        found = [.. found.Distinct()];
        return found.Count > 0 ? found : [.. OrderInTheWay(step)];
    }

    // Too much torque is answered at the step itself, so it is where the hands go on.
    private bool CanBegin(SheetStep step) => _overTorqued.Contains(step.Id) || Standing(step, null).Count == 0;

    // The lift is not moved for nothing: something must be able to be done where it goes, or it comes down at the end.
    private bool IsWorthMoving(SheetStep move)
    {
        var there = Remaining.SkipWhile(s => s.Id != move.Id).SkipWhile(s => s.MovesLift).TakeWhile(s => !s.MovesLift).ToList();
        return there.Count == 0 ? LiftUp && move.Kind is (StepKind.Clear or StepKind.Lower) : there.Any(s => Unmoved(s, null).Count == 0);
    }

    private IReadOnlyList<Refusal> Unmoved(SheetStep step, DateTimeOffset? now) =>
        [.. StopInTheWay(step), .. EngineInTheWay(step), .. WaitsInTheWay(step, now), .. Gate(step), .. NeedsThere(step),
        .. OrderInTheWay(step)];

    private IEnumerable<Refusal> OrderInTheWay(SheetStep step) => step.After.Select(Step).OfType<SheetStep>()
        .Where(s => IsLeft(s.Id))
        .Select(s => new Refusal($"“{s.Title}” comes first.", "Do that step first.", s.Id));

    private IEnumerable<Refusal> StopInTheWay(SheetStep step)
    {
        if (!step.RunsEngine)
            yield break;
        foreach (var stop in Stops)
            yield return new($"“{stop.Event.Text}” was graded stop.",
                "The workshop lead decides about it at hand-over, before anything is started or driven.");
        if (!step.IsDriven)
            yield break;
        foreach (var left in Deviations.Where(HoldsVehicle))
            yield return new($"{left.Event.What}: the vehicle is held.",
                "The workshop lead decides about it at hand-over, before it is driven.");
    }

    private IEnumerable<Refusal> ColdInTheWay(SheetStep step, DateTimeOffset? now)
    {
        if (step.Cold && _hotAt is { } hot && now is { } at && hot + Sheet.CoolsIn > at)
            yield return new($"The engine was run at {OnTheClock(hot, at)} and is still hot.",
                $"Do something else until {OnTheClock(hot + Sheet.CoolsIn, at)}: this is done cold.");
    }

    // Events come back from the disk in UTC; a person reads the workshop's clock, which the present time carries.
    private static string OnTheClock(DateTimeOffset at, DateTimeOffset now) =>
        at.ToOffset(now.Offset).ToString("HH:mm", CultureInfo.InvariantCulture);

    private IEnumerable<Refusal> Gate(SheetStep step) => step.Kind switch
    {
        _ when step.RunsEngine => BeforeStarting(step),
        StepKind.Secure or StepKind.Open when step.What.Length > 0 && Sheet.Access.TryGetValue(step.What, out var access) => BeforeOpening(access),
        StepKind.Secure => [],
        StepKind.Open => BeforeUnscrewing(Sheet.Fasteners[step.What]),
        StepKind.Drain => BeforeDraining(Sheet.Fasteners[step.What]),
        StepKind.Raise =>
        [
            .. NotDoneBefore(step, s => s.Kind == StepKind.Secure, "Nothing is raised before chocks and lifting points were looked at."),
                .. HeldDown(),
        ],
        StepKind.Lower => BeforeLowering(step),
        StepKind.Fit => BeforeFitting(step),
        StepKind.Tighten => BeforeTightening(step),
        StepKind.Retighten => BeforeRetightening(step),
        StepKind.Close => BeforeClosing(Sheet.Access[step.What]),
        StepKind.Pour => BeforeFilling(step.What),
        StepKind.Settle => EngineRuns ? [] : [new("The engine is not running.", "Start it first.", FirstOpen(s => s.Kind == StepKind.Run))],
        StepKind.Gauge => BeforeReading(step.What),
        StepKind.Look => BeforeLooking(),
        StepKind.Reset => BeforeResetMove(step),
        StepKind.Measure => BeforeMeasuring(step.What),
        StepKind.Do or StepKind.Clear or StepKind.Kit or StepKind.Prime => [],
        _ => [new($"Nobody has said how “{step.Title}” is done.",
            "Ask the one who keeps the sheets to put it right; leave it for later meanwhile.")],
    };

    // A step that looks at, or works on, something that is opened needs it open.
    private IEnumerable<Refusal> NeedsThere(SheetStep step)
    {
        foreach (var r in NeedsOpen(step.Needs.Where(Sheet.Access.ContainsKey)))
            yield return r;
        foreach (var f in step.Needs.Where(Sheet.Fasteners.ContainsKey).Select(id => Sheet.Fasteners[id]).Where(f => !HasOpen(f)))
            yield return new($"The {Low(f.Name)} {f.Is} not out.", "Undo it first.", FirstOpen(s =>
                s.Kind is StepKind.Open or StepKind.Drain && s.What == f.Id));
    }

    private string? FirstOpen(Func<SheetStep, bool> which) => Remaining.FirstOrDefault(which)?.Id;

    private IEnumerable<Refusal> LiftInTheWay(SheetStep step)
    {
        if (step.Lift == LiftNeed.Up && !LiftUp)
            yield return new("The vehicle is down.", "Raise it first.", FirstOpen(s => s.Kind == StepKind.Raise));
        if (step.Lift == LiftNeed.Down && LiftUp)
            yield return new("The vehicle is up on the lift.", "Lower it first.", FirstOpen(s => s.Kind == StepKind.Lower));
    }

    private IEnumerable<Refusal> EngineInTheWay(SheetStep step)
    {
        if (EngineRuns && (step.Alone || step.Kind is not (StepKind.Settle or StepKind.Look or StepKind.Do)))
            yield return new("The engine is running.", "Switch it off first.", FirstOpen(s => s.Kind == StepKind.Settle));
    }

    private IEnumerable<Refusal> WaitsInTheWay(SheetStep step, DateTimeOffset? now)
    {
        foreach (var id in step.Awaits.Append(step.Id))
        {
            if (_waits.TryGetValue(id, out var wait) && now is { } at && wait.Until > at)
                yield return new($"{wait.For}: {Left(wait.Until - at)} to go.",
                    "Do something else meanwhile, or end the wait with a reason.");
            else if (id != step.Id && _steps.ContainsKey(id) && IsLeft(id))
                yield return new($"“{Step(id)!.Title}” comes first.", "Do that step, then wait for it.", id);
        }
    }

    private static string Left(TimeSpan t) => t.TotalMinutes >= 1 ? $"{(int)Math.Ceiling(t.TotalMinutes)} min" : $"{(int)Math.Ceiling(t.TotalSeconds)} s";

    private IEnumerable<Refusal> NeedsOpen(IEnumerable<string> accesses) => accesses.Select(id => Sheet.Access[id]).Where(a => !HasOpen(a))
        .Select(a => new Refusal($"The {Low(a.Name)} is in the way.", "Take it off or open it first.", FirstOpen(s =>
            s.Kind == StepKind.Open && s.What == a.Id)));

    private IEnumerable<Refusal> BeforeOpening(Access access)
    {
        if (HasOpen(access))
            yield return new($"The {Low(access.Name)} is open already.", "Go on with the next step.");
        foreach (var r in NeedsOpen(access.Needs))
            yield return r;
    }

    private IEnumerable<Refusal> BeforeUnscrewing(Fastener fastener)
    {
        if (HasOpen(fastener))
            yield return new($"The {Low(fastener.Name)} {fastener.Is} open already.", "Go on with the next step.");
        // A card that uses nothing up has no kit to lay out.
        if (Kit is null && Steps.FirstOrDefault(s => s.Kind == StepKind.Kit) is { } kit)
        {
            var waits = string.Join(", ", _awaited.Select(a => $"{Low(a.Name)} {a.Number}"));
            yield return new(waits.Length > 0 ? $"The kit has not been confirmed yet: the card waits for {waits}."
                : "The kit has not been confirmed yet.",
                "Lay out parts, pan and oil first: once it is open, a missing washer stops the job.", kit.Id);
        }
        foreach (var r in NeedsOpen(fastener.Needs))
            yield return r;
        if (fastener is { GoesWithDrain: true, System: { } fluid })
            foreach (var drain in Remaining.Where(s => s.Kind == StepKind.Drain && Sheet.Fasteners[s.What].Drains == fluid))
                yield return new($"The old {Low(Sheet.Fluids[fluid].Name)} is still in.",
                    "Let it out first: what is new goes in with new oil.", drain.Id);
    }

    private IEnumerable<Refusal> BeforeDraining(Fastener plug)
    {
        foreach (var r in BeforeUnscrewing(plug))
            yield return r;
        if (Kit is null)
            yield break;
        var fluid = Sheet.Fluids[plug.Drains!];
        var kit = Steps.FirstOrDefault(s => s.Kind == StepKind.Kit)?.Id;
        if (PanPlan.Short([.. FluidsDrained], Kit.AllPans) is { } pans)
            yield return new(pans.What, pans.Do, kit);
        if ((Kit.Oils.GetValueOrDefault(fluid.Id)?.Amount ?? Quantity<Volume>.Zero) is var oil && oil < fluid.Amount.Value)
            yield return new($"Only {Litres(oil)} of {Low(fluid.Name)} is in hand, and {Litres(fluid.Amount.Value)} must go back in.",
                "Fetch the rest and say so at the kit.", kit);
        foreach (var fill in Sheet.Fasteners.Values.Where(f => f.Fills == fluid.Id && !HasOpen(f)))
            yield return new($"The {Low(fill.Name)} has not been loosened yet.",
                $"Loosen it first, or the {Low(fluid.Name)} cannot be filled again.",
                FirstOpen(s => s.Kind == StepKind.Open && s.What == fill.Id));
    }

    private IEnumerable<Refusal> NotDoneBefore(SheetStep step, Func<SheetStep, bool> which, string what) =>
        Steps.TakeWhile(s => s.Id != step.Id).Where(s => which(s) && _steps[s.Id].Status != StepStatus.Done)
            .Select(s => new Refusal($"“{s.Title}” is not done yet.", what, s.Id));

    private IEnumerable<Refusal> HeldDown() => Sheet.Access.Values.Where(a => a.HoldsVehicle && !HasOpen(a))
        .Select(a => new Refusal($"{a.Name}: not in place.", "Set them first.", FirstOpen(s => s.Kind == StepKind.Secure && s.What == a.Id)));

    private IEnumerable<Refusal> BeforeLowering(SheetStep step)
    {
        if (!LiftUp)
            yield return new("The vehicle is down already.", "Go on with the next step.");
        foreach (var r in OpenPlugs("The pan cannot follow the vehicle down. Tighten it first.", IsUnderneath))
            yield return r;
        foreach (var r in NotDoneBefore(step, s => s.Kind == StepKind.Clear && s.Place == Place.Below, "Nothing comes down before the space underneath was looked at."))
            yield return r;
    }

    private static bool IsUnderneath(Fastener f) => (f.Lift ?? f.Place.UsualLift()) == LiftNeed.Up;

    private IEnumerable<Refusal> OpenPlugs(string say, Func<Fastener, bool>? which = null) => Sheet.Fasteners.Values
        .Where(f => HasOpen(f) && which?.Invoke(f) != false)
        .Select(f => new Refusal($"The {Low(f.Name)} {f.Is} not tightened.", say, FirstOpen(s => s.Kind == StepKind.Tighten
            && s.What == f.Id)));

    private IEnumerable<Refusal> BeforeFitting(SheetStep step)
    {
        var holder = Sheet.Fasteners.Values.FirstOrDefault(f => f.Fitted.Contains(step.What));
        if (holder is not null && !HasOpen(holder))
            yield return new($"The {Low(holder.Name)} {holder.Has} not been opened.", "Open it first.",
                FirstOpen(s => s.Kind is StepKind.Open or StepKind.Drain && s.What == holder.Id));
        if (holder is null && Sheet.Parts.TryGetValue(step.What, out var part))
            foreach (var r in NeedsOpen(part.Needs))
                yield return r;
    }

    private IEnumerable<Refusal> BeforeTightening(SheetStep step)
    {
        var fastener = Sheet.Fasteners[step.What];
        if (!HasOpen(fastener))
            yield return new($"The {Low(fastener.Name)} {fastener.Is} not open.", "Go on with the next step.");
        foreach (var part in fastener.Fitted.Where(p => !_fitted.Contains(p)))
            yield return new($"The {Low(Sheet.Parts[part].Name)} has not been fitted.", "Fit it first.", FirstOpen(s => s.Kind == StepKind.Fit && s.What == part));
        foreach (var r in NeedsOpen(fastener.Needs))
            yield return r;
        if (_overTorqued.Contains(step.Id))
            yield return OverTorqueRefusal(fastener);
    }

    private IEnumerable<Refusal> BeforeRetightening(SheetStep step)
    {
        foreach (var r in NeedsOpen(Sheet.Fasteners[step.What].Needs))
            yield return r;
        if (_overTorqued.Contains(step.Id))
            yield return OverTorqueRefusal(Sheet.Fasteners[step.What]);
    }

    private static Refusal OverTorqueRefusal(Fastener f) => new($"The {Low(f.Name)} {f.Was} tightened too far.", f.TooMuch switch
    {
        OverTorqueRule.SlackenAndRepeat => "Slacken it fully, then say so and tighten again.",
        OverTorqueRule.NewPart => "Fit a new part, then say so and tighten that.",
        _ => "Leave it. The workshop lead looks at the thread and says what was done.",
    });

    private IEnumerable<Refusal> BeforeClosing(Access access)
    {
        if (!HasOpen(access))
            yield return new($"The {Low(access.Name)} is not open.", "Go on with the next step.");
        foreach (var f in Sheet.Fasteners.Values.Where(f => HasOpen(f) && f.Needs.Contains(access.Id)))
            yield return new($"The {Low(f.Name)} behind it {f.Is} still open.", "Close that first.", FirstOpen(s =>
                s.Kind == StepKind.Tighten && s.What == f.Id));
        foreach (var a in Sheet.Access.Values.Where(a => HasOpen(a) && a.Needs.Contains(access.Id)))
            yield return new($"The {Low(a.Name)} behind it is still open.", "Close that first.", FirstOpen(s => s.Kind == StepKind.Close && s.What == a.Id));
        if (access.AfterLeakCheck && (!JointsLookedAt || (_closedAt.Count > 0 && FirstOpen(s => s.Kind == StepKind.Look) is not null)))
            yield return new("The opened joints have not been looked at since they were closed.", "Run the engine, then look at every joint.", FirstOpen(s => s.Kind == StepKind.Look));
        if (access.HoldsVehicle && LiftUp)
            yield return new("The vehicle is up.", "They stay until it is down.");
        // What comes after it is set a second time does not hold it.
        if (access.HoldsVehicle && Remaining.TakeWhile(s => s.Kind != StepKind.Secure || s.What != access.Id).FirstOrDefault(s =>
            s.Lift == LiftNeed.Up && !s.MovesLift) is { } still)
            yield return new($"“{still.Title}” still needs the lift.", "They stay until that is done.", still.Id);
    }

    /// <summary>The sealed joints that were opened on this card, closed again or not.</summary>
    public IEnumerable<Fastener> JointsOpened => OpenedJoints.Select(id => Sheet.Fasteners[id]);

    private IEnumerable<string> OpenedJoints => Sheet.Fasteners.Values
        .Where(f => f.Seal is not null && (HasOpen(f) || _closedAt.ContainsKey(f.Id))).Select(f => f.Id);

    private bool IsPumped(string fastener) => Sheet.Fasteners[fastener] is var f && ((f.System ?? f.Fills) is not { } fluid || Sheet.Fluids[fluid].Pumped);

    private bool JointsLookedAt => OpenedJoints.All(id => _closedAt.TryGetValue(id, out var at) && at < _lookedAt && (!IsPumped(id) || at < _ranAt && _ranAt < _lookedAt));

    private IEnumerable<Refusal> BeforeLooking()
    {
        foreach (var r in OpenPlugs("Tighten it first."))
            yield return r;
        if (OpenedJoints.Any(id => IsPumped(id) && _closedAt.TryGetValue(id, out var at) && at > _ranAt) || (_ranAt == 0 && Steps.Any(s => s.Kind == StepKind.Run)))
            yield return new("The engine has not run since the joints were closed.", "A leak shows only after it has run. Start it first.", FirstOpen(s => s.Kind == StepKind.Run));
    }

    private IEnumerable<Refusal> BeforeMeasuring(string fluid)
    {
        if (!Fluid(fluid).Out)
            yield return new($"The {Low(Sheet.Fluids[fluid].Name)} is not out yet.", "Let it out first.",
                FirstOpen(s => s.Kind == StepKind.Drain && Sheet.Fasteners[s.What].Drains == fluid));
    }

    private IEnumerable<Refusal> BeforeFilling(string fluid)
    {
        if (!Fluid(fluid).Out && Steps.Any(s => s.Kind == StepKind.Drain && Sheet.Fasteners[s.What].Drains == fluid))
            yield return new("The old oil has not been drained.", "Drain it first.", FirstOpen(s => s.Kind == StepKind.Drain && Sheet.Fasteners[s.What].Drains == fluid));
        if (Sheet.Fluids[fluid].FillBy == FillBy.MeasuredReturn && Fluid(fluid).CameOut is null)
            yield return new("What came out has not been measured.", "Measure it first: the same amount goes back.", FirstOpen(s => s.Kind == StepKind.Measure && s.What == fluid));
        foreach (var r in OpenPlugs("New oil would run straight out. Tighten it first.", f => IsJointOf(f, fluid)))
            yield return r;
        foreach (var r in NeedsOpen(Sheet.Fluids[fluid].Through))
            yield return r;
        foreach (var plug in Sheet.Fasteners.Values.Where(f => f.Fills == fluid && !HasOpen(f)))
            yield return new($"The {Low(plug.Name)} {plug.Is} shut.", "It is filled through it. Open it first.", FirstOpen(s =>
                s.Kind == StepKind.Open && s.What == plug.Id));
    }

    private IEnumerable<Refusal> BeforeStarting(SheetStep step)
    {
        foreach (var system in Sheet.Fluids.Values)
            if (system.SafeToStart?.Value is { } safe && Fluid(system.Id) is { Out: true } fluid && fluid.Poured < safe)
                yield return new($"Only {Litres(fluid.Poured)} of {Low(system.Name)} is in.", $"Starting needs at least {Litres(safe)}.",
                    FirstOpen(s => s.Kind == StepKind.Pour && s.What == system.Id));
        foreach (var prime in Remaining.Where(s => s.Kind == StepKind.Prime && (step.Kind == StepKind.Run || IsBegun(s))))
            yield return new($"“{prime.Title}” is not done yet.", "Without it the engine would only be cranked.", prime.Id);
        foreach (var r in OpenPlugs("Tighten it before the engine runs."))
            yield return r;
        foreach (var a in Sheet.Access.Values.Where(a => (a.ClosedToRun || a.Intake) && HasOpen(a)))
            yield return new($"The {Low(a.Name)} is still open.", "Close it before the engine runs.", FirstOpen(s => s.Kind == StepKind.Close && s.What == a.Id));
        if (step.Kind == StepKind.Run)
            foreach (var r in NotDoneBefore(step, s => s.Kind == StepKind.Clear && s.Place != Place.Below, "Nothing may lie loose when the engine starts."))
                yield return r;
        if (step.IsDriven)
            foreach (var r in BeforeDriving())
                yield return r;
    }

    // What has to be primed has been opened or fitted on this card: from then on nothing runs before it is primed, not even to warm up.
    private bool IsBegun(SheetStep prime) => Steps.Any(s => _steps[s.Id].Status == StepStatus.Done && s.Jobs.Intersect(prime.Jobs).Any()
        && (s.Kind is StepKind.Fit or StepKind.Drain || (s.Kind == StepKind.Open && Sheet.Fasteners.ContainsKey(s.What))));

    private IEnumerable<Refusal> BeforeReading(string fluid)
    {
        if (Fluid(fluid).Pours == 0)
            yield return new("No oil has been poured yet.", "Pour first.", FirstOpen(s => s.Kind == StepKind.Pour && s.What == fluid));
        foreach (var r in OpenPlugs("The level means nothing while it is open. Tighten it first.", f => IsJointOf(f, fluid)))
            yield return r;
        if (Sheet.Fluids[fluid].Pumped && (_ranAt == 0 || _closedAt.Any(c => c.Value > _ranAt && IsJointOf(Sheet.Fasteners[c.Key], fluid))))
            yield return new("The filter is still empty.", "Run the engine first, so that it fills.", FirstOpen(s => s.Kind == StepKind.Run));
    }

    private static bool IsJointOf(Fastener f, string fluid) => f.System == fluid && f.Fills != fluid;

    // What goes on only after a look stays off where there is another look after the road.
    private IEnumerable<Refusal> BeforeDriving() => Open.Where(o => o.Kind is OpenKind.Fastener or OpenKind.Access or OpenKind.Lift)
        .Where(o => o.Kind != OpenKind.Access || !Sheet.Access[o.Id].AfterLeakCheck || FirstOpen(s => s.Kind == StepKind.Look) is null)
        .Select(o => new Refusal($"{o.Name}: still {(o.Kind == OpenKind.Access && Sheet.Access[o.Id].HoldsVehicle ? "in place" : "open")}.",
            "Close it before the vehicle is driven.", Closing(o)?.Id));

    private IEnumerable<Refusal> BeforeResetMove(SheetStep step) =>
        Steps.TakeWhile(s => s.Id != step.Id).Where(s => s.Kind == StepKind.Reset && s.What == step.What && _steps[s.Id].Status != StepStatus.Done)
            .Take(1).Select(s => new Refusal("The moves of the reset come in order.", $"Do “{s.Title}” first.", s.Id));

    private static string Low(string name) => Words.Low(name);

    private static string Litres(Quantity<Volume> v) => v.Print(Volume.Litre).ToString();
}
