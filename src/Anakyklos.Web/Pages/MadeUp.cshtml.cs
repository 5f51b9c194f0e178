using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Brings the made-up depot in beside the workshop, and takes it out again.</summary>
public sealed class MadeUpModel(IMadeUpDepot depot, SettingStore settings, TrailStore trail, WorkshopClock clock, Viewer viewer) : PageModel
{
    public IMadeUpDepot Depot => depot;
    public WorkshopSettings Settings => settings.Read();

    public void OnGet()
    {
    }

    public async Task<IActionResult> OnPostInAsync()
    {
        if (!depot.IsOffered)
        {
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return Page();
        }
        depot.BringIn();
        await trail.Note(viewer.Member!.Id.Text, "made-up depot", "was brought in beside the workshop", clock.Now);
        return Redirect("/made-up");
    }

    public async Task<IActionResult> OnPostOutAsync()
    {
        await depot.TakeOut();
        await trail.Note(viewer.Member!.Id.Text, "made-up depot", "was taken out", clock.Now);
        return Redirect("/made-up");
    }
}
