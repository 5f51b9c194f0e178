using Anakyklos.Core.Weeks;
using Anakyklos.Desk;

namespace Anakyklos.Web.Wording;

/// <summary>The words for the week of the bays.</summary>
public static class WeekWords
{
    /// <summary>A day as it stands beside times.</summary>
    public static string Day(DateOnly day) => $"{day:ddd d MMM}";

    // A day long past wants its year.
    private static string Past(DateOnly day, DateOnly today) => today.DayNumber - day.DayNumber > 300 ? $"{day:d MMM yyyy}" : Day(day);

    /// <summary>How long something takes.</summary>
    public static string Long(TimeSpan time) => time.TotalMinutes < 60 ? $"{Math.Ceiling(time.TotalMinutes)} min"
        : $"{(int)time.TotalHours} h {time.Minutes:00}";

    /// <summary>From when to when, and where.</summary>
    public static string Place(WorkshopWeek week, VisitSlot slot, int length) => $"{Time(slot.Begins)} to "
        + $"{Time(slot.Begins + length)}, {week.BayOf(slot)}";

    public static string Time(int quarter) => quarter == Quarters.InDay ? "24:00" : $"{Quarters.Time(quarter):HH:mm}";

    /// <summary>Why a vehicle should come, one thing at a time.</summary>
    public static string Why(Wish wish, DateOnly today) => wish.Because switch
    {
        WishBecause.NotKnown => $"{wish.What}: nobody knows when it was last done",
        WishBecause.Trip => $"{wish.What}: would run over on the trip of {Day(wish.By.AddDays(1))}",
        WishBecause.Message => $"{wish.What}: the dash asks for it",
        WishBecause.Laboratory => $"The laboratory: {wish.What}",
        WishBecause.Stop => $"Let go with a stop: {wish.What}",
        WishBecause.Recommended => $"To be planned, found {Past(wish.From, today)}: {wish.What}",
        WishBecause.Near => $"{wish.What}: near, done along",
        _ when wish.By < today => $"{wish.What}: over since {Past(wish.By, today)}",
        _ when wish.By == today => $"{wish.What}: due today",
        _ when wish.From == wish.By => $"{wish.What}: due {Day(wish.By)}",
        _ => $"{wish.What}: due about {Day(wish.By)}, as it is driven from {Day(wish.From)} on",
    };

    /// <summary>The same in a few words.</summary>
    public static string Short(Wish wish, DateOnly today) => wish.Because switch
    {
        WishBecause.Due when wish.By < today => $"{wish.What} over since {Past(wish.By, today)}",
        WishBecause.Due when wish.By == today => $"{wish.What} due today",
        WishBecause.Due => $"{wish.What} due {Day(wish.By)}",
        WishBecause.Trip => $"{wish.What} before the trip",
        WishBecause.NotKnown => $"{wish.What}, history unknown",
        WishBecause.Message => $"{wish.What}, by the dash",
        _ => wish.What,
    };

    /// <summary>Why a visit has no place.</summary>
    public static string NoPlace(WeekVisit visit, WorkshopWeek week) => visit.Why switch
    {
        Core.Weeks.NoPlace.LongerThanADay => $"Takes {Long(visit.Work.Takes)}, longer than the workshop is open in a day. Open its "
            + "card in a morning that you choose; it goes on the day after.",
        Core.Weeks.NoPlace.NoLift => "Has to be raised, and no bay has a lift.",
        Core.Weeks.NoPlace.NeverFree when visit.NobodyKnows =>
            $"Nobody knows when {string.Join(", ", visit.Missing.Take(3))} will be here.",
        Core.Weeks.NoPlace.NeverFree when visit.Boat > week.Days[^1].Date => $"{string.Join(", ", visit.Missing.Take(3))} cannot be here "
            + $"before {Day(visit.Boat.Value)}.",
        Core.Weeks.NoPlace.NeverFree => $"Takes {Long(visit.Work.Takes)}, and in these two weeks it cannot be missed for so long"
            + $"{(visit.Work.Second == Quarters.None ? "" : " while two people are there")}.",
        Core.Weeks.NoPlace.Full => "The bays are full with what is more urgent.",
        _ => "",
    };

    /// <summary>What is missing for a visit.</summary>
    public static string Missing(WeekVisit visit) => visit.Missing.Count == 0 ? "Everything is on the shelf"
        : $"{string.Join(", ", visit.Missing.Take(3))}{(visit.Missing.Count > 3 ? $" and {visit.Missing.Count - 3} more" : "")}: "
            + (visit.NobodyKnows ? "nobody knows when" : $"comes {Day(visit.Boat!.Value)}");

