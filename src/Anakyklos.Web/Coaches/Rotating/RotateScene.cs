using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Rotating;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Coaches.Rotating;

/// <summary>Wheels change their places: what the tread says first, then the pattern drawn for it.</summary>
public sealed class RotateScene : WorkScene
{
    private const int Wide = 300;

    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["rotate"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        var rotation = Rotation.Of(scene.Card, scene.Step);
        scene.Pictures = new(Middle: "~/Coaches/Rotating/_Rotation.cshtml");
        LiftScene.Other other = rotation.Arrowed == true ? new("No arrow on them", "tread", "w", Fields: [("arrowed", "no")])
            : new("They carry an arrow", "tread", "w", Fields: [("arrowed", "yes")]);
        scene.Others.Add(other);
        if (rotation.Arrowed is null)
            scene.Main = new("No arrow on the sidewalls", "tread", ("arrowed", "no"));
        else
            scene.Offer(Said(scene.Step));
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e is TreadLookedAt look
        ? look.Arrowed ? "The treads carry an arrow: each stays on its side" : "No arrow on the treads" : null;

    /// <summary>A place in words.</summary>
    public static string Name(WheelPlace place) => place switch
    {
        WheelPlace.FrontLeft => "front left",
        WheelPlace.FrontRight => "front right",
        WheelPlace.RearLeft => "rear left",
        WheelPlace.RearRight => "rear right",
        WheelPlace.RearLeftInner => "rear left, inner",
        WheelPlace.RearRightInner => "rear right, inner",
        _ => throw new InvalidOperationException($"Nobody says what {place} means."),
    };

    /// <summary>The middle of a wheel on the drawing, which is 300 wide and 250 high, front above.</summary>
    public static (int X, int Y) Spot(WheelPlace place) => place switch
    {
        WheelPlace.FrontLeft => (50, 55),
        WheelPlace.FrontRight => (Wide - 50, 55),
        WheelPlace.RearLeft => (50, 195),
        WheelPlace.RearRight => (Wide - 50, 195),
        WheelPlace.RearLeftInner => (96, 195),
        WheelPlace.RearRightInner => (Wide - 96, 195),
        _ => throw new InvalidOperationException($"Nobody has said where {place} is drawn."),
    };

    /// <summary>The way of a wheel: from the edge of its place to the edge of the other, a little to one side so that two that change
    /// places do not lie over each other.</summary>
    public static string Way(WheelMove move)
    {
        var ((x1, y1), (x2, y2)) = (Spot(move.From), Spot(move.To));
        var down = y2 > y1;
        var aside = move.ChangesSide ? 0 : down ? -9 : 9;
        return $"M{x1 + aside} {y1 + (down ? 38 : -38)}L{x2 + aside} {y2 + (down ? -38 : 38)}";
    }

    /// <summary>What the tread has on this card at a place; empty where nobody measured it.</summary>
    public static string Tread(JobCard card, WheelPlace place) => card.Steps.Where(s => s.Spec is InspectSpec)
        .SelectMany(s => card.FoundAt(s.Id)).Where(f => f.Point == PointOf(place) || f.Point == $"{PointOf(place)}-outer")
        .Select(f => JobCard.LeastOf(f.Left)).FirstOrDefault(g => g is { Scale.Kind: "length" }) is { } least ? least.Number : "";

    private static string PointOf(WheelPlace place) => System.Text.Json.JsonNamingPolicy.KebabCaseLower.ConvertName($"{place}");
}
