using Anakyklos.Storage;
using Anakyklos.Storage.Sealing;
using Dapper;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>
/// Changes to a workshop's file by somebody who knows it well: the guards of a table are taken away, a row is changed, and the guards are
/// laid again as they were. Every one of them must be found. With ANAKYKLOS_FAULTS=full many more are tried.
/// </summary>
public sealed class TamperTests : InTheDemo
{
    private static readonly bool Full = Environment.GetEnvironmentVariable("ANAKYKLOS_FAULTS") == "full";

    private readonly Random _chance = new(20261129);
    private readonly List<string> _notFound = [];
    private int _tried;

    private WorkshopDatabase Database => Host.Services.GetRequiredService<WorkshopDatabase>();

    private string Copy => Path.Combine(Path.GetDirectoryName(Path.GetDirectoryName(Database.Path)!)!, "copy.db");

    [Fact]
    public void Every_changed_removed_added_and_swapped_row_of_every_table_is_found()
    {
        Database.Backup(Copy);
        Assert.Empty(Verification.Run(Copy, Database.Seals, true).Faults);
        using var connection = Opened();
        var tables = connection.Query<string>("select name from pragma_table_list where schema = 'main' and type = 'table'"
            + " and name not like 'sqlite\\_%' escape '\\' order by name").ToList();
        foreach (var table in tables)
        {
            var columns = connection.Query<(string Name, string Type, int Key)>("select name, type, pk from pragma_table_info(@table)",
                new { table }).ToList();
            var rows = connection.ExecuteScalar<int>($"select count(*) from \"{table}\"");
            if (rows == 0)
                continue;
            var keys = columns.Where(c => c.Key > 0).Select(c => c.Name).ToList();
            // One column of each table in the usual run, all of them and more rows in the full one.
            foreach (var column in Full ? columns : [.. columns.OrderBy(_ => _chance.Next()).Take(1)])
                for (var i = 0; i < (Full ? Math.Min(2, rows) : 1); i++)
                    Try(connection, table, $"update \"{table}\" set {column.Name} = {Other(column.Name, column.Type)} where "
                        + Row(table, keys, rows));
            Try(connection, table, $"delete from \"{table}\" where {Row(table, keys, rows)}");
            var copied = string.Join(", ", columns.Select(c => c.Key > 0 ? Other(c.Name, c.Type) : c.Name));
            Try(connection, table, $"insert into \"{table}\" ({string.Join(", ", columns.Select(c => c.Name))}) select {copied} from "
                + $"\"{table}\" where {Row(table, keys, rows)}");
            if (columns.Find(c => c.Key == 0).Name is { } swapped && rows > 1)
                Swap(connection, table, keys, swapped);
        }
        Assert.True(_tried > (Full ? 300 : 60), $"{_tried} tried");
        Assert.True(_notFound.Count == 0, $"{_notFound.Count} of {_tried} were not found:\n{string.Join('\n', _notFound)}");
        TestContext.Current.SendDiagnosticMessage($"tampered rows: {_tried} tried, {_notFound.Count} not found");
    }

    [Fact]
    public void What_is_done_to_the_file_as_a_whole_is_told_in_words()
    {
        Database.Anchor(AnchorKind.Day, Host.Clock.GetUtcNow());
        Database.Backup(Copy);
        using (var connection = Opened())
        {
            Tells("trigger \"event_is_not_changed\" is missing", connection, "drop trigger event_is_not_changed");
            Tells("index \"card_by_plate\" is missing", connection, "drop index card_by_plate");
            Tells("trigger \"quiet\" is none of this program's", connection,
                "create trigger quiet after insert on event begin delete from movement; end");
            Tells("Card 1003: there were events of it, but it is not there", connection,
                "drop trigger journal_card_removed; delete from card where id = 1003");
            // Events, head, command and pictures of a whole card.
            Tells("Card 1003: there were events of it", connection, """
                drop trigger journal_card_removed; drop trigger event_is_not_removed;
                delete from event where card_id = 1003; delete from command where card_id = 1003; delete from card where id = 1003
                """);
            Tells("the end was cut off", connection, "drop trigger journal_is_not_removed; delete from journal where id > 1000");
            Tells("was not written by this program", connection, "update person set role = 'lead' where id = 'tavish'");
            Tells("person [\"tavish\"]: role is \"lead\", should be \"technician\"", connection,
                "drop trigger journal_person_changed; update person set role = 'lead' where id = 'tavish'");
        }
        var bytes = File.ReadAllBytes(Copy);
        File.WriteAllBytes(Copy, bytes[..(bytes.Length / 2)]);
        Assert.NotEmpty(Verification.Run(Copy, Database.Seals, true).Faults);
        for (var page = 5; page < 40; page += 5)
        {
            var torn = bytes.ToArray();
            _chance.NextBytes(torn.AsSpan(page * 4096, 2000));
            File.WriteAllBytes(Copy, torn);
            Assert.NotEmpty(Verification.Run(Copy, Database.Seals, true).Faults);
        }
        File.WriteAllText(Copy, "Dear Una,");
        Assert.Contains("cannot read", Assert.Single(Verification.Run(Copy, Database.Seals, true).Faults));
    }

