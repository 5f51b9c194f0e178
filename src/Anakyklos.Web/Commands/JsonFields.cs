using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;

namespace Anakyklos.Web.Commands;

/// <summary>The fields of a command as JSON sends them, each in the shape that the description gives.</summary>
/// <param name="from">The object.</param>
public sealed class JsonFields(JsonElement from) : IFieldSource
{
    /// <inheritdoc/>
    public string? Text(CommandField field, out string problem)
    {
        problem = "";
        if (Of(field) is not { } value)
            return null;
        switch (field.Shape, value.ValueKind)
        {
            case (FieldShape.Whole or FieldShape.Place, JsonValueKind.Number):
                return value.GetRawText();
            case (FieldShape.Yes, JsonValueKind.True):
                return "yes";
            case (FieldShape.Yes, JsonValueKind.False):
                return "no";
            case (FieldShape.Text or FieldShape.Amount or FieldShape.Choice, JsonValueKind.String):
                return value.GetString();
            default:
                problem = $"“{field.Name}” is of the wrong shape.";
                return null;
        }
    }

    /// <inheritdoc/>
    public IReadOnlyList<string> Texts(CommandField field, out string problem)
    {
        problem = "";
        if (Of(field) is not { } value)
            return [];
        if (value.ValueKind == JsonValueKind.Array && value.EnumerateArray().All(v => v.ValueKind == JsonValueKind.String))
            return [.. value.EnumerateArray().Select(v => v.GetString()!)];
        problem = $"“{field.Name}” is of the wrong shape.";
        return [];
    }

    /// <inheritdoc/>
    public IReadOnlyList<KeyValuePair<string, IFieldSource>> Entries(CommandField field, out string problem)
    {
        problem = "";
        if (Of(field) is not { } value)
            return [];
        if (value.ValueKind == JsonValueKind.Object && value.EnumerateObject().All(e => e.Value.ValueKind == JsonValueKind.Object))
            return [.. value.EnumerateObject().Select(e => KeyValuePair.Create(e.Name, (IFieldSource)new JsonFields(e.Value)))];
        problem = $"“{field.Name}” is of the wrong shape.";
        return [];
    }

    /// <summary>Properties that no field reads: a slip of the pen is said, not passed over.</summary>
    /// <param name="command">The command.</param>
    /// <param name="also">What else may stand there.</param>
    internal IReadOnlyList<Refusal> Unknown(CommandDeclaration command, params string[] also) =>
        [.. from.EnumerateObject().Select(p => p.Name).Except([.. command.Fields.Select(f => f.Name), .. also])
            .Select(name => new Refusal($"“{command.Name}” has no field “{(name.Length > 40 ? name[..40] : name)}”.",
                "Look at the description, and leave it away.", Field: name))];

    private JsonElement? Of(CommandField field) =>
        from.TryGetProperty(field.Name, out var value) && value.ValueKind != JsonValueKind.Null ? value : null;
}
