using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Web.Coaches.Looking;

namespace Anakyklos.Web.Coaches.Running;

/// <summary>The engine is switched off. What this card opened, is under pressure and in sight is looked at before that, while it
/// runs.</summary>
public sealed class SettleScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["settle"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        base.Draw(scene, to);
        var joints = scene.Card.JointsInSight.ToList();
        if (scene.IsDone || !scene.Card.EngineRuns || joints.Count == 0)
            return;
        var maps = LookScene.Maps(scene.Card, LookedAtJoint.Of(scene.Card, scene.Step));
        scene.Pictures = new(Middle: "~/Coaches/Running/_InSight.cshtml",
            Right: maps.Count > 0 ? "~/Coaches/Looking/_JointMaps.cshtml" : "", Facts: 2);
        scene.Offer(joints.Count == 1 ? "Dry. It is off" : joints.Count == 2 ? "Both dry. It is off" : $"All {joints.Count} dry. It is off",
            "offDry");
        scene.Others.Add(new("Off; nobody looked", "done", "x"));
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e is SwitchedOffDry off
        ? $"Dry while it ran: {string.Join(", ", off.Joints.Select(j => card.Sheet.Fasteners[j].Name))}; engine off" : null;
}
