using Anakyklos.Core.Cards;
using Anakyklos.Core.Readings;
using Anakyklos.Desk;
using Anakyklos.Devices;
using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>
/// The demo's torque wrench: a stand-in that hangs on the simulated vehicles behind the open cards and talks to the workshop as any device
/// does. Only a demo has it; a workshop of one's own has no button that measures.
/// </summary>
public sealed class DemoWrench(DeviceDesk desk, DeviceProtocol protocol, SettingStore settings, DemoVehicles vehicles,
    WorkshopClock clock)
{
    private const string Name = "TW-2";

    private string _key = "";

    /// <summary>The wrench; null while no demo is served.</summary>
    public WrenchStandIn? Wrench { get; private set; }

    /// <summary>Takes the wrench in, in the first bay.</summary>
    public async Task Begin()
    {
        var (key, _) = await desk.Pair(Name, Bays.All[0]);
        if (key is null || settings.Read().Wrenches.FirstOrDefault(w => w.Name == Name) is not { } entry)
            return;
        (_key, Wrench) = (key, new(entry.Wrench) { Bay = Bays.All[0] });
        await Send();
    }

    /// <summary>The open cards where the wrench is.</summary>
    public IReadOnlyList<CardInBay> Here => Wrench is { } wrench ? vehicles.In(wrench.Bay) : [];

    /// <summary>Sends what is in its memory, unless its line is cut.</summary>
    /// <returns>What the workshop answered, or empty.</returns>
    public async Task<string> Send()
    {
        if (Wrench is not { IsCut: false } wrench)
            return "";
        var (_, lines) = await protocol.Answer(_key, wrench.Message(clock.Now));
        wrench.Hear(lines);
        return lines;
    }
}

/// <summary>Lets the demo's wrench say every few seconds that it is there.</summary>
public sealed class WrenchBeat(DemoWrench wrench, ILogger<WrenchBeat> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(10);

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every);
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            try
            {
                await wrench.Send();
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                log.LogError(e, "The demo's wrench could not send");
            }
        }
    }
}
