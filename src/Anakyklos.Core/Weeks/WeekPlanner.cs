namespace Anakyklos.Core.Weeks;

/// <summary>
/// Puts visits on days and into bays so that all together cost as little as can be. What a person fixed stands first. The rest is
/// searched by simulated annealing over the days of the visits (Kirkpatrick and others, 1983), with a fixed seed, so that the same week is
/// planned alike each time; whether a day can be packed is tried by <see cref="DayBoard"/>. It ends early where the bound is reached.
/// </summary>
public static class WeekPlanner
{
    private const int Rounds = 6, MovesEach = 1_500, LeastMoves = 20_000, MostMoves = 60_000;
    private const long Tries = 8_000_000;

    /// <summary>Plans a week.</summary>
    /// <param name="problem">The days, bays, people and visits.</param>
    /// <returns>Each visit with its place, or why it has none.</returns>
    public static WeekPlan Plan(WeekProblem problem) => Plan(problem, Rounds);

    /// <summary>The same from where the visits stood before, with no search but for single moves and exchanges that gain something: few
    /// visits go elsewhere, and it takes milliseconds.</summary>
    /// <param name="problem">The days, bays, people and visits.</param>
    public static WeekPlan Adjust(WeekProblem problem) => Plan(problem, 0);

    private static WeekPlan Plan(WeekProblem problem, int rounds)
    {
        var boards = Enumerable.Range(0, problem.Days.Count).Select(d => new DayBoard(problem, d)).ToArray();
        var fixedAt = new Dictionary<int, (VisitSlot Slot, bool Pushed)>();
        foreach (var v in Enumerable.Range(0, problem.Visits.Count).Where(v => problem.Visits[v].Fixed is not null)
            .OrderBy(v => problem.Visits[v].Fixed!.Value.Day).ThenBy(v => problem.Visits[v].Fixed!.Value.Begins))
        {
            var wanted = problem.Visits[v].Fixed!.Value;
            if (Later(problem, boards, v, wanted) is not { } slot)
                continue;
            boards[wanted.Day].Fix(v, slot.Bay, slot.Begins);
            fixedAt[v] = (slot, slot != wanted);
        }
        int[] free = [.. Enumerable.Range(0, problem.Visits.Count).Where(v => !fixedAt.ContainsKey(v))];
        var search = new WeekSearch(problem, boards, free, [.. Enumerable.Range(0, boards.Length)
            .Select(d => fixedAt.Where(f => f.Value.Slot.Day == d).Sum(f => problem.Visits[f.Key].Length))]);
        search.Run(rounds, Math.Clamp(free.Length * MovesEach, LeastMoves, MostMoves), Tries);
        var ofFixed = fixedAt.Sum(f => problem.Visits[f.Key].Cost[f.Value.Slot.Day]);
        return new(problem, [.. problem.Visits.Select((visit, v) =>
        {
            if (fixedAt.TryGetValue(v, out var at))
                return new PlannedVisit(visit, at.Slot, null, at.Pushed);
            var slot = search.SlotOf(v);
            return new PlannedVisit(visit, slot, slot is null ? search.WhyNot(v) : null, visit.Fixed is not null);
        })], search.Cost + ofFixed, search.Bound + ofFixed);
    }

    // Where a person put it, or as soon after that on the same day as it can, in the same bay where it can.
    private static VisitSlot? Later(WeekProblem problem, DayBoard[] boards, int visit, VisitSlot wanted)
    {
        for (var begins = wanted.Begins; begins < Quarters.InDay; begins++)
            foreach (var bay in Enumerable.Range(0, problem.Bays.Count).OrderByDescending(b => b == wanted.Bay))
                if (boards[wanted.Day].Fits(visit, bay, begins))
                    return new(wanted.Day, begins, bay);
        return null;
    }
}
