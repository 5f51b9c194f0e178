using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Weeks;
using CsCheck;

namespace Anakyklos.Core.Tests;

/// <summary>What a vehicle should come for and when, and times that come back every week.</summary>
public sealed class WeekWishTests
{
    private static readonly DateOnly Today = new(2026, 3, 9);
    private static readonly VehiclePast Past = new(new(default, new(2024, 3, 9)));
    private static readonly DashScheme NoDash = Workbench.Courier.Dash;

    private static Quantity<Distance> Km(decimal km) => Quantity<Distance>.Of(km, Distance.Kilometre);

    private static Standing Job(string id, decimal km, decimal lastAt, DateOnly lastDay, decimal at = 50_000) =>
        new ServiceItem(id, id, [(new(Km(km), 24), RuleOf.Maker)])
            .At(new(Km(at), Today), new UseMark(Km(lastAt), lastDay), Past, DueWindow.Usual);

    private static VisitWish? Wish(Standing[] items, DailyUse? use, string code = "", Trip? trip = null, params Wish[] others) =>
        VisitWish.Of(items, new(Km(50_000), Today), Past, use, NoDash, code, trip, others, Today.AddDays(13), DueWindow.Usual);

    // A hundred kilometres a day, 80 on quiet days and 125 on busy ones.
    private static readonly DailyUse Use = new(Km(100), Km(80), Km(125), 5, 0, 0);

    [Fact]
    public void What_falls_due_in_the_time_comes_with_its_band_and_brings_what_is_near()
    {
        // Due in 1,000 km: in ten days, eight at the earliest. Near: 900 km beyond what is driven by then. Far: in 40,000 km.
        var wish = Wish([Job("oil", 10_000, 41_000, new(2025, 9, 9)), Job("cabin", 10_000, 42_200, new(2025, 9, 9)),
            Job("plugs", 60_000, 30_000, new(2025, 9, 9))], Use)!;
        Assert.Equal(["oil", "cabin"], wish.Jobs.Select(j => j.Text));
        Assert.Equal(new Wish(WishBecause.Due, "oil", "oil", Today.AddDays(8), Today.AddDays(10)), wish.Wishes[0]);
        Assert.Equal(WishBecause.Near, wish.Wishes[1].Because);
        // What is only near brings no vehicle here.
        Assert.Null(Wish([Job("cabin", 10_000, 42_200, new(2025, 9, 9))], Use));
        // Without a known use only days count.
        Assert.Null(Wish([Job("oil", 10_000, 41_500, new(2025, 9, 9))], null));
    }

    [Fact]
    public void A_trip_wants_it_before_it_leaves_and_what_was_found_wants_it_as_well()
    {
        var trip = new Trip(Km(3_000), Today.AddDays(9), 5);
        var wish = Wish([Job("oil", 10_000, 43_500, new(2025, 9, 9))], Use, trip: trip)!;
        Assert.Equal(new Wish(WishBecause.Trip, "oil", "oil", Today.AddDays(6), Today.AddDays(8)), Assert.Single(wish.Wishes));
        var found = new Wish(WishBecause.Recommended, "Hose cracked", null, Today.AddDays(-20), Today.AddDays(10));
        wish = Wish([Job("oil", 10_000, 49_500, new(2026, 2, 9))], Use, others: found)!;
        Assert.Empty(wish.Jobs);
        Assert.Equal(found, Assert.Single(wish.Wishes));
    }

    [Fact]
    public void A_message_asks_for_its_jobs_within_a_week()
    {
        var message = NoDash.Messages[0];
        var items = ServiceItem.Of(Workbench.Courier, Intervals.Use.Normal, []);
        var now = new UseMark(Km(1_000), Today);
        Standing[] stand = [.. items.Select(i => i.At(now, now, Past, DueWindow.Usual))];
        Assert.Null(VisitWish.Of(stand, now, Past, Use, NoDash, "", null, [], Today.AddDays(13), DueWindow.Usual));
        var wish = VisitWish.Of(stand, now, Past, Use, NoDash, message.Code, null, [], Today.AddDays(13), DueWindow.Usual)!;
        Assert.Equal(message.Jobs.Order(), wish.Jobs.Order());
        Assert.All(wish.Wishes, w => Assert.Equal((WishBecause.Message, Today, Today.AddDays(7)), (w.Because, w.From, w.By)));
    }

