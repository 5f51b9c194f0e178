using System.Text.RegularExpressions;

namespace Anakyklos.Web.Wording;

/// <summary>Sizes as they are spoken: "14 mm hex", "T27 bit", "5/8 in hex", "8 to 10 mm".</summary>
public static partial class DriveWords
{
    /// <summary>The large figure of a drive and the words beside it; no figure where it has no size.</summary>
    /// <param name="drive">As the sheet writes it: "Hex 14", "T27 bit", "Cap wrench 76", "Strap wrench".</param>
    public static (string Figure, string Beside) Figure(string drive)
    {
        if (Bit().Match(drive) is { Success: true } bit)
            return (bit.Groups["size"].Value, "bit");
        if (KindFirst().Match(drive) is { Success: true } kind)
            return (kind.Groups["size"].Value,
                $"{(kind.Groups["inch"].Success ? "in" : "mm")} {kind.Groups["kind"].Value.ToLowerInvariant()}");
        return SizeFirst().Match(drive) is { Success: true } size ? (size.Groups["size"].Value, $"mm {size.Groups["kind"].Value}")
            : ("", "");
    }

    /// <summary>The tool in a sentence.</summary>
    /// <param name="drive">As the sheet writes it.</param>
    public static string Tool(string drive) => Figure(drive) is var (figure, beside) && figure.Length > 0 ? $"{figure} {beside}" : drive;

    /// <summary>
    /// Splits a value into its figure, with both ends of a range, and its unit; words without a number stay whole and have no unit.
    /// </summary>
    /// <param name="value">Such as "60 °C", "8 to 10 mm", "1/4 turn", "READY".</param>
    public static (string Figure, string Unit) Split(string value) => Number().Match(value) is { Success: true } m
        ? (m.Groups["figure"].Value, m.Groups["unit"].Value) : (value, "");

    [GeneratedRegex("^(?<size>T[0-9]+)(?: bit)?$")]
    private static partial Regex Bit();

    [GeneratedRegex("^(?<kind>Hex|Socket|Square|Cap wrench|Spanner) (?<size>[0-9]+(?:/[0-9]+)?)(?<inch> in)?$")]
    private static partial Regex KindFirst();

    [GeneratedRegex("^(?<size>[0-9]+) mm (?<kind>[a-z ]+)$")]
    private static partial Regex SizeFirst();

    [GeneratedRegex("^(?<figure>[0-9][0-9./,]*(?: to [0-9][0-9./,]*)?) (?<unit>.+)$")]
    private static partial Regex Number();
}
