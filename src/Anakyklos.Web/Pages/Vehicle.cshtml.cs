using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Pages;

/// <summary>A vehicle and its services.</summary>
public sealed class VehicleModel(VehicleStore vehicles, SheetStore sheets, CardStore cards, DueDesk desk, SettingDesk setting,
    WorkshopClock clock, Viewer viewer) : PageModel
{
    public sealed record Service(CardNumber Card, string Day, string Odometer, string Jobs, string Filled, string By, RingDrawing Ring,
        IReadOnlyList<string> Deviations);

    /// <summary>A job and when it comes.</summary>
    public sealed record Coming(Standing Standing, DueDay? Due);

    public Vehicle Vehicle { get; private set; } = null!;
    public string ModelName { get; private set; } = "";
    public string Odometer { get; private set; } = "";
    public CardNumber? OpenCard { get; private set; }
    public IReadOnlyList<Service> Services { get; private set; } = [];
    public VehicleStanding? Standing { get; private set; }
    public IReadOnlyList<Coming> Ahead { get; private set; } = [];
    public LifeDrawing? Life { get; private set; }

    /// <summary>What was graded stop and is not mended: on its open card undecided, or let go as it is on the last one.</summary>
    public IReadOnlyList<string> Stops { get; private set; } = [];

    public IActionResult OnGet(string plate)
    {
        if (vehicles.Find(plate) is not { } vehicle)
            return NotFound();
        Vehicle = vehicle;
        ModelName = sheets.Newest(vehicle.SheetId)?.FullName ?? vehicle.SheetId.Text;
        Odometer = vehicles.Odometer(plate).FirstOrDefault() is { } o
            ? $"{LiftWords.Odometer(o.Reading, viewer.DistanceUnit)} on {clock.Local(o.At):d MMMM}" : "";
        var all = cards.OfVehicle(plate);
        OpenCard = all.FirstOrDefault(c => c.IsOpen)?.Id;
        var signed = all.Where(c => c.SignedAt is not null).Select(c => (Entry: c, Card: cards.Find(c.Id)!)).ToList();
        Services = [.. signed.Select(s => Line(s.Entry, s.Card))];
        var open = OpenCard is { } number ? cards.Find(number) : null;
        Stops = [.. (open?.Holds ?? []), .. (open is null ? signed.Count > 0 ? signed[0].Card.StopsLeft(signed[0].Entry.Id) : []
            : open.StopsLeft(OpenCard!.Value))
            .Select(s => $"“{s.Text}”, card {s.Card}: let go by {s.By}, {s.Words}")];
        Standing = desk.Of(vehicle);
        if (Standing is { } s)
        {
            Ahead = [.. s.Items.Where(i => i.State != DueState.Done).Select(i => new Coming(i, DueDay.Of(i, s.Now, s.Use)))
                .OrderByDescending(c => c.Standing.State == DueState.Overdue).ThenBy(c => c.Due?.Day ?? DateOnly.MaxValue)];
            Life = LifeDrawing.Of(s.Readings, [.. s.Items.Select(i => i.Last).OfType<UseMark>()
                .Concat(signed.Select(c => new UseMark(c.Card.Opened.Odometer,
                DateOnly.FromDateTime(clock.Local(c.Entry.SignedAt!.Value).DateTime)))).DistinctBy(m => m.Day)],
                s.Now, s.Use, [.. Ahead.Where(a => a.Due is not null).Select(a => (a.Standing.Item.Name, a.Due!))], viewer.DistanceUnit);
        }
        return Page();
    }

    /// <summary>The owner sets a rule of their own for a job, or takes it away.</summary>
    public async Task<IActionResult> OnPostRuleAsync(string plate, string? job, string? distance, string? months)
    {
        if (viewer.Member?.Role != Role.Lead)
            return Forbid();
        if (vehicles.Find(plate) is not { } vehicle || setting.Jobs(plate).All(j => j.Id != job))
            return NotFound();
        Refusals = await setting.SetRule(plate, job, distance, months, viewer.DistanceUnit);
        if (Refusals.Count == 0)
            return Redirect($"/vehicle/{vehicle.Plate}");
        OnGet(plate);
        (RuleJob, RuleDistance, RuleMonths) = (job!, distance ?? "", months ?? "");
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }

    public IReadOnlyList<Refusal> Refusals { get; private set; } = [];
    public string RuleJob { get; private set; } = "";
    public string RuleDistance { get; private set; } = "";
    public string RuleMonths { get; private set; } = "";

    public IReadOnlyList<OwnRule> Rules => vehicles.OwnRules(Vehicle.Plate);

    private Service Line(CardEntry entry, JobCard card) =>
        new(entry.Id, $"{clock.Local(entry.SignedAt!.Value):d MMM yyyy}", LiftWords.Odometer(card.Opened.Odometer, viewer.DistanceUnit),
        string.Join(", ", card.Opened.Jobs.Select(j => card.Sheet.Jobs[j].Name)),
        string.Join(", ", card.FluidsWanted.Select(f =>
            $"{card.Fluid(f.Id).Poured.Print(viewer.VolumeUnits[0])} {card.OilInHand(f.Id)?.Product}")),
        card.Signature!.By.Name, RingDrawing.Of(card), [.. card.Deviations.Select(d => d.Event.What)]);
}
