using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Simulation;

/// <summary>What goes wrong by itself, and what can be seen of it.</summary>
public sealed partial record Vehicle
{
    /// <summary>The vehicle with something wrong that no hand did.</summary>
    /// <param name="fault">What.</param>
    /// <exception cref="ArgumentException">The sheet has no such thing.</exception>
    public Vehicle With(Fault fault) => fault switch
    {
        JointWeeps { Place: > 0 } f when HasScrews(Known(Sheet.Fasteners, f.What)) => this with
        {
            Joints = Joints.SetItem(f.What, Without(Sheet.Fasteners[f.What], f.Place)),
        },
        JointWeeps f => Loose(f.What, null),
        Seized f => this with { Stuck = Stuck.Add(Known(Sheet.Fasteners, f.What).Id) },
        // It gives way when it is tightened the next time.
        Stripped f => this with
        {
            Joints = Joints.SetItem(f.What, Joints[Known(Sheet.Fasteners, f.What).Id] with { IsStripped = true }),
        },
        WrongInBox f => Hiding(fault, Known(Sheet.Parts, f.What)),
        OldRingStays f => Hiding(fault, Known(Sheet.Fasteners, f.What)),
        Slivers f => Hiding(fault, Known(Sheet.Fasteners, f.What)),
        Milky f => Hiding(fault, Known(Sheet.Fluids, f.What)),
        Thinned f => Hiding(fault, Known(Sheet.Fluids, f.What)),
        WrongInCan f => Hiding(fault, Known(Sheet.Fluids, f.What)),
        MisreadStick f => Hiding(fault, Known(Sheet.Fluids, f.What)),
        BesideItsGroove f => Hiding(fault, Known(Sheet.Parts, f.What)),
        SlowPuncture f => Hiding(fault, Known(Tyres, f.Wheel)),
        WeakBattery => this with { Charge = Physics.Weak, Faults = Faults.Add(fault) },
        DoorAjar or TrappedWire => this with { Faults = Faults.Add(fault) },
        ResetFailsOnce f => Hiding(fault, Known(Sheet.Resets, f.What)),
        Missing f => this with
        {
            Faults = Faults.Add(fault),
            Fluids = Fluids.SetItem(f.What, Known(Fluids, f.What) with { Inside = Less(Fluids[f.What].Inside, f.By) }),
        },
        WasReallyTightenedTo f when HasScrews(Known(Sheet.Fasteners, f.What)) => Really(Sheet.Fasteners[f.What], f),
        WasReallyTightenedTo f => Known(Sheet.Fasteners, f.What).Tightening.Value is ToTorque to && f.At >= to.Low
            ? this with { Joints = Joints.SetItem(f.What, Joints[f.What] with { IsTight = true, IsStripped = false, Torque = f.At,
                Turned = TurnedFor(to, f.At) }) } : Loose(f.What, f.At),
        _ => throw new ArgumentException($"Nobody has said what {fault.GetType().Name} does to a vehicle.", nameof(fault)),
    };

    /// <summary>What can be wrong with a model as it comes in: every fault on every thing that can have it, each once.</summary>
    /// <param name="sheet">The model.</param>
    public static IReadOnlyList<Fault> FaultsOf(ModelSheet sheet) =>
    [
        .. sheet.Fasteners.Values.Where(f => f.Drains is not null || f.Fills is not null).SelectMany(f => new Fault[]
            { new Seized(f.Id), new Slivers(f.Id) }),
        .. sheet.Fasteners.Values.Where(f => f.Seal is not null).Select(f => new OldRingStays(f.Id)),
        .. sheet.Parts.Values.Where(p => !p.IsSeal).Select(p => new WrongInBox(p.Id)),
        .. sheet.Fluids.Values.SelectMany(f => new Fault[] { new WrongInCan(f.Id), new Milky(f.Id), new Thinned(f.Id) }),
        // As much as lies between the marks, and a tenth of it read wrong either way.
        .. sheet.Fluids.Values.Where(f => f.BetweenMarks is not null).SelectMany(f => new Fault[]
            { new Missing(f.Id, f.BetweenMarks!.Value), new MisreadStick(f.Id, 0.1m), new MisreadStick(f.Id, -0.1m) }),
        .. sheet.Maps.Values.SelectMany(m => m.Belts).Select(b => new BesideItsGroove(b.For)),
        .. sheet.Resets.Keys.Select(r => new ResetFailsOnce(r)),
        .. TyresOf(sheet).Keys.Select(w => new SlowPuncture(w)),
        new WeakBattery(), new TrappedWire(),
    ];

    /// <summary>What hands could put right now.</summary>
    public IReadOnlyList<Hand> Remedies =>
    [
        .. Stuck.Order().Select(f => new Frees(f)),
        .. Joints.Where(j => j.Value.IsStripped).Select(j => j.Key).Order().Select(f => new MendsThread(f)),
        .. Faults.OfType<OldRingStays>().Where(r => !Joints[r.What].IsIn).Select(r => new PicksOff(r.What)),
        .. Faults.OfType<WrongInBox>().Select(w => new FetchesRight(w.What)),
        .. Faults.OfType<WrongInCan>().Select(w => new FetchesRightCan(w.What)),
        .. Faults.OfType<BesideItsGroove>().Where(b => SeenOf(b.What) is not null).Select(b => new SeatsBelt(b.What)),
        .. Faults.OfType<TrappedWire>().Where(_ => OilLight && Runs).Select(_ => new FreesWire()),
        .. Charge < Physics.CrankNeeds ? new Hand[] { new Charges() } : [],
    ];

