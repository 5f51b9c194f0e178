using System.Security.Cryptography;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage.Sealing;

/// <summary>Checks the events of every card, and what follows from them.</summary>
internal static class CardCheck
{
    private sealed record Head(long Id, int Seq, string Hash, string? Signed, string? Voided);

    private sealed record Sent(string Id, long Card, int First, int Last);

    /// <summary>Checks every card.</summary>
    /// <returns>How many cards and events there are.</returns>
    internal static (int Cards, int Events) Run(SqliteConnection connection, HeadsTold told, Faults faults)
    {
        var heads = connection.Query<(long, int, string, string?, string?)>(
            "select id, head_seq, head_hash, signed_at, voided_at from card order by id")
            .Select(r => new Head(r.Item1, r.Item2, r.Item3, r.Item4, r.Item5)).ToList();
        var sent = connection.Query<(string, long, int, int)>("select id, card_id, first_seq, last_seq from command")
            .Select(r => new Sent(r.Item1, r.Item2, r.Item3, r.Item4)).ToLookup(c => c.Card);
        var events = 0;
        var wrong = new List<string>();
        foreach (var head in heads)
        {
            var of = connection.Query<EventRow>("select * from event where card_id = @Id order by seq", new { head.Id }).ToList();
            events += of.Count;
            wrong.AddRange(Chain(head, of).Concat(Told(head.Id, of, told.Of.GetValueOrDefault(head.Id) ?? []))
                .Concat(Commands([.. sent[head.Id].OrderBy(c => c.First)], of)).Select(w => $"Card {head.Id}: {w}"));
        }
        var known = heads.Select(h => h.Id).ToHashSet();
        wrong.AddRange(connection.Query<long>("select distinct card_id from event").Concat(told.Of.Keys).Where(c => !known.Contains(c))
            .Distinct().Order().Select(c => $"Card {c}: there were events of it, but it is not there."));
        wrong.AddRange(sent.Where(g => !known.Contains(g.Key)).Select(g => $"Card {g.Key}: commands to it are kept, but it is not there."));
        faults.Add(wrong);
        return (heads.Count, events);
    }

    private static IEnumerable<string> Chain(Head head, List<EventRow> events)
    {
        var (hash, seq) = ("", 0);
        foreach (var row in events)
        {
            if (row.seq != ++seq)
            {
                yield return $"event {seq} is missing.";
                seq = row.seq;
            }
            else if (row.HashAfter(hash) != row.hash)
                yield return $"event {row.seq} was changed after it was written.";
            hash = row.hash;
        }
        if (seq != head.Seq || hash != head.Hash)
            yield return $"it should end with event {head.Seq}, but ends with {seq}.";
        if (Last(events, "Signed") != head.Signed)
            yield return $"it says that it was signed {At(head.Signed)}; its events say {At(Last(events, "Signed"))}.";
        if (Last(events, "CardVoided") != head.Voided)
            yield return $"it says that it was made void {At(head.Voided)}; its events say {At(Last(events, "CardVoided"))}.";
    }

    private static string? Last(List<EventRow> events, string kind) =>
        events.LastOrDefault(e => e.body.StartsWith($"{{\"event\":\"{kind}\"", StringComparison.Ordinal))?.at;

    private static string At(string? at) => at is null ? "never" : $"at {at}";

    private static IEnumerable<string> Told(long card, List<EventRow> events, SortedDictionary<int, string> told)
    {
        var hashes = events.ToDictionary(e => e.seq, e => e.hash);
        foreach (var (seq, hash) in told)
            if (!hashes.TryGetValue(seq, out var there))
                yield return $"the journal knows event {seq}, which is not there.";
            else if (there != hash)
                yield return $"up to event {seq} it is not what the journal says that was written.";
        if (events.Count > 0 && (told.Count == 0 || told.Keys.Last() < events[^1].seq))
            yield return $"the journal knows {(told.Count == 0 ? "none of its events" : $"it up to event {told.Keys.Last()}")}, but it "
                + $"ends with {events[^1].seq}.";
    }

    // Each event came from one command, or the whole card was taken in with one.
    private static IEnumerable<string> Commands(List<Sent> sent, List<EventRow> events)
    {
        var next = 1;
        var of = events.ToDictionary(e => e.seq, e => e.command_id);
        foreach (var command in sent)
        {
            if (command.First != next || command.Last < command.First || of.GetValueOrDefault(command.First) != command.Id
                || of.GetValueOrDefault(command.Last) is not { } end
                || end != command.Id && (command.First, command.Last) != (1, events.Count))
                yield return $"command {command.Id} is kept with events {command.First} to {command.Last}, which does not fit them.";
            next = command.Last + 1;
        }
        if (next != events.Count + 1)
            yield return $"events from {next} have no command that they came from.";
    }

    /// <summary>Checks that every picture is the one that it is named after.</summary>
    internal static void Photos(SqliteConnection connection, Faults faults) =>
        faults.Add(connection.Query<(string Id, byte[] Content)>("select id, content from photo", buffered: false)
            .Where(p => Convert.ToHexStringLower(SHA256.HashData(p.Content)) != p.Id)
            .Select(p => $"photo {p.Id[..Math.Min(12, p.Id.Length)]}…: its content was changed."));
}
