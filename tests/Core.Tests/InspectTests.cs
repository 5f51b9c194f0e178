using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Due;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Lists of inspections: what passes, what is set again, what wears and how long it lasts. Every expected value is worked out by
/// hand.</summary>
public sealed class InspectTests
{
    private CardAtHand _hand = null!;

    private SheetStep At(string sheet, string job, string step, IReadOnlyList<InspectedBefore>? before = null)
    {
        var card = On(sheet, job);
        if (before is not null)
            card = JobCard.Replay(card.Sheet, [card.History[0] with { Event = card.Opened with { InspectedBefore = before } }]);
        _hand = new(card);
        return _hand.UpTo(s => s.Id == step);
    }

    private PointFound Found(string point) =>
        _hand.Card.FoundAt(_hand.Card.Steps.First(s => _hand.Card.FoundAt(s.Id).Any(f => f.Point == point)).Id)
        .First(f => f.Point == point);

    // 0.75 to 0.85 mm: both limits pass, a hundredth beside them does not.
    [Theory]
    [InlineData("0.75", PointOutcome.Good)]
    [InlineData("0.85 mm", PointOutcome.Good)]
    [InlineData("0,8", PointOutcome.Good)]
    [InlineData("31 thou", PointOutcome.Good)]
    [InlineData("0.74", PointOutcome.TooLittle)]
    [InlineData("0.86", PointOutcome.TooMuch)]
    [InlineData("28 thou", PointOutcome.TooLittle)]
    public void A_gap_passes_between_its_limits_in_any_unit_of_length(string typed, PointOutcome outcome)
    {
        var step = At("corran-fen-12", "spark-plugs", "gap-plugs");
        _hand.Do(new MeasurePoint(step.Id, "plug-1", typed));
        Assert.Equal((outcome, outcome == PointOutcome.Good), (Found("plug-1").Outcome, Found("plug-1").Settled));
        Assert.Equal(outcome == PointOutcome.Good ? "plug-2" : "plug-1", Inspection.Of(_hand.Card, step).Next!.Id);
    }

    [Theory]
    [InlineData("31", "31 mm does not pass, but 31 thou would.")]
    [InlineData("-1", "below zero")]
    [InlineData("", "Type a length")]
    [InlineData("0.8 bar", "not a unit of length")]
    [InlineData("wide", "is not a length")]
    [InlineData("99999999999999999999999999999999999", "is not a number that can be read")]
    public void What_is_no_gap_is_refused_in_words(string typed, string says)
    {
        var step = At("corran-fen-12", "spark-plugs", "gap-plugs");
        Assert.Contains(says, _hand.No(new MeasurePoint(step.Id, "plug-1", typed)));
        Assert.Empty(_hand.Card.FoundAt(step.Id));
    }

    // Between the blades lies the gap: all of that has to pass, or none of it.
    [Theory]
    [InlineData("0.75", "0.85", PointOutcome.Good)]
    [InlineData("0.8", "0.85", PointOutcome.Good)]
    [InlineData("0.7", "0.75", PointOutcome.TooLittle)]
    [InlineData("0.85", "0.9", PointOutcome.TooMuch)]
    [InlineData("0.7", "0.8", null)]
    [InlineData("0.8", "0.9", null)]
    [InlineData("0.8", "0.8", null)]
    [InlineData("0.9", "0.7", null)]
    [InlineData("0.8", "", null)]
    public void Blades_tell_only_what_lies_between_them(string goes, string not, PointOutcome? outcome)
    {
        var step = At("corran-fen-12", "spark-plugs", "gap-plugs");
        var said = new MeasurePoint(step.Id, "plug-1", "", goes, not);
        if (outcome is null)
            Assert.IsType<Refused>(_hand.Say(said));
        else
            _hand.Do(said);
        Assert.Equal(outcome, _hand.Card.FoundAt(step.Id).FirstOrDefault()?.Outcome);
    }

