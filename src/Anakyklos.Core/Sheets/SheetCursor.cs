using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Sheets;

/// <summary>Reads the members of one JSON object, collecting every complaint instead of stopping at the first.</summary>
internal sealed partial class SheetCursor(LocatedJson node, List<Refusal> errors, IReadOnlyDictionary<string, Source> sources)
{
    internal const int LongestText = 300;

    private readonly HashSet<string> _asked = [];

    internal string Path => node.Path;

    /// <summary>The names of all members, each once.</summary>
    internal IReadOnlyList<string> Names => [.. node.Members.Select(m => m.Key).Distinct(StringComparer.Ordinal)];

    internal bool Has(string name) => node.Members.Any(m => m.Key == name);

    internal void Complain(string name, string text)
    {
        var at = Find(name);
        errors.Add(Refusal.At((at ?? node).Line, Join(name), text));
    }

    internal string Text(string name, bool required = true)
    {
        if (Take(name, required, JsonTokenType.String, "text in quotes") is not { } found)
            return "";
        if (found.Text.Length > LongestText)
            Complain(name, $"This is {found.Text.Length} characters long; {LongestText} is the most.");
        else if (required && string.IsNullOrWhiteSpace(found.Text))
            Complain(name, "This is empty. Write what it is.");
        return found.Text;
    }

    internal int Whole(string name, int low, int high, int otherwise = 0, bool required = true)
    {
        if (Take(name, required, JsonTokenType.Number, "a whole number") is not { } found)
            return otherwise;
        if (int.TryParse(found.Text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number) && number >= low
            && number <= high)
            return number;
        Complain(name, $"{found.Text} is not a whole number from {low} to {high}.");
        return otherwise;
    }

    internal bool Flag(string name)
    {
        _asked.Add(name);
        var found = Find(name);
        if (found is not null && found.Kind is not (JsonTokenType.True or JsonTokenType.False))
            Complain(name, "Write true or false.");
        return found?.Text == "true";
    }

    internal TEnum Word<TEnum>(string name, TEnum otherwise = default, bool required = true) where TEnum : struct, Enum
    {
        var text = Text(name, required);
        return text.Length == 0 ? otherwise : OneOf<TEnum>(name, text) ?? otherwise;
    }

    internal IReadOnlyList<TEnum> Words<TEnum>(string name, bool required = true) where TEnum : struct, Enum =>
        [.. Items(name, required, JsonTokenType.String, "words in quotes").Select(i => OneOf<TEnum>(name, i.Text)).OfType<TEnum>()];

    /// <summary>An object whose names and values are each one of some words.</summary>
    internal IReadOnlyDictionary<TName, TValue> Choices<TName, TValue>(string name)
        where TName : struct, Enum where TValue : struct, Enum =>
        Words(name).Select(w => (Name: OneOf<TName>(name, w.Key), Value: OneOf<TValue>(name, w.Value)))
            .Where(w => w is { Name: not null, Value: not null }).ToDictionary(w => w.Name!.Value, w => w.Value!.Value);

    private TEnum? OneOf<TEnum>(string name, string text) where TEnum : struct, Enum
    {
        foreach (var value in Enum.GetValues<TEnum>())
            if (Kebab(value.ToString()) == text)
                return value;
        Complain(name, $"“{text}” is not known here. Use {string.Join(", ", Enum.GetNames<TEnum>().Select(Kebab))}.");
        return null;
    }

    internal string Kind(string name)
    {
        var text = Text(name);
        if (text.Length > 0 && !StepKinds.Knows(text))
            Complain(name, $"“{text}” is not known here. Use {string.Join(", ", StepKinds.Words)}.");
        return text;
    }

    internal TimeSpan? Duration(string name, bool required = true)
    {
        var text = Text(name, required);
        if (text.Length == 0)
            return null;
        if (DurationShape().Match(text) is { Success: true } m)
        {
            var number = int.Parse(m.Groups[1].Value, CultureInfo.InvariantCulture);
            return m.Groups[2].Value switch { "s" => TimeSpan.FromSeconds(number), "min" => TimeSpan.FromMinutes(number),
                _ => TimeSpan.FromHours(number) };
        }
        Complain(name, $"“{text}” is not a time. Write it as 30 s, 5 min or 1 h.");
        return null;
    }

