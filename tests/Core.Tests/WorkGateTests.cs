using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Resetting;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Tests.WayOutTests;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>What each kind of work asks of the vehicle before it is done, worked out from the sheet and from what is open, at every step
/// of whole cards; and what it takes as an answer.</summary>
public sealed class WorkGateTests
{
    [Theory]
    [MemberData(nameof(WayOutTests.Cards), MemberType = typeof(WayOutTests))]
    public void Nothing_is_taken_at_a_step_before_its_turn(string sheet, string jobs)
    {
        var (at, refused) = (0, 0);
        AtEveryStep(sheet, jobs, (card, now) =>
        {
            if (at++ % 4 != 0)
                return;
            foreach (var step in card.Remaining.Where((_, i) => i % 2 == 0))
            {
                var way = card.InTheWay(step, now);
                if (way.Count == 0)
                    continue;
                // Dipped is long before, while the old fluid is in, and a level before the first run is only noted.
                // What is held for a reset may be let go at any time.
                foreach (var said in CoachTests.Everything(step.Id)
                    .Where(c => step.Kind != StepKind.Reset || card.Waits.All(w => w.Id != step.Id || w.Until <= now)
                        || c is not (FailReset or HoldReset or ShowReset or HearTool or ConfirmStep or Deviate))
                    .Where(c => c is StepCommand and not (ReportLeak or SettleOverTorque or Coaches.Draining.Dip or ReadBeforeRun)))
                {
                    var answer = card.Decide(said, Iona, now, UsualPress.Facts(card.Sheet));
                    Assert.True(answer is Refused, $"{said} is taken, though: {string.Join(" ", way)}");
                    var reasons = ((Refused)answer).Reasons;
                    var foreign = reasons.Count == 1 && reasons[0].What.StartsWith("There is no step “");
                    // More may go in while oil runs down, so that wait is no reason against it.
                    var toppedUp = step.Kind == StepKind.Gauge && said is Pour or TakeOut && (reasons.All(way.Contains)
                        || reasons[0].What.StartsWith("Nothing should be poured") || reasons[0].What.StartsWith("The last reading"));
                    Assert.True(foreign || toppedUp || reasons.SequenceEqual(way), $"{said}: {string.Join(" ", reasons)}");
                    refused += foreign ? 0 : 1;
                }
            }
        });
        Assert.True(refused > 20, $"{refused}");
    }

    [Theory]
    [MemberData(nameof(WayOutTests.Cards), MemberType = typeof(WayOutTests))]
    public void Each_kind_of_work_asks_for_what_it_needs(string sheet, string jobs)
    {
        AtEveryStep(sheet, jobs, (card, now) =>
        {
            foreach (var step in card.Remaining)
            {
                var says = card.InTheWay(step, now);
                var expected = Expected(card, step).ToList();
                foreach (var (what, by) in expected)
                {
                    var found = says.FirstOrDefault(r => r.What == what);
                    Assert.True(found is not null, $"{step.Title}: nobody says “{what}”");
                    if (by is not null && found.Step is { } id)
                        Assert.True(by(card.Step(id)!), $"{step.Title}: “{what}” names “{card.Step(id)!.Title}”");
                }
                if (step.Kind is StepKind.Close or StepKind.Fit or StepKind.Measure or StepKind.Settle)
                    Assert.All(says.Where(r => Patterns.Any(p => r.What.EndsWith(p))),
                        r => Assert.Contains(expected, e => e.What == r.What));
            }
        });
    }

    private static readonly string[] Patterns = [" is not open.", " are not open.", "not been opened.", "is not out yet.",
        "is not running.", "still open."];

