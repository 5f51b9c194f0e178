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
        JointWeeps f => Loose(f.What, null),
        Seized f => this with { Stuck = Stuck.Add(Known(Sheet.Fasteners, f.What).Id) },
        Stripped f => Loose(f.What, null) is var loose
            ? loose with { Joints = loose.Joints.SetItem(f.What, loose.Joints[f.What] with { IsStripped = true }) } : this,
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
        ResetFailsOnce f => Hiding(fault, Known(Sheet.Resets, f.What)),
        Missing f => this with
        {
            Faults = Faults.Add(fault),
            Fluids = Fluids.SetItem(f.What, Known(Fluids, f.What) with { Inside = Less(Fluids[f.What].Inside, f.By) }),
        },
        WasReallyTightenedTo f => Known(Sheet.Fasteners, f.What).Tightening.Value is ToTorque to && f.At >= to.Low
            ? this with { Joints = Joints.SetItem(f.What, Joints[f.What] with { IsTight = true, IsStripped = false, Torque = f.At,
                Turned = TurnedFor(to, f.At) }) } : Loose(f.What, f.At),
        _ => throw new ArgumentException($"Nobody has said what {fault.GetType().Name} does to a vehicle.", nameof(fault)),
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
        BesideItsGroove b when b.What.Text == thing.Text && Sheet.Parts[b.What].Needs.All(n => !IsOff(n)) => "a rib stands beside its groove",
        _ => null,
    }).FirstOrDefault(seen => seen is not null);

    private bool HasRun(FluidId fluid) => Fluids[fluid].Pan + Fluids[fluid].Floor > Quantity<Volume>.Zero;

    private Vehicle Hiding(Fault fault, object known) =>
        known is null ? throw new ArgumentException("There is no such thing.", nameof(known)) : this with { Faults = Faults.Add(fault) };

    private static Quantity<T> Less<T>(Quantity<T> of, Quantity<T> by) where T : IDimension<T> => by < of ? of - by : Quantity<T>.Zero;

    private Fastener? HolderOf(PartId part) => Sheet.Fasteners.Values.FirstOrDefault(f => f.Seal == part || f.Holds.Contains(part));

    private Answer PickOff(Fastener fastener) => Joints[fastener.Id].IsIn ? Cannot(fastener.Name, "it is in")
        : Well(this with { Faults = Faults.Remove(new OldRingStays(fastener.Id)) });

    private Vehicle Loose(FastenerId what, Quantity<Torque>? torque) => this with
    {
        Joints = Joints.SetItem(what, Joints[Known(Sheet.Fasteners, what).Id] with
        {
            IsTight = false, IsStripped = false, Torque = torque, Turned = 0,
        }),
    };
}
