using System.Globalization;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Practice;

/// <summary>What is typed beside a choice.</summary>
internal static class Figures
{
    private const int MostHeld = 600;

    private static readonly Quantity<Volume> MostPoured = Quantity<Volume>.Of(50, Core.Quantities.Volume.Litre);

    internal static (int? Count, string Problem) Count(string typed, int most) =>
        int.TryParse(typed.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var n) && n >= 0 && n < most ? (n, "")
            : (null, $"Type how many went in, from 0 to {most - 1}.");

    internal static (int? Count, string Problem) Strokes(string typed) =>
        int.TryParse(typed.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var n) && n is >= 1 and <= 50 ? (n, "")
            : (null, "Type how many strokes, from 1 to 50.");

    /// <summary>A wrench is set by the numbers on its scale, whatever somebody thinks they are.</summary>
    internal static (Quantity<Torque>? Torque, string Problem) Setting(string typed, PracticeWrench wrench) =>
        decimal.TryParse(typed.Trim(), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var n) && n is > 0 and <= 2000
            ? (Quantity<Torque>.Of(n, wrench.Scale), "") : (null, $"Type the number on the scale of {wrench.Name}, such as 38.");

    internal static (Quantity<Volume>? Volume, string Problem) Volume(string typed)
    {
        if (Quantity<Volume>.Read(typed, out var problem, Core.Quantities.Volume.Litre) is not { } read)
            return (null, problem);
        return read.Value > Quantity<Volume>.Zero && read.Value <= MostPoured ? (read.Value, "")
            : (null, $"Type more than nothing and at most {MostPoured}.");
    }

    internal static (Quantity<Pressure>? Pressure, string Problem) Pressure(string typed)
    {
        if (Quantity<Pressure>.Read(typed, out var problem, Core.Quantities.Pressure.Bar) is not { } read)
            return (null, problem);
        return read.Value > Quantity<Pressure>.Zero && read.Value <= Quantity<Pressure>.Of(10, Core.Quantities.Pressure.Bar)
            ? (read.Value, "") : (null, "Type up to 10 bar.");
    }

    internal static (TimeSpan? Held, string Problem) Seconds(string typed) =>
        typed.Trim().Length == 0 ? (TimeSpan.Zero, "")
        : decimal.TryParse(typed.Trim(), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var s)
            && s is >= 0 and <= MostHeld ? (TimeSpan.FromSeconds((double)s), "")
            : (null, $"Type for how many seconds, from 0 to {MostHeld}.");
}
