using Anakyklos.Core.Cards;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.WayOutTests;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>
/// A press is taken back as long as what others did since could have been done without it. The expected answer comes from saying the
/// same things to the card as it stood before the press.
/// </summary>
public sealed class TakingBackTests
{
    [Theory]
    [MemberData(nameof(WayOutTests.Cards), MemberType = typeof(WayOutTests))]
    public void A_press_is_taken_back_while_the_next_ones_could_have_come_without_it(string sheet, string jobs)
    {
        var (taken, stood) = (0, 0);
        AtEveryStep(sheet, jobs, (card, now) =>
        {
            if (card.Next is not { } first)
                return;
            now += TimeSpan.FromMinutes(70);
            var after = Said(card, UsualPress.Of(card, first), Iona, now);
            var (without, could, went) = (card, true, after);
            for (var more = 0; more < 2 && could && went.Next is { } next; more++)
            {
                now += TimeSpan.FromMinutes(70);
                var press = UsualPress.Of(went, next);
                // More of the same fluid or at the same step goes on from what was there.
                var goesOn = went.Step(next.Id)!.Id == first.Id || (Continues(press) && first.What == next.What);
                could = !goesOn && without.Step(next.Id) is { } then && without.Remaining.Contains(then)
                    && without.InTheWay(then, now).Count == 0
                    && without.Decide(press, Tavish, now, UsualPress.Facts(card.Sheet)) is Accepted;
                went = Said(went, press, Tavish, now);
                if (could)
                    without = Said(without, press, Tavish, now);
                var answer = went.Decide(new TakeBack(went.LastPressOf(Iona.Id)!.Seq), Iona, now);
                Assert.True(could == answer is Accepted, $"“{first.Title}”, then “{next.Title}”: {could}, {Describe(answer)}");
                if (answer is Refused refused)
                    Assert.StartsWith($"Tavish M. went on from it: “{next.Title}”", Assert.Single(refused.Reasons).What);
                (taken, stood) = (taken + (could ? 1 : 0), stood + (could ? 0 : 1));
            }
        });
        Assert.True(taken > 3 && stood > 3, $"{taken} {stood}");
    }

    private static bool Continues(CardCommand press) => press is Pour or TakeOut or ReadGauge or Measure;

    private static JobCard Said(JobCard card, CardCommand command, Person by, DateTimeOffset now)
    {
        var decision = card.Decide(command, by, now, UsualPress.Facts(card.Sheet));
        Assert.True(decision is Accepted, $"{command}: {Describe(decision)}");
        return card.Taking((Accepted)decision, Guid.NewGuid(), by, now).Card;
    }
}
