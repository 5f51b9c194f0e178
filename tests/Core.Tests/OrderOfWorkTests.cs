using Anakyklos.Core.Planning;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>An order that a technician accepts: rules that hold on every plan of every sheet, for one person and for two.</summary>
public class OrderOfWorkTests
{
    public static TheoryData<string, int> Plans
    {
        get
        {
            var all = new TheoryData<string, int>();
            foreach (var sheet in ComposerTests.Sheets.Keys.Order())
            {
                all.Add(sheet.Text, 1);
                all.Add(sheet.Text, 2);
            }
            return all;
        }
    }

    private static IEnumerable<CardPlan> Of(string sheetId, int people)
    {
        var sheet = ComposerTests.Sheets[sheetId];
        yield return CardPlanner.Plan(sheet, sheet.Jobs.Keys, people);
        foreach (var job in sheet.Jobs.Keys)
            yield return CardPlanner.Plan(sheet, [job], people);
    }

    private static PlannedStep? Row(CardPlan plan, Func<SheetStep, bool> which) => plan.Rows.FirstOrDefault(r => which(r.Step));

    private static void Before(PlannedStep? a, PlannedStep? b, string why) => Assert.True(a is null || b is null || a.Ends <= b.Begins,
        $"{a?.Step.Id} should be before {b?.Step.Id}: {why}");

    [Theory]
    [MemberData(nameof(Plans))]
    public void Every_rule_of_order_holds(string sheetId, int people)
    {
        foreach (var plan in Of(sheetId, people))
        {
            var sheet = plan.Work.Sheet;
            Holding(plan, sheet);
            Warmth(plan, sheet);
            foreach (var drive in plan.Rows.Where(r => r.Step.Kind == StepKind.Drive))
            {
                Before(drive, Row(plan, s => s.Kind == StepKind.Reset), "no display is reset on the road");
                Before(drive, Row(plan, s => s.Id == "label"), "the label is written after the work");
                foreach (var row in plan.Rows.Where(r => r.Step.Cautions.Contains("brakes") && r.Step.Kind == StepKind.Do))
                    Before(row, drive, "the pedal is tested before it is driven");
                if (plan.Rows.Any(r => r.Step.Kind == StepKind.Look))
                    Assert.Contains(plan.Rows, r => r.Step.Kind == StepKind.Look && r.Begins >= drive.Ends);
            }
            foreach (var look in plan.Rows.Where(r => r.Step.Kind == StepKind.Look))
                foreach (var cover in plan.Rows.Where(r => r.Step.Kind == StepKind.Close && sheet.Access[r.Step.What].AfterLeakCheck))
                    Before(look, cover, "a cover goes on after the look that it would hide");
            foreach (var reset in plan.Rows.Where(r => r.Step.Kind == StepKind.Reset))
                foreach (var row in plan.Rows.Where(r => r.Step.Kind is StepKind.Pour or StepKind.Gauge or StepKind.Fit
                    or StepKind.Tighten or StepKind.Run or StepKind.Look))
                    Before(row, reset, "the indicator is put out when the work is done");
        }
    }

    [Theory]
    [MemberData(nameof(Plans))]
    public void What_is_done_again_comes_before_the_cover_that_it_is_reached_through(string sheetId, int people)
    {
        var sheet = ComposerTests.Sheets[sheetId];
        var work = CardPlanner.Plan(sheet, sheet.Jobs.Keys).Work;
        foreach (var close in work.Steps.Where(s => s.Kind == StepKind.Close && !sheet.Access[s.What].HoldsVehicle))
            foreach (var again in work.Steps.Where(s => s.Needs.Contains(close.What)))
            {
                var done = work.Steps.Select(s => s.Id).Where(id => id != close.Id && id != again.Id).ToHashSet();
                var left = CardPlanner.Order(work, PlanStart.Fresh with { Done = done, LiftUp = again.Lift == LiftNeed.Up }, people).Steps;
                Assert.Equal([again.Id, close.Id], left.Where(s => !s.MovesLift).Select(s => s.Id));
                // What the card refuses by, when somebody takes the cover early.
                Assert.Contains(again.Id, close.After.Concat(close.Awaits));
            }
    }

