using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>What could harm a vehicle or a person is refused, whoever asks for it and in whatever order.</summary>
public class NoHarmTests
{
    private readonly Workbench _bench = new();

    private JobCard Card => _bench.Card;

    private static DateTimeOffset Morning { get; } = new(2026, 1, 5, 8, 0, 0, TimeSpan.Zero);

    private static (JobCard Card, DateTimeOffset Now) Walk(JobCard card, Func<SheetStep, bool> stop)
    {
        var now = card.History[^1].At;
        while (card.Next is { } step && !stop(step))
        {
            now += step.Takes + TimeSpan.FromMinutes(70);
            card = Given(card, UsualPress.Of(card, step), now);
        }
        return (card, now);
    }

    private static JobCard Given(JobCard card, CardCommand command, DateTimeOffset now, Person? by = null)
    {
        var decision = card.Decide(command, by ?? Iona, now, UsualPress.Facts(card.Sheet));
        Assert.True(decision is Accepted, $"{command}: {Describe(decision)}");
        var (seq, id) = (card.History.Count, Guid.NewGuid());
        return card.With([.. ((Accepted)decision).Events.Select(e => new Recorded(++seq, now, by ?? Iona, id, e))]);
    }

    [Theory]
    [InlineData("tarn-courier-20d")]
    public void With_a_new_fuel_filter_nothing_runs_unprimed_not_even_to_warm_up(string sheet)
    {
        var (card, now) = Walk(On(sheet, "fuel-filter", "engine-oil-and-filter"), s => s.Kind == StepKind.Prime);
        var warm = card.Steps.Single(s => s.Kind == StepKind.Warm);
        Assert.Equal(StepStatus.Waiting, card.State(warm.Id).Status);
        Assert.Contains("only be cranked", Describe(card.Decide(new ConfirmStep(warm.Id), Iona, now)));
    }

    [Theory]
    [InlineData("tarn-courier-20d", "oil-filter-cap")]
    [InlineData("corran-fen-12", "oil-filter-can")]
    public void A_filter_is_not_opened_before_its_oil_is_out(string sheet, string filter)
    {
        var (card, now) = Walk(On(sheet, "engine-oil-and-filter"), s => s.Kind == StepKind.Drain);
        var open = card.Steps.Single(s => s.Kind == StepKind.Open && s.What == filter);
        Assert.Contains("still in", Describe(card.Decide(new ConfirmStep(open.Id), Iona, now)));
    }

    [Fact]
    public void A_pan_comes_off_only_when_nothing_runs_any_more()
    {
        var plan = CardPlanner.Plan(ComposerTests.Sheets["hespin-16"], ["gearbox-oil"]);
        var at = plan.Rows.ToDictionary(r => r.Step.Id);
        Assert.True(at["undo-gearbox-pan"].Begins >= at["drain-gearbox-oil"].Ends + TimeSpan.FromMinutes(20));
        var (card, now) = Walk(On("hespin-16", "gearbox-oil"), s => s.Kind == StepKind.Drain);
        card = Given(card, new ConfirmStep("drain-gearbox-oil"), now);
        Assert.Contains("20 min to go", Describe(card.Decide(new ConfirmStep("undo-gearbox-pan"), Iona, now)));
    }

    [Fact]
    public void What_is_measured_has_a_pan_of_its_own_and_oil_and_coolant_never_share_one()
    {
        var (bus, brae) = (ComposerTests.Sheets["hespin-16"], ComposerTests.Sheets["ostler-brae-28d"]);
        FluidSystem[] measured = [bus.Fluids["engine-oil"], bus.Fluids["gearbox-oil"]]; // 8.0 and 7.5 L
        Assert.Null(PanPlan.Of(measured, [L(16)]));
        Assert.Equal([0, 1], PanPlan.Of(measured, [L(8), L(8)])!);
        FluidSystem[] wet = [brae.Fluids["engine-oil"], brae.Fluids["coolant"]]; // 7.2 and 9.8 L
        Assert.Null(PanPlan.Of(wet, [L(20)]));
        Assert.Equal([1, 0], PanPlan.Of(wet, [L(9.8m), L(7.2m)])!);
        FluidSystem[] oils = [brae.Fluids["engine-oil"], brae.Fluids["gearbox-oil"]]; // 7.2 and 2.4 L
        Assert.Equal([0, 0], PanPlan.Of(oils, [L(9.6m)])!);
        Assert.Null(PanPlan.Of(oils, [L(9.59m)])); // a pan short by a spoon
    }

