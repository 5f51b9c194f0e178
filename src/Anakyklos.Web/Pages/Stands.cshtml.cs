using Anakyklos.Core.Cards;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>A card as it stands in the middle of the work, to be read in ten seconds by whoever takes it over.</summary>
public sealed class StandsModel(CardStore cards, WorkshopClock clock, Viewer viewer, CardRooms rooms)
    : CommandPage(cards, clock, viewer, rooms)
{
    // More than these are not read in ten seconds; the hand-over page has them all.
    private const int Told = 6;

    public AsItStands Stands { get; private set; } = null!;

    /// <summary>What was strange, as far as it is told here.</summary>
    public IEnumerable<Strange> Strange => Stands.Strange.Take(Told);

    /// <summary>How much more was strange; empty for nothing.</summary>
    public string More => Stands.Strange.Count > Told ? $"and {Stands.Strange.Count - Told} more at hand-over" : "";

    /// <summary>Where the vehicle stands, and what the engine does.</summary>
    public string Vehicle => string.Join(", ", new[]
    {
        Card.LiftUp ? "The vehicle is up" : "The vehicle is down",
        Card.EngineRuns ? "the engine runs" : "the engine is off",
    });

    public IActionResult OnGet(long id) => Load(id) ?? (Card.Ended is null ? Show() : Redirect($"/record/{id}"));

    private PageResult Show()
    {
        Stands = Card.Standing(Now);
        return Page();
    }

    /// <inheritdoc/>
    protected override string Onward(CardCommand given) => $"/stands/{Id}";

    /// <inheritdoc/>
    protected override IActionResult Again(Person? by) => Show();
}
