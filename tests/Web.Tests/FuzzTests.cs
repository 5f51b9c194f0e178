using System.Net;
using System.Text;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>
/// Whatever a client can send is answered, and never by a fault of the program: every route and every form of every page, with values that
/// nobody thought of. 2,000 in the usual run; with ANAKYKLOS_FUZZ=N so many, from the number in ANAKYKLOS_FUZZ_FROM on.
/// </summary>
public sealed class FuzzTests() : InTheDemo("una")
{
    private static readonly int Count = Number("ANAKYKLOS_FUZZ", 2_000), From = Number("ANAKYKLOS_FUZZ_FROM", 20261129);

    private static readonly string[] Nasty =
    [
        "", " ", "0", "-1", "1", "99", "1e400", "79228162514264337593543950335", "-79228162514264337593543950336", "1e28 L",
        "9999999999 N·m", "0.00000000000000000000000001 km", "١٢٣", "1,5", "1.5.5", "NaN", "Infinity", "true", "null", "undefined", "[]",
        "{}", "{\"a\":1}", "\0", "\u202e7-DH", "\ud83d\ude97", "a\u0300\u0300\u0300", "' or 1=1 --", "\"; drop table card; --",
        "<script>alert(1)</script>", "../../etc/passwd", "%00", "%", "\r\nX: y", "HD-07", "hd-07", "iona", "una", "engine-oil",
        "engine-oil-and-filter", "filter-cap-off", "label", "Bay 1", "Bay 9", "2026-02-30", "9999-12-31", "0001-01-01", "2026-03-09",
        "24:00", "08:00-07:00", "Mo-Fr 08:00-16:00", "148300 km", "148300", "38 Nm", "38 lbf", "5.5 L", "-5 L", "1 banana",
        "00000000-0000-0000-0000-000000000000", "0190a0a0-0000-7000-8000-000000000001", "2147483648", "-2147483649",
        "9223372036854775807", "9223372036854775808", "Lead", "lead", "1058", "1001", "999999", new string('x', 300), new string('9', 60),
        new string('é', 5000),
    ];

    private static readonly string[] Keys = ["1058", "1048", "999999", "0", "-1", "9223372036854775808", "HD-07", "hd-99", "bay-1", "Bay 1",
        "tarn-courier-20d", "1048-1P", "x", "%2e%2e", "é", "a b"];

    private readonly Random _chance = new(From);

    [Fact]
    public async Task Nothing_that_can_be_sent_is_answered_by_a_fault_of_the_program()
    {
        var routes = Host.Services.GetServices<EndpointDataSource>().SelectMany(s => s.Endpoints).OfType<RouteEndpoint>()
            .Select(e => "/" + e.RoutePattern.RawText!.TrimStart('/')).Where(r => !r.Contains('*') && !r.Contains("changes")).Distinct()
            .Order(StringComparer.Ordinal).ToList();
        var people = new List<Browser> { Me, await Host.SignedIn("iona"), await Host.SignedIn("effie"), await Host.SignedIn("desk"),
            Host.NewBrowser() };
        var tokens = new List<string>();
        foreach (var one in people)
            tokens.Add(one == people[^1] ? "" : (await one.Api(HttpMethod.Get, "/api/v1/session"))["antiforgery"]!.ToString());
        var (faults, statuses, forms) = (new List<string>(), new SortedDictionary<int, int>(),
            new List<(Uri At, IHtmlFormElement Form)>());
        for (var i = 0; i < Count; i++)
        {
            var who = _chance.Next(people.Count);
            var (browser, what) = (people[who], "");
            try
            {
                if (forms.Count > 0 && _chance.Next(3) > 0)
                    what = await Form(browser, forms[_chance.Next(forms.Count)]);
                else
                {
                    what = await Route(browser, tokens[who], routes[_chance.Next(routes.Count)]);
                    if (browser.Status == HttpStatusCode.OK && browser.Page is { } page && browser != people[^1])
                        forms.AddRange(page.QuerySelectorAll("form").OfType<IHtmlFormElement>().Where(f => f.Method == "post"
                            && !(f.GetAttribute("action") ?? "").Contains("out")).Take(6).Select(f => (browser.Address, f)));
                    if (forms.Count > 400)
                        forms.RemoveRange(0, 100);
                }
            }
            catch (Exception e) when (e is UriFormatException or FormatException or ArgumentException)
            {
                // The client itself does not send such a thing.
                continue;
            }
            catch (Exception e)
            {
                faults.Add($"{i}: {what}: {e.GetType().Name}: {e.Message}");
                continue;
            }
            var status = (int)browser.Status;
            statuses[status] = statuses.GetValueOrDefault(status) + 1;
            if (status >= 500)
                faults.Add($"{i}: {status} {what}\n{(Host.Faults.TryDequeue(out var said) ? said[..Math.Min(1500, said.Length)] : "")}");
            Host.Faults.Clear();
        }
        TestContext.Current.SendDiagnosticMessage($"fuzz: {Count} tried from {From}, {faults.Count} faults; "
            + string.Join(", ", statuses.Select(s => $"{s.Key}: {s.Value}")));
        Assert.True(faults.Count == 0, $"{faults.Count} of {Count}, from {From}:\n{string.Join('\n', faults.Take(40))}");
        Assert.True(statuses.GetValueOrDefault(200) > Count / 20 && statuses.Keys.Count(s => s >= 400) > 3,
            string.Join(", ", statuses.Select(s => $"{s.Key}: {s.Value}")));
    }

