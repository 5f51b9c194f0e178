using System.Collections;
using System.Text.Json;
using System.Text.Json.Serialization;
using Anakyklos.Core.Wording;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.ApplicationModels;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.Primitives;

namespace Anakyklos.Web.Api;

/// <summary>What a press of a page answers to a program.</summary>
/// <param name="At">The page on which what came of it is seen.</param>
/// <param name="Said">What the page says of it; null for nothing.</param>
/// <param name="Card">The card that it leads to; null for none.</param>
/// <param name="Repeated">It was carried out before, and is not carried out again.</param>
public sealed record PressView(string At, string? Said, long? Card, bool Repeated);

/// <summary>Lets programs make the presses of pages: JSON comes in as the form would, and what the page would show goes out as
/// JSON.</summary>
internal static class PageActionAnswers
{
    private const string Own = "command";
    private const int Longest = 6_000_000;

    /// <summary>Gives each page the addresses of its presses.</summary>
    internal static void AddRoutes(PageRouteModel page)
    {
        var template = page.Selectors[0].AttributeRouteModel!.Template!.TrimStart('/');
        foreach (var action in PageActions.All.Where(a => a.View == page.ViewEnginePath))
            page.Selectors.Add(new SelectorModel
            {
                AttributeRouteModel = new() { Template = $"/api/v1/{(action.Ending.Length == 0 ? template
                    : template.Replace("?}", "}", StringComparison.Ordinal))}{action.Ending}", SuppressLinkGeneration = true },
                EndpointMetadata = { action, new ForPrograms(action.Scope), new HttpMethodMetadata([HttpMethods.Post]) },
            });
    }

    /// <summary>Takes JSON in where a form would come.</summary>
    internal static async Task TakeIn(HttpContext context, RequestDelegate next)
    {
        if (context.GetEndpoint()?.Metadata.GetMetadata<PageAction>() is not { } action)
        {
            await next(context);
            return;
        }
        context.Request.RouteValues["handler"] = action.Handler;
        if (!context.Request.HasJsonContentType())
        {
            await Results.Problem("Send a JSON object as application/json.", statusCode: 415).ExecuteAsync(context);
            return;
        }
        var (form, wrong) = await Read(context, action);
        if (form is null)
        {
            await Problem(wrong, StatusCodes.Status422UnprocessableEntity).ExecuteAsync(context);
            return;
        }
        context.Features.Set<IFormFeature>(new FormFeature(form));
        await next(context);
    }

    /// <summary>A refusal as programs get it: its words, and the field that it is about.</summary>
    internal static IResult Problem(IReadOnlyList<Refusal> reasons, int status) => Results.Problem(string.Join(" ", reasons),
        statusCode: status, title: "Not yet", extensions: new Dictionary<string, object?> { ["reasons"] = reasons });

    private static async Task<(FormCollection? Form, IReadOnlyList<Refusal> Wrong)> Read(HttpContext context, PageAction action)
    {
        JsonDocument document;
        try
        {
            using var memory = new MemoryStream();
            await context.Request.Body.CopyToAsync(memory, context.RequestAborted);
            if (memory.Length > Longest)
                return (null, [new("That is too long.", "Send less at once.")]);
            document = JsonDocument.Parse(memory.ToArray());
        }
        catch (JsonException)
        {
            return (null, [new("That is no JSON.", "Send an object with the fields of this press.")]);
        }
        using (document)
        {
            if (document.RootElement.ValueKind != JsonValueKind.Object)
                return (null, [new("That is no object.", "Send an object with the fields of this press.")]);
            if (!document.RootElement.TryGetProperty(Own, out var own) || own.ValueKind != JsonValueKind.String
                || !own.TryGetGuid(out var id) || id == Guid.Empty)
                return (null, [new("Give every press an id of its own.", "A UUID; sent twice, it is carried out once.", Field: Own)]);
            var fields = PageActionFields.Of(action);
            var (values, wrong) = (new Dictionary<string, StringValues>(StringComparer.OrdinalIgnoreCase), new List<Refusal>());
            foreach (var property in document.RootElement.EnumerateObject().Where(p => p.Name != Own))
                if (!fields.TryGetValue(property.Name, out var field) && !PageActionFields.MayBeNamed(action, property.Name))
                    wrong.Add(new($"“{action.Name}” has no field “{(property.Name.Length > 40 ? property.Name[..40] : property.Name)}”.",
                        "Look at the description, and leave it away.", Field: property.Name));
                else if (Texts(property.Value, field?.IsMany == true) is { } texts)
                    values[field?.FormName ?? property.Name] = texts;
                else if (property.Value.ValueKind != JsonValueKind.Null)
                    wrong.Add(new($"“{property.Name}” is of the wrong shape.", "Look at the description.", Field: property.Name));
            values[fields.Values.FirstOrDefault(f => f.IsCommand)?.FormName ?? SentForms.Id] = id.ToString();
            return wrong.Count > 0 ? (null, wrong) : (new(values), []);
        }
    }

    private static StringValues? Texts(JsonElement value, bool isMany) => (value.ValueKind, isMany) switch
    {
        (JsonValueKind.Array, true) when value.EnumerateArray().All(v => Text(v) is not null) =>
            new([.. value.EnumerateArray().Select(Text)]),
        (_, false) when Text(value) is { } text => new(text),
        _ => null,
    };

    private static string? Text(JsonElement value) => value.ValueKind switch
    {
        JsonValueKind.String => value.GetString(),
        JsonValueKind.Number => value.GetRawText(),
        JsonValueKind.True => "true",
        JsonValueKind.False => "false",
        _ => null,
    };
}

