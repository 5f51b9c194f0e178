using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Simulation.Tests;

/// <summary>Heat, oil pressure, current, tyres, belt, and who and what stands where.</summary>
public sealed class HeatTests
{
    private static readonly DateTimeOffset Eight = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);
    private static readonly ModelSheet Courier = BothWalk.Sheets["tarn-courier-20d"];

    private Vehicle _vehicle = Vehicle.AsItComes(Courier, Eight);

    private IReadOnlyList<Harm> Do(double seconds, params Happening[] hands)
    {
        List<Harm> harms = [];
        foreach (var hand in hands)
        {
            var answer = _vehicle.Answer(hand, Eight.AddSeconds(seconds));
            _vehicle = answer.Vehicle;
            harms.AddRange(answer.Harms);
        }
        return harms;
    }

    private static Quantity<Volume> L(decimal litres) => Quantity<Volume>.Of(litres, Volume.Litre);

    private decimal Celsius => Math.Round(_vehicle.EngineHeat.In(TemperatureScale.Celsius), 1);

    // 75 K above 15 °C, two thirds of the way in three minutes: 15 + 75 (1 - e^-1) = 62.4. It cools from 90 °C to 43 °C in the 45 minutes
    // that the sheet gives, 28 K above 15 °C: e^-0.985 of 75.
    [Fact]
    public void An_engine_warms_and_cools()
    {
        Assert.Equal((15m, false), (Celsius, _vehicle.IsHot));
        Do(0, new Starts());
        _vehicle = _vehicle.Until(Eight.AddMinutes(3)).Vehicle;
        Assert.Equal((62.4m, true), (Celsius, _vehicle.IsHot));
        Do(180, new Stops(), new RunsWarm());
        Assert.Equal(90m, Celsius);
        var (soon, later) = (_vehicle.Until(Eight.AddMinutes(40)).Vehicle, _vehicle.Until(Eight.AddMinutes(48)).Vehicle);
        Assert.Equal((true, false), (soon.IsHot, later.IsHot));
        Assert.Equal(43m, Math.Round(later.EngineHeat.In(TemperatureScale.Celsius)));
        Assert.True(Vehicle.AsItComes(Courier, Eight, hot: true).IsHot);
    }

    // 0.448 L stand in filter and galleries; at 0.15 L/s they are full after 2.99 s.
    [Fact]
    public void The_oil_light_goes_out_when_a_dry_filter_is_full()
    {
        Do(0, new Sets("wheel-chocks"), new SetsArms(), new Raises(), new TakesOff("undertray"), new SlidesPanUnder(),
            new Undoes("oil-filter-cap"), new Fits("filter-cap-ring"), new Fits("oil-filter"), new Tightens("oil-filter-cap"),
            new ClearsBelow(), new Lowers());
        Assert.Equal(0, Math.Round(_vehicle.Fluids["engine-oil"].Filter.In(Volume.Litre), 3));
        Do(0, new TurnsKey(true));
        Assert.Equal(["Service indicator", "Oil light"], _vehicle.Dash);
        Assert.Empty(Do(0, new Starts()));
        Assert.True(_vehicle.Until(Eight.AddSeconds(2.9)).Vehicle.OilLight);
        Assert.False(_vehicle.Until(Eight.AddSeconds(3)).Vehicle.OilLight);
        _vehicle = _vehicle.Until(Eight.AddMinutes(1)).Vehicle;
        Assert.Equal(2.99, Math.Round(_vehicle.RanDryFor.TotalSeconds, 2));
        Do(60, new Stops());
        Assert.Empty(_vehicle.Dash);
    }

    [Fact]
    public void Without_oil_it_runs_dry_for_as_heldas_it_runs()
    {
        Do(0, new TakesOff("bonnet"), new TakesOff("engine-cover"), new DrawsOff("engine-oil", L(3)), new PutsOn("engine-cover"));
        Assert.Equal(HarmKind.RunDry, Assert.Single(Do(0, new Starts())).Kind);
        var harm = Assert.Single(_vehicle.Until(Eight.AddSeconds(25)).Harms);
        Assert.Equal((HarmKind.RunDry, "no oil pressure for 25 s"), (harm.Kind, harm.Says));
    }

    [Fact]
    public void Without_current_nothing_turns_over_hums_or_goes_out()
    {
        Do(0, new TakesOff("bonnet"), new TakesOff("battery-earth"), new Fits("fuel-filter"), new TurnsKey(true));
        Assert.Empty(_vehicle.Dash);
        Assert.Equal(["there is no current", "there is no current", "there is no current"],
            Do(0, new Starts(), new Primes("fuel-filter"), new PutsOut("service-indicator")).Select(h => h.Says));
        Do(0, new PutsOn("battery-earth"), new Primes("fuel-filter"), new PutsOut("service-indicator"));
        Assert.Empty(_vehicle.Unprimed);
        Assert.Equal(["Oil light"], _vehicle.Dash);
        // On another model a hand primer does it, and needs none.
        var ostler = Vehicle.AsItComes(BothWalk.Sheets["ostler-brae-28d"], Eight).Answer(new TakesOff("bonnet"), Eight).Vehicle
            .Answer(new TakesOff("battery-earth"), Eight).Vehicle;
        Assert.Empty(ostler.Answer(new Primes("fuel-filter"), Eight).Harms);
    }

    [Fact]
    public void A_weak_battery_turns_it_slowly_until_it_is_charged_and_a_run_charges_it()
    {
        Do(0, new WeakBattery());
        Assert.Equal("it turns slowly and does not catch", Assert.Single(Do(0, new Starts())).Says);
        Assert.False(_vehicle.Runs);
        Assert.Empty(Do(0, new Charges(), new Starts()));
        Assert.Equal(0.98m, _vehicle.Charge);
        // Half of it in an hour: 0.98 is full again after two and a half minutes.
        Assert.Equal(0.99m, Math.Round(_vehicle.Until(Eight.AddSeconds(72)).Vehicle.Charge, 4));
        Assert.Equal(1, _vehicle.Until(Eight.AddMinutes(9)).Vehicle.Charge);
    }

    // A nail lets out 0.4 bar in an hour: 2.3 bar are below 1.2 after 2.75 hours.
    [Fact]
    public void A_nail_lets_a_tyre_down_and_a_pump_brings_it_back()
    {
        Do(0, new SlowPuncture("rear left"));
        Assert.Equal(1.9m, Math.Round(_vehicle.Until(Eight.AddHours(1)).Vehicle.Tyres["rear left"].In(Pressure.Bar), 3));
        Assert.Empty(_vehicle.Answer(new Drives(), Eight.AddMinutes(164)).Harms);
        Assert.Equal((HarmKind.FlatTyre, "rear left"), _vehicle.Answer(new Drives(), Eight.AddMinutes(166)).Harms is [{ } flat]
            ? (flat.Kind, flat.What) : default);
        var pumped = _vehicle.Answer(new Inflates(Quantity<Pressure>.Of(2.6m, Pressure.Bar)), Eight.AddHours(4)).Vehicle;
        Assert.All(pumped.Tyres.Values, t => Assert.Equal(2.6m, t.In(Pressure.Bar)));
        Assert.Equal(["front", "rear"], Vehicle.AsItComes(BothWalk.Sheets["maelor-ridge-900"], Eight).Tyres.Keys);
        Assert.Throws<ArgumentException>(() => _vehicle.With(new SlowPuncture("fifth wheel")));
    }

    [Fact]
    public void A_belt_beside_its_groove_is_seen_when_it_is_on_and_thrown_when_it_runs()
    {
        Do(0, new TakesOff("bonnet"), new TakesOff("engine-cover"), new TakesOff("belt-tensioner"), new Fits("drive-belt"),
            new BesideItsGroove("drive-belt"));
        Assert.Null(_vehicle.SeenOf("drive-belt"));
        Do(0, new PutsOn("belt-tensioner"), new ClearsAbove());
        Assert.Equal("a rib stands beside its groove", _vehicle.SeenOf("drive-belt"));
        Assert.Contains(_vehicle.Answer(new Starts(), Eight).Harms, h => h.Kind == HarmKind.BeltThrown);
        Assert.Empty(Do(0, new SeatsBelt("drive-belt"), new Starts()));
    }

    [Fact]
    public void Another_oil_in_the_can_and_fuel_in_the_old_one_are_seen()
    {
        Do(0, new WrongInCan("engine-oil"), new Thinned("engine-oil"), new TakesOff("bonnet"), new TakesOff("engine-cover"),
            new TakesOff("oil-filler-cap"));
        Assert.Equal("the can says another oil", _vehicle.SeenOf("engine-oil"));
        Assert.Equal(HarmKind.WrongOil, Assert.Single(_vehicle.Answer(new Pours("engine-oil", L(1)), Eight).Harms).Kind);
        Assert.Empty(Do(0, new FetchesRightCan("engine-oil"), new Pours("engine-oil", L(0.1m))));
        Assert.Null(_vehicle.SeenOf("engine-oil"));
        Do(0, new Sets("wheel-chocks"), new SetsArms(), new Raises(), new TakesOff("undertray"), new SlidesPanUnder(),
            new Undoes("engine-drain-plug"));
        Do(60, new ClearsAbove());
        Assert.Equal("thin, and it smells of fuel", _vehicle.SeenOf("engine-oil"));
    }

    [Fact]
    public void Out_of_a_can_comes_what_is_in_it_where_it_stands()
    {
        Hand By(string who, Hand hand) => hand with { By = who };
        Do(0, new TakesOff("bonnet"), new TakesOff("engine-cover"), new TakesOff("oil-filler-cap"), new DrawsOff("engine-oil", L(2)),
            new Brings("Blue can", "engine-oil", L(1.5m), Place.Side), By("Iona", new Goes(Place.Top)));
        Assert.EndsWith("it stands at the Side, and Iona is at the Top",
            Assert.Single(Do(0, By("Iona", new Pours("engine-oil", L(1), "Blue can")))).Says);
        // Carried, it keeps what is left.
        Assert.Empty(Do(0, new Brings("Blue can", "engine-oil", L(9), Place.Top), By("Iona", new Pours("engine-oil", L(1), "Blue can"))));
        Assert.Equal((L(0.5m), L(5.4m - 0.448m)), (_vehicle.Cans["Blue can"].Left, _vehicle.Fluids["engine-oil"].Inside));
        Assert.Equal("only 0.50 L is in it", Assert.Single(Do(0, new Pours("engine-oil", L(0.6m), "Blue can"))).Says);
        Assert.Throws<ArgumentException>(() => _vehicle.Answer(new Pours("engine-oil", L(1), "No such can"), Eight));
        var ostler = Vehicle.AsItComes(BothWalk.Sheets["ostler-brae-28d"], Eight);
        foreach (var hand in new Hand[] { new TakesOff("bonnet"), new TakesOff("oil-filler-cap"),
            new Brings("Gear oil", "gearbox-oil", L(1), Place.Top) })
            ostler = ostler.Answer(hand, Eight).Vehicle;
        Assert.Equal(HarmKind.WrongOil, Assert.Single(ostler.Answer(new Pours("engine-oil", L(0.1m), "Gear oil"), Eight).Harms).Kind);
    }

    // It passes from 35 N·m; half of that still presses the faces together.
    [Theory]
    [InlineData(17.4, LeakGrade.Drip)]
    [InlineData(17.5, LeakGrade.Weep)]
    [InlineData(35, null)]
    public void A_joint_weeps_or_drips_by_how_loose_it_is(double nm, LeakGrade? grade)
    {
        Do(0, new WasReallyTightenedTo("engine-drain-plug", Quantity<Torque>.Of((decimal)nm, Torque.NewtonMetre)));
        Assert.Equal(grade, _vehicle.LeakAt("engine-drain-plug")?.Grade);
        Assert.Equal(grade, _vehicle.Answer(new Starts(), Eight).Harms.SingleOrDefault()?.Grade);
    }

    // 1.4 L between the marks: half of that above the top mark froths, twice of it finds a seal.
    [Theory]
    [InlineData(0.7, "")]
    [InlineData(0.8, "it froths")]
    [InlineData(2.9, "it blows a seal")]
    public void Too_much_froths_and_then_blows_a_seal(double litres, string says)
    {
        Do(0, new TakesOff("bonnet"), new TakesOff("engine-cover"), new TakesOff("oil-filler-cap"),
            new Pours("engine-oil", L((decimal)litres)), new PutsOn("oil-filler-cap"));
        Assert.Equal(says, _vehicle.Answer(new Starts(), Eight).Harms.SingleOrDefault()?.Says ?? "");
    }

    [Fact]
    public void A_stick_that_is_misread_shows_what_is_read_and_not_what_is()
    {
        Do(0, new MisreadStick("engine-oil", -0.1m));
        Assert.Equal((1m, 0.9m), (_vehicle.LevelOf("engine-oil"), _vehicle.ReadsAs("engine-oil")));
    }

    [Fact]
    public void Nobody_reaches_what_is_elsewhere_and_nobody_stays_under_it_when_it_moves()
    {
        Hand By(string who, Hand hand) => hand with { By = who };
        Assert.EndsWith("Iona is at the Side, and it is at the Top",
            Assert.Single(Do(0, By("Iona", new TakesOff("bonnet")))).Says);
        Assert.Empty(Do(0, By("Iona", new Goes(Place.Top)), By("Iona", new TakesOff("bonnet")), By("Bram", new Goes(Place.Cab)),
            By("Iona", new Goes(Place.Side)), By("Iona", new Sets("wheel-chocks")), By("Iona", new SetsArms())));
        // Whoever sat in it got out when the arms were set, and in again.
        Assert.Equal(Place.Side, _vehicle.People["Bram"]);
        Do(0, By("Bram", new Goes(Place.Cab)));
        Assert.Equal((HarmKind.RaisedUnsafely, "Bram"),
            Do(0, By("Iona", new Raises())) is [{ } inside] ? (inside.Kind, inside.What) : default);
        Do(0, By("Bram", new Goes(Place.Below)));
        Assert.Equal((HarmKind.Crushed, "Bram"), Do(0, By("Iona", new Lowers())) is [{ } under] ? (under.Kind, under.What) : default);
        Assert.Equal(HarmKind.OffItsStand, Do(0, new SetsArms(), new Raises(), new TakesAway("wheel-chocks"))[^1].Kind);
    }

    // Two thirds of 75 K in 3 km: 15 + 75 (1 - e^-1) = 62.4; a hundred metres more than nothing are not warm.
    [Fact]
    public void A_drive_warms_it_with_the_way()
    {
        Assert.Empty(Do(0, new Drives(Quantity<Distance>.Of(3, Distance.Kilometre))));
        Assert.Equal((62.4m, 3m), (Celsius, _vehicle.Driven.In(Distance.Kilometre)));
        Do(0, new Drives());
        Assert.Equal((90m, 18m), (Celsius, _vehicle.Driven.In(Distance.Kilometre)));
        Assert.Throws<ArgumentOutOfRangeException>(() => _vehicle.Answer(new Drives(default(Quantity<Distance>)), _vehicle.Now));
    }

    [Fact]
    public void What_is_only_slackened_is_in_and_leaks_and_is_not_driven_on()
    {
        Do(0, new Sets("wheel-chocks"), new SetsArms(), new Raises(), new TakesOff("undertray"));
        Assert.Empty(Do(0, new Loosens("engine-drain-plug")));
        Assert.Equal((true, false), (_vehicle.Joints["engine-drain-plug"].IsIn, _vehicle.Joints["engine-drain-plug"].IsTight));
        Do(0, new PutsOn("undertray"), new ClearsBelow(), new Lowers(), new TakesAway("wheel-chocks"));
        var harms = Do(0, new Drives());
        Assert.Contains(harms, h => h.Kind == HarmKind.Leak);
        Assert.Contains(harms, h => h.Kind == HarmKind.DrivenOpen);
        Do(0, new Sets("wheel-chocks"), new SetsArms(), new Raises(), new TakesOff("undertray"), new SlidesPanUnder(),
            new Undoes("engine-drain-plug"));
        Assert.Equal("it is out already", Assert.Single(Do(0, new Loosens("engine-drain-plug"))).Says);
    }

    // A quarter of 0.15 L/s: 0.448 L of filter and galleries are full after 11.9 s, and 4 s bring 0.15 L.
    [Fact]
    public void A_starter_turns_the_pump_slowly_and_does_not_bear_it_for_long()
    {
        Do(0, new Sets("wheel-chocks"), new SetsArms(), new Raises(), new TakesOff("undertray"), new SlidesPanUnder(),
            new Undoes("oil-filter-cap"), new Fits("filter-cap-ring"), new Fits("oil-filter"), new Tightens("oil-filter-cap"),
            new ClearsBelow(), new Lowers());
        var sump = _vehicle.Fluids["engine-oil"].Inside;
        Assert.Empty(Do(0, new Cranks(TimeSpan.FromSeconds(4))));
        Assert.Equal((L(0.15m), sump - L(0.15m)), (_vehicle.Fluids["engine-oil"].Filter, _vehicle.Fluids["engine-oil"].Inside));
        Assert.Equal((false, 0.96m), (_vehicle.Runs, _vehicle.Charge));
        var held = Assert.Single(Do(0, new Cranks(TimeSpan.FromSeconds(12))));
        Assert.Equal((HarmKind.StarterBurnt, "worked for 12 s: it smells"), (held.Kind, held.Says));
        Assert.Equal(0.448m, Math.Round(_vehicle.Fluids["engine-oil"].Filter.In(Volume.Litre), 3));
        // Half a minute more takes 0.30 of what is left of the battery, and again: then it has not enough to turn it.
        Do(0, new Cranks(TimeSpan.FromSeconds(30)), new Cranks(TimeSpan.FromSeconds(30)));
        Assert.Equal("it turns slowly and does not catch", Assert.Single(Do(0, new Cranks(TimeSpan.FromSeconds(2)))).Says);
        Assert.Throws<ArgumentOutOfRangeException>(() => _vehicle.Answer(new Cranks(TimeSpan.Zero), _vehicle.Now));
    }

    [Fact]
    public void Cranked_before_it_is_primed_or_with_nothing_to_draw_is_told()
    {
        Do(0, new Sets("wheel-chocks"), new SetsArms(), new Raises(), new TakesOff("undertray"), new SlidesPanUnder(),
            new Undoes("engine-drain-plug"));
        _vehicle = _vehicle.Until(Eight.AddHours(2)).Vehicle;
        Do(7200, new Fits("drain-washer"), new Tightens("engine-drain-plug"), new ClearsBelow(), new Lowers(),
            new DrawsOff("engine-oil", _vehicle.Fluids["engine-oil"].Inside));
        // What stands in filter and galleries is still there.
        Assert.Empty(Do(7200, new Cranks(TimeSpan.FromSeconds(8))));
        Assert.Contains(Do(7200, new Starts()), h => h.Kind == HarmKind.RunDry);
        Assert.Equal("it runs already", Assert.Single(Do(7200, new Cranks(TimeSpan.FromSeconds(3)))).Says);
    }

    [Fact]
    public void A_tool_lies_where_it_was_used_and_a_pan_holds_so_much()
    {
        Do(0, new Sets("wheel-chocks"), new SetsArms(), new Raises(), new TakesOff("undertray"), new SlidesPanUnder(L(3.5m)),
            new Undoes("engine-drain-plug"));
        Assert.Equal(Place.Below, _vehicle.Lies["T30 bit"]);
        var spilled = Assert.Single(_vehicle.Until(Eight.AddMinutes(10)).Harms);
        Assert.EndsWith("on the floor: the pan is full", spilled.Says);
        var after = _vehicle.Until(Eight.AddMinutes(10)).Vehicle;
        // 5.952 e^-5 stay in, 3.5 are in the pan, the rest is on the floor.
        Assert.Equal((3.5m, 2.412m), (after.Pans["Pan"].Filled.In(Volume.Litre),
            Math.Round(after.Fluids["engine-oil"].Floor.In(Volume.Litre), 3)));
        // Out from under it the pan is as full as before, until it is emptied.
        var clear = after.Answer(new ClearsBelow(), after.Now).Vehicle;
        Assert.Equal((0, L(3.5m)), (clear.PanUnder.Count, clear.Pans["Pan"].Filled));
        var empty = clear.Answer(new EmptiesPan(), after.Now).Vehicle;
        Assert.Equal((L(0), L(0)), (empty.Pans["Pan"].Filled, empty.Fluids["engine-oil"].Pan));
        Assert.Equal("2 of 9 screws are missing", Assert.Single(Do(0, new PutsOn("undertray", 7))).Says);
    }
}
