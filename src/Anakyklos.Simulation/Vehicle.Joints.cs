using System.Collections.Immutable;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Simulation;

/// <summary>What is taken off and put on, undone and tightened, and the parts in between.</summary>
public sealed partial record Vehicle
{
    private Answer TakeOff(Access access, int? count)
    {
        if (access.HoldsVehicle)
            return Cannot(access.Name, "it holds the vehicle: it is set and taken away");
        if ((Behind(access.Name, access.Needs) ?? Elsewhere(access.Name, access.Place.UsualLift())) is { } not)
            return not;
        var harms = Runs && (access.ClosedToRun || access.Intake) ? [new(HarmKind.RunOpen, access.Name, "taken off a running engine")]
            : Array.Empty<Harm>();
        return new(Laying(access.Tool, access.Place) with { Off = Off.SetItem(access.Id, count ?? access.Count) }, harms);
    }

    private Answer PutOn(Access access, int? count)
    {
        if (!IsOff(access.Id))
            return Cannot(access.Name, "it is on already");
        // What lies behind it cannot be put on any more once this is.
        if (Sheet.Access.Values.FirstOrDefault(a => a.Needs.Contains(access.Id) && IsOff(a.Id) && !a.HoldsVehicle) is { } behind)
            return Cannot(access.Name, $"{behind.Name} behind it is off");
        if (Elsewhere(access.Name, access.Place.UsualLift()) is { } not)
            return not;
        var left = Off[access.Id] - (count ?? Off[access.Id]);
        var missing = access.Count - (count ?? access.Count);
        return new(Laying(access.Tool, access.Place) with
        {
            Off = left > 0 && access.Count == 0 ? Off.SetItem(access.Id, left) : Off.Remove(access.Id),
        }, missing > 0 ? [new(HarmKind.DroppedClip, access.Name, $"{missing} of {access.Count} {access.CountOf} are missing")] : []);
    }

    // A joint that is slack leaks when it comes under pressure, and is not driven on.
    private Answer Loosen(Fastener fastener, int place) => BeforeMoving(fastener) ?? Well(Laying(fastener.Drive, fastener.Place) with
    {
        Joints = Joints.SetItem(fastener.Id, place > 0 && HasScrews(fastener) ? Without(fastener, place)
            : Joints[fastener.Id] with { IsTight = false, Torque = null, Turned = 0, Screws = NoScrews }),
    });

    // Beside the vehicle a fastener comes out at any height; where it is tightened is another matter.
    private Answer? BeforeMoving(Fastener fastener) => !Joints[fastener.Id].IsIn ? Cannot(fastener.Name, "it is out already")
        : Behind(fastener.Name, fastener.Needs) ?? Elsewhere(fastener.Name, fastener.Place.UsualLift())
        ?? (Stuck.Contains(fastener.Id) ? Cannot(fastener.Name, "it does not move") : null);

    private Answer Undo(Fastener fastener)
    {
        if (BeforeMoving(fastener) is { } not)
            return not;
        var joint = Joints[fastener.Id];
        List<Harm> harms = fastener.Cold && IsHot ? [new(HarmKind.Burnt, fastener.Name, "hot metal and what is under pressure")] : [];
        if (Runs)
            harms.Add(new(HarmKind.RunOpen, fastener.Name, "undone while the engine runs"));
        var loose = joint with { IsIn = false, IsTight = false, Torque = null, Turned = 0, Screws = NoScrews };
        var next = Laying(fastener.Drive, fastener.Place) with { Joints = Joints.SetItem(fastener.Id, loose) };
        // A filter lets its own oil go with it.
        return fastener.System is { } system && fastener.Holds.Count > 0
            ? next.Spill(Sheet.Fluids[system], Fluids[system].Filter, true, harms) : new(next, harms);
    }

    private Answer Fit(Part part, bool old)
    {
        var holder = HolderOf(part.Id);
        var wrong = !old && Faults.Contains(new WrongInBox(part.Id)) ? WrongIn.Add(part.Id) : WrongIn;
        if (holder is null)
            return Behind(part.Name, part.Needs) ?? Well(this with
            {
                Unprimed = IsPrimed(part) ? Unprimed.Add(part.Id) : Unprimed, WrongIn = wrong,
            });
        var joint = Joints[holder.Id];
        if (joint.IsIn)
            return Cannot(part.Name, $"{holder.Name} is in");
        joint = holder.Seal != part.Id ? joint with { Holds = joint.Holds.Add(part.Id) }
            : old ? joint : joint with { Seals = Left(holder, joint).Add(new(part.Id, 0)) };
        return Well(Laying(holder.Drive, holder.Place) with
        {
            Joints = Joints.SetItem(holder.Id, joint),
            Unprimed = IsPrimed(part) ? Unprimed.Add(part.Id) : Unprimed,
            WrongIn = wrong,
        });
    }

    // The seals that are still there when a new one goes on: none, unless the old one stayed on its face.
    private ImmutableList<SealIn> Left(Fastener holder, Joint joint) =>
        Faults.Contains(new OldRingStays(holder.Id)) ? [.. joint.Seals.Take(1)] : [];

    private bool IsPrimed(Part part) => Sheet.Steps.Values.Any(s => s.Kind == "prime" && s.What == part.Id);

    private Answer Tighten(Fastener fastener, Quantity<Torque>? to, int place)
    {
        if (HasScrews(fastener))
            return TightenScrew(fastener, to, place);
        if (AtJoint(fastener) is { } not)
            return not;
        if (fastener.Tightening.Value is not ToTorque spec)
            return Laying(fastener.Drive, fastener.Place).Well(Squeezed(fastener) with { IsTight = true }, fastener);
        return Drawn(fastener, spec, Squeezed(fastener), TurnedFor(spec, to ?? spec.Target), to ?? spec.Target);
    }

