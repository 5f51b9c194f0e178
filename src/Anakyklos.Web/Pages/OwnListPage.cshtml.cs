using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>A list of inspections that somebody makes from the maker's book: it is typed a line a point, and becomes a job of the
/// model.</summary>
public sealed class OwnListPageModel(SheetStore sheets, OwnListDesk desk, Viewer viewer) : PageModel
{
    public ModelSheet Sheet { get; private set; } = null!;

    /// <summary>The list that is changed; null for a new one.</summary>
    public OwnList? List { get; private set; }

    public OwnListForm Form { get; private set; } = new(Where: "side");

    /// <summary>How often the list was changed when it was looked at.</summary>
    public int Changed { get; private set; } = 1;

    public IReadOnlyList<Refusal> Wrong { get; private set; } = [];

    public bool Works => viewer.Member?.Person.WorksOnCards == true;

    /// <summary>What is wrong and has no field of its own.</summary>
    public IReadOnlyList<Refusal> Blocked => [.. Wrong.Where(r => r.Field is null)];

    public IActionResult OnGet(string id, string? list)
    {
        if (Load(id, list) is { } missing)
            return missing;
        if (List is not null)
            (Form, Changed) = (OwnListDesk.Form(List), List.Changed);
        return Page();
    }

    public async Task<IActionResult> OnPostAsync(string id, string? list, OwnListForm form, int changed)
    {
        if (!Works)
            return Forbid();
        if (Load(id, list) is { } missing)
            return missing;
        (Form, Changed) = (new(form.Name ?? "", form.Book ?? "", form.Page ?? "", form.Every ?? "", form.Months ?? "", form.Where ?? "",
            form.Points ?? ""), changed);
        var (kept, wrong) = await desk.Keep(Sheet.Id, list ?? "", changed, Form, viewer.DistanceUnit, viewer.Member!.Person);
        if (kept is not null)
            return Redirect($"/library/{Sheet.Id}#own");
        Wrong = wrong;
        Response.StatusCode = wrong.Any(r => r.Field is not null) ? StatusCodes.Status422UnprocessableEntity
            : StatusCodes.Status409Conflict;
        return Page();
    }

    public async Task<IActionResult> OnPostRemoveAsync(string id, string? list, int changed)
    {
        if (!Works)
            return Forbid();
        if (Load(id, list) is { } missing)
            return missing;
        return List is not null && await desk.Remove(Sheet.Id, List.Id, changed, viewer.Member!.Person)
            ? Redirect($"/library/{Sheet.Id}#own") : Redirect($"/library/{Sheet.Id}/own/{list}");
    }

    private IActionResult? Load(string id, string? list)
    {
        if (sheets.Newest(id) is not { } sheet || (list is not null && desk.Find(id, list) is null))
            return NotFound();
        (Sheet, List) = (sheet, list is null ? null : desk.Find(id, list));
        return null;
    }
}
