using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Workshop;

namespace Anakyklos.Storage.Tests;

public sealed class PeopleStoreTests : IDisposable
{
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    [Fact]
    public async Task There_is_one_first_lead_however_many_try()
    {
        var people = TemporaryWorkshop.People(_workshop.Open().Database);
        var tries = await Task.WhenAll(Enumerable.Range(0, 8)
            .Select(i => people.Add(new($"p{i}", $"Person {i}", Role.Lead, "h", "metric", "device"), onlyAsFirst: true)));
        Assert.Single(tries, added => added);
        Assert.Single(people.All());
        Assert.False(await people.Add(people.All()[0] with { Id = "other", Name = people.All()[0].Name.ToUpperInvariant() }));
    }

    [Fact]
    public async Task Wrong_pins_are_counted_per_person_and_apart_where_they_are_known()
    {
        var people = TemporaryWorkshop.People(_workshop.Open().Database);
        await people.Add(new("iona", "Iona R.", Role.Technician, "h", "metric", "device"));
        await people.BookAttempt("iona", "", "10.0.0.7", false, TemporaryWorkshop.Monday);
        await people.BookAttempt("iona", "", "10.0.0.8", false, TemporaryWorkshop.Monday.AddSeconds(3));
        Assert.Equal((2, TemporaryWorkshop.Monday.AddSeconds(3)), people.Attempts("iona", ""));
        Assert.Equal(0, people.Attempts("iona", "bay 2").Failures);
        await people.BookAttempt("iona", "", "10.0.0.7", true, TemporaryWorkshop.Monday);
        Assert.Equal(0, people.Attempts("iona", "").Failures);
    }

    [Fact]
    public async Task A_new_pin_or_role_and_going_end_every_session_but_the_one_it_is_done_in()
    {
        var (database, _) = _workshop.Open();
        var sessions = new SessionStore(database);
        var people = new PeopleStore(database, sessions);
        var (monday, week) = (TemporaryWorkshop.Monday, SessionStore.Longest);
        await people.Add(new("una", "Una B.", Role.Lead, "h", "metric", "device"));
        await people.Add(new("iona", "Iona R.", Role.Technician, "h", "metric", "device"));
        foreach (var id in new[] { "a", "b", "c" })
            await sessions.Begin(id, "iona", "here", monday);
        Assert.Equal("iona", sessions.Of("a", monday));
        Assert.Null(sessions.Of("z", monday));
        Assert.Equal("iona", sessions.Of("a", monday + week - TimeSpan.FromSeconds(1)));
        Assert.Null(sessions.Of("a", monday + week));
        await sessions.End("c", monday);
        Assert.Null(sessions.Of("c", monday));

        await people.BookAttempt("iona", "", "", false, monday);
        Assert.Equal(PersonChange.Made, await people.SetPin("iona", "new", "b", monday));
        Assert.Equal(("new", 0), (people.Find("iona")!.PinHash, people.Attempts("iona", "").Failures));
        Assert.Null(sessions.Of("a", monday));
        Assert.Equal("iona", sessions.Of("b", monday));
        Assert.Equal(PersonChange.Made, await people.SetRole("iona", Role.Stores, monday));
        Assert.Null(sessions.Of("b", monday));
        await sessions.Begin("d", "iona", "here", monday);
        Assert.Equal(PersonChange.Made, await people.LetGo("iona", monday));
        Assert.Null(sessions.Of("d", monday));
        Assert.Equal(["Una B."], people.All().Select(p => p.Name));
        Assert.Equal(["Iona R.", "Una B."], people.Ever().Select(p => p.Name));
        Assert.Equal(PersonChange.Nobody, await people.SetRole("iona", Role.Lead, monday));
        Assert.Equal(PersonChange.Made, await people.TakeBack("iona"));
        Assert.Equal(2, people.All().Count);
        Assert.Empty(Verification.Run(database, out _, out _));
    }

    [Fact]
    public async Task The_last_who_leads_stays()
    {
        var (database, _) = _workshop.Open();
        var people = TemporaryWorkshop.People(database);
        await people.Add(new("una", "Una B.", Role.Lead, "h", "metric", "device"));
        await people.Add(new("iona", "Iona R.", Role.Lead, "h", "metric", "device"));
        // Both try to be rid of it at once: one stays.
        var both = await Task.WhenAll(people.LetGo("una", TemporaryWorkshop.Monday),
            people.SetRole("iona", Role.Viewer, TemporaryWorkshop.Monday));
        Assert.Equal([PersonChange.Made, PersonChange.LastLead], both.Order());
        Assert.Single(people.All(), p => p.Role == Role.Lead);
        Assert.Empty(Verification.Run(database, out _, out _));
    }

    [Fact]
    public async Task Settings_that_several_change_at_once_all_hold()
    {
        var settings = new SettingStore(_workshop.Open().Database);
        var all = await Task.WhenAll(Enumerable.Range(1, 10).Select(i =>
            settings.Change(now => now with { ScanTools = [.. now.ScanTools ?? [], $"ST-{i}"] })));
        Assert.All(all, Assert.True);
        Assert.Equal(10, settings.Read().ScanTools!.Count);
        Assert.False(await settings.Change(_ => null));
        Assert.Equal(10, settings.Read().ScanTools!.Count);
    }

    [Fact]
    public async Task A_sheet_revision_is_never_changed()
    {
        var sheets = new SheetStore(_workshop.Open().Database);
        Assert.True(await sheets.BringIn(TemporaryWorkshop.Sheet, "{}", TemporaryWorkshop.Monday));
        Assert.False(await sheets.BringIn(TemporaryWorkshop.Sheet, "{}", TemporaryWorkshop.Monday));
        await Assert.ThrowsAsync<WorkshopFileException>(() => sheets.BringIn(TemporaryWorkshop.Sheet, "{ }", TemporaryWorkshop.Monday));
    }

    [Fact]
    public async Task Settings_and_odometer_come_back_as_they_went_in()
    {
        var (database, _, _) = await _workshop.WithCard();
        var vehicles = new VehicleStore(database);
        var settings = new SettingStore(database);
        Assert.Equal(WorkshopSettings.Unset.Name, settings.Read().Name);
        var low = new Typed<Torque>(Quantity<Torque>.Of(5, Torque.NewtonMetre), Torque.NewtonMetre);
        await settings.Write(new("Harbour Depot", Core.Filling.TargetSchool.LittleUnder, [new("TW-2", low, low, low)]));
        Assert.Equal(Core.Filling.TargetSchool.LittleUnder, settings.Read().School);
        Assert.Equal(low, settings.Read().Wrenches.Single().Low);
        await vehicles.Note("HD-07", new(TemporaryWorkshop.Monday, Quantity<Distance>.Of(91_860.5m, Distance.Mile), ""), "iona");
        Assert.Equal(Quantity<Distance>.Of(91_860.5m, Distance.Mile), vehicles.Odometer("HD-07").Single().Reading);
    }
}