    [Fact]
    public void A_stop_holds_starting_and_driving_until_the_lead_decides()
    {
        var (card, now) = Walk(On("corran-fen-12", "brake-fluid"), s => s.Kind == StepKind.Drive);
        card = Given(card, new NoteFinding("test-pedal", FindingGrade.Stop, "Disc is cracked"), now);
        Assert.Contains("graded stop", Describe(card.Decide(new ConfirmStep("road-test"), Iona, now)));
        Assert.Contains("lead decides", Describe(card.Decide(new DecideStop(card.Stops.Single().Seq, true, "New disc on"), Iona, now)));
        card = Given(card, new DecideStop(card.Stops.Single().Seq, true, "New disc on"), now, Una);
        card = Given(card, new SetOff("road-test"), now);
        Assert.Empty(card.StopsLeft(1)); // mended, so the next card does not carry it
    }

    [Fact]
    public void Brake_work_left_out_holds_the_vehicle_and_its_interval_does_not_start()
    {
        var (card, now) = Walk(On("corran-fen-12", "brake-fluid", "cabin-filter"), s => s.Id == "test-pedal");
        Assert.Equal("reason",
            Assert.IsType<Refused>(card.Decide(new Deviate("test-pedal", DeviationKind.StepLeftOut, "x"), Iona, now)).Reasons[0].Field);
        card = Given(card, new Deviate("test-pedal", DeviationKind.StepLeftOut, "No time"), now);
        (card, now) = Walk(card, s => s.Kind == StepKind.Drive);
        Assert.Contains("the vehicle is held", Describe(card.Decide(new ConfirmStep("road-test"), Iona, now)));
        var seq = card.WantingCountersignature.Single();
        Assert.Contains("lead countersigns", Describe(card.Decide(new Countersign(seq), Tavish, now)));
        card = Given(card, new Countersign(seq), now, Una);
        (card, now) = Walk(card, _ => false);
        card = Given(card, new Sign(), now);
        Assert.Equal(["cabin-filter"], ((Signed)card.Signature!.Event).Due.Select(d => d.Job));
    }

    [Theory]
    [InlineData("Salad oil", "it is not in the oil book")]
    [InlineData("Gannet Classic 5W-30", "low ash")]
    public void An_oil_that_is_unknown_or_lacks_something_needs_a_reason_and_a_second_name(string product, string says)
    {
        _bench.WorkUpTo("lay-out-kit");
        Assert.Contains(says, _bench.Refusals(FullKit() with { Oils = EngineOil(7, product) })[0].What);
        _bench.Do(FullKit() with { Oils = EngineOil(7, product, "Only one on the island") });
        Assert.True(Card.Deviations.Single().Event.NeedsCountersignature);
        Assert.Contains(says, Card.OilInHand("engine-oil")!.Lacks);
    }

    [Fact]
    public void Under_warranty_an_oil_that_lacks_something_is_refused_and_a_dash_more_or_less_finds_the_book()
    {
        _bench.WorkUpTo("lay-out-kit");
        _bench.Facts = _bench.Facts with { UnderWarranty = true };
        Assert.Contains("under warranty", _bench.Refusals(FullKit() with { Oils = EngineOil(7, "Gannet Classic 5W-30", "So") })[0].What);
        _bench.Do(FullKit() with { Oils = EngineOil(7, "gannet lowash 5W30") });
        Assert.Empty(Card.Deviations);
    }

    [Fact]
    public void What_stands_in_is_found_by_the_stores_and_never_claimed()
    {
        _bench.WorkUpTo("lay-out-kit");
        var kit = FullKit() with { Parts =
            new Dictionary<PartId, KitPart>(FullKit().Parts) { ["drain-washer"] = new(KitChoice.InHand, "TC-0718-R") } };
        Assert.Contains("is not the number", _bench.Refusals(kit)[0].What);
        _bench.Facts = _bench.Facts with { Shelf = _bench.Facts.Shelf with { Parts = [new("TC-0714-R", "Washer", 0, 0, "TC-0718-R", []),
            new("TC-0718-R", "Washer", 3, 0, "", [])] } };
        _bench.Do(kit);
        Assert.Equal("TC-0718-R", Card.Kit!.Parts["drain-washer"]);
        Assert.Empty(Card.Deviations);
    }

    [Fact]
    public void A_seal_used_again_is_remembered_over_a_card_that_does_not_touch_it()
    {
        var sheet = ComposerTests.Sheets["tarn-courier-20d"];
        var opened = CardWalk.Open(sheet, ["cabin-filter"],
            CardPlanner.Compose(sheet, ["cabin-filter"])).Opened with { SealsUsedAgain =
            new Dictionary<PartId, int> { ["drain-washer"] = 1 } };
        var (card, _) = Walk(JobCard.Replay(sheet, [new(1, Morning, Iona, Guid.NewGuid(), opened)]), _ => false);
        Assert.Equal(1, card.SealsLeftIn["drain-washer"]);
        var bench = new Workbench(seals: new Dictionary<PartId, int> { ["drain-washer"] = 1 });
        bench.WorkUpTo();
        Assert.Empty(bench.Card.SealsLeftIn); // a new one went in
    }

