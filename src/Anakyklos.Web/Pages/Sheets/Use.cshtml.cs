using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.Sheets;

/// <summary>What a draft would change, before the lead puts it in use.</summary>
public sealed class UseModel(SheetDesk desk, RevisionDesk revisions, Viewer viewer) : PageModel
{
    public DraftNow Now { get; private set; } = null!;

    public Upheaval Would { get; private set; } = null!;

    public IReadOnlyList<Refusal> Wrong { get; private set; } = [];

    public bool IsLead => viewer.Member?.Role == Core.Cards.Role.Lead;

    public bool Works => viewer.Member?.Person.WorksOnCards == true;

    public string Typed(string field) => Request.HasFormContentType ? Request.Form[field].ToString() : "";

    public IActionResult OnGet(long n)
    {
        if (desk.Find(n) is not { } now)
            return NotFound();
        if (revisions.Of(now) is not { } would)
            return Redirect($"/library/draft/{n}");
        (Now, Would) = (now, would);
        return Page();
    }

    public async Task<IActionResult> OnPostAsync(long n, int edition, int? newest, string? reason)
    {
        var sheet = desk.Find(n)?.Draft.Sheet;
        var (revision, wrong) = await revisions.PutInUse(n, viewer.Member!.Person, edition, newest, reason ?? "");
        if (revision is not null)
            return Redirect($"/library/{sheet}");
        if (OnGet(n) is not PageResult page)
            return Redirect($"/library/draft/{n}");
        Wrong = wrong;
        Response.StatusCode = wrong.Any(r => r.Field is not null) ? StatusCodes.Status422UnprocessableEntity
            : IsLead ? StatusCodes.Status409Conflict : StatusCodes.Status403Forbidden;
        return page;
    }
}
