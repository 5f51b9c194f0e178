using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>HD-15 is ridden warm for ten minutes before the clamp takes it, HD-16 runs warm on its stand; the clock tells, not the
/// press.</summary>
public sealed class WarmTests
{
    private CardAtHand _hand = null!;

    private SheetStep Warm(string sheet)
    {
        _hand = new(On(sheet, "engine-oil-and-filter", "air-filter"));
        return _hand.UpTo(s => s.Kind == StepKind.Warm);
    }

    [Theory]
    [InlineData("maelor-ridge-900", "Say when it sets off", "The vehicle is on the road.", "Ridden warm: 6 min to go.")]
    [InlineData("skelling-tourer-1100", "Say when it runs", "The engine runs to get warm.", "Runs warm: 6 min to go.")]
    public void It_runs_by_the_clock_and_nothing_else_is_done_to_it(string sheet, string first, string meanwhile, string early)
    {
        var step = Warm(sheet);
        Assert.Contains(first, Assert.IsType<Refused>(_hand.Say(new ConfirmStep(step.Id))).Reasons[0].Do);
        _hand.Do(new BeginWarming(step.Id));
        Assert.Equal("It runs already.", _hand.No(new BeginWarming(step.Id)));
        Assert.All(_hand.Card.Remaining.Where(s => s.Id != step.Id),
            s => Assert.Contains(_hand.Card.InTheWay(s, _hand.Now), r => r.What == meanwhile && r.Step == step.Id));
        Assert.Contains(meanwhile, _hand.No(new MoveLift(true, true)));
        _hand.Now += TimeSpan.FromSeconds(240);
        Assert.Equal(early, _hand.No(new ConfirmStep(step.Id)));
        Assert.Equal(step.Id, _hand.Card.Next!.Id);
        _hand.Now += TimeSpan.FromSeconds(359);
        Assert.Contains("1 s to go", _hand.No(new ConfirmStep(step.Id)));
        _hand.Now += TimeSpan.FromSeconds(1);
        _hand.Do(new ConfirmStep(step.Id));
        Assert.Equal((StepStatus.Done, null), (_hand.Card.State(step.Id).Status, _hand.Card.Away));
        // What is done cold waits until it has cooled from then on.
        Assert.False(_hand.Card.AsksIfCold(step with { Cold = true }, _hand.Now));
        _hand.UpTo(_ => false);
        Assert.Empty(_hand.Card.BeforeSigning());
    }

    [Fact]
    public void It_is_not_ridden_in_the_clamp()
    {
        var step = Warm("maelor-ridge-900");
        var clamp = _hand.Card.Remaining.First(s => s.Traits.Sets);
        Assert.Equal($"“{step.Title}” comes first.", _hand.No(new ConfirmStep(clamp.Id)));
        // Cold work in the clamp comes before anything runs; then it is run warm where it stands.
        var held = On("maelor-ridge-900", "engine-oil-and-filter", "belt").Steps.Single(s => s.Kind == StepKind.Warm);
        Assert.Equal((true, false, "Neutral; run it warm in the clamp, then switch it off"), (step.Moves, held.Moves, held.Title));
    }

    [Fact]
    public void Warm_before_its_time_the_wait_is_ended_with_a_reason_that_is_kept()
    {
        var step = Warm("skelling-tourer-1100");
        _hand.Do(new BeginWarming(step.Id));
        _hand.Now += TimeSpan.FromMinutes(5);
        _hand.Do(new CutWait(step.Id, "It came in warm"));
        _hand.Do(new ConfirmStep(step.Id));
        Assert.Equal(StepStatus.Done, _hand.Card.State(step.Id).Status);
        Assert.Contains(_hand.Card.History, h => h.Event is WaitCut { Reason: "It came in warm" });
    }

    [Fact]
    public void What_shows_a_fault_on_the_way_is_left_out_at_once_and_stands_here_again()
    {
        var step = Warm("maelor-ridge-900");
        _hand.Do(new BeginWarming(step.Id));
        _hand.Now += TimeSpan.FromMinutes(1);
        _hand.Do(new Deviate(step.Id, DeviationKind.StepLeftOut, "Oil lamp came on, pushed back"));
        Assert.Equal((StepStatus.LeftOut, null), (_hand.Card.State(step.Id).Status, _hand.Card.Away));
        Assert.DoesNotContain(_hand.Card.Waits, w => w.Id == step.Id);
        _hand.UpTo(_ => false);
        Assert.Empty(_hand.Card.BeforeSigning());
    }

    [Fact]
    public void A_press_that_began_it_is_taken_back_and_given_up_with_the_job()
    {
        var step = Warm("maelor-ridge-900");
        _hand.Do(new BeginWarming(step.Id));
        _hand.Do(new TakeBack(_hand.Card.History[^1].Seq));
        Assert.Null(_hand.Card.Away);
        Assert.DoesNotContain(_hand.Card.Waits, w => w.Id == step.Id);
        _hand.Do(new BeginWarming(step.Id));
        _hand.Do(new DropJob("engine-oil-and-filter", "Called away"));
        Assert.Null(_hand.Card.Away);
        _hand.UpTo(_ => false);
        Assert.Empty(_hand.Card.BeforeSigning());
    }
}
