using System.Diagnostics;
using Anakyklos.Bench.Ordering;
using Anakyklos.Core.Composing;
using Anakyklos.Core.Ordering;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Sheets;

// compare random N [tasks]: our order against the constraint solver on N made-up problems
// compare sheets FOLDER [seconds]: on all jobs and pairs of jobs, and on the full services, of the sheets in a folder
// growth FOLDER: how the time grows with the steps, on the full services and on a 4x4 with more and more axles
switch (args)
{
    case ["random", var n, .. var rest]:
        Compare.Random(int.Parse(n), rest.Length > 0 ? int.Parse(rest[0]) : 11);
        break;
    case ["sheets", var folder, .. var rest]:
        Compare.Sheets(folder, rest.Length > 0 ? double.Parse(rest[0]) : 60, rest.Contains("quick"));
        break;
    case ["growth", var folder]:
        Compare.Growth(folder);
        break;
    default:
        Console.WriteLine("random N [tasks] | sheets FOLDER [seconds] [quick] | growth FOLDER");
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
            OrderedWork? order = null;
            ours.Start();
            try { order = StepOrdering.ForOne(problem); } catch (ArgumentException) { }
            ours.Stop();
            theirs.Start();
            var answer = ConstraintModel.Solve(problem, 60);
            theirs.Stop();
            if (answer is { Cost: null, IsProven: true }
                && (order is null || order.Tasks.Count + problem.Start.Done.Count < problem.Tasks.Count))
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
        Console.WriteLine($"{count} random problems: {equal} equal and proven by both, {none} impossible for both, {open} left "
            + $"open by the solver, {worse} differ; ours {ours.Elapsed.TotalMilliseconds / count:0.00} ms each, solver "
            + $"{theirs.Elapsed.TotalMilliseconds / count:0.0} ms each");
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
            JobId[] jobs = [.. sheet.Jobs.Keys];
            var sets = jobs.Select(j => new[] { j }).Concat(quick ? []
                : from a in jobs from b in jobs where string.CompareOrdinal(a.Text, b.Text) < 0 select new[] { a, b }).Append(jobs);
            foreach (var set in sets)
            {
                var work = CardComposer.Compose(sheet, set);
                var problem = CardPlanner.Problem(work, PlanStart.Fresh);
                var watch = Stopwatch.StartNew();
                var order = StepOrdering.ForOne(problem);
                var mine = watch.Elapsed;
                watch.Restart();
                var answer = seconds > 0 ? ConstraintModel.Solve(problem, seconds) : new(null, false);
                var verdict = answer.Cost is not { } cost ? "-" : order.Cost == cost ? answer.IsProven ? "equal" : "equal, not proven"
                    : order.Cost.CompareTo(cost) < 0 ? "ours is better" : "OURS IS WORSE";
                Console.WriteLine($"{sheet.Id} {(set.Length == jobs.Length ? "all" : string.Join("+", set))}: {problem.Tasks.Count}"
                    + $" steps, {Say(order.Cost)}, bound {Say(order.Bound)}{(order.IsProven ? "" : " OPEN")}, "
                    + $"{mine.TotalMilliseconds:0} ms; solver {(answer.Cost is { } c ? Say(c) : "-")} {verdict}, "
                    + $"{watch.ElapsedMilliseconds} ms");
            }
        }
    }

    internal static void Growth(string folder)
    {
        var sheets = Directory.GetFiles(folder, "*.json").Order().Select(f => SheetReader.Read(File.ReadAllBytes(f)).Sheet!).ToList();
        Console.WriteLine("| work | steps | time, median | allocated | ends | proven |\n| --- | --- | --- | --- | --- | --- |");
        foreach (var sheet in sheets)
            Row($"full service, {sheet.FullName}", CardPlanner.Problem(CardComposer.Compose(sheet, sheet.Jobs.Keys), PlanStart.Fresh));
        var brae = sheets.First(s => s.Fluids.ContainsKey("front-axle-oil"));
        foreach (var axles in new[] { 1, 3, 5, 7, 10, 13, 16, 20, 23 })
        {
            var many = WithAxles(brae, axles);
            Row($"engine oil and {axles} axles", CardPlanner.Problem(CardComposer.Compose(many,
                many.Jobs.Keys.Where(j => j == "engine-oil-and-filter" || j.Text.StartsWith("axle-"))), PlanStart.Fresh));
        }
    }

    private static ModelSheet WithAxles(ModelSheet sheet, int axles)
    {
        static Dictionary<TId, T> More<TId, T>(IReadOnlyDictionary<TId, T> known, IEnumerable<(string Id, T Item)> more)
            where TId : struct, IId<TId> =>
            known.Concat(more.Select(m => KeyValuePair.Create(TId.Of(m.Id), m.Item))).ToDictionary(p => p.Key, p => p.Value);
        var all = Enumerable.Range(1, axles).ToList();
        var (fluid, drain, fill) = (sheet.Fluids["front-axle-oil"], sheet.Fasteners["front-axle-drain-plug"],
            sheet.Fasteners["front-axle-fill-plug"]);
        return sheet with
        {
            Fluids = More(sheet.Fluids, all.Select(i => ($"axle-{i}", fluid with { Id = $"axle-{i}" }))),
            Parts = More(sheet.Parts, all.SelectMany(i =>
                new[] { drain.Seal!.Value, fill.Seal!.Value }.Select(p => ($"{p}-{i}", sheet.Parts[p] with { Id = $"{p}-{i}" })))),
            Fasteners = More(sheet.Fasteners, all.SelectMany(i => new[] {
                ($"drain-{i}", drain with { Id = $"drain-{i}", Drains = $"axle-{i}", System = $"axle-{i}", Seal = $"{drain.Seal}-{i}" }),
                ($"fill-{i}", fill with { Id = $"fill-{i}", Fills = $"axle-{i}", Seal = $"{fill.Seal}-{i}" }) })),
            Jobs = More(sheet.Jobs, all.Select(i => ($"axle-{i}",
                sheet.Jobs["front-axle-oil"] with { Id = $"axle-{i}", WorksOn = [$"axle-{i}"], Parts = [] }))),
        };
    }

    private static void Row(string name, OrderingProblem problem)
    {
        StepOrdering.ForOne(problem);
        var (times, before) = (new List<double>(), GC.GetAllocatedBytesForCurrentThread());
        OrderedWork order = null!;
        for (var i = 0; i < 7; i++)
        {
            var watch = Stopwatch.StartNew();
            order = StepOrdering.ForOne(problem);
            times.Add(watch.Elapsed.TotalMilliseconds);
        }
        var allocated = (GC.GetAllocatedBytesForCurrentThread() - before) / 7 / 1e6;
        Console.WriteLine($"| {name} | {problem.Tasks.Count} | {times.Order().ElementAt(3):0.0} ms | {allocated:0.0} MB | "
            + $"{Say(order.Cost)} | {(order.IsProven ? "yes" : $"down to {Say(order.Bound)}")} |");
    }

    private static string Say(OrderCost c) => $"{TimeSpan.FromSeconds(c.Seconds):h\\:mm\\:ss}/{c.LiftMoves}/{c.PlaceChanges}";
}