    [Theory]
    [InlineData(0, 8)] // eight days before it can fall due: a point each
    [InlineData(7, 1)]
    [InlineData(8, 0)]
    [InlineData(9, 4)] // in its band: four a day
    [InlineData(10, 8)]
    [InlineData(11, 48)] // a day over: forty more
    [InlineData(13, 128)]
    public void A_day_costs_what_is_given_away_risked_or_over(int day, int cost) => Assert.Equal(cost,
        VisitCost.On([new(WishBecause.Due, "", null, Today.AddDays(8), Today.AddDays(10)),
            new(WishBecause.Near, "", null, Today, Today)], Today, Today.AddDays(day)));

    [Fact]
    public void What_is_over_already_costs_more_and_a_stop_most()
    {
        Wish At(WishBecause because, int by) => new(because, "", null, Today.AddDays(by), Today.AddDays(by));
        Assert.Equal(2 * 40, VisitCost.On([At(WishBecause.Due, 0)], Today, Today.AddDays(2)));
        Assert.Equal(2 * 70, VisitCost.On([At(WishBecause.Due, -30)], Today, Today.AddDays(2)));
        Assert.Equal(2 * 80, VisitCost.On([At(WishBecause.Due, -300)], Today, Today.AddDays(2)));
        Assert.Equal(2 * 80, VisitCost.On([At(WishBecause.Stop, -1)], Today, Today.AddDays(2)));
        Assert.Equal(2 * (40 + 45), VisitCost.On([At(WishBecause.Due, 0), At(WishBecause.Due, -5)], Today, Today.AddDays(2)));
        Assert.Equal(200 + 20 * 40, VisitCost.Waits([At(WishBecause.Due, 0)], Today, Today.AddDays(13)));
        Assert.Equal((0, 4), (VisitCost.DaysOver([At(WishBecause.Due, 3)], Today), VisitCost.DaysOver([At(WishBecause.Due, -4)], Today)));
    }

    [Theory]
    [InlineData("Mo-Fr 08:00-16:30", "Mo-Fr 08:00-16:30")]
    [InlineData("mo,we 7-9, 14:45-16; sa 9:00-12:00", "Mo 07:00-09:00, 14:45-16:00; We 07:00-09:00, 14:45-16:00; Sa 09:00-12:00")]
    [InlineData("Mo 8-12; Mo 11-13", "Mo 08:00-13:00")]
    [InlineData("Su 00:00-24:00", "Su 00:00-24:00")]
    [InlineData("Tu 08:05-08:20", "Tu 08:00-08:30")] // begun quarter hours count
    [InlineData("", "")]
    public void Weekly_times_are_read_as_they_are_written(string text, string said) =>
        Assert.Equal(said, WeeklyTimes.Read(text, out _)!.ToString());

    [Theory]
    [InlineData("every day", "every day")]
    [InlineData("Mo", "Mo")]
    [InlineData("Fr-Mo 8-9", "Fr-Mo 8-9")]
    [InlineData("Mo 9-8", "9-8")]
    [InlineData("Mo 9-25", "9-25")]
    [InlineData("Mo 9:75-10", "9:75-10")]
    [InlineData("Mo 23:00-24:01", "23:00-24:01")]
    public void What_is_no_time_is_named(string text, string named)
    {
        Assert.Null(WeeklyTimes.Read(text, out var problem));
        Assert.Contains($"“{named}”", problem, StringComparison.Ordinal);
    }

    [Fact]
    public void Weekly_times_come_back_from_their_words() => Gen.Int[0, 95].Array[7].Sample(begins =>
    {
        string[] names = ["Mo", "Tu", "We", "Th", "Fr", "Sa", "Su"];
        var text = string.Join("; ", begins.Select((b, i) =>
            $"{names[i]} {b / 4:00}:{b % 4 * 15:00}-{(b + 1) / 4:00}:{(b + 1) % 4 * 15:00}"));
        var read = WeeklyTimes.Read(text, out _)!;
        Assert.Equal(read, WeeklyTimes.Read(read.ToString(), out _));
        // The ninth of March 2026 is a Monday.
        for (var d = 0; d < 7; d++)
            Assert.Equal(Quarters.Between(begins[d], begins[d] + 1), read.On(Today.AddDays(d)));
    });
}
