using Anakyklos.Core.Cards;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using CsCheck;
using Xunit;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>A group of fasteners at the lift: its order, its passes, the wrench in the hand, and what is put right.</summary>
public sealed class FasteningTests
{
    private const string Cover = "tighten-primary-cover";

    private JobCard _card = On("maelor-ridge-900", "primary-oil");
    private DateTimeOffset _now = new(2026, 1, 5, 8, 0, 0, TimeSpan.Zero);

    private CardFacts _facts = UsualPress.Facts(ComposerTests.Sheets["maelor-ridge-900"]) with
    {
        Shelf = UsualPress.Facts(ComposerTests.Sheets["maelor-ridge-900"]).Shelf with
        {
            Wrenches = [new(Wrench("TW-2", 5, 60, 1, 260), new(2026, 12, 31)), new(Wrench("TW-1", 4, 25, 0.5m, null), new(2026, 1, 4)),
                new(Wrench("TW-5", 5, 100, 1, null), new(2026, 1, 5))],
        },
    };

    private static TorqueWrench Wrench(string name, decimal low, decimal high, decimal step, decimal? lever) => new(name, Nm(low).Value,
        Nm(high).Value, Nm(step).Value, Torque.NewtonMetre, 4, lever is { } mm ? Quantity<Length>.Of(mm, Length.Millimetre) : null);

    private Fastening Now => Fastening.Of(_card, _card.Step(Cover)!);

    private Decision Try(CardCommand command)
    {
        var decision = _card.Decide(command, Iona, _now, _facts);
        if (decision is Accepted accepted)
            _card = _card.Taking(accepted, Guid.NewGuid(), Iona, _now).Card;
        return decision;
    }

    private void Do(CardCommand command) =>
        Assert.True(Try(command) is Accepted, $"{command}: {Describe(_card.Decide(command, Iona, _now, _facts))}");

    private string Refused(CardCommand command) => Describe(Assert.IsType<Refused>(Try(command)));

    private void UpTo(StepId? stop)
    {
        while (_card.Next is { } step && step.Id != stop)
        {
            _now += TimeSpan.FromMinutes(70);
            Do(UsualPress.Of(_card, step));
        }
        // The wrenches are judged by the day.
        _now = new(2026, 1, 5, _now.Hour, _now.Minute, 0, TimeSpan.Zero);
    }

    public FasteningTests() => UpTo(Cover);

    private static DrawInOrder Up(int pass, int place, string wrench = "", decimal? setting = null) =>
        new(Cover, pass, place, wrench, setting is { } nm ? Nm(nm) : null);

    [Fact]
    public void All_go_in_by_hand_before_one_is_drawn_down_and_each_once_a_pass()
    {
        Assert.Contains("This pass has no torque", Refused(new TakeReading(Cover, Nm(5))));
        Assert.Contains("done in an order and in passes", Refused(new ConfirmStep(Cover)));
        Assert.Contains("Number 1 of pass 1 is next, and not done", Refused(Up(2, 1)));
        Assert.Contains("There is no number 7 in a pass 1", Refused(Up(1, 7)));
        Assert.Contains("No wrench is set for this pass", Refused(Up(1, 6, setting: 5)));
        Do(Up(1, 6));
        Assert.Contains("Number 3 of pass 1 is done", Refused(Up(1, 3)));
        Assert.Contains("needs a torque reading", Refused(new ConfirmStep(Cover)));
        Do(Up(2, 3, "TW-2", 5));
        Assert.Equal((4, 3), (Now.Next!.Place.Number, Now.InThisPass.Count));
        Assert.Contains("Number 4 of pass 2 is next, and not done", Refused(Up(3, 1)));
        Do(Up(2, 6));
        Do(new TakeReading(Cover, Nm(10.2m)));
        Assert.Equal(2, Now.Next!.Place.Number);
        Do(Up(3, 6, "TW-2", 10));
        Assert.Equal(StepStatus.Done, _card.State(Cover).Status);
        Assert.DoesNotContain(_card.Open, o => o.Id == "primary-cover");
        var line = Records.ServiceRecord.Of(_card).Tightened.Single(t => t.Name == "Primary inspection cover");
        Assert.Equal((6, null, "TW-2", 5), (line.Each!.Count, line.Each[0].Wrench, line.Each[1].Wrench, line.Each[1].Together));
        Assert.Equal(Nm(10.2m), line.Each[0].Reading);
    }

