namespace Anakyklos.Core.Sheets;

/// <summary>A wheel that a drive belt runs over, in the units of its drawing.</summary>
/// <param name="Name">Crankshaft, tensioner and so on.</param>
/// <param name="X">Centre, 0 to 100.</param>
/// <param name="Y">Centre, 0 to 120.</param>
/// <param name="Radius">1 to 40.</param>
/// <param name="Back">Whether the smooth back of the belt runs on it: then it turns the other way.</param>
public sealed record BeltPulley(string Name, int X, int Y, int Radius, bool Back);

/// <summary>One stretch of a belt: round a pulley, then straight to the next.</summary>
/// <param name="Pulley">The pulley it runs round.</param>
/// <param name="Onto">Where it meets the pulley.</param>
/// <param name="Off">Where it leaves the pulley.</param>
/// <param name="Wrap">How far it lies on the pulley, in degrees, above 0 and at most 360.</param>
public sealed record BeltStretch(BeltPulley Pulley, (double X, double Y) Onto, (double X, double Y) Off, double Wrap);

/// <summary>The way of a drive belt over its pulleys, in the order in which it meets them; ribbed pulleys turn clockwise as
/// drawn.</summary>
/// <param name="For">Id of the part.</param>
/// <param name="Pulleys">At least two, none touching another.</param>
public sealed record BeltRoute(PartId For, IReadOnlyList<BeltPulley> Pulleys)
{
    /// <summary>Neighbouring pulleys that touch or overlap, so that no belt can run between them; null when there are none.</summary>
    public (BeltPulley, BeltPulley)? Clash => Pulleys.SelectMany((a, i) => Pulleys.Skip(i + 1).Select(b => (a, b)))
        .Where(p => Math.Pow(p.a.X - p.b.X, 2) + Math.Pow(p.a.Y - p.b.Y, 2) <= Math.Pow(p.a.Radius + p.b.Radius, 2))
            .Select(p => ((BeltPulley, BeltPulley)?)p).FirstOrDefault();

    /// <summary>The belt, stretch by stretch. Between two pulleys it runs along their common tangent: the outer one when both turn the same
    /// way, else the inner.</summary>
    /// <returns>One a pulley, in the order in which the belt meets them.</returns>
    /// <exception cref="InvalidOperationException">Fewer than two pulleys, or two that touch.</exception>
    public IReadOnlyList<BeltStretch> Stretches()
    {
        if (Pulleys.Count < 2 || Clash is not null)
            throw new InvalidOperationException("A belt needs two pulleys or more that do not touch.");
        var tangents = Pulleys.Select((p, i) => Tangent(p, Pulleys[(i + 1) % Pulleys.Count])).ToList();
        return [.. Pulleys.Select((p, i) =>
        {
            var (onto, off) = (tangents[(i + Pulleys.Count - 1) % Pulleys.Count].To, tangents[i].From);
            var swept = (Math.Atan2(off.Y - p.Y, off.X - p.X) - Math.Atan2(onto.Y - p.Y, onto.X - p.X)) * 180 / Math.PI * (p.Back ? -1 : 1);
            return new BeltStretch(p, onto, off, swept <= 0 ? swept + 360 : swept);
        })];
    }

    // With u along the belt and n square to it, D from centre to centre is L·u + k·n, and k follows from the radii and the ways they turn;
    // so u is D turned back by the angle whose sine is k/|D|.
    private static ((double X, double Y) From, (double X, double Y) To) Tangent(BeltPulley a, BeltPulley b)
    {
        var (ra, rb) = ((a.Back ? -1.0 : 1) * a.Radius, (b.Back ? -1.0 : 1) * b.Radius);
        double dx = b.X - a.X, dy = b.Y - a.Y, d = Math.Sqrt(dx * dx + dy * dy), k = (ra - rb) / d, c = Math.Sqrt(1 - k * k);
        // The square of (x, y) is (y, −x): upwards where the belt runs to the right, since y grows downwards.
        var (ux, uy) = ((c * dx - k * dy) / d, (c * dy + k * dx) / d);
        return ((a.X + ra * uy, a.Y - ra * ux), (b.X + rb * uy, b.Y - rb * ux));
    }
}
