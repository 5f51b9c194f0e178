using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using NetArchTest.Rules;

namespace Anakyklos.Simulation.Tests;

/// <summary>The vehicle by itself, on the Courier: 6.4 L, of which 7 % stand in filter and galleries, 1.4 L between the marks.</summary>
public sealed class VehicleTests
{
    private static readonly ModelSheet Courier = BothWalk.Sheets["tarn-courier-20d"];
    private static readonly DateTimeOffset Eight = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);

    private Vehicle _vehicle = Vehicle.AsItComes(Courier, Eight);

    private IReadOnlyList<HarmKind> Do(double minute, params Hand[] hands)
    {
        List<HarmKind> harms = [];
        foreach (var hand in hands)
        {
            var answer = _vehicle.Answer(hand, Eight.AddMinutes(minute));
            _vehicle = answer.Vehicle;
            harms.AddRange(answer.Harms.Select(h => h.Kind));
        }
        return harms;
    }

    private static Quantity<Volume> L(decimal litres) => Quantity<Volume>.Of(litres, Volume.Litre);

    private static Quantity<Torque> Nm(decimal nm) => Quantity<Torque>.Of(nm, Torque.NewtonMetre);

    private static decimal Round(Quantity<Volume> volume) => Math.Round(volume.In(Volume.Litre), 3);

    private Contents Oil => _vehicle.Fluids["engine-oil"];

    // Up, undertray off, pan under it.
    private void Underneath() =>
        Assert.Empty(Do(0, new Sets("wheel-chocks"), new SetsArms(), new Raises(), new TakesOff("undertray"), new SlidesPanUnder()));

    [Fact]
    public void It_knows_sheets_and_quantities_and_nothing_of_cards() => Assert.Empty(Types.InAssembly(typeof(Vehicle).Assembly).That()
        .HaveDependencyOnAny([.. typeof(ModelSheet).Assembly.GetTypes().Select(t => t.Namespace ?? "")
            .Where(n => n.StartsWith("Anakyklos.Core.", StringComparison.Ordinal)).Distinct()
            .Except(["Anakyklos.Core.Ids", "Anakyklos.Core.Quantities", "Anakyklos.Core.Sheets", "Anakyklos.Core.Tightening"])])
        .GetTypes());

    [Fact]
    public void As_it_comes_everything_is_shut_and_at_its_mark()
    {
        Assert.Equal((5.952m, 0.448m), (Round(Oil.Inside), Round(Oil.Filter)));
        Assert.Equal(1, _vehicle.LevelOf("engine-oil"));
        Assert.Empty(Do(0, new Starts(), new Stops(), new Drives()));
        Assert.All(_vehicle.Joints.Values, j => Assert.True(j.IsIn && j.IsTight));
    }

    // A share of 1/e stays after each two minutes: 5.952 e^-1 = 2.190, e^-5 = 0.040.
    [Theory]
    [InlineData(2, 2.190)]
    [InlineData(10, 0.040)]
    public void It_runs_out_of_its_plug_by_time(double minutes, double stays)
    {
        Underneath();
        Assert.Empty(Do(0, new Undoes("engine-drain-plug")));
        _vehicle = _vehicle.Until(Eight.AddMinutes(minutes)).Vehicle;
        Assert.Equal((decimal)stays, Round(Oil.Inside));
        Assert.Equal(5.952m, Round(Oil.Inside + Oil.Pan));
        Assert.Equal(0, Round(Oil.Floor));
    }

    [Fact]
    public void Without_a_pan_it_is_on_the_floor_and_what_is_poured_runs_through()
    {
        Underneath();
        Do(0, new ClearsBelow(), new Undoes("engine-drain-plug"));
        Assert.Equal([HarmKind.OnTheFloor], _vehicle.Until(Eight.AddMinutes(20)).Harms.Select(h => h.Kind));
        Assert.Equal([HarmKind.OutOfReach], Do(0, new TakesOff("oil-filler-cap"))); // the bonnet is shut, and it is up
        Assert.Equal([HarmKind.OutOfReach], Do(0, new Pours("engine-oil", L(1))));
        // The tool with which the plug was undone lies there too.
        Assert.Equal([HarmKind.LoweredOnto, HarmKind.LoweredOnto], Do(0, new Lowers()));
        Assert.Empty(Do(0, new TakesOff("bonnet"), new TakesOff("engine-cover"), new TakesOff("oil-filler-cap")));
        Assert.Equal([HarmKind.PouredThrough], Do(0, new Pours("engine-oil", L(1))));
    }

    [Fact]
    public void A_start_on_too_little_runs_dry_and_a_full_filter_is_taken_from_the_sump()
    {
        Do(0, new TakesOff("bonnet"), new TakesOff("engine-cover"), new DrawsOff("engine-oil", L(2.3m)), new PutsOn("engine-cover"));
        // 4.1 L is in; 4.6 L is safe, and below nine tenths of that, 4.14 L, it draws air.
        Assert.Equal([HarmKind.RunDry], Do(0, new Starts()));
        Do(0, new Stops(), new TakesOff("engine-cover"), new TakesOff("oil-filler-cap"), new Pours("engine-oil", L(0.1m)),
            new PutsOn("oil-filler-cap"), new PutsOn("engine-cover"));
        Assert.Empty(Do(0, new Starts()));
    }

    [Theory]
    [InlineData(34.9, true, HarmKind.Leak)]
    [InlineData(35, true, null)]
    [InlineData(38, false, HarmKind.Leak)]
    [InlineData(54, true, HarmKind.Strained)]
    public void A_joint_is_dry_with_its_torque_and_its_seal(double torque, bool seal, HarmKind? harm)
    {
        Underneath();
        Do(0, new Undoes("engine-drain-plug"));
        if (seal)
            Do(0, new Fits("drain-washer"));
        // A washer that was in once already may go back once; the one that came with the vehicle does so here a second time.
        else
            Do(0, new Tightens("engine-drain-plug"), new Undoes("engine-drain-plug"));
        List<HarmKind> harms = [.. Do(0, new Tightens("engine-drain-plug", Nm((decimal)torque))), .. Do(0, new Starts())];
        Assert.Equal(harm is { } kind ? [kind] : [], harms);
    }

    [Fact]
    public void It_is_raised_held_and_seen_and_driven_shut()
    {
        Assert.Equal([HarmKind.RaisedUnsafely, HarmKind.RaisedUnsafely], Do(0, new Raises()));
        Assert.Empty(Do(0, new Lowers(), new Sets("wheel-chocks"), new SetsArms(), new Raises(), new Lowers()));
        Assert.Equal([HarmKind.RaisedUnsafely], Do(0, new Raises()));
        Assert.Equal([HarmKind.DrivenOpen], Do(0, new Lowers(), new Drives()));
        Assert.Empty(Do(0, new TakesAway("wheel-chocks"), new Drives()));
        Do(0, new Fits("fuel-filter"));
        Assert.Equal("It is 2026-03-09T08:00:00.0000000+00:00 already. (Parameter 'at')",
            Assert.Throws<ArgumentException>(() => _vehicle.Until(Eight.AddMinutes(-1))).Message);
        Assert.Throws<ArgumentException>(() => _vehicle.Answer(new Undoes("no-such-bolt"), Eight));
    }
}
