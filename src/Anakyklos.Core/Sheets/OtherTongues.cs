using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Sheets;

/// <summary>
/// What a file brings along of its own words in other languages: <c>"words": {"de": [{"text": "Oil filter", "said": "Ölfilter"}]}</c>. A
/// text without a word of its own is said as the file has it, or as the program knows it.
/// </summary>
public static partial class OtherTongues
{
    /// <summary>The name of the member in the file.</summary>
    public const string Member = "words";

    /// <summary>A file that brings no words.</summary>
    public static IReadOnlyDictionary<string, IReadOnlyDictionary<string, string>> None { get; } =
        new Dictionary<string, IReadOnlyDictionary<string, string>>();

    /// <summary>A language without words.</summary>
    public static IReadOnlyDictionary<string, string> NoWords { get; } = new Dictionary<string, string>();

    /// <summary>Whether something may stand for a language: two or three small letters, as in ISO 639.</summary>
    /// <param name="code">Such as <c>de</c>.</param>
    public static bool IsLanguage(string code) => Code().IsMatch(code);

    /// <summary>What a file brings along, whatever else it is; none where it cannot be read.</summary>
    /// <param name="json">The file's text.</param>
    /// <returns>By language, and then by text.</returns>
    public static IReadOnlyDictionary<string, IReadOnlyDictionary<string, string>> In(string json)
    {
        var errors = new List<Refusal>();
        var root = LocatedJson.Parse(Encoding.UTF8.GetBytes(json.TrimStart('\uFEFF')), errors);
        return root is { Kind: JsonTokenType.StartObject } ? Read(new(root, errors, new Dictionary<string, Source>())) : None;
    }

    /// <summary>The words of a file, by language and then by text; every error is told at its line.</summary>
    internal static IReadOnlyDictionary<string, IReadOnlyDictionary<string, string>> Read(SheetCursor c) =>
        c.Part(Member, Languages, required: false) ?? None;

    private static Dictionary<string, IReadOnlyDictionary<string, string>> Languages(SheetCursor c)
    {
        var all = new Dictionary<string, IReadOnlyDictionary<string, string>>();
        foreach (var code in c.Names)
        {
            var words = new Dictionary<string, string>();
            c.List(code, w =>
            {
                var (text, said) = (w.Text("text"), w.Text("said"));
                if (!words.TryAdd(text, said))
                    w.Complain("text", "This text stands here twice. Remove one.");
                return text;
            });
            if (!IsLanguage(code))
                c.Complain(code, $"“{code}” is not a language. Use two or three small letters, such as de.");
            all[code] = words;
        }
        return all;
    }

    [GeneratedRegex("^[a-z]{2,3}$")]
    private static partial Regex Code();
}
