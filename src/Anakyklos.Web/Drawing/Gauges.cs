using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Web.Drawing;

/// <summary>The dipstick as it is drawn: where between its marks a level lies on the page. Script reads the same two numbers.</summary>
public static class StickGauge
{
    /// <summary>Where the bottom mark is, from the top.</summary>
    public const int Bottom = 390;

    /// <summary>From mark to mark.</summary>
    public const int Span = 230;

    public static string Y(decimal fraction) => Svg.N(Bottom - Math.Clamp(fraction, -0.35m, 1.35m) * Span);

    /// <summary>The oil on the stick up to a level; only its tip when none was read.</summary>
    public static string Oil(Level? level) =>
        level is { } l ? $"M102 {Y(l.Fraction)}V450q0 24 20 24t20-24V{Y(l.Fraction)}Z" : "M102 474H142Z";
}

/// <summary>The can in hand as it is drawn: what is in it, and where to stop pouring.</summary>
/// <param name="had">What was in hand before the first pour.</param>
/// <param name="poured">What has gone in since.</param>
/// <param name="now">What goes in now; zero for nothing.</param>
/// <param name="unit">The unit of its scale.</param>
public sealed class CanGauge(Quantity<Volume> had, Quantity<Volume> poured, Quantity<Volume> now, Unit<Volume> unit)
{
    private const int Bottom = 330;
    private const int Span = 230;
    private const int WordHeight = 24;

    private readonly decimal _holds = Math.Max(5m, Math.Ceiling(had.In(unit)));

    public Quantity<Volume> Left => had - poured;

    public Quantity<Volume> Stop => Left - now;

    public bool Pours => now > Quantity<Volume>.Zero;

    public string Surface => Svg.N(At(Left.In(unit)));

    public string Height => Svg.N(Bottom - At(Left.In(unit)));

    public string StopsAt => Svg.N(At(Stop.In(unit)));

    /// <summary>The line of a word, so far above or below where to stop.</summary>
    public string BesideStop(int below) => Svg.N(At(Stop.In(unit)) + below);

    /// <summary>The scale, a tick a unit; the number is left away where it would lie on the words for where to stop.</summary>
    public IEnumerable<(string Y, string WordY, decimal? Number)> Ticks()
    {
        for (var n = 1m; n < _holds; n += _holds > 8 ? 2 : 1)
            yield return (Svg.N(At(n)), Svg.N(At(n) + 6), !Pours || Math.Abs(n - Stop.In(unit)) * Span / _holds > WordHeight ? n : null);
    }

    private decimal At(decimal amount) => Bottom - Math.Clamp(amount / _holds, 0, 1) * Span;
}
