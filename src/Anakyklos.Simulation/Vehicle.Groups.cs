using System.Collections.Immutable;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Simulation;

/// <summary>Several fasteners that hold one thing: each has a torque of its own, and the thing comes on crooked where one is drawn down
/// while another is not.</summary>
public sealed partial record Vehicle
{
    private static readonly ImmutableDictionary<int, Screw> NoScrews = ImmutableDictionary<int, Screw>.Empty;

    private static bool HasScrews(Fastener fastener) => fastener.Count > 1 || fastener.Tightening.Value is InStages;

    private static Screw Tight(Fastener fastener) => new(fastener.LastTorque?.Target, Physics.DegreesToTorque, true, false);

    private static ImmutableDictionary<int, Screw> ScrewsOf(Fastener fastener) => !HasScrews(fastener) ? NoScrews
        : Enumerable.Range(1, fastener.Count).ToImmutableDictionary(n => n, _ => Tight(fastener));

    private static Joint WithScrews(Fastener fastener, Joint joint, ImmutableDictionary<int, Screw> screws) => joint with
    {
        Screws = screws,
        IsTight = screws.Count == fastener.Count && screws.Values.All(s => s.IsTight),
        IsStripped = screws.Values.Any(s => s.IsStripped),
        Torque = screws.Count == fastener.Count && screws.Values.All(s => s.Torque is not null) ? screws.Values.Min(s => s.Torque!.Value)
            : null,
    };

    // One of a group, or all of them where no place is named, to a torque or as the sheet wants it in the end.
    private Answer TightenScrew(Fastener fastener, Quantity<Torque>? to, int place)
    {
        if (AtJoint(fastener) is { } not)
            return not;
        var joint = Squeezed(fastener);
        if (place == 0)
            return Laid(fastener, WithScrews(fastener, joint, ScrewsOf(fastener)), []);
        if (to is not { } torque)
            return Laid(fastener, WithScrews(fastener, joint, joint.Screws.SetItem(place, Tight(fastener))), []);
        var before = joint.Screws.GetValueOrDefault(place) ?? Screw.RunIn;
        return fastener.LastTorque is not { } spec ? Cannot(fastener.Name, "it is not done with a torque wrench")
            // A wrench that is set lower than the screw is tight clicks at once and moves nothing.
            : before.Torque >= torque && !before.IsStripped ? Laid(fastener, joint, [])
            : DrawnScrew(fastener, spec, joint, place, TurnedFor(spec, torque), torque);
    }

    private Answer TurnScrew(Fastener fastener, Joint joint, decimal degrees, int place)
    {
        if (fastener.LastTorque is not { } spec || place == 0)
            return Cannot(fastener.Name, "it is not done with a torque wrench");
        var turned = (joint.Screws.GetValueOrDefault(place) ?? Screw.RunIn).Turned + degrees;
        return DrawnScrew(fastener, spec, joint, place, turned, TorqueAt(joint.Screws.GetValueOrDefault(place)?.IsStripped == true, spec,
            turned));
    }

    private Answer DrawnScrew(Fastener fastener, ToTorque spec, Joint joint, int place, decimal turned, Quantity<Torque> torque)
    {
        var before = joint.Screws.GetValueOrDefault(place) ?? Screw.RunIn;
        var strained = turned > TurnedFor(spec, spec.High * Physics.ThreadBears);
        var stripped = before.IsStripped || turned > TurnedFor(spec, spec.High * Physics.ThreadBears) + Physics.DegreesToStrip;
        // What is turned further after its torque is tight by the turn, not by this.
        var tight = !stripped && torque >= spec.Low && fastener.Tightening.Value is not InStages { Stages: [.., TurnFurther] };
        List<Harm> harms = strained || (stripped && !before.IsStripped) ? [new(HarmKind.Strained, fastener.Name, "the thread gave")] : [];
        if (IsCrooked(fastener, spec, joint, place, torque))
            harms.Add(new(HarmKind.Strained, fastener.Name, "drawn down on one side while the other was loose: the face bends"));
        return Laid(fastener, WithScrews(fastener, joint, joint.Screws.SetItem(place, new(torque, turned, tight, stripped))), harms);
    }

    // Where the sheet has passes, none is drawn to more than these shares while another of its wheel or cover is hardly in.
    private static bool IsCrooked(Fastener fastener, ToTorque spec, Joint joint, int place, Quantity<Torque> torque) =>
        fastener.Group is { Passes.Count: > 1 } group && torque > spec.Target * Physics.DrawnFar
        && group.Places.Any(p => p.Number != place && p.At == group.Places[place - 1].At
            && (joint.Screws.GetValueOrDefault(p.Number)?.Torque ?? Quantity<Torque>.Zero) < spec.Target * Physics.DrawnHardly);

    private Answer Laid(Fastener fastener, Joint joint, IReadOnlyList<Harm> harms) => new(Laying(fastener.Drive, fastener.Place) with
    {
        Joints = Joints.SetItem(fastener.Id, joint),
    }, harms);

    // What was wrong with a reading was wrong with this one alone.
    private Vehicle Really(Fastener fastener, WasReallyTightenedTo was)
    {
        var spec = fastener.LastTorque!;
        var place = Math.Max(was.Place, 1);
        // What is tight by a turn after its torque stays so where that torque was enough.
        var tight = was.At >= spec.Low && (fastener.Tightening.Value is not InStages { Stages: [.., TurnFurther] }
            || Joints[fastener.Id].Screws.GetValueOrDefault(place)?.IsTight == true);
        return this with
        {
            Joints = Joints.SetItem(fastener.Id, WithScrews(fastener, Joints[fastener.Id],
                Joints[fastener.Id].Screws.SetItem(place, new(was.At, TurnedFor(spec, was.At), tight, false)))),
        };
    }

    private Joint Mended(Fastener fastener) => HasScrews(fastener) ? WithScrews(fastener, Joints[fastener.Id],
        Joints[fastener.Id].Screws.ToImmutableDictionary(s => s.Key, s => s.Value with { IsStripped = false }))
        : Joints[fastener.Id] with { IsStripped = false };

    private Joint Without(Fastener fastener, int place) =>
        WithScrews(fastener, Joints[fastener.Id], Joints[fastener.Id].Screws.Remove(place));
}

/// <summary>How one fastener of a group sits.</summary>
/// <param name="Torque">What it was last drawn to; null where it is not done by torque.</param>
/// <param name="Turned">How far it was turned after its face touched, in degrees.</param>
/// <param name="IsTight">It is as it should be in the end, or more.</param>
/// <param name="IsStripped">Whether its thread gave way.</param>
public sealed record Screw(Quantity<Torque>? Torque, decimal Turned, bool IsTight, bool IsStripped)
{
    /// <summary>Run in by hand.</summary>
    internal static Screw RunIn { get; } = new(Quantity<Torque>.Zero, 0, false, false);
}
