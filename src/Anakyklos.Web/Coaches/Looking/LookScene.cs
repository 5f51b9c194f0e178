using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Sheets;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Looking;

/// <summary>The joints that this card opened are looked at: all at once when they are dry, one by itself when it is not.</summary>
public sealed class LookScene : WorkScene
{
    private const string Here = "~/Coaches/Looking/";

    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["look"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        base.Draw(scene, to);
        var joints = LookedAtJoint.Of(scene.Card, scene.Step);
        if (joints.Count == 0)
            return;
        scene.Pictures = new(Middle: Here + "_Joints.cshtml", Right: Maps(scene.Card, joints).Count > 0 ? Here + "_JointMaps.cshtml" : "",
            Facts: 1);
        scene.Joint = joints.FirstOrDefault(j => j.Fastener.Id.Text == to.Point)?.Fastener.Id
            ?? (scene.WaitsFor is null ? joints.FirstOrDefault(j => j.Look == JointLook.Wept)?.Fastener.Id : null);
        if (joints.FirstOrDefault(j => j.Look == JointLook.Wept) is { } wept)
            scene.Main = new($"{wept.Fastener.Name}: dry now", "dry", ("fastener", wept.Fastener.Id.Text));
        else
            scene.Offer(joints.Count == 1 ? "It is dry" : joints.Count == 2 ? "Both are dry" : $"All {joints.Count} are dry");
        if (scene.WaitsFor is null)
            return;
        // What was wiped shows itself by itself; the others are looked at meanwhile.
        foreach (var (joint, key) in joints.Where(j => j.Look is null).Take(3).Zip("234"))
            scene.Meanwhile.Add(new($"{joint.Fastener.Name}: dry", "dry", $"{key}",
                Fields: [("fastener", joint.Fastener.Id.Text), ("stay", "yes")]));
    }

    /// <summary>How a joint is looked at, in words.</summary>
    public static string Says(LookWhile how) => how switch
    {
        LookWhile.EngineRan => "after the engine ran",
        LookWhile.Pressed => "with pedal or lever pressed",
        _ => "as it stands",
    };

    /// <summary>The maps that show joints, each with their numbers in the list.</summary>
    public static IReadOnlyList<(VehicleMap Map, IReadOnlyList<(MapPoint Point, int Number, LookedAtJoint Joint)> Points)> Maps(
        JobCard card, IReadOnlyList<LookedAtJoint> joints) =>
        [.. joints.Select((j, i) => (Joint: j, Number: i + 1, Map: card.Sheet.Maps.Values.FirstOrDefault(m =>
                m.Points.Any(p => p.For == j.Fastener.Id)))).Where(x => x.Map is not null).GroupBy(x => x.Map!)
            .Select(g => (g.Key, (IReadOnlyList<(MapPoint, int, LookedAtJoint)>)[.. g.Select(x =>
                (g.Key.Points.First(p => p.For == x.Joint.Fastener.Id), x.Number, x.Joint))]))];

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e switch
    {
        LeakFound l => $"{card.Sheet.Fasteners[l.Fastener].Name} leaks",
        JointDry d => $"{card.Sheet.Fasteners[d.Fastener].Name} is dry",
        JointWept w => $"{card.Sheet.Fasteners[w.Fastener].Name} weeps; wiped, to be looked at again after {LiftWords.Hold(w.Again)}",
        _ => null,
    };
}
