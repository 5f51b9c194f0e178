using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using CsCheck;

namespace Anakyklos.Core.Tests;

public sealed class DueTests
{
    private static readonly DateOnly Today = new(2026, 3, 9);
    private static readonly VehiclePast New = new(new(default, new(2024, 3, 9)));
    private static readonly DueWindow Window = DueWindow.Usual;

    private static Quantity<Distance> Km(decimal km) => Quantity<Distance>.Of(km, Distance.Kilometre);

    private static UseMark Mark(decimal km, DateOnly day, int? hours = null) => new(Km(km), day, hours);

    private static ServiceItem Item(params (ServiceInterval, RuleOf)[] rules) => new("oil", "Engine oil", rules);

    private static ServiceItem Yearly => Item((new(Km(10_000), 12, 400), RuleOf.Maker));

    [Theory]
    [InlineData(59_000, "2025-04-30", null, DueState.NotYet)] // 1,001 km left is outside the window of 1,000
    [InlineData(59_001, "2025-04-30", null, DueState.Soon)]
    [InlineData(60_000, "2025-04-30", null, DueState.Due)]
    [InlineData(60_001, "2025-04-30", null, DueState.Overdue)]
    [InlineData(50_001, "2026-02-06", null, DueState.NotYet)] // due on 9 March: 31 days left
    [InlineData(50_001, "2026-02-07", null, DueState.Soon)]
    [InlineData(50_001, "2026-03-09", null, DueState.Due)]
    [InlineData(50_001, "2026-03-10", null, DueState.Overdue)]
    [InlineData(50_001, "2025-04-30", 1_379, DueState.NotYet)]
    [InlineData(50_001, "2025-04-30", 1_400, DueState.Due)]
    [InlineData(50_001, "2025-04-30", 1_401, DueState.Overdue)]
    public void Distance_months_and_hours_whichever_is_first(int km, string day, int? hours, DueState state) =>
        Assert.Equal(state, Yearly.At(Mark(km == 59_000 ? 58_999 : km == 59_001 ? 59_000 : km, DateOnly.ParseExact(day, "yyyy-MM-dd"),
            hours), Mark(50_000, new(2025, 3, 9), 1_000), New, Window).State);

    [Fact]
    public void What_was_never_done_counts_from_delivery_and_what_nobody_knows_is_due()
    {
        var now = Mark(9_000, new(2024, 12, 1));
        Assert.Equal((Km(10_000), new DateOnly(2025, 3, 9)), (Yearly.At(now, null, New, Window).At, Yearly.At(now, null, New, Window).By));
        var unknown = Yearly.At(now, null, New with { IsUnknown = true }, Window);
        Assert.Equal(DueState.Unknown, unknown.State);
        Assert.True(unknown.IsDue);
        // Once it was done here, its history is known.
        Assert.Equal(DueState.NotYet, Yearly.At(now, Mark(8_500, new(2024, 11, 1)), New with { IsUnknown = true }, Window).State);
    }

    [Fact]
    public void The_shorter_of_maker_and_own_rule_counts_and_says_whose_it_is()
    {
        var item = Item((new(Km(10_000), 12), RuleOf.Maker), (new(Km(15_000), 8), RuleOf.Depot), (new(Km(7_500), null), RuleOf.Owner));
        var s = item.At(Mark(50_000, Today), Mark(50_000, Today), New, Window);
        Assert.Equal((Km(57_500), RuleOf.Owner, new DateOnly(2026, 11, 9), RuleOf.Depot), (s.At, s.AtOf, s.By, s.ByOf));
        Assert.Equal(RuleOf.Owner, s.RuleThatCounts(Mark(57_000, Today)));
        Assert.Equal(RuleOf.Depot, s.RuleThatCounts(Mark(50_100, new(2026, 11, 1))));
    }

