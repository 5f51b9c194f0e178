using Anakyklos.Core.Cards;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A vehicle as whoever asks for it hears of it.</summary>
/// <param name="Plate">The vehicle.</param>
/// <param name="Task">What it does.</param>
/// <param name="Card">Its card.</param>
/// <param name="Whys">Why it is not back; of one that is back, what its driver should know.</param>
/// <param name="Since">Since when.</param>
public sealed record VehicleAtDesk(string Plate, string Task, CardNumber Card, IReadOnlyList<string> Whys, DateTimeOffset Since);

/// <summary>Something that a card waits for.</summary>
/// <param name="Plate">The vehicle.</param>
/// <param name="Card">Its card.</param>
/// <param name="Name">What it is.</param>
/// <param name="Number">Its number.</param>
public sealed record OnTheBoat(string Plate, CardNumber Card, string Name, string Number);

/// <summary>What stands at the front desk: which vehicles are back, which are held and why, and what waits for which boat.</summary>
/// <param name="Back">Signed within the last days and not here again, the newest first.</param>
/// <param name="Held">Held until somebody decides, or put out of use.</param>
/// <param name="AtWork">Being worked on, with nothing in the way.</param>
/// <param name="Boats">By day; null where nobody knows which.</param>
public sealed record DeskBoard(IReadOnlyList<VehicleAtDesk> Back, IReadOnlyList<VehicleAtDesk> Held, IReadOnlyList<VehicleAtDesk> AtWork,
    IReadOnlyList<(DateOnly? Boat, IReadOnlyList<OnTheBoat> Waits)> Boats);

/// <summary>Brings together what the front desk is asked for.</summary>
public sealed class FrontDesk(CardStore cards, VehicleStore vehicles, WorkshopClock clock)
{
    private const int Days = 7, Most = 40;

    /// <summary>What stands there now.</summary>
    public DeskBoard Look()
    {
        var open = cards.Unsigned().Select(e => (Entry: e, Card: cards.Find(e.Id)!)).ToList();
        var here = open.Select(o => o.Entry.Plate).ToHashSet();
        var since = clock.Now.AddDays(-Days);
        VehicleAtDesk At(CardEntry entry, IReadOnlyList<string> whys, DateTimeOffset at) =>
            new(entry.Plate, vehicles.Find(entry.Plate)?.Task ?? "", entry.Id, whys, at);
        var why = open.Select(o => (o.Entry, o.Card, Whys: Whys(o.Card))).ToList();
        return new(
            [.. cards.LastSigned(Most).Where(e => e.SignedAt >= since && !here.Contains(e.Plate)).DistinctBy(e => e.Plate)
                .Select(e => At(e, Known(cards.Find(e.Id)!, e.Id), e.SignedAt!.Value))],
            [.. why.Where(w => w.Whys.Count > 0).Select(w => At(w.Entry, w.Whys, w.Entry.OpenedAt))],
            [.. why.Where(w => w.Whys.Count == 0 && w.Card.Awaited.Count == 0).Select(w => At(w.Entry,
                w.Card.BeforeSigning().Any() ? [] : ["Everything is done; it is to be signed"], w.Entry.OpenedAt))],
            [.. open.SelectMany(o => o.Card.Awaited
                    .Select(a => (a.Boat, Waits: new OnTheBoat(o.Entry.Plate, o.Entry.Id, a.Name, a.Number))))
                .GroupBy(w => w.Boat).OrderBy(g => g.Key ?? DateOnly.MaxValue)
                .Select(g => (g.Key, (IReadOnlyList<OnTheBoat>)[.. g.Select(w => w.Waits)]))]);
    }

    private static IReadOnlyList<string> Whys(JobCard card) =>
    [
        .. card.Holds.Distinct(),
        .. card.Deviations.Where(d => card.WantingCountersignature.Contains(d.Seq)).Select(d => $"{d.Event.What}: wants a second name"),
        .. card.ToVoid is { } asked ? [$"To be made void: {asked.Event.Reason}"] : Array.Empty<string>(),
    ];

    private static IReadOnlyList<string> Known(JobCard card, CardNumber id) =>
    [
        .. card.StopsLeft(id).Select(s => $"{s.Text}: let go by {s.By}, {s.Words}"),
        .. card.LitAfter(id).Select(l => $"{l.Name} is still lit"),
        .. card.Dropped.Select(d => $"{d.Event.Name} was not done: {d.Event.Reason}"),
    ];
}