    // The property: whatever is said, what the card takes is the plan in its order.
    [Fact]
    public void Whatever_is_said_the_card_takes_them_in_their_order()
    {
        var (card, now, facts) = (_card, _now, _facts);
        Gen.Select(Gen.Int[1, 3], Gen.Int[1, 6], Gen.Bool).Array[1, 60].Sample(said =>
        {
            var (at, done) = (card, new List<(int, int)>());
            foreach (var (pass, place, reads) in said)
            {
                CardCommand command = reads ? new TakeReading(Cover, Nm(pass == 2 ? 5 : 10), true) : Up(pass, place);
                if (at.Decide(command, Iona, now, facts) is not Accepted accepted)
                    continue;
                at = at.Taking(accepted, Guid.Empty, Iona, now).Card;
                done.AddRange(accepted.Events.SelectMany(e => e switch
                {
                    ReadingTaken { Outcome: TorqueOutcome.Passes } r => r.Of.Select(p => (r.Pass, p)),
                    FastenersDrawn d => d.Places.Select(p => (d.Pass, p)),
                    _ => [],
                }));
                if (at.IsOverTorqued(Cover))
                {
                    var settled = (Accepted)at.Decide(new SettleOverTorque(Cover, "Slackened"), Iona, now, facts);
                    at = at.Taking(settled, Guid.Empty, Iona, now).Card;
                }
                if (at.State(Cover).Status == StepStatus.Done)
                    break;
            }
            var slots = at.Sheet.Fasteners["primary-cover"].Plan(false).Slots;
            Assert.Equal(slots.Take(done.Count).Select(s => (s.Pass, s.Place.Number)), done);
        }, 150);
    }

    [Fact]
    public void A_press_is_what_the_wrench_that_the_card_says_is_set_to_and_nothing_else()
    {
        Do(Up(1, 6));
        Assert.Contains("TW-2 is set to 5 N·m here, not to 6 N·m", Refused(Up(2, 6, "TW-2", 6)));
        Assert.Contains("The card says TW-2 here, not TW-5", Refused(Up(2, 6, "TW-5", 5)));
        Do(new TakeWrench(Cover, "TW-5"));
        Do(Up(2, 6, "TW-5", 5));
        var noted = Assert.IsType<ReadingTaken>(_card.History[^1].Event);
        Assert.Equal(("TW-5", 6, Nm(5)), (noted.Wrench, noted.Of.Count, noted.Reading));
        Assert.Contains("The tool crib has no TW-9", Refused(new TakeWrench(Cover, "TW-9")));
        Assert.Contains("The calibration of TW-1 is past", Refused(new TakeWrench(Cover, "TW-1")));
        Do(new TakeWrench(Cover, ""));
        _facts = _facts with { Shelf = Shelf.Empty };
        Assert.Contains("No wrench here that is in calibration can be set for 10 N·m", Refused(Up(3, 6)));
        Assert.Contains("Nobody knows in which unit 10 is", Refused(new TakeReading(Cover, new NumberSaid<Torque>(10, null))));
        Do(new TakeReading(Cover, Nm(10)));
    }

