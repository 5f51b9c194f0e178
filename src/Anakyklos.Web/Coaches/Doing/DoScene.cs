namespace Anakyklos.Web.Coaches.Doing;

/// <summary>What is one sentence and one press; where the label is put up, it is shown as it will be.</summary>
public sealed class DoScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["do"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        base.Draw(scene, to);
        if (scene.Step.PutsLabelUp && !scene.IsDone)
            (scene.Pictures, scene.Printer) = (new(Middle: "~/Coaches/Doing/_Label.cshtml"), to.Printer);
    }
}
