using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Coaches.Resetting;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Torques;

namespace Anakyklos.Simulation.Tests;

/// <summary>Things that go wrong: the vehicle shows them where they can be seen, the card is told, and no harm comes of them.</summary>
public sealed class FaultTests
{
    private static Quantity<Torque> Nm(decimal nm) => Quantity<Torque>.Of(nm, Torque.NewtonMetre);

    private static BothWalk On(string sheet, params JobId[] jobs) => new(BothWalk.Sheets[sheet], jobs);

    private static void EndsWell(BothWalk walk)
    {
        walk.ByTheBook();
        Assert.Empty(ByTheBookTests.Wrong(walk));
    }

    [Fact]
    public void A_seized_fill_plug_is_felt_before_anything_runs_out_and_the_job_is_given_up()
    {
        var walk = On("ostler-brae-28d", "gearbox-oil", "engine-oil-and-filter");
        walk.Happens(new Seized("gearbox-fill-plug"));
        var loosen = walk.Card.Steps.First(s => s.What == "gearbox-fill-plug" && s.Traits.Opens);
        var drain = walk.Card.Steps.First(s => s.What == "gearbox-drain-plug" && s.Traits.LetsOut);
        walk.UpTo(loosen.Id);
        Assert.Equal((HarmKind.OutOfReach, "it does not move"), Only(walk.Happens(new Undoes("gearbox-fill-plug"))));
        // The drain stays shut for it, whoever asks.
        Assert.Contains("fill plug", walk.Why(new ConfirmStep(drain.Id)));
        Assert.True(walk.Try(new DropJob("gearbox-oil", "Fill plug is seized")));
        EndsWell(walk);
        Assert.Equal(walk.Vehicle.Sheet.Fluids["gearbox-oil"].Amount.Value, walk.Vehicle.Fluids["gearbox-oil"].Inside);
        Assert.Contains(walk.Card.Dropped, d => d.Event.Name == "Gearbox oil");
    }

    [Fact]
    public void A_wrong_filter_in_the_box_is_seen_beside_the_old_one_and_nothing_starts_until_the_right_one_is_there()
    {
        var walk = On("tarn-courier-20d", "engine-oil-and-filter");
        walk.Happens(new WrongInBox("oil-filter"));
        Assert.Null(walk.Vehicle.SeenOf("oil-filter"));
        walk.UpTo("compare-filter");
        Assert.Equal("half the size of the old one", walk.Vehicle.SeenOf("oil-filter"));
        Assert.True(walk.Try(new NoteFinding("compare-filter", FindingGrade.Stop, "Filter is half the size")));
        walk.UpTo("start");
        Assert.Contains("half the size", walk.Why(new ConfirmStep("start")));
        // Whoever started all the same would run it through too small a filter.
        Assert.Contains(walk.Vehicle.Answer(new Starts(), walk.Vehicle.Now).Harms, h => h.Kind == HarmKind.WrongPart);
        walk.Happens(new FetchesRight("oil-filter"));
        Assert.Null(walk.Vehicle.SeenOf("oil-filter"));
        EndsWell(walk);
    }

    [Fact]
    public void A_ring_that_stayed_on_its_face_is_seen_there_and_leaks_under_a_new_one()
    {
        var walk = On("tarn-courier-20d", "engine-oil-and-filter");
        walk.Happens(new OldRingStays("oil-filter-cap"));
        Assert.Null(walk.Vehicle.SeenOf("oil-filter-cap"));
        walk.UpTo("compare-filter");
        Assert.Equal("the old ring is still on its face", walk.Vehicle.SeenOf("oil-filter-cap"));
        var careless = walk.Vehicle;
        foreach (var hand in new Hand[] { new Fits("filter-cap-ring"), new Fits("oil-filter"), new Tightens("oil-filter-cap") })
            careless = careless.Answer(hand, careless.Now).Vehicle;
        Assert.Contains(careless.Answer(new Starts(), careless.Now).Harms, h => h is { Kind: HarmKind.Leak, Says: "two seals under it" });
        walk.Happens(new PicksOff("oil-filter-cap"));
        EndsWell(walk);
    }

