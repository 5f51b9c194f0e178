using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>The first seconds of an engine: HD-07's oil light is out within five of them, or it is off at once and somebody looks
/// why.</summary>
public sealed class StartTests
{
    private CardAtHand _hand = null!;

    private StepId Start(string sheet = "tarn-courier-20d", string job = "engine-oil-and-filter")
    {
        _hand = new(On(sheet, job));
        return _hand.UpTo(s => s.Kind == StepKind.Run).Id;
    }

    private void After(double seconds) => _hand.Now += TimeSpan.FromSeconds(seconds);

    [Theory]
    [InlineData(0, 0)]
    [InlineData(2.2, 3)]
    [InlineData(5, 5)]
    public void In_time_the_seconds_are_noted_and_the_engine_runs_on(double pressed, int noted)
    {
        var start = Start();
        _hand.Do(new EngineRunsNow(start));
        Assert.True(_hand.Card.EngineRuns);
        After(pressed);
        _hand.Do(new LightWentOut(start));
        var light = Assert.IsType<OilLightOut>(_hand.Card.History[^1].Event);
        Assert.Equal((TimeSpan.FromSeconds(noted), true), (light.After, light.Timed));
        Assert.Equal(StepStatus.Done, _hand.Card.State(start).Status);
        Assert.Equal(StepKind.Settle, _hand.Card.Next!.Kind);
    }

    [Fact]
    public void Pressed_late_it_is_asked_and_both_answers_lead_on()
    {
        var start = Start();
        _hand.Do(new EngineRunsNow(start));
        After(9.5);
        var asked = Assert.IsType<LightQuestion>(Assert.IsType<Asked>(_hand.Say(new LightWentOut(start))).Question);
        Assert.Equal(("You pressed 10 s after the start. Was the light out within 5 s?", TimeSpan.FromSeconds(10)),
            (asked.Text, asked.After));
        var before = _hand.Card;
        _hand.Do(new LightWentOut(start, true));
        Assert.False(Assert.IsType<OilLightOut>(_hand.Card.History[^1].Event).Timed);
        _hand = new(before) { Now = _hand.Now };
        _hand.Do(new LightStaysOn(start));
        Assert.False(_hand.Card.EngineRuns);
    }

    [Fact]
    public void A_light_that_stays_stops_it_until_somebody_says_what_was_found()
    {
        var start = Start();
        _hand.Do(new EngineRunsNow(start));
        After(6);
        _hand.Do(new LightStaysOn(start));
        Assert.DoesNotContain(_hand.Card.Open, o => o.Kind == OpenKind.Engine);
        Assert.Equal(start, _hand.Card.Next!.Id);
        Assert.Equal((FindingGrade.PlanIt, "The oil light stayed on after the start"),
            (_hand.Card.Findings[^1].Event.Grade, _hand.Card.Findings[^1].Event.Text));
        Assert.Contains("nobody has said what was found", _hand.No(new EngineRunsNow(start)));
        Assert.Contains("nobody has said what was found", _hand.No(new CrankEngine(start)));
        Assert.Contains("What was found is missing", _hand.No(new LookIntoLight(start, "  ")));
        _hand.Do(new LookIntoLight(start, "Lead was off the switch"));
        _hand.Do(new EngineRunsNow(start));
        // Twice is more than the one who stands there decides.
        _hand.Do(new LightStaysOn(start));
        Assert.Equal(FindingGrade.Stop, _hand.Card.Findings[^1].Event.Grade);
        _hand.Do(new LookIntoLight(start, "Nothing"));
        Assert.Contains("graded stop", _hand.No(new EngineRunsNow(start)));
    }

