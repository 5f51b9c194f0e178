using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Records;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.WayOutTests;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>A job is given up at every step of a card: what it opened is closed, what others need goes on, and no more than that.</summary>
public sealed class DroppingTests
{
    public static TheoryData<string, string, string> Pairs => new()
    {
        { "tarn-courier-20d", "engine-oil-and-filter", "air-filter" },
        { "tarn-courier-20d", "fuel-filter", "engine-oil-and-filter" },
        { "corran-fen-12", "brake-fluid", "air-filter" },
        { "hespin-16", "rear-axle-oil", "cabin-filter" },
        { "hespin-16", "gearbox-oil", "tyre-rotation" },
        { "maelor-ridge-900", "belt", "engine-oil-and-filter" },
        { "skelling-tourer-1100", "brake-fluid", "gearbox-oil" },
    };

    // What a step may do that serves only the job that was given up: it closes, fills, proves, or puts the vehicle back.
    private static readonly string[] Puts =
    [
        StepKind.Close, StepKind.Tighten, StepKind.Fit, StepKind.Pour, StepKind.Measure, StepKind.Gauge, StepKind.Run, StepKind.Settle,
        StepKind.Look, StepKind.Clear, StepKind.Prime, StepKind.Raise, StepKind.Lower, StepKind.Secure, StepKind.Bleed,
        StepKind.Refill,
    ];

    [Theory]
    [MemberData(nameof(Pairs))]
    public void What_it_opened_is_closed_and_the_rest_goes_on(string sheet, string job, string other)
    {
        var at = 0;
        AtEveryStep(sheet, $"{job} {other}", (card, now) =>
        {
            if (at++ % 3 != 0 || card.Next is null || card.Remaining.All(s => !s.Jobs.Contains(job) || s.MovesLift))
                return;
            var (open, after) = (card.Open, Given(card, new DropJob(job, "Cannot be finished"), now));
            Assert.Equal([(JobId)job], after.Dropped.Select(d => d.Event.Job));
            Assert.Equal(card.Remaining.Where(s => s.Jobs.Contains(other) && !s.MovesLift).Select(s => s.Id).Order(ById),
                after.Remaining.Where(s => s.Jobs.Contains(other) && !s.MovesLift).Select(s => s.Id).Order(ById));
            Assert.Equal(card.Steps.Where(s => card.State(s.Id).Status == StepStatus.Done).Select(s => s.Id),
                after.Steps.Where(s => after.State(s.Id).Status == StepStatus.Done).Select(s => s.Id));
            foreach (var step in after.Remaining.Where(s => !s.Jobs.Contains(other)))
            {
                Assert.True(Puts.Contains(step.Kind) || step.Id.Text.Contains("used-oil") || step.Id.Text.EndsWith("-again")
                    || (step.Kind == StepKind.Pedal && AreOpened(card)), $"“{step.Title}” is left of {job}");
                if (step.Kind is StepKind.Close or StepKind.Tighten or StepKind.Bleed && !step.Id.Text.EndsWith("-again"))
                    Assert.Contains(after.Open, o => o.Id == step.What);
            }
            foreach (var item in open.Where(o => o.Kind is OpenKind.Access or OpenKind.Fastener))
                Assert.NotNull(after.Closing(item));
            if (card.Open.All(o => o.Kind is OpenKind.Access or OpenKind.Indicator or OpenKind.Lift) && !card.JointsOpened.Any())
                Assert.DoesNotContain(after.Remaining, s => !s.Jobs.Contains(other)
                    && s.Kind is StepKind.Run or StepKind.Settle or StepKind.Look or StepKind.Pour or StepKind.Gauge or StepKind.Fit);
            // What holds the vehicle goes last of what still needs it up.
            var ups = after.Remaining.Where(s => s.Lift == LiftNeed.Up).Select(s => s.Id).ToHashSet();
            var held = after.Steps.SkipWhile(s => !(s.Kind == StepKind.Close && after.Sheet.Access[s.What].HoldsVehicle
                && after.Remaining.Contains(s) && !after.Remaining.Any(x => x.Kind == StepKind.Secure && x.What == s.What)));
            Assert.DoesNotContain(held, s => ups.Contains(s.Id));
            Finish(after, now);
        });
    }

    private static bool AreOpened(JobCard card) =>
        card.Steps.Any(s => s.Kind == StepKind.Suck && card.State(s.Id).Status == StepStatus.Done)
        || card.History.Any(h => h.Event is StrokesMade);

    [Theory]
    [InlineData("corran-fen-12")]
    [InlineData("hespin-16")]
    [InlineData("ostler-brae-28d")]
    public void Brakes_that_were_opened_are_felt_though_their_job_is_given_up(string sheet)
    {
        var (felt, spared) = (0, 0);
        AtEveryStep(sheet, "brake-fluid air-filter", (card, now) =>
        {
            if (!card.Remaining.Any(s => s.Kind == StepKind.Pedal && s.Jobs.Contains("brake-fluid")))
                return;
            var after = Given(card, new DropJob("brake-fluid", "Screw is seized"), now);
            var opened = AreOpened(card);
            Assert.Equal(opened, after.Remaining.Any(s => s.Kind == StepKind.Pedal));
            Assert.Equal(opened, after.Holds.Any());
            // Nothing is looked at after a road that nobody drives.
            Assert.DoesNotContain(after.Remaining, s => s.Kind == StepKind.Drive
                || (s.Kind == StepKind.Look && s.Id.Text.EndsWith("-again")));
            (felt, spared) = (felt + (opened ? 1 : 0), spared + (opened ? 0 : 1));
            Finish(after, now);
        });
        Assert.True(felt > 2 && spared > 2, $"{felt} {spared}");
    }

