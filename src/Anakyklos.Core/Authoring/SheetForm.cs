using System.Globalization;
using System.Text.Json.Nodes;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Authoring;

/// <summary>
/// Fields of a sheet as they are typed at the desk. What was typed goes into the text of the sheet as far as it differs from what stands
/// there; an empty field takes away what it says, and what is left empty altogether.
/// </summary>
public static class SheetForm
{
    /// <summary>So many of several things may stand in one list.</summary>
    public const int MostParts = 200;

    // What the file says of itself, and nobody types.
    private static readonly string[] OfTheFile = ["format", "id", "revision"];

    /// <summary>Puts what was typed into a sheet.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="path">The thing that was typed, such as <c>fasteners.drain-plug</c>.</param>
    /// <param name="typed">What was typed for a path; null for a field that did not stand in the form.</param>
    /// <returns>The sheet, and what could not be taken, by the field's path; the sheet as it was where there is any.</returns>
    public static (SheetText Sheet, IReadOnlyList<Refusal> Wrong) Apply(SheetText sheet, string path, Func<string, string?> typed)
    {
        var wrong = new List<Refusal>();
        if (SheetShape.At(path) is not { Kind: EntryKind.Part } shape || !sheet.Has(path))
            return (sheet, [new("There is no such thing in this sheet.", "Load the page again: somebody may have taken it out.")]);
        var written = Members(sheet, path, shape, typed, wrong);
        return wrong.Count > 0 ? (sheet, wrong) : (Unchecked(sheet, written, path), []);
    }

    /// <summary>The sheet with what was changed in it no longer checked: whoever wrote it compared it with its source, and nobody
    /// else.</summary>
    /// <param name="before">The sheet before.</param>
    /// <param name="after">The sheet after.</param>
    /// <param name="path">Where something may have changed; empty for the whole sheet.</param>
    public static SheetText Unchecked(SheetText before, SheetText after, string path = "")
    {
        var changed = Changed(before, after, path).Select(c => c.Path).ToHashSet();
        var was = Values(before, path).ToDictionary(v => v.Path, v => v.CheckedBy);
        foreach (var value in Values(after, path))
        {
            // By how many it was compared nobody says of themselves: what was not changed keeps its count.
            var by = changed.Contains(value.Path) ? 1 : was[value.Path];
            after = value.CheckedBy == by ? after : BlindCheck.Marked(after, value.Path, by);
        }
        return after;
    }

    /// <summary>The values that another sheet has otherwise, or anew.</summary>
    /// <param name="before">The sheet before.</param>
    /// <param name="after">The sheet after.</param>
    /// <param name="path">Where to look; empty for the whole sheet.</param>
    /// <returns>Each by its path, with how many are said to have compared it.</returns>
    public static IReadOnlyList<(string Path, int CheckedBy)> Changed(SheetText before, SheetText after, string path = "")
    {
        var was = Values(before, path).ToDictionary(v => v.Path);
        return [.. Values(after, path).Where(v => !was.TryGetValue(v.Path, out var old) || old.Source != v.Source || old.At != v.At
            || old.Fields.Count != v.Fields.Count
            || old.Fields.Zip(v.Fields).Any(p => p.First.Path != p.Second.Path || p.First.Says != p.Second.Says))
            .Select(v => (v.Path, v.CheckedBy))];
    }

    private static IReadOnlyList<CitedValue> Values(SheetText sheet, string path) =>
        path.Length == 0 ? CitedValue.AllOf(sheet) : CitedValue.OfThing(sheet, path);

    private static SheetText Members(SheetText sheet, string path, EntryShape shape, Func<string, string?> typed, List<Refusal> wrong)
    {
        foreach (var member in shape.Members.Where(m => m.Name != "checkedBy" && !(path.Length == 0 && OfTheFile.Contains(m.Name))))
            sheet = Field(sheet, CitedValue.Join(path, member.Name), member, typed, wrong);
        return sheet;
    }