    [Fact]
    public void Every_second_time_is_twice_the_interval_and_a_first_check_is_done_once()
    {
        var items = ServiceItem.Of(Workbench.Courier, Use.Harsh, []);
        var fuel = items.Single(i => i.Job == "fuel-filter").At(Mark(0, Today), Mark(0, Today), New, Window);
        Assert.Equal((Km(30_000), new DateOnly(2028, 3, 9)), (fuel.At, fuel.By)); // harsh 15,000 km or 12 months, every second time
        var first = new ServiceItem("first-check", "First check", [(new(Km(1_600), 2), RuleOf.Maker)], once: true);
        Assert.Equal(DueState.Overdue, first.At(Mark(1_700, new(2024, 4, 1)), null, New, Window).State);
        Assert.Equal(DueState.Done, first.At(Mark(1_700, new(2024, 4, 1)), Mark(1_650, new(2024, 3, 20)), New, Window).State);
        Assert.Equal(DueState.Done, first.At(Mark(40_000, Today), null, New, Window).State); // its time went by long ago
    }

    // Wheels were off at 39,900 km: their bolts are checked at 39,950, and due every time again. Nobody catches up on it 1,000 km later.
    [Theory]
    [InlineData(39_900, null, DueState.Soon)]
    [InlineData(39_950, null, DueState.Due)]
    [InlineData(39_951, null, DueState.Overdue)]
    [InlineData(40_900, null, DueState.Overdue)]
    [InlineData(40_901, null, DueState.Done)]
    [InlineData(39_960, 39_960, DueState.Done)]
    [InlineData(39_951, 39_901, DueState.Done)]
    [InlineData(39_951, 39_900, DueState.Overdue)]
    [InlineData(39_951, 32_450, DueState.Overdue)]
    public void What_follows_a_job_is_due_once_after_each_time(int km, int? checkedAt, DueState state)
    {
        var items = ServiceItem.Of(ComposerTests.Sheets["corran-fen-12"], Use.Harsh, []);
        UseMark? Last(ServiceItem item) => item.Job == "tyre-rotation" ? Mark(39_900, Today)
            : item.Job == "wheel-recheck" && checkedAt is { } at ? Mark(at, at < 39_900 ? Today.AddDays(-200) : Today) : null;
        var standing = ServiceItem.Of(items, Mark(km, Today), [.. items.Select(Last)], New, Window)
            .Single(s => s.Item.Job == "wheel-recheck");
        Assert.Equal(state, standing.State);
        Assert.Equal(state == DueState.Done ? null : Km(39_950), standing.At);
        // Where the wheels never were off, there is nothing to check.
        Assert.Equal(DueState.Done, ServiceItem.Of(items, Mark(km, Today), [.. items.Select(_ => (UseMark?)null)], New, Window)
            .Single(s => s.Item.Job == "wheel-recheck").State);
    }

    private static readonly Gen<ServiceInterval> Interval =
        Gen.Select(Gen.Int[1, 60].Nullable(), Gen.Int[1, 60].Nullable(), Gen.Int[10, 900].Nullable())
        .Where((km, months, hours) => km is not null || months is not null || hours is not null)
        .Select((km, months, hours) => new ServiceInterval(km is { } k ? Km(k * 1000) : null, months, hours));

    private static readonly Gen<UseMark> Anywhen = Gen.Select(Gen.Int[0, 200_000], Gen.Int[0, 3000], Gen.Int[0, 5000])
        .Select((km, days, hours) => Mark(km, new DateOnly(2020, 1, 1).AddDays(days), hours));

    [Fact]
    public void Whichever_is_first_is_never_later_than_any_single_measure() =>
        Gen.Select(Interval.Array[1, 4], Anywhen, Anywhen).Sample((rules, last, now) =>
        {
            var all = Item([.. rules.Select(r => (r, RuleOf.Maker))]).At(now, last, New, Window);
            foreach (var rule in rules)
                foreach (var single in new[] { rule with { Months = null, Hours = null }, rule with { Every = null, Hours = null },
                    rule with { Every = null, Months = null } }.Where(s => s.Every is not null || s.Months is not null
                    || s.Hours is not null))
                    Assert.True(all.State >= Item((single, RuleOf.Maker)).At(now, last, New, Window).State);
        });

    [Fact]
    public void A_forecast_is_never_before_today_unless_overdue_and_its_band_holds_the_day() =>
        Gen.Select(Interval, Anywhen, Anywhen, Gen.Int[0, 300], Gen.Int[0, 100]).Sample((rule, last, now, usual, spread) =>
        {
            var standing = Item((rule, RuleOf.Maker)).At(now, last, New, Window);
            if (DueDay.Of(standing, now, new(Km(usual), Km(Math.Max(0, usual - spread)), Km(usual + spread), 5, 0, 0)) is not { } due)
                return;
            if (standing.State != DueState.Overdue)
                Assert.True(due.Day >= now.Day);
            Assert.True(due.Earliest <= due.Day && (due.Latest ?? DateOnly.MaxValue) >= due.Day);
        });

