using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Due;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>What may be said to a card whatever the step: words, amounts, waits, parts, the lift, findings, and its end.</summary>
public sealed class KernelTests
{
    private static readonly Person Stores = new("sol", "Sol T.", Role.Stores);

    private readonly Workbench _bench = new();

    private JobCard Card => _bench.Card;

    private Refusal Only(CardCommand command, Person? by = null) => Assert.Single(_bench.Refusals(command, by));

    [Theory]
    [InlineData("", "The reason is missing.")]
    [InlineData("   ", "The reason is missing.")]
    [InlineData(" x ", "“x” says nothing.")]
    public void A_reason_has_words(string reason, string says) =>
        Assert.Equal((says, "reason"), (Only(new PutAside("warm-up", reason)).What, Only(new PutAside("warm-up", reason)).Field));

    [Fact]
    public void A_reason_may_be_two_signs_and_four_hundred_and_no_more()
    {
        Assert.Equal("The reason is 401 characters long.", Only(new PutAside("warm-up", new string('a', 401))).What);
        _bench.Do(new PutAside("warm-up", "no"));
        _bench.Do(new NoteFinding("warm-up", FindingGrade.PlanIt, new string('b', 400)));
    }

    [Fact]
    public void A_step_that_is_not_there_is_named_in_short()
    {
        Assert.Equal($"There is no step “{new string('s', 60)}” that this can be done to.",
            Only(new ConfirmStep(new string('s', 60))).What);
        Assert.Equal($"There is no step “{new string('s', 60)}” that this can be done to.",
            Only(new ConfirmStep(new string('s', 61))).What);
        Assert.Contains("no step", Only(new PutAside("no-such", "Later")).What);
        Assert.Contains("no step", Only(new NoteFinding("no-such", FindingGrade.PlanIt, "Rust")).What);
        _bench.Do(new ConfirmStep("warm-up"));
        Assert.Contains("no step", Only(new PutAside("warm-up", "Later")).What);
        _bench.Do(new NoteFinding("warm-up", FindingGrade.PlanIt, "Rattles when cold"));
        Assert.Equal("text", Only(new NoteFinding("warm-up", FindingGrade.PlanIt, "?")).Field);
    }

    [Theory]
    [InlineData(0, "An amount is above zero.")]
    [InlineData(-1, "An amount is above zero.")]
    [InlineData(50.01, "50.01 L is more than any sump here holds.")]
    public void No_such_amount_goes_into_anything(double litres, string says)
    {
        _bench.WorkUpTo("first-pour");
        Assert.Equal((says, "amount"),
            (Only(new Pour("first-pour", Litres((decimal)litres))).What, Only(new Pour("first-pour", Litres((decimal)litres))).Field));
        // Fifty litres are asked about like any that overfills, and not called impossible.
        Assert.IsType<Asked>(_bench.Try(new Pour("first-pour", Litres(50))));
    }

    [Theory]
    [InlineData(0, "A torque is above zero.")]
    [InlineData(-5, "A torque is above zero.")]
    [InlineData(2000.1, "2,000.1 N·m is more than any wrench here gives.")]
    public void No_wrench_gives_such_a_torque(double nm, string says)
    {
        _bench.WorkUpTo("tighten-drain-plug");
        var refused = Only(new TakeReading("tighten-drain-plug", Nm((decimal)nm), true));
        Assert.Equal("torque", refused.Field);
        Assert.Equal(says.Replace(",", ""), refused.What.Replace(",", ""));
    }

    [Fact]
    public void Two_thousand_newton_metres_can_be_read_and_are_too_much()
    {
        _bench.WorkUpTo("tighten-drain-plug");
        _bench.Do(new TakeReading("tighten-drain-plug", Nm(2000), true));
        Assert.True(Card.IsOverTorqued("tighten-drain-plug"));
        Assert.Equal("what", Only(new SettleOverTorque("tighten-drain-plug", "x"), Una).Field);
        _bench.Do(new SettleOverTorque("tighten-drain-plug", "Thread looked at, new plug"), Una);
        Assert.Contains("Nothing was tightened too far", Only(new SettleOverTorque("tighten-drain-plug", "Again"), Una).What);
    }

