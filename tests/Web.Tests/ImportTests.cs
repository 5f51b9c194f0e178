using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Stores;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>A file says what it would change before it is brought in, whatever program wrote it.</summary>
public sealed class ImportTests() : InTheDemo("una")
{
    private const string Words = "number,name,on shelf\nQ-1,Ölfilter für Möwe,3\n";

    public static TheoryData<byte[], string> Written => new()
    {
        { Encoding.UTF8.GetBytes(Words), "UTF-8" },
        { [.. Encoding.UTF8.Preamble, .. Encoding.UTF8.GetBytes(Words)], "UTF-8" },
        { [.. Encoding.Unicode.Preamble, .. Encoding.Unicode.GetBytes(Words)], "UTF-16" },
        { [.. Encoding.BigEndianUnicode.Preamble, .. Encoding.BigEndianUnicode.GetBytes(Words)], "UTF-16" },
        { Encoding.Unicode.GetBytes(Words), "UTF-16" },
        { Encoding.BigEndianUnicode.GetBytes(Words), "UTF-16" },
        { Encoding.Latin1.GetBytes(Words), "Latin-1" },
    };

    [Theory]
    [MemberData(nameof(Written), DisableDiscoveryEnumeration = true)]
    public void A_file_is_read_in_the_encoding_it_was_written_in(byte[] bytes, string encoding) =>
        Assert.Equal(new TextFile(Words, encoding), TextFile.Of(bytes));

    [Fact]
    public void Nothing_is_read_from_nothing_and_any_bytes_are_a_text()
    {
        Assert.Equal("", TextFile.Of([]).Text);
        var random = new Random(20261130);
        for (var n = 0; n < 500; n++)
        {
            var bytes = new byte[random.Next(40)];
            random.NextBytes(bytes);
            Assert.NotNull(TextFile.Of(bytes).Text);
        }
    }

    [Fact]
    public async Task A_parts_file_says_what_is_new_and_what_becomes_another_and_takes_nothing_in()
    {
        var shelf = Host.Services.GetRequiredService<ShelfStore>();
        var (there, other) = (shelf.Read().Parts[0], shelf.Read().Parts[1]);
        var text = $"number,name,on shelf,superseded by,equivalents\n{there.Number},{there.Name},{there.OnShelf + 4},{there.SupersededBy},"
            + $"{string.Join(';', there.Equivalents)}\n{other.Number},{other.Name},{other.OnShelf},{other.SupersededBy},"
            + $"{string.Join(';', other.Equivalents)}\nQ-77,Gasket,2,,\n";
        await Me.Get("/stores");
        await Me.Submit("form [formaction*='Look']", ("kind", "parts"), ("text", text));
        Assert.Equal(HttpStatusCode.OK, Me.Status);
        Assert.Contains("1 new, 1 changed", Me.Page.QuerySelector(".preview")!.TextContent);
        Assert.Equal([$"{there.Number} {there.Name}: on shelf {there.OnShelf} → {there.OnShelf + 4}", "Q-77 Gasket: new"],
            Me.Page.QuerySelectorAll(".preview li").Select(l => l.TextContent));
        Assert.Null(shelf.Read().Own("Q-77"));
        // What was looked at still stands there to be brought in.
        await Me.Submit("form[action*='handler=File']", ("text", Me.Page.QuerySelector("#text")!.TextContent));
        Assert.Equal((there.OnShelf + 4, 2), (shelf.Read().Own(there.Number)!.OnShelf, shelf.Read().Own("Q-77")!.OnShelf));
        // What the stores write would change nothing.
        var all = StockFiles.Read("parts", StockFiles.Write("parts", shelf.Read()), new(2026, 3, 9), []).File!;
        var again = Preview.Of(all, shelf.Read());
        Assert.Equal((0, 0, shelf.Read().Parts.Count), (again.New, again.Changed, again.Same));
    }

