using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Coaches.Running;

/// <summary>The vehicle is driven: what is tried in order, how each went, how far and where.</summary>
public sealed class DriveScene : WorkScene
{
    private const string Here = "~/Coaches/Running/";

    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["drive"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        if (scene.Step.Spec is not DriveSpec || scene.IsDone)
        {
            base.Draw(scene, to);
            return;
        }
        var test = RoadTest.Of(scene.Card, scene.Step);
        scene.Pictures = new(Left: Here + "_Tries.cshtml", Middle: Here + "_Road.cshtml", Facts: 1);
        if (!scene.Card.IsAway(scene.Step))
            scene.Offer("It sets off", "setOff");
        else if (test is { Next: { } next, HasFailed: false })
            scene.Main = new("Yes, it does", "tried", ("try", $"{next}"), ("went", nameof(TryWent.Well)));
        else
            scene.Sends = ("road", "It is back");
    }

    /// <summary>How something went, in words.</summary>
    public static string Says(TryWent went) => went switch
    {
        TryWent.Well => "as it should",
        TryWent.Strange => "strange",
        _ => "not as it should",
    };

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e switch
    {
        RoadBegun => "Set off on the road test",
        RoadTried t => (card.StepEver(t.Step)?.Spec as DriveSpec)?.Tries.ElementAtOrDefault(t.Try) is { } what
            ? $"{what.Do}: {Says(t.Went)}{(t.Words.Length > 0 ? $", {t.Words}" : "")}" : $"Try {t.Try + 1}: {Says(t.Went)}",
        RoadEnded r => $"Back from the road: {r.Far}, {r.Where}",
        _ => null,
    };
}
