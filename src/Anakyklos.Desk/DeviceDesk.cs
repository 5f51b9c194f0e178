using System.Buffers.Text;
using System.Security.Cryptography;
using System.Text;
using Anakyklos.Core.Workshop;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A step that could take a reading.</summary>
/// <param name="Card">The card.</param>
/// <param name="Step">The step.</param>
/// <param name="Asks">What the card asks before it takes it; empty when it takes it at once.</param>
/// <param name="Refuses">Why it does not take it now, and what to do first; null when it does.</param>
public sealed record PlaceForReading(CardInBay Card, SheetStep Step, string Asks = "", Refusal? Refuses = null);

/// <summary>A reading that waits, with the steps that could take it.</summary>
/// <param name="Kept">The reading.</param>
/// <param name="Places">In plan order; empty when nothing takes it now.</param>
public sealed record WaitingReading(KeptReading Kept, IReadOnlyList<PlaceForReading> Places);

/// <summary>A bay with its devices and what they sent.</summary>
/// <param name="Bay">Its name.</param>
/// <param name="Cards">Open cards there.</param>
/// <param name="Devices">Devices there.</param>
/// <param name="Waiting">Readings that wait, oldest first.</param>
/// <param name="Settled">Readings that were placed or discarded lately, newest first.</param>
public sealed record BayView(string Bay, IReadOnlyList<CardInBay> Cards, IReadOnlyList<DeviceEntry> Devices,
    IReadOnlyList<WaitingReading> Waiting, IReadOnlyList<KeptReading> Settled);

/// <summary>Devices and their readings: who may send, where a reading goes, and what a person does with one that waits.</summary>
public sealed class DeviceDesk(DeviceStore devices, CardStore cards, SettingStore settings, ShelfStore stores, WorkshopClock clock)
{
    /// <summary>A device that was not heard for longer than this may be off or out of reach.</summary>
    public static readonly TimeSpan Lost = TimeSpan.FromSeconds(30);

    private const int LatelyShown = 8;
    private const int LongestWords = 200;

    /// <summary>The names of all that can be taken in as a device: the wrenches of the crib, the dispensers, the scan tools and the label
    /// printers.</summary>
    public IReadOnlyList<string> CanSend => [.. settings.Read().Wrenches.Select(w => w.Name),
        .. (settings.Read().Dispensers ?? []).Select(d => d.Name), .. settings.Read().ScanTools ?? [],
        .. settings.Read().LabelPrinters ?? []];

    /// <summary>The bay that is filled first.</summary>
    public string FirstBay => settings.Read().Bays.Inside[0];

    /// <summary>Takes a torque wrench, a dispenser, a scan tool or a label printer of the workshop in as a device.</summary>
    /// <param name="id">What is painted on it; the workshop must know it.</param>
    /// <param name="bay">Where it is.</param>
    /// <returns>Its key, which is shown once and not kept; or what is wrong.</returns>
    public async Task<(string? Key, Refusal? Wrong)> Pair(DeviceId id, string bay)
    {
        var set = settings.Read();
        DeviceKind? kind = set.Wrenches.Any(w => w.Name == id.Text) ? DeviceKind.TorqueWrench
            : set.Dispenser(id.Text) is not null ? DeviceKind.Dispenser
            : set.HasScanTool(id.Text) ? DeviceKind.ScanTool
            : set.HasLabelPrinter(id.Text) ? DeviceKind.LabelPrinter : null;
        if (kind is null)
            return (null, new($"The workshop has no wrench, no dispenser, no scan tool and no label printer {id}.",
                "Add it at the workshop's page first."));
        if (!set.Bays.Has(bay))
            return (null, new($"There is no {bay}.", "Choose a bay."));
        var key = Base64Url.EncodeToString(RandomNumberGenerator.GetBytes(32));
        await devices.Pair(id, kind.Value, bay, HashOf(key));
        return (key, null);
    }

    /// <summary>The device that a key belongs to, or null.</summary>
    /// <param name="key">As it was sent.</param>
    public DeviceEntry? WhoHas(string key) => devices.WithKey(HashOf(key));

    /// <summary>A device said where it is and what its clock says.</summary>
    /// <param name="device">Which.</param>
    /// <param name="bay">Where it says it is.</param>
    /// <param name="itsNow">What its clock says.</param>
    /// <returns>How far its clock goes before ours.</returns>
    public async Task<TimeSpan> Hear(DeviceEntry device, string bay, DateTimeOffset itsNow)
    {
        var off = itsNow - clock.Now;
        await devices.Heard(device.Id, bay, off, clock.Now);
        return off;
    }

