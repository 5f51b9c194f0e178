using Anakyklos.Core.Cards;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Asks for the first workshop lead; closed for good once somebody is there.</summary>
public sealed class SetupModel(PeopleStore people, SettingStore settings, PinDesk desk) : PageModel
{
    public string WorkshopName { get; private set; } = "";
    public string Name { get; private set; } = "";
    public IReadOnlyDictionary<string, string> Problems { get; private set; } = new Dictionary<string, string>();

    public IActionResult OnGet() => people.Nobody ? Page() : Redirect("/signin");

    public async Task<IActionResult> OnPostAsync(string? workshop, string? name, string? pin, string? again)
    {
        if (!people.Nobody)
            return Redirect("/signin");
        (WorkshopName, Name) = ((workshop ?? "").Trim(), (name ?? "").Trim());
        var problems = NewMember.Problems(Name, pin);
        if (WorkshopName.Length is 0 or > 60)
            problems["workshop"] = "Give the workshop a name of up to 60 characters.";
        if (pin != again)
            problems["again"] = "The two PINs differ. Type the same one twice.";
        Problems = problems;
        if (problems.Count > 0)
        {
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return Page();
        }
        var lead = NewMember.Make(Name, Role.Lead, pin!, desk);
        if (!await people.Add(lead, onlyAsFirst: true))
            return Redirect("/signin");
        await settings.Write(settings.Read() with { Name = WorkshopName });
        await PinDesk.SignIn(HttpContext, lead);
        return Redirect("/");
    }
}