    internal Quantity<T> Amount<T>(string name) where T : IDimension<T>
    {
        var text = Text(name);
        if (text.Length == 0)
            return default;
        var read = Quantity<T>.Read(text, out var problem);
        if (read is { } typed && typed.Value >= Quantity<T>.Zero)
            return typed.Value;
        Complain(name, read is null ? problem : $"{text} is negative.");
        return default;
    }

    /// <summary>An amount in the unit in which it is written.</summary>
    internal Typed<T> Typed<T>(string name) where T : IDimension<T>
    {
        var before = errors.Count;
        var amount = Amount<T>(name);
        return errors.Count > before ? default : new(amount, Quantity<T>.Read(Text(name), out _)!.Value.Unit);
    }

    internal Temperature? Degrees(string name)
    {
        var text = Text(name, false);
        if (text.Length == 0)
            return null;
        var read = Temperature.Read(text, out var problem);
        if (read is null)
            Complain(name, problem);
        return read;
    }

    internal IReadOnlyList<string> Texts(string name, bool required = false) =>
        [.. Items(name, required, JsonTokenType.String, "texts in quotes").Select(i => i.Text)];

    /// <summary>The ids in a list; none when it is not there.</summary>
    internal IReadOnlyList<int> Wholes(string name, int low, int high)
    {
        var numbers = new List<int>();
        foreach (var item in Items(name, false, JsonTokenType.Number, "whole numbers"))
            if (int.TryParse(item.Text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number) && number >= low
                && number <= high)
                numbers.Add(number);
            else
                errors.Add(Refusal.At(item.Line, item.Path, $"{item.Text} is not a whole number from {low} to {high}."));
        return numbers;
    }

    internal IReadOnlyList<TId> Ids<TId>(string name, bool required = false) where TId : struct, IId<TId>
    {
        var items = Items(name, required, JsonTokenType.String, "texts in quotes");
        foreach (var empty in items.Where(i => string.IsNullOrWhiteSpace(i.Text)))
            errors.Add(Refusal.At(empty.Line, empty.Path, "This is empty. Write the id of what is meant."));
        return [.. items.Where(i => !string.IsNullOrWhiteSpace(i.Text)).Select(i => TId.Of(i.Text))];
    }

    /// <summary>The id in a member; null when it is not there.</summary>
    internal TId? Id<TId>(string name) where TId : struct, IId<TId> => Has(name) ? TId.Of(Text(name)) : null;

    internal IReadOnlyList<TItem> List<TItem>(string name, Func<SheetCursor, TItem> read, bool required = false) =>
        [.. Items(name, required, JsonTokenType.StartObject, "objects in braces").Select(i => Child(i, read))];

    internal IReadOnlyDictionary<string, TItem> Table<TItem>(string name, Func<string, SheetCursor, TItem> read, bool required = true) =>
        Entries(name, id => id, read, required);

    /// <summary>As <see cref="Table{TItem}"/>, found by an id of its kind.</summary>
    internal IReadOnlyDictionary<TId, TItem> Table<TId, TItem>(string name, Func<TId, SheetCursor, TItem> read, bool required = true)
        where TId : struct, IId<TId> => Entries(name, TId.Of, read, required);

    private Dictionary<TKey, TItem> Entries<TKey, TItem>(string name, Func<string, TKey> key, Func<TKey, SheetCursor, TItem> read,
        bool required) where TKey : notnull
    {
        var table = new Dictionary<TKey, TItem>();
        if (Take(name, required, JsonTokenType.StartObject, "an object in braces") is not { } found)
            return table;
        foreach (var (id, value) in found.Members)
        {
            if (!IdShape().IsMatch(id))
                errors.Add(Refusal.At(value.Line, value.Path, $"“{id}” is not an id. Use small letters, digits and dashes."));
            if (value.Kind != JsonTokenType.StartObject)
                errors.Add(Refusal.At(value.Line, value.Path, "An object in braces belongs here."));
            else if (!table.ContainsKey(key(id)))
                table[key(id)] = Child(value, c => read(key(id), c));
        }
        return table;
    }