    private static IEnumerable<(string What, Func<SheetStep, bool>? By)> Expected(JobCard card, SheetStep step)
    {
        var sheet = card.Sheet;
        bool Out(ThingId id) => card.Open.Any(o => o.Kind == OpenKind.Fastener && o.Id == id);
        bool Off(ThingId id) => card.Open.Any(o => o.Kind == OpenKind.Access && o.Id == id);
        bool Empty(ThingId id) => card.Open.Any(o => o.Kind == OpenKind.Fluid && o.Id == id);
        bool Ran() => card.History.Any(h => h.Event is Coaches.Running.EngineCaught);
        switch (step.Kind)
        {
            case StepKind.Close:
                if (!Off(step.What))
                    yield return ($"The {Words.Low(sheet.Access[step.What].Name)} is not open.", null);
                foreach (var f in sheet.Fasteners.Values.Where(f => Out(f.Id) && f.Needs.Any(n => step.What == n)))
                    yield return ($"The {Words.Low(f.Name)} behind it {f.Is} still open.",
                        s => s.Kind is StepKind.Tighten or StepKind.Bleed && s.What == f.Id);
                foreach (var a in sheet.Access.Values.Where(a => Off(a.Id) && a.Needs.Any(n => step.What == n)))
                    yield return ($"The {Words.Low(a.Name)} behind it is still open.", s => s.Kind == StepKind.Close && s.What == a.Id);
                if (sheet.Access[step.What].HoldsVehicle && card.LiftUp)
                    yield return ("The vehicle is up.", null);
                break;
            case StepKind.Tighten:
                if (!Out(step.What))
                    yield return ($"The {Words.Low(sheet.Fasteners[step.What].Name)} {sheet.Fasteners[step.What].Is} not open.", null);
                foreach (var part in sheet.Fasteners[step.What].Fitted.Where(p => !card.IsFitted(p)))
                    yield return ($"The {Words.Low(sheet.Parts[part].Name)} has not been fitted.",
                        s => s.Kind == StepKind.Fit && s.What == part);
                foreach (var id in sheet.Fasteners[step.What].Needs.Where(n => !Off(n)))
                    yield return ($"The {Words.Low(sheet.Access[id].Name)} is in the way.",
                        s => s.Kind is StepKind.Open or StepKind.Secure && s.What == id);
                break;
            case StepKind.Fit:
                if (sheet.Fasteners.Values.FirstOrDefault(f => f.Fitted.Any(p => step.What == p)) is { } holder)
                {
                    if (!Out(holder.Id))
                        yield return ($"The {Words.Low(holder.Name)} {holder.Has} not been opened.",
                            s => s.Kind is StepKind.Open or StepKind.Drain && s.What == holder.Id);
                }
                else
                    foreach (var id in sheet.Parts[step.What].Needs.Where(n => !Off(n)))
                        yield return ($"The {Words.Low(sheet.Access[id].Name)} is in the way.", s => s.What == id);
                break;
            case StepKind.Measure:
                if (!Empty(step.What))
                    yield return ($"The {Words.Low(sheet.Fluids[step.What].Name)} is not out yet.",
                        s => s.Kind == StepKind.Drain && sheet.Fasteners[s.What].Drains is { } fluid && step.What == fluid);
                break;
            case StepKind.Pour:
                if (!Empty(step.What) && card.Steps.Any(s => s.Kind == StepKind.Drain
                    && sheet.Fasteners[s.What].Drains is { } drained && step.What == drained))
                    yield return ("The old oil has not been drained.", s => s.Kind == StepKind.Drain
                        && sheet.Fasteners[s.What].Drains is { } drained && step.What == drained);
                if (sheet.Fluids[step.What].FillBy == FillBy.MeasuredReturn
                    && !card.History.Any(h => h.Event is Measured m && step.What == card.Step(m.Step)!.What))
                    yield return ("What came out has not been measured.", s => s.Kind == StepKind.Measure && s.What == step.What);
                foreach (var id in sheet.Fluids[step.What].Through.Where(n => !Off(n)))
                    yield return ($"The {Words.Low(sheet.Access[id].Name)} is in the way.", s => s.What == id);
                foreach (var plug in sheet.Fasteners.Values.Where(f => f.Fills is { } fluid && step.What == fluid && !Out(f.Id)))
                    yield return ($"The {Words.Low(plug.Name)} {plug.Is} shut.", s => s.Kind == StepKind.Open && s.What == plug.Id);
                foreach (var joint in sheet.Fasteners.Values.Where(f => f.System is { } fluid && step.What == fluid && Out(f.Id)
                    && f.Fills is null))
                    yield return ($"The {Words.Low(joint.Name)} {joint.Is} not tightened.",
                        s => s.Kind is StepKind.Tighten or StepKind.Bleed && s.What == joint.Id);
                break;
            case StepKind.Gauge:
                if (card.Fluid(step.What).Pours == 0)
                    yield return ("No oil has been poured yet.", s => s.Kind == StepKind.Pour && s.What == step.What);
                if (sheet.Fluids[step.What].Pumped && !Ran())
                    yield return ("The filter is still empty.", s => s.Kind == StepKind.Run);
                break;
            case StepKind.Look:
                foreach (var f in sheet.Fasteners.Values.Where(f => Out(f.Id)))
                    yield return ($"The {Words.Low(f.Name)} {f.Is} not tightened.",
                        s => s.Kind is StepKind.Tighten or StepKind.Bleed && s.What == f.Id);
                if (!Ran() && card.Steps.Any(s => s.Kind == StepKind.Run))
                    yield return ("The engine has not run since the joints were closed.", s => s.Kind == StepKind.Run);
                break;
            case StepKind.Settle:
                if (!card.EngineRuns)
                    yield return ("The engine is not running.", s => s.Kind == StepKind.Run);
                break;
            case StepKind.Open when sheet.Access.TryGetValue(step.What, out var access):
                foreach (var id in access.Needs.Where(n => !Off(n)))
                    yield return ($"The {Words.Low(sheet.Access[id].Name)} is in the way.", s => s.What == id);
                break;
        }
    }

