using Anakyklos.Core.Readings;
using Anakyklos.Desk;
using Anakyklos.Devices;

namespace Anakyklos.Web.Hosting;

/// <summary>
/// A stand-in of the demo that hangs on the simulated vehicles behind the open cards and talks to the workshop as any device does. Only a
/// demo has one; a workshop of one's own has no button that measures.
/// </summary>
public abstract class DemoSender<T>(DeviceDesk desk, DeviceProtocol protocol, DemoVehicles vehicles, WorkshopClock clock) : IDemoSender
    where T : SendingStandIn
{
    private string _key = "";

    /// <summary>Where devices are taken in.</summary>
    protected DeviceDesk Desk => desk;

    /// <summary>The simulated vehicles.</summary>
    protected DemoVehicles Vehicles => vehicles;

    /// <summary>The stand-in; null while no demo is served.</summary>
    public T? Device { get; private set; }

    /// <summary>The open cards where it is.</summary>
    public IReadOnlyList<CardInBay> Here => Device is { } device ? vehicles.In(device.Bay) : [];

    /// <summary>The stand-in as the workshop knows it, or null when it does not.</summary>
    protected abstract T? Known();

    /// <summary>What is done once it is taken in.</summary>
    protected virtual Task TakenIn(T device) => Task.CompletedTask;

    /// <inheritdoc/>
    public async Task Begin()
    {
        if (Known() is not { } device || await desk.Pair(device.Name, desk.FirstBay) is not ({ } key, _))
            return;
        device.Bay = desk.FirstBay;
        (_key, Device) = (key, device);
        await TakenIn(device);
        await Send();
    }

    /// <inheritdoc/>
    public async Task<string> Send()
    {
        if (Device is not { IsCut: false } device)
            return "";
        var (_, lines) = await protocol.Answer(_key, device.Message(clock.Now));
        device.Hear(lines);
        return lines;
    }
}

/// <summary>A stand-in that sends.</summary>
public interface IDemoSender
{
    /// <summary>Takes it in, in the first bay.</summary>
    Task Begin();

    /// <summary>Sends what is in its memory, unless its line is cut.</summary>
    /// <returns>What the workshop answered, or empty.</returns>
    Task<string> Send();
}

/// <summary>Lets the demo's devices say every few seconds that they are there.</summary>
public sealed class DeviceBeat(IEnumerable<IDemoSender> senders, ILogger<DeviceBeat> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(10);

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every);
        while (await timer.WaitForNextTickAsync(stoppingToken))
            foreach (var sender in senders)
                try
                {
                    await sender.Send();
                }
                catch (Exception e) when (e is not OperationCanceledException)
                {
                    log.LogError(e, "A device of the demo could not send");
                }
    }
}
