using System.Collections.Concurrent;
using Anakyklos.Core.Composing;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Storage;
using Anakyklos.Desk.Files;

namespace Anakyklos.Desk;

/// <summary>The week's needs over all planned cards, as one order list; worked out again once something of it has changed.</summary>
public sealed class OrderDesk(CardStore cards, SheetStore sheets, ShelfStore shelf, FleetBook fleet, ISupplier supplier,
    WorkshopClock clock)
{
    private readonly Lock _working = new();
    private readonly ConcurrentDictionary<string, PlannedWork> _composed = new();
    private (string Stamp, IReadOnlyList<VehicleInFleet> Fleet, IReadOnlyList<OrderLine> Lines)? _known;

    /// <summary>What has to be ordered: for open cards whose kit is not laid out, and for what falls due within a week.</summary>
    public IReadOnlyList<OrderLine> Lines()
    {
        lock (_working)
        {
            var open = cards.Unsigned();
            var all = fleet.ByUrgency();
            var stamp = $"{clock.Today} {shelf.Stamp()} {string.Join(' ', open.Select(c => $"{c.Id}.{cards.HeadHash(c.Id)}"))}";
            if (_known is { } known && known.Stamp == stamp && ReferenceEquals(known.Fleet, all))
                return known.Lines;
            var stores = shelf.Read();
            var lines = OrderList.Of([.. Ahead(open, all)], stores, clock.Today, number => supplier.Arrives(number, clock.Now, stores));
            _known = (stamp, all, lines);
            return lines;
        }
    }

    private IEnumerable<PlannedWork> Ahead(IReadOnlyList<CardEntry> open, IReadOnlyList<VehicleInFleet> all)
    {
        foreach (var entry in open)
            if (cards.Find(entry.Id) is { Kit: null } card)
                yield return new($"card {entry.Id}, {entry.Plate}", card.Sheet, card.Jobs, card.Steps);
        var busy = open.Select(c => c.Plate).ToHashSet();
        var models = sheets.Newest().ToDictionary(m => m.Id);
        foreach (var v in all.Where(v => v.ThisWeek.Count > 0 && !busy.Contains(v.Vehicle.Plate))
            .OrderBy(v => v.Vehicle.Plate, StringComparer.Ordinal))
            if (models.TryGetValue(v.Vehicle.SheetId, out var sheet))
                yield return Composed(sheet, v.ThisWeek) with { For = v.Vehicle.Plate };
    }

    // Vehicles of one model with the same jobs need the same.
    private PlannedWork Composed(ModelSheet sheet, IReadOnlyList<JobId> jobs) =>
        _composed.GetOrAdd($"{sheet.Id} {sheet.Revision} {string.Join(' ', jobs)}",
            _ => new("", sheet, jobs, CardComposer.Compose(sheet, jobs).Steps));

    /// <summary>The list as a file.</summary>
    public string Write() => CsvTable.Write(["number or product", "what", "missing", "unit", "for", "boat"],
        Lines().Select(l => new[] { l.Number, l.Name, l.Count is { } n ? $"{n}" : $"{l.Amount!.Value.In(Volume.Litre):0.##}",
            l.Count is null ? "L" : "pieces", string.Join("; ", l.For), l.Boat?.ToString("yyyy-MM-dd") ?? "" }));
}
