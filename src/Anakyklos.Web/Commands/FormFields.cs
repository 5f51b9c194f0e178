using Anakyklos.Core.Cards;

namespace Anakyklos.Web.Commands;

/// <summary>The fields of a command as a form sends them: a path and a text each, such as <c>parts.oil-filter.choice</c>.</summary>
/// <param name="form">The form.</param>
/// <param name="entry">The path of the entry that is read, or empty.</param>
public sealed class FormFields(IFormCollection form, string entry = "") : IFieldSource
{
    /// <inheritdoc/>
    public string? Text(CommandField field, out string problem)
    {
        problem = "";
        var name = Name(field);
        return form.TryGetValue(name, out var text) ? text.ToString() : null;
    }

    /// <inheritdoc/>
    public IReadOnlyList<string> Texts(CommandField field, out string problem) =>
        Text(field, out problem) is { } text && !string.IsNullOrWhiteSpace(text) ? text.Split('+', ';') : [];

    /// <inheritdoc/>
    public IReadOnlyList<KeyValuePair<string, IFieldSource>> Entries(CommandField field, out string problem)
    {
        problem = "";
        var (begins, ends) = ($"{field.Name}.", $".{field.Members[0].Name}");
        return [.. form.Keys.Where(k => k.Length > begins.Length + ends.Length && k.StartsWith(begins, StringComparison.Ordinal)
                && k.EndsWith(ends, StringComparison.Ordinal))
            .Select(k => k[begins.Length..^ends.Length])
            .Select(id => KeyValuePair.Create(id, (IFieldSource)new FormFields(form, begins + id)))];
    }

    private string Name(CommandField field) => entry.Length == 0 ? field.Name : $"{entry}.{field.Name}";
}
