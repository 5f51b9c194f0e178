using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>Statements of the writing connection, prepared once: most of a small write's time would otherwise go into preparing
/// it.</summary>
internal sealed class PreparedStatements(SqliteConnection connection) : IDisposable
{
    private readonly Dictionary<string, SqliteCommand> _known = [];

    internal int Run(string sql, params ReadOnlySpan<(string Name, object? Value)> values) => Ready(sql, values).ExecuteNonQuery();

    internal T? First<T>(string sql, Func<SqliteDataReader, T> row, params ReadOnlySpan<(string Name, object? Value)> values)
    {
        using var reader = Ready(sql, values).ExecuteReader();
        return reader.Read() ? row(reader) : default;
    }

    internal List<T> All<T>(string sql, Func<SqliteDataReader, T> row, params ReadOnlySpan<(string Name, object? Value)> values)
    {
        using var reader = Ready(sql, values).ExecuteReader();
        var all = new List<T>();
        while (reader.Read())
            all.Add(row(reader));
        return all;
    }

    private SqliteCommand Ready(string sql, ReadOnlySpan<(string Name, object? Value)> values)
    {
        if (!_known.TryGetValue(sql, out var command))
        {
            command = connection.CreateCommand();
            command.CommandText = sql;
            foreach (var (name, value) in values)
                command.Parameters.AddWithValue(name, value ?? DBNull.Value);
            _known[sql] = command;
        }
        for (var i = 0; i < values.Length; i++)
            command.Parameters[i].Value = values[i].Value ?? DBNull.Value;
        return command;
    }

    public void Dispose()
    {
        foreach (var command in _known.Values)
            command.Dispose();
    }
}
