using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Workshop;

namespace Anakyklos.Web.Wording;

/// <summary>The words for what is due and why.</summary>
public static class DueWords
{
    /// <summary>One or two words for a state.</summary>
    public static string State(DueState state) => state switch
    {
        DueState.Overdue => "overdue",
        DueState.Due => "due",
        DueState.Unknown => "unknown, so due",
        DueState.Soon => "soon",
        DueState.NotYet => "not yet",
        _ => "done",
    };

    /// <summary>Where a job stands, as a sentence without a full stop.</summary>
    public static string Sentence(in Standing s, in UseMark now, Unit<Distance> unit)
    {
        var (km, days, hours) = s.Left(now);
        var last = s.Last is { } done ? $"last done {Day(done.Day)}{At(done.Odometer, unit)}" : "never done here";
        switch (s.State)
        {
            case DueState.Done when s.Item.Follows is not null:
                return s.Last is null ? "Nothing to check again" : $"Nothing to check again, {last}";
            case DueState.Done:
                return s.Last is { } once ? $"Done once and for all, {Day(once.Day)}" : "Its time went by";
            case DueState.Unknown:
                return "Nobody knows when it was last done, so it counts as due";
            case DueState.Due:
                return $"Due today; {last}{Whose(s, now)}";
            case DueState.Overdue:
                string[] over = [.. new[] { km < Quantity<Distance>.Zero ? Km(Quantity<Distance>.Zero - km.Value, unit) : "",
                    days < 0 ? Days(-days.Value) : "", hours < 0 ? $"{-hours} h" : "" }.Where(t => t.Length > 0)];
                return $"Over by {string.Join(" and ", over)}; {last}{Whose(s, now)}";
            default:
                string[] left = [.. new[] { km is { } k ? Km(k, unit) : "", days is { } d ? Days(d) : "",
                    hours is { } h ? $"{h} h" : "" }.Where(t => t.Length > 0)];
                return $"{string.Join(" or ", left)} left; {last}{Whose(s, now)}";
        }
    }

    /// <summary>What is left or over, without when it was last done.</summary>
    public static string Short(in Standing s, in UseMark now, Unit<Distance> unit) => Sentence(s, now, unit) is var all
        && all.IndexOf(';') is > 0 and var i ? char.ToLowerInvariant(all[0]) + all[1..i] : all;

    /// <summary>Why a job stands on the proposal, beside its own sentence; empty when that says it.</summary>
    public static string Why(ProposedJob job, Proposal proposal, Unit<Distance> unit) => job.Because switch
    {
        Because.Both when proposal.Message is { } m => $"The dash asks for it too ({m.Code})",
        Because.Both => "The dash asks for it too",
        Because.DashAlone =>
            $"The dash asks for it ({proposal.Message!.Code}, {proposal.Message.Says.ToLowerInvariant()}), our sum does "
                + $"not{(job.Standing.Last is null ? "" : ": it was done since, and the dash was not set back then")}. You decide",
        Because.CounterSooner => "The dash's counter is used up, sooner than our sum",
        Because.BeginsAnew => "Not beside the job that it follows: it is due again after it",
        Because.Near => "Near enough to do in the same visit",
        Because.Trip when job.Trip is { } t =>
            $"Would run over on the trip{(t.Distance is { } over ? $" by {Km(over, unit)}" : t.Days is { } d ? $" by {Days(d)}" : "")}; "
                + $"done now, {Math.Round(t.GivenAway * 100)} % of its interval is given away",
        _ => "",
    };

    /// <summary>A forecast day with its band.</summary>
    public static string Forecast(DueDay due) => due.Earliest == due.Day && due.Latest == due.Day ? Day(due.Day)
        : $"about {Day(due.Day)} (between {Day(due.Earliest)} and {(due.Latest is { } late ? Day(late) : "never")})";

    public static string Day(DateOnly day) => $"{day:d MMM yyyy}";

