using System.Net;
using System.Text.Json.Nodes;
using Anakyklos.Core.Cards;

namespace Anakyklos.Web.Tests;

public sealed class ApiTests : IAsyncLifetime
{
    private const string HalfDone = "/api/v1/cards/1058";
    private WorkshopHost _host = null!;
    private Browser _browser = null!;
    private string _token = "";

    public async ValueTask InitializeAsync()
    {
        _host = await WorkshopHost.Demo();
        _browser = await _host.SignedIn();
        _token = await _browser.Token();
    }

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private Task<JsonNode> Post(object body) => _browser.Api(HttpMethod.Post, HalfDone + "/commands", body, _token);

    [Fact]
    public async Task A_step_is_confirmed_once_however_often_it_is_sent()
    {
        var command = Guid.NewGuid();
        var first = await Post(new { say = "done", step = "filter-cap-off", command });
        var second = await Post(new { say = "done", step = "filter-cap-off", command });
        Assert.Equal((false, true), (first["repeated"]!.GetValue<bool>(), second["repeated"]!.GetValue<bool>()));
        Assert.Equal(first["seq"]!.GetValue<int>(), second["seq"]!.GetValue<int>());
        Assert.Equal("compare-filter", second["next"]!.GetValue<string>());
        await Post(new { say = "done", step = "filter-cap-off", command = Guid.NewGuid() });
        Assert.Equal(HttpStatusCode.Conflict, _browser.Status);
    }

    [Fact]
    public async Task A_reading_in_the_wrong_unit_comes_back_as_a_question()
    {
        foreach (var said in WorkshopHost.FilterGoesIn())
        {
            said["command"] = Guid.NewGuid();
            await Post(said);
        }
        var asked = await Post(new { say = "reading", step = "tighten-filter-cap", command = Guid.NewGuid(), torque = "18.5 N·m" });
        Assert.Equal(HttpStatusCode.Conflict, _browser.Status);
        Assert.Equal("18.5 lbf·ft", asked["question"]!["perhapsMeant"]!.GetValue<string>());
        await Post(new { say = "reading", step = "tighten-filter-cap", command = Guid.NewGuid(), torque = "18.5 ft-lb" });
        Assert.Equal(HttpStatusCode.OK, _browser.Status);
        var events = (JsonArray)await _browser.Api(HttpMethod.Get, HalfDone + "/events");
        Assert.Equal("18.5 lbf·ft", events[^1]!["event"]!["reading"]!.GetValue<string>());
    }

    [Theory]
    [InlineData("{ broken", HttpStatusCode.BadRequest, "")]
    [InlineData("[]", HttpStatusCode.BadRequest, "id of its own")]
    [InlineData("""{ "say": "done", "step": "drain" }""", HttpStatusCode.BadRequest, "id of its own")]
    [InlineData("""{ ID, "say": "done", "step": "none" }""", HttpStatusCode.Conflict, "no step")]
    [InlineData("""{ ID, "say": "done", "step": 7 }""", HttpStatusCode.UnprocessableEntity, "wrong shape")]
    [InlineData("""{ ID, "say": "done", "step": "filter-cap-off", "count": "2" }""", HttpStatusCode.UnprocessableEntity, "wrong shape")]
    [InlineData("""{ ID, "say": "done", "step": "filter-cap-off", "cuont": 2 }""", HttpStatusCode.UnprocessableEntity, "no field “cuont”")]
    [InlineData("""{ ID, "say": "sing" }""", HttpStatusCode.UnprocessableEntity, "Nobody here knows")]
    [InlineData("""{ ID, "step": "drain" }""", HttpStatusCode.UnprocessableEntity, "Nobody here knows")]
    [InlineData("""{ ID, "say": "reading", "step": "tighten-drain-plug", "torque": "38 cubits" }""", HttpStatusCode.UnprocessableEntity,
        "is not a unit of torque")]
    [InlineData("""{ ID, "say": "reading", "step": "tighten-drain-plug", "torque": 38 }""", HttpStatusCode.UnprocessableEntity,
        "wrong shape")]
    [InlineData("""{ ID, "say": "reading", "step": "tighten-drain-plug" }""", HttpStatusCode.UnprocessableEntity, "Type a torque")]
    [InlineData("""{ ID, "say": "pour", "step": "first-pour", "amount": "5 L" }""", HttpStatusCode.Conflict, "")]
    [InlineData("""{ ID, "say": "pour", "step": "first-pour", "amount": "5 L", "warned": "yes" }""", HttpStatusCode.UnprocessableEntity,
        "wrong shape")]
    [InlineData("""{ ID, "say": "gauge", "step": "read-level", "level": "full" }""", HttpStatusCode.UnprocessableEntity, "wrong shape")]
    [InlineData("""{ ID, "say": "saw", "step": "drain", "grade": "sound", "text": "" }""", HttpStatusCode.UnprocessableEntity, "missing")]
    [InlineData("""{ ID, "say": "saw", "step": "drain", "grade": "awful", "text": "x" }""", HttpStatusCode.UnprocessableEntity, "how bad")]
    [InlineData("""{ ID, "say": "back" }""", HttpStatusCode.UnprocessableEntity, "missing")]
    [InlineData("""{ ID, "say": "back", "of": 99999999999 }""", HttpStatusCode.UnprocessableEntity, "whole number")]
    [InlineData("""{ ID, "say": "kit", "step": "lay-out-kit", "parts": ["x"] }""", HttpStatusCode.UnprocessableEntity, "wrong shape")]
    [InlineData("""{ ID, "say": "kit", "step": "lay-out-kit", "pan": "8 L" }""", HttpStatusCode.UnprocessableEntity, "wrong shape")]
    [InlineData("""{ ID, "say": "kit", "step": "lay-out-kit", "parts": { "oil-filter": { "choice": "stands-in" } } }""",
        HttpStatusCode.UnprocessableEntity, "what lies there")]
    [InlineData("""{ ID, "say": "sign" }""", HttpStatusCode.Conflict, "Close it first")]
    public async Task What_is_wrong_is_answered_in_words_with_its_status_and_writes_nothing(string body, HttpStatusCode status,
        string words)
    {
        var before = (await _browser.Api(HttpMethod.Get, HalfDone))["seq"]!.GetValue<int>();
        var answer = await Post(body.Replace("ID", $"\"command\": \"{Guid.NewGuid()}\"", StringComparison.Ordinal));
        Assert.Equal(status, _browser.Status);
        Assert.Contains(words, $"{answer["detail"]} {answer["title"]}");
        Assert.Equal(before, (await _browser.Api(HttpMethod.Get, HalfDone))["seq"]!.GetValue<int>());
    }

