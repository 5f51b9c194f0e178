using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Tests.WayOutTests;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>What must be closed, filled, cold or done before an engine runs, a vehicle is driven or a lift moves; worked out from what
/// the sheet says of each thing, at every step of whole cards.</summary>
public sealed class BeforeItRunsTests
{
    private static readonly DateTimeOffset Eight = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);

    [Theory]
    [MemberData(nameof(WayOutTests.Cards), MemberType = typeof(WayOutTests))]
    public void Whatever_is_open_and_must_not_be_is_named(string sheet, string jobs)
    {
        var (named, ever) = (0, false);
        AtEveryStep(sheet, jobs, (card, now) =>
        {
            var look = card.Remaining.Any(s => s.Kind == StepKind.Look);
            foreach (var step in card.Remaining.Where(s => s.Moves || s.WheelsTurn
                || s.Kind is StepKind.Warm or StepKind.Run or StepKind.Drive))
            {
                ever = true;
                var says = card.InTheWay(step, now).Select(r => r.What).ToHashSet();
                foreach (var open in card.Open)
                {
                    var access = open.Kind == OpenKind.Access ? card.Sheet.Access[open.Id] : null;
                    var must = open.Kind == OpenKind.Fastener || access is { ClosedToRun: true } or { Intake: true };
                    var name = Words.Low(open.Name);
                    Assert.Equal(must, says.Any(s => s == $"The {name} is still open." || s == $"The {name} is not tightened."
                        || s == $"The {name} are not tightened."));
                    var drives = (step.Moves || step.Kind == StepKind.Drive) && !(access is { AfterLeakCheck: true } && look)
                        && (open.Kind is OpenKind.Fastener or OpenKind.Access or OpenKind.Lift);
                    Assert.Equal(drives, says.Contains($"{open.Name}: still {(access is { HoldsVehicle: true } ? "in place" : "open")}."));
                    named += must || drives ? 1 : 0;
                }
                foreach (var fluid in card.Sheet.Fluids.Values)
                    Assert.Equal(fluid.SafeToStart is { } safe && card.Open.Any(o => o.Kind == OpenKind.Fluid && o.Id == fluid.Id)
                        && card.Fluid(fluid.Id).Poured < safe.Value,
                        says.Any(s => s.StartsWith("Only ") && s.EndsWith($" of {Words.Low(fluid.Name)} is in.")));
            }
        });
        Assert.Equal(ever, named > 0);
    }

    [Theory]
    [MemberData(nameof(WayOutTests.Cards), MemberType = typeof(WayOutTests))]
    public void Whatever_a_step_needs_open_is_named_while_it_is_shut(string sheet, string jobs) => AtEveryStep(sheet, jobs, (card, now) =>
    {
        foreach (var step in card.Remaining)
        {
            var says = card.InTheWay(step, now).Select(r => r.What).ToHashSet();
            foreach (var thing in step.Needs)
                if (card.Sheet.Access.TryGetValue(thing, out var access))
                    Assert.Equal(!card.Open.Any(o => o.Kind == OpenKind.Access && o.Id == thing),
                        says.Contains($"The {Words.Low(access.Name)} is in the way."));
                else if (card.Sheet.Fasteners.TryGetValue(thing, out var fastener))
                    Assert.Equal(!card.Open.Any(o => o.Kind == OpenKind.Fastener && o.Id == thing),
                        says.Contains($"The {Words.Low(fastener.Name)} {fastener.Is} not out."));
            Assert.Equal(step.Lift == LiftNeed.Up && !card.LiftUp, says.Contains("The vehicle is down."));
            Assert.Equal(step.Lift == LiftNeed.Down && card.LiftUp, says.Contains("The vehicle is up on the lift."));
        }
    });

    // The air filter is changed before its turn, before the oil is warmed for its drain.
    [Fact]
    public void Who_warms_it_after_work_above_says_that_nothing_lies_there()
    {
        var card = On("tarn-courier-20d", "engine-oil-and-filter", "air-filter");
        var warm = card.Steps.Single(s => s.Kind == StepKind.Warm);
        Assert.Empty(card.ToolsAbove);
        Assert.Equal("lookedAbove", Assert.Single(Assert.IsType<Refused>(
            card.Decide(new ConfirmStep(warm.Id, LookedAbove: true), Iona, Eight)).Reasons).Field);
        var now = card.History[0].At;
        foreach (var step in card.Steps.Where(s => s.Traits.LaysOut || s.What == "bonnet"
            || (s.Jobs.Count == 1 && s.Jobs[0] == "air-filter")))
            while (card.State(step.Id).Status == StepStatus.Waiting
                && card.Decide(UsualPress.Of(card, step), Iona, now, UsualPress.Facts(card.Sheet)) is Accepted done)
                card = card.Taking(done, Guid.NewGuid(), Iona, now).Card;
        Assert.Equal(3, card.ToolsAbove.Count); // the air box off, the filter in, the air box on

        var refusal = Assert.Single(Assert.IsType<Refused>(card.Decide(new ConfirmStep(warm.Id), Iona, now)).Reasons);
        Assert.Equal($"There was work in the engine bay: {string.Join(", ", card.ToolsAbove)}.", refusal.What);
        var said = Assert.IsType<Accepted>(card.Decide(new ConfirmStep(warm.Id, LookedAbove: true), Iona, now));
        card = card.Taking(said, Guid.NewGuid(), Iona, now).Card;
        Assert.Empty(card.ToolsAbove);
        Assert.True(Assert.IsType<StepDone>(card.History[^1].Event).LookedAbove);
    }

    [Fact]
    public void What_is_done_cold_waits_until_the_engine_has_cooled()
    {
        var card = On("skelling-tourer-1100", "engine-oil-and-filter", "spark-plugs");
        var cold = card.Steps.First(s => s.Cold);
        Assert.DoesNotContain(card.InTheWay(cold, Eight), r => r.What.Contains("hot"));
        // How it came in nobody knows: as if driven in, until it is felt or has stood for as long as it cools.
        var came = card.History[0].At;
        Refusal unfelt = new("Nobody has felt whether the engine is cold; the vehicle came in at 08:00.",
            "Bring the back of a hand near it, then feel it; or do something else until 08:50: this is done cold.",
            Ground: Ground.Heat);
        Assert.Contains(unfelt, card.InTheWay(cold, came.AddMinutes(50).AddTicks(-1)));
        Assert.Equal((true, false), (card.AsksIfCold(cold, came), card.AsksIfCold(cold, came.AddMinutes(50))));
        Assert.DoesNotContain(unfelt, card.InTheWay(cold, came.AddMinutes(50)));
        var felt = card.With([new(2, came, Iona, Guid.NewGuid(), new FeltCold())]);
        Assert.Equal((false, 0), (felt.AsksIfCold(cold, came), felt.InTheWay(cold, came).Count(r => r.What.Contains("felt"))));
        Assert.Equal("It has cooled already.", Assert.Single(Assert.IsType<Refused>(
            felt.Decide(new FeelCold(), Iona, came)).Reasons).What);
        var hot = card.With([new(2, Eight, Iona, Guid.NewGuid(), new StepDone("warm-up"))]);
        Assert.Contains(hot.InTheWay(cold, Eight.AddMinutes(49)), r => r == new Refusal("The engine was run at 08:00 and is still hot.",
            "Do something else until 08:50: this is done cold.", Ground: Ground.Heat));
        Assert.Contains(hot.InTheWay(cold, Eight.AddMinutes(50).AddTicks(-1)), r => r.What.Contains("still hot"));
        Assert.DoesNotContain(hot.InTheWay(cold, Eight.AddMinutes(50)), r => r.What.Contains("still hot"));
        // It heats until it is switched off.
        var run = card.Steps.First(s => s.Traits.Engine == EngineUse.Starts).Id;
        var stop = card.Steps.First(s => s.Traits.Engine == EngineUse.Stops).Id;
        var off = card.With([new(2, Eight, Iona, Guid.NewGuid(), new StepDone(run)),
            new(3, Eight.AddMinutes(20), Iona, Guid.NewGuid(), new StepDone(stop))]);
        Assert.Contains(off.InTheWay(cold, Eight.AddMinutes(69)), r => r.What == "The engine was run at 08:20 and is still hot.");
    }

    [Fact]
    public void A_wait_is_told_in_minutes_and_at_last_in_seconds()
    {
        var bench = new Workbench();
        bench.WorkUpTo(bench.Card.Steps.Single(s => s.Kind == StepKind.Gauge).Id);
        var waiting = bench.Card.Waits.OrderBy(w => w.Until).Last();
        var step = bench.Card.Steps.First(s => s.Awaits.Contains(waiting.Id) || s.Id == waiting.Id);
        string Says(double seconds) => bench.Card.InTheWay(step, waiting.Until.AddSeconds(-seconds)).First().What;
        Assert.EndsWith(": 2 min to go.", Says(61));
        Assert.EndsWith(": 1 min to go.", Says(60));
        Assert.EndsWith(": 60 s to go.", Says(59.5));
        Assert.EndsWith(": 1 s to go.", Says(0.1));
        Assert.DoesNotContain(bench.Card.InTheWay(step, waiting.Until), r => r.What.Contains("to go"));
    }

    [Fact]
    public void The_lift_is_moved_by_hand_only_after_a_look_where_it_goes()
    {
        var card = On("corran-fen-12", "tyre-rotation");
        var chocks = card.Steps.Single(s => s.Kind == StepKind.Secure && s.What == "wheel-chocks").Id;
        Refusal Only(MoveLift move) => Assert.Single(Assert.IsType<Refused>(card.Decide(move, Iona, Eight)).Reasons);
        Assert.Contains("not in place", Only(new MoveLift(true, true)).What);
        card = Given(card, new ConfirmStep(chocks), Eight);
        Assert.Equal(("The vehicle is down already.", "The lifting points have not been looked at."),
            (Only(new MoveLift(false, true)).What, Only(new MoveLift(true, false)).What));
        card = Given(card, new MoveLift(true, true), Eight);
        Assert.Contains(card.History, h => h.Event is PlanChanged { Why: "The vehicle was raised" });
        Assert.Equal(("The vehicle is up already.", "The space underneath has not been looked at."),
            (Only(new MoveLift(true, true)).What, Only(new MoveLift(false, false)).What));
        card = Given(card, new MoveLift(false, true), Eight);
        Assert.Contains(card.History, h => h.Event is PlanChanged { Why: "The vehicle was lowered" });
    }

    [Fact]
    public void What_came_out_goes_back_in_where_it_is_measured()
    {
        var card = On("hespin-16", "gearbox-oil");
        Assert.Equal(card.Sheet.Fluids["gearbox-oil"].Amount.Value, card.Wanted("gearbox-oil"));
        AtEveryStep("hespin-16", "gearbox-oil", (at, now) =>
        {
            if (at.Next is { Kind: StepKind.Measure } measure)
                card = Given(at, new Measure(measure.Id, Litres(4.9m), true), now);
        });
        Assert.Equal(L(4.9m), card.Wanted("gearbox-oil"));
        var oil = On("hespin-16", "engine-oil-and-filter");
        Assert.Equal(oil.FillOf("engine-oil").FirstPour, oil.Wanted("engine-oil"));
        Assert.NotEqual(oil.Sheet.Fluids["engine-oil"].Amount.Value, oil.Wanted("engine-oil"));
    }

    [Fact]
    public void What_is_said_too_soon_is_answered_with_what_stands_in_the_way()
    {
        var bench = new Workbench();
        foreach (var said in new CardCommand[] { new Deviate("tighten-drain-plug", DeviationKind.StepLeftOut, ""),
            new Deviate("drain", DeviationKind.StepLeftOut, ""), new Deviate("look-at-plug", DeviationKind.StepLeftOut, "") })
            Assert.DoesNotContain(bench.Refusals(said), r => r.What == "The reason is missing." || r.What == "This cannot be left out.");
        bench.WorkUpTo("drain");
        Assert.Equal("The reason is missing.", Assert.Single(bench.Refusals(new Deviate("drain", DeviationKind.StepLeftOut, ""))).What);
        Assert.Equal("This cannot be left out.",
            Assert.Single(bench.Refusals(new Deviate("drain", DeviationKind.StepLeftOut, "Seized solid"))).What);
        var counted = Assert.Single(bench.Refusals(new ConfirmStep("drain", 1)));
        Assert.Equal(("Nothing is counted at this step.", "count"), (counted.What, counted.Field));
    }

    [Theory]
    [InlineData("5 L", "5 L")]
    [InlineData("0.5 US qt", "0.5 US qt")]
    [InlineData("5L", "5 L")]
    [InlineData("2.65 qt", "2.65 US qt")]
    public void An_amount_on_disk_keeps_its_number_and_its_unit(string written, string kept) => Assert.Equal(kept,
        Assert.IsType<Poured>(CardJson.Read($$"""{"event":"Poured","step":"fill","amount":"{{written}}"}""")).Amount.Exact);

    [Theory]
    [InlineData("\"5\"")]
    [InlineData("\" L\"")]
    [InlineData("\"L\"")]
    [InlineData("\"5 furlongs\"")]
    [InlineData("\"\"")]
    [InlineData("null")]
    public void What_is_no_amount_on_disk_is_not_read_as_one(string written) => Assert.Throws<System.Text.Json.JsonException>(() =>
        CardJson.Read($$"""{"event":"Poured","step":"fill","amount":{{written}}}"""));

    // By hand: of the steps of the job that primes, one that fits, lets out or undoes a fastener has begun what must be primed.
    [Theory]
    [InlineData("tarn-courier-20d", "engine-oil-and-filter fuel-filter", "")]
    [InlineData("tarn-courier-20d", "engine-oil-and-filter fuel-filter", "undo-fuel-filter-lid")]
    [InlineData("ostler-brae-28d", "engine-oil-and-filter fuel-filter", "")]
    public void What_must_be_primed_is_named_from_when_it_was_opened(string sheet, string jobs, string aside)
    {
        var (named, not) = (0, 0);
        void Look(JobCard card, DateTimeOffset now)
        {
            var begun = card.Steps.Any(s => s.Jobs.Contains("fuel-filter") && card.State(s.Id).Status == StepStatus.Done
                && (s.Kind is StepKind.Fit or StepKind.Drain || (s.Kind == StepKind.Open && card.Sheet.Fasteners.ContainsKey(s.What)))
                && card.Steps.Any(p => p.Kind == StepKind.Prime && p.Jobs.Intersect(s.Jobs).Any()));
            foreach (var prime in card.Steps.Where(s => s.Kind == StepKind.Prime))
                foreach (var step in card.Steps.Where(s => s.RunsEngine))
                {
                    var must = card.Remaining.Contains(prime) && (step.Kind == StepKind.Run || begun);
                    Assert.Equal(must, card.InTheWay(step, now).Any(r => r.What == $"“{prime.Title}” is not done yet."));
                    (named, not) = (named + (must ? 1 : 0), not + (must ? 0 : 1));
                }
        }
        if (aside.Length == 0)
            AtEveryStep(sheet, jobs, Look);
        else
        {
            var (card, now) = (On(sheet, [.. jobs.Split(' ').Select(j => (JobId)j)]), Eight);
            card = Given(card, UsualPress.Of(card, card.Next!), now);
            card = Given(card, new PutAside(aside, "No filter yet"), now);
            for (var presses = 0; presses < 25; presses++)
            {
                Look(card, now);
                now += card.Next!.Takes + TimeSpan.FromMinutes(70);
                card = Given(card, UsualPress.Of(card, card.Next!), now);
            }
            Assert.Contains(card.History, h => h.Event is StepDone { Step: var step } && step == "drain");
        }
        Assert.True(named > 5 && not > 5, $"{named} {not}");
    }
}