    [Fact]
    public void A_wrench_out_of_calibration_leaves_a_joint_loose_that_the_look_finds()
    {
        var walk = On("tarn-courier-20d", "engine-oil-and-filter");
        walk.UpTo("tighten-drain-plug");
        walk.GoOn();
        // The card was told 38; the joint is at 30.
        walk.Happens(new WasReallyTightenedTo("engine-drain-plug", Nm(30)));
        Assert.DoesNotContain(walk.Card.Open, o => o.Id == "engine-drain-plug");
        Assert.Contains(walk.Vehicle.Answer(new Starts(), walk.Vehicle.Now).Harms, h => h is { Kind: HarmKind.Leak, Says: "it is loose" });
        // At 35 it passes and is dry: what the book allows is enough.
        var enough = walk.Vehicle.With(new WasReallyTightenedTo("engine-drain-plug", Nm(35)));
        Assert.DoesNotContain(enough.Answer(new Starts(), enough.Now).Harms, h => h.Kind == HarmKind.Leak);
    }

    [Fact]
    public void A_joint_that_leaks_at_the_look_is_opened_on_the_card_again_and_dry_in_the_end()
    {
        var walk = On("tarn-courier-20d", "engine-oil-and-filter");
        var look = walk.Card.Steps.First(s => s.Traits.LooksAtJoints);
        walk.UpTo(look.Id);
        Assert.True(walk.Try(new ReportLeak(look.Id, "engine-drain-plug")));
        Assert.Contains(walk.Card.Open, o => o.Id == "engine-drain-plug");
        Assert.False(walk.Vehicle.Joints["engine-drain-plug"].IsTight);
        EndsWell(walk);
    }

    // The light alone tells: it stays on although there is pressure, and the engine is off until somebody has found the wire.
    [Fact]
    public void A_trapped_wire_keeps_the_light_on_until_it_is_found()
    {
        var walk = new BothWalk(BothWalk.Sheets["tarn-courier-20d"], ["engine-oil-and-filter"]) { HasEyes = true };
        walk.Happens(new TrappedWire());
        Assert.False(walk.Vehicle.OilLight);
        EndsWell(walk);
        Assert.Single(walk.Card.History, h => h.Event is OilLightStayed);
        Assert.Single(walk.Card.History, h => h.Event is LightLookedInto);
        Assert.Empty(walk.Vehicle.Faults);
        var running = walk.Vehicle.Answer(new Starts(), walk.Vehicle.Now).Vehicle;
        running = running.Until(running.Now + TimeSpan.FromSeconds(30)).Vehicle;
        Assert.False(running.OilLight);
        Assert.True(running.With(new TrappedWire()).OilLight);
        Assert.Equal([new FreesWire()], running.With(new TrappedWire()).Remedies);
    }

    // A film is wiped and comes back, a drop is a leak at once; what turned under the wrench keeps its seal.
    [Theory]
    [InlineData("tarn-courier-20d", "engine-drain-plug", 30, true)]
    [InlineData("tarn-courier-20d", "engine-drain-plug", 5, false)]
    [InlineData("hespin-16", "oil-filter-cap", 2, false)]
    public void A_loose_joint_shows_as_far_as_it_is_loose_and_turns_under_the_wrench(string sheet, string joint, int torque, bool weeps)
    {
        var walk = new BothWalk(BothWalk.Sheets[sheet], ["engine-oil-and-filter"]) { HasEyes = true };
        walk.UpTo(walk.Card.Steps.First(s => s.Traits.Engine == EngineUse.Starts).Id);
        walk.Happens(new WasReallyTightenedTo(joint, Nm(torque)));
        walk.Unsaid(joint);
        EndsWell(walk);
        Assert.Equal(weeps ? 1 : 0, walk.Card.History.Count(h => h.Event is JointWept));
        var leak = Assert.IsType<LeakFound>(walk.Card.History.Single(h => h.Event is LeakFound).Event);
        // HD-04's cap is in sight: it drips while it runs, and is seen then.
        Assert.Equal(sheet == "hespin-16" ? StepKind.Settle : StepKind.Look, walk.Card.Step(leak.Step)!.Kind);
        Assert.Single(walk.Card.History, h => h.Event is JointWasLoose);
        Assert.Null(walk.Vehicle.LeakAt(joint));
    }

