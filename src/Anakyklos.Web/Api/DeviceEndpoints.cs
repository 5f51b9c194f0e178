using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Api;

/// <summary>Where devices send what they measured. They have a key in place of a person.</summary>
internal static class DeviceEndpoints
{
    private const string Lines = "application/x-ndjson";
    private const string Bearer = "Bearer ";

    internal static void Map(WebApplication app)
    {
        app.MapPost("/api/v1/devices", Hear).AllowAnonymous().WithTags("Devices")
            .WithName("devices").WithSummary("A device says hello and sends readings, a line of JSON each; see docs/devices.md")
            .Produces<string>(200, Lines).ProducesProblem(401).ProducesProblem(413).ProducesProblem(415);
        app.MapGet("/api/v1/bays/{address}/changes", (string address, BayChanges changes, SettingStore settings, HttpContext http) =>
            settings.Read().Bays.At(address) is { } bay ? CardEndpoints.Stream(http, changes.Of(bay, http.RequestAborted))
                : Results.Problem("There is no such bay.", statusCode: 404))
            .WithTags("Devices").WithName("bayChanges").WithMetadata(new ForPrograms(Core.Workshop.Scope.Read))
            .WithSummary("A stream that tells when something changes in a bay");
    }

    private static async Task<IResult> Hear(HttpRequest request, DeviceProtocol protocol)
    {
        if (request.ContentType?.StartsWith(Lines, StringComparison.OrdinalIgnoreCase) != true)
            return Results.Problem($"Send lines of JSON as {Lines}.", statusCode: 415);
        // Four bytes are the most that a character takes.
        if (request.ContentLength > DeviceProtocol.Longest * 4)
            return Results.Problem("Too much at once: at most 64 kB.", statusCode: 413);
        var text = new char[DeviceProtocol.Longest + 1];
        using var reader = new StreamReader(request.Body);
        var length = await reader.ReadBlockAsync(text);
        if (length > DeviceProtocol.Longest)
            return Results.Problem("Too much at once: at most 64 kB.", statusCode: 413);
        string? sent = request.Headers.Authorization;
        var key = sent?.StartsWith(Bearer, StringComparison.OrdinalIgnoreCase) == true ? sent[Bearer.Length..].Trim() : null;
        var (isKnown, lines) = await protocol.Answer(key, new string(text, 0, length));
        return Results.Text(lines, Lines, statusCode: isKnown ? 200 : 401);
    }
}
