using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>What went wrong, in words.</summary>
[IgnoreAntiforgeryToken]
[ResponseCache(NoStore = true)]
public sealed class ErrorModel : PageModel
{
    public string Heading { get; private set; } = "";
    public string Text { get; private set; } = "";

    public void OnGet(int status) => Show(status);

    public void OnPost(int status) => Show(status);

    private void Show(int status) => (Heading, Text) = status switch
    {
        400 => ("That form was too old", "Nothing was written. Go back, load the page again and repeat the last thing."),
        403 => ("Not with your role", "Your role does not do this. Ask the workshop lead."),
        404 => ("There is nothing here", "The card, vehicle or page does not exist. It may have been typed wrongly."),
        405 => ("Not like that", "This address takes no such request. Go back to the card."),
        _ => ("Something broke in here",
            "What was answered “saved” is safe. Go back and look at the card; if it happens again, tell whoever keeps this program "
                + "what you pressed."),
    };
}
