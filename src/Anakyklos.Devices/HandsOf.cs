using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Coaches.Fitting;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Coaches.Resetting;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Simulation;

namespace Anakyklos.Devices;

/// <summary>What hands did when a card was told something: the words of the card turned into moves at a simulated vehicle.</summary>
public static class HandsOf
{
    /// <summary>The moves behind an event, by the one who said it, who goes where the step is.</summary>
    /// <param name="card">The card as it stood before the event.</param>
    /// <param name="said">What the card was told and accepted, and by whom.</param>
    /// <param name="vehicle">The vehicle as it stands.</param>
    /// <returns>In order; none where nothing was done to the vehicle.</returns>
    public static IReadOnlyList<Happening> Event(JobCard card, Recorded said, Vehicle vehicle)
    {
        var moves = Moves(card, said.Event, vehicle);
        var step = said.Event switch
        {
            StepDone e => card.Step(e.Step),
            DeviationTaken e => card.Step(e.Step),
            // Who only puts right what was written stays where he is.
            IStepEvent e when moves.Any(m => m is Hand) => card.Step(e.Step),
            _ => null,
        };
        IEnumerable<Happening> goes = step is not null ? [new Goes(step.Place)] : [];
        return [.. goes.Concat(moves).Select(m => m is Hand hand ? hand with { By = said.By.Name } : m)];
    }

    private static IReadOnlyList<Happening> Moves(JobCard card, CardEvent e, Vehicle vehicle) => e switch
    {
        LiftMoved { Up: true } => [new Goes(Place.Side), new SetsArms(), new Raises()],
        LiftMoved => [new Goes(Place.Below), new ClearsBelow(), new Goes(Place.Side), new Lowers()],
        PanEmptied p => vehicle.Pans.ContainsKey(PanName(p.Pan)) ? [new EmptiesPan(PanName(p.Pan))] : [],
        DeviationTaken { Kind: DeviationKind.NoReading } d when card.Step(d.Step)!.Traits is { MeasuresOut: false } =>
            [new Tightens(card.Step(d.Step)!.What)],
        IStepEvent at => Step(card, card.Step(at.Step)!, e, vehicle),
        _ => [],
    };

    private static IReadOnlyList<Happening> Step(JobCard card, SheetStep step, CardEvent e, Vehicle vehicle) => e switch
    {
        StepDone done => Done(card, step, done, vehicle),
        ReadingTaken { Corrects: not null } r => [new WasReallyTightenedTo(step.What, r.Reached.Value, r.Of[0])],
        LeakFound leak => [.. step.Traits.Engine == EngineUse.Stops ? [new Stops()] : Array.Empty<Happening>(),
            new JointWeeps(leak.Fastener)],
        SwitchedOffDry => [new Stops()],
        // Slackened, not taken out.
        OverTorqueSettled => [new MendsThread(step.What), new JointWeeps(step.What, Fastening.Of(card, step).Next?.Place.Number ?? 1)],
        // What a wrench sent that hangs on this vehicle has happened to it already.
        ReadingTaken { Device: not null } r when HasHappened(vehicle.Joints[step.What], r.Of[0]) => [],
        ReadingTaken r => [.. Places(r.Pass, r.Places, card, step).Select(p => new Tightens(step.What, r.Reached.Value, p))],
        FastenersDrawn d => Drawn(card, step, d, vehicle),
        JointWasLoose => [],
        SealRenewed => [new RenewsSeal(step.What)],
        // Whoever takes up a wrench does nothing to the vehicle.
        WrenchTaken => [],
        WarmingBegun w => [.. w.LookedAbove ? LooksAbove(step) : [], step.IsDriven ? new Drives() : new RunsWarm()],
        EngineCaught => [new Starts()],
        OilLightStayed => [new Stops()],
        SweptFor { Frozen: { } did } when !did.Effects.Any(x => x is StepEnds) => [],
        SweptFor => step.Traits.LooksOver ? [new ClearsAbove()] : [new ClearsBelow()],
        // It is driven as it sets off: what turns out loose later was loose all the way.
        RoadBegun => [new Drives(((DriveSpec)step.Spec!).Far.Value)],
        RoadTried or RoadEnded => [],
        // Where somebody is at the dash itself, it alone puts the indicator out.
        ResetShown or ResetAnswered when step.EndsReset => vehicle.Display.Reset == (ResetId)step.What ? [] : [new PutsOut(step.What)],
        ResetHeld or ResetFailed or ResetShown or ResetAnswered or ResetLookedInto => [],
        StartMoveMade or OilLightOut or LightLookedInto or JointDry or JointWept => [],
        EngineCranked => [new Cranks(card.Sheet.Starter!.Longest)],
        PartFitted => [PutsIn(card, step)],
        PartFilled f => [new FillsPart(card.Sheet.Pours(step)!.Id, f.Amount.Value)],
        Poured p => Poured(card, step, p.Amount.Value, vehicle),
        Rinsed r => [new RunsThrough(card.Sheet.Fasteners[step.What].Drains!.Value, r.Amount.Value)],
        TakenOut t => [new DrawsOff(step.What, t.Amount.Value)],
        StrokesMade s => vehicle.Joints[step.What].IsIn ? [new Undoes(step.What), new Strokes(step.What, s.Strokes)]
            : [new Strokes(step.What, s.Strokes)],
        ReservoirFilled f => [new TopsUp(step.Spec is BleedSpec bleed ? bleed.Fluid : (FluidId)step.What,
            f.Short ? f.Amount.Value : null)],
        PedalPressed or PedalFelt => [],
        PointInspected { Outcome: PointOutcome.Good } p when Gauged.Find(p.Reads) is { Scale.Kind: "pressure" } bar =>
            [new Inflates(Quantity<Pressure>.Of(bar.Base, Pressure.Kilopascal))],
        BleedScrewShut s => [new Tightens(step.What, s.Reading.Value)],
        _ => [],
    };