    [Fact]
    public void Only_a_reading_is_put_right_and_only_with_a_reason()
    {
        _bench.WorkUpTo("wash-joints");
        var seq = Card.History.Last(h => h.Event is ReadingTaken).Seq;
        Assert.Equal("reason", Only(new CorrectReading(seq, Nm(37), " ")).Field);
        Assert.Equal("torque", Only(new CorrectReading(seq, Nm(0), "Misread")).Field);
        Assert.Contains("no such reading", Only(new CorrectReading(0, Nm(37), "Misread")).What);
        Assert.Contains("no such reading", Only(new CorrectReading(1, Nm(37), "Misread")).What);
        Assert.Contains("no such reading", Only(new CorrectReading(9_999, Nm(37), "Misread")).What);
        Assert.Contains("no such reading",
            Only(new CorrectReading(Card.History.Last(h => h.Event is StepDone).Seq, Nm(37), "Misread")).What);
        _bench.Do(new CorrectReading(seq, Nm(37), "Misread"));
        // It is still tight: nothing opened, and what comes next comes next.
        Assert.Equal("wash-joints", Card.Next!.Id);
        Assert.DoesNotContain(Card.Open, o => o.Kind == OpenKind.Fastener);
    }

    [Fact]
    public void Only_the_reading_that_holds_is_put_right_and_one_that_closes_by_it_goes_through_the_gates()
    {
        _bench.WorkUpTo("tighten-drain-plug");
        _bench.Do(new TakeReading("tighten-drain-plug", Nm(20), true));
        _bench.Do(new TakeReading("tighten-drain-plug", Nm(25), true));
        var (first, second) = (Card.History[^2].Seq, Card.History[^1].Seq);
        Assert.Equal([second], Card.CanBePutRight.Where(r => ((ReadingTaken)r.Event).Step == "tighten-drain-plug").Select(r => r.Seq));
        Assert.Contains("newer one holds", Only(new CorrectReading(first, Nm(38), "Misread")).What);
        // With the washer not in there it does not count as tight by correcting either.
        _bench.Do(new TakeBack(second));
        _bench.Do(new TakeBack(first));
        Assert.Contains("newer one holds", Only(new CorrectReading(second, Nm(38), "Misread")).What);
        _bench.Do(new TakeReading("tighten-drain-plug", Nm(20), true));
        var seq = Card.History[^1].Seq;
        var raised = Card;
        var lowered = raised.With([new(raised.History.Count + 1, _bench.Now, Iona, Guid.NewGuid(), new LiftMoved(false))]);
        Assert.Contains("vehicle is down", Describe(lowered.Decide(new CorrectReading(seq, Nm(38), "Misread"), Iona, _bench.Now)));
        _bench.Do(new CorrectReading(seq, Nm(38), "Misread"));
        Assert.Equal(StepStatus.Done, Card.State("tighten-drain-plug").Status);
        // What was put right is a reading, too, and can be put right again.
        Assert.Equal(Card.History[^1].Seq, Card.CanBePutRight[^1].Seq);
    }

    [Fact]
    public void Too_much_that_was_misread_is_put_right_and_the_step_goes_on()
    {
        _bench.WorkUpTo("tighten-drain-plug");
        _bench.Do(new TakeReading("tighten-drain-plug", Nm(60), true));
        Assert.True(Card.IsOverTorqued("tighten-drain-plug"));
        var seq = Card.History[^1].Seq;
        var lowered = Card.With([new(seq + 1, _bench.Now, Iona, Guid.NewGuid(), new LiftMoved(false))]);
        Assert.Contains("vehicle is down", Describe(lowered.Decide(new CorrectReading(seq, Nm(39), "It said 39"), Iona, _bench.Now)));
        _bench.Do(new CorrectReading(seq, Nm(39), "It said 39"));
        Assert.False(Card.IsOverTorqued("tighten-drain-plug"));
        Assert.Equal(StepStatus.Done, Card.State("tighten-drain-plug").Status);
    }

    [Fact]
    public void A_card_waits_for_each_part_and_boat_once()
    {
        var boat = new DateOnly(2026, 3, 12);
        Assert.Equal("number", Only(new AwaitPart(" ", "Filter", boat)).Field);
        Assert.Equal("name", Only(new AwaitPart("TC-0621-F", "", boat)).Field);
        _bench.Do(new AwaitPart("TC-0621-F", "Oil filter", boat));
        Assert.Contains("waits for Oil filter already", Only(new AwaitPart("tc 0621 f", "Oil filter", boat)).What);
        _bench.Do(new AwaitPart("TC-0714-R", "Washer", boat));
        // On another boat it waits for the same thing, once.
        _bench.Do(new AwaitPart("TC-0621-F", "Oil filter", boat.AddDays(2)));
        Assert.Equal([("TC-0714-R", boat), ("TC-0621-F", boat.AddDays(2))], Card.Awaited.Select(a => (a.Number, a.Boat!.Value)));
        Assert.EndsWith($"wait for {new string('9', 60)}.", Only(new PartIsHere(new string('9', 61))).What);
        Assert.EndsWith($"wait for {new string('9', 60)}.", Only(new PartIsHere(new string('9', 60)), Stores).What);
        Assert.Contains("look at cards", Only(new AwaitPart("TC-0622-R", "Ring", null), Stores).What);
        _bench.Do(new PartIsHere("tc0621f"), Stores);
        _bench.Do(new PartIsHere("TC-0714-R"));
        Assert.Empty(Card.Awaited);
    }

