using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Workshop;
using CsCheck;

namespace Anakyklos.Core.Tests;

/// <summary>What is believed of a vehicle's readings, and how an exchanged odometer carries on.</summary>
public sealed class OdometerHistoryTests
{
    private static readonly DateTimeOffset Noon = new(2026, 7, 1, 12, 0, 0, TimeSpan.Zero);

    private static Quantity<Distance> Km(decimal km) => Quantity<Distance>.Of(km, Distance.Kilometre);

    private static OdometerReading Read(int daysAgo, decimal km, bool twice = false) =>
        new(Noon.AddDays(-daysAgo), Km(km), "", LookedTwice: twice);

    private static DateOnly Day(DateTimeOffset at) => DateOnly.FromDateTime(at.UtcDateTime);

    private static OdometerHistory Of(params OdometerReading[] readings) =>
        new([.. readings.OrderByDescending(r => r.At)], [], Day);

    [Fact]
    public void A_last_reading_far_beyond_the_use_is_left_out_of_the_forecast()
    {
        // 60 to 63 thousand, a thousand every 40 days, then 114: 25 km a day three times, 40 days, 2,000 more is 5,000 at most.
        var history = Of(Read(160, 60_000), Read(120, 61_000), Read(80, 62_000), Read(40, 63_000), Read(0, 114_000));
        Assert.Equal(Km(114_000), Assert.Single(history.LeftOut).Reading);
        Assert.Equal(Km(63_000), history.Last!.Reading);
        Assert.Equal((Km(25), 1), (history.Use!.Usual, history.Use.LeftOut));
        Assert.Equal(Km(63_000), history.Marks[0].Odometer);
    }

    [Theory]
    [InlineData(68_000, false)]
    [InlineData(68_001, true)]
    public void What_is_believed_at_most_is_still_believed(decimal last, bool left) =>
        Assert.Equal(left, Of(Read(160, 60_000), Read(120, 61_000), Read(80, 62_000), Read(40, 63_000), Read(0, last)).LeftOut.Count == 1);

    [Fact]
    public void One_that_was_looked_at_twice_is_believed_and_so_is_one_that_the_next_bears_out()
    {
        var looked = Of(Read(160, 60_000), Read(120, 61_000), Read(80, 62_000), Read(40, 63_000), Read(0, 114_000, true));
        Assert.Equal((Km(114_000), 0), (looked.Last!.Reading, looked.LeftOut.Count));
        // Nobody looked, yet a month later it had gone on from there.
        Assert.Empty(Of(Read(160, 60_000), Read(120, 61_000), Read(80, 62_000), Read(40, 114_000), Read(0, 115_000)).LeftOut);
    }

    [Fact]
    public void A_reading_too_low_is_left_out_as_well()
    {
        var history = Of(Read(160, 60_000), Read(120, 61_000), Read(80, 62_000), Read(40, 63_000), Read(0, 6_400));
        Assert.Equal((Km(63_000), Km(6_400)), (history.Last!.Reading, Assert.Single(history.LeftOut).Reading));
    }

    [Fact]
    public void With_two_readings_before_nothing_is_called_odd() =>
        Assert.Empty(Of(Read(80, 62_000), Read(40, 63_000), Read(0, 75_000)).LeftOut);

    [Fact]
    public void Of_one_day_the_last_reading_counts()
    {
        var history = Of(Read(40, 63_000), new(Noon, Km(640_500), ""), new(Noon.AddHours(1), Km(64_050), ""));
        Assert.Equal(Km(64_050), history.Last!.Reading);
    }

    [Fact]
    public void An_exchanged_odometer_carries_on_from_the_old_one()
    {
        // 80,000 on the old one is 500 on the new one: 79,500 less in everything before.
        var exchanged = new ExchangedClock(Noon.AddDays(-20), Km(80_000), Km(500));
        var history = new OdometerHistory([Read(0, 1_500), Read(20, 500), Read(60, 78_000), Read(100, 76_000)], [exchanged], Day);
        Assert.Equal([Km(1_500), Km(500), Km(-1_500), Km(-3_500)], history.Marks.Select(m => m.Odometer));
        Assert.Equal(Km(50), history.Use!.Usual);
        Assert.Empty(history.LeftOut);
        Assert.Equal(Km(-1_500), history.OnThisClock(Km(78_000), Noon.AddDays(-60)));
        Assert.Equal(Km(1_500), history.OnThisClock(Km(1_500), Noon));
    }

    [Fact]
    public void Two_exchanges_add_up()
    {
        var history = new OdometerHistory([], [new(Noon.AddDays(-9), Km(900), Km(0)), new(Noon.AddDays(-5), Km(40), Km(10_000))], Day);
        // 850 on the first was 50 before the exchange; that is 50 before zero on the second, and 90 before 10,000 on the third.
        Assert.Equal(Km(9_910), history.OnThisClock(Km(850), Noon.AddDays(-12)));
        Assert.Equal(Km(9_980), history.OnThisClock(Km(20), Noon.AddDays(-7)));
    }

