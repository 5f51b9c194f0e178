using Anakyklos.Core.Tightening;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Torques;
using System.Collections.Concurrent;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>
/// What a refusal says would help, helps; what is said to close an open item closes it; and where the hands are said to go, they go.
/// Asked at every step of cards that have one thing or another in them; what is expected is worked out from the steps' words alone.
/// </summary>
public sealed class WayOutTests
{
    public static TheoryData<string, string> Cards => new()
    {
        { "tarn-courier-20d", "engine-oil-and-filter fuel-filter drive-belt" },
        { "hespin-16", "engine-oil-and-filter gearbox-oil brake-fluid" },
        { "corran-fen-12", "gearbox-oil spark-plugs tyre-rotation" },
        { "lumen-ardent", "engine-oil-and-filter drive-unit-oil" },
        { "maelor-ridge-900", "primary-oil belt" },
        { "ostler-brae-28d", "coolant fuel-filter brake-fluid" },
        { "skelling-tourer-1100", "engine-oil-and-filter final-drive-oil fuel-filter" },
    };

    internal static JobCard Given(JobCard card, CardCommand command, DateTimeOffset now, Person? by = null)
    {
        var decision = card.Decide(command, by ?? Iona, now, UsualPress.Facts(card.Sheet));
        Assert.True(decision is Accepted, $"{command}: {Describe(decision)}");
        return card.Taking((Accepted)decision, Guid.NewGuid(), by ?? Iona, now).Card;
    }

    private static readonly ConcurrentDictionary<(string, string), Lazy<IReadOnlyList<(JobCard Card, DateTimeOffset Now)>>> Walked = new();

    /// <summary>Looks at a card that is worked to its end by the usual press, before each press and after the last.</summary>
    internal static void AtEveryStep(string sheet, string jobs, Action<JobCard, DateTimeOffset> look)
    {
        foreach (var (card, now) in Walked.GetOrAdd((sheet, jobs), _ => new(() => Walk(sheet, jobs))).Value)
            look(card, now);
    }

    private static List<(JobCard Card, DateTimeOffset Now)> Walk(string sheet, string jobs)
    {
        var card = On(sheet, [.. jobs.Split(' ').Select(j => (JobId)j)]);
        var (now, stands) = (card.History[^1].At, new List<(JobCard, DateTimeOffset)>());
        while (card.Next is { } next)
        {
            Assert.True(stands.Count < 400, $"“{next.Title}” comes again and again.");
            stands.Add((card, now));
            now += next.Takes + TimeSpan.FromMinutes(70);
            card = Given(card, ReadOneByOne(card, next), now);
        }
        Assert.Empty(card.BeforeSigning());
        return [.. stands, (card, now)];
    }

    // Every torque is read, also of those fasteners that may be said together.
    private static CardCommand ReadOneByOne(JobCard card, SheetStep step) =>
        UsualPress.Of(card, step) is DrawInOrder && Fastening.Of(card, step) is { With: null, Next.Spec: ToTorque to }
            ? new TakeReading(step.Id, new Typed<Torque>(to.Target, Torque.NewtonMetre)) : UsualPress.Of(card, step);

    [Theory]
    [MemberData(nameof(Cards))]
    public void What_is_said_to_help_helps(string sheet, string jobs)
    {
        var helped = 0;
        AtEveryStep(sheet, jobs, (card, now) =>
        {
            foreach (var step in card.Remaining)
                foreach (var refusal in card.InTheWay(step, now))
                {
                    Assert.False(string.IsNullOrWhiteSpace(refusal.What) || string.IsNullOrWhiteSpace(refusal.Do), step.Title);
                    if (refusal.Step is not { } id)
                        continue;
                    var help = card.Step(id);
                    Assert.True(help is not null && card.Remaining.Contains(help), $"{step.Title}: {refusal} names {id}");
                    Assert.True(Speaks(refusal, help, card.Sheet), $"{step.Title}: {refusal} names “{help.Title}”");
                    if (card.InTheWay(help, now).Count > 0)
                        continue;
                    var after = Given(card, UsualPress.Of(card, help), now);
                    // What takes several presses says so again until the last of them.
                    if (!after.Remaining.Any(s => s.Id == id) && after.Step(step.Id) is not null)
                        Assert.DoesNotContain(after.InTheWay(step, now), r => r.What == refusal.What && r.Step == id);
                    helped++;
                }
        });
        Assert.True(helped > 20, $"{helped}");
    }

