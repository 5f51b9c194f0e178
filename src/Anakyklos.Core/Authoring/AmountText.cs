using System.Globalization;
using System.Text.RegularExpressions;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Authoring;

/// <summary>Values of a sheet as people type them, and when two of them say the same.</summary>
public static partial class AmountText
{
    /// <summary>An amount as it is written into a sheet: number, a space, and the unit in its usual spelling. What cannot be read stays as
    /// it was typed, and the check of the sheet says what is wrong with it.</summary>
    /// <param name="typed">Such as <c>38 nm</c> or <c>6,4 l</c>.</param>
    public static string Tidy(string typed) => Read(typed)?.Written ?? typed.Trim();

    /// <summary>A time as it is written into a sheet; what cannot be read stays as it was typed.</summary>
    /// <param name="typed">Such as <c>90s</c> or <c>5 minutes</c>.</param>
    public static string TidyTime(string typed) => TimeShape().Match(typed.Trim()) is { Success: true } m
        ? $"{m.Groups[1].Value} {m.Groups[2].Value.ToLowerInvariant() switch { "s" => "s", "m" => "min", _ => "h" }}" : typed.Trim();

    /// <summary>Whether two people read the same in the source: amounts by what they are, whatever the unit was; numbers and codes
    /// without spaces, dashes, points and case; of a list everything, in whatever order.</summary>
    /// <param name="kind">What is typed.</param>
    /// <param name="one">One reading.</param>
    /// <param name="other">The other.</param>
    public static bool Same(EntryKind kind, string one, string other) => kind switch
    {
        EntryKind.Amount => Read(one) is { } a && Read(other) is { } b ? a.Dimension == b.Dimension && a.Base == b.Base
            : PartNumber.Same(one, other),
        EntryKind.Duration => Seconds(one) is { } s && Seconds(other) is { } t ? s == t : PartNumber.Same(one, other),
        EntryKind.Whole => decimal.TryParse(one, CultureInfo.InvariantCulture, out var a) && decimal.TryParse(other,
            CultureInfo.InvariantCulture, out var b) && a == b,
        EntryKind.Texts or EntryKind.Wholes => Lines(one).Select(PartNumber.Bare).ToHashSet()
            .SetEquals(Lines(other).Select(PartNumber.Bare)),
        _ => PartNumber.Same(one, other),
    };

    /// <summary>The lines of what was typed, without those that are empty.</summary>
    public static IReadOnlyList<string> Lines(string typed) =>
        typed.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    private static int? Seconds(string typed) => TimeShape().Match(typed.Trim()) is { Success: true } m
        ? int.Parse(m.Groups[1].Value, CultureInfo.InvariantCulture)
            * m.Groups[2].Value.ToLowerInvariant() switch { "s" => 1, "m" => 60, _ => 3600 } : null;

    private static (string Dimension, decimal Base, string Written)? Read(string typed) => Of<Torque>(typed) ?? Of<Volume>(typed)
        ?? Of<Distance>(typed) ?? Of<Length>(typed) ?? Of<Pressure>(typed) ?? Of<Mass>(typed) ?? Of<Force>(typed);

    private static (string, decimal, string)? Of<T>(string typed) where T : IDimension<T> =>
        Quantity<T>.Read(typed, out _) is { } read ? (T.Name, read.Value.In(T.Units[0]), read.Exact) : null;

    [GeneratedRegex(@"^([0-9]{1,4})\s?(?:(s)(?:ec(?:ond)?s?)?|(?<2>m)(?:in(?:ute)?s?)?|(?<2>h)(?:ours?)?)$", RegexOptions.IgnoreCase)]
    private static partial Regex TimeShape();
}
