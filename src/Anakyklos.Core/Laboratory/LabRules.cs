using Anakyklos.Core.Balance;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Laboratory;

/// <summary>What stands against one value of a result.</summary>
public enum LabReason
{
    /// <summary>Nothing.</summary>
    None,

    /// <summary>There is too much of it.</summary>
    TooMuch,

    /// <summary>It comes too fast for the distance.</summary>
    TooFast,

    /// <summary>It comes three times as fast as on this vehicle before.</summary>
    FasterThanBefore,

    /// <summary>The oil is thinner than its grade.</summary>
    TooThin,

    /// <summary>The oil is thicker than its grade.</summary>
    TooThick,
}

/// <summary>One value of a result, judged.</summary>
/// <param name="Analyte">What.</param>
/// <param name="Value">How much, in its unit.</param>
/// <param name="PerThousand">How much of a wear metal in 1,000 km on that oil; null for all else, and where the distance is not
/// known.</param>
/// <param name="Before">The same of the vehicle's earlier results: the middle one of the last five; null where there is none.</param>
/// <param name="Reason">What stands against it.</param>
/// <param name="Leads">What follows from it.</param>
public sealed record LabLine(Analyte Analyte, decimal Value, decimal? PerThousand, decimal? Before, LabReason Reason, LookOutcome Leads);

/// <summary>A result, judged.</summary>
/// <param name="Lines">Value by value, in the order of <see cref="Analyte"/>.</param>
/// <param name="Leads">What follows from the worst of them.</param>
public sealed record LabJudgement(IReadOnlyList<LabLine> Lines, LookOutcome Leads);

/// <summary>
/// Judges what a laboratory measured: against limits, by the distance run on that oil, and against the vehicle's own earlier results. The
/// limits are rough ones, for engines and gears in general; what the maker or the laboratory says comes first.
/// </summary>
public static class LabRules
{
    private const int LastResults = 5;
    private const decimal TimesBefore = 3;

    // Watch, and have it looked at: in all, and in 1,000 km. Where metal of a kind is rare, little of it tells.
    private static readonly Dictionary<Analyte, (decimal Watch, decimal Act, decimal? WatchFast, decimal? ActFast)> Limits = new()
    {
        [Analyte.Iron] = (80, 160, 8, 16),
        [Analyte.Copper] = (30, 60, 3, 6),
        [Analyte.Aluminium] = (20, 40, 2, 4),
        [Analyte.Lead] = (20, 40, 2, 4),
        [Analyte.Chromium] = (10, 20, 1, 2),
        [Analyte.Tin] = (10, 20, 1, 2),
        [Analyte.Silicon] = (25, 50, null, null),
        [Analyte.Sodium] = (40, 80, null, null),
        [Analyte.Water] = (0.1m, 0.3m, null, null),
        [Analyte.Fuel] = (2, 5, null, null),
        [Analyte.Soot] = (2, 4, null, null),
    };

    // SAE J300: from and up to, mm²/s at 100 °C. What is out of its grade by a fifth is not that oil any more.
    private static readonly Dictionary<string, (decimal From, decimal To)> Grades = new()
    {
        ["16"] = (6.1m, 8.2m), ["20"] = (6.9m, 9.3m), ["30"] = (9.3m, 12.5m), ["40"] = (12.5m, 16.3m), ["50"] = (16.3m, 21.9m),
        ["60"] = (21.9m, 26.1m),
    };

    private const decimal FarOut = 0.2m;

    /// <summary>The unit of a value, as it is printed.</summary>
    /// <param name="analyte">What.</param>
    public static string Unit(Analyte analyte) => analyte switch
    {
        Analyte.Water or Analyte.Fuel or Analyte.Soot => "%",
        Analyte.Viscosity => "mm²/s",
        _ => "mg/kg",
    };

    /// <summary>Whether it is worn off by running, so that it is judged by the distance.</summary>
    /// <param name="analyte">What.</param>
    public static bool IsWear(Analyte analyte) => Limits.GetValueOrDefault(analyte).WatchFast is not null;

    /// <summary>From how much on it is watched; null for viscosity, which has a range.</summary>
    /// <param name="analyte">What.</param>
    public static decimal? Watch(Analyte analyte) => Limits.TryGetValue(analyte, out var limit) ? limit.Watch : null;