    [Fact]
    public void A_new_seal_takes_the_place_of_all_that_is_under_the_joint_and_a_new_filter_is_empty()
    {
        var walk = On("tarn-courier-20d", "engine-oil-and-filter");
        walk.Happens(new OldRingStays("oil-filter-cap"));
        walk.UpTo("compare-filter");
        var vehicle = walk.Vehicle;
        foreach (var hand in new Hand[] { new Fits("filter-cap-ring"), new Fits("oil-filter"), new Tightens("oil-filter-cap") })
            vehicle = vehicle.Answer(hand, vehicle.Now).Vehicle;
        Assert.Equal("two seals under it", vehicle.LeakAt("oil-filter-cap")!.Value.Why);
        foreach (var hand in new Hand[] { new RenewsSeal("oil-filter-cap"), new Tightens("oil-filter-cap") })
            vehicle = vehicle.Answer(hand, vehicle.Now).Vehicle;
        Assert.Null(vehicle.LeakAt("oil-filter-cap"));
        var ridge = On("maelor-ridge-900", "engine-oil-and-filter");
        ridge.UpTo(ridge.Card.Steps.First(s => s.Traits.Engine == EngineUse.Stops).Id);
        Assert.NotEqual(Quantity<Volume>.Zero, ridge.Vehicle.Fluids["engine-oil"].Filter);
        var off = ridge.Vehicle.Answer(new Stops(), ridge.Vehicle.Now).Vehicle;
        var renewed = off.Answer(new RenewsSeal("oil-filter-can"), off.Now);
        Assert.Empty(renewed.Harms);
        Assert.Equal(Quantity<Volume>.Zero, renewed.Vehicle.Fluids["engine-oil"].Filter);
        Assert.Equal(LeakGrade.Drip, renewed.Vehicle.LeakAt("oil-filter-can")!.Value.Grade);
    }

    [Fact]
    public void A_reset_that_fails_the_first_time_is_done_again_until_it_is_out()
    {
        var walk = On("tarn-courier-20d", "engine-oil-and-filter");
        var reset = walk.Card.Steps.First(s => s.EndsReset);
        walk.Happens(new ResetFailsOnce(reset.What));
        walk.UpTo(reset.Id);
        walk.Happens(new PutsOut(reset.What));
        Assert.Contains((ResetId)reset.What, walk.Vehicle.Lit);
        Assert.True(walk.Try(new FailReset(reset.Id)));
        Assert.Contains(walk.Card.Open, o => o.Kind == OpenKind.Indicator);
        EndsWell(walk);
        Assert.DoesNotContain((ResetId)reset.What, walk.Vehicle.Lit);
    }

    [Fact]
    public void Slivers_and_milky_oil_are_seen_when_they_can_be_and_hold_the_engine()
    {
        var walk = On("tarn-courier-20d", "engine-oil-and-filter");
        walk.Happens(new Slivers("engine-drain-plug"));
        walk.Happens(new Milky("engine-oil"));
        Assert.Null(walk.Vehicle.SeenOf("engine-drain-plug"));
        Assert.Null(walk.Vehicle.SeenOf("engine-oil"));
        walk.UpTo("look-at-plug");
        Assert.Equal("slivers on the magnet", walk.Vehicle.SeenOf("engine-drain-plug"));
        walk.Idle(TimeSpan.FromMinutes(10));
        walk.Happens(new SlidesPanUnder());
        Assert.Equal("milky", walk.Vehicle.SeenOf("engine-oil"));
        Assert.True(walk.Try(new NoteFinding("look-at-plug", FindingGrade.Stop, "Slivers, and the oil is milky")));
        walk.UpTo("start");
        Assert.Contains("Slivers", walk.Why(new ConfirmStep("start")));
        Assert.Contains("Slivers", string.Join(" ", walk.Card.BeforeSigning()));
        EndsWell(walk);
    }

