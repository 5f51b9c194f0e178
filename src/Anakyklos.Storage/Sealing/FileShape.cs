using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage.Sealing;

/// <summary>Whether a file has the tables, triggers, indexes and views that this program makes, and none besides.</summary>
internal static class FileShape
{
    // Made once a run: a workshop that nobody has worked in.
    private static readonly Lazy<IReadOnlyDictionary<string, string>> Made = new(() =>
    {
        var source = new SqliteConnectionStringBuilder { DataSource = $"shape-{Guid.NewGuid():N}", Mode = SqliteOpenMode.Memory,
            Cache = SqliteCacheMode.Shared }.ToString();
        using var connection = new SqliteConnection(source);
        connection.Open();
        SchemaSteps.Run(source);
        JournalGuards.Lay(connection, true, "");
        return Of(connection);
    });

    /// <summary>One sentence for everything that is missing, is another or should not be there.</summary>
    internal static IEnumerable<string> Wrong(SqliteConnection connection)
    {
        var (made, found) = (Made.Value, Of(connection));
        foreach (var (name, sql) in made)
            if (!found.TryGetValue(name, out var there))
                yield return $"The {name} is missing.";
            else if (there != sql)
                yield return $"The {name} is not as this program makes it.";
        foreach (var name in found.Keys.Where(n => !made.ContainsKey(n)))
            yield return $"The {name} is none of this program's.";
        var steps = connection.Query<string>("select ScriptName from SchemaVersions order by SchemaVersionID").ToList();
        if (!steps.SequenceEqual(SchemaSteps.All))
            yield return $"The steps that brought the file up to date are not those of this program: {string.Join(", ", steps
                .Except(SchemaSteps.All).Concat(SchemaSteps.All.Except(steps)).DefaultIfEmpty("their order is another"))}.";
        var numbers = connection.Query<(string Name, long Last)>("select name, seq from sqlite_sequence").ToList();
        if (numbers is not [("SchemaVersions", var last)]
            || last != connection.ExecuteScalar<long>("select max(SchemaVersionID) from SchemaVersions"))
            yield return "SQLite's list of numbers given out does not fit.";
    }

    // Letter by letter but for spaces, quotes and capitals, which are SQLite's own business when a table is renamed.
    private static Dictionary<string, string> Of(SqliteConnection connection) =>
        connection.Query<(string Type, string Name, string? Sql)>("select type, name, sql from sqlite_master")
            .ToDictionary(r => $"{r.Type} \"{r.Name}\"", r => string.Concat((r.Sql ?? "").Where(c => !char.IsWhiteSpace(c) && c != '"'))
                .ToLowerInvariant());
}
