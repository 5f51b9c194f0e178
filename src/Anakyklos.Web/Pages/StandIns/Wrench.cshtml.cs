using Anakyklos.Core.Cards;
using Anakyklos.Core.Torques;
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
public sealed class WrenchModel(DemoWrench demo, DemoVehicles vehicles, WorkshopClock clock, Viewer viewer) : PageModel, ISentAsOftenAsLiked
{
    private const decimal FurthestPull = 360;

    /// <summary>A joint on which the wrench can sit.</summary>
    /// <param name="Fastener">Which.</param>
    /// <param name="Joint">How it sits.</param>
    /// <param name="Place">Which of a group, by its number; 0 for the only one.</param>
    /// <param name="Wants">The torque that it wants now.</param>
    /// <param name="With">What is across the head of the wrench to get at it, or null.</param>
    public sealed record Seat(Fastener Fastener, Joint Joint, int Place, ToTorque Wants, CrowFoot? With)
    {
        /// <summary>Its name; of a group the number.</summary>
        public string Name => Place > 0 ? $"{Fastener.Name}, number {Place}" : Fastener.Name;

        /// <summary>How it sits, in words.</summary>
        public string Says => !Joint.IsIn ? "out" : IsStripped ? "turns on and on"
            : At is { } at && at > Quantity<Torque>.Zero ? $"at {at}" : "run in by hand";

        private Screw? Screw => Joint.Screws.GetValueOrDefault(Math.Max(Place, 1));
        private bool IsStripped => Joint.Screws.IsEmpty ? Joint.IsStripped : Screw?.IsStripped == true;
        private Quantity<Torque>? At => Joint.Screws.IsEmpty ? Joint.Torque : Screw?.Torque;
    }

    /// <summary>The other fasteners of the group on which it sits; empty where it sits on the only one.</summary>
    public IReadOnlyList<int> Places => On is { Place: > 0 } seat ? [.. Enumerable.Range(1, seat.Fastener.Count)] : [];

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
        if (demo.Device is null || !viewer.Bays.Has(bay))
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
        Wrench.With = at.Seat.With;
        Last = vehicles.At(at.Card, b => Wrench.Pull(b, at.Seat.Fastener.Id, degrees, clock.Now, PlaceOf(at.Seat)));
        var harms = string.Join(" ", Last.Harms.Select(h => $"{h.What}: {h.Says}."));
        var sent = Last.Clicked ? await demo.Send() : "";
        Said = $"{harms} {(Last.Clicked ? Sent(sent) : harms.Length > 0 ? "" : "No click: nothing was sent.")}".Trim();
        return Show(on);
    }

    private string Sent(string lines) => lines.Length == 0 ? "The line is cut: it keeps the reading and sends it later."
        : lines.TrimEnd('\n').Split('\n').Last() is var last && System.Text.Json.Nodes.JsonNode.Parse(last) is { } answer
            ? $"{answer["says"]}" : "";

    private static string Here(string? on) => $"/stand-ins/wrench{(string.IsNullOrEmpty(on) ? "" : $"?on={Uri.EscapeDataString(on)}")}";

    // One that is tightened in stages has its screw by number, too.
    private static int PlaceOf(Seat seat) => seat.Joint.Screws.IsEmpty && seat.Place == 0 ? 0 : Math.Max(seat.Place, 1);

    // A seat is named by card and fastener, and by its number where it is one of a group.
    private (CardInBay Card, Seat Seat)? Find(string? on)
    {
        if (on?.Split('/') is not [var number, var fastener, .. var place])
            return null;
        foreach (var card in demo.Here.Where(c => c.Number.ToString() == number))
            if (SeatsOf(card).FirstOrDefault(s => s.Fastener.Id.Text == fastener) is { } seat)
                return place is [var one] && int.TryParse(one, out var n) && n >= 1 && n <= seat.Fastener.Count && seat.Place > 0
                    ? (card, seat with { Place = n }) : (card, seat);
        return null;
    }

    /// <summary>The name of a seat in addresses.</summary>
    public string NameOf(Seat seat) => $"{Card!.Number}/{seat.Fastener.Id}{(seat.Place > 0 ? $"/{seat.Place}" : "")}";

    // Every joint of the card that is done by torque, in the order in which the card comes to them.
    private IReadOnlyList<Seat> SeatsOf(CardInBay card)
    {
        var vehicle = vehicles.Behind(card).Vehicle;
        return [.. card.Card.Steps.Where(s => s.Traits.Fastens || s.Traits.Checks).DistinctBy(s => s.What)
            .Select(s => SeatAt(card.Card, s, vehicle)).OfType<Seat>()];
    }

    // Of a group it sits on the one that the card has next.
    private static Seat? SeatAt(JobCard card, SheetStep step, Vehicle vehicle)
    {
        var fastener = card.Sheet.Fasteners[step.What];
        if (fastener.LastTorque is not { } last)
            return null;
        var fastening = Fastening.Of(card, step);
        var next = fastening.Next;
        return new(fastener, vehicle.Joints[fastener.Id], fastener.Count > 1 ? next?.Place.Number ?? 1 : 0,
            next?.Spec as ToTorque ?? last, fastening.With);
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
        On = found is { } at ? at.Seat
            : Seats.FirstOrDefault(s => Card.Card.Next?.What == s.Fastener.Id) ?? Seats.FirstOrDefault(s => !s.Joint.IsTight)
                ?? Seats.FirstOrDefault();
        Wrench.With = On?.With;
        if (On is not { } seat)
            return Page();
        var vehicle = vehicles.Behind(Card).Vehicle;
        var (fastener, place) = (seat.Fastener.Id, PlaceOf(seat));
        ClickMark = Wrench.ClicksAfter(vehicle, fastener, place) is { } click
            ? (-click).ToString(System.Globalization.CultureInfo.InvariantCulture) : null;
        int? First(Func<Quantity<Torque>, bool> reached) => Enumerable.Range(0, 176).Cast<int?>()
            .FirstOrDefault(d => reached(vehicle.TorqueAfter(fastener, d!.Value, place)));
        var to = seat.Wants;
        Passes = First(t => t >= to.Low) is { } low && First(t => t > to.High) is { } high && high > low ? (low, high) : null;
        Curve = string.Join(' ', Enumerable.Range(0, 181)
            .Select(d => Wrench.After(vehicle, fastener, d, place).Value.In(Wrench.Wrench.Scale)
            .ToString("0.0", System.Globalization.CultureInfo.InvariantCulture)));
        return Page();
    }
}
