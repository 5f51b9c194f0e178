using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Priming;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Filling a fuel system before the start: 40 strokes of a hand primer, or five turns of the key of ten seconds each.</summary>
public sealed class PrimeTests
{
    private CardAtHand _hand = null!;

    private StepId UpTo(string sheet)
    {
        _hand = new(On(sheet, "fuel-filter"));
        return _hand.UpTo(s => s.Kind == StepKind.Prime).Id;
    }

    private Priming State(StepId step) => Priming.Of(_hand.Card, _hand.Card.Step(step)!);

    [Fact]
    public void Strokes_are_counted_and_fewer_than_the_sheet_wants_fill_nothing()
    {
        var step = UpTo("ostler-brae-28d");
        Assert.Equal("Only 0 of 40 strokes were made.", _hand.No(new ConfirmStep(step)));
        Assert.Equal("Nothing is held here.", _hand.No(new HoldPrimer(step)));
        Assert.Contains("cannot be", _hand.No(new CountPrimer(step, 0)));
        Assert.Contains("cannot be", _hand.No(new CountPrimer(step, 501)));
        _hand.Do(new CountPrimer(step, 25));
        _hand.Do(new CountPrimer(step, 14));
        Assert.Equal("Only 39 of 40 strokes were made.", _hand.No(new ConfirmStep(step)));
        _hand.Do(new TakeBack(_hand.Card.LastPressOf(Iona.Id)!.Seq));
        Assert.Equal((25, 15), (State(step).Made, State(step).Left));
        _hand.Do(new CountPrimer(step, 20));
        _hand.Do(new ConfirmStep(step));
        Assert.Equal(StepStatus.Done, _hand.Card.State(step).Status);
    }

    [Fact]
    public void A_turn_of_the_key_counts_once_its_clock_is_over()
    {
        var step = UpTo("tarn-courier-20d");
        Assert.Contains("Nothing was held", _hand.No(new CountPrimer(step, 1)));
        _hand.Do(new HoldPrimer(step));
        _hand.Now += TimeSpan.FromSeconds(9);
        Assert.Contains("Held", _hand.No(new CountPrimer(step, 1)));
        _hand.Do(new CutWait(step, "It hums already"));
        Assert.Contains("Nothing was held", _hand.No(new CountPrimer(step, 1)));
        for (var turn = 1; turn <= 5; turn++)
        {
            _hand.Do(new HoldPrimer(step));
            _hand.Now += TimeSpan.FromSeconds(10);
            Assert.Contains("counted by itself", _hand.No(new CountPrimer(step, 2)));
            _hand.Do(new CountPrimer(step, 1));
            Assert.Equal((turn, (DateTimeOffset?)null), (State(step).Made, State(step).HeldUntil));
        }
        _hand.Do(new ConfirmStep(step));
    }

    [Fact]
    public void Where_the_sheet_counts_nothing_it_is_one_press()
    {
        var step = UpTo("skelling-tourer-1100");
        Assert.IsType<Refused>(_hand.Say(new CountPrimer(step, 1)));
        Assert.IsType<Refused>(_hand.Say(new HoldPrimer(step)));
        _hand.Do(new ConfirmStep(step));
    }
}