    [Fact]
    public void Oil_far_below_the_mark_comes_in_low_and_leaves_at_the_mark()
    {
        var walk = On("tarn-courier-20d", "engine-oil-and-filter");
        walk.Happens(new Missing("engine-oil", Quantity<Volume>.Of(2.1m, Volume.Litre)));
        // 2.1 of 1.4 between the marks: half a length below the lower one.
        Assert.Equal(-0.5m, Math.Round(walk.Vehicle.LevelOf("engine-oil"), 3));
        Assert.Equal(Quantity<Volume>.Zero,
            walk.Vehicle.With(new Missing("engine-oil", Quantity<Volume>.Of(99, Volume.Litre))).Fluids["engine-oil"].Inside);
        EndsWell(walk);
    }

    [Fact]
    public void A_thread_that_gave_way_turns_on_and_on()
    {
        var vehicle = Vehicle.AsItComes(BothWalk.Sheets["tarn-courier-20d"], default);
        foreach (var hand in new Hand[] { new Sets("wheel-chocks"), new SetsArms(), new Raises(), new TakesOff("undertray"),
            new SlidesPanUnder(), new Undoes("engine-drain-plug"), new Fits("drain-washer"), new RunsIn("engine-drain-plug") })
            vehicle = vehicle.Answer(hand, default).Vehicle;
        Quantity<Torque> After(decimal degrees) => vehicle.TorqueAfter("engine-drain-plug", degrees);
        // 38 at a sixth of a turn; it bears 1.3 times the highest that passes, 41 N·m: 53.3; then 45 degrees more and it is gone.
        Assert.Equal((Nm(19), Nm(38), Nm(53.3m), Nm(5.7m)), (After(30), After(60), After(100), After(130)));
        Assert.Equal(HarmKind.Strained, Only(vehicle.Answer(new Turns("engine-drain-plug", 90), default)).Kind);
        vehicle = vehicle.Answer(new Turns("engine-drain-plug", 130), default).Vehicle;
        Assert.Equal((true, false), (vehicle.Joints["engine-drain-plug"].IsStripped, vehicle.Joints["engine-drain-plug"].IsTight));
        vehicle = vehicle.Answer(new MendsThread("engine-drain-plug"), default).Vehicle;
        Assert.True(vehicle.With(new Stripped("engine-drain-plug")).Joints["engine-drain-plug"].IsStripped);
        Assert.False(vehicle.Joints["engine-drain-plug"].IsStripped);
        Assert.Throws<ArgumentException>(() => vehicle.Answer(new Turns("engine-drain-plug", 0), default));
        Assert.Equal("it is in already", Only(vehicle.Answer(new RunsIn("engine-drain-plug"), default)).Says);
    }

