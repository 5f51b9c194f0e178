using System.Net;
using System.Net.Http.Headers;
using System.Text;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Readings;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>Devices over HTTP: the examples of <c>docs/devices.md</c>, what is refused, and what a person does with a reading that
/// waits.</summary>
public sealed class DeviceTests : IAsyncLifetime
{
    private const string Id = "6f0c2f5e-3b0e-4c39-9d1c-0a4d7b1f6a77";

    private WorkshopHost _host = null!;
    private Browser _iona = null!;
    private string _key = "";

    private CardStore Cards => _host.Services.GetRequiredService<CardStore>();

    private DeviceStore Devices => _host.Services.GetRequiredService<DeviceStore>();

    // HD-08 stands in bay 1 with its new filter in, and the wrench hangs there.
    public async ValueTask InitializeAsync()
    {
        _host = await WorkshopHost.Demo();
        await Cards.MoveTo(1058, "Bay 1");
        _key = (await _host.Services.GetRequiredService<DeviceDesk>().Pair("TW-2", "Bay 1")).Key!;
        _iona = await _host.SignedIn();
        var token = await _iona.Token();
        foreach (var said in WorkshopHost.FilterGoesIn())
        {
            said["command"] = Guid.NewGuid();
            await _iona.Api(HttpMethod.Post, "/api/v1/cards/1058/commands", said, token);
        }
        Assert.Equal("tighten-filter-cap", Cards.Find(1058)!.Next!.Id.Text);
    }

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private static string Hello(string bay = "Bay 1", string now = "2026-03-09T09:00:00+00:00") =>
        $$"""{"hello":"TW-2","bay":"{{bay}}","now":"{{now}}"}""";

    private static string Reads(string number, string unit = "N·m", string id = Id, string at = "2026-03-09T09:00:00+00:00") =>
        $$"""{"reading":"{{id}}","at":"{{at}}","value":{{number}},"unit":"{{unit}}"}""";

    private async Task<(HttpStatusCode Status, string[] Lines)> Send(string body, string? key = null, string type = "application/x-ndjson")
    {
        var request = new HttpRequestMessage(HttpMethod.Post, "/api/v1/devices") { Content = new StringContent(body, Encoding.UTF8) };
        request.Content.Headers.ContentType = MediaTypeHeaderValue.Parse(type);
        request.Headers.Authorization = new("Bearer", key ?? _key);
        var answer = await _host.NewClient().SendAsync(request);
        return (answer.StatusCode, (await answer.Content.ReadAsStringAsync()).Split('\n', StringSplitOptions.RemoveEmptyEntries));
    }

    private async Task<string> Last(params string[] lines) => (await Send(string.Join('\n', lines))).Lines[^1];