    [Fact]
    public void A_wait_is_cut_while_it_runs_and_not_a_moment_later()
    {
        _bench.WorkUpTo("look-at-plug");
        var wait = Assert.Single(Card.Waits, w => w.Id == "drain");
        Assert.Contains("is over", Only(new CutWait("no-such", "It dripped out")).What);
        _bench.Wait((wait.Until - _bench.Now).TotalMinutes);
        Assert.Contains("is over", Only(new CutWait("drain", "It dripped out")).What);
        var other = new Workbench();
        other.WorkUpTo("look-at-plug");
        other.Wait((wait.Until - other.Now).TotalMinutes - 0.01);
        other.Do(new CutWait("drain", "It dripped out"));
    }

    [Fact]
    public void The_lift_is_not_moved_where_it_is_nor_with_the_engine_on_nor_from_an_open_plug()
    {
        Assert.Contains("down already", Only(new MoveLift(false, true)).What);
        _bench.WorkUpTo("fit-washer");
        Assert.Contains("up already", Only(new MoveLift(true, true)).What);
        Assert.Contains("not tightened", Only(new MoveLift(false, true)).What);
        _bench.WorkUpTo("clear-below");
        Assert.Equal("lookedOver", Only(new MoveLift(false, false)).Field);
        _bench.Do(new MoveLift(false, true));
        Assert.False(Card.LiftUp);
        _bench.WorkUpTo("stop");
        Assert.Contains("engine is running", Only(new MoveLift(true, true)).What);
    }

    [Fact]
    public void What_is_left_is_told_apart_from_what_was_left_for_later()
    {
        _bench.WorkUpTo("undertray-on");
        _bench.Do(new PutAside("label", "Printer is out"));
        var reasons = _bench.Refusals(new Sign());
        Assert.Contains(reasons, r => r.Step == "label" && r.What.EndsWith("is left for later."));
        Assert.Contains(reasons, r => r.Step == "undertray-on" && r.What.EndsWith("is not done."));
        Assert.Contains(reasons, r => r.What == "Undertray: still open, 9 screws out." && r.Step == "undertray-on");
        _bench.WorkUpTo();
        _bench.Do(new Sign());
        foreach (var said in new CardCommand[] { new ConfirmStep("label"), new Sign(), new PartIsHere("TC-0621-F"), new VoidCard("Oops") })
            Assert.Contains("was signed by Iona R.", Only(said).What);
    }

    [Fact]
    public void With_the_lift_left_where_it_is_everything_waits_that_needs_it_elsewhere()
    {
        _bench.WorkUpTo("lifting-points");
        _bench.Do(new PutAside("raise", "The lift is being looked at"));
        // Nothing that is done from underneath is offered while the vehicle stays down.
        Assert.True(Card.Next is null or { Lift: not LiftNeed.Up } or { MovesLift: true }, $"{Card.Next?.Id}");
        Assert.DoesNotContain(Card.Remaining.TakeWhile(s => s.Id != "raise"), s => s.Lift == LiftNeed.Up);
    }

    [Fact]
    public void Only_a_job_of_this_card_is_given_up_with_a_reason()
    {
        Assert.Contains("not on the card", Only(new DropJob("air-filter", "No time")).What);
        Assert.Equal("reason", Only(new DropJob("engine-oil-and-filter", "x")).Field);
        _bench.Do(new DropJob("engine-oil-and-filter", " No time "));
        Assert.Equal("No time", Card.Dropped.Single().Event.Reason);
        Assert.Empty(Card.Jobs);
        Assert.Contains("not on the card", Only(new DropJob("engine-oil-and-filter", "No time")).What);
        Assert.DoesNotContain(Card.Remaining, s => s.Kind is StepKind.Drain or StepKind.Pour or StepKind.Tighten);
        Assert.Empty(Card.Deviations);
        Assert.True(Card.CanBeVoid);
        _bench.Do(new VoidCard(" Came for nothing "));
        _bench.Do(new Countersign(Card.ToVoid!.Seq), Una);
        Assert.Equal("Came for nothing", ((CardVoided)Card.Voided!.Event).Reason);
        Assert.False(Card.CanBeVoid);
    }

