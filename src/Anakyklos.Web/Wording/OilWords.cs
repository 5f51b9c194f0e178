using Anakyklos.Core.Oils;

namespace Anakyklos.Web.Wording;

/// <summary>The words for what an oil has and lacks.</summary>
public static class OilWords
{
    /// <summary>Why it fits: the grade and the way of the codes.</summary>
    public static string Fits(OilFit fit) => string.Join(", ",
        new[] { fit.Grade, fit.Way.Count > 1 ? string.Join(", which covers ", fit.Way) : fit.Way.FirstOrDefault()
        ?? "" }.Where(t => t.Length > 0));
}
