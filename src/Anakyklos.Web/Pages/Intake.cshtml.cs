using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>A vehicle is here: odometer, jobs, and a card is opened.</summary>
public sealed class IntakeModel(VehicleStore vehicles, SheetStore sheets, CardStore cards, SettingStore settings, WorkshopClock clock, Viewer viewer) : PageModel
{
    public static readonly string[] Bays = ["Bay 1", "Bay 2", "Outside"];

    private static readonly Quantity<Distance> Highest = Quantity<Distance>.Of(3_000_000, Distance.Kilometre);

    public IReadOnlyList<Vehicle> Vehicles { get; private set; } = [];
    public IReadOnlyList<ModelSheet> Models { get; private set; } = [];
    public IReadOnlyList<Job> Jobs { get; private set; } = [];
    public List<Refusal> Refusals { get; } = [];
    public Guid Command { get; private set; } = Guid.CreateVersion7();
    public string? Plate { get; private set; }
    public string Odometer { get; private set; } = "";
    public string Reason { get; private set; } = "";
    public string Bay { get; private set; } = Bays[0];
    public bool AskReason { get; private set; }
    public string[] ChosenJobs { get; private set; } = [];
    public string NewPlate { get; private set; } = "";
    public string SheetId { get; private set; } = "";
    public string Year { get; private set; } = "";
    public string TaskText { get; private set; } = "";
    public bool Harsh { get; private set; }

    /// <summary>The card that the chosen jobs make; null while none is chosen.</summary>
    public CardPlan? Plan { get; private set; }

    public IActionResult OnGet(string? plate)
    {
        if (viewer.Member?.Person.WorksOnCards != true)
            return Forbid();
        Fill();
        Plate = plate ?? (Vehicles.Count > 0 ? Vehicles[0].Plate : "");
        FillJobs();
        ChosenJobs = [.. Jobs.Take(1).Select(j => j.Id)];
        Compose();
        return Page();
    }

    /// <summary>The same page with the jobs of the vehicle chosen and the card they make; nothing is opened.</summary>
    public IActionResult OnPostPreview(Guid command, string? plate, string? odometer, string? reason, string[]? job, string? bay, string? newPlate, string? sheet, string? year, string? task, bool harsh)
    {
        if (viewer.Member?.Person.WorksOnCards != true)
            return Forbid();
        Keep(command, plate, odometer, reason, job, bay, newPlate, sheet, year, task, harsh);
        return Page();
    }

    private void Keep(Guid command, string? plate, string? odometer, string? reason, string[]? job, string? bay, string? newPlate, string? sheet, string? year, string? task, bool harsh)
    {
        Fill();
        Command = command == Guid.Empty ? Guid.CreateVersion7() : command;
        (Plate, Odometer, Reason, Harsh) = (plate ?? "", odometer ?? "", (reason ?? "").Trim(), harsh);
        (NewPlate, SheetId, Year, TaskText) = ((newPlate ?? "").Trim().ToUpperInvariant(), sheet ?? "", (year ?? "").Trim(), (task ?? "").Trim());
        Bay = Bays.Contains(bay) ? bay! : Bays[0];
        FillJobs();
        ChosenJobs = [.. (job ?? []).Distinct()];
        Compose();
    }

    private ModelSheet? Model => Plate is { Length: > 0 } plate ? Vehicles.FirstOrDefault(v => v.Plate == plate) is { } v ? Models.FirstOrDefault(m => m.Id == v.SheetId) : null
        : Models.FirstOrDefault(m => m.Id == SheetId) ?? (Models.Count > 0 ? Models[0] : null);

    private void FillJobs() => Jobs = Model is { } model ? [.. model.Jobs.Values] : [];

    private void Compose()
    {
        if (Model is { } model && ChosenJobs.Where(model.Jobs.ContainsKey).ToArray() is { Length: > 0 } known)
            Plan = CardPlanner.Plan(model, known);
    }

