using Anakyklos.Core.Stores;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Anakyklos.Web.Pages.InStores;

/// <summary>Pans and tools. What is typed of a pan has a p before the name of its field, of a tool a t.</summary>
public sealed class CribModel(StoresDesk desk, ShelfStore shelf, PeopleStore people, Viewer viewer) : StorePage(people, viewer)
{
    public Shelf Shelf { get; private set; } = Shelf.Empty;

    public void OnGet(string? said)
    {
        Say(said);
        Shelf = shelf.Read();
    }

    public async Task<IActionResult> OnPostPanAsync(string? name, string? holds)
    {
        Keep(("p-name", name), ("p-holds", holds));
        return Refuse() ?? Answer("p-", await desk.PutPan(Typed("p-name"), Typed("p-holds")), $"{Typed("p-name")} is in");
    }

    public async Task<IActionResult> OnPostToolAsync(string? size, string? place)
    {
        Keep(("t-size", size), ("t-place", place));
        return Refuse() ?? Answer("t-", await desk.PutTool(Typed("t-size"), Typed("t-place")), $"{Typed("t-size")} is in");
    }

    public async Task<IActionResult> OnPostDropPanAsync(string? name) => Refuse()
        ?? Answer("", await desk.DropPan(name ?? "") is { } not ? [not with { Field = "what" }] : [], $"{name} is out");

    public async Task<IActionResult> OnPostDropToolAsync(string? size) => Refuse()
        ?? Answer("", await desk.DropTool(size ?? "") is { } not ? [not with { Field = "what" }] : [], $"{size} is out");

    private IActionResult Answer(string form, IReadOnlyList<Refusal> wrong, string said)
    {
        if (wrong.Count == 0)
            return Redirect($"/stores/crib?said={Uri.EscapeDataString(said)}");
        Wrong([.. wrong.Select(w => w with { Field = form + w.Field })]);
        Shelf = shelf.Read();
        return Page();
    }
}