    [Fact]
    public void A_cover_that_is_drawn_down_on_one_side_bends_and_one_loose_screw_leaves_it_loose()
    {
        const string cover = "primary-cover";
        var sheet = BothWalk.Sheets["maelor-ridge-900"];
        var vehicle = Vehicle.AsItComes(sheet, default);
        foreach (var hand in new Hand[] { new Sets("front-wheel-clamp"), new TakesOff("left-panel"), new Undoes(cover),
            new Fits("primary-gasket"), new RunsIn(cover) })
        {
            var answer = vehicle.Answer(hand, default);
            Assert.All(answer.Harms, h => Assert.NotEqual(HarmKind.OutOfReach, h.Kind));
            vehicle = answer.Vehicle;
        }
        // 72 % of 10 N·m is as far as one goes while another is hardly in.
        Assert.Equal("drawn down on one side while the other was loose: the face bends",
            Only(vehicle.Answer(new Tightens(cover, Nm(7.3m), 1), default)).Says);
        Assert.Empty(vehicle.Answer(new Tightens(cover, Nm(7.2m), 1), default).Harms);
        foreach (var torque in new[] { 5, 10 })
            for (var place = 1; place <= 6; place++)
            {
                Assert.False(vehicle.Joints[cover].IsTight);
                var answer = vehicle.Answer(new Tightens(cover, Nm(torque), place), default);
                Assert.Empty(answer.Harms);
                vehicle = answer.Vehicle;
            }
        Assert.True(vehicle.Joints[cover].IsTight);
        // A wrench that is set lower clicks at once and moves nothing; one that is slackened leaves the cover loose.
        Assert.Equal(Nm(10), vehicle.Answer(new Tightens(cover, Nm(5), 4), default).Vehicle.Joints[cover].Screws[4].Torque);
        Assert.False(vehicle.Answer(new Loosens(cover, 4), default).Vehicle.Joints[cover].IsTight);
        Assert.NotNull(vehicle.With(new JointWeeps(cover, 4)).LeakAt(cover));
        Assert.False(vehicle.With(new WasReallyTightenedTo(cover, Nm(4), 2)).Joints[cover].IsTight);
        Assert.True(vehicle.With(new WasReallyTightenedTo(cover, Nm(9.5m), 2)).Joints[cover].IsTight);
        // The wrench feels each by itself; a thread bears 1.3 times the 11 N·m that pass at most.
        Assert.Equal(Nm(14.3m), vehicle.TorqueAfter(cover, 30, 3));
    }

    [Fact]
    public void Strokes_from_an_empty_reservoir_draw_air_and_the_pedal_tells()
    {
        var vehicle = Vehicle.AsItComes(BothWalk.Sheets["hespin-16"], default);
        Answer Do(Hand hand)
        {
            var answer = vehicle.Answer(hand, default);
            vehicle = answer.Vehicle;
            return answer;
        }

        FastenerId screw = "bleed-screw-rear-right";
        foreach (var access in new AccessId[] { "bonnet", "brake-reservoir" })
            Do(new TakesOff(access));
        Assert.Equal("it is shut", Only(Do(new Strokes(screw, 1))).Says);
        Do(new Undoes(screw));
        Assert.True(vehicle.PedalIsSoft);
        // Ten strokes of 30 mL are the 0.3 L that stand above the lower line; eight of the book's ten drive the old fluid out.
        Do(new Strokes(screw, 7));
        Assert.Equal((false, false), vehicle.HoseAt(screw));
        Do(new Strokes(screw, 3));
        Assert.Equal((false, true), vehicle.HoseAt(screw));
        Assert.False(vehicle.IsFull("brake-fluid"));
        Assert.Equal((HarmKind.AirDrawn, "the reservoir is empty"), Only(Do(new Strokes(screw, 2))));
        Assert.Equal((true, true), vehicle.HoseAt(screw));
        Do(new Tightens(screw));
        Assert.True(vehicle.PedalIsSoft);
        Assert.Contains(vehicle.Answer(new Drives(), default).Harms, h => h.Kind == HarmKind.SoftPedal);
        foreach (var hand in new Hand[] { new TopsUp("brake-fluid"), new Undoes(screw), new Strokes(screw, 2), new Tightens(screw) })
            Do(hand);
        Assert.Equal((false, (false, true)), (vehicle.PedalIsSoft, vehicle.HoseAt(screw)));
        Do(new SucksOut("brake-fluid"));
        Assert.False(vehicle.IsFull("brake-fluid"));
        Assert.Throws<ArgumentException>(() => vehicle.HoseAt("drain-plug"));
    }

    private static (HarmKind Kind, string Says) Only(Answer answer)
    {
        var harm = Assert.Single(answer.Harms);
        return (harm.Kind, harm.Says);
    }
}
