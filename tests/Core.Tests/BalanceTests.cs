using Anakyklos.Core.Balance;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>What was filled, topped up, found and used, over the services of a vehicle and at the lift.</summary>
public class BalanceTests
{
    private Workbench _bench = new();

    private static FluidService Service(int month, decimal km, decimal? found, decimal stands, decimal went = 6, decimal? came = null) =>
        new(new(2026, month, 1), Km(km), true, found is { } f ? L(f) : null, came is { } c ? L(c) : null, L(went), L(stands));

    private static FluidService TopUp(int month, decimal km, decimal went) =>
        new(new(2026, month, 1), Km(km), false, null, null, L(went), null);

    // 6.0 L stood at 10,000 km; 0.5 L topped up at 14,000; 5.5 L found at 20,000: 1.0 L in 10,000 km is 0.1 L in 1,000.
    [Fact]
    public void What_was_filled_and_topped_up_less_what_is_left_was_used()
    {
        var use = Assert.Single(FluidBalance.Uses([Service(1, 10_000, null, 6), TopUp(3, 14_000, 0.5m), Service(6, 20_000, 5.5m, 6)]));
        Assert.Equal((L(1), L(0.5m), L(0.1m), true), (use.Used, use.ToppedUp, use.PerThousand, use.ByGauge));
        Assert.Equal((new DateOnly(2026, 1, 1), new DateOnly(2026, 6, 1), Km(10_000)), (use.From, use.Until, use.Over));
    }

    [Fact]
    public void What_came_out_serves_where_nobody_looked_and_what_nobody_knows_begins_no_stretch()
    {
        var uses = FluidBalance.Uses([Service(1, 10_000, null, 6), Service(2, 15_000, null, 6, came: 5.8m), Service(3, 20_000, null, 6),
            TopUp(4, 21_000, 1), Service(5, 25_000, 5, 6)]);
        Assert.Equal([(L(0.2m), false), (L(2), true)], uses.Select(u => (u.Used, u.ByGauge)));
        // After a level that nobody read, nothing is known.
        Assert.Null(FluidBalance.Now([Service(1, 10_000, null, 6), Service(2, 12_000, 6, 6) with { Stands = null }]));
        // What is topped up without a drain is no new beginning.
        var now = FluidBalance.Now([Service(1, 10_000, null, 6), TopUp(2, 11_000, 0.3m), TopUp(3, 12_000, 0.4m)])!;
        Assert.Equal((L(6), L(0.7m)), (now.Stands, now.ToppedUp));
    }

    [Fact]
    public void Fewer_than_a_hundred_kilometres_tell_no_rate()
    {
        FluidUse Over(decimal km) => new FilledBefore(new(2026, 1, 1), Km(1000), L(6), L(0))
            .Until(new(2026, 2, 1), Km(1000 + km), L(5), true);
        Assert.Null(Over(99.9m).PerThousand);
        Assert.Equal(L(10), Over(100).PerThousand);
        Assert.Equal(UseVerdict.Usual, FluidBalance.Judge(Over(99), null, L(1.4m)));
    }

    // Without a limit of its own 0.5 L in 1,000 km is borne; a quarter of the way between the marks is what two readings may err.
    [Theory]
    [InlineData(0.5, null, UseVerdict.Usual)]
    [InlineData(0.51, null, UseVerdict.Much)]
    [InlineData(0.16, 0.15, UseVerdict.Much)]
    [InlineData(0.15, 0.15, UseVerdict.Usual)]
    [InlineData(-0.35, 0.15, UseVerdict.Usual)]
    [InlineData(-0.36, 0.15, UseVerdict.Gained)]
    public void Use_is_held_against_its_limit(double used, double? limit, UseVerdict verdict)
    {
        var use = new FilledBefore(new(2026, 1, 1), Km(0), L(6), L(0)).Until(new(2026, 2, 1), Km(1000), L(6 - (decimal)used), true);
        Assert.Equal(verdict, FluidBalance.Judge(use, limit is { } l ? L((decimal)l) : null, L(1.4m)));
    }

