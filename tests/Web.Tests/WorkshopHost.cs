using Anakyklos.Web.Serving;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Anakyklos.Desk;
using AngleSharp.Html.Parser;
using AngleSharp.Html.Dom;
using Anakyklos.Web.CommandLine;
using Anakyklos.Web.Demo;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Microsoft.Extensions.Time.Testing;

namespace Anakyklos.Web.Tests;

/// <summary>The whole application in memory on a real database file, with a clock that only the test moves.</summary>
public sealed class WorkshopHost : IAsyncDisposable
{
    /// <summary>What is said at HD-08 until its new filter is in, as the API takes it; the command is added by whoever sends it.</summary>
    public static IReadOnlyList<JsonObject> FilterGoesIn() =>
    [
        new() { ["say"] = "done", ["step"] = "filter-cap-off" },
        new() { ["say"] = "answered", ["step"] = "compare-filter", ["point"] = "filter", ["says"] = "same height, same ends, same hole" },
        new() { ["say"] = "fitted", ["step"] = "fit-ring", ["says"] = "out of the cap, in my hand" },
        new() { ["say"] = "done", ["step"] = "fit-filter" },
    ];

    private readonly string _home = Directory.CreateTempSubdirectory("anakyklos-web-").FullName;
    private readonly string _folder;
    private readonly WebApplication _app;

    // The demo's years of services are worked through once; every test then starts from a copy of that file.
    private static readonly Lazy<Task<byte[]>> DemoFile = new(async () =>
    {
        await using var host = new WorkshopHost();
        await host.Services.GetRequiredService<DemoDepot>().Fill();
        var copy = Path.Combine(host._folder, "demo.db");
        host.Services.GetRequiredService<Anakyklos.Storage.WorkshopDatabase>().Backup(copy);
        return await System.IO.File.ReadAllBytesAsync(copy);
    });

    private WorkshopHost(byte[]? database = null, Func<Options, Options>? with = null)
    {
        _folder = Directory.CreateDirectory(Path.Combine(_home, "data")).FullName;
        // All hosts seal with one key, so that a copy of one's file is whole at another.
        Directory.CreateDirectory(Path.Combine(_home, "data.seal"));
        System.IO.File.WriteAllText(Path.Combine(_home, "data.seal", "keys"), new string('5', 64) + "\n");
        if (database is not null)
            System.IO.File.WriteAllBytes(Path.Combine(_folder, "anakyklos.db"), database);
        var builder = WebApplication.CreateBuilder(new WebApplicationOptions { ContentRootPath = AppContext.BaseDirectory,
            ApplicationName = typeof(WorkshopApplication).Assembly.GetName().Name,
            // Nobody changes settings while a test runs, and to watch for it costs more than many a test.
            Args = ["--hostBuilder:reloadConfigOnChange=false"] });
        builder.WebHost.UseTestServer();
        builder.Logging.ClearProviders().AddProvider(new Complaints(Faults));
        var options = new Options { Folder = _folder, Demo = true };
        WorkshopApplication.AddWorkshop(builder.Services, with is null ? options : with(options), Clock);
        _app = builder.Build();
        WorkshopApplication.UseWorkshop(_app);
    }

    /// <summary>What the program itself reported as its fault.</summary>
    public System.Collections.Concurrent.ConcurrentQueue<string> Faults { get; } = new();

    public FakeTimeProvider Clock { get; } = new(new DateTimeOffset(2026, 3, 9, 9, 0, 0, TimeSpan.Zero));

    public IServiceProvider Services => _app.Services;

    /// <summary>What the console of an empty workshop says.</summary>
    public string SetupWord => Services.GetRequiredService<SetupToken>().Word;

    /// <summary>The workshop's file.</summary>
    public string File => Path.Combine(_folder, "anakyklos.db");

    /// <summary>As it is served for the first time: nobody, no model, nothing.</summary>
    public static async Task<WorkshopHost> Empty()
    {
        var host = new WorkshopHost(null, o => o with { Demo = false });
        await host.Services.GetRequiredService<ShippedSheets>().BringIn(forPractice: true);
        await host._app.StartAsync();
        return host;
    }

