using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Asks for the first workshop lead; closed for good once somebody is there.</summary>
public sealed class SetupModel(PeopleStore people, SettingStore settings, PeopleDesk desk, BrowserSignIn browser, SetupToken token)
    : PageModel
{
    public string WorkshopName { get; private set; } = "";
    public string Name { get; private set; } = "";
    public List<Refusal> Refusals { get; } = [];

    /// <summary>What the console said, as it was typed or came with the address.</summary>
    public string Typed { get; private set; } = "";

    public IActionResult OnGet(string? token)
    {
        Typed = token ?? "";
        return people.Nobody ? Page() : Redirect("/signin");
    }

    public async Task<IActionResult> OnPostAsync(string? workshop, string? name, string? pin, string? again, string? console)
    {
        Typed = (console ?? "").Trim();
        if (!people.Nobody)
            return Redirect("/signin");
        (WorkshopName, Name) = ((workshop ?? "").Trim(), (name ?? "").Trim());
        Refusals.AddRange(desk.Check(Name, pin));
        if (SettingDesk.CheckName(WorkshopName) is { } nameless)
            Refusals.Add(nameless);
        if (pin != again)
            Refusals.Add(new("The two PINs differ.", "Type the same one twice.", Field: "again"));
        if (!token.Is(Typed))
            Refusals.Add(new("That is not what the program printed when it was started.", "Look at its console or log, and copy the whole "
                + "word.", Field: "console"));
        if (Refusals.Count > 0)
        {
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return Page();
        }
        if (await desk.TakeInFirst(Name, pin!) is not { } lead)
            return Redirect("/signin");
        await settings.Change(now => now with { Name = WorkshopName });
        await browser.SignIn(HttpContext, lead);
        return Redirect("/first-hour");
    }
}
