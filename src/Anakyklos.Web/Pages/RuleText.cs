using System.Globalization;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Pages;

/// <summary>A rule beside the maker's, as typed.</summary>
public static class RuleText
{
    /// <summary>The interval; null without a problem when both fields are empty, which takes the rule away.</summary>
    public static (ServiceInterval? Interval, string Problem) Read(string? distance, string? months, Unit<Distance> unit)
    {
        Quantity<Distance>? every = null;
        if (!string.IsNullOrWhiteSpace(distance))
        {
            if (Quantity<Distance>.Read(distance, out var problem, unit) is not { } typed)
                return (null, problem);
            if (typed.Value < Quantity<Distance>.Of(100, Distance.Kilometre)
                || typed.Value > Quantity<Distance>.Of(500_000, Distance.Kilometre))
                return (null, $"{typed} is not an interval. Type 100 to 500 000 km.");
            every = typed.Value;
        }
        int? span = null;
        if (!string.IsNullOrWhiteSpace(months))
        {
            if (!int.TryParse(months.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var n) || n is < 1 or > 240)
                return (null, $"“{months.Trim()}” is not a number of months. Type 1 to 240.");
            span = n;
        }
        return (every is null && span is null ? null : new(every, span), "");
    }

    /// <summary>A rule in words.</summary>
    public static string Say(ServiceInterval i, Unit<Distance> unit) =>
        string.Join(" or ", new[] { i.Every is { } km ? LiftWords.Odometer(km, unit) : "", i.Months is { } m ? $"{m} months" : "",
        i.Hours is { } h ? $"{h} h" : "" }.Where(t => t.Length > 0));
}
