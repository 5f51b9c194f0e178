using static Anakyklos.Storage.Tests.TemporaryWorkshop;

namespace Anakyklos.Storage.Tests;

/// <summary>Sheets that bring words in other languages along, and how somebody who keeps them ready knows that they have changed.</summary>
public sealed class SheetStoreTests : IDisposable
{
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    private static string File(int revision, string name) =>
        $$$"""{"revision": {{{revision}}}, "words": {"de": [{"text": "Bonnet", "said": "{{{name}}}"}]}}""";

    [Fact]
    public async Task What_came_in_last_comes_first_and_a_walked_draft_behind_all()
    {
        var sheets = new SheetStore(_workshop.Open().Database);
        await sheets.BringIn(Sheet with { Revision = 1 }, File(1, "Klappe"), Monday);
        await sheets.BringIn(Sheet with { Revision = 3 }, File(3, "Haube"), Monday);
        await sheets.BringIn(Sheet with { Revision = 2 }, """{"revision": 2}""", Monday);
        await sheets.BringInForPractice(Sheet with { Id = "dunlin-cart", Revision = 7 }, File(7, "Deckel"), Monday.AddDays(-1));
        await sheets.KeepToWalk(Sheet.Id, r => File(r, "Entwurf"), Monday);
        await sheets.KeepToWalk(Sheet.Id, r => File(r, "Zweiter Entwurf"), Monday);
        Assert.Equal([File(3, "Haube"), File(1, "Klappe"), File(7, "Deckel"), File(9002, "Zweiter Entwurf")], sheets.WithWords());
    }

    [Fact]
    public async Task Whatever_changes_them_changes_the_stamp_and_nothing_else_does()
    {
        var (database, _) = _workshop.Open();
        var (sheets, stamps) = (new SheetStore(database), new List<string>());
        void Look() => stamps.Add(sheets.Stamp());
        Look();
        await sheets.BringInForPractice(Sheet, "{}", Monday);
        Look();
        await sheets.BringIn(Sheet, "{}", Monday);
        Look();
        await sheets.KeepToWalk(Sheet.Id, r => $"{r}", Monday);
        Look();
        Assert.Equal(stamps.Count, stamps.Distinct().Count());
        await sheets.KeepToWalk(Sheet.Id, r => $"{r}", Monday);
        Look();
        Assert.Equal(stamps[^2], stamps[^1]);
    }
}
