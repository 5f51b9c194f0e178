using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>
/// Bleeding by hand: 16 mL a stroke and 160 mL between the lines make ten strokes to a reservoir; ten strokes at least to a wheel.
/// </summary>
public sealed class BleedTests
{
    [Fact]
    public void All_wheels_hang_on_one_reservoir()
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "hespin-16.json"));
        var at = text.LastIndexOf("\"reservoir\": \"", StringComparison.Ordinal) + "\"reservoir\": \"".Length;
        var error = Assert.Single(SheetReader.Read(text[..at] + "9 L" + text[text.IndexOf('"', at)..]).Errors);
        Assert.EndsWith(".bleed.reservoir", error.Field, StringComparison.Ordinal);
        Assert.Contains("It is one.", error.What, StringComparison.Ordinal);
    }

    private static readonly ModelSheet Fen = ComposerTests.Sheets["corran-fen-12"];
    private DateTimeOffset _now = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);
    private JobCard _card = On("corran-fen-12", "brake-fluid");

    public BleedTests()
    {
        while (_card.Next is { } next && next.Kind != StepKind.Bleed)
            Usual();
    }

    private SheetStep Wheel => _card.Next!;

    private BleedState State => BleedState.Of(_card, Wheel);

    private Decision Say(CardCommand command, Person? by = null)
    {
        var decision = _card.Decide(command, by ?? Iona, _now, UsualPress.Facts(_card.Sheet));
        if (decision is Accepted accepted)
        {
            var (seq, id) = (_card.History.Count, Guid.NewGuid());
            _card = _card.With([.. accepted.Events.Select(e => new Recorded(++seq, _now, by ?? Iona, id, e))]);
        }
        return decision;
    }

    private void Do(CardCommand command)
    {
        var decision = Say(command);
        Assert.True(decision is Accepted, $"{command}: {Describe(decision)}");
    }

    private string No(CardCommand command) => Assert.IsType<Refused>(Say(command)).Reasons[0].What;

    private void Usual()
    {
        if (Say(UsualPress.Of(_card, _card.Next!)) is not Accepted)
            _now += TimeSpan.FromMinutes(30);
    }

    private void Stroke(int strokes) => Do(new MakeStrokes(Wheel.Id, strokes));

    private void Bleed()
    {
        var here = Wheel.Id;
        while (_card.Next?.Id == here)
            Usual();
    }

    [Fact]
    public void Wheels_go_in_the_order_of_the_model_and_each_takes_two()
    {
        string[] wheels = [.. _card.Steps.Where(s => s.Kind == StepKind.Bleed).Select(s => ((BleedSpec)s.Spec!).Wheel.ToString())];
        Assert.Equal(["RearRight", "RearLeft", "FrontRight", "FrontLeft"], wheels);
        Assert.All(_card.Steps.Where(s => s.Kind == StepKind.Bleed), s => Assert.Equal(2, s.People));
    }

    [Fact]
    public void A_screw_is_open_from_the_first_stroke_until_it_is_tight_and_the_card_is_not_signed_meanwhile()
    {
        Assert.DoesNotContain(_card.Open, o => o.Id == Wheel.What);
        Stroke(1);
        var open = Assert.Single(_card.Open, o => o.Id == Wheel.What);
        Assert.Equal((OpenKind.Fastener, Wheel.Id), (open.Kind, open.By));
        Assert.Equal(Wheel.Id, _card.Closing(open)!.Id);
        Assert.Contains(_card.BeforeSigning(), r => r.What.Contains("Bleed screw, rear right", StringComparison.Ordinal));
        var here = Wheel;
        Stroke(9);
        Do(new SeeHose(here.Id, Runs.Clear));
        Do(new TakeReading(here.Id, Nm(9)));
        Assert.DoesNotContain(_card.Open, o => o.Id == here.What);
        Assert.Equal(StepStatus.Done, _card.State(here.Id).Status);
    }

    [Fact]
    public void The_reservoir_is_counted_over_all_wheels_and_never_falls_below_its_lower_line()
    {
        Assert.Equal(10, State.Left);
        Stroke(7);
        Assert.Equal((3, 0.3m), (State.Left, State.Reservoir.Level));
        Assert.StartsWith("The reservoir holds 3 more strokes, not 4", No(new MakeStrokes(Wheel.Id, 4)));
        Stroke(3);
        Assert.StartsWith("The reservoir stands at its lower line", No(new MakeStrokes(Wheel.Id, 1)));
        Do(new SeeHose(Wheel.Id, Runs.Clear));
        Do(new TakeReading(Wheel.Id, Nm(9)));
        Assert.Equal((0, 0), (State.Left, State.Strokes));
        Assert.StartsWith("The reservoir stands at its lower line", No(new MakeStrokes(Wheel.Id, 1)));
        Do(new FillReservoir(Wheel.Id));
        Assert.Equal((10, 1m), (State.Left, State.Reservoir.Level));
        Stroke(1);
        Assert.Equal((176, 16), (State.Reservoir.DrivenOut.In(Volume.Millilitre), State.DrivenOut.In(Volume.Millilitre)));
    }

    [Fact]
    public void Bubbles_begin_the_wheel_again_and_a_stroke_after_the_look_asks_for_another_look()
    {
        Assert.StartsWith("Nothing runs before the first stroke", No(new SeeHose(Wheel.Id, Runs.Clear)));
        Stroke(10);
        Do(new SeeHose(Wheel.Id, Runs.Bubbles));
        Assert.Equal((0, Runs.Bubbles), (State.Strokes, State.Runs));
        Do(new FillReservoir(Wheel.Id));
        Stroke(9);
        Do(new SeeHose(Wheel.Id, Runs.Clear));
        Assert.StartsWith("Only 9 of 10 strokes", No(new TakeReading(Wheel.Id, Nm(9))));
        Stroke(1);
        Assert.StartsWith("It has not been seen to run clear since", No(new TakeReading(Wheel.Id, Nm(9))));
        Do(new SeeHose(Wheel.Id, Runs.Dark));
        Assert.StartsWith("It has not been seen to run clear", No(new TakeReading(Wheel.Id, Nm(9))));
        Do(new SeeHose(Wheel.Id, Runs.Clear));
        Do(new TakeReading(Wheel.Id, Nm(10)));
    }

    // By hand: 9 N·m, 8 to 10 pass; what is too much is the lead's to settle, and the wheel need not be bled again for it.
    [Fact]
    public void A_screw_is_tightened_like_any_other_too_little_is_not_tight_and_too_much_is_for_the_lead()
    {
        Stroke(10);
        Do(new SeeHose(Wheel.Id, Runs.Clear));
        var here = Wheel;
        Do(new TakeReading(here.Id, Nm(7.5m)));
        Assert.Equal(StepStatus.Waiting, _card.State(here.Id).Status);
        Assert.Equal("A torque is above zero.", No(new TakeReading(here.Id, Nm(0))));
        Do(new TakeReading(here.Id, new NumberSaid<Torque>(10.5m, null)));
        Assert.True(_card.IsOverTorqued(here.Id));
        Assert.Contains("The workshop lead decides", No(new SettleOverTorque(here.Id, "Thread is good")));
        Assert.IsType<Accepted>(Say(new SettleOverTorque(here.Id, "Thread is good"), Una));
        Do(new TakeReading(here.Id, Nm(9)));
        Assert.DoesNotContain(_card.Open, o => o.Id == here.What);
        Assert.Equal(StepStatus.Done, _card.State(here.Id).Status);
    }

    [Fact]
    public void Without_a_reading_it_needs_a_second_name_and_it_is_never_left_out_or_just_pressed_done()
    {
        Assert.StartsWith("Only 0 of 10", No(new Deviate(Wheel.Id, DeviationKind.NoReading, "wrench at calibration")));
        Stroke(10);
        Do(new SeeHose(Wheel.Id, Runs.Clear));
        Assert.StartsWith("Bleeding is counted", No(new ConfirmStep(Wheel.Id)));
        Assert.StartsWith("This cannot be left out", No(new Deviate(Wheel.Id, DeviationKind.StepLeftOut, "no time today")));
        var here = Wheel;
        Do(new Deviate(here.Id, DeviationKind.NoReading, "wrench at calibration"));
        Assert.Single(_card.WantingCountersignature);
        Assert.DoesNotContain(_card.Open, o => o.Id == here.What);
    }

    [Fact]
    public void What_is_taken_back_was_never_counted()
    {
        Stroke(4);
        Stroke(3);
        Do(new TakeBack(_card.LastPressOf(Iona.Id)!.Seq));
        Assert.Equal((4, 6), (State.Strokes, State.Left));
        Do(new TakeBack(_card.LastPressOf(Iona.Id)!.Seq));
        Assert.Equal((0, 10), (State.Strokes, State.Left));
        Assert.DoesNotContain(_card.Open, o => o.Id == Wheel.What);
    }

    [Fact]
    public void Given_up_with_a_screw_open_the_screw_is_still_closed()
    {
        Stroke(2);
        Do(new DropJob("brake-fluid", "the screw is seized on the other side"));
        var open = Assert.Single(_card.Open, o => o.Id == "bleed-screw-rear-right");
        Assert.NotNull(_card.Closing(open));
        for (var n = 0; n < 60 && _card.Next is not null; n++)
            Usual();
        Assert.DoesNotContain(_card.Open, o => o.Id == "bleed-screw-rear-right");
        Assert.All(_card.BeforeSigning(), r => Assert.Contains("needs a second name", r.What));
    }

    [Fact]
    public void Nothing_is_bled_from_a_reservoir_without_fresh_fluid()
    {
        var dry = On("corran-fen-12", "brake-fluid");
        Assert.Contains(dry.InTheWay(dry.Steps.First(s => s.Kind == StepKind.Bleed), _now),
            r => r.What.StartsWith("The reservoir is not filled", StringComparison.Ordinal)
                && dry.Step(r.Step!.Value)!.Kind == StepKind.Refill);
    }

    // On a card whose order somebody left away: what was poured is not sucked out again, and there is a way on.
    [Fact]
    public void Fresh_fluid_is_not_sucked_out_again()
    {
        var steps = On("corran-fen-12", "brake-fluid").Steps.Select(s => s with { After = [] }).ToList();
        _card = CardWalk.Open(Fen, ["brake-fluid"], steps);
        Assert.Contains("is in the way", No(new ConfirmStep("suck-out-reservoir")));
        foreach (var step in steps.TakeWhile(s => s.Kind != StepKind.Bleed).Where(s => s.Kind != StepKind.Suck))
        {
            _now += TimeSpan.FromHours(2);
            Do(UsualPress.Of(_card, step));
        }
        Assert.Contains("is in already", No(new ConfirmStep("suck-out-reservoir")));
        Do(new Deviate("suck-out-reservoir", DeviationKind.StepLeftOut, "It is filled"));
    }

    [Fact]
    public void What_was_done_is_written_down_and_read_back_as_it_was()
    {
        Bleed();
        Bleed();
        var written = _card.History.Select(h => h with { Event = CardJson.Read(CardJson.Write(h.Event)) }).ToList();
        var again = JobCard.Replay(Fen, written);
        Assert.Equal(_card.Open, again.Open);
        Assert.Equal(BleedState.Of(_card, Wheel), BleedState.Of(again, again.Next!));
    }

    [Theory]
    [InlineData("\"reservoir\": \"0.16 L\"", "\"reservoir\": \"10 mL\"", "one stroke at least")]
    [InlineData("\"wheel\": \"rear-right\"", "\"wheel\": \"middle\"", "“middle” is not known here")]
    [InlineData("\"bleed\": { \"fluid\": \"brake-fluid\"", "\"bleed\": { \"fluid\": \"beer\"", "the fluid that is driven through")]
    [InlineData("\"what\": \"bleed-screw-rear-right\"", "\"what\": \"brake-fluid\"", "a bleed screw with a torque")]
    public void A_sheet_that_cannot_be_is_refused_with_its_place(string right, string wrong, string says)
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "corran-fen-12.json"));
        Assert.Contains(right, text);
        var errors = SheetReader.Read(text.Replace(right, wrong, StringComparison.Ordinal)).Errors;
        Assert.Contains(errors, e => e.Line > 1 && e.What.Contains(says, StringComparison.Ordinal));
    }

    [Fact]
    public void No_stroke_and_no_look_that_nobody_knows_are_taken()
    {
        Assert.Equal("No stroke is nothing to count.", No(new MakeStrokes(Wheel.Id, 0)));
        Assert.Equal("No stroke is nothing to count.", No(new MakeStrokes(Wheel.Id, -3)));
        Stroke(9);
        Assert.StartsWith("The reservoir holds 1 more stroke, not 2", No(new MakeStrokes(Wheel.Id, 2)));
        Assert.Equal("Nobody knows what runs there.", No(new SeeHose(Wheel.Id, (Runs)99)));
        Do(new SeeHose(Wheel.Id, Runs.Bubbles));
        Assert.Contains("Only 0 of 10", No(new TakeReading(Wheel.Id, Nm(9))));
        Do(new FillReservoir(Wheel.Id));
        Stroke(10);
        Do(new SeeHose(Wheel.Id, Runs.Clear));
        Do(new TakeReading(Wheel.Id, Nm(200)));
        Assert.True(_card.IsOverTorqued(Wheel.Id));
    }

    // By hand: nine strokes are left in the reservoir after one, the wheel wants ten; then one after the reservoir is full again.
    [Fact]
    public void The_usual_press_makes_as_many_strokes_as_the_reservoir_holds_and_the_wheel_wants()
    {
        Stroke(1);
        Assert.Equal(new MakeStrokes(Wheel.Id, 9), UsualPress.Of(_card, Wheel));
        Stroke(4);
        Assert.Equal(new MakeStrokes(Wheel.Id, 5), UsualPress.Of(_card, Wheel));
        Do(new SeeHose(Wheel.Id, Runs.Bubbles));
        Assert.Equal(new MakeStrokes(Wheel.Id, 5), UsualPress.Of(_card, Wheel));
        Stroke(5);
        Assert.Equal(new FillReservoir(Wheel.Id), UsualPress.Of(_card, Wheel));
        Do(new FillReservoir(Wheel.Id));
        Assert.Equal(new MakeStrokes(Wheel.Id, 5), UsualPress.Of(_card, Wheel));
    }

    [Fact]
    public void What_is_done_at_another_wheel_leaves_what_was_seen_at_this_one()
    {
        var (one, other) = (Wheel, _card.Steps.Where(s => s.Kind == StepKind.Bleed).Skip(1).First());
        Stroke(10);
        Do(new SeeHose(one.Id, Runs.Clear));
        Do(new TakeReading(one.Id, Nm(9)));
        Do(new FillReservoir(other.Id));
        Do(new MakeStrokes(other.Id, 3));
        Do(new SeeHose(other.Id, Runs.Dark));
        Assert.Equal((3, Runs.Dark), (BleedState.Of(_card, other).Strokes, BleedState.Of(_card, other).Runs));
        Assert.Equal((0, (Runs?)null), (BleedState.Of(_card, one).Strokes, BleedState.Of(_card, one).Runs));
        Do(new FillReservoir(other.Id));
        Assert.Equal((3, Runs.Dark), (BleedState.Of(_card, other).Strokes, BleedState.Of(_card, other).Runs));
    }

    private void UpTo(string kind)
    {
        while (_card.Next is { } next && next.Kind != kind)
            Usual();
    }

    // By hand: 4 strokes of 16 mL make 64 mL that are missing; 40 mL out of the last can leave 24.
    [Fact]
    public void A_can_that_runs_empty_fills_a_part_and_no_more_goes_in_than_is_missing()
    {
        Stroke(4);
        Typed<Volume> Ml(decimal ml) => new(Quantity<Volume>.Of(ml, Volume.Millilitre), Volume.Millilitre);
        Assert.Contains("do not go in: only 64 mL", No(new FillReservoir(Wheel.Id, Ml(65))));
        Assert.Contains("nothing to fill in", No(new FillReservoir(Wheel.Id, Ml(0))));
        Assert.Contains("nothing to fill in", No(new FillReservoir(Wheel.Id, Ml(-5))));
        var before = _card.Fluid("brake-fluid").Poured;
        Do(new FillReservoir(Wheel.Id, Ml(40)));
        Assert.Equal((24, 8), (State.Reservoir.Missing.In(Volume.Millilitre), State.Left));
        Do(new FillReservoir(Wheel.Id));
        Assert.Equal((0, 10), (State.Reservoir.Missing.In(Volume.Millilitre), State.Left));
        Assert.Equal(64, (_card.Fluid("brake-fluid").Poured - before).In(Volume.Millilitre));
    }

    [Fact]
    public void What_was_sucked_out_is_open_until_it_is_filled_even_when_the_job_is_given_up()
    {
        _card = On("corran-fen-12", "brake-fluid", "cabin-filter");
        UpTo(StepKind.Suck);
        Usual();
        Assert.Contains(_card.Open, o => o.What == new OpenRef(OpenKind.Fluid, "brake-fluid"));
        Do(new DropJob("brake-fluid", "The can is empty"));
        Assert.Contains(_card.Remaining, s => s.Kind == StepKind.Refill);
        Assert.Contains(_card.BeforeSigning(), r => r.What.StartsWith("Brake fluid: still open", StringComparison.Ordinal));
        UpTo(StepKind.Refill);
        Usual();
        Assert.DoesNotContain(_card.Open, o => o.Kind == OpenKind.Fluid);
        Assert.Equal(160, _card.Fluid("brake-fluid").Poured.In(Volume.Millilitre));
    }

    // Strokes were made and the job is given up: the level is below its line, and somebody brings it back there.
    [Fact]
    public void A_level_that_fell_is_brought_back_to_its_line_when_the_job_is_given_up()
    {
        Stroke(3);
        Do(new DropJob("brake-fluid", "The screw is seized"));
        Assert.Contains(_card.Remaining, s => s.Id == "top-up-reservoir");
        for (var n = 0; n < 40 && _card.Next is not null; n++)
            Usual();
        Assert.Equal(0, Reservoir.Of(_card, "brake-fluid").Missing.In(Volume.Millilitre));
    }

    [Fact]
    public void The_pedal_is_hard_only_after_the_clock_and_a_wait_that_was_cut_held_nothing()
    {
        UpTo(StepKind.Pedal);
        var pedal = _card.Next!;
        Assert.Contains("was not held for so long", No(new FeelPedal(pedal.Id, Pedal.Hard)));
        Assert.Contains("pressed, held and felt", No(new ConfirmStep(pedal.Id)));
        Do(new PressPedal(pedal.Id));
        _now += TimeSpan.FromSeconds(29);
        Assert.Contains("It is held down", No(new FeelPedal(pedal.Id, Pedal.Hard)));
        Do(new PressPedal(pedal.Id));
        _now += TimeSpan.FromSeconds(29);
        Assert.Contains("It is held down", No(new FeelPedal(pedal.Id, Pedal.Hard)));
        Do(new CutWait(pedal.Id, "It is hard, I feel it"));
        Assert.Contains("was not held for so long", No(new FeelPedal(pedal.Id, Pedal.Hard)));
        Do(new PressPedal(pedal.Id));
        _now += TimeSpan.FromSeconds(30);
        Assert.Equal("Nobody knows what that pedal does.", No(new FeelPedal(pedal.Id, (Pedal)7)));
        Do(new FeelPedal(pedal.Id, Pedal.Hard));
        Assert.Equal(StepStatus.Done, _card.State(pedal.Id).Status);
    }

    [Theory]
    [InlineData(Pedal.Soft)]
    [InlineData(Pedal.Sinks)]
    public void A_pedal_that_is_not_hard_begins_every_wheel_again_and_the_card_still_comes_to_its_end(Pedal how)
    {
        UpTo(StepKind.Pedal);
        Do(new PressPedal(_card.Next!.Id));
        Do(new FeelPedal(_card.Next!.Id, how));
        string[] left = [.. _card.Remaining.Select(s => s.Id.Text).Where(i => i.StartsWith("bleed", StringComparison.Ordinal)
            || i is "top-up-reservoir" or "test-pedal" or "fill-brake-fluid")];
        Assert.Equal(["bleed-rear-right", "bleed-rear-left", "bleed-front-right", "bleed-front-left", "top-up-reservoir", "test-pedal"],
            left);
        Assert.Equal((0, "bleed-rear-right"), (State.Strokes, Wheel.Id.Text));
        Assert.DoesNotContain(_card.Waits, w => w.Id == "test-pedal");
        for (var n = 0; n < 80 && _card.Next is not null; n++)
            Usual();
        Assert.Null(_card.Next);
        Assert.Empty(_card.BeforeSigning());
    }

    [Fact]
    public void A_pedal_is_left_out_only_with_a_second_name_and_the_vehicle_is_held_until_then()
    {
        UpTo(StepKind.Pedal);
        Do(new PressPedal(_card.Next!.Id));
        Do(new Deviate(_card.Next!.Id, DeviationKind.StepLeftOut, "The leg is in plaster"));
        Assert.Single(_card.WantingCountersignature);
        UpTo(StepKind.Drive);
        Assert.Contains("the vehicle is held", No(new ConfirmStep(_card.Next!.Id)));
        Do(new TakeBack(_card.LastPressOf(Iona.Id)!.Seq));
    }

    [Fact]
    public void A_screw_whose_reading_was_noted_wrongly_is_bled_again_with_its_proof()
    {
        UpTo(StepKind.Drive);
        var reading = _card.CanBePutRight.First();
        Do(new CorrectReading(reading.Seq, Nm(5), "Read off the wrong wrench"));
        string[] left = [.. _card.Remaining.Select(s => s.Id.Text)];
        Assert.Superset(new HashSet<string> { "bleed-rear-right", "top-up-reservoir", "test-pedal" }, left.ToHashSet());
        for (var n = 0; n < 60 && _card.Next is not null; n++)
            Usual();
        Assert.Empty(_card.BeforeSigning());
    }

    [Fact]
    public void A_screw_that_weeps_is_bled_again_with_its_proof()
    {
        _card = On("corran-fen-12", "brake-fluid", "engine-oil-and-filter");
        UpTo(StepKind.Look);
        Do(new ReportLeak(_card.Next!.Id, "bleed-screw-front-left"));
        Assert.Contains(_card.Open, o => o.Id == "bleed-screw-front-left" && o.Detail == "leaks");
        string[] left = [.. _card.Remaining.Select(s => s.Id.Text)];
        Assert.Superset(new HashSet<string> { "bleed-front-left", "top-up-reservoir", "test-pedal" }, left.ToHashSet());
        Assert.DoesNotContain("bleed-front-right", left);
        for (var n = 0; n < 80 && _card.Next is not null; n++)
            Usual();
        Assert.Empty(_card.BeforeSigning());
    }

    // What is open is bled until it runs clear, though the job is given up: the reservoir is opened for it, and filled after it.
    [Fact]
    public void Given_up_with_a_screw_that_weeps_it_is_bled_shut_and_the_reservoir_filled()
    {
        _card = On("corran-fen-12", "brake-fluid", "engine-oil-and-filter");
        UpTo(StepKind.Look);
        Do(new ReportLeak(_card.Next!.Id, "bleed-screw-front-left"));
        Do(new DropJob("brake-fluid", "No second pair of hands"));
        for (var n = 0; n < 80 && _card.Next is not null; n++)
            Usual();
        Assert.DoesNotContain(_card.Open, o => o.Kind is OpenKind.Fastener or OpenKind.Access);
        Assert.Equal(0, Reservoir.Of(_card, "brake-fluid").Missing.In(Volume.Millilitre));
        Assert.All(_card.BeforeSigning(), r => Assert.Contains("needs a second name", r.What));
    }

    [Fact]
    public void A_reading_that_is_put_right_while_the_wheel_waits_to_be_bled_again_opens_its_screw()
    {
        UpTo(StepKind.Pedal);
        Do(new PressPedal(_card.Next!.Id));
        Do(new FeelPedal(_card.Next!.Id, Pedal.Sinks));
        Assert.DoesNotContain(_card.Open, o => o.Kind == OpenKind.Fastener);
        Do(new CorrectReading(_card.CanBePutRight[1].Seq, Nm(5), "Read off the wrong wrench"));
        Assert.Equal("bleed-screw-rear-left", Assert.Single(_card.Open, o => o.Kind == OpenKind.Fastener).Id.Text);
    }

    // By hand, one reservoir of 240 mL: 15 strokes of 16 mL, and 20 of 12 mL at the clutch.
    [Fact]
    public void The_clutch_comes_last_and_drinks_from_the_same_reservoir()
    {
        _card = On("ostler-brae-28d", "brake-fluid");
        UpTo(StepKind.Bleed);
        Assert.Equal(15, State.Left);
        while (Wheel.Id != "bleed-clutch")
            Usual();
        Do(new FillReservoir(Wheel.Id));
        Assert.Equal(20, State.Left);
        Stroke(2);
        Assert.Equal((18, 24), (State.Left, State.Reservoir.Missing.In(Volume.Millilitre)));
    }

    [Fact]
    public void A_reservoir_of_a_single_stroke_is_one()
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "corran-fen-12.json"));
        var small = text.Replace("\"reservoir\": \"0.16 L\"", "\"reservoir\": \"16 mL\"", StringComparison.Ordinal);
        var sheet = SheetReader.Read(small).Sheet;
        Assert.NotNull(sheet);
        var spec = (BleedSpec)sheet.Steps.Values.First(s => s.Kind == StepKind.Bleed).Spec!;
        Assert.Equal(1, spec.StrokesInReservoir);
        Assert.Equal(0, (spec with { PerStroke = Quantity<Volume>.Zero }).StrokesInReservoir);
    }
}
