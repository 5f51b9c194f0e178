using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Tests;

/// <summary>Due, forecast, trip, proposal and fleet at their edges: the very kilometre, the very day, of two equals the right
/// one.</summary>
public sealed class DueEdgeTests
{
    private static readonly DateOnly Today = new(2026, 3, 9);
    private static readonly VehiclePast New = new(new(default, new(2024, 3, 9)));

    private static Quantity<Distance> Km(decimal km) => Quantity<Distance>.Of(km, Distance.Kilometre);

    private static UseMark Mark(decimal km, DateOnly day, int? hours = null) => new(Km(km), day, hours);

    private static ServiceItem Every(decimal km, string job = "oil") => new(job, job, [(new(Km(km), null), RuleOf.Maker)]);

    private static Standing At(ServiceItem item, UseMark now, UseMark? last) => item.At(now, last, New, DueWindow.Usual);

    [Fact]
    public void Of_two_readings_on_a_day_the_higher_counts() => // 400 km in ten days
        Assert.Equal(Km(40), DailyUse.From([Mark(100, Today), Mark(500, Today), Mark(900, Today.AddDays(10))])!.Usual);

    [Fact]
    public void Two_readings_are_enough_and_a_quarter_up_and_down_is_assumed()
    {
        var use = DailyUse.From([Mark(1_000, Today), Mark(1_400, Today.AddDays(10))])!;
        Assert.Equal((Km(40), Km(30), Km(50), 1), (use.Usual, use.Low, use.High, use.Stretches));
    }

    [Fact]
    public void The_middle_and_the_fifths_are_taken_by_days()
    {
        var (km, marks) = (0m, new List<UseMark> { Mark(0, Today) });
        foreach (var rate in new[] { 30, 10, 50, 20, 40 })
            marks.Add(Mark(km += rate * 10, Today.AddDays(10 * marks.Count)));
        var use = DailyUse.From(marks)!;
        // Sorted 10 20 30 40 50, ten days each: a fifth of 50 days is the first, half lies in the third, four fifths is the fourth.
        Assert.Equal((Km(10), Km(30), Km(40)), (use.Low, use.Usual, use.High));
    }

    [Fact]
    public void What_is_older_than_two_years_does_not_count_where_there_is_enough_since()
    {
        UseMark Ago(decimal km, int days) => Mark(km, Today.AddDays(-days));
        // 100 a day until exactly 730 days ago, 40 a day since in three stretches.
        var use = DailyUse.From([Ago(0, 830), Ago(10_000, 730), Ago(10_400, 720), Ago(11_200, 700), Ago(39_200, 0)])!;
        Assert.Equal((Km(40), Km(40), Km(40), 3), (use.Low, use.Usual, use.High, use.Stretches));
        // With two stretches since, all of them count: the busy ones were 100 days of 830.
        Assert.Equal(3, DailyUse.From([Ago(0, 830), Ago(10_000, 731), Ago(11_200, 700), Ago(39_200, 0)])!.Stretches);
    }

    [Fact]
    public void A_quiet_month_is_use_and_two_weeks_at_a_standstill_are_none()
    {
        UseMark[] steady = [.. Enumerable.Range(0, 11).Select(i => Mark(20_000 + 1_200 * i, new DateOnly(2025, 5, 1).AddDays(30 * i)))];
        var last = steady[^1];
        var quiet = DailyUse.From([.. steady, Mark(32_300, last.Day.AddDays(30)), Mark(33_500, last.Day.AddDays(60))])!; // 10 a day
        Assert.Equal((12, 0), (quiet.Stretches, quiet.DaysStill));
        var stood = DailyUse.From([.. steady, Mark(32_000, last.Day.AddDays(14)), Mark(33_200, last.Day.AddDays(44))])!;
        Assert.Equal((11, 14), (stood.Stretches, stood.DaysStill));
        var short_ = DailyUse.From([.. steady, Mark(32_000, last.Day.AddDays(13)), Mark(33_200, last.Day.AddDays(43))])!;
        Assert.Equal((12, 0), (short_.Stretches, short_.DaysStill));
    }

