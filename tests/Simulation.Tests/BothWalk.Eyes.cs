using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Coaches.Resetting;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Simulation.Tests;

/// <summary>What goes wrong by itself on a walk, and what whoever works there sees of it, does about it and tells the card.</summary>
internal sealed partial class BothWalk
{
    private readonly HashSet<Happening> _told = [];
    private readonly HashSet<FastenerId> _untold = [];
    private readonly Dictionary<FastenerId, string> _why = [];

    /// <summary>Whether what goes wrong is seen and seen to by itself; else whoever walks says what is seen.</summary>
    internal bool HasEyes { get; init; }

    /// <summary>Something that may be wrong with this vehicle as it comes in.</summary>
    internal Fault Ailing(Random random)
    {
        var kinds = Vehicle.FaultsOf(Card.Sheet).GroupBy(f => f.GetType()).ToList();
        var kind = kinds[random.Next(kinds.Count)].ToList();
        return kind[random.Next(kind.Count)];
    }

    /// <summary>A joint goes wrong that was closed on this card and is looked at later, or a thread that is out.</summary>
    internal bool GoesWrong(Random random)
    {
        var open = Vehicle.Joints.Where(j => !j.Value.IsIn && Card.Sheet.Fasteners[j.Key].Tightening.Value is ToTorque)
            .Select(j => j.Key).Order().ToList();
        var closed = Card.JointsOpened.Where(f => Vehicle.Joints[f.Id].IsTight).Select(f => f.Id).ToList();
        if (random.Next(2) == 0 && open.Count > 0)
            Happens(new Stripped(open[random.Next(open.Count)]));
        else if (closed.Count > 0 && Card.Remaining.Any(s => s.Traits.LooksAtJoints))
        {
            var weeps = closed[random.Next(closed.Count)];
            _untold.Add(weeps);
            Happens(new JointWeeps(weeps));
        }
        return true;
    }

    /// <summary>A joint is loose of which the card knows nothing; a look finds it.</summary>
    internal void Unsaid(FastenerId joint) => _untold.Add(joint);

    /// <summary>By how much a level may be off at the end because somebody reads it wrong.</summary>
    internal decimal Misread(FluidId fluid) => Math.Abs(Vehicle.ReadsAs(fluid) - Vehicle.LevelOf(fluid));

    /// <summary>Looks at a step that can be done now, and sees to what is wrong there.</summary>
    internal bool Looks(SheetStep step) => Card.InTheWay(step, _now).Count == 0 && Sees(step);

    // Looks before pressing. False where the hands cannot do what the step says, and the card was told so.
    private bool Sees(SheetStep step)
    {
        if (!HasEyes)
            return true;
        var what = step.What;
        var faults = Vehicle.Faults.OrderBy(f => f.ToString(), StringComparer.Ordinal);
        foreach (var (thing, seen) in faults.Select(Shown).OfType<(Fault, string)>().ToList())
            if (_told.Add(thing))
                Try(new NoteFinding(step.Id, FindingGrade.Stop, seen));
        if (Card.Sheet.Fasteners.TryGetValue(what, out var fastener))
            return At(step, fastener);
        if (Card.Sheet.Parts.TryGetValue(what, out var part) && step.Traits.Fits)
        {
            if (Vehicle.Faults.Contains(new WrongInBox(part.Id)))
            {
                Try(new NoteFinding(step.Id, FindingGrade.KeepAnEye, "Another size in the box"));
                Happens(new FetchesRight(part.Id));
            }
            foreach (var holder in Card.Sheet.Fasteners.Values.Where(f => f.Seal == part.Id && Vehicle.SeenOf(f.Id) is not null))
                Happens(new PicksOff(holder.Id));
        }
        if (Card.Sheet.Fluids.TryGetValue(what, out var fluid) && Vehicle.Faults.Contains(new WrongInCan(fluid.Id)))
            Happens(new FetchesRightCan(fluid.Id));
        if (step.IsDriven)
            Happens(new Inflates(Quantity<Pressure>.Of(2.3m, Pressure.Bar)));
        if (step.RunsEngine)
        {
            if (Vehicle.Charge < 0.5m)
                Happens(new Charges());
            // Whoever looks why the light stayed on finds the wire.
            if (Vehicle.Faults.Contains(new TrappedWire()) && step.Traits.Engine == EngineUse.Starts && Starting.Of(Card, step).Untried)
                Happens(new FreesWire());
            foreach (var belt in Vehicle.Faults.OfType<BesideItsGroove>().Where(b => Vehicle.SeenOf(b.What) is not null).ToList())
                Happens(new SeatsBelt(belt.What));
        }
        if (step.EndsReset && Vehicle.Faults.Contains(new ResetFailsOnce(what)) && Card.InTheWay(step, _now).Count == 0)
        {
            Happens(new PutsOut(what));
            return !Try(new FailReset(step.Id));
        }
        if (step.Traits.Engine == EngineUse.Stops && Card.EngineRuns && DripsInSight(step))
            return false;
        return !step.Traits.LooksAtJoints || Card.InTheWay(step, _now).Count > 0 || !FindsLeak(step);
    }

    private (Fault, string)? Shown(Fault fault) => fault switch
    {
        Slivers f when Vehicle.SeenOf(f.What) is { } seen => (f, seen),
        Milky f when Vehicle.SeenOf(f.What) is { } seen => (f, seen),
        Thinned f when Vehicle.SeenOf(f.What) is { } seen => (f, seen),
        _ => null,
    };

    private bool At(SheetStep step, Fastener fastener)
    {
        if ((step.Traits.Opens || step.Traits.LetsOut) && Vehicle.Stuck.Contains(fastener.Id))
        {
            // One gives the job up, another has heat and time.
            foreach (var job in step.Jobs.Where(j => By == Iona && Card.Jobs.Contains(j)))
                Try(new DropJob(job, "It is seized"));
            if (Card.Step(step.Id) is null)
                return false;
            Happens(new Frees(fastener.Id));
        }
        if (step.Traits.Fastens && Vehicle.Joints[fastener.Id].IsStripped)
        {
            Try(new NoteFinding(step.Id, FindingGrade.KeepAnEye, "The thread is cut anew"));
            Happens(new MendsThread(fastener.Id));
        }
        return true;
    }

    // A film is wiped, and looked at again; what comes back then, or drips, is a leak. Why it leaked is felt at the joint.
    private bool FindsLeak(SheetStep step)
    {
        foreach (var joint in Card.JointsOpened)
        {
            if (Vehicle.Joints[joint.Id].IsIn && Vehicle.LeakAt(joint.Id) is { } leak)
            {
                _why[joint.Id] = leak.Why;
                return Try(leak.Grade == LeakGrade.Weep ? new ReportWeep(step.Id, joint.Id) : new ReportLeak(step.Id, joint.Id));
            }
        }
        return false;
    }

    // While it runs only what is under pressure shows, and only what is in sight is seen.
    private bool DripsInSight(SheetStep step)
    {
        var drips = Card.JointsInSight.FirstOrDefault(f => Vehicle.LeakAt(f.Id) is { Grade: not LeakGrade.Weep });
        if (drips is null)
            return false;
        _why[drips.Id] = Vehicle.LeakAt(drips.Id)!.Value.Why;
        return Try(new ReportLeak(step.Id, drips.Id));
    }
}
