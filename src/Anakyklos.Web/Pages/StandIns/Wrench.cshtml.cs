using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Desk;
using Anakyklos.Devices;
using Anakyklos.Simulation;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Wording;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.StandIns;

/// <summary>The stand-in of the torque wrench in the hand: a joint of the simulated vehicle to set it on, and a lever to pull.</summary>
public sealed class WrenchModel(DemoWrench demo, DemoVehicles vehicles, WorkshopClock clock) : PageModel
{
    private const decimal FurthestPull = 360;

    /// <summary>A joint on which the wrench can sit.</summary>
    /// <param name="Fastener">Which.</param>
    /// <param name="Joint">How it sits.</param>
    public sealed record Seat(Fastener Fastener, Joint Joint)
    {
        /// <summary>How it sits, in words.</summary>
        public string Says => !Joint.IsIn ? "out" : Joint.IsStripped ? "turns on and on"
            : Joint.Torque is { } at && at > Quantity<Torque>.Zero ? $"at {at}" : "run in by hand";
    }

    public WrenchStandIn Wrench => demo.Device!;
    public IReadOnlyList<CardInBay> Cards { get; private set; } = [];
    public CardInBay? Card { get; private set; }
    public IReadOnlyList<Seat> Seats { get; private set; } = [];
    public Seat? On { get; private set; }
    public Pull? Last { get; private set; }
    public string Said { get; private set; } = "";

    /// <summary>What it will show at each degree of the pull that is to come, in its scale.</summary>
    public string Curve { get; private set; } = "";

    /// <summary>Where on the arc it will click, in degrees as the drawing turns; null when it would not within half a turn.</summary>
    public string? ClickMark { get; private set; }

    /// <summary>From and until how many degrees the joint is inside what passes; null when it is beyond that already.</summary>
    public (int From, int Until)? Passes { get; private set; }

    /// <summary>An arc round the joint, against the hand of the clock as the lever is drawn.</summary>
    public static string Arc(int from, int until)
    {
        static string At(int degrees) => FormattableString.Invariant(
            $"{98 * Math.Cos(degrees * Math.PI / 180):0.#} {-98 * Math.Sin(degrees * Math.PI / 180):0.#}");
        return $"M{At(from)}A98 98 0 0 0 {At(until)}";
    }

    public IActionResult OnGet(string? on) => demo.Device is null ? NotFound() : Show(on);

    public async Task<IActionResult> OnPostBayAsync(string bay, string? on)
    {
        if (demo.Device is null || !Bays.All.Contains(bay))
            return NotFound();
        Wrench.Bay = bay;
        await demo.Send();
        return Redirect(Here(on));
    }

    public IActionResult OnPostSet(decimal to, string? on)
    {
        if (demo.Device is null)
            return NotFound();
        Wrench.Set(Quantity<Torque>.Of(Math.Clamp(to, 0, 2000), Wrench.Wrench.Scale));
        return Redirect(Here(on));
    }

    public async Task<IActionResult> OnPostSpoilAsync(bool cut, int clock, int shows, string? on)
    {
        if (demo.Device is null)
            return NotFound();
        Wrench.IsCut = cut;
        Wrench.ClockOff = TimeSpan.FromMinutes(Math.Clamp(clock, -600, 600));
        Wrench.Shows = Math.Clamp(shows, 50, 150) / 100m;
        await demo.Send();
        return Redirect(Here(on));
    }

    public IActionResult OnPostRunIn(string on)
    {
        if (demo.Device is null || Find(on) is not { } at)
            return NotFound();
        var answer = vehicles.At(at.Card, b => b.Do(new RunsIn(at.Seat.Fastener.Id), clock.Now));
        Said = string.Join(" ", answer.Harms.Select(h => $"{h.What}: {h.Says}."));
        return Said.Length == 0 ? Redirect(Here(on)) : Show(on);
    }

    public async Task<IActionResult> OnPostPullAsync(string on, decimal degrees)
    {
        if (demo.Device is null || Find(on) is not { } at)
            return NotFound();
        if (degrees is <= 0 or > FurthestPull)
        {
            Said = "Pull a little: up to one turn.";
            return Show(on);
        }
        Last = vehicles.At(at.Card, b => Wrench.Pull(b, at.Seat.Fastener.Id, degrees, clock.Now));
        var harms = string.Join(" ", Last.Harms.Select(h => $"{h.What}: {h.Says}."));
        var sent = Last.Clicked ? await demo.Send() : "";
        Said = $"{harms} {(Last.Clicked ? Sent(sent) : harms.Length > 0 ? "" : "No click: nothing was sent.")}".Trim();
        return Show(on);
    }

    private string Sent(string lines) => lines.Length == 0 ? "The line is cut: it keeps the reading and sends it later."
        : lines.TrimEnd('\n').Split('\n').Last() is var last && System.Text.Json.Nodes.JsonNode.Parse(last) is { } answer
            ? $"{answer["says"]}" : "";

    private static string Here(string? on) => $"/stand-ins/wrench{(string.IsNullOrEmpty(on) ? "" : $"?on={Uri.EscapeDataString(on)}")}";

    // A seat is named by card and fastener.
    private (CardInBay Card, Seat Seat)? Find(string? on)
    {
        foreach (var card in demo.Here)
            if (SeatsOf(card).FirstOrDefault(s => $"{card.Number}/{s.Fastener.Id}" == on) is { } seat)
                return (card, seat);
        return null;
    }

    // Every joint of the card that is done by torque, in the order in which the card comes to them.
    private IReadOnlyList<Seat> SeatsOf(CardInBay card)
    {
        var vehicle = vehicles.Behind(card).Vehicle;
        return [.. card.Card.Steps.Where(s => s.Traits.Fastens || s.Traits.Checks).Select(s => card.Card.Sheet.Fasteners[s.What])
            .DistinctBy(f => f.Id).Where(f => f.Tightening.Value is ToTorque).Select(f => new Seat(f, vehicle.Joints[f.Id]))];
    }

    private IActionResult Show(string? on)
    {
        Cards = demo.Here;
        var found = Find(on);
        Card = found?.Card ?? Cards.FirstOrDefault();
        if (Card is null)
            return Page();
        Seats = SeatsOf(Card);
        // Where the card is at a joint, that one lies nearest.
        On = found is { } at ? Seats.First(s => s.Fastener.Id == at.Seat.Fastener.Id)
            : Seats.FirstOrDefault(s => Card.Card.Next?.What == s.Fastener.Id) ?? Seats.FirstOrDefault(s => !s.Joint.IsTight)
                ?? Seats.FirstOrDefault();
        if (On is not { } seat)
            return Page();
        var vehicle = vehicles.Behind(Card).Vehicle;
        var fastener = seat.Fastener.Id;
        ClickMark = Wrench.ClicksAfter(vehicle, fastener) is { } click
            ? (-click).ToString(System.Globalization.CultureInfo.InvariantCulture) : null;
        int? First(Func<Quantity<Torque>, bool> reached) => Enumerable.Range(0, 176).Cast<int?>()
            .FirstOrDefault(d => reached(vehicle.TorqueAfter(fastener, d!.Value)));
        var to = (ToTorque)seat.Fastener.Tightening.Value;
        Passes = First(t => t >= to.Low) is { } low && First(t => t > to.High) is { } high && high > low ? (low, high) : null;
        Curve = string.Join(' ', Enumerable.Range(0, 181).Select(d => Wrench.After(vehicle, fastener, d).Value.In(Wrench.Wrench.Scale)
            .ToString("0.0", System.Globalization.CultureInfo.InvariantCulture)));
        return Page();
    }
}
