using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>The front desk: what is back, what is held and why, what waits for which boat. There is nothing to press.</summary>
public sealed class FrontDeskModel(FrontDesk desk, SettingStore settings) : PageModel
{
    /// <summary>What stands there.</summary>
    public DeskBoard Board { get; private set; } = null!;

    /// <summary>The workshop.</summary>
    public string WorkshopName { get; private set; } = "";

    public void OnGet()
    {
        (Board, WorkshopName) = (desk.Look(), settings.Read().Name);
        // It hangs there and is looked at: it comes anew every minute, with script or without.
        Response.Headers["Refresh"] = "60";
    }
}