    /// <summary>What a day gives away, risks or runs over for a visit.</summary>
    public static string Costs(WeekVisit visit, DateOnly day, DateOnly today)
    {
        var dated = visit.Of.Wish.Wishes.Where(w => w.Because != WishBecause.Near).ToList();
        var over = VisitCost.DaysOver(dated, day);
        if (over > 0)
        {
            var most = dated.MinBy(w => w.By)!;
            return $"{most.What} {DueWords.Days(over)} over";
        }
        var first = dated.Min(w => w.From);
        return day < first ? $"{DueWords.Days(first.DayNumber - day.DayNumber)} sooner than it need be"
            : dated.Min(w => w.By).DayNumber - day.DayNumber is var left && left == 0 ? "the very day it is due"
            : $"{DueWords.Days(left)} to spare";
    }

    /// <summary>Why a visit cannot be on a day.</summary>
    /// <param name="visit">As it stands.</param>
    /// <param name="then">As it would be if it could come on that day only.</param>
    /// <param name="day">The day.</param>
    public static string NotOn(WeekVisit visit, WeekVisit? then, DateOnly day) => visit.NobodyKnows ? "nobody knows when its parts are here"
        : day <= visit.Boat ? $"its parts come on {Day(visit.Boat.Value)}"
        : then?.Why == Core.Weeks.NoPlace.Full ? "full with what is more urgent"
        : "it cannot be missed for so long, or too few people are there";

    /// <summary>Where and by how many it is worked on.</summary>
    public static string Work(WorkLength work) => $"in the bay, {(work.Lift ? "on a lift" : "on the ground")}"
        + (work.Second == Quarters.None ? "" : $", {work.Second.Count * Quarters.Minutes} min of it for two");

    /// <summary>The most urgent thing that a visit is for, and how many more there are.</summary>
    public static string Most(WeekVisit visit, DateOnly today) => Short(visit.Of.Wish.Wishes[0], today)
        + (visit.Of.Wish.Wishes.Count > 1 ? $" and {visit.Of.Wish.Wishes.Count - 1} more" : "");

    /// <summary>What of it comes with a boat; empty for nothing.</summary>
    public static string Boat(WeekVisit visit) => visit.Boat is { } boat ? $"; {visit.Missing.Count} to come {Day(boat)}" : "";

    /// <summary>How the two weeks stand, in a sentence.</summary>
    public static string Sum(WorkshopWeek week)
    {
        var placed = week.Visits.Count(v => v.Slot is not null);
        return $"{placed} to come in two weeks, " + (week.DaysOver == 0 ? "and nothing runs over while it waits"
                : $"and one waits {DueWords.Days(week.DaysOver)} longer than it should")
            + (placed < week.Visits.Count ? $"; {week.Visits.Count - placed} without a place" : "")
            + (week.More > 0 ? $"; {week.More} more are due than the bays can take." : ".");
    }

    /// <summary>What else moves.</summary>
    public static string Shifts(WeekChange change)
    {
        if (change.Shifts.Count == 0)
            return "nothing else moves";
        var more = change.Shifts.Count > 3 ? $"; {change.Shifts.Count - 3} more move" : "";
        return string.Join("; ", change.Shifts.Take(3).Select(Says)) + more;

        string Says(Shift s) => s.To is not { } to ? $"{s.Plate} finds no place any more"
            : s.From is not { } from ? $"{s.Plate} to {At(to)}"
            : from.Day == to.Day && from.Begins == to.Begins ? $"{s.Plate} to {change.Week.BayOf(to)}"
            : $"{s.Plate} to {At(to)} from {At(from)}";

        string At(VisitSlot slot) => $"{Day(change.Week.Days[slot.Day].Date)} {Time(slot.Begins)}";
    }

    /// <summary>A card that is open, in words.</summary>
    public static string Card(WeekCard card, DateTimeOffset now) => $"{card.Entry.Plate}, {Left(card, now)}";

    /// <summary>How much of a card is left, and until when it takes.</summary>
    public static string Left(WeekCard card, DateTimeOffset now) => $"card {card.Entry.Id}, {card.Entry.Bay}: "
        + (card.Left is null ? "waits, and nobody knows how long"
            : card.Left == TimeSpan.Zero ? "all is done, it is to be signed"
            : (card.GoesOn is { } boat && boat >= DateOnly.FromDateTime(now.DateTime) ? $"waits until {Day(boat)}, then " : "")
                + $"{Long(card.Left.Value)} of work left" + (card.Ends is { } ends ? $", done {ends:ddd d MMM HH:mm}" : ""));

    /// <summary>A visit in words.</summary>
    public static string Visit(WeekVisit visit, WorkshopWeek week) => visit.Slot is { } slot
        ? $"{visit.Plate}, {Day(week.Days[slot.Day].Date)} {Place(week, slot, visit.Work.Length)}, {(visit.IsFixed ? "fixed" : "proposed")}"
        : $"{visit.Plate}, no place";
}
