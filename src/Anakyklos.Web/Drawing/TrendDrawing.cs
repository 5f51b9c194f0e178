using Anakyklos.Core.Laboratory;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Quantities;
using Anakyklos.Desk;

namespace Anakyklos.Web.Drawing;

/// <summary>One value of a laboratory's report as it is drawn: the reports before it beside it, a column each, and from where on it is
/// watched.</summary>
public sealed class TrendDrawing
{
    private const int Floor = 70;
    private const int Height = 56;
    private const int Wide = 220;
    private const int Most = 8;

    /// <summary>A column.</summary>
    /// <param name="X">Its left edge.</param>
    /// <param name="Y">Its top.</param>
    /// <param name="Width">How wide.</param>
    /// <param name="Height">How high.</param>
    /// <param name="Is">Its class: over the limit, now, or before.</param>
    /// <param name="Says">What it stands for.</param>
    public sealed record Column(string X, string Y, string Width, string Height, string Is, string Says);

    /// <summary>What is measured.</summary>
    public required string Name { get; init; }

    /// <summary>How much, in its unit.</summary>
    public required string Value { get; init; }

    /// <summary>How fast it comes, in words; empty where that is not known.</summary>
    public required string Fast { get; init; }

    /// <summary>What stands against it; empty for nothing.</summary>
    public required string Why { get; init; }

    /// <summary>How bad that is.</summary>
    public required LookOutcome Leads { get; init; }

    /// <summary>The columns, the oldest first.</summary>
    public required IReadOnlyList<Column> Columns { get; init; }

    /// <summary>Where the limit lies; null where there is none.</summary>
    public required string? LimitY { get; init; }

    /// <summary>Draws the values of an answer.</summary>
    /// <param name="judgement">The answer, judged.</param>
    /// <param name="story">All answers up to it, the oldest first.</param>
    public static IReadOnlyList<TrendDrawing> Of(LabJudgement judgement, IReadOnlyList<ResultBefore> story) =>
        [.. judgement.Lines.Select(l => Of(l, [.. story.TakeLast(Most)]))];

    private static TrendDrawing Of(LabLine line, IReadOnlyList<ResultBefore> story)
    {
        var values = story.Select(s => (Value: s.Result.Values.TryGetValue(line.Analyte, out var v) ? v : (decimal?)null, s.Result.Day))
            .ToList();
        var (most, limit) = (values.Max(v => v.Value) ?? 0, LabRules.Watch(line.Analyte));
        // What lies far below its limit is drawn as little as it is.
        var top = Math.Max(limit ?? 0, most > 0 ? most : 1);
        var each = (decimal)Wide / Math.Max(4, values.Count);
        decimal Up(decimal value) => value / top * Height;
        return new()
        {
            Name = $"{line.Analyte}",
            Value = $"{line.Value:0.##} {LabRules.Unit(line.Analyte)}",
            // Where that is what stands against it, it is told there.
            Fast = line is { PerThousand: { } fast, Reason: LabReason.None or LabReason.TooMuch } ? $"{fast:0.#} in 1000 km" : "",
            Why = LabWords.Why(line),
            Leads = line.Leads,
            Columns = [.. values.Select((v, i) => (v, i)).Where(x => x.v.Value is not null).Select(x => new Column(Svg.N(x.i * each + 3),
                Svg.N(Floor - Up(x.v.Value!.Value)), Svg.N(each - 6), Svg.N(Up(x.v.Value!.Value)),
                x.v.Value >= limit ? "use-much" : x.i == values.Count - 1 ? "trend-now" : "use-column",
                $"{x.v.Value:0.##} on {x.v.Day:d MMM yyyy}"))],
            LimitY = limit is { } watched ? Svg.N(Floor - Up(watched)) : null,
        };
    }
}
