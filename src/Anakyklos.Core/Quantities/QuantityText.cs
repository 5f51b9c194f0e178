using System.Globalization;
using System.Text.RegularExpressions;

namespace Anakyklos.Core.Quantities;

/// <summary>Reading and printing of numbers with units, the same for every dimension.</summary>
internal static partial class QuantityText
{
    private const int LongestText = 44;

    private static readonly Dictionary<char, (int Num, int Den)> Vulgar = new()
    {
        ['½'] = (1, 2), ['⅓'] = (1, 3), ['⅔'] = (2, 3), ['¼'] = (1, 4), ['¾'] = (3, 4), ['⅛'] = (1, 8), ['⅜'] = (3, 8), ['⅝'] = (5, 8),
            ['⅞'] = (7, 8),
    };

    internal static bool TryRead<T>(string? text, Unit<T>? assumed, out decimal number, out Unit<T>? unit, out string problem) where T
        : IMeasure<T>
    {
        number = 0;
        unit = null;
        var example = T.Units[0].Symbol;
        var typed = (text ?? "").Trim().Replace('\u00a0', ' ').Replace('\u202f', ' ').Replace('−', '-');
        if (typed.Length == 0)
        {
            problem = $"Type a {T.Name}, such as 5 {example}.";
            return false;
        }
        if (typed.Any(c => char.IsDigit(c) && !char.IsAsciiDigit(c)))
        {
            problem =
                $"“{(typed.Length > LongestText ? typed[..LongestText] + "…" : typed)}” has digits of another script. Type them as 0 to 9.";
            return false;
        }
        if (typed.Length > LongestText || Shape().Match(typed) is not { Success: true } match)
        {
            problem =
                $"“{(typed.Length > LongestText ? typed[..LongestText] + "…" : typed)}” is not a {T.Name}. Type a number and a "
                    + $"unit, such as 5 {example}.";
            return false;
        }
        if (!TryNumber(match.Groups["number"].Value.Trim(), out number, out problem))
            return false;
        if (match.Groups["sign"].Value == "-")
            number = -number;
        return TryUnit(match.Groups["unit"].Value.Trim(), typed, assumed, out unit, out problem);
    }

    private static bool TryUnit<T>(string spelling, string typed, Unit<T>? assumed, out Unit<T>? unit, out string problem) where T
        : IMeasure<T>
    {
        problem = "";
        unit = spelling.Length == 0 ? assumed : T.Units.FirstOrDefault(u => u.IsSpelt(spelling));
        if (unit is not null)
            return true;
        var known = string.Join(", ", T.Units.Select(u => u.Symbol));
        problem = spelling.Length == 0 ? $"Add the unit to “{typed}”: {known}."
            : T.Ambiguous.TryGetValue(Unit<T>.Normalise(spelling), out var say) ? say
            : $"“{spelling}” is not a unit of {T.Name} known here. Use {known}.";
        return false;
    }

    internal static bool TryNumber(string text, out decimal number, out string problem)
    {
        problem = "";
        if (Fraction().Match(text) is { Success: true } f)
        {
            number = 0;
            var (num, den) = f.Groups["vulgar"].Success ? Vulgar[f.Groups["vulgar"].Value[0]]
                : (int.Parse(f.Groups["num"].Value, CultureInfo.InvariantCulture),
                int.Parse(f.Groups["den"].Value, CultureInfo.InvariantCulture));
            if (den == 0)
            {
                problem = $"“{text}” divides by zero.";
                return false;
            }
            number = (f.Groups["whole"].Success ? decimal.Parse(f.Groups["whole"].Value, CultureInfo.InvariantCulture) : 0)
                + (decimal)num / den;
            return true;
        }
        if (CommaOfThree().IsMatch(text))
        {
            number = 0;
            problem =
                $"“{text}” could be {text.Replace(',', '.')} or {text.Replace(",", "")}. Type it with a point, or without a separator.";
            return false;
        }
        if (Grouped().Match(text) is { Success: true } g)
        {
            var whole = new string([.. g.Groups["whole"].Value.Where(char.IsAsciiDigit)]);
            var decimals = g.Groups["dec"].Success ? "." + g.Groups["dec"].Value : "";
            if (whole.Length <= 16 && whole.Length + decimals.Length <= 30)
            {
                number = decimal.Parse((whole.Length == 0 ? "0" : whole) + decimals, CultureInfo.InvariantCulture);
                return true;
            }
        }
        number = 0;
        problem = $"“{text}” is not a number that can be read in one way. Type it with a point for the decimals.";
        return false;
    }

    internal static string Number(decimal value, int minDecimals, int maxDecimals)
    {
        var decimals = maxDecimals;
        var rounded = Math.Round(value, decimals, MidpointRounding.AwayFromZero);
        while (rounded == 0 && value != 0 && decimals < 12)
            rounded = Math.Round(value, ++decimals, MidpointRounding.AwayFromZero);
        return rounded.ToString("0." + new string('0', minDecimals) + new string('#', decimals - minDecimals),
            CultureInfo.InvariantCulture);
    }

    [GeneratedRegex(@"^(?<sign>[+-])?\s*(?<number>[0-9.,'½⅓⅔¼¾⅛⅜⅝⅞](?:[0-9.,'/⁄ ½⅓⅔¼¾⅛⅜⅝⅞]*[0-9½⅓⅔¼¾⅛⅜⅝⅞])?)"
        + @"\s*(?<unit>[^0-9\s][^0-9]*[23²]?)?$")]
    private static partial Regex Shape();

    [GeneratedRegex(@"^(?:(?<whole>[0-9]{1,6})\s*(?<vulgar>[½⅓⅔¼¾⅛⅜⅝⅞])|(?<vulgar>[½⅓⅔¼¾⅛⅜⅝⅞])"
        + @"|(?:(?<whole>[0-9]{1,6})\s+)?(?<num>[0-9]{1,4})\s*[/⁄]\s*(?<den>[0-9]{1,4}))$")]
    private static partial Regex Fraction();

    [GeneratedRegex(@"^[1-9][0-9]{0,2},[0-9]{3}$")]
    private static partial Regex CommaOfThree();

    // Thousands in groups of three by one kind of separator, then at most one other separator for the decimals; or no groups at all.
    [GeneratedRegex(@"^(?:(?<whole>[0-9]*)(?:[.,](?<dec>[0-9]+))?"
        + @"|(?<whole>[0-9]{1,3}(?:(?:,[0-9]{3})+|(?: [0-9]{3})+|(?:'[0-9]{3})+))(?:\.(?<dec>[0-9]+))?"
        + @"|(?<whole>[0-9]{1,3}(?:(?:\.[0-9]{3})+|(?: [0-9]{3})+))(?:,(?<dec>[0-9]+))?"
        + @"|(?<whole>[0-9]{1,3}(?:\.[0-9]{3}){2,}))$")]
    private static partial Regex Grouped();
}
