using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Due;

/// <summary>Whose rule makes a job due.</summary>
public enum RuleOf
{
    /// <summary>The maker's interval for the vehicle's use.</summary>
    Maker,

    /// <summary>The maker's upper bound, whatever the dash says.</summary>
    UpperBound,

    /// <summary>The depot's own rule.</summary>
    Depot,

    /// <summary>The owner's own rule.</summary>
    Owner,

    /// <summary>What was seen at the last service: half the interval, once.</summary>
    Wear,

    /// <summary>So many times of another job, as they were done.</summary>
    Visits,
}

/// <summary>A rule of the depot or of a vehicle's owner beside the maker's; it never lengthens an interval, since the shorter one
/// counts.</summary>
/// <param name="Job">Job id.</param>
/// <param name="Interval">The interval.</param>
/// <param name="Of">Whose it is.</param>
public sealed record OwnRule(JobId Job, ServiceInterval Interval, RuleOf Of);

/// <summary>How near something must be to be offered together with what is due.</summary>
/// <param name="Distance">Distance left.</param>
/// <param name="Days">Days left.</param>
/// <param name="Hours">Running hours left.</param>
public sealed record DueWindow(Quantity<Distance> Distance, int Days, int Hours)
{
    /// <summary>1,000 km, 30 days or 20 hours.</summary>
    public static DueWindow Usual { get; } = new(Quantity<Quantities.Distance>.Of(1000, Quantities.Distance.Kilometre), 30, 20);
}

/// <summary>What is known of a vehicle's life before any job is looked at.</summary>
/// <param name="Delivered">Where it stood when it was delivered; intervals of what was never done count from here.</param>
/// <param name="IsUnknown">Nobody knows what was done: whatever is not on record counts as due.</param>
public readonly record struct VehiclePast(UseMark Delivered, bool IsUnknown = false);

/// <summary>One job of a vehicle with all the rules that make it due. The same for all vehicles of a model, use and owner.</summary>
public sealed class ServiceItem
{
    // A first check whose time went by twice over is not caught up on any more: what it looks at has long been looked at.
    private const int LapsesAfter = 3;

    // What should have been looked at again after so many times its distance has held.
    private const int FollowsFor = 20;

    private readonly (ServiceInterval Interval, RuleOf Of)[] _rules;

    /// <summary>An item with its rules.</summary>
    /// <param name="job">Job id.</param>
    /// <param name="name">Its name.</param>
    /// <param name="rules">At least one; of each measure the shortest counts.</param>
    /// <param name="once">Done once in a life, such as a first check.</param>
    /// <param name="follows">The job after which it is due, once each time; null for one that is due by itself.</param>
    /// <param name="counts">The job whose times it counts, and how many of them make it due; null where it counts none.</param>
    public ServiceItem(JobId job, string name, IEnumerable<(ServiceInterval, RuleOf)> rules, bool once = false, JobId? follows = null,
        CountedJob? counts = null) => (Job, Name, _rules, Once, Follows, Counts) = (job, name, [.. rules], once, follows, counts);

    /// <summary>The job whose times it counts, and how many of them make it due; null where it counts none.</summary>
    public CountedJob? Counts { get; }

    /// <summary>Job id.</summary>
    public JobId Job { get; }

    /// <summary>Name of the job.</summary>
    public string Name { get; }

    /// <summary>Whether it is done once in a life only.</summary>
    public bool Once { get; }

    /// <summary>The job after which it is due, once each time, such as the re-check of wheel bolts; null for one that is due by
    /// itself.</summary>
    public JobId? Follows { get; }

    /// <summary>The items of a model.</summary>
    /// <param name="sheet">The model's sheet.</param>
    /// <param name="use">How hard the vehicle is used.</param>
    /// <param name="own">Rules of the depot and the owner.</param>
    /// <returns>One item a job, in the order of the sheet.</returns>
    public static IReadOnlyList<ServiceItem> Of(ModelSheet sheet, Use use, IReadOnlyList<OwnRule> own)
    {
        return [.. sheet.Jobs.Values.Select(Item)];

        ServiceItem Item(Job job)
        {
            var rule = sheet.Intervals[job.Interval];
            if (rule.Of is not { } of)
                return new(job.Id, job.Name, Rules(job, rule), rule.Once, job.Follows);
            // As long as nothing else is known, each of those times comes at the end of its own interval.
            var counted = new ServiceItem(of, sheet.Jobs[of].Name, Rules(sheet.Jobs[of], sheet.Intervals[sheet.Jobs[of].Interval]));
            var (every, _, months, _) = counted.Shortest(false);
            var times = new ServiceInterval(every, months, counted.ShortestHours).Times(rule.EveryTime);
            return new(job.Id, job.Name, [.. Rules(job, rule), (times, RuleOf.Visits)], rule.Once, job.Follows,
                new(of, counted.Name, rule.EveryTime));
        }

        IEnumerable<(ServiceInterval, RuleOf)> Rules(Job job, IntervalRule rule) =>
        [
            (rule.For(use).Times(rule.EveryTime), RuleOf.Maker),
            .. rule.Upper is { } upper ? [(upper, RuleOf.UpperBound)] : Array.Empty<(ServiceInterval, RuleOf)>(),
            .. own.Where(o => o.Job == job.Id).Select(o => (o.Interval, o.Of)),
        ];
    }

