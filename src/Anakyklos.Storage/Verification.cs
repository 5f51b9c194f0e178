using Anakyklos.Storage.Sealing;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>What a workshop's file was found to be.</summary>
/// <param name="Cards">How many cards were looked at.</param>
/// <param name="Events">How many events of theirs.</param>
/// <param name="Rows">How many rows of all other tables.</param>
/// <param name="Entries">How many entries of the journal.</param>
/// <param name="Place">Where the journal ends, to be compared with what was written down elsewhere; null where it cannot be told.</param>
/// <param name="Faults">One sentence for everything that is wrong; empty when the file is sound.</param>
public sealed record Verified(int Cards, int Events, long Rows, long Entries, Anchor? Place, IReadOnlyList<string> Faults);

/// <summary>
/// Checks a workshop's file without writing to it: SQLite's own check, whether its tables, triggers and indexes are those of this program,
/// the chain and seals of the journal with what was written down outside, every chain of events with what follows from it, and every row
/// of every table against the journal.
/// </summary>
public static class Verification
{
    /// <summary>Everything that is wrong; empty when all is well.</summary>
    /// <param name="database">The workshop.</param>
    /// <param name="cards">How many cards were looked at.</param>
    /// <param name="events">How many events were looked at.</param>
    /// <returns>One sentence for everything that is wrong; empty when the file is sound.</returns>
    public static IReadOnlyList<string> Run(WorkshopDatabase database, out int cards, out int events)
    {
        var found = Run(database.Path, database.Seals);
        (cards, events) = (found.Cards, found.Events);
        return found.Faults;
    }

    /// <summary>Checks a file, a workshop's or a backup, also while it is served.</summary>
    /// <param name="file">The file.</param>
    /// <param name="seals">Where the keys and anchors lie; null where they are not at hand: then a journal that was written anew as a
    /// whole is not seen.</param>
    /// <param name="isBackup">Whether the file may end before what was written down outside.</param>
    /// <returns>What was found.</returns>
    public static Verified Run(string file, SealFolder? seals, bool isBackup = false)
    {
        var faults = new Faults();
        var (cards, events, rows, entries) = (0, 0, 0L, 0L);
        Anchor? place = null;
        try
        {
            using var connection = ReadOnlyFile.Open(file);
            // One moment of the file, whoever writes to it meanwhile.
            connection.Execute("begin deferred");
            if (BackupFile.Unlike(connection) is { } unlike)
                return new(0, 0, 0, 0, null, [unlike]);
            if (!Journal.Exists(connection))
                return new(0, 0, 0, 0, null, ["It was made by an older program and has no journal yet: serve it once with this one."]);
            Try(faults, "SQLite's own check", () => faults.Add(connection.Query<string>("pragma integrity_check")
                .Where(line => line != "ok").Select(line => $"SQLite: {line}")));
            Try(faults, "what points from table to table", () => faults.Add(connection.Query<(string Table, long? Row, string Parent)>(
                "select \"table\", rowid, parent from pragma_foreign_key_check")
                .Select(r => $"{r.Table}: a row points to one of {r.Parent} that is not there.")));
            Try(faults, "the shape of the file", () => faults.Add(FileShape.Wrong(connection)));
            var heads = new HeadsTold([]);
            Try(faults, "the journal", () => (entries, heads, place) = JournalCheck.Chain(connection, seals, isBackup, faults));
            Try(faults, "the cards", () => (cards, events) = CardCheck.Run(connection, heads, faults));
            Try(faults, "the pictures", () => CardCheck.Photos(connection, faults));
            Try(faults, "what is looked for", () => SearchEntries.Check(connection, faults));
            foreach (var table in JournaledTable.All(connection))
                Try(faults, table.Name, () => rows += JournalCheck.Compare(connection, table, faults));
        }
        catch (SqliteException e)
        {
            faults.Add($"SQLite cannot read {file}: {e.Message}");
        }
        return new(cards, events, rows, entries, place, faults.All);
    }

    // What cannot be read is told, and the rest is looked at all the same.
    private static void Try(Faults faults, string what, Action look)
    {
        try
        {
            look();
        }
        catch (SqliteException e)
        {
            faults.Add($"SQLite cannot read {what}: {e.Message}");
        }
    }
}
