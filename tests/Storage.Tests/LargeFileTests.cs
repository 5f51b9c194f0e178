using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Records;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage.Tests;

/// <summary>
/// A workshop's file of an earlier version with years of cards in it: the demo as it was stored then, many times over, taken back to how
/// the file was before the last migration.
/// </summary>
public sealed class LargeFileTests : IDisposable
{
    private const int Times = 120;

    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    [Fact]
    public void A_large_file_of_an_earlier_version_is_brought_up_to_date_whole()
    {
        Unpack(Path.Combine(AppContext.BaseDirectory, "demo-2026-11.db.gz"), _workshop.File);
        var (cards, events) = Multiply();
        _workshop.Execute("""
            drop index card_open; alter table card drop column voided_at;
            create index card_unsigned on card (id) where signed_at is null;
            delete from SchemaVersions where ScriptName like '%0003%';
            """);

        var (database, store) = _workshop.Open();
        Assert.Empty(Verification.Run(database, out var verifiedCards, out var verifiedEvents));
        Assert.Equal((cards, events), (verifiedCards, verifiedEvents));
        // The first copy, one in the middle and the last read as the card they were made from.
        foreach (var id in new[] { 1001L, 1005L })
            foreach (var copy in new[] { 1, Times / 2, Times })
                Assert.Equal(Told(store.Find(id)!), Told(store.Find(id + copy * 1000)!));
        Assert.All(store.Unsigned(), c => Assert.True(c.IsOpen));
    }

    private static string Told(JobCard card) => JsonSerializer.Serialize(ServiceRecord.Of(card), CardJson.Options);

    private static void Unpack(string packed, string file)
    {
        using var from = new GZipStream(File.OpenRead(packed), CompressionMode.Decompress);
        using var to = File.Create(file);
        from.CopyTo(to);
    }

    // Every card again under other numbers, each event with the hash that follows from it: worked out here once more from what the
    // document says of the chain, and not by the program.
    private (int Cards, int Events) Multiply()
    {
        using var connection = new SqliteConnection($"Data Source={_workshop.File};Pooling=false");
        connection.Open();
        using var transaction = connection.BeginTransaction();
        var ids = connection.Query<long>("select id from card order by id").ToList();
        foreach (var id in ids)
        {
            var events = connection.Query<(int Seq, string At, string Person, string Name, string Role, string Command, string Body)>(
                "select seq, at, person_id, person_name, person_role, command_id, body from event where card_id = @id order by seq",
                new { id }).ToList();
            for (var copy = 1; copy <= Times; copy++)
                Copy(connection, id, id + copy * 1000, events);
        }
        transaction.Commit();
        return (connection.ExecuteScalar<int>("select count(*) from card"), connection.ExecuteScalar<int>("select count(*) from event"));
    }

    private static void Copy(SqliteConnection connection, long from, long to,
        List<(int Seq, string At, string Person, string Name, string Role, string Command, string Body)> events)
    {
        connection.Execute("""
            insert into card (id, plate, sheet_id, sheet_revision, bay, opened_at, head_seq, head_hash, signed_at)
            select @to, plate, sheet_id, sheet_revision, bay, opened_at, head_seq, '', signed_at from card where id = @from
            """, new { from, to });
        var hash = "";
        var known = new HashSet<string>();
        foreach (var e in events)
        {
            // A command belongs to one card; its copy is another one.
            var command = new Guid(MD5.HashData(Encoding.UTF8.GetBytes($"{e.Command} {to}"))).ToString();
            string[] columns = [hash, $"{to}", $"{e.Seq}", e.At, e.Person, e.Name, e.Role, command, e.Body];
            hash = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Concat(columns.Select(c => $"{c.Length}:{c}")))));
            connection.Execute("insert into event values (@to, @Seq, @At, @Person, @Name, @Role, @command, @Body, @hash)",
                new { to, e.Seq, e.At, e.Person, e.Name, e.Role, command, e.Body, hash });
            if (known.Add(command))
                connection.Execute("insert into command values (@command, @to, @Seq, @Seq)", new { command, to, e.Seq });
            else
                connection.Execute("update command set last_seq = @Seq where id = @command", new { command, e.Seq });
        }
        connection.Execute("update card set head_hash = @hash where id = @to", new { hash, to });
    }
}
