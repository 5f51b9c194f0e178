using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage.Sealing;

/// <summary>Opens a workshop's file without writing to it or beside it.</summary>
internal static class ReadOnlyFile
{
    private const int CannotOpen = 14, ReadOnly = 8;

    /// <summary>Opens it.</summary>
    /// <param name="file">The file, served or not, also where nothing can be written beside it.</param>
    /// <returns>Open; the caller disposes of it.</returns>
    /// <exception cref="SqliteException">It cannot be read.</exception>
    internal static SqliteConnection Open(string file)
    {
        // Nobody has it open: it does not change while it is read, and reading it so leaves nothing beside it.
        if (File.Exists(file) && !File.Exists(file + "-wal") && !File.Exists(file + "-shm"))
            return Unchanging(file);
        try
        {
            return Opened(new() { DataSource = file, Mode = SqliteOpenMode.ReadOnly, Pooling = false, DefaultTimeout = 10 });
        }
        catch (SqliteException e) when (e.SqliteErrorCode is CannotOpen or ReadOnly && File.Exists(file)
            && (!File.Exists(file + "-wal") || new FileInfo(file + "-wal").Length == 0))
        {
            // A file with an empty log on something that cannot be written to.
            return Unchanging(file);
        }
    }

    private static SqliteConnection Unchanging(string file) => Opened(new()
    {
        DataSource = $"file:{Uri.EscapeDataString(Path.GetFullPath(file)).Replace("%2F", "/", StringComparison.Ordinal)}?immutable=1",
        Mode = SqliteOpenMode.ReadOnly, Pooling = false,
    });

    private static SqliteConnection Opened(SqliteConnectionStringBuilder how)
    {
        var connection = new SqliteConnection(how.ToString());
        try
        {
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = "select count(*) from sqlite_master";
            command.ExecuteScalar();
            return connection;
        }
        catch (SqliteException)
        {
            connection.Dispose();
            throw;
        }
    }
}
