using Anakyklos.Core.Balance;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Web.Drawing;

/// <summary>What a vehicle uses of a fluid, a column a stretch between two services, against the limit; and the balance of the last
/// stretch.</summary>
public sealed class UseDrawing
{
    private const int Floor = 150;
    private const int Height = 120;
    private const int Wide = 620;
    private const int Left = 70;
    private const int Most = 12;
    private const int BarWide = 300;

    /// <summary>A column.</summary>
    /// <param name="X">Its left edge.</param>
    /// <param name="Y">Its top.</param>
    /// <param name="Width">How wide.</param>
    /// <param name="Height">How high.</param>
    /// <param name="Middle">Its middle.</param>
    /// <param name="Says">What it stands for.</param>
    /// <param name="Under">What stands under it.</param>
    /// <param name="IsMuch">Whether it is over the limit.</param>
    public sealed record Column(string X, string Y, string Width, string Height, string Middle, string Says, string Under, bool IsMuch);

    /// <summary>A bar of the balance.</summary>
    /// <param name="Name">What it is.</param>
    /// <param name="Width">How long it is drawn.</param>
    /// <param name="Says">How much.</param>
    public sealed record Bar(string Name, string Width, string Says);

    /// <summary>The columns, the oldest first; no more than the last twelve.</summary>
    public required IReadOnlyList<Column> Columns { get; init; }

    /// <summary>Where the limit lies; null where it is far above all of them.</summary>
    public required string? LimitY { get; init; }

    /// <summary>The limit in words.</summary>
    public required string Limit { get; init; }

    /// <summary>The balance of the last stretch.</summary>
    public required IReadOnlyList<Bar> Balance { get; init; }

    /// <summary>Draws the use of a fluid.</summary>
    /// <param name="uses">The oldest first, at least one.</param>
    /// <param name="last">The service at the end of the last of them.</param>
    /// <param name="book">What the book gives for a filling.</param>
    /// <param name="limit">The limit in 1,000 km.</param>
    /// <param name="volume">The viewer's unit.</param>
    /// <param name="distance">The viewer's unit.</param>
    public static UseDrawing Of(IReadOnlyList<FluidUse> uses, FluidService last, Quantity<Volume> book, Quantity<Volume> limit,
        Unit<Volume> volume, Unit<Distance> distance)
    {
        var shown = uses.Where(u => u.PerThousand is not null).TakeLast(Most).ToList();
        var most = shown.Select(u => u.PerThousand!.Value).DefaultIfEmpty(limit).Max();
        // A limit that would press all columns flat is told, not drawn.
        var drawn = limit <= most * 3;
        var top = drawn && limit > most ? limit : most;
        var (each, scale) = ((decimal)Wide / Math.Max(3, shown.Count), Height / Math.Max(0.001m, top.In(Volume.Litre)));
        decimal Up(Quantity<Volume> v) => Math.Max(0, v.In(Volume.Litre)) * scale;
        (string Name, Quantity<Volume>? Amount)[] balance = [("book", book),
            ("was in", uses[^1].Stood),
            ("topped up since", uses[^1].ToppedUp > Quantity<Volume>.Zero ? uses[^1].ToppedUp : null),
            (uses[^1].ByGauge ? "found" : "came out", uses[^1].Had), ("went in", last.In)];
        var longest = balance.Max(b => b.Amount?.In(Volume.Litre) ?? 0);
        return new()
        {
            Columns = [.. shown.Select((u, i) => new Column(Svg.N(Left + i * each + each * 0.15m), Svg.N(Floor - Up(u.PerThousand!.Value)),
                Svg.N(each * 0.7m), Svg.N(Up(u.PerThousand!.Value)), Svg.N(Left + i * each + each / 2),
                $"{u.PerThousand!.Value.Print(volume)}", OdometerText.Of(u.Odometer, distance), u.PerThousand > limit))],
            LimitY = drawn ? Svg.N(Floor - Up(limit)) : null,
            Limit = $"{limit.Print(volume)}",
            Balance = [.. balance.Where(b => b.Amount is not null).Select(b => new Bar(b.Name,
                Svg.N(b.Amount!.Value.In(Volume.Litre) / longest * BarWide), $"{b.Amount!.Value.Print(volume)}"))],
        };
    }
}
