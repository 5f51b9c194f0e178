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
/// <param name="History">What was read of its odometers.</param>
/// <param name="Past">Its life before any job was done.</param>
public sealed record VehicleStanding(Vehicle Vehicle, ModelSheet Sheet, UseMark Now, DailyUse? Use, IReadOnlyList<Standing> Items,
    OdometerHistory History, VehiclePast Past)
{
    /// <summary>The readings its use is worked out from, newest first.</summary>
    public IReadOnlyList<UseMark> Readings => History.Marks;
}

/// <summary>Brings together what is stored of a vehicle with what the core knows about its jobs.</summary>
public sealed class DueDesk(VehicleStore vehicles, SheetStore sheets, WorkshopClock clock)
{
    /// <summary>What counts as near.</summary>
    public DueWindow Window => DueWindow.Usual;

    /// <summary>How a vehicle stands; null when its model has no sheet.</summary>
    /// <param name="vehicle">The vehicle.</param>
    /// <param name="now">A newer reading than those stored, or null.</param>
    /// <param name="knowing">What was read of its odometers, with what is told just now; null for what is noted.</param>
    public VehicleStanding? Of(Vehicle vehicle, UseMark? now = null, OdometerHistory? knowing = null)
    {
        if (sheets.Newest(vehicle.SheetId) is not { } sheet)
            return null;
        return Stands(vehicle, sheet, now, knowing ?? vehicles.History(vehicle.Plate, clock.Day),
            vehicles.LastDone(vehicle.Plate)[vehicle.Plate], vehicles.OwnRules(vehicle.Plate),
            vehicles.TimesSince(Counting([sheet]), vehicle.Plate));
    }

    /// <summary>How every vehicle stands whose model has a sheet.</summary>
    /// <returns>By plate.</returns>
    public IReadOnlyList<VehicleStanding> OfAll()
    {
        var models = sheets.Newest().ToDictionary(s => s.Id);
        var (done, read, rules) = (vehicles.LastDone(), vehicles.Histories(clock.Day), vehicles.OwnRules());
        var times = vehicles.TimesSince(Counting(models.Values));
        return [.. vehicles.All().Where(v => models.ContainsKey(v.SheetId)).Select(v => Stands(v, models[v.SheetId], null,
            read.GetValueOrDefault(v.Plate) ?? new([], [], clock.Day), done[v.Plate], [.. rules[""], .. rules[v.Plate]], times))];
    }

    /// <summary>The jobs of sheets that count how often another was done.</summary>
    internal static IEnumerable<(SheetId, JobId, JobId)> Counting(IEnumerable<ModelSheet> of) => of.SelectMany(s => s.Jobs.Values
        .Where(j => s.Intervals[j.Interval].Of is not null).Select(j => (s.Id, j.Id, s.Intervals[j.Interval].Of!.Value)));

    private VehicleStanding Stands(Vehicle vehicle, ModelSheet sheet, UseMark? now, OdometerHistory history, IEnumerable<DoneJob> last,
        IReadOnlyList<OwnRule> own, IReadOnlyDictionary<(string Plate, JobId Job), int> times)
    {
        var mark = now ?? (history.LastMark is { } read ? read with { Day = clock.Today } : new UseMark(default, clock.Today));
        var done = last.ToDictionary(d => d.Job, d => d.Done with { Odometer = history.Carried(d.Done.Odometer) });
        var items = ServiceItem.Of(sheet, vehicle.Use, own);
        var past = history.PastOf(vehicle);
        return new(vehicle, sheet, mark, history.Use,
            [.. ServiceItem.Of(items, mark, [.. items.Select(i => done.TryGetValue(i.Job, out var d) ? d : (UseMark?)null)], past, Window,
                [.. items.Select(i => times.GetValueOrDefault((vehicle.Plate, i.Job)))])
                .OrderByDescending(s => s.State)], history, past);
    }
}
