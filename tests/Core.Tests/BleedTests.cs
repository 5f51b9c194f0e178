using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>
/// Bleeding by hand: 20 mL a stroke and 0.2 L between the lines make ten strokes to a reservoir; ten strokes at least to a wheel.
/// </summary>
public sealed class BleedTests
{
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
        var decision = _card.Decide(command, by ?? Iona, _now, UsualPress.Facts(Fen));
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
        Do(new ShutBleedScrew(here.Id, Nm(9)));
        Assert.DoesNotContain(_card.Open, o => o.Id == here.What);
        Assert.Equal(StepStatus.Done, _card.State(here.Id).Status);
    }

    [Fact]
    public void The_reservoir_is_counted_over_all_wheels_and_never_falls_below_its_lower_line()
    {
        Assert.Equal(10, State.Left);
        Stroke(7);
        Assert.Equal((3, 0.3m), (State.Left, State.Level));
        Assert.StartsWith("The reservoir holds 3 more strokes, not 4", No(new MakeStrokes(Wheel.Id, 4)));
        Stroke(3);
        Assert.StartsWith("The reservoir stands at its lower line", No(new MakeStrokes(Wheel.Id, 1)));
        Do(new SeeHose(Wheel.Id, Runs.Clear));
        Do(new ShutBleedScrew(Wheel.Id, Nm(9)));
        Assert.Equal((0, 0), (State.Left, State.Strokes));
        Assert.StartsWith("The reservoir stands at its lower line", No(new MakeStrokes(Wheel.Id, 1)));
        Do(new FillReservoir(Wheel.Id));
        Assert.Equal((10, 1m), (State.Left, State.Level));
        Stroke(1);
        Assert.Equal("0.22 L", $"{State.DrivenOut}");
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
        Assert.StartsWith("Only 9 of 10 strokes", No(new ShutBleedScrew(Wheel.Id, Nm(9))));
        Stroke(1);
        Assert.StartsWith("It has not been seen to run clear since", No(new ShutBleedScrew(Wheel.Id, Nm(9))));
        Do(new SeeHose(Wheel.Id, Runs.Dark));
        Assert.StartsWith("It has not been seen to run clear", No(new ShutBleedScrew(Wheel.Id, Nm(9))));
        Do(new SeeHose(Wheel.Id, Runs.Clear));
        Do(new ShutBleedScrew(Wheel.Id, Nm(10)));
    }

    [Fact]
    public void Too_little_is_refused_and_too_much_stops_the_vehicle_until_the_lead_decides()
    {
        Stroke(10);
        Do(new SeeHose(Wheel.Id, Runs.Clear));
        var here = Wheel;
        Assert.Equal("7.5 N·m is too little.", No(new ShutBleedScrew(here.Id, Nm(7.5m))));
        Assert.Contains("cannot be on a bleed screw", No(new ShutBleedScrew(here.Id, Nm(0))));
        Assert.Contains("cannot be on a bleed screw", No(new ShutBleedScrew(here.Id, Nm(201))));
        Do(new ShutBleedScrew(here.Id, Nm(10.5m)));
        Assert.Equal("Bleed screw, rear right tightened with 10.5 N·m, at most 10 N·m", Assert.Single(_card.Stops).Event.Text);
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
                && dry.Step(r.Step!.Value)!.Kind == StepKind.Pour);
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
    [InlineData("\"reservoir\": \"0.2 L\"", "\"reservoir\": \"10 mL\"", "one stroke at least")]
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
        Assert.Contains("Only 0 of 10", No(new ShutBleedScrew(Wheel.Id, Nm(9))));
        Do(new FillReservoir(Wheel.Id));
        Stroke(10);
        Do(new SeeHose(Wheel.Id, Runs.Clear));
        Do(new ShutBleedScrew(Wheel.Id, Nm(200)));
        Assert.Contains("200 N·m, at most 10 N·m", Assert.Single(_card.Stops).Event.Text);
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
        Do(new ShutBleedScrew(one.Id, Nm(9)));
        Do(new FillReservoir(other.Id));
        Do(new MakeStrokes(other.Id, 3));
        Do(new SeeHose(other.Id, Runs.Dark));
        Assert.Equal((3, Runs.Dark), (BleedState.Of(_card, other).Strokes, BleedState.Of(_card, other).Runs));
        Assert.Equal((0, (Runs?)null), (BleedState.Of(_card, one).Strokes, BleedState.Of(_card, one).Runs));
        Do(new FillReservoir(other.Id));
        Assert.Equal((3, Runs.Dark), (BleedState.Of(_card, other).Strokes, BleedState.Of(_card, other).Runs));
    }

    [Fact]
    public void A_reservoir_of_a_single_stroke_is_one()
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "corran-fen-12.json"));
        var small = text.Replace("\"reservoir\": \"0.2 L\"", "\"reservoir\": \"20 mL\"", StringComparison.Ordinal);
        var sheet = SheetReader.Read(small).Sheet;
        Assert.NotNull(sheet);
        var spec = (BleedSpec)sheet.Steps.Values.First(s => s.Kind == StepKind.Bleed).Spec!;
        Assert.Equal(1, spec.StrokesInReservoir);
        Assert.Equal(0, (spec with { PerStroke = Quantity<Volume>.Zero }).StrokesInReservoir);
    }
}
