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
    ShippedSheets shipped, DemoStock stock, ISupplier supplier, ShelfStore shelf, PeopleDesk desk, SampleStore samples, LabDesk laboratory,
    DrumStore drums, RulingStore rulings, VisitStore visits, WorkshopClock clock)
{
    private const string Oil = "Gannet Lowash 5W-30";

    /// <summary>One past service of the ferry mail van.</summary>
    /// <param name="DaysAgo">When.</param>
    /// <param name="Km">Odometer.</param>
    /// <param name="Found">Where it stood before the drain.</param>
    /// <param name="TopUps">Dipstick readings after the first pour, the last inside the target.</param>
    /// <param name="Plug">Reading on the drain plug, in N·m.</param>
    /// <param name="OldWasher">Why the old washer went back, or empty.</param>
    /// <param name="Finding">What was seen on the plug, or empty.</param>
    /// <param name="Sampled">Whether a sample went to the laboratory.</param>
    private sealed record Past(int DaysAgo, decimal Km, decimal Found, decimal[] TopUps, decimal Plug, string OldWasher, string Finding,
        bool Sampled = false);

    private static readonly Past[] Mail =
    [
        new(1068, 88_420, 0.6m, [0.25m, 0.75m], 38, "", ""),
        new(884, 97_960, 0.6m, [0.2m, 0.7m], 37, "", ""),
        new(702, 107_310, 0.5m, [0.1m, 0.5m, 0.8m], 38, "", ""),
        new(521, 117_550, 0.45m, [0m, 0.5m, 0.75m], 39, "Washer box was empty, boat came a day late", "", true),
        new(338, 127_480, 0.3m, [-0.1m, 0.4m, 0.75m], 38, "", "A little glitter in the paste on the magnet", true),
        new(156, 138_050, 0.15m, [-0.2m, 0.3m, 0.7m], 38, "", "", true),
    ];

    /// <summary>What was measured on the school bus, in mm: both pads at each wheel, and the discs.</summary>
    private static readonly IReadOnlyDictionary<(StepId Step, string Point), string> Worn = new Dictionary<(StepId, string), string>
    {
        [("brake-pads", "front-left")] = "4.9 4.6", [("brake-pads", "front-right")] = "5 4.8",
        [("brake-pads", "rear-left")] = "6.4 6.2", [("brake-pads", "rear-right")] = "6.5 6.3",
        [("brake-discs", "front-left")] = "26.9", [("brake-discs", "front-right")] = "27",
    };

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

    /// <summary>Fills an empty workshop.</summary>
    public async Task Fill()
    {
        await shipped.BringIn();
        await stock.BringInOils();
        await settings.Write(new("Harbour Depot", null, [
            Wrench("TW-2", 5, 60, 1, 210, 260), Wrench("TW-4", 40, 200, 5, 65, 450), Wrench("TW-1", 4, 25, 0.5m, -18, 200),
                Wrench("TW-3", 15, 90, 1, 150, 380, Torque.PoundFoot) ], -12, 24,
            Dispensers: [new("OD-1", 0.5m, clock.Today.AddDays(120))], ScanTools: ["ST-1"], LabelPrinters: ["LP-1"]));
        var iona = await Person("iona", "Iona R.", Role.Technician);
        var una = await Person("una", "Una B.", Role.Lead);
        var sheet = sheets.Newest("tarn-courier-20d")!;
        await Rulings(una);
        await Person("tavish", "Tavish M.", Role.Technician);
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

        foreach (var (plate, times) in Needed)
            await visits.SetNeeded(plate, WeeklyTimes.Read(times, out _)!);
        // The keepers take their 4x4 to the far lights.
        await visits.SetTrip("HD-11", new(Quantity<Distance>.Of(1_400, Distance.Kilometre), clock.Today.AddDays(10), 6), iona.Id,
            Morning(2));
        await visits.SetHours(new Dictionary<PersonId, WeeklyTimes> { [una.Id] = WeeklyTimes.Read("Mo-Fr 08:00-12:00", out _)! });

        IReadOnlyDictionary<PartId, int> seals = new Dictionary<PartId, int>();
        var history = new List<(CardNumber Card, Past Past)>();
        foreach (var past in Mail)
        {
            history.Add((await Open(sheet, "HD-07", Morning(past.DaysAgo), past.Km, "Bay 2", seals, iona), past));
            seals = past.OldWasher.Length > 0 ? new Dictionary<PartId, int> { ["drain-washer"] = 1 } : new Dictionary<PartId, int>();
        }
        // A spare van that stands half done at the lift, as it would on any morning: the oil is running out.
        var half = await Open(sheet, "HD-08", clock.Now.AddMinutes(-34), 61_870, "Bay 2", new Dictionary<PartId, int>(), iona);
        await Task.WhenAll(MailVan(history, iona, una), Work(half, Mail[0], iona, una, "filter-cap-off"));
        // The stores as they are today, after all that went out of them; the cards below take from them.
        await stock.Fill(effie);
        await WaitForBoat(iona);
        await AlmostSigned(iona);
        await WornPads(iona);
        // The mail's driver told what the dash shows.
        await visits.Tell("HD-07", "17", iona.Id, Morning(1));
        // The harbour's lighter takes used oil and filters away in autumn.
        foreach (var drum in new[] { "Old oil", "Filters" })
            await drums.Collect(drum, "Harbour lighter, paper 4411", effie.Id, Morning(200));
    }

    // The lead has ruled on all but the oil of the minibus's gearbox.
    private async Task Rulings(Person lead)
    {
        foreach (var known in sheets.Newest())
            foreach (var value in known.Disputed().Where(d => (known.Id.Text, d.Key) != Unruled))
                await rulings.Keep(known.Id, value.Ruled("The workshop manual is newer, and has served us well", lead.Name, Morning(1100)),
                    lead);
    }

    // One service after the other: what the laboratory says of an oil depends on how far it ran since the one before.
    private async Task MailVan(IEnumerable<(CardNumber Card, Past Past)> history, Person by, Person lead)
    {
        foreach (var (card, past) in history)
        {
            await Work(card, past, by, lead, null);
            if (past.Sampled)
                await Answer(SampleCode.Of(card, 1), Morning(past.DaysAgo), lead);
        }
    }

    private async Task Answer(string code, DateTimeOffset taken, Person lead)
    {
        await samples.Send(code, taken.AddHours(5));
        var day = DateOnly.FromDateTime((taken + Brackwater.Takes).DateTime);
        var (_, wrong) = await laboratory.BringIn(LabFiles.Write([Brackwater.Answer(samples.Find(code)!.Sample, [], day)]));
        if (wrong.Count > 0)
            throw new InvalidOperationException($"The demo's own answer was refused: {wrong[0]}");
        await laboratory.TakeNote(code, lead.Id);
    }

    // The harbour police's spark plugs are not on the shelf: the card waits for the boat.
    private async Task WaitForBoat(Person by)
    {
        var card = await Open(sheets.Newest("skelling-tourer-1100")!, "HD-16", clock.Now.AddHours(-26), 51_720, "Outside",
            new Dictionary<PartId, int>(), by, "spark-plugs", "brake-fluid");
        var boat = supplier.Arrives("SK-3312-S", clock.Now, shelf.Read());
        await Give(card, new AwaitPart("SK-3312-S", "Spark plugs", boat), by, clock.Now.AddHours(-25));
    }

    // The nurse's cabin filter is in, the ring closed: it wants a signature.
    private async Task AlmostSigned(Person by)
    {
        var id = await Open(sheets.Newest("corran-fen-12")!, "HD-02", clock.Now.AddMinutes(-41), 38_420, "Outside", new Dictionary<PartId,
            int>(), by, "cabin-filter");
        var (card, at) = (cards.Find(id)!, clock.Now.AddMinutes(-40));
        while (card.Next is { } step)
        {
            at += step.Takes;
            card = step.Traits.LaysOut
                ? await Give(id, new ConfirmKit(step.Id, card.PartsWanted.ToDictionary(p => p.Id, _ =>
                    new KitPart(KitChoice.InHand, "CF-8806-C")), [], new Dictionary<FluidId, OilLaidOut>()), by, at)
                : await Give(id, UsualPress.Of(card, step), by, at);
        }
    }

    // The school bus had its brakes measured in the summer: what wears since is projected from that.
    private async Task WornPads(Person by)
    {
        var id = await Open(sheets.Newest("hespin-16")!, "HD-04", Morning(160), 115_150, "Bay 1", new Dictionary<PartId, int>(), by,
            "wear-check");
        var card = cards.Find(id)!;
        for (var at = card.History[0].At; card.Next is { } step;)
        {
            at += step.Takes;
            var said = UsualPress.Of(card, step);
            card = await Give(id, said is MeasurePoint m && Worn.TryGetValue((step.Id, m.Point), out var read)
                ? m with { Value = read } : said, by, at);
        }
        await Give(id, new Sign(), by, card.History[^1].At.AddMinutes(2));
    }

    private async Task Live(DemoLife life, Person by)
    {
        await vehicles.BringIn([life.Vehicle(clock.Today)],
            [.. life.Readings().Select(r => (life.Plate,
            new OdometerReading(Morning(r.DaysAgo), Quantity<Distance>.Of(r.Km, Distance.Kilometre), "")))], by.Id);
        await Task.WhenAll(life.Done.Select(d => vehicles.NoteDone(life.Plate,
            new(d.Job, new(Quantity<Distance>.Of(d.Km, Distance.Kilometre), clock.Today.AddDays(-d.DaysAgo))))));
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

    private DateTimeOffset Morning(int daysAgo)
    {
        var day = clock.Now.Date.AddDays(-daysAgo).AddHours(8).AddMinutes(daysAgo % 50);
        return new(day, clock.Zone.GetUtcOffset(day));
    }

    private async Task<CardNumber> Open(ModelSheet sheet, string plate, DateTimeOffset at, decimal km, string bay,
        IReadOnlyDictionary<PartId, int> seals, Person by, params JobId[] jobs)
    {
        var odometer = Quantity<Distance>.Of(km, Distance.Kilometre);
        if (jobs.Length == 0)
            jobs = ["engine-oil-and-filter"];
        return await cards.Open(new(plate, sheet.Id, sheet.Revision, jobs, CardPlanner.Compose(sheet, jobs), odometer, Use.Harsh, null,
            seals), bay, by, at, Guid.CreateVersion7(), new(null, new(at, odometer, "")));
    }

    private async Task Work(CardNumber id, Past past, Person by, Person lead, string? stop)
    {
        var card = cards.Find(id)!;
        var at = card.History[0].At;
        while (card.Next is { } step && step.Id != stop)
        {
            at += step.Takes;
            foreach (var wait in card.Waits.Where(w => step.Awaits.Contains(w.Id) && w.Until > at))
                at = wait.Until.AddSeconds(20);
            foreach (var command in Commands(card, step, past))
            {
                if (step.Traits.Levels)
                    at += TimeSpan.FromSeconds(130);
                card = await Give(id, command, by, at);
            }
        }
        if (stop is not null)
            return;
        foreach (var seq in card.WantingCountersignature)
            card = await Give(id, new Countersign(seq), lead, at.AddMinutes(1));
        await Give(id, new Sign(), by, at.AddMinutes(2));
    }

    private async Task<JobCard> Give(CardNumber id, CardCommand command, Person by, DateTimeOffset at)
    {
        var answer = (await cards.Handle(id, Guid.CreateVersion7(), command, by, at))!;
        return answer.Decision is Accepted ? answer.Card
            : throw new InvalidOperationException($"The demo's own history was refused at {command}: {answer.Decision}");
    }

    private static IEnumerable<CardCommand> Commands(JobCard card, SheetStep step, Past past)
    {
        static Typed<Volume> Litres(Quantity<Volume> v) => new(v, Volume.Litre);
        switch (step.Traits)
        {
            case { LaysOut: true }:
                yield return new ConfirmKit(step.Id, card.PartsWanted.ToDictionary(p => p.Id,
                    p => p.Id == "drain-washer" && past.OldWasher.Length > 0 ? new KitPart(KitChoice.OldAgain, "", past.OldWasher)
                    : new KitPart(KitChoice.InHand)),
                    [Quantity<Volume>.Of(10, Volume.Litre)], card.FluidsWanted.ToDictionary(f => f.Id, f =>
                        new OilLaidOut(f.Amount.Value + Quantity<Volume>.Of(0.6m, Volume.Litre), Oil)));
                break;
            case { Tightens: true }:
                var target = ((ToTorque)card.Sheet.Fasteners[step.What].Tightening.Value).Target;
                yield return new TakeReading(step.Id, new Typed<Torque>(step.What == "engine-drain-plug"
                    ? Quantity<Torque>.Of(past.Plug, Torque.NewtonMetre) : target, Torque.NewtonMetre));
                break;
            case { Fills: true }:
                if (past.Sampled)
                    yield return new TakeSample(step.What.Text);
                yield return new Pour(step.Id, Litres(card.FillOf(step.What).FirstPour));
                break;
            case { Levels: true }:
                foreach (var level in past.TopUps.Select(f => new Level(f)))
                {
                    yield return new ReadGauge(step.Id, level);
                    if (card.FillOf(step.What).After(level) is { Verdict: FillVerdict.Pour } advice)
                        yield return new Pour(step.Id, Litres(advice.Amount));
                }
                break;
            case { Engine: EngineUse.Warms } when card.ToDip is { } drain:
                yield return new Dip(drain.Id, new(past.Found));
                yield return UsualPress.Of(card, step);
                break;
            default:
                if (step.Id == "look-at-plug" && past.Finding.Length > 0)
                    yield return new NoteFinding(step.Id, FindingGrade.KeepAnEye, past.Finding);
                yield return UsualPress.Of(card, step);
                break;
        }
    }
}
