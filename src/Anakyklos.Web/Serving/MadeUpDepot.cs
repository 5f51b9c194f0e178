using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Demo;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;

namespace Anakyklos.Web.Serving;

/// <summary>
/// Serves the made-up depot beside a workshop, from the same process: its folder is the workshop's with <c>.samples</c>, its port the next
/// one, unless the options say otherwise. Samples that are there when the workshop is started are served on as they were left.
/// </summary>
internal sealed class MadeUpDepot(Options options, IServer server, TimeProvider time, ILogger<MadeUpDepot> log) : IMadeUpDepot,
    IHostedLifecycleService, IAsyncDisposable
{
    // Written once they stand: what was given up halfway is made anew.
    private const string Whole = "samples-are-whole";

    private readonly Lock _turn = new();
    private volatile MadeUpStanding _now = new(MadeUpStage.None);
    private Served? _served;
    private Task _work = Task.CompletedTask;

    public bool IsOffered => !options.Demo;

    public MadeUpStanding Now => _now is { Stage: MadeUpStage.Making } making && _served?.Worked is { } worked
        ? making with { Worked = worked } : _now;

    private string Folder => Path.TrimEndingDirectorySeparator(Path.GetFullPath(options.Folder)) + ".samples";

    private bool IsWhole => File.Exists(Path.Combine(Folder, Whole)) && DemoDepot.IsDemo(Folder);

    private int Port => options.MadeUpPort > 0 ? options.MadeUpPort : Own + 1;

    // Where no port was named, the server knows.
    private int Own => options.PortGiven ? options.Port : server.Features.Get<IServerAddressesFeature>()?.Addresses
        .Select(a => Uri.TryCreate(a.Replace("*", "localhost").Replace("+", "localhost"), UriKind.Absolute, out var at) ? at.Port : 0)
        .FirstOrDefault(p => p > 0) is > 0 and var port ? port : options.Port;

    public string Address(HttpRequest request) => options.MadeUpAt.Length > 0 ? options.MadeUpAt : $"http://{request.Host.Host}:{Port}";

    public void BringIn()
    {
        lock (_turn)
        {
            if (!IsOffered || _now.Stage is not (MadeUpStage.None or MadeUpStage.Failed))
                return;
            // What stands there from before is served on; only what was given up halfway is made anew.
            Begin(keep: IsWhole);
        }
    }

    public async Task TakeOut()
    {
        Task before;
        lock (_turn)
        {
            if (_now.Stage is not (MadeUpStage.Runs or MadeUpStage.Failed))
                return;
            _now = new(MadeUpStage.Ending);
            before = _work;
        }
        await before;
        var trouble = "";
        try
        {
            await Stop();
            Delete();
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            log.LogError(e, "The samples could not be deleted");
            trouble = $"{Folder} could not be deleted whole: {e.Message} Try again, or delete it by hand.";
        }
        _now = trouble.Length > 0 ? new(MadeUpStage.Failed, Trouble: trouble) : new(MadeUpStage.None);
    }

    // Once the workshop itself answers, so that it is known at which port.
    public Task StartedAsync(CancellationToken cancellationToken)
    {
        lock (_turn)
            if (IsOffered && IsWhole)
                Begin(keep: true);
        return Task.CompletedTask;
    }

    public Task StartAsync(CancellationToken cancellationToken) => Task.CompletedTask;
    public Task StartingAsync(CancellationToken cancellationToken) => Task.CompletedTask;
    public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;
    public Task StoppedAsync(CancellationToken cancellationToken) => Task.CompletedTask;
    public Task StoppingAsync(CancellationToken cancellationToken) => Stop();

    public async ValueTask DisposeAsync() => await Stop();

    private void Begin(bool keep)
    {
        _now = new(MadeUpStage.Making, 0, DemoHistory.Services);
        // Neither who sent the request nor what it writes goes along.
        using (ExecutionContext.SuppressFlow())
            _work = Task.Run(() => Make(keep));
    }

    private async Task Make(bool keep)
    {
        try
        {
            _served = new(FolderLock.Take(Folder));
            var own = options with
            {
                Folder = Folder, FolderGiven = true, SealFolder = "", BackupFolder = "", KeptBackups = 2, Demo = true, IsMadeUp = true,
                Port = Port, PortGiven = true, MadeUpOf = Own, MadeUpAt = "",
            };
            var clock = new HurriedClock(time, 1);
            var app = await DemoStart.Begin(own, keep, clock, () => _served.App = WorkshopApplication.Build(own, clock));
            await app.StartAsync();
            await File.WriteAllTextAsync(Path.Combine(Folder, Whole), "Served on when the workshop is started again.\n");
            _now = new(MadeUpStage.Runs);
        }
        catch (Exception e)
        {
            log.LogError(e, "The samples could not be brought in");
            await Stop();
            _now = new(MadeUpStage.Failed, Trouble: e is WorkshopFileException or UnauthorizedAccessException ? e.Message
                : e is IOException ? $"Port {Port} or the folder {Folder} cannot be used: {e.Message} Another port is given with "
                    + "--samples-port." : "The log says what went wrong.");
        }
    }

    private async Task Stop()
    {
        if (Interlocked.Exchange(ref _served, null) is { } served)
            await served.DisposeAsync();
    }

    // Only what the made-up depot made is ever deleted.
    private void Delete()
    {
        if (!DemoDepot.IsDemo(Folder))
            return;
        foreach (var folder in new[] { Folder, Folder + ".seal", Folder + ".backups" }.Where(Directory.Exists))
            Directory.Delete(folder, recursive: true);
    }

    private sealed class Served(FolderLock folder) : IAsyncDisposable
    {
        internal WebApplication? App { get; set; }

        internal int? Worked => App?.Services.GetRequiredService<DemoHistory>().Worked;

        public async ValueTask DisposeAsync()
        {
            if (App is not null)
            {
                await App.StopAsync();
                await App.DisposeAsync();
            }
            folder.Dispose();
        }
    }
}
