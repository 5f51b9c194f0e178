using Dapper;
using DbUp;
using DbUp.Engine.Output;
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
    /// <exception cref="WorkshopFileException">The file cannot be opened or migrated.</exception>
    public WorkshopDatabase(string path)
    {
        Path = System.IO.Path.GetFullPath(path);
        Directory.CreateDirectory(System.IO.Path.GetDirectoryName(Path)!);
        _connection = new SqliteConnectionStringBuilder { DataSource = Path, ForeignKeys = true, DefaultTimeout = 10 }.ToString();
        try
        {
            Migrate();
            var writing = Connect();
            writing.Execute("pragma journal_mode = wal; pragma synchronous = full");
            Writes = new(writing, Parts);
        }
        catch (SqliteException e)
        {
            throw new WorkshopFileException($"{Path} cannot be opened as a workshop file: {e.Message}. Check the path, or restore "
                + "a backup.", e);
        }
    }

    /// <summary>The file.</summary>
    public string Path { get; }

    /// <summary>The parts of the stores.</summary>
    internal PartBook Parts { get; } = new();

    /// <summary>The one line that all writing stands in.</summary>
    public WriteQueue Writes { get; }

    /// <summary>A connection for reading, to be disposed of by the caller.</summary>
    /// <returns>Open; the caller disposes of it.</returns>
    public SqliteConnection Connect()
    {
        var connection = new SqliteConnection(_connection);
        connection.Open();
        return connection;
    }

    private void Migrate()
    {
        var outcome = DeployChanges.To.SqliteDatabase(_connection)
            .WithScriptsEmbeddedInAssembly(typeof(WorkshopDatabase).Assembly)
            .WithTransaction()
            .LogTo(new NoUpgradeLog())
            .Build().PerformUpgrade();
        if (!outcome.Successful)
            throw new WorkshopFileException($"{Path} could not be brought up to date at {outcome.ErrorScript?.Name}: "
                + $"{outcome.Error.Message}. Nothing was changed by that step; restore a backup or use the older program.", outcome.Error);
    }

    /// <summary>Copies the whole workshop, as of now, into a new file. Can be done while others work.</summary>
    /// <param name="file">The new file; it must not exist.</param>
    /// <exception cref="WorkshopFileException">The file exists or cannot be written.</exception>
    public void Backup(string file)
    {
        if (File.Exists(file))
            throw new WorkshopFileException($"{file} exists already. Choose another name; backups are not overwritten.");
        try
        {
            using var connection = Connect();
            connection.Execute("vacuum into @file", new { file });
        }
        catch (SqliteException e)
        {
            throw new WorkshopFileException($"The backup could not be written to {file}: {e.Message}", e);
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