    internal IReadOnlyDictionary<string, string> Words(string name)
    {
        var found = Take(name, false, JsonTokenType.StartObject, "an object in braces");
        foreach (var (_, value) in found?.Members ?? [])
            if (value.Kind != JsonTokenType.String)
                errors.Add(Refusal.At(value.Line, value.Path, "Text in quotes belongs here."));
        return found?.Members.DistinctBy(m => m.Key).ToDictionary(m => m.Key, m => m.Value.Text) ?? [];
    }

    internal TItem? Part<TItem>(string name, Func<SheetCursor, TItem> read, bool required = true) where TItem : class =>
        Take(name, required, JsonTokenType.StartObject, "an object in braces") is { } found ? Child(found, read) : null;

    internal Citation Cited()
    {
        var id = Text("from");
        if (id.Length > 0 && !sources.ContainsKey(id))
            Complain("from", $"There is no source “{id}”. The sources are {string.Join(", ", sources.Keys)}.");
        return new(sources.GetValueOrDefault(id) ?? new(id, id, false), Text("at"), Whole("checkedBy", 0, 9, required: false));
    }

    internal Sourced<TValue> Sourced<TValue>(string name, Func<SheetCursor, TValue> read)
    {
        Sourced<TValue>? value = Part(name, c => new Sourced<TValue>(read(c), c.Cited(),
            c.List("disputed", d => new OtherSaying(d.Text("says"), d.Cited()))));
        return value ?? new(read(new(new(JsonTokenType.StartObject, "", node.Line, Join(name)), [], sources)),
            new(new("", "", false), "", 0), []);
    }

    private TItem Child<TItem>(LocatedJson value, Func<SheetCursor, TItem> read)
    {
        var cursor = new SheetCursor(value, errors, sources);
        var item = read(cursor);
        cursor.RefuseUnknown();
        return item;
    }

    internal void RefuseUnknown()
    {
        foreach (var (name, value) in node.Members.Where(m => !_asked.Contains(m.Key)))
            errors.Add(Refusal.At(value.Line, value.Path, $"“{name}” is not known here. Known: {string.Join(", ", _asked)}."));
    }

    private List<LocatedJson> Items(string name, bool required, JsonTokenType kind, string what)
    {
        if (Take(name, required, JsonTokenType.StartArray, "a list in square brackets") is not { } found)
            return [];
        foreach (var item in found.Items.Where(i => i.Kind != kind))
            errors.Add(Refusal.At(item.Line, item.Path, $"Only {what} belong in this list."));
        if (required && found.Items.Count == 0)
            Complain(name, "This list is empty.");
        return [.. found.Items.Where(i => i.Kind == kind)];
    }

    private LocatedJson? Take(string name, bool required, JsonTokenType kind, string what)
    {
        _asked.Add(name);
        var found = Find(name);
        if (found is null && required)
            errors.Add(Refusal.At(node.Line, Join(name), "This is missing."));
        if (found is not null && found.Kind != kind)
        {
            Complain(name, $"This should be {what}.");
            return null;
        }
        return found;
    }

    private LocatedJson? Find(string name) => node.Members.FirstOrDefault(m => m.Key == name).Value;

    private string Join(string name) => Path.Length == 0 ? name : $"{Path}.{name}";

    internal static string Kebab(string name) => Capital().Replace(name, "-$1").TrimStart('-').ToLowerInvariant();

    [GeneratedRegex("([A-Z])")]
    private static partial Regex Capital();

    [GeneratedRegex("^[a-z0-9]+(-[a-z0-9]+)*$")]
    private static partial Regex IdShape();

    [GeneratedRegex(@"^([0-9]{1,4})\s?(s|min|h)$")]
    private static partial Regex DurationShape();
}
