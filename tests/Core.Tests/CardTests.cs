using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

public class CardTests
{
    private readonly Workbench _bench = new();

    private JobCard Card => _bench.Card;

    private static Dictionary<PartId, KitPart> Kit(string part, KitPart lies)
    {
        var parts = new Dictionary<PartId, KitPart>(FullKit().Parts);
        parts[part] = lies;
        return parts;
    }

    [Fact]
    public void Worked_by_the_book_the_ring_closes_and_the_next_service_is_the_harsh_interval_on()
    {
        _bench.WorkUpTo();
        Assert.Empty(Card.Open);
        Assert.Empty(Card.Deviations);
        _bench.Do(new Sign());
        var due = Assert.IsType<Signed>(Card.Signature!.Event).Due.Single();
        Assert.Equal(Km(158_200), due.Next.At);
        Assert.Equal(new DateOnly(2026, 9, 9), due.Next.By);
        Assert.Contains("signed by Iona R.", _bench.Refusals(new ConfirmStep("label"))[0].What);
    }

    [Fact]
    public void Draining_before_the_kit_says_why_and_points_at_the_kit()
    {
        var reasons = _bench.Refusals(new ConfirmStep("drain"));
        Assert.Contains(reasons, r => r.What == "The kit has not been confirmed yet." && r.Step == "lay-out-kit");
        Assert.Contains(reasons, r => r.What == "The vehicle is down." && r.Step == "raise");
        Assert.Contains(reasons, r => r.What == "The undertray is in the way." && r.Step == "undertray-off");
    }

    [Theory]
    [InlineData(6.3, 7, "The pan holds 6.30 L, but 6.40 L of engine oil will come out.")]
    [InlineData(8, 5, "Only 5.00 L of engine oil is in hand, and 6.40 L must go in.")]
    public void A_small_pan_or_too_little_oil_is_said_at_the_kit_and_not_first_at_the_plug(decimal pan, decimal oil, string why)
    {
        _bench.WorkUpTo("lay-out-kit");
        Assert.Equal(why, Assert.Single(_bench.Refusals(FullKit(pan, oil))).What);
        _bench.Do(FullKit());
        _bench.WorkUpTo("drain");
        _bench.Do(new ConfirmStep("drain"));
    }

    [Fact]
    public void A_reading_right_in_another_unit_is_asked_about()
    {
        _bench.WorkUpTo("tighten-drain-plug");
        _bench.Wait(15);
        var typed = new Typed<Torque>(Quantity<Torque>.Of(28, Torque.NewtonMetre), Torque.NewtonMetre);
        var asked = Assert.IsType<UnitQuestion>(Assert.IsType<Asked>(_bench.Try(new TakeReading("tighten-drain-plug", typed))).Question);
        Assert.Equal(Torque.PoundFoot, asked.PerhapsMeant.Unit);
        Assert.Equal(StepStatus.Waiting, Card.State("tighten-drain-plug").Status);
        _bench.Do(new TakeReading("tighten-drain-plug", typed, UnitIsMeant: true));
        Assert.Equal(StepStatus.Waiting, Card.State("tighten-drain-plug").Status);
        _bench.Do(new TakeReading("tighten-drain-plug", asked.PerhapsMeant));
        Assert.Equal(StepStatus.Done, Card.State("tighten-drain-plug").Status);
    }

    [Fact]
    public void Too_much_on_the_alloy_sump_waits_for_the_lead()
    {
        _bench.WorkUpTo("tighten-drain-plug");
        _bench.Wait(15);
        _bench.Do(new TakeReading("tighten-drain-plug", Nm(50)));
        Assert.Contains("tightened too far", _bench.Refusals(new TakeReading("tighten-drain-plug", Nm(38)))[0].What);
        Assert.Contains("lead decides", _bench.Refusals(new SettleOverTorque("tighten-drain-plug", "thread is fine"))[0].What);
        _bench.Do(new SettleOverTorque("tighten-drain-plug", "Thread looked at, new plug"), Una);
        _bench.Do(new TakeReading("tighten-drain-plug", Nm(38)));
        Assert.DoesNotContain(Card.Open, o => o.Id == "engine-drain-plug");
    }

