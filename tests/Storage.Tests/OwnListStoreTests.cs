using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Storage.Tests;

/// <summary>Lists that are kept with a model, in a real file.</summary>
public sealed class OwnListStoreTests : IDisposable
{
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    private static OwnList New(string name = "Half-year look") => new("", name, "Owner's handbook", "p. 88",
        new(Quantity<Distance>.Of(10_000, Distance.Kilometre), 6), Place.Below, OwnPoints.Read("Hoses\nPads: at least 2 mm", out _));

    [Fact]
    public async Task A_list_survives_the_program_and_stands_beside_the_sheet()
    {
        var (database, _, _) = await _workshop.WithCard();
        var sheet = TemporaryWorkshop.Sheet.Id;
        var kept = await new OwnListStore(database).Keep(sheet, New(), TemporaryWorkshop.Iona.Id, TemporaryWorkshop.Monday);
        Assert.Equal(("own-1", 1), (kept!.Id, kept.Changed));
        database.Dispose();
        var again = _workshop.Open().Database;
        var list = Assert.Single(new OwnListStore(again).Of(sheet));
        Assert.Equal((kept.Id, kept.Name, kept.Every, kept.Place), (list.Id, list.Name, list.Every, list.Place));
        Assert.Equal(OwnPoints.Write(kept.Points), OwnPoints.Write(list.Points));
        var sheets = new SheetStore(again);
        Assert.True(sheets.Newest(sheet)!.Jobs.ContainsKey("own-1"));
        Assert.True(sheets.Newest().Single(s => s.Id == sheet).Jobs.ContainsKey("own-1"));
        // The maker's own revision stays as it is.
        Assert.False(sheets.Find(sheet, TemporaryWorkshop.Sheet.Revision)!.Jobs.ContainsKey("own-1"));
    }

    [Fact]
    public async Task Of_two_who_change_it_the_second_is_told()
    {
        var (database, _, _) = await _workshop.WithCard();
        var (store, sheet, iona) = (new OwnListStore(database), TemporaryWorkshop.Sheet.Id, TemporaryWorkshop.Iona.Id);
        var kept = (await store.Keep(sheet, New(), iona, TemporaryWorkshop.Monday))!;
        Assert.Equal(2, (await store.Keep(sheet, kept with { Name = "Other" }, iona, TemporaryWorkshop.Monday))!.Changed);
        Assert.Null(await store.Keep(sheet, kept with { Name = "Third" }, iona, TemporaryWorkshop.Monday));
        Assert.False(await store.Remove(sheet, "own-1", 1, iona, TemporaryWorkshop.Monday));
        Assert.Equal("Other", Assert.Single(store.Of(sheet)).Name);
        Assert.True(await store.Remove(sheet, "own-1", 2, iona, TemporaryWorkshop.Monday));
        Assert.Empty(store.Of(sheet));
        Assert.Null(await store.Keep(sheet, kept with { Changed = 3 }, iona, TemporaryWorkshop.Monday));
        Assert.False(await store.Remove(sheet, "own-9", 1, iona, TemporaryWorkshop.Monday));
        // A card may still tell of the first: its id is not given out again.
        Assert.Equal("own-2", (await store.Keep(sheet, New(), iona, TemporaryWorkshop.Monday))!.Id);
    }

    [Fact]
    public async Task A_model_has_so_many_and_no_more()
    {
        var (database, _, _) = await _workshop.WithCard();
        var (store, sheet, iona) = (new OwnListStore(database), TemporaryWorkshop.Sheet.Id, TemporaryWorkshop.Iona.Id);
        for (var i = 1; i <= OwnListStore.Most; i++)
            Assert.Equal($"own-{i}", (await store.Keep(sheet, New($"List {i}"), iona, TemporaryWorkshop.Monday))!.Id);
        Assert.Null(await store.Keep(sheet, New("One more"), iona, TemporaryWorkshop.Monday));
        Assert.Equal(Enumerable.Range(1, OwnListStore.Most).Select(i => $"List {i}"), store.Of(sheet).Select(l => l.Name));
        Assert.Empty(store.Of("corran-fen-12"));
    }
}
