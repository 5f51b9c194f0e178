using System.Net;
using System.Text.RegularExpressions;
using Anakyklos.Core.Ids;
using Anakyklos.Core.Stores;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>Calendars and tables that leave the workshop, and come back without changing it.</summary>
public sealed class OpenFileTests() : InTheDemo("una")
{
    private T Get<T>() where T : notnull => Host.Services.GetRequiredService<T>();

    [Fact]
    public async Task A_calendar_is_read_by_its_key_alone_and_an_old_key_says_nothing()
    {
        var key = await Get<CalendarDesk>().Key();
        Assert.Equal(key, await Get<CalendarDesk>().Key());
        var nobody = Host.NewClient();
        var fleet = await nobody.GetAsync($"/calendar/{key}/fleet.ics");
        Assert.Equal("text/calendar", fleet.Content.Headers.ContentType!.MediaType);
        var text = await fleet.Content.ReadAsStringAsync();
        Assert.StartsWith("BEGIN:VCALENDAR", text);
        Assert.Equal(Regex.Count(text, "BEGIN:VEVENT"), Regex.Count(text, "END:VEVENT"));
        Assert.All(text.Split("\r\n"), line => Assert.True(System.Text.Encoding.UTF8.GetByteCount(line) <= 75, line));
        // The mail van's oil was due in the autumn by its distance: it stands on today, and says so.
        var van = await (await nobody.GetAsync($"/calendar/{key}/HD-07.ics")).Content.ReadAsStringAsync();
        var unfolded = van.Replace("\r\n ", "");
        Assert.DoesNotContain("HD-04", unfolded);
        Assert.Matches("SUMMARY:HD-07: .*[Ee]ngine oil and filter", unfolded);
        Assert.Matches(@"DTSTART;VALUE=DATE:\d{8}", unfolded);
        Assert.Contains("URL:http://localhost/vehicle/HD-07", unfolded);
        foreach (var address in new[] { "/calendar/0123456789abcdef/fleet.ics", $"/calendar/{key}/XX-1.ics",
            $"/calendar/{key}x/HD-07.ics" })
            Assert.Equal(HttpStatusCode.NotFound, (await nobody.GetAsync(address)).StatusCode);
        await Get<CalendarDesk>().Renew();
        Assert.Equal(HttpStatusCode.NotFound, (await nobody.GetAsync($"/calendar/{key}/fleet.ics")).StatusCode);
        Assert.Equal(HttpStatusCode.Redirect, (await nobody.GetAsync("/files/history.csv")).StatusCode);
    }

    [Fact]
    public async Task The_lead_makes_a_new_key_and_everybody_finds_the_address()
    {
        await Me.Get("/workshop");
        var before = Address(Me);
        await Me.Submit("form[action*='Calendar']");
        Assert.NotEqual(before, Address(Me));
        await Me.Get("/vehicle/HD-07");
        Assert.Contains("/HD-07.ics", Me.Page.QuerySelector("a[href*='/calendar/']")!.GetAttribute("href"));

        static string Address(Browser b) => b.Page.QuerySelector("a[href*='/calendar/']")!.GetAttribute("href")!;
    }

    [Theory]
    [InlineData("parts")]
    [InlineData("containers")]
    [InlineData("tools")]
    public async Task A_stock_file_that_comes_back_changes_nothing(string kind)
    {
        var before = Everything();
        var lines = Get<ShelfStore>().Book(int.MaxValue).Count;
        var file = await Me.Content($"/stores?handler=file&kind={kind}");
        var (stock, wrong) = StockFiles.Read(kind, file, new(2026, 3, 9), [.. Get<ShelfStore>().Read().Oils.Products.Select(p => p.Name)]);
        Assert.Empty(wrong);
        await Get<ShelfStore>().BringIn(stock!, new(PersonId.Of("una"), "Una B.", Core.Cards.Role.Lead), DateTimeOffset.UtcNow);
        Assert.Equal(before, Everything());
        Assert.Equal(lines, Get<ShelfStore>().Book(int.MaxValue).Count);
        Assert.Equal(file, await Me.Content($"/stores?handler=file&kind={kind}"));

        string Everything() => string.Join("\n", StockFiles.Kinds.Select(k => StockFiles.Write(k, Get<ShelfStore>().Read())));
    }

