using Anakyklos.Desk;
using Anakyklos.Devices;
using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>The demo's torque wrench.</summary>
public sealed class DemoWrench(DeviceDesk desk, DeviceProtocol protocol, SettingStore settings, DemoVehicles vehicles,
    WorkshopClock clock) : DemoSender<WrenchStandIn>(desk, protocol, vehicles, clock)
{
    private const string Name = "TW-2";

    /// <inheritdoc/>
    protected override WrenchStandIn? Known() =>
        settings.Read().Wrenches.FirstOrDefault(w => w.Name == Name) is { } entry ? new(entry.Wrench) : null;
}
