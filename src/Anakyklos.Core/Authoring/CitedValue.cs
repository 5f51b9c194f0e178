using System.Globalization;
using System.Text.Json.Nodes;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Authoring;

/// <summary>A number or name that stands in the source, as the sheet has it.</summary>
/// <param name="Path">Where it stands in the sheet.</param>
/// <param name="Shape">What is typed there.</param>
/// <param name="Says">What the sheet says: of a list a line each; empty where it says nothing.</param>
public sealed record CitedField(string Path, EntryShape Shape, string Says);

/// <summary>
/// What stands at one place of a source, with all that the sheet takes from there: an amount, a tightening, an interval. It is checked as
/// one, by somebody who has the source open.
/// </summary>
/// <param name="Path">Where it stands in the sheet.</param>
/// <param name="Table">The table of its thing, such as <c>fasteners</c>; empty for what belongs to the sheet as a whole.</param>
/// <param name="Thing">The name of its thing.</param>
/// <param name="Of">What it is of the thing, by its field, such as <c>torque</c>; empty where the thing as a whole has one source.</param>
/// <param name="Source">The source's title.</param>
/// <param name="At">Page or place in it.</param>
/// <param name="CheckedBy">How many people compared it with the source.</param>
/// <param name="Fields">What is typed from the source; none where there are only words to be read.</param>
public sealed record CitedValue(string Path, string Table, string Thing, string Of, string Source, string At, int CheckedBy,
    IReadOnlyList<CitedField> Fields)
{
    /// <summary>So many have to have compared a value with its source.</summary>
    public const int Enough = SheetValues.Enough;

    /// <summary>Whether enough people compared it.</summary>
    public bool IsChecked => CheckedBy >= Enough;

    /// <summary>All that a sheet takes from its sources, in its own order.</summary>
    /// <param name="sheet">The sheet, with or without errors.</param>
    public static IReadOnlyList<CitedValue> AllOf(SheetText sheet) => [.. Below(sheet, "", SheetShape.Sheet)];

    /// <summary>What of one thing stands in a source.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="thing">The thing's path, such as <c>fasteners.drain-plug</c>.</param>
    public static IReadOnlyList<CitedValue> OfThing(SheetText sheet, string thing) =>
        SheetShape.At(thing) is { } shape ? [.. Below(sheet, thing, shape)] : [];

    private static IEnumerable<CitedValue> Below(SheetText sheet, string path, EntryShape shape)
    {
        if (!sheet.Has(path))
            yield break;
        if (shape is { Kind: EntryKind.Part, IsCited: true } && sheet.Has(Join(path, "from")))
            yield return Value(sheet, path, shape);
        switch (shape.Kind)
        {
            case EntryKind.Part:
                foreach (var found in shape.Members.SelectMany(m => Below(sheet, Join(path, m.Name), m)))
                    yield return found;
                break;
            case EntryKind.Parts when shape.Name != "disputed":
                for (var i = 0; i < sheet.Count(path); i++)
                    foreach (var found in Below(sheet, $"{path}[{i}]", shape with { Kind = EntryKind.Part }))
                        yield return found;
                break;
            case EntryKind.Table:
                foreach (var found in sheet.Names(path).SelectMany(id => Below(sheet, Join(path, id), shape with
                { Kind = EntryKind.Part, Name = id })))
                    yield return found;
                break;
        }
    }

    private static CitedValue Value(SheetText sheet, string path, EntryShape shape)
    {
        var parts = path.Split('.');
        var isThing = parts.Length > 1 && SheetShape.Tables.Any(t => t.Name == parts[0]);
        var (table, thing) = isThing ? (parts[0], sheet.Said($"{parts[0]}.{parts[1]}.name")) : ("", "");
        if (isThing && thing.Length == 0)
            thing = sheet.Said($"{parts[0]}.{parts[1]}.title") is { Length: > 0 } title ? title : parts[1];
        return new(path, table, isThing ? thing : parts[0], string.Join('.', parts.Skip(isThing ? 2 : 1)),
            sheet.Said($"sources.{sheet.Said(Join(path, "from"))}.title"), sheet.Said(Join(path, "at")),
            int.TryParse(sheet.Said(Join(path, "checkedBy")), CultureInfo.InvariantCulture, out var by) ? by : 0,
            [.. Leaves(sheet, path, shape, 0)]);
    }

    // What belongs to a value of its own is checked there, and words are read, not typed.
    private static IEnumerable<CitedField> Leaves(SheetText sheet, string path, EntryShape shape, int depth)
    {
        foreach (var member in shape.Members.Where(m =>
            m.Name is not ("from" or "at" or "checkedBy" or "disputed" or "takes" or "takesBack")))
        {
            var at = Join(path, member.Name);
            if (!sheet.Has(at))
                continue;
            if (member.Kind == EntryKind.Part && !member.IsCited)
                foreach (var deeper in Leaves(sheet, at, member, depth + 1))
                    yield return deeper;
            else if (member.Kind == EntryKind.Parts)
                for (var i = 0; i < sheet.Count(at); i++)
                    foreach (var deeper in Leaves(sheet, $"{at}[{i}]", member, depth + 1))
                        yield return deeper;
            else if (member.Kind is EntryKind.Amount or EntryKind.Whole or EntryKind.Duration || member.Name is "is" or "code"
                || (depth == 0 && member.Name == "tool"))
                yield return new(at, member, Typed(sheet, at));
        }
    }

    /// <summary>What stands at a path as it is typed: a text, or of a list or of names a line each.</summary>
    public static string Typed(SheetText sheet, string path) => sheet.Value(path) switch
    {
        null => "",
        JsonArray list => string.Join('\n', list.Select(i => i is JsonValue v ? v.ToString() : "")),
        JsonObject words => string.Join('\n', words.Select(w => $"{w.Key}: {w.Value}")),
        var one => one.ToString(),
    };

    internal static string Join(string path, string name) => path.Length == 0 ? name : $"{path}.{name}";
}

/// <summary>What somebody typed from the source without seeing what the sheet says.</summary>
public static class BlindCheck
{
    /// <summary>Whether somebody may check a value: never their own.</summary>
    /// <param name="value">The value.</param>
    /// <param name="writer">Who wrote it.</param>
    /// <param name="who">Who would check it.</param>
    public static bool May(CitedValue value, PersonId writer, PersonId who) => !value.IsChecked && writer != who;

    /// <summary>What differs between the sheet and what was typed.</summary>
    /// <param name="value">The value.</param>
    /// <param name="typed">What was typed, by the path of its field.</param>
    /// <returns>The fields that differ; none when both read the same.</returns>
    public static IReadOnlyList<CitedField> Differing(CitedValue value, IReadOnlyDictionary<string, string> typed) =>
        [.. value.Fields.Where(f => !AmountText.Same(f.Shape.Kind, f.Says, typed.GetValueOrDefault(f.Path, "")))];

    /// <summary>The sheet with a value marked as compared by so many.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="path">The value.</param>
    /// <param name="by">How many; 0 to 9.</param>
    public static SheetText Marked(SheetText sheet, string path, int by) => sheet.With(CitedValue.Join(path, "checkedBy"),
        JsonValue.Create(by));
}
