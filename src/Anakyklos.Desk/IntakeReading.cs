using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;

namespace Anakyklos.Desk;

/// <summary>Reads the fields of an intake; what cannot be read is told by its field.</summary>
/// <param name="form">What was typed.</param>
/// <param name="unit">The unit of a bare number.</param>
/// <param name="today">The day in the workshop.</param>
internal sealed class IntakeReading(IntakeForm form, Unit<Distance> unit, DateOnly today)
{
    private const int LongestTrip = 60;

    private static readonly Quantity<Distance> Highest = Quantity<Distance>.Of(3_000_000, Distance.Kilometre);

    private (bool IsRead, int? Hours) _hours;

    internal List<Refusal> Refusals { get; } = [];

    internal void Wrong(string field, string what, string @do) => Refusals.Add(new(what, @do, Field: field));

    /// <summary>The reading, where it is one; nothing is said about one that is not.</summary>
    internal Quantity<Distance>? OdometerSoFar() =>
        Quantity<Distance>.Read(form.Odometer, out _, unit)?.Value is { } km && IsReading(km) ? km : null;

    /// <summary>Which fields hold what a scan tool read: whatever was filled in, what counts is that it is the same.</summary>
    /// <param name="report">What it read.</param>
    internal IReadOnlyList<string> ReadOut(VehicleReport report)
    {
        bool Same(string? typed, Typed<Distance>? read) => read is { } r
            && Quantity<Distance>.Read(typed, out _, unit)?.Value == r.Value;
        var fields = new List<string>();
        if (Same(form.Odometer, report.Odometer))
            fields.Add("odometer");
        if (report.Code.Length > 0 && form.Dash?.Trim() == report.Code)
            fields.Add("dash");
        if (Same(form.Remaining, report.Left))
            fields.Add("remaining");
        if (report.OilLife is { } life && form.OilLife?.TrimEnd(' ', '%') == $"{life}")
            fields.Add("oilLife");
        if (report.Hours is { } hours && form.Hours?.Trim() == $"{hours}")
            fields.Add("hours");
        return fields;
    }

    /// <summary>Running hours, or null; what is wrong with them is told once.</summary>
    internal int? Hours()
    {
        if (_hours.IsRead)
            return _hours.Hours;
        var hours = string.IsNullOrWhiteSpace(form.Hours) ? null : Whole(form.Hours, 0, 200_000);
        if (hours is null && !string.IsNullOrWhiteSpace(form.Hours))
            Wrong("hours", "These are not running hours.", "Type a whole number, or leave it empty.");
        _hours = (true, hours);
        return hours;
    }

    internal DashReport Dash()
    {
        int? life = null;
        if (!string.IsNullOrWhiteSpace(form.OilLife) && (life = Whole(form.OilLife.TrimEnd(' ', '%'), 0, 100)) is null)
            Wrong("oilLife", "This is not an oil life.", "Type 0 to 100 percent, or leave it empty.");
        Quantity<Distance>? remaining = null;
        if (!string.IsNullOrWhiteSpace(form.Remaining)
            && (remaining = Quantity<Distance>.Read(form.Remaining, out var problem, unit)?.Value) is null)
            Wrong("remaining", problem, "With a minus when it is over.");
        return new((form.Dash ?? "").Trim(), life, remaining);
    }

    internal Trip? Trip()
    {
        if (string.IsNullOrWhiteSpace(form.TripLength))
            return null;
        if (Quantity<Distance>.Read(form.TripLength, out var problem, unit) is not { } length
            || length.Value <= Quantity<Distance>.Zero || length.Value > Highest)
        {
            Wrong("tripLength", problem.Length > 0 ? problem : "That is no distance of a trip.",
                "Type it there and back, such as 1 600 km.");
            return null;
        }
        var leaves = today;
        if (!string.IsNullOrWhiteSpace(form.TripLeaves)
            && (!DateOnly.TryParseExact(form.TripLeaves, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out leaves)
            || leaves < today))
            Wrong("tripLeaves", "That day is past, or is not a day.", "Choose today or a later day.");
        var days = string.IsNullOrWhiteSpace(form.TripDays) ? Math.Max(1, (int)Math.Ceiling(length.Value / DailyUse.MostADay * 5))
            : Whole(form.TripDays, 0, LongestTrip);
        if (days is null)
            Wrong("tripDays", "That is not a number of days.", $"Type 0 to {LongestTrip}, or leave it empty.");
        return days is { } d ? new(length.Value, leaves < today ? today : leaves, d) : null;
    }