    [Fact]
    public void A_card_and_journal_written_anew_with_every_hash_right_are_found_by_the_key()
    {
        Database.Backup(Copy);
        using (var connection = Opened())
        {
            connection.Execute("drop trigger event_is_not_changed; drop trigger journal_is_not_changed");
            connection.Execute("update event set body = replace(body, 'tarn', 'turn') where card_id = 1003 and seq = 1");
            var head = Rehash(connection, 1003);
            connection.Execute("update card set head_hash = @head where id = 1003", new { head });
            connection.Execute("""
                update journal set row = json_set(row, '$.hash', (select hash from event where card_id = 1003
                    and seq = json_extract(row, '$.seq'))) where item = 'event' and key = '[1003]'
                """);
            RehashJournal(connection);
            foreach (var sql in Guards(Database.Path))
                connection.Execute(sql);
        }
        var fault = Assert.Single(Verification.Run(Copy, Database.Seals, true).Faults);
        Assert.Contains("do not carry a seal of any key here", fault);
        // Without the key at hand nobody could tell; that is said, too.
        var none = Verification.Run(Copy, new(Path.Combine(Path.GetDirectoryName(Copy)!, "nowhere")), true).Faults;
        Assert.Contains("The key that seals the journal is not there", Assert.Single(none));
    }

    [Fact]
    public void It_is_written_anew_from_events_and_journal_alone()
    {
        Database.Backup(Copy);
        using (var connection = Opened())
            connection.Execute("""
                drop trigger journal_vehicle_changed; drop trigger journal_movement_removed; drop trigger journal_person_changed;
                update vehicle set task = 'stolen'; delete from movement; update person set role = 'lead'; update card set signed_at = null
                """);
        Assert.NotEmpty(Verification.Run(Copy, Database.Seals, true).Faults);
        var anew = Copy + ".anew";
        Assert.Contains("exists already",
            Assert.Throws<WorkshopFileException>(() => RebuiltFile.Write(Copy, Copy, Database.Seals)).Message);
        var (rows, events) = RebuiltFile.Write(Copy, anew, Database.Seals);
        Assert.True(rows > 1000 && events > 3000);
        Assert.Empty(Verification.Run(anew, Database.Seals, true).Faults);
        // Row by row what the untouched workshop has, in every table.
        using var connection2 = new SqliteConnection($"Data Source={anew};Pooling=false");
        connection2.Open();
        connection2.Execute("attach @there as there", new { there = Database.Path });
        // Numbers of what is looked for are given out anew; the rest of it is compared by the check above.
        foreach (var table in connection2.Query<string>("select name from pragma_table_list where schema = 'there' and type = 'table'"
            + " and name not like 'sqlite\\_%' escape '\\' and name <> 'found_entry'"))
            Assert.Equal(0, connection2.ExecuteScalar<int>(
                $"select count(*) from (select * from there.{table} except select * from main.{table})"));
    }

    private SqliteConnection Opened()
    {
        var connection = new SqliteConnection($"Data Source={Copy};Pooling=false;Foreign Keys=false");
        connection.Open();
        connection.Execute("pragma ignore_check_constraints = on; pragma journal_mode = delete; pragma synchronous = off");
        return connection;
    }

