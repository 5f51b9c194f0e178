using Anakyklos.Core.Cards;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Paper;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Languages;
using Anakyklos.Web.Papers;
using Microsoft.AspNetCore.Antiforgery;

namespace Anakyklos.Web.Api;

/// <summary>What leaves a card as a file: the record as PDF and JSON, the label as SVG and PDF.</summary>
internal static class PaperEndpoints
{
    internal static void Map(WebApplication app)
    {
        var record = app.MapGroup("/record/{id:long}").WithTags("Records");
        record.MapGet("/record.pdf", (long id, CardStore cards, RecordDesk desk, PhotoStore photos, SettingStore settings,
            WorkshopClock clock, Viewer viewer, WorkshopWords words) => cards.Find(id) is { } card
            ? Results.File(RecordPaper.Of(card, new(settings.Read().Name, id, desk.Hash(id),
                card.Signature is { } signed ? desk.Hash(id, signed.Seq) : "", clock.Local, photos.Find), viewer, clock.Now,
                words.Speaker()), "application/pdf", fileDownloadName: null) : Results.NotFound())
            .WithMetadata(new ForPrograms(Scope.Read)).WithName("recordPdf")
            .WithSummary("The record as PDF, in the reader's units and language");
        record.MapGet("/record.json", (long id, RecordDesk desk) => desk.Write(id) is { } json
            ? Results.File(System.Text.Encoding.UTF8.GetBytes(json), "application/json", $"record-{id}.json") : Results.NotFound())
            .WithMetadata(new ForPrograms(Scope.Read)).WithName("recordFile")
            .WithSummary("The signed record as JSON, which another workshop verifies (docs/record.md)");
        record.MapGet("/label.svg", (long id, CardStore cards, SettingStore settings, WorkshopClock clock, Viewer viewer,
            HttpRequest request, WorkshopWords words) => Labelled(cards.Find(id)) is { } card
            ? Results.Content(LabelPaper.Of(card, settings.Read().Name, clock.Now, viewer.DistanceUnit, Page(request, card),
                words.Speaker()).Svg(), "image/svg+xml") : Results.NotFound())
            .WithMetadata(new ForPrograms(Scope.Read)).WithName("labelSvg").WithSummary("The label for the windscreen as SVG, 62 mm wide");
        record.MapGet("/label.pdf", (long id, CardStore cards, SettingStore settings, WorkshopClock clock, Viewer viewer,
            HttpRequest request, WorkshopWords words) => Labelled(cards.Find(id)) is { } card
            ? Results.File(LabelPaper.Of(card, settings.Read().Name, clock.Now, viewer.DistanceUnit, Page(request, card),
                words.Speaker()).Pdf(clock.Now), "application/pdf") : Results.NotFound())
            .WithMetadata(new ForPrograms(Scope.Read)).WithName("labelPdf").WithSummary("The label for the windscreen as PDF, 62 mm wide");
        record.MapPost("/label", Print).DisableAntiforgery().ExcludeFromDescription();
    }

    // A printer asks of itself; the one of the demo is asked at once.
    private static async Task<IResult> Print(long id, CardStore cards, SettingStore settings, LabelDesk desk, WorkshopClock clock,
        Viewer viewer, DemoLabelPrinter printer, IAntiforgery antiforgery, HttpContext http, WorkshopWords words)
    {
        if (!await antiforgery.IsRequestValidAsync(http))
            return Results.Problem("This form is too old to be sent. Load the page again; nothing was printed.", statusCode: 400);
        if (Labelled(cards.Find(id)) is not { } card)
            return Results.NotFound();
        var label = LabelPaper.Of(card, settings.Read().Name, clock.Now, viewer.DistanceUnit, Page(http.Request, card), words.Speaker());
        if (await desk.Send(id, viewer.Member!.Person, (label.Svg(), WindscreenLabel.Width, label.Length)) is { } wrong)
            return Results.Problem($"{wrong}", statusCode: 409);
        await printer.Work();
        return Results.Redirect(card.Ended is null ? $"/lift/{id}" : $"/record/{id}");
    }

    // A card that came to nothing has no label.
    private static JobCard? Labelled(JobCard? card) => card?.Voided is null ? card : null;

    private static string Page(HttpRequest request, JobCard card) =>
        $"{request.Scheme}://{request.Host}/vehicle/{Uri.EscapeDataString(card.Opened.Plate)}";
}
