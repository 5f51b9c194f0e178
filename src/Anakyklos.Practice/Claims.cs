using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Coaches.Fitting;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Wording;
using Anakyklos.Devices;
using Anakyklos.Simulation;

namespace Anakyklos.Practice;

/// <summary>Something that the card was told and that was not so.</summary>
/// <param name="At">When it was told.</param>
/// <param name="By">Who told it.</param>
/// <param name="Step">The step.</param>
/// <param name="Told">What the card was told.</param>
/// <param name="How">How it was.</param>
/// <param name="Sort">What kind of thing was told: the same again at the same step is one claim that grew.</param>
public sealed record FalseClaim(DateTimeOffset At, string By, StepId Step, string Told, string How, Type Sort)
{
    /// <summary>What the card was told, and how it was.</summary>
    public string Says => $"“{Told}”: {How}";

    /// <summary>How grave it is: 2 for what proves the work, since nothing after it would have found what is wrong; 1 for what holds the
    /// vehicle together and what is in it; 0 for the rest.</summary>
    public int Weight => Sort == typeof(Drives) || Sort == typeof(PedalFelt) || Sort == typeof(HoseSeen) ? 2
        : Sort == typeof(Tightens) || Sort == typeof(Pours) || Sort == typeof(Fits) || Sort == typeof(TopsUp) ? 1 : 0;
}

/// <summary>Holds what the card was told against what hands had done by then.</summary>
internal static class Claims
{
    /// <summary>What of an event was not so when it was told; null where all of it was.</summary>
    /// <param name="card">The card before the event.</param>
    /// <param name="said">The event.</param>
    /// <param name="before">The run before the event.</param>
    internal static FalseClaim? Of(JobCard card, Recorded said, PracticeRun before)
    {
        if (said.Event is not IStepEvent e || card.Step(e.Step) is not { } step)
            return null;
        var vehicle = before.Vehicle.Until(said.At < before.Vehicle.Now ? before.Vehicle.Now : said.At).Vehicle;
        var hands = Claimed(card, said, step, vehicle);
        // What is opened and shut again for it is as it was.
        var between = hands.OfType<TakesOff>().Select(h => h.What).Intersect(hands.OfType<PutsOn>().Select(h => h.What)).ToHashSet();
        foreach (var claimed in hands.Where(h => h is not TakesOff { What: var off } || !between.Contains(off))
            .Where(h => h is not PutsOn { What: var on } || !between.Contains(on)))
            if ((NotSo(claimed, vehicle) ?? NotDone(claimed, said.Event, step, before)) is { } how)
                return new(said.At, said.By.Name, step.Id, step.Title, how, claimed.GetType());
        if (Read(said.Event, step, vehicle, before) is { } read)
            return new(said.At, said.By.Name, step.Id, step.Title, read, e.GetType());
        return said.Event is StepDone && LookedAt(step) is { } what && !Looked(before, what, card)
            ? new(said.At, said.By.Name, step.Id, step.Title, "nobody had looked", typeof(StepDone)) : null;
    }

    // A road test is told when it is over; what is to be warm, when its time is.
    private static IEnumerable<Happening> Claimed(JobCard card, Recorded said, SheetStep step, Vehicle vehicle) => said.Event switch
    {
        RoadBegun or WarmingBegun => [],
        RoadEnded => [new Drives()],
        _ when step.Traits.Engine == EngineUse.Warms => Ends(said.Event, step) ? [new RunsWarm()] : [],
        _ => HandsOf.Event(card, said, vehicle),
    };

    private static bool Ends(CardEvent said, SheetStep step) =>
        said.Frozen?.Effects.OfType<StepEnds>().Any(e => e.Step == step.Id) ?? false;

    private static bool EndsDrive(CardEvent said, JobCard card) =>
        said.Frozen?.Effects.OfType<StepEnds>().Any(e => card.Step(e.Step) is { IsDriven: true }) ?? false;

    // What was read off or felt: a level, a pan, a point that is worn, a hose, a pedal.
    private static string? Read(CardEvent said, SheetStep step, Vehicle vehicle, PracticeRun run) => said switch
    {
        GaugeRead e when Math.Abs(e.Level.Fraction - vehicle.LevelOf(step.What)) > ReadTo =>
            FormattableString.Invariant($"it stood at {vehicle.LevelOf(step.What) * 100:0} % of the way between the marks"),
        Measured when vehicle.Pans.Values.FirstOrDefault(p => p.In.ContainsKey(step.What)) is { In.Count: > 1 } =>
            "another fluid had run into the same pan",
        HoseSeen { How: Runs.Clear } when vehicle.HoseAt(step.What) is { Bubbles: true } => "bubbles ran in the hose",
        HoseSeen { How: Runs.Clear } when !vehicle.HoseAt(step.What).Fresh => "what ran was dark",
        PedalFelt { How: Pedal.Hard } when vehicle.PedalIsSoft => "it goes to the floor",
        PedalFelt when !new Tally(run).Did(c => c == "pedal/feel", e => e is PedalFelt or StrokesMade) => "nobody had pressed it",
        PointInspected e when run.Lesson.Worn.FirstOrDefault(w => w.Step == step.Id && w.Point == e.Point) is { } worn
            && e.Outcome == PointOutcome.Good => $"it is {Measures.Told(step, worn)}",
        _ => null,
    };

