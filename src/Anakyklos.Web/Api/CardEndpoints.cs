using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Records;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Commands;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Scope = Anakyklos.Core.Workshop.Scope;

namespace Anakyklos.Web.Api;

/// <summary>What the pages do, as JSON. Quantities are texts with their unit; every command carries the client's own id.</summary>
internal static class CardEndpoints
{
    internal static void Describe(OpenApiOptions options) => options.AddDocumentTransformer((document, _, _) =>
    {
        document.Info = new OpenApiInfo { Title = "Anakyklos", Version = "1",
            Description =
            "Service job cards. A program sends a token that the lead made, as a bearer; a page that is signed in sends its cookie and, "
                + "with every POST, the antiforgery token from /api/v1/session as X-Antiforgery. Amounts are texts with their unit." };
        document.Servers = [];
        return Task.CompletedTask;
    });

    internal static void Map(WebApplication app)
    {
        var api = app.MapGroup("/api/v1").WithTags("Cards").AddEndpointFilter(Guard).WithMetadata(new ForPrograms(Scope.Read));
        api.MapGet("/session", (HttpContext context, IAntiforgery antiforgery, Viewer viewer) =>
            new SessionView(viewer.Member!.Id, viewer.Member.Name, viewer.Member.Role,
                antiforgery.GetAndStoreTokens(context).RequestToken!))
            .WithName("session").WithSummary("Who you are, and the antiforgery token for posts");
        api.MapGet("/clock", (WorkshopClock clock, HttpResponse response) =>
        {
            response.Headers.CacheControl = "no-store";
            return new ClockView(clock.Now.ToUnixTimeMilliseconds(), clock.Speed);
        }).WithName("clock").WithSummary("What the workshop's clock says, in milliseconds since 1970, and how fast it goes");
        api.MapGet("/cards", (CardStore cards) => cards.Unsigned()).WithName("openCards").WithSummary("Cards that are not signed");
        api.MapGet("/cards/{id:long}", (long id, CardStore cards) => cards.Find(id) is { } card ? Results.Ok(CardView.Of(id, card))
            : Missing())
            .WithName("card").WithSummary("A card: what is open, what comes next").Produces<CardView>().ProducesProblem(404);
        api.MapGet("/cards/{id:long}/steps", (long id, CardStore cards) => cards.Find(id) is { } card ? Results.Ok(StepView.All(card))
            : Missing())
            .WithName("steps").WithSummary("Its steps in order").Produces<IReadOnlyList<StepView>>().ProducesProblem(404);
        api.MapGet("/cards/{id:long}/events", (long id, int? after, CardStore cards) => cards.Find(id) is { } card
            ? Results.Ok(card.History.Skip(Math.Max(0, after ?? 0))) : Missing())
            .WithName("events")
            .WithSummary("Everything that happened, or what happened after a seq").Produces<IReadOnlyList<Recorded>>().ProducesProblem(404);
        api.MapGet("/cards/{id:long}/record", (long id, CardStore cards) => cards.Find(id) is { } card
            ? Results.Ok(ServiceRecord.Of(card)) : Missing())
            .WithName("record").WithSummary("What the record shows").Produces<ServiceRecord>().ProducesProblem(404);
        api.MapGet("/cards/{id:long}/changes", (long id, CardChanges changes, HttpContext http) =>
            Stream(http, changes.Of(id, http.RequestAborted)))
            .WithName("cardChanges")
            .WithSummary("A stream of the card's last seq whenever it changes, and of how many readings wait in its bay");

        api.MapPost("/cards/{id:long}/commands", Give)
            .WithMetadata(new ForPrograms(Scope.Cards)).WithName("say")
            .WithSummary("Something is said to a card; the description names all that can be")
            .Accepts<JsonElement>("application/json").AddOpenApiOperationTransformer(DescribeCommands)
            .Produces<CommandView>()
            .ProducesProblem(400).ProducesProblem(403).ProducesProblem(404).ProducesProblem(409).ProducesProblem(422);
    }

