using System.Text;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Api;

/// <summary>What the workshop gives away as open files: calendars, history, the stores' book, the fleet.</summary>
internal static class FileEndpoints
{
    internal static void Map(WebApplication app)
    {
        var files = app.MapGroup("/files").WithTags("Files").WithMetadata(new ForPrograms(Scope.Read)).AddEndpointFilter(Note);
        app.MapGet("/calendar/{key}/fleet.ics", (string key, CalendarDesk desk, HttpRequest request) => Calendar(desk, key, null, request))
            .AllowAnonymous().WithTags("Files").WithName("fleetCalendar").WithSummary("What falls due of all vehicles, as iCalendar");
        app.MapGet("/calendar/{key}/week.ics", (string key, CalendarDesk desk, HttpRequest request) => desk.IsKey(key)
            ? Ics(desk.WriteWeek(p => $"{request.Scheme}://{request.Host}/week/{Uri.EscapeDataString(p)}")) : Results.NotFound())
            .AllowAnonymous().WithTags("Files").WithName("weekCalendar").WithSummary("Who comes to the workshop when, as iCalendar");
        app.MapGet("/calendar/{key}/{plate}.ics", (string key, string plate, CalendarDesk desk, HttpRequest request) =>
            Calendar(desk, key, plate, request))
            .AllowAnonymous().WithTags("Files").WithName("vehicleCalendar").WithSummary("What falls due of a vehicle, as iCalendar");
        files.MapGet("/history.csv", (CardStore cards, RecordDesk records, WorkshopClock clock, string? plate) => Csv("history",
            HistoryFile.Write((plate is null ? cards.LastSigned(int.MaxValue) : cards.OfVehicle(plate))
                .Select(e => new CardAtHand(e, cards.Find(e.Id)!)), clock.Local, id => records.Hash(id))))
            .WithName("historyFile").WithSummary("A row a job of every signed card, of all vehicles or of one");
        files.MapGet("/movements.csv", (ShelfStore shelf, PeopleStore people, WorkshopClock clock) => Csv("movements",
            StockFiles.Moves(shelf.Book(int.MaxValue), id => people.Find(id.Text)?.Name ?? id.Text, clock.Local)))
            .WithName("movementsFile").WithSummary("What went in and out of the stores");
        files.MapGet("/used-oil.csv", (DrumDesk desk, PeopleStore people) => Csv("used-oil",
            desk.Write(id => people.Find(id.Text)?.Name ?? id.Text)))
            .WithName("usedOilFile").WithSummary("What went into the drums and was taken away");
        app.MapGet("/files/coming/{id:guid}", (Guid id, ComingFiles coming, Viewer viewer) => coming.Of(viewer.Member!.Id, id) is { } at
            ? Results.Ok(new ComingView($"{at.Stage}".ToLowerInvariant(), at.Done, at.Of)) : Results.NoContent())
            .WithTags("Files").WithMetadata(new ForPrograms(Scope.Read)).Produces<ComingView>().Produces(StatusCodes.Status204NoContent)
            .WithName("comingFile").WithSummary("How far a file is that is being brought in, by the id of its press");
        files.MapGet("/vehicles.csv", (VehicleStore vehicles, WorkshopClock clock) => Csv("vehicles", vehicles.Odometers() is var read
            ? FleetFile.Write(vehicles.All().Select(v => (v, (IReadOnlyList<OdometerReading>)[.. read[v.Plate]])), clock) : ""))
            .WithName("vehiclesFile").WithSummary("The vehicles with their readings, as they are brought in");
    }

    /// <summary>How far a file is that whoever asks is bringing in.</summary>
    /// <param name="Stage">read, compared or kept.</param>
    /// <param name="Done">How many rows, vehicles or readings that was done with.</param>
    /// <param name="Of">How many there are; 0 until that is known.</param>
    public sealed record ComingView(string Stage, int Done, int Of);

    // Whoever takes a file out of the workshop is named in its trail.
    private static async ValueTask<object?> Note(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var http = context.HttpContext;
        var file = await next(context);
        await http.RequestServices.GetRequiredService<TrailStore>().Note(http.RequestServices.GetRequiredService<Viewer>().Member!.Id.Text,
            "taken out", $"{http.Request.Path}{http.Request.QueryString}", http.RequestServices.GetRequiredService<WorkshopClock>().Now);
        return file;
    }

    // A wrong key is no different from an address that does not exist.
    private static IResult Calendar(CalendarDesk desk, string key, string? plate, HttpRequest request) => desk.IsKey(key)
        && desk.Write(plate, p => $"{request.Scheme}://{request.Host}/vehicle/{Uri.EscapeDataString(p)}") is { } calendar
        ? Ics(calendar) : Results.NotFound();

    private static IResult Ics(string calendar) => Results.Text(calendar, "text/calendar", Encoding.UTF8);

    private static IResult Csv(string name, string text) => Results.File(Encoding.UTF8.GetBytes(text), "text/csv", $"{name}.csv");
}
