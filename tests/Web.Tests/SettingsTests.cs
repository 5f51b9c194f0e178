using System.Net;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>Settings by file, environment and command line; and what a reverse proxy says, which is believed of those that are
/// named.</summary>
public sealed class SettingsTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("anakyklos-settings-").FullName;

    public void Dispose() => Directory.Delete(_folder, true);

    [Fact]
    public void The_command_line_goes_before_the_environment_and_that_before_the_file()
    {
        var file = Path.Combine(_folder, "here.json");
        File.WriteAllText(file, """{ "port": 5301, "data": "/srv/a", "keep-backups": 30, "proxies": ["10.0.0.1", "10.0.0.2"] }""");
        Environment.SetEnvironmentVariable("ANAKYKLOS_DATA", "/srv/b");
        Environment.SetEnvironmentVariable("ANAKYKLOS_KEEP_BACKUPS", "40");
        try
        {
            var options = Options.Read(["--settings", file, "--keep-backups", "50"]);
            Assert.Equal((5301, "/srv/b", 50), (options.Port, options.Folder, options.KeptBackups));
            Assert.Equal([IPAddress.Parse("10.0.0.1"), IPAddress.Parse("10.0.0.2")], options.Proxies);
            Assert.Equal("/srv/b.backups", options.Backups);
            Assert.Equal("/srv/b.seal", options.Seals.Folder);
        }
        finally
        {
            Environment.SetEnvironmentVariable("ANAKYKLOS_DATA", null);
            Environment.SetEnvironmentVariable("ANAKYKLOS_KEEP_BACKUPS", null);
        }
    }

    [Theory]
    [InlineData("--port", "0", "whole number")]
    [InlineData("--proxies", "10.0.0.1,proxy", "“proxy” is none")]
    [InlineData("--settings", "/nowhere.json", "There is no file")]
    [InlineData("--hologram", "1", "not known here")]
    public void What_is_no_setting_is_told(string name, string value, string words) =>
        Assert.Contains(words, Assert.Throws<OptionException>(() => Options.Read([name, value])).Message);

    [Fact]
    public void A_file_of_settings_that_cannot_be_read_is_told()
    {
        var file = Path.Combine(_folder, "bad.json");
        File.WriteAllText(file, "{ port: ");
        Assert.Contains("cannot be read", Assert.Throws<OptionException>(() => Options.Read(["--settings", file])).Message);
    }

    [Theory]
    [InlineData("10.0.0.1", "10.0.0.1", true)]
    [InlineData("10.0.0.1", "10.0.0.9", false)]
    [InlineData("", "10.0.0.1", false)]
    public async Task Only_a_proxy_that_is_named_says_where_a_request_came_from(string named, string from, bool believed)
    {
        await using var host = await WorkshopHost.Demo(o => o with { Proxies = named.Length > 0 ? [IPAddress.Parse(named)] : [] });
        var answer = await host.Request(from, "/", ("X-Forwarded-For", "203.0.113.5"), ("X-Forwarded-Proto", "https"),
            ("X-Forwarded-Host", "cards.example"));
        Assert.StartsWith(believed ? "https://cards.example/signin" : "http://localhost/signin", answer.Headers.Location.ToString());
        var page = await host.Request(from, "/signin", ("X-Forwarded-For", "203.0.113.5"), ("X-Forwarded-Proto", "https"));
        Assert.Equal(believed, page.Headers.SetCookie.Any(c => c!.Contains("secure", StringComparison.OrdinalIgnoreCase)));
    }

    [Fact]
    public async Task Names_that_are_not_ours_are_not_answered()
    {
        await using var host = await WorkshopHost.Demo(o => o with { Hosts = ["cards.example"] });
        Assert.Equal(400, (await host.Request("10.0.0.1", "/signin", ("Host", "evil.example"))).StatusCode);
        Assert.Equal(200, (await host.Request("10.0.0.1", "/signin", ("Host", "cards.example"))).StatusCode);
    }

    [Fact]
    public async Task What_is_private_is_kept_by_no_cache_on_the_way()
    {
        await using var host = await WorkshopHost.Demo();
        var una = await host.SignedIn("una");
        foreach (var page in new[] { "/", "/lift/1058", "/vehicle/HD-07", "/record/1048", "/api/v1/cards/1058", "/files/vehicles.csv",
            "/people", "/trail", "/find?q=hd" })
        {
            Assert.Equal(HttpStatusCode.OK, await una.Get(page));
            Assert.True(una.Answer.Headers.CacheControl is { NoStore: true }, page);
        }
        await una.Get("/js/screen.js");
        Assert.False(una.Answer.Headers.CacheControl!.NoStore);
    }

    [Fact]
    public async Task A_session_has_so_many_streams_and_a_silent_one_is_heard_of()
    {
        await using var host = await WorkshopHost.Demo();
        var streams = host.Services.GetRequiredService<ScreenStreams>();
        var taken = Enumerable.Range(0, ScreenStreams.Most).Select(_ => streams.Take("mine")!).ToList();
        Assert.All(taken, Assert.NotNull);
        Assert.Null(streams.Take("mine"));
        Assert.NotNull(streams.Take("another's"));
        taken[0].Dispose();
        taken[0].Dispose();
        Assert.NotNull(streams.Take("mine"));
        Assert.Null(streams.Take("mine"));

        var channel = System.Threading.Channels.Channel.CreateUnbounded<System.Net.ServerSentEvents.SseItem<int>>();
        using var cancel = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        var read = streams.Of(channel.Reader, cancel.Token).GetAsyncEnumerator(cancel.Token);
        var next = read.MoveNextAsync().AsTask();
        host.Clock.Advance(ScreenStreams.Beat);
        Assert.True(await next);
        Assert.Equal("beat", read.Current.EventType);
        channel.Writer.TryWrite(new(7, "changed"));
        Assert.True(await read.MoveNextAsync());
        Assert.Equal(("changed", 7), (read.Current.EventType, read.Current.Data));
        next = read.MoveNextAsync().AsTask();
        // It ends with the server, which waits for nobody.
        host.Services.GetRequiredService<Microsoft.Extensions.Hosting.IHostApplicationLifetime>().StopApplication();
        Assert.False(await next);
    }
}
