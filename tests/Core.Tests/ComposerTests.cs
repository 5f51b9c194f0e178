using Anakyklos.Core.Ordering;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Tests;

/// <summary>What a set of jobs asks for, on the depot's own sheets. What is expected is worked out from the sheets by hand.</summary>
public class ComposerTests
{
    internal static readonly IReadOnlyDictionary<SheetId, ModelSheet> Sheets = Shipped.Sheets;

    private static string[] Files => Shipped.Files;

    private static readonly ModelSheet Brae = Sheets["ostler-brae-28d"];

    internal static readonly JobId[] FullService =
        ["engine-oil-and-filter", "gearbox-oil", "transfer-oil", "front-axle-oil", "rear-axle-oil", "air-filter", "fuel-filter", "grease",
        "coolant", "brake-fluid"];

    private static int At(IReadOnlyList<SheetStep> steps, string id) => steps.Select((s, i) => (s, i)).Single(p => p.s.Id == id).i;

    public static TheoryData<string, string> AllJobs()
    {
        var data = new TheoryData<string, string>();
        foreach (var sheet in Sheets.Values)
            foreach (var job in sheet.Jobs.Keys)
                data.Add(sheet.Id.Text, job.Text);
        return data;
    }

    [Fact]
    public void Seven_models_are_shipped_and_every_one_of_their_sheets_holds()
    {
        Assert.Equal(7, Sheets.Count);
        Assert.All(Files, f => Assert.Empty(SheetRehearsal.Read(File.ReadAllBytes(f)).Errors));
    }

    [Theory]
    [MemberData(nameof(ReplanningTests.Models), MemberType = typeof(ReplanningTests))]
    public void The_engine_bay_is_looked_over_after_the_last_tool_was_used_there(string id)
    {
        var sheet = Sheets[id];
        foreach (var job in sheet.Jobs.Keys)
        {
            var steps = CardPlanner.Plan(sheet, [job, .. sheet.Jobs.Keys.Where(j => j == "road-test")], 1).Steps.ToList();
            var last = steps.FindLastIndex(s => s.Place == Place.Top
                && ((s.Traits.Fastens && sheet.Fasteners[s.What].Drive != "by hand")
                    || (s.Traits.Closes && !sheet.Access[s.What].Tool.Contains("by hand"))));
            if (last >= 0 && !sheet.IsMotorcycle)
                Assert.True(last < steps.FindLastIndex(s => s.Traits.LooksOver), $"{job}: “{steps[last].Title}” is the last");
        }
    }

    [Theory]
    [MemberData(nameof(AllJobs))]
    public void Every_job_closes_what_it_opens_and_respects_its_own_order(string sheet, string job) =>
        Holds(CardPlanner.Plan(Sheets[sheet], [job]));

    [Fact]
    public void Two_oils_open_the_skid_plate_once_and_close_it_after_the_leak_check()
    {
        var steps = CardPlanner.Compose(Brae, ["gearbox-oil", "transfer-oil"]);
        Assert.Single(steps, s => s.What == "rear-skid-plate" && s.Kind == StepKind.Open);
        Assert.Single(steps, s => s.What == "rear-skid-plate" && s.Kind == StepKind.Close);
        // Once before the road and once after it.
        Assert.Equal(["look-at-joints", "look-at-joints-again"], steps.Where(s => s.Kind == StepKind.Look).Select(s => s.Id.Text));
        Assert.True(At(steps, "look-at-joints-again") < At(steps, "rear-skid-plate-on"));
        Assert.True(At(steps, "tighten-transfer-fill-plug") < At(steps, "look-at-joints"));
    }

    [Fact]
    public void A_fill_plug_is_proven_before_its_drain_plug_is_touched()
    {
        var steps = CardPlanner.Compose(Brae, FullService);
        foreach (var fill in Brae.Fasteners.Values.Where(f => f.Fills is not null))
            Assert.True(At(steps, $"undo-{fill.Id}") < At(steps, $"drain-{fill.Fills}"), fill.Name);
    }