    /// <summary>What somebody who looks and feels everywhere finds now, by the name of the thing.</summary>
    public IReadOnlyList<(string Name, string Says)> Seen =>
    [
        .. Sheet.Fasteners.Values.Select(f => (f.Name, Says: SeenOf(f.Id) ?? FeltAt(f))).Concat(Sheet.Parts.Values
            .Select(p => (p.Name, Says: SeenOf(p.Id)))).Concat(Sheet.Fluids.Values.Select(f => (f.Name, Says: SeenOf(f.Id))))
            .Where(s => s.Says is not null).Select(s => (s.Name, s.Says!)),
    ];

    // What is felt when one tries to turn it, or seen of it from outside; null where one does not get at it.
    private string? FeltAt(Fastener fastener) => AtJoint(fastener) is not null || Behind(fastener.Name, fastener.Needs) is not null ? null
        : Stuck.Contains(fastener.Id) ? "it does not move"
        : Joints[fastener.Id] is { IsIn: true, IsTight: false, IsStripped: true } ? "it turns on and on"
        : !Joints[fastener.Id].IsIn || (fastener.System ?? fastener.Drains) is null || !(Runs || Warmth > 0) ? null
        : LeaksAt(fastener) is { } leak ? $"it {Verb(leak.Grade)}: {leak.Why}" : null;

    private static string Verb(LeakGrade grade) => grade switch
    {
        LeakGrade.Weep => "weeps",
        LeakGrade.Drip => "drips",
        _ => "runs",
    };

    /// <summary>What somebody who looks sees of a fault now: each shows itself only where and when it can.</summary>
    /// <param name="thing">What is looked at: a fastener, a part, a fluid or a reset.</param>
    /// <returns>What is seen, in words; null when there is nothing to see.</returns>
    public string? SeenOf(ThingId thing) => Faults.Select(f => f switch
    {
        Slivers s when s.What.Text == thing.Text && !Joints[s.What].IsIn => "slivers on the magnet",
        OldRingStays r when r.What.Text == thing.Text && !Joints[r.What].IsIn => "the old ring is still on its face",
        WrongInBox w when w.What.Text == thing.Text && HolderOf(w.What) is { } holder && !Joints[holder.Id].IsIn =>
            "half the size of the old one",
        Milky m when m.What.Text == thing.Text && HasRun(m.What) => "milky",
        Thinned t when t.What.Text == thing.Text && HasRun(t.What) => "thin, and it smells of fuel",
        WrongInCan c when c.What.Text == thing.Text => "the can says another oil",
        BesideItsGroove b when b.What.Text == thing.Text && Sheet.Parts[b.What].Needs.All(n => !IsOff(n)) =>
            "a rib stands beside its groove",
        _ => null,
    }).FirstOrDefault(seen => seen is not null);

    private bool HasRun(FluidId fluid) => Fluids[fluid].Pan + Fluids[fluid].Floor > Quantity<Volume>.Zero;

    private Vehicle Hiding(Fault fault, object known) =>
        known is null ? throw new ArgumentException("There is no such thing.", nameof(known)) : this with { Faults = Faults.Add(fault) };

    private static Quantity<T> Less<T>(Quantity<T> of, Quantity<T> by) where T : IDimension<T> => by < of ? of - by : Quantity<T>.Zero;

    private Fastener? HolderOf(PartId part) => Sheet.Fasteners.Values.FirstOrDefault(f => f.Seal == part || f.Holds.Contains(part));

    private Answer Renew(Fastener fastener)
    {
        if (AtJoint(fastener) is { } not)
            return not;
        if (fastener.SealsWith is not { } seal)
            return Cannot(fastener.Name, "metal seals on metal");
        if (!Joints[fastener.Id].IsIn)
            return Cannot(fastener.Name, "it is out");
        var loose = Joints[fastener.Id] with { IsTight = false, Torque = null, Turned = 0, Screws = NoScrews };
        return Well(this with
        {
            Faults = Faults.Remove(new OldRingStays(fastener.Id)),
            Joints = Joints.SetItem(fastener.Id, fastener.IsSpinOn ? loose : loose with { Seals = [new(seal, 0)] }),
            // What an old filter holds goes with it.
            Fluids = fastener is { IsSpinOn: true, System: { } fluid }
                ? Fluids.SetItem(fluid, Fluids[fluid] with { Filter = Quantity<Volume>.Zero }) : Fluids,
        });
    }

    private Answer PickOff(Fastener fastener) => Joints[fastener.Id].IsIn ? Cannot(fastener.Name, "it is in")
        : Well(this with { Faults = Faults.Remove(new OldRingStays(fastener.Id)) });

    private Vehicle Loose(FastenerId what, Quantity<Torque>? torque) => this with
    {
        Joints = Joints.SetItem(what, Joints[Known(Sheet.Fasteners, what).Id] with
        {
            IsTight = false, IsStripped = false, Torque = torque, Turned = 0, Screws = NoScrews,
        }),
    };
}
