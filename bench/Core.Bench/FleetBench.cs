using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using BenchmarkDotNet.Attributes;

namespace Anakyklos.Bench;

/// <summary>Who is due, over a whole fleet of 40 jobs a vehicle, in one pass on one core.</summary>
[ShortRunJob]
[MemoryDiagnoser]
public class FleetBench
{
    private const int Jobs = 40;
    private static readonly DateOnly Today = new(2026, 3, 9);
    private FleetVehicle[] _fleet = [];

    [Params(100, 1_000, 10_000, 100_000)]
    public int Vehicles { get; set; }

    [GlobalSetup]
    public void Setup()
    {
        var random = new Random(7);
        static Quantity<Distance> Km(int km) => Quantity<Distance>.Of(km, Distance.Kilometre);
        // Twenty models and owners; each job by distance, months and hours, every third with an owner's rule beside the maker's.
        var models = Enumerable.Range(0, 20).Select(m => Enumerable.Range(0, Jobs).Select(j => new ServiceItem($"job-{j}", $"Job {j}",
            [(new ServiceInterval(Km(5_000 + 1_000 * (j + m)), 6 + j, j % 4 == 0 ? 200 + j : null), RuleOf.Maker),
                .. j % 3 == 0 ? [(new ServiceInterval(Km(4_000 + 900 * j), 5 + j), RuleOf.Owner)]
                : Array.Empty<(ServiceInterval, RuleOf)>()])).ToArray()).ToArray();
        _fleet = [.. Enumerable.Range(0, Vehicles).Select(v =>
        {
            var now = new UseMark(Km(random.Next(20_000, 200_000)), Today, random.Next(500, 5_000));
            return new FleetVehicle($"V{v}", models[v % 20], [.. Enumerable.Range(0, Jobs).Select(_ => random.Next(10) == 0 ? (UseMark?)null
                : new UseMark(now.Odometer - Km(random.Next(0, 15_000)), Today.AddDays(-random.Next(0, 700)),
                    now.Hours - random.Next(0, 300)))], now, new(new(default, new(2016, 1, 1))));
        })];
    }

    [Benchmark]
    public IReadOnlyList<FleetRow> Pass_over_the_fleet() => FleetCheck.Of(_fleet, DueWindow.Usual);
}
