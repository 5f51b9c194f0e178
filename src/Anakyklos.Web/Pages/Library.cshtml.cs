using Anakyklos.Core.Rehearsal;
using System.Text;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>What the workshop knows: all model sheets, the approvals between them, and a new sheet brought in.</summary>
public sealed class LibraryModel(SheetStore sheets, SheetDesk desk, ShelfStore shelf, WorkshopClock clock, Viewer viewer) : PageModel
{
    private const int LargestFile = 1_000_000;

    public IReadOnlyList<ModelSheet> Sheets { get; private set; } = [];
    public ApprovalGraph Graph { get; private set; } = ApprovalGraph.Of([], Core.Oils.OilBook.Empty);
    public IReadOnlyList<Refusal> Errors { get; private set; } = [];
    public string FileName { get; private set; } = "";
    public string Pasted { get; private set; } = "";
    public string Problem { get; private set; } = "";
    public ModelSheet? Checked { get; private set; }
    public string Said { get; private set; } = "";

    /// <summary>What each fluid asks for, as the drawing shows it.</summary>
    public string Approvals => string.Join("; ", Sheets.SelectMany(s => s.Fluids.Values.Where(f => f.Approvals.Value.Count > 0)
        .Select(f => $"{s.Make} {f.Name.ToLowerInvariant()}: {string.Join(" or ", f.Approvals.Value)}")));

    /// <summary>The codes that cover others, as sentences; empty when none does.</summary>
    public string Covers => string.Join("; ", Graph.Served.Select(s => s.Way).Where(w => w.Length > 0).Distinct()) is { Length: > 0 } ways
        ? $"{ways}." : "";

    public IEnumerable<(ModelSheet Sheet, DisputedValue Value)> Disputed => Sheets.SelectMany(s => s.Disputed().Select(d => (s, d)));

    /// <summary>The sheets that are being written.</summary>
    public IReadOnlyList<DraftNow> Drafts { get; private set; } = [];

    /// <summary>Why a sheet could not be begun.</summary>
    public IReadOnlyList<Refusal> Wrong { get; private set; } = [];

    public bool Works => viewer.Member?.Person.WorksOnCards == true;

    public string Typed(string field, string otherwise = "") => Wrong.Count > 0 ? Request.Form[field].ToString() : otherwise;

    public bool MayBringIn => viewer.Member?.Role == Role.Lead;

    public void OnGet(string? added)
    {
        Fill();
        if (added is not null && Sheets.FirstOrDefault(s => s.Id == added) is { } sheet)
            Said = $"{sheet.FullName}, revision {sheet.Revision}, is in.";
    }

    /// <summary>Checks a sheet without taking it in.</summary>
    public async Task<IActionResult> OnPostCheckAsync(IFormFile? file, string? text)
    {
        if (!MayBringIn)
            return Forbid();
        Checked = (await Read(file, text))?.Sheet;
        Said = Checked is null ? "" : $"{Checked.FullName}, revision {Checked.Revision}: {Checked.Jobs.Count} jobs, no errors.";
        return Answer();
    }

    /// <summary>Checks a sheet and takes it in when it has no errors.</summary>
    public async Task<IActionResult> OnPostAddAsync(IFormFile? file, string? text)
    {
        if (!MayBringIn)
            return Forbid();
        if (await Read(file, text) is not { Sheet: { } sheet } read)
            return Answer();
        try
        {
            // A model that is in use changes only when what changes has been seen, and so does one whose file says that its values were
            // read by two; but for what is here for practice, just so.
            var there = sheets.Text(sheet.Id, sheet.Revision);
            var isHere = there is not null && there == read.Text.ReplaceLineEndings("\n");
            if (sheets.Newest(sheet.Id) is { } inUse ? inUse.Revision != sheet.Revision : !isHere && SheetDesk.SaysIsRead(read.Text))
                return Begun(await desk.TakeIn(viewer.Member!.Person, read.Text), "/use");
            await sheets.BringIn(sheet, isHere ? there! : read.Text, clock.Now);
            return RedirectToPage(new { added = sheet.Id });
        }
        catch (WorkshopFileException e)
        {
            Problem = e.Message;
            return Answer();
        }
    }

    /// <summary>Begins a sheet, or takes a file in that is to be written on.</summary>
    public async Task<IActionResult> OnPostWriteAsync(string? make, string? name, string? stands, string? like, IFormFile? file)
    {
        if (viewer.Member is not { } me)
            return Forbid();
        if (file is not { Length: > 0 })
            return Begun(await desk.Start(me.Person, make ?? "", name ?? "", stands ?? "", like ?? ""), "");
        if (file.Length > LargestFile)
            return Begun((null, [new("That is more than a megabyte; no model sheet is that large.", Field: "draft")]), "");
        using var memory = new MemoryStream();
        await file.CopyToAsync(memory);
        var begun = await desk.TakeIn(me.Person, Encoding.UTF8.GetString(memory.ToArray()));
        return Begun((begun.Draft, [.. begun.Wrong.Select(w => w with { Field = "draft" })]), "");
    }

    private IActionResult Begun((long? Draft, IReadOnlyList<Refusal> Wrong) begun, string next)
    {
        if (begun.Draft is { } draft)
            return Redirect($"/library/draft/{draft}{next}");
        Wrong = begun.Wrong;
        Fill();
        Response.StatusCode = Wrong.Any(w => w.Field is not null) ? StatusCodes.Status422UnprocessableEntity
            : viewer.Member!.Person.WorksOnCards ? StatusCodes.Status409Conflict : StatusCodes.Status403Forbidden;
        return Page();
    }

    private PageResult Answer()
    {
        Fill();
        if (Errors.Count > 0 || Problem.Length > 0)
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }

    private void Fill()
    {
        Drafts = desk.Open();
        Sheets = sheets.Newest();
        Graph = ApprovalGraph.Of(Sheets, shelf.Read().Oils);
    }

    private async Task<(ModelSheet? Sheet, string Text)?> Read(IFormFile? file, string? text)
    {
        Pasted = text ?? "";
        if (file is { Length: > LargestFile } || Pasted.Length > LargestFile)
            Problem = "That is more than a megabyte; no model sheet is that large.";
        else if (file is null or { Length: 0 } && string.IsNullOrWhiteSpace(Pasted))
            Problem = "Choose a file, or paste its text.";
        if (Problem.Length > 0)
            return null;
        byte[] bytes;
        if (file is { Length: > 0 })
        {
            FileName = Path.GetFileName(file.FileName);
            using var memory = new MemoryStream();
            await file.CopyToAsync(memory);
            bytes = memory.ToArray();
            // Kept on the page, so that what is wrong can be put right here.
            Pasted = Encoding.UTF8.GetString(bytes);
        }
        else
            bytes = Encoding.UTF8.GetBytes(Pasted);
        var reading = SheetRehearsal.Read(bytes, HttpContext.RequestAborted);
        Errors = reading.Errors;
        return (reading.Sheet, Encoding.UTF8.GetString(bytes));
    }
}