    [Fact]
    public async Task A_container_is_known_by_its_number_and_what_was_counted_goes_into_the_book()
    {
        var can = Get<ShelfStore>().Read().Containers[0];
        var file = $"product,size,left,opened,batch,number\n{can.Product},20 L,1.5 L,,B77,{can.Id}\n{can.Product},5 L,5 L,,,\n";
        var (stock, _) = StockFiles.Read("containers", file, new(2026, 3, 9), [can.Product]);
        var count = Get<ShelfStore>().Read().Containers.Count;
        await Get<ShelfStore>().BringIn(stock!, new(PersonId.Of("una"), "Una B.", Core.Cards.Role.Lead), DateTimeOffset.UtcNow);
        var after = Get<ShelfStore>().Read().Containers;
        Assert.Equal(count + 1, after.Count);
        var now = after.Single(c => c.Id == can.Id);
        Assert.Equal((1.5m, "B77"), (now.Left.In(Core.Quantities.Volume.Litre), now.Batch));
        Assert.Equal("counted", Get<ShelfStore>().Book(1)[0].Kind);
        Assert.Contains(",counted,", await Me.Content("/files/movements.csv"));
    }

    [Fact]
    public async Task The_fleet_comes_back_without_a_second_reading()
    {
        var file = await Me.Content("/files/vehicles.csv");
        var before = Get<VehicleStore>().All().Sum(v => Get<VehicleStore>().Odometer(v.Plate).Count);
        Assert.Equal(before + 1, file.TrimEnd().Split('\n').Length);
        var (vehicles, readings, wrong) = await Get<SettingDesk>().BringInVehicles(file, PersonId.Of("una"));
        Assert.Empty(wrong);
        Assert.Equal((0, 0), (vehicles, readings));
        // Into an empty workshop all of it.
        await using var other = await WorkshopHost.WithModels();
        await other.FirstLead();
        var (newVehicles, newReadings, none) = await other.Services.GetRequiredService<SettingDesk>().BringInVehicles(file,
            other.Services.GetRequiredService<PeopleStore>().All()[0].Id);
        Assert.Empty(none);
        // What reads the same twice on one day is one reading.
        var days = Get<VehicleStore>().All().Sum(v =>
            Get<VehicleStore>().Odometer(v.Plate).DistinctBy(r => (r.At.Date, r.Reading)).Count());
        Assert.Equal((Get<VehicleStore>().All().Count, days), (newVehicles, newReadings));
    }

    [Fact]
    public void The_calendar_of_the_fleet_says_what_each_vehicles_own_says()
    {
        var desk = Get<CalendarDesk>();
        var all = Events(desk.Write(null, Page)!);
        var own = Get<VehicleStore>().All().SelectMany(v => Events(desk.Write(v.Plate, Page)!));
        Assert.NotEmpty(all);
        Assert.Equal(own.Order(StringComparer.Ordinal), all.Order(StringComparer.Ordinal));
        Assert.Null(desk.Write("HD-99", Page));

        static string Page(string plate) => $"http://localhost/vehicle/{plate}";

        static IReadOnlyList<string> Events(string calendar) => [.. calendar.Split("BEGIN:VEVENT").Skip(1)
            .Select(e => string.Join('\n', e.Split("END:VEVENT")[0].Split("\r\n")
                .Where(l => !l.StartsWith("DTSTAMP", StringComparison.Ordinal))))];
    }

    [Fact]
    public async Task The_history_has_a_row_for_each_job_with_the_hash_of_its_card()
    {
        var rows = (await Me.Content("/files/history.csv?plate=HD-07")).TrimEnd().Split('\n');
        Assert.Equal(1 + 12, rows.Length);
        Assert.Equal(string.Join(',', HistoryFile.Columns), rows[0]);
        Assert.Contains(",Engine oil and filter,yes,148050 km,", rows[1]);
        Assert.EndsWith(Get<RecordDesk>().Hash(1048), rows[1]);
        Assert.True((await Me.Content("/files/history.csv")).Split('\n').Length > rows.Length);
    }

    [Theory]
    [InlineData("=cmd|' /C calc'!A0", "'=cmd|' /C calc'!A0")]
    [InlineData("+SUM(A1:A9)", "'+SUM(A1:A9)")]
    [InlineData("@import", "'@import")]
    [InlineData("-2+3", "'-2+3")]
    [InlineData("'=kept", "''=kept")]
    [InlineData("-1.5", "-1.5")]
    [InlineData("+3", "+3")]
    [InlineData("TC-0621-F", "TC-0621-F")]
    [InlineData("'tis", "'tis")]
    public void No_cell_is_run_by_a_spreadsheet_and_each_comes_back_as_it_was(string cell, string written)
    {
        var text = CsvTable.Write(["what"], [[cell]]);
        Assert.Equal(written, text.Split('\n')[1].Trim('"'));
        var (rows, errors) = CsvTable.Read(text, ["what"], l => l.Text("what"));
        Assert.Empty(errors);
        Assert.Equal([cell], rows);
    }