    public async Task<IActionResult> OnPostAsync(Guid command, string? plate, string? odometer, string? reason, string[]? job, string? bay, string? newPlate, string? sheet, string? year, string? task, bool harsh)
    {
        if (viewer.Member?.Person is not { WorksOnCards: true } by)
            return Forbid();
        Keep(command, plate, odometer, reason, job, bay, newPlate, sheet, year, task, harsh);

        var vehicle = Plate!.Length > 0 ? vehicles.Find(Plate) : Newcomer();
        if (Plate.Length > 0 && vehicle is null)
            Wrong("plate", "This vehicle is not on the list.", "Choose one, or “Another”.");
        var model = vehicle is null ? null : sheets.Newest(vehicle.SheetId);
        if (vehicle is not null && model is null)
            Wrong("plate", "There is no model sheet for it.", "Bring its sheet in first.");
        if (ChosenJobs.Length == 0 || (model is not null && ChosenJobs.Any(j => !model.Jobs.ContainsKey(j))))
            Wrong("job", "No job of this model is chosen.", "Choose at least one.");
        var reading = ReadOdometer(Plate);
        if (vehicle is not null && cards.OfVehicle(vehicle.Plate).FirstOrDefault(c => c.SignedAt is null) is { } open && !IsRepeat(open.Id))
            Refusals.Add(new($"Card {open.Id} of {vehicle.Plate} is still open.", "Finish and sign it before another is opened."));
        if (Refusals.Count > 0)
        {
            Response.StatusCode = Refusals.Any(r => r.Field is null) ? StatusCodes.Status409Conflict : StatusCodes.Status422UnprocessableEntity;
            return Page();
        }

        if (Plate.Length == 0)
            await vehicles.Add(vehicle!);
        await vehicles.Note(vehicle!.Plate, new(clock.Now, reading!.Value, Reason), by.Id);
        var opened = new CardOpened(vehicle.Plate, model!.Id, model.Revision, ChosenJobs, Plan!.Steps, reading.Value, vehicle.Use, settings.Read().School, SealsUsedAgain(vehicle.Plate));
        var card = await cards.Open(opened, Bay, by, clock.Now, Command);
        return Redirect($"/lift/{card}");
    }

    private bool IsRepeat(long card) => cards.Find(card)?.History[0].Command == Command;

    private void Wrong(string field, string what, string @do) => Refusals.Add(new(what, @do, Field: field));

    private void Fill()
    {
        Vehicles = vehicles.All();
        Models = sheets.Newest();
    }

    private Vehicle? Newcomer()
    {
        if (NewPlate.Length is 0 or > 12 || !NewPlate.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or ' '))
            Wrong("newPlate", "A plate has up to 12 letters, digits and dashes.", "Type it as it is on the vehicle.");
        else if (vehicles.Find(NewPlate) is not null)
            Wrong("newPlate", $"{NewPlate} is on the list already.", "Choose it above.");
        if (!int.TryParse(Year, NumberStyles.None, CultureInfo.InvariantCulture, out var year) || year < 1950 || year > clock.Now.Year + 1)
            Wrong("year", "That is not a model year.", "Type four digits, such as 2019.");
        if (TaskText.Length > 60)
            Wrong("task", "That is too long.", "Keep it to 60 characters.");
        return Refusals.Count > 0 ? null : new(NewPlate, SheetId, TaskText, year, Harsh ? Use.Harsh : Use.Normal);
    }

    private Quantity<Distance>? ReadOdometer(string plate)
    {
        if (Quantity<Distance>.Read(Odometer, out var problem, viewer.DistanceUnit) is not { } typed)
        {
            Wrong("odometer", problem, "");
            return null;
        }
        if (typed.Value < Quantity<Distance>.Zero || typed.Value > Highest)
            Wrong("odometer", $"{typed} cannot be an odometer reading.", "Type what the dash shows.");
        else if (plate.Length > 0 && vehicles.Odometer(plate).FirstOrDefault() is { } last && typed.Value < last.Reading && Reason.Length is 0 or > JobCard.LongestText)
        {
            AskReason = true;
            Wrong("odometer", $"{typed} is less than the last reading, {last.Reading.Print(typed.Unit)} on {clock.Local(last.At):d MMMM yyyy}.", "Look again, or say why below.");
            if (Reason.Length > 0)
                Wrong("reason", $"The reason is {Reason.Length} characters long.", $"Keep it to {JobCard.LongestText}.");
        }
        AskReason = AskReason || Reason.Length > 0;
        return typed.Value;
    }

    private IReadOnlyDictionary<string, int> SealsUsedAgain(string plate) =>
        cards.OfVehicle(plate).FirstOrDefault(c => c.SignedAt is not null) is { } last ? cards.Find(last.Id)!.SealsLeftIn : new Dictionary<string, int>();
}