    /// <summary>A reading came. It is placed at the step that wants it, or kept in sight; the same one again changes nothing.</summary>
    /// <param name="device">Which device sent it.</param>
    /// <param name="reading">What came.</param>
    /// <returns>What became of it, and whether it had come before.</returns>
    public async Task<(KeptReading Kept, bool Again)> Take(DeviceEntry device, DeviceReading reading)
    {
        if (devices.Find(device.Id, reading.Id) is { } earlier)
            return (earlier, true);
        var landing = Landing.Of(reading, Known(device), InBay(device.Bay), devices.LastPlaced(device.Id), clock.Now);
        if (landing is LandsAt lands && await devices.Land(reading, device.Bay, lands, clock.Now) is var answer
            && answer?.Decision is not Accepted)
            landing = new WaitsInSight(WhyNot(answer));
        if (landing is WaitsInSight waits)
            await devices.Wait(reading, device.Bay, waits.Why, clock.Now);
        return (devices.Find(device.Id, reading.Id)!, false);
    }

    /// <summary>A bay as it stands.</summary>
    /// <param name="bay">Its name.</param>
    /// <param name="by">Who looks, and would say where a reading belongs.</param>
    public BayView Look(string bay, Person by)
    {
        var here = InBay(bay);
        return new(bay, here, [.. devices.All().Where(d => d.Bay == bay)],
            [.. devices.Waiting(bay).Select(r => new WaitingReading(r,
                [.. here.SelectMany(c => PlacesFor(r, c).Select(p => Answered(p, by)))]))],
            devices.Settled(bay, LatelyShown));
    }

    private PlaceForReading Answered((PlaceForReading Place, CardCommand Command) at, Person by) =>
        cards.WouldAnswer(at.Place.Card.Number, at.Place.Card.Card, at.Command, by, clock.Now) switch
        {
            Asked asked => at.Place with { Asks = asked.Question.Text },
            Refused { Reasons: [var first, ..] } => at.Place with { Refuses = first },
            _ => at.Place,
        };

    /// <summary>The containers in which a dispenser can hang: cans and drums with something left, by number; no bottle.</summary>
    public IReadOnlyList<OilContainer> Containers => [.. stores.Read().Containers
        .Where(c => c.Kind != ContainerKind.Bottle && c.Left > Quantity<Volume>.Zero).OrderBy(c => c.Id)];

    /// <summary>Somebody hung a dispenser into a container.</summary>
    /// <param name="device">The dispenser.</param>
    /// <param name="container">The number on the container.</param>
    /// <returns>Why it could not be noted; null when it was.</returns>
    public async Task<Refusal?> Hang(DeviceId device, int container) =>
        Containers.All(c => c.Id != container) ? new($"There is no can and no drum {container} with anything left in the stores.",
            "Choose one that is shown, or book it in first.")
        : await devices.Hang(device, container) == 1 ? null : new("There is no such dispenser.", "Load the page again.");

    /// <summary>The readings that wait in a bay, oldest first.</summary>
    public IReadOnlyList<KeptReading> WaitingIn(string bay) => devices.Waiting(bay);

    /// <summary>A wrench in a bay that was heard lately, is in calibration and can be set for a torque; null when there is none.</summary>
    /// <param name="bay">The bay.</param>
    /// <param name="spec">The torque wanted.</param>
    /// <param name="with">What is across its head, or null.</param>
    public DeviceId? WrenchFor(string bay, ToTorque spec, CrowFoot? with = null) => InReach(bay)
        .Where(d => d.Wrench is { } w && w.IsCalibrated(clock.Today) && w.Wrench.Covers(spec, with))
        .Select(d => (DeviceId?)d.Id).FirstOrDefault();

    /// <summary>The scan tool that was heard lately in a bay; null when there is none.</summary>
    /// <param name="bay">The bay.</param>
    public DeviceId? ScanToolIn(string bay) => InReach(bay).Where(d => d.Kind == DeviceKind.ScanTool).Select(d => (DeviceId?)d.Id)
        .FirstOrDefault();

    /// <summary>The wrenches that were heard lately in a bay.</summary>
    /// <param name="bay">The bay.</param>
    public IReadOnlyList<DeviceId> WrenchesIn(string bay) => [.. InReach(bay).Where(d => d.Wrench is not null).Select(d => d.Id)];

    /// <summary>A dispenser in a bay that was heard lately, is in calibration and hangs in one of the products that may go in; null when
    /// there is none.</summary>
    /// <param name="bay">The bay.</param>
    /// <param name="products">The products that were laid out.</param>
    public DeviceId? DispenserFor(string bay, IReadOnlyCollection<string> products) => InReach(bay)
        .Where(d => d.Meter?.IsCalibrated(clock.Today) == true && d.DrawsFrom is { } from
            && stores.Read().Pourable(clock.Today).Any(c => c.Id == from && products.Any(p => PartNumber.Same(p, c.Product))))
        .Select(d => (DeviceId?)d.Id).FirstOrDefault();

    private IEnumerable<Device> InReach(string bay) => devices.All()
        .Where(d => d.Bay == bay && d.SaidBay == bay && d.SeenAt is { } seen && clock.Now - seen <= Lost * clock.Speed).Select(Known);

