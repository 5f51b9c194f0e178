using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>What was typed and chosen at intake.</summary>
public sealed class IntakeForm
{
    public Guid Command { get; set; }
    public string? Plate { get; set; }
    public string? Odometer { get; set; }
    public string? Hours { get; set; }
    public string? Reason { get; set; }
    public string[]? Job { get; set; }
    public string? Bay { get; set; }
    public string? NewPlate { get; set; }
    public string? Sheet { get; set; }
    public string? Year { get; set; }
    public string? Task { get; set; }
    public bool Harsh { get; set; }
    public bool Unknown { get; set; }
    public string? Dash { get; set; }
    public string? OilLife { get; set; }
    public string? Remaining { get; set; }
    public string? TripLength { get; set; }
    public string? TripLeaves { get; set; }
    public string? TripDays { get; set; }

    /// <summary>The vehicle that the jobs on the page were for, and those that were proposed for it.</summary>
    public string? ShownFor { get; set; }
    public string[]? Offered { get; set; }
}

/// <summary>A vehicle is here: what the dash shows, what is due and why, and a card is opened.</summary>
public sealed partial class IntakeModel(VehicleStore vehicles, SheetStore sheets, CardStore cards, SettingStore settings,
    ShelfStore shelf, DueDesk desk, PlannedCards plans, WorkshopClock clock, Viewer viewer) : PageModel
{
    public static readonly string[] Bays = ["Bay 1", "Bay 2", "Outside"];

    private static readonly Quantity<Distance> Highest = Quantity<Distance>.Of(3_000_000, Distance.Kilometre);

    public IReadOnlyList<Vehicle> Vehicles { get; private set; } = [];
    public IReadOnlyList<ModelSheet> Models { get; private set; } = [];
    public IReadOnlyList<Job> Jobs { get; private set; } = [];
    public List<Refusal> Refusals { get; } = [];
    public Guid Command { get; private set; } = Guid.CreateVersion7();
    public IntakeForm Form { get; private set; } = new();
    public string? Plate { get; private set; }
    public string Bay { get; private set; } = Bays[0];

    /// <summary>Which vehicle with an open card stands in a bay; outside there is always room.</summary>
    public IReadOnlyDictionary<string, string> Taken { get; private set; } = new Dictionary<string, string>();

    public bool AskReason { get; private set; }
    public string[] ChosenJobs { get; private set; } = [];

    /// <summary>Why a due job is not done this time, by job.</summary>
    public Dictionary<string, string> Dropped { get; } = [];

    /// <summary>Nothing is to be opened yet: what cannot be read is told above the jobs, which script puts into the page as it
    /// stands.</summary>
    public bool IsPreview { get; private set; }

    /// <summary>How the vehicle stands; null for a newcomer.</summary>
    public VehicleStanding? Standing { get; private set; }

    /// <summary>What is proposed; null for a newcomer.</summary>
    public Proposal? Proposal { get; private set; }

    /// <summary>The card that the chosen jobs make; null while none is chosen.</summary>
    public CardPlan? Plan { get; private set; }

    /// <summary>What that card needs, held against the shelf.</summary>
    public KitList? Kit { get; private set; }

    public IActionResult OnGet(string? plate)
    {
        if (viewer.Member?.Person.WorksOnCards != true)
            return Forbid();
        Fill();
        Plate = plate ?? (Vehicles.Count > 0 ? Vehicles[0].Plate : "");
        Propose();
        ChosenJobs = Usual();
        Compose();
        return Page();
    }

    /// <summary>The same page with the jobs of the vehicle proposed and the card they make; nothing is opened.</summary>
    public IActionResult OnPostPreview(IntakeForm form)
    {
        if (viewer.Member?.Person.WorksOnCards != true)
            return Forbid();
        Keep(form);
        IsPreview = true;
        var shown = Form.ShownFor == Plate;
        var known = ChosenJobs.Where(j => Jobs.Any(x => x.Id == j)).ToArray();
        ChosenJobs = !shown ? known.Length > 0 ? known : Usual()
            : [.. known.Union(Proposed.Except(Form.Offered ?? []))];
        Compose();
        return Page();
    }

    private string[] Proposed => [.. Proposal?.Jobs.Where(p => p.Proposed).Select(p => p.Standing.Item.Job) ?? []];

    private string[] Usual() => Proposed is { Length: > 0 } due ? due : [.. Jobs.Take(1).Select(j => j.Id)];

    private void Keep(IntakeForm form)
    {
        Fill();
        Form = form;
        Command = form.Command == Guid.Empty ? Guid.CreateVersion7() : form.Command;
        (Plate, form.Reason, form.NewPlate) = (form.Plate ?? "", (form.Reason ?? "").Trim(),
            (form.NewPlate ?? "").Trim().ToUpperInvariant());
        Bay = Bays.Contains(form.Bay) ? form.Bay! : Bay;
        ChosenJobs = [.. (form.Job ?? []).Distinct()];
        foreach (var field in Request.Form.Keys.Where(k => k.StartsWith("drop-", StringComparison.Ordinal)))
            Dropped[field[5..]] = Request.Form[field].ToString().Trim();
        Propose();
    }

    private ModelSheet? Model => Plate is { Length: > 0 } plate ? Vehicles.FirstOrDefault(v => v.Plate == plate) is { } v
        ? Models.FirstOrDefault(m => m.Id == v.SheetId) : null
        : Models.FirstOrDefault(m => m.Id == Form.Sheet) ?? (Models.Count > 0 ? Models[0] : null);

    private void Propose()
    {
        Jobs = Model is { } model ? [.. model.Jobs.Values] : [];
        if (Vehicles.FirstOrDefault(v => v.Plate == Plate) is not { } vehicle)
            return;
        var reading = Quantity<Distance>.Read(Form.Odometer, out _, viewer.DistanceUnit)?.Value;
        Standing = desk.Of(vehicle, reading is { } km && km >= Quantity<Distance>.Zero && km <= Highest
            ? new UseMark(km, clock.Today, Hours()) : null);
        if (Standing is not { } s)
            return;
        var trip = ReadTrip();
        Proposal = Proposal.Of(s.Items, s.Now, vehicle.Past, s.Sheet.Dash, ReadDash(),
            trip is null ? [] : TripCheck.Of(s.Items, s.Now, vehicle.Past, s.Use, trip));
    }

    private void Compose()
    {
        if (Model is not { } model || ChosenJobs.Where(model.Jobs.ContainsKey).ToArray() is not { Length: > 0 } known)
            return;
        Plan = plans.Plan(model, known);
        Kit = KitCheck.Of(model, known, Plan.Steps, Plate is { Length: > 0 } plate ? SealsUsedAgain(plate) : new Dictionary<string, int>(),
            shelf.Read(), settings.Read().Climate, clock.Today);
    }

    public async Task<IActionResult> OnPostAsync(IntakeForm form)
    {
        if (viewer.Member?.Person is not { WorksOnCards: true } by)
            return Forbid();
        Keep(form);
        Compose();

        var vehicle = Plate!.Length > 0 ? vehicles.Find(Plate) : Newcomer();
        if (Plate.Length > 0 && vehicle is null)
            Wrong("plate", "This vehicle is not on the list.", "Choose one, or “Another”.");
        var model = vehicle is null ? null : sheets.Newest(vehicle.SheetId);
        if (vehicle is not null && model is null)
            Wrong("plate", "There is no model sheet for it.", "Bring its sheet in first.");
        if (ChosenJobs.Length == 0 || (model is not null && ChosenJobs.Any(j => !model.Jobs.ContainsKey(j))))
            Wrong("job", "No job of this model is chosen.", "Choose at least one.");
        var reading = ReadOdometer(Plate);
        var dropped = LeftForLater();
        if (vehicle is not null && cards.OfVehicle(vehicle.Plate).FirstOrDefault(c => c.IsOpen) is { } open && !IsRepeat(open.Id))
            Refusals.Add(new($"Card {open.Id} of {vehicle.Plate} is still open.",
                "Finish and sign it, or make it void, before another is opened."));
        if (Refusals.Count > 0)
        {
            Response.StatusCode = Refusals.Any(r => r.Field is null) ? StatusCodes.Status409Conflict
                : StatusCodes.Status422UnprocessableEntity;
            return Page();
        }

        if (Plate.Length == 0)
            await vehicles.Add(vehicle!);
        await vehicles.Note(vehicle!.Plate, new(clock.Now, reading!.Value, Form.Reason!, Hours()), by.Id);
        var opened = new CardOpened(vehicle.Plate, model!.Id, model.Revision, ChosenJobs, Plan!.Steps, reading.Value, vehicle.Use,
            settings.Read().School, SealsUsedAgain(vehicle.Plate),
            vehicles.OwnRules(vehicle.Plate) is { Count: > 0 } own ? own : null, Hours(), dropped.Count > 0 ? dropped
                : null, StopsLeft(vehicle.Plate));
        var card = await cards.Open(opened, Bay, by, clock.Now, Command);
        return Redirect($"/lift/{card}");
    }

    // What is due and not done needs a reason, which goes onto the record.
    private List<JobLeft> LeftForLater()
    {
        var left = new List<JobLeft>();
        foreach (var p in Proposal?.LeftOut(ChosenJobs) ?? [])
        {
            var (job, why) = (p.Standing.Item, Dropped.GetValueOrDefault(p.Standing.Item.Job, ""));
            if (why.Length is 0 or > Decision.LongestText)
                Wrong($"drop-{job.Job}", why.Length == 0 ? $"{job.Name} is due and not chosen."
                    : $"The reason is {why.Length} characters long.",
                    why.Length == 0 ? "Choose it, or say why not." : $"Keep it to {Decision.LongestText}.");
            else
                left.Add(new(job.Job, job.Name, why));
        }
        return left;
    }

    private bool IsRepeat(long card) => cards.Find(card)?.History[0].Command == Command;

    private void Wrong(string field, string what, string @do) => Refusals.Add(new(what, @do, Field: field));

    private void Fill()
    {
        Vehicles = vehicles.All();
        Models = sheets.Newest();
        Taken = cards.Unsigned().Where(c => c.Bay != Bays[^1]).DistinctBy(c => c.Bay).ToDictionary(c => c.Bay, c => c.Plate);
        Bay = Bays.First(b => !Taken.ContainsKey(b));
    }

    private Vehicle? Newcomer()
    {
        if (Form.NewPlate!.Length is 0 or > 12 || !Form.NewPlate.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or ' '))
            Wrong("newPlate", "A plate has up to 12 letters, digits and dashes.", "Type it as it is on the vehicle.");
        else if (vehicles.Find(Form.NewPlate) is not null)
            Wrong("newPlate", $"{Form.NewPlate} is on the list already.", "Choose it above.");
        if (!int.TryParse((Form.Year ?? "").Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var year) || year < 1950
            || year > clock.Now.Year + 1)
            Wrong("year", "That is not a model year.", "Type four digits, such as 2019.");
        if ((Form.Task ?? "").Length > 60)
            Wrong("task", "That is too long.", "Keep it to 60 characters.");
        return Refusals.Count > 0 ? null : new(Form.NewPlate!, Form.Sheet ?? "", (Form.Task ?? "").Trim(), year,
            Form.Harsh ? Use.Harsh : Use.Normal, null, Form.Unknown);
    }

    private Quantity<Distance>? ReadOdometer(string plate)
    {
        if (Quantity<Distance>.Read(Form.Odometer, out var problem, viewer.DistanceUnit) is not { } typed)
        {
            Wrong("odometer", problem, "");
            return null;
        }
        if (typed.Value < Quantity<Distance>.Zero || typed.Value > Highest)
            Wrong("odometer", $"{typed} cannot be an odometer reading.", "Type what the dash shows.");
        else if (plate.Length > 0 && vehicles.Odometer(plate).FirstOrDefault() is { } last && typed.Value < last.Reading
            && Form.Reason!.Length is 0 or > Decision.LongestText)
        {
            AskReason = true;
            Wrong("odometer",
                $"{typed} is less than the last reading, {last.Reading.Print(typed.Unit)} on {clock.Local(last.At):d MMMM yyyy}.",
                "Look again, or say why below.");
            if (Form.Reason!.Length > 0)
                Wrong("reason", $"The reason is {Form.Reason!.Length} characters long.", $"Keep it to {Decision.LongestText}.");
        }
        AskReason = AskReason || Form.Reason!.Length > 0;
        return typed.Value;
    }

    /// <summary>Stops that the vehicle carries from its last card; null for none.</summary>
    public IReadOnlyList<StopCarried>? StopsLeft(string plate) => cards.OfVehicle(plate).FirstOrDefault(c =>
        c.SignedAt is not null) is { } last
        && cards.Find(last.Id)!.StopsLeft(last.Id) is { Count: > 0 } left ? left : null;

    private IReadOnlyDictionary<string, int> SealsUsedAgain(string plate) =>
        cards.OfVehicle(plate).FirstOrDefault(c => c.SignedAt is not null) is { } last ? cards.Find(last.Id)!.SealsLeftIn
            : new Dictionary<string, int>();
}
