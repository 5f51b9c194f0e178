namespace Anakyklos.Core.Weeks;

/// <summary>A day of the workshop.</summary>
/// <param name="Date">The day.</param>
/// <param name="Open">When vehicles are worked on.</param>
/// <param name="People">How many people are there to work, for each of its 96 quarters.</param>
public sealed record WorkDay(DateOnly Date, Quarters Open, IReadOnlyList<int> People);

/// <summary>A place to work on a vehicle.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Lift">Whether it has a lift.</param>
public sealed record BayPlace(string Name, bool Lift);

/// <summary>Where and when a visit stands.</summary>
/// <param name="Day">The day, from 0.</param>
/// <param name="Begins">Its first quarter of that day.</param>
/// <param name="Bay">The bay, from 0.</param>
public readonly record struct VisitSlot(int Day, int Begins, int Bay);

/// <summary>A visit that is wanted.</summary>
/// <param name="Plate">The vehicle.</param>
/// <param name="Length">How long it takes, 1 to 96 quarters.</param>
/// <param name="Second">When it takes two people, counted from its beginning.</param>
/// <param name="Lift">Whether it has to be raised.</param>
/// <param name="Away">For each day when the vehicle cannot be here, or what it needs is not.</param>
/// <param name="Cost">For each day what it costs to have it then, from 0.</param>
/// <param name="Waits">What it costs not to have it on any of the days.</param>
public sealed record WantedVisit(string Plate, int Length, Quarters Second, bool Lift, IReadOnlyList<Quarters> Away,
    IReadOnlyList<int> Cost, int Waits)
{
    /// <summary>Where a person put it, or null. Whoever put it there knows when the vehicle can be missed.</summary>
    public VisitSlot? Fixed { get; init; }

    /// <summary>Where it stood before, or null: it stays there where nothing much is gained by moving it.</summary>
    public VisitSlot? Before { get; init; }
}

/// <summary>A bay that is taken by a card that is open.</summary>
/// <param name="Day">The day, from 0.</param>
/// <param name="Bay">The bay, from 0; null where the work needs people but no bay.</param>
/// <param name="When">When.</param>
/// <param name="Second">When it takes two people.</param>
public sealed record BayTaken(int Day, int? Bay, Quarters When, Quarters Second)
{
    /// <summary>Whether somebody works there; otherwise a vehicle only stands there.</summary>
    public bool IsStaffed { get; init; } = true;
}

/// <summary>The days, bays and people that there are, and the visits wanted of them.</summary>
/// <param name="Days">The days, the earliest first.</param>
/// <param name="Bays">The bays.</param>
/// <param name="Taken">What is taken already.</param>
/// <param name="Visits">The visits.</param>
public sealed record WeekProblem(IReadOnlyList<WorkDay> Days, IReadOnlyList<BayPlace> Bays, IReadOnlyList<BayTaken> Taken,
    IReadOnlyList<WantedVisit> Visits)
{
    /// <summary>What a day costs on which every bay is taken from morning to evening; one that is half full costs a quarter of
    /// it.</summary>
    public int FullDay { get; init; } = 60;

    /// <summary>What it costs to move a visit to another day than it had before.</summary>
    public int Moving { get; init; } = 10;

    /// <summary>What each number of taken quarters costs on a day, from none to all there are.</summary>
    /// <param name="day">The day, from 0.</param>
    /// <returns>Rising with the square, rounded to whole points; one entry where the workshop is closed.</returns>
    public IReadOnlyList<int> LoadCosts(int day)
    {
        var all = Bays.Count * Days[day].Open.Count;
        return [.. Enumerable.Range(0, all + 1)
            .Select(l => all == 0 ? 0 : (int)Math.Round((double)FullDay * l * l / ((double)all * all)))];
    }

    /// <summary>What a visit costs on a day, with the moving.</summary>
    /// <param name="visit">The visit, from 0.</param>
    /// <param name="day">The day, from 0.</param>
    public int CostOn(int visit, int day) => Visits[visit].Cost[day] + (Visits[visit].Before is { } b && b.Day != day ? Moving : 0);
}
