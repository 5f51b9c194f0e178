using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Coaches.Tightening;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Simulation.Tests;

/// <summary>What hands did when a card was told that a step is done: the words of the card turned into moves at the vehicle.</summary>
internal static class HandsOf
{
    internal static IReadOnlyList<object> Event(JobCard card, CardEvent e, Vehicle vehicle) => e switch
    {
        LiftMoved l => l.Up ? [new SetsArms(), new Raises()] : [new ClearsBelow(), new Lowers()],
        DeviationTaken { Kind: DeviationKind.NoReading } d => [new Tightens(card.Step(d.Step)!.What)],
        IStepEvent at => Step(card, card.Step(at.Step)!, e, vehicle),
        _ => [],
    };

    private static IReadOnlyList<object> Step(JobCard card, SheetStep step, CardEvent e, Vehicle vehicle) => e switch
    {
        StepDone done => Done(card, step, done, vehicle),
        ReadingTaken { Corrects: not null } r => [new WasReallyTightenedTo(step.What, r.Reading.Value)],
        LeakFound leak => [new JointWeeps(leak.Fastener)],
        // Slackened, not taken out.
        OverTorqueSettled => [new JointWeeps(step.What)],
        ReadingTaken r => [new Tightens(step.What, r.Reading.Value)],
        Poured p => Poured(card.Sheet.Fluids[step.What], p.Amount.Value, vehicle),
        TakenOut t => [new DrawsOff(step.What, t.Amount.Value)],
        StrokesMade when vehicle.Joints[step.What].IsIn => [new Undoes(step.What)],
        BleedScrewShut s => [new Tightens(step.What, s.Reading.Value)],
        _ => [],
    };

    private static IReadOnlyList<Hand> Done(JobCard card, SheetStep step, StepDone done, Vehicle vehicle)
    {
        var (what, sheet) = (step.What, card.Sheet);
        return step.Kind switch
        {
            StepKind.Warm => [new Starts(), new Stops()],
            StepKind.Secure => what.IsEmpty ? [new SetsArms()] : [new Sets(what)],
            StepKind.Raise => [new Raises()],
            StepKind.Lower => [new Lowers()],
            StepKind.Drain => [new SlidesPanUnder(), new Undoes(what)],
            // What holds oil back goes off over a pan.
            StepKind.Open when sheet.Fasteners.TryGetValue(what, out var fastener) =>
                fastener.System is null ? [new Undoes(what)] : [new SlidesPanUnder(), new Undoes(what)],
            StepKind.Open => [new TakesOff(what, done.Count)],
            StepKind.Close => [sheet.Access[what].HoldsVehicle ? new TakesAway(what) : new PutsOn(what, done.Count)],
            StepKind.Tighten => [new Tightens(what)],
            StepKind.Fit => [new Fits(what, card.Kit?.Parts.GetValueOrDefault(what) == KitConfirmed.OldOneAgain)],
            StepKind.Clear when step.Place == Place.Below => [new ClearsBelow()],
            StepKind.Run => [new Starts()],
            StepKind.Settle => [new Stops()],
            StepKind.Prime => [new Primes(what)],
            StepKind.Drive => [new Drives()],
            StepKind.Reset when step.EndsReset => [new PutsOut(what)],
            StepKind.Do when step.Moves => [new Drives()],
            // Old oil goes into its drum, and the pan with it out of the way.
            StepKind.Do when step.Id == "used-oil" && vehicle.Joints.Values.All(j => j.IsIn) => [new ClearsBelow()],
            _ => [],
        };
    }

    // A little that is missing goes in by the cap, which is opened and shut for it; what may run out of a hole runs into a pan.
    private static IReadOnlyList<Hand> Poured(FluidSystem fluid, Quantity<Volume> amount, Vehicle vehicle)
    {
        var shut = fluid.Through.Where(a => !vehicle.IsOff(a)).ToList();
        IEnumerable<Hand> before = fluid.FillBy == FillBy.Overflow ? [new SlidesPanUnder()] : shut.Select(a => new TakesOff(a));
        IEnumerable<Hand> after = fluid.FillBy == FillBy.Overflow ? [] : shut.Select(a => new PutsOn(a)).Reverse();
        return [.. before, new Pours(fluid.Id, amount), .. after];
    }
}
