using Anakyklos.Core.Intervals;
using Anakyklos.Core.Workshop;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Demo;

/// <summary>A made-up vehicle with its use and what was done to it before.</summary>
/// <param name="Plate">Plate.</param>
/// <param name="Sheet">Model sheet.</param>
/// <param name="Task">What it does.</param>
/// <param name="Year">Model year.</param>
/// <param name="Use">How hard it is used.</param>
/// <param name="Km">The last reading.</param>
/// <param name="LastRead">How many days ago that was.</param>
/// <param name="KmAMonth">About how far it goes in a month.</param>
/// <param name="Delivered">How many days ago it was delivered; null for its model year.</param>
/// <param name="Done">Jobs: id, days ago, reading.</param>
public sealed record DemoLife(string Plate, string Sheet, string Task, int Year, Use Use, int Km, int LastRead, int KmAMonth,
    int? Delivered, (string Job, int DaysAgo, int Km)[] Done)
{
    /// <summary>The vehicle on a day.</summary>
    public Vehicle Vehicle(DateOnly today) =>
        new(Plate, Sheet, Task, Year, Use, Delivered is { } ago ? today.AddDays(-ago) : null, false,
        Delivered is { } d ? today.AddDays(730 - d) : null, DemoDashes.All.FirstOrDefault(x => x.Plate == Plate)?.Identity ?? "");

    /// <summary>Monthly readings of the last two years; they run through what was read at each job, and before those by <see
    /// cref="KmAMonth"/>.</summary>
    public IEnumerable<(int DaysAgo, int Km)> Readings()
    {
        (int DaysAgo, int Km)[] known = [.. Done.Select(d => (DaysAgo: d.DaysAgo, Km: d.Km)).Append((DaysAgo: LastRead, Km))
            .Where(k => k.DaysAgo >= LastRead).Distinct().Order()];
        for (var ago = LastRead; ago < Math.Min(730, Delivered ?? 730); ago += 30)
        {
            var (newer, older) = (known.Last(k => k.DaysAgo <= ago), known.FirstOrDefault(k => k.DaysAgo > ago));
            var km = older.Km == 0 ? newer.Km - KmAMonth * (ago - newer.DaysAgo) / 30
                : newer.Km - (newer.Km - older.Km) * (ago - newer.DaysAgo) / (older.DaysAgo - newer.DaysAgo);
            // No month is like another.
            if (km > 0)
                yield return (ago, ago == LastRead ? km : km + (int)(KmAMonth * 0.3 * Math.Sin(ago / 17.0)));
        }
    }
}

/// <summary>The depot's vehicles.</summary>
public static class DemoLives
{
    private const string Oil = "engine-oil-and-filter";

    /// <summary>All of them, by plate.</summary>
    public static IReadOnlyList<DemoLife> All { get; } =
    [
        new("HD-02", "corran-fen-12", "District nurse", 2021, Use.Harsh, 38_410, 9, 640, null,
            [(Oil, 204, 33_950), ("air-filter", 204, 33_950), ("cabin-filter", 204, 33_950), ("spark-plugs", 570, 26_100),
                ("brake-fluid", 570, 26_100), ("gearbox-oil", 570, 26_100), ("tyre-rotation", 60, 37_300),
                ("wear-check", 204, 33_950)]),
        new("HD-04", "hespin-16", "School run", 2018, Use.Harsh, 121_300, 6, 1_150, null,
            [(Oil, 70, 118_500), ("air-filter", 70, 118_500), ("cabin-filter", 70, 118_500), ("gearbox-oil", 700, 93_400),
                ("rear-axle-oil", 700, 93_400), ("tyre-rotation", 70, 118_500), ("brake-fluid", 240, 112_000)]),
        new("HD-07", "tarn-courier-20d", "Ferry mail", 2019, Use.Harsh, 146_100, 8, 1_560, null,
            [("air-filter", 156, 138_050), ("cabin-filter", 156, 138_050), ("fuel-filter", 338, 127_480), ("drive-belt", 700, 107_300)]),
        new("HD-08", "tarn-courier-20d", "Ferry mail, spare van", 2020, Use.Harsh, 61_400, 20, 700, null,
            [(Oil, 186, 56_900), ("air-filter", 186, 56_900), ("cabin-filter", 186, 56_900), ("fuel-filter", 186, 56_900),
                ("drive-belt", 500, 48_900)]),
        new("HD-09", "lumen-ardent", "Council pool", 2026, Use.Normal, 2_480, 9, 640, 118, [(Oil, 41, 1_900)]),
        new("HD-11", "ostler-brae-28d", "Lighthouse keepers", 2016, Use.Harsh, 87_950, 5, 900, null,
            [(Oil, 110, 81_400), ("grease", 75, 84_000), ("gearbox-oil", 400, 74_200), ("transfer-oil", 400, 74_200),
                ("front-axle-oil", 400, 74_200), ("rear-axle-oil", 400, 74_200),
             ("air-filter", 220, 79_300), ("fuel-filter", 220, 79_300), ("coolant", 700, 66_000), ("brake-fluid", 400, 74_200)]),
        new("HD-15", "maelor-ridge-900", "Islands warden", 2020, Use.Harsh, 24_160, 12, 420, null,
            [(Oil, 60, 23_300), ("gearbox-oil", 200, 21_200), ("primary-oil", 200, 21_200), ("belt", 60, 23_300),
                ("air-filter", 200, 21_200)]),
        new("HD-16", "skelling-tourer-1100", "Harbour police", 2017, Use.Harsh, 51_720, 7, 560, null,
            [(Oil, 90, 50_100), ("gearbox-oil", 270, 46_900), ("final-drive-oil", 270, 46_900), ("spark-plugs", 800, 31_500),
                ("fuel-filter", 500, 42_300), ("air-filter", 500, 42_300), ("brake-fluid", 395, 44_400)]),
    ];
}
