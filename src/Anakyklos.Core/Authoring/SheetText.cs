using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Authoring;

/// <summary>
/// The text of a sheet that is being written. A change touches the bytes of what is changed and no others: spaces, order and line ends of
/// everything else stay as whoever wrote the file left them. A value, never changed itself. A path is as in every complaint about a
/// sheet: <c>fasteners.drain-plug.torque.is</c>, <c>jobs.oil.steps[0]</c>; empty for the whole sheet.
/// </summary>
public sealed class SheetText
{
    /// <summary>So many bytes at most.</summary>
    public const int Most = 1_000_000;

    // What fits on a line of this many signs is not spread over several.
    private const int Wide = 110;

    private static readonly JsonSerializerOptions Plain = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    private readonly byte[] _utf8;
    private readonly LocatedJson _root;

    private SheetText(byte[] utf8, LocatedJson root) => (_utf8, _root) = (utf8, root);

    /// <summary>Reads a text; it need not be a sheet without errors, only one JSON object.</summary>
    /// <param name="text">The text.</param>
    /// <param name="wrong">What is wrong with it; null when it was read.</param>
    public static SheetText? Read(string text, out Refusal? wrong)
    {
        var utf8 = Encoding.UTF8.GetBytes(text.TrimStart('\uFEFF'));
        var errors = new List<Refusal>();
        var root = utf8.Length > Most ? null : LocatedJson.Parse(utf8, errors);
        wrong = utf8.Length > Most ? new("That is more than a megabyte; no model sheet is that large.")
            : errors.FirstOrDefault() ?? (root!.Kind == JsonTokenType.StartObject ? null : new("A sheet is one JSON object in braces."));
        return wrong is null ? new(utf8, root!) : null;
    }

    /// <summary>A new sheet with nothing in it but its name.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="make">The make.</param>
    /// <param name="name">The model.</param>
    /// <param name="stands">Whether it stands on a <c>lift</c> or on the <c>ground</c>.</param>
    public static SheetText New(string id, string make, string name, string stands)
    {
        var empty = "{\n  \"format\": " + Inline(ModelSheet.Format) + ",\n  \"id\": " + Inline(id) + ",\n  \"revision\": 1,\n  \"make\": "
            + Inline(make) + ",\n  \"name\": " + Inline(name) + ",\n  \"stands\": " + Inline(stands) + ",\n"
            + string.Join(",\n", Tables.Select(t => $"  \"{t}\": {{}}")) + "\n}\n";
        return Read(empty, out _)!;
    }

    private static readonly string[] Tables = ["sources", "access", "fluids", "fasteners", "parts", "intervals", "steps", "jobs"];

    /// <summary>The text, letter by letter.</summary>
    public override string ToString() => Encoding.UTF8.GetString(_utf8);

    /// <summary>Whether something stands at a path.</summary>
    public bool Has(string path) => Find(path) is not null;

    /// <summary>What stands at a path; null for nothing.</summary>
    public JsonNode? Value(string path) => Raw(path) is { } raw ? JsonNode.Parse(raw, null, Lenient) : null;

    private static readonly JsonDocumentOptions Lenient = new() { CommentHandling = JsonCommentHandling.Skip, AllowTrailingCommas = true };

    /// <summary>The letters that stand at a path; null for nothing.</summary>
    public string? Raw(string path) => Find(path) is { } node ? Encoding.UTF8.GetString(_utf8.AsSpan(node.Start..node.End)) : null;

    /// <summary>The text at a path; empty for nothing, and for what is a list or an object.</summary>
    public string Said(string path) => Find(path)?.Text ?? "";

    /// <summary>The names of what stands in an object, or the numbers of what stands in a list.</summary>
    public IReadOnlyList<string> Names(string path) => Find(path) is not { } node ? []
        : [.. node.Members.Select(m => m.Key), .. node.Items.Select((_, i) => $"{i}")];

    /// <summary>How many things stand in a list.</summary>
    public int Count(string path) => Find(path)?.Items.Count ?? 0;

