using Dapper;

namespace Anakyklos.Storage;

/// <summary>Checks a workshop file: SQLite's own check, then every chain of events.</summary>
public static class Verification
{
    /// <summary>Everything that is wrong; empty when all is well.</summary>
    /// <param name="database">The workshop.</param>
    /// <param name="cards">How many cards were looked at.</param>
    /// <param name="events">How many events were looked at.</param>
    /// <returns>One sentence for everything that is wrong; empty when the file is sound.</returns>
    public static IReadOnlyList<string> Run(WorkshopDatabase database, out int cards, out int events)
    {
        using var connection = database.Connect();
        var found = connection.Query<string>("pragma integrity_check").Where(line => line != "ok").Select(line => $"SQLite: {line}")
            .ToList();
        var heads = connection.Query<(long Id, int Seq, string Hash)>("select id, head_seq, head_hash from card order by id").ToList();
        cards = heads.Count;
        events = 0;
        foreach (var head in heads)
        {
            var (hash, seq) = ("", 0);
            foreach (var row in connection.Query<EventRow>("select * from event where card_id = @Id order by seq", new { head.Id },
                buffered: false))
            {
                events++;
                if (row.seq != ++seq)
                {
                    found.Add($"Card {head.Id}: event {seq} is missing.");
                    seq = row.seq;
                }
                else if (row.HashAfter(hash) != row.hash)
                    found.Add($"Card {head.Id}: event {row.seq} was changed after it was written.");
                hash = row.hash;
            }
            if (seq != head.Seq || hash != head.Hash)
                found.Add($"Card {head.Id}: it should end with event {head.Seq}, but ends with {seq}.");
        }
        return found;
    }
}