    [Fact]
    public void A_reading_that_stands_still_fits_and_so_does_the_longest_day()
    {
        Assert.Equal(0, DailyUse.From([Mark(100, Today), Mark(100, Today.AddDays(10)), Mark(500, Today.AddDays(20))])!.LeftOut);
        Assert.Equal(Km(1500), DailyUse.From([Mark(0, Today), Mark(1_500, Today.AddDays(1))])!.Usual);
        Assert.Null(DailyUse.From([Mark(0, Today), Mark(1_501, Today.AddDays(1))]));
    }

    [Fact]
    public void Of_two_rows_of_readings_as_long_the_later_one_counts()
    {
        var use = DailyUse.From([Mark(1_000, Today), Mark(1_400, Today.AddDays(10)), Mark(100, Today.AddDays(20)),
            Mark(900, Today.AddDays(30))])!;
        Assert.Equal((Km(80), 2), (use.Usual, use.LeftOut));
        // 200 fits onto 100 and onto 50: the later of these was the typing slip's successor.
        Assert.Equal(Km(15), DailyUse.From([Mark(100, Today), Mark(50, Today.AddDays(10)), Mark(200, Today.AddDays(20))])!.Usual);
    }

    [Fact]
    public void A_forecast_has_its_band_and_ends_at_the_day_of_the_rule()
    {
        var now = Mark(58_000, Today);
        var use = new DailyUse(Km(40), Km(20), Km(50), 5, 0, 0);
        var due = DueDay.Of(At(Every(10_000), now, Mark(50_000, Today.AddDays(-60))), now, use)!; // 2,000 km left
        Assert.Equal((Today.AddDays(50), Today.AddDays(40), Today.AddDays(100)), (due.Day, due.Earliest, due.Latest));
        var months = new ServiceItem("oil", "oil", [(new(Km(10_000), 3), RuleOf.Maker)]);
        Assert.Equal(new(2026, 4, 1), DueDay.Of(At(months, now, Mark(50_000, new(2026, 1, 1))), now, use)!.Day);
        var overByDay = At(months, now, Mark(55_000, new(2025, 12, 1)));
        Assert.Equal((DueState.Overdue, new DateOnly(2026, 3, 1)), (overByDay.State, DueDay.Of(overByDay, now, use)!.Day));
        var overByDistance = At(months, now, Mark(47_000, new(2026, 1, 1)));
        Assert.Equal((DueState.Overdue, Today), (overByDistance.State, DueDay.Of(overByDistance, now, use)!.Day));
        Assert.Null(DueDay.Of(At(Every(10_000), now, Mark(50_000, Today)), now, null));
    }

    [Fact]
    public void A_trip_up_to_the_very_kilometre_and_day_runs_nothing_over()
    {
        var now = Mark(58_000, Today);
        var oil = new ServiceItem("oil", "oil", [(new(Km(10_000), 6), RuleOf.Maker)])
            .At(now, Mark(50_000, new(2025, 9, 23)), New, DueWindow.Usual);
        // 2,000 km and 14 days are left.
        Assert.Empty(TripCheck.Of([oil], now, New, null, new(Km(2_000), Today, 14)));
        var far = Assert.Single(TripCheck.Of([oil], now, New, null, new(Km(2_001), Today, 14)));
        Assert.Equal((Km(1), (int?)null), (far.Distance, far.Days));
        var late = Assert.Single(TripCheck.Of([oil], now, New, null, new(Km(2_000), Today, 15)));
        Assert.Equal((null, 1), (late.Distance, late.Days));
        var soon = Assert.Single(TripCheck.Of([oil], now, New, null, new(Km(100), Today, 15)));
        Assert.Null(soon.Distance);
        // It cannot have left before today.
        Assert.Equal(5, Assert.Single(TripCheck.Of([oil], now, New, null, new(Km(100), Today.AddDays(-10), 19))).Days);
    }