    /// <summary>The text with a value at a path, which takes the place of what stands there, or comes last where it is to stand. What
    /// it is to stand in is made where it is not there.</summary>
    /// <param name="path">The path; not empty, and of a list only a place that is there or the next.</param>
    /// <param name="value">The value.</param>
    public SheetText With(string path, JsonNode value)
    {
        if (Find(path) is { } there)
            return Spliced(there.Start, there.End, Written(value, Indent(there.NameStart)));
        var (above, name) = Apart(path);
        if (Find(above) is not { } parent)
            return With(above, name is null ? new JsonArray(value.DeepClone()) : new JsonObject { [name] = value.DeepClone() });
        List<LocatedJson> children = [.. parent.Members.Select(m => m.Value), .. parent.Items];
        var inLine = !Encoding.UTF8.GetString(_utf8.AsSpan(parent.Start..parent.End)).Contains('\n');
        var said = name is null ? "" : $"{Inline(name)}: ";
        if (children.Count == 0)
        {
            // What is the first in an object that was empty spreads it, so that the next ones stand below each other.
            var own = Indent(parent.NameStart);
            return Spliced(parent.Start + 1, parent.End - 1, name is null ? Written(value, own)
                : $"{Line}{own}  {said}{Written(value, own + "  ")}{Line}{own}");
        }
        var last = children[^1];
        var (gap, deep) = inLine ? (" ", Indent(parent.NameStart)) : (Line + Indent(last.NameStart), Indent(last.NameStart));
        var trailing = Trailing(last.End, parent.End - 1);
        return trailing > 0 ? Spliced(trailing, trailing, $"{gap}{said}{Written(value, deep)}")
            : Spliced(last.End, last.End, $",{gap}{said}{Written(value, deep)}");
    }

    /// <summary>The text without what stands at a path; the same text where nothing does.</summary>
    /// <param name="path">The path; not empty.</param>
    public SheetText Without(string path)
    {
        if (Find(path) is not { } gone || Find(Apart(path).Above) is not { } parent)
            return this;
        List<LocatedJson> children = [.. parent.Members.Select(m => m.Value), .. parent.Items];
        var at = children.IndexOf(gone);
        return at > 0 ? Spliced(children[at - 1].End, gone.End, "")
            : children.Count > 1 ? Spliced(gone.NameStart, children[1].NameStart, "")
            : Spliced(parent.Start + 1, parent.End - 1, "");
    }

    private string Line => Array.IndexOf(_utf8, (byte)'\r') >= 0 ? "\r\n" : "\n";

    // A comma that stands after the last thing already: the place behind it, or 0.
    private int Trailing(int from, int to)
    {
        for (var i = from; i < to; i++)
            if (_utf8[i] == ',')
                return i + 1;
            else if (!char.IsWhiteSpace((char)_utf8[i]))
                return 0;
        return 0;
    }

    // The spaces before what stands first on the line of a byte.
    private string Indent(int offset)
    {
        var start = offset;
        while (start > 0 && _utf8[start - 1] != '\n')
            start--;
        var end = start;
        while (end < offset && _utf8[end] is (byte)' ' or (byte)'\t')
            end++;
        return Encoding.UTF8.GetString(_utf8.AsSpan(start..end));
    }

    private SheetText Spliced(int start, int end, string with) =>
        Read(Encoding.UTF8.GetString([.. _utf8.AsSpan(..start), .. Encoding.UTF8.GetBytes(with), .. _utf8.AsSpan(end..)]), out var wrong)
            ?? throw new InvalidOperationException($"The changed sheet cannot be read: {wrong}");

    private static string Inline(string text) => JsonSerializer.Serialize(text, Plain);

    private string Written(JsonNode value, string indent)
    {
        var flat = Flat(value);
        if (flat.Length + indent.Length <= Wide && (value is not JsonObject of || of.All(m => m.Value is JsonValue)))
            return flat;
        var deep = $"{Line}{indent}  ";
        return value switch
        {
            JsonObject o => "{" + string.Join(",", o.Select(m => $"{deep}{Inline(m.Key)}: {Written(m.Value!, indent + "  ")}"))
                + $"{Line}{indent}}}",
            JsonArray a => "[" + string.Join(",", a.Select(i => $"{deep}{Written(i!, indent + "  ")}")) + $"{Line}{indent}]",
            _ => flat,
        };
    }

    private static string Flat(JsonNode value) => value switch
    {
        JsonObject o => "{" + string.Join(", ", o.Select(m => $"{Inline(m.Key)}: {Flat(m.Value!)}")) + "}",
        JsonArray a => "[" + string.Join(", ", a.Select(i => Flat(i!))) + "]",
        _ => value.ToJsonString(Plain),
    };

    // What a path stands in, and the name of what it is there; null for a place in a list.
    private static (string Above, string? Name) Apart(string path)
    {
        if (path.EndsWith(']'))
            return (path[..path.LastIndexOf('[')], null);
        var point = path.LastIndexOf('.');
        return point < 0 ? ("", path) : (path[..point], path[(point + 1)..]);
    }

    private LocatedJson? Find(string path)
    {
        var node = _root;
        foreach (var part in path.Replace("[", ".[", StringComparison.Ordinal).Split('.', StringSplitOptions.RemoveEmptyEntries))
        {
            node = part is ['[', .., ']'] && int.TryParse(part[1..^1], out var place) ? node.Items.ElementAtOrDefault(place)
                : node.Members.FirstOrDefault(m => m.Key == part).Value;
            if (node is null)
                return null;
        }
        return node;
    }
}
