using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Coaches;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Pages;

/// <summary>The yard: open cards as rings, and the vehicles.</summary>
public sealed class IndexModel(YardDesk yard, FileWatch file, FirstHour hour, GuidedCard guide, Viewer viewer,
    WorkshopClock clock) : PageModel
{
    public sealed record OpenCard(CardEntry Entry, JobCard Card, string Next, string Where, IReadOnlyList<RunningWait> Waits, bool IsReady)
    {
        public string Link => Card.Awaited.Count > 0 ? $"/kit/{Entry.Id}" : Card.Next is null ? $"/handover/{Entry.Id}"
            : $"/lift/{Entry.Id}";
    }

    public sealed record SignedCard(CardEntry Entry, RingDrawing Ring, string Jobs);

    public sealed record VehicleRow(Vehicle Vehicle, string Model, FleetRow Standing, UseMark Now, bool IsHere);

    /// <summary>What is wrong with the workshop's file or its copies, told to whoever leads.</summary>
    public IReadOnlyList<string> Troubles => viewer.Member?.Role == Role.Lead ? file.Troubles : [];

    /// <summary>What the first hour still asks for, told to whoever leads.</summary>
    public IReadOnlyList<HourStage> Asked { get; } = viewer.Member?.Role == Role.Lead ? hour.Asked() : [];

    public string WorkshopName { get; private set; } = "";
    public IReadOnlyList<OpenCard> Open { get; private set; } = [];
    public IReadOnlyList<SignedCard> Signed { get; private set; } = [];
    public IReadOnlyList<VehicleRow> Vehicles { get; private set; } = [];

    /// <summary>What the laboratory answered and nobody took note of yet.</summary>
    public IReadOnlyList<SampleEntry> Answers { get; private set; } = [];

    /// <summary>Which page of the vehicles is shown, of how many, and how many vehicles there are.</summary>
    public (int At, int Of, int Count) Pages { get; private set; }

    public void OnGet(int at = 1)
    {
        var now = yard.Look(at);
        Pages = (now.Page, now.Pages, now.Count);
        WorkshopName = now.Name;
        Answers = now.Answers;
        Open = [.. now.Open.Select(o => new OpenCard(o.Entry, o.Card,
            o.Card.Next is { } next ? o.Card.TitleOf(next) : "Everything is done", Where(o.Card),
            [.. o.Card.Waits.Where(w => w.Until > clock.Now)], !o.Card.BeforeSigning().Any()))];
        var here = now.Open.Select(o => o.Entry.Plate).ToHashSet();
        Vehicles = [.. now.Vehicles.Select(v => new VehicleRow(v.Vehicle, v.Model, v.Standing, v.Now, here.Contains(v.Vehicle.Plate)))];
        Signed = [.. now.Signed.Select(s => new SignedCard(s.Entry, RingDrawing.Of(s.Card),
            CardLine.Jobs(s.Card)))];
    }

    /// <summary>Whether a first card is offered to whoever tries things here.</summary>
    public bool IsGuided => guide.IsOffered && viewer.Member?.Person.WorksOnCards == true;

    public async Task<IActionResult> OnPostGuideAsync()
    {
        if (!guide.IsOffered)
            return NotFound();
        if (viewer.Member?.Person is not { WorksOnCards: true } by)
            return Forbid();
        return Redirect(await guide.Begin(HttpContext, by) is { } card ? $"/lift/{card}" : "/intake");
    }

    private static string Where(JobCard card)
    {
        var done = card.Steps.Count(s => card.State(s.Id).Status is StepStatus.Done or StepStatus.LeftOut);
        return $"{card.History[^1].By.Name}, {(card.Next is { } next ? LiftWords.Place(next.Place) + ", " : "")}{done} of "
            + $"{card.Steps.Count}";
    }
}
