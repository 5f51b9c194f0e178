using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>
/// From every state there is a way on: steps left for later, jobs given up, cards made void, presses taken back, kits that lacked
/// something.
/// </summary>
public class NeverStuckTests
{
    private readonly Workbench _bench = new();

    private JobCard Card => _bench.Card;

    [Theory]
    [InlineData("corran-fen-12")]
    [InlineData("hespin-16")]
    public void Rotating_the_tyres_alone_needs_no_kit_and_ends_in_a_signature(string sheet)
    {
        var card = On(sheet, "tyre-rotation");
        Assert.DoesNotContain(card.Steps, s => s.Kind == StepKind.Kit);
        Assert.Null(CardWalk.Refused(ComposerTests.Sheets[sheet], ["tyre-rotation"]));
    }

    [Fact]
    public void What_is_left_for_later_takes_what_depends_on_it_along()
    {
        _bench.WorkUpTo("fit-washer");
        _bench.Do(new PutAside("fit-washer", "The washer rolled away"));
        // Tightening, washing and lowering wait with it; what is next can be done, or is the step itself.
        Assert.True(Card.Next!.Id == "fit-washer" || Card.InTheWay(Card.Next, _bench.Now.AddHours(1)).Count == 0);
        Assert.NotEqual("tighten-drain-plug", Card.Next.Id);
        _bench.WorkUpTo();
        _bench.Do(new Sign());
    }

    [Fact]
    public void Before_the_lift_moves_what_was_left_for_later_up_there_is_named_once_more()
    {
        var hand = new CardAtHand(On("hespin-16", "wear-check"));
        var hoses = hand.UpTo(s => s.Id == "brake-hoses");
        Assert.Empty(hand.Card.LeftBehind(hoses, hand.Now));
        hand.Do(new PutAside(hoses.Id, "The lamp is flat"));
        Assert.Empty(hand.Card.LeftBehind(hand.Card.Next!, hand.Now));
        foreach (var kind in new[] { StepKind.Clear, StepKind.Lower })
        {
            var move = hand.UpTo(s => s.Kind == kind);
            Assert.Equal([hoses.Id], hand.Card.LeftBehind(move, hand.Now).Select(s => s.Id));
        }
        // On the ground it cannot be done, and is not offered there.
        hand.UpTo(_ => !hand.Card.LiftUp);
        Assert.All(hand.Card.Steps, s => Assert.Empty(hand.Card.LeftBehind(s, hand.Now)));
    }

    [Fact]
    public void After_a_leak_the_lift_comes_down_before_the_engine_is_offered()
    {
        _bench.WorkUpTo("look-at-joints");
        Assert.True(Card.LiftUp);
        _bench.Do(new ReportLeak("look-at-joints", "engine-drain-plug"));
        var before = "";
        for (var presses = 0; Card.Next is { } next && next.Id != "undertray-on" && presses < 30; presses++)
        {
            Assert.False(next.Id == "start" && Card.LiftUp, $"offered to start while up, after {before}");
            before = next.Id.Text;
            _bench.WorkUpTo(Card.Steps.SkipWhile(s => s.Id != next.Id).Skip(1).FirstOrDefault(s =>
                Card.State(s.Id).Status == StepStatus.Waiting)?.Id);
        }
        _bench.WorkUpTo();
        _bench.Do(new Sign());
    }

    [Fact]
    public void A_job_given_up_is_closed_and_the_rest_goes_on()
    {
        var card = On("ostler-brae-28d", "gearbox-oil", "air-filter");
        (card, var now) = Walk(card, "drain-gearbox-oil");
        var skid = card.Open.Single(o => o.Id == "rear-skid-plate");
        card = Given(card, new DropJob("gearbox-oil", "Drain plug is seized"), now);
        Assert.Equal(["air-filter"], card.Jobs);
        Assert.DoesNotContain(card.Steps, s => s.Kind == StepKind.Drain);
        Assert.Contains(card.Remaining, s => s.What == skid.Id && s.Kind == StepKind.Close);
        Assert.Contains(card.Remaining, s => s.What == "gearbox-fill-plug" && s.Kind == StepKind.Tighten);
        (card, now) = Walk(card, null);
        Assert.Empty(card.Open);
        card = Given(card, new Sign(), now);
        Assert.Equal(["air-filter"], ((Signed)card.Signature!.Event).Due.Select(d => d.Job));
        Assert.Equal(["air-filter"], card.JobsDone);
        Assert.Equal("Drain plug is seized", card.Dropped.Single().Event.Reason);
    }

