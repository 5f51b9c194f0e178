using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage.Sealing;

/// <summary>Lays what makes the journal follow every table, and takes into it what was there before it followed.</summary>
internal static class JournalGuards
{
    /// <summary>Lays what is missing or is another than it should be.</summary>
    /// <param name="connection">Inside a transaction.</param>
    /// <param name="upgraded">Whether the tables were changed just now: what they hold that the journal does not know is taken into it.
    /// Otherwise somebody has taken a guard away, which is told, and what happened meanwhile is for the check to find.</param>
    /// <param name="at">When, as the trail writes it.</param>
    internal static void Lay(SqliteConnection connection, bool upgraded, string at)
    {
        var laid = connection.Query<(string Name, string Sql)>(
            "select name, sql from sqlite_master where type = 'trigger' and name like 'journal\\_%' escape '\\'")
            .ToDictionary(t => t.Name, t => t.Sql);
        foreach (var table in JournaledTable.All(connection))
        {
            var missing = table.Triggers.Where(t => laid.GetValueOrDefault(t.Name) != t.Sql).ToList();
            if (missing.Count == 0)
                continue;
            foreach (var (name, sql) in missing)
                connection.Execute($"drop trigger if exists {name}; {sql}");
            if (upgraded)
                TakeIn(connection, table);
            else
                connection.Execute("insert into trail (at, person_id, what, words) values (@at, '', 'guard', @words)",
                    new { at, words = $"What makes the journal follow \"{table.Name}\" had been taken away and was laid again." });
        }
        if (upgraded)
            connection.Execute("""
                insert into journal (item, key, row)
                select 'event', json_array(id), json_object('seq', head_seq, 'hash', head_hash) from card
                where id not in (select json_extract(key, '$[0]') from journal where item = 'event')
                """);
    }

    /// <summary>Takes all guards away, so that the tables can be changed. What does not fit the journal until then is told in the trail:
    /// afterwards it is taken in with everything else.</summary>
    internal static void TakeAway(SqliteConnection connection, string at)
    {
        var faults = new Faults();
        var tables = JournaledTable.All(connection);
        foreach (var table in tables)
            JournalCheck.Compare(connection, table, faults);
        foreach (var words in faults.All)
            connection.Execute("insert into trail (at, person_id, what, words) values (@at, '', 'guard', @words)",
                new { at, words = $"Before the file was brought up to date: {words}" });
        foreach (var name in connection.Query<string>(
            "select name from sqlite_master where type = 'trigger' and name like 'journal\\_%' escape '\\'").Where(n =>
                n is not ("journal_is_not_changed" or "journal_is_not_removed")).ToList())
            connection.Execute($"drop trigger {name}");
    }

    private static void TakeIn(SqliteConnection connection, JournaledTable table) => connection.Execute($"""
        with last as materialized (select key, row, max(id) from journal where item = '{table.Name}' group by key)
        insert into journal (item, key, row)
        select '{table.Name}', here.key, here.row from (select {table.Key()} as key, {table.Row()} as row from {table.Name}) here
        left join last on last.key = here.key where last.row is not here.row
        """);
}
