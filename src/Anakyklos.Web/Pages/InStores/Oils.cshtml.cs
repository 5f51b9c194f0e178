using Anakyklos.Core.Oils;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.InStores;

/// <summary>The oil book: products, which code covers which, and whom they serve, drawn as it is written.</summary>
public sealed class OilsModel(OilDesk desk, SheetStore sheets, PeopleStore people, Viewer viewer) : StorePage(people, viewer)
{
    public OilBook Book { get; private set; } = OilBook.Empty;

    public ApprovalGraph Graph { get; private set; } = ApprovalGraph.Of([], OilBook.Empty);

    /// <summary>The product that is put right; null for a new one.</summary>
    public OilProduct? Product { get; private set; }

    /// <summary>The codes that the sheets ask for and no product serves.</summary>
    public IReadOnlyList<string> Unserved { get; private set; } = [];

    /// <summary>What is drawn before it is written down, in words; empty where the book is drawn as it is.</summary>
    public string Tried { get; private set; } = "";

    public void OnGet(string? name, string? said)
    {
        Say(said);
        Load(name, null);
    }

    private void Load(string? name, OilBook? would)
    {
        Book = desk.Book;
        Product = name is null ? null : Book.Find(name);
        var models = sheets.Newest();
        Graph = ApprovalGraph.Of(models, would ?? Book, would is null ? null : Book);
        Unserved = (would ?? Book).Unserved(models.SelectMany(m =>
            m.Fluids.Values.SelectMany(f => f.Approvals.Value.Select(c => (c, m.Fuel)))));
    }

    public async Task<IActionResult> OnPostProductAsync(string? known, string? name, string? grades, string? codes, string? additives,
        string? lowAsh, string? openDays)
    {
        if (Refuse() is { } forbidden)
            return forbidden;
        var (there, typed) = Oil(known, name, grades, codes, additives, lowAsh, openDays);
        var wrong = await desk.Keep(typed, there is null);
        return wrong.Count > 0 ? Again(wrong, there?.Name) : Done($"{Typed("name")} is in the book");
    }

    /// <summary>Draws what a product would serve, before it is written down.</summary>
    public IActionResult OnPostTryProduct(string? known, string? name, string? grades, string? codes, string? additives, string? lowAsh,
        string? openDays)
    {
        if (Refuse() is { } forbidden)
            return forbidden;
        var (there, typed) = Oil(known, name, grades, codes, additives, lowAsh, openDays);
        return Tries(desk.Would(typed, there is null), there?.Name, typed.Name);
    }

    private (OilProduct? There, TypedOil Typed) Oil(string? known, string? name, string? grades, string? codes, string? additives,
        string? lowAsh, string? openDays)
    {
        var there = string.IsNullOrEmpty(known) ? null : desk.Book.Find(known);
        Keep(("name", there?.Name ?? name), ("grades", grades), ("codes", codes), ("additives", additives),
            ("lowAsh", lowAsh), ("open-days", openDays));
        return (there, new(Typed("name"), Typed("grades"), Typed("codes"), Typed("additives"), lowAsh == "yes", Typed("open-days")));
    }

    public async Task<IActionResult> OnPostRemoveAsync(string? known) => Refuse()
        ?? (await desk.Remove(known ?? "") is { } not ? Again([not with { Field = "remove" }], known)
            : Done($"{known} is out of the book"));

    public async Task<IActionResult> OnPostCoverAsync(string? code, string? covers, string? fuel, string? meant)
    {
        if (Refuse() is { } forbidden)
            return forbidden;
        Keep(("code", code), ("covers", covers), ("fuel", fuel));
        var wrong = await desk.Cover(Typed("code"), Typed("covers"), Typed("fuel"), meant == "yes");
        return wrong.Count > 0 ? Again(wrong, null) : Done($"{Typed("code")} covers {Typed("covers")}");
    }

    /// <summary>Draws what a cover would serve, before it is written down.</summary>
    public IActionResult OnPostTryCover(string? code, string? covers, string? fuel)
    {
        if (Refuse() is { } forbidden)
            return forbidden;
        Keep(("code", code), ("covers", covers), ("fuel", fuel));
        return Tries(desk.WouldCover(Typed("code"), Typed("covers"), Typed("fuel")), null, $"{Typed("code")} covers {Typed("covers")}");
    }

    private PageResult Tries((OilBook? Book, IReadOnlyList<Refusal> Wrong) would, string? name, string tried)
    {
        if (would.Book is null)
            return Again(would.Wrong, name);
        Load(name, would.Book);
        Tried = tried;
        return Page();
    }

    public async Task<IActionResult> OnPostUncoverAsync(string? code, string? covers) => Refuse()
        ?? (await desk.Uncover(code ?? "", covers ?? "") is { Count: > 0 } wrong ? Again(wrong, null)
            : Done($"{code} does not cover {covers} any more"));

    private RedirectResult Done(string said) => Redirect($"/stores/oils?said={Uri.EscapeDataString(said)}");

    private PageResult Again(IReadOnlyList<Refusal> wrong, string? name)
    {
        OnGet(name, null);
        Wrong(wrong);
        return Page();
    }
}