    private Answer RunIn(Fastener fastener)
    {
        if (AtJoint(fastener) is { } not)
            return not;
        return Joints[fastener.Id].IsIn ? Cannot(fastener.Name, "it is in already") : Well(Squeezed(fastener), fastener);
    }

    private Answer Turn(Fastener fastener, decimal degrees, int place)
    {
        if (degrees <= 0)
            throw new ArgumentException("A wrench turns further, not back.", nameof(degrees));
        if (AtJoint(fastener) is { } not)
            return not;
        var joint = Joints[fastener.Id];
        if (!joint.IsIn)
            return Cannot(fastener.Name, "it is out: run it in by hand first");
        if (HasScrews(fastener))
            return TurnScrew(fastener, joint, degrees, place);
        if (fastener.Tightening.Value is not ToTorque spec)
            return Cannot(fastener.Name, "it is not done with a torque wrench");
        var turned = joint.Turned + degrees;
        return Drawn(fastener, spec, joint, turned, TorqueAt(joint.IsStripped, spec, turned));
    }

    /// <summary>How a fastener answers to a wrench: what it is at, and what it would be at after more.</summary>
    /// <param name="what">A fastener of the sheet that is tightened to a torque.</param>
    /// <param name="degrees">How much further.</param>
    /// <param name="place">Which of a group, by its number; 0 for the only one.</param>
    /// <returns>The torque on the wrench then; zero for one that is out or has no torque.</returns>
    /// <exception cref="ArgumentException">The sheet has no such fastener.</exception>
    public Quantity<Torque> TorqueAfter(FastenerId what, decimal degrees, int place = 0)
    {
        if (Known(Sheet.Fasteners, what).LastTorque is not { } spec || Joints[what] is not { IsIn: true } joint)
            return Quantity<Torque>.Zero;
        if (!HasScrews(Sheet.Fasteners[what]))
            return TorqueAt(joint.IsStripped, spec, joint.Turned + degrees);
        var screw = joint.Screws.GetValueOrDefault(place) ?? Screw.RunIn;
        return TorqueAt(screw.IsStripped, spec, screw.Turned + degrees);
    }

    private static Quantity<Torque> TorqueAt(bool isStripped, ToTorque spec, decimal turned)
    {
        var bears = spec.High * Physics.ThreadBears;
        if (isStripped || turned > TurnedFor(spec, bears) + Physics.DegreesToStrip)
            return spec.Target * Physics.StrippedDrags;
        var rises = spec.Target * (turned / Physics.DegreesToTorque);
        return rises < bears ? rises : bears;
    }

    private static decimal TurnedFor(ToTorque spec, Quantity<Torque> torque) => torque / spec.Target * Physics.DegreesToTorque;

    // What stands in front of a joint; null when a hand gets at it.
    private Answer? AtJoint(Fastener fastener) =>
        Behind(fastener.Name, fastener.Needs) ?? Elsewhere(fastener.Name, fastener.Lift ?? fastener.Place.UsualLift());

    // A seal gives way once each time it is drawn down after it was free.
    private Joint Squeezed(Fastener fastener) => Joints[fastener.Id] is { IsIn: true } there ? there : Joints[fastener.Id] with
    {
        IsIn = true,
        Seals = [.. Joints[fastener.Id].Seals.Select(s => s with { Squeezed = s.Squeezed + 1 })],
    };

    private Answer Drawn(Fastener fastener, ToTorque spec, Joint joint, decimal turned, Quantity<Torque> torque)
    {
        var strained = turned > TurnedFor(spec, spec.High * Physics.ThreadBears);
        var stripped = joint.IsStripped || turned > TurnedFor(spec, spec.High * Physics.ThreadBears) + Physics.DegreesToStrip;
        Harm[] harms = strained || (stripped && !joint.IsStripped)
            ? [new(HarmKind.Strained, fastener.Name, fastener.Material.Contains("plastic", StringComparison.Ordinal) ? "it cracked"
                : "the thread gave")] : [];
        return new(Laying(fastener.Drive, fastener.Place) with
        {
            Joints = Joints.SetItem(fastener.Id, joint with
            {
                IsTight = !stripped && torque >= spec.Low, Torque = torque, Turned = turned, IsStripped = stripped,
            }),
        }, harms);
    }

    private Answer Well(Joint joint, Fastener fastener) => Well(this with { Joints = Joints.SetItem(fastener.Id, joint) });

    /// <summary>What would come through a joint under pressure, and why; null when it is dry.</summary>
    /// <param name="what">The joint.</param>
    /// <exception cref="ArgumentException">The sheet has no such fastener.</exception>
    public (LeakGrade Grade, string Why)? LeakAt(FastenerId what) => LeaksAt(Known(Sheet.Fasteners, what));

    private (LeakGrade Grade, string Why)? LeaksAt(Fastener fastener)
    {
        var joint = Joints[fastener.Id];
        if (!joint.IsIn)
            return (LeakGrade.Run, "it is out");
        // Half of what holds it still presses the faces together.
        if (!joint.IsTight)
            return (fastener.Tightening.Value is ToTorque to && joint.Torque >= to.Low / 2 ? LeakGrade.Weep : LeakGrade.Drip,
                "it is loose");
        if (fastener.Seal is not { } seal)
            return null;
        var again = Sheet.Parts[seal].ReusableTimes ?? 0;
        return joint.Seals.Count switch
        {
            0 => (LeakGrade.Drip, "no seal under it"),
            > 1 => (LeakGrade.Run, "two seals under it"),
            // The first tightening is not yet a use again; the seal that was in the vehicle had one.
            _ => joint.Seals[0].Squeezed > again + 1 ? (LeakGrade.Weep, "its seal was used too often") : null,
        };
    }
}