    [Theory]
    [MemberData(nameof(WayOutTests.Cards), MemberType = typeof(WayOutTests))]
    public void Brakes_and_lifting_are_told_by_the_step_or_by_whatever_it_is_done_to(string sheet, string jobs)
    {
        var card = On(sheet, [.. jobs.Split(' ').Select(j => (JobId)j)]);
        foreach (var step in card.Steps)
        {
            var cautions = step.Needs.Append(step.What).SelectMany(id =>
                    (card.Sheet.Access.TryGetValue(id, out var access) ? access.Cautions : [])
                    .Concat(card.Sheet.Fasteners.TryGetValue(id, out var fastener) ? fastener.Cautions : []))
                .Concat(step.Cautions).ToHashSet();
            Assert.Equal(step.Essential || cautions.Overlaps(["brakes", "brake-fluid", "crushing"]), card.IsEssential(step));
        }
    }

    [Fact]
    public void Oil_that_was_topped_up_runs_down_for_as_long_as_the_sheet_says()
    {
        var bench = new Workbench();
        var gauge = bench.Card.Steps.Single(s => s.Kind == StepKind.Gauge).Id;
        bench.WorkUpTo(gauge);
        bench.Wait(60);
        bench.Do(new ReadGauge(gauge, new(0.1m)));
        bench.Do(new Pour(gauge, Litres(0.2m)));
        var wait = bench.Card.Waits.Single(w => w.For == "Oil runs down");
        Assert.Equal((bench.Now, bench.Now + Courier.Fluids["engine-oil"].SettleAfterPour), (wait.From, wait.Until));
        Assert.True(wait.Until > wait.From);
    }

    [Fact]
    public void A_kit_of_a_card_from_before_several_pans_has_the_one() => Assert.Equal([L(8)],
        new KitConfirmed("lay-out-kit", new Dictionary<PartId, string>(), L(8), new Dictionary<FluidId, KitOil>()).AllPans);

    private static (JobCard Card, SheetStep Step, DateTimeOffset Now) At(string sheet, string job, Func<SheetStep, bool> which)
    {
        (JobCard, SheetStep, DateTimeOffset)? found = null;
        AtEveryStep(sheet, job, (card, now) => found ??= card.Next is { } next && which(next) && card.InTheWay(next, now).Count == 0
            ? (card, next, now) : null);
        return found ?? throw new InvalidOperationException("No such step.");
    }

