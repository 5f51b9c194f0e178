using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Anakyklos.Web.Pages.InStores;

/// <summary>One part of the stores, or a new one: how many lie there, what is known of it, what became of it.</summary>
public sealed class PartModel(StoresDesk desk, ShelfStore shelf, PeopleStore people, Viewer viewer) : StorePage(people, viewer)
{
    /// <summary>The part; null for a new one.</summary>
    public StockPart? Part { get; private set; }

    /// <summary>What became of it, the newest first.</summary>
    public IReadOnlyList<StockLine> Book { get; private set; } = [];

    public IActionResult OnGet(string? bare, string? number, string? said) => Show(bare, number, said);

    public async Task<IActionResult> OnPostAsync([FromRoute] string? bare, string? number, string? name, string? count, string? minimum,
        string? place, string? superseded, string? equivalents)
    {
        if (Refuse() is { } forbidden)
            return forbidden;
        var there = bare is null ? null : desk.Part(bare);
        if (bare is not null && there is null)
            return NotFound();
        Keep(("number", there?.Number ?? number), ("name", name), ("count", count), ("minimum", minimum), ("place", place),
            ("superseded", superseded), ("equivalents", equivalents));
        var wrong = await desk.Put(new(Typed("number"), Typed("name"), Typed("count"), Typed("minimum"), Typed("place"),
            Typed("superseded"), Typed("equivalents")), there is null, Me);
        return wrong.Count == 0 ? Redirect($"/stores/part/{PartNumber.Bare(Typed("number"))}?said=Kept") : Again(wrong, bare);
    }

    public async Task<IActionResult> OnPostDropAsync([FromRoute] string? bare) => Refuse()
        ?? (await desk.Drop(bare ?? "") is { } not ? Again([not with { Field = "drop" }], bare)
            : Redirect($"/stores?said={Uri.EscapeDataString("The part is out of the stores")}"));

    private IActionResult Again(IReadOnlyList<Core.Wording.Refusal> wrong, string? bare)
    {
        Wrong(wrong);
        return Show(bare, null, null);
    }

    private IActionResult Show(string? bare, string? number, string? said)
    {
        Say(said);
        if (bare is null && CanBook)
        {
            if (number is not null)
                Keep(("number", number));
            return Page();
        }
        Part = bare is null ? null : desk.Part(bare);
        if (Part is null)
            return NotFound();
        Book = shelf.Book(60, PartNumber.Bare(Part.Number));
        return Page();
    }
}