    [Fact]
    public void A_stop_is_decided_once_and_one_carried_here_is_mended_once_by_the_lead()
    {
        Assert.Contains("nothing of that kind", Only(new MendCarried(0, "Mended"), Una).What);
        Assert.Contains("no stop", Only(new DecideStop(1, true, "Mended"), Una).What);
        var opened = Card.Opened with { Carried = [new(1001, "Slivers on the magnet", "May run to Friday", "Una B.")] };
        var card = JobCard.Replay(Courier, [Card.History[0] with { Event = opened }]);
        Assert.Contains("nothing of that kind", Said(card, new MendCarried(-1, "Mended"), Una));
        Assert.Contains("nothing of that kind", Said(card, new MendCarried(1, "Mended"), Una));
        Assert.Contains("workshop lead says", Said(card, new MendCarried(0, "Mended"), Iona));
        Assert.Contains("says nothing", Said(card, new MendCarried(0, "x"), Una));
        Assert.Equal(["Slivers on the magnet"], card.StopsLeft(1009).Select(s => s.Text));
        var mended = Assert.IsType<Accepted>(card.Decide(new MendCarried(0, " New bearing "), Una, _bench.Now)).Events.Single();
        Assert.Equal("New bearing", ((CarriedMended)mended).Words);
        card = card.With([new(2, _bench.Now, Una, Guid.NewGuid(), mended)]);
        Assert.Empty(card.StopsLeft(1009));
        Assert.Contains("nothing of that kind", Said(card, new MendCarried(0, "Mended"), Una));

        string Said(JobCard on, CardCommand command, Person by) => Describe(on.Decide(command, by, _bench.Now));
    }

    [Fact]
    public void What_the_server_does_not_say_is_not_known()
    {
        // Without the oil book every oil is unknown, and nothing is taken for good because nobody said otherwise.
        var card = Card;
        Assert.Contains("not in the oil book",
            Describe(card.Decide(FullKit(), Iona, _bench.Now)));
        Assert.IsType<Accepted>(card.Decide(FullKit(), Iona, _bench.Now, _bench.Facts));
    }

    // By hand: what each kind of work is done to. Whatever else a sheet names there is said to be wrong before anybody works by it.
    [Theory]
    [InlineData("kit", "")]
    [InlineData("do", "")]
    [InlineData("read", "")]
    [InlineData("empty", "")]
    [InlineData("look", "")]
    [InlineData("clear", "")]
    [InlineData("raise", "")]
    [InlineData("lower", "")]
    [InlineData("settle", "")]
    [InlineData("drive", "")]
    [InlineData("secure", " access")]
    [InlineData("open", "access drain-plug filter-cap")]
    [InlineData("close", "access")]
    [InlineData("drain", "drain-plug")]
    [InlineData("tighten", "drain-plug filter-cap")]
    [InlineData("retighten", "drain-plug filter-cap")]
    [InlineData("bleed", "")]
    [InlineData("fit", "part")]
    [InlineData("pour", "fluid")]
    [InlineData("gauge", "fluid")]
    [InlineData("measure", "fluid")]
    [InlineData("suck", "fluid")]
    [InlineData("refill", "")]
    [InlineData("pedal", "")]
    [InlineData("inspect", "")]
    [InlineData("rotate", "")]
    [InlineData("run", "fluid")]
    [InlineData("warm", "fluid")]
    [InlineData("prime", " part fluid")]
    [InlineData("reset", "reset")]
    public void A_kind_of_work_is_done_to_its_own_things(string kind, string wants)
    {
        (string Name, string Id)[] things =
        [
            ("", ""), ("access", "undertray"), ("drain-plug", "engine-drain-plug"), ("filter-cap", "oil-filter-cap"),
            ("part", "oil-filter"), ("fluid", "engine-oil"), ("reset", "service-indicator"), ("foreign", "no-such"),
        ];
        var taken = things.Where(t => StepKinds.Of(kind).Wants(Courier, Of(kind, t.Id)) is null).Select(t => t.Name).ToList();
        if (kind == "bleed")
            Assert.DoesNotContain(taken, t => t is "part" or "fluid" or "reset" or "foreign");
        else
            Assert.Equal(wants, string.Join(' ', taken));
    }