    // The engine is warm, and a spark plug turns out not to be tight: warm oil waits for it, and no step is lost.
    [Fact]
    public void What_must_come_before_a_warm_drain_is_done_again_before_it()
    {
        var sheet = ComposerTests.Sheets["corran-fen-12"];
        var work = CardPlanner.Plan(sheet, ["engine-oil-and-filter", "tyre-rotation", "spark-plugs"]).Work;
        HashSet<StepId> done = ["lay-out-kit", "bonnet-off", "wheel-chocks-set", "undo-spark-plugs-in", "read-old-plugs", "fit-spark-plug",
            "warm-up"];
        HashSet<StepId> again = ["tighten-spark-plugs-in"];
        var left = CardPlanner.Order(work, PlanStart.Fresh with { Done = done, Reopened = again }).Steps.Select(s => s.Id).ToList();
        Assert.Empty(work.Steps.Select(s => s.Id).Except(done).Except(left));
        Assert.True(left.IndexOf("tighten-spark-plugs-in") < left.IndexOf("coils-on"));
        Assert.True(left.IndexOf("coils-on") < left.IndexOf("drain-engine-oil"));
    }

    private static void Holding(CardPlan plan, ModelSheet sheet)
    {
        foreach (var hold in sheet.Access.Values.Where(a => a.HoldsVehicle))
        {
            var spans = plan.Rows.Where(r => r.Step.Kind == StepKind.Secure && r.Step.What == hold.Id).OrderBy(r => r.Begins)
                .Zip(plan.Rows.Where(r => r.Step.Kind == StepKind.Close && r.Step.What == hold.Id).OrderBy(r => r.Begins)).ToList();
            bool Inside(PlannedStep row) => spans.Any(s => s.First.Ends <= row.Begins && row.Ends <= s.Second.Begins);
            foreach (var row in plan.Rows)
            {
                if (row.Step.Lift == LiftNeed.Up && !row.Step.MovesLift)
                    Assert.True(Inside(row), $"{row.Step.Id} without {hold.Id}");
                if (sheet.Stands == Stand.Ground && row.Step.Kind is StepKind.Open or StepKind.Drain or StepKind.Tighten or StepKind.Gauge)
                    Assert.True(Inside(row), $"{row.Step.Id} without {hold.Id}: a level is read in the position it is read in");
                if (row.Step.IsDriven || (hold.ClosedToRun && row.Step.RunsEngine))
                    Assert.DoesNotContain(spans, s => s.First.Begins < row.Ends && row.Begins < s.Second.Ends);
            }
        }
    }

    private static void Warmth(CardPlan plan, ModelSheet sheet)
    {
        foreach (var warm in plan.Rows.Where(r => r.Step.Kind == StepKind.Warm))
            foreach (var drain in plan.Rows.Where(r => r.Step.Kind == StepKind.Drain
                && sheet.Fluids[sheet.Fasteners[r.Step.What].Drains!.Value].DrainHot))
                Assert.InRange(drain.Begins - warm.Ends, TimeSpan.Zero, TimeSpan.FromMinutes(25));
        foreach (var settle in plan.Rows.Where(r => r.Step.Kind == StepKind.Settle))
            foreach (var gauge in plan.Rows.Where(r => r.Step.Kind == StepKind.Gauge && sheet.Fluids[r.Step.What].Pumped))
                Assert.InRange(gauge.Begins - settle.Ends, TimeSpan.Zero, TimeSpan.FromMinutes(45));
        foreach (var turn in plan.Rows.Where(r => r.Step.WheelsTurn))
            foreach (var gauge in plan.Rows.Where(r => r.Step.Kind == StepKind.Gauge))
                Assert.True(gauge.Step.After.Contains(turn.Step.Id) ? gauge.Begins - turn.Ends <= TimeSpan.FromMinutes(2)
                    : gauge.Begins >= turn.Ends + TimeSpan.FromMinutes(5),
                    $"{gauge.Step.Id} at {gauge.Begins} after {turn.Step.Id} at {turn.Ends}");
    }

