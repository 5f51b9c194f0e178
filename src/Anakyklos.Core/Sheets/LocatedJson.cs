using System.Text;
using System.Text.Json;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Sheets;

/// <summary>A JSON value that knows its line and path, so that every complaint can say where.</summary>
internal sealed record LocatedJson(JsonTokenType Kind, string Text, int Line, string Path)
{
    internal List<KeyValuePair<string, LocatedJson>> Members { get; } = [];

    internal List<LocatedJson> Items { get; } = [];

    /// <summary>The first of its bytes, and the one after its last.</summary>
    internal int Start { get; private set; }

    internal int End { get; private set; }

    /// <summary>Where the name of a member begins; as <see cref="Start"/> for what has none.</summary>
    internal int NameStart { get; private set; }

    /// <summary>More than this stands in no object and no list of a sheet.</summary>
    internal const int Most = 1000;

    /// <summary>Parses UTF-8 text. A syntax error or a name given twice becomes an error with its line.</summary>
    internal static LocatedJson? Parse(byte[] utf8, List<Refusal> errors)
    {
        var lines = new LineCounter(utf8);
        var reader = new Utf8JsonReader(utf8, new JsonReaderOptions { CommentHandling = JsonCommentHandling.Skip,
            AllowTrailingCommas = true, MaxDepth = 32 });
        try
        {
            reader.Read();
            var root = Value(ref reader, "", lines, errors);
            while (reader.Read()) { }
            return root;
        }
        catch (JsonException e)
        {
            errors.Add(Refusal.At((int)(e.LineNumber ?? 0) + 1, "",
                "This is not well-formed JSON here: look for a missing comma, quote or bracket."));
            return null;
        }
        catch (InvalidOperationException)
        {
            errors.Add(Refusal.At(lines.At(reader.TokenStartIndex), "", "This text is not valid UTF-8. Save the file as UTF-8."));
            return null;
        }
    }

    private static LocatedJson Value(ref Utf8JsonReader reader, string path, LineCounter lines, List<Refusal> errors)
    {
        var line = lines.At(reader.TokenStartIndex);
        var start = (int)reader.TokenStartIndex;
        var node = new LocatedJson(reader.TokenType, Scalar(ref reader), line, path) { Start = start, NameStart = start };
        if (reader.TokenType == JsonTokenType.StartObject)
        {
            var names = new HashSet<string>(StringComparer.Ordinal);
            while (reader.Read() && reader.TokenType != JsonTokenType.EndObject)
            {
                var name = reader.GetString()!;
                var below = path.Length == 0 ? name : $"{path}.{name}";
                if (!names.Add(name) && names.Count <= Most)
                    errors.Add(Refusal.At(lines.At(reader.TokenStartIndex), below, "This name stands here twice. Remove one."));
                var named = (int)reader.TokenStartIndex;
                reader.Read();
                var value = Value(ref reader, below, lines, errors);
                value.NameStart = named;
                node.Members.Add(new(name, value));
            }
            node.Bound(node.Members.Count, errors);
        }
        else if (reader.TokenType == JsonTokenType.StartArray)
        {
            while (reader.Read() && reader.TokenType != JsonTokenType.EndArray)
                node.Items.Add(Value(ref reader, $"{path}[{node.Items.Count}]", lines, errors));
            node.Bound(node.Items.Count, errors);
        }
        node.End = (int)reader.BytesConsumed;
        return node;
    }

    // What is too much is told once and not looked at any further.
    private void Bound(int count, List<Refusal> errors)
    {
        if (count <= Most)
            return;
        errors.Add(Refusal.At(Line, Path, $"{count} things stand here; {Most} is the most."));
        Members.Clear();
        Items.Clear();
    }

    private static string Scalar(ref Utf8JsonReader reader) => reader.TokenType switch
    {
        JsonTokenType.String => reader.GetString()!,
        JsonTokenType.Number => Encoding.UTF8.GetString(reader.ValueSpan),
        JsonTokenType.True => "true",
        JsonTokenType.False => "false",
        _ => "",
    };

    private sealed class LineCounter
    {
        private readonly List<long> _starts = [0];

        internal LineCounter(byte[] utf8)
        {
            for (var i = 0; i < utf8.Length; i++)
                if (utf8[i] == '\n')
                    _starts.Add(i + 1);
        }

        internal int At(long offset)
        {
            var found = _starts.BinarySearch(offset);
            return found >= 0 ? found + 1 : ~found;
        }
    }
}
