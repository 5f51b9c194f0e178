using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>The parts of the stores, kept from one reading to the next: only what changed since is read again.</summary>
internal sealed class PartBook
{
    // With more changes than this the whole list is made anew.
    private const int Many = 2_000;

    private readonly Lock _keeping = new();
    private (long Until, PartList List)? _kept;

    /// <summary>Reads everything anew the next time.</summary>
    internal void Forget()
    {
        lock (_keeping)
            _kept = null;
    }

    /// <summary>The parts as a connection sees them; what is kept for other cards is reserved.</summary>
    /// <param name="connection">The connection.</param>
    /// <param name="card">A card whose own reservations count as free, or null.</param>
    /// <param name="inWriting">Whether the connection is in the midst of writing: what it sees is not on the disk yet, and is not kept
    /// here.</param>
    internal PartList Read(SqliteConnection connection, CardNumber? card, bool inWriting)
    {
        var list = OnShelf(connection, inWriting);
        foreach (var (bare, count) in connection.Query<(string Bare, int Count)>("""
            select bare, sum(count) from reservation where card_id is not @card group by bare
            """, new { card }))
            if (list.Find(bare) is { } part)
                list = list.With(part with { Reserved = count });
        return list;
    }

    private PartList OnShelf(SqliteConnection connection, bool inWriting)
    {
        (long Until, PartList List)? kept;
        lock (_keeping)
            kept = _kept;
        var until = Changed(connection);
        if (kept is { } known && known.Until == until)
            return known.List;
        var list = kept is { } before ? Since(connection, before.Until, before.List) : null;
        list ??= PartList.Of(Rows(connection, null));
        // Somebody who looked later may have kept more meanwhile.
        lock (_keeping)
            if (!inWriting && (_kept is null || _kept.Value.Until <= until))
                _kept = (until, list);
        return list;
    }

    /// <summary>The journal's last entry on the stores; the partial index of the journal serves only what names the same
    /// tables.</summary>
    internal static long Changed(SqliteConnection connection) => connection.ExecuteScalar<long?>(
        "select max(id) from journal where item in ('part', 'container', 'reservation')") ?? 0;

    // Null where a part is new, gone, or stands for other numbers now.
    private static PartList? Since(SqliteConnection connection, long until, PartList list)
    {
        var changed = Rows(connection, until);
        var named = connection.ExecuteScalar<int>("""
            select count(distinct key) from journal where item in ('part', 'container', 'reservation') and item = 'part' and id > @until
            """, new { until });
        if (changed.Count != named || changed.Count + list.Changed > Many || changed.Any(p => !list.MayStand(p)))
            return null;
        return changed.Aggregate(list, (all, p) => all.With(p));
    }

    private static List<StockPart> Rows(SqliteConnection connection, long? since) =>
        [.. connection.Query<(string Number, string Name, int OnShelf, string SupersededBy, string Equivalents, int Minimum,
            string Place)>($"""
            select number, name, on_shelf, superseded_by, equivalents, minimum, place from part
            {(since is null ? "" : """
                where bare in (select json_extract(key, '$[0]') from journal where item in ('part', 'container', 'reservation')
                    and item = 'part' and id > @since)
                """)}
            order by name, number
            """, new { since }).Select(p => new StockPart(p.Number, p.Name, p.OnShelf, 0, p.SupersededBy,
                p.Equivalents.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries), p.Minimum, p.Place))];
}
