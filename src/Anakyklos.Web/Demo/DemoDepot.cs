using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Laboratory;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Weeks;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Devices;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Demo;

/// <summary>
/// The made-up depot: its people, its vans and years of services, each worked through the same rules as a real card. Dates count back from
/// today.
/// </summary>
public sealed class DemoDepot(PeopleStore people, VehicleStore vehicles, CardStore cards, SettingStore settings, SheetStore sheets,
    ShippedSheets shipped, DemoStock stock, DemoHistory history, ISupplier supplier, ShelfStore shelf, PeopleDesk desk, DrumStore drums,
    RulingStore rulings, VisitStore visits, WorkshopDatabase database, Options options, WorkshopClock clock)
{
    /// <summary>When they cannot be missed: the school run, the mail off the ferry, the nurse's rounds.</summary>
    private static readonly (string Plate, string Times)[] Needed =
    [
        ("HD-04", "Mo-Fr 07:30-09:00, 14:45-16:15"), ("HD-07", "Tu,Fr 10:00-13:00"), ("HD-02", "Mo-Fr 08:00-10:30"),
    ];

    private static readonly (string Sheet, string Value) Unruled = ("hespin-16", "amount/gearbox-oil");

    private const string Marker = "this-is-the-demo";

    /// <summary>Whether the folder's workshop was made by the demo; only such a one is ever cleared away.</summary>
    public static bool IsDemo(string folder) => File.Exists(Path.Combine(folder, Marker));

    /// <summary>Removes what an earlier demo left in the folder, nothing else, and marks it as the demo's.</summary>
    /// <exception cref="InvalidOperationException">The folder holds a workshop that is not the demo's.</exception>
    public static void Clear(string folder)
    {
        Directory.CreateDirectory(folder);
        if (File.Exists(Path.Combine(folder, Options.FileName)) && !IsDemo(folder))
            throw new InvalidOperationException($"{folder} holds a workshop that is not the demo.");
        File.WriteAllText(Path.Combine(folder, Marker), "The demo depot may clear the workshop in this folder away.\n");
        foreach (var end in new[] { "", "-wal", "-shm" })
            File.Delete(Path.Combine(folder, Options.FileName + end));
    }

    /// <summary>Removes copies of an earlier demo, where they lie in the demo's own place.</summary>
    public static void ClearCopies(Options options)
    {
        if (options.BackupFolder.Length == 0 && Directory.Exists(options.Backups))
            foreach (var file in Directory.GetFiles(options.Backups)
                .Where(f => BackupRounds.MadeAt(Path.GetFileName(f), default) is not null))
                File.Delete(file);
    }

    /// <summary>Fills an empty workshop, or one that has its past already.</summary>
    /// <param name="kept">Where the past is kept once it was worked through; null for nowhere.</param>
    public async Task Fill(DemoPast? kept = null)
    {
        await stock.Look();
        if (vehicles.All().Count == 0)
        {
            await Past();
            kept?.Keep(database);
        }
        var iona = people.Find("iona")!.Person;
        await WaitForBoat(iona);
        await AlmostSigned(iona);
        await HalfDone(iona);
        // The mail's driver told what the dash shows.
        await visits.Tell("HD-07", "17", iona.Id, history.Morning(1));
    }

    private async Task Past()
    {
        await shipped.BringIn();
        await stock.BringInOils();
        // The name is on every paper and in every file that leaves it.
        await settings.Write(new(options.IsMadeUp ? "Harbour Depot, made up" : "Harbour Depot", null, [
            Wrench("TW-2", 5, 60, 1, 210, 260), Wrench("TW-4", 40, 200, 5, 65, 450), Wrench("TW-1", 4, 25, 0.5m, -18, 200),
                Wrench("TW-3", 15, 90, 1, 150, 380, Torque.PoundFoot) ], -12, 24,
            Dispensers: [new("OD-1", 0.5m, clock.Today.AddDays(120))], ScanTools: ["ST-1"], LabelPrinters: ["LP-1"], HourIsOver: true));
        var iona = await Person("iona", "Iona R.", Role.Technician);
        var una = await Person("una", "Una B.", Role.Lead);
        await Rulings(una);
        var tavish = await Person("tavish", "Tavish M.", Role.Technician);
        var effie = await Person("effie", "Effie S.", Role.Stores);
        await Person("desk", "Transport desk", Role.Viewer);
        foreach (var drum in new WasteDrum[]
        {
            new("Old oil", Waste.Oil, Quantity<Volume>.Of(60, Volume.Litre), 0, 365),
            new("Coolant", Waste.Coolant, Quantity<Volume>.Of(30, Volume.Litre), 0, 365),
            new("Brake fluid", Waste.BrakeFluid, Quantity<Volume>.Of(10, Volume.Litre), 0, 365),
            new("Filters", Waste.Filters, default, 12, 180),
        })
            await drums.Put(drum);
        await Task.WhenAll(DemoLives.All.Select(life => Live(life, iona)));
        // The school wants its bus seen more often than anybody else does.
        await vehicles.SetRule("HD-04", "engine-oil-and-filter", new(Quantity<Distance>.Of(8000, Distance.Kilometre), null));
        await stock.Begin(effie, history.Morning(DemoLives.All.SelectMany(l => l.Visits).Max(v => v.DaysAgo) + 7));
        await history.Work([iona, tavish], una, effie);
        // The stores as they are today, after all that came in and went out; the cards below take from them.
        await stock.Count(effie);

        foreach (var (plate, times) in Needed)
            await visits.SetNeeded(plate, WeeklyTimes.Read(times, out _)!);
        // The keepers take their 4x4 to the far lights.
        await visits.SetTrip("HD-11", new(Quantity<Distance>.Of(1_400, Distance.Kilometre), clock.Today.AddDays(10), 6), iona.Id,
            history.Morning(2));
        await visits.SetHours(new Dictionary<PersonId, WeeklyTimes> { [una.Id] = WeeklyTimes.Read("Mo-Fr 08:00-12:00", out _)! });
    }

    // The lead has ruled on all but the oil of the minibus's gearbox.
    private async Task Rulings(Person lead)
    {
        foreach (var known in sheets.Newest())
            foreach (var value in known.Disputed().Where(d => (known.Id.Text, d.Key) != Unruled))
                await rulings.Keep(known.Id, value.Ruled("The workshop manual is newer, and has served us well", lead.Name,
                    history.Morning(1100)), lead);
    }

    // The harbour police's spark plugs are not on the shelf: the card waits for the boat.
    private async Task WaitForBoat(Person by)
    {
        var card = await history.Open("HD-16", 51_720, clock.Now.AddHours(-26), "Outside", by, "spark-plugs", "brake-fluid");
        var boat = supplier.Arrives("SK-3312-S", clock.Now, shelf.Read());
        await cards.Handle(card, Guid.CreateVersion7(), new AwaitPart("SK-3312-S", "Spark plugs", boat), by, clock.Now.AddHours(-25));
    }

    // The nurse's cabin filter is in, the ring closed: it wants a signature.
    private async Task AlmostSigned(Person by)
    {
        var id = await history.Open("HD-02", 38_420, clock.Now.AddMinutes(-41), "Outside", by, "cabin-filter");
        await history.Press(id, new(0, 38_420, "cabin-filter"), by);
    }

    // The spare van stands half done at the lift, as it would on any morning: the oil is running out.
    private async Task HalfDone(Person by)
    {
        var id = await history.Open("HD-08", 61_870, clock.Now.AddMinutes(-34), "Bay 2", by, "engine-oil-and-filter");
        await history.Press(id, new(0, 61_870, "engine-oil-and-filter") { Found = 0.6m, Plug = 38 }, by, "filter-cap-off");
    }

    private async Task Live(DemoLife life, Person by)
    {
        await vehicles.BringIn([life.Vehicle(clock.Today)],
            [.. life.Readings().Select(r => (life.Plate,
            new OdometerReading(history.Morning(r.DaysAgo), Quantity<Distance>.Of(r.Km, Distance.Kilometre), "")))], by.Id);
    }

    private WrenchEntry Wrench(string name, decimal low, decimal high, decimal step, int calibratedFor, decimal lever,
        Unit<Torque>? scale = null)
    {
        Typed<Torque> At(decimal n) => new(Quantity<Torque>.Of(n, scale ?? Torque.NewtonMetre), scale ?? Torque.NewtonMetre);
        return new(name, At(low), At(high), At(step), 4, clock.Today.AddDays(calibratedFor), Quantity<Length>.Of(lever, Length.Millimetre));
    }

    private async Task<Person> Person(string id, string name, Role role)
    {
        var member = new Member(id, name, role, "", "metric", "device");
        await people.Add(member with { PinHash = desk.Hash(member, Options.DemoPin) });
        return member.Person;
    }
}
