using Anakyklos.Core.Weeks;
using CsCheck;

namespace Anakyklos.Core.Tests;

/// <summary>Weeks of the bays: every plan keeps to what there is, and none that is made by trying everything is cheaper.</summary>
public sealed class WeekPlanTests
{
    private static readonly DateOnly Monday = new(2026, 3, 9);

    // Small enough to try everything: up to four visits, two days of six quarters, two bays.
    private static readonly Gen<WeekProblem> Small =
        from bays in Gen.Int[1, 2]
        from people in Gen.Int[0, 3].Array[6].List[2]
        from visits in (
            from length in Gen.Int[1, 4]
            from second in Gen.Int[0, 15]
            from lift in Gen.Bool
            from away in Gen.Int[0, 63].Array[2]
            from cost in Gen.Int[0, 40].Array[2]
            from waits in Gen.Int[30, 90]
            from before in Gen.Int[0, 3]
            select new WantedVisit("", length, new((UInt128)(second & ((1 << length) - 1) & (second % 3 == 0 ? 15 : 0))), lift,
                [.. away.Select(a => new Quarters((UInt128)(a % 3 == 0 ? a : 0) << 32))], cost, waits)
            {
                Before = before == 0 ? new VisitSlot(1, 32, 0) : null,
            }).Array[1, 4]
        from taken in Gen.Int[0, 63].Array[0, 1]
        from ground in Gen.Bool
        select new WeekProblem(
            [.. people.Select((p, d) => new WorkDay(Monday.AddDays(d), Quarters.Between(32, 38),
                [.. Enumerable.Range(0, 96).Select(q => q is >= 32 and < 38 ? p[q - 32] : 0)]))],
            [.. Enumerable.Range(0, bays).Select(b => new BayPlace($"Bay {b + 1}", b == 0 || !ground))],
            [.. taken.Select(t => new BayTaken(0, 0, new((UInt128)t << 32), Quarters.None))],
            visits) { FullDay = 20, Moving = 5 };

    [Fact]
    public void No_plan_is_cheaper_than_the_one_that_is_found_and_none_beats_the_bound() => Small.Sample(problem =>
    {
        var plan = WeekPlanner.Plan(problem);
        var best = BestByTryingAll(problem);
        Assert.Equal(CostOf(problem, plan), plan.Cost);
        Assert.True(plan.Bound <= best, $"bound {plan.Bound}, best {best}");
        Assert.Equal(best, plan.Cost);
    }, 300);

    [Fact]
    public void A_plan_keeps_to_bays_people_and_windows() => Small.Sample(Keeps, 300);

    [Theory]
    [InlineData(20, 2)]
    [InlineData(60, 4)]
    public void A_workshops_fortnight_is_kept_too_and_is_planned_alike_each_time(int vehicles, int bays)
    {
        var chance = new Random(vehicles);
        var open = Quarters.Between(32, 66);
        WorkDay[] days = [.. Enumerable.Range(0, 14).Select(d => d % 7 > 4 ? new WorkDay(Monday.AddDays(d), Quarters.None, new int[96])
            : new(Monday.AddDays(d), open, [.. Enumerable.Range(0, 96).Select(q => open.Has(q) ? bays + (q % 5 == 0 ? 0 : 1) : 0)]))];
        var problem = new WeekProblem(days, [.. Enumerable.Range(0, bays).Select(b => new BayPlace($"{b}", b > 0))], [],
            [.. Enumerable.Range(0, vehicles).Select(i =>
            {
                var (length, due) = (chance.Next(4, 14), chance.Next(-3, 14));
                return new WantedVisit($"{i}", length, i % 3 == 0 ? Quarters.Between(1, 3) : Quarters.None, i % 2 == 0,
                    [.. days.Select((_, d) => i % 4 == 0 ? Quarters.Between(30, 36).And(Quarters.Between(58, 64)) : i % 5 == 0 && d < 4
                        ? Quarters.AllDay : Quarters.None)], [.. days.Select((_, d) => d < due ? due - d : 40 * (d - due))], 900);
            })]);
        Keeps(problem);
        var (one, two) = (WeekPlanner.Plan(problem), WeekPlanner.Plan(problem));
        Assert.Equal(one.Visits.Select(v => v.Slot), two.Visits.Select(v => v.Slot));
        Assert.InRange(one.Bound, one.Cost * 9 / 10, one.Cost);
    }

