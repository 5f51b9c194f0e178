using Anakyklos.Core.Oils;

namespace Anakyklos.Web.Pages;

/// <summary>The words for what an oil has and lacks.</summary>
public static class OilWords
{
    /// <summary>What it lacks, one after the other; empty when it fits.</summary>
    public static string Lacks(OilFit fit) => string.Join(", ", fit.Lacks.Select(Lack));

    /// <summary>Why it fits: the grade and the way of the codes.</summary>
    public static string Fits(OilFit fit) => string.Join(", ", new[] { fit.Grade, fit.Way.Count > 1 ? string.Join(", which covers ", fit.Way) : fit.Way.FirstOrDefault() ?? "" }.Where(t => t.Length > 0));

    private static string Lack(Shortfall s) => s.Of switch
    {
        Core.Oils.Lack.Grade => $"the grade {s.Wanted}{Has(s)}",
        Core.Oils.Lack.TooColdForGrade => $"a grade for {s.Wanted} ({s.Has})",
        Core.Oils.Lack.TooHotForGrade => $"a grade for {s.Wanted} ({s.Has})",
        Core.Oils.Lack.Approval => $"the approval {s.Wanted}{Has(s)}",
        Core.Oils.Lack.Additive => $"the additive {s.Wanted}",
        _ => "low ash, and the particulate filter would block",
    };

    private static string Has(Shortfall s) => s.Has.Length > 0 ? $" (it has {s.Has})" : "";
}
