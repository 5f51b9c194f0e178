namespace Anakyklos.Web.Coaches.Running;

/// <summary>The engine is run warm: who worked in the engine bay before says that nothing lies there.</summary>
public sealed class WarmScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["warm"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        if (scene.Card.ToolsAbove is not { Count: > 0 } tools || scene.IsDone)
        {
            scene.Offer(Said(scene.Step));
            return;
        }
        scene.Facts.Add(new("Look first", $"Tools and rags in the engine bay, after: {string.Join(", ", tools)}"));
        scene.Main = new($"Nothing lies above. {Said(scene.Step)}", "done", ("lookedAbove", "yes"));
    }
}
