using Anakyklos.Storage.Sealing;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>Writes a workshop anew from what cannot be changed unseen: its events and its journal.</summary>
public static class RebuiltFile
{
    /// <summary>Writes it. Pictures are taken over where they are still the ones that they are named after.</summary>
    /// <param name="from">The workshop's file; it is only read.</param>
    /// <param name="to">The new file.</param>
    /// <param name="seals">Where the keys lie.</param>
    /// <returns>How many rows and how many events were written.</returns>
    /// <exception cref="WorkshopFileException">The new file exists, or the old one cannot be read so far.</exception>
    public static (long Rows, long Events) Write(string from, string to, SealFolder seals)
    {
        if (File.Exists(to))
            throw new WorkshopFileException($"{to} exists already. Choose another name.");
        try
        {
            using (new WorkshopDatabase(to, seals))
            {
                // It has every table of this program now, and nothing in them.
            }
            using var connection = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = to, Pooling = false,
                ForeignKeys = false }.ToString());
            connection.Open();
            connection.Execute("pragma journal_mode = delete; attach @from as old", new { from });
            using var transaction = connection.BeginTransaction();
            var rows = Fill(connection);
            var events = connection.ExecuteScalar<long>("select count(*) from event");
            transaction.Commit();
            return (rows, events);
        }
        catch (SqliteException e)
        {
            File.Delete(to);
            throw new WorkshopFileException($"{from} cannot be written anew: {e.Message} Use the newest backup that \"anakyklos verify\" "
                + "finds whole.", e);
        }
    }

    private static long Fill(SqliteConnection connection)
    {
        // The triggers would tell everything once more, and are laid again when the file is opened.
        var triggers = connection.Query<(string Name, string Sql)>("select name, sql from sqlite_master where type = 'trigger'").ToList();
        foreach (var (name, _) in triggers)
            connection.Execute($"drop trigger {name}");
        connection.Execute("""
            delete from journal;
            delete from SchemaVersions;
            insert into journal select * from old.journal where hash <> x'' order by id;
            insert into event select * from old.event;
            """);
        var rows = 0L;
        foreach (var table in JournaledTable.All(connection))
            rows += connection.Execute(Insert(connection, table), new { item = table.Name });
        connection.Execute("""
            update card set head_seq = coalesce((select max(seq) from event where card_id = card.id), 0),
                head_hash = coalesce((select hash from event where card_id = card.id order by seq desc limit 1), ''),
                signed_at = (select at from event where card_id = card.id and body like '{"event":"Signed"%' order by seq desc limit 1),
                voided_at = (select at from event where card_id = card.id and body like '{"event":"CardVoided"%' order by seq desc limit 1);
            insert into command (id, card_id, first_seq, last_seq)
                select command_id, card_id, min(seq), max(seq) from event group by command_id, card_id;
            """);
        SearchEntries.Make(connection);
        foreach (var (_, sql) in triggers)
            connection.Execute(sql);
        return rows;
    }

    private static string Insert(SqliteConnection connection, JournaledTable table)
    {
        var told = table.Columns.Select(c => (Name: c, From: $"json_extract(told.row, '$.{c}')")).ToList();
        var rest = connection.Query<(string Name, string Type)>("select name, type from pragma_table_info(@Name)", new { table.Name })
            .Where(c => !table.Columns.Contains(c.Name)).Select(c => (c.Name, From: c.Type == "BLOB"
                ? $"(select {c.Name} from old.{table.Name} o where {string.Join(" and ",
                    table.Keys.Select(k => $"o.{k} = json_extract(told.row, '$.{k}')"))})" : c.Type == "INTEGER" ? "0" : "''"))
            .Where(c => c.Name is not ("signed_at" or "voided_at"));
        var all = told.Concat(rest).ToList();
        return $"""
            with told as (select key, row, max(id) from journal where item = @item and hash <> x'' group by key)
            insert into {table.Name} ({string.Join(", ", all.Select(c => c.Name))})
            select {string.Join(", ", all.Select(c => c.From))} from told where row is not null
            """;
    }
}
