using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Wording;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>What is known of a vehicle is put right: its own description, its readings, what was done elsewhere.</summary>
public sealed class PutRightModel(PutRightDesk desk, VehicleStore vehicles, VehicleTrail trail, SheetStore sheets, WorkshopClock clock,
    Viewer viewer) : PageModel
{
    public Vehicle Vehicle { get; private set; } = null!;
    public OdometerHistory History { get; private set; } = null!;
    public VehicleForm Form { get; private set; } = new();
    public ElsewhereForm There { get; private set; } = new();
    public IReadOnlyList<ModelSheet> Models { get; private set; } = [];
    public IReadOnlyList<DoneElsewhere> Elsewhere { get; private set; } = [];
    public IReadOnlyList<string> Changes { get; private set; } = [];
    public IReadOnlyList<Refusal> Refusals { get; private set; } = [];

    /// <summary>The newest readings and those that do not fit, each with its place among all.</summary>
    public IReadOnlyList<(OdometerReading Reading, int At)> Near => [.. Placed.Where(IsNear)];

    /// <summary>All the others.</summary>
    public IReadOnlyList<(OdometerReading Reading, int At)> Older => [.. Placed.Where(r => !IsNear(r))];

    private IEnumerable<(OdometerReading Reading, int At)> Placed => History.Readings.Select((r, i) => (r, i));

    private bool IsNear((OdometerReading Reading, int At) r) => r.At < 6 || History.LeftOut.Contains(r.Reading);

    /// <summary>Which of the forms was sent: description, reading, elsewhere, not-done; empty for none.</summary>
    public string Sent { get; private set; } = "";

    /// <summary>The reading that is being put right, by its name.</summary>
    public string Of { get; private set; } = "";

    /// <summary>What was typed as the reading that it was.</summary>

    public string Typed { get; private set; } = "";

    /// <summary>The reason that was typed.</summary>
    public string Why { get; private set; } = "";

    /// <summary>The jobs of its model.</summary>
    public IReadOnlyList<Job> Jobs => Models.FirstOrDefault(m => m.Id == Vehicle.SheetId) is { } model ? [.. model.Jobs.Values] : [];

    /// <summary>What is wrong, where that form was sent.</summary>
    /// <param name="form">The form.</param>
    /// <param name="letter">What stands before the names of its fields in their ids.</param>
    public IReadOnlyList<Refusal> Wrong(string form, string letter) => Sent != form ? []
        : [.. Refusals.Select(r => r.Field is { } field ? r with { Field = letter + field } : r)];

    public IActionResult OnGet(string plate) => !Load(plate) ? NotFound() : MayNot() ? Forbid() : Page();

    public Task<IActionResult> OnPostDescriptionAsync([FromRoute] string plate, VehicleForm form) => Do(plate, "description", async by =>
    {
        Form = form;
        var (wrong, now) = await desk.Change(plate, form, by);
        return (wrong, now);
    });

    public Task<IActionResult> OnPostReadingAsync([FromRoute] string plate, string? of, string? odometer, string? reason) =>
        Do(plate, "reading", async by =>
    {
        (Of, Typed, Why) = (of ?? "", odometer ?? "", reason ?? "");
        return (await desk.Reading(plate, of, odometer, reason, viewer.DistanceUnit, by), plate);
    });

    public Task<IActionResult> OnPostElsewhereAsync([FromRoute] string plate, ElsewhereForm there) => Do(plate, "elsewhere", async by =>
    {
        There = there;
        return (await desk.Elsewhere(plate, there, viewer.DistanceUnit, by), plate);
    });

    public Task<IActionResult> OnPostGoAsync([FromRoute] string plate, bool gone, string? reason) => Do(plate, "go", async by =>
    {
        Why = reason ?? "";
        return (await desk.Go(plate, gone, reason, by), plate);
    });

    public Task<IActionResult> OnPostNotDoneAsync([FromRoute] string plate, string? of, string? day, string? reason) =>
        Do(plate, "not-done", async by =>
    {
        (Of, Why) = ($"{of} {day}", reason ?? "");
        return (await desk.NotDone(plate, of, day, reason, by), plate);
    });

    private async Task<IActionResult> Do(string plate, string form, Func<Person, Task<(IReadOnlyList<Refusal> Wrong, string Plate)>> what)
    {
        if (!Load(plate))
            return NotFound();
        if (MayNot())
            return Forbid();
        (Refusals, var now) = await what(viewer.Member!.Person);
        if (Refusals.Count == 0)
            return Redirect($"/vehicle/{Uri.EscapeDataString(now)}/put-right");
        Sent = form;
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }

    private bool MayNot() => viewer.Member?.Person.WorksOnCards != true;

    private bool Load(string plate)
    {
        if (vehicles.Find(plate) is not { } vehicle)
            return false;
        Vehicle = vehicle;
        History = vehicles.History(plate, clock.Day);
        Models = sheets.Newest();
        Elsewhere = trail.Elsewhere(plate);
        Changes = [.. trail.Of(plate).Select(c => $"{clock.Local(c.At):d MMM yyyy, HH:mm}: {TrailWords.Of(c.Of, JobName, clock,
            viewer.DistanceUnit)}, {c.By}")];
        Form = new()
        {
            Plate = vehicle.Plate, Sheet = vehicle.SheetId.Text, Task = vehicle.Task, Year = $"{vehicle.Year}",
            Harsh = vehicle.Use == Core.Intervals.Use.Harsh, Unknown = vehicle.HistoryUnknown,
            Delivered = vehicle.Delivered?.ToString("yyyy-MM-dd"), Warranty = vehicle.WarrantyUntil?.ToString("yyyy-MM-dd"),
        };
        return true;
    }

    public string JobName(JobId job) => Jobs.FirstOrDefault(j => j.Id == job)?.Name ?? job.Text;

    /// <summary>What is to be said of a reading beside its number.</summary>
    public string Beside(OdometerReading reading) => string.Join(", ", new[]
    {
        reading.Card is { } card ? $"card {card}" : "",
        History.LeftOut.Contains(reading) ? "does not fit the others and is left out" : "",
        History.Exchanged.FirstOrDefault(e => e.At == reading.At) is { } e
            ? $"another odometer; the one before would have shown {OdometerText.Of(e.Was, viewer.DistanceUnit)}" : "",
    }.Where(t => t.Length > 0));
}