    // 40 km a day for ten months, read each month.
    private static UseMark[] Steady => [.. Enumerable.Range(0, 11)
        .Select(i => Mark(20_000 + 1_200 * i, new DateOnly(2025, 5, 1).AddDays(30 * i)))];

    [Fact]
    public void A_steady_vehicle_is_forecast_to_the_day()
    {
        var use = DailyUse.From(Steady)!;
        Assert.Equal((Km(40), Km(40), Km(40), 10, 0, 0), (use.Usual, use.Low, use.High, use.Stretches, use.LeftOut, use.DaysStill));
        var now = Steady[^1]; // 32,000 km on 25 February 2026
        var standing = Item((new(Km(10_000), null), RuleOf.Maker)).At(now, Mark(24_000, new(2025, 8, 1)), New, Window);
        Assert.Equal(new DateOnly(2026, 2, 25).AddDays(50), DueDay.Of(standing, now, use)!.Day); // 2,000 km at 40 a day
    }

    [Theory]
    [InlineData(4, 990_000)] // a digit too many
    [InlineData(4, 2_480)] // a digit lost
    [InlineData(10, 320_000)] // the newest one wrong
    public void One_wrong_reading_changes_nothing(int index, int wrong)
    {
        var readings = Steady;
        readings[index] = readings[index] with { Odometer = Km(wrong) };
        var use = DailyUse.From(readings)!;
        Assert.Equal(Km(40), use.Usual);
        Assert.Equal(1, use.LeftOut);
    }

    [Fact]
    public void A_winter_in_the_shed_does_not_lower_the_use()
    {
        var use = DailyUse.From([.. Steady, Mark(32_005, new(2026, 6, 1)), Mark(33_205, new(2026, 7, 1))])!;
        Assert.Equal(Km(40), use.Usual);
        Assert.Equal(96, use.DaysStill);
    }

    [Fact]
    public void One_reading_tells_no_use() => Assert.Null(DailyUse.From([Mark(5_000, Today), Mark(5_000, Today)]));

    [Fact]
    public void A_trip_names_what_would_run_over_on_the_way_and_what_doing_it_now_gives_away()
    {
        var now = Mark(58_000, Today);
        var oil = new ServiceItem("oil", "Engine oil", [(new(Km(10_000), 12), RuleOf.Maker)])
            .At(now, Mark(50_000, new(2025, 12, 9)), New, Window);
        var grease = new ServiceItem("grease", "Grease", [(new(null, 6), RuleOf.Maker)])
            .At(now, Mark(50_000, new(2025, 10, 1)), New, Window);
        var belt = new ServiceItem("belt", "Drive belt", [(new(Km(90_000), 48), RuleOf.Maker)]).At(now, null, New, Window);
        // 2,000 km left, 40 a day until it leaves in ten days: 400 km more, then 1,900 km of trip.
        var over = TripCheck.Of([belt, grease, oil], now, New, new(Km(40), Km(30), Km(50), 5, 0, 0), new(Km(1_900), Today.AddDays(10), 14));
        Assert.Equal(["grease", "oil"], over.Select(t => t.Standing.Item.Job));
        Assert.Equal((null, 1), (over[0].Distance, over[0].Days)); // due 1 April, back 2 April
        Assert.Equal((Km(300), null), (over[1].Distance, over[1].Days));
        Assert.Equal(0.2m, over[1].GivenAway); // 2,000 of 10,000 km, less than the nine months of twelve
    }