    /// <summary>Nobody and nothing in it but the models of the demo.</summary>
    public static async Task<WorkshopHost> WithModels()
    {
        var host = new WorkshopHost();
        await host.Services.GetRequiredService<ShippedSheets>().BringIn();
        await host._app.StartAsync();
        return host;
    }

    public static async Task<WorkshopHost> Demo(Func<Options, Options>? with = null) => await From(await DemoFile.Value, null, with);

    /// <summary>On a copy of a workshop's file.</summary>
    /// <param name="database">The file.</param>
    /// <param name="keys">Where the keys of cookies lie that it is to know; null for keys of its own.</param>
    /// <param name="with">Makes its options from the usual ones.</param>
    public static async Task<WorkshopHost> From(byte[] database, string? keys = null, Func<Options, Options>? with = null)
    {
        var host = new WorkshopHost(database, with);
        if (keys is not null)
            foreach (var key in Directory.GetFiles(keys))
                System.IO.File.Copy(key, Path.Combine(Directory.CreateDirectory(Path.Combine(host._folder, "keys")).FullName,
                    Path.GetFileName(key)));
        await host._app.StartAsync();
        return host;
    }

    /// <summary>A request from an address, as the server sees it come in.</summary>
    public async Task<Microsoft.AspNetCore.Http.HttpResponse> Request(string from, string path,
        params (string Name, string Value)[] headers) =>
        (await _app.GetTestServer().SendAsync(context =>
        {
            context.Connection.RemoteIpAddress = IPAddress.Parse(from);
            (context.Request.Method, context.Request.Scheme, context.Request.Path) = ("GET", "http", path);
            context.Request.Headers.Host = "localhost";
            foreach (var (name, value) in headers)
                context.Request.Headers[name] = value;
        })).Response;

    /// <summary>Who has no cookies: a device.</summary>
    public HttpClient NewClient() => _app.GetTestClient();

    /// <summary>Ends the program; its files are there until this is disposed of.</summary>
    public async Task Stop()
    {
        await _app.DisposeAsync();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
    }

    /// <summary>A browser with the cookies of one that was at another host.</summary>
    public Browser NewBrowser(Browser like) => NewBrowser().Taking(like);

    public Browser NewBrowser() => new(_app.GetTestServer().CreateHandler());

    /// <summary>A program that comes in with a token.</summary>
    public HttpClient Program(string secret)
    {
        var client = new HttpClient(_app.GetTestServer().CreateHandler()) { BaseAddress = new("http://localhost/") };
        client.DefaultRequestHeaders.Authorization = new("Bearer", secret);
        return client;
    }

    /// <summary>Where something is served.</summary>
    public IReadOnlyList<Microsoft.AspNetCore.Http.Endpoint> Endpoints =>
        Services.GetRequiredService<Microsoft.AspNetCore.Routing.EndpointDataSource>().Endpoints;

    public async Task<Browser> SignedIn(string person = "iona")
    {
        var browser = NewBrowser();
        await browser.Get("/signin");
        await browser.Submit("form", ("person", person), ("pin", Options.DemoPin));
        return browser;
    }

    /// <summary>The first lead of an empty workshop, signed in.</summary>
    public async Task<Browser> FirstLead()
    {
        var browser = NewBrowser();
        await browser.Get("/");
        await browser.Submit("main form", ("console", SetupWord), ("workshop", "Quay Garage"), ("name", "Mhairi"), ("pin", "135790"),
            ("again", "135790"));
        return browser;
    }

    public async ValueTask DisposeAsync()
    {
        await _app.DisposeAsync();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(_home, true);
    }
}

/// <summary>Keeps what is logged as an error.</summary>
internal sealed class Complaints(System.Collections.Concurrent.ConcurrentQueue<string> faults) : ILoggerProvider, ILogger
{
    public ILogger CreateLogger(string categoryName) => this;

    public IDisposable? BeginScope<TState>(TState state) where TState : notnull => null;

