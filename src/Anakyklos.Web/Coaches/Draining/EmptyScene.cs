namespace Anakyklos.Web.Coaches.Draining;

/// <summary>The pans are emptied: what is in each of them.</summary>
public sealed class EmptyScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["empty"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        scene.Pictures = scene.Pictures with { Under = "~/Coaches/Draining/_Pans.cshtml" };
        scene.Offer(Said(scene.Step));
    }
}
