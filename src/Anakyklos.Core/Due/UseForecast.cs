using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Due;

/// <summary>What a vehicle is used a day, from its odometer history.</summary>
/// <param name="Usual">Distance a day, the middle of its stretches by their days.</param>
/// <param name="Low">On a quiet stretch: a fifth of the days saw less.</param>
/// <param name="High">On a busy stretch: a fifth of the days saw more.</param>
/// <param name="Stretches">Stretches between readings that it rests on.</param>
/// <param name="LeftOut">Readings that do not fit the others and were left out.</param>
/// <param name="DaysStill">Days of stretches on which it stood still; they do not lower the rest.</param>
public sealed record DailyUse(Quantity<Distance> Usual, Quantity<Distance> Low, Quantity<Distance> High, int Stretches, int LeftOut,
    int DaysStill)
{
    /// <summary>Further than this in a day no vehicle of a workshop goes; a reading that asks for more is wrong.</summary>
    public static Quantity<Distance> MostADay { get; } = Quantity<Distance>.Of(1500, Distance.Kilometre);

    private const int Kept = 200, Recent = 730, StillDays = 14;

    // Fewer readings than these do not outweigh the one after them.
    private const int Outweigh = 3;

    /// <summary>The use a day; null when fewer than two readings on different days fit together.</summary>
    /// <param name="readings">Readings in any order, on the scale of one odometer.</param>
    /// <param name="lookedTwice">Days whose reading somebody looked at once more, so that it is believed though it jumps.</param>
    /// <returns>Distance and hours a day, or null when there are too few readings to tell.</returns>
    public static DailyUse? From(IEnumerable<UseMark> readings, IReadOnlySet<DateOnly>? lookedTwice = null)
    {
        var all = Days(readings);
        return Of(Fitting(all, lookedTwice), all.Length);
    }

    /// <summary>The readings that fit together, the oldest first: what falls, jumps further than a vehicle goes, or lies at the end far
    /// beyond the use so far is not among them.</summary>
    /// <param name="readings">Readings in any order, on the scale of one odometer; of one day the highest counts.</param>
    /// <param name="lookedTwice">Days whose reading is believed though it lies far beyond.</param>
    public static IReadOnlyList<UseMark> Fitting(IEnumerable<UseMark> readings, IReadOnlySet<DateOnly>? lookedTwice = null)
    {
        var chain = Plausible(Days(readings));
        if (chain.Count > Outweigh && lookedTwice?.Contains(chain[^1].Day) != true && chain[..^1] is var rest
            && chain[^1].Odometer > OdometerCheck.Most(rest[^1], Of(rest, rest.Count), chain[^1].Day))
            return rest;
        return chain;
    }

    private static UseMark[] Days(IEnumerable<UseMark> readings) =>
        [.. readings.GroupBy(r => r.Day).Select(g => g.MaxBy(r => r.Odometer)).OrderBy(r => r.Day).TakeLast(Kept)];

    private static DailyUse? Of(IReadOnlyList<UseMark> chain, int all)
    {
        if (chain.Count < 2)
            return null;
        var stretches = chain.Zip(chain.Skip(1), (a, b) =>
            (Days: b.Day.DayNumber - a.Day.DayNumber, Distance: b.Odometer - a.Odometer, Ends: b.Day)).ToList();
        if (stretches.Where(s => s.Ends.DayNumber > chain[^1].Day.DayNumber - Recent).ToList() is { Count: >= 3 } recent)
            stretches = recent;
        var mean = stretches.Aggregate(Quantity<Distance>.Zero, (sum, s) => sum + s.Distance) / stretches.Sum(s => s.Days);
        var still = stretches.Where(s => s.Days >= StillDays && s.Distance < mean * s.Days * 0.05m).ToList();
        var moving = stretches.Except(still).Select(s => (Rate: s.Distance / s.Days, s.Days)).OrderBy(s => s.Rate).ToList();
        var (low, usual, high) = (At(0.2m), At(0.5m), At(0.8m));
        // One stretch has no spread of its own: a quarter up and down is assumed.
        if (moving.Count == 1)
            (low, high) = (usual * 0.75m, usual * 1.25m);
        return new(usual, low, high, moving.Count, all - chain.Count, still.Sum(s => s.Days));

        Quantity<Distance> At(decimal part)
        {
            var before = 0m;
            var days = moving.Sum(m => m.Days);
            return moving.First(m => (before += m.Days) >= days * part).Rate;
        }
    }

    /// <summary>The longest row of readings that never falls and never jumps beyond <see cref="MostADay"/>; of equals the one that ends
    /// latest.</summary>
    private static List<UseMark> Plausible(UseMark[] all)
    {
        var (length, before) = (new int[all.Length], new int[all.Length]);
        var end = -1;
        for (var i = 0; i < all.Length; i++)
        {
            (length[i], before[i]) = (1, -1);
            for (var j = 0; j < i; j++)
                if (all[j].Odometer <= all[i].Odometer
                    && all[i].Odometer - all[j].Odometer <= MostADay * (all[i].Day.DayNumber - all[j].Day.DayNumber)
                    && length[j] + 1 >= length[i])
                    (length[i], before[i]) = (length[j] + 1, j);
            if (end < 0 || length[i] >= length[end])
                end = i;
        }
        var chain = new List<UseMark>();
        for (; end >= 0; end = before[end])
            chain.Add(all[end]);
        chain.Reverse();
        return chain;
    }

    /// <summary>The reading to be expected on a day.</summary>
    /// <param name="now">The last reading.</param>
    /// <param name="day">That day or a later one.</param>
    /// <returns>Where it will stand on that day, at this use.</returns>
    public UseMark On(in UseMark now, DateOnly day) =>
        new(now.Odometer + Usual * Math.Max(0, day.DayNumber - now.Day.DayNumber), day, now.Hours);
}

/// <summary>The day on which something will be due, with the band around it.</summary>
/// <param name="Day">At the usual use.</param>
/// <param name="Earliest">At busy use.</param>
/// <param name="Latest">At quiet use; null when distance alone counts and on quiet stretches nothing is driven.</param>
public sealed record DueDay(DateOnly Day, DateOnly Earliest, DateOnly? Latest)
{
    /// <summary>When a job will be due: the day of its rule, or the day on which its distance is used up, whichever is first. Never before
    /// today, unless it is overdue.</summary>
    /// <param name="standing">Where it stands.</param>
    /// <param name="now">Where the vehicle stands today.</param>
    /// <param name="use">Its use a day, or null when that is not known: then only days count.</param>
    /// <returns>The day, or null when no day can be told.</returns>
    public static DueDay? Of(in Standing standing, in UseMark now, DailyUse? use)
    {
        var by = standing.By;
        if (standing.State is DueState.Unknown or DueState.Due)
            return new(now.Day, now.Day, now.Day);
        if (standing.State == DueState.Overdue)
            return by < now.Day ? new(by.Value, by.Value, by.Value) : new(now.Day, now.Day, now.Day);
        var (at, today) = (standing.At, now);
        if (First(use?.Usual) is not { } day)
            return null;
        return new(day, First(use?.High) ?? day, First(use?.Low));

        DateOnly? First(Quantity<Distance>? rate)
        {
            if (at is not { } reading || rate is not { } daily || daily <= Quantity<Distance>.Zero)
                return by;
            var days = Math.Ceiling((reading - today.Odometer) / daily);
            // Beyond a century no forecast is one.
            var far = today.Day.AddDays((int)Math.Min(36_525, days));
            return by < far ? by : far;
        }
    }
}
