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
        var people = new PeopleStore(_workshop.Open().Database);
        var tries = await Task.WhenAll(Enumerable.Range(0, 8)
            .Select(i => people.Add(new($"p{i}", $"Person {i}", Role.Lead, "h", "metric", "device"), onlyAsFirst: true)));
        Assert.Single(tries, added => added);
        Assert.Single(people.All());
        Assert.False(await people.Add(people.All()[0] with { Id = "other", Name = people.All()[0].Name.ToUpperInvariant() }));
    }

    [Fact]
    public async Task Wrong_pins_are_counted_per_person_and_address()
    {
        var people = new PeopleStore(_workshop.Open().Database);
        await people.Add(new("iona", "Iona R.", Role.Technician, "h", "metric", "device"));
        await people.BookAttempt("iona", "bay", false, TemporaryWorkshop.Monday);
        await people.BookAttempt("iona", "bay", false, TemporaryWorkshop.Monday.AddSeconds(3));
        Assert.Equal((2, TemporaryWorkshop.Monday.AddSeconds(3)), people.Attempts("iona", "bay"));
        Assert.Equal(0, people.Attempts("iona", "office").Failures);
        await people.BookAttempt("iona", "bay", true, TemporaryWorkshop.Monday);
        Assert.Equal(0, people.Attempts("iona", "bay").Failures);
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