    [Fact]
    public async Task Posts_need_the_token_and_everything_needs_a_person()
    {
        await _browser.Api(HttpMethod.Post, HalfDone + "/commands",
            new { say = "done", step = "filter-cap-off", command = Guid.NewGuid() });
        Assert.Equal(HttpStatusCode.BadRequest, _browser.Status);
        var stranger = _host.NewBrowser();
        await stranger.Api(HttpMethod.Get, "/api/v1/cards");
        Assert.Equal(HttpStatusCode.Unauthorized, stranger.Status);
        await _browser.Api(HttpMethod.Get, "/api/v1/cards/5");
        Assert.Equal(HttpStatusCode.NotFound, _browser.Status);
    }

    [Fact]
    public async Task The_description_names_every_endpoint_and_every_command_with_its_fields()
    {
        var document = await _host.NewBrowser().Api(HttpMethod.Get, "/openapi/v1.json");
        var paths = document["paths"]!.AsObject();
        foreach (var path in new[] { "/api/v1/cards", "/api/v1/cards/{id}", "/api/v1/cards/{id}/steps", "/api/v1/cards/{id}/events" })
            Assert.Contains(path, paths.Select(p => p.Key));
        var commands = (JsonArray)paths["/api/v1/cards/{id}/commands"]!["post"]!["requestBody"]!["content"]!["application/json"]!["schema"]!
            ["oneOf"]!;
        Assert.Equal(CommandBook.All.Select(c => c.Name), commands.Select(c => c!["title"]!.GetValue<string>()));
        foreach (var (declared, said) in CommandBook.All.Zip(commands))
        {
            IEnumerable<string> proof = declared.WantsPin ? ["who", "pin"] : [];
            Assert.Equal([.. declared.Fields.Select(f => f.Name), "command", "say", .. proof],
                said!["properties"]!.AsObject().Select(p => p.Key));
            Assert.All(said["properties"]!.AsObject(),
                p => Assert.False(string.IsNullOrEmpty(p.Value!["description"]!.GetValue<string>())));
        }
        var reading = commands.First(c => c!["title"]!.GetValue<string>() == "reading")!;
        Assert.Contains("lbf·ft", reading["properties"]!["torque"]!["description"]!.GetValue<string>());
        Assert.Equal(["step", "torque", "command", "say"], reading["required"]!.AsArray().Select(r => r!.GetValue<string>()));
    }

    [Fact]
    public async Task The_stream_of_changes_begins_with_where_the_card_stands()
    {
        var stands = (await _browser.Api(HttpMethod.Get, HalfDone))["seq"]!.GetValue<int>();
        Assert.Equal($"{stands}", await _browser.FirstMessage(HalfDone + "/changes"));
        Assert.Equal("", await _browser.FirstMessage("/api/v1/cards/5/changes"));
    }
}
