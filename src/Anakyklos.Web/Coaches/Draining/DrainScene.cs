using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Draining;

/// <summary>A fluid is let out: the drive of its plug, and the pan that goes under it.</summary>
public sealed class DrainScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["drain"];

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e switch
    {
        Dipped d => $"Dipped before the drain: {d.Level}{(d.AgainstWarning is { } against ? $". Asked: {against}" : "")}",
        Measured m => MeasureScene.Said(m),
        Rinsed r => $"Poured {r.Amount} through",
        _ => null,
    };

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        var plug = scene.Card.Sheet.Fasteners[scene.Step.What];
        (scene.Number, scene.Unit) = DriveWords.Figure(plug.Drive);
        if (scene.Number.Length == 0)
            scene.Facts.Add(new("Tool", plug.Drive));
        scene.Pictures = scene.Pictures with { Under = "~/Coaches/Draining/_Pans.cshtml" };
        scene.Offer(Said(scene.Step));
    }
}
