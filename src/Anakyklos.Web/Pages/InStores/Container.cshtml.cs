using Anakyklos.Core.Oils;
using Anakyklos.Core.Stores;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Anakyklos.Web.Pages.InStores;

/// <summary>One container of the stores: what is left in it, what is known of it, what became of it.</summary>
public sealed class ContainerModel(StoresDesk desk, ShelfStore shelf, PeopleStore people, Viewer viewer) : StorePage(people, viewer)
{
    public OilContainer Container { get; private set; } = null!;

    public IReadOnlyList<OilProduct> Products { get; private set; } = [];

    /// <summary>It has been open for longer than what is in it bears.</summary>
    public bool IsOpenTooLong { get; private set; }

    /// <summary>What became of it, the newest first.</summary>
    public IReadOnlyList<StockLine> Book { get; private set; } = [];

    public IActionResult OnGet(int id, string? said)
    {
        Say(said);
        return Show(id);
    }

    public async Task<IActionResult> OnPostAsync([FromRoute] int id, string? product, string? size, string? left, string? opened,
        string? batch, string? place, string? reason)
    {
        if (Refuse() is { } forbidden)
            return forbidden;
        if (desk.Container(id) is null)
            return NotFound();
        Keep(("product", product), ("size", size), ("left", left), ("opened", opened), ("batch", batch), ("place", place),
            ("reason", reason));
        return Answer(id, await desk.Put(id, new(Typed("product"), Typed("size"), Typed("left"), Typed("opened"), Typed("batch"),
            Typed("place"), Typed("reason")), Me), "Kept");
    }

    public async Task<IActionResult> OnPostScrapAsync([FromRoute] int id, string? why)
    {
        if (Refuse() is { } forbidden)
            return forbidden;
        if (desk.Container(id) is null)
            return NotFound();
        Keep(("why", why));
        return Answer(id, await desk.Scrap(id, Typed("why"), Me) is { } not ? [not] : [], "Scrapped");
    }

    private IActionResult Answer(int id, IReadOnlyList<Core.Wording.Refusal> wrong, string said)
    {
        if (wrong.Count == 0)
            return Redirect($"/stores/container/{id}?said={said}");
        Wrong(wrong);
        return Show(id);
    }

    private IActionResult Show(int id)
    {
        var stores = shelf.Read();
        if (stores.Containers.FirstOrDefault(c => c.Id == id) is not { } there)
            return NotFound();
        (Container, Products) = (there, stores.Oils.Products);
        IsOpenTooLong = desk.IsOpenTooLong(there);
        Book = shelf.Book(60, $"container:{id}");
        return Page();
    }
}
