using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Records;
using Anakyklos.Core.Rehearsal;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>What goes in and comes out by hand on the Courier: 6.4 L by the book, 5 L first, 4.6 L before it may start, 1.4 L between the
/// marks.</summary>
public sealed class FillingGateTests
{
    private readonly Workbench _bench = new();

    private JobCard Card => _bench.Card;

    private string No(CardCommand command) => Assert.Single(_bench.Refusals(command)).What;

    private void ToTheLevel(decimal pour)
    {
        _bench.WorkUpTo("first-pour");
        _bench.Do(new Pour("first-pour", Litres(pour)));
        _bench.WorkUpTo("level");
        _bench.Wait(60);
    }

    [Theory]
    [InlineData(4.59, StepStatus.Waiting)]
    [InlineData(4.6, StepStatus.Done)]
    public void The_first_pour_is_done_once_the_engine_may_start_on_it(double litres, StepStatus status)
    {
        _bench.WorkUpTo("first-pour");
        _bench.Do(new Pour("first-pour", Litres((decimal)litres)));
        Assert.Equal(status, Card.State("first-pour").Status);
    }

    [Fact]
    public void A_second_bottle_is_added_to_the_first_and_the_sum_is_asked_about()
    {
        _bench.WorkUpTo("first-pour");
        _bench.Do(new Pour("first-pour", Litres(3)));
        _bench.Do(new Pour("first-pour", Litres(3.3m)));
        Assert.Equal(L(6.3m), Card.Fluid("engine-oil").Poured);
        _bench.WorkUpTo("level");
        _bench.Wait(60);
        _bench.Do(new ReadGauge("level", new(0.25m)));
        var asked = Assert.IsType<PourQuestion>(Assert.IsType<Asked>(_bench.Try(new Pour("level", Litres(0.4m)))).Question);
        Assert.Equal("0.40 L makes 6.70 L in all; the book says 6.40 L. Look for what does not agree. Was it really 0.40 L?", asked.Text);
    }

    // 6.40 L at the top mark, 1.40 L between the marks, tolerance 0.20 L: at nine tenths 6.26 L are in, and 1.60 L is what marks and
    // tolerance leave open.
    [Theory]
    [InlineData(4.65, 0.9, "Seven eighths would be 6.26 L, but 4.65 L went in. Was the dipstick misread, does it stand level,")]
    [InlineData(4.66, 0.9, "")]
    [InlineData(5, -1, "")]
    [InlineData(5.4, -1, "Below the bottom mark would be 3.60 L, but 5.40 L went in. Has it run down yet,")]
    public void A_level_that_does_not_go_with_what_went_in_is_asked_about(double poured, double level, string asks)
    {
        ToTheLevel((decimal)poured);
        var reading = new ReadGauge("level", new((decimal)level));
        var said = Card.Decide(reading, Iona, _bench.Now);
        if (asks.Length == 0)
        {
            Assert.IsType<Accepted>(said);
            return;
        }
        var question = Assert.IsType<LevelQuestion>(Assert.IsType<Asked>(said).Question);
        Assert.StartsWith(asks, question.Text, StringComparison.Ordinal);
        Assert.Equal(reading.Level, question.Level);
        _bench.Do(reading with { WarningSeen = true });
        Assert.StartsWith(((GaugeRead)Card.History[^1].Event).AgainstWarning!, question.Text, StringComparison.Ordinal);
    }