    [Fact]
    public void What_a_person_fixed_stands_there_though_the_vehicle_is_needed_then()
    {
        var problem = Days(1, 1, Visit(4) with { Away = [Quarters.AllDay], Fixed = new(0, 40, 0) }, Visit(4), Visit(4) with
        {
            Away = [Quarters.AllDay],
        });
        var plan = WeekPlanner.Plan(problem);
        Assert.Equal(new VisitSlot(0, 40, 0), plan.Visits[0].Slot);
        Assert.False(plan.Visits[0].Pushed);
        Assert.Equal(new VisitSlot(0, 32, 0), plan.Visits[1].Slot);
        Assert.Equal((null, NoPlace.NeverFree), (plan.Visits[2].Slot, plan.Visits[2].Why));
    }

    [Fact]
    public void What_runs_over_pushes_what_was_fixed_behind_it_on_the_same_day()
    {
        // The bay is taken until ten o'clock; a visit was to begin at nine and another at half past ten.
        var problem = Days(1, 2, Visit(4) with { Fixed = new(0, 36, 0) }, Visit(4) with { Fixed = new(0, 42, 0) }) with
        {
            Taken = [new(0, 0, Quarters.Between(32, 40), Quarters.None)],
        };
        var plan = WeekPlanner.Plan(problem);
        Assert.Equal([new VisitSlot(0, 40, 0), new VisitSlot(0, 44, 0)], plan.Visits.Select(v => v.Slot!.Value));
        Assert.All(plan.Visits, v => Assert.True(v.Pushed));
        // With a second bay that is free it goes there at its time.
        plan = WeekPlanner.Plan(problem with { Bays = [new("1", true), new("2", true)] });
        Assert.Equal(new VisitSlot(0, 36, 1), plan.Visits[0].Slot);
        Assert.True(plan.Visits[0].Pushed);
        Assert.False(plan.Visits[1].Pushed);
    }

    [Fact]
    public void Whoever_finds_no_place_is_told_why()
    {
        Assert.Equal(NoPlace.LongerThanADay, Why(Days(1, 2, Visit(35))));
        Assert.Equal(NoPlace.NoLift, Why(Days(1, 2, Visit(4) with { Lift = true }) with { Bays = [new("1", false)] }));
        Assert.Equal(NoPlace.NeverFree, Why(Days(1, 2, Visit(4) with { Away = [Quarters.Between(34, 96)] })));
        // Two people are needed and one is there.
        Assert.Equal(NoPlace.NeverFree, Why(Days(1, 1, Visit(4) with { Second = Quarters.Between(1, 2) })));
        // A visit of the whole day is in the way that is worth more.
        Assert.Equal(NoPlace.Full, Why(Days(1, 1, Visit(4), Visit(34) with { Waits = 900 })));

        static NoPlace? Why(WeekProblem problem) => WeekPlanner.Plan(problem).Visits[0].Why;
    }

    [Fact]
    public void Two_that_need_two_people_do_not_need_them_at_the_same_time()
    {
        // Three people, two bays: the helper can be at one of them only.
        var plan = WeekPlanner.Plan(Days(1, 3, Visit(20) with { Second = Quarters.Between(8, 12) },
            Visit(20) with { Second = Quarters.Between(8, 12) }) with { Bays = [new("1", true), new("2", true)] });
        var begins = plan.Visits.Select(v => v.Slot!.Value.Begins).Order().ToList();
        Assert.True(begins[1] - begins[0] >= 4, string.Join(" ", begins));
    }

    [Fact]
    public void The_load_is_spread_and_a_visit_stays_where_it_stood_where_little_is_gained()
    {
        // Two long visits, two days, nothing else to choose between: one each.
        var problem = Days(2, 2, Visit(16), Visit(16));
        var plan = WeekPlanner.Plan(problem);
        Assert.Equal([0, 1], plan.Visits.Select(v => v.Slot!.Value.Day).Order());
        // A quarter of sixty a day half full: 13 points each, 53 together on one. Moving costs ten.
        Assert.Equal((26, 26), (plan.Cost, plan.Bound));
        var both = problem with { Visits = [.. problem.Visits.Select((v, i) => v with { Before = new(0, 32 + 16 * i, 0) })] };
        Assert.Equal(36, WeekPlanner.Plan(both).Cost);
        Assert.Equal([0, 0], WeekPlanner.Plan(both with { Moving = 28 }).Visits.Select(v => v.Slot!.Value.Day));
    }

