using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Coaches.Resetting;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Simulation.Tests;

/// <summary>What goes wrong by itself on a walk, and what whoever works there sees of it, does about it and tells the card.</summary>
internal sealed partial class BothWalk
{
    private readonly HashSet<Happening> _told = [];
    private readonly HashSet<FastenerId> _untold = [];

    /// <summary>Whether what goes wrong is seen and seen to by itself; else whoever walks says what is seen.</summary>
    internal bool HasEyes { get; init; }

    /// <summary>Something that may be wrong with this vehicle as it comes in; null where the model has nothing of the kind.</summary>
    internal Fault? Ailing(Random random)
    {
        var sheet = Card.Sheet;
        T? One<T>(IEnumerable<T> of) where T : class => of.ToList() is { Count: > 0 } some ? some[random.Next(some.Count)] : null;
        var plug = One(sheet.Fasteners.Values.Where(f => f.Drains is not null || f.Fills is not null));
        var sealing = One(sheet.Fasteners.Values.Where(f => f.Seal is not null));
        var marked = One(sheet.Fluids.Values.Where(f => f.BetweenMarks is not null));
        var fluid = One(sheet.Fluids.Values);
        var part = One(sheet.Parts.Values.Where(p => !p.IsSeal));
        var belt = One(sheet.Maps.Values.SelectMany(m => m.Belts));
        var reset = One(sheet.Resets.Values);
        return random.Next(12) switch
        {
            0 => plug is null ? null : new Seized(plug.Id),
            1 => sealing is null ? null : new OldRingStays(sealing.Id),
            2 => part is null ? null : new WrongInBox(part.Id),
            3 => fluid is null ? null : new WrongInCan(fluid.Id),
            4 => plug is null ? null : new Slivers(plug.Id),
            5 => fluid is null ? null : new Milky(fluid.Id),
            6 => fluid is null ? null : new Thinned(fluid.Id),
            // As much as lies between the marks, or up to a tenth of it read wrong.
            7 => marked is null ? null : new Missing(marked.Id, marked.BetweenMarks!.Value),
            8 => marked is null ? null : new MisreadStick(marked.Id, (random.Next(21) - 10) / 100m),
            9 => new WeakBattery(),
            10 => belt is null ? null : new BesideItsGroove(belt.For),
            _ => reset is null ? null : new ResetFailsOnce(reset.Id),
        };
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

    /// <summary>By how much a level may be off at the end because somebody reads it wrong.</summary>
    internal decimal Misread(FluidId fluid) => Math.Abs(Vehicle.ReadsAs(fluid) - Vehicle.LevelOf(fluid));

    // Looks before pressing. False where the hands cannot do what the step says, and the card was told so.
    private bool Sees(SheetStep step)
    {
        if (!HasEyes)
            return true;
        var what = step.What;
        foreach (var (thing, seen) in Vehicle.Faults.OrderBy(f => f.ToString(), StringComparer.Ordinal).Select(Shown).OfType<(Fault, string)>()
            .ToList())
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
        if (step.RunsEngine)
        {
            if (Vehicle.Charge < 0.5m)
                Happens(new Charges());
            foreach (var belt in Vehicle.Faults.OfType<BesideItsGroove>().Where(b => Vehicle.SeenOf(b.What) is not null).ToList())
                Happens(new SeatsBelt(belt.What));
        }
        if (step.EndsReset && Vehicle.Faults.Contains(new ResetFailsOnce(what)) && Card.InTheWay(step, _now).Count == 0)
        {
            Happens(new PutsOut(what));
            return !Try(new FailReset(step.Id));
        }
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

    private bool FindsLeak(SheetStep step)
    {
        var leaks = Card.JointsOpened.FirstOrDefault(f => Vehicle.Joints[f.Id] is { IsIn: true, IsTight: false });
        return leaks is not null && Try(new ReportLeak(step.Id, leaks.Id));
    }
}
