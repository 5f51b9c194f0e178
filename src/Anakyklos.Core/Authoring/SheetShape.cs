using System.Text.Json;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Authoring;

/// <summary>What a sheet can say, read from the published schema: what is typed at the desk and what stands in the file cannot
/// drift.</summary>
public static class SheetShape
{
    /// <summary>The whole sheet.</summary>
    public static EntryShape Sheet { get; } = Read();

    /// <summary>The tables of a sheet, in the order in which they are written.</summary>
    public static IReadOnlyList<EntryShape> Tables { get; } = [.. Sheet.Members.Where(m => m.Kind == EntryKind.Table)];

    /// <summary>The shape of what stands at a path; null where nothing can.</summary>
    /// <param name="path">As in <see cref="SheetText"/>.</param>
    public static EntryShape? At(string path)
    {
        EntryShape? shape = Sheet;
        foreach (var part in path.Replace("[", ".[", StringComparison.Ordinal).Split('.', StringSplitOptions.RemoveEmptyEntries))
            shape = shape switch
            {
                null => null,
                { Kind: EntryKind.Parts } when part[0] == '[' => shape with { Kind = EntryKind.Part },
                { Kind: EntryKind.Table } => shape with { Kind = EntryKind.Part, Name = part },
                { Kind: EntryKind.Part } => shape.Member(part),
                _ => null,
            };
        return shape;
    }

    private static EntryShape Read()
    {
        using var file = typeof(SheetShape).Assembly.GetManifestResourceStream("model-sheet.schema.json")
            ?? throw new InvalidOperationException("The schema of sheets is not in the program.");
        using var schema = JsonDocument.Parse(file);
        var sheet = Shape("", schema.RootElement, true, schema.RootElement.GetProperty("definitions"));
        // What its texts are in other languages is written by itself (SheetTexts).
        return sheet with { Members = [.. sheet.Members.Where(m => m.Name != OtherTongues.Member)] };
    }

    private static EntryShape Shape(string name, JsonElement said, bool required, JsonElement definitions)
    {
        var says = Text(said, "description");
        if (said.TryGetProperty("$ref", out var reference))
            said = definitions.GetProperty(reference.GetString()!.Split('/')[^1]);
        if (says.Length == 0)
            says = Text(said, "description");
        var refers = Text(said, "refersTo");
        EntryShape Of(EntryKind kind) => new(name, kind, required, says) { RefersTo = refers };
        if (said.TryGetProperty("enum", out var words))
            return Of(EntryKind.Choice) with { Choices = Words(words) };
        switch (Text(said, "type"))
        {
            case "boolean":
                return Of(EntryKind.Tick);
            case "integer":
                return Of(EntryKind.Whole) with { Bounds = (Number(said, "minimum", 0), Number(said, "maximum", int.MaxValue)) };
            case "array":
                return Several(Of(EntryKind.Texts), said.GetProperty("items"), definitions);
            case "object" when said.TryGetProperty("propertyNames", out _):
                return Of(EntryKind.Table) with { Members = Shape("", said.GetProperty("additionalProperties"), true,
                    definitions).Members };
            case "object" when said.TryGetProperty("properties", out _):
                return Of(EntryKind.Part) with { Members = Members(said, definitions) };
            case "object":
                return Of(EntryKind.Words) with
                {
                    Choices = said.GetProperty("additionalProperties").TryGetProperty("enum", out var each) ? Words(each) : [],
                };
            default:
                return Of(Text(said, "pattern") switch
                {
                    var p when p.Contains("min|h", StringComparison.Ordinal) => EntryKind.Duration,
                    var p when p.Contains("[A-Za-z]", StringComparison.Ordinal) => EntryKind.Amount,
                    _ => EntryKind.Text,
                });
        }
    }

    private static EntryShape Several(EntryShape list, JsonElement item, JsonElement definitions)
    {
        var one = Shape("", item, true, definitions);
        return one.Kind switch
        {
            EntryKind.Part => list with { Kind = EntryKind.Parts, Members = one.Members },
            EntryKind.Whole => list with { Kind = EntryKind.Wholes, Bounds = one.Bounds },
            _ => list with { Choices = one.Choices },
        };
    }

    private static IReadOnlyList<EntryShape> Members(JsonElement said, JsonElement definitions)
    {
        var required = said.TryGetProperty("required", out var names) ? Words(names) : [];
        return [.. said.GetProperty("properties").EnumerateObject()
            .Select(p => Shape(p.Name, p.Value, required.Contains(p.Name), definitions))];
    }

    private static IReadOnlyList<string> Words(JsonElement list) => [.. list.EnumerateArray().Select(w => w.GetString()!)];

    private static string Text(JsonElement said, string name) =>
        said.TryGetProperty(name, out var text) && text.ValueKind == JsonValueKind.String ? text.GetString()! : "";

    private static int Number(JsonElement said, string name, int otherwise) =>
        said.TryGetProperty(name, out var number) ? number.GetInt32() : otherwise;
}