    [Fact]
    public void No_kind_is_without_its_things() => Assert.Equal(StepKinds.Words, typeof(KernelTests)
        .GetMethod(nameof(A_kind_of_work_is_done_to_its_own_things))!.GetCustomAttributesData()
        .Where(a => a.AttributeType == typeof(InlineDataAttribute))
        .Select(a => (string)((IReadOnlyList<System.Reflection.CustomAttributeTypedArgument>)a.ConstructorArguments[0].Value!)[0].Value!)
        .Order(StringComparer.Ordinal));

    private static SheetStep Of(string kind, string what) => new()
    {
        Id = "some", Kind = kind, What = what, Title = "Something", Phase = "Phase", Place = Place.Top, Takes = TimeSpan.FromMinutes(1),
    };

    [Fact]
    public void A_press_is_taken_back_as_long_as_nobody_went_on_from_it()
    {
        _bench.WorkUpTo("open-bonnet");
        _bench.Do(new ConfirmStep("open-bonnet"));
        var bonnet = Card.LastPressOf(Iona.Id)!;
        // Another order depends on nothing.
        var early = Card.Remaining.First(s => !s.MovesLift && s.Id != Card.Next!.Id && Card.InTheWay(s, _bench.Now).Count == 0);
        _bench.Do(new TakeEarly(early.Id), Tavish);
        Assert.IsType<PlanChanged>(Card.History[^1].Event);
        Assert.IsType<Accepted>(Card.Decide(new TakeBack(bonnet.Seq), Iona, _bench.Now));
        _bench.Do(new ConfirmStep("engine-cover-off"), Tavish);
        var refused = Only(new TakeBack(bonnet.Seq));
        Assert.Equal($"Tavish M. went on from it: “{Card.Step("engine-cover-off")!.Title}”.", refused.What);
    }

    [Fact]
    public void A_job_that_was_given_up_is_not_taken_back_once_the_order_was_changed_after_it()
    {
        var card = On("corran-fen-12", "air-filter", "tyre-rotation", "cabin-filter");
        card = WayOutTests.Given(card, new DropJob("cabin-filter", "No filter here"), _bench.Now);
        Assert.IsType<Accepted>(card.Decide(new TakeBack(card.LastPressOf(Iona.Id)!.Seq), Iona, _bench.Now));
        var drop = card.LastPressOf(Iona.Id)!.Seq;
        var aside = Assert.IsType<Accepted>(card.Decide(new PutAside("bonnet-off", "The latch is stuck"), Tavish, _bench.Now));
        card = card.Taking(aside, Guid.NewGuid(), Tavish, _bench.Now).Card;
        Assert.Contains("went on from it", Describe(card.Decide(new TakeBack(drop), Iona, _bench.Now)));
    }

    [Fact]
    public void A_kit_of_which_another_put_a_name_to_one_part_is_not_taken_back()
    {
        _bench.WorkUpTo("lay-out-kit");
        _bench.Do(FullKit() with { Oils = EngineOil(7, "Red drum", "The drum came without a sheet") });
        var deviation = Assert.Single(Card.Deviations);
        Assert.True(deviation.Event.NeedsCountersignature);
        _bench.Do(new Countersign(deviation.Seq), Una);
        Assert.Contains("Another person put a name to this.", Only(new TakeBack(Card.LastPressOf(Iona.Id)!.Seq)).What);
    }

    [Fact]
    public void Only_what_does_something_carries_what_it_did()
    {
        _bench.Do(new NoteFinding("label", FindingGrade.PlanIt, "Rust on the sill"));
        Assert.Null(Card.History[^1].Event.Frozen);
        _bench.WorkUpTo("drain");
        Assert.NotNull(Card.History.Last(h => h.Event is StepDone).Event.Frozen);
        Assert.All(Card.History.Where(h => h.Event is PlanChanged), h => Assert.Null(h.Event.Frozen));
    }

    [Fact]
    public void An_event_that_is_missing_is_named()
    {
        var history = Card.With([new(2, _bench.Now, Iona, Guid.NewGuid(), new FindingNoted("label", FindingGrade.Sound, "Sound"))]).History;
        Assert.Contains("Event 2 is missing", Assert.Throws<ArgumentException>(() =>
            JobCard.Replay(Courier, [history[0], history[1] with { Seq = 3 }])).Message);
        Assert.Contains("Event 2 is missing", Assert.Throws<ArgumentException>(() => Card.With([history[1] with { Seq = 3 }])).Message);
    }