    [Fact]
    public async Task A_fleet_file_says_which_vehicles_and_readings_are_new()
    {
        await Me.Get("/workshop");
        const string Text = "plate,model,task,year,day,odometer\nQ-5,tarn-courier-20d,Bread,2019,2026-03-01,12000 km\n"
            + "Q-5,,,,2026-03-02,12100 km\n";
        await Me.Submit("form [formaction*='Look']", ("text", Text));
        Assert.Equal(["Q-5: new, tarn-courier-20d, 2019, Bread", "Q-5: 2 readings, up to 12\u202F100 km"],
            Me.Page.QuerySelectorAll(".preview li").Select(l => l.TextContent));
        Assert.Null(Host.Services.GetRequiredService<VehicleStore>().Find("Q-5"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("form [formaction*='Look']", ("text", "plate\nQ-5\n")));
        await Me.Submit("form[action*='Vehicles']", ("text", Text));
        Assert.NotNull(Host.Services.GetRequiredService<VehicleStore>().Find("Q-5"));
        var again = Host.Services.GetRequiredService<SettingDesk>().LookAtVehicles(Text).Would!;
        Assert.Equal((0, 2), (again.New, again.Same));
    }

    [Fact]
    public async Task Whoever_brings_a_long_file_in_is_told_how_far_it_is_and_nobody_else()
    {
        var coming = Host.Services.GetRequiredService<ComingFiles>();
        var (form, rows) = (Guid.NewGuid(), Enumerable.Range(0, 250).Select(n => $"Q-9,{(n == 0 ? "tarn-courier-20d" : "")},Bread,2019,"
            + $"{new DateOnly(2025, 1, 1).AddDays(n):yyyy-MM-dd},{1000 + n} km"));
        var text = "plate,model,task,year,day,odometer\n" + string.Join('\n', rows);
        async Task<(string? Stage, int Done, int Of)> Told()
        {
            await Me.Get($"/files/coming/{form}");
            return Me.Status == HttpStatusCode.NoContent ? default : (JsonNode.Parse(Me.Text)!["stage"]!.GetValue<string>(),
                JsonNode.Parse(Me.Text)!["done"]!.GetValue<int>(), JsonNode.Parse(Me.Text)!["of"]!.GetValue<int>());
        }
        Assert.Equal(default, await Told());
        using (var file = coming.Begin("una", form))
        {
            Assert.Equal(("read", 0, 0), await Told());
            Assert.Null(coming.Of("iona", form));
            Assert.Null(coming.Of("una", Guid.NewGuid()));
            var (would, wrong) = Host.Services.GetRequiredService<SettingDesk>().LookAtVehicles(text, file);
            Assert.Empty(wrong);
            Assert.Equal(251, would!.New);
            Assert.Equal(("compared", 1, 1), await Told());
            await Host.Services.GetRequiredService<SettingDesk>().BringInVehicles(text, "una", file);
            Assert.Equal(("kept", 250, 250), await Told());
        }
        Assert.Equal(default, await Told());
        // Every hundredth row is told, and the last.
        var seen = new List<FileStanding>();
        var counting = new ComingFile(seen.Add, () => { });
        _ = CsvTable.Read(text, ["plate"], l => l.Text("plate"), counting);
        Assert.Equal([0, 100, 200], seen.Select(s => s.Done));
        Assert.All(seen.Skip(1), s => Assert.Equal((FileStage.Read, 251), (s.Stage, s.Of)));
    }

    [Fact]
    public async Task A_file_that_is_too_large_is_told_as_such()
    {
        await Me.Get("/workshop");
        await Me.Upload("form[action*='Vehicles']", "file", "fleet.csv", new byte[5_000_001]);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, Me.Status);
        Assert.Contains("The file is too large.", Me.Text);
        await Me.Get("/stores");
        await Me.Upload("form[action*='handler=File']", "file", "parts.csv", new byte[2_000_001]);
        Assert.Contains("The file is too large.", Me.Text);
        Assert.DoesNotContain("There is nothing in it.", Me.Text);
    }

    [Fact]
    public async Task A_vehicle_that_is_gone_is_asked_for_no_more_and_can_come_back()
    {
        var vehicles = Host.Services.GetRequiredService<VehicleStore>();
        await Me.Get("/vehicle/HD-16/put-right");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("#go form", ("reason", "sold")));
        Assert.Contains("Card 1056 is still open", Me.Text);
        await Me.Get("/vehicle/HD-15/put-right");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("#go form", ("reason", " ")));
        await Me.Submit("#go form", ("reason", "sold to the islands"));
        Assert.Contains("it is gone; sold to the islands", Me.Text);
        Assert.DoesNotContain(vehicles.All(), v => v.Plate == "HD-15");
        Assert.DoesNotContain(Host.Services.GetRequiredService<FleetBook>().ByUrgency(), v => v.Vehicle.Plate == "HD-15");
        Assert.Null(Host.Services.GetRequiredService<WeekDesk>().Week().Of("HD-15"));
        await Me.Get("/");
        Assert.Null(Me.Page.QuerySelector("a[href='/vehicle/HD-15']"));
        // What was done to it is still there, and no card is opened.
        await Me.Get("/vehicle/HD-15");
        Assert.Contains("gone: it is looked after here no more", Me.Text);
        Assert.Null(Me.Page.QuerySelector("a[href='/intake?plate=HD-15']"));
        await Me.Get("/intake?plate=HD-15");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("main form", ("plate", "HD-15"), ("odometer", "24700 km")));
        Assert.Contains("HD-15 is gone", Me.Text);
        Assert.False(await vehicles.Go("HD-15", true, "again", "una", Host.Clock.GetUtcNow()));
        await Me.Get("/vehicle/HD-15/put-right");
        await Me.Submit("#go form", ("reason", "bought back"));
        Assert.Contains(vehicles.All(), v => v.Plate == "HD-15");
        Assert.Contains(Host.Services.GetRequiredService<FleetBook>().ByUrgency(), v => v.Vehicle.Plate == "HD-15");
    }
}
