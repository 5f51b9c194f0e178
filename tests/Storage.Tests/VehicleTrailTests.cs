using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Workshop;
using static Anakyklos.Storage.Tests.TemporaryWorkshop;

namespace Anakyklos.Storage.Tests;

/// <summary>What is put right of vehicles, and what hangs on it.</summary>
public sealed class VehicleTrailTests : IDisposable
{
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    private static Quantity<Distance> Km(decimal km) => Quantity<Distance>.Of(km, Distance.Kilometre);

    private static DateOnly Day(DateTimeOffset at) => DateOnly.FromDateTime(at.UtcDateTime);

    private static async Task<WorkshopDatabase> WithPerson(WorkshopDatabase database)
    {
        await TemporaryWorkshop.People(database).Add(new("iona", "Iona R.", Role.Technician, "x", "metric", "device"));
        return database;
    }

    [Fact]
    public async Task A_reading_put_right_takes_the_jobs_done_at_it_along_and_leaves_a_trail()
    {
        var (database, cards, _) = await _workshop.WithCard();
        await WithPerson(database);
        var vehicles = new VehicleStore(database);
        await vehicles.Add(new("HD-40", Sheet.Id, "Post", 2022, Use.Normal));
        var reading = new OdometerReading(Monday, Km(640_500), "");
        var id = await cards.Open(Opening() with { Plate = "HD-40", Odometer = Km(640_500) }, "", Iona, Monday, Guid.NewGuid(),
            new(null, reading));
        // Stands in for a signature, which has tests of its own.
        await TemporaryWorkshop.Write(database, "insert into done_job (plate, job, day, km, card_id) "
            + $"values ('HD-40', 'engine-oil-and-filter', '2026-03-09', '640500', {id})");
        Assert.Equal(id, Assert.Single(vehicles.Odometer("HD-40")).Card);

        // Another value than the one that stands there: somebody else was quicker.
        Assert.False(await vehicles.PutRight("HD-40", new(Monday, Km(640_000), Km(64_050), "x"), "iona", Monday.AddHours(1)));
        Assert.True(await vehicles.PutRight("HD-40", new(Monday, Km(640_500), Km(64_050), "A digit too many"), "iona", Monday.AddHours(1)));
        var right = Assert.Single(vehicles.Odometer("HD-40"));
        Assert.Equal((Km(64_050), true), (right.Reading, right.LookedTwice));
        Assert.Equal(Km(64_050), Assert.Single(vehicles.LastDone("HD-40")["HD-40"]).Done.Odometer);
        var change = Assert.Single(new VehicleTrail(database).Of("HD-40"));
        Assert.Equal(("Iona R.", new Changed("reading", Monday.ToString("O"), "640500", "64050", "A digit too many")),
            (change.By, change.Of));
        // What was signed stays as it was signed.
        Assert.Equal(Km(640_500), cards.Find(id)!.Opened.Odometer);
        Assert.Empty(Verification.Run(database, out _, out _));
    }

