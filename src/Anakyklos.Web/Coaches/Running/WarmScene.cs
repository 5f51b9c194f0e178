using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Sheets;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Running;

/// <summary>The engine is run warm, by the clock where the sheet says for how long: who worked in the engine bay before says that nothing
/// lies there.</summary>
public sealed class WarmScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["warm"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        if (scene.IsDone)
            return;
        var begins = scene.Step.Spec is WarmSpec && !scene.Card.IsAway(scene.Step);
        var (says, command) = begins ? (scene.Step.IsDriven ? "It sets off" : "It runs", "warming") : (Said(scene.Step), "done");
        if (begins)
            scene.Beside = [scene.Step.IsDriven ? "ridden, by the clock" : "by the clock", "from the press"];
        if (scene.Card.IsAway(scene.Step) || scene.Card.ToolsAbove is not { Count: > 0 } tools)
        {
            scene.Offer(says, command);
            return;
        }
        scene.Facts.Add(new("Look first", $"Tools and rags in the engine bay, after: {string.Join(", ", tools)}"));
        scene.Main = new($"Nothing lies above. {says}", command, ("lookedAbove", "yes"));
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e is not WarmingBegun begun ? null
        : card.StepEver(begun.Step) is { IsDriven: true } ? $"Set off to be ridden warm, {LiftWords.Hold(begun.For)}"
        : $"Engine runs to get warm, {LiftWords.Hold(begun.For)}";
}
