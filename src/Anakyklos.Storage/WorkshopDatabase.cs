using System.Collections.Concurrent;
using Anakyklos.Storage.Sealing;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>
/// The workshop's one SQLite file: write-ahead log with full sync, so that what was committed survives the power going. Reading connections
/// are pooled; all writing goes through <see cref="Writes"/>.
/// </summary>
public sealed class WorkshopDatabase : IDisposable
{
    private readonly string _connection;

    static WorkshopDatabase() => StoredIds.Register();

    /// <summary>Opens the file, makes it if it is missing, and brings its tables up to date.</summary>
    /// <param name="path">The database file.</param>
    /// <param name="seals">Where the keys and anchors of its journal lie; beside its folder where that is not said.</param>
    /// <param name="time">The clock; the computer's where none is given.</param>
    /// <exception cref="WorkshopFileException">The file cannot be opened or migrated, or was made by a newer program.</exception>
    public WorkshopDatabase(string path, SealFolder? seals = null, TimeProvider? time = null)
    {
        Path = System.IO.Path.GetFullPath(path);
        var folder = System.IO.Path.GetDirectoryName(Path)!;
        Seals = seals ?? SealFolder.Beside(folder);
        time ??= TimeProvider.System;
        _connection = new SqliteConnectionStringBuilder { DataSource = Path, ForeignKeys = true, DefaultTimeout = 10 }.ToString();
        try
        {
            OwnerOnly.MakeFolder(folder);
            // The log and its index are made by SQLite with the rights of the file.
            OwnerOnly.MakeFile(Path);
            var before = Known();
            var upgraded = Migrate(time);
            var writing = Connect();
            writing.Execute("pragma journal_mode = wal; pragma synchronous = full");
            Writes = new(writing, Parts, Seals.Current(), time);
            Writes.StrangerWrote += Parts.Forget;
            writing.Execute("begin immediate");
            JournalGuards.Lay(writing, upgraded, CardStore.Iso(time.GetUtcNow()));
            Writes.SealAfter(before ?? (upgraded ? 0 : long.MaxValue));
            writing.Execute("commit transaction");
        }
        catch (SqliteException e)
        {
            throw new WorkshopFileException($"{Path} cannot be opened as a workshop file: {e.Message}. Check the path, or restore "
                + "a backup.", e);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new WorkshopFileException($"{Path} cannot be opened: {e.Message} The folder and what is in it belong to the user who "
                + "serves the workshop.", e);
        }
    }

    /// <summary>The file.</summary>
    public string Path { get; }

    /// <summary>Where the keys and anchors of its journal lie.</summary>
    public SealFolder Seals { get; }

    /// <summary>The parts of the stores.</summary>
    internal PartBook Parts { get; } = new();

    /// <summary>The one line that all writing stands in.</summary>
    public WriteQueue Writes { get; }

    /// <summary>What somebody remembers of the file, as long as nobody else writes to it.</summary>
    /// <typeparam name="TKey">What it is found by.</typeparam>
    /// <typeparam name="T">What is remembered.</typeparam>
    internal ConcurrentDictionary<TKey, T> Remembered<TKey, T>() where TKey : notnull
    {
        var remembered = new ConcurrentDictionary<TKey, T>();
        Writes.StrangerWrote += remembered.Clear;
        return remembered;
    }

    /// <summary>A connection for reading, to be disposed of by the caller.</summary>
    /// <returns>Open; the caller disposes of it.</returns>
    public SqliteConnection Connect()
    {
        var connection = new SqliteConnection(_connection);
        connection.Open();
        return connection;
    }

    // The journal's last entry before anything is done to the file, or null where it has no journal yet; what a newer program has made
    // is left alone.
    private long? Known()
    {
        using var connection = Connect();
        if (connection.ExecuteScalar<long>("select count(*) from sqlite_master where name = 'SchemaVersions'") == 0)
            return null;
        if (SchemaSteps.Unknown(connection) is { } newer)
            throw new WorkshopFileException($"{Path} was made by a newer program: it has \"{newer}\", which this one does not know. "
                + "Nothing was changed. Use the newer program, or restore a backup of this one with \"anakyklos restore FILE\".");
        return Journal.Exists(connection) ? connection.ExecuteScalar<long>("select coalesce(max(id), 0) from journal") : null;
    }

    // The guards of the journal would hold on to columns that a step takes away: they go before it and are laid anew after it.
    private bool Migrate(TimeProvider time)
    {
        if (!SchemaSteps.Wanting(_connection))
            return false;
        using var connection = Connect();
        if (Journal.Exists(connection))
            JournalGuards.TakeAway(connection, CardStore.Iso(time.GetUtcNow()));
        var outcome = SchemaSteps.Run(_connection);
        if (!outcome.Successful && Journal.Exists(connection))
            JournalGuards.Lay(connection, true, "");
        if (!outcome.Successful)
            throw new WorkshopFileException($"{Path} could not be brought up to date at {outcome.ErrorScript?.Name}: "
                + $"{outcome.Error.Message}. Nothing was changed by that step; restore a backup or use the older program.", outcome.Error);
        return true;
    }

    /// <summary>Writes down where the journal stands, outside the file.</summary>
    /// <param name="kind">Why.</param>
    /// <param name="at">When.</param>
    /// <returns>The place.</returns>
    /// <exception cref="WorkshopFileException">It cannot be written down.</exception>
    public Anchor Anchor(AnchorKind kind, DateTimeOffset at)
    {
        using var connection = Connect();
        var place = Journal.Place(connection, kind, at);
        Seals.Write(place);
        return place;
    }

    /// <summary>Copies the whole workshop, as of now, into a new file that is looked through before it has its name. Can be done while
    /// others work.</summary>
    /// <param name="file">The new file; it must not exist.</param>
    /// <exception cref="WorkshopFileException">The file exists or cannot be written, or what was written cannot be read; then there is no
    /// file of that name.</exception>
    public void Backup(string file)
    {
        if (File.Exists(file))
            throw new WorkshopFileException($"{file} exists already. Choose another name; backups are not overwritten.");
        var half = file + ".half";
        try
        {
            File.Delete(half);
            OwnerOnly.MakeFile(half);
            using (var connection = Connect())
                connection.Execute("vacuum into @half", new { half });
            if (BackupFile.Wrong(half) is { } wrong)
                throw new WorkshopFileException($"The backup was written but cannot be used: {wrong} It was thrown away.");
            File.Move(half, file);
        }
        catch (Exception e) when (e is SqliteException or IOException or UnauthorizedAccessException)
        {
            throw new WorkshopFileException($"The backup could not be written to {file}: {e.Message}", e);
        }
        finally
        {
            TryDelete(half);
        }
    }

    private static void TryDelete(string file)
    {
        try
        {
            File.Delete(file);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            // The disk that did not take the backup may not give it up either; it has no name that anybody takes for one.
        }
    }

    /// <inheritdoc />
    public void Dispose()
    {
        Writes.Dispose();
        SqliteConnection.ClearPool(new SqliteConnection(_connection));
    }
}

/// <summary>The workshop's file cannot be used as asked; the message says why and what to do.</summary>
/// <param name="message">For a person.</param>
/// <param name="inner">The cause, if any.</param>
public sealed class WorkshopFileException(string message, Exception? inner = null) : Exception(message, inner);
