using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Records;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Tightening;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>The record of a card, line by line, held against what was said at the bench.</summary>
public sealed class RecordTests
{
    private readonly Workbench _bench = new();

    private ServiceRecord Record => ServiceRecord.Of(_bench.Card);

    private TightenedLine Tightened(string name) => Assert.Single(Record.Tightened, t => t.Name == name);

    [Fact]
    public void An_open_card_says_not_yet_of_everything()
    {
        Assert.All(Record.Tightened, t => Assert.Equal((RecordState.NotYet, null), (t.State, t.Reading)));
        Assert.All(Record.Fitted, f => Assert.Equal((RecordState.NotYet, ""), (f.State, f.Number)));
        Assert.All(Record.Filled, f => Assert.Equal(("", L(0)), (f.Product, f.In)));
        Assert.Empty(Record.Due);
    }

    [Fact]
    public void What_is_turned_after_contact_is_asked_as_a_turn_and_not_as_a_torque()
    {
        var line = Assert.Single(ServiceRecord.Of(On("corran-fen-12", "engine-oil-and-filter")).Tightened, t => t.Name == "Oil filter");
        Assert.Equal((null, "180° after contact"), (line.Book, line.Asks.InWords));
    }

    [Fact]
    public void The_reading_that_holds_stands_on_it_not_one_that_failed_or_was_put_right()
    {
        _bench.WorkUpTo("tighten-drain-plug");
        _bench.Do(new TakeReading("tighten-drain-plug", Nm(20), true));
        Assert.Null(Tightened("Engine drain plug").Reading);
        _bench.Do(new TakeReading("tighten-drain-plug", Nm(37)));
        Assert.Equal((Nm(37), TorqueOutcome.Passes, RecordState.Done),
            (Tightened("Engine drain plug").Reading, Tightened("Engine drain plug").Outcome, Tightened("Engine drain plug").State));
        var seq = _bench.Card.History.Last(h => h.Event is ReadingTaken).Seq;
        _bench.Do(new CorrectReading(seq, Nm(39), "Misread the scale"));
        Assert.Equal(Nm(39), Tightened("Engine drain plug").Reading);
        var book = Tightened("Engine drain plug").Book!;
        Assert.Equal(("38 N·m", "35 N·m", "41 N·m"), ($"{book.Target}", $"{book.Low}", $"{book.High}"));
    }

    [Fact]
    public void A_press_that_was_taken_back_leaves_no_line()
    {
        _bench.WorkUpTo("tighten-drain-plug");
        _bench.Do(new TakeReading("tighten-drain-plug", Nm(37)));
        _bench.Do(new TakeBack(_bench.Card.LastPressOf(Iona.Id)!.Seq));
        Assert.Equal((null, RecordState.NotYet), (Tightened("Engine drain plug").Reading, Tightened("Engine drain plug").State));
    }

    [Fact]
    public void A_part_is_in_its_place_when_its_step_is_done_and_an_old_seal_is_called_so()
    {
        _bench.Do(FullKit() with
        {
            Parts = Courier.Parts.Keys.ToDictionary(id => id, id => id == "drain-washer"
                ? new KitPart(KitChoice.OldAgain, "", "The box is empty") : new KitPart(KitChoice.InHand)),
        });
        Assert.All(Record.Fitted, f => Assert.Equal(RecordState.NotYet, f.State));
        Assert.True(Assert.Single(Record.Fitted, f => f.OldAgain) is { Number: "" });
        var strayed = Assert.Single(Record.Strayed);
        Assert.Equal(("The box is empty", "Iona R.", null, false),
            (strayed.Reason, strayed.By.Name, strayed.SecondName, strayed.NeedsSecondName));
    }

    [Theory]
    [InlineData(KitChoice.OldAgain, "old", "Old")]
    [InlineData(KitChoice.InHand, "new", "New")]
    public void A_washer_that_went_back_is_not_called_new(KitChoice washer, string called, string first)
    {
        _bench.WorkUpTo("lay-out-kit");
        _bench.Do(FullKit() with
        {
            Parts = Courier.Parts.Keys.ToDictionary(id => id, id => id == "drain-washer" && washer == KitChoice.OldAgain
                ? new KitPart(washer, "", "The box is empty") : new KitPart(KitChoice.InHand)),
        });
        var card = _bench.Card;
        string Title(StepId step) => card.TitleOf(card.Step(step)!);
        Assert.Equal($"Wipe the sealing face, {called} washer on the plug", Title("fit-washer"));
        Assert.Equal($"Tighten the engine drain plug onto its {called} washer", Title("tighten-drain-plug"));
        Assert.Equal($"{first} washer on", card.TitleOf(card.Step("fit-washer")! with { Title = "New washer on" }));
        // What else is new stays so called.
        Assert.All(card.Steps.Where(s => s.What != "drain-washer" && s.What != "engine-drain-plug"),
            s => Assert.Equal(s.Title, card.TitleOf(s)));
        Assert.Equal("gone", card.TitleOf((StepId)"gone"));
    }

