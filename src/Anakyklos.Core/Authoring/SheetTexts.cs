using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Authoring;

/// <summary>A text of a sheet that people read.</summary>
/// <param name="Path">Where it stands first.</param>
/// <param name="Text">The text.</param>
public sealed record SheetSaying(string Path, string Text);

/// <summary>The texts of a sheet that people read, and what they are in other languages.</summary>
public static partial class SheetTexts
{
    /// <summary>So many signs at most, as every text of a sheet.</summary>
    public const int Longest = SheetCursor.LongestText;

    // Names and figures of makers, pages and places, and what is measured: they are the same in every language.
    private static readonly HashSet<string> Same =
    [
        "id", "make", "from", "at", "to", "code", "thread", "grade", "is", "additives", "low", "high", "new", "uneven", "perTurn", "far",
        "perStroke", "reservoir", "step", "most", "distance", "length",
    ];

    /// <summary>Every text that people read, each once, in the order of the sheet. Names of makers and models, numbers, pages and what
    /// is measured are left out, and so is what has no word in it.</summary>
    /// <param name="sheet">The sheet, with or without errors.</param>
    public static IReadOnlyList<SheetSaying> Of(SheetText sheet) =>
        [.. SheetShape.Sheet.Members.Where(m => m.Name != "name").SelectMany(m => Below(sheet, m.Name, m))
            .Where(s => Word().IsMatch(s.Text)).DistinctBy(s => s.Text)];

    /// <summary>What the texts of a sheet are in a language.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="language">The language's code, such as <c>de</c>.</param>
    /// <returns>By the text; empty where the sheet has no words in it.</returns>
    public static IReadOnlyDictionary<string, string> Said(SheetText sheet, string language)
    {
        var (at, said) = ($"{OtherTongues.Member}.{language}", new Dictionary<string, string>());
        for (var i = 0; i < sheet.Count(at); i++)
            said.TryAdd(sheet.Said($"{at}[{i}].text"), sheet.Said($"{at}[{i}].said"));
        return said;
    }

    /// <summary>The sheet with what some of its texts are in a language: an empty word takes one away, and so does a text that the sheet
    /// no longer has.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="language">The language's code.</param>
    /// <param name="words">What each is, by the text as the sheet has it.</param>
    /// <returns>The sheet, and what could not be taken, by the text; the sheet as it was where there is any.</returns>
    public static (SheetText Sheet, IReadOnlyList<Refusal> Wrong) With(SheetText sheet, string language,
        IReadOnlyDictionary<string, string> words)
    {
        if (!OtherTongues.IsLanguage(language))
            return (sheet, [new($"“{language}” is not a language.", "Use two or three small letters, such as de.")]);
        var texts = Of(sheet);
        List<Refusal> wrong = [.. words.Keys.Except(texts.Select(t => t.Text)).Select(text =>
            new Refusal("There is no such text in this sheet.", "Load the page again: somebody may have changed it.", Field: text))];
        wrong.AddRange(words.Where(w => w.Value.Trim().Length > Longest).Select(w =>
            new Refusal($"This is {w.Value.Trim().Length} characters long; {Longest} is the most.", "Say it shorter.", Field: w.Key)));
        if (wrong.Count > 0)
            return (sheet, wrong);
        var said = new Dictionary<string, string>(Said(sheet, language));
        foreach (var (text, word) in words)
            said[text] = word.Trim();
        return (Written(sheet, $"{OtherTongues.Member}.{language}",
            [.. texts.Select(t => (t.Text, Said: said.GetValueOrDefault(t.Text, ""))).Where(t => t.Said.Length > 0)]), []);
    }

    // Only what is said otherwise is touched: the rest of the file stays letter by letter.
    private static SheetText Written(SheetText sheet, string at, IReadOnlyList<(string Text, string Said)> words)
    {
        var open = words.ToDictionary(w => w.Text, w => w.Said);
        for (var i = sheet.Count(at) - 1; i >= 0; i--)
            if (!open.Remove(sheet.Said($"{at}[{i}].text"), out var said))
                sheet = sheet.Without($"{at}[{i}]");
            else if (said != sheet.Said($"{at}[{i}].said"))
                sheet = sheet.With($"{at}[{i}].said", JsonValue.Create(said));
        foreach (var (text, said) in words.Where(w => open.ContainsKey(w.Text)))
            sheet = sheet.With($"{at}[{sheet.Count(at)}]", new JsonObject { ["text"] = text, ["said"] = said });
        if (sheet.Count(at) == 0)
            sheet = sheet.Without(at);
        return sheet.Names(OtherTongues.Member).Count == 0 ? sheet.Without(OtherTongues.Member) : sheet;
    }

    private static IEnumerable<SheetSaying> Below(SheetText sheet, string path, EntryShape shape)
    {
        if (!sheet.Has(path) || shape.RefersTo.Length > 0 || shape.Choices.Count > 0)
            return [];
        if (IsSame(path, shape))
            return [];
        return shape.Kind switch
        {
            EntryKind.Text => [new(path, sheet.Said(path))],
            EntryKind.Texts => Places(sheet, path).Select(at => new SheetSaying(at, sheet.Said(at))),
            EntryKind.Words => sheet.Names(path).Select(name => new SheetSaying($"{path}.{name}", sheet.Said($"{path}.{name}"))),
            EntryKind.Part => shape.Members.SelectMany(m => Below(sheet, $"{path}.{m.Name}", m)),
            EntryKind.Parts => Places(sheet, path).SelectMany(at => Below(sheet, at, shape with { Kind = EntryKind.Part })),
            EntryKind.Table => sheet.Names(path).SelectMany(id => Below(sheet, $"{path}.{id}", shape with
            {
                Kind = EntryKind.Part, Name = id,
            })),
            _ => [],
        };
    }

    // How a level is read is said in words, and several places of a fastener have names.
    private static bool IsSame(string path, EntryShape shape) => shape.Kind is EntryKind.Text or EntryKind.Texts
        && Same.Contains(shape.Name) && !path.EndsWith(".reading.is", StringComparison.Ordinal)
        && !path.EndsWith(".group.at", StringComparison.Ordinal);

    private static IEnumerable<string> Places(SheetText sheet, string path) =>
        Enumerable.Range(0, sheet.Count(path)).Select(i => $"{path}[{i}]");

    // Two small letters are a word, unless they are a unit.
    [GeneratedRegex(@"(?<!\p{L})(?!(?:mm|cm|km|kg|mg|ft|in|mi|lb|lbf|bar|psi|min)\b)\p{L}?\p{Ll}{2,}")]
    private static partial Regex Word();
}
