using Anakyklos.Core.Kit;
using Anakyklos.Core.Laboratory;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Stores;
using BenchmarkDotNet.Attributes;

namespace Anakyklos.Bench;

/// <summary>What flows: one pour out of a full store, and one report against a long history.</summary>
[ShortRunJob]
[MemoryDiagnoser]
public class FluidBench
{
    private static readonly DateOnly Today = new(2026, 3, 9);
    private static readonly Quantity<Distance> Far = Quantity<Distance>.Of(10_000, Distance.Kilometre);
    private readonly Dictionary<int, Shelf> _stores = [];
    private readonly Dictionary<int, ResultBefore[]> _before = [];

    [Params(1, 100)]
    public int Times { get; set; }

    [GlobalSetup]
    public void Setup()
    {
        _stores[Times] = Shelf.Empty with
        {
            Containers = [.. Enumerable.Range(0, 2 * Times).Select(i => new OilContainer(i,
                i % 3 == 0 ? "Fulmar Road 5W-40" : "Gannet Lowash 5W-30",
                Quantity<Volume>.Of(1, Volume.Litre), Quantity<Volume>.Of(1, Volume.Litre), Volume.Litre,
                i % 2 == 0 ? Today.AddDays(-i) : null, $"B{i}"))],
        };
        _before[Times] = [.. Enumerable.Range(0, 1000 * Times).Select(i => new ResultBefore(new($"{1000 + i}-1A", Today,
            Enum.GetValues<Analyte>().ToDictionary(a => a, a => (decimal)(i % 40))), Far))];
    }

    [Benchmark]
    public PourPlan? Plan_a_pour_out_of_2_containers_for_each() =>
        PourPlan.Of(Quantity<Volume>.Of(58, Volume.Litre), ["Gannet Lowash 5W-30"], _stores[Times], Today);

    [Benchmark]
    public LabJudgement Judge_a_report_against_1000_before_for_each() =>
        LabRules.Judge(_before[Times][^1].Result, Far, ["SAE 5W-30"], _before[Times]);
}