    [Fact]
    public void Coolant_is_drained_cold_and_back_before_the_engine_is_warmed_for_the_oil()
    {
        var steps = CardPlanner.Compose(Brae, ["engine-oil-and-filter", "coolant"]);
        Assert.True(At(steps, "drain-coolant") < At(steps, "fill-coolant"));
        Assert.True(At(steps, "fill-coolant") < At(steps, "warm-up"));
        Assert.True(At(steps, "warm-up") < At(steps, "drain-engine-oil"));
    }

    [Fact]
    public void Plugs_come_out_cold_before_the_engine_is_warmed()
    {
        var steps = CardPlanner.Compose(Sheets["corran-fen-12"], ["engine-oil-and-filter", "spark-plugs"]);
        Assert.True(At(steps, "tighten-spark-plugs-in") < At(steps, "warm-up"));
        Assert.True(At(steps, "coils-on") < At(steps, "warm-up"));
    }

    [Fact]
    public void An_axle_alone_needs_no_engine_but_a_look()
    {
        var kinds = CardPlanner.Compose(Brae, ["front-axle-oil"]).Select(s => s.Kind).ToList();
        Assert.DoesNotContain(StepKind.Run, kinds);
        Assert.DoesNotContain(StepKind.Warm, kinds);
        Assert.Contains(StepKind.Look, kinds);
    }

    [Fact]
    public void A_fuel_filter_is_primed_before_the_start()
    {
        foreach (var id in new[] { "ostler-brae-28d", "tarn-courier-20d", "skelling-tourer-1100" })
        {
            var steps = CardPlanner.Compose(Sheets[id], ["fuel-filter"]);
            Assert.True(At(steps, "prime-fuel") < At(steps, "start"), id);
        }
    }

    [Fact]
    public void A_motorcycle_has_no_lift()
    {
        foreach (var id in new[] { "maelor-ridge-900", "skelling-tourer-1100" })
            Assert.DoesNotContain(CardPlanner.Compose(Sheets[id], Sheets[id].Jobs.Keys), s => s.MovesLift || s.Lift != LiftNeed.Any);
    }

    [Fact]
    public void The_automatic_gets_back_what_was_measured_and_is_read_hot()
    {
        var steps = CardPlanner.Compose(Sheets["hespin-16"], ["gearbox-oil"]);
        string[] order = ["drain-gearbox-oil", "undo-gearbox-pan", "tighten-gearbox-pan", "fill-gearbox-oil", "start", "gears-through",
            "level-gearbox-oil"];
        Assert.Equal(order, order.OrderBy(id => At(steps, id)));
        Assert.True(At(steps, "measure-gearbox-oil") < At(steps, "fill-gearbox-oil"));
    }

    [Fact]
    public void Wheels_are_bled_in_the_order_of_each_model()
    {
        StepId[] Order(string sheet) => [.. CardPlanner.Compose(Sheets[sheet], ["brake-fluid"]).Where(s => s.Id.Text.StartsWith("bleed"))
            .Select(s => s.Id)];
        Assert.Equal(["bleed-rear-right", "bleed-rear-left", "bleed-front-right", "bleed-front-left"], Order("corran-fen-12"));
        Assert.Equal(["bleed-rear-left", "bleed-rear-right", "bleed-front-right", "bleed-front-left", "bleed-clutch"],
            Order("ostler-brae-28d"));
    }

    [Fact]
    public void The_full_service_is_proven_and_its_waits_are_filled()
    {
        var plan = CardPlanner.Plan(Brae, FullService);
        Holds(plan);
        Assert.True(plan.Ordered.IsProven);
        Assert.True(plan.Total < plan.OneAfterAnother);
        Assert.Contains("Engine oil runs out", plan.Rows.SelectMany(r => plan.Why(r.Step.Id).Fills));
    }

