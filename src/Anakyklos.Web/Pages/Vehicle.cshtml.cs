using Anakyklos.Core.Balance;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Coaches;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Wording;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Mvc;

namespace Anakyklos.Web.Pages;

/// <summary>A vehicle and its services.</summary>
public sealed class VehicleModel(VehicleDesk desk, SettingDesk setting, CalendarDesk calendars, BroughtRecordStore brought,
    VehicleTrail trail, RecommendationDesk recommendations, WorkshopClock clock, Viewer viewer) : PageModel
{
    public sealed record Service(CardNumber Card, string Day, string Odometer, string Jobs, string Filled, string By, RingDrawing Ring,
        IReadOnlyList<string> Deviations);

    public VehicleStory Story { get; private set; } = null!;
    public Vehicle Vehicle => Story.Vehicle;
    public string Odometer { get; private set; } = "";

    /// <summary>The key in the address of its calendar.</summary>
    public Task<string> CalendarKey() => calendars.Key();

    /// <summary>Records of other workshops.</summary>
    public IReadOnlyList<BroughtRecord> Elsewhere => brought.Of(Vehicle.Plate);
    public IReadOnlyList<Service> Services { get; private set; } = [];

    /// <summary>The last pictures of what was seen, the newest first.</summary>
    public IReadOnlyList<(string Id, CardNumber Card, string Day, string Text)> Photos { get; private set; } = [];

    public LifeDrawing? Life { get; private set; }

    /// <summary>What it uses of each fluid that was looked at more than once.</summary>
    public IReadOnlyList<(FluidStory Story, UseDrawing Drawing)> Uses { get; private set; } = [];

    /// <summary>The name of a job of its model, or its id where the model does not have it any more.</summary>
    public string JobName(JobId job) => Story.Standing?.Sheet.Jobs.GetValueOrDefault(job)?.Name ?? job.Text;

    public IActionResult OnGet(string plate)
    {
        if (desk.Of(plate) is not { } story)
            return trail.Now(plate) is { } now ? Redirect($"/vehicle/{Uri.EscapeDataString(now)}") : NotFound();
        Show(story);
        return Page();
    }

    private void Show(VehicleStory story)
    {
        Story = story;
        Odometer = story.History.Last is { } o ? $"{OdometerText.Of(o.Reading, viewer.DistanceUnit)} on {clock.Local(o.At):d MMMM}" : "";
        Services = [.. story.Signed.Select(s => Line(s.Entry, s.Card))];
        Photos = [.. (story.Open is { } open ? story.Signed.Prepend(open) : story.Signed).SelectMany(c => c.Card.Findings.Reverse()
            .Where(f => f.Event.Photo is not null)
            .Select(f => (f.Event.Photo!, c.Entry.Id, $"{clock.Local(f.Recorded.At):d MMM yyyy}", f.Event.Text))).Take(8)];
        Uses = [.. story.Fluids.Where(f => f.Uses.Count > 0).Select(f => (f, UseDrawing.Of(f.Uses,
            f.Services.Last(x => x.Day == f.Uses[^1].Until && x.Drained), f.Fluid.Amount.Value,
            f.Fluid.MayUse?.Value ?? FluidBalance.UsualLimit, viewer.VolumeUnits[0], viewer.DistanceUnit)))];
        if (story.Standing is not { } s)
            return;
        var services = story.Signed.Select(c => new UseMark(story.History.OnThisClock(c.Entry.Id,
            c.Card.Opened.Odometer, c.Entry.OpenedAt), clock.Day(c.Entry.SignedAt!.Value)));
        Life = LifeDrawing.Of(s.Readings, [.. s.Items.Select(i => i.Last).OfType<UseMark>().Concat(services).DistinctBy(m => m.Day)],
            s.Now, s.Use, [.. story.Ahead.Where(a => a.Due is not null).Select(a => (a.Standing.Item.Name, a.Due!))], viewer.DistanceUnit);
    }

    /// <summary>The owner sets a rule of their own for a job, or takes it away.</summary>
    public async Task<IActionResult> OnPostRuleAsync(string plate, string? job, string? distance, string? months)
    {
        if (viewer.Member?.Role != Role.Lead)
            return Forbid();
        if (setting.Jobs(plate).All(j => j.Id != job))
            return NotFound();
        Refusals = await setting.SetRule(plate, job, distance, months, viewer.DistanceUnit);
        if (Refusals.Count == 0)
            return Redirect($"/vehicle/{Uri.EscapeDataString(plate)}");
        if (desk.Of(plate) is not { } story)
            return NotFound();
        Show(story);
        (RuleJob, RuleDistance, RuleMonths) = (job!, distance ?? "", months ?? "");
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }

    /// <summary>What became of a recommendation.</summary>
    public async Task<IActionResult> OnPostBecameAsync([FromRoute] string plate, string? of, string? became, string? who, string? words)
    {
        if (viewer.Member?.Person is not { WorksOnCards: true } by)
            return Forbid();
        if (desk.Of(plate) is not { } story)
            return NotFound();
        BecameWrong = await recommendations.Answer(plate, of, became, who, words, by);
        if (BecameWrong.Count == 0)
            return Redirect($"/vehicle/{Uri.EscapeDataString(plate)}#recommended");
        Show(story);
        (BecameOf, Became, Who, Words) = (of ?? "", became ?? "", who ?? "", words ?? "");
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }

    /// <summary>What is wrong with what became of a recommendation.</summary>
    public IReadOnlyList<Refusal> BecameWrong { get; private set; } = [];

    /// <summary>Of which; then what was typed.</summary>
    public string BecameOf { get; private set; } = "";
    public string Became { get; private set; } = "";
    public string Who { get; private set; } = "";
    public string Words { get; private set; } = "";

    public IReadOnlyList<Refusal> Refusals { get; private set; } = [];
    public string RuleJob { get; private set; } = "";
    public string RuleDistance { get; private set; } = "";
    public string RuleMonths { get; private set; } = "";

    private Service Line(CardEntry entry, JobCard card) =>
        new(entry.Id, $"{clock.Local(entry.SignedAt!.Value):d MMM yyyy}",
            RecordWords.Odometer(card.Opened.OdometerAsRead, viewer.DistanceUnit),
        CardLine.Jobs(card),
        string.Join(", ", card.FluidsWanted.Select(f =>
            $"{card.Fluid(f.Id).Poured.Print(viewer.VolumeUnits[0])} {card.OilInHand(f.Id)?.Product}")),
        card.Signature!.By.Name, RingDrawing.Of(card), [.. card.Deviations.Select(d => d.Event.What)]);
}
