using Anakyklos.Core.Stores;

namespace Anakyklos.Core.Tests;

public class DeliveryTests
{
    private static readonly Deliveries Boat = new([DayOfWeek.Tuesday, DayOfWeek.Friday], new(12, 0), 1);

    [Theory]
    [InlineData("2026-03-09T11:59", "2026-03-10")] // Monday before noon: Tuesday
    [InlineData("2026-03-09T12:00", "2026-03-13")] // at noon it counts for the next day: Friday
    [InlineData("2026-03-12T09:00", "2026-03-13")]
    [InlineData("2026-03-13T09:00", "2026-03-17")]
    public void What_is_ordered_comes_on_the_first_day_of_delivery_after_the_lead_time(string ordered, string comes) =>
        Assert.Equal(DateOnly.Parse(comes), Boat.Arrives(DateTimeOffset.Parse(ordered + "Z")));

    [Fact]
    public void A_lead_time_of_weeks_is_waited_for_and_no_day_at_all_is_known_where_nothing_comes()
    {
        var monday = DateTimeOffset.Parse("2026-03-09T08:00Z");
        Assert.Equal(new DateOnly(2026, 3, 31), (Boat with { LeadDays = 21 }).Arrives(monday));
        Assert.Equal(new DateOnly(2026, 3, 9), (Boat with { LeadDays = 0, Days = [DayOfWeek.Monday] }).Arrives(monday));
        Assert.Null((Boat with { Days = [] }).Arrives(monday));
    }

    [Fact]
    public void It_never_comes_sooner_than_the_lead_time_nor_a_week_later_than_need_be()
    {
        var random = new Random(20261130);
        for (var n = 0; n < 2000; n++)
        {
            var days = Enum.GetValues<DayOfWeek>().Where(_ => random.Next(3) == 0).DefaultIfEmpty(DayOfWeek.Sunday).ToList();
            var it = new Deliveries(days, new(random.Next(24), random.Next(60)), random.Next(Deliveries.Longest + 1));
            var at = new DateTimeOffset(2026, 1, 1, 0, 0, 0, TimeSpan.Zero).AddMinutes(random.Next(525_600));
            var came = it.Arrives(at)!.Value;
            // Day by day, as one would count it on a calendar.
            var day = DateOnly.FromDateTime(at.Date);
            if (TimeOnly.FromDateTime(at.DateTime) >= it.OrderBy)
                day = day.AddDays(1);
            for (var left = it.LeadDays; left > 0; left--)
                day = day.AddDays(1);
            while (!days.Contains(day.DayOfWeek))
                day = day.AddDays(1);
            Assert.Equal(day, came);
        }
    }
}
