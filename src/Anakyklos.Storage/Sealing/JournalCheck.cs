using System.Text.Json;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage.Sealing;

/// <summary>What the journal says of the events of cards: of each card the seqs at which it was told, each with the hash.</summary>
/// <param name="Of">By card.</param>
internal sealed record HeadsTold(Dictionary<long, SortedDictionary<int, string>> Of);

/// <summary>Checks the journal, and the tables against it.</summary>
internal static class JournalCheck
{
    /// <summary>Checks the journal's chain and seals, and the places that were written down.</summary>
    internal static (long Entries, HeadsTold Heads, Anchor? Place) Chain(SqliteConnection connection, SealFolder? seals, bool isBackup,
        Faults faults)
    {
        var keys = seals is null ? [] : seals.Keys().Reverse().ToList();
        if (seals is not null && keys.Count == 0)
            faults.Add($"The key that seals the journal is not there ({seals.KeyFile}): put it back from where it is kept. Until then it "
                + "cannot be seen whether the journal was written anew as a whole.");
        var anchors = Standing(seals?.Anchors() ?? []);
        var heads = new Dictionary<long, SortedDictionary<int, string>>();
        var (before, last, lastSeal, count) = (Array.Empty<byte>(), 0L, "-", 0L);
        var (broken, foreign, sealless) = (new List<string>(), new List<string>(), new List<long>());
        using var command = connection.CreateCommand();
        command.CommandText = "select id, at, person_id, item, key, row, hash, mac from journal order by id";
        using var reader = command.ExecuteReader();
        while (reader.Read())
        {
            var entry = new JournalEntry(reader.GetInt64(0), reader.GetString(3), reader.GetString(4),
                reader.IsDBNull(5) ? null : reader.GetString(5));
            var (hash, mac) = (reader.GetFieldValue<byte[]>(6), reader.GetFieldValue<byte[]>(7));
            count++;
            last = entry.Id;
            if (hash.Length == 0 && mac.Length == 0)
            {
                foreign.Add($"Journal: entry {entry.Id} ({entry.Item} {entry.Key}) was not written by this program.");
                continue;
            }
            if (!entry.HashAfter(before, reader.GetString(1), reader.GetString(2)).AsSpan().SequenceEqual(hash))
                broken.Add($"Journal: entry {entry.Id} ({entry.Item} {entry.Key}) was changed after it was written, or one before it was "
                    + "changed or taken out.");
            if (keys.Count > 0 && !Fits(keys, hash, mac))
                sealless.Add(entry.Id);
            (before, lastSeal) = (hash, Anchor.Short(mac.Length >= 8 ? mac : new byte[8]));
            if (anchors.Remove(entry.Id, out var place) && place.Seal != lastSeal)
                broken.Add($"Journal: entry {entry.Id} is not the one that was written down on {place.At:yyyy-MM-dd}.");
            if (entry.Item == Journal.OfCards)
                Take(heads, entry, broken);
        }
        faults.Add(broken);
        faults.Add(foreign);
        if (sealless.Count > 0)
            faults.Add($"Journal: {sealless.Count} entries ({sealless[0]} to {sealless[^1]}) do not carry a seal of any key here: they "
                + $"were written anew by somebody else, or their key is missing from {seals!.KeyFile}.");
        if (!isBackup && anchors.Keys.Where(id => id > last).Order().LastOrDefault() is > 0 and var beyond)
            faults.Add($"Journal: it ends with entry {last}, but entry {beyond} was written down on {anchors[beyond].At:yyyy-MM-dd}: the "
                + "end was cut off, or an older file was put here by hand.");
        return (count, new(heads), new(default, AnchorKind.Day, last, lastSeal));
    }

    // The key that fitted last is tried first.
    private static bool Fits(List<SealKey> keys, byte[] hash, byte[] mac)
    {
        for (var i = 0; i < keys.Count; i++)
        {
            if (!keys[i].Mac(hash).AsSpan().SequenceEqual(mac))
                continue;
            (keys[0], keys[i]) = (keys[i], keys[0]);
            return true;
        }
        return false;
    }

    // After the workshop was put back to a place, what was written down beyond that place is of no account.
    private static Dictionary<long, Anchor> Standing(IReadOnlyList<Anchor> anchors)
    {
        var standing = new Dictionary<long, Anchor>();
        foreach (var anchor in anchors)
        {
            if (anchor.Kind == AnchorKind.Restored)
                foreach (var beyond in standing.Keys.Where(id => id > anchor.Entry).ToList())
                    standing.Remove(beyond);
            if (anchor.Entry > 0)
                standing[anchor.Entry] = anchor;
        }
        return standing;
    }

    private static void Take(Dictionary<long, SortedDictionary<int, string>> heads, JournalEntry entry, List<string> broken)
    {
        try
        {
            using var key = JsonDocument.Parse(entry.Key);
            using var row = JsonDocument.Parse(entry.Row ?? "");
            var card = key.RootElement[0].GetInt64();
            if (!heads.TryGetValue(card, out var told))
                heads[card] = told = [];
            told[row.RootElement.GetProperty("seq").GetInt32()] = row.RootElement.GetProperty("hash").GetString()!;
        }
        catch (Exception e) when (e is JsonException or InvalidOperationException or KeyNotFoundException or FormatException)
        {
            broken.Add($"Journal: entry {entry.Id} does not tell the newest event of a card.");
        }
    }

    /// <summary>Compares a table with what the journal says of it.</summary>
    /// <returns>How many rows there are.</returns>
    internal static long Compare(SqliteConnection connection, JournaledTable table, Faults faults)
    {
        var differences = connection.Query<(string Key, string? Here, string? Told, string? At)>($"""
            with told as materialized (select key, row, at, max(id) from journal where item = @item and hash <> x'' group by key)
            select coalesce(here.key, told.key), here.row, told.row, told.at
            from (select {table.Key()} as key, {table.Row()} as row from {table.Name}) here full join told on told.key = here.key
            where here.row is not told.row order by 1
            """, new { item = table.Name });
        faults.Add(differences.Select(d => $"{table.Name} {d.Key}: {Says(d.Here, d.Told, d.At)}"));
        return connection.ExecuteScalar<long>($"select count(*) from {table.Name}");
    }

    private static string Says(string? here, string? told, string? at)
    {
        if (told is null)
            return at is null ? "is not in the journal: it was put in from outside." : $"is there, but was removed on {Day(at)}.";
        if (here is null)
            return $"is missing; the journal has it since {Day(at!)}.";
        try
        {
            using var is_ = JsonDocument.Parse(here);
            using var was = JsonDocument.Parse(told);
            var differ = is_.RootElement.EnumerateObject().Where(c => !was.RootElement.TryGetProperty(c.Name, out var t)
                || t.GetRawText() != c.Value.GetRawText()).Select(c => $"{c.Name} is {Short(c.Value)}"
                    + (was.RootElement.TryGetProperty(c.Name, out var t) ? $", should be {Short(t)}" : ""));
            return $"{string.Join("; ", differ)} (the journal of {Day(at!)}).";
        }
        catch (JsonException)
        {
            return $"is not as the journal of {Day(at!)} has it.";
        }
    }

    private static string Short(JsonElement value) => value.GetRawText() is { Length: > 60 } text ? text[..57] + "…" : value.GetRawText();

    private static string Day(string at) => at.Length >= 10 ? at[..10] : at;
}
