using Anakyklos.Core.Quantities;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Used oil and filters: which drum, how full, when it is collected, and the log by month.</summary>
public sealed class DrumsModel(DrumDesk desk, Viewer viewer) : PageModel
{
    /// <summary>The drums as they stand.</summary>
    public IReadOnlyList<DrumNow> Drums { get; private set; } = [];

    /// <summary>The log.</summary>
    public IReadOnlyList<WasteMonth> Months { get; private set; } = [];

    /// <summary>What had no drum.</summary>
    public IReadOnlyList<DrumLine> Nowhere { get; private set; } = [];

    /// <summary>What could not be taken as typed.</summary>
    public IReadOnlyList<Refusal> Wrong { get; private set; } = [];

    /// <summary>The drum whose form was sent; empty for that of a new one.</summary>
    public string Of { get; private set; } = "";

    /// <summary>Whether the reader may change them.</summary>
    public bool MayChange => viewer.Member is { } me && DrumDesk.MayChange(me.Person);

    /// <summary>What was typed.</summary>
    public string Typed(string field) => Request.HasFormContentType ? Request.Form[field].ToString() : "";

    public void OnGet() => Show();

    public async Task<IActionResult> OnPostPutAsync(string? name, string? waste, string? holds, string? keep) =>
        Answer("", await desk.Put(viewer.Member!.Person, name, waste, holds, keep));

    public async Task<IActionResult> OnPostCollectAsync(string? drum, string? words) =>
        Answer(drum ?? "", await desk.Collect(viewer.Member!.Person, drum, words));

    public async Task<IActionResult> OnPostOutAsync(string? drum) => Answer(drum ?? "", await desk.TakeOut(viewer.Member!.Person, drum));

    private IActionResult Answer(string of, IReadOnlyList<Refusal> wrong)
    {
        if (wrong.Count == 0)
            return RedirectToPage();
        (Of, Wrong) = (of, wrong);
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        Show();
        return Page();
    }

    /// <summary>What a drum holds, as it is typed.</summary>
    public static string Holds(WasteDrum drum, Unit<Volume> unit) => drum.Pieces > 0 ? $"{drum.Pieces}" : $"{drum.Holds.Print(unit)}";

    private void Show() => (Drums, Months, Nowhere) = (desk.Now(), desk.Months(), desk.Nowhere());

    /// <summary>What goes into a drum, in words.</summary>
    public static string Says(Waste waste) => waste switch
    {
        Waste.Oil => "Used oil",
        Waste.Coolant => "Coolant",
        Waste.BrakeFluid => "Brake fluid",
        Waste.Filters => "Oil filters",
        _ => "Other",
    };
}