    [Fact]
    public void A_corrected_reading_that_fails_opens_the_plug_again()
    {
        _bench.WorkUpTo("wash-joints");
        var reading = Card.History.Last(h => h.Event is ReadingTaken r && r.Step == "tighten-drain-plug");
        Assert.Equal("reason", _bench.Refusals(new CorrectReading(reading.Seq, Nm(30), " "))[0].Field);
        _bench.Do(new CorrectReading(reading.Seq, Nm(30), "Read the wrong line"));
        Assert.Contains(Card.Open, o => o.Id == "engine-drain-plug");
        Assert.Equal("tighten-drain-plug", Card.Next!.Id);
    }

    [Fact]
    public void Filling_goes_in_three_stages_and_ends_inside_the_target()
    {
        _bench.WorkUpTo("stop");
        _bench.Do(new ConfirmStep("stop"));
        Assert.Contains("to go", _bench.Refusals(new ReadGauge("level", new(0)))[0].What);
        _bench.Wait(5);
        _bench.Do(new ReadGauge("level", new(0)));
        var first = Card.FillOf("engine-oil").After(Card.Fluid("engine-oil").Level!.Value);
        Assert.Equal(L(0.7m), first.Amount);
        _bench.Do(new Pour("level", Litres(0.7m)));
        Assert.Contains("Read the dipstick first", _bench.Refusals(new Pour("level", Litres(0.7m)))[0].Do);
        _bench.Wait(2);
        _bench.Do(new ReadGauge("level", new(0.5m)));
        _bench.Do(new Pour("level", Litres(0.35m)));
        _bench.Wait(2);
        Assert.Contains(Card.Open, o => o.Id == "engine-oil");
        _bench.Do(new ReadGauge("level", new(0.75m)));
        Assert.DoesNotContain(Card.Open, o => o.Id == "engine-oil");
        Assert.Equal(L(6.05m), Card.Fluid("engine-oil").Poured);
    }

    [Fact]
    public void A_pour_past_the_top_mark_is_asked_about_and_the_warning_stays_on_the_record()
    {
        _bench.WorkUpTo("level");
        _bench.Wait(5);
        _bench.Do(new ReadGauge("level", new(0.5m)));
        var asked = Assert.IsType<Asked>(_bench.Try(new Pour("level", Litres(1))));
        Assert.Contains("above the top mark", asked.Question.Text);
        _bench.Do(new Pour("level", Litres(1), WarningSeen: true));
        Assert.Contains("above the top mark", Card.History.Select(h => h.Event).OfType<Poured>().Last().AgainstWarning);
        _bench.Wait(2);
        _bench.Do(new ReadGauge("level", new(1.2m)));
        Assert.Equal(FillVerdict.TakeOut, Card.FillOf("engine-oil").After(new(1.2m)).Verdict);
        _bench.Do(new TakeOut("level", Litres(0.6m)));
        _bench.Wait(2);
        _bench.Do(new ReadGauge("level", new(0.77m)));
        Assert.Equal(StepStatus.Done, Card.State("level").Status);
    }

    [Fact]
    public void The_engine_stays_off_until_there_is_oil_and_everything_is_closed()
    {
        _bench.WorkUpTo("first-pour");
        _bench.Do(new Pour("first-pour", Litres(3)));
        Assert.Equal(StepStatus.Waiting, Card.State("first-pour").Status);
        var reasons = _bench.Refusals(new ConfirmStep("start"));
        Assert.Contains(reasons, r => r.What == "Only 3.00 L of engine oil is in.");
        Assert.Contains(reasons, r => r.What == "The oil filler cap is still open.");
        Assert.Contains(reasons, r => r.Step == "clear-top");
    }

    [Fact]
    public void The_undertray_stays_off_until_the_joints_were_looked_at()
    {
        _bench.WorkUpTo("lower");
        Assert.Contains("joints have not been looked at", _bench.Refusals(new ConfirmStep("undertray-on"))[0].What);
        _bench.WorkUpTo("look-at-joints");
        Assert.Contains("joints have not been looked at", _bench.Refusals(new ConfirmStep("undertray-on"))[0].What);
        _bench.Do(new ConfirmStep("look-at-joints"));
        _bench.Do(new ConfirmStep("undertray-on"));
    }

    [Fact]
    public void A_leak_opens_the_joint_and_it_must_run_and_be_looked_at_again()
    {
        _bench.WorkUpTo("look-at-joints");
        _bench.Do(new ReportLeak("look-at-joints", "oil-filter-cap"));
        Assert.Contains(Card.Open, o => o.Id == "oil-filter-cap" && o.Detail == "leaks");
        Assert.Equal("tighten-filter-cap", Card.Next!.Id);
        _bench.Do(new SayJointWasLoose("tighten-filter-cap"));
        _bench.Do(new TakeReading("tighten-filter-cap", Nm(25)));
        Assert.Contains("has not run since", _bench.Refusals(new ConfirmStep("look-at-joints"))[0].What);
        _bench.Do(new MoveLift(false, true));
        _bench.WorkUpTo("look-at-joints");
        Assert.True(Card.LiftUp);
        _bench.WorkUpTo();
        _bench.Do(new Sign());
    }