    private int? ShortestHours => _rules.Min(r => r.Interval.Hours);

    /// <summary>When it is due next after being done, by the shortest of its rules in each measure.</summary>
    /// <param name="done">Where the vehicle stood then.</param>
    /// <returns>Each limit as its rule gives it, the earliest of those that apply.</returns>
    public NextDue After(in UseMark done)
    {
        var next = Shortest(done);
        return new(next.At, next.By, next.Hours);
    }

    /// <summary>How far and for how long it may go until it is due next: of each measure the shortest of its rules.</summary>
    /// <param name="shortened">Whether what was seen asks for it again after half its interval.</param>
    /// <returns>Each measure with whose rule it is; null where none counts.</returns>
    public (Quantity<Distance>? Every, RuleOf EveryOf, int? Months, RuleOf MonthsOf) Shortest(bool shortened)
    {
        var (every, everyOf, months, monthsOf) = ((Quantity<Distance>?)null, RuleOf.Maker, (int?)null, RuleOf.Maker);
        foreach (var (whole, rule) in _rules)
        {
            var (interval, of) = shortened ? (whole.Half, RuleOf.Wear) : (whole, rule);
            if (interval.Every is { } e && (every is null || e < every))
                (every, everyOf) = (e, of);
            if (interval.Months is { } m && (months is null || m < months))
                (months, monthsOf) = (m, of);
        }
        return (every, everyOf, months, monthsOf);
    }

    /// <summary>Where the item stands.</summary>
    /// <param name="now">Where the vehicle stands.</param>
    /// <param name="last">Where it stood when the job was last really done, or null.</param>
    /// <param name="past">Its life before.</param>
    /// <param name="window">What counts as near.</param>
    /// <returns>How it stands, with what is left and which rule counts.</returns>
    public Standing At(in UseMark now, in UseMark? last, in VehiclePast past, DueWindow window)
    {
        if (Once && last is not null)
            return new(this, DueState.Done, null, null, null, default, default, default, last);
        if (last is null && past.IsUnknown)
            return new(this, Once ? DueState.Done : DueState.Unknown, null, null, null, default, default, default, null);
        var from = last ?? past.Delivered;
        var (at, by, hours, atOf, byOf, hoursOf) = Shortest(from);
        if (Once && Lapsed(now, past.Delivered))
            return new(this, DueState.Done, null, null, null, default, default, default, null);
        return new(this, State(now, at, by, hours, window), at, by, hours, atOf, byOf, hoursOf, last);
    }

    private static DueState State(in UseMark now, Quantity<Distance>? at, DateOnly? by, int? hours, DueWindow window) =>
        now.Odometer > at || now.Day > by || now.Hours > hours ? DueState.Overdue
            : now.Odometer == at || now.Day == by || (hours is { } run && now.Hours == run) ? DueState.Due
            : now.Odometer + window.Distance >= at || now.Day.DayNumber + window.Days >= by?.DayNumber || now.Hours + window.Hours >= hours
                ? DueState.Soon
            : DueState.NotYet;

    /// <summary>Where each item of a vehicle stands.</summary>
    /// <param name="items">The items of its model.</param>
    /// <param name="now">Where the vehicle stands.</param>
    /// <param name="last">When each was last really done, in the same order; null for never.</param>
    /// <param name="past">Its life before.</param>
    /// <param name="window">What counts as near.</param>
    /// <param name="times">How often the job that each counts was done since it was itself, in the same order; null where nobody
    /// counted.</param>
    /// <returns>In the same order.</returns>
    public static IReadOnlyList<Standing> Of(IReadOnlyList<ServiceItem> items, in UseMark now, IReadOnlyList<UseMark?> last,
        in VehiclePast past, DueWindow window, IReadOnlyList<int>? times = null)
    {
        var standings = new Standing[items.Count];
        for (var i = 0; i < standings.Length; i++)
            standings[i] = items[i].Follows is { } before ? items[i].After(now, last[i], LastOf(before), window)
                : items[i].At(now, last[i], past, window);
        for (var i = 0; i < standings.Length && times is not null; i++)
            if (items[i].Counts is { } counts && standings[i].State is not (DueState.Done or DueState.Unknown)
                && IndexOf(counts.Job) is var at and >= 0)
                standings[i] = items[i].Counted(standings[i], counts, times[i], standings[at], now, last[i] ?? past.Delivered, window);
        return standings;

        int IndexOf(JobId job)
        {
            for (var i = 0; i < items.Count; i++)
                if (items[i].Job == job)
                    return i;
            return -1;
        }

        UseMark? LastOf(JobId job)
        {
            for (var i = 0; i < items.Count; i++)
                if (items[i].Job == job)
                    return last[i];
            return null;
        }
    }