    private async Task<string> Route(Browser browser, string token, string route)
    {
        var path = System.Text.RegularExpressions.Regex.Replace(route, @"\{[^}]*\}", _ => Keys[_chance.Next(Keys.Length)]);
        var query = _chance.Next(3) == 0 ? "?" + string.Join('&', Enumerable.Range(0, _chance.Next(1, 4)).Select(_ =>
            $"{Uri.EscapeDataString(Name())}={Uri.EscapeDataString(Value())}")) : "";
        HttpMethod[] rare = [HttpMethod.Put, HttpMethod.Delete, HttpMethod.Head];
        var method = _chance.Next(4) switch { 0 => HttpMethod.Post, 1 => rare[_chance.Next(3)], _ => HttpMethod.Get };
        var request = new HttpRequestMessage(method, new Uri(new Uri("http://localhost/"), path + query));
        if (method == HttpMethod.Post)
        {
            var body = _chance.Next(4) switch
            {
                0 => Value(),
                1 => $"{{\"command\":\"{Guid.NewGuid()}\",\"say\":\"{Say()}\",\"step\":{Json()},\"reading\":{Json()},\"words\":{Json()}}}",
                2 => $"{{\"{Name()}\":{Json()}}}",
                _ => new string('[', 200),
            };
            request.Content = new StringContent(body, Encoding.UTF8, One("application/json", "application/x-ndjson", "text/csv",
                "application/x-www-form-urlencoded"));
            if (_chance.Next(5) > 0 && token.Length > 0)
                request.Headers.Add("X-Antiforgery", token);
        }
        if (method == HttpMethod.Get)
            await browser.Send(request);
        else
            await browser.Raw(request);
        return $"{method} {path}{query} {(request.Content is null ? "" : await request.Content.ReadAsStringAsync())}";
    }

    private async Task<string> Form(Browser browser, (Uri At, IHtmlFormElement Form) shown)
    {
        var (page, form) = shown;
        var fields = new List<(string Name, string Value)>();
        foreach (var element in form.Elements)
        {
            var (name, value) = element switch
            {
                IHtmlInputElement i => (i.Name, i.Value),
                IHtmlSelectElement s => (s.Name, s.Value),
                IHtmlTextAreaElement t => (t.Name, t.Value),
                IHtmlButtonElement b => (b.Name, b.Value),
                _ => (null, null),
            };
            if (string.IsNullOrEmpty(name) || _chance.Next(12) == 0)
                continue;
            var own = name is "__RequestVerificationToken" or "form-id";
            fields.Add((name, name == "command" && _chance.Next(3) > 0 ? Guid.NewGuid().ToString()
                : !own && _chance.Next(2) == 0 ? Value() : value ?? ""));
        }
        if (_chance.Next(6) == 0)
            fields.Add((Name(), Value()));
        var address = form.GetAttribute("action") is { Length: > 0 } action ? action : "";
        if (_chance.Next(10) == 0)
            address = $"{address.Split('?')[0]}?handler={Uri.EscapeDataString(Value())}";
        var to = address.StartsWith('?') ? new Uri(page.GetLeftPart(UriPartial.Path) + address) : new Uri(page, address);
        await browser.Post(to.ToString(), [.. fields]);
        return $"POST {to} {string.Join('&', fields.Where(f => f.Name is not ['_', ..]).Select(f => $"{f.Name}={(f.Value.Length > 80
            ? f.Value[..80] : f.Value)}"))}";
    }

    private string Value() => Nasty[_chance.Next(Nasty.Length)];

    private string Json() => _chance.Next(4) == 0
        ? Nasty[_chance.Next(16)] is { Length: > 0 } raw && raw.All(char.IsAsciiDigit) ? raw : "[{}]"
        : System.Text.Json.JsonSerializer.Serialize(Value());

    private string Say() => One("done", "saw", "torque", "answered", "fitted", "poured", "sign", "drop", "later", "measured", "hologram");

    private string Name() => One("q", "plate", "since", "before", "page", "handler", "said", "job", "odometer", "at", "day", "step",
        "amount", "unit", "bay", "person", "returnUrl", "token", "take", "way", "shown", "");

    private string One(params ReadOnlySpan<string> of) => of[_chance.Next(of.Length)];

    private static int Number(string name, int usual) => int.TryParse(Environment.GetEnvironmentVariable(name), out var n) ? n : usual;
}
