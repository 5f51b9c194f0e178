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

    private static readonly Quantity<Distance> ShortestTrip = Quantity<Distance>.Of(1, Distance.Kilometre);

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
        else if (remaining > Highest || remaining < Quantity<Distance>.Zero - Highest)
            Wrong("remaining", "No service is so far away.", "Type what the dash shows, with a minus when it is over.");
        return new((form.Dash ?? "").Trim(), life, remaining);
    }

    internal Trip? Trip()
    {
        if (string.IsNullOrWhiteSpace(form.TripLength))
            return null;
        if (Quantity<Distance>.Read(form.TripLength, out var problem, unit) is not { } length
            || length.Value < ShortestTrip || length.Value > Highest)
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

    /// <summary>The odometer as the card is opened with it: less than last time must be explained.</summary>
    /// <param name="last">The last reading that is believed, on the odometer of now; or null.</param>
    /// <param name="most">The highest that is believed.</param>
    /// <returns>The reading in the unit of the dash, and whether it is asked why it is less.</returns>
    internal (Typed<Distance>? Reading, bool AskWhy) Odometer(UseMark? last, Quantity<Distance> most)
    {
        var reason = (form.Reason ?? "").Trim();
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
        if (last is not { } before || typed.Value >= before.Odometer)
            return (typed, reason.Length > 0);
        if (form.Lower is not ("exchanged" or "wrong"))
            Wrong("odometer", $"{typed} is less than the last reading, {OdometerText.Of(before.Odometer, typed.Unit)} on "
                + $"{before.Day:d MMMM yyyy}.", $"{Or(typed, before.Odometer, most)}Look again, or say below how that is.");
        if (reason.Length is 0 or > Decision.LongestText)
            Wrong("reason", reason.Length == 0 ? "The reason is missing." : $"The reason is {reason.Length} characters long.",
                reason.Length == 0 ? "It stays with the vehicle." : $"Keep it to {Decision.LongestText}.");
        return (typed, true);
    }

    /// <summary>The exchange of the odometer that somebody tells of; null where nobody does, or what is told cannot be.</summary>
    /// <param name="history">What was read before.</param>
    /// <param name="at">When it is read now.</param>
    /// <param name="tell">Whether what is wrong with it is to be told.</param>
    internal ExchangedClock? Exchanged(OdometerHistory history, DateTimeOffset at, bool tell)
    {
        if (form.Lower != "exchanged" || OdometerSoFar() is not { } now || history.LastMark is not { } last || now >= last.Odometer)
            return null;
        var old = Showed(form.OldShowed, "oldShowed", tell);
        var began = Showed(form.NewShowed, "newShowed", tell);
        if (old < last.Odometer && tell)
            Wrong("oldShowed", $"The old one showed {OdometerText.Of(last.Odometer, unit)} on {last.Day:d MMMM yyyy}.",
                "It cannot have shown less at its end. Leave it empty where nobody knows.");
        if (began > now && tell)
            Wrong("newShowed", $"It shows {OdometerText.Of(now, unit)} now.", "It cannot have shown more at first.");
        return old < last.Odometer || began > now ? null
            : ExchangedClock.Of(at, now, old, began, last.Odometer, history.Use, today.DayNumber - last.Day.DayNumber);
    }

    /// <summary>The last reading, where somebody says that it was wrong; null where nobody does, or what is told cannot be.</summary>
    /// <param name="history">What was read before.</param>
    /// <param name="tell">Whether what is wrong with it is to be told.</param>
    internal (OdometerReading Of, Quantity<Distance> Now)? PutRight(OdometerHistory history, bool tell)
    {
        if (form.Lower != "wrong" || OdometerSoFar() is not { } now || history is not { Last: { } last, LastMark: { } mark }
            || now >= mark.Odometer)
            return null;
        var right = Showed(form.Right, "right", tell);
        var least = history.Between(mark.Day, last).Least;
        if (tell && string.IsNullOrWhiteSpace(form.Right))
            Wrong("right", "What it was is missing.", $"Type what the dash showed on {mark.Day:d MMMM yyyy}, as near as is known.");
        if (tell && least > now)
            Wrong("odometer", $"More than one reading is higher than {OdometerText.Of(now, unit)}.",
                "Put them right on the vehicle's page, or look again.");
        else if (tell && (right < least || right > now))
            Wrong("right", $"It was between {OdometerText.Of(least ?? default, unit)} and {OdometerText.Of(now, unit)}.",
                "By the readings before and after it.");
        return right is { } it && it <= now && !(it < least) ? (last, it) : null;
    }

    private Quantity<Distance>? Showed(string? text, string field, bool tell)
    {
        if (string.IsNullOrWhiteSpace(text))
            return null;
        if (Quantity<Distance>.Read(text, out var problem, unit)?.Value is { } km && IsReading(km) && !OdometerCheck.IsTwofold(text))
            return km;
        if (tell)
            Wrong(field, problem.Length > 0 ? problem : $"“{text.Trim()}” cannot be an odometer reading.", "Type what it showed.");
        return null;
    }

    /// <summary>Further than is believed, it is taken once somebody has looked again and says that the dash shows it.</summary>
    /// <param name="typed">The reading.</param>
    /// <param name="last">The last one.</param>
    /// <param name="lastOn">Its day.</param>
    /// <param name="most">The highest that is believed.</param>
    /// <returns>The reading that is asked about; null where nothing is.</returns>
    internal Typed<Distance>? AskedAbout(Typed<Distance> typed, Quantity<Distance> last, DateOnly lastOn, Quantity<Distance> most)
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
        if (!Plates.IsOne(plate))
            Wrong("newPlate", Plates.Wrong, "Type it as it is on the vehicle.");
        else if (isKnown(plate))
            Wrong("newPlate", $"{plate} is known here already.", "Choose it above; if it is not there, it was said to be gone.");
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
