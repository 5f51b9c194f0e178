using Anakyklos.Core.Cards;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;

namespace Anakyklos.Web.Demo;

/// <summary>How large a workshop is to be.</summary>
/// <param name="Vehicles">Vehicles beside the demo's.</param>
/// <param name="Cards">Signed cards of them, shared out evenly.</param>
/// <param name="Parts">Parts of the stores.</param>
public sealed record WorkshopSize(int Vehicles, int Cards, int Parts);

/// <summary>Makes the demo depot large, for measuring: the same vehicles, cards and parts each time, counted from the day.</summary>
public sealed class LargeWorkshop(SheetStore sheets, VehicleStore vehicles, VehicleTrail trail, CardStore cards, ShelfStore shelf,
    WorkshopClock clock)
{
    private const int Together = 500, Years = 5;

    private static readonly Person[] People = [new("iona", "Iona R.", Role.Technician), new("tavish", "Tavish M.", Role.Technician)];

    // The same workshop each time.
    private readonly Random _chance = new(16);

    /// <summary>Adds to a filled demo.</summary>
    /// <param name="size">How much.</param>
    /// <param name="said">Told how far it is.</param>
    public async Task Fill(WorkshopSize size, Action<string> said)
    {
        await Parts(size.Parts);
        said($"{size.Parts} parts");
        ModelSheet[] models = [.. sheets.Newest()];
        Vehicle[] fleet = [.. Enumerable.Range(1, size.Vehicles).Select(n => new Vehicle($"LD-{n:00000}", models[n % models.Length].Id,
            "Parcels", clock.Today.Year - Years - n % 3, n % 3 == 0 ? Use.Normal : Use.Harsh))];
        foreach (var some in fleet.Chunk(Together))
            await vehicles.BringIn(some, [], People[0].Id);
        said($"{size.Vehicles} vehicles");
        var worked = models.ToDictionary(m => m.Id, m => Jobs(m).Select(j => Worked(m, j)).OfType<IReadOnlyList<Recorded>>()
            .Take(3).ToList());
        var ahead = new List<(string, IReadOnlyList<Recorded>)>();
        var done = 0;
        foreach (var (vehicle, n) in fleet.Select((v, n) => (v, n)))
        {
            var services = size.Cards / size.Vehicles + (n < size.Cards % size.Vehicles ? 1 : 0);
            var (a, use) = (_chance.Next(0, 60), _chance.Next(20, 90));
            // One visit after the other through the years; how long ago the last one was decides who is due.
            for (var i = services; i > 0; i--)
            {
                var ago = a + (i - 1) * Years * 365 / Math.Max(1, services) + _chance.Next(0, 12);
                var at = clock.At(clock.Today.AddDays(-ago), new(8, _chance.Next(0, 59)));
                var km = Math.Max(500, (Years * 365 + 400 - ago) * use);
                ahead.Add(("Bay 1", As(worked[vehicle.SheetId][(n + i) % worked[vehicle.SheetId].Count], vehicle, at, km)));
            }
            if (ahead.Count < Together)
                continue;
            done += await cards.TakeIn(ahead);
            ahead.Clear();
            said($"{done} cards");
        }
        await cards.TakeIn(ahead);
        said($"{size.Cards} cards");
        // Half of them had everything done lately, so that not all are due.
        foreach (var some in fleet.Where((_, n) => n % 2 == 1).Chunk(Together))
            await Task.WhenAll(some.Select(v => AllDone(v, models.First(m => m.Id == v.SheetId))));
        // Half of them were read since, so that a good part is due.
        foreach (var some in fleet.Where((_, n) => n % 2 == 0).Chunk(Together))
            await vehicles.BringIn([], [.. some.Select(v => (v.Plate, Since(v)))], People[0].Id);
    }

    // Services that most visits are for, short enough for a hundred thousand of them.
    private static IEnumerable<JobId[]> Jobs(ModelSheet model) => model.Jobs.Values.Where(j => j.Follows is null)
        .OrderBy(j => CardPlanner.Compose(model, [j.Id]).Count).Select(j => new[] { j.Id });

    private Task<bool> AllDone(Vehicle vehicle, ModelSheet model)
    {
        var now = Last(vehicle);
        return trail.Note(vehicle.Plate, [.. model.Jobs.Keys.Select(j => new DoneElsewhere(j, clock.Today, now, "Mainland garage"))],
            People[0].Id, clock.Now);
    }

    private Quantity<Distance> Last(Vehicle vehicle) => vehicles.History(vehicle.Plate, clock.Day).LastMark?.Odometer ?? default;

    private OdometerReading Since(Vehicle vehicle) => new(clock.Now.AddHours(-3),
        Last(vehicle) + Quantity<Distance>.Of(_chance.Next(100, 6_000), Distance.Kilometre), "");

    // Null where the usual presses do not get it done, since it takes a judgement.
    private IReadOnlyList<Recorded>? Worked(ModelSheet sheet, JobId[] jobs)
    {
        var at = clock.At(clock.Today.AddDays(-1), new(8, 0));
        var (by, facts) = (People[0], UsualPress.Facts(sheet));
        var opened = new CardOpened("LD-00000", sheet.Id, sheet.Revision, jobs, CardPlanner.Compose(sheet, jobs),
            Quantity<Distance>.Of(10_000, Distance.Kilometre), Use.Harsh, null, new Dictionary<PartId, int>());
        var card = JobCard.Replay(sheet, [new(1, at, by, Guid.CreateVersion7(), opened)]);
        while (card.Next is { } step)
        {
            at = CardWalk.Later(card, step, at + step.Takes);
            if (Give(card, UsualPress.Of(card, step), by, at, facts) is not { } next)
                return null;
            card = next;
        }
        return Give(card, new Sign(), by, at.AddMinutes(2), facts)?.History.ToList();
    }

    private static JobCard? Give(JobCard card, CardCommand said, Person by, DateTimeOffset at, CardFacts facts) =>
        card.Decide(said, by, at, facts) is Accepted accepted ? card.Taking(accepted, Guid.CreateVersion7(), by, at).Card : null;

    // The same work on another vehicle and another day.
    private IReadOnlyList<Recorded> As(IReadOnlyList<Recorded> worked, Vehicle vehicle, DateTimeOffset at, decimal km)
    {
        var (by, later) = (People[_chance.Next(People.Length)], at - worked[0].At);
        return [.. worked.Select(e => e with
        {
            At = e.At + later, By = by, Command = Guid.CreateVersion7(),
            Event = e.Event is CardOpened opened ? opened with
            {
                Plate = vehicle.Plate, Odometer = Quantity<Distance>.Of(km, Distance.Kilometre), Use = vehicle.Use,
            } : e.Event,
        })];
    }

    private async Task Parts(int count)
    {
        string[] kinds = ["Bearing", "Bush", "Clip", "Gasket", "Hose", "Lamp", "Mount", "O-ring", "Seal", "Switch"];
        foreach (var some in Enumerable.Range(1, count).Chunk(Together * 4))
            await shelf.BringIn(new([.. some.Select(n => new StockPart($"LP-{n:000000}",
                $"{kinds[n % kinds.Length]} {n / kinds.Length}", _chance.Next(0, 9), 0, n % 50 == 0 ? $"LP-{n + 1:000000}" : "",
                n % 40 == 0 ? [$"EQ-{n:000000}"] : []))], [], [], []), People[0], clock.Now);
    }
}
