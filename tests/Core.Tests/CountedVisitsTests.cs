using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Tests;

/// <summary>“Every second oil service”: services count as they are done, besides the interval of the job itself.</summary>
public sealed class CountedVisitsTests
{
    private static readonly DateOnly Today = new(2026, 3, 9);
    private static readonly VehiclePast New = new(new(default, new(2024, 3, 9)));

    private static Quantity<Distance> Km(decimal km) => Quantity<Distance>.Of(km, Distance.Kilometre);

    // Harsh: oil every 10,000 km or 6 months; the fuel filter every second time of 15,000 km or 12 months, and every second oil service.
    private static readonly ModelSheet Sheet = Workbench.Courier with
    {
        Intervals = Workbench.Courier.Intervals.ToDictionary(i => i.Key,
            i => i.Key == "fuel-filter" ? i.Value with { Of = "engine-oil-and-filter" } : i.Value),
    };

    private static Standing Filter(int km, (int Km, DateOnly Day)? oil, (int Km, DateOnly Day) filter, int? times, params OwnRule[] own)
    {
        var items = ServiceItem.Of(Sheet, Use.Harsh, own);
        UseMark? Mark((int Km, DateOnly Day)? m) => m is { } x ? new(Km(x.Km), x.Day) : null;
        return ServiceItem.Of(items, new(Km(km), Today), [.. items.Select(i => i.Job == "engine-oil-and-filter" ? Mark(oil)
                : i.Job == "fuel-filter" ? Mark(filter) : null)], New, DueWindow.Usual,
            times is { } n ? [.. items.Select(i => i.Job == "fuel-filter" ? n : 0)] : null).Single(s => s.Item.Job == "fuel-filter");
    }

    [Fact]
    public void With_one_of_two_done_it_is_due_with_the_next()
    {
        var s = Filter(46_000, (40_000, new(2025, 12, 9)), (30_000, new(2025, 6, 9)), 1);
        Assert.Equal((Km(50_000), new DateOnly(2026, 6, 9), RuleOf.Visits, DueState.NotYet), (s.At, s.By, s.AtOf, s.State));
        Assert.Equal(RuleOf.Visits, s.RuleThatCounts(new(Km(46_000), Today)));
        // Its own interval stands beside it: 30,000 km or two years.
        Assert.Equal(new NextDue(Km(60_000), new DateOnly(2027, 6, 9)), s.Visits!.Own);
        Assert.Equal((1, 2), (s.Visits.Done, s.Visits.Of.Every));
        Assert.Equal(DueState.Soon, Filter(49_100, (40_000, new(2025, 12, 9)), (30_000, new(2025, 6, 9)), 1).State);
    }

    [Fact]
    public void With_none_done_one_more_lies_between()
    {
        // Both were done together: the next oil service is one of two.
        var s = Filter(36_000, (30_000, new(2025, 12, 9)), (30_000, new(2025, 12, 9)), 0);
        Assert.Equal((Km(50_000), new DateOnly(2026, 12, 9)), (s.At, s.By));
        // The first came after 4,000 km already: the second is due 10,000 km after that.
        s = Filter(36_000, (34_000, new(2026, 2, 9)), (30_000, new(2025, 12, 9)), 1);
        Assert.Equal((Km(44_000), new DateOnly(2026, 8, 9)), (s.At, s.By));
    }

    [Fact]
    public void The_second_that_went_by_without_it_makes_it_overdue_since_then()
    {
        var s = Filter(46_000, (45_000, new(2026, 2, 9)), (30_000, new(2025, 6, 9)), 2);
        Assert.Equal((Km(45_000), new DateOnly(2026, 2, 9), DueState.Overdue), (s.At, s.By, s.State));
        // Done together with it on that day, it begins anew.
        Assert.Equal(DueState.NotYet, Filter(46_000, (45_000, new(2026, 2, 9)), (45_000, new(2026, 2, 9)), 0).State);
    }

    [Fact]
    public void An_owners_rule_that_halves_the_oil_halves_the_distance_here_and_its_own_interval_counts_where_it_is_shorter()
    {
        var halved = new OwnRule("engine-oil-and-filter", new(Km(5_000), null), RuleOf.Owner);
        Assert.Equal((Km(45_000), RuleOf.Visits),
            Filter(41_000, (40_000, new(2026, 1, 9)), (35_000, new(2025, 12, 9)), 1, halved) is var s ? (s.At, s.AtOf) : default);
        // Before anybody counted the plan is two such intervals.
        s = Filter(36_000, (35_000, new(2026, 1, 9)), (35_000, new(2026, 1, 9)), null, halved);
        Assert.Equal((Km(45_000), RuleOf.Visits), (s.At, s.AtOf));
        Assert.Null(s.Visits);
        var own = new OwnRule("fuel-filter", new(Km(8_000), null), RuleOf.Owner);
        s = Filter(41_000, (40_000, new(2026, 1, 9)), (34_000, new(2025, 12, 9)), 1, own);
        Assert.Equal((Km(42_000), RuleOf.Owner), (s.At, s.AtOf));
        Assert.Equal(RuleOf.Owner, s.RuleThatCounts(new(Km(41_000), Today)));
    }

    [Fact]
    public void What_counts_no_other_job_is_as_it_was()
    {
        var items = ServiceItem.Of(Sheet, Use.Harsh, []);
        UseMark?[] last = [.. items.Select(_ => (UseMark?)new UseMark(Km(30_000), new(2025, 12, 9)))];
        var now = new UseMark(Km(36_000), Today);
        Assert.Equal(ServiceItem.Of(items, now, last, New, DueWindow.Usual).Where(s => s.Item.Job != "fuel-filter"),
            ServiceItem.Of(items, now, last, New, DueWindow.Usual, [.. items.Select(_ => 1)]).Where(s => s.Item.Job != "fuel-filter"));
        // Nobody knows when it was done: that is all there is to say.
        var unknown = ServiceItem.Of(items, now, [.. items.Select(_ => (UseMark?)null)], New with { IsUnknown = true }, DueWindow.Usual,
            [.. items.Select(_ => 1)]);
        Assert.All(unknown, s => Assert.Null(s.Visits));
    }

    [Theory]
    [InlineData("\"of\": \"no-such-job\"", "There is no job “no-such-job”.")]
    [InlineData("\"of\": \"fuel-filter\"", "has to be another job")]
    [InlineData("\"of\": \"engine-oil-and-filter\", \"everyTime\": 1", "Only what is done every second time")]
    public void A_sheet_that_counts_what_cannot_be_counted_is_refused(string of, string says)
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "tarn-courier-20d.json"));
        const string rule = "\"harsh\": { \"distance\": \"15000 km\", \"months\": 12 }, \"everyTime\": 2";
        Assert.Contains(rule, text);
        var changed = text.Replace(rule, "\"harsh\": { \"distance\": \"15000 km\", \"months\": 12 }, "
            + (of.Contains("everyTime") ? of : $"\"everyTime\": 2, {of}"));
        Assert.Contains(SheetReader.Read(changed).Errors, e => e.What.Contains(says, StringComparison.Ordinal));
        Assert.Equal("engine-oil-and-filter", SheetReader.Read(text.Replace(rule, $"{rule}, \"of\": \"engine-oil-and-filter\"")).Sheet!
            .Intervals["fuel-filter"].Of);
    }
}