    // Over 10,000 km each; two readings between marks 1.4 L apart err by 0.35 L, which is 0.035 L in 1,000 km.
    [Theory]
    [InlineData(new[] { 0.2, 0.3 }, UseTrend.Unknown)]
    [InlineData(new[] { 0.2, 0.3, 0.56 }, UseTrend.Rising)]
    [InlineData(new[] { 0.2, 0.3, 0.55 }, UseTrend.Steady)]
    [InlineData(new[] { 0.2, 0.3, 0.4, 0.5, 0.6 }, UseTrend.Rising)]
    [InlineData(new[] { 0.9, 0.3, 0.5, 0.6 }, UseTrend.Steady)]
    [InlineData(new[] { 0.9, 0.6, 0.3 }, UseTrend.Falling)]
    [InlineData(new[] { 0.1, 0.9, 0.2 }, UseTrend.Steady)]
    public void A_trend_is_told_where_readings_could_not_err_so_far(double[] used, UseTrend trend)
    {
        var services = used.Select((u, i) => Service(i + 2, 10_000 * (i + 1), 6 - (decimal)u, 6)).Prepend(Service(1, 0, null, 6));
        Assert.Equal(trend, FluidBalance.Trend(FluidBalance.Uses(services), L(1.4m)));
    }

    [Fact]
    public void The_balance_is_the_same_in_whatever_order_and_unit_was_topped_up()
    {
        var random = new Random(20261127);
        for (var i = 0; i < 500; i++)
        {
            List<FluidService> pours = [.. Enumerable.Range(0, random.Next(1, 6)).Select(n => TopUp(2, 1000 * n,
                0) with { In = Quantity<Volume>.Of(random.Next(1, 40), Volume.Units[random.Next(Volume.Units.Count)]) * 0.1m })];
            FluidUse Of(IEnumerable<FluidService> between) =>
                FluidBalance.Uses([Service(1, 0, null, 6), .. between, Service(6, 9000, 5, 6)])[0];
            var sum = pours.Aggregate(L(0), (all, p) => all + p.In);
            Assert.Equal(L(1) + sum, Of(pours).Used);
            Assert.Equal(Of(pours).Used, Of(pours.OrderBy(_ => random.Next())).Used);
        }
    }

    private void Filled(decimal stands) => _bench = new(filled: new Dictionary<FluidId, FilledBefore>
    {
        ["engine-oil"] = new(new(2026, 1, 5), _bench.Card.Opened.Odometer - Km(10_000), L(stands), L(0.2m)),
    });

    // 6.40 L at the top mark, 1.40 L between the marks: 5.0 L at the bottom mark. 6.05 L stood and 0.2 L were topped up.
    [Fact]
    public void A_level_dipped_before_the_drain_tells_what_was_used()
    {
        Filled(6.05m);
        _bench.Do(new Dip(_bench.Card.ToDip!.Id, new(0)));
        var use = _bench.Card.UseOf(Courier.Fluids["engine-oil"], new(2026, 6, 1))!;
        Assert.Equal((L(1.25m), L(0.125m)), (use.Used, use.PerThousand));
        Assert.Null(_bench.Card.ToDip);
        _bench.WorkUpTo();
        Assert.Equal((new Level(0), L(1.25m)), new RecordOf(_bench.Card).Oil);
        _bench.Do(new Sign());
        var service = _bench.Card.ServiceOf(Courier.Fluids["engine-oil"], new(2026, 6, 1))!;
        // Read at three quarters in the end: 6.05 L.
        Assert.Equal((true, L(5), L(6.05m), L(5)), (service.Drained, service.Found, service.Stands, service.In));
    }

