using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Web.Drawing;

/// <summary>A vehicle's life as a drawing: readings over time, services on them, the forecast with its band, and what comes next. 1000
/// wide, 300 high.</summary>
public sealed class LifeDrawing
{
    private const double Left = 60, Right = 975, Top = 40, Bottom = 250;

    /// <summary>A point.</summary>
    public sealed record Dot(string X, string Y, string Label, bool Below = false);

    /// <summary>A vertical line with a word.</summary>
    public sealed record Mark(string X, string Label);

    private LifeDrawing() { }

    public string Readings { get; private init; } = "";
    public string Forecast { get; private init; } = "";
    public string Band { get; private init; } = "";
    public IReadOnlyList<Dot> Services { get; private init; } = [];
    public IReadOnlyList<Dot> Next { get; private init; } = [];
    public IReadOnlyList<Mark> Years { get; private init; } = [];
    public IReadOnlyList<Mark> Heights { get; private init; } = [];
    public string TodayX { get; private init; } = "";

    /// <summary>Draws a life; null when there are not two readings.</summary>
    /// <param name="readings">Readings, newest first.</param>
    /// <param name="services">Days and readings of services.</param>
    /// <param name="now">Where it stands.</param>
    /// <param name="use">Its use, or null.</param>
    /// <param name="next">What is due when, soonest first.</param>
    /// <param name="unit">Unit of the heights.</param>
    public static LifeDrawing? Of(IReadOnlyList<UseMark> readings, IReadOnlyList<UseMark> services, UseMark now, DailyUse? use,
        IReadOnlyList<(string Name, DueDay Due)> next, Unit<Distance> unit)
    {
        if (readings.Count < 2)
            return null;
        var rising = readings.OrderBy(r => r.Day).ToList();
        var first = rising[0].Day;
        var horizon = now.Day.AddDays(Math.Clamp(next.Select(n => n.Due.Day.DayNumber - now.Day.DayNumber).Where(d => d > 0).Order().Take(4)
            .DefaultIfEmpty(120).Last() + 30, 90, 400));
        double days = Math.Max(1, horizon.DayNumber - first.DayNumber);
        var ahead = horizon.DayNumber - now.Day.DayNumber;
        var (low, high) = (rising.Min(r => Km(r.Odometer)),
            Math.Max(rising.Max(r => Km(r.Odometer)), Km(now.Odometer) + (use is null ? 0 : Km(use.High) * ahead)));
        double X(DateOnly d) => Left + (Right - Left) * (d.DayNumber - first.DayNumber) / days;
        double Y(double km) => Bottom - (Bottom - Top) * (km - low) / Math.Max(1, high - low);
        string P(DateOnly d, double km) => $"{Svg.N(X(d))} {Svg.N(Y(km))}";
        double At(DateOnly d) => Km(now.Odometer) + (use is null ? 0 : Km(use.Usual) * Math.Max(0, d.DayNumber - now.Day.DayNumber));
        var step = Nice((high - low) / 4 / (double)(1 / Distance.Kilometre.Factor * unit.Factor)) * (double)unit.Factor;
        return new()
        {
            Readings = "M" + string.Join("L", rising.Append(now).Select(r => P(r.Day, Km(r.Odometer)))),
            Forecast = use is null ? "" : $"M{P(now.Day, Km(now.Odometer))}L{P(horizon, At(horizon))}",
            Band = use is null ? ""
                : $"M{P(now.Day, Km(now.Odometer))}L{P(horizon, Km(now.Odometer) + Km(use.High) * ahead)}"
                    + $"L{P(horizon, Km(now.Odometer) + Km(use.Low) * ahead)}Z",
            Services = [.. services.Where(s => s.Day >= first)
                .Select(s => new Dot(Svg.N(X(s.Day)), Svg.N(Y(Math.Max(low, Km(s.Odometer)))), $"{s.Day:d MMM yy}"))],
            Next = [.. next.Where(n => n.Due.Day <= horizon)
                .Select(n => n with { Due = n.Due with { Day = n.Due.Day < now.Day ? now.Day : n.Due.Day } })
                .GroupBy(n => n.Due.Day.DayNumber / 12).Take(4)
                .Select(g => new Dot(Svg.N(X(g.First().Due.Day)), Svg.N(Y(At(g.First().Due.Day))),
                    g.Count() == 1 ? g.First().Name : $"{g.First().Name} and {g.Count() - 1} more", true))],
            Years = [.. Enumerable.Range(first.Year + 1, Math.Max(0, horizon.Year - first.Year))
                .Select(y => new Mark(Svg.N(X(new(y, 1, 1))), $"{y}"))],
            Heights = [.. Enumerable.Range(0, 8).Select(i => Math.Ceiling(low / step) * step + i * step).Where(h => h <= high)
                .Select(h => new Mark(Svg.N(Y(h)), $"{h / (double)unit.Factor / 1000:0.#}"))],
            TodayX = Svg.N(X(now.Day)),
        };
    }

    private static double Km(Quantity<Distance> d) => (double)d.In(Distance.Kilometre);

    private static double Nice(double rough)
    {
        var ten = Math.Pow(10, Math.Floor(Math.Log10(Math.Max(1, rough))));
        return rough / ten < 1.5 ? ten : rough / ten < 3.5 ? 2 * ten : rough / ten < 7.5 ? 5 * ten : 10 * ten;
    }
}