    [Fact]
    public async Task A_card_opened_on_an_exchanged_odometer_keeps_the_exchange_and_jobs_are_counted_on_the_new_one()
    {
        var (database, cards, _) = await _workshop.WithCard();
        await WithPerson(database);
        var vehicles = new VehicleStore(database);
        await vehicles.Add(new("HD-40", Sheet.Id, "Post", 2022, Use.Normal));
        await vehicles.Note("HD-40", new(Monday.AddDays(-30), Km(80_000), ""), "iona");
        await vehicles.NoteDone("HD-40", new("engine-oil-and-filter", new(Km(79_000), Day(Monday).AddDays(-40))));
        await cards.Open(Opening() with { Plate = "HD-40", Odometer = Km(120) }, "", Iona, Monday, Guid.NewGuid(),
            new(null, new(Monday, Km(120), "New cluster"), "", null, new(Monday, Km(80_500), Km(120))));
        Assert.Equal([Km(120), Km(-380)], vehicles.History("HD-40", Day).Marks.Select(m => m.Odometer));
        Assert.Equal(Km(-1_380), Assert.Single(vehicles.LastDone()["HD-40"]).Done.Odometer);
        // One that is noted afterwards, on the day of the exchange or before, was read off the old one; a later one off the new.
        await vehicles.NoteDone("HD-40", new("air-filter", new(Km(80_400), Day(Monday))));
        await vehicles.NoteDone("HD-40", new("fuel-filter", new(Km(150), Day(Monday).AddDays(1))));
        var done = vehicles.LastDone("HD-40")["HD-40"].ToDictionary(d => d.Job.Text, d => d.Done.Odometer);
        Assert.Equal((Km(20), Km(150)), (done["air-filter"], done["fuel-filter"]));
        Assert.Equal("exchange", Assert.Single(new VehicleTrail(database).Of("HD-40")).Of.What);
    }

    [Fact]
    public async Task A_new_plate_takes_everything_along_and_the_old_one_still_leads_there()
    {
        var (database, cards, id) = await _workshop.WithCard();
        await WithPerson(database);
        var (vehicles, trail) = (new VehicleStore(database), new VehicleTrail(database));
        var was = vehicles.Find("HD-07")!;
        Changed[] why = [new("plate", "", "HD-07", "HD-70", "New plates")];
        // A card is open: what it rests on is not changed under it.
        Assert.False(await trail.Change("HD-07", was with { Plate = "HD-70" }, why, "iona", Monday));
        await cards.Handle(id, Guid.NewGuid(), new VoidCard("The wrong vehicle"), Iona, Monday);
        await cards.Handle(id, Guid.NewGuid(), new Countersign(2), new("una", "Una B.", Role.Lead), Monday);
        Assert.NotNull(cards.Entry(id)!.VoidedAt);
        await vehicles.Note("HD-07", new(Monday, Km(148_200), ""), "iona");
        await vehicles.Add(new("HD-08", Sheet.Id, "", 2020, Use.Normal));
        Assert.False(await trail.Change("HD-07", was with { Plate = "HD-08" }, why, "iona", Monday));
        Assert.False(await trail.Change("HD-99", was with { Plate = "HD-98" }, why, "iona", Monday));

        Assert.True(await trail.Change("HD-07", was with { Plate = "HD-70", Use = Use.Normal }, why, "iona", Monday));
        Assert.Null(vehicles.Find("HD-07"));
        Assert.Equal(Use.Normal, vehicles.Find("HD-70")!.Use);
        Assert.Equal(id, Assert.Single(cards.OfVehicle("HD-70")).Id);
        Assert.Single(vehicles.Odometer("HD-70"));
        Assert.Single(trail.Of("HD-70"));
        Assert.Equal("HD-70", trail.Now("HD-07"));
        Assert.Equal("HD-07", cards.Find(id)!.Opened.Plate);
        Assert.Empty(Verification.Run(database, out _, out _));

        // And back again: nothing is left of the plate that it had in between but the way to it.
        Assert.True(await trail.Change("HD-70", was, [new("plate", "", "HD-70", "HD-07", "Mistake")], "iona", Monday));
        Assert.Equal((null, "HD-07"), (trail.Now("HD-07"), trail.Now("HD-70")));
        Assert.Equal(2, trail.Of("HD-07").Count);
    }

