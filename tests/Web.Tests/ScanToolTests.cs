using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Resetting;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>A scan tool over its protocol: what it reads fills the intake, what it shows makes the moves of a reset.</summary>
public sealed class ScanToolTests : IAsyncLifetime
{
    private WorkshopHost _host = null!;
    private Browser _iona = null!;
    private string _key = "";

    private T Of<T>() where T : notnull => _host.Services.GetRequiredService<T>();

    private string Now => _host.Clock.GetUtcNow().ToString("yyyy-MM-ddTHH:mm:sszzz", System.Globalization.CultureInfo.InvariantCulture);

    private JobCard Card => Of<CardStore>().Find(1059)!;

    public async ValueTask InitializeAsync()
    {
        _host = await WorkshopHost.Demo();
        _key = (await Of<DeviceDesk>().Pair("ST-1", "Bay 1")).Key!;
        _iona = await _host.SignedIn();
    }

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private async Task<string[]> Send(params string[] lines) => (await Of<DeviceProtocol>().Answer(_key, string.Join('\n',
        lines.Prepend($$"""{"hello":"ST-1","bay":"Bay 1","now":"{{Now}}"}""")))).Lines.Trim().Split('\n');

    private async Task<string> Report(string vehicle, string rest, string? id = null) => (await Send(
        $$"""{"report":"{{id ?? $"{Guid.NewGuid()}"}}","at":"{{Now}}","vehicle":"{{vehicle}}",{{rest}}}"""))[^1];

    private async Task<string> Shows(string shows, string vehicle = "MR900-1511-20") => (await Send(
        $$"""{"message":"{{Guid.NewGuid()}}","at":"{{Now}}","vehicle":"{{vehicle}}","shows":"{{shows}}"}"""))[^1];

    private string? Value(string field) => _iona.Page.QuerySelector(field)!.GetAttribute("value");

    // HD-15 in bay 1, with nothing left to do but its reset.
    private async Task AtReset(string sheet = "maelor-ridge-900", string plate = "HD-15", string bay = "Bay 1")
    {
        var model = Of<SheetStore>().Newest(sheet)!;
        JobId[] jobs = ["engine-oil-and-filter"];
        var iona = Of<PeopleStore>().All().Single(m => m.Id == "iona").Person;
        var card = await Of<CardStore>().Open(new(plate, model.Id, model.Revision, jobs,
            [.. CardPlanner.Compose(model, jobs).Where(s => s.Traits.PutsOut || (s.Traits.Opens && s.What == "seat"))],
            Quantity<Distance>.Of(24_700, Distance.Kilometre), Use.Harsh, null, new Dictionary<PartId, int>()), bay, iona,
            Of<WorkshopClock>().Now, Guid.NewGuid());
        if (Card.Next is { Traits.Opens: true } seat)
            await Of<CardStore>().Handle(card, Guid.NewGuid(), new ConfirmStep(seat.Id), iona, Of<WorkshopClock>().Now);
    }

