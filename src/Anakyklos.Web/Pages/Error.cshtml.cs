using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>What went wrong, in words.</summary>
[IgnoreAntiforgeryToken]
[ResponseCache(NoStore = true)]
public sealed class ErrorModel : PageModel, ITellsWhatWentWrong
{
    public string Heading { get; private set; } = "";
    public string Text { get; private set; } = "";

    /// <summary>What was sent and could not be kept; null where nothing was, or where it is of no use again.</summary>
    public UnsentForm? Unsent { get; private set; }

    public void OnGet(int status) => Show(status);

    public void OnPost(int status) => Show(status);

    private void Show(int status)
    {
        (Heading, Text) = Words(status);
        if (status != StatusCodes.Status503ServiceUnavailable)
            return;
        Text = FileTrouble.Of(HttpContext) ?? Text;
        Unsent = UnsentForm.Of(HttpContext);
    }

    private static (string Heading, string Text) Words(int status) => status switch
    {
        400 => ("That form was too old", "Nothing was written. Go back, load the page again and repeat the last thing."),
        403 => ("Not with your role", "Your role does not do this. Ask the workshop lead."),
        404 => ("There is nothing here", "The card, vehicle or page does not exist. It may have been typed wrongly."),
        409 => ("It is not known how that ended", "The same form was sent before, and the program was stopped in the midst of it. Look "
            + "whether what you sent is there; if it is not, load its page again and send it anew."),
        503 => ("Nothing can be kept just now", "What was answered “saved” is safe. Try again in a moment."),
        413 => ("That is too much at once", "Nothing was written. Send less of it."),
        415 => ("That is no form of this page", "Nothing was written. Use the page itself, or the addresses under /api."),
        429 => ("Too many at once", "Close some of the screens that are open, then try again."),
        405 => ("Not like that", "This address takes no such request. Go back to the card."),
        _ => ("Something broke in here",
            "What was answered “saved” is safe. Go back and look at the card; if it happens again, tell whoever keeps this program "
                + "what you pressed."),
    };
}
