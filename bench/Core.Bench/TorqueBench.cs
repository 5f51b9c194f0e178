using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;
using BenchmarkDotNet.Attributes;

namespace Anakyklos.Bench;

/// <summary>What the hands do: a wrench out of a crib, and the order of many screws.</summary>
[ShortRunJob]
[MemoryDiagnoser]
public class TorqueBench
{
    private static readonly ToTorque Wanted = new(Nm(38), Nm(35), Nm(41));
    private static readonly CrowFoot Crow = new(Quantity<Length>.Of(40, Length.Millimetre), 0);
    private readonly Dictionary<int, TorqueWrench[]> _crib = [];
    private readonly Dictionary<int, FastenerPlace[]> _round = [];
    private readonly Dictionary<int, FastenerPlace[]> _pan = [];

    [Params(1, 10)]
    public int Times { get; set; }

    private static Quantity<Torque> Nm(decimal nm) => Quantity<Torque>.Of(nm, Torque.NewtonMetre);

    [GlobalSetup]
    public void Setup()
    {
        _crib[Times] = [.. Enumerable.Range(0, 4 * Times).Select(i => new TorqueWrench($"TW-{i}", Nm(4 + i % 7), Nm(60 + i), Nm(1 + i % 3),
            Torque.NewtonMetre, 4, Quantity<Length>.Of(250 + i, Length.Millimetre)))];
        _round[Times] = [.. FastenerGroup.Circle(4 * Times)];
        _pan[Times] = [.. Enumerable.Range(0, 4 * Times).Select(i => new FastenerPlace(i + 1, i / 2 * 100m / (2 * Times), i % 2 * 100))];
    }

    [Benchmark]
    public TorqueWrench? Choose_out_of_4_wrenches_for_each() => TorqueWrench.For(_crib[Times], Wanted);

    [Benchmark]
    public TorqueWrench? Choose_with_a_crow_foot() => TorqueWrench.For(_crib[Times], Wanted, Crow);

    [Benchmark]
    public IReadOnlyList<FastenerPlace> Order_4_on_a_circle_for_each() => FasteningOrder.Of(TighteningOrder.Star, _round[Times]);

    [Benchmark]
    public IReadOnlyList<FastenerPlace> Order_4_along_a_pan_for_each() => FasteningOrder.Of(TighteningOrder.FromTheMiddle, _pan[Times]);
}
