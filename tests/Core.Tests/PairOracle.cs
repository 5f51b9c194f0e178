using Anakyklos.Core.Ordering;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Tests;

/// <summary>
/// Two people by sheer trying: every sequence of beginnings with every share of the tasks, each as early as it may. It knows nothing of the
/// search it checks; for
/// five tasks these are a few thousand schedules.
/// </summary>
internal static class PairOracle
{
    private readonly record struct Ran(int Begins, int Ends);

    /// <summary>What no order for two beats; null when there is none.</summary>
    internal static OrderCost? Best(OrderingProblem problem)
    {
        var tasks = Enumerable.Range(0, problem.Tasks.Count).Where(t => !problem.Start.Done.Contains(t)).ToArray();
        OrderCost? best = null;
        foreach (var sequence in Sequences(tasks))
            for (var shares = 0; shares < 1 << tasks.Length; shares++)
                if (Run(problem, sequence, shares) is { } cost && (best is null || cost.CompareTo(best.Value) < 0))
                    best = cost;
        return best;
    }

    private static IEnumerable<int[]> Sequences(int[] tasks)
    {
        if (tasks.Length == 0)
            yield return [];
        foreach (var first in tasks)
            foreach (var rest in Sequences([.. tasks.Where(t => t != first)]))
                yield return [first, .. rest];
    }

    private static OrderCost? Run(OrderingProblem problem, int[] sequence, int shares)
    {
        var start = problem.Start;
        var ran = start.Done.ToDictionary(t => t, _ => new Ran(int.MinValue / 2, 0));
        var (free, at) = (new[] { 0, 0 }, new Place?[] { start.Place, null });
        var (up, last, moves, changes) = (start.LiftUp, 0, 0, 0);
        for (var i = 0; i < sequence.Length; i++)
        {
            var (t, task) = (sequence[i], problem.Tasks[sequence[i]]);
            var earliest = Math.Max(last, start.ReadyIn.GetValueOrDefault(t));
            foreach (var lag in problem.Lags.Where(l => l.After == t))
                if (!ran.TryGetValue(lag.Before, out var before))
                    return null;
                else if (!start.Done.Contains(lag.Before))
                    earliest = Math.Max(earliest, before.Ends + lag.Seconds);
            foreach (var bar in problem.Bars)
            {
                var open = ran.ContainsKey(bar.Opens);
                if (t == bar.Closes && !open)
                    return null;
                if (bar.Barred.Contains(t) && open && !start.Done.Contains(bar.Closes))
                    if (ran.TryGetValue(bar.Closes, out var closed))
                        earliest = Math.Max(earliest, closed.Ends);
                    else
                        return null;
                if (t == bar.Opens)
                    foreach (var other in bar.Barred.Where(b => ran.ContainsKey(b) && !start.Done.Contains(b)))
                        earliest = Math.Max(earliest, ran[other].Ends);
            }
            // Nobody is at the vehicle while it is driven, ridden or run through its gears; what is done elsewhere goes on.
            foreach (var other in ran.Keys.Where(o => !start.Done.Contains(o) && KeepApart(task, problem.Tasks[o])))
                earliest = Math.Max(earliest, ran[other].Ends);
            int[] who = task.People == 2 ? [0, 1] : [(shares >> i) & 1];
            if (task.Lift != LiftNeed.Any && task.Lift == LiftNeed.Up != up)
            {
                // Nobody works while it moves.
                var moved = Math.Max(Math.Max(free[0], free[1]), last) + (up ? problem.LowerSeconds : problem.RaiseSeconds);
                (up, moves, free[0], free[1]) = (!up, moves + 1, moved, moved);
            }
            var begins = Math.Max(earliest, who.Max(w => free[w]));
            foreach (var w in who)
            {
                changes += at[w] is { } was && was != task.Place ? 1 : 0;
                (free[w], at[w]) = (begins + task.Seconds, task.Place);
            }
            ran[t] = new(begins, begins + task.Seconds);
            last = begins;
        }
        var ends = Math.Max(free[0], free[1]);
        return up ? new(ends + problem.LowerSeconds, moves + 1, changes) : new(ends, moves, changes);
    }

    private static bool KeepApart(OrderingTask a, OrderingTask b) => (a.Alone && !b.Away) || (b.Alone && !a.Away);
}
