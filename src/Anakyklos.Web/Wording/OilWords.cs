using Anakyklos.Core.Oils;

namespace Anakyklos.Web.Wording;

/// <summary>The words for what an oil has and lacks.</summary>
public static class OilWords
{
    /// <summary>What a fill asks of an oil: grades, codes, additives.</summary>
    public static string Asks(IEnumerable<string> grades, IReadOnlyCollection<string> codes, IReadOnlyCollection<string> additives) =>
        string.Join(" or ", grades) + (codes.Count > 0 ? $" with {string.Join(" or ", codes)}" : "")
        + (additives.Count > 0 ? $" and {string.Join(", ", additives)}" : "");

    /// <summary>Why it fits: the grade and the way of the codes.</summary>
    public static string Fits(OilFit fit) => string.Join(", ",
        new[] { fit.Grade, fit.Way.Count > 1 ? string.Join(", which covers ", fit.Way) : fit.Way.FirstOrDefault()
        ?? "" }.Where(t => t.Length > 0));
}