    private static SheetText Field(SheetText sheet, string at, EntryShape shape, Func<string, string?> typed, List<Refusal> wrong)
    {
        if (shape.Kind == EntryKind.Part)
            return Whole(Members(sheet, at, shape, typed, wrong), at);
        if (shape.Kind == EntryKind.Parts)
            return Several(sheet, at, shape, typed, wrong);
        if (shape.Kind == EntryKind.Table || typed(at) is not { } text)
            return sheet;
        text = text.ReplaceLineEndings("\n").Trim();
        if (text == CitedValue.Typed(sheet, at) || (shape.Kind == EntryKind.Tick && (text == "yes") == (sheet.Said(at) == "true")))
            return sheet;
        if (text.Length == 0 || (shape.Kind == EntryKind.Tick && text != "yes"))
            return sheet.Without(at);
        return Node(at, shape, text, wrong) is { } value ? sheet.With(at, value) : sheet;
    }

    private static JsonNode? Node(string at, EntryShape shape, string text, List<Refusal> wrong)
    {
        switch (shape.Kind)
        {
            case EntryKind.Tick:
                return JsonValue.Create(true);
            case EntryKind.Amount:
                return JsonValue.Create(AmountText.Tidy(text));
            case EntryKind.Duration:
                return JsonValue.Create(AmountText.TidyTime(text));
            case EntryKind.Whole:
                return Number(at, shape, text, wrong);
            case EntryKind.Texts:
                return new JsonArray([.. AmountText.Lines(text).Select(l => (JsonNode)JsonValue.Create(l))]);
            case EntryKind.Wholes:
                return new JsonArray([.. AmountText.Lines(text.Replace(',', '\n').Replace(' ', '\n')).Select(l => Number(at, shape, l,
                    wrong))]);
            case EntryKind.Words:
                return NamesWithTexts(at, text, wrong);
            default:
                return JsonValue.Create(text);
        }
    }

    private static JsonValue? Number(string at, EntryShape shape, string text, List<Refusal> wrong)
    {
        if (int.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number)
            && number >= shape.Bounds.Low && number <= shape.Bounds.High)
            return JsonValue.Create(number);
        wrong.Add(new(shape.Bounds.High == int.MaxValue ? $"“{text}” is not a whole number."
            : $"“{text}” is not a whole number from {shape.Bounds.Low} to {shape.Bounds.High}.", Field: at));
        return null;
    }

    private static JsonObject? NamesWithTexts(string at, string text, List<Refusal> wrong)
    {
        var names = new JsonObject();
        foreach (var line in AmountText.Lines(text))
        {
            var colon = line.IndexOf(':', StringComparison.Ordinal);
            if (colon < 1 || colon == line.Length - 1 || !names.TryAdd(line[..colon].Trim(), JsonValue.Create(line[(colon + 1)..].Trim())))
            {
                wrong.Add(new($"“{line}” does not say a name of its own, a colon, and a text.", Field: at));
                return null;
            }
        }
        return names;
    }

    private static SheetText Several(SheetText sheet, string at, EntryShape shape, Func<string, string?> typed, List<Refusal> wrong)
    {
        var (one, there) = (shape with { Kind = EntryKind.Part }, sheet.Count(at));
        for (var (i, next) = (0, 0); i < MostParts && (i < there || Stands(one, $"{at}[{i}]", typed)); i++)
        {
            var place = i < there ? i : there + next;
            // What is new is written as a whole, so that one without anything in it makes no hole.
            if (i >= there)
            {
                var fresh = Members(SheetText.Read("{}", out _)!, "", one, p => typed($"{at}[{i}].{p}"), wrong);
                if (fresh.Names("").Count == 0)
                    continue;
                sheet = sheet.With($"{at}[{place}]", fresh.Value("")!);
                next++;
            }
            else
                sheet = Members(sheet, $"{at}[{place}]", one, typed, wrong);
        }
        for (var i = there - 1; i >= 0; i--)
            if (sheet.Has($"{at}[{i}]") && sheet.Names($"{at}[{i}]").Count == 0)
                sheet = sheet.Without($"{at}[{i}]");
        return sheet.Has(at) && sheet.Count(at) == 0 ? sheet.Without(at) : sheet;
    }

    // Whether any field of one of several stood in the form.
    private static bool Stands(EntryShape shape, string at, Func<string, string?> typed) => shape.Members.Any(m =>
        m.Kind is EntryKind.Part ? Stands(m, CitedValue.Join(at, m.Name), typed)
        : m.Kind is not EntryKind.Parts && typed(CitedValue.Join(at, m.Name)) is not null);

    // A part of which nothing is left but how many compared it is no part.
    private static SheetText Whole(SheetText sheet, string at) =>
        sheet.Has(at) && sheet.Names(at).All(n => n == "checkedBy") ? sheet.Without(at) : sheet;
}
