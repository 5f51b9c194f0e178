using System.Net;
using Anakyklos.Core.Quantities;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>What lies in the stores is written down, counted, put right, moved and taken out by hand.</summary>
public sealed class StoresByHandTests() : InTheDemo("effie")
{
    private ShelfStore Shelf => Host.Services.GetRequiredService<ShelfStore>();

    [Fact]
    public async Task A_new_part_is_written_down_counted_and_taken_out()
    {
        await Me.Get("/stores?q=ZZ-9");
        Assert.NotNull(Me.Page.QuerySelector("a[href='/stores/part?number=ZZ-9']"));
        await Me.Get("/stores/part?number=ZZ-9");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("main form", ("name", ""), ("count", "-1"), ("minimum", "few"),
            ("superseded", "zz 9")));
        Assert.Equal(["problem-name", "problem-count", "problem-minimum", "problem-superseded"],
            Me.Page.QuerySelectorAll(".problem").Select(p => p.Id));
        Assert.Null(Shelf.Read().Own("ZZ-9"));
        await Me.Submit("main form", ("name", "Clip"), ("count", "3"), ("minimum", "5"), ("place", "drawer 4"), ("superseded", ""),
            ("equivalents", "AB-1; AB-2"));
        Assert.Equal("/stores/part/ZZ9", Me.Address.AbsolutePath);
        var part = Shelf.Read().Own("zz9")!;
        Assert.Equal(("ZZ-9", 3, 5, "drawer 4"), (part.Number, part.OnShelf, part.Minimum, part.Place));
        Assert.Equal(["AB-1", "AB-2"], part.Equivalents);
        Assert.Contains("counted 3 Clip", Shelf.Book(1).Select(l => $"{l.Kind} {l.Amount} {l.Name}"));
        // Below its minimum it is ordered though no card wants it.
        var line = Host.Services.GetRequiredService<OrderDesk>().Lines().First(l => l.Number == "ZZ-9");
        Assert.Equal((2, "the shelf, at least 5"), (line.Count, line.For[0]));
        // Another of that number is told where the first is.
        await Me.Get("/stores/part");
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await Me.Submit("main form", ("number", "ZZ 9"), ("name", "Clip"), ("count", "1")));
        Assert.Contains("is in the stores already", Me.Text);
        // Not while some lie there; then it is gone from every list.
        await Me.Get("/stores/part/ZZ9");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("form[action*='Drop']"));
        Assert.Contains("3 lie there", Me.Text);
        await Me.Submit("main form", ("count", "0"));
        await Me.Submit("form[action*='Drop']");
        Assert.Equal("/stores", Me.Address.AbsolutePath);
        Assert.Null(Shelf.Read().Own("ZZ-9"));
        Assert.DoesNotContain(Shelf.Read().Parts, p => p.Number == "ZZ-9");
        Assert.Equal(HttpStatusCode.NotFound, await Me.Get("/stores/part/ZZ9"));
    }

    [Fact]
    public async Task A_part_that_is_kept_for_a_card_stays()
    {
        var kept = Shelf.Read().Parts.First(p => p.Reserved > 0);
        var desk = Host.Services.GetRequiredService<StoresDesk>();
        Assert.Empty(await desk.Put(new(kept.Number, kept.Name, "0", "", "", "", ""), false,
            new("effie", "Effie S.", Core.Cards.Role.Stores)));
        Assert.Contains("kept for a card", (await desk.Drop(kept.Number))!.What);
        Assert.NotNull(Shelf.Read().Own(kept.Number));
    }

    [Fact]
    public async Task A_container_is_counted_with_its_reason_moved_and_scrapped()
    {
        await Me.Get("/stores/container/1");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("main form", ("left", "21 L"), ("opened", "2099-01-01")));
        Assert.Equal(["problem-left", "problem-opened"], Me.Page.QuerySelectorAll(".problem").Select(p => p.Id));
        await Me.Submit("main form", ("left", "12 L"), ("place", "rack 2"), ("reason", "spilt"), ("opened", ""));
        var can = Shelf.Read().Containers.First(c => c.Id == 1);
        Assert.Equal(("rack 2", 12m), (can.Place, can.Left.In(Volume.Litre)));
        Assert.Contains(Shelf.Book(1), l => l.Reason == "spilt" && l.Kind == "counted" && l.Amount.StartsWith('-'));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("form[action*='Scrap']", ("why", "")));
        await Me.Submit("form[action*='Scrap']", ("why", "water in it"));
        Assert.Equal(Quantity<Volume>.Zero, Shelf.Read().Containers.First(c => c.Id == 1).Left);
        Assert.Contains("scrapped: water in it", Me.Text);
        Assert.Null(Me.Page.QuerySelector("form[action*='Scrap']"));
        Assert.Contains("water in it", StockFiles.Moves(Shelf.Book(3), p => p.Text, t => t));
    }

    [Fact]
    public async Task Files_of_before_leave_places_and_minima_as_they_are()
    {
        var desk = Host.Services.GetRequiredService<StoresDesk>();
        var effie = new Core.Cards.Person("effie", "Effie S.", Core.Cards.Role.Stores);
        var part = Shelf.Read().Parts[0];
        await desk.Put(new(part.Number, part.Name, "2", "4", "bin 7", part.SupersededBy, ""), false, effie);
        var now = new DateOnly(2026, 3, 9);
        await Shelf.BringIn(StockFiles.Read("parts", $"number,name,on shelf\n{part.Number},Other name,3\n", now, []).File!, effie,
            Host.Clock.GetUtcNow());
        var after = Shelf.Read().Own(part.Number)!;
        Assert.Equal(("Other name", 3, 4, "bin 7"), (after.Name, after.OnShelf, after.Minimum, after.Place));
        // What the stores write they read again, to the same.
        var file = StockFiles.Write("parts", Shelf.Read());
        await Shelf.BringIn(StockFiles.Read("parts", file, now, []).File!, effie, Host.Clock.GetUtcNow());
        Assert.Equal(file, StockFiles.Write("parts", Shelf.Read()));
    }

    [Fact]
    public async Task Pans_and_tools_are_written_down_put_right_and_taken_out()
    {
        await Me.Get("/stores/crib");
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await Me.Submit("form[action*='handler=Pan']", ("name", "Green"), ("holds", "0 L")));
        await Me.Submit("form[action*='handler=Pan']", ("name", "Green"), ("holds", "9 L"));
        await Me.Submit("form[action*='handler=Pan']", ("name", "Green"), ("holds", "10 L"));
        Assert.Equal(10, Assert.Single(Shelf.Read().Pans, p => p.Name == "Green").Holds.In(Volume.Litre));
        await Me.Submit("form[action*='handler=Tool']", ("size", "T45 bit"), ("place", "drawer 9"));
        Assert.Equal("drawer 9", Assert.Single(Shelf.Read().Tools, t => t.Size == "T45 bit").Where);
        await Me.Submit("form[action*='DropPan']:has([value='Green'])");
        await Me.Submit("form[action*='DropTool']:has([value='T45 bit'])");
        Assert.DoesNotContain(Shelf.Read().Pans, p => p.Name == "Green");
        Assert.DoesNotContain(Shelf.Read().Tools, t => t.Size == "T45 bit");
        var desk = await Host.SignedIn("desk");
        await desk.Get("/stores/crib");
        Assert.Null(desk.Page.QuerySelector("main form"));
        await desk.Get("/stores/part/" + Core.Sheets.PartNumber.Bare(Shelf.Read().Parts[0].Number));
        Assert.Null(desk.Page.QuerySelector("main form"));
    }
}
