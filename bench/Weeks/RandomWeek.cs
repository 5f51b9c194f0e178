using Anakyklos.Core.Weeks;

namespace Anakyklos.Bench.Weeks;

/// <summary>Weeks made from a number: vehicles with bands and windows, boats on Tuesdays and Fridays, two people here and there.</summary>
public static class RandomWeek
{
    /// <summary>Makes one.</summary>
    /// <param name="number">Which one; the same number makes the same week.</param>
    /// <param name="vehicles">How many visits are wanted.</param>
    /// <param name="bays">How many bays there are.</param>
    public static WeekProblem Make(int number, int vehicles, int bays)
    {
        var chance = new Random(number);
        var from = new DateOnly(2026, 3, 9);
        var open = Quarters.Between(new TimeOnly(8, 0), new TimeOnly(16, 30));
        var days = Enumerable.Range(0, 14).Select(i => from.AddDays(i)).Select(d =>
        {
            var closed = d.DayOfWeek is DayOfWeek.Saturday or DayOfWeek.Sunday;
            var there = Enumerable.Range(0, Quarters.InDay)
                .Select(q => closed || !open.Has(q) ? 0 : bays + (chance.Next(4) == 0 ? 0 : 1)).ToArray();
            return new WorkDay(d, closed ? Quarters.None : open, there);
        }).ToList();
        var visits = Enumerable.Range(0, vehicles).Select(i =>
        {
            var length = chance.Next(4, 17);
            var second = chance.Next(3) > 0 ? Quarters.None : Quarters.Between(length / 2, length / 2 + chance.Next(1, 3));
            var needed = chance.Next(4) switch
            {
                0 => Quarters.Between(new TimeOnly(7, 30), new TimeOnly(9, 0))
                    .And(Quarters.Between(new TimeOnly(14, 45), new TimeOnly(16, 0))),
                1 => Quarters.Between(new TimeOnly(12, 0), new TimeOnly(17, 0)),
                _ => Quarters.None,
            };
            var boat = chance.Next(4) == 0 ? chance.Next(2) == 0 ? 1 : 4 : 0;
            var (early, due) = (chance.Next(-6, 12), 0);
            due = early + chance.Next(1, 8);
            int CostOn(int day) => day < early ? early - day : day <= due ? 4 * (day - early) : 4 * (due - early) + 40 * (day - due);
            return new WantedVisit($"V-{i:000}", length, second, chance.Next(4) > 0,
                [.. days.Select((d, n) => n < boat ? Quarters.AllDay : n == boat && boat > 0
                    ? needed.And(Quarters.Between(0, 48)) : needed)],
                [.. days.Select((_, n) => CostOn(n))], CostOn(21) + 200);
        }).ToList();
        return new(days, [.. Enumerable.Range(0, bays).Select(b => new BayPlace($"Bay {b + 1}", b * 4 < bays * 3))], [], visits);
    }
}
