using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Pages;

/// <summary>The yard: open cards as rings, and the vehicles.</summary>
public sealed class IndexModel(CardStore cards, VehicleStore vehicles, SheetStore sheets, SettingStore settings, DueDesk desk,
    WorkshopClock clock) : PageModel
{
    private const int LatelySigned = 4;

    public sealed record OpenCard(CardEntry Entry, JobCard Card, string Next, string Where, IReadOnlyList<RunningWait> Waits, bool IsReady)
    {
        public string Link => Card.Awaited.Count > 0 ? $"/kit/{Entry.Id}" : Card.Next is null ? $"/handover/{Entry.Id}"
            : $"/lift/{Entry.Id}";
    }

    public sealed record SignedCard(CardEntry Entry, RingDrawing Ring, string Jobs);

    public sealed record VehicleRow(Vehicle Vehicle, string Model, FleetRow Standing, UseMark Now, bool IsHere);

    public string WorkshopName { get; private set; } = "";
    public IReadOnlyList<OpenCard> Open { get; private set; } = [];
    public IReadOnlyList<SignedCard> Signed { get; private set; } = [];
    public IReadOnlyList<VehicleRow> Vehicles { get; private set; } = [];

    public void OnGet()
    {
        WorkshopName = settings.Read().Name;
        Open = [.. cards.Unsigned().Select(e => (Entry: e, Card: cards.Find(e.Id)!)).Select(p => new OpenCard(p.Entry, p.Card,
            p.Card.Next?.Title ?? "Everything is done", Where(p.Card), [.. p.Card.Waits.Where(w => w.Until > clock.Now)],
                !p.Card.BeforeSigning().Any()))];
        var (fleet, newest, here) = (desk.Fleet().ToDictionary(r => r.Plate), vehicles.Newest(),
            Open.Select(o => o.Entry.Plate).ToHashSet());
        Vehicles = [.. vehicles.All().Select(v =>
            new VehicleRow(v, sheets.Newest(v.SheetId)?.FullName ?? v.SheetId.Text, fleet.GetValueOrDefault(v.Plate),
            new(newest.GetValueOrDefault(v.Plate)?.Reading ?? default, clock.Today, newest.GetValueOrDefault(v.Plate)?.Hours),
            here.Contains(v.Plate)))
            .OrderByDescending(v => v.Standing.Overdue > 0).ThenByDescending(v => v.Standing.Due > 0)
                .ThenByDescending(v => v.Standing.Soon > 0).ThenBy(v => v.Vehicle.Plate)];
        Signed = [.. Vehicles.SelectMany(v => cards.OfVehicle(v.Vehicle.Plate)).Where(e => e.SignedAt is not null)
            .OrderByDescending(e => e.SignedAt).Take(LatelySigned)
            .Select(e => (Entry: e, Card: cards.Find(e.Id)!))
                .Select(p => new SignedCard(p.Entry, RingDrawing.Of(p.Card),
                string.Join(", ", p.Card.Opened.Jobs.Select(j => p.Card.Sheet.Jobs[j].Name))))];
    }

    private static string Where(JobCard card)
    {
        var done = card.Steps.Count(s => card.State(s.Id).Status is StepStatus.Done or StepStatus.LeftOut);
        return $"{card.History[^1].By.Name}, {(card.Next is { } next ? LiftWords.Place(next.Place) + ", " : "")}{done} of "
            + $"{card.Steps.Count}";
    }
}
