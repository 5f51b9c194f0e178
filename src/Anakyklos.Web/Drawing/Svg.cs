using System.Globalization;

namespace Anakyklos.Web.Drawing;

/// <summary>How numbers stand in a drawing: with a point, to a tenth of a unit of its view box.</summary>
public static class Svg
{
    public static string N(double value) => value.ToString("0.#", CultureInfo.InvariantCulture);

    public static string N(decimal value) => value.ToString("0.#", CultureInfo.InvariantCulture);
}
