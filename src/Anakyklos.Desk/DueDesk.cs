using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
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
public sealed record VehicleStanding(Vehicle Vehicle, ModelSheet Sheet, UseMark Now, DailyUse? Use, IReadOnlyList<Standing> Items,
    OdometerHistory History)
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
    /// <param name="exchanged">An odometer that was exchanged before that newer reading, and is not stored yet; or null.</param>
    /// <param name="right">A reading that is put right just now, and what it was; or null.</param>
    public VehicleStanding? Of(Vehicle vehicle, UseMark? now = null, ExchangedClock? exchanged = null,
        (OdometerReading Of, Quantity<Distance> Now)? right = null)
    {
        if (sheets.Newest(vehicle.SheetId) is not { } sheet)
            return null;
        var history = vehicles.History(vehicle.Plate, clock.Day);
        if (exchanged is not null)
            history = new(history.Readings, [.. history.Exchanged, exchanged], clock.Day);
        if (right is var (wrong, was))
            history = new([.. history.Readings.Select(r => r == wrong ? r with { Reading = was } : r)], history.Exchanged, clock.Day);
        var mark = now ?? (history.LastMark is { } last ? last with { Day = clock.Today } : new UseMark(default, clock.Today));
        var apart = exchanged?.Apart ?? Quantity<Distance>.Zero;
        var done = vehicles.LastDone(vehicle.Plate)[vehicle.Plate]
            .ToDictionary(d => d.Job, d => d.Done with
            {
                Odometer = right is { } r && d.Done.Odometer == r.Of.Reading ? r.Now : d.Done.Odometer + apart,
            });
        var items = ServiceItem.Of(sheet, vehicle.Use, vehicles.OwnRules(vehicle.Plate));
        return new(vehicle, sheet, mark, history.Use,
            [.. ServiceItem.Of(items, mark, [.. items.Select(i => done.TryGetValue(i.Job, out var d) ? d : (UseMark?)null)],
                PastOf(vehicle, history), Window).OrderByDescending(s => s.State)], history);
    }

    // Delivered with nothing on the odometer that it had then.
    private static VehiclePast PastOf(Vehicle vehicle, OdometerHistory history) => vehicle.Past with
    {
        Delivered = vehicle.Past.Delivered with { Odometer = history.OnThisClock(Quantity<Distance>.Zero, DateTimeOffset.MinValue) },
    };
}
