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
    public IReadOnlyList<Refusal> InTheWay(SheetStep step, DateTimeOffset now)
    {
        IReadOnlyList<Refusal> found = [.. LiftInTheWay(step), .. EngineInTheWay(step), .. WaitsInTheWay(step, now), .. ColdInTheWay(step, now), .. Gate(step)];
        return found.Count > 0 ? found : [.. OrderInTheWay(step)];
    }

    private IEnumerable<Refusal> OrderInTheWay(SheetStep step) => step.After.Select(Step).OfType<SheetStep>()
        .Where(s => _steps[s.Id].Status is StepStatus.Waiting or StepStatus.Aside)
        .Select(s => new Refusal($"“{s.Title}” comes first.", "Do that step first.", s.Id));

    private IEnumerable<Refusal> ColdInTheWay(SheetStep step, DateTimeOffset now)
    {
        if (step.Cold && _hotAt is { } hot && hot + Sheet.CoolsIn > now)
            yield return new($"The engine was run at {hot:HH:mm} and is still hot.", $"Do something else until {hot + Sheet.CoolsIn:HH:mm}: this is done cold.");
    }

    private IEnumerable<Refusal> Gate(SheetStep step) => step.Kind switch
    {
        StepKind.Secure or StepKind.Open when step.What.Length > 0 && Sheet.Access.TryGetValue(step.What, out var access) => BeforeOpening(access),
        StepKind.Open => BeforeUnscrewing(Sheet.Fasteners[step.What]),
        StepKind.Drain => BeforeDraining(Sheet.Fasteners[step.What]),
        StepKind.Raise => [.. NotDoneBefore(step, s => s.Kind == StepKind.Secure, "Nothing is raised before chocks and lifting points were looked at."), .. HeldDown()],
        StepKind.Lower => BeforeLowering(step),
        StepKind.Fit => BeforeFitting(step),
        StepKind.Tighten => BeforeTightening(step),
        StepKind.Close => BeforeClosing(Sheet.Access[step.What]),
        StepKind.Pour => BeforeFilling(step.What),
        StepKind.Warm or StepKind.Run => BeforeStarting(step),
        StepKind.Settle when !EngineRuns => [new("The engine is not running.", "Start it first.", FirstOpen(s => s.Kind == StepKind.Run))],
        StepKind.Gauge => BeforeReading(step.What),
        StepKind.Look => BeforeLooking(),
        StepKind.Reset => BeforeResetMove(step),
        StepKind.Drive => BeforeDriving(),
        _ => [],
    };

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
        if (EngineRuns && step.Kind is not (StepKind.Settle or StepKind.Look or StepKind.Do))
            yield return new("The engine is running.", "Switch it off first.", FirstOpen(s => s.Kind == StepKind.Settle));
    }

    private IEnumerable<Refusal> WaitsInTheWay(SheetStep step, DateTimeOffset now)
    {
        foreach (var id in step.Awaits.Append(step.Id))
            if (_waits.TryGetValue(id, out var wait) && wait.Until > now)
                yield return new($"{wait.For}: {Left(wait.Until - now)} to go.", "Do something else meanwhile, or end the wait with a reason.");
            else if (id != step.Id && _steps.TryGetValue(id, out var s) && s.Status is StepStatus.Waiting or StepStatus.Aside)
                yield return new($"“{Step(id)!.Title}” comes first.", "Do that step, then wait for it.", id);
    }

    private static string Left(TimeSpan t) => t.TotalMinutes >= 1 ? $"{(int)Math.Ceiling(t.TotalMinutes)} min" : $"{(int)Math.Ceiling(t.TotalSeconds)} s";

    private IEnumerable<Refusal> NeedsOpen(IEnumerable<string> accesses) =>
        accesses.Where(id => !_open.ContainsKey(id)).Select(id => Sheet.Access[id])
            .Select(a => new Refusal($"The {Low(a.Name)} is in the way.", "Take it off or open it first.", FirstOpen(s => s.Kind == StepKind.Open && s.What == a.Id)));

    private IEnumerable<Refusal> BeforeOpening(Access access)
    {
        if (_open.ContainsKey(access.Id))
            yield return new($"The {Low(access.Name)} is open already.", "Go on with the next step.", Next?.Id);
        foreach (var r in NeedsOpen(access.Needs))
            yield return r;
    }

    private IEnumerable<Refusal> BeforeUnscrewing(Fastener fastener)
    {
        if (_open.ContainsKey(fastener.Id))
            yield return new($"The {Low(fastener.Name)} is open already.", "Go on with the next step.", Next?.Id);
        if (Kit is null)
            yield return new(_awaited.Count > 0 ? $"The kit has not been confirmed yet: the card waits for {string.Join(", ", _awaited.Select(a => $"{Low(a.Name)} {a.Number}"))}." : "The kit has not been confirmed yet.", "Lay out parts, pan and oil first: once it is open, a missing washer stops the job.", FirstOpen(s => s.Kind == StepKind.Kit));
        foreach (var r in NeedsOpen(fastener.Needs))
            yield return r;
    }

    private IEnumerable<Refusal> BeforeDraining(Fastener plug)
    {
        foreach (var r in BeforeUnscrewing(plug))
            yield return r;
        if (Kit is null)
            yield break;
        var fluid = Sheet.Fluids[plug.Drains!];
        var kit = Steps.First(s => s.Kind == StepKind.Kit).Id;
        if (Kit.Pan < fluid.Amount.Value)
            yield return new($"The pan holds {Litres(Kit.Pan)}, but {Litres(fluid.Amount.Value)} will come out.", "Take a larger pan and confirm the kit again.", kit);
        if ((Kit.Oils.GetValueOrDefault(fluid.Id)?.Amount ?? Quantity<Volume>.Zero) is var oil && oil < fluid.Amount.Value)
            yield return new($"Only {Litres(oil)} of {Low(fluid.Name)} is in hand, and {Litres(fluid.Amount.Value)} must go back in.", "Fetch the rest and confirm the kit again.", kit);
        foreach (var fill in Sheet.Fasteners.Values.Where(f => f.Fills == fluid.Id && !_open.ContainsKey(f.Id)))
            yield return new($"The {Low(fill.Name)} has not been loosened yet.", $"Loosen it first, or the {Low(fluid.Name)} cannot be filled again.", FirstOpen(s => s.Kind == StepKind.Open && s.What == fill.Id));
    }

    private IEnumerable<Refusal> NotDoneBefore(SheetStep step, Func<SheetStep, bool> which, string what) =>
        Steps.TakeWhile(s => s.Id != step.Id).Where(s => which(s) && _steps[s.Id].Status != StepStatus.Done)
            .Select(s => new Refusal($"“{s.Title}” is not done yet.", what, s.Id));

    private IEnumerable<Refusal> HeldDown() => Sheet.Access.Values.Where(a => a.HoldsVehicle && !_open.ContainsKey(a.Id))
        .Select(a => new Refusal($"{a.Name}: not in place.", "Set them first.", FirstOpen(s => s.Kind == StepKind.Secure && s.What == a.Id)));

    private IEnumerable<Refusal> BeforeLowering(SheetStep step)
    {
        foreach (var r in OpenPlugs("The pan cannot follow the vehicle down. Tighten it first.", IsUnderneath))
            yield return r;
        foreach (var r in NotDoneBefore(step, s => s.Kind == StepKind.Clear && s.Place == Place.Below, "Nothing comes down before the space underneath was looked at."))
            yield return r;
    }

    private static bool IsUnderneath(Fastener f) => (f.Lift ?? f.Place.UsualLift()) == LiftNeed.Up;

    private IEnumerable<Refusal> OpenPlugs(string say, Func<Fastener, bool>? which = null) => Sheet.Fasteners.Values.Where(f => _open.ContainsKey(f.Id) && which?.Invoke(f) != false)
        .Select(f => new Refusal($"The {Low(f.Name)} is not tightened.", say, FirstOpen(s => s.Kind == StepKind.Tighten && s.What == f.Id)));

    private IEnumerable<Refusal> BeforeFitting(SheetStep step)
    {
        var holder = Sheet.Fasteners.Values.FirstOrDefault(f => PartsOf(f).Contains(step.What));
        if (holder is not null && !_open.ContainsKey(holder.Id))
            yield return new($"The {Low(holder.Name)} has not been opened.", "Open it first.", FirstOpen(s => s.Kind is StepKind.Open or StepKind.Drain && s.What == holder.Id));
    }

    private IEnumerable<Refusal> BeforeTightening(SheetStep step)
    {
        var fastener = Sheet.Fasteners[step.What];
        if (!_open.ContainsKey(fastener.Id))
            yield return new($"The {Low(fastener.Name)} is not open.", "Go on with the next step.", Next?.Id);
        foreach (var part in PartsOf(fastener).Where(p => !_fitted.Contains(p)))
            yield return new($"The {Low(Sheet.Parts[part].Name)} has not been fitted.", "Fit it first.", FirstOpen(s => s.Kind == StepKind.Fit && s.What == part));
        foreach (var r in NeedsOpen(fastener.Needs))
            yield return r;
        if (_overTorqued.Contains(step.Id))
            yield return OverTorqueRefusal(fastener);
    }

    private static Refusal OverTorqueRefusal(Fastener f) => new($"The {Low(f.Name)} was tightened too far.", f.TooMuch switch
    {
        OverTorqueRule.SlackenAndRepeat => "Slacken it fully, then say so and tighten again.",
        OverTorqueRule.NewPart => "Fit a new part, then say so and tighten that.",
        _ => "Leave it. The workshop lead looks at the thread and says what was done.",
    });

    private IEnumerable<Refusal> BeforeClosing(Access access)
    {
        if (!_open.ContainsKey(access.Id))
            yield return new($"The {Low(access.Name)} is not open.", "Go on with the next step.", Next?.Id);
        foreach (var f in Sheet.Fasteners.Values.Where(f => _open.ContainsKey(f.Id) && f.Needs.Contains(access.Id)))
            yield return new($"The {Low(f.Name)} behind it is still open.", "Close that first.", FirstOpen(s => s.Kind == StepKind.Tighten && s.What == f.Id));
        foreach (var a in Sheet.Access.Values.Where(a => _open.ContainsKey(a.Id) && a.Needs.Contains(access.Id)))
            yield return new($"The {Low(a.Name)} behind it is still open.", "Close that first.", FirstOpen(s => s.Kind == StepKind.Close && s.What == a.Id));
        if (access.AfterLeakCheck && !JointsLookedAt)
            yield return new("The opened joints have not been looked at since they were closed.", "Run the engine, then look at every joint.", FirstOpen(s => s.Kind == StepKind.Look));
        if (access.HoldsVehicle && LiftUp)
            yield return new("The vehicle is up.", "They stay until it is down.");
        if (access.HoldsVehicle && FirstOpen(s => s.Lift == LiftNeed.Up) is { } still)
            yield return new($"“{Known(still).Title}” still needs the lift.", "They stay until that is done.", still);
    }

    private IEnumerable<string> OpenedJoints => Sheet.Fasteners.Values
        .Where(f => f.Seal is not null && (_open.ContainsKey(f.Id) || _closedAt.ContainsKey(f.Id))).Select(f => f.Id);

    private bool IsPumped(string fastener) => Sheet.Fasteners[fastener] is var f && ((f.System ?? f.Fills) is not { } fluid || Sheet.Fluids[fluid].Pumped);

    private bool JointsLookedAt => OpenedJoints.All(id => _closedAt.TryGetValue(id, out var at) && at < _lookedAt && (!IsPumped(id) || at < _ranAt && _ranAt < _lookedAt));

    private IEnumerable<Refusal> BeforeLooking()
    {
        foreach (var r in OpenPlugs("Tighten it first."))
            yield return r;
        if (OpenedJoints.Any(id => IsPumped(id) && _closedAt.TryGetValue(id, out var at) && at > _ranAt) || (_ranAt == 0 && Steps.Any(s => s.Kind == StepKind.Run)))
            yield return new("The engine has not run since the joints were closed.", "A leak shows only after it has run. Start it first.", FirstOpen(s => s.Kind == StepKind.Run));
    }

    private IEnumerable<Refusal> BeforeFilling(string fluid)
    {
        if (!Fluid(fluid).Out && Steps.Any(s => s.Kind == StepKind.Drain && Sheet.Fasteners[s.What].Drains == fluid))
            yield return new("The old oil has not been drained.", "Drain it first.", FirstOpen(s => s.Kind == StepKind.Drain && Sheet.Fasteners[s.What].Drains == fluid));
        if (Sheet.Fluids[fluid].FillBy == FillBy.MeasuredReturn && Fluid(fluid).CameOut is null)
            yield return new("What came out has not been measured.", "Measure it first: the same amount goes back.", FirstOpen(s => s.Kind == StepKind.Measure && s.What == fluid));
        foreach (var r in OpenPlugs("New oil would run straight out. Tighten it first.", f => IsJointOf(f, fluid)))
            yield return r;
    }

    private IEnumerable<Refusal> BeforeStarting(SheetStep step)
    {
        foreach (var system in Sheet.Fluids.Values)
            if (system.SafeToStart?.Value is { } safe && Fluid(system.Id) is { Out: true } fluid && fluid.Poured < safe)
                yield return new($"Only {Litres(fluid.Poured)} of {Low(system.Name)} is in.", $"Starting needs at least {Litres(safe)}.", FirstOpen(s => s.Kind == StepKind.Pour && s.What == system.Id));
        foreach (var prime in step.Kind == StepKind.Run ? Remaining.Where(s => s.Kind == StepKind.Prime).ToList() : [])
            yield return new($"“{prime.Title}” is not done yet.", "Without it the engine would only be cranked.", prime.Id);
        foreach (var r in OpenPlugs("Tighten it before the engine runs."))
            yield return r;
        foreach (var a in Sheet.Access.Values.Where(a => (a.ClosedToRun || a.Intake) && _open.ContainsKey(a.Id)))
            yield return new($"The {Low(a.Name)} is still open.", "Close it before the engine runs.", FirstOpen(s => s.Kind == StepKind.Close && s.What == a.Id));
        if (step.Kind == StepKind.Run)
            foreach (var r in NotDoneBefore(step, s => s.Kind == StepKind.Clear && s.Place != Place.Below, "Nothing may lie loose when the engine starts."))
                yield return r;
    }

    private IEnumerable<Refusal> BeforeReading(string fluid)
    {
        if (Fluid(fluid).Pours == 0)
            yield return new("No oil has been poured yet.", "Pour first.", FirstOpen(s => s.Kind == StepKind.Pour));
        foreach (var r in OpenPlugs("The level means nothing while it is open. Tighten it first.", f => IsJointOf(f, fluid)))
            yield return r;
        if (Sheet.Fluids[fluid].Pumped && (_ranAt == 0 || _closedAt.Any(c => c.Value > _ranAt && IsJointOf(Sheet.Fasteners[c.Key], fluid))))
            yield return new("The filter is still empty.", "Run the engine first, so that it fills.", FirstOpen(s => s.Kind == StepKind.Run));
    }

    private static bool IsJointOf(Fastener f, string fluid) => f.System == fluid && f.Fills != fluid;

    private IEnumerable<Refusal> BeforeDriving() => Open.Where(o => Sheet.Fasteners.ContainsKey(o.Id) || Sheet.Access.ContainsKey(o.Id) || o.Id == "lift")
        .Select(o => new Refusal($"{o.Name}: still open.", "Close it before the vehicle is driven.", Closing(o)?.Id));

    private IEnumerable<Refusal> BeforeResetMove(SheetStep step) =>
        Steps.TakeWhile(s => s.Id != step.Id).Where(s => s.Kind == StepKind.Reset && s.What == step.What && _steps[s.Id].Status != StepStatus.Done)
            .Take(1).Select(s => new Refusal("The moves of the reset come in order.", $"Do “{s.Title}” first.", s.Id));

    private static string Low(string name) => char.ToLowerInvariant(name[0]) + name[1..];

    private static string Litres(Quantity<Volume> v) => v.Print(Volume.Litre).ToString();
}
