using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Stores;

namespace Anakyklos.Web.Drawing;

/// <summary>A container as it is drawn: its shape, what is in it on its own scale, and where to stop pouring.</summary>
/// <param name="kind">What it is.</param>
/// <param name="size">What it holds when full.</param>
/// <param name="left">What is in it.</param>
/// <param name="takes">What goes in now; zero for nothing.</param>
/// <param name="unit">The unit of its scale.</param>
public sealed class CanGauge(ContainerKind kind, Quantity<Volume> size, Quantity<Volume> left, Quantity<Volume> takes, Unit<Volume> unit)
{
    private const int Bottom = 330;
    private const int Span = 230;
    private const int WordHeight = 24;
    private const int MostTicks = 10;

    private static readonly decimal[] Steps = [0.1m, 0.2m, 0.5m, 1, 2, 4, 5, 10, 20, 50, 100];

    /// <summary>The container of a share.</summary>
    public static CanGauge Of(ContainerShare share) => new(share.Container.Kind, share.Container.Size, share.Container.Left, share.Takes,
        share.Container.Scale);

    /// <summary>What stands there where the stores know of no container: all that was laid out, as if it were in one can.</summary>
    public static CanGauge InHand(Quantity<Volume> left, Quantity<Volume> takes, Unit<Volume> unit) =>
        new(ContainerKind.Can, Quantity<Volume>.Of(Math.Max(5m, Math.Ceiling(left.In(unit))), unit), left, takes, unit);

    public Quantity<Volume> Left => left;

    public Quantity<Volume> Stop => left - takes;

    /// <summary>Whether somebody pours down to a line; not where it is emptied, nor out of a drum, which shows none.</summary>
    public bool StopsAtALine => takes > Quantity<Volume>.Zero && takes < left && kind != ContainerKind.Drum;

    /// <summary>The words beside it.</summary>
    public (string Do, string Value) Says => StopsAtALine ? ("stop at", $"{Stop.Print(unit)}")
        : takes < left ? ("draw", $"{takes.PrintDown(unit)}") : ("all of it", $"{left.Print(unit)}");

    /// <summary>In one sentence.</summary>
    public string Sentence => $"{left.Print(unit)} in it, {Says.Do} {Says.Value}";

    /// <summary>The outline.</summary>
    public string Outline => kind switch
    {
        ContainerKind.Bottle => "M52 126q0-20 26-32V44h44v50q26 12 26 32V320q0 12-12 12H64q-12 0-12-12ZM74 44V30h52v14",
        ContainerKind.Drum => "M20 76q0-14 14-14H164q14 0 14 14V318q0 14-14 14H34q-14 0-14-14Z"
            + "M20 150q79 14 158 0M20 240q79 14 158 0M92 62V50h30v12",
        _ => "M20 76q0-14 14-14h110l36 30v226q0 14-14 14H34q-14 0-14-14ZM55 62V30h42v32",
    };

    public int LeftEdge => kind == ContainerKind.Bottle ? 53 : 22;

    public int RightEdge => kind == ContainerKind.Bottle ? 147 : 178;

    public string Surface => Svg.N(At(left));

    public string Height => Svg.N(Bottom - At(left));

    public string StopsAt => Svg.N(At(Stop));

    /// <summary>What goes in now: from the surface down to the line.</summary>
    public string Goes => $"M{LeftEdge} {Surface}H{RightEdge}V{StopsAt}H{LeftEdge}Z";

    /// <summary>The line of a word, so far above or below where to stop; never out of the drawing.</summary>
    public string BesideStop(int below) => Svg.N(Math.Clamp(At(Stop), 60, 300) + below);

    /// <summary>The scale; the number is left away where it would lie on the words for where to stop.</summary>
    public IEnumerable<(string Y, string WordY, string? Number)> Ticks()
    {
        var step = Steps.FirstOrDefault(s => size.In(unit) / s <= MostTicks, Steps[^1]);
        for (var n = step; n < size.In(unit); n += step)
        {
            var y = At(Quantity<Volume>.Of(n, unit));
            yield return (Svg.N(y), Svg.N(y + 6), Math.Abs(y - Math.Clamp(At(Stop), 60, 300)) > WordHeight ? $"{n:0.#}" : null);
        }
    }

    // A bottle is full below its shoulders.
    private decimal At(Quantity<Volume> amount) =>
        Bottom - Math.Clamp(amount / size, 0, 1) * (kind == ContainerKind.Bottle ? Span - 20 : Span);
}
