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
public sealed class DemoWrench(DeviceDesk desk, DeviceProtocol protocol, CardStore cards, SettingStore settings, WorkshopClock clock)
{
    private const string Name = "TW-2";

    private readonly Dictionary<CardNumber, VehicleBehind> _behind = [];
    private readonly Lock _lock = new();
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

    /// <summary>The vehicle behind a card, up to now.</summary>
    /// <param name="card">An open card.</param>
    public VehicleBehind Behind(CardInBay card)
    {
        lock (_lock)
        {
            if (!_behind.TryGetValue(card.Number, out var behind))
                _behind[card.Number] = behind = new(card.Card);
            behind.Follow(card.Card);
            return behind;
        }
    }

    /// <summary>Does something at the vehicle behind a card.</summary>
    /// <param name="card">An open card.</param>
    /// <param name="does">What; it has the vehicle to itself.</param>
    public T At<T>(CardInBay card, Func<VehicleBehind, T> does)
    {
        var behind = Behind(card);
        lock (_lock)
            return does(behind);
    }

    /// <summary>The open cards where the wrench is.</summary>
    public IReadOnlyList<CardInBay> Here => Wrench is not { } wrench ? []
        : [.. cards.Unsigned().Where(c => c.Bay == wrench.Bay).Select(c => new CardInBay(c.Id, cards.Find(c.Id)!))];

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
