using Anakyklos.Core.Cards;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Workshop;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Demo;

/// <summary>A made-up vehicle with its use and its services.</summary>
/// <param name="Plate">Plate.</param>
/// <param name="Sheet">Model sheet.</param>
/// <param name="Task">What it does.</param>
/// <param name="Year">Model year.</param>
/// <param name="Use">How hard it is used.</param>
/// <param name="Km">The last reading.</param>
/// <param name="LastRead">How many days ago that was.</param>
/// <param name="KmAMonth">About how far it goes in a month.</param>
/// <param name="Delivered">How many days ago it was delivered; null for its model year.</param>
/// <param name="Visits">Its services, the oldest first.</param>
public sealed record DemoLife(string Plate, string Sheet, string Task, int Year, Use Use, int Km, int LastRead, int KmAMonth,
    int? Delivered, params DemoVisit[] Visits)
{
    /// <summary>The vehicle on a day.</summary>
    public Vehicle Vehicle(DateOnly today) =>
        new(Plate, Sheet, Task, Year, Use, Delivered is { } ago ? today.AddDays(-ago) : null, false,
        Delivered is { } d ? today.AddDays(730 - d) : null, DemoDashes.All.FirstOrDefault(x => x.Plate == Plate)?.Identity ?? "");

    /// <summary>Monthly readings of the last two years; they run through what was read at each service, and before those by <see
    /// cref="KmAMonth"/>.</summary>
    public IEnumerable<(int DaysAgo, int Km)> Readings()
    {
        (int DaysAgo, int Km)[] known = [.. Visits.Select(d => (d.DaysAgo, d.Km)).Append((DaysAgo: LastRead, Km))
            .Where(k => k.DaysAgo >= LastRead).Distinct().Order()];
        for (var ago = LastRead; ago < Math.Min(730, Delivered ?? 730); ago += 30)
        {
            var (newer, older) = (known.Last(k => k.DaysAgo <= ago), known.FirstOrDefault(k => k.DaysAgo > ago));
            var km = older.Km == 0 ? newer.Km - KmAMonth * (ago - newer.DaysAgo) / 30
                : newer.Km - (newer.Km - older.Km) * (ago - newer.DaysAgo) / (older.DaysAgo - newer.DaysAgo);
            // No month is like another, and none goes back behind a service.
            var some = ago == LastRead ? 0 : (int)(KmAMonth * 0.3 * Math.Sin(ago / 17.0));
            if (km > 0 && (ago == LastRead || known.All(k => k.DaysAgo != ago)))
                yield return (ago, Math.Clamp(km + some, older.Km, newer.Km));
        }
    }
}

/// <summary>The depot's vehicles.</summary>
public static class DemoLives
{
    private const string Oil = "engine-oil-and-filter", Air = "air-filter", Cabin = "cabin-filter", Fuel = "fuel-filter",
        Plugs = "spark-plugs", Gearbox = "gearbox-oil", RearAxle = "rear-axle-oil", Brakes = "brake-fluid", Tyres = "tyre-rotation",
        Wear = "wear-check", Grease = "grease", Belt = "belt", FinalDrive = "final-drive-oil", DriveBelt = "drive-belt";

    /// <summary>All of them, by plate.</summary>
    public static IReadOnlyList<DemoLife> All { get; } = [Nurse, SchoolRun, Mail, SpareVan, Pool, Keepers, Warden, Police];

