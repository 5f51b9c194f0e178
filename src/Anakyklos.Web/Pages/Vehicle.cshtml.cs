using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Storage;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>A vehicle and its services.</summary>
public sealed class VehicleModel(VehicleStore vehicles, SheetStore sheets, CardStore cards, WorkshopClock clock, Viewer viewer) : PageModel
{
    public sealed record Service(long Card, string Day, string Odometer, string Jobs, string Filled, string By, RingDrawing Ring, IReadOnlyList<string> Deviations);

    public sealed record Mark(string X, string Day, string Odometer, bool IsDue);

    public Vehicle Vehicle { get; private set; } = null!;
    public string ModelName { get; private set; } = "";
    public string Odometer { get; private set; } = "";
    public long? OpenCard { get; private set; }
    public IReadOnlyList<Service> Services { get; private set; } = [];
    public IReadOnlyList<Mark> LifeLine { get; private set; } = [];

    public IActionResult OnGet(string plate)
    {
        if (vehicles.Find(plate) is not { } vehicle)
            return NotFound();
        Vehicle = vehicle;
        ModelName = sheets.Newest(vehicle.SheetId)?.FullName ?? vehicle.SheetId;
        Odometer = vehicles.Odometer(plate).FirstOrDefault() is { } o ? $"{LiftWords.Odometer(o.Reading, viewer.DistanceUnit)} on {clock.Local(o.At):d MMMM}" : "";
        var all = cards.OfVehicle(plate);
        OpenCard = all.FirstOrDefault(c => c.SignedAt is null)?.Id;
        var signed = all.Where(c => c.SignedAt is not null).Select(c => (Entry: c, Card: cards.Find(c.Id)!)).ToList();
        Services = [.. signed.Select(s => Line(s.Entry, s.Card))];
        LifeLine = Draw(signed);
        return Page();
    }

    private Service Line(CardEntry entry, JobCard card) => new(entry.Id, $"{clock.Local(entry.SignedAt!.Value):d MMM yyyy}", LiftWords.Odometer(card.Opened.Odometer, viewer.DistanceUnit),
        string.Join(", ", card.Opened.Jobs.Select(j => card.Sheet.Jobs[j].Name)),
        string.Join(", ", card.FluidsWanted.Select(f => $"{card.Fluid(f.Id).Poured.Print(viewer.VolumeUnits[0])} {card.OilInHand(f.Id)?.Product}")),
        card.Signature!.By.Name, RingDrawing.Of(card), [.. card.Deviations.Select(d => d.Event.What)]);

    private List<Mark> Draw(List<(CardEntry Entry, JobCard Card)> signed)
    {
        if (signed.Count == 0)
            return [];
        var due = ((Signed)signed[0].Card.Signature!.Event).Due.MinBy(d => d.Next.By ?? DateOnly.MaxValue)!.Next;
        // The line has room for seven labels; older services stay in the list below.
        var points = signed.Take(6).Reverse().Select(s => (At: DateOnly.FromDateTime(clock.Local(s.Entry.SignedAt!.Value).DateTime), Odometer: s.Card.Opened.Odometer, IsDue: false))
            .ToList();
        if (due.By is { } by)
            points.Add((by, due.At ?? signed[0].Card.Opened.Odometer, true));
        var (first, last) = (points[0].At.DayNumber, points[^1].At.DayNumber);
        return [.. points.Select(p => new Mark((80 + 840.0 * (p.At.DayNumber - first) / Math.Max(1, last - first)).ToString("0.#", CultureInfo.InvariantCulture),
            $"{(p.IsDue ? "due " : "")}{p.At:d MMM yy}", LiftWords.Odometer(p.Odometer, viewer.DistanceUnit), p.IsDue))];
    }
}