    /// <summary>The highest value that a report can hold.</summary>
    /// <param name="analyte">What.</param>
    public static decimal Most(Analyte analyte) => Unit(analyte) switch { "%" => 100, "mm²/s" => 1_000, _ => 100_000 };

    /// <summary>How much came in 1,000 km.</summary>
    /// <param name="value">How much in all.</param>
    /// <param name="onOil">How far it ran on that oil.</param>
    /// <returns>Null where the distance is not known, or under 100 km: that tells nothing.</returns>
    public static decimal? PerThousand(decimal value, Quantity<Distance>? onOil) =>
        onOil is { } far && far >= FluidUse.Thousand / 10 ? value / (far / FluidUse.Thousand) : null;

    /// <summary>Judges a result.</summary>
    /// <param name="result">What was measured.</param>
    /// <param name="onOil">How far it ran on that oil; null where nobody knows.</param>
    /// <param name="grades">The grades that the model asks for, such as "SAE 5W-30".</param>
    /// <param name="before">The vehicle's earlier results of that fluid, the oldest first.</param>
    public static LabJudgement Judge(OilResult result, Quantity<Distance>? onOil, IReadOnlyList<string> grades,
        IReadOnlyList<ResultBefore> before)
    {
        IReadOnlyList<LabLine> lines = [.. result.Values.OrderBy(v => v.Key).Select(v => Judge(v.Key, v.Value, onOil, grades, before))];
        return new(lines, lines.Select(l => l.Leads).DefaultIfEmpty(LookOutcome.CarryOn).Max());
    }

    private static LabLine Judge(Analyte analyte, decimal value, Quantity<Distance>? onOil, IReadOnlyList<string> grades,
        IReadOnlyList<ResultBefore> before)
    {
        if (analyte == Analyte.Viscosity)
            return Thickness(value, grades);
        var (watch, act, watchFast, actFast) = Limits[analyte];
        var fast = watchFast is null ? null : PerThousand(value, onOil);
        // From the newest back, so that a long history costs nothing.
        var earlier = watchFast is null ? null : Middle([.. Enumerable.Range(1, before.Count).Select(i => before[^i])
            .Select(b => b.Result.Values.TryGetValue(analyte, out var v) ? PerThousand(v, b.OnOil) : null).OfType<decimal>()
            .Take(LastResults)]);
        // What was hardly there before may come many times as fast and still be little.
        var rises = fast is { } now && earlier is { } was && now >= TimesBefore * was && now >= watchFast / 2;
        var (reason, leads) = value >= act ? (LabReason.TooMuch, LookOutcome.Specialist)
            : fast >= actFast ? (LabReason.TooFast, LookOutcome.Specialist)
            : value >= watch ? (LabReason.TooMuch, LookOutcome.Shorten)
            : fast >= watchFast ? (LabReason.TooFast, LookOutcome.Shorten)
            : rises ? (LabReason.FasterThanBefore, LookOutcome.Shorten)
            : (LabReason.None, LookOutcome.CarryOn);
        return new(analyte, value, fast, earlier, reason, leads);
    }

    private static LabLine Thickness(decimal value, IReadOnlyList<string> grades)
    {
        // "SAE 5W-30" and "5W30" are a 30 when hot.
        var ranges = grades.Select(g => g.Split('W', 'w')[^1].Trim(' ', '-')).Where(Grades.ContainsKey).Select(g => Grades[g]).ToList();
        LabLine Line(LabReason reason, LookOutcome leads) => new(Analyte.Viscosity, value, null, null, reason, leads);
        if (ranges.Count == 0 || ranges.Any(r => value >= r.From && value < r.To))
            return Line(LabReason.None, LookOutcome.CarryOn);
        return value < ranges.Min(r => r.From)
            ? Line(LabReason.TooThin, value < ranges.Min(r => r.From) * (1 - FarOut) ? LookOutcome.Specialist : LookOutcome.Shorten)
            : Line(LabReason.TooThick, value > ranges.Max(r => r.To) * (1 + FarOut) ? LookOutcome.Specialist : LookOutcome.Shorten);
    }

    private static decimal? Middle(IReadOnlyList<decimal> values) => values.Count == 0 ? null
        : values.Order().ElementAt(values.Count / 2) is var high && values.Count % 2 == 1 ? high
        : (high + values.Order().ElementAt(values.Count / 2 - 1)) / 2;
}