    [Fact]
    public void An_oil_that_is_out_goes_back_in_even_when_its_job_is_given_up()
    {
        _bench.WorkUpTo("look-at-plug");
        _bench.Do(new DropJob("engine-oil-and-filter", "Called away"));
        Assert.Contains(Card.Remaining, s => s.Kind == StepKind.Pour);
        Assert.Contains(_bench.Refusals(new Sign()), r => r.What.Contains("Engine oil"));
        Assert.DoesNotContain(Card.Open, o => o.Kind == OpenKind.Indicator);
        _bench.WorkUpTo();
        _bench.Do(new Sign());
        Assert.Empty(((Signed)Card.Signature!.Event).Due);
    }

    [Fact]
    public void Giving_up_brakes_half_way_needs_the_lead_before_the_card_is_signed()
    {
        var card = On("corran-fen-12", "brake-fluid", "cabin-filter");
        (card, var now) = Walk(card, "bleed-rear-left");
        card = Given(card, new DropJob("brake-fluid", "Nipple is rounded"), now);
        (card, now) = Walk(card, null);
        Assert.NotEmpty(card.Holds);
        var refused = Assert.IsType<Refused>(card.Decide(new Sign(), Iona, now));
        Assert.Contains(refused.Reasons, r => r.What.Contains("needs a second name"));
        Assert.IsType<Refused>(card.Decide(new Countersign(card.WantingCountersignature.Single()), Tavish, now));
        card = Given(card, new Countersign(card.WantingCountersignature.Single()), now, Una);
        card = Given(card, new Sign(), now);
        Assert.Equal(["cabin-filter"], card.JobsDone);
    }

    [Fact]
    public void A_card_on_which_nothing_was_opened_can_be_made_void_with_a_reason()
    {
        Assert.Equal("reason", _bench.Refusals(new VoidCard(" "))[0].Field);
        _bench.Do(FullKit());
        _bench.Do(new ConfirmStep("set-chocks"));
        Assert.Contains("Wheel chocks: still open", _bench.Refusals(new VoidCard("Ferry sails early"))[0].What);
        _bench.Do(new TakeBack(Card.History[^1].Seq));
        _bench.Do(new VoidCard("Ferry sails early"));
        _bench.Do(new Countersign(Card.ToVoid!.Seq), Una);
        Assert.Contains("void by Una B.", _bench.Refusals(new ConfirmStep("set-chocks"))[0].What);
        Assert.Null(Card.Signature);
        var worked = new Workbench();
        worked.WorkUpTo();
        Assert.Contains("opened or changed", worked.Refusals(new VoidCard("No"))[0].What);
    }

    [Fact]
    public void Several_presses_are_taken_back_one_after_the_other_until_somebody_went_on_from_them()
    {
        _bench.WorkUpTo("tighten-drain-plug");
        _bench.Do(new TakeReading("tighten-drain-plug", Nm(38)));
        Assert.DoesNotContain(Card.Open, o => o.Id == "engine-drain-plug");
        _bench.Do(new TakeBack(Card.LastPressOf(Iona.Id)!.Seq));
        Assert.Contains(Card.Open, o => o.Id == "engine-drain-plug");
        _bench.Do(new TakeBack(Card.LastPressOf(Iona.Id)!.Seq));
        Assert.Equal("fit-washer", Card.Next!.Id);
        _bench.Do(new ConfirmStep("fit-washer"));
        _bench.Do(new TakeReading("tighten-drain-plug", Nm(38)), Tavish);
        Assert.Contains("Tavish M. went on from it", _bench.Refusals(new TakeBack(Card.LastPressOf(Iona.Id)!.Seq))[0].What);
    }

