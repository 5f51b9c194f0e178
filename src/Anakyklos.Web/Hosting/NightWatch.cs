using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Storage.Sealing;

namespace Anakyklos.Web.Hosting;

/// <summary>What the program does by itself: copies of the workshop every night, and where its journal stands, written down when it is
/// started and stopped.</summary>
public sealed class NightWatch(BackupDesk backups, WorkshopDatabase database, WorkshopClock clock, ILogger<NightWatch> log)
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
            try
            {
                await backups.Round();
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                log.LogError(e, "The nightly copy failed");
            }
        }
        while (await timer.WaitForNextTickAsync(stoppingToken));
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
