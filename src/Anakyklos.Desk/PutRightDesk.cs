using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>What was typed to change what is known of a vehicle.</summary>
public sealed class VehicleForm
{
    /// <summary>Its plate.</summary>
    public string? Plate { get; set; }

    /// <summary>Its model, a sheet id.</summary>
    public string? Sheet { get; set; }

    /// <summary>What it does.</summary>
    public string? Task { get; set; }

    /// <summary>Its model year.</summary>
    public string? Year { get; set; }

    /// <summary>Whether it is used hard.</summary>
    public bool Harsh { get; set; }

    /// <summary>Whether nobody knows its history.</summary>
    public bool Unknown { get; set; }

    /// <summary>The day it was delivered; empty for the first of its model year.</summary>
    public string? Delivered { get; set; }

    /// <summary>The last day of its warranty; empty for none.</summary>
    public string? Warranty { get; set; }

    /// <summary>Why it is changed.</summary>
    public string? Reason { get; set; }
}

/// <summary>What was typed of a service that was done elsewhere.</summary>
public sealed class ElsewhereForm
{
    /// <summary>Ids of the jobs.</summary>
    public string[]? Job { get; set; }

    /// <summary>The day.</summary>
    public string? Day { get; set; }

    /// <summary>What the odometer showed.</summary>
    public string? Odometer { get; set; }

    /// <summary>By whom and where.</summary>
    public string? Where { get; set; }
}

/// <summary>What is known of a vehicle is put right, with a reason that stays.</summary>
public sealed class PutRightDesk(VehicleStore vehicles, VehicleTrail trail, SheetStore sheets, CardStore cards, WorkshopClock clock)
{
    /// <summary>So long may a task be.</summary>
    public const int LongestTask = 60;

    private static readonly Quantity<Distance> Highest = Quantity<Distance>.Of(3_000_000, Distance.Kilometre);

    /// <summary>Puts one reading of a vehicle right.</summary>
    /// <param name="plate">The vehicle.</param>
    /// <param name="of">The moment by which the reading is known.</param>
    /// <param name="text">What it was, as typed.</param>
    /// <param name="reason">Why, as typed.</param>
    /// <param name="unit">The unit of a bare number.</param>
    /// <param name="by">Who says so.</param>
    /// <returns>What is wrong with it; empty when it was done.</returns>
    public async Task<IReadOnlyList<Refusal>> Reading(string plate, string? of, string? text, string? reason, Unit<Distance> unit,
        Person by)
    {
        var history = vehicles.History(plate, clock.Day);
        if (history.Readings.FirstOrDefault(r => Name(r) == of) is not { } reading)
            return [new("This reading is not there any more.", "Load the page again.")];
        var wrong = new List<Refusal>();
        Reason(reason, wrong);
        var typed = Typed(text, unit, wrong);
        if (wrong.Count > 0)
            return wrong;
        var now = typed!.Value.Value;
        if (now == reading.Reading)
            return [new("This is what is noted already.", Field: "odometer")];
        // Beside those of the other odometer it cannot be held as it was read: both are held on the scale of the one of now.
        var (least, most) = history.Between(clock.Day(reading.At), reading);
        var there = history.OnThisClock(now, reading.At);
        if (there < least || there > most)
            return [Outside(least, most, unit, history.OnThisClock(default, reading.At))];
        return await vehicles.PutRight(plate, new(reading.At, reading.Reading, now, reason!.Trim()), by.Id, clock.Now) ? []
            : [new("Somebody else has put it right meanwhile.", "Look at what it says now.")];
    }

    /// <summary>The name by which a reading is known on a page.</summary>
    public static string Name(OdometerReading reading) => reading.At.ToUniversalTime().ToString("O", CultureInfo.InvariantCulture);

    /// <summary>A vehicle is not looked after here any more, or is here again. What was done to it stays.</summary>
    /// <param name="plate">Its plate.</param>
    /// <param name="gone">Whether it goes.</param>
    /// <param name="reason">Why.</param>
    /// <param name="by">Who says so.</param>
    /// <returns>What is wrong, by the field reason, or by none where a card is open.</returns>
    public async Task<IReadOnlyList<Refusal>> Go(string plate, bool gone, string? reason, Person by)
    {
        var why = (reason ?? "").Trim();
        if (why.Length is 0 or > Decision.LongestText)
            return [new("Say why, in a few words.", $"Up to {Decision.LongestText} characters.", Field: "reason")];
        return await vehicles.Go(plate, gone, why, by.Id, clock.Now) ? []
            : cards.OfVehicle(plate).FirstOrDefault(c => c.IsOpen) is { } open
                ? [new($"Card {open.Id} is still open.", "Finish and sign it, or make it void, first.")]
                : [new("It is so already.", "Load the page again.")];
    }

