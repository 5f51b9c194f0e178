using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>The week's needs over all planned cards, as one order list; worked out again once something of it has changed.</summary>
public sealed class OrderDesk(CardStore cards, SheetStore sheets, ShelfStore shelf, FleetBook fleet, WeekDesk weeks, WorkAhead ahead,
    WorkshopClock clock)
{
    private const int Days = 7, NextBoat = 4;

    private readonly Lock _working = new();
    private (string Stamp, IReadOnlyList<VehicleInFleet> Fleet, WorkshopWeek Week, IReadOnlyList<OrderLine> Lines)? _known;

    /// <summary>What has to be ordered: for open cards whose kit is not laid out, for the visits that are planned within a week, and for
    /// what falls due within a week and finds no place.</summary>
    public IReadOnlyList<OrderLine> Lines()
    {
        lock (_working)
        {
            var (open, all, week) = (cards.Unsigned(), fleet.ByUrgency(), weeks.Week());
            var stamp = $"{clock.Today} {shelf.Stamp()} {string.Join(' ', open.Select(c => $"{c.Id}.{cards.HeadHash(c.Id)}"))}";
            if (_known is { } known && known.Stamp == stamp && ReferenceEquals(known.Fleet, all) && ReferenceEquals(known.Week, week))
                return known.Lines;
            var lines = ahead.Lines([.. ahead.OfCards(open), .. Visits(open, all, week).OrderBy(w => w.For, StringComparer.Ordinal)]);
            _known = (stamp, all, week, lines);
            return lines;
        }
    }

    private IEnumerable<PlannedWork> Visits(IReadOnlyList<CardEntry> open, IReadOnlyList<VehicleInFleet> all, WorkshopWeek week)
    {
        var models = sheets.Newest().ToDictionary(m => m.Id);
        var seen = open.Select(c => c.Plate).Concat(week.Dropped.Select(d => d.Plate)).ToHashSet();
        // What comes later is ordered for as well where the boat after the next would be too late.
        foreach (var v in week.Visits.Where(v => v.Of.Wish.Jobs.Count > 0 && v.Slot is { } s
            && (s.Day < Days || week.Days[s.Day].Date <= v.Boat?.AddDays(NextBoat))))
        {
            seen.Add(v.Plate);
            yield return ahead.Of(v.Plate, v.Of.Sheet, v.Of.Wish.Jobs);
        }
        seen.UnionWith(week.Visits.Where(v => v.Slot is not null).Select(v => v.Plate));
        foreach (var v in all.Where(v => v.ThisWeek.Count > 0 && !seen.Contains(v.Vehicle.Plate)))
            if (models.TryGetValue(v.Vehicle.SheetId, out var sheet))
                yield return ahead.Of(v.Vehicle.Plate, sheet, v.ThisWeek);
    }

    /// <summary>The list as a file.</summary>
    public string Write() => CsvTable.Write(["number or product", "what", "missing", "unit", "for", "comes"],
        Lines().Select(l => new[] { l.Number, l.Name, l.Count is { } n ? $"{n}" : $"{l.Amount!.Value.In(Volume.Litre):0.##}",
            l.Count is null ? "L" : "pieces", string.Join("; ", l.For), l.Boat?.ToString("yyyy-MM-dd") ?? "" }));
}
