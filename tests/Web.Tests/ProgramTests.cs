using System.Net;
using System.Net.Http.Json;
using System.Reflection;
using System.Text.Json.Nodes;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Api;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>Programs come in with tokens, do what these are for and no more, and press what pages press.</summary>
public sealed class ProgramTests() : InTheDemo("una")
{
    private static readonly Person Una = new("una", "Una B.", Role.Lead);

    private async Task<HttpClient> Program(string person, params string[] scopes)
    {
        var (secret, wrong) = await Host.Services.GetRequiredService<TokenDesk>().Make("A program", person, scopes, Una);
        Assert.Empty(wrong);
        return Host.Program(secret!);
    }

    private static async Task<(HttpStatusCode Status, JsonNode Answer)> Press(HttpClient program, string path, object fields,
        Guid? id = null)
    {
        var body = System.Text.Json.JsonSerializer.SerializeToNode(fields)!.AsObject();
        body["command"] = id ?? Guid.NewGuid();
        var answer = await program.PostAsJsonAsync($"/api/v1/{path}", body);
        var text = await answer.Content.ReadAsStringAsync();
        return (answer.StatusCode, text.Length > 0 ? JsonNode.Parse(text)! : JsonValue.Create(""));
    }

    private int OnShelf => Host.Services.GetRequiredService<ShelfStore>().Read().Parts.Single(p => p.Number == "LA-0912-R").OnShelf;

    [Fact]
    public void Every_press_of_every_page_is_made_by_programs_or_is_said_to_be_for_people_only()
    {
        string[] folders = ["/StandIns/", "/Practice/"];
        var presses = typeof(PageActions).Assembly.GetTypes().Where(t => t.IsSubclassOf(typeof(PageModel)) && !t.IsAbstract)
            .SelectMany(t => t.GetMethods(BindingFlags.Public | BindingFlags.Instance).Where(m => m.Name.StartsWith("OnPost",
                StringComparison.Ordinal)).Select(m => new PageAction(t, m.Name["OnPost".Length..].Replace("Async", ""), Scope.Read, "")));
        var known = PageActions.All.Select(a => (a.Page, a.Handler)).ToHashSet();
        var forgotten = presses.Where(p => !folders.Any(f => p.View.StartsWith(f, StringComparison.Ordinal))
            && !known.Contains((p.Page, p.Handler)) && !PageActions.OnlyPeople.ContainsKey(p.View)
            && !PageActions.OnlyPeople.ContainsKey($"{p.View} {p.Handler}")).Select(p => $"{p.View} {p.Handler}");
        Assert.Empty(forgotten);
        // What is said to be for people only is there, and is not made by programs all the same.
        Assert.All(PageActions.OnlyPeople.Keys, k => Assert.Contains(presses, p => p.View == k || $"{p.View} {p.Handler}" == k));
        Assert.DoesNotContain(PageActions.All, a => PageActions.OnlyPeople.ContainsKey(a.View)
            || PageActions.OnlyPeople.ContainsKey($"{a.View} {a.Handler}"));
    }

    [Fact]
    public async Task The_description_has_every_press_with_its_fields_and_words_for_each()
    {
        var paths = (await Host.NewBrowser().Api(HttpMethod.Get, "/openapi/v1.json"))["paths"]!.AsObject();
        var operations = paths.SelectMany(p => p.Value!.AsObject().Where(o => o.Key is "get" or "post")
            .Select(o => (Path: p.Key, Operation: o.Value!))).ToList();
        var names = operations.Select(o => o.Operation["operationId"]!.GetValue<string>()).ToList();
        Assert.Equal(names.Count, names.Distinct().Count());
        Assert.All(PageActions.All, a => Assert.True(names.Contains(a.Name) || names.Contains(a.Name + "New"), a.Name));
        foreach (var (path, operation) in operations.Where(o => PageActions.All.Any(a => o.Operation["operationId"]!.GetValue<string>()
            is var id && (id == a.Name || id == a.Name + "New"))))
        {
            var fields = operation["requestBody"]!["content"]!["application/json"]!["schema"]!["properties"]!.AsObject();
            Assert.All(fields, f => Assert.True(f.Value!["description"]!.GetValue<string>().Length > 3, $"{path} {f.Key}"));
            // A part of the address is no field of the body as well, but where something gets another one.
            Assert.DoesNotContain(fields, f => path.Contains($"{{{f.Key}}}") && f.Key != "plate");
        }
    }