    /// <summary>The odometer as the card is opened with it: less than last time needs a reason.</summary>
    /// <param name="last">The last reading, or null.</param>
    /// <param name="lastOn">The day of that, in the workshop.</param>
    /// <param name="reason">Why it is less, trimmed.</param>
    /// <param name="most">The highest that is believed.</param>
    /// <returns>The reading in the unit of the dash, and whether the reason is asked for.</returns>
    internal (Typed<Distance>? Reading, bool AskReason) Odometer(OdometerReading? last, DateTimeOffset lastOn, string reason,
        Quantity<Distance> most)
    {
        if (Quantity<Distance>.Read(form.Odometer, out var problem, unit) is not { } typed)
        {
            Wrong("odometer", problem, "");
            return (null, false);
        }
        if (OdometerCheck.IsTwofold(form.Odometer!))
        {
            var parts = form.Odometer!.Trim().Split('.', ',');
            Wrong("odometer", $"“{form.Odometer.Trim()}” can be read in two ways.", $"Type {parts[0]} {parts[1]}, or {parts[0]} alone.");
            return (null, false);
        }
        if (!IsReading(typed.Value))
        {
            Wrong("odometer", $"{typed} cannot be an odometer reading.", "Type what the dash shows.");
            return (typed, reason.Length > 0);
        }
        if (last is null || typed.Value >= last.Reading || reason.Length is > 0 and <= Decision.LongestText)
            return (typed, reason.Length > 0);
        Wrong("odometer", $"{typed} is less than the last reading, {OdometerText.Of(last.Reading, typed.Unit)} on {lastOn:d MMMM yyyy}.",
            $"{Or(typed, last.Reading, most)}Look again, or say why below.");
        if (reason.Length > 0)
            Wrong("reason", $"The reason is {reason.Length} characters long.", $"Keep it to {Decision.LongestText}.");
        return (typed, true);
    }

    /// <summary>Further than is believed, it is taken once somebody has looked again and says that the dash shows it.</summary>
    /// <param name="typed">The reading.</param>
    /// <param name="last">The last one.</param>
    /// <param name="lastOn">Its day.</param>
    /// <param name="most">The highest that is believed.</param>
    /// <returns>The reading that is asked about; null where nothing is.</returns>
    internal Typed<Distance>? AskedAbout(Typed<Distance> typed, Quantity<Distance> last, DateTimeOffset lastOn, Quantity<Distance> most)
    {
        if (typed.Value <= most)
            return null;
        if (!IsMeant(typed.Value))
            Wrong("odometer", $"{OdometerText.Of(typed.Value, typed.Unit)} would be "
                + $"{OdometerText.Of(typed.Value - last, typed.Unit)} since {lastOn:d MMMM yyyy}.",
                $"{Or(typed, last, most)}Look again; if the dash shows it, say so below.");
        return typed;
    }

    /// <summary>Whether somebody looked again and says that the dash shows just that.</summary>
    internal bool IsMeant(Quantity<Distance> reading) => Quantity<Distance>.Read(form.Meant, out _, unit)?.Value == reading;

    private static string Or(Typed<Distance> typed, Quantity<Distance> last, Quantity<Distance> most) =>
        OdometerCheck.Meant(typed, last, most) is { } meant ? $"{OdometerText.Of(meant.Value, meant.Unit)} would fit. " : "";

    /// <summary>A vehicle that is not on the list yet; null when something of it is wrong.</summary>
    /// <param name="isKnown">Whether a plate is on the list already.</param>
    internal Vehicle? Newcomer(Func<string, bool> isKnown)
    {
        var (plate, before) = ((form.NewPlate ?? "").Trim().ToUpperInvariant(), Refusals.Count);
        if (plate.Length is 0 or > 12 || !plate.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or ' '))
            Wrong("newPlate", "A plate has up to 12 letters, digits and dashes.", "Type it as it is on the vehicle.");
        else if (isKnown(plate))
            Wrong("newPlate", $"{plate} is on the list already.", "Choose it above.");
        if (Whole(form.Year ?? "", 1950, today.Year + 1) is not { } year)
        {
            Wrong("year", "That is not a model year.", "Type four digits, such as 2019.");
            year = 0;
        }
        if ((form.Task ?? "").Length > 60)
            Wrong("task", "That is too long.", "Keep it to 60 characters.");
        return Refusals.Count > before ? null : new(plate, form.Sheet ?? "", (form.Task ?? "").Trim(), year,
            form.Harsh ? Use.Harsh : Use.Normal, null, form.Unknown);
    }

    private static bool IsReading(Quantity<Distance> km) => km >= Quantity<Distance>.Zero && km <= Highest;

    private static int? Whole(string text, int least, int most) =>
        int.TryParse(text.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var n) && n >= least && n <= most ? n : null;
}