    [Theory]
    // Both known: 81,000 and what the new one has run.
    [InlineData(81_000, 100, 81_020)]
    // The old one's end alone: the new one began at zero.
    [InlineData(81_000, null, 81_120)]
    // Nobody knows: 10 days at 50 km.
    [InlineData(null, null, 80_500)]
    // The new one has run 20 by itself; its use says more.
    [InlineData(null, 100, 80_500)]
    public void What_is_not_known_of_an_exchange_is_reckoned_from_the_use(int? old, int? began, int was)
    {
        var use = new DailyUse(Km(50), Km(40), Km(60), 5, 0, 0);
        var exchanged = ExchangedClock.Of(Noon, Km(120), old is { } o ? Km(o) : null, began is { } b ? Km(b) : null, Km(80_000), use, 10);
        Assert.Equal((Km(was), Km(120), Km(120 - was)), (exchanged.Was, exchanged.Shows, exchanged.Apart));
    }

    [Fact]
    public void A_new_odometer_that_ran_more_than_the_use_says_is_believed_before_the_use()
    {
        var use = new DailyUse(Km(50), Km(40), Km(60), 5, 0, 0);
        Assert.Equal(Km(82_000), ExchangedClock.Of(Noon, Km(2_100), null, Km(100), Km(80_000), use, 10).Was);
        Assert.Equal(Km(80_000), ExchangedClock.Of(Noon, Km(120), null, null, Km(80_000), null, 10).Was);
    }

    [Fact]
    public void A_reading_lies_between_its_neighbours_that_are_believed()
    {
        var wrong = Read(40, 99_000);
        var history = Of(Read(160, 60_000), Read(120, 61_000), Read(80, 62_000), wrong, Read(0, 64_000));
        Assert.Equal((Km(62_000), Km(64_000)), history.Between(Day(wrong.At), wrong));
        // Three days on no vehicle has gone further than 4,500 km.
        Assert.Equal((Km(64_000), Km(68_500)), history.Between(Day(Noon).AddDays(3)));
        Assert.Equal((null, Km(60_000)), history.Between(Day(Noon).AddDays(-300)));
    }

    [Fact]
    public void What_is_told_just_now_carries_along_what_is_noted_still()
    {
        var noted = Of(Read(100, 77_000), Read(60, 78_000), Read(20, 640_500));
        var right = noted.Knowing(null, (noted.Readings[0], Km(79_000)));
        Assert.Equal([Km(79_000), Km(78_000), Km(77_000)], right.Marks.Select(m => m.Odometer));
        // A job that was done at the reading that was wrong goes with it, another does not.
        Assert.Equal((Km(79_000), Km(78_000)), (right.Carried(Km(640_500)), right.Carried(Km(78_000))));
        var exchanged = noted.Knowing(new(Noon, Km(80_000), Km(100)), null);
        Assert.Equal(Km(-1_900), exchanged.Carried(Km(78_000)));
        Assert.Equal(Km(-2_900), exchanged.Marks[^1].Odometer);
        Assert.Equal(Km(78_000), noted.Knowing(null, null).Carried(Km(78_000)));
        var vehicle = new Vehicle("HD-40", "tarn-courier-20d", "", 2020, Use.Normal);
        Assert.Equal((Km(0), Km(-79_900)),
            (noted.PastOf(vehicle).Delivered.Odometer, exchanged.PastOf(vehicle).Delivered.Odometer));
    }

    /// <summary>Whatever was driven, an exchange changes nothing of what is left until a job is due.</summary>
    [Fact]
    public void What_is_left_until_a_job_is_due_is_the_same_on_either_odometer() =>
        Gen.Select(Gen.Int[5_000, 30_000], Gen.Int[0, 200_000], Gen.Int[0, 20_000], Gen.Int[0, 20_000], Gen.Int[0, 90_000])
            .Sample((every, done, driven, before, shows) =>
        {
            var item = new ServiceItem("oil", "Oil", [(new ServiceInterval(Km(every), 12), RuleOf.Maker)]);
            var exchanged = new ExchangedClock(Noon.AddDays(-10), Km(done + Math.Min(before, driven)), Km(shows));
            var history = new OdometerHistory([], [exchanged], Day);
            var past = new VehiclePast(new(default, Day(Noon).AddDays(-900)));
            UseMark now = new(Km(done + driven), Day(Noon)), last = new(Km(done), Day(Noon.AddDays(-90)));
            var one = item.At(now, last, past, DueWindow.Usual);
            var then = now with { Odometer = now.Odometer + exchanged.Apart };
            var other = item.At(then, last with { Odometer = history.OnThisClock(last.Odometer, Noon.AddDays(-90)) }, past,
                DueWindow.Usual);
            Assert.Equal((one.State, one.Left(now)), (other.State, other.Left(then)));
        });
}