    [Fact]
    public void What_was_set_keeps_what_it_was_found_at_and_what_cannot_be_set_is_a_finding()
    {
        var step = At("corran-fen-12", "spark-plugs", "gap-plugs");
        Assert.Contains("does not stand outside", _hand.No(new LetPointStay(step.Id, "plug-1")));
        _hand.Do(new MeasurePoint(step.Id, "plug-1", "0.7"));
        _hand.Do(new MeasurePoint(step.Id, "plug-1", "0.8"));
        Assert.Equal(("0.7 mm", "0.8 mm"), (Found("plug-1").Found, Found("plug-1").Left));
        Assert.Contains("does not stand outside", _hand.No(new LetPointStay(step.Id, "plug-1")));
        _hand.Do(new MeasurePoint(step.Id, "plug-2", "0.9"));
        _hand.Do(new LetPointStay(step.Id, "plug-2"));
        Assert.Equal((FindingGrade.PlanIt, "Plug for cylinder 2: 0.9 mm, and cannot be set; 0.75 to 0.85 mm passes"),
            (_hand.Card.Findings[^1].Event.Grade, _hand.Card.Findings[^1].Event.Text));
        _hand.Do(new MeasurePoint(step.Id, "plug-3", "0.8"));
        _hand.Do(new TakeBack(_hand.Card.LastPressOf(Iona.Id)!.Seq));
        _hand.Do(new MeasurePoint(step.Id, "plug-3", "0.8"));
        _hand.Do(new MeasurePoint(step.Id, "plug-4", "0.8"));
        Assert.Equal(StepStatus.Done, _hand.Card.State(step.Id).Status);
    }

    // The drawing is 300 wide and 390 high, a point of it 38 across.
    [Fact]
    public void No_point_of_a_drawing_lies_over_another()
    {
        foreach (var step in ComposerTests.Sheets.Values.SelectMany(s => s.Steps.Values).Where(s => s.Spec is InspectSpec))
        {
            var points = ((InspectSpec)step.Spec!).Points.Where(p => p.On is not null).ToList();
            foreach (var (a, b) in points.SelectMany((a, i) => points.Skip(i + 1).Select(b => (a, b))))
                Assert.True(Math.Sqrt(Math.Pow((a.On!.X - b.On!.X) * 3, 2) + Math.Pow((a.On.Y - b.On.Y) * 3.25, 2)) > 38,
                    $"{step.Title}: {a.Name} and {b.Name}");
        }
    }

    [Fact]
    public void The_odd_one_out_is_named_with_what_the_others_have_in_common()
    {
        var step = At("corran-fen-12", "spark-plugs", "read-old-plugs");
        Assert.Contains("is not measured", _hand.No(new MeasurePoint(step.Id, "cylinder-1", "1")));
        Assert.Contains("not one of the answers", _hand.No(new AnswerPoint(step.Id, "cylinder-1", "fine")));
        Assert.Contains("no such point", _hand.No(new AnswerPoint(step.Id, "cylinder-5", "wet")));
        Assert.Contains("measured or looked at", _hand.No(new ConfirmStep(step.Id)));
        foreach (var cylinder in new[] { 1, 2, 4 })
            _hand.Do(new AnswerPoint(step.Id, $"cylinder-{cylinder}", "dry and brown"));
        _hand.Do(new AnswerPoint(step.Id, "cylinder-3", "wet"));
        Assert.Equal("Cylinder 3: wet, it does not fire; the others: dry and brown", Assert.Single(_hand.Card.Findings).Event.Text);
        Assert.Equal(StepStatus.Done, _hand.Card.State(step.Id).Status);
    }

