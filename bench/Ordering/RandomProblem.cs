using Anakyklos.Core.Ordering;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Bench.Ordering;

/// <summary>Made-up work with the traits of the real: chains, waits, plugs that keep the lift up, an engine that must stay off.</summary>
public static class RandomProblem
{
    /// <summary>A problem from a seed.</summary>
    /// <param name="seed">The same seed gives the same problem.</param>
    /// <param name="tasks">How many tasks.</param>
    public static OrderingProblem Make(int seed, int tasks)
    {
        var random = new Random(seed);
        var made = new List<OrderingTask>();
        for (var i = 0; i < tasks; i++)
        {
            var place = (Place)random.Next(4);
            var lift = random.Next(6) == 0 ? LiftNeed.Any : place.UsualLift();
            made.Add(new(30 * random.Next(1, 15), lift, place));
        }
        var lags = new List<OrderingLag>();
        for (var j = 1; j < tasks; j++)
            foreach (var i in Enumerable.Range(0, j).OrderBy(_ => random.Next()).Take(random.Next(3)))
                lags.Add(new(i, j, random.Next(4) == 0 ? 60 * random.Next(1, 20) : 0));
        var bars = new List<OrderingBar>();
        for (var k = random.Next(4); k > 0; k--)
            if (lags.Count > 0 && lags[random.Next(lags.Count)] is var along)
                bars.Add(new(along.Before, along.After, [.. Enumerable.Range(0, tasks).Where(t => t != along.Before && t != along.After
                    && (made[along.Before].Lift == LiftNeed.Up ? made[t].Lift == LiftNeed.Down : random.Next(5) == 0))]));
        var fresh = new OrderingProblem(made, lags, bars, 240, 180);
        if (random.Next(3) > 0)
            return fresh;
        // Some begin in the middle: the first of an order that holds is done.
        var done = Enumerable.Range(0, random.Next(tasks / 2)).ToHashSet();
        return fresh with
        {
            Start = new(done, tasks > 4 && random.Next(3) == 0 ? new HashSet<int> { tasks - 1 - random.Next(2) } : new HashSet<int>(),
                lags.Where(l => l.Seconds > 0 && done.Contains(l.Before) && !done.Contains(l.After)).GroupBy(l => l.After)
                    .ToDictionary(g => g.Key, g => random.Next(g.Max(l => l.Seconds) + 1)),
                random.Next(2) == 0, (Place)random.Next(4)),
        };
    }
}
