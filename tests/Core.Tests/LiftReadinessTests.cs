using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.WayOutTests;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>What is looked at before the lift moves holds for that move alone.</summary>
public sealed class LiftReadinessTests
{
    private static JobCard Pressed(JobCard card, DateTimeOffset now, SheetStep step) => Given(card, UsualPress.Of(card, step), now);

    [Fact]
    public void Lifting_points_looked_at_for_a_later_move_are_looked_at_again_once_the_lift_has_moved()
    {
        var bench = new Workbench();
        bench.WorkUpTo("lifting-points");
        var later = bench.Card.Steps.Where(s => s.Traits.Lift == LiftMove.ReadyToRaise).Select(s => s.Id).ToList();
        Assert.Equal(2, later.Count);
        bench.Do(new ConfirmStep(later[1]));
        bench.Do(new ConfirmStep(later[0]));
        bench.Do(new ConfirmStep("raise"));
        Assert.Equal(StepStatus.Done, bench.Card.State(later[0]).Status);
        Assert.Single(bench.Card.Remaining, s => s.Traits.Lift == LiftMove.ReadyToRaise);
    }

    [Fact]
    public void The_space_below_is_looked_at_after_the_last_work_there()
    {
        var bench = new Workbench();
        bench.WorkUpTo("tighten-drain-plug");
        var look = new ConfirmStep(bench.Card.Remaining.First(s => s.Traits.Lift == LiftMove.ReadyToLower).Id);
        // While the plug is out the pan stays under it.
        Assert.Equal("The engine drain plug is not tightened.", Assert.Single(bench.Refusals(look)).What);
        bench.Do(new TakeReading("tighten-drain-plug", Nm(38)));
        bench.Do(look);
        var before = bench.Card.Remaining.Count(s => s.Traits.Lift == LiftMove.ReadyToLower);
        var below = bench.Card.Remaining.First(s => s.Lift == LiftNeed.Up && !s.MovesLift);
        bench.Do(new ConfirmStep(below.Id));
        Assert.Equal(before + 1, bench.Card.Remaining.Count(s => s.Traits.Lift == LiftMove.ReadyToLower));
        // What is done in the cab or above changes nothing down there.
        bench.WorkUpTo("lower");
        Assert.Equal("lower", bench.Card.Next!.Id.Text);
    }

    [Fact]
    public void A_joint_below_tightened_without_a_reading_was_work_there_too()
    {
        var tried = 0;
        AtEveryStep("hespin-16", "rear-axle-oil", (card, now) =>
        {
            if (card.Next is not { Traits.LooksAtJoints: true } look || card.InTheWay(look, now).Count > 0)
                return;
            var leaks = Given(card, new ReportLeak(look.Id, "rear-axle-fill-plug"), now);
            var below = leaks.Remaining.First(s => s.Traits.Lift == LiftMove.ReadyToLower);
            var looked = Given(leaks, new ConfirmStep(below.Id), now);
            Assert.Equal(StepStatus.Done, looked.State(below.Id).Status);
            var tighten = looked.Remaining.First(s => s.Traits.Tightens && s.What == "rear-axle-fill-plug");
            var tight = Given(looked, new Deviate(tighten.Id, DeviationKind.NoReading, "No wrench fits"), now);
            Assert.Equal(StepStatus.Waiting, tight.State(below.Id).Status);
            tried++;
        });
        Assert.True(tried > 0);
    }

    [Fact]
    public void A_vehicle_that_was_driven_stands_on_no_lifting_points_that_were_looked_at_before()
    {
        var tried = 0;
        AtEveryStep("hespin-16", "brake-fluid engine-oil-and-filter", (card, now) =>
        {
            if (card.Away is not null || card.Next is not { IsDriven: true } road
                || card.Remaining.FirstOrDefault(s => s.Traits.Lift == LiftMove.ReadyToRaise)
                is not { } points)
                return;
            var left = card.Remaining.Count(s => s.Traits.Lift == LiftMove.ReadyToRaise);
            var driven = Pressed(card, now, points);
            while (driven.State(road.Id).Status != StepStatus.Done)
                driven = Pressed(driven, now, road);
            Assert.Equal(left, driven.Remaining.Count(s => s.Traits.Lift == LiftMove.ReadyToRaise));
            tried++;
        });
        Assert.True(tried > 0);
    }

    [Fact]
    public void While_a_stop_holds_the_engine_nobody_is_sent_to_a_later_move_of_the_lift()
    {
        var held = 0;
        AtEveryStep("hespin-16", "brake-fluid engine-oil-and-filter", (card, now) =>
        {
            if (card.Next is not { Traits.Engine: EngineUse.Starts } start)
                return;
            var stopped = Given(card, new NoteFinding(start.Id, FindingGrade.Stop, "Slivers"), now);
            while (stopped.Next is { } next && next.Id != start.Id)
            {
                Assert.False(next.MovesLift, $"“{next.Title}” is offered while “{start.Title}” is held");
                stopped = Pressed(stopped, now += TimeSpan.FromMinutes(70), next);
            }
            held++;
        });
        Assert.True(held > 0);
    }
}