    [Fact]
    public void What_is_poured_is_held_against_the_book_and_its_tolerance()
    {
        var (card, pour, now) = At("hespin-16", "rear-axle-oil", s => s.Kind == StepKind.Pour);
        var fluid = card.Sheet.Fluids["rear-axle-oil"];
        var (book, tolerance, bit) = (fluid.Amount.Value, fluid.Tolerance.Value, L(0.001m));
        Decision Pour(Quantity<Volume> amount) => card.Decide(new Pour(pour.Id, new(amount, Volume.Litre)), Iona, now);
        Assert.IsType<Accepted>(Pour(book));
        Assert.IsType<Accepted>(Pour(book + tolerance));
        Assert.IsType<Accepted>(Pour(book - tolerance));
        var over = Assert.IsType<Asked>(Pour(book + tolerance + bit)).Question.Text;
        Assert.Contains($"in all; the book says {book.Print(Volume.Litre)}. Look for what does not agree.", over);
        foreach (var (amount, asks) in new[] { (book - tolerance, false), (book - tolerance - bit, true) })
        {
            var some = Given(card, new Pour(pour.Id, new(amount, Volume.Litre)), now);
            Assert.Equal(asks, some.Decide(new RunOver(pour.Id), Iona, now) is Asked
            {
                Question: RunOverQuestion { Text: var early }
            } && early.Contains($"but the book says {book.Print(Volume.Litre)}.", StringComparison.Ordinal));
        }
        // What went in before counts.
        card = Given(card, new Pour(pour.Id, Litres(0.1m), true), now);
        if (card.Remaining.Any(s => s.Id == pour.Id))
            Assert.IsType<Asked>(Pour(book + tolerance));
    }

    [Fact]
    public void What_goes_back_is_held_against_what_came_out()
    {
        var (card, measure, now) = At("hespin-16", "gearbox-oil", s => s.Kind == StepKind.Measure);
        Assert.Equal("An amount is above zero.",
            Assert.Single(Assert.IsType<Refused>(card.Decide(new Measure(measure.Id, Litres(0)), Iona, now)).Reasons).What);
        Assert.Equal("This one needs an amount or a level.",
            Assert.Single(Assert.IsType<Refused>(card.Decide(new ConfirmStep(measure.Id), Iona, now)).Reasons).What);
        card = Given(card, new Measure(measure.Id, Litres(5.5m), true), now);
        while (card.Next is { } next && next.Kind != StepKind.Pour)
        {
            now += next.Takes + TimeSpan.FromMinutes(70);
            card = Given(card, UsualPress.Of(card, next), now);
        }
        var tolerance = card.Sheet.Fluids["gearbox-oil"].Tolerance.Value;
        Decision Pour(decimal litres) => card.Decide(new Pour(card.Next!.Id, Litres(litres)), Iona, now);
        Assert.Equal("This one needs an amount or a level.",
            Assert.Single(Assert.IsType<Refused>(card.Decide(new ConfirmStep(card.Next!.Id), Iona, now)).Reasons).What);
        Assert.IsType<Accepted>(Pour(5.5m + tolerance.In(Volume.Litre)));
        Assert.Contains("in all; what came out was 5.50 L.", Assert.IsType<Asked>(Pour(5.51m + tolerance.In(Volume.Litre))).Question.Text);
        Assert.Equal(Litres(5.5m), Assert.IsType<Pour>(UsualPress.Of(card, card.Next!)).Amount);
        // Part of it does not end the step; the rest does.
        var part = Given(card, new Pour(card.Next!.Id, Litres(1)), now);
        Assert.Equal(card.Next!.Id, part.Next!.Id);
        Assert.Equal(Litres(4.5m), Assert.IsType<Pour>(UsualPress.Of(part, part.Next!)).Amount);
        var enough = Given(part, new Pour(part.Next!.Id, new(L(4.5m) - tolerance, Volume.Litre)), now);
        Assert.DoesNotContain(enough.Remaining, s => s.Id == part.Next!.Id);
    }

    [Fact]
    public void Fasteners_that_are_counted_are_as_many_as_there_are()
    {
        var bench = new Workbench();
        bench.WorkUpTo("undertray-off");
        string Says(StepId step, int count) => Assert.Single(bench.Refusals(new ConfirmStep(step, count))).What;
        Assert.Equal("-1 screws cannot be: there are 9.", Says("undertray-off", -1).Replace("−", "-"));
        Assert.Equal("10 screws cannot be: there are 9.", Says("undertray-off", 10));
        Assert.IsType<Accepted>(bench.Card.Decide(new ConfirmStep("undertray-off", 0), Iona, bench.Now));
        bench.Do(new ConfirmStep("undertray-off", 8));
        bench.WorkUpTo("undertray-on");
        Assert.Equal("9 screws cannot be: there are 8.", Says("undertray-on", 9));
        Assert.Equal("-1 screws cannot be: there are 8.", Says("undertray-on", -1).Replace("−", "-"));
        Assert.Contains("8 of 9 screws went in. The reason", Says("undertray-on", 8));
        Assert.Contains("0 of 9 screws went in. The reason", Says("undertray-on", 0));
    }