    [Fact]
    public void What_was_settled_is_done_once_more_only_by_whoever_means_it()
    {
        var step = At("corran-fen-12", "spark-plugs", "read-old-plugs");
        _hand.Do(new AnswerPoint(step.Id, "cylinder-1", "wet"));
        Assert.Equal("Cylinder 1 was done already: wet.", _hand.No(new AnswerPoint(step.Id, "cylinder-1", "dry and brown")));
        _hand.Do(new AnswerPoint(step.Id, "cylinder-1", "pale", true));
        Assert.Equal(("wet", "pale"), (Found("cylinder-1").Found, Found("cylinder-1").Left));
        step = At("corran-fen-12", "spark-plugs", "gap-plugs");
        _hand.Do(new MeasurePoint(step.Id, "plug-1", "0.8"));
        Assert.Contains("was done already: 0.8 mm", _hand.No(new MeasurePoint(step.Id, "plug-1", "0.9")));
        _hand.Do(new MeasurePoint(step.Id, "plug-1", "0.9", Again: true));
        Assert.False(Found("plug-1").Settled);
    }

    [Fact]
    public void All_that_are_left_are_said_at_once_only_where_nothing_is_measured_and_the_sheet_allows_it()
    {
        var step = At("corran-fen-12", "spark-plugs", "read-old-plugs");
        _hand.Do(new AnswerPoint(step.Id, "cylinder-2", "pale"));
        _hand.Do(new AnswerTheRest(step.Id));
        Assert.Equal(["pale", "dry and brown", "dry and brown", "dry and brown"], _hand.Card.FoundAt(step.Id).Select(f => f.Left));
        step = At("corran-fen-12", "spark-plugs", "gap-plugs");
        Assert.Contains("is measured", _hand.No(new AnswerTheRest(step.Id)));
        step = At("ostler-brae-28d", "grease", "grease-propshafts");
        Assert.Contains("said by itself", _hand.No(new AnswerTheRest(step.Id)));
    }

    // 8 mm new, limit 1.6: three readings, the least counts; they may differ by 1.5.
    [Theory]
    [InlineData("5 5 5", PointOutcome.Good, "")]
    [InlineData("5 4 3.5", PointOutcome.Good, "")]
    [InlineData("5 4 3.4", PointOutcome.Watch, "Front left: 5 mm, 4 mm, 3.4 mm; worn 1.6 mm more at the inner edge")]
    [InlineData("5 5 1.6", PointOutcome.Watch, "Front left: 5 mm, 5 mm, 1.6 mm; worn 3.4 mm more at the inner edge")]
    [InlineData("1.5 5 5", PointOutcome.Stop, "Front left: 1.5 mm, 5 mm, 5 mm; the limit is 1.6 mm: replace it now")]
    public void Tread_is_read_across_its_width(string typed, PointOutcome outcome, string says)
    {
        var step = At("corran-fen-12", "tyre-rotation", "tread");
        Assert.Contains("3 readings belong here", _hand.No(new MeasurePoint(step.Id, "front-left", "5 5")));
        Assert.Contains("a new one has 8 mm", _hand.No(new MeasurePoint(step.Id, "front-left", "5 5 50")));
        _hand.Do(new MeasurePoint(step.Id, "front-left", typed));
        Assert.Equal((outcome, says), (Found("front-left").Outcome, _hand.Card.Findings.LastOrDefault()?.Event.Text ?? ""));
    }

    // By hand: 5 mm 10,000 km ago and 3 now is 0.2 mm in 1,000 km. The tyre job comes round every 10,000 km, and leaves 1 mm then; with 4.7
    // there is 0.03 in 1,000 km, and 4.4 at the next service.
    [Theory]
    [InlineData("3 3 3", PointOutcome.Plan)]
    [InlineData("4.7 4.7 4.7", PointOutcome.Good)]
    [InlineData("7 7 7", PointOutcome.Good)]
    public void What_wears_is_projected_to_the_next_service(string typed, PointOutcome outcome)
    {
        var odometer = On("corran-fen-12", "tyre-rotation").Opened.Odometer;
        var before = new InspectedBefore(7, new(2025, 3, 9), odometer - Quantity<Distance>.Of(10_000, Distance.Kilometre), "tread",
            "front-left", Scale.Find("mm")!.Of(5));
        var step = At("corran-fen-12", "tyre-rotation", "tread", [before]);
        _hand.Do(new MeasurePoint(step.Id, "front-left", typed));
        Assert.Equal(outcome, Found("front-left").Outcome);
        if (outcome == PointOutcome.Plan)
            Assert.EndsWith("limit 1.6 mm: replace it now", _hand.Card.Findings[^1].Event.Text);
    }