    // As a share of the way between the marks: a finger's breadth on a stick.
    private const decimal ReadTo = 0.15m;

    // What stands in the way of it as the vehicle is now.
    private static string? NotSo(Happening claimed, Vehicle vehicle) => claimed switch
    {
        TakesOff h when !vehicle.IsOff(h.What) => $"nobody had taken the {Low(vehicle.Sheet.Access[h.What].Name)} off",
        PutsOn h when vehicle.IsOff(h.What) => $"nobody had put the {Low(vehicle.Sheet.Access[h.What].Name)} back",
        Sets h when !vehicle.IsOff(h.What) => $"nobody had set the {Low(vehicle.Sheet.Access[h.What].Name)}",
        TakesAway h when vehicle.IsOff(h.What) => $"nobody had taken the {Low(vehicle.Sheet.Access[h.What].Name)} away",
        Undoes h when vehicle.Joints[h.What].IsIn => $"nobody had undone the {Low(vehicle.Sheet.Fasteners[h.What].Name)}",
        RunsIn h when !vehicle.Joints[h.What].IsIn => $"nobody had run the {Low(vehicle.Sheet.Fasteners[h.What].Name)} in",
        MendsThread h when vehicle.Joints[h.What].IsStripped =>
            $"nobody had made the thread good: {Low(vehicle.Sheet.Fasteners[h.What].Name)}",
        Tightens h when Loose(h, vehicle) is { } how => how,
        WasReallyTightenedTo h when Loose(new(h.What, h.At, h.Place), vehicle) is { } how => how,
        Fits h when !IsIn(h, vehicle) => NotFitted(h, vehicle.Sheet),
        Primes h when vehicle.Unprimed.Contains(h.What) => $"nobody had primed the {Low(vehicle.Sheet.Parts[h.What].Name)}",
        Raises when !vehicle.IsUp => "the vehicle stood on its wheels",
        Lowers when vehicle.IsUp => "the vehicle was up",
        SetsArms when !vehicle.ArmsSeen && !vehicle.IsUp => "nobody had looked at the lifting points",
        ClearsBelow when vehicle.PanUnder.Count > 0 => "the pan still stood below",
        EmptiesPan h when vehicle.Pans[h.Pan].In.Count > 0 => $"{Low(h.Pan)} was still full",
        ClearsAbove when vehicle.LiesAbove =>
            $"{string.Join(", ", vehicle.Lies.Where(l => l.Value == Place.Top).Select(l => l.Key))} lay there",
        Starts when !vehicle.Runs => "the engine did not run",
        Stops when vehicle.Runs => "the engine still ran",
        RunsWarm when !vehicle.IsHot => "the engine was not warm",
        Inflates h when vehicle.Tyres.FirstOrDefault(t => Math.Abs(t.Value.In(Pressure.Bar) - h.To.In(Pressure.Bar)) > ABar)
            is { Key: { } tyre, Value: var has } => $"{Low(tyre)} had {has.Print(Pressure.Bar)}",
        PutsOut h when vehicle.Lit.Contains(h.What) => "the indicator was still lit",
        _ => null,
    };

    // So far two gauges may be off.
    private const decimal ABar = 0.15m;