    [Fact]
    public void A_step_left_for_later_keeps_the_card_from_being_signed()
    {
        _bench.WorkUpTo("undertray-on");
        _bench.Do(new PutAside("undertray-on", "A clip is on the boat"));
        // All that can be done goes on; then the lift is raised for what was left.
        _bench.WorkUpTo("lifting-points-3");
        Assert.False(Card.LiftUp);
        var reasons = _bench.Refusals(new Sign());
        Assert.Contains(reasons, r => r.What == "Undertray: still open, 9 screws out." && r.Step == "undertray-on");
        Assert.Contains("still needs the lift", _bench.Refusals(new ConfirmStep("chocks-away"))[0].What);
        Assert.Contains("The vehicle is down", _bench.Refusals(new ConfirmStep("undertray-on"))[0].What);
        Assert.Equal("lookedOver", _bench.Refusals(new MoveLift(true, false))[0].Field);
        _bench.Do(new MoveLift(true, true));
        Assert.Equal("undertray-on", Card.Next!.Id);
        _bench.WorkUpTo();
        _bench.Do(new Sign());
    }

    [Fact]
    public void A_screw_left_over_needs_a_reason_and_a_second_name()
    {
        _bench.WorkUpTo("undertray-on");
        Assert.Equal("reason", _bench.Refusals(new ConfirmStep("undertray-on", 8))[0].Field);
        Assert.Equal("count", _bench.Refusals(new ConfirmStep("undertray-on", 10))[0].Field);
        _bench.Do(new ConfirmStep("undertray-on", 8, "Captive nut spins"));
        _bench.WorkUpTo();
        Assert.Contains("needs a second name", _bench.Refusals(new Sign())[0].What);
        var seq = Card.WantingCountersignature.Single();
        Assert.Contains("yourself", _bench.Refusals(new Countersign(seq))[0].What);
        Assert.Contains("lead countersigns", _bench.Refusals(new Countersign(seq), Tavish)[0].What);
        _bench.Do(new Countersign(seq), Una);
        _bench.Do(new Sign());
    }

    [Fact]
    public void The_kit_knows_a_wrong_filter_that_also_fits()
    {
        _bench.WorkUpTo("lay-out-kit");
        var wrong = _bench.Refusals(FullKit() with { Parts = Kit("oil-filter", new(KitChoice.InHand, "tc 0617f")) });
        Assert.Contains("9 mm shorter", Assert.Single(wrong).What);
        var missing = _bench.Refusals(FullKit() with { Parts = Kit("oil-filter", new(KitChoice.Missing)), Oils = EngineOil(7, "") });
        Assert.Equal(["parts.oil-filter", "oils.engine-oil.product"], missing.Select(r => r.Field));
        _bench.Do(FullKit() with { Parts = Kit("oil-filter", new(KitChoice.Other, "TC-0630-F", "Only one on the shelf")) });
        Assert.True(Card.Deviations.Single().Event.NeedsCountersignature);
    }

    [Theory]
    [InlineData(0, false)]
    [InlineData(1, true)]
    public void An_old_washer_may_go_back_as_often_as_the_sheet_allows(int before, bool second)
    {
        var bench = new Workbench(seals: new Dictionary<PartId, int> { ["drain-washer"] = before });
        bench.WorkUpTo("lay-out-kit");
        Assert.Contains("reason", bench.Refusals(FullKit() with { Parts = Kit("drain-washer", new(KitChoice.OldAgain)) })[0].What);
        bench.Do(FullKit() with { Parts = Kit("drain-washer", new(KitChoice.OldAgain, "", "Box is empty")) });
        Assert.Equal(second, bench.Card.Deviations.Single().Event.NeedsCountersignature);
        // Confirmed again, as when the pan was changed, it is still one use.
        bench.Do(FullKit() with { Parts = Kit("drain-washer", new(KitChoice.OldAgain, "", "Box is empty")) });
        Assert.Single(bench.Card.Deviations);
        Assert.Equal(before, bench.Card.SealsLeftIn.GetValueOrDefault("drain-washer")); // nothing was fitted yet
        // And with a new one found after all, nothing strays.
        bench.Do(FullKit());
        Assert.Empty(bench.Card.Deviations);
        bench.Do(FullKit() with { Parts = Kit("drain-washer", new(KitChoice.OldAgain, "", "It was the wrong box")) });
        bench.WorkUpTo();
        Assert.Equal(before + 1, bench.Card.SealsLeftIn["drain-washer"]);
    }

