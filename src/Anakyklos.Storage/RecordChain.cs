using Anakyklos.Core.Cards;

namespace Anakyklos.Storage;

/// <summary>An event as it was written, with what holds it to those before.</summary>
/// <param name="Seq">Its place, from 1.</param>
/// <param name="At">When, as it was written.</param>
/// <param name="PersonId">Who.</param>
/// <param name="PersonName">The name then.</param>
/// <param name="PersonRole">The role then.</param>
/// <param name="Command">The id of the command that it came from.</param>
/// <param name="Body">The event as JSON, letter by letter.</param>
/// <param name="Hash">SHA-256 over the hash before and all of this, each with its length; lower-case hexadecimal.</param>
public sealed record ChainLink(int Seq, string At, string PersonId, string PersonName, string PersonRole, string Command, string Body,
    string Hash)
{
    /// <summary>What happened.</summary>
    /// <exception cref="System.Text.Json.JsonException">The body is no event that this program knows.</exception>
    /// <exception cref="FormatException">The time or the command's id is none.</exception>
    /// <exception cref="ArgumentException">The role is none.</exception>
    public Recorded ToRecorded() => Row(0).ToRecorded();

    internal static ChainLink Of(EventRow row) => new(row.seq, row.at, row.person_id, row.person_name, row.person_role, row.command_id,
        row.body, row.hash);

    internal EventRow Row(long card) => new()
    {
        card_id = card, seq = Seq, at = At, person_id = PersonId, person_name = PersonName, person_role = PersonRole,
        command_id = Command, body = Body, hash = Hash,
    };
}

/// <summary>Looks whether a chain of events is as it was written.</summary>
public static class RecordChain
{
    /// <summary>The first thing that is wrong with a chain.</summary>
    /// <param name="card">The number of the card in the workshop that wrote it.</param>
    /// <param name="links">All events, in order.</param>
    /// <returns>What is wrong, as a sentence; null where every event is there and none was changed.</returns>
    public static string? Wrong(CardNumber card, IReadOnlyList<ChainLink> links)
    {
        var (hash, seq) = ("", 0);
        foreach (var link in links)
        {
            if (link.Seq != ++seq)
                return $"Event {seq} is missing.";
            if (link.Row(card.Value).HashAfter(hash) != link.Hash)
                return $"Event {seq} was changed after it was written.";
            hash = link.Hash;
        }
        return null;
    }
}
