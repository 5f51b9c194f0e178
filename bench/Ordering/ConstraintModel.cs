using Anakyklos.Core.Ordering;
using Anakyklos.Core.Sheets;
using Google.OrTools.Sat;

namespace Anakyklos.Bench.Ordering;

/// <summary>The ordering problem for one person, said a second time as a constraint model: a circuit through the tasks, intervals in
/// between.</summary>
public static class ConstraintModel
{
    /// <summary>What the constraint solver found.</summary>
    /// <param name="Cost">Its best, null when it found none.</param>
    /// <param name="IsProven">Whether it proved that nothing is better, or that there is none.</param>
    public sealed record Answer(OrderCost? Cost, bool IsProven);

    /// <summary>Solves it.</summary>
    /// <param name="problem">The problem.</param>
    /// <param name="seconds">Time limit.</param>
    /// <param name="hint">An order to start from, or null. It is not believed, only tried.</param>
    public static Answer Solve(OrderingProblem problem, double seconds, IReadOnlyList<int>? hint = null)
    {
        var model = new CpModel();
        var from = problem.Start;
        var left = new HashSet<int>();
        foreach (var t in Enumerable.Range(0, problem.Tasks.Count).Where(t => from.LeftOut.Contains(t) && !from.Done.Contains(t)))
            left.Add(t);
        for (var grew = true; grew;)
            grew = problem.Lags.Where(l => left.Contains(l.Before) && !from.Done.Contains(l.After)).Count(l => left.Add(l.After))
                + problem.Bars.Where(b => left.Contains(b.Closes)).SelectMany(b => from.Done.Contains(b.Opens) ? b.Barred : [b.Opens])
                    .Count(t => !from.Done.Contains(t) && left.Add(t)) > 0;
        int[] active = [.. Enumerable.Range(0, problem.Tasks.Count).Where(t => !from.Done.Contains(t) && !left.Contains(t))];
        if (active.Length == 0)
            return new(new OrderCost(from.LiftUp ? problem.LowerSeconds : 0, from.LiftUp ? 1 : 0, 0), true);
        var horizon = problem.Tasks.Sum(t => t.Seconds) + problem.Lags.Sum(l => l.Seconds) + from.ReadyIn.Values.Sum()
            + problem.Tasks.Count * (problem.RaiseSeconds + problem.LowerSeconds);

        var start = active.ToDictionary(t => t, t => model.NewIntVar(from.ReadyIn.GetValueOrDefault(t), horizon, $"s{t}"));
        LinearExpr End(int t) => start[t] + problem.Tasks[t].Seconds;
        var up = active.ToDictionary(t => t, t =>
            problem.Tasks[t].Lift switch { LiftNeed.Up => model.NewConstant(1), LiftNeed.Down => model.NewConstant(0),
            _ => (IntVar)model.NewBoolVar($"u{t}") });
        var (raised, lowered) = (active.ToDictionary(t => t, t => model.NewBoolVar($"r{t}")),
            active.ToDictionary(t => t, t => model.NewBoolVar($"l{t}")));
        var (end, last, changes) = (model.NewIntVar(0, horizon, "end"), model.NewBoolVar("down"), new List<LinearExpr>());

        var follows = new HashSet<(int, int)>(problem.Lags.Select(l => (l.Before, l.After)));
        var circuit = model.AddCircuit();
        for (var a = 0; a < active.Length; a++)
        {
            var i = active[a];
            var (first, final) = (model.NewBoolVar(""), model.NewBoolVar(""));
            circuit.AddArc(0, a + 1, first);
            circuit.AddArc(a + 1, 0, final);
            Moves(i, from.LiftUp ? model.TrueLiteral() : model.FalseLiteral(), first);
            model.Add(start[i] >= raised[i] * problem.RaiseSeconds + lowered[i] * problem.LowerSeconds).OnlyEnforceIf(first);
            if (from.Place is { } at && at != problem.Tasks[i].Place)
                changes.Add(first);
            model.Add(last == 1).OnlyEnforceIf([final, (ILiteral)Literal(up[i])]);
            model.Add(end >= End(i) + last * problem.LowerSeconds).OnlyEnforceIf(final);
            for (var b = 0; b < active.Length; b++)
            {
                var j = active[b];
                if (i == j || follows.Contains((j, i)))
                    continue;
                var next = model.NewBoolVar("");
                circuit.AddArc(a + 1, b + 1, next);
                Moves(j, Literal(up[i]), next);
                model.Add(start[j] >= End(i) + raised[j] * problem.RaiseSeconds + lowered[j] * problem.LowerSeconds).OnlyEnforceIf(next);
                if (problem.Tasks[i].Place != problem.Tasks[j].Place)
                    changes.Add(next);
            }
        }
        model.AddNoOverlap(active.Select(t => model.NewFixedSizeIntervalVar(start[t], problem.Tasks[t].Seconds, $"i{t}")));
        foreach (var lag in problem.Lags.Where(l => start.ContainsKey(l.Before) && start.ContainsKey(l.After)))
            model.Add(start[lag.After] >= End(lag.Before) + lag.Seconds);
        foreach (var bar in problem.Bars)
        {
            if (start.ContainsKey(bar.Opens) && start.ContainsKey(bar.Closes))
                model.Add(start[bar.Closes] >= End(bar.Opens));
            foreach (var t in bar.Barred.Where(start.ContainsKey))
            {
                var before = model.NewBoolVar("");
                if (start.ContainsKey(bar.Opens))
                    model.Add(End(t) <= start[bar.Opens]).OnlyEnforceIf(before);
                else
                    model.Add(before == 0);
                if (start.ContainsKey(bar.Closes))
                    model.Add(start[t] >= End(bar.Closes)).OnlyEnforceIf(before.Not());
                else if (!from.Done.Contains(bar.Closes))
                    model.Add(before == 1);
            }
        }
        model.Minimize(end * (1L << 24) + (LinearExpr.Sum(raised.Values.Concat(lowered.Values)) + last) * (1L << 12)
            + LinearExpr.Sum(changes));
        if (hint is not null)
            for (var k = 0; k + 1 < hint.Count; k++)
                model.AddHint(start[hint[k]], k);

        var solver =
            new CpSolver
        {
            StringParameters = string.Create(System.Globalization.CultureInfo.InvariantCulture,
                $"max_time_in_seconds:{seconds} num_workers:2"),
        };
        var status = solver.Solve(model);
        return status switch
        {
            CpSolverStatus.Optimal => new(Unpack((long)Math.Round(solver.ObjectiveValue)), true),
            CpSolverStatus.Feasible => new(Unpack((long)Math.Round(solver.ObjectiveValue)), false),
            CpSolverStatus.Infeasible => new(null, true),
            _ => new(null, false),
        };

        static OrderCost Unpack(long packed) => new((int)(packed >> 24), (int)(packed >> 12 & 0xFFF), (int)(packed & 0xFFF));

        void Moves(int to, ILiteral wasUp, ILiteral when)
        {
            model.Add(raised[to] == 1).OnlyEnforceIf([when, wasUp.Not(), Literal(up[to])]);
            model.Add(lowered[to] == 1).OnlyEnforceIf([when, wasUp, Literal(up[to]).Not()]);
        }

        ILiteral Literal(IntVar v) => v is BoolVar b ? b : v.Domain.Min() == 1 ? model.TrueLiteral() : model.FalseLiteral();
    }
}
