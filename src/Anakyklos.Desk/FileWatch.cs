using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>Looks whether somebody else writes to the workshop's file while it is served here: a second server that the lock of the folder
/// does not keep out, as on some network drives, or a hand with another program.</summary>
public sealed class FileWatch(WorkshopDatabase database, BackupDesk backups, TrailStore trail, WorkshopClock clock)
{
    // A second server writes all the time: one line of the trail in a while is enough.
    private static readonly TimeSpan NotedEvery = TimeSpan.FromHours(1);

    private DateTimeOffset? _noted;

    /// <summary>What is wrong with the workshop's file or with its copies, each with what to do.</summary>
    public IReadOnlyList<string> Troubles => [.. new[] { Stranger, backups.Trouble }.Where(t => t.Length > 0)];

    private string Stranger => database.Writes.StrangerAt is { } at
        ? $"Another program wrote to the workshop's file, last noticed on {clock.Local(at):d MMMM 'at' HH:mm}. Only one may: look "
            + "whether a second server runs on the same folder, stop it, then run “anakyklos verify”: it tells what does not fit."
        : "";

    /// <summary>Looks, and notes it in the trail.</summary>
    public async Task Look()
    {
        // A piece of writing that writes nothing: it is noticed at the desk.
        await database.Writes.Run(_ => 0);
        if (database.Writes.StrangerAt is not { } at || at - _noted < NotedEvery)
            return;
        _noted = at;
        await trail.Note("", "file", "another program wrote to the workshop's file while it was served", clock.Now);
    }
}
