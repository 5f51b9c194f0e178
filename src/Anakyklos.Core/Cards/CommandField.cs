using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Cards;

/// <summary>What is written into a field.</summary>
public enum FieldShape
{
    /// <summary>Words, or the id of something.</summary>
    Text,

    /// <summary>A whole number.</summary>
    Whole,

    /// <summary>Yes or no.</summary>
    Yes,

    /// <summary>A place on a scale from 0 to 1, and a little beyond.</summary>
    Place,

    /// <summary>A number with its unit.</summary>
    Amount,

    /// <summary>Several numbers with their units.</summary>
    Amounts,

    /// <summary>One of some words.</summary>
    Choice,

    /// <summary>An entry of fields for each of several ids.</summary>
    Entries,
}

/// <summary>Where the fields of a command are read from: a form, or JSON. It knows texts only; the field says what they mean.</summary>
public interface IFieldSource
{
    /// <summary>What was said in a field.</summary>
    /// <param name="field">The field.</param>
    /// <param name="problem">What is wrong when something of another shape stands there; otherwise empty.</param>
    /// <returns>The text, or null when nothing was said.</returns>
    string? Text(CommandField field, out string problem);

    /// <summary>The texts of a field that takes several.</summary>
    /// <param name="field">The field.</param>
    /// <param name="problem">What is wrong when something of another shape stands there; otherwise empty.</param>
    IReadOnlyList<string> Texts(CommandField field, out string problem);

    /// <summary>The entries of a field that has one for each of several ids.</summary>
    /// <param name="field">The field.</param>
    /// <param name="problem">What is wrong when something of another shape stands there; otherwise empty.</param>
    IReadOnlyList<KeyValuePair<string, IFieldSource>> Entries(CommandField field, out string problem);
}

/// <summary>A field of a command: form, JSON and description come from this one declaration.</summary>
/// <param name="name">Its name, the same in form, JSON and refusals.</param>
/// <param name="says">What is said in it, as a noun with its article.</param>
/// <param name="shape">What is written into it.</param>
public abstract class CommandField(string name, string says, FieldShape shape)
{
    /// <summary>Its name, the same in form, JSON and refusals.</summary>
    public string Name => name;

    /// <summary>What is said in it, as a noun with its article.</summary>
    public string Says => says;

    /// <summary>What is written into it.</summary>
    public FieldShape Shape => shape;

    /// <summary>Whether nothing can be done without it.</summary>
    public bool IsNeeded { get; internal init; }

    /// <summary>The words to choose from, or the symbols of the units that may be written; empty for other shapes.</summary>
    public IReadOnlyList<string> Words { get; internal init; } = [];

    /// <summary>The fields of an entry; empty for other shapes.</summary>
    public IReadOnlyList<CommandField> Members { get; internal init; } = [];

    internal abstract object? ReadFrom(IFieldSource source, string key, List<Refusal> problems);

    /// <summary>The path under which a refusal speaks of it.</summary>
    /// <param name="entry">The path of the entry that it stands in, such as <c>parts.oil-filter</c>; empty outside of any.</param>
    internal string At(string entry) => entry.Length == 0 ? Name : $"{entry}.{Name}";
}

/// <summary>A field of a command that is read as one type.</summary>
/// <typeparam name="T">What it is read as.</typeparam>
public sealed class CommandField<T> : CommandField
{
    private readonly Func<CommandField<T>, IFieldSource, string, List<Refusal>, T?> _read;

    internal CommandField(string name, string says, FieldShape shape, Func<CommandField<T>, IFieldSource, string, List<Refusal>, T?> read)
        : base(name, says, shape) => _read = read;

    internal override object? ReadFrom(IFieldSource source, string key, List<Refusal> problems) => _read(this, source, key, problems);
}

/// <summary>The values of a command's fields, read.</summary>
public sealed class FieldValues
{
    private readonly Dictionary<CommandField, object?> _values;

    private FieldValues(Dictionary<CommandField, object?> values) => _values = values;

    /// <summary>Reads fields from where they were written.</summary>
    /// <param name="fields">The fields.</param>
    /// <param name="source">Where they were written.</param>
    /// <param name="key">The path of the entry that they belong to, or empty.</param>
    /// <param name="problems">What could not be read is added.</param>
    internal static FieldValues Read(IEnumerable<CommandField> fields, IFieldSource source, string key, List<Refusal> problems) =>
        new(fields.ToDictionary(f => f, f => f.ReadFrom(source, key, problems)));

