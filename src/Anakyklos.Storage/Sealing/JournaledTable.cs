using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage.Sealing;

/// <summary>A table of which every change goes into the journal.</summary>
/// <param name="Name">The table.</param>
/// <param name="Keys">The columns that name a row.</param>
/// <param name="Columns">The columns that the journal tells.</param>
internal sealed record JournaledTable(string Name, IReadOnlyList<string> Keys, IReadOnlyList<string> Columns)
{
    /// <summary>What follows from events of cards or from everything else, or is the journal itself.</summary>
    private static readonly HashSet<string> Others = ["journal", "event", "command", "found_entry"];

    /// <summary>What follows from the events of a card.</summary>
    private static readonly HashSet<(string Table, string Column)> Following =
        [("card", "head_seq"), ("card", "head_hash"), ("card", "signed_at"), ("card", "voided_at")];

    /// <summary>All of a file, by name. A picture's content is not told: its id is its SHA-256.</summary>
    internal static IReadOnlyList<JournaledTable> All(SqliteConnection connection) =>
        [.. connection.Query<string>("""
            select name from pragma_table_list where schema = 'main' and type = 'table' and name not like 'sqlite\_%' escape '\'
            order by name
            """).Where(name => !Others.Contains(name)).Select(name => Of(connection, name))];

    private static JournaledTable Of(SqliteConnection connection, string name)
    {
        var columns = connection.Query<(string Name, string Type, int Key)>("select name, type, pk from pragma_table_info(@name)",
            new { name }).ToList();
        return new(name, [.. columns.Where(c => c.Key > 0).OrderBy(c => c.Key).Select(c => c.Name)],
            [.. columns.Where(c => c.Type != "BLOB" && !Following.Contains((name, c.Name))).Select(c => c.Name)]);
    }

    /// <summary>The key of a row as the journal writes it.</summary>
    /// <param name="of">Before each column, such as <c>new.</c>.</param>
    internal string Key(string of = "") => $"json_array({string.Join(", ", Keys.Select(k => of + k))})";

    /// <summary>A row as the journal writes it.</summary>
    /// <param name="of">Before each column, such as <c>new.</c>.</param>
    internal string Row(string of = "") => $"json_object({string.Join(", ", Columns.Select(c => $"'{c}', {of}{c}"))})";

    /// <summary>What makes the journal follow the table, by name.</summary>
    internal IReadOnlyList<(string Name, string Sql)> Triggers =>
    [
        Trigger("added", "insert", "", $"insert into journal (item, key, row) values ('{Name}', {Key("new.")}, {Row("new.")});"),
        Trigger("changed", "update", $" when {string.Join(" or ", Columns.Select(c => $"old.{c} is not new.{c}"))}", $"""
            insert into journal (item, key) select '{Name}', {Key("old.")} where {Key("old.")} <> {Key("new.")};
                insert into journal (item, key, row) values ('{Name}', {Key("new.")}, {Row("new.")});
            """),
        Trigger("removed", "delete", "", $"insert into journal (item, key) values ('{Name}', {Key("old.")});"),
    ];

    private (string Name, string Sql) Trigger(string name, string on, string when, string does) => ($"journal_{Name}_{name}",
        $"CREATE TRIGGER journal_{Name}_{name} after {on} on {Name}{when} begin\n    {does}\nend");
}
