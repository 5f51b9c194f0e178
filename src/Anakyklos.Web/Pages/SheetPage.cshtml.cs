using System.Text;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Workshop;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Languages;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>One model sheet: its drawings, fluids, fasteners, parts, jobs, resets and sources; and its file.</summary>
public sealed class SheetPageModel(SheetStore sheets, RulingDesk rulings, SheetDesk desk, RevisionDesk revisions, DraftStore drafts,
    PeopleStore people, WorkshopWords words, Viewer viewer) : PageModel
{
    public ModelSheet Sheet { get; private set; } = null!;
    public IReadOnlyList<int> Revisions { get; private set; } = [];

    /// <summary>Says a text in the language of whoever looks.</summary>
    public Func<string, string> Say { get; } = words.Speaker();

    /// <summary>What is pointed at on the drawings: an id of an access, fastener, fluid or part.</summary>
    public ThingId Point { get; private set; }

    public IReadOnlyList<(Job Job, CardPlan Plan)> Jobs { get; private set; } = [];

    /// <summary>The values on which sources disagree, with what the lead ruled.</summary>
    public IReadOnlyList<DisputeNow> Disputes { get; private set; } = [];

    /// <summary>What could not be ruled as typed.</summary>
    public IReadOnlyList<Refusal> Wrong { get; private set; } = [];

    /// <summary>What was typed.</summary>
    public string Typed(string field) => Request.HasFormContentType ? Request.Form[field].ToString() : "";

    /// <summary>What became of its revisions, the newest first.</summary>
    public IReadOnlyList<SheetTurn> Turns { get; private set; } = [];

    private IReadOnlyDictionary<string, ValueHands> Hands { get; set; } = new Dictionary<string, ValueHands>();

    /// <summary>Who wrote a value and who read it, in words; empty where it came with the first file.</summary>
    /// <param name="path">Its path in the sheet.</param>
    public string HandsOf(string path) => Hands.GetValueOrDefault(path) is not { } hands ? ""
        : hands.Readers.Count == 0 ? $"written by {Name(hands.Writer)}"
        : $"written by {Name(hands.Writer)}, read by {string.Join(", ", hands.Readers.Select(Name))}";

    public string Name(PersonId id) => people.Find(id)?.Person.Name ?? id.Text;

    /// <summary>Begins the next revision, from this one or from an older one.</summary>
    public async Task<IActionResult> OnPostReviseAsync(string id, int revision)
    {
        if (viewer.Member is not { } me || sheets.Newest(id) is null)
            return NotFound();
        var (draft, wrong) = await desk.Revise(me.Person, id, revision);
        return draft is not null ? Redirect($"/library/draft/{draft}") : Refused(id, me, wrong);
    }

    /// <summary>The lead withdraws the newest revision.</summary>
    public async Task<IActionResult> OnPostWithdrawAsync(string id, int revision, string? withdrawn)
    {
        if (viewer.Member is not { } me || sheets.Newest(id) is null)
            return NotFound();
        var wrong = await revisions.Withdraw(id, revision, me.Person, withdrawn ?? "");
        return wrong.Count == 0 ? Redirect($"/library/{id}#history") : Refused(id, me, wrong);
    }

    private IActionResult Refused(string id, Member me, IReadOnlyList<Refusal> wrong)
    {
        Wrong = wrong;
        OnGet(id, null, null);
        Response.StatusCode = wrong.Any(r => r.Field is not null) ? StatusCodes.Status422UnprocessableEntity
            : me.Person.WorksOnCards ? StatusCodes.Status409Conflict : StatusCodes.Status403Forbidden;
        return Page();
    }

    /// <summary>The lead rules on a value.</summary>
    public async Task<IActionResult> OnPostRuleAsync(string id, string? value, string? reason)
    {
        if (viewer.Member is not { } me || sheets.Newest(id) is null)
            return NotFound();
        Wrong = await rulings.Rule(me.Person, id, value, reason);
        if (Wrong.Count == 0)
            return Redirect($"/library/{id}#{value}");
        OnGet(id, null, null);
        Response.StatusCode = Wrong.Any(r => r.Field is not null) ? StatusCodes.Status422UnprocessableEntity
            : StatusCodes.Status403Forbidden;
        return Page();
    }

    public IActionResult OnGet(string id, int? revision, string? point)
    {
        if ((revision is { } r ? sheets.Find(id, r) : sheets.Newest(id)) is not { } sheet)
            return NotFound();
        Sheet = sheet;
        Revisions = sheets.Revisions(id);
        Hands = revisions.Hands(Sheet.Id);
        Turns = drafts.Turns(id);
        Disputes = rulings.Of(sheet);
        Point = point is not null && sheet.Names(point) ? point : default(ThingId);
        Jobs = [.. sheet.Jobs.Values.Select(j => (j, CardPlanner.Plan(sheet, [j.Id])))];
        return Page();
    }

    /// <summary>How many there are and in which order, the tool, the thread, and what it sits in.</summary>
    public static string Fastening(Fastener f) =>
        $"{(f.Count > 1 ? $"{f.Count}, {f.Order}; " : "")}{f.Drive}{(f.Thread.Length > 0 ? $", {f.Thread}" : "")} in {f.Material}";

    /// <summary>How often a seal may go back; empty for what is none.</summary>
    public static string Again(Part part) => part.ReusableTimes switch
    {
        null => "",
        0 => "used once",
        1 => "may go back once",
        var n => $"may go back {n} times",
    };

    public IActionResult OnGetFile(string id, int? revision) =>
        (revision ?? sheets.Newest(id)?.Revision) is { } r && sheets.Text(id, r) is { } text
            ? File(Encoding.UTF8.GetBytes(text), "application/json", $"{id}-r{r}.json") : NotFound();
}
