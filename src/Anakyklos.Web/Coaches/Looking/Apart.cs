using System.Globalization;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Coaches.Looking;

/// <summary>Where the number of a joint stands on a map: at its place, or beside it where another number is there already.</summary>
/// <param name="X">Middle.</param>
/// <param name="Y">Middle.</param>
/// <param name="Moved">Whether it stands beside its place, with a line to it.</param>
/// <param name="Line">That line.</param>
public sealed record Apart(string X, string Y, bool Moved, string Line)
{
    // Two circles of radius 5.2 and a little air.
    private const double Between = 11.6;

    private static readonly (int X, int Y)[] Beside = [(0, 0), (12, 0), (-12, 0), (0, 12), (0, -12), (12, 12), (-12, 12),
        (12, -12), (-12, -12), (24, 0), (-24, 0), (0, 24), (0, -24)];

    /// <summary>Foot of its figure.</summary>
    public string Foot => (double.Parse(Y, CultureInfo.InvariantCulture) + 2.3).ToString("0.#", CultureInfo.InvariantCulture);

    /// <summary>The places of all numbers of a map; none lies on another.</summary>
    /// <param name="points">The joints on it.</param>
    public static IReadOnlyList<(Apart At, (MapPoint Point, int Number, LookedAtJoint Joint) Of)> Of(
        IReadOnlyList<(MapPoint Point, int Number, LookedAtJoint Joint)> points)
    {
        var taken = new List<(int X, int Y)>();
        var placed = new List<(Apart, (MapPoint, int, LookedAtJoint))>();
        foreach (var p in points)
        {
            var (dx, dy) = Beside.FirstOrDefault(d => IsFree(taken, p.Point.X + d.X, p.Point.Y + d.Y));
            var (x, y) = (p.Point.X + dx, p.Point.Y + dy);
            taken.Add((x, y));
            placed.Add((new($"{x}", $"{y}", dx != 0 || dy != 0, $"M{p.Point.X} {p.Point.Y}L{x} {y}"), p));
        }
        return placed;
    }

    private static bool IsFree(List<(int X, int Y)> taken, int x, int y) => x is > 5 and < 95 && y is > 5 and < 115
        && taken.TrueForAll(t => Math.Sqrt((t.X - x) * (t.X - x) + (t.Y - y) * (t.Y - y)) >= Between);
}
