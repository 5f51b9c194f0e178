namespace Anakyklos.Core.Weeks;

/// <summary>Why a visit has no place.</summary>
public enum NoPlace
{
    /// <summary>It takes longer than the workshop is open on any day.</summary>
    LongerThanADay,

    /// <summary>It has to be raised, and no bay has a lift.</summary>
    NoLift,

    /// <summary>The vehicle cannot be missed for so long, or what it needs is not here in time.</summary>
    NeverFree,

    /// <summary>Others take the room or the people, and come first.</summary>
    Full,
}

/// <summary>A visit with its place.</summary>
/// <param name="Visit">The visit.</param>
/// <param name="Slot">Its place, or null.</param>
/// <param name="Why">Why it has none; null where it has one.</param>
/// <param name="Pushed">Whether it could not stand where a person had put it, because something else is still there.</param>
public sealed record PlannedVisit(WantedVisit Visit, VisitSlot? Slot, NoPlace? Why, bool Pushed);

/// <summary>The visits in their places.</summary>
/// <param name="Problem">What was asked.</param>
/// <param name="Visits">Each visit, in the order asked.</param>
/// <param name="Cost">What all of it costs.</param>
/// <param name="Bound">Proven: no plan costs less.</param>
public sealed record WeekPlan(WeekProblem Problem, IReadOnlyList<PlannedVisit> Visits, int Cost, int Bound)
{
    /// <summary>Whether nothing can be better.</summary>
    public bool IsProven => Cost <= Bound;

    /// <summary>The quarters taken on a day, by visits and by what is open.</summary>
    /// <param name="day">The day, from 0.</param>
    public int Load(int day) => LoadOf(Problem, day, Visits.Where(v => v.Slot?.Day == day).Sum(v => v.Visit.Length));

    internal static int LoadOf(WeekProblem problem, int day, int visits) => Math.Min(problem.Bays.Count * problem.Days[day].Open.Count,
        visits + problem.Taken.Where(t => t.Day == day && t.Bay is not null).Sum(t => t.When.Count));
}
