using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>With what programs come in: the lead makes tokens, each for a person and for what it may do, and ends them.</summary>
public sealed class TokensModel(TokenDesk desk, PeopleStore people, Viewer viewer) : PageModel
{
    public IReadOnlyList<AccessToken> All => desk.All();
    public IReadOnlyList<Member> Everybody => people.All();
    public IReadOnlyList<Refusal> Refusals { get; private set; } = [];

    /// <summary>What a program sends, of a token that was just made: it is shown this once.</summary>
    public string Secret { get; private set; } = "";

    public string Called { get; private set; } = "";
    public string For { get; private set; } = "";
    public IReadOnlyList<string> Chosen { get; private set; } = ["read"];

    public string Name(PersonId id) => people.Find(id)?.Name ?? id.Text;

    /// <summary>What a scope lets a program do.</summary>
    public static string Says(Scope scope) => scope switch
    {
        Scope.Read => "reads everything: vehicles, cards, stores, sheets, records",
        Scope.Cards => "takes vehicles in, works on cards, books visits",
        Scope.Stores => "books in and out of the stores, keeps the oil book",
        Scope.Workshop => "describes vehicles, writes sheets, sets the workshop",
        _ => throw new ArgumentOutOfRangeException(nameof(scope)),
    };

    public async Task<IActionResult> OnPostMakeAsync(string? token, string? person, string[] scope)
    {
        (Called, For, Chosen) = ((token ?? "").Trim(), person ?? "", scope);
        var (secret, wrong) = await desk.Make(token, person, scope, viewer.Member!.Person);
        if (secret is null)
            return Refuse(wrong);
        (Secret, Called, For, Chosen) = (secret, "", "", ["read"]);
        return Page();
    }

    public async Task<IActionResult> OnPostEndAsync(string? id)
    {
        var wrong = await desk.End(id, viewer.Member!.Person);
        return wrong.Count > 0 ? Refuse(wrong) : Redirect("/tokens");
    }

    private PageResult Refuse(IReadOnlyList<Refusal> wrong)
    {
        Refusals = wrong;
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }
}
