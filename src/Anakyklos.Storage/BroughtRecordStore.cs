using Dapper;

namespace Anakyklos.Storage;

/// <summary>A record that another workshop wrote.</summary>
/// <param name="Hash">The hash of its last event: its name here.</param>
/// <param name="Workshop">Who wrote it.</param>
/// <param name="Card">The number of its card there.</param>
/// <param name="Plate">Of which vehicle.</param>
/// <param name="SignedAt">When it was signed there.</param>
/// <param name="BroughtAt">When it was brought in here.</param>
public sealed record BroughtRecord(string Hash, string Workshop, long Card, string Plate, DateTimeOffset SignedAt,
    DateTimeOffset BroughtAt);

/// <summary>Records of other workshops, kept as the files that they came as.</summary>
public sealed class BroughtRecordStore(WorkshopDatabase database)
{
    private const string Columns = "hash, workshop, card, plate, signed_at, brought_at";

    /// <summary>Keeps a record that was verified; the same one twice is one.</summary>
    /// <param name="record">What it is.</param>
    /// <param name="content">The file.</param>
    /// <param name="by">Who brought it.</param>
    /// <returns>Whether it was new.</returns>
    public Task<bool> Keep(BroughtRecord record, string content, PersonId by) => database.Writes.Run(scope => scope.Connection.Execute("""
        insert into brought_record (hash, workshop, card, plate, signed_at, brought_at, person_id, content)
        values (@Hash, @Workshop, @Card, @Plate, @signed, @brought, @by, @content) on conflict (hash) do nothing
        """, new
    {
        record.Hash, record.Workshop, record.Card, record.Plate, signed = CardStore.Iso(record.SignedAt),
        brought = CardStore.Iso(record.BroughtAt), by, content,
    }) == 1);

    /// <summary>All of them, the newest first.</summary>
    public IReadOnlyList<BroughtRecord> All() => List("order by signed_at desc", new { });

    /// <summary>Those of a vehicle, the newest first.</summary>
    /// <param name="plate">The vehicle.</param>
    public IReadOnlyList<BroughtRecord> Of(string plate) => List("where plate = @plate order by signed_at desc", new { plate });

    /// <summary>The file of one, as it came; null where there is none.</summary>
    /// <param name="hash">Its name here.</param>
    public string? Content(string hash)
    {
        using var connection = database.Connect();
        return connection.QuerySingleOrDefault<string>("select content from brought_record where hash = @hash", new { hash });
    }

    private List<BroughtRecord> List(string where, object values)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string Hash, string Workshop, long Card, string Plate, string Signed, string Brought)>(
            $"select {Columns} from brought_record {where}", values)
            .Select(r => new BroughtRecord(r.Hash, r.Workshop, r.Card, r.Plate, CardStore.Time(r.Signed), CardStore.Time(r.Brought)))];
    }
}