    [Fact]
    public void The_plan_says_why_a_step_stands_there()
    {
        var plan = CardPlanner.Plan(Brae, ["rear-axle-oil"]);
        Assert.Contains(plan.Why("drain-rear-axle-oil").Needs, n => n.Contains("rear axle fill plug is proven loose"));
        Assert.Contains(plan.Why("raise").Needs, n => n.Contains("is needed for"));
    }

    [Fact]
    public void Two_people_are_never_slower_and_both_bleed_the_brakes()
    {
        foreach (var sheet in Sheets.Values)
        {
            var (one, two) = (CardPlanner.Plan(sheet, sheet.Jobs.Keys), CardPlanner.Plan(sheet, sheet.Jobs.Keys, 2));
            Assert.True(two.Total <= one.Total, $"{sheet.Id}: {two.Total} against {one.Total}");
            Assert.True(two.Bound <= two.Total);
            Holds(two);
        }
    }

    /// <summary>An account of a plan that knows nothing of how it was made: each step once, nothing before what it needs, no span broken,
    /// the lift where it must be.</summary>
    internal static void Holds(CardPlan plan)
    {
        var work = plan.Work;
        Assert.Equal(work.Steps.Select(s => s.Id).Order(), plan.Rows.Where(r => !r.Step.MovesLift).Select(r => r.Step.Id).Order());
        var at = plan.Rows.ToDictionary(r => r.Step.Id);
        foreach (var link in work.Links)
            Assert.True(at[link.Before].Ends + link.Lag <= at[link.After].Begins, $"{link.Before} before {link.After}");
        foreach (var span in work.Spans)
            foreach (var barred in span.Barred)
                Assert.True(at[barred].Ends <= at[span.Opens].Begins || at[barred].Begins >= at[span.Closes].Ends,
                    $"{barred} while {span.Why}");
        foreach (var what in work.Opened)
        {
            // What holds the vehicle is set a second time where there is work after a road test.
            var times = work.Sheet.Access.TryGetValue(what, out var access) && access.HoldsVehicle ? work.Steps.Count(s => s.What == what
                && s.Kind == StepKind.Secure) : 1;
            Assert.InRange(times, 1, 2);
            Assert.Equal(times, work.Steps.Count(s => s.What == what && s.Kind is StepKind.Open or StepKind.Drain or StepKind.Secure));
            Assert.Equal(times, work.Steps.Count(s => s.What == what && s.Kind is StepKind.Close or StepKind.Tighten));
        }
        foreach (var alone in plan.Rows.Where(r => r.Step.Alone))
            Assert.DoesNotContain(plan.Rows, r => r != alone && r.Begins < alone.Ends && alone.Begins < r.Ends
                && r.Step.Kind != StepKind.Kit && r.Step.Id != "used-oil");
        Assert.DoesNotContain(plan.Rows, r => r.Step.Place == Place.Cab && r.Step.Lift != LiftNeed.Down && work.Sheet.Stands == Stand.Lift);
        var up = false;
        foreach (var row in plan.Rows.OrderBy(r => r.Begins).ThenBy(r => r.Ends))
        {
            if (row.Step.Kind is StepKind.Raise or StepKind.Lower)
            {
                Assert.NotEqual(row.Step.Kind == StepKind.Raise, up);
                up = !up;
                Assert.DoesNotContain(plan.Rows, r => r != row && r.Begins < row.Ends && row.Begins < r.Ends);
            }
            else if (!row.Step.MovesLift && row.Step.Lift != LiftNeed.Any)
                Assert.Equal(row.Step.Lift == LiftNeed.Up, up);
        }
        Assert.False(up);
        foreach (var person in plan.Rows.GroupBy(r => r.Person))
            foreach (var (a, b) in person.OrderBy(r => r.Begins).Zip(person.OrderBy(r => r.Begins).Skip(1)))
                Assert.True(a.Ends <= b.Begins, $"{a.Step.Id} and {b.Step.Id} by one person at once");
        Assert.Equal(plan.Total, plan.Rows.Max(r => r.Ends));
    }
}