    [Fact]
    public void A_signed_card_says_when_each_job_falls_due_and_what_went_in()
    {
        _bench.WorkUpTo();
        _bench.Do(new Sign());
        var oil = Assert.Single(Record.Filled);
        Assert.Equal(("Gannet Lowash 5W-30", TargetSchool.ThreeQuarters), (oil.Product, oil.School));
        Assert.Equal(_bench.Card.Fluid("engine-oil").Poured, oil.In);
        Assert.Equal(new Level(0.75m), oil.Level);
        Assert.Equal("engine-oil-and-filter", Assert.Single(Record.Due).Job);
        Assert.All(Record.Fitted, f => Assert.Equal(RecordState.Done, f.State));
        Assert.All(Record.Tightened, t => Assert.Equal(RecordState.Done, t.State));
    }

    // From the bottom mark to three quarters are 1.05 L, more than half of the 1.4 between the marks.
    [Theory]
    [InlineData(PourStages.InOne, 1.05, true)]
    [InlineData(PourStages.ByHalves, 0.70, false)]
    public void That_it_was_topped_up_in_one_stands_on_it_where_it_was(PourStages stages, double first, bool inOne)
    {
        var bench = new Workbench(stages: stages);
        bench.WorkUpTo("level");
        bench.Do(new ReadGauge("level", new(0)));
        Assert.Equal(L((decimal)first), bench.Card.FillOf("engine-oil").After(new(0)).Amount);
        bench.Do(UsualPress.Of(bench.Card, bench.Card.Step("level")!));
        bench.Wait(5);
        bench.Do(new ReadGauge("level", new(0.75m)));
        bench.WorkUpTo();
        Assert.Equal(inOne, Assert.Single(ServiceRecord.Of(bench.Card).Filled).IsInOne);
    }

    [Fact]
    public void Checks_and_bleed_screws_stand_on_it_with_their_readings_and_a_level_by_no_marks_names_no_school()
    {
        var card = Walked("corran-fen-12", "brake-fluid");
        var screws = ServiceRecord.Of(card).Tightened.Where(t => t.Name.StartsWith("Bleed screw", StringComparison.Ordinal)).ToList();
        Assert.Equal(4, screws.Count);
        Assert.All(screws, s => Assert.Equal((Nm(9), TorqueOutcome.Passes, false), (s.Reading, s.Outcome, s.IsCheck)));
        Assert.Null(Assert.Single(ServiceRecord.Of(card).Filled).School);
        Assert.Equal(RecordState.Done, Assert.Single(ServiceRecord.Of(card).Fitted).State);
        var first = Walked("lumen-ardent", "first-check");
        Assert.Contains(ServiceRecord.Of(first).Tightened, t => t is { Name: "Wheel nuts", IsCheck: true, Outcome: TorqueOutcome.Passes });
    }

    [Fact]
    public void It_is_written_as_json_with_its_units()
    {
        _bench.WorkUpTo("tighten-drain-plug");
        _bench.Do(new TakeReading("tighten-drain-plug", Nm(37)));
        var json = JsonSerializer.SerializeToElement(Record, CardJson.Options);
        var plug = json.GetProperty("tightened").EnumerateArray().Single(t => t.GetProperty("name").GetString() == "Engine drain plug");
        Assert.Equal(("37 N·m", "passes", "done"), (plug.GetProperty("reading").GetString(), plug.GetProperty("outcome").GetString(),
            plug.GetProperty("state").GetString()));
    }

    private static JobCard Walked(string sheet, params JobId[] jobs)
    {
        var (card, now) = (On(sheet, jobs), new DateTimeOffset(2026, 3, 9, 8, 0, 0, TimeSpan.Zero));
        for (var presses = 0; card.Next is { } next && presses < 400; presses++)
        {
            if (card.Decide(UsualPress.Of(card, next), Iona, now, UsualPress.Facts(card.Sheet)) is Accepted accepted)
            {
                var seq = card.History.Count;
                card = card.With([.. accepted.Events.Select(e => new Recorded(++seq, now, Iona, Guid.NewGuid(), e))]);
            }
            now += TimeSpan.FromMinutes(10);
        }
        Assert.Null(card.Next);
        return card;
    }
}