    [Fact]
    public void What_is_awaited_has_a_number_and_a_name()
    {
        Assert.Equal(["number", "name"], new[] { new AwaitPart("", "", null), new AwaitPart("TC-0621-F", "", null) }
            .Select(said => Only(said).Field));
    }

    [Fact]
    public void An_oil_that_was_laid_out_wrong_is_forgotten_with_the_next_kit_unless_it_is_in()
    {
        ConfirmKit With(string product) => FullKit() with { Oils = EngineOil(7, product, "The drum came without a sheet") };
        _bench.WorkUpTo("lay-out-kit");
        _bench.Do(With("Red drum"));
        Assert.Contains(Card.Deviations, d => d.Event.Kind == DeviationKind.OtherOil);
        _bench.WorkUpTo("look-at-plug");
        // The old oil is out and nothing is in: what is laid out now is what will be in.
        _bench.Do(FullKit());
        Assert.DoesNotContain(Card.Deviations, d => d.Event.Kind == DeviationKind.OtherOil);
        _bench.Do(With("Red drum"));
        _bench.WorkUpTo("filler-cap-on");
        Assert.StartsWith("Some of Red drum is in", Only(FullKit()).What);
        Assert.Contains(Card.Deviations, d => d.Event.Kind == DeviationKind.OtherOil);
    }

    [Fact]
    public void The_next_service_goes_by_the_owner_s_own_rule()
    {
        var rule = new OwnRule("engine-oil-and-filter", new(Km(5_000), 6, null), RuleOf.Owner);
        var card = JobCard.Replay(Courier, [Card.History[0] with { Event = Card.Opened with { OwnRules = [rule] } }]);
        var now = _bench.Now;
        while (card.Next is { } next)
        {
            now += next.Takes + TimeSpan.FromMinutes(70);
            var done = Assert.IsType<Accepted>(card.Decide(UsualPress.Of(card, next), Iona, now, UsualPress.Facts(Courier)));
            card = card.Taking(done, Guid.NewGuid(), Iona, now).Card;
        }
        var signed = (Signed)Assert.IsType<Accepted>(card.Decide(new Sign(), Iona, now)).Events.Single();
        Assert.Equal(Km(153_200), Assert.Single(signed.Due).Next.At);
    }

    [Fact]
    public void What_was_tightened_too_far_is_slackened_where_it_sits()
    {
        _bench.WorkUpTo("first-pour");
        var reading = Card.CanBePutRight.First(h => h.Event is ReadingTaken { Step: var at } && at == "tighten-drain-plug").Seq;
        _bench.Do(new CorrectReading(reading, Nm(60), "Read the wrong line"));
        Assert.True(Card.IsOverTorqued("tighten-drain-plug"));
        Assert.Contains(_bench.Refusals(new SettleOverTorque("tighten-drain-plug", "Thread is good"), Una),
            r => r.What == "The vehicle is down.");
        while (!Card.LiftUp)
            _bench.Do(UsualPress.Of(Card, Card.Next!));
        _bench.WorkUpTo("tighten-drain-plug");
        _bench.Do(new SettleOverTorque("tighten-drain-plug", "Thread is good"), Una);
        _bench.Do(new TakeReading("tighten-drain-plug", Nm(38)));
        _bench.WorkUpTo();
    }

    [Fact]
    public void What_was_pressed_last_is_named_by_what_it_was_and_not_by_the_order_that_followed()
    {
        _bench.WorkUpTo("warm-up");
        _bench.Do(new PutAside("warm-up", "The extractor is out"));
        Assert.IsType<PlanChanged>(Card.History[^1].Event);
        var pressed = Card.LastPressOf(Iona.Id)!;
        Assert.IsType<StepPutAside>(pressed.Event);
        _bench.Do(new TakeBack(pressed.Seq));
        Assert.Equal(StepStatus.Waiting, Card.State("warm-up").Status);
        var early = Card.Remaining.First(s => !s.MovesLift && s.Id != Card.Next!.Id && Card.InTheWay(s, _bench.Now).Count == 0);
        _bench.Do(new TakeEarly(early.Id));
        Assert.IsType<PlanChanged>(Card.LastPressOf(Iona.Id)!.Event);
    }
}
