using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Rules that could be bent without any other test noticing, each held by a case where it alone decides.</summary>
public class BentRulesTests
{
    private readonly Workbench _bench = new();

    private JobCard Card => _bench.Card;

    [Fact]
    public void Raised_by_hand_the_chocks_are_asked_for_all_the_same()
    {
        _bench.Do(FullKit());
        Assert.Equal("Wheel chocks: not in place.", _bench.Refusals(new MoveLift(true, true))[0].What);
        _bench.Do(new ConfirmStep("set-chocks"));
        Assert.Equal("lookedOver", _bench.Refusals(new MoveLift(true, false))[0].Field);
        _bench.Do(new MoveLift(true, true));
        Assert.True(Card.LiftUp);
    }

    [Theory]
    [InlineData(null, 0.75, FillVerdict.Good)]
    [InlineData(TargetSchool.ThreeQuarters, 0.75, FillVerdict.Good)]
    [InlineData(TargetSchool.TopMark, 0.75, FillVerdict.Pour)]
    [InlineData(TargetSchool.TopMark, 1.0, FillVerdict.Good)]
    [InlineData(TargetSchool.LittleUnder, 0.9, FillVerdict.Good)]
    [InlineData(TargetSchool.LittleUnder, 0.75, FillVerdict.Pour)]
    public void The_workshops_school_says_where_the_level_is_good(TargetSchool? school, double level, FillVerdict verdict)
    {
        var bench = new Workbench(school);
        bench.WorkUpTo("level");
        bench.Do(new ReadGauge("level", new((decimal)level)));
        Assert.Equal(verdict == FillVerdict.Good ? StepStatus.Done : StepStatus.Waiting, bench.Card.State("level").Status);
        Assert.Equal(verdict, bench.Card.FillOf("engine-oil").After(new((decimal)level)).Verdict);
    }

    [Fact]
    public void A_wrench_whose_scale_steps_over_the_window_is_not_offered()
    {
        // 30 N·m, 28 to 32: on a scale of twenties the nearest setting is 40, inside the wrench and outside the window.
        var spec = new ToTorque(Nm(30).Value, Nm(28).Value, Nm(32).Value);
        TorqueWrench Wrench(decimal step) => new($"in {step}s", Nm(10).Value, Nm(60).Value, Nm(step).Value, Torque.NewtonMetre, 0);
        Assert.False(Wrench(20).Covers(spec));
        Assert.Null(TorqueWrench.For([Wrench(20)], spec));
        Assert.True(Wrench(5).Covers(spec));
        // 29 N·m on twenties is set to 20, under the window.
        Assert.False(Wrench(20).Covers(spec with { Target = Nm(29).Value }));
    }