    [Fact]
    public void Times_in_refusals_are_the_workshops_after_events_came_back_in_utc()
    {
        var summer = new DateTimeOffset(2026, 7, 6, 8, 5, 0, TimeSpan.FromHours(2));
        _bench.Do(FullKit());
        var stored = Card.History.Select(h => h with { At = summer.ToUniversalTime() }).ToList();
        var again = JobCard.Replay(Courier,
            [.. stored, new(stored.Count + 1, summer.ToUniversalTime(), Iona, Guid.NewGuid(), new StepDone("warm-up"))]);
        Assert.Contains("did this at 08:05", Describe(again.Decide(new ConfirmStep("warm-up"), Iona, summer.AddMinutes(3))));
    }

    [Theory]
    [InlineData("28.04 Nm", "28.04 N·m")]
    [InlineData("1/3 kgfm", "0.3333333333333333333333333333 kgf·m")]
    public void A_question_gives_back_exactly_what_was_typed(string typed, string exact)
    {
        var read = Quantity<Torque>.Read(typed, out _)!.Value;
        Assert.Equal(exact, read.Exact);
        Assert.Equal(read.Value.In(read.Unit), Quantity<Torque>.Read(read.Exact, out _)!.Value.Value.In(read.Unit), 20);
    }

    [Theory]
    [InlineData("3８ Nm")]
    [InlineData("٣ Nm")]
    public void Digits_of_another_script_are_refused_in_words(string typed)
    {
        Assert.Null(Quantity<Torque>.Read(typed, out var problem));
        Assert.Contains("Type them as 0 to 9", problem);
    }

    [Theory]
    [InlineData(0.9, 0.05)]
    [InlineData(0.1, 0.01)]
    [InlineData(0.5, 0.05)]
    [InlineData(0.05, 0.005)]
    public void Advice_never_leads_past_the_mark_never_warns_of_itself_and_ends(double betweenLitres, double finest)
    {
        var between = (decimal)betweenLitres;
        foreach (var (school, stages) in Enum.GetValues<TargetSchool>().SelectMany(s => Enum.GetValues<PourStages>().Select(p => (s, p))))
            foreach (var unit in new[] { Volume.Litre, Volume.Quart, Volume.FluidOunce })
                for (var start = -1m; start <= 2m; start += 0.01m)
                {
                    var fill = new DipstickFill(L(between * 8), L(between), L(between / 4), school, stages);
                    Assert.Equal(L((decimal)finest), fill.Finest);
                    // What is poured is what the page says in that unit; what the stick shows follows from it.
                    var (level, poured, turns) = (start, fill.Book - fill.Between * (1 - start), 0);
                    while (fill.After(new(Math.Clamp(level, -1m, 2m))) is { Verdict: not FillVerdict.Good } advice)
                    {
                        Assert.True(++turns < 12, $"{school} from {start} never ends");
                        var said = Quantity<Volume>.Read(advice.Amount.PrintDown(unit).ToString(), out _)!.Value.Value;
                        Assert.True(said <= advice.Amount && said > L(0));
                        if (advice.Verdict == FillVerdict.Pour)
                            Assert.False(fill.Warn(poured, said, new(level), L(0)).PassesTop);
                        var signed = advice.Verdict == FillVerdict.Pour ? said : L(0) - said;
                        (level, poured) = (level + signed / fill.Between, poured + signed);
                        Assert.True(advice.Verdict == FillVerdict.TakeOut || level <= 1m,
                            $"{school} from {start} in {unit.Symbol} goes to {level}");
                    }
                    Assert.InRange(level, 0.4m, 1.02m);
                }
    }

    [Theory]
    [InlineData(1.02, FillVerdict.Good)]
    [InlineData(1.03, FillVerdict.TakeOut)]
    [InlineData(1.05, FillVerdict.TakeOut)]
    [InlineData(1.15, FillVerdict.TakeOut)]
    public void Above_the_top_mark_is_not_good(double level, FillVerdict verdict) =>
        Assert.Equal(verdict, new DipstickFill(L(6.4m), L(1.4m), L(0.2m), TargetSchool.TopMark).After(new((decimal)level)).Verdict);

    [Fact]
    public void The_sum_is_warned_of_at_one_tolerance_over_the_book()
    {
        var fill = new DipstickFill(L(6.4m), L(1.4m), L(0.2m), TargetSchool.TopMark);
        Assert.False(fill.Warn(L(6), L(0.6m), null, L(0)).OverBook);
        Assert.True(fill.Warn(L(6), L(0.61m), null, L(0)).OverBook);
    }
}
