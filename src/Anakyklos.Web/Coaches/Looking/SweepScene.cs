using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Looking;

namespace Anakyklos.Web.Coaches.Looking;

/// <summary>A place is looked over: the tools that were used there, what was off, and what lies about after any work.</summary>
public sealed class SweepScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["clear"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        base.Draw(scene, to);
        if (scene.IsDone)
            return;
        scene.Pictures = new(Middle: "~/Coaches/Looking/_Sweep.cshtml", Facts: 1);
        if (to.WrenchesHere.Count > 0 && SweepItem.Of(scene.Card, scene.Step).Any(i => i.For == SweepFor.Tool))
            scene.Facts.Insert(0, new("At the bay",
                $"{string.Join(", ", to.WrenchesHere)} still sends from here: hung up, not left in there"));
    }

    /// <summary>What is looked for, in words.</summary>
    public static string Says(SweepFor what) => what switch
    {
        SweepFor.Tool => "not left in there",
        SweepFor.BackOn => "on again",
        _ => "away",
    };

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e is SweptFor s ? $"Looked for: {s.What}" : null;
}