    [Fact]
    public async Task The_examples_that_are_written_down_are_true()
    {
        await AtReset();
        var examples = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "devices.md")).Split("```").Select(b => b.Trim().Split('\n'))
            .Where(b => b[0].Contains("\"hello\":\"ST-1\"", StringComparison.Ordinal)).ToList();
        Assert.Equal(2, examples.Count);
        foreach (var block in examples)
        {
            var said = block.Where(l => l.StartsWith('>')).Select(l => l[2..].Replace("2026-03-09T09:00:00+00:00", Now));
            var (_, lines) = await Of<DeviceProtocol>().Answer(_key, string.Join('\n', said));
            Assert.Equal(block.Where(l => l.StartsWith('<')).Select(l => l[2..]), lines.Trim().Split('\n'));
        }
        Assert.Equal(["ResetFailed", "ResetAnswered"], Card.History.Skip(1).Select(h => h.Event.GetType().Name));
    }

    [Theory]
    [InlineData("\"odometer\":1,\"unit\":\"km\",\"oilLife\":101", "oilLife")]
    [InlineData("\"odometer\":1,\"unit\":\"km\",\"oilLife\":1.5", "oilLife")]
    [InlineData("\"odometer\":1,\"unit\":\"km\",\"left\":\"far\"", "left")]
    [InlineData("\"odometer\":1,\"unit\":\"km\",\"hours\":-1", "hours")]
    [InlineData("\"odometer\":1,\"unit\":\"km\",\"code\":7", "code")]
    [InlineData("\"odometer\":-1,\"unit\":\"km\"", "odometer")]
    [InlineData("\"unit\":\"km\"", "odometer")]
    [InlineData("\"odometer\":1,\"unit\":\"bar\"", "km or mi")]
    [InlineData("\"odometer\":1", "km or mi")]
    public async Task A_report_that_is_none_is_refused_and_offered_nowhere(string rest, string words)
    {
        var answer = await Report("TC20D-0714-19", rest);
        Assert.StartsWith("{\"refused\"", answer, StringComparison.Ordinal);
        Assert.Contains(words, answer);
        Assert.Empty(Of<ScanDesk>().Lately);
        Assert.Contains("what the vehicle says", await Report("", "\"odometer\":1,\"unit\":\"km\""));
    }

    [Fact]
    public async Task Only_a_scan_tool_reports()
    {
        _key = (await Of<DeviceDesk>().Pair("TW-2", "Bay 1")).Key!;
        var (_, lines) = await Of<DeviceProtocol>().Answer(_key, $$"""
            {"hello":"TW-2","bay":"Bay 1","now":"{{Now}}"}
            {"report":"{{Guid.NewGuid()}}","at":"{{Now}}","vehicle":"TC20D-0714-19","odometer":1,"unit":"km"}
            {"message":"{{Guid.NewGuid()}}","at":"{{Now}}","shows":"DONE"}
            """);
        Assert.Contains("TW-2 is no scan tool.", lines.Split('\n')[1]);
        Assert.Contains("TW-2 is no scan tool.", lines.Split('\n')[2]);
        Assert.Contains("no wrench, no dispenser, no scan tool and no label printer",
            $"{(await Of<DeviceDesk>().Pair("ST-2", "Bay 1")).Wrong}");
    }

    [Fact]
    public async Task Intake_fills_its_fields_marks_what_was_read_and_opens_the_card_with_it()
    {
        await Report("TC20D-0714-19", "\"odometer\":148300,\"unit\":\"km\",\"code\":\"17\",\"left\":1900,\"oilLife\":2");
        await _iona.Get("/intake?plate=HD-02");
        Assert.Contains("ST-1 read HD-07", _iona.Text);
        await _iona.Submit("button[name=take]");
        Assert.Equal("148300", Value("#odometer"));
        Assert.Equal(("17", "1900", "2"), (Value("#dash"), Value("#remaining"),
            Value("#oilLife")));
        Assert.Equal(4, _iona.Page.QuerySelectorAll(".read-by").Length);
        // Two per cent of 10,000 km are 200 km, and 1,900 km is more than a tenth away from that.
        Assert.Contains("By its distance left the dash has 1 900 km to go, by its oil life 200 km.", _iona.Text);
        await _iona.Submit("button.main");
        Assert.Equal(new DeviceId("ST-1"), Card.Opened.ReadBy);
        await _iona.Get("/record/1059");
        Assert.Contains("148 300 km, read by ST-1", _iona.Text);
        await _iona.Get("/intake");
        Assert.DoesNotContain("ST-1 read", _iona.Text);
    }

    [Fact]
    public async Task What_was_typed_over_it_was_typed_and_what_was_read_of_one_vehicle_is_refused_for_another()
    {
        await Report("TC20D-0714-19", "\"odometer\":148300,\"unit\":\"km\",\"oilLife\":40");
        await _iona.Get("/intake");
        await _iona.Submit("button[name=take]");
        await _iona.Submit("button.main", ("plate", "HD-15"));
        Assert.Contains("ST-1 read HD-07, and HD-15 is chosen.", _iona.Text);
        Assert.Null(Of<CardStore>().Find(1059));
        // Taken out again nothing of it is left.
        await _iona.Submit("button[name=take][value='']");
        Assert.Equal("", Value("#odometer") ?? "");
        await _iona.Submit("button[name=take]");
        await _iona.Submit("button.main", ("odometer", "148 310"));
        Assert.Equal((null, 148_310m), (Card.Opened.ReadBy, Card.Opened.Odometer.In(Distance.Kilometre)));
    }

    [Fact]
    public async Task A_vehicle_that_nobody_knew_is_known_once_it_was_taken_in_so()
    {
        await Of<VehicleStore>().Add(new("HD-21", "tarn-courier-20d", "Spare", 2020, Use.Normal));
        await Report("TC20D-0999-20", "\"odometer\":12000,\"unit\":\"km\"");
        await _iona.Get("/intake?plate=HD-21");
        Assert.Contains("a vehicle that nobody knows, TC20D-0999-20", _iona.Text);
        await _iona.Submit("button[name=take]");
        Assert.Contains("it is noted with the one that is chosen", _iona.Text);
        // One that is known as something else is not it.
        await _iona.Submit("button.main", ("plate", "HD-15"));
        Assert.Contains("HD-15 calls itself MR900-1511-20", _iona.Text);
        await _iona.Get("/intake?plate=HD-21");
        await _iona.Submit("button[name=take]");
        await _iona.Submit("button.main", ("plate", "HD-21"));
        Assert.Equal("HD-21", Of<VehicleStore>().WithIdentity("TC20D-0999-20")!.Plate);
        Assert.Contains("Kept for the intake of HD-21", await Report("TC20D-0999-20", "\"odometer\":12001,\"unit\":\"km\""));
    }

    [Fact]
    public async Task What_was_read_four_hours_ago_is_not_what_it_shows_now()
    {
        await Report("TC20D-0714-19", "\"odometer\":148300,\"unit\":\"km\"");
        await _iona.Get("/intake");
        await _iona.Submit("button[name=take]");
        _host.Clock.Advance(TimeSpan.FromHours(4.1));
        Assert.Empty(Of<ScanDesk>().Lately);
        await _iona.Submit("button.main");
        Assert.Null(Card.Opened.ReadBy);
    }

    [Fact]
    public async Task What_the_tool_shows_makes_the_moves_of_the_card_in_its_bay()
    {
        await AtReset();
        await Send();
        await _iona.Get("/lift/1059");
        Assert.Contains("ST-1 is heard here: what it shows comes by itself", _iona.Text);
        Assert.Contains("is noted at", await Shows("link"));
        Assert.Contains("is noted at", await Shows("OTHER VEHICLE"));
        Assert.Equal(("OTHER VEHICLE", 1), Card.History[^1].Event is ResetFailed f ? (f.Shows, f.Again) : default);
        foreach (var shows in new[] { "LINK", "RIDGE 900", "SURE?", "DONE" })
            Assert.Contains("is noted at", await Shows(shows));
        Assert.Equal("reset-service-word-5", Card.Next!.Id.Text);
        // The key is no move of the tool.
        Assert.Contains("waits for no scan tool", await Shows("DONE"));
        await _iona.Get("/lift/1059?since=1");
        Assert.Contains("ST-1 shows DONE", _iona.Text);
    }

    [Fact]
    public async Task What_is_typed_into_the_tool_is_what_the_display_counts_from()
    {
        await AtReset("skelling-tourer-1100", "HD-04");
        await Of<VehicleStore>().Add(new("HD-22", "skelling-tourer-1100", "Spare", 2020, Use.Normal, Identity: "ST11-2"));
        Assert.Contains("It is plugged into HD-22; the card in Bay 1 is that of HD-04.", await Shows("LINK", "ST11-2"));
        Assert.Contains("No vehicle here is known as ST11-3.", await Shows("LINK", "ST11-3"));
        Assert.Contains("is noted at", await Shows("LINK", "HE16-0881-18"));
        Assert.Contains("is noted at", await Shows("TOURER", "HE16-0881-18"));
        Assert.Contains("is noted at", await Shows("6500 km", "HE16-0881-18"));
        var shown = Assert.IsType<ResetShown>(Card.History[^2].Event);
        Assert.Equal((6500m, new DeviceId("ST-1")), (shown.Distance!.Value.Value.In(Distance.Kilometre), shown.Device));
        await Of<CardStore>().MoveTo(1059, "Bay 2");
        Assert.Contains("No card is open in Bay 1.", await Shows("DONE", "HE16-0881-18"));
    }
}
