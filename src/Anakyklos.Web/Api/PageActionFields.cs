using System.Collections;
using System.Collections.Concurrent;
using System.Reflection;
using Anakyklos.Core.Wording;
using Microsoft.AspNetCore.Mvc;
using Microsoft.OpenApi;

namespace Anakyklos.Web.Api;

/// <summary>A field of a press.</summary>
/// <param name="Name">Its name in JSON.</param>
/// <param name="FormName">Its name in the form.</param>
/// <param name="Type">What it holds.</param>
/// <param name="Of">The press.</param>
internal sealed record PressField(string Name, string FormName, Type Type, PageAction Of)
{
    /// <summary>Whether it takes several.</summary>
    internal bool IsMany => Type.IsArray;

    /// <summary>Whether it is the id of the press itself.</summary>
    internal bool IsCommand => Name == "command";

    /// <summary>Its name as the page's ids have it.</summary>
    internal string Kebab => string.Concat(Name.Select(c => char.IsUpper(c) ? $"-{char.ToLowerInvariant(c)}" : $"{c}"));

    /// <summary>Its shape in the description.</summary>
    internal IOpenApiSchema Schema => IsMany ? new OpenApiSchema { Type = JsonSchemaType.Array,
        Items = Plain(Type.GetElementType()!, null), Description = PressWords.Of(Of, Name) }
        : Plain(Nullable.GetUnderlyingType(Type) ?? Type, PressWords.Of(Of, Name));

    private static OpenApiSchema Plain(Type type, string? says) => new()
    {
        Description = says,
        Type = type == typeof(bool) ? JsonSchemaType.Boolean : type == typeof(int) || type == typeof(long) ? JsonSchemaType.Integer
            : JsonSchemaType.String,
        Format = type == typeof(Guid) ? "uuid" : null,
        Enum = type == typeof(DayOfWeek) || type.IsEnum ? [.. Enum.GetNames(type).Select(n => (System.Text.Json.Nodes.JsonNode)n)] : null,
    };
}

/// <summary>Reads the fields of a press off its handler: whoever changes the handler changes the form, JSON and the description.</summary>
internal static class PageActionFields
{
    private static readonly ConcurrentDictionary<PageAction, IReadOnlyDictionary<string, PressField>> Known = new();

    /// <summary>The handler.</summary>
    internal static MethodInfo Method(PageAction action) => action.Page.GetMethod($"OnPost{action.Handler}Async")
        ?? action.Page.GetMethod($"OnPost{action.Handler}") ?? throw new InvalidOperationException($"{action.Name} has no handler.");

    /// <summary>Its fields, by their names in JSON.</summary>
    internal static IReadOnlyDictionary<string, PressField> Of(PageAction action) => Known.GetOrAdd(action, a =>
        Method(a).GetParameters().Where(p => !IsOfAddress(a, p) && p.ParameterType != typeof(IFormFile)).SelectMany(p => Fields(a, p))
            .ToDictionary(f => f.Name, StringComparer.Ordinal));

    /// <summary>Whether a field may be there that is named after what it is about.</summary>
    internal static bool MayBeNamed(PageAction action, string name) =>
        action.Page == typeof(Pages.IntakeModel) && name.StartsWith("drop-", StringComparison.Ordinal);

    /// <summary>What a page has to say to a press: everything that it refuses, and what it says was done.</summary>
    internal static (IReadOnlyList<Refusal> Wrong, string Said) Told(object? model)
    {
        var (wrong, said) = (new List<Refusal>(), "");
        foreach (var property in model?.GetType().GetProperties().Where(p => p.GetIndexParameters().Length == 0) ?? [])
            if (typeof(IEnumerable<Refusal>).IsAssignableFrom(property.PropertyType))
                wrong.AddRange((IEnumerable<Refusal>?)property.GetValue(model) ?? []);
            else if (property.Name.EndsWith("Errors", StringComparison.Ordinal) && property.GetValue(model) is IEnumerable lines)
                wrong.AddRange(lines.Cast<object>().Select(l => new Refusal($"{l}", "", Field: "text")));
            else if (property is { Name: "Problem" or "Said" } && property.GetValue(model) is string { Length: > 0 } text)
                if (property.Name == "Said")
                    said = text;
                else
                    wrong.Add(new(text, ""));
        return (wrong, said);
    }

    private static IEnumerable<PressField> Fields(PageAction action, ParameterInfo parameter) => IsPlain(parameter.ParameterType)
        ? [new(parameter.Name!, parameter.Name!, parameter.ParameterType, action)]
        : parameter.ParameterType.GetProperties().Where(p => IsPlain(p.PropertyType))
            .Select(p => new PressField(Small(p.Name), p.Name, p.PropertyType, action));

    private static bool IsPlain(Type type)
    {
        var one = type.IsArray ? type.GetElementType()! : type;
        var plain = Nullable.GetUnderlyingType(one) ?? one;
        return plain == typeof(string) || plain == typeof(Guid) || plain.IsPrimitive || plain.IsEnum;
    }

    private static string Small(string name) => char.ToLowerInvariant(name[0]) + name[1..];

    // A path's own parts are no fields.
    private static bool IsOfAddress(PageAction action, ParameterInfo parameter) =>
        parameter.GetCustomAttribute<FromRouteAttribute>() is not null || action.Page.Name switch
        {
            nameof(Pages.VehicleModel) => parameter.Name == "plate",
            nameof(Pages.BayModel) => parameter.Name == "address",
            nameof(Pages.SampleModel) => parameter.Name == "code",
            nameof(Pages.SheetPageModel) => parameter.Name == "id",
            nameof(Pages.OwnListPageModel) => parameter.Name is "id" or "list",
            nameof(Pages.KitModel) => parameter.Name == "id",
            nameof(Pages.Sheets.DraftModel) => parameter.Name == "n",
            nameof(Pages.Sheets.WordsModel) => parameter.Name is "n" or "language",
            _ => false,
        };
}