    /// <summary>The value of a field.</summary>
    /// <exception cref="KeyNotFoundException">The command does not declare that field.</exception>
    internal T Of<T>(CommandField<T> field) => (T)_values[field]!;
}

/// <summary>The shapes of field that there are.</summary>
internal static class Field
{
    /// <summary>The step that it is said at.</summary>
    internal static CommandField<string> Step { get; } = Text("step", "the step", needed: true);

    /// <summary>Why.</summary>
    internal static CommandField<string> Reason { get; } = Text("reason", "the reason");

    /// <summary>Whether the engine bay was looked over before the engine runs.</summary>
    internal static CommandField<bool> LookedAbove { get; } = Yes("lookedAbove", "whether the engine bay was looked over");

    /// <summary>Words, or an id; empty when nothing was said.</summary>
    internal static CommandField<string> Text(string name, string says, bool needed = false) => new(name, says, FieldShape.Text,
        (field, source, key, problems) => (Said(field, source, key, problems) ?? "").Trim()) { IsNeeded = needed };

    /// <summary>Yes or no, of which one must be said.</summary>
    internal static CommandField<bool> YesOrNo(string name, string says) => new(name, says, FieldShape.Yes,
        (field, source, key, problems) =>
        {
            var before = problems.Count;
            var said = Said(field, source, key, problems);
            if (said is not ("yes" or "no") && problems.Count == before)
                Add(problems, field, key, $"Nobody said {field.Says}.", "Say yes or no.");
            return said == "yes";
        })
    {
        IsNeeded = true,
    };

    /// <summary>Yes, where it was said; no when nothing was.</summary>
    internal static CommandField<bool> Yes(string name, string says) => new(name, says, FieldShape.Yes,
        (field, source, key, problems) => Said(field, source, key, problems) == "yes");

    /// <summary>A whole number that may be left away.</summary>
    internal static CommandField<int?> Count(string name, string says) => new(name, says, FieldShape.Whole,
        (field, source, key, problems) => Said(field, source, key, problems) is { } text && !string.IsNullOrWhiteSpace(text)
            ? Whole(field, text, key, problems, "Count them and type how many.") : null);

    /// <summary>The number of something that is known already, such as the seq of an event.</summary>
    internal static CommandField<int> Number(string name, string says) => new(name, says, FieldShape.Whole,
        (field, source, key, problems) => 
            Whole(field, Said(field, source, key, problems) ?? "", key, problems, "Load the page again.") ?? 0)
    {
        IsNeeded = true,
    };

    /// <summary>A number with its unit.</summary>
    internal static CommandField<Typed<T>> Amount<T>(string name, string says) where T : IDimension<T> => new(name, says, FieldShape.Amount,
        (field, source, key, problems) =>
        {
            var text = source.Text(field, out var shape);
            if (shape.Length > 0)
                Add(problems, field, key, shape, $"Write {field.Says} as a text with its unit.");
            else if (Quantity<T>.Read(text, out var problem) is { } read)
                return read;
            else
                Add(problems, field, key, problem, "");
            return default;
        })
    {
        IsNeeded = true,
        Words = [.. T.Units.Select(u => u.Symbol)],
    };

    /// <summary>A number with its unit, or a bare number where the thing in the hand has one scale.</summary>
    internal static CommandField<NumberSaid<T>> AmountOrNumber<T>(string name, string says) where T : IDimension<T> =>
        new(name, says, FieldShape.Amount, (field, source, key, problems) =>
        {
            var text = source.Text(field, out var shape);
            var bare = new string([.. (text ?? "").Where(c => !char.IsWhiteSpace(c))]).Length > 0 && shape.Length == 0
                && !text!.Any(char.IsLetter);
            if (shape.Length > 0)
                Add(problems, field, key, shape, $"Write {field.Says} as a text.");
            else if (Quantity<T>.Read(text, out var problem, bare ? T.Units[0] : null) is { } read)
                return new(read.Value.In(read.Unit), bare ? null : read.Unit);
            else
                Add(problems, field, key, problem, "");
            return default;
        })
        {
            IsNeeded = true,
            Words = [.. T.Units.Select(u => u.Symbol)],
        };

