using System.Globalization;
using Anakyklos.Core.Due;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Web.Pages;

/// <summary>What the dash shows and what trip lies ahead, as typed.</summary>
public sealed partial class IntakeModel
{
    private const int LongestTrip = 60;

    private int? Hours()
    {
        if (string.IsNullOrWhiteSpace(Form.Hours))
            return null;
        if (Whole(Form.Hours, 0, 200_000) is { } hours)
            return hours;
        Wrong("hours", "These are not running hours.", "Type a whole number, or leave it empty.");
        return null;
    }

    private DashReport ReadDash()
    {
        int? life = null;
        if (!string.IsNullOrWhiteSpace(Form.OilLife) && (life = Whole(Form.OilLife.TrimEnd(' ', '%'), 0, 100)) is null)
            Wrong("oilLife", "This is not an oil life.", "Type 0 to 100 percent, or leave it empty.");
        Quantity<Distance>? remaining = null;
        if (!string.IsNullOrWhiteSpace(Form.Remaining)
            && (remaining = Quantity<Distance>.Read(Form.Remaining, out var problem, viewer.DistanceUnit)?.Value) is null)
            Wrong("remaining", problem, "With a minus when it is over.");
        return new((Form.Dash ?? "").Trim(), life, remaining);
    }

    private Trip? ReadTrip()
    {
        if (string.IsNullOrWhiteSpace(Form.TripLength))
            return null;
        if (Quantity<Distance>.Read(Form.TripLength, out var problem, viewer.DistanceUnit) is not { } length
            || length.Value <= Quantity<Distance>.Zero || length.Value > Highest)
        {
            Wrong("tripLength", problem.Length > 0 ? problem : "That is no distance of a trip.",
                "Type it there and back, such as 1 600 km.");
            return null;
        }
        var leaves = clock.Today;
        if (!string.IsNullOrWhiteSpace(Form.TripLeaves)
            && (!DateOnly.TryParseExact(Form.TripLeaves, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out leaves)
            || leaves < clock.Today))
            Wrong("tripLeaves", "That day is past, or is not a day.", "Choose today or a later day.");
        var days = string.IsNullOrWhiteSpace(Form.TripDays) ? Math.Max(1, (int)Math.Ceiling(length.Value / DailyUse.MostADay * 5))
            : Whole(Form.TripDays, 0, LongestTrip);
        if (days is null)
            Wrong("tripDays", "That is not a number of days.", $"Type 0 to {LongestTrip}, or leave it empty.");
        return days is { } d ? new(length.Value, leaves < clock.Today ? clock.Today : leaves, d) : null;
    }

    private static int? Whole(string text, int least, int most) =>
        int.TryParse(text.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var n) && n >= least && n <= most ? n : null;
}