    public bool IsEnabled(LogLevel logLevel) => logLevel >= LogLevel.Error;

    public void Log<TState>(LogLevel logLevel, EventId eventId, TState state, Exception? exception,
        Func<TState, Exception?, string> formatter)
    {
        if (logLevel >= LogLevel.Error)
            faults.Enqueue($"{formatter(state, exception)} {exception}");
    }

    public void Dispose()
    {
    }
}

/// <summary>Tests in a demo of their own, with somebody signed in.</summary>
public abstract class InTheDemo(string person = "iona") : IAsyncLifetime
{
    /// <summary>The demo.</summary>
    protected WorkshopHost Host { get; private set; } = null!;

    /// <summary>The browser of whoever is signed in.</summary>
    protected Browser Me { get; private set; } = null!;

    public virtual async ValueTask InitializeAsync()
    {
        Host = await WorkshopHost.Demo();
        Me = await Host.SignedIn(person);
    }

    public virtual async ValueTask DisposeAsync()
    {
        await Host.DisposeAsync();
        GC.SuppressFinalize(this);
    }
}

/// <summary>A browser without script: pages, links, forms, cookies.</summary>
public sealed class Browser(HttpMessageHandler server)
{
    private readonly CookieContainer _cookies = new();

    public IHtmlDocument Page { get; private set; } = null!;
    public HttpResponseMessage Answer { get; private set; } = null!;
    public Uri Address { get; private set; } = new("http://localhost/");
    public HttpStatusCode Status => Answer.StatusCode;
    public string Heading => Page.QuerySelector("main h1")?.TextContent.Trim() ?? "";
    public string Text => string.Join(' ', (Page.Body?.TextContent ?? "").Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));

    public Task<HttpStatusCode> Get(string address) => Send(new(HttpMethod.Get, new Uri(Address, address)));

    /// <summary>Fills the form as a person would and submits it with its first button, or with the one that the selector names.</summary>
    public Task<HttpStatusCode> Submit(string form, params (string Name, string Value)[] typed)
    {
        var found = Page.QuerySelector(form) ?? throw new InvalidOperationException($"No {form} at {Address}: {Text}");
        var button = found as IHtmlButtonElement ?? Page.QuerySelector(form)!.QuerySelector("button") as IHtmlButtonElement;
        var element = (IHtmlFormElement)(button?.Form ?? found);
        var fields = new List<KeyValuePair<string, string>>();
        foreach (var input in element.Elements.Concat(Page.QuerySelectorAll($"[form='{element.Id}']")).Distinct())
            if (input is IHtmlInputElement { Name.Length: > 0 } i && (i.Type is not ("radio" or "checkbox") || i.IsChecked)
                && typed.All(t => t.Name != i.Name))
                fields.Add(new(i.Name!, i.Value));
            else if (input is IHtmlSelectElement { Name.Length: > 0 } s && typed.All(t => t.Name != s.Name))
                fields.Add(new(s.Name!, (s.Options.FirstOrDefault(o => o.HasAttribute("selected")) ?? s.Options.First()).Value));
        if (found == button && button is { Name.Length: > 0 })
            fields.Add(new(button.Name!, button.Value ?? ""));
        fields.AddRange(typed.Select(t => new KeyValuePair<string, string>(t.Name, t.Value)));
        var action = button?.GetAttribute("formaction") ?? element.GetAttribute("action") ?? "";
        return Send(new(HttpMethod.Post, action.StartsWith('?') ? new Uri(Address.GetLeftPart(UriPartial.Path) + action)
            : new Uri(Address, action.Length > 0 ? action : Address.PathAndQuery)) { Content = new FormUrlEncodedContent(fields) });
    }

    /// <summary>Sends a form of these fields and no others.</summary>
    public Task<HttpStatusCode> Post(string address, params (string Name, string Value)[] fields) =>
        Send(new(HttpMethod.Post, new Uri(Address, address))
        {
            Content = new FormUrlEncodedContent(fields.Select(f => new KeyValuePair<string, string>(f.Name, f.Value))),
        });

    /// <summary>A browser with the same cookies.</summary>
    public Browser Copy() => new Browser(server) { Address = Address }.Taking(this);

    /// <summary>Takes the cookies of another.</summary>
    public Browser Taking(Browser other)
    {
        _cookies.Add(other._cookies.GetAllCookies());
        return this;
    }

    public async Task<JsonNode> Api(HttpMethod method, string address, object? body = null, string? token = null)
    {
        var request = new HttpRequestMessage(method,
            new Uri(Address, address)) { Content = body is null ? null : body is string text
            ? new StringContent(text, System.Text.Encoding.UTF8, "application/json") : JsonContent.Create(body) };
        if (token is not null)
            request.Headers.Add("X-Antiforgery", token);
        await Raw(request);
        var json = await Answer.Content.ReadAsStringAsync();
        return json.Length > 0 ? JsonNode.Parse(json)! : JsonValue.Create("");
    }

    /// <summary>The data of the first message of a stream.</summary>
    public async Task<string> FirstMessage(string address)
    {
        using var client = new HttpClient(server, disposeHandler: false);
        var request = new HttpRequestMessage(HttpMethod.Get, new Uri(Address, address));
        request.Headers.Add("Cookie", _cookies.GetCookieHeader(request.RequestUri!));
        using var answer = await client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        using var lines = new StreamReader(await answer.Content.ReadAsStreamAsync());
        for (var line = await lines.ReadLineAsync(); line is not null; line = await lines.ReadLineAsync())
            if (line.StartsWith("data:", StringComparison.Ordinal))
                return line[5..].Trim();
        return "";
    }

    /// <summary>A file that is no page, as it comes.</summary>
    public async Task<byte[]> Bytes(string address)
    {
        await Raw(new HttpRequestMessage(HttpMethod.Get, new Uri(Address, address)));
        return await Answer.Content.ReadAsByteArrayAsync();
    }

    /// <summary>The same as text.</summary>
    public async Task<string> Content(string address) => System.Text.Encoding.UTF8.GetString(await Bytes(address));

    /// <summary>The same as JSON.</summary>
    public async Task<JsonNode> Json(string address) => JsonNode.Parse(await Content(address))!;

    /// <summary>Sends a form with a file, as a person would who chooses one.</summary>
    public Task<HttpStatusCode> Upload(string form, string field, string name, byte[] content)
    {
        var element = (IHtmlFormElement)Page.QuerySelector(form)!;
        var parts = new MultipartFormDataContent();
        foreach (var input in element.Elements.OfType<IHtmlInputElement>().Where(i => i.Type == "hidden"))
            parts.Add(new StringContent(input.Value), input.Name!);
        parts.Add(new ByteArrayContent(content), field, name);
        return Send(new(HttpMethod.Post, new Uri(Address, element.GetAttribute("action") is { Length: > 0 } to ? to : Address.PathAndQuery))
        {
            Content = parts,
        });
    }

    public async Task<string> Token() => (await Api(HttpMethod.Get, "/api/v1/session"))["antiforgery"]!.GetValue<string>();

    public async Task<HttpStatusCode> Send(HttpRequestMessage request)
    {
        await Raw(request);
        for (var hops = 0; (int)Status is >= 300 and < 400 && hops < 5; hops++)
            await Raw(new(HttpMethod.Get, new Uri(Address, Answer.Headers.Location!)));
        Page = new HtmlParser().ParseDocument(await Answer.Content.ReadAsStringAsync());
        return Status;
    }

    public async Task Raw(HttpRequestMessage request)
    {
        using var client = new HttpClient(server, disposeHandler: false);
        var cookies = _cookies.GetCookieHeader(request.RequestUri!);
        if (cookies.Length > 0)
            request.Headers.Add("Cookie", cookies);
        Address = request.RequestUri!;
        Answer = await client.SendAsync(request);
        if (Answer.Headers.TryGetValues("Set-Cookie", out var set))
            foreach (var cookie in set)
                _cookies.SetCookies(request.RequestUri!, cookie.Replace("expires=", "x-expires=", StringComparison.OrdinalIgnoreCase));
    }
}
