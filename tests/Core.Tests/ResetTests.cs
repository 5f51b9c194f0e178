using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Resetting;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>An indicator that is put out: what is held by the clock, what else the display may say, and the value that is typed
/// in.</summary>
public sealed class ResetTests
{
    private CardAtHand _hand = null!;

    private StepId Move(int number, string sheet = "tarn-courier-20d", Func<CardOpened, CardOpened>? with = null)
    {
        var opened = (CardOpened)On(sheet, "engine-oil-and-filter").History[0].Event;
        _hand = new(JobCard.Replay(ComposerTests.Sheets[sheet],
            [new(1, new(2026, 3, 9, 7, 0, 0, TimeSpan.Zero), Iona, Guid.NewGuid(), with?.Invoke(opened) ?? opened)]));
        var first = _hand.UpTo(s => s.Traits.PutsOut);
        var moves = Resetting.MovesOf(_hand.Card, first);
        return _hand.UpTo(s => s.Id == moves[number - 1].Id).Id;
    }

    private Resetting At(StepId move) => Resetting.Of(_hand.Card, _hand.Card.Step(move)!);

    private static Typed<Distance> Far(decimal km) => new(Km(km), Distance.Kilometre);

    // HD-07's accelerator is held for 10 s.
    [Fact]
    public void What_is_held_is_held_by_the_clock_and_pressing_early_says_so()
    {
        var move = Move(2);
        Assert.Contains("was not held for so long", _hand.No(new ConfirmStep(move)));
        _hand.Do(new HoldReset(move));
        _hand.Now += TimeSpan.FromSeconds(2.4);
        Assert.Equal("Held for 2 s of 10 s.", _hand.No(new ConfirmStep(move)));
        // Let go and pressed again: it counts from then.
        _hand.Do(new HoldReset(move));
        _hand.Now += TimeSpan.FromSeconds(9);
        Assert.Equal("Held for 9 s of 10 s.", _hand.No(new ConfirmStep(move)));
        _hand.Now += TimeSpan.FromSeconds(1);
        _hand.Do(new ConfirmStep(move));
        Assert.DoesNotContain(_hand.Card.Waits, w => w.Id == move);
    }

    [Fact]
    public void A_hold_that_was_cut_short_with_a_reason_held_nothing()
    {
        var move = Move(2);
        _hand.Do(new HoldReset(move));
        _hand.Do(new CutWait(move, "In a hurry"));
        Assert.Contains("was not held for so long", _hand.No(new ConfirmStep(move)));
        move = Move(1);
        Assert.Contains("Nothing is held or waited for here", _hand.No(new HoldReset(move)));
    }

    // HD-15's tool takes 8 s to write, and nobody's hands are on it.
    [Fact]
    public void What_only_takes_its_time_is_waited_for_and_not_held()
    {
        var move = Move(4, "maelor-ridge-900");
        Assert.Contains("was not waited for so long", _hand.No(new ConfirmStep(move)));
        _hand.Do(new HoldReset(move));
        Assert.Equal("Hands off", Assert.Single(_hand.Card.Waits, w => w.Id == move).For);
        _hand.Now += TimeSpan.FromSeconds(5);
        Assert.Equal("Waited 5 s of 8 s.", _hand.No(new ConfirmStep(move)));
        _hand.Now += TimeSpan.FromSeconds(3);
        _hand.Do(new ConfirmStep(move));
    }

    [Fact]
    public void A_tool_answers_in_its_own_time_and_only_where_one_is_waited_for()
    {
        var move = Move(4, "maelor-ridge-900");
        _hand.Do(new HoldReset(move));
        _hand.Do(_hand.Card.Hears(_hand.Card.Step(move)!, "done", "ST-1")!);
        Assert.Equal(new ResetAnswered(move, "DONE", "ST-1"), _hand.Card.History[^1].Event with { Frozen = null });
        Assert.DoesNotContain(_hand.Card.Waits, w => w.Id == move);
        Assert.True(_hand.Card.IsFromDevice(_hand.Card.History[^1]));
        // The last move is the key's.
        var last = _hand.Card.Next!;
        Assert.Null(_hand.Card.Hears(last, "8000 km", "ST-1"));
        Assert.Contains("No scan tool is waited for", _hand.No(new HearTool(last.Id, "8000 km", "ST-1")));
        move = Move(1);
        Assert.Null(_hand.Card.Hears(_hand.Card.Next!, "SERVICE NOW", "ST-1"));
        // Failed too often for a person it is too often for a tool.
        move = Move(1, "maelor-ridge-900");
        for (var times = 0; times < 3; times++)
            _hand.Do(new HearTool(move, "NO LINK", "ST-1"));
        Assert.Equal("It failed 3 times.", _hand.No(new HearTool(move, "LINK", "ST-1")));
    }

