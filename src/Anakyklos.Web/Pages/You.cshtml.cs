using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>How a person likes to see things.</summary>
public sealed class YouModel(PeopleStore people, Viewer viewer) : PageModel
{
    public IActionResult OnGet() => viewer.Member is null ? Redirect("/signin") : Page();

    public async Task<IActionResult> OnPostAsync(string? units, string? look)
    {
        if (viewer.Member is not { } member)
            return Redirect("/signin");
        await people.Prefer(member.Id, units == "us" ? "us" : "metric", look is "day" or "night" ? look : "device");
        return Redirect("/");
    }
}