    [Fact]
    public void What_is_given_away_is_told_by_the_measure_that_is_nearest_hours_among_them()
    {
        var now = Mark(50_000, Today, 1_380);
        var item = new ServiceItem("oil", "oil", [(new(null, 6, 400), RuleOf.Maker)])
            .At(now, Mark(50_000, new(2025, 10, 1), 1_000), New, DueWindow.Usual);
        // 20 of 400 hours against 23 of 182 days.
        Assert.Equal(0.05m, Assert.Single(TripCheck.Of([item], now, New, null, new(Km(100), Today, 40))).GivenAway);
    }

    [Theory]
    [InlineData(15_000, 365, 400, RuleOf.Depot)] // alike: distance comes first
    [InlineData(15_001, 365, 400, RuleOf.Owner)] // then the day
    [InlineData(15_001, 366, 400, RuleOf.UpperBound)]
    [InlineData(15_000, null, 399, RuleOf.UpperBound)]
    [InlineData(15_000, null, 401, RuleOf.Depot)]
    [InlineData(15_000, null, null, RuleOf.Depot)]
    [InlineData(null, 365, 399, RuleOf.UpperBound)]
    [InlineData(null, 365, 401, RuleOf.Owner)]
    [InlineData(null, 365, null, RuleOf.Owner)]
    [InlineData(null, null, 10, RuleOf.UpperBound)]
    [InlineData(null, null, null, RuleOf.Maker)]
    public void The_rule_with_the_least_left_is_the_one_that_counts(int? km, int? days, int? hours, RuleOf counts)
    {
        var now = Mark(20_000, Today, 100);
        var standing = new Standing(Every(1), DueState.NotYet, km is { } k ? Km(20_000 + k) : null, days is { } d ? Today.AddDays(d) : null,
            hours + 100, RuleOf.Depot, RuleOf.Owner, RuleOf.UpperBound, null);
        Assert.Equal(counts, standing.RuleThatCounts(now));
        Assert.Equal((km is { } left ? Km(left) : null, days, hours), standing.Left(now));
    }

    [Fact]
    public void Hours_are_near_within_their_window_and_of_equal_rules_the_makers_is_named()
    {
        var hours = new ServiceItem("oil", "oil", [(new(null, null, 400), RuleOf.Maker), (new(null, null, 400), RuleOf.Depot)]);
        Assert.Equal(DueState.Soon, At(hours, Mark(0, Today, 1_380), Mark(0, Today, 1_000)).State); // 20 left
        Assert.Equal(DueState.NotYet, At(hours, Mark(0, Today, 1_379), Mark(0, Today, 1_000)).State);
        Assert.Equal(RuleOf.Maker, At(hours, Mark(0, Today, 1_000), Mark(0, Today, 1_000)).HoursOf);
        var both = new ServiceItem("oil", "oil", [(new(Km(10_000), 6), RuleOf.Maker), (new(Km(10_000), 6), RuleOf.Depot)]);
        var standing = At(both, Mark(0, Today), Mark(0, Today));
        Assert.Equal((RuleOf.Maker, RuleOf.Maker), (standing.AtOf, standing.ByOf));
    }

    [Fact]
    public void An_own_rule_holds_for_its_job_only()
    {
        var items = ServiceItem.Of(Workbench.Courier, Use.Normal, [new("air-filter", new(Km(1_000), null), RuleOf.Depot)]);
        Assert.Equal(Km(1_000), At(items.Single(i => i.Job == "air-filter"), Mark(0, Today), Mark(0, Today)).At);
        Assert.Equal(Km(20_000), At(items.Single(i => i.Job == "engine-oil-and-filter"), Mark(0, Today), Mark(0, Today)).At);
        Assert.Equal((Km(60_000), new DateOnly(2030, 3, 9)), // 30,000 km or 24 months, every second time
            (items.Single(i => i.Job == "fuel-filter").After(Mark(0, Today)).At,
                items.Single(i => i.Job == "fuel-filter").After(Mark(0, Today)).By));
    }

