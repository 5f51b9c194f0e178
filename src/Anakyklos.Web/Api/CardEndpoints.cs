using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Anakyklos.Web.Api;

/// <summary>What the pages do, as JSON. Quantities are texts with their unit; every command carries the client's own id.</summary>
internal static class CardEndpoints
{
    internal static void Describe(OpenApiOptions options) => options.AddDocumentTransformer((document, _, _) =>
    {
        document.Info = new OpenApiInfo { Title = "Anakyklos", Version = "1",
            Description =
            "Service job cards. Sign in through the pages; get the antiforgery token from /api/v1/session and send it back as "
                + "X-Antiforgery with every POST." };
        document.Servers = [];
        return Task.CompletedTask;
    });

    internal static void Map(WebApplication app)
    {
        var api = app.MapGroup("/api/v1").WithTags("Cards").AddEndpointFilter(Guard);
        api.MapGet("/session", (HttpContext context, IAntiforgery antiforgery, Viewer viewer) =>
            new SessionView(viewer.Member!.Id, viewer.Member.Name, viewer.Member.Role,
                antiforgery.GetAndStoreTokens(context).RequestToken!)).WithSummary("Who you are, and the antiforgery token for posts");
        api.MapGet("/cards", (CardStore cards) => cards.Unsigned()).WithSummary("Cards that are not signed");
        api.MapGet("/cards/{id:long}", (long id, CardStore cards) => cards.Find(id) is { } card ? Results.Ok(CardView.Of(id, card))
            : Missing())
            .WithSummary("A card: what is open, what comes next").Produces<CardView>().ProducesProblem(404);
        api.MapGet("/cards/{id:long}/steps", (long id, CardStore cards) => cards.Find(id) is { } card ? Results.Ok(StepView.All(card))
            : Missing())
            .WithSummary("Its steps in order").Produces<IReadOnlyList<StepView>>().ProducesProblem(404);
        api.MapGet("/cards/{id:long}/events", (long id, CardStore cards) => cards.Find(id) is { } card ? Results.Ok(card.History)
            : Missing())
            .WithSummary("Everything that happened").Produces<IReadOnlyList<Recorded>>().ProducesProblem(404);
        api.MapGet("/cards/{id:long}/changes", (long id, CardChanges changes, CancellationToken cancel) =>
            TypedResults.ServerSentEvents(changes.Of(id, cancel), "changed"))
            .WithSummary("A stream of the card's last seq whenever it changes");

        Post<StepBody>(api, "/steps/{step}/done", "A step is done", (body, step) => new ConfirmStep(step, body.Count, body.Reason ?? ""));
        Post<KitBody>(api, "/steps/{step}/kit", "Parts, pan and oil are laid out", (body, step) =>
            new ConfirmKit(step, body.Parts ?? new Dictionary<string, KitPart>(),
            body.Pans ?? (body.Pan is { } pan ? [pan] : []), body.Oils ?? new Dictionary<string, OilLaidOut>()));
        Post<ReadingBody>(api, "/steps/{step}/readings", "A torque was read",
            (body, step) => new TakeReading(step, body.Torque, body.UnitIsMeant));
        Post<PourBody>(api, "/steps/{step}/pours", "An amount went in", (body, step) => new Pour(step, body.Amount, body.WarningSeen));
        Post<LevelBody>(api, "/steps/{step}/levels", "The dipstick was read",
            (body, step) => new ReadGauge(step, new Level(body.Fraction)));
        Post<ReasonBody>(api, "/steps/{step}/aside", "A step is left for later", (body, step) => new PutAside(step, body.Reason ?? ""));
        Post<PourBody>(api, "/steps/{step}/measures", "What came out was measured", (body, step) => new Measure(step, body.Amount));
        Post<SignBody>(api, "/steps/{step}/early", "A step is taken before its turn", (_, step) => new TakeEarly(step));
        Post<SignBody>(api, "/order", "What is left is put in its best order from here", (_, _) => new OrderAgain());
        Post<FindingBody>(api, "/steps/{step}/findings", "Something was seen", (body, step) =>
            new NoteFinding(step, body.Grade, body.Text ?? ""));
        Post<TakeBackBody>(api, "/take-back", "What you pressed last is taken back", (body, _) => new TakeBack(body.Of));
        Post<ReasonBody>(api, "/jobs/{step}/given-up", "A job cannot be finished and is given up", (body, job) =>
            new DropJob(job, body.Reason ?? ""));
        Post<ReasonBody>(api, "/void", "Nothing was opened: the card is made void", (body, _) => new VoidCard(body.Reason ?? ""));
        Post<DecisionBody>(api, "/decisions", "The lead decides about a finding graded stop", (body, _) =>
            new DecideStop(body.Of, body.Mended, body.Words ?? ""));
        Post<SignBody>(api, "/signature", "The card is signed", (_, _) => new Sign());
    }

    private static void Post<TBody>(RouteGroupBuilder api, string path, string summary, Func<TBody, string,
        CardCommand> command) where TBody : ICommandBody =>
        api.MapPost("/cards/{id:long}" + path, async (long id, string? step, TBody body, CardStore cards, Viewer viewer,
            WorkshopClock clock) =>
        {
            if (body.Command == Guid.Empty)
                return Results.Problem("Give every command an id of its own.", statusCode: 400);
            return await cards.Handle(id, body.Command, command(body, step ?? ""), viewer.Member!.Person, clock.Now) is { } answer
                ? Answer(answer) : Missing();
        }).WithSummary(summary).Produces<CommandView>().ProducesProblem(400).ProducesProblem(404).ProducesProblem(409).ProducesProblem(422);

    private static IResult Answer(CardAnswer answer) => answer.Decision switch
    {
        Accepted => Results.Ok(new CommandView(answer.Card.History.Count, answer.Repeated, answer.Card.Next?.Id)),
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
            statusCode: refused.Reasons.Any(r => r.Field is not null) ? 422 : 409, title: "Not yet",
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