    [Fact]
    public async Task What_was_done_elsewhere_is_noted_once_and_only_that_can_be_taken_out()
    {
        var (database, _, id) = await _workshop.WithCard();
        await WithPerson(database);
        var (vehicles, trail) = (new VehicleStore(database), new VehicleTrail(database));
        var day = new DateOnly(2025, 11, 3);
        DoneElsewhere[] done = [new("air-filter", day, Km(140_000), "Kells Garage"), new("fuel-filter", day, Km(140_000), "Kells Garage")];
        Assert.True(await trail.Note("HD-07", done, "iona", Monday));
        // One of two is there: neither is noted again.
        Assert.False(await trail.Note("HD-07", [done[0], done[1] with { Job = "cabin-filter" }], "iona", Monday));
        Assert.Equal(done, trail.Elsewhere("HD-07").OrderBy(d => d.Job.Text, StringComparer.Ordinal));
        Assert.Equal(2, vehicles.LastDone("HD-07")["HD-07"].Count());
        Assert.True(await trail.Forget("HD-07", "air-filter", day, "Mixed up", "iona", Monday));
        Assert.False(await trail.Forget("HD-07", "air-filter", day, "Mixed up", "iona", Monday));
        await TemporaryWorkshop.Write(database,
            $"insert into done_job (plate, job, day, km, card_id) values ('HD-07', 'air-filter', '2026-01-01', '1', {id})");
        Assert.False(await trail.Forget("HD-07", "air-filter", new(2026, 1, 1), "Mixed up", "iona", Monday));
        Assert.Equal("fuel-filter", Assert.Single(trail.Elsewhere("HD-07")).Job);
        Assert.Equal(3, trail.Of("HD-07").Count);
    }

    [Fact]
    public async Task Only_what_changed_is_told_as_changed()
    {
        var (database, _, _) = await _workshop.WithCard();
        var (vehicles, trail) = (new VehicleStore(database), new VehicleTrail(database));
        await vehicles.Add(new("HD-40", Sheet.Id, "Post", 2022, Use.Normal));
        var (all, until) = trail.Touched(0);
        Assert.Contains("HD-40", all);
        Assert.Empty(trail.Touched(until).Plates);
        await vehicles.Note("HD-40", new(Monday, Km(1), ""), "iona");
        await vehicles.SetRule("HD-07", "engine-oil-and-filter", new(Km(5_000), null));
        await vehicles.NoteDone("HD-40", new("air-filter", new(Km(1), Day(Monday))));
        var (some, then) = trail.Touched(until);
        Assert.Equal(["HD-07", "HD-40"], some.Order());
        await vehicles.SetRule("", "engine-oil-and-filter", new(Km(5_000), null));
        Assert.Equal([""], trail.Touched(then).Plates);
        await vehicles.SetRule("HD-07", "engine-oil-and-filter", null);
        Assert.Contains("HD-07", trail.Touched(then).Plates);
    }

    [Fact]
    public async Task Times_of_another_job_are_counted_since_the_job_itself_was_done()
    {
        var (database, _, _) = await _workshop.WithCard();
        var vehicles = new VehicleStore(database);
        await vehicles.Add(new("HD-40", Sheet.Id, "Post", 2022, Use.Normal));
        foreach (var (plate, job, day) in new[]
        {
            ("HD-07", "oil", 1), ("HD-07", "filter", 1), ("HD-07", "oil", 3), ("HD-07", "oil", 5), ("HD-07", "other", 6),
            ("HD-40", "oil", 2), ("HD-40", "filter", 7),
        })
            await vehicles.NoteDone(plate, new(job, new(Km(1_000 * day), new(2026, 1, day))));
        (SheetId, JobId, JobId)[] pairs = [(Sheet.Id, "filter", "oil"), (Sheet.Id, "belt", "oil"), ("another", "other", "oil")];
        var times = vehicles.TimesSince(pairs);
        // Done on the same day it does not count; what was never done has all of them.
        Assert.Equal(2, times[("HD-07", "filter")]);
        Assert.Equal(3, times[("HD-07", "belt")]);
        Assert.Equal(1, times[("HD-40", "belt")]);
        Assert.Equal(3, times.Count);
        Assert.Equal(times.Where(t => t.Key.Plate == "HD-07"), vehicles.TimesSince(pairs, "HD-07"));
        Assert.Empty(vehicles.TimesSince([]));
    }
}