    private static IReadOnlyList<Happening> LooksAbove(SheetStep step) => [new Goes(Place.Top), new ClearsAbove(), new Goes(step.Place)];

    private static IReadOnlyList<Happening> Done(JobCard card, SheetStep step, StepDone done, Vehicle vehicle)
    {
        var (what, sheet) = (step.What, card.Sheet);
        return step.Traits switch
        {
            { Engine: EngineUse.Warms } => done.LookedAbove && step.Spec is not WarmSpec ? [.. LooksAbove(step), new RunsWarm()]
                : [new RunsWarm()],
            { Engine: EngineUse.Starts } => [new Starts()],
            { Engine: EngineUse.Stops } => [new Stops()],
            { Engine: EngineUse.Drives } => [new Drives()],
            { Sets: true } => [new Sets(what)],
            { Lift: LiftMove.ReadyToRaise } => [new SetsArms()],
            { Lift: LiftMove.Raises } => [new Raises()],
            { Lift: LiftMove.ReadyToLower } => [new ClearsBelow()],
            { Lift: LiftMove.Lowers } => [new Lowers()],
            { LooksOver: true } => [new ClearsAbove()],
            { LetsOut: true } => [.. PanUnder(card, step, sheet.Fasteners[what].Drains!.Value), new Undoes(what)],
            // What holds oil back goes off over a pan.
            { Opens: true } when sheet.Fasteners.TryGetValue(what, out var fastener) =>
                fastener.System is not { } system ? [new Undoes(what)]
                    : [.. PanUnder(card, step, system), new Undoes(what)],
            { Opens: true } => [new TakesOff(what, done.Count)],
            { Closes: true } => [sheet.Access[what].HoldsVehicle ? new TakesAway(what) : new PutsOn(what, done.Count)],
            { Tightens: true } => [new Tightens(what, null, 1)],
            { Fits: true } => [PutsIn(card, step)],
            { Primes: true } => [new Primes(what)],
            { PutsOut: true } when step.EndsReset => vehicle.Display.Reset == (ResetId)what ? [] : [new PutsOut(what)],
            _ when step.Moves => [new Drives()],
            _ when Quantity<Pressure>.Read(step.Value, out _) is { } pressure => [new Inflates(pressure.Value)],
            { SucksOut: true } => vehicle.Brakes.ContainsKey(what) ? [new SucksOut(what)] : [],
            // Old oil goes into its drum, and the pan with it out of the way.
            { EmptiesPans: true } => [new Goes(Place.Below), new ClearsBelow(), new Goes(step.Place), .. vehicle.Pans
                .Where(p => p.Value.In.Count > 0).Select(p => new EmptiesPan(p.Key))],
            _ => [],
        };
    }

