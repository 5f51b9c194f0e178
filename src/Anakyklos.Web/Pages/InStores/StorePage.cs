using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.InStores;

/// <summary>A page of something in the stores: what was typed into its form, what is wrong with it, who may change it.</summary>
public abstract class StorePage(PeopleStore people, Viewer viewer) : PageModel
{
    private readonly Dictionary<string, string> _typed = [];

    public List<Refusal> Refusals { get; } = [];

    /// <summary>What was just done.</summary>
    public string Said { get; private set; } = "";

    /// <summary>Whether this person may change the stores.</summary>
    public bool CanBook => viewer.Member?.Role is Role.Stores or Role.Lead or Role.Technician;

    /// <summary>What was typed into a field, or what stands in it before.</summary>
    public string Typed(string field, string otherwise = "") => _typed.GetValueOrDefault(field, otherwise);

    /// <summary>The name of a person.</summary>
    public string Name(PersonId person) => people.Find(person)?.Name ?? person.Text;

    private protected Person Me => viewer.Member!.Person;

    private protected void Keep(params (string Field, string? Text)[] typed)
    {
        foreach (var (field, text) in typed)
            _typed[field] = (text ?? "").Trim();
    }

    private protected void Say(string? said) => Said = said is { Length: < 200 } ? said : "";

    private protected IActionResult? Refuse() => CanBook ? null : Forbid();

    private protected void Wrong(IReadOnlyList<Refusal> wrong)
    {
        Refusals.AddRange(wrong);
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
    }
}
