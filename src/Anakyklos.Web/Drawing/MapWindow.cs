using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Drawing;

/// <summary>The part of a map that is shown, in the drawing's own measure.</summary>
/// <param name="X">Left edge.</param>
/// <param name="Y">Upper edge.</param>
/// <param name="Width">Width.</param>
/// <param name="Height">Height.</param>
public readonly record struct MapWindow(double X, double Y, double Width, double Height)
{
    // What is pointed at keeps this much room around it, more where its arrow points; the part is never smaller than three hands'
    // breadths.
    private const double Around = 9, Arrow = 14, Least = 56, Shape = 1.45, Most = 84;

    /// <summary>Right edge.</summary>
    public double Right => X + Width;

    /// <summary>Lower edge.</summary>
    public double Foot => Y + Height;

    /// <summary>The part as the box of an SVG.</summary>
    /// <param name="below">Room for words under it.</param>
    public string Box(double below = 0) => FormattableString.Invariant($"{X:0.##} {Y:0.##} {Width:0.##} {Height + below:0.##}");

    /// <summary>The whole drawing with its edges.</summary>
    public static MapWindow Whole(VehicleMap map)
    {
        var top = map.Outline is MapOutline.CarSide or MapOutline.MotorcycleSide ? 22 : -2;
        return new(-2, top, 104, 122 - top);
    }

    /// <summary>The part around what is pointed at and what it is mistaken for.</summary>
    /// <param name="map">The map.</param>
    /// <param name="here">What is pointed at, or null.</param>
    /// <param name="alikes">What it is mistaken for.</param>
    /// <returns>The part, or null when nothing is pointed at, they lie so far apart that the whole says more, or a belt is drawn, whose
    /// road is only seen whole.</returns>
    public static MapWindow? Near(VehicleMap map, MapPoint? here, IReadOnlyList<MapPoint> alikes)
    {
        if (here is null || map.Belts.Count > 0)
            return null;
        var whole = Whole(map);
        var points = alikes.Append(here).ToList();
        double Room(MapPoint p, Facing side) => p == here && p.Faces == side ? Arrow : Around;
        var (left, right) = (points.Min(p => p.X - Room(p, Facing.Left)), points.Max(p => p.X + Room(p, Facing.Right)));
        var (top, foot) = (points.Min(p => p.Y - Room(p, Facing.Up)), points.Max(p => p.Y + Room(p, Facing.Down)));
        var width = Math.Max(Math.Max(right - left, (foot - top) * Shape), Least);
        if (width > Most)
            return null;
        var height = width / Shape;
        return new(Math.Clamp((left + right - width) / 2, whole.X, whole.Right - width),
            Math.Clamp((top + foot - height) / 2, whole.Y, whole.Foot - height), width, height);
    }

    /// <summary>What of a block can be seen in this part, or null when it is less than a name's room.</summary>
    public MapWindow? Seen(MapBlock block)
    {
        var (left, right) = (Math.Max(block.X, X), Math.Min(block.X + block.Width, Right));
        var (top, foot) = (Math.Max(block.Y, Y), Math.Min(block.Y + block.Height, Foot));
        return right - left < 4 || foot - top < 3 ? null : new(left, top, right - left, foot - top);
    }
}
