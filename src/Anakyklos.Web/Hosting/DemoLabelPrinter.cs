using Anakyklos.Desk;
using Anakyklos.Devices;
using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>The demo's label printer; it stands in no bay's way and prints for all.</summary>
public sealed class DemoLabelPrinter(DeviceDesk desk, DeviceProtocol protocol, SettingStore settings, DemoVehicles vehicles,
    WorkshopClock clock) : DemoSender<LabelPrinterStandIn>(desk, protocol, vehicles, clock)
{
    private const string Name = "LP-1";

    /// <inheritdoc/>
    protected override LabelPrinterStandIn? Known() => settings.Read().HasLabelPrinter(Name) ? new(Name) : null;

    /// <summary>Asks for work until there is none, and says what became of it.</summary>
    public async Task Work()
    {
        for (var asked = 0; asked < 4; asked++)
            await Send();
    }
}
