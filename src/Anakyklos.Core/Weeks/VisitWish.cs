using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Weeks;

/// <summary>What a vehicle should come for in one visit.</summary>
/// <param name="Jobs">The jobs, in the order of the proposal at intake; none where only something has to be looked at.</param>
/// <param name="Wishes">Why, the most urgent first.</param>
public sealed record VisitWish(IReadOnlyList<JobId> Jobs, IReadOnlyList<Wish> Wishes)
{
    private const int BeforeTrip = 3, AfterMessage = 7;

    /// <summary>Everything that falls due until a day, and what a trip, the dash or anything else asks for, in one visit; with it what is
    /// near by then.</summary>
    /// <param name="items">All jobs of the vehicle as they stand today.</param>
    /// <param name="now">Where it stands today.</param>
    /// <param name="past">Its life before.</param>
    /// <param name="use">Its use a day, or null.</param>
    /// <param name="scheme">What its dash can show.</param>
    /// <param name="code">What the dash shows, as somebody told; empty for nothing.</param>
    /// <param name="trip">A trip ahead, or null.</param>
    /// <param name="others">What else asks for it.</param>
    /// <param name="until">The last day that counts.</param>
    /// <param name="window">What counts as near.</param>
    /// <returns>Null where nothing asks for it until then.</returns>
    public static VisitWish? Of(IReadOnlyList<Standing> items, UseMark now, VehiclePast past, DailyUse? use, DashScheme scheme, string code,
        Trip? trip, IReadOnlyList<Wish> others, DateOnly until, DueWindow window)
    {
        var then = use?.On(now, until) ?? now with { Day = until };
        var later = ServiceItem.Of([.. items.Select(i => i.Item)], then, [.. items.Select(i => i.Last)], past, window,
            [.. items.Select(i => i.Visits?.Done ?? 0)]).ToList();
        var trips = trip is null ? [] : TripCheck.Of(items, now, past, use, trip);
        var proposal = Proposal.Of(later, then, past, scheme, new(code, null, null), trips);
        var today = items.ToDictionary(i => i.Item.Job);
        var chosen = proposal.Jobs.Where(j => j.Proposed || j.Because == Because.DashAlone).ToList();
        var wishes = chosen.Select(Wanted).Concat(others)
            .OrderBy(w => w.Because == WishBecause.Near).ThenBy(w => w.By).ThenBy(w => w.From).ToList();
        return wishes.All(w => w.Because == WishBecause.Near) ? null : new([.. chosen.Select(j => j.Standing.Item.Job)], wishes);

        Wish Wanted(ProposedJob job)
        {
            var item = job.Standing.Item;
            var due = DueDay.Of(today[item.Job], now, use);
            var asked = proposal.Message?.Jobs.Contains(item.Job) == true;
            if (job.Trip is not null && !(due?.Day < trip!.Leaves))
                return new(WishBecause.Trip, item.Name, item.Job, trip.Leaves.AddDays(-BeforeTrip), trip.Leaves.AddDays(-1));
            if (asked && !(due?.Day < now.Day.AddDays(AfterMessage)))
                return new(WishBecause.Message, item.Name, item.Job, now.Day, now.Day.AddDays(AfterMessage));
            if (job.Because == Because.Near)
                return new(WishBecause.Near, item.Name, item.Job, due?.Earliest ?? until, due?.Day ?? until);
            var by = due?.Day ?? until;
            return new(today[item.Job].State == DueState.Unknown ? WishBecause.NotKnown : WishBecause.Due, item.Name, item.Job,
                due?.Earliest ?? by, by);
        }
    }
}