    [Fact]
    public void Only_a_joint_that_was_opened_leaks_and_then_all_is_proved_again()
    {
        var bench = new Workbench();
        bench.WorkUpTo("look-at-joints");
        Assert.Contains("no step", Assert.Single(bench.Refusals(new ReportLeak("look-at-joints", "fuel-filter-lid"))).What);
        bench.Do(new ReportLeak("look-at-joints", "engine-drain-plug"));
        Assert.Contains(bench.Card.Open, o => o.Id == "engine-drain-plug" && o.Detail == "leaks");
        foreach (var again in bench.Card.Steps.Where(s => s.Kind is StepKind.Run or StepKind.Settle or StepKind.Look
            || (s.Kind == StepKind.Tighten && s.What == "engine-drain-plug")))
            Assert.Contains(bench.Card.Remaining, s => s.Id == again.Id);
        Assert.Contains(bench.Card.Findings, f => f.Event.Text == "Engine drain plug leaked after it was closed"
            || f.Event.Text.EndsWith("leaked after it was closed"));
        bench.WorkUpTo();
        Assert.Empty(bench.Card.BeforeSigning());
    }

    [Theory]
    [InlineData("corran-fen-12", "engine-oil-and-filter", "oil-filter-can")]
    [InlineData("skelling-tourer-1100", "fuel-filter", "fuel-filter-clamps")]
    public void What_brings_its_own_ring_or_carries_fuel_is_a_joint_too(string sheet, string job, string joint)
    {
        var hands = new CardAtHand(On(sheet, job));
        var look = hands.UpTo(s => s.Kind == StepKind.Look);
        Assert.Contains(hands.Card.JointsOpened, f => f.Id == joint);
        hands.Do(new ReportLeak(look.Id, joint));
        Assert.Contains(hands.Card.Open, o => o.Id == joint && o.Detail == "leaks");
        Assert.Contains(hands.Card.Remaining, s => s.Kind == StepKind.Run);
        Assert.Equal(look.Id, hands.UpTo(s => s.Kind == StepKind.Look).Id);
        Assert.DoesNotContain(hands.Card.Open, o => o.Id == joint);
    }

    [Theory]
    [MemberData(nameof(WayOutTests.Cards), MemberType = typeof(WayOutTests))]
    public void The_lift_is_raised_after_all_that_secures_the_vehicle_and_let_go_of_after_all_that_needs_it_up(string sheet, string jobs)
    {
        const string NotDone = " is not done yet.", NeedsLift = " still needs the lift.";
        AtEveryStep(sheet, jobs, (card, now) =>
        {
            for (var at = 0; at < card.Steps.Count; at++)
            {
                var step = card.Steps[at];
                var says = card.InTheWay(step, now).Select(r => r.What).ToList();
                if (step.Kind == StepKind.Raise)
                    Assert.Equal(card.Steps.Take(at).Where(s => s.Kind == StepKind.Secure && card.Remaining.Contains(s))
                        .Select(s => $"“{s.Title}”{NotDone}"), says.Where(s => s.EndsWith(NotDone)));
                if (step.Kind != StepKind.Close || !card.Sheet.Access[step.What].HoldsVehicle)
                    continue;
                // As far as it is set once more, nothing that comes later holds it.
                var held = card.Remaining.TakeWhile(s => s.Kind != StepKind.Secure || s.What != step.What)
                    .FirstOrDefault(s => s.Lift == LiftNeed.Up && !s.MovesLift);
                Assert.Equal(held is null ? [] : [$"“{held.Title}”{NeedsLift}"], says.Where(s => s.EndsWith(NeedsLift)));
            }
        });
    }

    [Fact]
    public void What_holds_the_vehicle_is_set_once()
    {
        var now = new DateTimeOffset(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);
        var card = On("corran-fen-12", "tyre-rotation");
        var chocks = card.Steps.Single(s => s.Kind == StepKind.Secure && s.What == "wheel-chocks");
        Assert.Empty(card.InTheWay(chocks, now));
        card = Given(card, new ConfirmStep(chocks.Id), now);
        Assert.Contains(card.InTheWay(chocks, now), r => r.What.EndsWith("open already."));
        Assert.Contains(card.Open, o => o.Id == "wheel-chocks" && o.Detail == "in place");
    }