    [Fact]
    public void A_first_check_lapses_after_three_times_its_distance_or_time_from_delivery()
    {
        var first = new ServiceItem("first", "First check", [(new(Km(1_600), 2), RuleOf.Maker)], once: true);
        var past = new VehiclePast(Mark(1_000, new(2024, 3, 9)));
        DueState State(decimal km, DateOnly day) => first.At(Mark(km, day), null, past, DueWindow.Usual).State;
        Assert.Equal(DueState.Overdue, State(5_800, new(2024, 4, 1))); // 4,800 km since: three times
        Assert.Equal(DueState.Done, State(5_801, new(2024, 4, 1)));
        Assert.Equal(DueState.Overdue, State(1_500, new(2024, 9, 9)));
        Assert.Equal(DueState.Done, State(1_500, new(2024, 9, 10)));
        // Of a vehicle that nobody knows, a first check is not asked for.
        Assert.Equal(DueState.Done, first.At(Mark(1_500, new(2024, 4, 1)), null, past with { IsUnknown = true }, DueWindow.Usual).State);
    }

    private static readonly DashScheme Scheme =
        new("oil", [new("07", "Oil service", ["oil"], null!), new("11", "Air filter", ["air"], null!)]);

    private static Proposal Proposed(IReadOnlyList<Standing> items, DashReport? dash = null, DashScheme? scheme = null,
        params TripItem[] trips) =>
        Proposal.Of(items, Mark(50_000, Today), New, scheme ?? Scheme, dash ?? DashReport.Nothing, trips);

    private static Standing Left(string job, decimal km) => At(Every(10_000, job), Mark(50_000, Today), Mark(40_000 + km, Today));

    [Fact]
    public void What_is_near_is_proposed_only_where_there_is_a_visit_anyway()
    {
        var (near, far, over) = (Left("near", 900), Left("air", 5_000), Left("late", -100));
        Assert.Equal(Because.Nothing, Assert.Single(Proposed([near]).Jobs).Because);
        Assert.Equal([Because.OurSum, Because.Near, Because.Nothing],
            Proposed([near, far, over]).Jobs.Select(j => j.Because)); // most urgent first
        // The dash asks for another job: that one a person decides about, the near one comes along.
        var asked = Proposed([near, far], new("11", null, null));
        Assert.Equal([Because.Near, Because.DashAlone], asked.Jobs.Select(j => j.Because));
        Assert.Equal([true, false], asked.Jobs.Select(j => j.Proposed));
        Assert.Equal(("", "Air filter"), (asked.UnknownCode, asked.Message!.Says));
        // A trip runs another over: its item goes with that job and with no other.
        var trip = Proposed([near, far], trips: new TripItem(far, Km(10), null, 0.5m));
        Assert.Equal([("near", Because.Near, false), ("air", Because.Trip, true)],
            trip.Jobs.Select(j => (j.Standing.Item.Job, j.Because, j.Trip is not null)).OrderByDescending(j => j.Job));
        Assert.Equal(("", null), (Proposed([near]).UnknownCode, Proposed([near]).Message));
    }

    [Fact]
    public void What_is_due_by_our_sum_says_whether_the_dash_agrees()
    {
        Assert.Equal(Because.OurSum, Proposed([Left("oil", -1)]).Jobs[0].Because);
        Assert.Equal(Because.Both, Proposed([Left("oil", -1)], new("07", null, null)).Jobs[0].Because);
        Assert.Equal(Because.Both, Proposed([Left("oil", -1)], new("", 0, null)).Jobs[0].Because); // its counter is used up
        Assert.Equal(Because.CounterSooner, Proposed([Left("oil", 500)], new("", null, Km(0))).Jobs[0].Because);
        // The counter counts one job: the others go by their own sum.
        Assert.Equal(Because.Nothing, Proposed([Left("oil", 5_000), Left("air", 5_000)],
            new("", null, Km(0))).Jobs.Single(j => j.Standing.Item.Job == "air").Because);
        Assert.Null(Proposed([Left("oil", 500)], new("", 40, null), DashScheme.None).CounterSays);
    }