    private static DemoLife Nurse => new("HD-02", "corran-fen-12", "District nurse", 2021, Use.Harsh, 38_410, 9, 640, null,
        new(1092, 15_050, Oil, Air, Cabin) { Found = 0.7m },
        new(930, 18_480, Oil) { Found = 0.65m },
        new DemoVisit(752, 22_260, Oil, Wear) { Found = 0.65m }.Worn(["7.4 7.2", "7.5 7.3", "7.1 7", "7.2 7"], ["21.6", "21.6"]),
        new(570, 26_100, Oil, Plugs, Brakes, Gearbox) { Found = 0.6m },
        new DemoVisit(388, 30_020, Oil, Wear)
        {
            Found = 0.6m,
            Finding = ("underside", FindingGrade.PlanIt, "Rear brake pipe rusty at its clip: clean it and wax it"),
            Became = (false, 204, "Iona R.", "Cleaned, waxed, new clip"),
        }.Worn(["5.8 5.6", "5.9 5.8", "6.1 6", "6.2 6"], ["21.2", "21.3"]),
        new DemoVisit(204, 33_950, Oil, Air, Cabin, Wear)
        {
            Found = 0.55m,
            Finding = ("lamps", FindingGrade.PlanIt, "Left headlamp glass dull: polish or renew it"),
            Became = (true, 190, "Transport desk", "The car is replaced next spring"),
        }.Worn(["5.1 4.9", "5.2 5", "5.6 5.5", "5.7 5.5"], ["21", "21.1"]),
        new DemoVisit(60, 37_300, Tyres).Tread(("front-left", "4.3 4.6 4.4"), ("front-right", "4.4 4.6 4.4"),
            ("rear-left", "5.6 5.7 5.6"), ("rear-right", "5.5 5.7 5.6")));

    private static DemoLife SchoolRun => new("HD-04", "hespin-16", "School run", 2018, Use.Harsh, 121_300, 6, 1_150, null,
        new(1060, 79_600, Oil, Air, Cabin) { Found = 0.6m },
        new(880, 86_500, Oil, Air, Cabin) { Found = 0.6m },
        new DemoVisit(700, 93_400, Oil, Air, Cabin, Gearbox, RearAxle, Wear) { Found = 0.55m }
            .Worn(["11.2 11", "11.3 11.1", "11.4 11.3", "11.5 11.3"], ["27.9", "27.9"]),
        new(605, 97_200, Brakes),
        new DemoVisit(520, 100_600, Oil, Air, Cabin, Wear) { Found = 0.55m }
            .Worn(["9.1 8.9", "9.2 9", "9.8 9.6", "9.9 9.7"], ["27.6", "27.6"]),
        new DemoVisit(400, 105_500, Tyres) { WheelNuts = 210 }.Tread(("front-left", "6.2 6.4 6.3"), ("front-right", "6.3 6.4 6.3"),
            ("rear-left-outer", "7.4 7.5 7.4"), ("rear-left-inner", "7.2 7.3 7.2"), ("rear-right-outer", "7.4 7.5 7.5"),
            ("rear-right-inner", "7.1 7.3 7.2")),
        new DemoVisit(330, 108_400, Oil, Air, Cabin, Wear) { Found = 0.5m }
            .Worn(["6.8 6.6", "6.9 6.7", "8 7.8", "8.1 7.9"], ["27.2", "27.3"]),
        new(240, 112_000, Brakes),
        new DemoVisit(160, 115_150, Wear).Worn(["4.9 4.6", "5 4.8", "6.4 6.2", "6.5 6.3"], ["26.9", "27"]),
        new DemoVisit(70, 118_500, Oil, Air, Cabin, Tyres) { Found = 0.5m, WheelNuts = 210 }.Tread(("front-left", "5.1 5.4 5.2"),
            ("front-right", "5.2 5.4 5.2"), ("rear-left-outer", "5.7 5.9 5.8"), ("rear-left-inner", "5.4 5.6 5.5"),
            ("rear-right-outer", "5.8 5.9 5.8"), ("rear-right-inner", "5.4 5.6 5.5")));