    // A refusal that names a thing names a step that is done to that thing, or to what stands in its own way.
    private static bool Speaks(Refusal refusal, SheetStep help, ModelSheet sheet)
    {
        foreach (var a in sheet.Access.Values)
            if (refusal.What == $"The {Words.Low(a.Name)} is in the way." || refusal.What == $"{a.Name}: not in place."
                || refusal.What == $"The {Words.Low(a.Name)} is still open.")
                return help.What == a.Id && (help.Kind == StepKind.Close) == refusal.What.EndsWith("still open.");
        foreach (var f in sheet.Fasteners.Values)
        {
            if (refusal.What == $"The {Words.Low(f.Name)} {f.Is} not out.")
                return help.What == f.Id && help.Kind is StepKind.Open or StepKind.Drain;
            if (refusal.What == $"The {Words.Low(f.Name)} {f.Is} not tightened.")
                return help.What == f.Id && help.Kind is StepKind.Tighten or StepKind.Bleed;
        }
        foreach (var fluid in sheet.Fluids.Values)
            if (refusal.What.StartsWith("Only ") && refusal.What.EndsWith($" of {Words.Low(fluid.Name)} is in."))
                return help.What == fluid.Id && help.Kind == StepKind.Pour;
        return refusal.What switch
        {
            "The vehicle is down." => help.Id.Text.StartsWith("arms") || help.Kind is StepKind.Raise || help.MovesLift,
            "The vehicle is up on the lift." => help.MovesLift,
            "The engine is running." => help.Kind == StepKind.Settle,
            _ => true,
        };
    }

    [Theory]
    [MemberData(nameof(Cards))]
    public void What_is_said_to_close_an_open_item_is_of_the_kind_that_closes_it(string sheet, string jobs)
    {
        var kinds = new HashSet<OpenKind>();
        AtEveryStep(sheet, jobs, (card, _) =>
        {
            foreach (var item in card.Open)
            {
                var closing = card.Closing(item);
                Assert.True(closing is not null, item.Name);
                Assert.True(item.Kind switch
                {
                    OpenKind.Lift => closing.Kind == StepKind.Lower,
                    OpenKind.Engine => closing.Kind == StepKind.Settle,
                    OpenKind.Access => closing.Kind == StepKind.Close && closing.What == item.Id,
                    OpenKind.Fastener => closing.Kind is StepKind.Tighten or StepKind.Bleed && closing.What == item.Id,
                    OpenKind.Fluid => closing.Kind is StepKind.Pour or StepKind.Gauge or StepKind.Measure or StepKind.Refill
                        && closing.What == item.Id,
                    OpenKind.Indicator => closing.Kind == StepKind.Reset && closing.What == item.Id,
                    _ => false,
                }, $"{item.Name}: “{closing.Title}”");
                Assert.Equal(closing, card.Remaining.First(s => s.Id == closing.Id));
                Assert.Contains(card.BeforeSigning(), r => r.What.StartsWith($"{item.Name}: still open") && r.Step == closing.Id);
                kinds.Add(item.Kind);
            }
        });
        Assert.Contains(OpenKind.Access, kinds);
    }

    [Theory]
    [MemberData(nameof(Cards))]
    public void Where_the_hands_are_said_to_go_they_go(string sheet, string jobs)
    {
        AtEveryStep(sheet, jobs, (card, _) =>
        {
            for (var at = 0; at < card.Steps.Count; at++)
            {
                var (step, more, then, lift) = (card.Steps[at], 0, (Place?)null, (bool?)null);
                var elsewhere = false;
                foreach (var next in card.Steps.Skip(at + 1).Where(s => card.State(s.Id).Status == StepStatus.Waiting))
                {
                    if (!elsewhere && next.Place == step.Place && !next.MovesLift)
                    {
                        more++;
                        continue;
                    }
                    if (!elsewhere && !next.MovesLift)
                        then = next.Place;
                    elsewhere = true;
                    if (then is not null)
                        break;
                    if (next.Kind is not (StepKind.Raise or StepKind.Lower))
                        continue;
                    lift = next.Kind == StepKind.Raise;
                    break;
                }
                Assert.Equal(new HandsGo(step.Place, more, lift, then), card.HandsAfter(step));
            }
        });
    }

    [Theory]
    [MemberData(nameof(Cards))]
    public void What_comes_next_is_the_same_to_one_who_reads_the_card_again(string sheet, string jobs) =>
        AtEveryStep(sheet, jobs, (card, _) => Assert.Equal(JobCard.Replay(card.Sheet, card.History).Next?.Id, card.Next?.Id));
}
