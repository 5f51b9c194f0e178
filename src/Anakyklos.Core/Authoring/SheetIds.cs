using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace Anakyklos.Core.Authoring;

/// <summary>Ids of things of a sheet, made from their names.</summary>
public static partial class SheetIds
{
    private const int Longest = 60;

    /// <summary>An id for a name: small letters, digits and dashes, and one that is not taken.</summary>
    /// <param name="name">Such as "Drain plug, rear axle".</param>
    /// <param name="taken">Whether an id is taken.</param>
    /// <returns>Such as <c>drain-plug-rear-axle</c>; with a number behind it where that is taken.</returns>
    public static string For(string name, Func<string, bool> taken)
    {
        var plain = new string([.. name.Replace("ß", "ss", StringComparison.Ordinal).Normalize(NormalizationForm.FormD)
            .Where(c => CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark)]).ToLowerInvariant();
        var id = Others().Replace(plain, "-").Trim('-');
        id = id.Length == 0 ? "thing" : id.Length > Longest ? id[..Longest].Trim('-') : id;
        return !taken(id) ? id : Enumerable.Range(2, int.MaxValue - 2).Select(n => $"{id}-{n}").First(i => !taken(i));
    }

    /// <summary>The names in the tables of a sheet that are no ids, by their paths; what is written at the desk names things by
    /// them.</summary>
    /// <param name="sheet">The sheet.</param>
    public static IReadOnlyList<string> Wrong(SheetText sheet) => [.. SheetShape.Tables.SelectMany(t => sheet.Names(t.Name)
        .Where(n => !Shape().IsMatch(n)).Select(n => $"{t.Name}: “{n}”"))];

    [GeneratedRegex("^[a-z0-9]+(-[a-z0-9]+)*$")]
    private static partial Regex Shape();

    [GeneratedRegex("[^a-z0-9]+")]
    private static partial Regex Others();
}