    // What hands must have done for it, where the vehicle does not show whether they did.
    private static string? NotDone(Happening claimed, CardEvent said, SheetStep step, PracticeRun run)
    {
        var tally = new Tally(run);
        return claimed switch
        {
            Drives => tally.Did(c => c.StartsWith("road/", StringComparison.Ordinal), e => e is RoadEnded || EndsDrive(e, run.Card)) ? null
                : "nobody had driven it",
            Cranks => tally.Did(c => c == "engine/crank", e => e is EngineCranked) ? null : "nobody had cranked it",
            SucksOut h => tally.Did(c => c == $"fluid:{h.What}/suck", _ => false) ? null : "nobody had emptied the reservoir",
            TopsUp h => tally.Did(c => c.StartsWith($"fluid:{h.What}/top", StringComparison.Ordinal), e => e is ReservoirFilled) ? null
                : "nobody had filled the reservoir",
            RenewsSeal h => tally.Did(c => c == $"fastener:{h.What}/renew", e => e is SealRenewed) ? null : "nobody had renewed the seal",
            Strokes h => tally.Strokes(h.What, e => e is StrokesMade s && run.Card.Step(s.Step)?.What == h.What ? s.Strokes : null,
                h.Count),
            Pours h => tally.Fell(c => c == $"fluid:{h.What}/pour", e => e is Poured p ? At(p, p.Amount) : null,
                said is Poured now ? now.Amount.Value : h.Amount),
            DrawsOff h => tally.Fell(c => c == $"fluid:{h.What}/draw", e => e is TakenOut p ? At(p, p.Amount) : null, h.Amount),
            RunsThrough h => tally.Fell(c => c == $"fastener:{step.What}/rinse", e => e is Rinsed p ? At(p, p.Amount) : null, h.Amount),
            FillsPart h => tally.Fell(c => c.EndsWith($"{step.What}/prefill", StringComparison.Ordinal),
                e => e is PartFilled p ? At(p, p.Amount) : null, h.Amount),
            // What no fastener holds lies in its housing: nobody sees from outside whether it is the new one.
            Fits h when Things.Holder(run.Card.Sheet, h.What) is null => tally.Did(c => c == $"part:{h.What}/{(h.Old ? "old" : "new")}",
                _ => false) ? null : NotFitted(h, run.Card.Sheet),
            // The vehicle shows it; where one stands and what one fetches is seen by what comes of it.
            TakesOff or PutsOn or Sets or TakesAway or Undoes or RunsIn or MendsThread or Tightens or WasReallyTightenedTo or Fits or Primes
                or Raises or Lowers or SetsArms or ClearsBelow or EmptiesPan or ClearsAbove or Starts or Stops or RunsWarm or Inflates
                or PutsOut or Goes or Brings or SlidesPanUnder or JointWeeps => null,
            _ => throw new ArgumentException($"Nobody has said how it is seen that {claimed.GetType().Name} was not done "
                + $"when {said.GetType().Name} is told.", nameof(claimed)),
        };

        Quantity<Volume>? At(IStepEvent told, Typed<Volume> amount) =>
            run.Card.Step(told.Step)?.What == step.What ? amount.Value : null;
    }

    private static string? Loose(Tightens claimed, Vehicle vehicle)
    {
        var (joint, name) = (vehicle.Joints[claimed.What], Low(vehicle.Sheet.Fasteners[claimed.What].Name));
        if (!joint.IsIn)
            return $"nobody had put the {name} in";
        var screw = claimed.Place > 0 && !joint.Screws.IsEmpty ? joint.Screws.GetValueOrDefault(claimed.Place) : null;
        var (torque, isTight) = screw is null ? (joint.Torque, joint.IsTight) : (screw.Torque, screw.IsTight);
        if (claimed.To is null ? isTight : torque is { } near && Difference(near, claimed.To.Value) <= Reads)
            return null;
        return claimed.To is not null && torque is { } really ? $"{name} stood at {really}" : $"nobody had tightened the {name}";
    }

    private static decimal Difference(Quantity<Torque> really, Quantity<Torque> told) =>
        Math.Abs(really.In(Torque.NewtonMetre) - told.In(Torque.NewtonMetre)) / told.In(Torque.NewtonMetre);

    // So far a wrench and whoever reads it may be off, as a share.
    private const decimal Reads = 0.04m;

    private static string NotFitted(Fits claimed, ModelSheet sheet) => claimed.Old
        ? $"nobody had put the {Low(sheet.Parts[claimed.What].Name)} back in"
        : $"nobody had fitted a new {Low(sheet.Parts[claimed.What].Name)}";

    private static bool IsIn(Fits claimed, Vehicle vehicle) => Things.Holder(vehicle.Sheet, claimed.What) is not { } holder
        || (holder.Seal == claimed.What
            ? vehicle.Joints[holder.Id].Seals is [.., var last] && (claimed.Old || last.Squeezed == 0)
            : vehicle.Joints[holder.Id].Holds.Contains(claimed.What));

    // What a step asks to be looked at, that a press says was.
    private static ThingId? LookedAt(SheetStep step) => step.Traits.LooksAtJoints || step.Kind == "compare" ? step.What : (ThingId?)null;

    private static bool Looked(PracticeRun run, ThingId what, JobCard card) => run.Log.OfType<HandDid>().Any(d => d.Sees is not null
        && (what.IsEmpty || d.Choice.Contains(what.Text, StringComparison.Ordinal)
            || card.JointsOpened.Any(j => d.Choice.Contains(j.Id.Text, StringComparison.Ordinal))));

    private static string Low(string name) => Words.Low(name);
}
