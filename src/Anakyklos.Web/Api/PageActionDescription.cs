using Microsoft.AspNetCore.OpenApi;
using Microsoft.AspNetCore.Routing.Patterns;
using Microsoft.OpenApi;

namespace Anakyklos.Web.Api;

/// <summary>Describes the presses of pages for OpenAPI, from the addresses that are served and the handlers that answer there.</summary>
internal sealed class PageActionDescription(EndpointDataSource endpoints) : IOpenApiDocumentTransformer
{
    public Task TransformAsync(OpenApiDocument document, OpenApiDocumentTransformerContext context, CancellationToken cancellationToken)
    {
        foreach (var endpoint in endpoints.Endpoints.OfType<RouteEndpoint>())
            if (endpoint.Metadata.GetMetadata<PageAction>() is { } action)
            {
                // What may be left away at the end of an address is for something new, which has no name yet.
                var optional = endpoint.RoutePattern.Parameters.FirstOrDefault(p => p.IsOptional)?.Name;
                Add(document, action, endpoint, $"{action.Name}{(optional is null ? "" : "New")}", optional);
                if (optional is not null and not "hash")
                    Add(document, action, endpoint, action.Name, null);
            }
        return Task.CompletedTask;
    }

    private static void Add(OpenApiDocument document, PageAction action, RouteEndpoint endpoint, string name, string? without) =>
        document.Paths["/" + string.Join('/', endpoint.RoutePattern.PathSegments.Select(s => string.Concat(s.Parts.Select(p => p switch
        {
            RoutePatternParameterPart part => part.Name == without ? "" : $"{{{part.Name}}}",
            RoutePatternLiteralPart part => part.Content,
            _ => "",
        }))).Where(s => s.Length > 0))] = new OpenApiPathItem
        {
            Operations = new() { [HttpMethod.Post] = Operation(action, endpoint, name, without) },
        };

    private static OpenApiOperation Operation(PageAction action, RouteEndpoint endpoint, string name, string? without) => new()
    {
        OperationId = name,
        Summary = action.Says,
        Description = $"Scope: {Core.Workshop.Scopes.Word(action.Scope)}.",
        Parameters = [.. endpoint.RoutePattern.Parameters.Where(p => p.Name != without).Select(p => (IOpenApiParameter)new OpenApiParameter
        {
            Name = p.Name, In = ParameterLocation.Path, Required = true, Description = PressWords.Of(action, p.Name),
            Schema = new OpenApiSchema { Type = p.ParameterPolicies.Any(x => x.Content is "long" or "int") ? JsonSchemaType.Integer
                : JsonSchemaType.String },
        })],
        RequestBody = new OpenApiRequestBody
        {
            Required = true,
            Content = new Dictionary<string, OpenApiMediaType> { ["application/json"] = new() { Schema = Body(action) } },
        },
        Responses = new()
        {
            ["200"] = new OpenApiResponse
            {
                Description = "Done: the page on which it is seen, what that says, the card it leads to, whether it was done before.",
                Content = new Dictionary<string, OpenApiMediaType> { ["application/json"] = new() { Schema = Answer() } },
            },
            ["403"] = new OpenApiResponse { Description = "Not with this token, or not in this role." },
            ["404"] = new OpenApiResponse { Description = "There is no such thing." },
            ["409"] = new OpenApiResponse { Description = "It cannot be now: the problem says why." },
            ["422"] = new OpenApiResponse { Description = "Something sent is wrong: the problem names the field." },
        },
    };

    private static OpenApiSchema Body(PageAction action)
    {
        var fields = PageActionFields.Of(action).Values.Where(f => !f.IsCommand).ToDictionary(f => f.Name, f => f.Schema);
        fields["command"] = new OpenApiSchema { Type = JsonSchemaType.String, Format = "uuid",
            Description = "Your own id of this press; sent twice, it is carried out once." };
        return new() { Type = JsonSchemaType.Object, Properties = fields, Required = new HashSet<string> { "command" },
            AdditionalPropertiesAllowed = PageActionFields.MayBeNamed(action, "drop-") };
    }

    private static OpenApiSchema Answer() => new()
    {
        Type = JsonSchemaType.Object,
        Properties = new Dictionary<string, IOpenApiSchema>
        {
            ["at"] = new OpenApiSchema { Type = JsonSchemaType.String },
            ["said"] = new OpenApiSchema { Type = JsonSchemaType.String },
            ["card"] = new OpenApiSchema { Type = JsonSchemaType.Integer },
            ["repeated"] = new OpenApiSchema { Type = JsonSchemaType.Boolean },
        },
    };
}
