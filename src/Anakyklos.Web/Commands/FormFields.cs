using Anakyklos.Core.Cards;

namespace Anakyklos.Web.Commands;

/// <summary>The fields of a command as a form sends them: a name and a text each; inside an entry the name ends with its id.</summary>
/// <param name="form">The form.</param>
/// <param name="key">Id of the entry that is read, or empty.</param>
public sealed class FormFields(IFormCollection form, string key = "") : IFieldSource
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
        var first = field.Members[0].Name + "-";
        return [.. form.Keys.Where(k => k.StartsWith(first, StringComparison.Ordinal)).Select(k => k[first.Length..])
            .Select(id => KeyValuePair.Create(id, (IFieldSource)new FormFields(form, id)))];
    }

    private string Name(CommandField field) => key.Length == 0 ? field.Name : $"{field.Name}-{key}";
}
