using Anakyklos.Core.Laboratory;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Quantities;
using Anakyklos.Simulation;

namespace Anakyklos.Devices;

/// <summary>
/// A stand-in for a laboratory: it answers a sample with what an oil would hold that ran so far on that vehicle. Each vehicle wears in its
/// own way, the same every time; what was seen when the oil was let out is in it too, and what is wrong with the simulated vehicle.
/// </summary>
public static class Brackwater
{
    /// <summary>How long it takes from the sample being sent to the answer.</summary>
    public static readonly TimeSpan Takes = TimeSpan.FromDays(6);

    // How far an oil ran of which nobody knows it: as far as oils usually do.
    private static readonly Quantity<Distance> Usual = Quantity<Distance>.Of(12_000, Distance.Kilometre);

    // mg/kg in 1,000 km of an engine that wears as it should, and how much more comes with glitter and with slivers on the magnet.
    private static readonly (Analyte Metal, decimal Worn, decimal Glitter, decimal Slivers)[] Wear =
    [
        (Analyte.Iron, 1.8m, 4, 9), (Analyte.Copper, 0.6m, 3, 6), (Analyte.Aluminium, 0.4m, 2, 3), (Analyte.Lead, 0.3m, 4, 8),
        (Analyte.Chromium, 0.15m, 2, 4), (Analyte.Tin, 0.1m, 3, 6),
    ];

    /// <summary>The answer to a sample.</summary>
    /// <param name="sample">The sample.</param>
    /// <param name="seen">What was seen of that oil, on its magnet and in its filter.</param>
    /// <param name="day">The day of the report.</param>
    public static OilResult Answer(OilSample sample, IReadOnlyCollection<Look> seen, DateOnly day)
    {
        var run = (sample.OnOil ?? Usual) / Quantity<Distance>.Of(1000, Distance.Kilometre);
        bool Has(Appearance looks) => seen.Any(s => s.Looks == looks);
        var coarse = Has(Appearance.Slivers) || Has(Appearance.Lumps) || Has(Appearance.Steel);
        var values = Wear.ToDictionary(w => w.Metal, w => Round(w.Worn * Own(sample.Plate, w.Metal) * run
            * (coarse ? w.Slivers : Has(Appearance.Glitter) ? w.Glitter : 1)));
        values[Analyte.Silicon] = Round(6 * Own(sample.Plate, Analyte.Silicon));
        values[Analyte.Sodium] = Round(5 * Own(sample.Plate, Analyte.Sodium));
        values[Analyte.Water] = Has(Appearance.Milky) ? 0.9m : 0.02m;
        values[Analyte.Fuel] = Has(Appearance.Thin) ? 6.5m : 0.4m;
        values[Analyte.Soot] = Math.Round(0.05m * run * Own(sample.Plate, Analyte.Soot), 2);
        // Fuel thins it, soot thickens it; a fresh 30 has 11 to 12.
        values[Analyte.Viscosity] = Math.Round(Fresh(sample.Grades) - values[Analyte.Fuel] * 0.4m + values[Analyte.Soot] * 0.3m, 1);
        return new(sample.Code, day, values, "Measured by the stand-in.");
    }

    /// <summary>What is wrong with an oil of a simulated vehicle, whether anybody saw it or not.</summary>
    /// <param name="vehicle">The vehicle.</param>
    /// <param name="fluid">The oil.</param>
    public static IEnumerable<Look> In(Vehicle vehicle, FluidId fluid) => vehicle.Faults.Select(fault => fault switch
    {
        Slivers s when vehicle.Sheet.Fasteners[s.What].Drains == fluid => new Look(LookSubject.Magnet, Appearance.Slivers),
        Milky m when m.What == fluid => new Look(LookSubject.Fluid, Appearance.Milky),
        Thinned t when t.What == fluid => new Look(LookSubject.Fluid, Appearance.Thin),
        _ => (Look?)null,
    }).OfType<Look>();

    private static decimal Fresh(IReadOnlyList<string> grades) => grades.Select(g => g.Split('W')[^1].Trim()).FirstOrDefault() switch
    {
        "20" => 8.2m, "40" => 14.2m, "50" => 18.5m, "80" or "85" or "90" => 15.5m, "140" => 26m, _ => 11.6m,
    };

    // Between 0.8 and 1.2, the same for a vehicle every time.
    private static decimal Own(string plate, Analyte analyte) =>
        0.8m + plate.Aggregate(17 + (int)analyte * 31, (sum, c) => (sum * 31 + c) % 9973) % 41 / 100m;

    private static decimal Round(decimal value) => Math.Round(value, value < 10 ? 1 : 0);
}
