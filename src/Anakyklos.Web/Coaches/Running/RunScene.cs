using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Running;

/// <summary>The engine is started; one that does not fire is left to rest for as long as its starter wants.</summary>
public sealed class RunScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["run"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        base.Draw(scene, to);
        if (scene.Card.Sheet.Starter is not { } starter || scene.IsDone)
            return;
        var cranking = Cranking.Of(scene.Card, scene.Step);
        scene.Others.Add(new("It does not fire", "cranked", "d"));
        scene.Facts.Add(new("Crank",
            $"No longer than {LiftWords.Hold(starter.Longest)} at a time, then {LiftWords.Hold(starter.Rest)} of rest"
            + (cranking.Times == 0 ? "" : $"; {(cranking.Left == 1 ? "one try" : $"{cranking.Left} tries")} left")));
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e is not EngineCranked c ? null
        : $"Cranked, did not fire; the starter {(c.Cools ? "cools" : "rests")} for {LiftWords.Hold(c.Rests)}"
            + (c.Again.Count == 0 ? "" : $"; again first: {string.Join(", ", c.Again.Select(a => card.TitleOf(a)))}");
}
