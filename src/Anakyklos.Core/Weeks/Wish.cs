namespace Anakyklos.Core.Weeks;

/// <summary>Why a vehicle should come.</summary>
public enum WishBecause
{
    /// <summary>A job falls due.</summary>
    Due,

    /// <summary>Nobody knows when a job was last done.</summary>
    NotKnown,

    /// <summary>A job would run over on a trip.</summary>
    Trip,

    /// <summary>The dash asks for a job.</summary>
    Message,

    /// <summary>What a laboratory answered.</summary>
    Laboratory,

    /// <summary>It was let go with something that was graded stop.</summary>
    Stop,

    /// <summary>Something was found that should be planned.</summary>
    Recommended,

    /// <summary>A job is near and done in the same visit; it would not bring the vehicle here by itself.</summary>
    Near,
}

/// <summary>One thing that a vehicle should come for.</summary>
/// <param name="Because">Why.</param>
/// <param name="What">The job or what was found, in words.</param>
/// <param name="Job">The job, or null where none is named.</param>
/// <param name="From">The day from which on it is wanted: of a job the earliest that it can fall due, at busy use.</param>
/// <param name="By">The day by which it is wanted: of a job when it falls due, at the usual use. It may lie before today.</param>
public sealed record Wish(WishBecause Because, string What, JobId? Job, DateOnly From, DateOnly By);

/// <summary>What a day costs for a visit, in points. What it costs to come a day too early is one.</summary>
public static class VisitCost
{
    private const int Early = 1, Risk = 4, Over = 40, Longer = 40, Stop = 80, Never = 200, Further = 7;

    /// <summary>What a visit costs on a day.</summary>
    /// <param name="wishes">What it is for.</param>
    /// <param name="today">The day.</param>
    /// <param name="day">The day of the visit, today or later.</param>
    /// <returns>A point for each day before the first of them is wanted; four for each day on which the most urgent may already be due at
    /// busy use; forty for each day that each of them is over, and more, up to twice as much, for each that is over already; eighty for
    /// each day with something graded stop. What is near costs nothing.</returns>
    public static int On(IReadOnlyList<Wish> wishes, DateOnly today, DateOnly day)
    {
        var dated = wishes.Where(w => w.Because != WishBecause.Near).ToList();
        if (dated.Count == 0)
            return 0;
        var first = dated.MinBy(w => w.By)!;
        var early = Math.Max(0, dated.Min(w => Later(w.From, today)).DayNumber - day.DayNumber) * Early;
        var risk = Math.Max(0, Math.Min(day.DayNumber, first.By.DayNumber) - Later(first.From, today).DayNumber) * Risk;
        return early + risk + dated.Sum(w => Math.Max(0, day.DayNumber - Later(w.By, today).DayNumber)
            * (w.Because == WishBecause.Stop ? Stop : Over + Math.Clamp(today.DayNumber - w.By.DayNumber, 0, Longer)));
    }

    /// <summary>What it costs not to come at all while the plan runs.</summary>
    /// <param name="wishes">What it is for.</param>
    /// <param name="today">The day.</param>
    /// <param name="last">The last day of the plan.</param>
    /// <returns>What it would cost a week after that, and two hundred points.</returns>
    public static int Waits(IReadOnlyList<Wish> wishes, DateOnly today, DateOnly last) => On(wishes, today, last.AddDays(Further)) + Never;

    /// <summary>For how many days something will be over, at the usual use.</summary>
    /// <param name="wishes">What it is for.</param>
    /// <param name="day">The day of the visit.</param>
    /// <returns>Of the one that is over longest; 0 for none.</returns>
    public static int DaysOver(IReadOnlyList<Wish> wishes, DateOnly day) =>
        wishes.Where(w => w.Because != WishBecause.Near).Select(w => day.DayNumber - w.By.DayNumber).Append(0).Max();

    private static DateOnly Later(DateOnly day, DateOnly today) => day < today ? today : day;
}
