using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Storage;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>The yard: open cards as rings, and the vehicles.</summary>
public sealed class IndexModel(CardStore cards, VehicleStore vehicles, SheetStore sheets, SettingStore settings, WorkshopClock clock, Viewer viewer) : PageModel
{
    private const int LatelySigned = 4;

    public sealed record OpenCard(CardEntry Entry, JobCard Card, string Next, string Where, IReadOnlyList<RunningWait> Waits, bool IsReady)
    {
        public string Link => Card.Next is null ? $"/handover/{Entry.Id}" : $"/lift/{Entry.Id}";
    }

    public sealed record SignedCard(CardEntry Entry, RingDrawing Ring, string Jobs);

    public sealed record VehicleRow(Vehicle Vehicle, string Model, string Due, bool IsOverdue);

    public string WorkshopName { get; private set; } = "";
    public IReadOnlyList<OpenCard> Open { get; private set; } = [];
    public IReadOnlyList<SignedCard> Signed { get; private set; } = [];
    public IReadOnlyList<VehicleRow> Vehicles { get; private set; } = [];

    public void OnGet()
    {
        WorkshopName = settings.Read().Name;
        Open = [.. cards.Unsigned().Select(e => (Entry: e, Card: cards.Find(e.Id)!)).Select(p => new OpenCard(p.Entry, p.Card,
            p.Card.Next?.Title ?? "Everything is done", Where(p.Card), [.. p.Card.Waits.Where(w => w.Until > clock.Now)], !p.Card.BeforeSigning().Any()))];
        Vehicles = [.. vehicles.All().Select(Row)];
        Signed = [.. Vehicles.SelectMany(v => cards.OfVehicle(v.Vehicle.Plate)).Where(e => e.SignedAt is not null).OrderByDescending(e => e.SignedAt).Take(LatelySigned)
            .Select(e => (Entry: e, Card: cards.Find(e.Id)!)).Select(p => new SignedCard(p.Entry, RingDrawing.Of(p.Card), string.Join(", ", p.Card.Opened.Jobs.Select(j => p.Card.Sheet.Jobs[j].Name))))];
    }

    private static string Where(JobCard card)
    {
        var done = card.Steps.Count(s => card.State(s.Id).Status is StepStatus.Done or StepStatus.LeftOut);
        return $"{card.History[^1].By.Name}, {(card.Next is { } next ? LiftWords.Place(next.Place) + ", " : "")}{done} of {card.Steps.Count}";
    }

    private VehicleRow Row(Vehicle vehicle)
    {
        var model = sheets.Newest(vehicle.SheetId)?.FullName ?? vehicle.SheetId;
        var last = cards.OfVehicle(vehicle.Plate).FirstOrDefault(e => e.SignedAt is not null);
        var due = last is null ? null : ((Signed)cards.Find(last.Id)!.Signature!.Event).Due.MinBy(d => d.Next.By ?? DateOnly.MaxValue);
        if (due is null)
            return new(vehicle, model, "no service on record here", false);
        var odometer = vehicles.Odometer(vehicle.Plate).FirstOrDefault()?.Reading ?? Quantity<Distance>.Zero;
        var overdue = odometer > due.Next.At || DateOnly.FromDateTime(clock.Now.DateTime) > due.Next.By;
        return new(vehicle, model, $"{(overdue ? "was due" : "due")} {LiftWords.Due(due.Next, viewer.DistanceUnit)}", overdue);
    }
}
