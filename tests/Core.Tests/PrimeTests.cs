using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Priming;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Filling a fuel system before the start: 40 strokes of a hand primer, or five turns of the key of ten seconds each.</summary>
public sealed class PrimeTests
{
    private DateTimeOffset _now = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);
    private JobCard _card = null!;

    private StepId UpTo(string sheet)
    {
        _card = On(sheet, "fuel-filter");
        while (_card.Next is { } next && next.Kind != StepKind.Prime)
            if (Say(UsualPress.Of(_card, next)) is not Accepted)
                _now += TimeSpan.FromHours(1);
        return _card.Next!.Id;
    }

    private Decision Say(CardCommand command)
    {
        var decision = _card.Decide(command, Iona, _now, UsualPress.Facts(_card.Sheet));
        if (decision is Accepted accepted)
        {
            var (seq, id) = (_card.History.Count, Guid.NewGuid());
            _card = _card.With([.. accepted.Events.Select(e => new Recorded(++seq, _now, Iona, id, e))]);
        }
        return decision;
    }

    private void Do(CardCommand command) => Assert.IsType<Accepted>(Say(command));

    private string No(CardCommand command) => Assert.IsType<Refused>(Say(command)).Reasons[0].What;

    private Priming State(StepId step) => Priming.Of(_card, _card.Step(step)!);

    [Fact]
    public void Strokes_are_counted_and_fewer_than_the_sheet_wants_fill_nothing()
    {
        var step = UpTo("ostler-brae-28d");
        Assert.Equal("Only 0 of 40 strokes were made.", No(new ConfirmStep(step)));
        Assert.Equal("Nothing is held here.", No(new HoldPrimer(step)));
        Assert.Contains("cannot be", No(new CountPrimer(step, 0)));
        Assert.Contains("cannot be", No(new CountPrimer(step, 501)));
        Do(new CountPrimer(step, 25));
        Do(new CountPrimer(step, 14));
        Assert.Equal("Only 39 of 40 strokes were made.", No(new ConfirmStep(step)));
        Do(new TakeBack(_card.LastPressOf(Iona.Id)!.Seq));
        Assert.Equal((25, 15), (State(step).Made, State(step).Left));
        Do(new CountPrimer(step, 20));
        Do(new ConfirmStep(step));
        Assert.Equal(StepStatus.Done, _card.State(step).Status);
    }

    [Fact]
    public void A_turn_of_the_key_counts_once_its_clock_is_over()
    {
        var step = UpTo("tarn-courier-20d");
        Assert.Contains("Nothing was held", No(new CountPrimer(step, 1)));
        Do(new HoldPrimer(step));
        _now += TimeSpan.FromSeconds(9);
        Assert.Contains("Held", No(new CountPrimer(step, 1)));
        Do(new CutWait(step, "It hums already"));
        Assert.Contains("Nothing was held", No(new CountPrimer(step, 1)));
        for (var turn = 1; turn <= 5; turn++)
        {
            Do(new HoldPrimer(step));
            _now += TimeSpan.FromSeconds(10);
            Assert.Contains("counted by itself", No(new CountPrimer(step, 2)));
            Do(new CountPrimer(step, 1));
            Assert.Equal((turn, (DateTimeOffset?)null), (State(step).Made, State(step).HeldUntil));
        }
        Do(new ConfirmStep(step));
    }

    [Fact]
    public void Where_the_sheet_counts_nothing_it_is_one_press()
    {
        var step = UpTo("skelling-tourer-1100");
        Assert.IsType<Refused>(Say(new CountPrimer(step, 1)));
        Assert.IsType<Refused>(Say(new HoldPrimer(step)));
        Do(new ConfirmStep(step));
    }
}
