namespace Anakyklos.Web.Hosting;

/// <summary>What the dash of a vehicle of the depot shows when it comes in today, whatever was noted of it before.</summary>
/// <param name="Plate">The vehicle.</param>
/// <param name="Identity">What it tells a scan tool that it is.</param>
/// <param name="Km">Odometer, in km.</param>
/// <param name="Code">Message code; empty for none.</param>
/// <param name="Left">Distance left, in km; null where it has no counter.</param>
/// <param name="OilLife">Oil life left, in percent; null where it has none.</param>
/// <param name="Hours">Running hours; null where it counts none.</param>
public sealed record DemoDash(string Plate, string Identity, int Km, string Code, int? Left = null, int? OilLife = null, int? Hours = null);

/// <summary>The dashes of the depot.</summary>
public static class DemoDashes
{
    /// <summary>All of them, by plate.</summary>
    public static IReadOnlyList<DemoDash> All { get; } =
    [
        new("HD-02", "CF12-3302-21", 39_950, "", 900),
        new("HD-04", "HE16-0881-18", 122_000, "OIL", 4_500),
        // What was driven says one thing, how it was driven another.
        new("HD-07", "TC20D-0714-19", 148_300, "17", 1_900, 2),
        new("HD-08", "TC20D-0822-20", 61_870, "07", -100, 0),
        new("HD-09", "LA-5090-26", 2_900, "", 12_100),
        new("HD-11", "OB28D-1107-16", 88_500, "", Hours: 3_140),
        new("HD-15", "MR900-1511-20", 24_700, "SERV"),
        new("HD-16", "ST11-1640-17", 52_300, "I", 300),
    ];
}
