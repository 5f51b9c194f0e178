namespace Anakyklos.Core.Tightening;

/// <summary>Works out from their places in which order fasteners are drawn down, so that what they hold comes on evenly.</summary>
public static class FasteningOrder
{
    // Places whose distance from the middle differs by less than this, of 100, count as alike.
    private const double Alike = 4;

    /// <summary>The order within one pass.</summary>
    /// <param name="order">How.</param>
    /// <param name="places">The fasteners of one wheel, cover or pan.</param>
    /// <returns>Each of them once.</returns>
    /// <exception cref="InvalidOperationException">Nobody has said how that order goes.</exception>
    public static IReadOnlyList<FastenerPlace> Of(TighteningOrder order, IReadOnlyList<FastenerPlace> places) => order switch
    {
        TighteningOrder.InTurn => places,
        TighteningOrder.Star => Star(places),
        TighteningOrder.FromTheMiddle => FromTheMiddle(places),
        _ => throw new InvalidOperationException($"Nobody has said how {order} goes."),
    };

    // Round the circle they are numbered by their angle. An even circle goes across and on to the next pair; an odd one goes on by half of
    // it. Neither comes to a neighbour from five on.
    private static IReadOnlyList<FastenerPlace> Star(IReadOnlyList<FastenerPlace> places)
    {
        if (places.Count == 0)
            return places;
        var middle = Middle(places);
        var first = Angle(places[0], middle);
        var round = places.OrderBy(p => Turned(Angle(p, middle) - first)).ToList();
        var (count, half) = (round.Count, round.Count / 2);
        if (count % 2 == 1)
            return [.. Enumerable.Range(0, count).Select(i => round[i * half % count])];
        return [.. Spread(half).SelectMany(i => new[] { round[i], round[i + half] })];
    }

    // Which pair across comes next: every second one, then those between, so that it comes on evenly; with few pairs, in turn.
    private static IEnumerable<int> Spread(int pairs) => pairs < 5 ? Enumerable.Range(0, pairs)
        : Enumerable.Range(0, (pairs + 1) / 2).Select(i => 2 * i).Concat(Enumerable.Range(0, pairs / 2).Select(i => 2 * i + 1));

    private static IReadOnlyList<FastenerPlace> FromTheMiddle(IReadOnlyList<FastenerPlace> places)
    {
        if (places.Count == 0)
            return places;
        var (left, right) = (places.Min(p => p.X), places.Max(p => p.X));
        var (top, bottom) = (places.Min(p => p.Y), places.Max(p => p.Y));
        var along = right - left >= bottom - top;
        var middle = along ? (double)(left + right) / 2 : (double)(top + bottom) / 2;
        var left_ = places.ToList();
        var order = new List<FastenerPlace>();
        while (left_.Count > 0)
        {
            var nearest = left_.Min(Out);
            var ring = left_.Where(p => Out(p) < nearest + Alike);
            var next = order.Count == 0 ? ring.OrderBy(p => p.Number).First()
                : ring.OrderByDescending(p => Math.Round(Apart(p, order[^1]), 6)).ThenBy(p => p.Number).First();
            order.Add(next);
            left_.Remove(next);
        }
        return order;

        double Out(FastenerPlace p) => Math.Abs((double)(along ? p.X : p.Y) - middle);
    }

    private static (double X, double Y) Middle(IReadOnlyList<FastenerPlace> places) =>
        ((double)places.Average(p => p.X), (double)places.Average(p => p.Y));

    private static double Angle(FastenerPlace p, (double X, double Y) middle) =>
        Math.Atan2((double)p.X - middle.X, middle.Y - (double)p.Y);

    private static double Turned(double angle) => angle < -1e-6 ? angle + Math.Tau : angle;

    private static double Apart(FastenerPlace a, FastenerPlace b) =>
        Math.Sqrt((double)((a.X - b.X) * (a.X - b.X) + (a.Y - b.Y) * (a.Y - b.Y)));
}