    public static string Km(Quantity<Distance> distance, Unit<Distance> unit) => OdometerText.Of(distance, unit);

    // What was done before the odometer was exchanged lies below its zero.
    private static string At(Quantity<Distance> odometer, Unit<Distance> unit) => odometer < Quantity<Distance>.Zero
        ? $", {Km(Quantity<Distance>.Zero - odometer, unit)} before the odometer of now began" : $" at {Km(odometer, unit)}";

    public static string Days(int days) => days == 1 ? "1 day" : $"{days} days";

    /// <summary>Both readings of a rule that counts the times of another job, and which comes first; empty for other rules.</summary>
    public static string BothReadings(in Standing s, in UseMark now, Unit<Distance> unit)
    {
        if (s.Visits is not { } v)
            return "";
        string[] own = [.. new[] { v.Own.At is { } at ? $"at {Km(at, unit)}" : "", v.Own.By is { } by ? $"on {Day(by)}" : "",
            v.Own.AtHours is { } hours ? $"at {hours} h" : "" }.Where(t => t.Length > 0)];
        var counts = s.RuleThatCounts(now) == RuleOf.Visits ? "the services count" : "its own interval counts";
        return $"{v.Done} of {v.Of.Every} times of “{v.Of.Name}” done since; by its own interval {string.Join(" or ", own)}: {counts}";
    }

    private static string Whose(in Standing s, in UseMark now) => s.RuleThatCounts(now) switch
    {
        RuleOf.Visits => s.Item.Counts is { } c ? $", with every {Nth(c.Every)} time of “{c.Name}”" : "",
        RuleOf.Owner => ", by the owner's rule",
        RuleOf.Depot => ", by the depot's rule",
        RuleOf.Wear => ", half its interval for what was seen then",
        RuleOf.UpperBound => ", by the maker's upper bound",
        _ => "",
    };

    private static string Nth(int every) => every switch { 2 => "second", 3 => "third", _ => $"{every}th" };

    /// <summary>How much a vehicle is used, in a sentence, with the readings that were left out of it.</summary>
    public static string Use(OdometerHistory history, Unit<Distance> unit)
    {
        if (history.Use is not { } u)
            return "Too few readings to tell its use; only days count.";
        var odd = history.LeftOut;
        string[] named = [.. odd.Take(2).Select(r => $"{Km(r.Reading, unit)} on {r.At:d MMM yyyy}")];
        var left = odd.Count switch
        {
            0 => "",
            1 => $"; the reading {named[0]} does not fit and was left out",
            _ => $"; {odd.Count} readings do not fit and were left out, such as {string.Join(" and ", named)}",
        };
        var still = u.DaysStill > 0 ? $"; it stood still for {Days(u.DaysStill)}" : "";
        return $"About {Km(u.Usual, unit)} a day, between {Km(u.Low, unit)} and {Km(u.High, unit)}{left}{still}.";
    }

    /// <summary>The look of a state: something to do, something near, or neither.</summary>
    public static string Look(in Standing s) => s.IsDue ? "wait" : s.State == DueState.Soon ? "near" : "rest";

    /// <summary>How many jobs of a vehicle are overdue, or else due, or else near.</summary>
    public static string Most(in FleetRow row) => row switch
    {
        { Overdue: > 0 } => $"{row.Overdue} overdue",
        { Due: > 0 } => $"{row.Due} due",
        { Soon: > 0 } => $"{row.Soon} soon",
        _ => "not yet",
    };

    /// <summary>A rule beside the maker's in words.</summary>
    public static string Rule(ServiceInterval rule, Unit<Distance> unit) => string.Join(" or ", new[]
    {
        rule.Every is { } km ? OdometerText.Of(km, unit) : "",
        rule.Months is { } months ? $"{months} months" : "",
        rule.Hours is { } hours ? $"{hours} h" : "",
    }.Where(t => t.Length > 0));
}
