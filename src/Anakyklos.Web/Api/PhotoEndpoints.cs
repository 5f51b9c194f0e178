using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Api;

/// <summary>Pictures of what was seen: in as they come, out as they were drawn anew.</summary>
internal static class PhotoEndpoints
{
    internal static void Map(WebApplication app)
    {
        app.MapGet("/photos/{id}", (string id, PhotoStore photos, HttpResponse response) =>
        {
            if (photos.Find(id) is not { } content)
                return Results.NotFound();
            response.Headers.CacheControl = "private, max-age=31536000, immutable";
            return Results.Bytes(content, "image/jpeg");
        }).ExcludeFromDescription();
        app.MapPost("/api/v1/cards/{id:long}/photos", Take).DisableAntiforgery().WithTags("Cards").WithName("photo")
            .WithMetadata(new ForPrograms(Scope.Cards))
            .WithSummary("A picture is brought in for a card: its id goes with what was seen")
            .Accepts<byte[]>("image/jpeg", "image/png", "image/webp").ProducesProblem(404).ProducesProblem(413).ProducesProblem(422);
    }

    private static async Task<IResult> Take(long id, HttpRequest request, PhotoDesk desk, CardStore cards, Viewer viewer,
        RememberedAntiforgery antiforgery)
    {
        if (!await antiforgery.IsValid(request.HttpContext))
            return Results.Problem("The antiforgery token is missing or old. Get one from /api/v1/session and send it as X-Antiforgery.",
                statusCode: 400);
        if (cards.Entry(id) is null)
            return Results.Problem("There is no such card.", statusCode: 404);
        var file = await PhotoDesk.Read(request.Body, request.ContentLength);
        var (photo, wrong) = await desk.TakeIn(id, file, viewer.Member!.Person);
        return photo is not null ? Results.Json(new { photo }, statusCode: 201)
            : Results.Problem($"{wrong}", statusCode: file.Length > PhotoDesk.LargestFile ? 413 : wrong!.Field is null ? 403 : 422);
    }
}