/// <summary>Answers a press that a program made.</summary>
internal sealed class PageActionResults : IAsyncPageFilter, IAsyncResultFilter
{
    public Task OnPageHandlerSelectionAsync(PageHandlerSelectedContext context) => Task.CompletedTask;

    public async Task OnPageHandlerExecutionAsync(PageHandlerExecutingContext context, PageHandlerExecutionDelegate next)
    {
        // What a form could never send is told at once; a page takes what is no number for nothing.
        if (Of(context.HttpContext) is not null && !context.ModelState.IsValid)
        {
            context.HttpContext.Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            context.Result = new Told(PageActionAnswers.Problem([.. context.ModelState.Where(m => m.Value?.Errors.Count > 0)
                .Select(m => new Refusal($"“{m.Key}” is missing, or of the wrong shape.", "Look at the description.", Field: m.Key))],
                StatusCodes.Status422UnprocessableEntity));
            return;
        }
        await next();
    }

    public async Task OnResultExecutionAsync(ResultExecutingContext context, ResultExecutionDelegate next)
    {
        if (Of(context.HttpContext) is { } action && context.Result is not Told)
            context.Result = new Told(Answer(context, action));
        await next();
    }

    private static PageAction? Of(HttpContext http) => http.GetEndpoint()?.Metadata.GetMetadata<PageAction>();

    private static IResult Answer(ResultExecutingContext context, PageAction action)
    {
        var http = context.HttpContext;
        switch (context.Result)
        {
            case RedirectToPageResult redirect:
                var link = http.RequestServices.GetRequiredService<LinkGenerator>();
                return Done(link.GetPathByPage(http, redirect.PageName, redirect.PageHandler, redirect.RouteValues) ?? "/",
                    redirect.RouteValues?.GetValueOrDefault("said") as string);
            case RedirectResult { Url: var url }:
                return url.StartsWith("/api/", StringComparison.Ordinal) ? Results.Ok(new PressView("", null, null, true))
                    : Done(url, null);
            case ForbidResult:
                return Results.Problem("That is not yours to do.", statusCode: 403);
            case StatusCodeResult { StatusCode: var status }:
                return Results.Problem(status == 404 ? "There is no such thing." : status == 409 ? "It was begun before and nobody knows "
                    + "what became of it. Look, and send it with another id." : null, statusCode: status);
            case PageResult:
                var (wrong, said) = PageActionFields.Told(context.Controller);
                var code = http.Response.StatusCode;
                return wrong.Count > 0 || code >= 400
                    ? PageActionAnswers.Problem([.. wrong.Select(w => w with { Field = Named(action, w) })],
                        code >= 400 ? code : StatusCodes.Status422UnprocessableEntity)
                    : Results.Ok(new PressView("", said.Length > 0 ? said : null, null, false));
            default:
                return Results.Problem(statusCode: 500);
        }
    }

    private static IResult Done(string at, string? said) => Results.Ok(new PressView(at, said,
        at.Split('/', '?', '#') is ["", "lift", var card, ..] && long.TryParse(card, out var number) ? number : null, false));

    // On a page the form's name stands before the field's.
    private static string? Named(PageAction action, Refusal refusal) => refusal.Field is { } field
        ? PageActionFields.Of(action).Keys.FirstOrDefault(f => f == field) ?? PageActionFields.Of(action)
            .Where(f => field.EndsWith($"-{f.Key}", StringComparison.Ordinal)
                || field.EndsWith($"-{f.Value.Kebab}", StringComparison.Ordinal) || field == f.Value.Kebab)
            .Select(f => f.Key).FirstOrDefault() ?? field : null;

    private sealed class Told(IResult result) : IActionResult
    {
        public Task ExecuteResultAsync(ActionContext context) => result.ExecuteAsync(context.HttpContext);
    }
}
