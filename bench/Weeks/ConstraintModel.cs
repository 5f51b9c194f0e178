using Anakyklos.Core.Weeks;
using Google.OrTools.Sat;

namespace Anakyklos.Bench.Weeks;

/// <summary>The week said a second time as a constraint model: an optional interval for each visit, day and bay.</summary>
public static class ConstraintModel
{
    /// <summary>What the constraint solver found.</summary>
    /// <param name="Cost">Its best, null when it found none.</param>
    /// <param name="Bound">What it proved.</param>
    public sealed record Answer(int? Cost, int Bound);

    /// <summary>Solves it; without fixed visits.</summary>
    /// <param name="problem">The problem.</param>
    /// <param name="seconds">Time limit.</param>
    public static Answer Solve(WeekProblem problem, double seconds)
    {
        var model = new CpModel();
        var cost = new List<LinearExpr>();
        var inBay = new Dictionary<(int Day, int Bay), List<IntervalVar>>();
        var people = problem.Days.Select(_ => new List<(IntervalVar When, int Need)>()).ToList();
        var load = problem.Days.Select(_ => new List<LinearExpr>()).ToList();
        for (var v = 0; v < problem.Visits.Count; v++)
        {
            var visit = problem.Visits[v];
            var on = new List<ILiteral>();
            for (var d = 0; d < problem.Days.Count; d++)
            {
                var open = problem.Days[d].Open.Without(visit.Away[d]);
                long[] begins = [.. Enumerable.Range(0, Quarters.InDay - visit.Length + 1)
                    .Where(b => open.Covers(Quarters.Between(b, b + visit.Length))).Select(b => (long)b)];
                if (begins.Length == 0)
                    continue;
                var here = model.NewBoolVar("");
                on.Add(here);
                var start = model.NewIntVarFromDomain(Google.OrTools.Util.Domain.FromValues(begins), "");
                people[d].Add((model.NewOptionalFixedSizeIntervalVar(start, visit.Length, here, ""), 1));
                foreach (var (from, to) in visit.Second.Stretches())
                    people[d].Add((model.NewOptionalFixedSizeIntervalVar(start + from, to - from, here, ""), 1));
                var bays = new List<ILiteral>();
                for (var b = 0; b < problem.Bays.Count; b++)
                {
                    if (visit.Lift && !problem.Bays[b].Lift)
                        continue;
                    var at = model.NewBoolVar("");
                    bays.Add(at);
                    if (!inBay.TryGetValue((d, b), out var list))
                        inBay[(d, b)] = list = [];
                    list.Add(model.NewOptionalFixedSizeIntervalVar(start, visit.Length, at, ""));
                }
                model.Add(LinearExpr.Sum(bays.Select(x => (BoolVar)x)) == here);
                load[d].Add(here * visit.Length);
                cost.Add(here * problem.CostOn(v, d));
            }
            var waits = model.NewBoolVar("");
            on.Add(waits);
            model.AddExactlyOne(on);
            cost.Add(waits * visit.Waits);
        }
        foreach (var bay in inBay.Values)
            model.AddNoOverlap(bay);
        for (var d = 0; d < problem.Days.Count; d++)
        {
            if (load[d].Count == 0)
                continue;
            var most = problem.Days[d].People.Max();
            var all = model.AddCumulative(most);
            foreach (var (when, need) in people[d])
                all.AddDemand(when, need);
            // Whoever is not there is as if at work on something else.
            for (var q = 0; q < Quarters.InDay; q++)
                if (problem.Days[d].Open.Has(q) && problem.Days[d].People[q] < most)
                    all.AddDemand(model.NewFixedSizeIntervalVar(model.NewConstant(q), 1, ""), most - problem.Days[d].People[q]);
            var costs = problem.LoadCosts(d);
            var sum = model.NewIntVar(0, costs.Count - 1, "");
            model.Add(sum == LinearExpr.Sum(load[d]));
            var of = model.NewIntVar(0, costs[^1], "");
            model.AddElement(sum, costs.Select(c => (long)c), of);
            cost.Add(of);
        }
        model.Minimize(LinearExpr.Sum(cost));
        var solver = new CpSolver
        {
            StringParameters = string.Create(System.Globalization.CultureInfo.InvariantCulture,
                $"max_time_in_seconds:{seconds} num_workers:2"),
        };
        var status = solver.Solve(model);
        return status is CpSolverStatus.Optimal or CpSolverStatus.Feasible
            ? new((int)Math.Round(solver.ObjectiveValue), (int)Math.Ceiling(solver.BestObjectiveBound - 1e-6)) : new(null, 0);
    }
}