    /// <summary>Changes what is known of a vehicle.</summary>
    /// <param name="plate">The plate that it has.</param>
    /// <param name="form">What was typed.</param>
    /// <param name="by">Who says so.</param>
    /// <returns>What is wrong, or the plate that it has then.</returns>
    public async Task<(IReadOnlyList<Refusal> Wrong, string Plate)> Change(string plate, VehicleForm form, Person by)
    {
        var wrong = new List<Refusal>();
        if (vehicles.Find(plate) is not { } was)
            return ([new("This vehicle is not on the list.")], plate);
        Reason(form.Reason, wrong);
        var now = Read(was, form, wrong);
        if (cards.OfVehicle(plate).FirstOrDefault(c => c.IsOpen) is { } open)
            wrong.Add(new($"Card {open.Id} is open and rests on what is known now.", "Sign it or make it void first."));
        if (wrong.Count > 0)
            return (wrong, plate);
        var changed = Between(was, now, form.Reason!.Trim());
        if (changed.Count == 0)
            return ([new("Nothing is different from what is known already.")], plate);
        return await trail.Change(plate, now, changed, by.Id, clock.Now) ? ([], now.Plate)
            : ([new($"{now.Plate} is the plate of another vehicle.", "Look there.", Field: "plate")], plate);
    }

    /// <summary>Notes a service that was done elsewhere.</summary>
    /// <param name="plate">The vehicle.</param>
    /// <param name="form">What was typed.</param>
    /// <param name="unit">The unit of a bare number.</param>
    /// <param name="by">Who says so.</param>
    /// <returns>What is wrong with it; empty when it was done.</returns>
    public async Task<IReadOnlyList<Refusal>> Elsewhere(string plate, ElsewhereForm form, Unit<Distance> unit, Person by)
    {
        var wrong = new List<Refusal>();
        var sheet = vehicles.Find(plate) is { } vehicle ? sheets.Newest(vehicle.SheetId) : null;
        JobId[] jobs = [.. (form.Job ?? []).Distinct().Select(JobId.Of)];
        if (sheet is null || jobs.Length == 0 || jobs.Any(j => !sheet.Jobs.ContainsKey(j)))
            wrong.Add(new("No job of this model is chosen.", "Choose what was done.", Field: "job"));
        var day = Day(form.Day, "day", wrong, true);
        if (day > clock.Today)
            wrong.Add(new("That day is still to come.", Field: "day"));
        var typed = Typed(form.Odometer, unit, wrong);
        var where = (form.Where ?? "").Trim();
        if (where.Length is 0 or > Decision.LongestText)
            wrong.Add(new("By whom and where is missing, or too long.", $"Up to {Decision.LongestText} characters.", Field: "where"));
        if (wrong.Count > 0)
            return wrong;
        var history = vehicles.History(plate, clock.Day);
        var (least, most) = history.Between(day!.Value);
        var at = clock.At(day.Value, default);
        if (history.OnThisClock(typed!.Value.Value, at) is var there && (there < least || there > most))
            return [Outside(least, most, unit, history.OnThisClock(default, at))];
        return await trail.Note(plate, [.. jobs.Select(j => new DoneElsewhere(j, day.Value, typed.Value.Value, where))], by.Id, clock.Now)
            ? [] : [new("One of these jobs is on record on that day already.", Field: "job")];
    }

    /// <summary>Takes out a job that was noted as done elsewhere.</summary>
    /// <param name="plate">The vehicle.</param>
    /// <param name="job">The job.</param>
    /// <param name="day">The day on which it is noted.</param>
    /// <param name="reason">Why it is not so.</param>
    /// <param name="by">Who says so.</param>
    /// <returns>What is wrong with it; empty when it was done.</returns>
    public async Task<IReadOnlyList<Refusal>> NotDone(string plate, string? job, string? day, string? reason, Person by)
    {
        var wrong = new List<Refusal>();
        Reason(reason, wrong);
        if (Day(day, "day", wrong, true) is not { } on || wrong.Count > 0)
            return wrong;
        return await trail.Forget(plate, JobId.Of(job ?? ""), on, reason!.Trim(), by.Id, clock.Now) ? []
            : [new("This is not noted as done elsewhere.", "Load the page again.")];
    }

