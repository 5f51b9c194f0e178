using System.Diagnostics;
using Anakyklos.Bench.Weeks;
using Anakyklos.Core.Weeks;

// weeks VEHICLES BAYS COUNT [SECONDS]: our plans of made-up weeks; beside them what the constraint solver finds in that time
if (args is not [var vehicles, var bays, var count, .. var rest])
{
    Console.WriteLine("VEHICLES BAYS COUNT [SECONDS]");
    return;
}
var seconds = rest.Length > 0 ? double.Parse(rest[0]) : 0;
var worse = 0;
for (var seed = 1; seed <= int.Parse(count); seed++)
{
    var week = RandomWeek.Make(seed, int.Parse(vehicles), int.Parse(bays));
    WeekPlanner.Plan(week);
    var watch = Stopwatch.StartNew();
    var plan = WeekPlanner.Plan(week);
    var mine = watch.ElapsedMilliseconds;
    var answer = seconds > 0 ? ConstraintModel.Solve(week, seconds) : null;
    if (answer?.Cost < plan.Cost)
        worse++;
    Console.WriteLine($"{vehicles} vehicles, {bays} bays, seed {seed}: {plan.Cost}, bound {plan.Bound}, "
        + $"{plan.Visits.Count(v => v.Slot is null)} without a place, {mine} ms; solver {answer?.Cost}, bound {answer?.Bound}");
}
Console.WriteLine($"{worse} worse than the solver");
