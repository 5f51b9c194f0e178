using System.Globalization;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Drawing;

/// <summary>A gauge as it is drawn, whether stick, window, rod or part: where between its marks a level lies on the page. Script reads the
/// same numbers.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Tap">What to do before it is read, and where to tap.</param>
/// <param name="Low">What its bottom mark is called.</param>
/// <param name="High">What its top mark is called.</param>
/// <param name="Shape">The outline of the fluid with {y} for where it ends.</param>
/// <param name="Empty">The outline while nothing was read.</param>
public sealed record LevelGauge(string Name, string Tap, string Low, string High, string Shape, string Empty)
{
    /// <summary>Where the bottom mark is, from the top.</summary>
    public const int Bottom = 390;

    /// <summary>From mark to mark.</summary>
    public const int Span = 230;

    // How far outside of the marks can be drawn, in parts of the way between them.
    private const decimal Beyond = 0.35m;

    public static LevelGauge Of(FluidSystem fluid) => fluid.FillBy switch
    {
        FillBy.SightGlass => new("window", "Look in level with it, tap where the oil stands", "bottom", "top",
            "M7 {y}H237V390H7Z", "M7 390H237V390H7Z"),
        FillBy.Rod => new("rod", "Wipe it, lay it in, tap where it is wet", Depth(fluid.Rod?.Value.Low), Depth(fluid.Rod?.Value.High),
            "M110 {y}H134V474H110Z", "M110 474H134Z"),
        FillBy.Part => new(fluid.Part, "Lamp in, tap where the oil stands", "lower edge", "upper edge",
            "M10 {y}H234V474H10Z", "M10 474H234Z"),
        _ => new("dipstick", "Wipe, dip, tap where the oil ends", "bottom mark", "top mark",
            "M102 {y}V450q0 24 20 24t20-24V{y}Z", "M102 474H142Z"),
    };

    /// <summary>A level as it can be typed again, to a ten-thousandth.</summary>
    public static string Typed(Level level) => level.Fraction.ToString("0.####", CultureInfo.InvariantCulture);

    private static string Depth(Quantity<Length>? mark) => mark is { } depth ? $"{depth.Print(Length.Millimetre)}" : "mark";

    public static string Y(decimal fraction) => Svg.N(Bottom - Math.Clamp(fraction, -Beyond, 1 + Beyond) * Span);

    /// <summary>The fluid up to a level; nothing of it when none was read.</summary>
    public string Oil(Level? level) => level is { } l ? Shape.Replace("{y}", Y(l.Fraction), StringComparison.Ordinal) : Empty;
}