    // With the times that the other job was really done: due with the one that is the last of them, or since it, where that went by.
    private Standing Counted(in Standing planned, CountedJob counts, int done, in Standing other, in UseMark now, in UseMark from,
        DueWindow window)
    {
        var (at, by, hours, atOf, byOf, hoursOf) = Shortest(from, r => r != RuleOf.Visits);
        var left = counts.Every - done;
        var (visitAt, visitBy, visitHours) = left > 0 ? Ahead(other, left - 1)
            : (other.Last?.Odometer, other.Last?.Day, other.Last?.Hours);
        var own = new NextDue(at, by, hours);
        if (visitAt is { } reading && (at is null || reading < at))
            (at, atOf) = (reading, RuleOf.Visits);
        if (visitBy is { } day && (by is null || day < by))
            (by, byOf) = (day, RuleOf.Visits);
        if (visitHours is { } run && (hours is null || run < hours))
            (hours, hoursOf) = (run, RuleOf.Visits);
        return planned with
        {
            State = State(now, at, by, hours, window),
            At = at, By = by, AtHours = hours, AtOf = atOf, ByOf = byOf, HoursOf = hoursOf,
            Visits = new(counts, done, own),
        };

        static (Quantity<Distance>?, DateOnly?, int?) Ahead(in Standing other, int more)
        {
            var (every, _, months, _) = other.Item.Shortest(false);
            return (other.At + (every ?? default) * more, other.By?.AddMonths((months ?? 0) * more),
                other.AtHours + (other.Item.ShortestHours ?? 0) * more);
        }
    }

    // Due once after each time that the other was done, by what was driven since: done at the same odometer reading, it proved nothing.
    // What was not done for long has held, and is nothing to catch up on.
    private Standing After(in UseMark now, in UseMark? last, in UseMark? followed, DueWindow window)
    {
        var nothing = new Standing(this, DueState.Done, null, null, null, default, default, default, last);
        if (followed is not { } from || (last is { } again && again.Odometer > from.Odometer && again.Day >= from.Day))
            return nothing;
        foreach (var (interval, _) in _rules)
            if (now.Odometer - from.Odometer > interval.Every * FollowsFor)
                return nothing;
        return At(now, from, default, window) with { Last = last };
    }

    private (Quantity<Distance>? At, DateOnly? By, int? Hours, RuleOf AtOf, RuleOf ByOf, RuleOf HoursOf) Shortest(in UseMark from,
        Func<RuleOf, bool>? only = null)
    {
        var (at, by, hours) = ((Quantity<Distance>?)null, (DateOnly?)null, (int?)null);
        var (atOf, byOf, hoursOf) = (RuleOf.Maker, RuleOf.Maker, RuleOf.Maker);
        foreach (var (whole, rule) in _rules)
        {
            if (only?.Invoke(rule) == false)
                continue;
            var (interval, of) = from.Shortened ? (whole.Half, RuleOf.Wear) : (whole, rule);
            if (interval.Every is { } every && from.Odometer + every is var x && (at is null || x < at))
                (at, atOf) = (x, of);
            if (interval.Months is { } months && from.Day.AddMonths(months) is var d && (by is null || d < by))
                (by, byOf) = (d, of);
            if (interval.Hours is { } run && from.Hours + run is { } h && (hours is null || h < hours))
                (hours, hoursOf) = (h, of);
        }
        return (at, by, hours, atOf, byOf, hoursOf);
    }

    private bool Lapsed(in UseMark now, in UseMark delivered)
    {
        foreach (var (interval, _) in _rules)
            if (now.Odometer - delivered.Odometer > interval.Every * LapsesAfter
                || now.Day > (interval.Months is { } m ? delivered.Day.AddMonths(m * LapsesAfter) : null))
                return true;
        return false;
    }

    /// <summary>The part of its interval that is still unused, by the measure that is nearest to its end; 0 when due or overdue, 1 when
    /// just done.</summary>
    /// <param name="standing">Where it stands.</param>
    /// <param name="now">Where the vehicle stands.</param>
    /// <param name="from">Where its interval began.</param>
    internal static decimal Unused(in Standing standing, in UseMark now, in UseMark from)
    {
        var least = 1m;
        if (standing.At is { } at && at > from.Odometer)
            least = Math.Min(least, (at - now.Odometer) / (at - from.Odometer));
        if (standing.By is { } by && by > from.Day)
            least = Math.Min(least, (decimal)(by.DayNumber - now.Day.DayNumber) / (by.DayNumber - from.Day.DayNumber));
        if (standing.AtHours is { } hours && hours > from.Hours && now.Hours is { } run)
            least = Math.Min(least, (decimal)(hours - run) / (hours - from.Hours.Value));
        return Math.Max(0, least);
    }
}
