using System.Globalization;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Sheets;
using Anakyklos.Desk;
using Anakyklos.Simulation;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.StandIns;

/// <summary>The dash of a simulated vehicle: what it shows, and what hands and feet can do at it. It obeys the sheet's ritual in its real
/// times.</summary>
public sealed class DashModel(DemoVehicles vehicles, WorkshopClock clock) : PageModel, ISentAsOftenAsLiked
{
    // Longer than any ritual holds anything.
    private const double LongestHold = 600;

    public IReadOnlyList<CardInBay> Cards { get; private set; } = [];
    public CardInBay Card { get; private set; } = null!;

    /// <summary>The vehicle as it stands this moment.</summary>
    public Vehicle Vehicle { get; private set; } = null!;

    /// <summary>The ritual that puts its indicator out; null where it has none.</summary>
    public ResetRitual? Ritual { get; private set; }

    /// <summary>What hands and feet find there, in the order in which the ritual uses it.</summary>
    public IReadOnlyList<DashControl> Controls => [.. (Ritual?.Moves ?? []).Select(m => m.Uses)
        .Where(c => c is not (DashControl.Plug or DashControl.Choice or DashControl.Tool)).Distinct()];

    /// <summary>When it answers what was worked last; null when it has.</summary>
    public DateTimeOffset? Answers => Vehicle.Display.Answers is { } at && at > Vehicle.Now ? clock.Now + (at - Vehicle.Now) : null;

    /// <summary>What the display shows.</summary>
    public string Shows => Ritual is { } r ? Vehicle.ShowsOf(r.Id) : "";

    /// <summary>What the odometer shows.</summary>
    public string Odometer => OdometerText.Of(Card.Card.Opened.Odometer + Vehicle.Driven, Distance.Kilometre);

    /// <summary>Whether a door is open, which keeps some rituals from beginning.</summary>
    public bool DoorIsOpen => Vehicle.Faults.OfType<DoorAjar>().Any();

    /// <summary>Whether something can be typed in.</summary>
    public bool Types => Ritual?.Moves.Any(m => m.Types != NextService.None) == true;

    public IActionResult OnGet(long? card) => Load(card) ? Page() : NotFound();

    /// <summary>A hand or a foot works something, for so long.</summary>
    public IActionResult OnPostWork(long card, DashControl? control, string? held, string? typed)
    {
        if (!Load(card) || Card.Number != card || Ritual is not { } ritual || control is not { } what || !Enum.IsDefined(what))
            return NotFound();
        if (!Controls.Contains(what))
            return NotFound();
        var seconds = double.TryParse(held, NumberStyles.Float, CultureInfo.InvariantCulture, out var s) && s is >= 0 and <= LongestHold
            ? s : 0;
        // A hurried demo has hurried hands.
        var hand = new WorksDash(ritual.Id, what, TimeSpan.FromSeconds(seconds * clock.Speed), (typed ?? "").Trim());
        vehicles.At(Card, b => b.Do(hand, clock.Now));
        return Redirect($"/stand-ins/dash?card={card}");
    }

    /// <summary>A door is opened, or all are shut; on a motorcycle, its side stand goes up or down.</summary>
    public IActionResult OnPostDoor(long card, bool open)
    {
        if (!Load(card) || Card.Number != card)
            return NotFound();
        vehicles.At(Card, b => b.Do(open ? new DoorAjar() : new ShutsDoors(), clock.Now));
        return Redirect($"/stand-ins/dash?card={card}");
    }

    private bool Load(long? card)
    {
        if (!vehicles.IsServed)
            return false;
        Cards = vehicles.All;
        if ((card is null ? Cards.FirstOrDefault() : Cards.FirstOrDefault(c => c.Number == card)) is not { } found)
            return false;
        Card = found;
        Vehicle = vehicles.At(Card, b => b.AsOf(clock.Now));
        Ritual = Vehicle.Sheet.Resets.Values.FirstOrDefault(r => Vehicle.Lit.Contains(r.Id))
            ?? Vehicle.Sheet.Resets.Values.FirstOrDefault();
        return true;
    }
}
