using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Languages;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>How a person likes to see things, and their PIN.</summary>
public sealed class YouModel(PeopleStore people, PeopleDesk desk, BrowserSignIn browser, Viewer viewer) : PageModel
{
    /// <summary>What is sent by whoever chooses no language; an empty choice cannot be told from none.</summary>
    public const string AsTheBrowserAsks = "browser";

    public List<Refusal> Refusals { get; } = [];

    /// <summary>Whether the workshop asks for a longer PIN than was typed to sign in.</summary>
    public bool TooShort { get; private set; }

    /// <summary>How many digits a new PIN has at least.</summary>
    public int Digits => desk.Digits;

    /// <summary>Whether the PIN was just changed.</summary>
    public bool IsChanged { get; private set; }

    public IActionResult OnGet(bool tooShort, bool changed)
    {
        (TooShort, IsChanged) = (tooShort, changed);
        return viewer.Member is null ? Redirect("/signin") : Page();
    }

    public async Task<IActionResult> OnPostAsync(string? units, string? look, string? language)
    {
        if (viewer.Member is not { } member)
            return Redirect("/signin");
        if (units is not ("us" or "metric") || look is not ("day" or "night" or "device")
            || (language is not (null or AsTheBrowserAsks) && Offered.All.All(l => l.Code != language)))
            return BadRequest();
        await people.Prefer(member.Id, units, look, language switch { null => member.Language, AsTheBrowserAsks => "", _ => language });
        return Redirect("/");
    }

    /// <summary>Changes one's own PIN.</summary>
    public async Task<IActionResult> OnPostPinAsync(string? old, string? pin, string? again)
    {
        if (viewer.Member is not { } member)
            return Redirect("/signin");
        Refusals.AddRange(await desk.ChangePin(member, old, pin, again, browser.Place(HttpContext, member.Id),
            BrowserSignIn.Session(User)));
        if (Refusals.Count == 0)
            return RedirectToPage(new { changed = true });
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }
}
