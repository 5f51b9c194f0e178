namespace Anakyklos.Core.Wording;

/// <summary>How names from a sheet are put into a sentence.</summary>
public static class Words
{
    /// <summary>Words as a sentence begins.</summary>
    /// <param name="words">One at least.</param>
    public static string Capital(string words) => $"{char.ToUpperInvariant(words[0])}{words[1..]}";

    /// <summary>
    /// The name as it stands inside a sentence: "Engine oil" becomes "engine oil"; what begins with two capitals, such as "ATF" or "T30",
    /// stays.
    /// </summary>
    /// <param name="name">A name with a capital; may be empty.</param>
    /// <returns>The name; itself when its second sign is a capital or a digit, or when it is empty.</returns>
    public static string Low(string name) =>
        name.Length == 0 || (name.Length > 1 && (char.IsUpper(name[1]) || char.IsDigit(name[1]))) ? name
            : char.ToLowerInvariant(name[0]) + name[1..];
}
