using Anakyklos.Core.Workshop;
using Anakyklos.Storage;
using Anakyklos.Storage.Sealing;

namespace Anakyklos.Desk;

/// <summary>Where copies of the workshop lie.</summary>
/// <param name="Folder">The folder.</param>
/// <param name="Kept">How many are kept.</param>
public sealed record BackupPlace(string Folder, int Kept);

/// <summary>A copy of the workshop.</summary>
/// <param name="Name">Its name.</param>
/// <param name="At">When it was made.</param>
/// <param name="Bytes">How large it is.</param>
public sealed record BackupThere(string Name, DateTimeOffset At, long Bytes);

/// <summary>Copies of the workshop, made by itself every night, each looked through before it counts.</summary>
public sealed class BackupDesk(WorkshopDatabase database, TrailStore trail, BackupPlace place, WorkshopClock clock)
{
    // Every night, and some hours for a program that was off.
    private static readonly TimeSpan Late = TimeSpan.FromHours(36);

    /// <summary>Where they lie, and how many are kept.</summary>
    public BackupPlace Place => place;

    /// <summary>The copies that are there, the newest first.</summary>
    public IReadOnlyList<BackupThere> All => !Directory.Exists(place.Folder) ? []
        : [.. new DirectoryInfo(place.Folder).EnumerateFiles().Select(f => (File: f, At: BackupRounds.MadeAt(f.Name, clock.Now.Offset)))
            .Where(f => f.At is not null).Select(f => new BackupThere(f.File.Name, f.At!.Value, f.File.Length))
            .OrderByDescending(b => b.Name, StringComparer.Ordinal)];

    /// <summary>What is wrong with the copies, with what to do; empty when all is well.</summary>
    public string Trouble { get; private set; } = "";

    /// <summary>Whether the last copy is older than it should be.</summary>
    public bool IsLate => All is not [var last, ..] || clock.Now - last.At > Late;

    /// <summary>Makes a copy when one is due, looks it through, lets the oldest go, and writes down where the journal stands.</summary>
    /// <param name="always">Makes one whether it is due or not.</param>
    /// <returns>The copy; null when none was due or it could not be made.</returns>
    public async Task<BackupThere?> Round(bool always = false)
    {
        var now = clock.Now;
        if (!always && !BackupRounds.IsDue(now, All is [var last, ..] ? last.At : null))
            return null;
        try
        {
            OwnerOnly.MakeFolder(place.Folder);
            var file = Path.Combine(place.Folder, BackupRounds.NameOf(now));
            if (File.Exists(file))
                return null;
            database.Backup(file);
            database.Anchor(AnchorKind.Day, now);
            var found = Verification.Run(file, database.Seals, true);
            Trouble = found.Faults.Count == 0 ? "" : $"The copy of {now:d MMMM} does not fit what was written: {found.Faults[0]} "
                + "Run “anakyklos verify” for all of it, and keep the copies before.";
            // One that does not fit is kept to be looked into, and counts for none.
            if (found.Faults.Count > 0)
                File.Move(file, file + ".faulty", true);
            foreach (var gone in found.Faults.Count > 0 ? [] : BackupRounds.LetGo(All.Select(b => b.Name), place.Kept))
                File.Delete(Path.Combine(place.Folder, gone));
            await trail.Note("", "backup", $"{Path.GetFileName(file)}: {found.Cards} cards, {found.Events} events; "
                + (found.Faults.Count == 0 ? "all as it was written" : $"{found.Faults.Count} faults, the first: {found.Faults[0]}"), now);
            return All.FirstOrDefault(b => b.Name == Path.GetFileName(file));
        }
        catch (Exception e) when (e is WorkshopFileException or IOException or UnauthorizedAccessException)
        {
            Trouble = $"No copy could be made on {now:d MMMM}: {e.Message}";
            return null;
        }
    }
}