    [Fact]
    public void What_comes_through_a_crow_foot_is_judged_and_not_what_the_wrench_said()
    {
        Do(Up(1, 6));
        var length = new Typed<Length>(Quantity<Length>.Of(65, Length.Millimetre), Length.Millimetre);
        Assert.Contains("The lever of TW-5 is not known", Refused(new TakeWrench(Cover, "TW-5", length)));
        Assert.Contains("0 is straight on", Refused(new TakeWrench(Cover, "TW-2", length, 181)));
        // 65 beyond 260 makes five quarters: 8 N·m on the wrench is 10 at the screw, and 4 N·m is below its scale.
        Assert.Contains("TW-2 cannot be set for 5 N·m", Refused(new TakeWrench(Cover, "TW-2", length)));
        Do(Up(2, 6));
        Do(new TakeWrench(Cover, "TW-2", length));
        Do(Up(3, 1, "TW-2", 8));
        Assert.Equal(Nm(10), Assert.IsType<ReadingTaken>(_card.History[^1].Event).AtFastener);
        Do(new TakeReading(Cover, new NumberSaid<Torque>(8.8m, null)));
        Assert.Equal((Nm(11), TorqueOutcome.Passes), Read(_card.History[^1]));
        Do(new TakeReading(Cover, Nm(10)));
        Assert.Equal((Nm(12.5m), TorqueOutcome.TooMuch), Read(_card.History[^1]));

        static (Typed<Torque>, TorqueOutcome) Read(Recorded r) => (((ReadingTaken)r.Event).Reached, ((ReadingTaken)r.Event).Outcome);
    }

    [Fact]
    public void Too_little_stays_at_its_screw_and_too_much_stops_until_that_one_is_slackened()
    {
        Do(Up(1, 6));
        Do(Up(2, 6));
        Do(Up(3, 2));
        Do(new TakeReading(Cover, Nm(8), true));
        Assert.Equal((3, TorqueOutcome.TooLittle), (Now.Next!.Place.Number, _card.TorqueAt(_card.Step(Cover)!)!.Value.Outcome));
        Do(new TakeReading(Cover, Nm(12), true));
        Assert.Contains("tightened too far", Refused(Up(3, 6)));
        Do(new SettleOverTorque(Cover, "Slackened"));
        Assert.Equal(3, Now.Next!.Place.Number);
        Do(Up(3, 6));
        Assert.Equal(StepStatus.Done, _card.State(Cover).Status);
    }

