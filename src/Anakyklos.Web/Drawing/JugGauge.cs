using Anakyklos.Core.Quantities;

namespace Anakyklos.Web.Drawing;

/// <summary>The measuring jug into which what came out is poured: its scale is tapped where the fluid stands. In a drawing that is 230 wide
/// and 300 high.</summary>
/// <param name="book">What the book has of it; the jug holds that and a little more.</param>
/// <param name="unit">The unit of its scale.</param>
public sealed class JugGauge(Quantity<Volume> book, Unit<Volume> unit)
{
    /// <summary>Where the scale begins.</summary>
    public const int Bottom = 280;

    /// <summary>How high the scale is.</summary>
    public const int Span = 240;

    private const decimal More = 1.2m;
    private const int Ticks = 10;

    private static readonly decimal[] Sizes = [0.5m, 1, 2, 5, 10, 20, 50, 100];

    /// <summary>What it holds up to its highest mark, in its unit.</summary>
    public decimal Holds { get; } = Sizes.First(s => s >= book.In(unit) * More || s == Sizes[^1]);

    /// <summary>How finely it can be read, in its unit: a tenth of what lies between two marks.</summary>
    public decimal Fine => Holds / Ticks / 10;

    /// <summary>The unit, as it is typed.</summary>
    public string Unit => unit.Symbol;

    /// <summary>Where the surface stands at an amount; at the bottom where none was typed.</summary>
    /// <param name="amount">What was typed, or null.</param>
    public string Surface(Quantity<Volume>? amount) =>
        Svg.N(Bottom - Math.Clamp((amount?.In(unit) ?? 0) / Holds, 0, 1.1m) * Span);

    /// <summary>The marks of its scale, each with its number.</summary>
    public IEnumerable<(string Y, string WordY, string Number)> Scale() => Enumerable.Range(1, Ticks)
        .Select(i => (Y: Bottom - i * Span / (decimal)Ticks, i)).Select(t => (Svg.N(t.Y), Svg.N(t.Y + 6), $"{Holds * t.i / Ticks:0.##}"));

    /// <summary>Where the book's amount would stand.</summary>
    public string BookAt => Svg.N(Bottom - book.In(unit) / Holds * Span);
}