    [Fact]
    public void What_else_the_display_says_tells_where_it_begins_again()
    {
        // HD-04's menu: cancelled while holding, it is typed in again; all else begins at the first move.
        var move = Move(6, "hespin-16");
        _hand.Do(new HoldReset(move));
        _hand.Do(new FailReset(move, "cancel"));
        var failed = Assert.IsType<ResetFailed>(_hand.Card.History[^1].Event);
        Assert.Equal(("CANCEL", 4), (failed.Shows, failed.Again));
        Assert.Equal("reset-service-interval-4", _hand.Card.Next!.Id);
        Assert.DoesNotContain(_hand.Card.Waits, w => w.Id == move);
        _hand.Do(new FailReset("reset-service-interval-4", "Something nobody knows"));
        Assert.Equal(("Something nobody knows", 1), (((ResetFailed)_hand.Card.History[^1].Event).Shows,
            ((ResetFailed)_hand.Card.History[^1].Event).Again));
        Assert.Equal("reset-service-interval-1", _hand.Card.Next!.Id);
        Assert.Contains("characters long", _hand.No(new FailReset("reset-service-interval-1", new string('x', 61))));
    }

    [Fact]
    public void It_fails_only_so_often_before_somebody_looks_why()
    {
        var move = Move(1);
        for (var times = 1; times <= 3; times++)
        {
            Assert.Contains("tried again as it is", _hand.No(new LookIntoReset(move, "Door was open")));
            _hand.Do(new FailReset(move));
            Assert.Equal(times, At(move).Failed);
        }
        Assert.Equal("It failed 3 times.", _hand.No(new ConfirmStep(move)));
        Assert.Equal("What was found is missing.", _hand.No(new LookIntoReset(move, "")));
        _hand.Do(new LookIntoReset(move, "Door was open"));
        Assert.Equal(0, At(move).Failed);
        _hand.UpTo(_ => false);
        Assert.DoesNotContain(_hand.Card.Open, o => o.Kind == OpenKind.Indicator);
        Assert.Empty(_hand.Card.BeforeSigning());
    }

    [Fact]
    public void Left_lit_it_stays_with_the_vehicle_until_a_card_puts_it_out()
    {
        var move = Move(2);
        _hand.Do(new HoldReset(move));
        // While it is held it can be given up, too.
        _hand.Do(new Deviate(move, DeviationKind.StepLeftOut, "The pedal sensor is broken"));
        var lit = Assert.Single(_hand.Card.LitAfter(7));
        Assert.Equal((7, "service-indicator", "Service indicator", "The pedal sensor is broken"),
            ((int)lit.Card.Value, lit.Reset.Text, lit.Name, lit.Reason));
        var told = (CardOpened o) => o with { LeftLit = [lit] };
        move = Move(1, with: told);
        Assert.Equal("From card 7: Service indicator left lit, The pedal sensor is broken",
            Assert.Single(_hand.Card.Standing(_hand.Now).Strange, x => x.Says.StartsWith("From", StringComparison.Ordinal)).Says);
        Assert.Equal(lit, Assert.Single(_hand.Card.LitAfter(8)));
        _hand.UpTo(_ => false);
        Assert.Empty(_hand.Card.LitAfter(8));
        // Left once more, the newer card is named.
        move = Move(1, with: told);
        _hand.Do(new Deviate(move, DeviationKind.StepLeftOut, "Still broken"));
        Assert.Equal((8, "Still broken"), ((int)Assert.Single(_hand.Card.LitAfter(8)).Card.Value, _hand.Card.LitAfter(8)[0].Reason));
    }

    // HD-04 in harsh use: the maker's 15,000 km and 6 months; its display takes steps of 1,000 km, 30,000 at the most.
    [Theory]
    [InlineData(Use.Harsh, null, null, 15_000, 6, RuleOf.Maker)]
    [InlineData(Use.Harsh, 8_000, null, 8_000, 6, RuleOf.Owner)]
    [InlineData(Use.Harsh, 7_999, 5, 7_000, 5, RuleOf.Owner)]
    [InlineData(Use.Harsh, 20_000, 9, 15_000, 6, RuleOf.Maker)]
    [InlineData(Use.Normal, null, null, 30_000, 12, RuleOf.Maker)]
    [InlineData(Use.Harsh, 400, null, 1_000, 6, RuleOf.Owner)]
    public void The_value_is_the_shortest_rule_rounded_to_the_safe_side(Use use, int? owner, int? months, int km, int typed, RuleOf of)
    {
        var move = Move(4, "hespin-16", o => o with
        {
            Use = use, OwnRules = owner is null ? null : [new("engine-oil-and-filter", new(Km(owner.Value), months), RuleOf.Owner)],
        });
        Assert.Equal(Far(km), At(move).Expected!.Distance);
        Assert.Equal(of, DueAfterReset.Of(_hand.Card, "service-interval").DistanceOf);
        _hand.Do(new ConfirmStep(move));
        Assert.Equal(new ResetShown(move, Far(km), null), _hand.Card.History[^1].Event with { Frozen = null });
        Assert.Equal(typed, At("reset-service-interval-5").Expected!.Months);
        // What was typed is what it must count from in the end.
        Assert.Equal(Far(km), At("reset-service-interval-7").Expected!.Distance);
    }

