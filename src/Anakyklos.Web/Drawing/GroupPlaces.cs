using Anakyklos.Core.Tightening;

namespace Anakyklos.Web.Drawing;

/// <summary>The middle of a fastener on the drawing of its group.</summary>
/// <param name="Place">Which.</param>
/// <param name="X">In units of the drawing.</param>
/// <param name="Y">Downwards.</param>
public sealed record PlaceSpot(FastenerPlace Place, decimal X, decimal Y);

/// <summary>Where the fasteners of one wheel or cover lie on a drawing.</summary>
/// <param name="Spots">Their middles.</param>
/// <param name="Wide">How wide the drawing is.</param>
/// <param name="High">How high it is.</param>
public sealed record GroupPlaces(IReadOnlyList<PlaceSpot> Spots, int Wide, int High)
{
    // The middle of a dot stays so far inside.
    private const int Rim = 40;

    /// <summary>Lays them out. A row needs less height, and many along a pan more width.</summary>
    /// <param name="places">One at least.</param>
    public static GroupPlaces Of(IReadOnlyList<FastenerPlace> places)
    {
        var isRow = places.Max(p => p.Y) - places.Min(p => p.Y) < 20;
        var (wide, high) = isRow ? (400, 130) : places.Count > 8 ? (480, 340) : (360, 330);
        return new([.. places.Select(p => new PlaceSpot(p, At(p.X, wide), At(p.Y, high)))], wide, high);
    }

    private static decimal At(decimal percent, int across) => Rim + percent * (across - 2 * Rim) / 100;
}
