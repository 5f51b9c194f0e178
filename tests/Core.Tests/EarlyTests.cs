using Anakyklos.Core.Cards;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.WayOutTests;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>A step is taken before its turn, or left for later, at every step of a card: what that costs, and what comes then.</summary>
public sealed class EarlyTests
{
    [Theory]
    [InlineData("tarn-courier-20d", "engine-oil-and-filter")]
    [InlineData("corran-fen-12", "tyre-rotation air-filter cabin-filter")]
    public void What_is_taken_early_comes_next_and_costs_what_was_said(string sheet, string jobs)
    {
        var taken = 0;
        AtEveryStep(sheet, jobs, (card, now) =>
        {
            Assert.Null(card.PlanWith("no-such", now));
            var best = card.PlanFrom(now);
            foreach (var step in card.Steps)
            {
                var can = !step.MovesLift && card.Remaining.Contains(step) && card.InTheWay(step, now).Count == 0;
                var with = card.PlanWith(step.Id, now);
                Assert.Equal(can, with is not null);
                if (with is not { } plan)
                    continue;
                Assert.Equal(step.Takes + plan.Plan.Total - best.Total, plan.Costs);
                if (step.Id == card.Next!.Id)
                {
                    Assert.Equal("This is the next step anyway.",
                        Assert.Single(Assert.IsType<Refused>(card.Decide(new TakeEarly(step.Id), Iona, now)).Reasons).What);
                    continue;
                }
                var after = Given(card, new TakeEarly(step.Id), now);
                var changed = Assert.IsType<PlanChanged>(after.History[^1].Event);
                Assert.Equal((plan.Costs, $"“{step.Title}” taken early", step.Id), (changed.Costs, changed.Why, after.Next!.Id));
                IsWhole(card, after);
                // All that is done stays where it was, then comes what is early, then all else.
                var done = card.Steps.Where(s => !card.Remaining.Contains(s)).Select(s => s.Id).ToList();
                Assert.Equal([.. done, step.Id], after.Steps.Take(done.Count + 1).Select(s => s.Id));
                taken++;
            }
            var moves = card.Remaining.Where(s => s.MovesLift).ToList();
            Assert.All(moves, m => Assert.Contains("no step",
                Assert.IsType<Refused>(card.Decide(new TakeEarly(m.Id), Iona, now)).Reasons[0].What));
        });
        Assert.True(taken > 5, $"{taken}");
    }

    // Nothing is lost from a plan and nothing comes twice.
    private static void IsWhole(JobCard before, JobCard after)
    {
        static IEnumerable<string> Work(JobCard card) =>
            card.Steps.Where(s => !s.MovesLift).Select(s => s.Id.Text).Order(StringComparer.Ordinal);
        Assert.Equal(Work(before), Work(after));
        Assert.Equal(after.Steps.Count, after.Steps.DistinctBy(s => s.Id).Count());
    }

    // The step and all that the plan does only after it, however far on.
    private static HashSet<StepId> DependOn(JobCard card, StepId step)
    {
        var found = new HashSet<StepId> { step };
        while (card.Work.Links.Any(l => found.Contains(l.Before) && found.Add(l.After)))
        {
        }
        return found;
    }

    [Theory]
    [InlineData("tarn-courier-20d", "engine-oil-and-filter")]
    [InlineData("hespin-16", "rear-axle-oil cabin-filter")]
    public void What_is_left_for_later_is_not_next_while_anything_else_can_be_done(string sheet, string jobs)
    {
        AtEveryStep(sheet, jobs, (card, now) =>
        {
            if (card.Next is not { } next)
                return;
            var after = Given(card, new PutAside(next.Id, "Waits for a part"), now);
            IsWhole(card, after);
            var costs = after.History.Select(h => h.Event).OfType<PlanChanged>().LastOrDefault();
            if (costs?.Why.Contains("waits: ") == true)
                Assert.Equal(TimeSpan.Zero, costs.Costs);
            var waiting = DependOn(after, next.Id);
            // Nothing is warmed up for a drain that cannot follow.
            var others = after.Remaining.Where(s => !waiting.Contains(s.Id) && !s.MovesLift && s.Kind != StepKind.Warm
                && after.InTheWay(s, now).Count == 0).ToList();
            // An engine that runs is switched off before anything else.
            if (others.Count > 0 && next.Kind != StepKind.Settle && !(next.Kind == StepKind.Run && card.EngineRuns))
                Assert.True(next.Id != after.Next!.Id, $"“{next.Title}” again, not “{others[0].Title}”");
            // With a move of the lift waits what needs the lift where it does not go.
            if (next.MovesLift && others.Count > 0)
                Assert.NotEqual(card.LiftUp ? LiftNeed.Down : LiftNeed.Up, after.Next!.Lift);
            if (!next.MovesLift)
                Assert.Contains(after.BeforeSigning(), r => r.Step == next.Id && r.What.EndsWith("is left for later."));
        });
    }

