using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Practice.Reach;

namespace Anakyklos.Practice;

/// <summary>What is inspected point by point: pads, hoses, pressures, a filter beside the old one.</summary>
internal static class Measures
{
    internal static IEnumerable<InReach> Points(AtHand at) => at.Sheet.Steps.Values.Where(s => s.Spec is InspectSpec && at.Reaches(s.Place)
        && s.Needs.All(n => !at.Sheet.Access.ContainsKey(n) || at.Vehicle.IsOff(n))).Select(s => new InReach($"inspect:{s.Id}", s.Title, "",
            [.. ((InspectSpec)s.Spec!).Points.Select(p => Point(at, s, p))]));

    private static Choice Point(AtHand at, SheetStep step, InspectPoint point)
    {
        var worn = at.Worn.FirstOrDefault(w => w.Step == step.Id && w.Point == point.Id);
        var low = Words.Low(point.Name);
        return Look($"inspect:{step.Id}/{point.Id}", point.Measure is null ? $"Look: {low}" : $"Measure: {low}",
            $"{(point.Measure is null ? "looks at" : "measures")}: {low}", _ => worn is null
                ? Sight.Well(point.Measure is { } gauge ? $"It passes: {gauge.Passes}." : $"{Words.Capital(point.Answers[0].Says)}.")
                : new($"{Words.Capital(Told(step, worn))}.", worn.What));
    }

    /// <summary>What is measured at a worn point, in words.</summary>
    internal static string Told(SheetStep step, WornPoint worn) =>
        (step.Spec as InspectSpec)?.Points.FirstOrDefault(p => p.Id == worn.Point)?.Measure is { } gauge
            ? $"{string.Join(", ", worn.Reads.Split(' ', StringSplitOptions.RemoveEmptyEntries))} {gauge.In.Symbol}" : worn.Reads;
}