    private void Try(SqliteConnection connection, string table, string sql)
    {
        var before = File.ReadAllBytes(Copy);
        var guards = connection.Query<(string Name, string Sql)>("select name, sql from sqlite_master where type = 'trigger'").ToList();
        try
        {
            connection.Execute("begin immediate");
            foreach (var (name, _) in guards)
                connection.Execute($"drop trigger {name}");
            var changed = connection.Execute(sql);
            foreach (var (_, guard) in guards)
                connection.Execute(guard);
            connection.Execute("commit transaction");
            if (changed == 0)
                return;
        }
        catch (SqliteException e) when (e.SqliteErrorCode == 19)
        {
            // Two rows of the same key: the file itself does not take it.
            connection.Execute("rollback transaction");
            return;
        }
        _tried++;
        if (Verification.Run(Copy, Database.Seals, true).Faults.Count == 0)
            _notFound.Add($"{table}: {sql}");
        connection.Close();
        File.WriteAllBytes(Copy, before);
        connection.Open();
        connection.Execute("pragma ignore_check_constraints = on; pragma synchronous = off");
    }

    private void Swap(SqliteConnection connection, string table, List<string> keys, string column)
    {
        var key = string.Join(" || '/' || ", keys);
        var two = connection.Query<string>($"select {key} from \"{table}\" group by {column} order by {key} limit 2").ToList();
        var other = string.Join(" || '/' || ", keys.Select(k => "other." + k));
        if (two.Count == 2)
            Try(connection, table, $"""
                update "{table}" set {column} = (select {column} from "{table}" other where {other}
                    = case {key} when '{two[0]}' then '{two[1]}' else '{two[0]}' end) where {key} in ('{two[0]}', '{two[1]}')
                """);
    }

    private string Row(string table, List<string> keys, int rows)
    {
        var all = string.Join(", ", keys);
        return $"({all}) = (select {all} from \"{table}\" order by {all} limit 1 offset {_chance.Next(rows)})";
    }

    private static string Other(string column, string type) => type switch
    {
        "INTEGER" or "INT" => $"coalesce({column}, 0) + 1",
        "REAL" => $"coalesce({column}, 0) + 0.5",
        "BLOB" => "x'0102'",
        _ => $"coalesce({column}, '') || 'x'",
    };

    private void Tells(string words, SqliteConnection connection, string sql)
    {
        var before = File.ReadAllBytes(Copy);
        connection.Execute(sql);
        var faults = Verification.Run(Copy, Database.Seals).Faults;
        Assert.True(faults.Any(f => f.Contains(words, StringComparison.Ordinal)), $"{sql}: {string.Join('\n', faults)}");
        connection.Close();
        File.WriteAllBytes(Copy, before);
        connection.Open();
    }

    private static List<string> Guards(string file)
    {
        using var connection = new SqliteConnection($"Data Source={file};Mode=ReadOnly;Pooling=false");
        connection.Open();
        return [.. connection.Query<string>(
            "select sql from sqlite_master where name in ('event_is_not_changed', 'journal_is_not_changed')")];
    }

    // Worked out here from what the document says of the chain, and not by the program.
    private static string Rehash(SqliteConnection connection, long card)
    {
        var hash = "";
        foreach (var e in connection.Query<(int Seq, string At, string Person, string Name, string Role, string Command, string Body)>(
            "select seq, at, person_id, person_name, person_role, command_id, body from event where card_id = @card order by seq",
            new { card }).ToList())
        {
            string[] parts = [hash, $"{card}", $"{e.Seq}", e.At, e.Person, e.Name, e.Role, e.Command, e.Body];
            hash = Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(
                string.Concat(parts.Select(c => $"{c.Length}:{c}")))));
            connection.Execute("update event set hash = @hash where card_id = @card and seq = @Seq", new { hash, card, e.Seq });
        }
        return hash;
    }

    private static void RehashJournal(SqliteConnection connection)
    {
        byte[] hash = [];
        using var transaction = connection.BeginTransaction();
        foreach (var e in connection.Query<(long Id, string At, string Person, string Item, string Key, string? Row)>(
            "select id, at, person_id, item, key, row from journal order by id").ToList())
        {
            string?[] parts = [$"{e.Id}", e.At, e.Person, e.Item, e.Key, e.Row];
            hash = System.Security.Cryptography.SHA256.HashData([.. hash, .. System.Text.Encoding.UTF8.GetBytes(
                string.Concat(parts.Select(c => $"{c?.Length ?? -1}:{c}")))]);
            // Whoever has no key seals with one of their own.
            connection.Execute("update journal set hash = @hash, mac = @mac where id = @Id",
                new { hash, mac = System.Security.Cryptography.HMACSHA256.HashData(new byte[32], hash), e.Id });
        }
        transaction.Commit();
    }
}