    [Fact]
    public async Task A_press_is_made_once_however_often_it_is_sent_and_tells_what_the_page_says()
    {
        var (program, before, id) = (await Program("effie", "stores"), OnShelf, Guid.NewGuid());
        var (status, first) = await Press(program, "stores/book-part", new { number = "LA-0912-R", count = "3" }, id);
        Assert.Equal(HttpStatusCode.OK, status);
        Assert.Contains("LA-0912-R", first["said"]!.GetValue<string>());
        Assert.False(first["repeated"]!.GetValue<bool>());
        var (again, second) = await Press(program, "stores/book-part", new { number = "LA-0912-R", count = "3" }, id);
        Assert.Equal((HttpStatusCode.OK, true), (again, second["repeated"]!.GetValue<bool>()));
        Assert.Equal(before + 3, OnShelf);
    }

    [Theory]
    [InlineData("""{ "number": "LA-0912-R", "count": "three", "command": "ID" }""", 422, "count")]
    [InlineData("""{ "number": "LA-0912-R", "count": ["3"], "command": "ID" }""", 422, "count")]
    [InlineData("""{ "nomber": "LA-0912-R", "count": "3", "command": "ID" }""", 422, "nomber")]
    [InlineData("""{ "number": "LA-0912-R", "count": "3" }""", 422, "command")]
    [InlineData("""{ "number": "LA-0912-R", "count": "3", "command": "00000000-0000-0000-0000-000000000000" }""", 422, "command")]
    [InlineData("""{ "number": "NOBODY", "count": "3", "command": "ID" }""", 422, "number")]
    [InlineData("""[1]""", 422, null)]
    [InlineData("""{ "number": """, 422, null)]
    public async Task What_is_sent_wrong_is_told_with_its_field_and_changes_nothing(string body, int status, string? field)
    {
        var (program, before) = (await Program("effie", "stores"), OnShelf);
        var answer = await program.PostAsync("/api/v1/stores/book-part", new StringContent(body.Replace("ID", $"{Guid.NewGuid()}"),
            System.Text.Encoding.UTF8, "application/json"));
        Assert.Equal(status, (int)answer.StatusCode);
        var reason = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["reasons"]![0]!;
        Assert.Equal(field, reason["field"]?.GetValue<string>());
        Assert.Equal(before, OnShelf);
    }

