using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage.Sealing;

/// <summary>An entry of the journal before it is sealed.</summary>
/// <param name="Id">Its place.</param>
/// <param name="Item">The table, or <see cref="Journal.OfCards"/>.</param>
/// <param name="Key">The key of the row.</param>
/// <param name="Row">The row; null once it was removed.</param>
internal sealed record JournalEntry(long Id, string Item, string Key, string? Row)
{
    /// <summary>SHA-256 over the hash before and everything in the entry, each with its length, so that nothing can move from one to the
    /// next.</summary>
    internal byte[] HashAfter(byte[] before, string at, string person)
    {
        var text = new StringBuilder(256);
        foreach (var part in (ReadOnlySpan<string?>)[Id.ToString(CultureInfo.InvariantCulture), at, person, Item, Key, Row])
            text.Append(part?.Length ?? -1).Append(':').Append(part);
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        hash.AppendData(before);
        hash.AppendData(Encoding.UTF8.GetBytes(text.ToString()));
        return hash.GetHashAndReset();
    }
}

/// <summary>
/// Seals what the tables' triggers have put into the journal, piece by piece, with who wrote it and when. Only what came in this piece is
/// sealed: an entry that another program has put there stays without a seal, for everybody to see.
/// </summary>
internal sealed class Journal(PreparedStatements prepared, SealKey key, TimeProvider time)
{
    /// <summary>What the entries with the newest event of a card are told under.</summary>
    internal const string OfCards = "event";

    private (long Id, byte[] Hash) _last;

    /// <summary>Looks where the journal stands: at the beginning of every transaction, since other processes write, too.</summary>
    /// <param name="after">Entries after this one are sealed by this program; null for those that come from now on.</param>
    internal void Begin(long? after = null)
    {
        var hash = prepared.First("select hash from journal where hash <> x'' order by id desc limit 1", r => r.GetFieldValue<byte[]>(0));
        _last = (after ?? prepared.First("select coalesce(max(id), 0) from journal", r => r.GetInt64(0)), hash ?? []);
    }

    /// <summary>Where it stands, to come back to.</summary>
    internal (long Id, byte[] Hash) Mark() => _last;

    /// <summary>Comes back to where it stood: what was sealed since was undone.</summary>
    internal void BackTo((long Id, byte[] Hash) mark) => _last = mark;

    /// <summary>Seals what came since.</summary>
    /// <param name="person">Who; empty for the program by itself.</param>
    internal void Seal(string person)
    {
        var at = "";
        foreach (var entry in prepared.All("select id, item, key, row from journal where id > @last order by id",
            r => new JournalEntry(r.GetInt64(0), r.GetString(1), r.GetString(2), r.IsDBNull(3) ? null : r.GetString(3)),
            ("@last", _last.Id)))
        {
            at = Now(at);
            _last = (entry.Id, entry.HashAfter(_last.Hash, at, person));
            prepared.Run("update journal set at = @at, person_id = @person, hash = @hash, mac = @mac where id = @id", ("@at", at),
                ("@person", person), ("@hash", _last.Hash), ("@mac", key.Mac(_last.Hash)), ("@id", entry.Id));
        }
    }

    /// <summary>Tells the newest event of every card that has moved, at the end of a transaction.</summary>
    /// <param name="person">Who; empty for several.</param>
    /// <param name="moved">Of each card its newest event and that one's hash.</param>
    internal void SealCards(string person, IReadOnlyDictionary<long, (int Seq, string Hash)> moved)
    {
        var at = "";
        foreach (var (card, (seq, hash)) in moved)
        {
            at = Now(at);
            var entry = new JournalEntry(_last.Id + 1, OfCards, CardKey(card), CardRow(seq, hash));
            _last = (entry.Id, entry.HashAfter(_last.Hash, at, person));
            prepared.Run("""
                insert into journal (id, at, person_id, item, key, row, hash, mac)
                values (@id, @at, @person, @item, @key, @row, @hash, @mac)
                """, ("@id", entry.Id), ("@at", at), ("@person", person), ("@item", entry.Item), ("@key", entry.Key), ("@row", entry.Row),
                ("@hash", _last.Hash), ("@mac", key.Mac(_last.Hash)));
        }
    }

    /// <summary>The key under which a card's newest event is told.</summary>
    internal static string CardKey(long card) => $"[{card.ToString(CultureInfo.InvariantCulture)}]";

    /// <summary>How a card's newest event is told.</summary>
    internal static string CardRow(int seq, string hash) =>
        $"{{\"seq\":{seq.ToString(CultureInfo.InvariantCulture)},\"hash\":\"{hash}\"}}";

    /// <summary>Whether a file has a journal yet.</summary>
    internal static bool Exists(SqliteConnection connection) =>
        connection.ExecuteScalar<long>("select count(*) from sqlite_master where type = 'table' and name = 'journal'") == 1;

    /// <summary>The place in the journal as it is on the disk.</summary>
    internal static Anchor Place(SqliteConnection connection, AnchorKind kind, DateTimeOffset at) =>
        connection.QueryFirstOrDefault<(long Id, byte[] Mac)>("select id, mac from journal where mac <> x'' order by id desc limit 1")
            is { Id: > 0 } last ? new(at, kind, last.Id, Anchor.Short(last.Mac)) : new(at, kind, 0, "-");

    private string Now(string at) => at.Length > 0 ? at : CardStore.Iso(time.GetUtcNow());
}
