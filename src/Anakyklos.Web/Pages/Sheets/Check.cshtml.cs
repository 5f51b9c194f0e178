using Anakyklos.Core.Authoring;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.Sheets;

/// <summary>A second person reads a value in its source, and types it without seeing what the first one wrote.</summary>
public sealed class CheckModel(SheetDesk desk, Viewer viewer) : PageModel
{
    public DraftNow Now { get; private set; } = null!;

    /// <summary>The value that is read now; null where there is none left for whoever asks.</summary>
    public CitedValue? Value { get; private set; }

    public int Left { get; private set; }

    public IReadOnlyList<Refusal> Wrong { get; private set; } = [];

    /// <summary>What came of the one before: <c>same</c>, <c>other</c>, or nothing.</summary>
    public string Before { get; private set; } = "";

    private Person Me => viewer.Member!.Person;

    public IActionResult OnGet(long n, string? path, string? before)
    {
        if (desk.Find(n) is not { } now)
            return NotFound();
        Now = now;
        Before = before is "same" or "other" or "later" ? before : "";
        var left = now.ToCheck(Me.Id);
        Left = left.Count;
        // The one that was put off stands last, until the others are done.
        var after = left.ToList().FindIndex(v => v.Path == path);
        Value = left.Count == 0 ? null : before == "later" && after >= 0 ? left[(after + 1) % left.Count]
            : left.FirstOrDefault(v => v.Path == path) ?? left[0];
        return Page();
    }

    /// <summary>What was typed for a field.</summary>
    public string Typed(string path) => Request.HasFormContentType ? Request.Form[path].ToString() : "";

    public async Task<IActionResult> OnPostAsync(long n, string? path)
    {
        var (same, wrong) = await desk.Look(n, Me, path ?? "", Request.Form.ToDictionary(f => f.Key, f => f.Value.ToString()));
        if (wrong.Count == 0)
            return Redirect($"/library/draft/{n}/check?before={(same ? "same" : "other")}");
        if (OnGet(n, path, null) is NotFoundResult gone)
            return gone;
        Wrong = wrong;
        Response.StatusCode = wrong.Any(r => r.Field is not null) ? StatusCodes.Status422UnprocessableEntity
            : Me.WorksOnCards ? StatusCodes.Status409Conflict : StatusCodes.Status403Forbidden;
        return Page();
    }
}
