using Anakyklos.Core.Cards;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Workshop;
using static Anakyklos.Storage.Tests.TemporaryWorkshop;

namespace Anakyklos.Storage.Tests;

/// <summary>Whatever was written down is found by its words, and nothing else is.</summary>
public sealed class SearchStoreTests : IDisposable
{
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    private static string Told(IEnumerable<Found> found) => string.Join(", ", found.Select(f => $"{f.Kind} {f.Key}"));

    [Fact]
    public async Task Vehicles_are_found_by_plate_task_model_and_year_however_the_plate_is_typed()
    {
        var (database, _, _) = await _workshop.WithCard();
        var search = new SearchStore(database);
        foreach (var typed in new[] { "HD-07", "hd07", "hd 07", "ferry", "FERR mail", "tarn courier", "2019 mail" })
            Assert.StartsWith("Vehicle HD-07", Told(search.Find(typed, 8)));
        foreach (var typed in new[] { "HD-08", "ferry bread", "", "  ", "- \" * :", "\"" })
            Assert.DoesNotContain("Vehicle", Told(search.Find(typed, 8)));
    }

    [Theory]
    [InlineData(3)]
    [InlineData(250)]
    public async Task However_much_there_is_of_one_kind_the_others_are_found_too(int parts)
    {
        var (database, _, _) = await _workshop.WithCard();
        // The vehicle and the person come first, so that what is looked through from the newest on comes to them last.
        await new VehicleStore(database).Add(new("HD-41", "tarn-courier-20d", "Gasket round", 2022, Use.Normal));
        await TemporaryWorkshop.People(database).Add(new("gus", "Gus Gasket", Role.Technician, "x", "metric", "device"));
        await new ShelfStore(database, new SettingStore(database)).BringIn(new([.. Enumerable.Range(1, parts)
            .Select(n => new StockPart($"GK-{n:0000}", "Gasket", 1, 0, "", []))], [], [], []), Iona, Monday);
        var found = new SearchStore(database).Find("gasket", 8);
        Assert.Equal([FoundKind.Vehicle, .. Enumerable.Repeat(FoundKind.Part, Math.Min(8, parts)), FoundKind.Person],
            found.Select(f => f.Kind));
        Assert.Equal($"GK{parts:0000}", found[1].Key);
    }

    [Fact]
    public async Task A_vehicle_is_found_by_the_plate_that_it_had()
    {
        var (database, _, id) = await _workshop.WithCard();
        await TemporaryWorkshop.People(database).Add(new("iona", "Iona R.", Role.Technician, "x", "metric", "device"));
        _workshop.Execute($"update card set signed_at = '2026-03-09T09:00:00.0000000Z' where id = {id}");
        var vehicle = new VehicleStore(database).Find("HD-07")! with { Plate = "NX-11" };
        Assert.True(await new VehicleTrail(database).Change("HD-07", vehicle, [], "iona", Monday));
        var search = new SearchStore(database);
        Assert.StartsWith("Vehicle NX-11", Told(search.Find("nx11", 8)));
        Assert.StartsWith("Vehicle NX-11", Told(search.Find("HD-07", 8)));
    }

    [Fact]
    public async Task Words_left_on_a_card_are_found_with_the_card_and_its_vehicle()
    {
        var (database, cards, id) = await _workshop.WithCard();
        await cards.Handle(id, Guid.NewGuid(), new NoteFinding("warm-up", FindingGrade.KeepAnEye, "Whistles when cold – Überdruck"), Iona,
            Monday);
        var search = new SearchStore(database);
        var found = Assert.Single(search.Find("whist uberdruck", 8));
        Assert.Equal((FoundKind.Finding, $"{id}", "HD-07", "Whistles when cold – Überdruck"),
            (found.Kind, found.Key, found.Plate, found.Title));
        Assert.Equal($"Card {id}", Told(search.Find($"{id}", 8)));
        Assert.Equal($"Card {id}", Told(search.Find("engine oil iona", 8)));
    }

    [Fact]
    public async Task Parts_and_people_are_found_as_they_are_named_now()
    {
        var (database, _, _) = await _workshop.WithCard();
        var shelf = new ShelfStore(database, new(database));
        await shelf.BringIn(new([new("TC-0621-F", "Oil filter", 2, 0, "TC-0622-F", ["MX 44"])], [], [], []), Iona, Monday);
        await TemporaryWorkshop.People(database).Add(new("effie", "Effie S.", Role.Stores, "x", "metric", "device"));
        var search = new SearchStore(database);
        foreach (var typed in new[] { "tc0621", "TC-0621-F", "oil filt", "mx44", "TC-0622" })
            Assert.StartsWith("Part TC0621F", Told(search.Find(typed, 8)));
        Assert.Equal("Person effie", Told(search.Find("effie", 8)));
        await shelf.BringIn(new([new("TC-0621-F", "Strainer", 2, 0, "", [])], [], [], []), Iona, Monday);
        Assert.Empty(search.Find("mx44", 8));
        Assert.Equal("Part TC0621F", Told(search.Find("strainer", 8)));
    }

    [Fact]
    public async Task The_vehicles_that_got_oil_of_a_batch_are_named_with_their_cards()
    {
        var (database, _, id) = await _workshop.WithCard();
        var shelf = new ShelfStore(database, new(database));
        var can = await shelf.Receive(new(0, "Gannet Lowash 5W-30", Quantity<Volume>.Of(20, Volume.Litre),
            Quantity<Volume>.Of(20, Volume.Litre), Volume.Litre, null, "M-2207"), Iona, Monday);
        var search = new SearchStore(database);
        Assert.Empty(Assert.Single(search.Find("M-2207", 8)).Went);
        _workshop.Execute($"insert into movement (at, person_id, card_id, seq, kind, item, name, amount) values "
            + $"('2026-03-09T09:00:00.0000000Z', 'iona', {id}, 3, 'poured', 'container:{can}', 'Gannet', '-4.6')");
        var went = Assert.Single(Assert.Single(search.Find("m2207", 8)).Went);
        Assert.Equal(("HD-07", id), (went.Plate, went.Card));
        // What was poured back by taking it back did not go there.
        _workshop.Execute($"insert into movement (at, person_id, card_id, seq, kind, item, name, amount) values "
            + $"('2026-03-09T09:10:00.0000000Z', 'iona', {id}, 4, 'returned', 'container:{can}', 'Gannet', '4.6')");
        Assert.Empty(Assert.Single(search.Find("m2207", 8)).Went);
    }

    [Fact]
    public async Task What_was_written_before_there_was_a_search_is_found_too()
    {
        var (database, cards, id) = await _workshop.WithCard();
        await cards.Handle(id, Guid.NewGuid(), new NoteFinding("warm-up", FindingGrade.KeepAnEye, "Whistles"), Iona, Monday);
        var before = new[] { "whistles", "hd07", "engine oil", $"{id}" }.Select(t => Told(new SearchStore(database).Find(t, 8))).ToList();
        database.Dispose();
        // The file as it was before the last migration.
        foreach (var name in _workshop.Names("type in ('view', 'trigger') and name like 'found%' or name = 'movement_by_item'"))
            _workshop.Execute($"drop {name}");
        _workshop.Execute("drop table found; drop table found_entry; delete from SchemaVersions where ScriptName like '%0016%'");
        var (again, _) = _workshop.Open();
        Assert.Equal(before, new[] { "whistles", "hd07", "engine oil", $"{id}" }.Select(t => Told(new SearchStore(again).Find(t, 8))));
        Assert.DoesNotContain("", before);
    }
}
