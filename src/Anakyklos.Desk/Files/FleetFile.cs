using System.Globalization;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk.Files;

/// <summary>Vehicles and their odometer history as one comma-separated file: a row a reading, the vehicle's own columns on any of its
/// rows.</summary>
public static class FleetFile
{
    /// <summary>The headings, in the order in which they are told.</summary>
    public static readonly string[] Columns = ["plate", "model", "task", "year", "use", "delivered", "history", "day", "odometer", "hours"];

    /// <summary>Reads the file: all of it, or its errors.</summary>
    /// <param name="text">Its text.</param>
    /// <param name="models">Sheet ids by id and by name.</param>
    /// <param name="known">Vehicles that are here already.</param>
    /// <param name="clock">For the time of day of a reading.</param>
    /// <param name="coming">Is told how far it is; null where nobody waits for it.</param>
    public static (IReadOnlyList<Vehicle> Vehicles, IReadOnlyList<(string, OdometerReading)> Readings, IReadOnlyList<Refusal> Errors) Read(
        string text, IReadOnlyDictionary<string, SheetId> models, IReadOnlyCollection<string> known, WorkshopClock clock,
        ComingFile? coming = null)
    {
        var today = clock.Today;
        var vehicles = new Dictionary<string, Vehicle>();
        var (rows, errors) = CsvTable.Read(text, ["plate", "day", "odometer"], l =>
        {
            var plate = l.Text("plate").ToUpperInvariant();
            if (plate.Length > 12 || !plate.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or ' '))
                l.Wrong("plate", "A plate has up to 12 letters, digits and dashes.");
            if (!known.Contains(plate) && !vehicles.ContainsKey(plate) && NewVehicle(l, plate, models, today) is { } vehicle)
                vehicles[plate] = vehicle;
            var day = l.Read("day", t => StockFiles.Day(t, today));
            if (day > today)
                l.Wrong("day", $"{day:yyyy-MM-dd} is in the future.");
            var odometer = l.Read("odometer", Odometer);
            return (plate, new OdometerReading(clock.At(day ?? today, new(12, 0)), odometer ?? default, "",
                l.Read("hours", StockFiles.Count, false)));
        }, coming);
        return ([.. vehicles.Values], rows, errors);
    }

    /// <summary>Writes the vehicles with their readings, as <see cref="Read"/> takes them.</summary>
    /// <param name="vehicles">The vehicles, each with its readings.</param>
    /// <param name="clock">For the day of a reading.</param>
    public static string Write(IEnumerable<(Vehicle Vehicle, IReadOnlyList<OdometerReading> Readings)> vehicles, WorkshopClock clock) =>
        CsvTable.Write(Columns, vehicles.SelectMany(v => v.Readings.Select((r, i) => i > 0
            ? [v.Vehicle.Plate, "", "", "", "", "", "", .. Reading(r, clock)]
            : new[]
            {
                v.Vehicle.Plate, v.Vehicle.SheetId.Text, v.Vehicle.Task, $"{v.Vehicle.Year}",
                v.Vehicle.Use == Use.Harsh ? "harsh" : "normal",
                v.Vehicle.Delivered?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "",
                v.Vehicle.HistoryUnknown ? "unknown" : "known",
            }.Concat(Reading(r, clock)))));

    private static string[] Reading(OdometerReading r, WorkshopClock clock) =>
    [
        clock.Day(r.At).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
        $"{r.Reading.In(Distance.Kilometre).ToString("0.############################", CultureInfo.InvariantCulture)} km",
        r.Hours is { } hours ? $"{hours}" : "",
    ];

    private static Vehicle? NewVehicle(CsvLine l, string plate, IReadOnlyDictionary<string, SheetId> models, DateOnly today)
    {
        var model = l.Text("model");
        if (model.Length > 0 && !models.ContainsKey(model))
            l.Wrong("model", $"There is no sheet of “{model}”. Bring it in through the library first.");
        var year = l.Read("year", t => int.TryParse(t, NumberStyles.None, CultureInfo.InvariantCulture, out var y) && y >= 1950
            && y <= today.Year + 1 ? (y, "") : ((int?)null, $"“{t}” is not a model year."));
        var use = l.Text("use", false);
        if (use is not ("" or "normal" or "harsh"))
            l.Wrong("use", "Write normal or harsh.");
        var history = l.Text("history", false);
        if (history is not ("" or "known" or "unknown"))
            l.Wrong("history", "Write known or unknown.");
        var delivered = l.Read("delivered", t => StockFiles.Day(t, today), false);
        return models.TryGetValue(model, out var sheet) && year is { } y
            ? new(plate, sheet, l.Text("task", false), y, use == "harsh" ? Use.Harsh : Use.Normal, delivered, history == "unknown") : null;
    }

    private static (Quantity<Distance>? Value, string Problem) Odometer(string text) =>
        Quantity<Distance>.Read(text, out var problem, Distance.Kilometre) is { } typed
        ? typed.Value < Quantity<Distance>.Zero || typed.Value > Quantity<Distance>.Of(3_000_000, Distance.Kilometre)
            ? (null, $"{text} cannot be an odometer reading.") : (typed.Value, "") : (null, problem);
}
