using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.WayOutTests;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>
/// A joint that counted as tight turns out loose, when much has been built upon it: however late, there is a way on, what lies before it is
/// opened once more, and it is proved once more.
/// </summary>
public sealed class PuttingRightTests
{
    [Theory]
    [MemberData(nameof(WayOutTests.Cards), MemberType = typeof(WayOutTests))]
    public void However_late_a_torque_is_put_right_the_card_can_be_finished(string sheet, string jobs)
    {
        var (at, late) = (0, 0);
        AtEveryStep(sheet, jobs, (card, now) =>
        {
            if (at++ % 7 != 0 && card.Next is not null)
                return;
            foreach (var reading in card.CanBePutRight.Where(h => h.Event is ReadingTaken))
                foreach (var torque in new[] { 1m, 400m })
                {
                    var step = card.Step(((ReadingTaken)reading.Event).Step)!;
                    var right = new CorrectReading(reading.Seq, Nm(torque), "Read the wrong line");
                    // Under pressure nothing is said to be loose before the engine is off.
                    if (card.EngineRuns && card.Decide(right, Iona, now) is Refused { Reasons: [var first, ..] })
                        Assert.Equal("Switch it off first.", first.Do);
                    else
                        Loosened(card, right, step, now);
                    late++;
                }
        });
        Assert.True(late > 6, $"{late}");
    }

    [Theory]
    [MemberData(nameof(WayOutTests.Cards), MemberType = typeof(WayOutTests))]
    public void Whatever_leaks_at_whichever_look_is_reached_and_proved_again(string sheet, string jobs) =>
        AtEveryStep(sheet, jobs, (card, now) =>
        {
            if (card.Next is { Kind: StepKind.Look } look && card.InTheWay(look, now).Count == 0)
                foreach (var joint in card.JointsOpened)
                    Loosened(card, new ReportLeak(look.Id, joint.Id),
                        card.Steps.First(s => s.Kind is StepKind.Tighten or StepKind.Bleed && s.What == joint.Id), now);
        });

    private static void Loosened(JobCard card, CardCommand found, SheetStep tighten, DateTimeOffset now)
    {
        var what = $"{tighten.Id}, {found.GetType().Name} before {card.Next?.Id}";
        var fastener = card.Sheet.Fasteners[tighten.What];
        var looked = card.Steps.Any(s => s.Kind == StepKind.Look && card.State(s.Id).Status == StepStatus.Done);
        card = Given(card, found, now);
        Assert.Contains(card.Open, o => o.Kind == OpenKind.Fastener && o.Id == tighten.What);
        var loose = card.History.Count;
        // All of it is in the plan, so that it can be seen how long it takes.
        Assert.Equal(card.Remaining.Where(s => !s.MovesLift).Select(s => s.Id.Text).Order(StringComparer.Ordinal),
            card.PlanFrom(now).Steps.Where(s => !s.MovesLift).Select(s => s.Id.Text).Order(StringComparer.Ordinal));
        for (var presses = 0; card.Next is { } next; presses++)
        {
            Assert.True(presses < 300, $"{what}: “{next.Title}” comes again and again.");
            now += next.Takes + TimeSpan.FromMinutes(70);
            var press = card.IsOverTorqued(next.Id) ? new SettleOverTorque(next.Id, "New bolt fitted") : UsualPress.Of(card, next);
            var decision = card.Decide(press, Una, now, UsualPress.Facts(card.Sheet));
            Assert.True(decision is Accepted, $"{what}: {press}: {Describe(decision)}");
            card = card.Taking((Accepted)decision, Guid.NewGuid(), Una, now).Card;
        }
        Assert.Empty(card.BeforeSigning());
        // What was proved before is proved after it is tight: under pressure where a pump gives some, then by a look.
        int Last(string kind) => card.History.LastOrDefault(h => h.Event is StepDone or OilLightOut
            && card.Step(((IStepEvent)h.Event).Step)?.Kind == kind)?.Seq ?? 0;
        var tight = card.History.Last(h => h.Event is IStepEvent at && at.Step == tighten.Id && h.Event is not OverTorqueSettled).Seq;
        Assert.True(tight > loose, what);
        if (looked && (fastener.Seal is not null || fastener.System is not null))
        {
            Assert.True(Last(StepKind.Look) > tight, what);
            if ((fastener.System ?? fastener.Fills) is { } fluid && card.Sheet.Fluids[fluid].Pumped)
                Assert.True(Last(StepKind.Run) > tight && Last(StepKind.Look) > Last(StepKind.Run), what);
        }
    }

    // By hand, at the end of each card: what has to be opened to get at it and shut again, what holds the vehicle where it goes up, a run
    // where a pump presses on the joint, and a look where it keeps something in. Nothing else is done twice.
    [Theory]
    [InlineData("tarn-courier-20d", "engine-oil-and-filter", "tighten-drain-plug",
        "set-chocks undertray-off tighten-drain-plug start stop look-at-joints undertray-on chocks-away")]
    [InlineData("tarn-courier-20d", "engine-oil-and-filter fuel-filter", "tighten-fuel-filter-lid",
        "set-chocks open-bonnet engine-cover-off battery-earth-off fuel-lines-off tighten-fuel-filter-lid fuel-lines-on fuel-lines-right "
            + "battery-earth-on clear-top start stop look-at-joints engine-cover-on shut-bonnet chocks-away")]
    [InlineData("corran-fen-12", "tyre-rotation air-filter", "tighten-wheels", "tighten-wheels")]
    [InlineData("corran-fen-12", "gearbox-oil spark-plugs tyre-rotation", "tighten-gearbox-drain-plug",
        "wheel-chocks-set-again tighten-gearbox-drain-plug look-at-joints look-at-joints-again wheel-chocks-on-again")]
    [InlineData("corran-fen-12", "gearbox-oil spark-plugs tyre-rotation", "tighten-spark-plugs-in",
        "bonnet-off coil-cover-off coils-off tighten-spark-plugs-in coils-on coil-cover-on clear-top bonnet-on")]
    [InlineData("maelor-ridge-900", "primary-oil belt", "tighten-primary-cover",
        "left-panel-off tighten-primary-cover look-at-joints left-panel-on")]
    [InlineData("lumen-ardent", "engine-oil-and-filter drive-unit-oil", "tighten-engine-drain-plug",
        "wheel-chocks-set key-away-set undertray-flap-off tighten-engine-drain-plug key-away-on start stop key-away-set-again "
            + "look-at-joints undertray-flap-on key-away-on-again wheel-chocks-on")]
    [InlineData("hespin-16", "engine-oil-and-filter gearbox-oil brake-fluid", "tighten-oil-filter-cap",
        "wheel-chocks-set-again jacking-position-set-again bonnet-off tighten-oil-filter-cap clear-top start stop look-at-joints "
            + "look-at-joints-again bonnet-on jacking-position-on-again wheel-chocks-on-again")]
    public void What_is_done_again_is_no_more_than_it_takes(string sheet, string jobs, string tighten, string again) =>
        AtEveryStep(sheet, jobs, (card, now) =>
        {
            if (card.Next is not null)
                return;
            var reading = card.CanBePutRight.Last(h => h.Event is ReadingTaken r && r.Step == tighten);
            var after = Given(card, new CorrectReading(reading.Seq, Nm(1), "Read the wrong line"), now);
            var begins = string.Join(" ", after.Remaining.Where(s => !s.MovesLift).Select(s => s.Id.Text).Order(StringComparer.Ordinal));
            Assert.True(string.Join(" ", again.Split(" ").Order(StringComparer.Ordinal)) == begins, begins);
        });
}
