using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Sheets;
using Anakyklos.Desk;
using Anakyklos.Devices;
using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>The demo's scan tool, and the sockets of the depot's vehicles that it can be plugged into.</summary>
public sealed class DemoScanTool(DeviceDesk desk, DeviceProtocol protocol, SettingStore settings, DemoVehicles vehicles,
    WorkshopClock clock) : DemoSender<ScanToolStandIn>(desk, protocol, vehicles, clock)
{
    private const string Name = "ST-1";

    /// <summary>What the workshop said to what was sent last.</summary>
    public string Said { get; set; } = "";

    /// <summary>The plates of all vehicles of the depot.</summary>
    public IReadOnlyList<string> Plates => [.. DemoDashes.All.Select(d => d.Plate)];

    /// <summary>The socket of a vehicle: as it came to the depot, and with an open card as it stands now.</summary>
    /// <param name="plate">The vehicle.</param>
    /// <returns>The socket, or null where the depot has no such vehicle.</returns>
    public Socket? SocketOf(string plate)
    {
        if (DemoDashes.All.FirstOrDefault(d => d.Plate == plate) is not { } dash)
            return null;
        if (CardOf(plate) is not { } card)
            return new(plate, dash.Identity, Km(dash.Km), dash.Code, dash.Left is { } left ? Km(left) : null, dash.OilLife, dash.Hours);
        var vehicle = Vehicles.At(card, b => b.Vehicle);
        var lit = vehicle.Sheet.Resets.Values.FirstOrDefault(r => vehicle.Lit.Contains(r.Id));
        var odometer = new Typed<Distance>(card.Card.Opened.Odometer + vehicle.Driven, Distance.Kilometre);
        return lit is not null ? new(plate, dash.Identity, odometer, dash.Code, dash.Left is { } over ? Km(over) : null, dash.OilLife,
            dash.Hours)
            : new(plate, dash.Identity, odometer, "", vehicle.Display.Next ?? vehicle.Sheet.Resets.Values.FirstOrDefault()?.Next?.Distance,
                dash.OilLife is null ? null : 100, dash.Hours);
    }

    /// <summary>The open card of a vehicle, or null.</summary>
    /// <param name="plate">The vehicle.</param>
    public CardInBay? CardOf(string plate) => Vehicles.All.FirstOrDefault(c => c.Card.Opened.Plate == plate);

    /// <summary>The vehicle behind an open card and its ritual, where that wants a scan tool.</summary>
    /// <param name="plate">The vehicle.</param>
    public (VehicleBehind Behind, ResetRitual Ritual)? RitualOf(string plate) => CardOf(plate) is { } card
        && card.Card.Sheet.Resets.Values.FirstOrDefault(r => r.By == ResetBy.ScanTool) is { } ritual
        ? (Vehicles.At(card, b => b), ritual) : null;

    /// <inheritdoc/>
    protected override ScanToolStandIn? Known() => settings.Read().HasScanTool(Name) ? new(Name) : null;

    private static Typed<Distance> Km(int km) => new(Quantity<Distance>.Of(km, Distance.Kilometre), Distance.Kilometre);
}
