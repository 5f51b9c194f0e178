using System.Text.Json.Nodes;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Ids;
using Anakyklos.Core.Quantities;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Anakyklos.Web.Api;

/// <summary>Describes values as what they are in JSON: an amount is a text of a number and its unit, an id is a text, a card's number and
/// every whole number a number, and what is not known is left away.</summary>
internal sealed class ValueSchemas : IOpenApiSchemaTransformer, IOpenApiDocumentTransformer
{
    // Only in the finished document is it seen of every property whether it may be left away.
    public Task TransformAsync(OpenApiDocument document, OpenApiDocumentTransformerContext context, CancellationToken cancellationToken)
    {
        foreach (var schema in document.Components?.Schemas?.Values ?? [])
            foreach (var (name, property) in schema.Properties ?? new Dictionary<string, IOpenApiSchema>())
                if (property.Type?.HasFlag(JsonSchemaType.Null) == true || property.OneOf?.Any(o => o.Type == JsonSchemaType.Null) == true)
                    schema.Required?.Remove(name);
        return Task.CompletedTask;
    }

    public Task TransformAsync(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken cancellationToken)
    {
        var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
        var general = type.IsGenericType ? type.GetGenericTypeDefinition() : null;
        if (general == typeof(Quantity<>) || general == typeof(Typed<>))
            Amount(schema, type.GetGenericArguments()[0]);
        else if (general == typeof(Id<>) || type == typeof(ThingId))
            (schema.Type, schema.Description) = (JsonSchemaType.String, "An id, as the sheet or the workshop has it.");
        else if (type == typeof(CardNumber))
            schema.Type = JsonSchemaType.Integer;
        else if (type == typeof(int) || type == typeof(long))
            (schema.Type, schema.Pattern) = (schema.Type & ~JsonSchemaType.String, null);
        return Task.CompletedTask;
    }

    private static void Amount(OpenApiSchema schema, Type dimension)
    {
        var units = (IReadOnlyList<string>)typeof(ValueSchemas).GetMethod(nameof(Signs), System.Reflection.BindingFlags.Static
            | System.Reflection.BindingFlags.NonPublic)!.MakeGenericMethod(dimension).Invoke(null, null)!;
        schema.Type = JsonSchemaType.String;
        schema.Pattern = $"^-?[0-9]+(\\.[0-9]+)? ({string.Join('|', units.Select(System.Text.RegularExpressions.Regex.Escape))})$";
        schema.Description = $"An amount: a number, a blank and one of {string.Join(", ", units)}.";
        schema.Examples = [JsonValue.Create($"5 {units[0]}")];
    }

    private static IReadOnlyList<string> Signs<T>() where T : IDimension<T> => [.. T.Units.Select(u => u.Symbol)];
}