    private static Fits PutsIn(JobCard card, SheetStep step) =>
        new(step.What, card.Kit?.Parts.GetValueOrDefault(step.What) == KitConfirmed.OldOneAgain);

    private static bool HasHappened(Joint joint, int place) => joint.IsIn
        && (joint.Screws.IsEmpty ? joint.Torque : joint.Screws.GetValueOrDefault(place)?.Torque) > Quantity<Torque>.Zero;

    // On old cards one reading spoke for all of a group.
    private static IEnumerable<int> Places(int pass, IReadOnlyList<int>? places, JobCard card, SheetStep step) =>
        pass == 0 && places is null ? Enumerable.Range(1, card.Sheet.Fasteners[step.What].Count) : places ?? [1];

    // All in by hand first; what is turned after that is turned as far as the sheet wants it.
    private static IReadOnlyList<Happening> Drawn(JobCard card, SheetStep step, FastenersDrawn drawn, Vehicle vehicle)
    {
        if (Fastening.Of(card, step).Plan.Find(drawn.Pass, drawn.Places[0]) is { Spec: ByHand, Passes: > 1 })
            return vehicle.Joints[step.What].IsIn ? [] : [new RunsIn(step.What)];
        return [.. drawn.Places.Select(p => new Tightens(step.What, null, p))];
    }

    // Whoever opens something that runs has put the pan under it before that the card names; without a kit he takes one that is large
    // enough for everything.
    private static IEnumerable<Hand> PanUnder(JobCard card, SheetStep step, FluidId fluid) =>
        [new Goes(Place.Below), card.PanFor(step) is { } pan ? new SlidesPanUnder(card.Pans[pan].Holds, PanName(pan), fluid)
            : new SlidesPanUnder(null, "Large pan", fluid), new Goes(step.Place)];

    private static string PanName(int pan) => $"Pan {pan + 1}";

    // A little that is missing goes in by the cap, which is opened and shut for it; what may run out of a hole runs into a pan.
    private static IReadOnlyList<Happening> Poured(JobCard card, SheetStep step, Quantity<Volume> amount, Vehicle vehicle)
    {
        var fluid = card.Sheet.Fluids[step.What];
        var shut = fluid.Through.Where(a => !vehicle.IsOff(a)).ToList();
        IEnumerable<Hand> before = fluid.FillBy == FillBy.Overflow ? PanUnder(card, step, fluid.Id) : shut.Select(a => new TakesOff(a));
        IEnumerable<Hand> after = fluid.FillBy == FillBy.Overflow ? [] : shut.Select(a => new PutsOn(a)).Reverse();
        return [.. before, .. FromCans(card, fluid, amount, vehicle, step.Place), .. after];
    }

    // What was laid out is poured first; for more than that another can is fetched.
    private static IEnumerable<Hand> FromCans(JobCard card, FluidSystem fluid, Quantity<Volume> amount, Vehicle vehicle, Place at)
    {
        var laid = card.OilInHand(fluid.Id)?.Amount ?? fluid.Amount.Value;
        for (var (i, rest) = (1, amount); rest > Quantity<Volume>.Zero; i++)
        {
            var can = i == 1 ? $"Can of {fluid.Name}" : $"Can {i} of {fluid.Name}";
            var left = vehicle.Cans.TryGetValue(can, out var there) ? there.Left : laid;
            if (left <= Quantity<Volume>.Zero)
                continue;
            var pours = left < rest ? left : rest;
            yield return new Brings(can, fluid.Id, laid, at);
            yield return new Pours(fluid.Id, pours, can);
            rest -= pours;
        }
    }
}
