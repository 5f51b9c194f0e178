using System.Text.Json.Nodes;
using Anakyklos.Core.Cards;
using Microsoft.OpenApi;

namespace Anakyklos.Web.Commands;

/// <summary>Describes every command for OpenAPI, from the declaration that form and JSON are read by.</summary>
internal static class CommandSchema
{
    /// <summary>The body of a post: one of the commands, told apart by what it says.</summary>
    internal static OpenApiSchema Body() => new()
    {
        OneOf = [.. CommandBook.All.Select(c => (IOpenApiSchema)Of(c))],
        Discriminator = new() { PropertyName = "say" },
    };

    private static OpenApiSchema Of(CommandDeclaration command)
    {
        var schema = Fields(command.Fields, closed: true);
        schema.Title = command.Name;
        schema.Description = $"{command.Says}.";
        schema.Properties!["command"] = new OpenApiSchema
        {
            Type = JsonSchemaType.String,
            Format = "uuid",
            Description = "Your own id of this command; sent twice, it is carried out once.",
        };
        schema.Properties["say"] = Words([command.Name], "What is said.");
        if (command.WantsPin)
        {
            schema.Properties["who"] = Plain(JsonSchemaType.String, "Id of whoever puts a name to it; you, where it is left away");
            schema.Properties["pin"] = Plain(JsonSchemaType.String, "Their own PIN");
        }
        schema.Required!.UnionWith(command.WantsPin ? ["command", "say", "pin"] : ["command", "say"]);
        return schema;
    }

    private static OpenApiSchema Fields(IEnumerable<CommandField> fields, bool closed) => new()
    {
        Type = JsonSchemaType.Object,
        AdditionalPropertiesAllowed = !closed,
        Properties = fields.ToDictionary(f => f.Name, f => (IOpenApiSchema)Of(f)),
        Required = fields.Where(f => f.IsNeeded).Select(f => f.Name).ToHashSet(),
    };

    private static OpenApiSchema Of(CommandField field) => field.Shape switch
    {
        FieldShape.Text => Plain(JsonSchemaType.String, field.Says),
        FieldShape.Whole => Plain(JsonSchemaType.Integer, field.Says),
        FieldShape.Yes => Plain(JsonSchemaType.Boolean, field.Says),
        FieldShape.Place => Plain(JsonSchemaType.Number, field.Says),
        FieldShape.Choice => Words(field.Words, field.Says),
        FieldShape.Amount => Amount(field),
        FieldShape.Amounts => new() { Type = JsonSchemaType.Array, Items = Amount(field), Description = field.Says },
        FieldShape.Entries => new()
        {
            Type = JsonSchemaType.Object,
            AdditionalProperties = Fields(field.Members, closed: false),
            Description = $"{field.Says}, by id",
        },
        _ => throw new InvalidOperationException($"Nobody has said how a field of shape {field.Shape} is described."),
    };

    private static OpenApiSchema Plain(JsonSchemaType type, string says) => new() { Type = type, Description = says };

    private static OpenApiSchema Words(IEnumerable<string> words, string says) => new()
    {
        Type = JsonSchemaType.String,
        Enum = [.. words.Select(w => (JsonNode)JsonValue.Create(w))],
        Description = says,
    };

    private static OpenApiSchema Amount(CommandField field) => new()
    {
        Type = JsonSchemaType.String,
        Description = $"{field.Says}, with its unit: {string.Join(", ", field.Words)}",
        Examples = [JsonValue.Create($"5 {field.Words[0]}")],
    };
}
