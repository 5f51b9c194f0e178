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
        var history = knowing ?? vehicles.History(vehicle.Plate, clock.Day);
        var mark = now ?? (history.LastMark is { } last ? last with { Day = clock.Today } : new UseMark(default, clock.Today));
        var done = vehicles.LastDone(vehicle.Plate)[vehicle.Plate]
            .ToDictionary(d => d.Job, d => d.Done with { Odometer = history.Carried(d.Done.Odometer) });
        var items = ServiceItem.Of(sheet, vehicle.Use, vehicles.OwnRules(vehicle.Plate));
        var times = vehicles.TimesSince(items.Where(i => i.Counts is not null).Select(i => (sheet.Id, i.Job, i.Counts!.Job)),
            vehicle.Plate);
        var past = history.PastOf(vehicle);
        return new(vehicle, sheet, mark, history.Use,
            [.. ServiceItem.Of(items, mark, [.. items.Select(i => done.TryGetValue(i.Job, out var d) ? d : (UseMark?)null)], past, Window,
                [.. items.Select(i => times.GetValueOrDefault((vehicle.Plate, i.Job)))])
                .OrderByDescending(s => s.State)], history, past);
    }
}