    /// <summary>Somebody says where a reading belongs; it is noted in that person's name.</summary>
    /// <param name="device">Its device.</param>
    /// <param name="id">Its id.</param>
    /// <param name="card">The card.</param>
    /// <param name="step">The step.</param>
    /// <param name="by">Who.</param>
    /// <param name="meant">The card asked about it, and that is how it was.</param>
    /// <returns>Why it could not be placed; null when it was.</returns>
    public async Task<Refusal?> Place(DeviceId device, Guid id, CardNumber card, StepId step, Person by, bool meant = false)
    {
        if (devices.Find(device, id) is not { State: ReadingState.Waiting } kept)
            return Settled();
        var bay = cards.Entry(card) is { IsOpen: true } entry ? entry.Bay : "";
        if (bay != kept.Reading.Bay && devices.All().All(d => d.Id != device || d.Bay != bay))
            return new("That card is not where the device is.", "Move the device to that bay first.");
        var found = InBay(bay).Where(c => c.Number == card).SelectMany(c => PlacesFor(kept, c))
            .FirstOrDefault(p => p.Place.Step.Id == step);
        if (found.Command is null)
            return new("That step does not take this reading now.", "Choose another, or discard the reading.");
        var command = meant && found.Command is Pour pour ? pour with { WarningSeen = true } : found.Command;
        var answer = await devices.Place(kept, new(card, step, command, by), clock.Now);
        return answer is null ? Settled() : answer.Decision is Accepted ? null : WhyNot(answer);
    }

    /// <summary>Somebody says that a reading belongs nowhere.</summary>
    /// <param name="device">Its device.</param>
    /// <param name="id">Its id.</param>
    /// <param name="words">Why, up to 200 characters.</param>
    /// <param name="by">Who.</param>
    /// <returns>Why it could not be discarded; null when it was.</returns>
    public async Task<Refusal?> Discard(DeviceId device, Guid id, string words, Person by)
    {
        if (!by.WorksOnCards)
            return new("Only who works on cards discards readings.", "Ask a technician or the lead.");
        if (words.Trim() is not { Length: > 0 and <= LongestWords } said)
            return new($"Say in a few words why, up to {LongestWords} characters.", Field: "words");
        return await devices.Discard(device, id, by.Id, said, clock.Now) == 1 ? null : Settled();
    }

    /// <summary>Somebody carried a device to another bay.</summary>
    /// <param name="device">Which.</param>
    /// <param name="bay">Where it is now.</param>
    /// <returns>Why it could not be noted; null when it was.</returns>
    public async Task<Refusal?> Move(DeviceId device, string bay) =>
        !settings.Read().Bays.Has(bay) ? new($"There is no {bay}.", "Choose a bay.")
        : await devices.Move(device, bay) == 1 ? null : new("There is no such device.", "Load the page again.");

    /// <summary>Somebody drove or pushed a vehicle to another bay.</summary>
    /// <param name="card">Its card.</param>
    /// <param name="bay">Where it stands now.</param>
    /// <returns>Why it could not be noted; null when it was.</returns>
    public async Task<Refusal?> MoveVehicle(CardNumber card, string bay) =>
        !settings.Read().Bays.Has(bay) ? new($"There is no {bay}.", "Choose a bay.")
        : cards.Find(card) is { LiftUp: true } ? new("The vehicle is up on the lift.", "Lower it first.")
        : await cards.MoveTo(card, bay) == 1 ? null : new("There is no such open card.", "Load the page again.");

    private Device Known(DeviceEntry device)
    {
        var set = settings.Read();
        return new(device.Id, device.Kind, device.Bay, set.Wrenches.FirstOrDefault(w => w.Name == device.Id.Text)?.InCrib,
            set.Dispenser(device.Id.Text), device.DrawsFrom);
    }

    private List<CardInBay> InBay(string bay) =>
        [.. cards.Unsigned().Where(c => c.Bay == bay).Select(c => new CardInBay(c.Id, cards.Find(c.Id)!))];

    // What was measured before a card was opened was measured on another vehicle.
    private IEnumerable<(PlaceForReading Place, CardCommand Command)> PlacesFor(KeptReading kept, CardInBay card) =>
        kept.Reading.At < card.Card.History[0].At ? []
        : Landing.Choices(card.Card, kept.Reading.Read, kept.Reading.Device, clock.Now)
            .Select(c => (new PlaceForReading(card, c.Step), c.Command));

    private static Refusal Settled() => new("Somebody settled this reading meanwhile.", "Look at the list again.");

    private static Refusal WhyNot(CardAnswer? answer) => answer?.Decision switch
    {
        Refused { Reasons: [var first, ..] } => first with { Field = null },
        Asked { Question.Text: var asks } => new(asks),
        _ => new("The card did not take it.", "Look at the card, then say where it belongs."),
    };

    private static string HashOf(string key) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(key)));
}
