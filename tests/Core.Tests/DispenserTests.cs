using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Records;
using Anakyklos.Core.Stores;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>What a dispenser metered goes to the pour that wants it only where nothing speaks against it, out of the container in which it
/// hangs.</summary>
public sealed class DispenserTests
{
    private readonly Workbench _bench = new();

    public DispenserTests()
    {
        _bench.WorkUpTo("first-pour");
        OilContainer Can(int id, string product, decimal left) => new(id, product, L(20), L(left), Volume.Litre, null, $"B{id}");
        _bench.Facts = _bench.Facts with
        {
            Shelf = _bench.Facts.Shelf with
            {
                Containers = [Can(1, "Gannet Lowash 5W-30", 20), Can(2, "Gannet Lowash 5W-30", 4), Can(3, "Fulmar Heavy 10W-40", 20)],
            },
        };
    }

    private static Device Pump(int? from = 2, bool known = true, string calibrated = "2026-12-31", string bay = "Bay 1") => new("OD-1",
        DeviceKind.Dispenser, bay, null,
        known ? new("OD-1", 0.5m, DateOnly.ParseExact(calibrated, "yyyy-MM-dd")) : null, from);

    private Landing Land(decimal litres, int? from = 2, Device? device = null, MeasuredValue? read = null) => Landing.Of(
        new(Guid.NewGuid(), "OD-1", "Bay 1", read ?? new MeasuredVolume(Litres(litres), from), _bench.Now), device ?? Pump(),
        [new(1007, _bench.Card)], null, _bench.Now);

    private string Why(decimal litres = 5, int? from = 2, Device? device = null, MeasuredValue? read = null) =>
        Assert.IsType<WaitsInSight>(Land(litres, from, device, read)).Why.What;

    private CardCommand Command(decimal litres, int? from = 2) =>
        Assert.IsType<LandsAt>(Land(litres, from, Pump(from))).Command;

    private FilledLine Line => Assert.Single(ServiceRecord.Of(_bench.Card).Filled);

    [Fact]
    public void What_it_metered_goes_in_and_is_booked_out_of_the_one_container_it_hangs_in()
    {
        _bench.Do(Command(3.8m));
        var poured = Assert.IsType<Poured>(_bench.Card.History[^1].Event);
        Assert.Equal((Litres(3.8m), new DeviceId("OD-1")), (poured.Amount, poured.Device));
        Assert.Equal((2, L(3.8m)), (Assert.Single(poured.From!).Can, poured.From![0].Takes));
        Assert.True(_bench.Card.IsFromDevice(_bench.Card.History[^1]));
        // 0.2 L is left in it by the book: whatever more came out of it, it came out of no other.
        _bench.Do(new TakeBack(_bench.Card.History[^1].Seq));
        _bench.Do(Command(5));
        Assert.Equal((2, L(4)), (Assert.Single(((Poured)_bench.Card.History[^1].Event).From!).Can,
            ((Poured)_bench.Card.History[^1].Event).From![0].Takes));
    }

    [Fact]
    public void A_hand_that_pours_the_same_takes_the_rest_from_the_next_can()
    {
        _bench.Do(Command(1));
        _bench.Do(new TakeBack(_bench.Card.History[^1].Seq));
        _bench.Do(new Pour("first-pour", Litres(5), From: 2));
        Assert.Equal((null, null), (Line.Meter, Line.Metered));
        Assert.Equal([(2, L(4)), (1, L(1))], ((Poured)_bench.Card.History[^1].Event).From!.Select(f => (f.Can, f.Takes)));
        Assert.False(_bench.Card.IsFromDevice(_bench.Card.History[^1]));
    }

    [Fact]
    public void The_wrong_oil_and_too_much_are_not_taken_by_themselves()
    {
        var refused = Assert.Single(_bench.Refusals(Command(5, 3)));
        Assert.Equal("Can 3 holds Fulmar Heavy 10W-40, and Gannet Lowash 5W-30 was laid out.", refused.What);
        Assert.StartsWith("It is in:", refused.Do);
        Assert.Equal("lay-out-kit", refused.Step!.Value.Text);
        var over = Assert.IsType<Asked>(_bench.Try(Command(7.5m)));
        Assert.Contains("Was it really 7.50 L?", over.Question.Text);
        _bench.Do((Pour)Command(7.5m) with { WarningSeen = true });
        Assert.Equal(L(7.5m), _bench.Card.Fluid("engine-oil").Poured);
    }

    [Fact]
    public void What_is_in_doubt_of_the_dispenser_waits()
    {
        Assert.StartsWith("OD-1 measures volume, and 38 N·m is a torque", Why(read: new MeasuredTorque(Nm(38))));
        Assert.StartsWith("The workshop has no dispenser OD-1", Why(device: Pump(known: false)));
        Assert.StartsWith("The calibration of OD-1 is past", Why(device: Pump(calibrated: "2026-03-08")));
        Assert.IsType<LandsAt>(Land(5, device: Pump(calibrated: "2026-03-09")));
        Assert.StartsWith("OD-1 says it draws from container 1; the workshop has it in container 2", Why(from: 1));
        Assert.StartsWith("OD-1 says it draws from container 2; the workshop has it in none", Why(device: Pump(null)));
        Assert.StartsWith("OD-1 does not say out of which container", Why(from: null, device: Pump(null)));
        Assert.StartsWith("OD-1 says it is in Bay 1; the workshop has it in Bay 2", Why(device: Pump(bay: "Bay 2")));
    }

    [Fact]
    public void Two_runs_one_after_the_other_are_two_amounts()
    {
        _bench.Do(Command(2));
        var last = new LandedBefore("other-step", _bench.Now.AddSeconds(-1));
        Assert.IsType<LandsAt>(Landing.Of(new(Guid.NewGuid(), "OD-1", "Bay 1", new MeasuredVolume(Litres(3), 2), _bench.Now), Pump(),
            [new(1007, _bench.Card)], last, _bench.Now));
    }

    [Fact]
    public void It_tops_up_where_the_gauge_asks_for_it_and_nowhere_else()
    {
        _bench.Do(Command(4));
        _bench.Do(new Pour("first-pour", Litres(1), From: 1));
        Assert.Equal((new DeviceId("OD-1"), L(4), L(5)), (Line.Meter, Line.Metered, Line.In));
        _bench.WorkUpTo("level");
        _bench.Wait(30);
        Assert.StartsWith("Nothing should be poured", Assert.Single(_bench.Refusals(Command(0.5m, 1))).What);
        _bench.Do(new ReadGauge("level", new(0)));
        _bench.Do(Command(0.4m, 1));
        Assert.Equal(L(5.4m), _bench.Card.Fluid("engine-oil").Poured);
    }
}