    [Theory]
    [InlineData(2_000, 30, 2_000, false)] // of 10,000: 30 % are 3,000, a tenth away
    [InlineData(2_000, 31, 2_000, true)]
    [InlineData(4_000, 5, 500, true)]
    [InlineData(500, 5, 500, false)]
    [InlineData(-100, 0, -100, false)]
    public void Of_distance_left_and_oil_life_the_shorter_one_holds_and_a_tenth_between_them_is_said(int left, int life, int holds,
        bool differ)
    {
        var proposal = Proposed([Left("oil", 2_000)], new("", life, Km(left)));
        Assert.Equal((Km(holds), Km(life * 100), differ), (proposal.CounterSays, proposal.LifeSays, proposal.CountersDiffer));
    }

    [Theory]
    [InlineData(3_000, false)] // sum 2,000 of 10,000: a tenth is 1,000
    [InlineData(3_001, true)]
    [InlineData(1_000, false)]
    [InlineData(999, true)]
    [InlineData(2_000, false)]
    [InlineData(2_500, false)]
    public void Dash_and_sum_differ_from_a_tenth_of_the_interval_on(int counter, bool differs) =>
        Assert.Equal(differs, Proposed([Left("oil", 2_000)], new("", null, Km(counter))).CounterDiffers);

    [Fact]
    public void What_is_due_and_not_chosen_needs_a_reason()
    {
        var proposal = Proposed([Left("oil", -1), Left("air", -1), Left("near", 500)]);
        Assert.Equal(["air"], proposal.LeftOut(["oil"]).Select(p => p.Standing.Item.Job));
        Assert.Empty(proposal.LeftOut(["oil", "air"]));
    }

    private static FleetRow Fleet(UseMark now, params (ServiceItem Item, UseMark? Last)[] items) => FleetCheck.Of(
        [new("HD-1", [.. items.Select(i => i.Item)], [.. items.Select(i => i.Last)], now, New with { IsUnknown = true })],
            DueWindow.Usual)[0];

    [Fact]
    public void The_fleet_counts_what_is_due_with_what_nobody_knows_and_names_the_most_urgent()
    {
        var now = Mark(60_000, Today);
        var (due, unknown) = ((Every(10_000, "due"), (UseMark?)Mark(50_000, Today)), (Every(10_000, "unknown"), (UseMark?)null));
        var row = Fleet(now, unknown, due);
        Assert.Equal((0, 2, 0, "due"), (row.Overdue, row.Due, row.Soon, row.Worst!.Value.Item.Job));
        // 900 km of 10,000 are left of the one, 1,100 of 100,000 of the other: nearer to its end, but not near.
        var (near, far) = ((Every(10_000, "near"), (UseMark?)Mark(50_900, Today)), (Every(100_000, "far"), (UseMark?)Mark(-38_900, Today)));
        Assert.Equal("near", Fleet(now, near, far).Worst!.Value.Item.Job);
        Assert.Equal("near", Fleet(now, far, near).Worst!.Value.Item.Job);
        // Of two in the same state the one that is nearer to its end, counted from when it was done: 5,000 of 10,000 against 7,000 of
        // 22,000.
        var (half, third) = ((Every(10_000, "half"), (UseMark?)Mark(55_000, Today)),
            (Every(22_000, "third"), (UseMark?)Mark(45_000, Today)));
        Assert.Equal("third", Fleet(now, half, third).Worst!.Value.Item.Job);
        Assert.Equal("third", Fleet(now, third, half).Worst!.Value.Item.Job);
        Assert.Equal("half", Fleet(now, half, (Every(10_000, "as near"),
            Mark(55_000, Today))).Worst!.Value.Item.Job); // of equals the first
    }
}
