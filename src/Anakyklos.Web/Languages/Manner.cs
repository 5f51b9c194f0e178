using System.Text.RegularExpressions;

namespace Anakyklos.Web.Languages;

/// <summary>How a language joins what is said, quotes it, and writes numbers and days.</summary>
/// <param name="And">What stands between two things that are both meant, with its spaces.</param>
/// <param name="Or">What stands between two of which one is meant, with its spaces.</param>
/// <param name="With">What stands between a thing and what goes with it, with its spaces.</param>
/// <param name="Open">Before what is quoted.</param>
/// <param name="Close">Behind what is quoted.</param>
/// <param name="Point">Between the ones and the tenths of a number.</param>
/// <param name="AfterWeekday">Between the day of the week and the day of the month.</param>
/// <param name="AfterDay">Between the day of the month and the month.</param>
public sealed partial record Manner(string And, string Or, string With, string Open, string Close, string Point, string AfterWeekday,
    string AfterDay)
{
    /// <summary>As German does.</summary>
    public static Manner German { get; } = new(" und ", " oder ", " mit ", "„", "“", ",", ", ", ". ")
    {
        Old = text => Neu().IsMatch(text) ? Neu().Replace(text, m => m.Value[0] == 'N' ? "Alt" : "alt") : null,
    };

    /// <summary>What is said of something new, said of the old one; null where nothing new is in it.</summary>
    public Func<string, string?> Old { get; init; } = _ => null;

    // Both bend alike.
    [GeneratedRegex(@"\b[Nn]eu(?=(?:e|en|em|er|es)\b)")]
    private static partial Regex Neu();
}
