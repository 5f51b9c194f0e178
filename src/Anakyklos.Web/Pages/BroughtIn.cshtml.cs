using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Records of other workshops: brought in as files, verified, and read here.</summary>
public sealed class BroughtInModel(RecordDesk desk, BroughtRecordStore brought, Viewer viewer) : PageModel
{
    /// <summary>All that are here.</summary>
    public IReadOnlyList<BroughtRecord> All { get; private set; } = [];

    /// <summary>The one that is looked at; null for the list.</summary>
    public VerifiedRecord? One { get; private set; }

    /// <summary>What is wrong with the file.</summary>
    public IReadOnlyList<Refusal> Wrong { get; private set; } = [];

    public IActionResult OnGet(string? hash)
    {
        if (hash is not null && (One = desk.Find(hash)) is null)
            return NotFound();
        All = brought.All();
        return Page();
    }

    public async Task<IActionResult> OnPostAsync(string? text)
    {
        if (viewer.Member is not { Person: { WorksOnCards: true } me })
            return Forbid();
        text ??= "";
        if (Request.HasFormContentType && Request.Form.Files.GetFile("file") is { Length: > 0 and <= RecordFile.Longest } file)
            text = (await TextFile.Of(file.OpenReadStream())).Text;
        var (record, wrong) = text.Length is > 0 and <= RecordFile.Longest ? await desk.BringIn(text, me)
            : (null, [new Refusal("There is no file.", "Choose the file that the other workshop wrote, of 8 MB at most.")]);
        if (record is not null)
            return Redirect($"/brought-in/{record.Hash}");
        (Wrong, All) = (wrong, brought.All());
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }
}
