using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Web.Coaches.Filling;

/// <summary>The readings that can be said with one press.</summary>
public static class GaugeReadings
{
    /// <summary>As a place between two marks, and its word.</summary>
    public static IReadOnlyList<(string Value, string Word)> BetweenMarks { get; } =
        [("-1/4", "below"), ("0", "bottom"), ("1/4", "1/4"), ("1/2", "1/2"), ("3/4", "3/4"), ("1", "top"), ("5/4", "above")];

    /// <summary>As depths on a rod, from a quarter below its lower mark to a quarter above the upper one.</summary>
    /// <param name="rod">Its marks.</param>
    /// <returns>Seven depths in whole millimetres, each once, the deepest first.</returns>
    public static IEnumerable<string> Of(RodMarks rod) => new[] { -0.25m, 0, 0.25m, 0.5m, 0.75m, 1, 1.25m }
        .Select(f => Math.Round(rod.DepthOf(new(f)).In(Length.Millimetre), MidpointRounding.AwayFromZero)).Distinct()
        .Select(mm => $"{mm} {Length.Millimetre.Symbol}");
}
