using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Asks for the first workshop lead; closed for good once somebody is there.</summary>
public sealed class SetupModel(PeopleStore people, SettingStore settings, PeopleDesk desk) : PageModel
{
    public string WorkshopName { get; private set; } = "";
    public string Name { get; private set; } = "";
    public List<Refusal> Refusals { get; } = [];

    public IActionResult OnGet() => people.Nobody ? Page() : Redirect("/signin");

    public async Task<IActionResult> OnPostAsync(string? workshop, string? name, string? pin, string? again)
    {
        if (!people.Nobody)
            return Redirect("/signin");
        (WorkshopName, Name) = ((workshop ?? "").Trim(), (name ?? "").Trim());
        Refusals.AddRange(PeopleDesk.Check(Name, pin));
        if (WorkshopName.Length is 0 or > 60)
            Refusals.Add(new("Give the workshop a name of up to 60 characters.", Field: "workshop"));
        if (pin != again)
            Refusals.Add(new("The two PINs differ.", "Type the same one twice.", Field: "again"));
        if (Refusals.Count > 0)
        {
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return Page();
        }
        if (await desk.TakeInFirst(Name, pin!) is not { } lead)
            return Redirect("/signin");
        await settings.Write(settings.Read() with { Name = WorkshopName });
        await BrowserSignIn.SignIn(HttpContext, lead);
        return Redirect("/");
    }
}
