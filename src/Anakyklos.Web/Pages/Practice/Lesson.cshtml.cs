using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Practice;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.Practice;

/// <summary>One lesson: its story, its card, and how it went before.</summary>
public sealed class LessonModel(PracticeDesk practice, LessonShelf lessons, Viewer viewer) : PageModel
{
    public ShelvedLesson Shelved { get; private set; } = null!;
    public Lesson Lesson => Shelved.Lesson;
    public ModelSheet Sheet { get; private set; } = null!;
    public IReadOnlyList<PracticeEntryOf> Runs { get; private set; } = [];
    public IReadOnlyList<Refusal> Refusals { get; private set; } = [];
    public bool MayPractise => viewer.Member!.Person.WorksOnCards;
    public bool IsLead => viewer.Member!.Role == Role.Lead;

    /// <summary>What is asked for before brakes; null for nothing.</summary>
    public AskedLesson? Asked => lessons.BeforeBrakes;

    /// <summary>Whether this lesson could be asked for before brakes.</summary>
    public bool MayBeAsked => lessons.IsAboutBrakes(Lesson);

    private IActionResult? Load(string id)
    {
        if (lessons.Find(id) is not { } shelved || lessons.Sheet(shelved.Lesson.Sheet) is not { } sheet)
            return NotFound();
        (Shelved, Sheet) = (shelved, sheet);
        var me = viewer.Member!.Person;
        Runs = [.. practice.All.Where(r => r.Lesson == shelved.Lesson.Id && (r.Person == me.Id || r.Second == me.Id)).Take(8)];
        return null;
    }

    public IActionResult OnGet(string id) => Load(id) ?? Page();

    /// <summary>The lesson as a file.</summary>
    public IActionResult OnGetFile(string id) => Load(id) ?? File(System.Text.Encoding.UTF8.GetBytes(LessonFile.Write(Lesson)),
        "application/json", $"{Lesson.Id}.json");

    public async Task<IActionResult> OnPostBeginAsync([FromRoute] string id)
    {
        if (Load(id) is { } missing)
            return missing;
        var (run, not) = await practice.Begin(Lesson, viewer.Member!.Person);
        if (run is { } number)
            return Redirect($"/lift/{number}");
        Refusals = [not!];
        Response.StatusCode = StatusCodes.Status403Forbidden;
        return Page();
    }

    /// <summary>The lead gives up a lesson of the workshop's own.</summary>
    public async Task<IActionResult> OnPostGiveUpAsync([FromRoute] string id)
    {
        if (Load(id) is { } missing)
            return missing;
        if (!IsLead || !Shelved.IsOwn)
            return Forbid();
        return await lessons.GiveUp(Lesson.Id) is { } not ? Refuse(not) : Redirect("/practice");
    }

    /// <summary>The lead asks for this lesson before anybody works on brakes alone, or does not any more.</summary>
    public async Task<IActionResult> OnPostAskAsync([FromRoute] string id, bool? ask)
    {
        if (Load(id) is { } missing)
            return missing;
        if (!IsLead)
            return Forbid();
        if (ask is null)
            return BadRequest();
        return await lessons.AskBeforeBrakes(ask.Value ? Lesson.Id : (LessonId?)null, viewer.Member!.Person) is { } not ? Refuse(not)
            : RedirectToPage();
    }

    private PageResult Refuse(Refusal not)
    {
        Refusals = [not];
        Response.StatusCode = StatusCodes.Status409Conflict;
        return Page();
    }
}