    // Spark plugs in an alloy head: the lead looks at a thread that got too much, not at one that got more than the first torque.
    [Fact]
    public void Too_much_for_an_earlier_pass_alone_is_slackened_by_whoever_tightens()
    {
        const string plugs = "tighten-spark-plugs-in";
        _card = On("corran-fen-12", "spark-plugs");
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "corran-fen-12.json"))
            .Replace("\"passes\": [0, 100], \"oneByOne\": true", "\"passes\": [50, 100], \"oneByOne\": true");
        var sheet = SheetReader.Read(text).Sheet!;
        _card = CardWalk.Open(sheet, ["spark-plugs"], Planning.CardPlanner.Compose(sheet, ["spark-plugs"]));
        UpTo(plugs);
        Do(new TakeReading(plugs, Nm(18), true));
        Do(new SettleOverTorque(plugs, "Slackened"));
        for (var place = 1; place <= 4; place++)
            Do(new TakeReading(plugs, Nm(11), true));
        Do(new TakeReading(plugs, Nm(25), true));
        Assert.Contains("The workshop lead decides", Refused(new SettleOverTorque(plugs, "Slackened")));
    }

    [Fact]
    public void A_reading_that_is_put_right_opens_that_screw_alone()
    {
        Do(Up(1, 6));
        Do(Up(2, 6));
        for (var place = 1; place <= 6; place++)
            Do(new TakeReading(Cover, Nm(10)));
        Assert.Equal(6, _card.CanBePutRight.Count(h => h.Event is ReadingTaken r && r.Step == Cover));
        var fourth = _card.CanBePutRight.Single(h => h.Event is ReadingTaken r && r.Step == Cover && r.Of[0] == 4);
        Do(new CorrectReading(fourth.Seq, new(6, null), "Read it upside down"));
        Assert.Equal((StepStatus.Waiting, 4, 1), (_card.State(Cover).Status, Now.Next!.Place.Number, Now.InThisPass.Count));
        Assert.Contains(_card.Open, o => o.Id == "primary-cover");
        UpTo(null);
        Assert.Empty(_card.BeforeSigning());
    }

    [Fact]
    public void What_clicked_on_several_at_once_was_read_of_none_and_is_taken_back_instead()
    {
        Do(Up(1, 6));
        Do(Up(2, 6));
        Do(Up(3, 6));
        Assert.DoesNotContain(_card.CanBePutRight, h => h.Event is ReadingTaken r && r.Step == Cover);
        Do(new TakeBack(_card.LastPressOf("iona")!.Seq));
        Assert.Equal((StepStatus.Waiting, 6), (_card.State(Cover).Status, Now.InThisPass.Count));
    }

    [Fact]
    public void A_turn_after_a_torque_is_made_again_where_that_torque_was_wrong()
    {
        const string plugs = "tighten-spark-plugs-in";
        _card = On("skelling-tourer-1100", "spark-plugs");
        UpTo(plugs);
        foreach (var (pass, place) in new[] { (1, 1), (1, 2) })
            Do(new DrawInOrder(plugs, pass, place));
        Assert.Contains("Here each is said by itself", Refused(new DrawInOrder(plugs, 2, 2)));
        Do(new TakeReading(plugs, Nm(12)));
        Do(new TakeReading(plugs, Nm(12)));
        Assert.Contains("This pass has no torque", Refused(new TakeReading(plugs, Nm(12))));
        Do(new DrawInOrder(plugs, 3, 1));
        Do(new DrawInOrder(plugs, 3, 2));
        Assert.Equal(StepStatus.Done, _card.State(plugs).Status);
        var first = _card.CanBePutRight.First(h => h.Event is ReadingTaken);
        Do(new CorrectReading(first.Seq, Nm(7), "Read the wrong line"));
        var again = Fastening.Of(_card, _card.Step(plugs)!);
        Assert.Equal([(2, 1), (3, 1)], again.Plan.Slots.Where(s => !again.IsDone(s)).Select(s => (s.Pass, s.Place.Number)));
    }

    [Fact]
    public void Wheels_that_were_off_are_checked_again_after_the_first_kilometres_and_not_before_they_are_tight()
    {
        _card = On("corran-fen-12", "tyre-rotation", "wheel-recheck");
        _facts = UsualPress.Facts(_card.Sheet);
        UpTo("tighten-wheels");
        Assert.Contains("not tight yet", Refused(new DrawInOrder("recheck-wheels", 1, 4)));
        UpTo(null);
        _card = On("corran-fen-12", "tyre-rotation");
        UpTo(null);
        Do(new Sign());
        var due = Assert.IsType<Signed>(_card.History[^1].Event).Due;
        Assert.Equal(["tyre-rotation", "wheel-recheck"], due.Select(d => d.Job.Text));
        Assert.Equal((Km(10_050), null), (due[1].Next.At, due[1].Next.By));
    }

    [Theory]
    [InlineData("\"passes\": [0, 50, 100]", "\"passes\": [50, 30, 100]", "rise to 100")]
    [InlineData("\"passes\": [0, 50, 100]", "\"passes\": [0, 50]", "rise to 100")]
    [InlineData("\"passes\": [0, 50, 100]", "\"passes\": [0, 500]", "500 is not a whole number from 0 to 100")]
    [InlineData("\"order\": \"star\", \"places\"", "\"order\": \"star\", \"circle\": 6, \"places\"", "either a circle or the places")]
    [InlineData("\"lastOut\": [1]", "\"lastOut\": [7]", "There is no fastener of that number")]
    [InlineData("{\"x\": 50, \"y\": 94}", "{\"x\": 50, \"y\": 6}", "Two of them sit at the same place")]
    [InlineData("\"count\": 6,", "\"count\": 5,", "The group has 6 places, not 5")]
    [InlineData("{ \"is\": \"10 N·m\", \"low\": \"9 N·m\", \"high\": \"11 N·m\",", "{ \"stages\": [{\"turn\": 90}],",
        "two stages at least")]
    [InlineData("{ \"is\": \"10 N·m\", \"low\": \"9 N·m\", \"high\": \"11 N·m\",", "{ \"low\": \"11 N·m\", \"high\": \"9 N·m\",",
        "A range goes up")]
    public void A_group_that_cannot_be_is_said_with_its_line(string from, string to, string says)
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "maelor-ridge-900.json"));
        Assert.Contains(from, text);
        Assert.Contains(SheetReader.Read(text.Replace(from, to)).Errors, e => e.What.Contains(says) && e.Line > 0);
    }
}