    // 5 L reach the bottom mark once the filter is full; before that it stands higher. Half the span is 0.70 L.
    [Theory]
    [InlineData(-0.5, "")]
    [InlineData(-0.51, "5.00 L went in, and it stands below the bottom mark: that would be 4.29 L. Has it run down yet, does it run out")]
    [InlineData(1.1, "")]
    [InlineData(1.15, "5.00 L went in, and it stands above the top mark: that would be 6.61 L.")]
    public void A_level_before_the_first_run_is_noted_and_asks_for_nothing_but_what_cannot_be(double level, string asks)
    {
        var reading = new ReadBeforeRun("level", new((decimal)level));
        _bench.WorkUpTo("first-pour");
        Assert.Null(Card.ToReadBeforeRun);
        Assert.Equal("No oil has been poured yet.", No(reading));
        _bench.Do(new Pour("first-pour", Litres(5)));
        Assert.Equal("level", Card.ToReadBeforeRun!.Id.Text);
        Assert.Equal("That is not on the dipstick.", No(reading with { Level = new(2.01m) }));
        if (asks.Length > 0)
            Assert.StartsWith(asks, Assert.IsType<BeforeRunQuestion>(Assert.IsType<Asked>(_bench.Try(reading)).Question).Text);
        _bench.Do(reading with { Meant = true });
        Assert.Equal(asks.Length > 0, Assert.IsType<StoodBeforeRun>(Card.History[^1].Event).AgainstWarning is not null);
        Assert.Equal((reading.Level, null, StepStatus.Waiting), (Card.Fluid("engine-oil").BeforeRun, Card.Fluid("engine-oil").Level,
            Card.State("level").Status));
        Assert.Null(Card.ToReadBeforeRun);
        Assert.Equal($"It was read already: {reading.Level}.", No(reading));
        _bench.Do(new TakeBack(Card.History[^1].Seq));
        Assert.NotNull(Card.ToReadBeforeRun);
        _bench.Do(reading with { Meant = true });
        _bench.WorkUpTo("level");
        _bench.Wait(60);
        Assert.Equal("The engine has run since.", No(reading));
        Assert.Equal(reading.Level, Assert.Single(ServiceRecord.Of(Card).Filled).BeforeRun);
    }

    [Theory]
    [InlineData(-1.01, false)]
    [InlineData(-1, true)]
    [InlineData(2, true)]
    [InlineData(2.01, false)]
    public void A_level_is_read_on_the_stick_and_nowhere_else(double level, bool isOn)
    {
        ToTheLevel(5);
        if (isOn)
            Assert.IsType<Accepted>(Card.Decide(new ReadGauge("level", new((decimal)level), true), Iona, _bench.Now));
        else
            Assert.Equal("That is not on the dipstick.", No(new ReadGauge("level", new((decimal)level))));
    }

    [Fact]
    public void Nothing_is_topped_up_that_no_bottle_holds_and_nothing_before_the_next_reading()
    {
        ToTheLevel(5);
        Assert.Equal("Nothing should be poured before the next reading.", No(new Pour("level", Litres(0.3m))));
        _bench.Do(new ReadGauge("level", new(0.5m)));
        Assert.Equal("An amount is above zero.", No(new Pour("level", Litres(0))));
        Assert.Contains("more than any sump here holds", No(new Pour("level", Litres(51))));
        Assert.Equal("The last reading does not ask for any to be taken out.", No(new TakeOut("level", Litres(0.3m))));
        _bench.Do(new Pour("level", Litres(0.3m)));
        Assert.Equal("Nothing should be poured before the next reading.", No(new Pour("level", Litres(0.1m))));
    }

    // 6 L went in, so no more than that comes out; what comes out is taken from the sum.
    [Theory]
    [InlineData(6.01, false)]
    [InlineData(6, true)]
    [InlineData(0.6, true)]
    public void No_more_is_drawn_than_went_in(double litres, bool canBe)
    {
        ToTheLevel(6);
        _bench.Do(new ReadGauge("level", new(1.3m)));
        var advised = Assert.IsType<TakeOut>(UsualPress.Of(Card, Card.Step("level")!));
        Assert.Equal(Card.FillOf("engine-oil").After(new(1.3m)).Amount, advised.Amount.Value);
        Assert.Equal("An amount is above zero.", No(new TakeOut("level", Litres(0))));
        var drawn = new TakeOut("level", Litres((decimal)litres));
        if (!canBe)
        {
            Assert.Equal("Only 6.00 L went in.", No(drawn));
            return;
        }
        _bench.Do(drawn);
        Assert.Equal(L(6 - (decimal)litres), Card.Fluid("engine-oil").Poured);
        Assert.Equal("The last reading does not ask for any to be taken out.", No(new TakeOut("level", Litres(0.1m))));
    }