    [Fact]
    public async Task The_examples_that_are_written_down_are_true()
    {
        var blocks = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "devices.md")).Split("```")
            .Where(b => b.TrimStart().StartsWith("> ", StringComparison.Ordinal)).Select(b => b.Trim().Split('\n')).ToList();
        Assert.Equal(11, blocks.Count);
        foreach (var block in blocks.Where(b => b[0].Contains("TW-", StringComparison.Ordinal)))
        {
            var (_, lines) = await Send(string.Join('\n', block.Where(l => l.StartsWith('>')).Select(l => l[2..])));
            Assert.Equal(block.Where(l => l.StartsWith('<')).Select(l => l[2..]), lines);
        }
        Assert.Equal("25.2 N·m", Cards.Find(1058)!.TorqueAt(Cards.Find(1058)!.Step("tighten-filter-cap")!)!.Value.Reading.ToString());
        await _iona.Get("/lift/1058?since=17");
        Assert.Contains("Oil filter cap: 25.2 N·m, passes, sent by TW-2", _iona.Text);
        await _iona.Get("/record/1058");
        Assert.Contains("25.2 N·m, TW-2", _iona.Text);
    }

    [Theory]
    [InlineData("", "The message is empty")]
    [InlineData("{ broken", "The first line is no JSON object")]
    [InlineData("[]", "The first line is no JSON object")]
    [InlineData("""{"reading":"x"}""", "The first line is a hello")]
    [InlineData("""{"hello":7}""", "The first line is a hello")]
    [InlineData("""{"hello":"TW-2"}""", "does not say in which bay")]
    [InlineData("""{"hello":"TW-2","bay":"Bay 1"}""", "what its clock says")]
    [InlineData("""{"hello":"TW-2","bay":"Bay 1","now":"2026-03-09T09:00:00"}""", "what its clock says")]
    [InlineData("""{"hello":"TW-2","bay":"Bay 1","now":"yesterday"}""", "what its clock says")]
    public async Task A_hello_that_is_none_is_refused_and_nothing_after_it_is_looked_at(string hello, string words)
    {
        var (status, lines) = await Send($"{hello}\n{(hello.Length > 0 ? Reads("25") : "")}");
        Assert.Equal((HttpStatusCode.OK, 1), (status, lines.Length));
        Assert.Contains(words, lines[0]);
        Assert.Null(Devices.Find("TW-2", Guid.Parse(Id)));
    }

    [Theory]
    [InlineData("{ broken", "no JSON object")]
    [InlineData("""{"reading":"7"}""", "an id of its own")]
    [InlineData("""{"reading":"00000000-0000-0000-0000-000000000000"}""", "an id of its own")]
    [InlineData($$"""{"reading":"{{Id}}","value":25,"unit":"N·m"}""", "when it was measured")]
    [InlineData($$"""{"reading":"{{Id}}","at":"2026-03-09T09:00:00Z","value":"25","unit":"N·m"}""", "no value that is a number")]
    [InlineData($$"""{"reading":"{{Id}}","at":"2026-03-09T09:00:00Z","value":1e40,"unit":"N·m"}""", "no value that is a number")]
    [InlineData($$"""{"reading":"{{Id}}","at":"2026-03-09T09:00:00Z","value":25}""", "has no unit")]
    [InlineData($$"""{"reading":"{{Id}}","at":"2026-03-09T09:00:00Z","value":25,"unit":"bar"}""", "no unit of a torque")]
    public async Task A_reading_that_is_none_is_refused_and_the_next_one_is_taken(string line, string words)
    {
        var (_, lines) = await Send(string.Join('\n', Hello(), line, Reads("25", id: "6f0c2f5e-3b0e-4c39-9d1c-0a4d7b1f6a78")));
        Assert.Contains(words, lines[1]);
        Assert.Contains("placed", lines[2]);
        Assert.Null(Devices.Find("TW-2", Guid.Parse(Id)));
    }

    [Fact]
    public async Task An_unknown_key_too_much_and_another_type_are_refused()
    {
        foreach (var key in new[] { "nobody's", " ", _key + "x" })
        {
            var (status, lines) = await Send($"{Hello()}\n{Reads("25")}", key);
            Assert.Equal(HttpStatusCode.Unauthorized, status);
            Assert.Contains("Nobody here knows this key", lines[0]);
        }
        Assert.Equal(HttpStatusCode.UnsupportedMediaType, (await Send(Hello(), type: "application/json")).Status);
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, (await Send(new string('x', DeviceProtocol.Longest + 1))).Status);
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, (await Send(new string('x', DeviceProtocol.Longest * 4 + 1))).Status);
        Assert.Contains("at most 200 lines", (await Send(string.Join('\n', Enumerable.Repeat(Hello(), 201)))).Lines[0]);
        Assert.Null(Devices.Find("TW-2", Guid.Parse(Id)));
        // A new key makes the old one worthless.
        await _host.Services.GetRequiredService<DeviceDesk>().Pair("TW-2", "Bay 1");
        Assert.Equal(HttpStatusCode.Unauthorized, (await Send(Hello())).Status);
    }

    [Fact]
    public async Task A_clock_that_is_wrong_but_goes_does_no_harm()
    {
        // Three hours fast; measured two seconds before it was sent.
        _host.Clock.Advance(TimeSpan.FromSeconds(10));
        Assert.Contains("placed", await Last(Hello(now: "2026-03-09T12:00:10Z"), Reads("25", at: "2026-03-09T12:00:08Z")));
        Assert.Equal(new DateTimeOffset(2026, 3, 9, 9, 0, 8, TimeSpan.Zero), Devices.Find("TW-2", Guid.Parse(Id))!.Reading.At);
        await _iona.Get("/bay/bay-1");
        Assert.Contains("Its clock is 3 h fast", _iona.Text);
    }

    [Fact]
    public async Task Kept_while_the_line_was_dead_it_lands_unless_somebody_went_on()
    {
        var token = await _iona.Token();
        _host.Clock.Advance(TimeSpan.FromMinutes(10));
        await _iona.Api(HttpMethod.Post, "/api/v1/cards/1058/commands",
            new { say = "reading", step = "tighten-filter-cap", torque = "25 N·m", command = Guid.NewGuid() }, token);
        var now = "2026-03-09T09:10:00Z";
        Assert.Contains("waiting", await Last(Hello(now: now), Reads("25", at: "2026-03-09T09:09:00Z")));
        await _iona.Get("/lift/1058");
        Assert.Contains("TW-2 read 25 N·m", _iona.Text);
        await _iona.Get("/bay/bay-1");
        Assert.Contains("One reading waits for a person", _iona.Text);
    }

    [Fact]
    public async Task A_person_places_a_reading_in_their_own_name_or_discards_it_with_a_reason()
    {
        await Last(Hello("Bay 2"), Reads("24.8"), Reads("31", id: "6f0c2f5e-3b0e-4c39-9d1c-0a4d7b1f6a78"));
        var una = await _host.SignedIn("una");
        await una.Get("/bay/bay-1");
        Assert.Contains("It says it is in Bay 2", una.Text);
        Assert.Equal(HttpStatusCode.OK, await una.Submit("button[name=place]"));
        var done = Cards.Find(1058)!.History[^1];
        Assert.Equal(("Una B.", "tighten-filter-cap"), (done.By.Name, ((IStepEvent)done.Event).Step.Text));
        Assert.Contains("placed by Una B.", una.Text);
        // The other one: nothing takes it now; without a reason it stays.
        Assert.Null(una.Page.QuerySelector("button[name=place]"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await una.Submit("form[action='?handler=Discard'] button", ("words", " ")));
        Assert.Equal(HttpStatusCode.OK, await una.Submit("form[action='?handler=Discard'] button", ("words", "Tried it on the bench")));
        Assert.Contains("discarded by Una B.: Tried it on the bench", una.Text);
        Assert.Empty(Devices.Waiting("Bay 1"));
    }

    [Fact]
    public async Task Nobody_places_twice_elsewhere_or_without_working_on_cards()
    {
        await Last(Hello("Bay 2"), Reads("24.8"));
        var token = Guid.Parse(Id);
        var desk = _host.Services.GetRequiredService<DeviceDesk>();
        Person iona = new("iona", "Iona R.", Role.Technician), reader = new("desk", "Transport desk", Role.Viewer);
        Assert.StartsWith("That step does not take", (await desk.Place("TW-2", token, 1058, "fit-ring", iona))!.What);
        Assert.StartsWith("That card is not where", (await desk.Place("TW-2", token, 1057, "tighten-filter-cap", iona))!.What);
        Assert.NotNull(await desk.Place("TW-2", token, 1058, "tighten-filter-cap", reader));
        Assert.NotNull(await desk.Discard("TW-2", token, "No", reader));
        Assert.Null(await desk.Place("TW-2", token, 1058, "tighten-filter-cap", iona));
        Assert.StartsWith("Somebody settled this", (await desk.Place("TW-2", token, 1058, "tighten-filter-cap", iona))!.What);
        Assert.StartsWith("Somebody settled this", (await desk.Discard("TW-2", token, "No", iona))!.What);
        Assert.StartsWith("Somebody settled this", (await desk.Place("TW-2", Guid.NewGuid(), 1058, "tighten-filter-cap", iona))!.What);
    }

    [Fact]
    public async Task What_was_measured_before_a_card_was_opened_is_not_offered_for_it()
    {
        await Last(Hello("Bay 2"), Reads("24.8"), Reads("25", id: "6f0c2f5e-3b0e-4c39-9d1c-0a4d7b1f6a78", at: "2026-03-09T07:00:00Z"));
        var waiting = _host.Services.GetRequiredService<DeviceDesk>().Look("Bay 1", new("iona", "Iona R.", Role.Technician)).Waiting;
        Assert.Equal([1, 0], waiting.Select(w => w.Places.Count).OrderDescending());
    }

    [Fact]
    public async Task The_lead_takes_a_wrench_in_and_its_key_is_shown_once()
    {
        await _iona.Get("/bay/bay-2");
        Assert.Null(_iona.Page.QuerySelector("form[action='?handler=Pair']"));
        var una = await _host.SignedIn("una");
        await una.Get("/bay/bay-2");
        Assert.Equal(HttpStatusCode.OK, await una.Submit("button[name=device][value='TW-4']"));
        var key = una.Page.QuerySelector(".device-key")!.TextContent;
        Assert.Contains("TW-4 measures", (await Send(
            $"{Hello("Bay 2").Replace("TW-2", "TW-4", StringComparison.Ordinal)}\n{Reads("1", "L")}", key)).Lines[1]);
        await una.Get("/bay/bay-2");
        Assert.Null(una.Page.QuerySelector(".device-key"));
        Assert.NotNull((await _host.Services.GetRequiredService<DeviceDesk>().Pair("TW-9", "Bay 1")).Wrong);
        Assert.NotNull((await _host.Services.GetRequiredService<DeviceDesk>().Pair("TW-2", "Bay 9")).Wrong);
    }

    [Fact]
    public async Task Wrench_and_vehicle_are_moved_between_bays_and_what_is_up_stays()
    {
        await _iona.Get("/bay/bay-1");
        Assert.Equal(HttpStatusCode.OK, await _iona.Submit(".device button[value='Bay 2']"));
        Assert.Equal("Bay 2", Devices.All()[0].Bay);
        // HD-08 is up on the lift.
        Assert.Equal(HttpStatusCode.Conflict, await _iona.Submit("form[action='?handler=Vehicle'] button[value='Outside']"));
        Assert.Contains("up on the lift", _iona.Text);
        await _iona.Get("/bay/outside");
        Assert.Equal(HttpStatusCode.OK, await _iona.Submit("form[action='?handler=Vehicle'] button[value='Bay 2']"));
        Assert.Equal(HttpStatusCode.NotFound, await _iona.Get("/bay/bay-9"));
        var desk = await _host.SignedIn("desk");
        await desk.Get("/bay/bay-1");
        Assert.Null(desk.Page.QuerySelector("main form"));
    }

    [Fact]
    public async Task A_wrench_that_is_near_is_named_at_the_step_and_one_that_is_not_heard_is_not()
    {
        await Send(Hello());
        await _iona.Get("/lift/1058");
        Assert.Contains("TW-2 sends its click here", _iona.Text);
        _host.Clock.Advance(TimeSpan.FromSeconds(31));
        await _iona.Get("/lift/1058");
        Assert.DoesNotContain("sends its click", _iona.Text);
        await _iona.Get("/bay/bay-1");
        Assert.Contains("not heard since 09:00", _iona.Text);
    }

    [Fact]
    public async Task The_wrench_of_the_demo_pulls_at_the_vehicle_behind_the_card()
    {
        Assert.Equal(HttpStatusCode.NotFound, await _iona.Get("/stand-ins/wrench"));
        await _host.Services.GetRequiredService<DemoWrench>().Begin();
        Assert.Equal(HttpStatusCode.OK, await _iona.Get("/stand-ins/wrench"));
        Assert.Contains("Oil filter cap out", _iona.Text);
        await _iona.Submit("form[action='?handler=RunIn'] button");
        await _iona.Submit("button.wrench-wants");
        // It does not click before its setting, and nothing is sent.
        await _iona.Submit("form[action='?handler=Pull'] button", ("degrees", "30"));
        Assert.Contains("No click", _iona.Text);
        Assert.Equal("tighten-filter-cap", Cards.Find(1058)!.Next!.Id.Text);
        await _iona.Submit("form[action='?handler=Pull'] button", ("degrees", "31"));
        Assert.Contains("25 N·m is noted at “Tighten the oil filter cap”", _iona.Text);
        Assert.NotEqual("tighten-filter-cap", Cards.Find(1058)!.Next!.Id.Text);
        // The line is cut: it keeps what it read, and sends it when the line is back.
        await _iona.Submit("form[action='?handler=Spoil'] button", ("cut", "true"), ("clock", "90"), ("shows", "110"));
        await _iona.Get("/stand-ins/wrench?on=1058/oil-filter-cap");
        await _iona.Submit("form[action='?handler=Pull'] button", ("degrees", "1"));
        Assert.Contains("keeps 1", _iona.Text);
        await _iona.Submit("form[action='?handler=Spoil'] button", ("cut", "false"), ("clock", "90"), ("shows", "100"));
        Assert.DoesNotContain("keeps 1", _iona.Text);
        // It clicks after a quarter of a degree and gives way: 25 + 0.25 / 60 * 25 = 25.1, of which it shows ten percent too much.
        var late = Assert.Single(Devices.Waiting("Bay 1"));
        Assert.Equal(("27.6 N·m", new DateTimeOffset(2026, 3, 9, 9, 0, 0, TimeSpan.Zero)), ($"{late.Reading.Read}", late.Reading.At));
        // Pulled without end it cracks, and says so.
        await _iona.Submit("form[action='?handler=Pull'] button", ("degrees", "90"));
        Assert.Contains("it cracked", _iona.Text);
        await _iona.Submit("form[action='?handler=Pull'] button", ("degrees", "0"));
        Assert.Contains("Pull a little", _iona.Text);
    }
}
