using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Storage.Sealing;

namespace Anakyklos.Web.Hosting;

/// <summary>What the program does by itself: copies of the workshop every night, and where its journal stands, written down when it is
/// started and stopped.</summary>
public sealed class NightWatch(BackupDesk backups, FileWatch file, WorkshopDatabase database, WorkshopClock clock, ILogger<NightWatch> log)
    : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(1);

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // The first pages come before the first copy.
        await Task.Yield();
        Write();
        using var timer = new PeriodicTimer(Every);
        do
        {
            await Try(() => backups.Round(), "The nightly copy failed");
            await Try(file.Look, "It could not be looked whether anybody else writes to the file");
        }
        while (await timer.WaitForNextTickAsync(stoppingToken));
    }

    private async Task Try(Func<Task> work, string failed)
    {
        try
        {
            await work();
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            log.LogError(e, "{Failed}", failed);
        }
    }

    /// <inheritdoc/>
    public override async Task StopAsync(CancellationToken cancellationToken)
    {
        await base.StopAsync(cancellationToken);
        Write();
    }

    private void Write()
    {
        try
        {
            database.Anchor(AnchorKind.Day, clock.Now);
        }
        catch (WorkshopFileException e)
        {
            log.LogError(e, "Where the journal stands could not be written down");
        }
    }
}