    // From 1.3 down to three quarters are 0.55 of 1.4 L: 0.77, in steps of a twentieth and never too little, 0.80 L.
    [Fact]
    public void What_stands_too_high_comes_out_at_a_step_that_was_left_for_later_too()
    {
        ToTheLevel(6);
        _bench.Do(new ReadGauge("level", new(1.3m)));
        _bench.Do(new PutAside("level", "The pump is lent out"));
        _bench.Do(UsualPress.Of(Card, Card.Step("level")!));
        Assert.Equal(L(5.2m), Card.Fluid("engine-oil").Poured);
    }

    // 6 L are in and 4.6 L must stay for it to start: a hundredth too much comes out, and it is filled again through what was shut.
    [Theory]
    [InlineData(1.4, "")]
    [InlineData(1.41, "first-pour loosen-filler-cap filler-cap-on dipstick-up dipstick-in")]
    public void What_is_drawn_past_the_amount_to_start_with_is_filled_again(double litres, string again)
    {
        ToTheLevel(6);
        _bench.Do(new ReadGauge("level", new(1.3m)));
        var before = Card.Remaining.Select(s => s.Id.Text).ToHashSet();
        _bench.Do(new TakeOut("level", Litres((decimal)litres)));
        Assert.Equal(again.Split(' ', StringSplitOptions.RemoveEmptyEntries).Order(),
            Card.Remaining.Select(s => s.Id.Text).Where(s => !before.Contains(s)).Order());
        while (Card.Next is { } next)
        {
            _bench.Wait(60);
            _bench.Do(UsualPress.Of(Card, next));
        }
        Assert.Empty(Card.BeforeSigning());
        Assert.Equal(L(again.Length > 0 ? 5 : 4.6m), Card.Fluid("engine-oil").Poured);
    }

    [Fact]
    public void As_much_goes_back_as_came_out_but_never_less_than_it_may_start_with()
    {
        var card = On("hespin-16", "gearbox-oil");
        var now = card.History[^1].At;
        void Press(CardCommand command) => card = WayOutTests.Given(card, command, now += TimeSpan.FromMinutes(70));
        while (card.Next!.Kind != StepKind.Measure)
            Press(UsualPress.Of(card, card.Next));
        Press(new Measure(card.Next.Id, Litres(1.4m), true));
        while (card.Next!.Kind != StepKind.Pour)
            Press(UsualPress.Of(card, card.Next));
        var pour = card.Next.Id;
        Assert.Equal(L(4), card.Wanted("gearbox-oil"));
        Press(new Pour(pour, Litres(1.4m)));
        Assert.Equal(StepStatus.Waiting, card.State(pour).Status);
        var asked = Assert.IsType<PourQuestion>(Assert.IsType<Asked>(card.Decide(new Pour(pour, Litres(3)), Iona, now)).Question);
        Assert.Equal("3.00 L makes 4.40 L in all; to start it needs 4.00 L. Look for what does not agree. Was it really 3.00 L?",
            asked.Text);
        Press(UsualPress.Of(card, card.Next));
        Assert.Equal((StepStatus.Done, L(4)), (card.State(pour).Status, card.Fluid("gearbox-oil").Poured));
        while (card.Next is { } next)
            Press(UsualPress.Of(card, next));
        Assert.Empty(card.BeforeSigning());
    }

    [Fact]
    public void The_usual_press_at_the_stick_does_what_the_reading_asks_for()
    {
        ToTheLevel(5);
        Assert.IsType<ReadGauge>(UsualPress.Of(Card, Card.Step("level")!));
        _bench.Do(new ReadGauge("level", new(0.5m)));
        var pour = Assert.IsType<Pour>(UsualPress.Of(Card, Card.Step("level")!));
        Assert.Equal(Card.FillOf("engine-oil").After(new(0.5m)).Amount, pour.Amount.Value);
    }
}
