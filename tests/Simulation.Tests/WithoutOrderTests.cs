using Anakyklos.Core.Sheets;

namespace Anakyklos.Simulation.Tests;

/// <summary>
/// Cards of a sheet that says nothing of what comes first, worked in no order at all: what stands between the vehicle and harm then is the
/// gates alone. The number of a walk is its seed.
/// </summary>
public sealed class WithoutOrderTests
{
    public static TheoryData<int> Seeds => [.. WalkSeeds.All];

    [Theory]
    [MemberData(nameof(Seeds))]
    public void The_gates_alone_let_no_harm_through(int seed)
    {
        var random = new Random(seed);
        var sheets = BothWalk.Sheets.Values.OrderBy(s => s.Id.Text, StringComparer.Ordinal).ToArray();
        var sheet = sheets[seed % sheets.Length];
        var walk = new BothWalk(sheet, [.. sheet.Jobs.Keys.OrderBy(j => j.Text, StringComparer.Ordinal).OrderBy(_ => random.Next())
            .Take(1 + random.Next(3))], inOrder: false) { BringsOnePan = random.Next(2) == 0 };
        for (var presses = 0; presses < 400 && walk.Card.Remaining.ToList() is { Count: > 0 } left; presses++)
        {
            // A minute or an hour, so that oil runs out and metal cools.
            walk.Idle(TimeSpan.FromMinutes(random.Next(25) == 0 ? 70 : 1));
            walk.Press(left[random.Next(left.Count)]);
        }
    }

    public static TheoryData<string> Models => ByTheBookTests.Models;

    /// <summary>One step after the other as planned, but one is forgotten: whatever the gates let pass then does no harm either.</summary>
    [Theory]
    [MemberData(nameof(Models))]
    public void A_step_that_is_forgotten_does_no_harm(string id)
    {
        var sheet = BothWalk.Sheets[id];
        foreach (var jobs in sheet.Jobs.Keys.Select(j => new[] { j }).Append([.. sheet.Jobs.Keys]))
            foreach (var forgotten in new BothWalk(sheet, jobs).Card.Steps.Select(s => s.Id))
                Forget(new(sheet, jobs, inOrder: false), forgotten);
    }

    private static void Forget(BothWalk walk, StepId forgotten)
    {
        // What is read again and again, such as a level that nothing is poured to, does not go on for ever.
        var went = true;
        for (var round = 0; went && round < 4; round++)
        {
            went = false;
            foreach (var step in walk.Card.Remaining.Where(s => s.Id != forgotten).ToList())
            {
                walk.Idle(step.Cold ? TimeSpan.FromHours(2) : TimeSpan.FromMinutes(step.Traits.Tightens ? 30 : 6));
                // A wheel is bled stroke by stroke.
                for (var presses = 0; presses < (step.Traits.ShutsAgain ? 12 : 1) && walk.Press(step); presses++)
                    went = true;
            }
        }
    }
}
