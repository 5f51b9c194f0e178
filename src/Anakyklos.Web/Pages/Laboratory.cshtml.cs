using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Samples on their way to the laboratory and back; results come in as a file.</summary>
public sealed class LaboratoryModel(LabDesk desk, TrailStore trail, WorkshopClock clock, Options options, Viewer viewer)
    : PageModel
{
    private const int LongestFile = 2_000_000;

    public IReadOnlyList<SampleEntry> Waiting { get; private set; } = [];
    public IReadOnlyList<SampleEntry> UnderWay { get; private set; } = [];
    public IReadOnlyList<SampleEntry> Answered { get; private set; } = [];
    public IReadOnlyList<Refusal> Wrong { get; private set; } = [];
    public string Text { get; private set; } = "";
    public string Said { get; private set; } = "";

    /// <summary>Whether the stand-in of a laboratory is here.</summary>
    public bool HasStandIn => options.Demo;

    public bool Works => viewer.Member?.Person.WorksOnCards == true;

    public void OnGet(string? said)
    {
        Said = said is { Length: < 200 } ? said : "";
        Load();
    }

    public async Task<IActionResult> OnPostSentAsync(string? code)
    {
        if (!Works)
            return Forbid();
        return await desk.Send(code ?? "") ? RedirectToPage(new { said = $"{code} is on its way" }) : NotFound();
    }

    public async Task<IActionResult> OnPostResultsAsync(string? text)
    {
        if (!Works)
            return Forbid();
        if (Request.Form.Files.GetFile("file") is { Length: > 0 } file)
        {
            if (file.Length > LongestFile)
                return Again([new($"The file has {file.Length / 1_000_000} MB.", "Results are small: at most 2 MB at once.")]);
            text = (await TextFile.Of(file.OpenReadStream())).Text;
        }
        Text = text ?? "";
        if (string.IsNullOrWhiteSpace(Text))
            return Again([new("There is no file and no text.", "Choose the laboratory's file, or paste what is in it.")]);
        if (Text.Length > LongestFile)
            return Again([new("That is too long.", "Results are small: at most 2 MB at once.")]);
        var (answered, wrong) = await desk.BringIn(Text);
        if (wrong.Count == 0)
            await trail.Note(viewer.Member!.Id.Text, "brought in", $"{answered} answers of a laboratory", clock.Now);
        return wrong.Count > 0 ? Again(wrong)
            : RedirectToPage(new { said = answered == 1 ? "One answer is in" : answered == 0 ? "These answers were in already"
                : $"{answered} answers are in" });
    }

    private PageResult Again(IReadOnlyList<Refusal> wrong)
    {
        Wrong = wrong;
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        Load();
        return Page();
    }

    private void Load()
    {
        var all = desk.All();
        Waiting = [.. all.Where(s => s.SentAt is null)];
        UnderWay = [.. all.Where(s => s is { SentAt: not null, Result: null })];
        Answered = [.. all.Where(s => s.Result is not null).Take(40)];
    }
}