    [Fact]
    public void While_it_is_watched_nothing_else_is_done_and_what_it_does_can_always_be_said()
    {
        var start = Start();
        Assert.Contains("has not been started", _hand.No(new LightWentOut(start)));
        Assert.Contains("has not been started", _hand.No(new LightStaysOn(start)));
        _hand.Do(new EngineRunsNow(start));
        Assert.Contains("runs already", _hand.No(new EngineRunsNow(start)));
        Assert.Contains("runs already", _hand.No(new CrankEngine(start)));
        Assert.All(_hand.Card.Remaining.Where(s => s.Id != start),
            s => Assert.Contains(_hand.Card.InTheWay(s, _hand.Now), r => r.What == "The engine was just started." && r.Step == start));
        var plug = _hand.Card.CanBePutRight.First(h => ((IStepEvent)h.Event).Step == "tighten-drain-plug");
        Assert.Contains("engine is running", _hand.No(new CorrectReading(plug.Seq, Nm(12), "Read the wrong line")));
        // A stop that is seen just then keeps nobody from switching it off.
        _hand.Do(new NoteFinding(start, FindingGrade.Stop, "It knocks"));
        _hand.Do(new LightStaysOn(start));
        Assert.False(_hand.Card.EngineRuns);
    }

    [Fact]
    public void What_was_taken_back_never_ran()
    {
        var start = Start();
        _hand.Do(new EngineRunsNow(start));
        _hand.Do(new TakeBack(_hand.Card.LastPressOf(Iona.Id)!.Seq));
        Assert.False(_hand.Card.EngineRuns);
        Assert.Null(Starting.Of(_hand.Card, _hand.Card.Step(start)!).CaughtAt);
    }

    [Fact]
    public void After_a_leak_it_is_started_and_watched_anew()
    {
        var start = Start();
        var look = _hand.UpTo(s => s.Kind == StepKind.Look);
        _hand.Do(new ReportLeak(look.Id, "engine-drain-plug"));
        _hand.UpTo(s => s.Kind == StepKind.Run);
        Assert.Equal((0, null), (Starting.Of(_hand.Card, _hand.Card.Step(start)!).Stayed,
            Starting.Of(_hand.Card, _hand.Card.Step(start)!).CaughtAt));
        _hand.Do(new EngineRunsNow(start));
    }

    [Fact]
    public void An_engine_that_starts_by_itself_is_made_to_run_move_by_move()
    {
        var start = Start("lumen-ardent");
        Assert.Contains("comes first", _hand.No(new EngineRunsNow(start)));
        foreach (var move in StartSpec.Of(_hand.Card.Step(start)!).Moves)
        {
            Assert.Equal(move, Starting.Of(_hand.Card, _hand.Card.Step(start)!).Next);
            _hand.Do(new MakeStartMove(start));
        }
        Assert.Contains("All the moves were made", _hand.No(new MakeStartMove(start)));
        _hand.Do(new EngineRunsNow(start));
        _hand.Do(new LightStaysOn(start));
        _hand.Do(new LookIntoLight(start, "Level was right"));
        // It has to be made to run anew.
        Assert.Contains("comes first", _hand.No(new EngineRunsNow(start)));
    }

    [Fact]
    public void A_job_given_up_while_the_light_is_watched_still_has_the_engine_switched_off()
    {
        var start = Start();
        _hand.Do(new EngineRunsNow(start));
        _hand.Do(new DropJob("engine-oil-and-filter", "It knocks"));
        while (_hand.Card.Next is { } next)
            if (_hand.Say(Rehearsal.UsualPress.Of(_hand.Card, next)) is not Accepted)
                _hand.Now += TimeSpan.FromHours(1);
        Assert.False(_hand.Card.EngineRuns);
        Assert.DoesNotContain(_hand.Card.Open, o => o.Kind is OpenKind.Engine or OpenKind.Fastener);
    }

    [Theory]
    [InlineData("\"light\": \"5 s\"", "\"light\": \"5 min\"", "steps.start.start.light")]
    [InlineData("\"light\": \"5 s\"", "\"light\": \"soon\"", "steps.start.start.light")]
    [InlineData("\"name\": \"Glow coil\", ", "", "steps.start.start.stays[0].name")]
    public void A_start_with_a_fault_is_refused(string old, string now, string field)
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "tarn-courier-20d.json"));
        Assert.Contains(old, text, StringComparison.Ordinal);
        Assert.Contains(SheetReader.Read(text.Replace(old, now, StringComparison.Ordinal)).Errors, e => $"{e.Field}" == field);
    }
}
