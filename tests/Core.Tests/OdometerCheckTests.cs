using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Tests;

/// <summary>Which odometer readings are believed.</summary>
public sealed class OdometerCheckTests
{
    private static readonly DateOnly Today = new(2026, 7, 1);

    private static Quantity<Distance> Km(decimal km) => Quantity<Distance>.Of(km, Distance.Kilometre);

    private static Typed<Distance> Typed(decimal shown, Unit<Distance> unit) => new(Quantity<Distance>.Of(shown, unit), unit);

    [Theory]
    // 50 km a day when busy, 100 days: three times 5,000 km and 2,000 more.
    [InlineData(100, 50, 77_000)]
    // The same day: as far as any vehicle goes in one.
    [InlineData(0, 50, 61_500)]
    [InlineData(1, 500, 61_500)]
    [InlineData(2, 500, 63_000)]
    // Nobody knows its use: 400 km a day.
    [InlineData(10, null, 66_000)]
    public void The_most_that_is_believed_follows_from_the_use(int daysAgo, int? busy, int most)
    {
        var use = busy is { } b ? new DailyUse(Km(b / 2m), Km(b / 4m), Km(b), 5, 0, 0) : null;
        Assert.Equal(Km(most), OdometerCheck.Most(new(Km(60_000), Today.AddDays(-daysAgo)), use, Today));
    }

    [Fact]
    public void A_digit_more_or_less_is_seen()
    {
        Assert.Equal("64050 km", OdometerCheck.Meant(Typed(640_500, Distance.Kilometre), Km(62_000), Km(70_000))!.Value.Exact);
        Assert.Equal("64050 km", OdometerCheck.Meant(Typed(6_405, Distance.Kilometre), Km(62_000), Km(70_000))!.Value.Exact);
        Assert.Equal("39800 mi", OdometerCheck.Meant(Typed(398_009, Distance.Mile), Km(62_000), Km(70_000))!.Value.Exact);
        Assert.Null(OdometerCheck.Meant(Typed(114_000, Distance.Kilometre), Km(62_000), Km(70_000)));
        // What was meant lies between the two, both counted in.
        Assert.NotNull(OdometerCheck.Meant(Typed(620_000, Distance.Kilometre), Km(62_000), Km(70_000)));
        Assert.NotNull(OdometerCheck.Meant(Typed(700_000, Distance.Kilometre), Km(62_000), Km(70_000)));
        Assert.Null(OdometerCheck.Meant(Typed(619_990, Distance.Kilometre), Km(62_000), Km(70_000)));
    }

    [Theory]
    [InlineData("146.200", true)]
    [InlineData(" 146,200 km", true)]
    [InlineData("1.802 mi", true)]
    [InlineData("146200", false)]
    [InlineData("146 200", false)]
    [InlineData("146.2", false)]
    [InlineData("14620.5", false)]
    [InlineData("1462.000", false)]
    [InlineData("", false)]
    public void Digits_in_threes_after_a_point_can_be_read_in_two_ways(string text, bool twofold) =>
        Assert.Equal(twofold, OdometerCheck.IsTwofold(text));
}
