using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Due;

/// <summary>A trip ahead.</summary>
/// <param name="Length">There and back.</param>
/// <param name="Leaves">The day it begins; today or later.</param>
/// <param name="Days">Days until it is back in the workshop's reach; 0 or more.</param>
public sealed record Trip(Quantity<Distance> Length, DateOnly Leaves, int Days);

/// <summary>A job that would run over on a trip.</summary>
/// <param name="Standing">Where it stands now.</param>
/// <param name="Distance">How far over by distance on return, or null when it is not over by distance.</param>
/// <param name="Days">How many days over on return, or null.</param>
/// <param name="GivenAway">The part of its interval, 0 to 1, that is given away when it is done now instead.</param>
public sealed record TripItem(Standing Standing, Quantity<Distance>? Distance, int? Days, decimal GivenAway);

/// <summary>What a trip would run over.</summary>
public static class TripCheck
{
    /// <summary>The jobs that are neither due nor overdue now and would be overdue before the vehicle is back, nearest first.</summary>
    /// <param name="items">All its jobs as they stand now.</param>
    /// <param name="now">Where it stands today.</param>
    /// <param name="past">Its life before, for what was never done.</param>
    /// <param name="use">Its use until it leaves; null when not known, then none is assumed.</param>
    /// <param name="trip">The trip.</param>
    /// <returns>Empty when nothing would run over.</returns>
    public static IReadOnlyList<TripItem> Of(IEnumerable<Standing> items, UseMark now, VehiclePast past, DailyUse? use, Trip trip)
    {
        var leaves = trip.Leaves < now.Day ? now.Day : trip.Leaves;
        var before = use?.On(now, leaves) ?? now with { Day = leaves };
        var (reading, day) = (before.Odometer + trip.Length, leaves.AddDays(trip.Days));
        return [.. items.Where(s => s.State is DueState.NotYet or DueState.Soon).Where(s => reading > s.At || day > s.By)
            .Select(s => new TripItem(s, reading > s.At ? reading - s.At : null, day > s.By ? day.DayNumber - s.By!.Value.DayNumber : null,
                ServiceItem.Unused(s, now, s.Last ?? past.Delivered)))
            .OrderBy(t => t.GivenAway)];
    }
}
