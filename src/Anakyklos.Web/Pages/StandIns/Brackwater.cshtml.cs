using Anakyklos.Core.Looks;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.StandIns;

/// <summary>The stand-in of a laboratory: the samples that reached it, and its answers, which go the way of any laboratory's
/// file.</summary>
public sealed class BrackwaterModel(LabDesk desk, CardStore cards, DemoVehicles vehicles, Options options,
    WorkshopClock clock) : PageModel, ISentAsOftenAsLiked
{
    public IReadOnlyList<SampleEntry> Here { get; private set; } = [];

    /// <summary>When it would answer by itself.</summary>
    public DateTimeOffset Answers(SampleEntry entry) => clock.Local(entry.SentAt!.Value + Devices.Brackwater.Takes);

    public IActionResult OnGet()
    {
        if (!options.Demo)
            return NotFound();
        Here = [.. desk.All().Where(s => s is { SentAt: not null, Result: null })];
        return Page();
    }

    /// <summary>The answer as the file that a laboratory would send.</summary>
    public IActionResult OnGetFile(string code) => options.Demo && Find(code) is { } entry
        ? File(System.Text.Encoding.UTF8.GetBytes(Answer(entry)), "application/json", $"{entry.Sample.Code}-result.json") : NotFound();

    /// <summary>The days pass, and the answer comes in.</summary>
    public async Task<IActionResult> OnPostAnswerAsync(string? code)
    {
        if (!options.Demo || Find(code ?? "") is not { } entry)
            return NotFound();
        var (_, wrong) = await desk.BringIn(Answer(entry));
        return wrong.Count > 0 ? throw new InvalidOperationException(string.Join(" ", wrong)) : Redirect($"/sample/{entry.Sample.Code}");
    }

    private SampleEntry? Find(string code) => desk.Of(code)?.Entry is { SentAt: not null, Result: null } entry ? entry : null;

    private string Answer(SampleEntry entry) => LabFiles.Write([Devices.Brackwater.Answer(entry.Sample, Seen(entry), clock.Today)]);

    // What the card was told, and what is so.
    private IReadOnlyCollection<Look> Seen(SampleEntry entry) => [.. cards.Find(entry.Sample.Card)!.SeenOf(entry.Sample.Fluid),
        .. vehicles.Last(entry.Sample.Card) is { } vehicle ? Devices.Brackwater.In(vehicle, entry.Sample.Fluid) : []];
}
