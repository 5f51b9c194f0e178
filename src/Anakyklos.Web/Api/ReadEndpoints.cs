using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Api;

/// <summary>What the pages show, for programs to read.</summary>
internal static class ReadEndpoints
{
    private const int MostFound = 50, MostMoves = 1000, UsualChanges = 500;

    internal static void Map(WebApplication app)
    {
        var api = app.MapGroup("/api/v1").WithMetadata(new ForPrograms(Scope.Read));
        Fleet(api.MapGroup("").WithTags("Vehicles"));
        Stock(api.MapGroup("").WithTags("Stores"));
        Sheets(api.MapGroup("").WithTags("Sheets"));
        api.MapGet("/search", (string? q, SearchStore search) => search.Find((q ?? "").Trim(), MostFound)).WithName("search")
            .WithTags("Search").WithSummary("Looks for whatever was written down: vehicles, parts, batches, cards, words, people");
        api.MapGet("/people", (PeopleStore people) => people.All().Select(p => new PersonView(p.Id, p.Name, p.Role))).WithName("people")
            .WithTags("Workshop").WithSummary("Who works here");
        api.MapGet("/changes", (long? since, int? most, ChangeStore changes) => ChangesView.Of(changes.Since(Math.Max(0, since ?? 0),
            most ?? UsualChanges))).WithName("changes").WithTags("Changes")
            .WithSummary("Everything that happened after a place, the oldest first; ask again from “next”");
        api.MapGet("/changes/stream", (long? since, HttpContext http) => Follow(http, Math.Max(0, since ?? 0))).WithName("followChanges")
            .WithTags("Changes").WithSummary("The same as a stream of server-sent events, whose id is the place to go on from");
    }

    private static void Fleet(RouteGroupBuilder api)
    {
        api.MapGet("/vehicles", (FleetBook fleet) => fleet.ByUrgency().Select(VehicleView.Of)).WithName("vehicles")
            .WithSummary("All vehicles, the most urgent first");
        api.MapGet("/vehicles/{plate}", (string plate, VehicleStore vehicles, DueDesk due, CardStore cards) =>
            vehicles.Find(plate) is { } vehicle ? Results.Ok(VehicleStoryView.Of(vehicle, due.Of(vehicle), cards.OfVehicle(plate)))
                : Missing("vehicle")).WithName("vehicle").Produces<VehicleStoryView>().ProducesProblem(404)
            .WithSummary("A vehicle: its readings, how each of its jobs stands, its cards");
        api.MapGet("/due", (DueDesk due) => due.OfAll().SelectMany(v => v.Items.Where(i => i.IsDue || i.State == Core.Due.DueState.Soon)
            .OrderByDescending(i => i.State).Select(i => DueView.Of(v.Vehicle.Plate, i, v.Now)))).WithName("due")
            .WithSummary("What is due or near, of all vehicles");
        api.MapGet("/week", (WeekDesk weeks) => weeks.Week() is var week
            ? week.Visits.Select(v => VisitView.Of(week, v)) : []).WithName("week").WithSummary("Who comes in the next two weeks");
    }

    private static void Stock(RouteGroupBuilder api)
    {
        api.MapGet("/stores/parts", (ShelfStore shelf, string? q) => shelf.Read().Parts.Where(p => string.IsNullOrWhiteSpace(q)
            || p.Number.Contains(q.Trim(), StringComparison.OrdinalIgnoreCase)
            || p.Name.Contains(q.Trim(), StringComparison.OrdinalIgnoreCase)))
            .WithName("parts").WithSummary("Parts, or those whose number or name has some letters in it");
        api.MapGet("/stores/containers", (ShelfStore shelf) => shelf.Read().Containers.Select(ContainerView.Of)).WithName("containers")
            .WithSummary("Containers of oil and other fluids, with what is left in them");
        api.MapGet("/stores/movements", (ShelfStore shelf, int? most) => shelf.Book(Math.Clamp(most ?? MostMoves, 1, MostMoves)))
            .WithName("movements").WithSummary("What went in and out of the stores, the newest first");
        api.MapGet("/stores/oil-book", (ShelfStore shelf) => shelf.OilBookText() is { } text ? Results.Text(text, "application/json")
            : Missing("oil book")).WithName("oilBook").Produces<object>().ProducesProblem(404).WithSummary("The oil book as it is kept");
    }

    private static void Sheets(RouteGroupBuilder api)
    {
        api.MapGet("/sheets", (SheetStore sheets) => sheets.Newest().Select(s => new SheetView(s.Id, s.FullName, s.Revision,
            sheets.Revisions(s.Id), [.. s.Jobs.Values.Select(j => new JobView(j.Id, j.Name))]))).WithName("sheets")
            .WithSummary("Models in use, with their jobs");
        api.MapGet("/sheets/{id}", (string id, int? revision, SheetStore sheets) => (revision ?? sheets.Newest(id)?.Revision) is { } of
            && sheets.Revisions(id).Contains(of) && sheets.Text(id, of) is { } text
                ? Results.Text(text, "application/json") : Missing("sheet")).WithName("sheet").Produces<object>().ProducesProblem(404)
            .WithSummary("A model sheet as it is kept, byte for byte; the newest revision, or the one asked for");
    }

    private static IResult Missing(string what) => Results.Problem($"There is no such {what}.", statusCode: 404);

    private static IResult Follow(HttpContext http, long since)
    {
        var place = http.RequestServices.GetRequiredService<ScreenStreams>().Take(BrowserSignIn.Session(http.User));
        if (place is null)
            return Results.Problem($"At most {ScreenStreams.Most} streams of one sign-in are open at once. Close some of them.",
                statusCode: StatusCodes.Status429TooManyRequests);
        http.Response.RegisterForDispose(place);
        return TypedResults.ServerSentEvents(Changes(http, since, http.RequestAborted));
    }

    // A beat tells a listener that the line is alive; whoever comes back sends the id that it heard last.
    private static async IAsyncEnumerable<SseItem<object>> Changes(HttpContext http, long since,
        [EnumeratorCancellation] CancellationToken cancel)
    {
        var store = http.RequestServices.GetRequiredService<ChangeStore>();
        var time = http.RequestServices.GetRequiredService<TimeProvider>();
        using var both = CancellationTokenSource.CreateLinkedTokenSource(cancel,
            http.RequestServices.GetRequiredService<IHostApplicationLifetime>().ApplicationStopping);
        if (long.TryParse(http.Request.Headers["Last-Event-ID"], out var heard) && heard > since)
            since = heard;
        while (!both.IsCancellationRequested)
        {
            var (changes, until) = store.Since(since, UsualChanges);
            foreach (var change in changes)
                yield return new(change, "changed") { EventId = $"{change.Id}" };
            if (until > since)
            {
                since = until;
                continue;
            }
            yield return new(new { until }, "beat");
            try
            {
                await Task.Delay(ScreenStreams.Beat, time, both.Token);
            }
            catch (OperationCanceledException)
            {
                yield break;
            }
        }
    }
}