    private Vehicle Read(Vehicle was, VehicleForm form, List<Refusal> wrong)
    {
        var plate = (form.Plate ?? "").Trim().ToUpperInvariant();
        if (!Plates.IsOne(plate))
            wrong.Add(new(Plates.Wrong, "Type it as it is on the vehicle.", Field: "plate"));
        if (sheets.Newest(form.Sheet ?? "") is null)
            wrong.Add(new("There is no sheet for that model.", "Choose one of the list.", Field: "sheet"));
        if (!int.TryParse(form.Year, NumberStyles.None, CultureInfo.InvariantCulture, out var year) || year < 1950
            || year > clock.Today.Year + 1)
            wrong.Add(new("That is not a model year.", "Type four digits, such as 2019.", Field: "year"));
        var task = (form.Task ?? "").Trim();
        if (task.Length > LongestTask)
            wrong.Add(new("That is too long.", $"Keep it to {LongestTask} characters.", Field: "task"));
        var (delivered, warranty) = (Day(form.Delivered, "delivered", wrong, false), Day(form.Warranty, "warranty", wrong, false));
        if (delivered > clock.Today)
            wrong.Add(new("That day is still to come.", Field: "delivered"));
        return was with
        {
            Plate = plate, SheetId = form.Sheet ?? "", Task = task, Year = year, Use = form.Harsh ? Use.Harsh : Use.Normal,
            HistoryUnknown = form.Unknown, Delivered = delivered, WarrantyUntil = warranty,
        };
    }

    private List<Changed> Between(Vehicle was, Vehicle now, string reason)
    {
        var changed = new List<Changed>();
        Note("plate", was.Plate, now.Plate);
        Note("model", Model(was.SheetId), Model(now.SheetId));
        Note("task", was.Task, now.Task);
        Note("model year", $"{was.Year}", $"{now.Year}");
        Note("use", was.Use == Use.Harsh ? "harsh" : "normal", now.Use == Use.Harsh ? "harsh" : "normal");
        Note("history", was.HistoryUnknown ? "unknown" : "known", now.HistoryUnknown ? "unknown" : "known");
        Note("delivered", Iso(was.Delivered), Iso(now.Delivered));
        Note("warranty until", Iso(was.WarrantyUntil), Iso(now.WarrantyUntil));
        return changed;

        void Note(string what, string before, string after)
        {
            if (before != after)
                changed.Add(new(what, "", before, after, reason));
        }

        string Model(SheetId id) => sheets.Newest(id)?.FullName ?? id.Text;
    }

    private static void Reason(string? reason, List<Refusal> wrong)
    {
        if ((reason ?? "").Trim().Length is 0 or > Decision.LongestText)
            wrong.Add(new("The reason is missing, or too long.", $"It stays with the vehicle; up to {Decision.LongestText} characters.",
                Field: "reason"));
    }

    private static Typed<Distance>? Typed(string? text, Unit<Distance> unit, List<Refusal> wrong)
    {
        if (Quantity<Distance>.Read(text, out var problem, unit) is not { } typed)
            wrong.Add(new(problem, Field: "odometer"));
        else if (OdometerCheck.IsTwofold(text!))
            wrong.Add(new($"“{text!.Trim()}” can be read in two ways.", "Type it without point and comma.", Field: "odometer"));
        else if (typed.Value < Quantity<Distance>.Zero || typed.Value > Highest)
            wrong.Add(new($"{typed} cannot be an odometer reading.", "Type what the dash showed.", Field: "odometer"));
        else
            return typed;
        return null;
    }

    // What the odometer of now would show is told as that of then did.
    private static Refusal Outside(Quantity<Distance>? least, Quantity<Distance>? most, Unit<Distance> unit, Quantity<Distance> apart)
    {
        string Of(Quantity<Distance> far) => OdometerText.Of(far - apart, unit);
        return new((least, most) switch
        {
            ({ } low, { } high) => $"It was between {Of(low)} and {Of(high)} around that day.",
            (null, { } high) => $"It was at {Of(high)} only after that day.",
            _ => throw new InvalidOperationException("Nothing bounds it."),
        }, "By the readings before and after it; put those right first if they are wrong.", Field: "odometer");
    }

    private static DateOnly? Day(string? text, string field, List<Refusal> wrong, bool needed)
    {
        if (string.IsNullOrWhiteSpace(text) && !needed)
            return null;
        if (DateOnly.TryParseExact(text?.Trim(), "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day))
            return day;
        wrong.Add(new("This is not a day.", "Choose one, or type it as 2026-03-31.", Field: field));
        return null;
    }

    private static string Iso(DateOnly? day) => day?.ToString("O", CultureInfo.InvariantCulture) ?? "";
}

/// <summary>How a plate may look.</summary>
internal static class Plates
{
    /// <summary>What to say of one that may not.</summary>
    internal const string Wrong = "A plate has up to 12 letters, digits and dashes.";

    /// <summary>Whether it may look so.</summary>
    internal static bool IsOne(string plate) =>
        plate.Length is > 0 and <= 12 && plate.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or ' ');
}
