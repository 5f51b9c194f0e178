using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Due;

/// <summary>Where a job stands, from the least urgent.</summary>
public enum DueState
{
    /// <summary>Done once and for all, or its time is over.</summary>
    Done,

    /// <summary>Nothing to do.</summary>
    NotYet,

    /// <summary>Near enough to be done together with something else.</summary>
    Soon,

    /// <summary>Not on record in a vehicle of unknown history: counts as due.</summary>
    Unknown,

    /// <summary>Due on this very day or at this very reading.</summary>
    Due,

    /// <summary>Past its day, reading or hours.</summary>
    Overdue,
}

/// <summary>A job whose times another one counts.</summary>
/// <param name="Job">The job.</param>
/// <param name="Name">Its name.</param>
/// <param name="Every">So many of its times make the other due; 2 or more.</param>
public sealed record CountedJob(JobId Job, string Name, int Every);

/// <summary>The two readings of a rule such as “every second oil service, or 30,000 km”.</summary>
/// <param name="Of">The job that is counted.</param>
/// <param name="Done">How often it was done since.</param>
/// <param name="Own">When it would be due by its own intervals alone.</param>
public sealed record VisitCount(CountedJob Of, int Done, NextDue Own);

/// <summary>Where one job of a vehicle stands. A measure that does not count is null.</summary>
/// <param name="Item">The job with its rules.</param>
/// <param name="State">Its state.</param>
/// <param name="At">Due at this reading.</param>
/// <param name="By">Due on this day.</param>
/// <param name="AtHours">Due at these running hours.</param>
/// <param name="AtOf">Whose rule set the reading.</param>
/// <param name="ByOf">Whose rule set the day.</param>
/// <param name="HoursOf">Whose rule set the hours.</param>
/// <param name="Last">When it was last done, or null.</param>
public readonly record struct Standing(ServiceItem Item, DueState State, Quantity<Distance>? At, DateOnly? By, int? AtHours, RuleOf AtOf,
    RuleOf ByOf, RuleOf HoursOf, UseMark? Last)
{
    /// <summary>How often the job that it counts was done; null where it counts none, or nobody counted.</summary>
    public VisitCount? Visits { get; init; }

    /// <summary>Whether it is to be done now.</summary>
    public bool IsDue => State >= DueState.Unknown;

    /// <summary>What is left in each measure; negative by as much as it is over.</summary>
    /// <param name="now">Where the vehicle stands.</param>
    /// <returns>What is left, negative when it is past; null for what the rule does not count.</returns>
    public (Quantity<Distance>? Distance, int? Days, int? Hours) Left(in UseMark now) =>
        (At - now.Odometer, By?.DayNumber - now.Day.DayNumber, AtHours - now.Hours);

    /// <summary>Whose rule is the one that counts: that of the measure with the least left, as part of a usual year and 15,000
    /// km.</summary>
    /// <param name="now">Where the vehicle stands.</param>
    /// <returns>The rule whose limit comes first.</returns>
    public RuleOf RuleThatCounts(in UseMark now)
    {
        var (distance, days, hours) = Left(now);
        // 15,000 km, 365 days and 400 hours are taken as alike, only to say which of several measures comes first.
        var (a, b, c) = (distance?.In(Distance.Kilometre) / 15_000m, days / 365m, hours / 400m);
        return a <= (b ?? decimal.MaxValue) && a <= (c ?? decimal.MaxValue) ? AtOf : b <= (c ?? decimal.MaxValue) ? ByOf : c is not null
            ? HoursOf : RuleOf.Maker;
    }
}
