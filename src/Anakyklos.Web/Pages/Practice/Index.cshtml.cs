using System.Security.Cryptography;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Practice;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.Practice;

/// <summary>The practice bay: the road of lessons, free practice, runs that go on, and for the lead how everybody stands.</summary>
public sealed class IndexModel(PracticeDesk practice, LessonShelf lessons, PeopleStore people, Viewer viewer) : PageModel
{
    private const int LargestFile = 200_000;

    public IReadOnlyList<LessonProgress> Road { get; private set; } = [];

    /// <summary>Runs of this person that go on, the newest first.</summary>
    public IReadOnlyList<PracticeEntryOf> Going { get; private set; } = [];

    /// <summary>Runs that wait for a second person.</summary>
    public IReadOnlyList<PracticeEntryOf> Joinable { get; private set; } = [];

    public IReadOnlyList<ModelSheet> Models { get; private set; } = [];

    /// <summary>The model of free practice; null where none is chosen.</summary>
    public ModelSheet? Model { get; private set; }

    public IReadOnlyList<Refusal> Refusals { get; private set; } = [];

    /// <summary>For the lead: everybody with what they have done well.</summary>
    public IReadOnlyList<(Member Member, IReadOnlyList<LessonProgress> Road)> Everybody { get; private set; } = [];

    /// <summary>What is asked for before brakes; null for nothing.</summary>
    public AskedLesson? Asked => lessons.BeforeBrakes;

    /// <summary>Whoever has not done that well yet, by name; the lead is not asked.</summary>
    public IReadOnlyList<string> NotYet => [.. Everybody.Where(e => e.Member.Role != Role.Lead
        && e.Road.Any(l => l.Lesson.Lesson.Id == Asked?.Lesson && !l.IsPassed)).Select(e => e.Member.Name)];

    public bool MayPractise => viewer.Member!.Person.WorksOnCards;

    public bool IsLead => viewer.Member!.Role == Role.Lead;

    /// <summary>The first lesson of the road that was not done well yet; null when all are.</summary>
    public LessonProgress? Next => Road.FirstOrDefault(l => !l.IsPassed && !l.Lesson.IsOwn);

    /// <summary>The name of a person.</summary>
    public string Name(PersonId id) => people.Find(id)?.Name ?? id.Text;

    /// <summary>The name of a run's lesson.</summary>
    public string Named(PracticeEntryOf run) => practice.Run(run.Id)?.Lesson.Name ?? run.Lesson.Text;

    public void OnGet(string? sheet) => Show(sheet);

    private void Show(string? sheet)
    {
        var me = viewer.Member!.Person;
        Road = practice.Progress(me.Id);
        var all = practice.All;
        Going = [.. all.Where(r => r.EndedAt is null && (r.Person == me.Id || r.Second == me.Id)).Take(6)];
        Joinable = [.. all.Where(r => practice.MayJoin(r, me)).Take(6)];
        Models = lessons.Models;
        Model = Models.FirstOrDefault(m => m.Id.Text == sheet);
        if (IsLead)
            Everybody = [.. people.All().Where(m => m.Person.WorksOnCards).Select(m => (m, practice.Progress(m.Id)))];
    }

    /// <summary>Begins practice without a lesson.</summary>
    /// <param name="sheet">The model.</param>
    /// <param name="job">Its jobs.</param>
    /// <param name="faults">How much is wrong; "any" where nobody knows.</param>
    /// <param name="hot">"yes" where it was driven in.</param>
    public async Task<IActionResult> OnPostFreeAsync(string? sheet, string[]? job, string? faults, string? hot)
    {
        var wrong = new List<Refusal>();
        var model = lessons.Models.FirstOrDefault(s => s.Id.Text == sheet);
        if (model is null)
            wrong.Add(new("There is no such model.", "Choose one that is shown.", Field: "sheet"));
        JobId[] jobs = [.. (job ?? []).Distinct().Select(j => new JobId(j)).Where(j => model?.Jobs.ContainsKey(j) == true)];
        if (jobs.Length == 0 || jobs.Length != (job ?? []).Distinct().Count())
            wrong.Add(new("No job is chosen.", "Choose at least one of those shown.", Field: "job"));
        var much = faults switch
        {
            "none" => 0,
            "one" => 1,
            "several" => RandomNumberGenerator.GetInt32(2, FreePractice.MostFaults + 1),
            "any" => RandomNumberGenerator.GetInt32(0, FreePractice.MostFaults + 1),
            _ => -1,
        };
        if (much < 0)
            wrong.Add(new("How much is wrong is not said.", "Choose one of those shown.", Field: "faults"));
        if (wrong.Count > 0)
            return Refuse(wrong, sheet);
        var (run, not) = await practice.Begin(FreePractice.Of(model!, jobs, much, hot == "yes", RandomNumberGenerator.GetInt32),
            viewer.Member!.Person);
        return run is { } id ? Redirect($"/lift/{id}") : Refuse([not!], sheet);
    }

    /// <summary>Takes in the file of a lesson.</summary>
    public async Task<IActionResult> OnPostFileAsync(IFormFile? file)
    {
        if (!MayPractise)
            return Forbid();
        if (file is not { Length: > 0 and < LargestFile })
            return Refuse([new("No file came, or it is too large for a lesson.", "Choose the file of a lesson.", Field: "file")], null);
        var (lesson, wrong) = await lessons.Keep((await TextFile.Of(file.OpenReadStream())).Text, viewer.Member!.Id);
        return lesson is not null ? Redirect($"/practice/lesson/{Uri.EscapeDataString(lesson.Id.Text)}") : Refuse(wrong, null);
    }

    private PageResult Refuse(IReadOnlyList<Refusal> wrong, string? sheet)
    {
        Refusals = wrong;
        Show(sheet);
        Response.StatusCode = MayPractise ? StatusCodes.Status422UnprocessableEntity : StatusCodes.Status403Forbidden;
        return Page();
    }
}
