using System.Text.Json;
using System.Text.Json.Nodes;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Records;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;

namespace Anakyklos.Desk.Files;

/// <summary>The record of a card as it stands in a file, verified.</summary>
/// <param name="Workshop">Who wrote it.</param>
/// <param name="Number">The number of its card there.</param>
/// <param name="Card">The card, played again from its events by its own sheet.</param>
/// <param name="Record">What it shows.</param>
/// <param name="Hash">The hash of its last event.</param>
public sealed record VerifiedRecord(string Workshop, CardNumber Number, JobCard Card, ServiceRecord Record, string Hash);

/// <summary>A signed card as an open file: what the record says for whoever reads it, and every event with its hash and the model sheet
/// for whoever verifies it.</summary>
public static class RecordFile
{
    /// <summary>The format.</summary>
    public const string Format = "anakyklos/record/1";

    /// <summary>The longest file that is read, in characters.</summary>
    public const int Longest = 8_000_000;

    private static readonly JsonSerializerOptions Indented = new(CardJson.Options) { WriteIndented = true };

    /// <summary>Writes it.</summary>
    /// <param name="workshop">Who writes it.</param>
    /// <param name="number">The number of the card.</param>
    /// <param name="card">The card.</param>
    /// <param name="sheet">The sheet by which it was worked, as it was brought in.</param>
    /// <param name="chain">Its events as they were written.</param>
    /// <returns>JSON, indented.</returns>
    public static string Write(string workshop, CardNumber number, JobCard card, string sheet, IReadOnlyList<ChainLink> chain) =>
        JsonSerializer.Serialize(new
        {
            format = Format,
            workshop,
            card = number.Value,
            plate = card.Opened.Plate,
            model = card.Sheet.FullName,
            signedBy = card.Signature?.By.Name,
            signedAt = card.Signature?.At,
            hash = chain[^1].Hash,
            record = ServiceRecord.Of(card),
            events = chain.Select(l => new
            {
                seq = l.Seq, at = l.At, person = new { id = l.PersonId, name = l.PersonName, role = l.PersonRole }, command = l.Command,
                body = l.Body, hash = l.Hash,
            }),
            sheet = JsonNode.Parse(sheet),
        }, Indented);

    /// <summary>Reads one and verifies it: every event is there and none was changed, the card can be played again, it was signed, and what
    /// the file says to read is what the events say.</summary>
    /// <param name="text">The file's text.</param>
    /// <returns>The record, or what is wrong.</returns>
    public static (VerifiedRecord? Record, IReadOnlyList<Refusal> Wrong) Read(string text)
    {
        if (text.Length > Longest)
            return No("The file is longer than any record.", "Choose the file that the other workshop wrote.");
        try
        {
            return Verified(JsonNode.Parse(text.TrimStart('\uFEFF')));
        }
        catch (Exception e) when (e is JsonException or FormatException or InvalidOperationException or ArgumentException
            or KeyNotFoundException or OverflowException)
        {
            return No("The file cannot be read as a record.", "Ask the other workshop to write it again.");
        }
    }

    private static (VerifiedRecord?, IReadOnlyList<Refusal>) Verified(JsonNode? file)
    {
        if ((string?)file?["format"] != Format)
            return No($"This is no record in the format {Format}.", "Choose the file that the other workshop wrote.");
        CardNumber number = Need(file["card"]).GetValue<long>();
        List<ChainLink> links = [.. Need(file["events"]).AsArray().Select(e => Link(Need(e)))];
        if (links.Count == 0)
            return No("There is no event in it.", "Ask the other workshop to write it again.");
        if (RecordChain.Wrong(number, links) is { } broken)
            return No(broken, "It is not what was signed. Ask the other workshop to write it again.");
        if (SheetReader.Read(Need(file["sheet"]).ToJsonString()) is not { Sheet: { } sheet })
            return No("The model sheet in it cannot be read.", "Ask the other workshop to write it again.");
        Recorded[] events = [.. links.Select(l => l.ToRecorded())];
        if (events[0].Event is not CardOpened opened || opened.SheetId != sheet.Id || opened.SheetRevision != sheet.Revision)
            return No("The model sheet in it is not that of the card.", "Ask the other workshop to write it again.");
        var card = JobCard.Replay(sheet, events);
        if (card.Signature is null)
            return No("The card was not signed.", "Wait until the other workshop has signed it.");
        var record = ServiceRecord.Of(card);
        if (!JsonNode.DeepEquals(file["record"], JsonSerializer.SerializeToNode(record, CardJson.Options))
            || Text(file["plate"]) != opened.Plate || Text(file["hash"]) != links[^1].Hash)
            return No("What it says to read is not what was signed.", "Ask the other workshop to write it again.");
        return (new(Text(file["workshop"]), number, card, record, links[^1].Hash), []);
    }

    private static ChainLink Link(JsonNode e)
    {
        var person = Need(e["person"]);
        return new(Need(e["seq"]).GetValue<int>(), Text(e["at"]), Text(person["id"]), Text(person["name"]), Text(person["role"]),
            Text(e["command"]), Text(e["body"]), Text(e["hash"]));
    }

    private static JsonNode Need(JsonNode? node) => node ?? throw new JsonException("Something is missing.");

    private static string Text(JsonNode? node) => Need(node).GetValue<string>();

    private static (VerifiedRecord?, IReadOnlyList<Refusal>) No(string what, string @do) => (null, [new(what, @do)]);
}
