using System.Text.Json;
using Anakyklos.Core.Workshop;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>A bay as it is to be.</summary>
/// <param name="Was">Its name so far; empty for one that is new.</param>
/// <param name="Name">Its name from now on; empty where it is given up.</param>
/// <param name="Lift">Whether it has a lift.</param>
public sealed record ChangedBay(string Was, string Name, bool Lift);

/// <summary>The bays: a new name counts wherever something stands or is planned there; what is past keeps the old one.</summary>
public sealed class BayStore(WorkshopDatabase database)
{
    private const string InTheWay = """
        select bay, plate as what from card where signed_at is null and voided_at is null and bay in @gone
        union all select bay, id from device where bay in @gone
        union all select bay, device_id || ', a reading' from device_reading where state = 'waiting' and bay in @gone
        union all select bay, plate || ', planned' from visit where fixed = 1 and bay in @gone
        order by 1, 2
        """;

    /// <summary>Changes the bays: all of it or nothing.</summary>
    /// <param name="bays">Each of them, in order, with those that are given up; checked.</param>
    /// <returns>What stands in the way: a bay that is given up, and what is in it. Empty when it is so.</returns>
    /// <exception cref="ArgumentException">A name of before is not there, or one is left out: the list is not of these bays.</exception>
    public Task<IReadOnlyList<(string Bay, string What)>> Change(IReadOnlyList<ChangedBay> bays) => database.Writes.Run(scope =>
    {
        var now = SettingStore.Read(scope.Connection);
        if (!bays.Select(b => b.Was).Where(w => w.Length > 0).Order().SequenceEqual(now.Bays.Inside.Order()))
            throw new ArgumentException("These are not the bays of this workshop.", nameof(bays));
        var gone = bays.Where(b => b.Name.Length == 0).Select(b => b.Was).ToList();
        IReadOnlyList<(string, string)> there = [.. scope.Connection.Query<(string, string)>(InTheWay, new { gone })];
        if (there.Count > 0)
            return there;
        var kept = bays.Where(b => b.Name.Length > 0).ToList();
        List<string> ground = [.. kept.Where(b => !b.Lift).Select(b => b.Name)];
        SettingStore.Write(scope.Connection, now with
        {
            Inside = [.. kept.Select(b => b.Name)], Ground = ground.Count > 0 ? ground : null,
        });
        var renamed = kept.Where(b => b.Was.Length > 0 && b.Was != b.Name).ToDictionary(b => b.Was, b => b.Name);
        if (renamed.Count == 0)
            return there;
        var names = new { names = JsonSerializer.Serialize(renamed) };
        foreach (var (table, which) in new[]
        {
            ("card", "signed_at is null and voided_at is null and "), ("device", ""),
            ("device_reading", "state = 'waiting' and "), ("visit", ""),
        })
            scope.Connection.Execute($"""
                update {table} set bay = (select value from json_each(@names) where key = bay)
                where {which}bay in (select key from json_each(@names))
                """, names);
        return there;
    });
}
