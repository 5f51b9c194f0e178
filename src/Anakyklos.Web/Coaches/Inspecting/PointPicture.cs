using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Sheets;
using Anakyklos.Web.Coaches.Bleeding;

namespace Anakyklos.Web.Coaches.Inspecting;

/// <summary>What a drawing stands on.</summary>
public enum PointGround
{
    /// <summary>Four wheels, from above.</summary>
    Car,

    /// <summary>Two wheels, from above.</summary>
    Motorcycle,

    /// <summary>A row of cylinders.</summary>
    Bank,
}

/// <summary>A point on a drawing.</summary>
/// <param name="X">From the left, 0 to 300.</param>
/// <param name="Y">From above, 0 to 390.</param>
/// <param name="Place">Its place in the list, from 1.</param>
/// <param name="State">"here", "done", "off" where it does not pass, or empty.</param>
public sealed record DrawnPoint(int X, int Y, int Place, string State);

/// <summary>Where the points of a list sit.</summary>
/// <param name="Ground">What they are drawn on.</param>
/// <param name="Points">The points that have a place.</param>
public sealed record PointPicture(PointGround Ground, IReadOnlyList<DrawnPoint> Points)
{
    private const int Wide = 300;
    private const int High = 390;

    /// <summary>The drawing of a step; null where none of its points has a place.</summary>
    public static PointPicture? Of(LiftScene scene)
    {
        var inspection = Inspection.Of(scene.Card, scene.Step);
        var points = inspection.Spec.Points;
        var onTwo = scene.Card.Sheet.IsMotorcycle;
        var cylinders = points.Max(p => p.Cylinder ?? 0);
        var drawn = new List<DrawnPoint>();
        for (var i = 0; i < points.Count; i++)
            if (Spot(points[i], i) is var (x, y))
                drawn.Add(new(x, y, i + 1, points[i] == scene.Point ? "here" : State(inspection.At(points[i]))));
        return drawn.Count == 0 ? null
            : new(cylinders > 0 ? PointGround.Bank : onTwo ? PointGround.Motorcycle : PointGround.Car, drawn);

        (int X, int Y)? Spot(InspectPoint point, int index)
        {
            if (point.Cylinder is { } cylinder)
                return (14 + (Wide - 28) * (2 * cylinder - 1) / (2 * cylinders), 110);
            if (point.On is { } on)
                return (on.X * Wide / 100, on.Y * High / 120);
            if (point.Wheel is not { } wheel)
                return null;
            // Twins stand beside each other, the outer one outside.
            var twins = points.Where(p => p.Wheel == wheel).ToList();
            var (left, top) = BleedScene.Spot(wheel, onTwo);
            var inwards = twins.Count > 1 && twins.IndexOf(point) == 1 ? left < Wide / 2 ? 46 : -46 : 0;
            return (left + 25 + inwards, top + 40);
        }
    }

    private static string State(PointFound? found) => found switch
    {
        null => "",
        { Outcome: PointOutcome.Good } => "done",
        _ => "off",
    };
}
