using Anakyklos.Core.Cards;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>A bay: what stands there, the devices that send, and readings that wait for a person.</summary>
public sealed class BayModel(DeviceDesk desk, CardStore cards, PeopleStore people, DemoWrench wrench,
    DemoDispenser dispenser, DemoScanTool scanTool, DemoLabelPrinter printer, WorkshopClock clock, Viewer viewer) : PageModel
{
    public BayView Bay { get; private set; } = null!;
    public List<Refusal> Refusals { get; } = [];

    /// <summary>The key of a device that was just taken in; it is shown this once.</summary>
    public string Key { get; private set; } = "";

    public string Address => Bays.Address(Bay.Bay);

    public bool Works => viewer.Member?.Person.WorksOnCards == true;

    public bool Leads => viewer.Member?.Role == Role.Lead;

    /// <summary>The page of a device's stand-in in a demo; null where it has none.</summary>
    public string? StandIn(DeviceId device) => wrench.Device?.Name == device.Text ? "/stand-ins/wrench"
        : dispenser.Device?.Name == device.Text ? "/stand-ins/dispenser"
        : scanTool.Device?.Name == device.Text ? "/stand-ins/scan-tool"
        : printer.Device?.Name == device.Text ? "/stand-ins/printer" : null;

    /// <summary>Wrenches and dispensers of the workshop that are not in this bay.</summary>
    public IReadOnlyList<string> CanBeTakenIn => [.. desk.CanSend.Where(n => Bay.Devices.All(d => d.Id != new DeviceId(n)))];

    /// <summary>The containers in which a dispenser can hang.</summary>
    public IReadOnlyList<OilContainer> Containers => _containers ??= desk.Containers;

    /// <summary>A container in words.</summary>
    public string Container(int id) => Containers.FirstOrDefault(c => c.Id == id) is { } c ? $"{c.Name}, {c.Product}, {c.Left} left"
        : $"container {id}, which has nothing left";

    private IReadOnlyList<OilContainer>? _containers;

    /// <summary>How long ago a device was heard, in words.</summary>
    public string Heard(DeviceEntry device) => device.SeenAt is not { } seen ? "never heard yet"
        : IsLost(device) ? $"not heard since {clock.Local(seen):HH:mm}: is it on, and in reach?" : "in reach";

    /// <summary>Whether it may be off or out of reach.</summary>
    public bool IsLost(DeviceEntry device) => device.SeenAt is not { } seen || clock.Now - seen > DeviceDesk.Lost * clock.Speed;

    /// <summary>What its clock is off, where that is worth saying; empty otherwise.</summary>
    public static string ClockSays(DeviceEntry device) => device.ClockOff.Duration() < TimeSpan.FromSeconds(30) ? ""
        : $"Its clock is {Off(device.ClockOff.Duration())} {(device.ClockOff > TimeSpan.Zero ? "fast" : "slow")}; "
            + "its times are put right by that.";

    /// <summary>The step of a card that a reading went to.</summary>
    public string Title(KeptReading reading) => reading.Card is { } number && cards.Find(number) is { } card
        && card.Step(reading.Step) is { } step ? $"{card.Opened.Plate}: {card.TitleOf(step)}" : $"card {reading.Card}";

    /// <summary>Who placed it, when a person did.</summary>
    public string How(KeptReading reading) => reading.Why is null ? "by itself" : $"placed by {Name(reading.By)}";

    public string Name(PersonId? person) => people.All().FirstOrDefault(p => p.Id == person)?.Name ?? person?.Text ?? "";

    public IActionResult OnGet(string address) => Show(address);

    public async Task<IActionResult> OnPostPlaceAsync(string address, string device, Guid reading, string place, bool meant)
    {
        var parts = (place ?? "").Split('/');
        return parts.Length != 2 || !long.TryParse(parts[0], out var card)
            ? Again(address, new Refusal("No step was chosen.", "Choose where the reading belongs."))
            : Again(address, await desk.Place(device ?? "", reading, card, parts[1], viewer.Member!.Person, meant));
    }

    public async Task<IActionResult> OnPostHangAsync(string address, string device, int container) => !viewer.Member!.Person.WorksOnCards
        ? Forbid() : Again(address, await desk.Hang(device ?? "", container));

    public async Task<IActionResult> OnPostDiscardAsync(string address, string device, Guid reading, string words) =>
        Again(address, await desk.Discard(device ?? "", reading, words ?? "", viewer.Member!.Person));

    public async Task<IActionResult> OnPostMoveAsync(string address, string device, string to) => !viewer.Member!.Person.WorksOnCards
        ? Forbid() : Again(address, await desk.Move(device ?? "", to ?? ""));

    public async Task<IActionResult> OnPostVehicleAsync(string address, long card, string to) => !viewer.Member!.Person.WorksOnCards
        ? Forbid() : Again(address, await desk.MoveVehicle(card, to ?? ""));

    public async Task<IActionResult> OnPostPairAsync(string address, string device)
    {
        if (viewer.Member?.Role != Role.Lead)
            return Forbid();
        if (viewer.Bays.At(address) is not { } bay)
            return NotFound();
        var (key, wrong) = await desk.Pair(device ?? "", bay);
        if (key is null)
            return Again(address, wrong);
        Key = key;
        return Show(address);
    }

    private IActionResult Again(string address, Refusal? wrong)
    {
        if (wrong is null)
            return Redirect($"/bay/{address}");
        Refusals.Add(wrong);
        Response.StatusCode = wrong.Field is null ? StatusCodes.Status409Conflict : StatusCodes.Status422UnprocessableEntity;
        return Show(address);
    }

    private IActionResult Show(string address)
    {
        if (viewer.Bays.At(address) is not { } bay)
            return NotFound();
        Bay = desk.Look(bay, viewer.Member!.Person);
        return Page();
    }

    private static string Off(TimeSpan off) => off.TotalMinutes < 2 ? $"{off.TotalSeconds:0} s"
        : off.TotalHours < 2 ? $"{off.TotalMinutes:0} min" : $"{off.TotalHours:0} h";
}