    private static WantedVisit Visit(int length) => new("", length, Quarters.None, false, [Quarters.None, Quarters.None], [0, 0], 500);

    private static WeekProblem Days(int days, int people, params WantedVisit[] visits) => new(
        [.. Enumerable.Range(0, days).Select(d => new WorkDay(Monday.AddDays(d), Quarters.Between(32, 66),
            [.. Enumerable.Range(0, 96).Select(_ => people)]))], [new("Bay 1", true)], [],
        [.. visits.Select(v => v with { Away = [.. v.Away.Concat([Quarters.None]).Take(days)], Cost = [.. v.Cost.Take(days)] })]);

    private static void Keeps(WeekProblem problem)
    {
        var plan = WeekPlanner.Plan(problem);
        Assert.Equal(problem.Visits.Count, plan.Visits.Count);
        for (var day = 0; day < problem.Days.Count; day++)
        {
            var busy = new int[problem.Bays.Count, 96];
            var people = new int[96];
            foreach (var t in problem.Taken.Where(t => t.Day == day))
                for (var q = 0; q < 96; q++)
                {
                    busy[t.Bay!.Value, q] += t.When.Has(q) ? 1 : 0;
                    people[q] += t.When.Has(q) ? 1 : 0;
                }
            foreach (var v in plan.Visits.Where(v => v.Slot?.Day == day))
            {
                var slot = v.Slot!.Value;
                Assert.True(problem.Bays[slot.Bay].Lift || !v.Visit.Lift);
                for (var q = slot.Begins; q < slot.Begins + v.Visit.Length; q++)
                {
                    Assert.True(problem.Days[day].Open.Has(q));
                    Assert.False(v.Visit.Away[day].Has(q));
                    Assert.Equal(1, ++busy[slot.Bay, q]);
                    people[q] += v.Visit.Second.Has(q - slot.Begins) ? 2 : 1;
                    Assert.True(people[q] <= problem.Days[day].People[q], $"{people[q]} people at {q} of day {day}");
                }
            }
        }
    }

    private static int CostOf(WeekProblem problem, WeekPlan plan) =>
        plan.Visits.Select((v, i) => v.Slot is { } s ? problem.CostOn(i, s.Day) : v.Visit.Waits).Sum()
            + Enumerable.Range(0, problem.Days.Count).Sum(d => problem.LoadCosts(d)[plan.Load(d)]);

    // Every visit on every day, at every time, in every bay, or nowhere.
    private static int BestByTryingAll(WeekProblem problem)
    {
        var (best, taken) = (int.MaxValue, new bool[problem.Days.Count, problem.Bays.Count, 96]);
        var people = problem.Days.Select(d => d.People.ToArray()).ToArray();
        var load = new int[problem.Days.Count];
        foreach (var t in problem.Taken)
            for (var q = 0; q < 96; q++)
                if (t.When.Has(q))
                {
                    taken[t.Day, t.Bay!.Value, q] = true;
                    people[t.Day][q]--;
                    load[t.Day]++;
                }
        Try(0, 0);
        return best;

        void Try(int visit, int cost)
        {
            if (visit == problem.Visits.Count)
            {
                best = Math.Min(best, cost + load.Select((l, d) => problem.LoadCosts(d)[l]).Sum());
                return;
            }
            var v = problem.Visits[visit];
            Try(visit + 1, cost + v.Waits);
            for (var d = 0; d < problem.Days.Count; d++)
                for (var b = 0; b < problem.Bays.Count; b++)
                    for (var q = 32; q + v.Length <= 38; q++)
                    {
                        var all = Enumerable.Range(q, v.Length).ToList();
                        if ((v.Lift && !problem.Bays[b].Lift) || all.Any(x => taken[d, b, x] || v.Away[d].Has(x)
                            || people[d][x] < (v.Second.Has(x - q) ? 2 : 1)))
                            continue;
                        all.ForEach(x => (taken[d, b, x], people[d][x]) = (true, people[d][x] - (v.Second.Has(x - q) ? 2 : 1)));
                        load[d] += v.Length;
                        Try(visit + 1, cost + problem.CostOn(visit, d));
                        load[d] -= v.Length;
                        all.ForEach(x => (taken[d, b, x], people[d][x]) = (false, people[d][x] + (v.Second.Has(x - q) ? 2 : 1)));
                    }
        }
    }
}
