using Anakyklos.Core.Quantities;

namespace Anakyklos.Web.Drawing;

/// <summary>The measuring cup as it is drawn: what is too little for the scale of a can is filled into it first.</summary>
/// <param name="amount">What goes in now.</param>
/// <param name="unit">The unit of its scale.</param>
public sealed class CupGauge(Quantity<Volume> amount, Unit<Volume> unit)
{
    /// <summary>What it holds: more than that is poured by the scale of the can.</summary>
    public static readonly Quantity<Volume> Holds = Quantity<Volume>.Of(0.3m, Volume.Litre);

    private const int Bottom = 310;
    private const int Span = 220;

    // Ticks so far apart that a glance counts them: 50 mL, or 2 fl oz.
    private static readonly Quantity<Volume> MetricTick = Quantity<Volume>.Of(50, Volume.Millilitre);
    private static readonly Quantity<Volume> OunceTick = Quantity<Volume>.Of(2, Volume.FluidOunce);

    /// <summary>The unit of the cup that hangs where a person counts in a unit.</summary>
    /// <param name="of">The person's own unit.</param>
    public static Unit<Volume> UnitOf(Unit<Volume> of) => of == Volume.Litre ? Volume.Millilitre : Volume.FluidOunce;

    /// <summary>Whether an amount is measured in it.</summary>
    /// <param name="amount">The amount.</param>
    public static bool Measures(Quantity<Volume> amount) => amount > Quantity<Volume>.Zero && amount <= Holds;

    /// <summary>How much, in the unit of the cup.</summary>
    public string Says => $"{amount.PrintDown(unit)}";

    /// <summary>Where the surface lies.</summary>
    public string Surface => Svg.N(At(amount));

    /// <summary>The outline of what is in it.</summary>
    public string Filled => $"M{Svg.N(Edge(amount))} {Surface}H{Svg.N(200 - Edge(amount))}L170 {Bottom}H30Z";

    /// <summary>The scale; the number is left away where it would lie on the words for where to fill to.</summary>
    public IEnumerable<(string Y, string WordY, string? Number)> Ticks()
    {
        var tick = unit == Volume.Millilitre ? MetricTick : OunceTick;
        for (var at = tick; at <= Holds; at += tick)
            yield return (Svg.N(At(at)), Svg.N(At(at) + 6), Math.Abs(At(at) - At(amount)) > 26 ? $"{at.In(unit):0}" : null);
    }

    private static decimal At(Quantity<Volume> v) => Bottom - v / Holds * Span;

    // The cup grows a little wider upwards.
    private static decimal Edge(Quantity<Volume> v) => 30 - v / Holds * 14;
}
