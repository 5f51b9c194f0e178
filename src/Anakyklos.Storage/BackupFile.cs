using Anakyklos.Storage.Sealing;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>Files that hold a whole workshop beside the one that is served.</summary>
public static class BackupFile
{
    /// <summary>Why a file cannot stand in for a workshop; null where it can.</summary>
    /// <param name="file">The file; it is only read.</param>
    /// <returns>A sentence, or null.</returns>
    public static string? Wrong(string file)
    {
        try
        {
            using var connection = ReadOnlyFile.Open(file);
            if (connection.Query<string>("pragma quick_check(1)").FirstOrDefault() is var said && said != "ok")
                return $"SQLite finds it damaged ({said}).";
            return Unlike(connection);
        }
        catch (SqliteException e)
        {
            return $"SQLite cannot read it ({e.Message}).";
        }
    }

    /// <summary>Why a database is none that this program can look through; null where it can.</summary>
    internal static string? Unlike(SqliteConnection connection) =>
        connection.ExecuteScalar<long>("select count(*) from sqlite_master where name in ('event', 'SchemaVersions')") != 2
            ? "It is a database, but not a workshop's."
            : SchemaSteps.Unknown(connection) is { } newer ? $"It was made by a newer program: it has \"{newer}\"." : null;

    /// <summary>Puts a backup in the place of a workshop's file. What was there is kept beside it under another name, and so is every
    /// sign-in before: nobody is signed in afterwards.</summary>
    /// <param name="backup">The backup; it stays as it is.</param>
    /// <param name="file">The workshop's file; nobody serves it.</param>
    /// <param name="seals">Where its seals lie.</param>
    /// <param name="time">The clock.</param>
    /// <returns>Where what was there is kept; null where nothing was there.</returns>
    /// <exception cref="WorkshopFileException">The backup cannot stand in, or a file cannot be written; then everything is as it
    /// was.</exception>
    public static string? Restore(string backup, string file, SealFolder seals, TimeProvider time)
    {
        if (!File.Exists(backup))
            throw new WorkshopFileException($"{backup} is not there.");
        if (Wrong(backup) is { } wrong)
            throw new WorkshopFileException($"{backup} is not put back: {wrong} The workshop is as it was.");
        if (File.Exists(backup + "-wal") && new FileInfo(backup + "-wal").Length > 0)
            throw new WorkshopFileException($"{backup} is not put back: the log beside it says that it is a workshop in use, not a "
                + "backup. Stop what uses it, or take a backup of it first. The workshop here is as it was.");
        var now = time.GetLocalNow();
        string? kept = null;
        try
        {
            OwnerOnly.MakeFolder(Path.GetDirectoryName(Path.GetFullPath(file))!);
            var coming = file + ".coming";
            File.Delete(coming);
            OwnerOnly.MakeFile(coming);
            using (var from = File.OpenRead(backup))
            using (var to = new FileStream(coming, FileMode.Create, FileAccess.Write))
            {
                from.CopyTo(to);
                to.Flush(true);
            }
            if (File.Exists(file))
            {
                kept = Free($"{file}.before-{now:yyyy-MM-dd-HHmmss}");
                // The log goes with its file, or what was in it would be lost.
                foreach (var end in new[] { "-wal", "-shm", "" })
                    if (File.Exists(file + end))
                        File.Move(file + end, kept + end);
            }
            File.Move(coming, file);
            using (var there = ReadOnlyFile.Open(file))
                seals.Write(Journal.Exists(there) ? Journal.Place(there, AnchorKind.Restored, now)
                    : new(now, AnchorKind.Restored, 0, "-"));
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new WorkshopFileException($"{backup} could not be put back: {e.Message}"
                + (kept is null ? "" : $" What was there lies at {kept}."), e);
        }
        using var database = new WorkshopDatabase(file, seals, time);
        database.Writes.Run(scope =>
        {
            SessionStore.EndEvery(scope, now);
            TokenStore.EndEvery(scope, now);
            return TrailStore.Note(scope, "", "restored", $"From {Path.GetFileName(backup)}"
                + (kept is null ? "" : $"; what was there is kept as {Path.GetFileName(kept)}"), now);
        }).GetAwaiter().GetResult();
        return kept;
    }

    private static string Free(string name) => File.Exists(name) ? Free(name + "-again") : name;
}