    // "Do it now" of what was put aside: either it comes next, or it is said why not; never is something taken that changes nothing.
    [Theory]
    [InlineData("tarn-courier-20d", "engine-oil-and-filter")]
    [InlineData("corran-fen-12", "tyre-rotation air-filter")]
    public void Whatever_is_taken_early_changes_the_order(string sheet, string jobs)
    {
        AtEveryStep(sheet, jobs, (card, now) =>
        {
            if (card.Next is not { } next)
                return;
            var after = Given(card, new PutAside(next.Id, "Waits for a part"), now);
            foreach (var step in after.Steps)
                Tried(after, step.Id);
            // And while all else is done around it.
            for (var presses = 0; presses < 80 && after.Next is { } other && other.Id != next.Id; presses++)
            {
                now += other.Takes + (other.Wait?.Lasts ?? TimeSpan.Zero);
                if (after.Decide(UsualPress.Of(after, other), Iona, now, UsualPress.Facts(after.Sheet)) is not Accepted pressed)
                    break;
                after = after.Taking(pressed, Guid.NewGuid(), Iona, now).Card;
                Tried(after, next.Id);
            }

            void Tried(JobCard at, StepId step)
            {
                if (at.Decide(new TakeEarly(step), Iona, now) is Accepted taken)
                    Assert.True(taken.Events.OfType<PlanChanged>().Any(), $"{step} is taken early, and stays where it was");
            }
        });
    }

    [Fact]
    public void What_was_left_for_later_and_is_done_lets_the_rest_take_its_best_order_again()
    {
        var now = new DateTimeOffset(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);
        var card = On("corran-fen-12", "tyre-rotation", "air-filter");
        card = Given(card, new ConfirmKit("lay-out-kit", new Dictionary<PartId, Kit.KitPart> { ["air-filter"] = new(Kit.KitChoice.InHand) },
            [], new Dictionary<FluidId, Kit.OilLaidOut>()), now);
        card = Given(card, new PutAside("bonnet-off", "The latch is stuck"), now);
        Assert.NotEqual("bonnet-off", card.Next!.Id);
        card = Given(card, new ConfirmStep("bonnet-off"), now);
        Assert.Equal("“Open the bonnet and prop it” is done", card.History.Select(h => h.Event).OfType<PlanChanged>().Last().Why);
        Assert.Equal(card.PlanFrom(now).Steps.Select(s => s.Id), card.Remaining.Select(s => s.Id));
    }

    [Fact]
    public void A_card_goes_on_with_the_steps_it_was_opened_with()
    {
        var sheet = ComposerTests.Sheets["corran-fen-12"];
        IReadOnlyList<SheetStep> steps = [.. Planning.CardPlanner.Compose(sheet, ["air-filter"]).Where(s => s.Id != "label")];
        var card = Rehearsal.CardWalk.Open(sheet, ["air-filter"], steps);
        Assert.DoesNotContain(card.PlanFrom(card.History[0].At).Steps, s => s.Id == "label");
        Assert.Equal(steps.Where(s => !s.MovesLift).Select(s => s.Id.Text).Order(),
            card.PlanFrom(card.History[0].At).Steps.Where(s => !s.MovesLift).Select(s => s.Id.Text).Order());
    }

    [Fact]
    public void After_a_stop_nothing_that_runs_is_planned_until_it_is_decided()
    {
        var bench = new Workbench();
        bench.WorkUpTo("drain");
        Assert.Contains(bench.Card.PlanFrom(bench.Now).Steps, s => s.Kind == StepKind.Run);
        bench.Do(new NoteFinding("look-at-plug", FindingGrade.Stop, "Slivers on the magnet"));
        Assert.DoesNotContain(bench.Card.PlanFrom(bench.Now).Steps, s => s.Kind == StepKind.Run);
        bench.Do(new DecideStop(bench.Card.Findings.Single().Seq, true, "New bearing"), Una);
        Assert.Contains(bench.Card.PlanFrom(bench.Now).Steps, s => s.Kind == StepKind.Run);
    }
}
