using System.Globalization;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Drawing;

/// <summary>Draws a drive belt as one closed SVG path.</summary>
public static class BeltDrawing
{
    /// <summary>The path's text.</summary>
    public static string Path(BeltRoute belt)
    {
        var stretches = belt.Stretches();
        return string.Create(CultureInfo.InvariantCulture, $"M{stretches[0].Onto.X:0.##} {stretches[0].Onto.Y:0.##}")
            + string.Concat(stretches.Select((s, i) => string.Create(CultureInfo.InvariantCulture,
                $"A{s.Pulley.Radius} {s.Pulley.Radius} 0 {(s.Wrap > 180 ? 1 : 0)} {(s.Pulley.Back ? 0 : 1)} {s.Off.X:0.##} "
                    + $"{s.Off.Y:0.##}L{stretches[(i + 1) % stretches.Count].Onto.X:0.##} "
                    + $"{stretches[(i + 1) % stretches.Count].Onto.Y:0.##}"))) + "Z";
    }
}
