using Anakyklos.Desk;
using Anakyklos.Devices;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.StandIns;

/// <summary>The demo's label printer: its roll, its line, and what came out of it.</summary>
public sealed class PrinterModel(DemoLabelPrinter demo) : PageModel, ISentAsOftenAsLiked
{
    /// <summary>The printer.</summary>
    public LabelPrinterStandIn Printer => demo.Device!;

    public IActionResult OnGet() => demo.Device is null ? NotFound() : Page();

    /// <summary>A label as it came out.</summary>
    public IActionResult OnGetLabel(Guid id) => demo.Device?.Labels.FirstOrDefault(l => l.Id == id) is { } label
        ? Content(label.Svg, "image/svg+xml") : NotFound();

    public async Task<IActionResult> OnPostRollAsync(bool isIn)
    {
        if (demo.Device is not { } printer)
            return NotFound();
        printer.Load(isIn);
        await demo.Work();
        return RedirectToPage();
    }

    public async Task<IActionResult> OnPostLineAsync(bool isCut)
    {
        if (demo.Device is not { } printer)
            return NotFound();
        printer.IsCut = isCut;
        await demo.Work();
        return RedirectToPage();
    }
}
