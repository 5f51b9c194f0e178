using Anakyklos.Core.Cards;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Choose yourself, type the PIN.</summary>
public sealed class SignInModel(PeopleStore people, PeopleDesk desk, SettingStore settings, BrowserSignIn browser, Options options)
    : PageModel, ISentAsOftenAsLiked
{
    public IReadOnlyList<Member> People { get; private set; } = [];
    public PersonId Person { get; private set; }
    public string Problem { get; private set; } = "";
    public string ReturnUrl { get; private set; } = "/";
    public string WorkshopName { get; private set; } = "";
    public bool IsDemo => options.Demo;

    public void OnGet(string? returnUrl) => Show(null, returnUrl);

    public async Task<IActionResult> OnPostAsync(string? person, string? pin, string? returnUrl)
    {
        var outcome = await desk.Try(person ?? "", pin, browser.Place(HttpContext, person ?? ""));
        if (outcome.Member is { } member)
        {
            await browser.SignIn(HttpContext, member);
            // A PIN of four digits in a workshop that asks for six: it opens once more, the page where it is changed.
            if (pin!.Length < desk.Digits)
                return RedirectToPage("/You", new { tooShort = true });
            return LocalRedirect(Url.IsLocalUrl(returnUrl) ? returnUrl! : "/");
        }
        Show(person, returnUrl);
        Problem = outcome.Problem;
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }

    public async Task<IActionResult> OnPostOutAsync()
    {
        await browser.SignOut(HttpContext);
        return Redirect("/signin");
    }

    private void Show(string? person, string? returnUrl)
    {
        People = people.All();
        Person = person ?? People.FirstOrDefault()?.Id ?? default;
        ReturnUrl = Url.IsLocalUrl(returnUrl) ? returnUrl! : "/";
        WorkshopName = settings.Read().Name;
    }

    internal static string RoleWord(Role role) => role switch
    {
        Role.Lead => "workshop lead",
        Role.Technician => "technician",
        Role.Stores => "stores",
        _ => "reads only",
    };
}