    [Fact]
    public void The_moves_of_a_reset_come_in_order_and_the_first_that_is_missing_is_named()
    {
        var bench = new Workbench();
        bench.WorkUpTo("reset-1");
        Refusal Only(StepId move) =>
            Assert.Single(bench.Card.InTheWay(bench.Card.Step(move)!, bench.Now), r => r.What.StartsWith("The moves"));
        Assert.Empty(bench.Card.InTheWay(bench.Card.Step("reset-1")!, bench.Now));
        Assert.Equal(["reset-1", "reset-1", "reset-1"],
            new StepId[] { "reset-2", "reset-3", "reset-5" }.Select(move => Only(move).Step!.Value));
        bench.WorkUpTo("reset-3");
        Assert.Equal("reset-3", Only("reset-5").Step!.Value);
        Assert.Empty(bench.Card.InTheWay(bench.Card.Step("reset-3")!, bench.Now));
    }

    [Fact]
    public void All_the_screws_are_as_good_as_no_count()
    {
        var bench = new Workbench();
        bench.WorkUpTo("undertray-off");
        bench.Do(new ConfirmStep("undertray-off", 9));
        Assert.Contains(bench.Card.Open, o => o.Id == "undertray" && o.Detail == "9 screws out");
    }

    [Fact]
    public void A_cover_that_hides_joints_stays_off_as_long_as_one_is_open_or_was_not_looked_at()
    {
        var bench = new Workbench();
        bool IsTooSoon() => bench.Card.InTheWay(bench.Card.Step("undertray-on")!, bench.Now)
            .Any(r => r.What.StartsWith("The opened joints have not been looked at") && r.Step == "look-at-joints");
        bench.WorkUpTo("look-at-plug");
        Assert.True(IsTooSoon());
        bench.WorkUpTo("look-at-joints");
        Assert.True(IsTooSoon());
        bench.WorkUpTo("undertray-on");
        Assert.False(IsTooSoon());
        // A reading put right that passes as before changes nothing about the joint; one that does not opens it again.
        var reading = bench.Card.History.Last(h => h.Event is ReadingTaken { Step: var step } && step == "tighten-drain-plug");
        bench.Do(new CorrectReading(reading.Seq, Nm(37.5m), "Read the wrong line"));
        Assert.False(IsTooSoon());
        Assert.Equal("undertray-on", bench.Card.Next!.Id);
        var again = bench.Card.History.Last(h => h.Event is ReadingTaken { Step: var step } && step == "tighten-drain-plug");
        bench.Do(new CorrectReading(again.Seq, Nm(20), "Read the wrong line"));
        Assert.True(IsTooSoon());
    }

    [Fact]
    public void A_torque_is_read_and_not_pressed_and_what_has_none_is_pressed_and_not_counted()
    {
        var bench = new Workbench();
        bench.WorkUpTo("tighten-drain-plug");
        var pressed = Assert.Single(bench.Refusals(new ConfirmStep("tighten-drain-plug")));
        Assert.Equal(("This one needs a torque reading.", "torque"), (pressed.What, pressed.Field));
        var byHand = 0;
        foreach (var (sheet, jobs) in new[] { ("hespin-16", "engine-oil-and-filter gearbox-oil brake-fluid"),
            ("maelor-ridge-900", "primary-oil belt"), ("skelling-tourer-1100", "engine-oil-and-filter final-drive-oil fuel-filter") })
            AtEveryStep(sheet, jobs, (card, now) =>
            {
                if (card.Next is not { Kind: StepKind.Tighten } step
                    || card.Sheet.Fasteners[step.What].Tightening.Value is Tightening.ToTorque)
                    return;
                var counted = Assert.Single(Assert.IsType<Refused>(card.Decide(new ConfirmStep(step.Id, 1), Iona, now)).Reasons);
                Assert.Equal(("Nothing is counted at this step.", "count"), (counted.What, counted.Field));
                var read = Assert.Single(Assert.IsType<Refused>(card.Decide(new TakeReading(step.Id, Nm(20)), Iona, now)).Reasons);
                Assert.Equal(("This one has no torque.", "torque"), (read.What, read.Field));
                byHand++;
            });
        Assert.True(byHand > 0);
    }
}