    [Fact]
    public void A_forecast_is_a_straight_line_and_never_below_nothing()
    {
        var mm = Scale.Find("mm")!;
        Quantity<Distance> Km(decimal km) => Quantity<Distance>.Of(km, Distance.Kilometre);
        var before = new InspectedBefore(7, new(2025, 3, 9), Km(40_000), "pads", "left", mm.Of(9));
        var wear = WearForecast.Of(before, mm.Of(6), Km(55_000))!;
        Assert.Equal(0.0002m, wear.PerKilometre);
        Assert.Equal((4m, 0m), (wear.After(Km(10_000)).Base, wear.After(Km(40_000)).Base));
        Assert.Equal((20_000m, 0m), (wear.Lasts(mm.Of(2)).In(Distance.Kilometre), wear.Lasts(mm.Of(7)).In(Distance.Kilometre)));
        Assert.Null(WearForecast.Of(before, mm.Of(9), Km(55_000)));
        Assert.Null(WearForecast.Of(before, mm.Of(10), Km(55_000)));
        Assert.Null(WearForecast.Of(before, mm.Of(6), Km(40_499)));
        Assert.NotNull(WearForecast.Of(before, mm.Of(6), Km(40_500)));
        Assert.Null(WearForecast.Of(before, Scale.Find("bar")!.Of(2), Km(55_000)));
        Assert.Null(WearForecast.Of(null, mm.Of(6), Km(55_000)));
    }

    [Fact]
    public void The_next_card_is_told_what_was_read_last_at_every_point()
    {
        var other = new InspectedBefore(7, new(2025, 3, 9), default, "pads", "left", Scale.Find("mm")!.Of(9));
        var step = At("corran-fen-12", "tyre-rotation", "tread", [other, other with { Step = "tread", Point = "front-left" }]);
        _hand.Do(new MeasurePoint(step.Id, "front-left", "6 5 4.9"));
        var told = _hand.Card.InspectedUntil(12, new(2026, 3, 9));
        Assert.Equal([("pads", "left", 9m), ("tread", "front-left", 4.9m)],
            told.Select(t => (t.Step.Text, t.Point, t.Least.Base)));
        var written = CardJson.Read(CardJson.Write(_hand.Card.Opened with { InspectedBefore = told }));
        Assert.Equal(told, ((CardOpened)written).InspectedBefore);
    }

    // By hand: a full turn changes it by 6 mm, 9 is the middle; to a quarter turn.
    [Theory]
    [InlineData(12, 0.5)]
    [InlineData(14.9, 1.0)]
    [InlineData(6, -0.5)]
    [InlineData(10, null)]
    [InlineData(8, null)]
    public void A_belt_says_how_far_its_adjuster_is_turned(double read, double? turns)
    {
        var step = At("maelor-ridge-900", "belt", "belt-tension");
        var ask = ((InspectSpec)step.Spec!).Points[0].Measure!;
        Assert.Equal((decimal?)turns, Inspection.Turns(ask, Scale.Find("mm")!.Of((decimal)read)));
        _hand.Do(new MeasurePoint(step.Id, "lower-run", $"{read:0.##}"));
        Assert.Equal(StepStatus.Done, _hand.Card.State(step.Id).Status);
    }