    [Fact]
    public void The_makers_upper_bound_counts_whatever_the_interval_says()
    {
        // A bound of 12,000 km and 10 months under an interval of 15,000 km and 12 months.
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "lumen-ardent.json"));
        var bounded = text.Replace("{\"distance\": \"20000 km\", \"months\": 24}", "{\"distance\": \"12000 km\", \"months\": 10}");
        Assert.NotEqual(text, bounded);
        var start = new UseMark(Km(0), new(2026, 1, 1));
        ServiceItem Oil(string sheet) =>
            ServiceItem.Of(SheetReader.Read(sheet).Sheet!, Use.Normal, []).Single(i => i.Job == "engine-oil-and-filter");
        Assert.Equal((Km(15_000), new DateOnly(2027, 1, 1)), (Oil(text).After(start).At, Oil(text).After(start).By));
        Assert.Equal((Km(12_000), new DateOnly(2026, 11, 1)), (Oil(bounded).After(start).At, Oil(bounded).After(start).By));
        Assert.Equal(RuleOf.UpperBound, Oil(bounded).At(start, null, new(start), DueWindow.Usual).AtOf);
    }

    [Fact]
    public void Every_second_time_doubles_distance_months_and_hours_alike()
    {
        var twice = new ServiceInterval(Km(15_000), 12, 400).Times(2);
        Assert.Equal((Km(30_000), 24, 800), (twice.Every, twice.Months, twice.Hours));
        Assert.Equal(1_300, twice.After(new(Km(0), new(2026, 1, 1), 500)).AtHours);
    }

    [Theory]
    [InlineData(Fuel.Petrol, true)]
    [InlineData(Fuel.Diesel, false)]
    public void A_cover_holds_for_the_fuels_it_names_however_many_lines_name_them(Fuel fuel, bool holds)
    {
        var book = new CoverBook([new("C8", "C7", [Fuel.Petrol, Fuel.Petrol])]);
        Assert.Equal(holds, book.Way("C8", "C7", fuel) is not null);
    }

    [Fact]
    public void An_indicator_left_lit_needs_a_second_name()
    {
        _bench.WorkUpTo("reset-1");
        _bench.Do(new Deviate("reset-1", DeviationKind.StepLeftOut, "The button is broken"));
        var lit = Assert.Single(Card.Deviations);
        Assert.EndsWith("left lit", lit.Event.What);
        _bench.WorkUpTo();
        Assert.Contains(_bench.Refusals(new Sign()), r => r.What.EndsWith("needs a second name."));
        Assert.Contains("yourself", _bench.Refusals(new Countersign(lit.Seq))[0].What);
        Assert.Contains("lead", _bench.Refusals(new Countersign(lit.Seq), Tavish)[0].What);
        _bench.Do(new Countersign(lit.Seq), Una);
        _bench.Do(new Sign());
    }

    [Fact]
    public void What_a_lead_did_is_countersigned_by_anybody_else_and_then_stands()
    {
        _bench.WorkUpTo("reset-1");
        _bench.Do(new Deviate("reset-1", DeviationKind.StepLeftOut, "The button is broken"), Una);
        var lit = Assert.Single(Card.Deviations);
        Assert.Contains("yourself", _bench.Refusals(new Countersign(lit.Seq), Una)[0].What);
        _bench.Do(new Countersign(lit.Seq), Tavish);
        Assert.Contains("put a name to this", _bench.Refusals(new TakeBack(lit.Seq), Una)[0].What);
    }

    [Fact]
    public void The_stores_write_nothing_on_a_signed_card()
    {
        var stores = new Person("stores", "The stores", Role.Stores);
        _bench.Do(new AwaitPart("TC-0621-F", "Oil filter", null));
        _bench.WorkUpTo();
        _bench.Do(new Sign());
        Assert.Contains("signed by", _bench.Refusals(new PartIsHere("TC-0621-F"), stores)[0].What);
        Assert.Equal("You can look at cards, not work on them.", new Workbench().Refusals(new ConfirmStep("set-chocks"), stores)[0].What);
    }

    [Fact]
    public void The_engine_is_not_started_while_something_waits_to_be_primed()
    {
        var card = On("tarn-courier-20d", "fuel-filter", "engine-oil-and-filter");
        var start = card.Steps.Single(s => s.Kind == StepKind.Run);
        var refusal = Assert.Single(Assert.IsType<Refused>(card.Decide(new ConfirmStep(start.Id), Iona, _bench.Now)).Reasons,
            r => r.Do == "Without it the engine would only be cranked.");
        Assert.Equal(StepKind.Prime, card.Steps.Single(s => s.Id == refusal.Step).Kind);
    }

    [Fact]
    public void Joints_are_looked_at_only_after_the_engine_ran_on_them()
    {
        _bench.WorkUpTo("start");
        var look = Card.Steps.First(s => s.Kind == StepKind.Look);
        Assert.Contains(_bench.Refusals(new ConfirmStep(look.Id)), r => r.What == "The engine has not run since the joints were closed.");
    }

    [Fact]
    public void A_part_that_stands_in_has_a_number()
    {
        var parts = new Dictionary<PartId, KitPart>(FullKit().Parts) { ["oil-filter"] = new(KitChoice.Other, "", "It is all there was") };
        Assert.Contains(_bench.Refusals(FullKit() with { Parts = parts }), r => r.Field == "parts.oil-filter");
    }

    [Theory]
    [InlineData(KitChoice.InHand)]
    [InlineData(KitChoice.Other)]
    public void A_wrong_part_that_also_fits_is_refused_whatever_it_is_called(KitChoice choice)
    {
        var parts = new Dictionary<PartId, KitPart>(FullKit().Parts) { ["oil-filter"] = new(choice, "tc 0617f", "It screws on") };
        Assert.Contains(_bench.Refusals(FullKit() with { Parts = parts }), r => r.What.Contains("9 mm shorter"));
    }

    [Fact]
    public void The_dipstick_says_nothing_before_the_filter_has_filled()
    {
        _bench.WorkUpTo("start");
        Assert.Contains(_bench.Refusals(new ReadGauge("level", new(0.75m))), r => r.What == "The filter is still empty.");
    }

    [Fact]
    public void Nothing_comes_down_before_the_space_underneath_was_looked_at()
    {
        _bench.WorkUpTo("clear-below");
        Assert.True(Card.LiftUp);
        Assert.Contains(_bench.Refusals(new ConfirmStep("lower")), r => r.Step == "clear-below"
            && r.Do == "Nothing comes down before the space underneath was looked at.");
    }

    private static TorqueWrench Wrench(string name, decimal low, decimal high, decimal step) =>
        new(name, Nm(low).Value, Nm(high).Value, Nm(step).Value, Torque.NewtonMetre, 0);

    private static ToTorque To(decimal target, decimal low, decimal high) => new(Nm(target).Value, Nm(low).Value, Nm(high).Value);

    [Fact]
    public void A_wrench_covers_up_to_its_own_ends_and_to_the_ends_of_the_window()
    {
        Assert.True(Wrench("to 60", 10, 60, 5).Covers(To(60, 58, 62)));
        Assert.True(Wrench("from 10", 10, 60, 5).Covers(To(10, 8, 12)));
        Assert.False(Wrench("to 60", 10, 60, 5).Covers(To(63, 61, 66)));
        Assert.True(Wrench("in 20s", 10, 60, 20).Covers(To(41, 40, 45)));
        Assert.True(Wrench("in 20s", 10, 60, 20).Covers(To(39, 35, 40)));
    }

    [Fact]
    public void The_wrench_that_sets_nearest_is_taken_and_of_equals_the_shorter_one()
    {
        // 38 N·m: in sevens the nearest setting is 35, three under.
        Assert.Equal("fine", TorqueWrench.For([Wrench("in sevens", 7, 70, 7), Wrench("fine", 7, 70, 1)], To(38, 35, 41))!.Name);
        Assert.Equal("short", TorqueWrench.For([Wrench("long", 5, 60, 1), Wrench("short", 30, 80, 1)], To(38, 35, 41))!.Name);
    }

    [Theory]
    [InlineData(30, "N·m")] // 28 N·m is two off, 28 lbf·ft (38 N·m) eight
    [InlineData(37, "lbf·ft")] // nine against one
    public void Of_two_units_that_would_pass_the_nearer_is_asked_about(int target, string unit)
    {
        var reading = Quantity<Torque>.Read("28 lbf·in", out _)!.Value;
        Assert.Equal(unit, To(target, 20, 45).Judge(reading).PerhapsMeant!.Symbol);
    }

    [Fact]
    public void An_interval_goes_on_from_where_it_was_done()
    {
        var next = new ServiceInterval(Km(15_000), 12, 400).After(new(Km(88_000), new(2026, 3, 9), 1_000));
        Assert.Equal((Km(103_000), new DateOnly(2027, 3, 9), 1_400), (next.At, next.By, next.AtHours));
    }
}