    [Fact]
    public void Dash_and_sum_are_held_against_each_other()
    {
        var scheme = Workbench.Courier.Dash;
        var past = New;
        var now = Mark(138_000, Today);
        Standing At(string job, decimal km, DateOnly day) =>
            ServiceItem.Of(Workbench.Courier, Use.Harsh, []).Single(i => i.Job == job).At(now, Mark(km, day), past, Window);
        var oil = At("engine-oil-and-filter", 127_000, new(2025, 10, 9)); // 1,000 km over
        var air = At("air-filter", 127_000, new(2025, 10, 9));
        var proposal = Proposal.Of([air, oil], now, past, scheme, new("17", null, Km(2_500)), []);
        Assert.Equal(("engine-oil-and-filter", Because.Both, true),
            (proposal.Jobs[0].Standing.Item.Job, proposal.Jobs[0].Because, proposal.Jobs[0].Proposed));
        Assert.Equal((Because.DashAlone, false), (proposal.Jobs[1].Because, proposal.Jobs[1].Proposed));
        Assert.True(proposal.CounterDiffers); // 2,500 km left against 1,000 km over, of 10,000
        Assert.Equal(Km(-1_000), proposal.SumSays);
        Assert.Equal("99", Proposal.Of([oil], now, past, scheme, new("99", null, null), []).UnknownCode);
        Assert.Equal(Km(4_000), Proposal.Of([oil], now, past, scheme, new("", 40, null), []).CounterSays);
        // A counter that is used up makes it due even where our sum has distance left.
        var early = At("engine-oil-and-filter", 135_000, new(2026, 2, 9));
        Assert.Equal(Because.CounterSooner, Proposal.Of([early], now, past, scheme, new("", null, Km(-200)), []).Jobs[0].Because);
    }

    [Fact]
    public void What_follows_a_job_is_not_on_the_card_that_does_that_job_again()
    {
        var sheet = ComposerTests.Sheets["corran-fen-12"];
        var items = ServiceItem.Of(sheet, Use.Harsh, []);
        Proposal At(int km) => Proposal.Of(ServiceItem.Of(items, Mark(km, Today),
            [.. items.Select(i => i.Job == "tyre-rotation" ? (UseMark?)Mark(39_900, Today) : Mark(30_000, Today))], New, Window),
            Mark(km, Today), New, sheet.Dash, DashReport.Nothing, []);
        ProposedJob Check(Proposal of) => of.Jobs.Single(j => j.Standing.Item.Job == "wheel-recheck");
        var alone = At(40_000);
        Assert.Equal((Because.OurSum, true), (Check(alone).Because, Check(alone).Proposed));
        Assert.Contains(Check(alone), alone.LeftOut([]));
        // Where the wheels come off once more anyway, nothing is asked of the check that was due.
        Assert.DoesNotContain(Check(alone), alone.LeftOut(["tyre-rotation"]));
        var both = Proposal.Of([Check(alone).Standing, alone.Jobs.Single(j => j.Standing.Item.Job == "tyre-rotation").Standing with
        {
            State = DueState.Overdue,
        }], Mark(40_000, Today), New, sheet.Dash, DashReport.Nothing, []);
        Assert.Equal((Because.BeginsAnew, false), (Check(both).Because, Check(both).Proposed));
        Assert.Equal(("tyre-rotation", "wheel-recheck"), sheet.Followed(["wheel-recheck", "spark-plugs", "tyre-rotation"]) is var (a, b)
            ? (a.Id.Text, b.Id.Text) : default);
        Assert.Null(sheet.Followed(["wheel-recheck", "spark-plugs"]));
    }

    [Fact]
    public void The_pass_over_the_fleet_says_what_each_vehicle_says_alone() =>
        Gen.Select(Interval.Array[1, 4], Anywhen.Array[1, 5], Anywhen).Sample((rules, lasts, now) =>
        {
            ServiceItem[] items = [.. rules.Select(r => Item((r, RuleOf.Maker)))];
            FleetVehicle[] fleet = [.. lasts.Select((last, i) =>
                new FleetVehicle($"V{i}", items, [.. items.Select(_ => (UseMark?)last)], now, New))];
            var rows = FleetCheck.Of(fleet, Window);
            foreach (var (row, last) in rows.Zip(lasts))
            {
                var alone = items.Select(i => i.At(now, last, New, Window)).ToList();
                Assert.Equal(alone.Max(s => s.State), row.Worst!.Value.State);
                Assert.Equal((alone.Count(s => s.State == DueState.Overdue), alone.Count(s => s.State == DueState.Due),
                    alone.Count(s => s.State == DueState.Soon)), (row.Overdue, row.Due, row.Soon));
            }
        });
}