    [Fact]
    public void A_display_that_counts_further_than_the_rules_is_noted_and_the_label_counts()
    {
        // HD-07's display knows 20,000 km alone; in harsh use it is due after 10,000.
        var move = Move(5, with: o => o with { Use = Use.Harsh });
        _hand.Do(new HoldReset(move));
        _hand.Now += TimeSpan.FromSeconds(15);
        _hand.Do(new ConfirmStep(move));
        Assert.Equal((FindingGrade.KeepAnEye,
            "The display counts 20000 km to the next service; it is due after 10000 km by the maker's interval. The label counts"),
            (_hand.Card.Findings[^1].Event.Grade, _hand.Card.Findings[^1].Event.Text));
        // In normal use both are the same, and a display that counts less is on the safe side.
        foreach (var shown in new[] { 20_000, 12_000 })
        {
            move = Move(5, with: o => o with { Use = Use.Normal });
            _hand.Do(new HoldReset(move));
            _hand.Now += TimeSpan.FromSeconds(15);
            _hand.Do(new ShowReset(move, Far(shown), null));
            Assert.Empty(_hand.Card.Findings);
            Assert.DoesNotContain(_hand.Card.Open, o => o.Kind == OpenKind.Indicator);
        }
    }

    [Fact]
    public void What_cannot_be_shown_is_refused_beside_its_field()
    {
        var move = Move(4, "hespin-16");
        foreach (var (far, months) in new (Typed<Distance>?, int?)[] { (Far(0), null), (Far(200_000), null), (null, 6), (Far(8000), 6),
            (null, null) })
            Assert.Equal("distance", Assert.IsType<Refused>(_hand.Say(new ShowReset(move, far, months))).Reasons[0].Field);
        _hand.Do(new ShowReset(move, Far(9_000), null));
        foreach (var months in new int?[] { null, 0, 121 })
            Assert.Equal("months",
                Assert.IsType<Refused>(_hand.Say(new ShowReset("reset-service-interval-5", null, months))).Reasons[0].Field);
        move = Move(1, "hespin-16");
        Assert.Contains("Nothing of the next service", _hand.No(new ShowReset(move, Far(1), null)));
    }

    [Fact]
    public void What_was_seen_halves_what_is_typed()
    {
        // A glitter of metal: the next oil is due after half of 30,000 km and 12 months.
        _hand = new(On("hespin-16", "engine-oil-and-filter"));
        var read = _hand.UpTo(s => s.Kind == StepKind.Read);
        _hand.Do(new Coaches.Reading.See(read.Id, new(_hand.Card.ToLookAt(read)[0], Looks.Appearance.Glitter)));
        var due = DueAfterReset.Of(_hand.Card, "service-interval");
        Assert.Equal((Km(15_000), RuleOf.Wear, 6), (due.Distance, due.DistanceOf, due.Months));
    }

    [Fact]
    public void What_was_written_before_holds_were_timed_reads_as_it_did()
    {
        var old = Assert.IsType<ResetFailed>(CardJson.Read("""{"event":"ResetFailed","step":"reset-4"}"""));
        Assert.Equal(("reset-4", null, 0), (old.Step.Text, old.Shows, old.Again));
        Assert.Equal("""{"event":"ResetFailed","step":"reset-4"}""", CardJson.Write(old));
    }

    [Theory]
    [InlineData("\"next\": {\"distance\": \"20000 km\"}", "\"next\": {\"distance\": \"far\"}", "resets.service-indicator.next.distance")]
    [InlineData("\"fails\": 3", "\"fails\": 0", "resets.service-indicator.fails")]
    [InlineData("\"fails\": 3", "\"againAt\": 6", "resets.service-indicator.againAt")]
    [InlineData("\"by\": \"pedals\"", "\"by\": \"magic\"", "resets.service-indicator.by")]
    [InlineData("\"shows\": \"distance\"", "\"types\": \"distance\"", "resets.service-indicator.types")]
    public void A_ritual_with_a_fault_is_refused(string old, string now, string field)
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "tarn-courier-20d.json"));
        Assert.Contains(old, text, StringComparison.Ordinal);
        Assert.Contains(SheetReader.Read(text.Replace(old, now, StringComparison.Ordinal)).Errors, e => $"{e.Field}" == field);
    }
}