    [Fact]
    public async Task A_form_is_no_press_of_a_program_and_its_address_is_read_by_nobody()
    {
        var program = await Program("effie", "stores");
        var form = new FormUrlEncodedContent([new("number", "LA-0912-R"), new("count", "3"), new("form-id", $"{Guid.NewGuid()}")]);
        Assert.Equal(HttpStatusCode.UnsupportedMediaType, (await program.PostAsync("/api/v1/stores/book-part", form)).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await program.GetAsync("/api/v1/stores/book-part")).StatusCode);
    }

    [Fact]
    public async Task A_token_opens_nothing_that_nobody_put_into_a_scope()
    {
        var program = await Program("una", "read", "cards", "stores", "workshop");
        var closed = Host.Endpoints.OfType<RouteEndpoint>().Where(e => e.Metadata.GetMetadata<ForPrograms>() is null
            && e.RoutePattern.Parameters.Count == 0 && e.Metadata.GetMetadata<IHttpMethodMetadata>()?.HttpMethods.Contains("POST") != true)
            .Select(e => $"/{e.RoutePattern.RawText!.TrimStart('/')}").Distinct().ToList();
        Assert.True(closed.Count > 15);
        foreach (var address in closed)
            Assert.Equal((address, HttpStatusCode.Forbidden), (address, (await program.GetAsync(address)).StatusCode));
    }

    [Fact]
    public async Task Each_press_wants_its_own_scope()
    {
        foreach (var scope in Scopes.All)
        {
            var program = await Program("una", scope.Word());
            foreach (var action in PageActions.All.Where(a => a.Scope != scope).DistinctBy(a => a.Scope))
            {
                var path = Host.Endpoints.OfType<RouteEndpoint>().First(e => e.Metadata.GetMetadata<PageAction>() == action).RoutePattern;
                var (status, answer) = await Press(program, path.RawText!["/api/v1/".Length..].Replace(":long", "").Replace(":int", "")
                    .Replace("{id}", "1").Replace("{n}", "1"), new { });
                Assert.Equal((action.Name, HttpStatusCode.Forbidden), (action.Name, status));
                Assert.Contains(action.Scope.Word(), answer["detail"]!.GetValue<string>());
            }
        }
    }

    [Fact]
    public async Task It_may_no_more_than_its_person_may()
    {
        var desk = await Program("desk", "cards", "stores", "workshop");
        Assert.Equal(HttpStatusCode.Forbidden, (await Press(desk, "stores/book-part", new { number = "LA-0912-R", count = "3" })).Status);
        Assert.Equal(HttpStatusCode.Forbidden, (await Press(desk, "intake", new { plate = "HD-04" })).Status);
        var iona = await Program("iona", "workshop");
        Assert.Equal(HttpStatusCode.Forbidden, (await Press(iona, "workshop/weather", new { coldest = "-5", hottest = "30" })).Status);
        var una = await Program("una", "workshop");
        Assert.Equal(HttpStatusCode.OK, (await Press(una, "workshop/weather", new { coldest = "-5", hottest = "30" })).Status);
        Assert.Equal(-5, Host.Services.GetRequiredService<SettingStore>().Read().Coldest);
    }

    [Fact]
    public async Task It_is_good_for_nothing_once_it_is_ended_or_its_person_is_gone()
    {
        var (effie, tavish) = (await Program("effie", "read"), await Program("tavish", "read"));
        Assert.Equal(HttpStatusCode.OK, (await effie.GetAsync("/api/v1/vehicles")).StatusCode);
        var desk = Host.Services.GetRequiredService<TokenDesk>();
        var mine = desk.All().Single(t => t.Person == "effie");
        Assert.Empty(await desk.End(mine.Id, Una));
        Assert.Single(await desk.End(mine.Id, Una));
        Assert.Equal(HttpStatusCode.Unauthorized, (await effie.GetAsync("/api/v1/vehicles")).StatusCode);
        await Host.Services.GetRequiredService<PeopleDesk>().LetGo("tavish");
        Assert.Equal(HttpStatusCode.Unauthorized, (await tavish.GetAsync("/api/v1/vehicles")).StatusCode);
        foreach (var secret in new[] { "", "anakyklos_", "anakyklos_" + new string('0', 40), "x" })
            Assert.Equal(HttpStatusCode.Unauthorized, (await Host.Program(secret).GetAsync("/api/v1/vehicles")).StatusCode);
    }

    [Fact]
    public async Task A_cookie_beside_a_token_adds_nothing_and_a_page_still_proves_itself()
    {
        // The lead's own browser, with a program's token in its request.
        var (secret, _) = await Host.Services.GetRequiredService<TokenDesk>().Make("Both", "effie", ["read"], Una);
        var request = new HttpRequestMessage(HttpMethod.Get, new Uri(Me.Address, "/people"));
        request.Headers.Authorization = new("Bearer", secret);
        await Me.Raw(request);
        Assert.Equal(HttpStatusCode.Forbidden, Me.Status);
        // The browser alone, without the antiforgery token: another site could have sent this.
        await Me.Api(HttpMethod.Post, "/api/v1/workshop/weather", new { coldest = "1", hottest = "2", command = Guid.NewGuid() });
        Assert.Equal(HttpStatusCode.BadRequest, Me.Status);
        await Me.Api(HttpMethod.Post, "/api/v1/workshop/weather", new { coldest = "1", hottest = "2", command = Guid.NewGuid() },
            await Me.Token());
        Assert.Equal(HttpStatusCode.OK, Me.Status);
    }

    [Fact]
    public async Task The_lead_makes_and_ends_them_on_a_page_where_the_secret_is_seen_once()
    {
        await Me.Get("/tokens");
        await Me.Submit("form[action*='Make']", ("token", ""), ("person", "iona"), ("scope", "all"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, Me.Status);
        Assert.NotNull(Me.Page.QuerySelector("#problem-token"));
        Assert.NotNull(Me.Page.QuerySelector("#problem-scope"));
        await Me.Submit("form[action*='Make']", ("token", "Fleet office"), ("person", "iona"), ("scope", "cards"));
        var secret = Me.Page.QuerySelector(".token-secret")!.TextContent;
        Assert.Equal(HttpStatusCode.OK, (await Host.Program(secret).GetAsync("/api/v1/due")).StatusCode);
        await Me.Get("/tokens");
        Assert.DoesNotContain(secret, Me.Text);
        Assert.Contains("Fleet office", Me.Text);
        Assert.DoesNotContain(secret, System.Text.Encoding.Latin1.GetString(await ReadShared(Host.File)));
        await Me.Submit("form[action*='End']");
        Assert.Equal(HttpStatusCode.Unauthorized, (await Host.Program(secret).GetAsync("/api/v1/due")).StatusCode);
        await Me.Get("/trail");
        Assert.Contains("“Fleet office” was made for Iona R.: read cards", Me.Text);
        Assert.Contains("“Fleet office” was ended", Me.Text);
        var iona = await Host.SignedIn();
        Assert.Equal(HttpStatusCode.Forbidden, await iona.Get("/tokens"));
    }

    [Fact]
    public async Task What_happened_is_told_in_its_order_without_secrets()
    {
        var (program, reader) = (await Program("effie", "stores"), await Program("desk", "read"));
        var since = 0L;
        var heard = new List<JsonNode>();
        for (; ; )
        {
            var page = JsonNode.Parse(await reader.GetStringAsync($"/api/v1/changes?since={since}&most=700"))!;
            heard.AddRange(page["changes"]!.AsArray()!);
            if (page["next"]!.GetValue<long>() == since)
                break;
            since = page["next"]!.GetValue<long>();
        }
        var ids = heard.Select(h => h["id"]!.GetValue<long>()).ToList();
        Assert.Equal(ids.Distinct().Order(), ids);
        Assert.Contains(heard, h => h["what"]!.GetValue<string>() == "event" && h["now"]!["seq"]!.GetValue<int>() > 1);
        Assert.All(heard, h => Assert.Contains(h["what"]!.GetValue<string>(), ChangeStore.Told));
        Assert.DoesNotContain("hash\":\"AQ", string.Concat(heard.Select(h => h.ToJsonString())));
        Assert.DoesNotContain(heard, h => h["now"]?["pin_hash"] is not null || h["now"]?["key_hash"] is not null);
        await Press(program, "stores/book-part", new { number = "LA-0912-R", count = "2" });
        var next = JsonNode.Parse(await reader.GetStringAsync($"/api/v1/changes?since={since}"))!["changes"]!.AsArray();
        Assert.Equal(["movement", "part"], next.Select(c => c!["what"]!.GetValue<string>()).Order());
        Assert.All(next, c => Assert.Equal("effie", c!["by"]!.GetValue<string>()));
    }

    [Fact]
    public async Task The_stream_begins_after_what_was_heard_last()
    {
        var (store, program) = (Host.Services.GetRequiredService<ChangeStore>(), await Program("desk", "read"));
        var until = store.Since(0, ChangeStore.Most).Changes[^3].Id;
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/v1/changes/stream?since=0");
        request.Headers.Add("Last-Event-ID", $"{until}");
        using var answer = await program.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        using var lines = new StreamReader(await answer.Content.ReadAsStreamAsync());
        string? line;
        do
            line = await lines.ReadLineAsync();
        while (line?.StartsWith("id:", StringComparison.Ordinal) == false);
        Assert.Equal($"{store.Since(until, 10).Changes[0].Id}", line!["id:".Length..].Trim());
    }

    private static async Task<byte[]> ReadShared(string file)
    {
        await using var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
        using var memory = new MemoryStream();
        await stream.CopyToAsync(memory);
        return memory.ToArray();
    }
}