    private static readonly Comparer<StepId> ById = Comparer<StepId>.Create((a, b) => string.CompareOrdinal(a.Text, b.Text));

    private static void Finish(JobCard card, DateTimeOffset now)
    {
        for (var presses = 0; card.Next is { } next; presses++)
        {
            Assert.True(presses < 300, $"“{next.Title}” comes again and again.");
            now += next.Takes + TimeSpan.FromMinutes(70);
            // What was given up half done holds the vehicle until the lead has put a name to it; only then is it driven.
            foreach (var seq in next.Spec is DriveSpec ? card.WantingCountersignature.ToList() : [])
                card = Given(card, new Countersign(seq), now, Una);
            card = Given(card, UsualPress.Of(card, next), now);
        }
        Assert.All(card.BeforeSigning(), r => Assert.EndsWith("needs a second name.", r.What));
        Assert.DoesNotContain(card.Open, o => o.Kind != OpenKind.Indicator);
    }

    [Theory]
    [InlineData("corran-fen-12")]
    [InlineData("hespin-16")]
    [InlineData("skelling-tourer-1100")]
    public void Brakes_given_up_hold_the_vehicle_only_once_they_were_begun(string sheet)
    {
        var (before, begun) = (0, 0);
        AtEveryStep(sheet, "brake-fluid air-filter", (card, now) =>
        {
            var bled = card.Steps.Where(s => s.Jobs.Contains("brake-fluid") && s.Kind is StepKind.Do or StepKind.Suck
                or StepKind.Pour or StepKind.Bleed or StepKind.Fit).ToList();
            if (!card.Remaining.Any(s => s.Kind == StepKind.Bleed || s.Id.Text.StartsWith("test-")))
                return;
            var isBegun = bled.Any(s => card.State(s.Id).Status == StepStatus.Done);
            var after = Given(card, new DropJob("brake-fluid", "No fluid left"), now);
            Assert.True(isBegun == after.Deviations.Any(d => d.Event is
            {
                Kind: DeviationKind.JobGivenUp, NeedsCountersignature: true, Reason: "No fluid left",
            } && d.Event.Part == "brake-fluid"), $"{isBegun} before “{card.Next!.Title}”");
            (before, begun) = (before + (isBegun ? 0 : 1), begun + (isBegun ? 1 : 0));
        });
        Assert.True(before > 2 && begun > 2, $"{before} {begun}");
    }

    [Fact]
    public void Jobs_are_told_in_the_order_in_which_they_were_given_up_and_a_lamp_stays_lit_with_its_job()
    {
        var now = new DateTimeOffset(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);
        var card = On("corran-fen-12", "air-filter", "engine-oil-and-filter", "cabin-filter", "tyre-rotation");
        Assert.Contains(card.Open, o => o.Kind == OpenKind.Indicator);
        card = Given(card, new DropJob("cabin-filter", "No filter here"), now);
        Assert.Contains(card.Open, o => o.Kind == OpenKind.Indicator && o.Id == "service-symbol");
        card = Given(card, new DropJob("air-filter", "No filter here"), now);
        Assert.Equal(["cabin-filter", "air-filter"], card.Dropped.Select(d => d.Event.Job));
        Assert.Equal(["engine-oil-and-filter", "tyre-rotation"], card.Jobs);
        card = Given(card, new DropJob("engine-oil-and-filter", "No oil here"), now);
        Assert.DoesNotContain(card.Open, o => o.Kind == OpenKind.Indicator);
        Assert.DoesNotContain(card.Remaining, s => s.Kind == StepKind.Reset);
        Finish(card, now);
    }

    // A job whose own work harms no brake, wheel or steering holds nothing, however much of that is left to be done for another.
    [Fact]
    public void A_job_holds_nothing_for_what_another_job_still_does()
    {
        var begun = 0;
        AtEveryStep("corran-fen-12", "air-filter tyre-rotation brake-fluid", (card, now) =>
        {
            if (!card.Remaining.Any(s => s.Jobs.Contains("air-filter") && !s.MovesLift))
                return;
            begun += card.IsFitted("air-filter") && card.Remaining.Any(s => s.Kind == StepKind.Bleed) ? 1 : 0;
            var after = Given(card, new DropJob("air-filter", "No filter here"), now);
            Assert.DoesNotContain(after.Deviations, d => d.Event.Kind == DeviationKind.JobGivenUp);
            // Dropped in one piece, and what the plan is worked out from goes with it.
            Assert.Equal(1, after.History.Count(h => h.Event is PlanChanged) - card.History.Count(h => h.Event is PlanChanged));
        });
        Assert.True(begun > 3, $"{begun}");
    }