    [Fact]
    public async Task What_came_out_is_in_its_drum_and_in_the_log()
    {
        var drums = Get<DrumDesk>();
        var oil = drums.Now().Single(d => d.Drum.Name == "Old oil");
        // HD-15's three oils and HD-08, HD-07, HD-11, HD-16, HD-04, HD-15 and HD-09 since it was collected 200 days ago.
        Assert.Equal(2.8m + 0.95m + 0.83m + 6.4m + 6.4m + 7.2m + 3.75m + 8 + 2.8m + 3.9m,
            oil.Stand.Amount.In(Core.Quantities.Volume.Litre));
        Assert.Equal(8, drums.Now().Single(d => d.Drum.Waste == Waste.Filters).Stand.Pieces);
        await Me.Get("/drums");
        Assert.Contains("43.03 L of 60.00 L", Me.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("form[action*='Collect']", ("words", "")));
        Assert.Contains("Who took it away", Me.Text);
        await Me.Submit("form[action*='Collect']", ("words", "Lighter, paper 4412"));
        Assert.Equal(0, drums.Now().Single(d => d.Drum.Waste == Waste.Filters).Stand.Pieces);
        Assert.Contains("\"Lighter, paper 4412\"", await Me.Content("/files/used-oil.csv"));
        Assert.NotEmpty(await drums.Collect(Host.Services.GetRequiredService<PeopleStore>().Find("una")!.Person, "Coolant", "Lighter"));
        // Who only looks changes nothing.
        var desk = await Host.SignedIn("desk");
        await desk.Get("/drums");
        Assert.Null(desk.Page.QuerySelector("main form"));
        Assert.NotEmpty(await drums.Put(Host.Services.GetRequiredService<PeopleStore>().Find("desk")!.Person, "X", "Oil", "200 L", ""));
    }

    [Fact]
    public async Task A_drum_is_put_up_with_its_unit_and_what_is_wrong_stands_at_its_field()
    {
        await Me.Get("/drums");
        (string, string, string)[] wrong = [("200", "", "unit"), ("-5 L", "", "more than nothing"), ("200 L", "soon", "whole number")];
        foreach (var (holds, keep, problem) in wrong)
        {
            Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("form[action*='Put']", ("name", "Oil 2"), ("waste", "Oil"),
                ("holds", holds), ("keep", keep)));
            Assert.Contains(problem, string.Join(' ', Me.Page.QuerySelectorAll(".problem").Select(p => p.TextContent)));
            Assert.Equal("Oil 2", Me.Page.QuerySelector("#drum-name")!.GetAttribute("value"));
        }
        await Me.Submit("form[action*='Put']", ("name", "Oil 2"), ("waste", "Oil"), ("holds", "53 US gal"), ("keep", "90"));
        Assert.Contains("Oil 2", Me.Text);
    }

    [Fact]
    public async Task The_desk_says_what_is_back_what_waits_for_which_boat_and_has_nothing_to_press()
    {
        await Me.Get("/desk");
        Assert.Empty(Me.Page.QuerySelectorAll("main button, main form, main a, main input"));
        Assert.Contains("Spark plugs SK-3312-S", Me.Text);
        Assert.Contains("Everything is done; it is to be signed", Me.Text);
        await Me.Get("/handover/1057");
        await Me.Submit("form[action='?handler=sign']", ("pin", "2468"));
        await Me.Get("/desk");
        Assert.Contains("HD-02", Me.Page.QuerySelector(".desk-back")!.TextContent);
        // A stop holds the vehicle, with its words.
        await Me.Get("/lift/1058?panel=saw");
        await Me.Submit("form[action='?handler=saw']", ("text", "Brake hose rubbed through"), ("grade", "Stop"));
        await Me.Get("/desk");
        Assert.Contains("Brake hose rubbed through", Me.Page.QuerySelector(".held-row")!.TextContent);
        Assert.Equal("60", string.Join("", Me.Answer.Headers.GetValues("Refresh")));
    }
}
