using Anakyklos.Web.Wording;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.Help;

/// <summary>What a page is for and what can be done there.</summary>
public sealed class IndexModel : PageModel
{
    public HelpTopic Topic { get; private set; } = HelpTopics.All[0];

    public IActionResult OnGet(string? topic)
    {
        if (topic is null)
            return Page();
        if (HelpTopics.Find(topic) is not { } found)
            return NotFound();
        Topic = found;
        return Page();
    }
}