    // It uses a little more oil from year to year, the same washer went back once, and there was glitter once.
    private static DemoLife Mail => new("HD-07", "tarn-courier-20d", "Ferry mail", 2019, Use.Harsh, 146_100, 8, 1_560, null,
        new(1068, 88_420, Oil) { Found = 0.6m, TopUps = [0.25m, 0.75m], Plug = 38 },
        new(884, 97_960, Oil) { Found = 0.6m, TopUps = [0.2m, 0.7m], Plug = 37 },
        new(702, 107_310, DriveBelt) { HalfHours = -4 },
        new(702, 107_310, Oil) { Found = 0.5m, TopUps = [0.1m, 0.5m, 0.8m], Plug = 38 },
        new(521, 117_550, Air, Cabin) { HalfHours = -4 },
        new(521, 117_550, Oil)
        {
            Found = 0.45m, TopUps = [0m, 0.5m, 0.75m], Plug = 39, OldWasher = "Washer box was empty, boat came a day late", Sampled = true,
        },
        new(338, 127_480, Fuel) { HalfHours = -4 },
        new(338, 127_480, Oil)
        {
            Found = 0.3m, TopUps = [-0.1m, 0.4m, 0.75m], Plug = 38, Sampled = true,
            Finding = ("look-at-plug", FindingGrade.KeepAnEye, "A little glitter in the paste on the magnet"),
        },
        new(156, 138_050, Air, Cabin) { HalfHours = -4 },
        new(156, 138_050, Oil) { Found = 0.15m, TopUps = [-0.2m, 0.3m, 0.7m], Plug = 38, Sampled = true });

    private static DemoLife SpareVan => new("HD-08", "tarn-courier-20d", "Ferry mail, spare van", 2020, Use.Harsh, 61_400, 20, 700, null,
        new(1010, 36_200, Oil, Air, Cabin, Fuel) { Found = 0.6m },
        new(760, 42_400, Oil, Fuel) { Found = 0.6m },
        new(500, 48_900, Oil, Air, Cabin, DriveBelt) { Found = 0.6m },
        new(342, 52_900, Oil) { Found = 0.55m },
        new(186, 56_900, Oil, Air, Cabin, Fuel) { Found = 0.55m });

    private static DemoLife Pool => new("HD-09", "lumen-ardent", "Council pool", 2026, Use.Normal, 2_480, 9, 640, 118,
        new DemoVisit(41, 1_900, Oil) { Found = 0.9m });

    private static DemoLife Keepers => new("HD-11", "ostler-brae-28d", "Lighthouse keepers", 2016, Use.Harsh, 87_950, 5, 900, null,
        new(1040, 56_500, Oil, Air, Fuel, Grease) { Found = 0.5m },
        new(860, 61_700, Oil, Grease) { Found = 0.5m },
        new(700, 66_000, Oil, Grease, "coolant") { Found = 0.45m },
        new(545, 70_300, Oil, Air, Fuel, Grease) { Found = 0.45m },
        new(400, 74_200, Oil, Gearbox, "transfer-oil", "front-axle-oil", RearAxle, Brakes) { Found = 0.4m },
        new(300, 77_000, Grease),
        new(220, 79_300, Oil, Air, Fuel) { Found = 0.45m },
        new(110, 81_400, Oil, Air)
        {
            Found = 0.55m, Dropped = (Air, "The boat brought the filter of another model"),
        },
        new(75, 84_000, Grease)
        {
            Finding = ("grease-propshafts", FindingGrade.KeepAnEye, "A little play in the rear joint of the rear propshaft"),
        });

    private static DemoLife Warden => new("HD-15", "maelor-ridge-900", "Islands warden", 2020, Use.Harsh, 24_160, 12, 420, null,
        new(985, 10_200, Oil, Belt),
        new(790, 13_000, Oil, Belt, Gearbox, "primary-oil"),
        new(600, 15_700, Oil, Belt, Air),
        new(400, 18_450, Oil, Belt),
        new(200, 21_200, Oil, Gearbox, "primary-oil", Air),
        new(60, 23_300, Oil, Belt));

    private static DemoLife Police => new("HD-16", "skelling-tourer-1100", "Harbour police", 2017, Use.Harsh, 51_720, 7, 560, null,
        new(1080, 26_000, Oil),
        new(800, 31_500, Oil, Plugs, Gearbox, FinalDrive),
        new(650, 36_900, Oil),
        new(500, 42_300, Oil, Air, Fuel),
        new(395, 44_400, Brakes),
        new(270, 46_900, Oil, Gearbox, FinalDrive),
        new(90, 50_100, Oil));
}
