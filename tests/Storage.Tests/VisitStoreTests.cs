using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Weeks;
using Anakyklos.Core.Workshop;
using static Anakyklos.Storage.Tests.TemporaryWorkshop;

namespace Anakyklos.Storage.Tests;

/// <summary>What people say of the week is there after the file is opened again.</summary>
public sealed class VisitStoreTests : IDisposable
{
    private static readonly DateOnly Today = new(2026, 3, 9);
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    private async Task<(WorkshopDatabase Database, CardStore Cards, VisitStore Visits)> Vans(params string[] plates)
    {
        var (database, cards) = _workshop.Open();
        await new SheetStore(database).BringIn(Sheet, SheetText, Monday);
        await TemporaryWorkshop.People(database).Add(new("iona", "Iona R.", Role.Technician, "x", "metric", "device"));
        foreach (var plate in plates)
            await new VehicleStore(database).Add(new(plate, Sheet.Id, "Post", 2022, Use.Normal));
        return (database, cards, new(database));
    }

    private VisitStore Again() => new(_workshop.Open().Database);

    private static KeptVisit At(string plate, int day, int begins, bool isFixed = true) =>
        new(plate, Today.AddDays(day), begins, "Bay 1", isFixed);

    [Fact]
    public async Task Visits_are_kept_as_they_stand_and_no_others()
    {
        var (_, _, visits) = await Vans("HD-40", "HD-41");
        var before = visits.Changes;
        await visits.Keep([At("HD-40", 1, 32), At("HD-41", 2, 40, false)], "iona", Monday);
        Assert.NotEqual(before, visits.Changes);
        Assert.Equal([At("HD-40", 1, 32), At("HD-41", 2, 40, false)], Again().All());
        await visits.Keep([At("HD-41", 3, 44)], "iona", Monday);
        Assert.Equal([At("HD-41", 3, 44)], Again().All());
    }

    [Fact]
    public async Task Who_is_left_out_counts_again_from_its_day_or_when_it_is_taken_back()
    {
        var (_, _, visits) = await Vans("HD-40", "HD-41");
        await visits.Keep([At("HD-40", 1, 32)], "iona", Monday);
        await visits.Drop("HD-40", Today.AddDays(9), "Over at the mainland", [At("HD-41", 2, 40, false)], "iona", Monday);
        Assert.Equal([new DroppedVisit("HD-40", Today.AddDays(9), "Over at the mainland", "Iona R.")], Again().Dropped(Today));
        Assert.Equal([At("HD-41", 2, 40, false)], visits.All());
        Assert.Empty(visits.Dropped(Today.AddDays(9)));
        Assert.Equal(1, await visits.TakeBack("HD-40"));
        Assert.Equal(0, await visits.TakeBack("HD-40"));
        Assert.Empty(visits.Dropped(Today));
    }

    [Fact]
    public async Task Times_trips_and_messages_come_back_and_go_where_they_are_emptied()
    {
        var (_, _, visits) = await Vans("HD-40");
        var school = WeeklyTimes.Read("Mo-Fr 07:30-09:00", out _)!;
        var trip = new Trip(Quantity<Distance>.Of(1_400.5m, Distance.Kilometre), Today.AddDays(4), 6);
        await visits.SetNeeded("HD-40", school);
        await visits.SetHours(new Dictionary<PersonId, WeeklyTimes> { ["iona"] = WeeklyTimes.Never });
        await visits.SetTrip("HD-40", trip, "iona", Monday);
        await visits.Tell("HD-40", "17", "iona", Monday);
        var again = Again();
        Assert.Equal(school, again.Needed()["HD-40"]);
        Assert.Equal(WeeklyTimes.Never, again.Hours()["iona"]);
        Assert.Equal(trip, again.Trips(Today)["HD-40"]);
        Assert.Empty(again.Trips(Today.AddDays(5)));
        Assert.Equal("17", again.Told()["HD-40"]);
        await visits.SetNeeded("HD-40", WeeklyTimes.Never);
        await visits.SetTrip("HD-40", null, "iona", Monday);
        await visits.Tell("HD-40", "", "iona", Monday);
        Assert.True(again.Needed().Count + again.Trips(Today).Count + again.Told().Count == 0);
    }

    [Fact]
    public async Task A_card_that_is_opened_ends_the_visit_and_what_was_told_for_it()
    {
        var (_, cards, visits) = await Vans("HD-40", "HD-41");
        await visits.Drop("HD-40", Today.AddDays(9), "Away", [At("HD-41", 2, 40)], "iona", Monday);
        await visits.Tell("HD-41", "17", "iona", Monday);
        foreach (var plate in new[] { "HD-40", "HD-41" })
            await cards.Open(Opening() with { Plate = plate }, "Bay 2", Iona, Monday, Guid.NewGuid());
        Assert.True(visits.All().Count + visits.Dropped(Today).Count + visits.Told().Count == 0);
    }

    [Fact]
    public async Task A_new_plate_takes_all_of_it_along()
    {
        var (database, _, visits) = await Vans("HD-40");
        await visits.Drop("HD-40", Today.AddDays(9), "Away", [At("HD-40", 2, 40)], "iona", Monday);
        await visits.SetNeeded("HD-40", WeeklyTimes.Usual);
        await visits.SetTrip("HD-40", new(Quantity<Distance>.Of(900, Distance.Kilometre), Today, 2), "iona", Monday);
        await visits.Tell("HD-40", "17", "iona", Monday);
        var van = new VehicleStore(database).Find("HD-40")!;
        Assert.True(await new VehicleTrail(database).Change("HD-40", van with { Plate = "HD-50" }, [], "iona", Monday));
        Assert.Equal(["HD-50", "HD-50", "HD-50", "HD-50", "HD-50"], visits.All().Select(v => v.Plate)
            .Concat(visits.Dropped(Today).Select(d => d.Plate)).Concat(visits.Needed().Keys).Concat(visits.Trips(Today).Keys)
            .Concat(visits.Told().Keys));
    }
}
