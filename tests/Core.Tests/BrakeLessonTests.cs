using Anakyklos.Core.Cards;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Where the lead asks for a lesson, nobody works on brakes alone who has not done it well.</summary>
public sealed class BrakeLessonTests
{
    private static readonly ModelSheet Fen = ComposerTests.Sheets["corran-fen-12"];
    private static readonly Person Bryn = new("bryn", "Bryn A.", Role.Technician);
    private static readonly DateTimeOffset Opened = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);
    private DateTimeOffset _now = Opened;
    private JobCard _card = Fresh("brake-fluid", "cabin-filter");

    private static JobCard Fresh(params JobId[] jobs)
    {
        var card = CardWalk.Open(Fen, jobs, CardPlanner.Compose(Fen, jobs));
        return JobCard.Replay(Fen, [card.History[0] with { At = Opened }]);
    }

    // Tavish has done it well, Iona and Bryn have not; Una leads.
    private static BrakeLesson Asked(DateTimeOffset? since = null) => new("air-in-the-rear-right", "Air in the rear right", "Una B.",
        since ?? Opened.AddDays(-1), new HashSet<PersonId> { Tavish.Id }, new[] { Iona, Una, Tavish, Bryn }.ToDictionary(p => p.Id));

    private static CardFacts Facts(BrakeLesson? brakes) => UsualPress.Facts(Fen) with { Brakes = brakes };

    private Decision Say(CardCommand said, Person by, BrakeLesson? asked) => _card.Decide(said, by, _now, Facts(asked));

    private void Do(CardCommand said, Person by, BrakeLesson? asked)
    {
        var decided = Say(said, by, asked);
        _card = _card.Taking(Assert.IsType<Accepted>(decided), Guid.NewGuid(), by, _now).Card;
    }

    private string No(CardCommand said, Person by, BrakeLesson? asked) =>
        string.Join(" ", Assert.IsType<Refused>(Say(said, by, asked)).Reasons);

    private SheetStep UpToBrakes()
    {
        while (!_card.IsOnBrakes(_card.Next!))
            Press(Tavish);
        return _card.Next!;
    }

    private void Press(Person by)
    {
        _now = _card.Waits.Select(w => w.Until).Append(_now.AddMinutes(1)).Max();
        Do(UsualPress.Of(_card, _card.Next!), by, Asked());
    }

    [Fact]
    public void The_jobs_in_which_something_is_bled_open_brakes_and_no_others() =>
        Assert.Equal(["corran-fen-12 brake-fluid", "hespin-16 brake-fluid", "ostler-brae-28d brake-fluid",
            "skelling-tourer-1100 brake-fluid"],
            ComposerTests.Sheets.Values.SelectMany(s => s.Jobs.Keys.Where(s.OpensBrakes).Select(j => $"{s.Id} {j}"))
                .Order(StringComparer.Ordinal));

    [Fact]
    public void At_every_step_of_the_brakes_an_unpractised_hand_is_refused_and_at_no_other()
    {
        var (brakes, others) = (0, 0);
        while (_card.Next is { } next)
        {
            _now = _card.Waits.Select(w => w.Until).Append(_now.AddMinutes(1)).Max();
            var usual = UsualPress.Of(_card, next);
            if (_card.IsOnBrakes(next))
            {
                brakes++;
                Assert.True(_card.AsksWhoMay(usual), next.Id.Text);
                Assert.Contains("Una B. asks for the lesson “Air in the rear right”", No(usual, Iona, Asked()));
                Assert.NotNull(_card.NotAlone(next, Iona, Asked()));
                Assert.All([Tavish, Una], p => Assert.Null(_card.NotAlone(next, p, Asked())));
                Assert.IsType<Accepted>(Say(usual, Una, Asked()));
            }
            else
            {
                others++;
                Assert.Null(_card.NotAlone(next, Iona, Asked()));
                Assert.IsType<Accepted>(Say(usual, Iona, Asked()));
            }
            Do(usual, Tavish, Asked());
        }
        Assert.True(brakes > 10 && others > 2, $"{brakes} at the brakes, {others} elsewhere");
        Do(new Sign(), Iona, Asked());
    }

    [Fact]
    public void Nothing_is_asked_where_nobody_asks_or_the_card_was_there_before()
    {
        var usual = UsualPress.Of(_card, UpToBrakes());
        _now += TimeSpan.FromMinutes(1);
        Assert.IsType<Accepted>(Say(usual, Iona, null));
        Assert.IsType<Accepted>(Say(usual, Iona, Asked(Opened.AddSeconds(1))));
        Assert.IsType<Refused>(Say(usual, Iona, Asked(Opened)));
    }

    [Fact]
    public void Whoever_may_stands_beside_one_who_may_not_for_this_card()
    {
        UpToBrakes();
        Assert.Contains("Bryn A. has not done the lesson", No(new StandBeside(Iona.Id), Bryn, Asked()));
        Assert.Contains("Iona R. has not done the lesson", No(new StandBeside(Iona.Id), Iona, Asked()));
        Assert.Contains("Tavish M. may go on as it is", No(new StandBeside(Tavish.Id), Una, Asked()));
        Assert.Contains("Nobody is asked", No(new StandBeside("nobody"), Una, Asked()));
        Assert.Contains("Nobody is asked", No(new StandBeside(Iona.Id), Una, null));
        Do(new StandBeside(Iona.Id), Tavish, Asked());
        Assert.Contains("Iona R. may go on", No(new StandBeside(Iona.Id), Una, Asked()));
        // It is not what Tavish pressed last, so that no thumb takes it back; and it is beside nobody but her.
        Assert.NotEqual(_card.History[^1], _card.LastPressOf(Tavish.Id));
        Assert.Contains("asks for the lesson", No(UsualPress.Of(_card, _card.Next!), Bryn, Asked()));
        while (_card.Next is not null)
            Press(Iona);
        Assert.Contains("Nothing is left", No(new StandBeside(Bryn.Id), Una, Asked()));
        Do(new Sign(), Iona, Asked());
        Assert.Contains(_card.History, h => h.Event is StoodBeside { Name: "Iona R." } && h.By == Tavish);
    }

    [Fact]
    public void What_is_left_put_aside_given_up_or_seen_is_no_work_on_brakes()
    {
        var step = UpToBrakes();
        Do(new NoteFinding(step.Id, FindingGrade.PlanIt, "The hose is cracked"), Iona, Asked());
        Do(new PutAside(step.Id, "Somebody must stand beside me"), Iona, Asked());
        var pedal = _card.Steps.Single(s => s.Traits.FeelsPedal);
        Assert.DoesNotContain("asks for the lesson", Say(new Deviate(pedal.Id, DeviationKind.StepLeftOut, "No time"), Iona, Asked())
            is Refused refused ? string.Join(" ", refused.Reasons) : "");
        Do(new DropJob("brake-fluid", "Nobody is here who may"), Iona, Asked());
        Assert.DoesNotContain(_card.Remaining, _card.IsOnBrakes);
    }

    [Fact]
    public void A_card_with_only_brakes_says_it_at_its_first_step()
    {
        _card = Fresh("brake-fluid");
        Assert.NotNull(_card.NotAlone(_card.Next!, Iona, Asked()));
        Assert.Contains("asks for the lesson", No(UsualPress.Of(_card, _card.Next!), Iona, Asked()));
    }
}
