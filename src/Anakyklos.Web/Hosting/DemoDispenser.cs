using Anakyklos.Core.Quantities;
using Anakyklos.Core.Stores;
using Anakyklos.Desk;
using Anakyklos.Devices;
using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>The demo's oil dispenser.</summary>
public sealed class DemoDispenser(DeviceDesk desk, DeviceProtocol protocol, SettingStore settings, DemoVehicles vehicles,
    WorkshopClock clock) : DemoSender<DispenserStandIn>(desk, protocol, vehicles, clock)
{
    private const string Name = "OD-1";

    /// <summary>The containers in which it can hang.</summary>
    public IReadOnlyList<OilContainer> Containers => Desk.Containers;

    /// <summary>What is really left in its container: what ran out and was not booked yet is gone.</summary>
    /// <param name="container">The container in which it hangs.</param>
    public Quantity<Volume> LeftIn(OilContainer container)
    {
        var gone = Device!.Unsent.Select(u => u.Read).OfType<MeasuredVolume>().Where(m => m.From == container.Id)
            .Aggregate(Quantity<Volume>.Zero, (sum, m) => sum + m.Volume.Value);
        return gone < container.Left ? container.Left - gone : Quantity<Volume>.Zero;
    }

    /// <inheritdoc/>
    protected override DispenserStandIn? Known() => settings.Read().Dispenser(Name) is not null ? new(Name) : null;

    // It is found in the fullest container, and the workshop knows that.
    /// <inheritdoc/>
    protected override async Task TakenIn(DispenserStandIn device)
    {
        if (Desk.Containers.MaxBy(c => c.Left.In(Volume.Litre)) is not { } fullest)
            return;
        device.DrawsFrom = fullest.Id;
        await Desk.Hang(device.Name, fullest.Id);
    }
}
