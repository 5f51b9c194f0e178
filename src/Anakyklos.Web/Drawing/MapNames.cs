using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Drawing;

/// <summary>Words on a map with the room they take, in the drawing's own measure.</summary>
/// <param name="X">Middle.</param>
/// <param name="Y">Foot of the letters.</param>
/// <param name="Half">Half the width.</param>
/// <param name="Tall">Height above the foot.</param>
public readonly record struct MapWords(double X, double Y, double Half, double Tall)
{
    /// <summary>Whether the two lie on each other.</summary>
    public bool Meets(in MapWords o) => Math.Abs(X - o.X) < Half + o.Half && Y - Tall < o.Y && o.Y - o.Tall < Y;
}

/// <summary>Where the words of a map stand: nothing covers what is pointed at, and no words lie on others.</summary>
public sealed class MapNames
{
    /// <summary>The upper left corners of a car's wheels, 8 wide and 22 high.</summary>
    public static readonly (int X, int Y)[] Wheels = [(4, 26), (88, 26), (4, 88), (88, 88)];

    /// <summary>Half of what a letter takes.</summary>
    public const double Letter = 1.25;

    /// <summary>Half of what a bold letter takes: what is pointed at is written bold.</summary>
    public const double Bold = 1.5;

    private readonly List<MapWords> _taken = [];
    private readonly MapWords[] _wheels;
    private readonly MapWindow _shown;
    private readonly double _scale;
    private readonly bool _whole;

    /// <summary>Places the words of a whole map.</summary>
    /// <param name="map">The map.</param>
    /// <param name="here">What is pointed at, or null.</param>
    /// <param name="alikes">What it is mistaken for.</param>
    public MapNames(VehicleMap map, MapPoint? here, IReadOnlyList<MapPoint> alikes)
        : this(map, MapWindow.Whole(map), 1, true)
    {
        if (map.Front == Facing.Up)
            _taken.AddRange(Edges(map.Outline));
        foreach (var point in here is null ? alikes : alikes.Append(here))
            _taken.Add(new(point.X, point.Y + 5, 5, 10));
        if (here is not null)
        {
            // Below what is pointed at, clear of the blocks around it.
            var foot = here.Y < 78 && map.Outline is MapOutline.Car or MapOutline.Motorcycle ? 86 : 114;
            var half = here.Label.Length * Bold;
            Here = new(Math.Clamp(here.X, Math.Min(half, 50), Math.Max(100 - half, 50)), foot, half, 6);
            _taken.Add(Here);
            _taken.Add(new(here.X, foot, .5, foot - here.Y));
        }
        Blocks = [.. map.Blocks.Select(Place)];
    }

    /// <summary>Places the names of the blocks in a part of a map; what is pointed at is named underneath the part.</summary>
    /// <param name="map">The map.</param>
    /// <param name="here">What is pointed at.</param>
    /// <param name="alikes">What it is mistaken for.</param>
    /// <param name="shown">The part.</param>
    /// <param name="scale">Size of the letters and marks against those of the whole map.</param>
    public MapNames(VehicleMap map, MapPoint here, IReadOnlyList<MapPoint> alikes, MapWindow shown, double scale)
        : this(map, shown, scale, false)
    {
        foreach (var point in alikes.Append(here))
            _taken.Add(new(point.X, point.Y + 5 * scale, 5 * scale, 10 * scale));
        _taken.Add(new(here.X, shown.Foot, .8, shown.Foot - here.Y));
        if (here.Faces != Facing.None)
            _taken.Add(Arrow(here, scale));
        _taken.AddRange(map.Blocks.SelectMany(b => Edges(b, .7 * scale)));
        Blocks = [.. map.Blocks.Select(Place)];
    }

    private MapNames(VehicleMap map, MapWindow shown, double scale, bool whole)
    {
        _wheels = map.Outline == MapOutline.Car ? [.. Wheels.Select(w => new MapWords(w.X + 4, w.Y + 22, 4, 22))] : [];
        (_shown, _scale, _whole) = (shown, scale, whole);
        Blocks = [];
    }

    /// <summary>The words for what is pointed at on a whole map.</summary>
    public MapWords Here { get; }