    /// <summary>A stream to a screen, unless its session has too many already.</summary>
    internal static IResult Stream(HttpContext http, IAsyncEnumerable<System.Net.ServerSentEvents.SseItem<int>> items)
    {
        var streams = http.RequestServices.GetRequiredService<ScreenStreams>();
        if (streams.Take(BrowserSignIn.Session(http.User)) is not { } place)
            return Results.Problem($"At most {ScreenStreams.Most} screens of one sign-in are told of changes. Close some of them.",
                statusCode: StatusCodes.Status429TooManyRequests);
        http.Response.RegisterForDispose(place);
        return TypedResults.ServerSentEvents(items);
    }

    private static Task DescribeCommands(OpenApiOperation operation, OpenApiOperationTransformerContext context, CancellationToken cancel)
    {
        operation.RequestBody = new OpenApiRequestBody
        {
            Required = true,
            Content = new Dictionary<string, OpenApiMediaType> { ["application/json"] = new() { Schema = CommandSchema.Body() } },
        };
        return Task.CompletedTask;
    }

    private static async Task<IResult> Give(long id, JsonElement body, CardStore cards, Viewer viewer, WorkshopClock clock,
        PersonBehind behind, BrowserSignIn browser, HttpContext http)
    {
        if (body.ValueKind != JsonValueKind.Object || !body.TryGetProperty("command", out var own)
            || own.ValueKind != JsonValueKind.String || !own.TryGetGuid(out var command) || command == Guid.Empty)
            return Results.Problem("Give every command an id of its own.", statusCode: 400);
        var name = body.TryGetProperty("say", out var say) && say.ValueKind == JsonValueKind.String ? say.GetString() : null;
        var fields = new JsonFields(body);
        var wanted = CommandBook.Read(name, fields, out var problems);
        if (CommandBook.Find(name) is { } known)
            problems = [.. problems, .. fields.Unknown(known, known.WantsPin ? ["command", "say", "who", "pin"] : ["command", "say"])];
        if (wanted is null || problems.Count > 0)
            return Answer(new Refused(problems));
        var by = viewer.Member!.Person;
        if (CommandBook.Find(name) is { WantsPin: true } && cards.Find(id) is { } card)
        {
            var (proved, not) = await behind.Of(card, wanted, by, Text(body, "who"), Text(body, "pin"),
                person => browser.Place(http, person));
            if (proved is null)
                return Answer(new Refused(not));
            by = proved;
        }
        return await cards.Handle(id, command, wanted, by, clock.Now) is { } answer ? Answer(answer) : Missing();
    }

    private static string? Text(JsonElement body, string name) =>
        body.TryGetProperty(name, out var text) && text.ValueKind == JsonValueKind.String ? text.GetString() : null;

    private static IResult Answer(CardAnswer answer) => answer.Decision is Accepted
        ? Results.Ok(new CommandView(answer.Card.History.Count, answer.Repeated, answer.Card.Next?.Id)) : Answer(answer.Decision);

    private static IResult Answer(Decision decision) => decision switch
    {
        Asked asked => Results.Problem(asked.Question.Text, statusCode: 409, title: "A question first", extensions: new Dictionary<string,
            object?>
        {
            ["question"] = asked.Question switch
            {
                UnitQuestion q => new { kind = "unit", asTyped = $"{q.AsTyped}", perhapsMeant = $"{q.PerhapsMeant}" },
                PourQuestion q => (object)new { kind = "pour", amount = $"{q.Amount}" },
                _ => null,
            },
        }),
        Refused refused => Results.Problem(string.Join(" ", refused.Reasons),
            statusCode: refused.IsForRole ? 403 : refused.Reasons.Any(r => r.Field is not null) ? 422 : 409, title: "Not yet",
            extensions: new Dictionary<string, object?> { ["reasons"] = refused.Reasons }),
        _ => Results.Problem(statusCode: 500),
    };

    private static IResult Missing() => Results.Problem("There is no such card.", statusCode: 404);

    private static async ValueTask<object?> Guard(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var http = context.HttpContext;
        if (http.RequestServices.GetRequiredService<Viewer>().Member is null)
            return Results.Problem("Sign in first.", statusCode: 401);
        if (HttpMethods.IsPost(http.Request.Method)
            && !await http.RequestServices.GetRequiredService<RememberedAntiforgery>().IsValid(http))
            return Results.Problem("The antiforgery token is missing or old. Get one from /api/v1/session and send it as X-Antiforgery.",
                statusCode: 400);
        return await next(context);
    }
}