    [Fact]
    public void Wheels_given_up_hold_the_vehicle_from_the_first_nut_undone_until_they_are_on_again()
    {
        var (before, begun) = (0, 0);
        AtEveryStep("corran-fen-12", "tyre-rotation air-filter", (card, now) =>
        {
            if (!card.Remaining.Any(s => s.Id == "wheels-on"))
                return;
            var isUndone = card.Open.Any(o => o.Id == "wheel-nuts");
            var after = Given(card, new DropJob("tyre-rotation", "A stud is broken"), now);
            Assert.True(isUndone == after.Deviations.Any(d => d.Event is { Kind: DeviationKind.JobGivenUp, NeedsCountersignature: true }),
                $"{isUndone} before “{card.Next!.Title}”");
            (before, begun) = (before + (isUndone ? 0 : 1), begun + (isUndone ? 1 : 0));
        });
        Assert.True(before > 2 && begun > 1, $"{before} {begun}");
    }

    [Fact]
    public void The_work_that_plans_are_made_of_goes_with_the_job()
    {
        var now = new DateTimeOffset(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);
        var card = On("corran-fen-12", "air-filter", "tyre-rotation");
        Assert.Contains(card.Work.Steps, s => s.Id == "wheels-off");
        var after = Given(card, new DropJob("tyre-rotation", "No time"), now);
        Assert.DoesNotContain(after.Work.Steps, s => s.Id == "wheels-off");
        Assert.DoesNotContain(after.PlanFrom(now).Steps, s => s.Id == "wheels-off");
        Assert.Contains(after.PlanFrom(now).Steps, s => s.Id == "fit-air-filter");
    }

    // The cover that the one opened waits for a look after the road that went with it; what would have held the vehicle went, too.
    [Theory]
    [InlineData("hespin-16", "engine-oil-and-filter", "brake-fluid")]
    [InlineData("hespin-16", "rear-axle-oil", "brake-fluid")]
    [InlineData("corran-fen-12", "gearbox-oil", "brake-fluid")]
    public void A_job_given_up_beside_one_that_ends_on_the_road_is_finished_from_every_step(string sheet, string job, string other) =>
        AtEveryStep(sheet, $"{job} {other}", (card, now) =>
        {
            if (card.Next is not null && card.Remaining.Any(s => s.Jobs.Contains(job) && !s.MovesLift))
                Finish(Given(card, new DropJob(job, "Plug is seized"), now), now);
        });

    [Fact]
    public void Parts_of_a_job_given_up_are_wanted_while_a_step_still_fits_them_and_stay_in_the_record_where_they_are_in()
    {
        AtEveryStep("tarn-courier-20d", "engine-oil-and-filter air-filter", (card, now) =>
        {
            if (card.Remaining.All(s => !s.Jobs.Contains("engine-oil-and-filter")))
                return;
            var after = Given(card, new DropJob("engine-oil-and-filter", "Called to the ferry"), now);
            bool IsDone(StepId step) => card.State(step).Status == StepStatus.Done;
            // By hand: what the cap holds goes back with it once it is off, and the washer with the plug.
            string[] wanted = [.. IsDone("filter-cap-off") ? ["oil-filter", "filter-cap-ring"] : Array.Empty<string>(),
                .. IsDone("drain") ? ["drain-washer"] : Array.Empty<string>(), "air-filter"];
            Assert.Equal(wanted.Order(), after.PartsWanted.Select(p => p.Id.Text).Order());
            if (after.Remaining.All(s => s.Id != "fit-washer"))
                return;
            // More oil is laid out after the job was given up: what is to be fitted stays as it lies there.
            var more = (ConfirmKit)UsualPress.Of(after, after.Step("lay-out-kit")!);
            var again = Given(after, more with
            {
                Parts = new Dictionary<PartId, KitPart>(more.Parts) { ["drain-washer"] = new(KitChoice.OldAgain, "", "Box is empty") },
            }, now);
            Assert.Equal("Wipe the sealing face, old washer on the plug", again.TitleOf(again.Step("fit-washer")!));
            Assert.Contains(ServiceRecord.Of(again).Fitted, f => f is { Name: "Washer for the drain plug", OldAgain: true });
        });
    }

    [Fact]
    public void A_joint_that_was_opened_is_proved_though_its_job_is_given_up()
    {
        AtEveryStep("tarn-courier-20d", "fuel-filter air-filter", (card, now) =>
        {
            if (card.Remaining.All(s => !s.Jobs.Contains("fuel-filter")) || card.Remaining.All(s => s.Kind != StepKind.Run))
                return;
            var touched = card.History.Any(h => h.Event is StepDone { Step: var step } && step == "undo-fuel-filter-lid");
            var after = Given(card, new DropJob("fuel-filter", "No filter here"), now);
            Assert.Equal(touched, after.Remaining.Any(s => s.Kind == StepKind.Run));
            Assert.Equal(touched, after.Remaining.Any(s => s.Kind == StepKind.Look));
        });
    }
}