    /// <summary>The names of the blocks, in their order; null where a part of a map has no room for one.</summary>
    public IReadOnlyList<MapWords?> Blocks { get; }

    // In the block at the top or at the bottom, above it, below it, or beside it: the first place where nothing else stands.
    private MapWords? Place(MapBlock block)
    {
        MapWindow? part = _whole ? new(block.X, block.Y, block.Width, block.Height) : _shown.Seen(block);
        if (part is not { } seen)
            return null;
        var (half, s) = (block.Name.Length * Letter * _scale, _scale);
        var (middle, foot) = (seen.X + seen.Width / 2, seen.Foot);
        MapWords At(double x, double y) => new(x, y, half, 4 * s);
        var fits = seen.Height >= 8 * s && (_whole ? block.Name.Length * 2.6 : 2 * half + 3 * s) <= seen.Width;
        var (right, left) = (seen.Right + half + 1.5 * s, seen.X - half - 1.5 * s);
        var feet = new[] { foot - s, seen.Y + 5 * s, foot + 5 * s };
        var (from, to) = _whole ? (0, 100) : (_shown.X, _shown.Right);
        var sides = feet.SelectMany(y => new[] { At(right, y), At(left, y) }).Where(w => w.X - half > from && w.X + half < to);
        MapWords[] outside = [At(middle, seen.Y - 2 * s), At(middle, foot + 5 * s), .. sides];
        MapWords[] inside = fits ? [At(middle, seen.Y + 6 * s), At(middle, foot - 3 * s)] : [];
        if (!_whole)
            inside = [.. inside, .. fits ? Corners(seen, half).Select(c => At(c.X, c.Y)) : []];
        MapWords[] places = _whole ? [.. inside, .. outside] : [.. inside.Concat(outside).Where(Within)];
        var free = places.Where(w => !_taken.Any(t => t.Meets(w))).OrderBy(w => _wheels.Any(wheel => wheel.Meets(w))).ToList();
        if (free.Count == 0 && !_whole)
            return null;
        var placed = free.DefaultIfEmpty(places[0]).First();
        _taken.Add(placed);
        return placed;
    }

    // Where a name inside a block stands clear of its edges though the middle is taken.
    private IEnumerable<(double X, double Y)> Corners(MapWindow seen, double half) =>
        from y in new[] { seen.Foot - 2.5 * _scale, seen.Y + 6.5 * _scale, (seen.Y + seen.Foot) / 2 + 2 * _scale }
        from x in new[] { seen.X + half + 2 * _scale, seen.Right - half - 2 * _scale }
        select (x, y);

    // Clear of the edge of the part.
    private bool Within(MapWords w) => w.X - w.Half > _shown.X + _scale && w.X + w.Half < _shown.Right - _scale
        && w.Y - w.Tall > _shown.Y + _scale && w.Y < _shown.Foot - 1.5 * _scale;

    private static MapWords[] Edges(MapBlock b, double thick)
    {
        var (middle, foot, right) = (b.X + b.Width / 2.0, b.Y + b.Height, b.X + b.Width);
        return [new(middle, b.Y + thick, b.Width / 2.0, 2 * thick), new(middle, foot + thick, b.Width / 2.0, 2 * thick),
            new(b.X, foot, thick, b.Height), new(right, foot, thick, b.Height)];
    }

    private static MapWords Arrow(MapPoint p, double s) => p.Faces switch
    {
        Facing.Up => new(p.X, p.Y - 5 * s, 3 * s, 9 * s),
        Facing.Down => new(p.X, p.Y + 14 * s, 3 * s, 9 * s),
        Facing.Right => new(p.X + 10 * s, p.Y + 3 * s, 5 * s, 6 * s),
        _ => new(p.X - 10 * s, p.Y + 3 * s, 5 * s, 6 * s),
    };

    private static MapWords[] Edges(MapOutline outline) => outline == MapOutline.Car
        ? [new(61, 4.5, 6.5, 5), new(10, 64, 5, 4), new(90, 64, 6, 4)]
        : [new(68, 6, 6.5, 5), new(18, 64, 5, 4), new(82, 64, 6, 4)];
}
