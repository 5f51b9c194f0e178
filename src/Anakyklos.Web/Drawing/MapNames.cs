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

    // Half of what a letter takes; what is pointed at is written bold.
    private const double Letter = 1.25, Bold = 1.5;

    private readonly List<MapWords> _taken = [];
    private readonly MapWords[] _wheels;

    /// <summary>Places the words of a map.</summary>
    /// <param name="map">The map.</param>
    /// <param name="here">What is pointed at, or null.</param>
    /// <param name="alikes">What it is mistaken for.</param>
    public MapNames(VehicleMap map, MapPoint? here, IReadOnlyList<MapPoint> alikes)
    {
        _wheels = map.Outline == MapOutline.Car ? [.. Wheels.Select(w => new MapWords(w.X + 4, w.Y + 22, 4, 22))] : [];
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

    /// <summary>The words for what is pointed at.</summary>
    public MapWords Here { get; }

    /// <summary>The names of the blocks, in their order.</summary>
    public IReadOnlyList<MapWords> Blocks { get; }

    // In the block at the top or at the bottom, above it, below it, or beside it: the first place where nothing else stands.
    private MapWords Place(MapBlock block)
    {
        var (middle, half, foot) = (block.X + block.Width / 2.0, block.Name.Length * Letter, block.Y + block.Height);
        MapWords At(double x, double y) => new(x, y, half, 4);
        var fits = block.Height >= 8 && block.Name.Length * 2.6 <= block.Width;
        var (right, left) = (block.X + block.Width + half + 1.5, block.X - half - 1.5);
        var feet = new[] { foot - 1, block.Y + 5, foot + 5 };
        var sides = feet.SelectMany(y => new[] { At(right, y), At(left, y) }).Where(w => w.X - half > 0 && w.X + half < 100);
        MapWords[] places = fits ? [At(middle, block.Y + 6), At(middle, foot - 3), At(middle, block.Y - 2), At(middle, foot + 5), .. sides]
            : [At(middle, block.Y - 2), At(middle, foot + 5), .. sides];
        var free = places.Where(w => !_taken.Any(t => t.Meets(w))).OrderBy(w => _wheels.Any(wheel => wheel.Meets(w)))
            .DefaultIfEmpty(places[0]).First();
        _taken.Add(free);
        return free;
    }

    private static MapWords[] Edges(MapOutline outline) => outline == MapOutline.Car
        ? [new(61, 4.5, 6.5, 5), new(10, 64, 5, 4), new(90, 64, 6, 4)]
        : [new(68, 6, 6.5, 5), new(18, 64, 5, 4), new(82, 64, 6, 4)];
}
