using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>
/// Every job, every pair and every full service is walked: by the usual press alone nothing refuses, and against the grain nothing is ever
/// stuck.
/// </summary>
public class WalkTests
{
    public static TheoryData<string> AllSheets => [.. ComposerTests.Sheets.Keys.Select(k => k.Text).Order()];

    [Theory]
    [MemberData(nameof(AllSheets))]
    public void By_the_usual_press_nothing_is_refused_and_the_card_is_signed(string sheetId)
    {
        var sheet = ComposerTests.Sheets[sheetId];
        JobId[] jobs = [.. sheet.Jobs.Keys];
        var sets = jobs.Select(j => new[] { j })
            .Concat(from a in jobs from b in jobs where string.CompareOrdinal(a.Text, b.Text) < 0 select new[] { a, b })
            .Append(jobs);
        foreach (var set in sets)
            foreach (var people in new[] { 1, 2 })
                Assert.Null(CardWalk.Refused(sheet, set, people) is { } refused ? $"{string.Join(", ", set)} by {people}: {refused}"
                    : null);
    }

    [Theory]
    [MemberData(nameof(AllSheets))]
    public void Shown_press_by_press_a_walk_goes_from_a_card_that_was_opened_to_one_that_is_signed(string sheetId)
    {
        var sheet = ComposerTests.Sheets[sheetId];
        foreach (var job in sheet.Jobs.Keys)
        {
            List<JobCard> walk = [.. CardWalk.Along(sheet, [job])];
            Assert.Single(walk[0].History);
            Assert.All(walk.Zip(walk.Skip(1)), w => Assert.True(w.Second.History.Count > w.First.History.Count));
            Assert.NotNull(walk[^1].Signature);
            Assert.Empty(walk[^1].Open);
            Assert.All(walk.SkipLast(1), c => Assert.Null(c.Signature));
        }
    }

    [Fact]
    public void A_job_that_refuses_its_own_step_is_found_when_the_sheet_is_checked()
    {
        // A cover that is needed open for the fill plug, and shut again before it by an order of its own.
        var broken = SheetText.Replace("\"look-at-plug\": { \"kind\": \"read\", \"needs\": [\"engine-drain-plug\"],",
            "\"look-at-plug\": { \"kind\": \"read\", \"needs\": [\"engine-drain-plug\", \"glove-box\"], \"after\": [\"label\"],");
        Assert.NotEqual(SheetText, broken);
        Assert.NotEmpty(SheetRehearsal.Read(System.Text.Encoding.UTF8.GetBytes(broken)).Errors);
    }

    public static TheoryData<int> Seeds => [.. Enumerable.Range(0, 600)];

    /// <summary>Each walk is numbered, and the number is an argument of the test: a failure names the walk to take again.</summary>
    [Theory]
    [MemberData(nameof(Seeds))]
    public void Against_the_grain_there_is_always_a_way_on(int seed)
    {
        var card = Wanderer.Through(seed);
        Assert.NotNull(card.Ended);
        NothingIsMovedUnseen(card);
    }

    // An account of its own: the lifting points are seen after the vehicle last moved, the space below after the last work there.
    private static void NothingIsMovedUnseen(JobCard card)
    {
        var steps = card.History.Select(h => h.Event).OfType<PlanChanged>().SelectMany(p => p.Steps).Concat(card.Opened.Steps)
            .DistinctBy(s => s.Id).ToDictionary(s => s.Id);
        var taken = card.History.Select(h => h.Event).OfType<TakenBack>().SelectMany(t => Enumerable.Range(t.From, t.To - t.From + 1))
            .ToHashSet();
        var (points, below) = (false, false);
        foreach (var e in card.History.Where(h => !taken.Contains(h.Seq)).Select(h => h.Event))
            if (e is LiftMoved)
                (points, below) = (false, false);
            else if (e is IStepEvent at && e.Frozen?.Effects.Any(x => x is StepEnds) == true && steps[at.Step] is var step)
                switch (step)
                {
                    case { Kind: StepKind.Secure, What.IsEmpty: true }: points = true; break;
                    case { Kind: StepKind.Clear, Place: Place.Below }: below = true; break;
                    case { Kind: StepKind.Raise or StepKind.Lower }:
                        Assert.True(step.Kind == StepKind.Raise ? points : below, $"“{step.Title}” ({step.Id}) unseen");
                        (points, below) = (false, false);
                        break;
                    case { Kind: StepKind.Drive } or { Moves: true }: points = false; break;
                    case { Lift: LiftNeed.Up }: below = false; break;
                }
    }

    // The wanderer stops now and then, sees lumps and milk, gives brake work up and leaves it out; the lead decides, or nobody does.
    [Fact]
    public void A_held_card_is_not_started_driven_or_signed_by_any_sequence()
    {
        var held = 0;
        for (var seed = 0; seed < 400; seed++)
        {
            var walked = Wanderer.Through(seed);
            var card = JobCard.Replay(walked.Sheet, [walked.History[0]]);
            foreach (var next in walked.History.Skip(1))
            {
                // A command may say more than one thing: it is held as it was before the first of them.
                if (card.Holds.Count > 0 && card.History[^1].Command != next.Command)
                {
                    held++;
                    Assert.False(next.Event is Signed, $"Seed {seed}: signed while {card.Holds[0]}");
                    // Brakes that were given up keep it from the road; a stop keeps it from running at all.
                    if (next.Event is StepDone { Step: var id } && card.Step(id) is { } step)
                        Assert.False(step.IsDriven || (step.RunsEngine && card.Stops.Any()),
                            $"Seed {seed}: “{step.Title}”, {card.Holds[0]}");
                }
                card = card.With([next]);
            }
        }
        Assert.True(held > 200, $"Only {held} things were said to a held card.");
    }
}
