using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Coaches.Resetting;

/// <summary>A move of the ritual that puts an indicator out: what to press, how long, and what the display answers.</summary>
public sealed class ResetScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["reset"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        if (scene.Step.Expect.Length > 0)
            scene.Facts.Add(new("Display", scene.Step.Expect));
        scene.Facts.Add(new("If it fails", scene.Card.Sheet.Resets[scene.Step.What].Again));
        scene.Others.Add(new("It did not answer", "fail", "o"));
        scene.Offer(scene.Step.Expect.Length > 0 ? "The display says so" : "Done");
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e is ResetFailed ? "The display did not answer; reset begun again" : null;
}
