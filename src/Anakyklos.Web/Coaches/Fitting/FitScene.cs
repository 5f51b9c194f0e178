using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Coaches.Fitting;

/// <summary>A part goes in: its number, large enough to be held against the box.</summary>
public sealed class FitScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["fit"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        var part = scene.Card.Sheet.Parts[scene.Step.What];
        scene.Number = scene.Card.Kit?.Parts.GetValueOrDefault(part.Id) ?? part.Number.Value;
        scene.Facts.Add(new("Part", $"{part.Name}{Again(part)}"));
        scene.Offer(Said(scene.Step));
    }

    private static string Again(Part part) => part.ReusableTimes switch
    {
        null => "",
        0 => ", one use",
        1 => ", may be used again once",
        { } times => $", may be used again {times} times",
    };
}