    // Looked at, and nothing more: a job that is given up then asks for no run and no look at joints that nobody opened.
    [Fact]
    public void What_was_only_dipped_was_not_touched()
    {
        _bench.Do(new Dip(_bench.Card.ToDip!.Id, new(0.5m)));
        Assert.True(_bench.Card.CanBeVoid);
        _bench.Do(new DropJob("engine-oil-and-filter", "The wrong oil came"));
        Assert.DoesNotContain(_bench.Card.Remaining, s => s.Traits.Engine == EngineUse.Starts || s.Traits.LooksAtJoints);
        Assert.Contains(_bench.Card.History, h => h.Event is Dipped);
    }

    // An automatic of which 7.1 L came out and 7.1 L went back has used nothing, though 7.5 L stand at its mark.
    [Fact]
    public void What_never_runs_quite_empty_is_held_against_what_went_back()
    {
        FluidService Of(decimal litres, int month)
        {
            var (card, now) = (On("hespin-16", "gearbox-oil"), _bench.Now);
            while (card.Next is { } next)
            {
                now += next.Takes + TimeSpan.FromHours(2);
                card = WayOutTests.Given(card, next.Kind == StepKind.Measure ? new Measure(next.Id, Litres(litres), true)
                    : Rehearsal.UsualPress.Of(card, next), now);
            }
            var service = card.ServiceOf(card.Sheet.Fluids["gearbox-oil"], new(2026, month, 1))!;
            return service with { Odometer = Km(1000 * month) };
        }
        var first = Of(7.1m, 1);
        Assert.Equal((L(7.1m), L(7.1m)), (first.CameOut, first.Stands));
        Assert.Equal([L(0), L(0.1m)], FluidBalance.Uses([first, Of(7.1m, 2), Of(7, 3)]).Select(u => u.Used));
    }

    private sealed record RecordOf(JobCard Card)
    {
        internal (Level?, Quantity<Volume>?) Oil => Records.ServiceRecord.Of(Card).Filled.Single(f => f.Name == "Engine oil") is var line
            ? (line.Found, line.Use?.Used) : default;
    }

    [Theory]
    [InlineData(-0.5, "It used 1.95 L in 10000 km: more than 0.15 L in 1,000 km. Does it leak, does it burn it,")]
    [InlineData(1.3, "It stands 0.57 L higher than it was filled. Was it topped up, does fuel or water run in,")]
    [InlineData(0.2, "")]
    public void What_strays_from_the_last_filling_is_asked_about_and_noted(double level, string asks)
    {
        Filled(6.05m);
        var dip = new Dip(_bench.Card.ToDip!.Id, new((decimal)level));
        var said = _bench.Card.Decide(dip, Iona, _bench.Now);
        if (asks.Length > 0)
            Assert.StartsWith(asks, Assert.IsType<DipQuestion>(Assert.IsType<Asked>(said).Question).Text, StringComparison.Ordinal);
        else
            Assert.IsType<Accepted>(said);
        _bench.Do(dip with { Meant = true });
        Assert.Equal(asks.Length > 0, ((Dipped)_bench.Card.History[^1].Event).AgainstWarning is not null);
    }

    [Fact]
    public void It_is_dipped_on_the_ground_before_it_is_let_out_and_nowhere_else()
    {
        var drain = _bench.Card.ToDip!.Id;
        Assert.Contains("not on the dipstick", _bench.Refusals(new Dip(drain, new(2.5m)))[0].What);
        _bench.Do(new Dip(drain, new(0.5m), true));
        Assert.Equal("It was dipped already: half way.", _bench.Refusals(new Dip(drain, new(0.25m), true))[0].What);
        _bench.Do(new TakeBack(_bench.Card.History[^1].Seq));
        _bench.WorkUpTo("raise");
        Assert.NotNull(_bench.Card.ToDip);
        _bench.Do(new ConfirmStep("raise"));
        Assert.Null(_bench.Card.ToDip);
        Assert.Contains("it is read on level ground", _bench.Refusals(new Dip(drain, new(0.5m)))[0].What);
        _bench.WorkUpTo("level");
        Assert.NotEmpty(_bench.Refusals(new Dip(drain, new(0.5m))));
        Assert.Null(_bench.Card.Fluid("engine-oil").Found);
    }
}
