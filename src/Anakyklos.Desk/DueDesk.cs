using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>How a vehicle stands today.</summary>
/// <param name="Vehicle">The vehicle.</param>
/// <param name="Sheet">Its sheet.</param>
/// <param name="Now">Reading, day and hours.</param>
/// <param name="Use">Its use a day, or null.</param>
/// <param name="Items">All its jobs.</param>
/// <param name="Readings">The readings its use is worked out from, newest first.</param>
public sealed record VehicleStanding(Vehicle Vehicle, ModelSheet Sheet, UseMark Now, DailyUse? Use, IReadOnlyList<Standing> Items,
    IReadOnlyList<UseMark> Readings);

/// <summary>Brings together what is stored of a vehicle with what the core knows about its jobs.</summary>
public sealed class DueDesk(VehicleStore vehicles, SheetStore sheets, WorkshopClock clock)
{
    /// <summary>What counts as near.</summary>
    public DueWindow Window => DueWindow.Usual;

    /// <summary>How a vehicle stands; null when its model has no sheet.</summary>
    /// <param name="vehicle">The vehicle.</param>
    /// <param name="now">A newer reading than those stored, or null.</param>
    public VehicleStanding? Of(Vehicle vehicle, UseMark? now = null)
    {
        if (sheets.Newest(vehicle.SheetId) is not { } sheet)
            return null;
        var readings = vehicles.Odometer(vehicle.Plate);
        // After an exchanged odometer only what it showed itself tells the use.
        var since = readings.TakeWhile((r, i) => i == 0 || readings[i - 1].Reason.Length == 0)
            .Select(r => new UseMark(r.Reading, clock.Day(r.At), r.Hours)).ToList();
        var mark = now ?? (since.Count > 0 ? since[0] with { Day = clock.Today } : new UseMark(default, clock.Today));
        var last = vehicles.LastDone(vehicle.Plate)[vehicle.Plate].ToDictionary(d => d.Job, d => d.Done);
        var items = ServiceItem.Of(sheet, vehicle.Use, vehicles.OwnRules(vehicle.Plate));
        return new(vehicle, sheet, mark, DailyUse.From(since),
            [.. ServiceItem.Of(items, mark, [.. items.Select(i => last.TryGetValue(i.Job, out var done) ? done : (UseMark?)null)],
                vehicle.Past, Window).OrderByDescending(s => s.State)], since);
    }

    /// <summary>The whole fleet in one pass.</summary>
    public IReadOnlyList<FleetRow> Fleet()
    {
        var (all, done, newest, rules) = (vehicles.All(), vehicles.LastDone(), vehicles.Newest(), vehicles.OwnRules());
        var items = new Dictionary<(SheetId, Use), IReadOnlyList<ServiceItem>>();
        var fleet = new List<FleetVehicle>();
        foreach (var v in all)
        {
            if (sheets.Newest(v.SheetId) is not { } sheet)
                continue;
            IReadOnlyList<OwnRule> own = [.. rules[""], .. rules[v.Plate]];
            if (rules.Contains(v.Plate) || !items.TryGetValue((v.SheetId, v.Use), out var known))
                known = ServiceItem.Of(sheet, v.Use, own);
            if (!rules.Contains(v.Plate))
                items[(v.SheetId, v.Use)] = known;
            var last = done[v.Plate].ToDictionary(d => d.Job, d => d.Done);
            var reading = newest.GetValueOrDefault(v.Plate);
            fleet.Add(new(v.Plate, known, [.. known.Select(i => last.TryGetValue(i.Job, out var d) ? d : (UseMark?)null)],
                new(reading?.Reading ?? default, clock.Today, reading?.Hours), v.Past));
        }
        return FleetCheck.Of(fleet, Window);
    }
}