    [Fact]
    public void A_press_by_mistake_is_taken_back_but_only_the_last()
    {
        _bench.Do(FullKit());
        _bench.Do(new ConfirmStep("set-chocks"));
        Assert.Single(Card.Open, o => o.Id == "wheel-chocks");
        Assert.Contains("Only what you pressed last", Assert.Single(_bench.Refusals(new TakeBack(2))).What);
        _bench.Do(new TakeBack(Card.History[^1].Seq));
        Assert.DoesNotContain(Card.Open, o => o.Id == "wheel-chocks");
        Assert.Equal(StepStatus.Waiting, Card.State("set-chocks").Status);
        _bench.Do(new TakeBack(Card.History.Single(h => h.Event is KitConfirmed).Seq));
        Assert.Null(Card.Kit);
    }

    [Fact]
    public void A_failed_reset_starts_over_and_its_moves_come_in_order()
    {
        _bench.WorkUpTo("reset-3");
        Assert.Contains("in order", _bench.Refusals(new ConfirmStep("reset-5"))[0].What);
        _bench.Do(new FailReset("reset-3"));
        Assert.Equal("reset-1", Card.Next!.Id);
        _bench.WorkUpTo();
        Assert.DoesNotContain(Card.Open, o => o.Id == "service-indicator");
    }

    [Fact]
    public void Only_those_who_work_on_cards_do()
    {
        Assert.Contains("look at cards", _bench.Refusals(new ConfirmStep("warm-up"), Desk)[0].What);
        _bench.Do(new ConfirmStep("warm-up"), Tavish);
        Assert.Contains("Tavish M. did this at 08:00", _bench.Refusals(new ConfirmStep("warm-up"))[0].What);
        Assert.Contains("no step", _bench.Refusals(new ConfirmStep("no-such"))[0].What);
    }

    [Fact]
    public void A_wait_is_cut_only_with_a_reason()
    {
        _bench.WorkUpTo("fit-washer");
        _bench.Do(new TakeBack(Card.History[^1].Seq));
        var bench = new Workbench();
        bench.WorkUpTo("look-at-plug");
        bench.Do(Rehearsal.UsualPress.Of(bench.Card, bench.Card.Next!));
        Assert.Contains("Oil runs out", bench.Refusals(new ConfirmStep("fit-washer"))[0].What);
        Assert.Equal("reason", bench.Refusals(new CutWait("drain", ""))[0].Field);
        bench.Do(new CutWait("drain", "It stopped dripping"));
        bench.Do(new ConfirmStep("fit-washer"));
    }

    [Fact]
    public void A_stop_stops_starting_and_signing_until_the_lead_decides_and_stands_on_the_next_card()
    {
        _bench.WorkUpTo("look-at-plug");
        Assert.Equal("text", _bench.Refusals(new NoteFinding("look-at-plug", FindingGrade.Stop, new string('x', 401)))[0].Field);
        _bench.Do(new NoteFinding("look-at-plug", FindingGrade.Stop, "Slivers on the magnet"));
        _bench.WorkUpTo("start");
        Assert.Contains("graded stop", Assert.Single(_bench.Refusals(new ConfirmStep("start"))).What);
        Assert.Contains(_bench.Refusals(new Sign()), r => r.What.Contains("graded stop"));
        var seq = Card.Stops.Single().Seq;
        Assert.Contains("lead decides", _bench.Refusals(new DecideStop(seq, false, "Bearing looked at"), Tavish)[0].What);
        Assert.Equal("words", _bench.Refusals(new DecideStop(seq, false, "x"), Una)[0].Field);
        _bench.Do(new DecideStop(seq, false, "Sample sent, may run to Friday"), Una);
        Assert.Empty(Card.Stops);
        _bench.WorkUpTo();
        _bench.Do(new Sign());
        var carried = Assert.Single(Card.StopsLeft(1007));
        Assert.Equal((1007, "Slivers on the magnet", "Una B."), (carried.Card, carried.Text, carried.By));
    }
}
