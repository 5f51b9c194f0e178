using System.Net;
using System.Text.Json.Nodes;

namespace Anakyklos.Web.Tests;

public sealed class ApiTests : IAsyncLifetime
{
    private const string HalfDone = "/api/v1/cards/1007";
    private WorkshopHost _host = null!;
    private Browser _browser = null!;
    private string _token = "";

    public async Task InitializeAsync()
    {
        _host = await WorkshopHost.Demo();
        _browser = await _host.SignedIn();
        _token = await _browser.Token();
    }

    public async Task DisposeAsync() => await _host.DisposeAsync();

    private Task<JsonNode> Post(string path, object body) => _browser.Api(HttpMethod.Post, HalfDone + path, body, _token);

    [Fact]
    public async Task A_step_is_confirmed_once_however_often_it_is_sent()
    {
        var command = Guid.NewGuid();
        var first = await Post("/steps/filter-cap-off/done", new { command });
        var second = await Post("/steps/filter-cap-off/done", new { command });
        Assert.Equal((false, true), (first["repeated"]!.GetValue<bool>(), second["repeated"]!.GetValue<bool>()));
        Assert.Equal(first["seq"]!.GetValue<int>(), second["seq"]!.GetValue<int>());
        Assert.Equal("compare-filter", second["next"]!.GetValue<string>());
        await Post("/steps/filter-cap-off/done", new { command = Guid.NewGuid() });
        Assert.Equal(HttpStatusCode.Conflict, _browser.Status);
    }

    [Fact]
    public async Task A_reading_in_the_wrong_unit_comes_back_as_a_question()
    {
        foreach (var step in new[] { "filter-cap-off", "compare-filter", "fit-ring", "fit-filter" })
            await Post($"/steps/{step}/done", new { command = Guid.NewGuid() });
        var asked = await Post("/steps/tighten-filter-cap/readings", new { command = Guid.NewGuid(), torque = "18.5 N·m" });
        Assert.Equal(HttpStatusCode.Conflict, _browser.Status);
        Assert.Equal("18.5 lbf·ft", asked["question"]!["perhapsMeant"]!.GetValue<string>());
        await Post("/steps/tighten-filter-cap/readings", new { command = Guid.NewGuid(), torque = "18.5 ft-lb" });
        Assert.Equal(HttpStatusCode.OK, _browser.Status);
        var events = (JsonArray)await _browser.Api(HttpMethod.Get, HalfDone + "/events");
        Assert.Equal("18.5 lbf·ft", events[^1]!["event"]!["reading"]!.GetValue<string>());
    }

    [Theory]
    [InlineData("/steps/drain/done", "{ broken", HttpStatusCode.BadRequest)]
    [InlineData("/steps/drain/done", "{}", HttpStatusCode.BadRequest)]
    [InlineData("/steps/tighten-drain-plug/readings", "{\"command\":\"7c0b4df2-8a9e-4b0e-9d6e-111111111111\",\"torque\":\"38\"}",
        HttpStatusCode.BadRequest)]
    [InlineData("/steps/first-pour/pours", "{\"command\":\"7c0b4df2-8a9e-4b0e-9d6e-111111111112\",\"amount\":\"5 L\"}",
        HttpStatusCode.Conflict)]
    [InlineData("/steps/none/done", "{\"command\":\"7c0b4df2-8a9e-4b0e-9d6e-111111111113\"}", HttpStatusCode.Conflict)]
    [InlineData("/steps/drain/findings", "{\"command\":\"7c0b4df2-8a9e-4b0e-9d6e-111111111114\",\"grade\":\"sound\",\"text\":\"\"}",
        HttpStatusCode.UnprocessableEntity)]
    [InlineData("/steps/drain/findings", "{\"command\":\"7c0b4df2-8a9e-4b0e-9d6e-111111111115\",\"grade\":\"awful\",\"text\":\"x\"}",
        HttpStatusCode.BadRequest)]
    [InlineData("/signature", "{\"command\":\"7c0b4df2-8a9e-4b0e-9d6e-111111111116\"}", HttpStatusCode.Conflict)]
    public async Task What_is_wrong_is_answered_with_its_status_and_writes_nothing(string path, string body, HttpStatusCode status)
    {
        var before = (await _browser.Api(HttpMethod.Get, HalfDone))["seq"]!.GetValue<int>();
        await Post(path, body);
        Assert.Equal(status, _browser.Status);
        Assert.Equal(before, (await _browser.Api(HttpMethod.Get, HalfDone))["seq"]!.GetValue<int>());
    }

    [Fact]
    public async Task Posts_need_the_token_and_everything_needs_a_person()
    {
        await _browser.Api(HttpMethod.Post, HalfDone + "/steps/filter-cap-off/done", new { command = Guid.NewGuid() });
        Assert.Equal(HttpStatusCode.BadRequest, _browser.Status);
        var stranger = _host.NewBrowser();
        await stranger.Api(HttpMethod.Get, "/api/v1/cards");
        Assert.Equal(HttpStatusCode.Unauthorized, stranger.Status);
        await _browser.Api(HttpMethod.Get, "/api/v1/cards/5");
        Assert.Equal(HttpStatusCode.NotFound, _browser.Status);
    }

    [Fact]
    public async Task The_description_names_every_endpoint()
    {
        var document = await _host.NewBrowser().Api(HttpMethod.Get, "/openapi/v1.json");
        var paths = document["paths"]!.AsObject().Select(p => p.Key).ToList();
        foreach (var path in new[] { "/api/v1/cards", "/api/v1/cards/{id}", "/api/v1/cards/{id}/steps",
            "/api/v1/cards/{id}/steps/{step}/readings", "/api/v1/cards/{id}/signature" })
            Assert.Contains(path, paths);
    }

    [Fact]
    public async Task The_stream_of_changes_begins_with_where_the_card_stands()
    {
        var stands = (await _browser.Api(HttpMethod.Get, HalfDone))["seq"]!.GetValue<int>();
        Assert.Equal($"{stands}", await _browser.FirstMessage(HalfDone + "/changes"));
        Assert.Equal("", await _browser.FirstMessage("/api/v1/cards/5/changes"));
    }
}
