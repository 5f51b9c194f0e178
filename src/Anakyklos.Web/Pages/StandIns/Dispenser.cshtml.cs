using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Desk;
using Anakyklos.Devices;
using Anakyklos.Storage;
using Anakyklos.Web.Coaches;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.StandIns;

/// <summary>The stand-in of the oil dispenser in the hand: a filler of the simulated vehicle to hold it into, and a trigger.</summary>
public sealed class DispenserModel(DemoDispenser demo, DemoVehicles vehicles, KitDesk kits, SettingStore settings, WorkshopClock clock,
    Viewer viewer) : PageModel, ISentAsOftenAsLiked
{
    private const int FurthestClock = 600;

    private bool _letGo;

    public DispenserStandIn Device => demo.Device!;
    public CardInBay? Card { get; private set; }

    /// <summary>The fluids of the card that are filled.</summary>
    public IReadOnlyList<FluidSystem> Fillers { get; private set; } = [];

    public FluidSystem? Into { get; private set; }
    public IReadOnlyList<OilContainer> Containers { get; private set; } = [];
    public OilContainer? Container { get; private set; }
    public Quantity<Volume> Left { get; private set; }

    /// <summary>What the card wants poured into this filler now; null when it wants nothing.</summary>
    public Quantity<Volume>? Wants { get; private set; }

    public Delivery? Last { get; private set; }
    public string Said { get; private set; } = "";

    /// <summary>Whether the last run ended because it shut by itself.</summary>
    public bool Shut => Last is { RanDry: false, Shown.Value: var ran } && ran > Quantity<Volume>.Zero && !_letGo;

    /// <summary>What its meter will show when it shuts by itself, in litres.</summary>
    public string ShutsAt => Device.Shown(Device.RunsUntilShut(Left)).Value.Print(Volume.Litre).Number;

    public IActionResult OnGet(string? on) => demo.Device is null ? NotFound() : Show(on);

    public async Task<IActionResult> OnPostBayAsync(string bay, string? on)
    {
        if (demo.Device is null || !viewer.Bays.Has(bay))
            return NotFound();
        Device.Bay = bay;
        await demo.Send();
        return Redirect(Address(on));
    }

    public IActionResult OnPostHang(int container, string? on)
    {
        if (demo.Device is null || demo.Containers.All(c => c.Id != container))
            return NotFound();
        Device.DrawsFrom = container;
        return Redirect(Address(on));
    }

    public IActionResult OnPostSet(string? to, string? on)
    {
        if (demo.Device is null)
            return NotFound();
        if (Quantity<Volume>.Read(to ?? "", out var problem, Volume.Litre) is not { } read)
        {
            Said = problem;
            return Show(on);
        }
        Device.Set(read.Value);
        return Redirect(Address(on));
    }

    public async Task<IActionResult> OnPostSpoilAsync(bool cut, int clock, int shows, int late, string? on)
    {
        if (demo.Device is null)
            return NotFound();
        Device.IsCut = cut;
        Device.ClockOff = TimeSpan.FromMinutes(Math.Clamp(clock, -FurthestClock, FurthestClock));
        Device.Shows = Math.Clamp(shows, 50, 150) / 100m;
        Device.ShutsLate = Quantity<Volume>.Of(Math.Clamp(late, -5000, 5000), Volume.Millilitre);
        await demo.Send();
        return Redirect(Address(on));
    }

    public async Task<IActionResult> OnPostRunAsync(string on, string? upTo)
    {
        if (demo.Device is null || Find(on) is not var (card, into))
            return NotFound();
        Look(card, into);
        if (Container is null)
        {
            Said = "It hangs in no container. Hang it into one first.";
            return Show(on);
        }
        Quantity<Volume>? until = null;
        if (!string.IsNullOrWhiteSpace(upTo))
        {
            if (Quantity<Volume>.Read(upTo, out var problem, Volume.Litre) is not { } read || read.Value <= Quantity<Volume>.Zero)
            {
                Said = problem.Length > 0 ? problem : "Nothing ran: hold the trigger a little.";
                return Show(on);
            }
            until = read.Value;
            _letGo = true;
        }
        Last = vehicles.At(card, b => Device.Run(b, into.Id, until, Container.Product, Left, Suits(card, into), clock.Now));
        var harms = string.Join(" ", Last.Harms.Select(h => $"{h.What}: {h.Says}."));
        var sent = Last.Shown.Value > Quantity<Volume>.Zero ? Sent(await demo.Send()) : harms.Length > 0 ? "" : "Nothing ran.";
        Said = $"{harms} {(Last.RanDry ? "The container is empty." : "")} {sent}".Trim();
        return Show(on);
    }

    private string Sent(string lines) => Device.IsCut ? "The line is cut: it keeps what it metered and sends it later."
        : lines.Length > 0 && System.Text.Json.Nodes.JsonNode.Parse(lines.TrimEnd('\n').Split('\n').Last()) is { } answer
            ? $"{answer["says"]}" : "";

    private bool Suits(CardInBay card, FluidSystem into) => kits.Shelf(card.Number) is var shelf
        && shelf.Oils.Find(Container!.Product) is { } product
        && OilMatch.Of(product, OilRequirement.Of(card.Card.Sheet, into), shelf.Oils.Book, settings.Read().Climate).Lacks.Count == 0;

    private static string Address(string? on) =>
        $"/stand-ins/dispenser{(string.IsNullOrEmpty(on) ? "" : $"?on={Uri.EscapeDataString(on)}")}";

    private static IReadOnlyList<FluidSystem> FillersOf(CardInBay card) => [.. card.Card.Steps
        .Where(s => s.Traits.Fills || s.Traits.Levels).Select(s => card.Card.Sheet.Fluids[s.What]).DistinctBy(f => f.Id)];

    // A filler is named by card and fluid.
    private (CardInBay Card, FluidSystem Into)? Find(string? on)
    {
        foreach (var card in demo.Here)
            if (FillersOf(card).FirstOrDefault(f => $"{card.Number}/{f.Id}" == on) is { } into)
                return (card, into);
        return null;
    }

    private void Look(CardInBay? card, FluidSystem? into)
    {
        (Card, Into, Containers) = (card, into, demo.Containers);
        Container = Containers.FirstOrDefault(c => c.Id == Device.DrawsFrom);
        Left = Container is { } hangs ? demo.LeftIn(hangs) : Quantity<Volume>.Zero;
    }

    private IActionResult Show(string? on)
    {
        var (card, into) = Find(on) is var (c, f) ? ((CardInBay?)c, (FluidSystem?)f) : (demo.Here.FirstOrDefault(), null);
        if (card is not null)
        {
            Fillers = FillersOf(card);
            var next = card.Card.Next;
            into ??= Fillers.FirstOrDefault(x => next?.What == x.Id) ?? (Fillers.Count > 0 ? Fillers[0] : null);
            if (next is not null && into is not null && next.What == into.Id && (next.Traits.Fills || next.Traits.Levels))
            {
                var to = new Looker(viewer, [], kits.Shelf(card.Number), clock.Today, Device.DrawsFrom, []);
                var pours = LiftScene.Of(card.Card, next, clock.Now, to).Pours;
                Wants = pours > Quantity<Volume>.Zero ? pours : null;
            }
        }
        Look(card, into);
        return Page();
    }
}
