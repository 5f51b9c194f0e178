using System.Globalization;

namespace Anakyklos.Core.Quantities;

/// <summary>What the dash of a vehicle shows, in words.</summary>
public static class OdometerText
{
    /// <summary>An odometer reading as it is read aloud: whole units, thousands apart, such as "146 100 km".</summary>
    /// <param name="reading">The reading.</param>
    /// <param name="unit">The unit of the dash.</param>
    /// <returns>Rounded to whole units, half to even, with a narrow space that does not break between thousands.</returns>
    public static string Of(Quantity<Distance> reading, Unit<Distance> unit) =>
        $"{Math.Round(reading.In(unit)).ToString("#,0", CultureInfo.InvariantCulture)} {unit.Symbol}".Replace(',', '\u202f');
}