    /// <summary>A number with its unit that may be left away.</summary>
    internal static CommandField<Typed<T>?> AmountIfAny<T>(string name, string says) where T : IDimension<T> =>
        new(name, says, FieldShape.Amount, (field, source, key, problems) =>
        {
            var text = source.Text(field, out var shape);
            if (shape.Length > 0)
                Add(problems, field, key, shape, $"Write {field.Says} as a text with its unit.");
            else if (!string.IsNullOrWhiteSpace(text) && Quantity<T>.Read(text, out var problem) is var read)
            {
                if (read is null)
                    Add(problems, field, key, problem, "");
                return read;
            }
            return null;
        })
        {
            Words = [.. T.Units.Select(u => u.Symbol)],
        };

    /// <summary>Several numbers with their units; none when nothing was said.</summary>
    internal static CommandField<IReadOnlyList<Quantity<T>>> Amounts<T>(string name, string says) where T : IDimension<T> =>
        new(name, says, FieldShape.Amounts, (field, source, key, problems) =>
        {
            var texts = source.Texts(field, out var shape);
            if (shape.Length > 0)
                Add(problems, field, key, shape, $"Write {field.Says} as texts with their units.");
            var amounts = new List<Quantity<T>>();
            foreach (var text in texts)
            {
                if (Quantity<T>.Read(text, out var problem) is { } read)
                    amounts.Add(read.Value);
                else
                    Add(problems, field, key, problem, "");
            }
            return amounts;
        })
        {
            Words = [.. T.Units.Select(u => u.Symbol)],
        };

    /// <summary>A place between the marks of a dipstick.</summary>
    internal static CommandField<Level> Place(string name, string says) => new(name, says, FieldShape.Place,
        (field, source, key, problems) =>
        {
            var text = source.Text(field, out var shape);
            if (Level.Read(text, out var problem) is { } level && shape.Length == 0)
                return level;
            Add(problems, field, key, shape.Length > 0 ? shape : problem, "");
            return default;
        })
    {
        IsNeeded = true,
    };

    /// <summary>One of the words of an enumeration, with or without hyphens.</summary>
    internal static CommandField<T> Choice<T>(string name, string says, string problem, string @do) where T : struct, Enum =>
        new(name, says, FieldShape.Choice, (field, source, key, problems) =>
        {
            var text = (source.Text(field, out _) ?? "").Trim().Replace("-", "", StringComparison.Ordinal);
            foreach (var value in Enum.GetValues<T>())
                if (string.Equals($"{value}", text, StringComparison.OrdinalIgnoreCase))
                    return value;
            Add(problems, field, key, problem, @do);
            return default;
        })
        {
            IsNeeded = true,
            Words = [.. Enum.GetNames<T>().Select(System.Text.Json.JsonNamingPolicy.KebabCaseLower.ConvertName)],
        };

    /// <summary>An entry of fields for each of several ids; none when nothing was said.</summary>
    internal static CommandField<IReadOnlyDictionary<TId, T>> Entries<TId, T>(string name, string says,
        IReadOnlyList<CommandField> members, Func<FieldValues, T> make) where TId : struct, IId<TId> =>
        new(name, says, FieldShape.Entries, (field, source, _, problems) =>
        {
            var entries = source.Entries(field, out var shape);
            if (shape.Length > 0)
                Add(problems, field, "", shape, $"Write {field.Says} as one entry for each id.");
            var made = new Dictionary<TId, T>();
            foreach (var (key, entry) in entries)
            {
                var before = problems.Count;
                var values = FieldValues.Read(members, entry, $"{field.Name}.{key}", problems);
                if (problems.Count == before)
                    made[TId.Of(key)] = make(values);
            }
            return made;
        })
        {
            Members = members,
        };

    private static void Add(List<Refusal> problems, CommandField field, string key, string what, string @do) =>
        problems.Add(new(what, @do, Field: field.At(key)));

    private static string? Said(CommandField field, IFieldSource source, string key, List<Refusal> problems)
    {
        var text = source.Text(field, out var problem);
        if (problem.Length > 0)
            Add(problems, field, key, problem, "Write it in the shape that the description gives.");
        return text;
    }

    private static int? Whole(CommandField field, string text, string key, List<Refusal> problems, string @do)
    {
        if (int.TryParse(text.Trim(), System.Globalization.NumberStyles.AllowLeadingSign,
            System.Globalization.CultureInfo.InvariantCulture, out var number))
            return number;
        Add(problems, field, key, text.Length == 0 ? $"{char.ToUpperInvariant(field.Says[0])}{field.Says[1..]} is missing."
            : "That is not a whole number.", @do);
        return null;
    }
}