    [Fact]
    public void A_level_tapped_by_mistake_is_taken_back()
    {
        _bench.WorkUpTo("level");
        _bench.Wait(30);
        _bench.Do(new ReadGauge("level", new(1.6m), true));
        Assert.Equal(FillVerdict.TakeOut, Card.FillOf("engine-oil").After(Card.Fluid("engine-oil").Level!.Value).Verdict);
        _bench.Do(new TakeBack(Card.LastPressOf(Iona.Id)!.Seq));
        Assert.Null(Card.Fluid("engine-oil").Level);
        _bench.Do(new ReadGauge("level", new(0.75m)));
    }

    [Fact]
    public void What_another_person_put_a_name_to_is_not_taken_back()
    {
        _bench.WorkUpTo("tighten-drain-plug");
        _bench.Do(new Deviate("tighten-drain-plug", DeviationKind.NoReading, "Wrench is lent"));
        var seq = Card.WantingCountersignature.Single();
        _bench.Do(new Countersign(seq), Una);
        Assert.Contains("put a name to this", _bench.Refusals(new TakeBack(seq))[0].What);
    }

    [Fact]
    public void What_the_kit_lacked_is_fetched_while_the_plug_is_out()
    {
        _bench.WorkUpTo("fit-washer");
        _bench.Do(FullKit(12, 9));
        Assert.Equal(L(9), Card.OilInHand("engine-oil")!.Amount);
        // What is fitted stays as it was laid out, whatever is said of it now.
        var again = _bench.Refusals(FullKit() with { Parts =
            new Dictionary<PartId, KitPart> { ["drain-washer"] = new(KitChoice.Missing) } });
        Assert.Equal(["parts.drain-washer"], again.Select(r => r.Field));
        Assert.Equal(StepStatus.Done, Card.State("lay-out-kit").Status);
    }

    [Fact]
    public void An_oil_that_is_poured_is_not_turned_into_another_one()
    {
        _bench.WorkUpTo("filler-cap-on");
        Assert.Contains("Some of Gannet Lowash 5W-30 is in already",
            _bench.Refusals(FullKit() with { Oils = EngineOil(9, "Fulmar Road 5W-40", "It was at hand") })[0].What);
        _bench.Do(FullKit() with { Oils = EngineOil(9, "gannet lowash 5w30 + Gannet Lowash 5W-30") });
    }

    [Theory]
    [InlineData("engine")]
    [InlineData("lift")]
    public void An_access_may_be_called_what_it_likes(string id)
    {
        var text = SheetText.Replace("\"undertray\"", $"\"{id}\"");
        var reading = SheetRehearsal.Read(System.Text.Encoding.UTF8.GetBytes(text));
        Assert.True(reading.Sheet is not null, string.Join("; ", reading.Errors.Take(3)));
    }

    [Fact]
    public void Two_things_of_one_id_are_refused_by_the_check()
    {
        var text = SheetText.Replace("\"glove-box\": { \"name\"", "\"engine-oil\": { \"name\"").Replace("\"needs\": [\"glove-box\"]",
            "\"needs\": [\"engine-oil\"]");
        Assert.Contains(SheetReader.Read(text).Errors, e => e.What.Contains("engine-oil") && e.What.Contains("another table"));
    }

    private static (JobCard Card, DateTimeOffset Now) Walk(JobCard card, string? stop)
    {
        var now = card.History[^1].At;
        while (card.Next is { } step && step.Id != stop)
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
        var accepted = (Accepted)decision;
        var (seq, id) = (card.History.Count, Guid.NewGuid());
        return card.With([.. accepted.Events.Select(e => new Recorded(++seq, now, by ?? Iona, id, e))]);
    }
}
