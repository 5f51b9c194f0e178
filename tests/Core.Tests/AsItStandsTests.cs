using Anakyklos.Core.Cards;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>A card in the middle of the work, for whoever takes it over: what is open, what runs, what was done last, what was
/// strange.</summary>
public sealed class AsItStandsTests
{
    private readonly CardAtHand _hand = new(On("tarn-courier-20d", "engine-oil-and-filter"));

    private AsItStands Stands => _hand.Card.Standing(_hand.Now);

    [Fact]
    public void It_tells_what_is_open_what_runs_and_what_was_done_last()
    {
        var drain = _hand.UpTo(s => s.Kind == StepKind.Drain);
        var open = _hand.Card.Open.Select(o => o.Name).Reverse().ToList();
        _hand.Do(UsualPress.Of(_hand.Card, drain));
        var stands = Stands;
        Assert.Equal(open, stands.Open.Select(o => o.Name).Where(open.Contains));
        Assert.Equal(["Engine drain plug", "Engine oil"], stands.Open.Take(2).Select(o => o.Name).Order());
        Assert.Equal(("Oil runs out", _hand.Card.Next!.Id), (Assert.Single(stands.Waits).For, stands.Next!.Id));
        Assert.Equal(3, stands.Last.Count);
        Assert.Equal(drain.Id, ((IStepEvent)stands.Last[0].Event).Step);
        _hand.Now += TimeSpan.FromHours(1);
        Assert.Empty(Stands.Waits);
    }

    [Fact]
    public void What_stands_half_done_comes_before_what_was_noted()
    {
        var step = _hand.UpTo(s => s.Kind == StepKind.Tighten);
        _hand.Do(new NoteFinding(step.Id, FindingGrade.KeepAnEye, "Thread feels dry"));
        _hand.Do(new TakeReading(step.Id, Nm(60)));
        _hand.Do(new PutAside("label", "Printer is empty"));
        Assert.Equal(["Oil filter cap: tightened too far, and not seen to yet",
            $"“{_hand.Card.TitleOf(_hand.Card.Step("label")!)}” is left for later: Printer is empty", "Thread feels dry"],
            Stands.Strange.Select(s => s.Says));
        Assert.Equal((Iona, _hand.Now), (Stands.Strange[^1].By!, Stands.Strange[^1].At!.Value));
    }

    [Fact]
    public void What_was_taken_back_is_not_told()
    {
        var step = _hand.UpTo(s => s.Kind == StepKind.Drain);
        _hand.Do(new NoteFinding(step.Id, FindingGrade.PlanIt, "Wrong vehicle"));
        var before = Stands.Last[0].Seq;
        _hand.Do(UsualPress.Of(_hand.Card, step));
        _hand.Do(new TakeBack(_hand.Card.LastPressOf(Iona.Id)!.Seq));
        Assert.Equal(before, Stands.Last[0].Seq);
        _hand.Do(new TakeBack(_hand.Card.LastPressOf(Iona.Id)!.Seq));
        Assert.Empty(Stands.Strange);
    }

    [Fact]
    public void Words_are_left_for_whoever_goes_on()
    {
        Assert.Equal("text", Assert.Single(Assert.IsType<Refused>(_hand.Say(new LeaveWord("  "))).Reasons).Field);
        _hand.Do(new LeaveWord(" Screw 2 of the tray: new one on the bench "));
        Assert.Equal("Screw 2 of the tray: new one on the bench", Assert.IsType<WordLeft>(Assert.Single(Stands.Words).Event).Text);
        Assert.Equal("word", CommandBook.All.Single(c => c.Name == "word").Name);
        Assert.IsType<Refused>(_hand.Card.Decide(new LeaveWord("Hello"), new("desk", "Desk", Role.Viewer), _hand.Now));
    }

    // Iona worked until now. To Una the card is new; to Iona only after half an hour, and only where another was at it since.
    [Fact]
    public void Whoever_is_new_to_a_card_is_told_who_was_there_last()
    {
        _hand.UpTo(s => s.Kind == StepKind.Drain);
        Assert.Equal(Iona, _hand.Card.WorkedOnBefore(Una.Id, _hand.Now)!.By);
        Assert.Null(_hand.Card.WorkedOnBefore(Iona.Id, _hand.Now));
        Assert.Null(_hand.Card.WorkedOnBefore(Iona.Id, _hand.Now.AddHours(2)));
    }
}