    [Fact]
    public void What_does_not_pass_with_the_nut_tight_is_slackened_set_and_tightened_before_it_is_measured_again()
    {
        StepId[] again = ["slacken-axle", "adjust-belt", "tighten-rear-axle-nut"];
        var step = At("maelor-ridge-900", "belt", "belt-tension-again");
        Assert.All(again, id => Assert.Equal(StepStatus.Done, _hand.Card.State(id).Status));
        _hand.Do(new MeasurePoint(step.Id, "lower-run", "12"));
        Assert.All(again, id => Assert.NotEqual(StepStatus.Done, _hand.Card.State(id).Status));
        Assert.Equal("slacken-axle", _hand.Card.Next!.Id.Text);
        Assert.Contains("Tighten the rear axle nut", _hand.No(new MeasurePoint(step.Id, "lower-run", "9")));
        // The belt is not slack for having been looked at: what only looks is not done again.
        Assert.Equal(StepStatus.Done, _hand.Card.State("belt-look").Status);
        _hand.UpTo(s => s.Id == step.Id);
        _hand.Do(new MeasurePoint(step.Id, "lower-run", "9"));
        Assert.Equal(StepStatus.Done, _hand.Card.State(step.Id).Status);
        Assert.All(again, id => Assert.Equal(StepStatus.Done, _hand.Card.State(id).Status));
    }

    [Fact]
    public void A_belt_given_up_out_of_range_is_the_leads_and_its_pin_goes_in_all_the_same()
    {
        var step = At("maelor-ridge-900", "belt", "belt-tension-again");
        _hand.Do(new MeasurePoint(step.Id, "lower-run", "12"));
        _hand.Do(new DropJob("belt", "The adjuster is seized"));
        Assert.Contains(_hand.Card.Remaining, s => s.Id == "fit-split-pin");
        Assert.DoesNotContain(_hand.Card.Remaining, s => s.Id == "tighten-rear-axle-nut");
        Assert.Single(_hand.Card.WantingCountersignature);
        // What happened at the steps that went with the job can still be told.
        Assert.All(_hand.Card.History.Select(h => h.Event).OfType<IStepEvent>(), e => Assert.NotNull(_hand.Card.StepEver(e.Step)));
    }

    [Fact]
    public void What_holds_a_vehicle_and_cannot_be_set_is_the_leads_and_left_out_it_holds_it()
    {
        var step = At("lumen-ardent", "first-check", "check-handbrake");
        Assert.Contains("“5.5” is no whole number", _hand.No(new MeasurePoint(step.Id, "lever", "5.5")));
        Assert.StartsWith("Count the clicks.", _hand.No(new MeasurePoint(step.Id, "lever", " ")));
        _hand.Do(new MeasurePoint(step.Id, "lever", "9 clicks"));
        _hand.Do(new LetPointStay(step.Id, "lever"));
        Assert.Equal(FindingGrade.Stop, Assert.Single(_hand.Card.Stops).Event.Grade);
        step = At("lumen-ardent", "first-check", "check-handbrake");
        _hand.Do(new Deviate(step.Id, DeviationKind.StepLeftOut, "The lever is out"));
        Assert.Single(_hand.Card.WantingCountersignature);
    }

    [Theory]
    [InlineData("\"in\": \"clicks\"", "\"in\": \"knocks\"", "is not read on a gauge here")]
    [InlineData("\"low\": \"5 clicks\"", "\"low\": \"9 clicks\"", "9 clicks is more than 8 clicks")]
    [InlineData("\"low\": \"5 clicks\"", "\"low\": \"five\"", "is no whole number")]
    [InlineData("{\"says\": \"dry\"}, ", "", "The first answer is the usual one")]
    [InlineData("\"id\": \"washer-fluid\"", "\"id\": \"brake-fluid\"", "stands here twice")]
    public void A_sheet_that_cannot_be_is_refused_with_its_place(string right, string wrong, string says)
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "lumen-ardent.json"));
        Assert.Contains(right, text);
        var errors = SheetReader.Read(text.Replace(right, wrong, StringComparison.Ordinal)).Errors;
        Assert.Contains(errors, e => e.Line > 1 && e.What.Contains(says, StringComparison.Ordinal));
    }
}
