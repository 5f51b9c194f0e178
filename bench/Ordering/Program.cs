using System.Diagnostics;
using Anakyklos.Bench.Ordering;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Sheets;

// compare random N [tasks]: our order against the constraint solver on N made-up problems
// compare sheets FOLDER [seconds]: on all jobs and pairs of jobs, and on the full services, of the sheets in a folder
switch (args)
{
    case ["random", var n, .. var rest]:
        Compare.Random(int.Parse(n), rest.Length > 0 ? int.Parse(rest[0]) : 11);
        break;
    case ["sheets", var folder, .. var rest]:
        Compare.Sheets(folder, rest.Length > 0 ? double.Parse(rest[0]) : 60, rest.Contains("quick"));
        break;
    default:
        Console.WriteLine("random N [tasks] | sheets FOLDER [seconds]");
        break;
}

internal static class Compare
{
    internal static void Random(int count, int most)
    {
        var (equal, none, open, worse) = (0, 0, 0, 0);
        var (ours, theirs) = (new Stopwatch(), new Stopwatch());
        for (var seed = 0; seed < count; seed++)
        {
            var problem = RandomProblem.Make(seed, 4 + seed % (most - 3));
            Ordering? order = null;
            ours.Start();
            try { order = StepOrdering.ForOne(problem); } catch (ArgumentException) { }
            ours.Stop();
            theirs.Start();
            var answer = ConstraintModel.Solve(problem, 60);
            theirs.Stop();
            if (answer is { Cost: null, IsProven: true } && (order is null || order.Tasks.Count + problem.Start.Done.Count < problem.Tasks.Count))
                none++;
            else if (!answer.IsProven)
                open++;
            else if (order is { IsProven: true } && order.Cost == answer.Cost)
                equal++;
            else
            {
                worse++;
                Console.WriteLine($"seed {seed}: ours {order?.Cost} bound {order?.Bound}, solver {answer.Cost}");
            }
        }
        Console.WriteLine($"{count} random problems: {equal} equal and proven by both, {none} impossible for both, {open} left open by the solver, {worse} differ; ours {ours.Elapsed.TotalMilliseconds / count:0.00} ms each, solver {theirs.Elapsed.TotalMilliseconds / count:0.0} ms each");
    }

    internal static void Sheets(string folder, double seconds, bool quick)
    {
        foreach (var file in Directory.GetFiles(folder, "*.json").Order())
        {
            var reading = SheetReader.Read(File.ReadAllBytes(file));
            if (reading.Sheet is not { } sheet)
            {
                Console.WriteLine($"{file}: {string.Join("; ", reading.Errors.Take(3))}");
                continue;
            }
            string[] jobs = [.. sheet.Jobs.Keys];
            var sets = jobs.Select(j => new[] { j }).Concat(quick ? [] : from a in jobs from b in jobs where string.CompareOrdinal(a, b) < 0 select new[] { a, b }).Append(jobs);
            foreach (var set in sets)
            {
                var work = CardComposer.Compose(sheet, set);
                var problem = CardPlanner.Problem(work, PlanStart.Fresh);
                var watch = Stopwatch.StartNew();
                var order = StepOrdering.ForOne(problem);
                var mine = watch.Elapsed;
                watch.Restart();
                var answer = seconds > 0 ? ConstraintModel.Solve(problem, seconds) : new(null, false);
                var verdict = answer.Cost is not { } cost ? "-" : order.Cost == cost ? answer.IsProven ? "equal" : "equal, not proven" : order.Cost.CompareTo(cost) < 0 ? "ours is better" : "OURS IS WORSE";
                Console.WriteLine($"{sheet.Id} {(set.Length == jobs.Length ? "all" : string.Join("+", set))}: {problem.Tasks.Count} steps, {Say(order.Cost)}, bound {Say(order.Bound)}{(order.IsProven ? "" : " OPEN")}, {mine.TotalMilliseconds:0} ms; solver {(answer.Cost is { } c ? Say(c) : "-")} {verdict}, {watch.ElapsedMilliseconds} ms");
            }
        }
    }

    private static string Say(OrderCost c) => $"{TimeSpan.FromSeconds(c.Seconds):h\\:mm\\:ss}/{c.LiftMoves}/{c.PlaceChanges}";
}
