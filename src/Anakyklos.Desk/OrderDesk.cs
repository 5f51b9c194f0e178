using Anakyklos.Core.Composing;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Storage;
using Anakyklos.Desk.Files;

namespace Anakyklos.Desk;

/// <summary>The week's needs over all planned cards, as one order list.</summary>
public sealed class OrderDesk(CardStore cards, ShelfStore shelf, FleetBook fleet, DueDesk desk, ISupplier supplier,
    WorkshopClock clock)
{
    private const int Week = 7;

    /// <summary>What has to be ordered: for open cards whose kit is not laid out, and for what falls due within a week.</summary>
    public IReadOnlyList<OrderLine> Lines()
    {
        var stores = shelf.Read();
        var wants = new List<PlannedWork>();
        foreach (var entry in cards.Unsigned())
            if (cards.Find(entry.Id) is { Kit: null } card)
                wants.Add(new($"card {entry.Id}, {entry.Plate}", card.Sheet, card.Jobs, card.Steps));
        var busy = cards.Unsigned().Select(c => c.Plate).ToHashSet();
        // What falls due within a week is near already; the pass over the fleet leaves few to look at closely.
        foreach (var vehicle in fleet.ByUrgency().Where(v => v.Standing.Overdue + v.Standing.Due + v.Standing.Soon > 0
            && !busy.Contains(v.Vehicle.Plate)).Select(v => v.Vehicle).OrderBy(v => v.Plate, StringComparer.Ordinal))
            if (desk.Of(vehicle) is { } s && s.Items.Where(i => i.IsDue || Core.Due.DueDay.Of(i, s.Now, s.Use) is { } due
                && due.Day <= clock.Today.AddDays(Week) && i.State >= Core.Due.DueState.NotYet).Select(i => i.Item.Job)
                .ToList() is { Count: > 0 } jobs)
                wants.Add(new(vehicle.Plate, s.Sheet, jobs, CardComposer.Compose(s.Sheet, jobs).Steps));
        return OrderList.Of(wants, stores, clock.Today, number => supplier.Arrives(number, clock.Now, stores));
    }

    /// <summary>The list as a file.</summary>
    public string Write() => CsvTable.Write(["number or product", "what", "missing", "unit", "for", "boat"],
        Lines().Select(l => new[] { l.Number, l.Name, l.Count is { } n ? $"{n}" : $"{l.Amount!.Value.In(Volume.Litre):0.##}",
            l.Count is null ? "L" : "pieces", string.Join("; ", l.For), l.Boat?.ToString("yyyy-MM-dd") ?? "" }));
}
