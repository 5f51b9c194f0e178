using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Storage;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>
/// Whatever way something comes in, the same judgement stands there: each command by the page, by the API, out of what a screen had kept,
/// and on the way ahead, each at a workshop of its own that begins as the others do.
/// </summary>
public sealed class EveryWayTests : IAsyncLifetime
{
    private const int Card = 1058;
    private const int Seed = 20261130;

    private readonly List<Way> _ways = [];

    public async ValueTask InitializeAsync()
    {
        foreach (var name in new[] { "page", "API", "kept" })
            _ways.Add(new(name, await WorkshopHost.Demo()));
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var way in _ways)
            await way.Host.DisposeAsync();
    }

    private sealed class Way(string name, WorkshopHost host)
    {
        private readonly Dictionary<string, (Browser Browser, string Token)> _people = [];

        internal string Name => name;
        internal WorkshopHost Host => host;
        internal JobCard Now => host.Services.GetRequiredService<CardStore>().Find(Card)!;

        internal string History => string.Join('\n', Now.History.Select(h => $"{h.Seq} {h.By.Id} {CardJson.Write(h.Event with
        {
            Came = null,
        })}"));

        private async Task<(Browser Browser, string Token)> As(string person)
        {
            if (_people.TryGetValue(person, out var known))
                return known;
            var browser = await host.SignedIn(person);
            return _people[person] = (browser, await browser.Token());
        }

        internal async Task<HttpStatusCode> Give(string person, string command, IReadOnlyList<(string Name, string Value)> fields)
        {
            var (browser, token) = await As(person);
            var id = Guid.CreateVersion7().ToString();
            if (name == "API")
            {
                var body = new JsonObject { ["command"] = id, ["say"] = command };
                // A field of a form that is left empty is one that nobody said anything in.
                foreach (var (field, value) in fields.Where(f => f.Value.Length > 0))
                    body[field] = CommandBook.Find(command)!.Fields.FirstOrDefault(f => f.Name == field)?.Shape switch
                    {
                        FieldShape.Yes => JsonValue.Create(value == "yes"),
                        FieldShape.Whole or FieldShape.Place when int.TryParse(value, out var number) => JsonValue.Create(number),
                        FieldShape.Amounts => new JsonArray([.. value.Split('+', ';').Where(v => !string.IsNullOrWhiteSpace(v))
                            .Select(v => JsonValue.Create(v))]),
                        _ => JsonValue.Create(value),
                    };
                await browser.Api(HttpMethod.Post, $"/api/v1/cards/{Card}/commands", body, token);
                return browser.Status;
            }
            var form = new List<KeyValuePair<string, string>>(fields.Select(f => KeyValuePair.Create(f.Name, f.Value)))
            {
                new("command", id),
            };
            var place = fields.All(f => f.Name != "pin") ? "lift" : command == "amend" ? "record" : "handover";
            if (name == "kept")
                form.Add(new("kept", "0"));
            var request = new HttpRequestMessage(HttpMethod.Post, new Uri($"http://localhost/{place}/{Card}?handler={command}"))
            {
                Content = new FormUrlEncodedContent(form),
            };
            request.Headers.Add("X-Antiforgery", token);
            return await browser.Send(request);
        }

        internal async Task<HttpStatusCode> Ahead(string person, string command, IReadOnlyList<(string Name, string Value)> fields)
        {
            var (browser, token) = await As(person);
            var move = QueryHelpers.AddQueryString("", fields.Select(f => KeyValuePair.Create(f.Name, (string?)f.Value))
                .Append(new("handler", command))).TrimStart('?');
            var request = new HttpRequestMessage(HttpMethod.Post, new Uri($"http://localhost/lift/{Card}?handler=ahead"))
            {
                Content = new FormUrlEncodedContent([new("moves", JsonSerializer.Serialize(new[] { move })),
                    new("command", Guid.NewGuid().ToString())]),
            };
            request.Headers.Add("X-Antiforgery", token);
            return await browser.Send(request);
        }
    }

    // Something to say in every field, some of it right.
    private static List<(string Name, string Value)> Said(CommandDeclaration command, JobCard card, Random chance)
    {
        var next = card.Next!;
        List<(string, string)> said = [];
        foreach (var field in command.Fields.Where(f => f.Shape != FieldShape.Entries && (f.IsNeeded || chance.Next(2) == 0)))
            said.Add((field.Name, field.Name switch
            {
                "step" => chance.Next(4) > 0 ? next.Id.Text : card.Steps[chance.Next(card.Steps.Count)].Id.Text,
                "of" => $"{chance.Next(1, card.History.Count + 2)}",
                _ when field.Shape == FieldShape.Yes => chance.Next(2) == 0 ? "yes" : "",
                _ when field.Words.Count > 0 && chance.Next(4) > 0 => field.Shape switch
                {
                    FieldShape.Choice => field.Words[chance.Next(field.Words.Count)],
                    _ => $"{chance.Next(1, 60)} {field.Words[chance.Next(field.Words.Count)]}",
                },
                _ => new[] { "yes", "1", "25", "4 L", "Seen at the rim", "", "2026-03-10", next.What.Text }[chance.Next(8)],
            }));
        return said;
    }

    private static IEnumerable<CommandDeclaration> Commands => CommandBook.All.Where(c => !c.WantsPin);

    [Fact]
    public async Task Each_command_is_judged_the_same_by_whatever_way_it_comes()
    {
        var chance = new Random(Seed);
        var (accepted, refused) = (new HashSet<string>(), new HashSet<string>());
        for (var state = 0; state < 7 && _ways[0].Now is { Next: { } next, Ended: null } card; state++)
        {
            foreach (var command in Commands.Where(c => c.Name is not "void"))
            {
                if (_ways[0].Now is not { Next: not null, Ended: null } now)
                    return;
                var said = Said(command, now, chance);
                // Whether it would be taken is asked first, where nothing is written.
                var ahead = await _ways[0].Ahead("iona", command.Name, said);
                List<HttpStatusCode> answers = [];
                foreach (var way in _ways)
                    answers.Add(await way.Give("iona", command.Name, said));
                var told = $"{command.Name} {string.Join(' ', said)}: {string.Join(", ", answers)}; ahead {ahead}; seed {Seed}";
                Assert.True(answers.Distinct().Count() == 1, told);
                Assert.True(answers[0] is HttpStatusCode.OK or HttpStatusCode.Conflict or HttpStatusCode.UnprocessableEntity, told);
                var nothingLeft = _ways[0].Now is { Next: null };
                Assert.True(nothingLeft || ahead == (answers[0] == HttpStatusCode.OK ? HttpStatusCode.OK : HttpStatusCode.Conflict), told);
                (answers[0] == HttpStatusCode.OK ? accepted : refused).Add(command.Name);
                Assert.All(_ways.Skip(1), w => Assert.Equal(_ways[0].History, w.History));
            }
            // On to another state, by the usual press.
            var usual = UsualPress.Of(_ways[0].Now, _ways[0].Now.Next!);
            foreach (var way in _ways)
                await way.Host.Services.GetRequiredService<CardStore>().Handle(Card, Guid.CreateVersion7(), usual,
                    new("iona", "Iona R.", Role.Technician), way.Host.Clock.GetUtcNow());
        }
        Assert.True(accepted.Count > 3 && refused.Count > 50, $"{accepted.Count} accepted, {refused.Count} refused");
    }

    [Theory]
    [InlineData("desk")]
    [InlineData("effie")]
    public async Task Whose_role_it_is_not_is_refused_as_such_by_whatever_way(string person)
    {
        var chance = new Random(Seed);
        var before = _ways.ConvertAll(w => w.History);
        var forRole = 0;
        foreach (var command in Commands.Where(c => c.Name is not "partIsHere"))
        {
            var said = Said(command, _ways[0].Now, chance);
            Assert.Equal(HttpStatusCode.Conflict, await _ways[0].Ahead(person, command.Name, said));
            List<HttpStatusCode> answers = [];
            foreach (var way in _ways)
                answers.Add(await way.Give(person, command.Name, said));
            Assert.True(answers.Distinct().Count() == 1, $"{command.Name}: {string.Join(", ", answers)}");
            // What could not even be read is said to be so first.
            Assert.True(answers[0] is HttpStatusCode.Forbidden or HttpStatusCode.UnprocessableEntity, $"{command.Name}: {answers[0]}");
            forRole += answers[0] == HttpStatusCode.Forbidden ? 1 : 0;
        }
        Assert.True(forRole > 15, $"{forRole}");
        Assert.Equal(before, _ways.ConvertAll(w => w.History));
    }

    [Fact]
    public async Task What_wants_a_PIN_is_said_by_nobody_without_one()
    {
        var before = _ways.ConvertAll(w => w.History);
        foreach (var command in CommandBook.All.Where(c => c.WantsPin))
            foreach (var way in _ways)
                Assert.True(await way.Give("iona", command.Name, []) is HttpStatusCode.UnprocessableEntity or HttpStatusCode.Conflict,
                    $"{way.Name}: {command.Name}");
        Assert.Equal(before, _ways.ConvertAll(w => w.History));
    }

    [Fact]
    public async Task What_is_said_with_a_PIN_is_judged_the_same_by_page_and_by_API()
    {
        var chance = new Random(Seed);
        var (page, api) = (_ways[0], _ways[1]);
        for (var round = 0; round < 4; round++)
            foreach (var command in CommandBook.All.Where(c => c.WantsPin && c.Name is not "void"))
            {
                if (page.Now is not { Next: not null, Ended: null } now)
                    continue;
                List<(string Name, string Value)> said = [.. Said(command, now, chance), ("who", "una"), ("pin", "2468")];
                var (a, b) = (await page.Give("iona", command.Name, said), await api.Give("iona", command.Name, said));
                var told = $"{command.Name} {string.Join(' ', said)}: {a}, {b}; seed {Seed}";
                Assert.True(a == b, told);
                Assert.True(a is HttpStatusCode.OK or HttpStatusCode.Conflict or HttpStatusCode.UnprocessableEntity, told);
                Assert.Equal(page.History, api.History);
            }
        foreach (var way in (Way[])[page, api])
            Assert.Equal(HttpStatusCode.OK, await way.Give("iona", "saw", [("step", page.Now.Next!.Id.Text), ("grade", "stop"),
                ("text", "The hose is chafed through")]));
        List<(string Name, string Value)> decided = [("of", $"{page.Now.History.Count}"), ("mended", "yes"), ("words", "Renewed"),
            ("who", "una"), ("pin", "2468")];
        foreach (var pin in new[] { "9999", "2468" })
        {
            decided[^1] = ("pin", pin);
            var (a, b) = (await page.Give("iona", "decide", decided), await api.Give("iona", "decide", decided));
            Assert.Equal(a, b);
            Assert.Equal(pin == "2468", a == HttpStatusCode.OK);
        }
        Assert.Equal(page.History, api.History);
    }
}