    [Theory]
    [MemberData(nameof(Plans))]
    public void Nothing_stays_open_to_dust_or_damp_for_an_hour(string sheetId, int people)
    {
        if (people == 2)
            return;
        var plan = Of(sheetId, people).First();
        foreach (var access in plan.Work.Sheet.Access.Values.Where(a => a.Intake || a.Cautions.Contains("brake-fluid")
            || a.Id == "glove-box"))
            if (Row(plan, s => s.What == access.Id && s.Kind == StepKind.Open) is { } open && Row(plan, s => s.What == access.Id
                && s.Kind == StepKind.Close) is { } close)
                Assert.True(close.Begins - open.Ends < TimeSpan.FromMinutes(60), $"{access.Id} stands open for {close.Begins - open.Ends}");
    }

    [Fact]
    public void Measured_before_slackening_adjusted_before_guarding_measured_again() => InOrder("maelor-ridge-900", ["belt"],
        "belt-tension", "slacken-axle", "adjust-belt", "tighten-rear-axle-nut", "belt-tension-again", "fit-split-pin");

    [Fact]
    public void The_old_inner_filter_comes_out_before_its_seal_goes_in() => InOrder("hespin-16", ["gearbox-oil"],
        "undo-gearbox-pan", "inner-filter-down", "fit-filter-seal", "fit-gearbox-filter", "fit-pan-gasket", "tighten-gearbox-pan");

    [Theory]
    [InlineData("corran-fen-12", "tighten-wheels")]
    [InlineData("hespin-16", "tighten-wheel-nuts")]
    public void The_last_torque_of_a_wheel_is_given_on_the_ground(string sheet, string tighten) =>
        InOrder(sheet, ["tyre-rotation"], "wheels-off", "rotate-tyres", "wheels-on", "lower", tighten, "pressures");

    [Fact]
    public void The_seat_goes_on_when_the_socket_under_it_was_used() => InOrder("skelling-tourer-1100", ["engine-oil-and-filter"],
        "seat-off", "reset-service-lines-5", "seat-on");

    [Fact]
    public void The_key_is_back_before_it_is_needed_and_away_again_under_the_vehicle() => InOrder("lumen-ardent", ["engine-oil-and-filter"],
        "key-away-set", "drain-engine-oil", "key-away-on", "start", "stop", "key-away-set-again", "look-at-joints", "key-away-on-again",
            "reset-maintenance-message-1");

    [Fact]
    public void The_jacking_position_ends_last() => InOrder("hespin-16", ["rear-axle-oil"], "wheel-chocks-set", "wheel-chocks-on",
        "jacking-position-on");

    private static void InOrder(string sheetId, JobId[] jobs, params StepId[] ids)
    {
        var plan = CardPlanner.Plan(ComposerTests.Sheets[sheetId], jobs);
        var order = plan.Steps.Select(s => s.Id).Where(ids.Contains).ToList();
        Assert.Equal(ids, order);
    }

    [Fact]
    public void A_motorcycle_is_not_ridden_while_it_is_held()
    {
        var sheet = ComposerTests.Sheets["maelor-ridge-900"];
        Assert.True(sheet.Steps["warm-up"].Moves);
        var plan = CardPlanner.Plan(sheet, ["engine-oil-and-filter", "gearbox-oil"]);
        Holding(plan, sheet);
        Assert.Equal("warm-up", plan.Steps.First(s => s.Kind != StepKind.Kit).Id);
    }

    [Fact]
    public void A_step_takes_as_long_as_what_it_says()
    {
        foreach (var sheet in ComposerTests.Sheets.Values)
            foreach (var step in CardPlanner.Compose(sheet, sheet.Jobs.Keys))
            {
                if (step.Hold is { } hold)
                    Assert.True(step.Takes >= hold, $"{sheet.Id} {step.Id}");
                if (step.Value.EndsWith(" min", StringComparison.Ordinal) || step.Value.Contains(" min "))
                    Assert.True(step.Takes >= TimeSpan.FromMinutes(int.Parse(step.Value.Split(' ')[0])),
                        $"{sheet.Id} {step.Id} takes {step.Takes}, but says {step.Value}");
            }
    }

    [Fact]
    public void Whoever_drives_is_alone_with_it_and_nobody_sits_in_it_while_it_is_up()
    {
        foreach (var sheet in ComposerTests.Sheets.Values)
        {
            var plan = CardPlanner.Plan(sheet, sheet.Jobs.Keys, 2);
            ComposerTests.Holds(plan);
        }
    }
}
