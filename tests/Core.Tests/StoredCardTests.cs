using System.IO.Compression;
using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Tests;

/// <summary>
/// Cards as they were written to disk in the time of each version of the program, with what the program made of them then. They are
/// replayed
/// to the same, letter by letter. The files in Stored/ are never changed: a new version adds one.
/// </summary>
public class StoredCardTests
{
    private static readonly string Folder = Path.Combine(AppContext.BaseDirectory, "Stored");

    /// <summary>One file: the sheets as they were, and cards with every event and a digest after each.</summary>
    internal sealed record StoredCards(string Version, Dictionary<string, string> Sheets, List<StoredCard> Cards);

    /// <param name="Name">What the card went through.</param>
    /// <param name="Sheet">Sheet id.</param>
    /// <param name="Events">Events with their place.</param>
    /// <param name="After">Short name of the card's digest after each event.</param>
    /// <param name="End">The digest of the card as it ended.</param>
    internal sealed record StoredCard(string Name, string Sheet, List<StoredEvent> Events, List<string> After, string End);

    /// <param name="At">When.</param>
    /// <param name="By">Who.</param>
    /// <param name="Command">Through which command.</param>
    /// <param name="Event">What, as the text on disk.</param>
    internal sealed record StoredEvent(DateTimeOffset At, Person By, Guid Command, string Event);

    public static TheoryData<string> Versions => [.. Directory.GetFiles(Folder, "*.json.gz").Select(f => Path.GetFileName(f)!).Order()];

    [Theory]
    [MemberData(nameof(Versions))]
    public void Cards_of_an_earlier_version_replay_to_the_same_letter_by_letter(string file)
    {
        var stored = Read(Path.Combine(Folder, file));
        Assert.NotEmpty(stored.Cards);
        foreach (var card in stored.Cards)
        {
            var sheet = SheetReader.Read(stored.Sheets[card.Sheet]).Sheet!;
            List<Recorded> history = [.. card.Events.Select((e, i) => new Recorded(i + 1, e.At, e.By, e.Command, CardJson.Read(e.Event)))];
            for (var seq = 1; seq <= history.Count; seq++)
                if (CardDigest.Short(CardDigest.Of(JobCard.Replay(sheet, history[..seq]))) != card.After[seq - 1])
                    Assert.Fail($"{card.Name}: after event {seq} ({history[seq - 1].Event}) it is "
                        + $"now\n{CardDigest.Of(JobCard.Replay(sheet, history[..seq]))}");
            Assert.Equal(card.End, CardDigest.Of(JobCard.Replay(sheet, history)));
            Assert.Equal(card.Events.Select(e => e.Event), history.Select(r => CardJson.Write(r.Event)));
        }
    }

    [Fact]
    public void An_event_of_a_kind_that_nobody_knows_is_not_read_as_nothing() =>
        Assert.Throws<JsonException>(() => CardJson.Read("""{"event":"Blessed","step":"start"}"""));

    internal static StoredCards Read(string path)
    {
        using var file = new GZipStream(File.OpenRead(path), CompressionMode.Decompress);
        return JsonSerializer.Deserialize<StoredCards>(file, JsonSerializerOptions.Web)!;
    }

    /// <summary>Writes a file of the present version; used once a version, by hand.</summary>
    internal static void Write(string path, string version, IEnumerable<(string Name, JobCard Card)> cards)
    {
        List<(string Name, JobCard Card)> all = [.. cards];
        var sheets = all.Select(c => c.Card.Sheet.Id).Distinct().ToDictionary(id => id.Text,
            id => File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", id + ".json")));
        using var file = new GZipStream(File.Create(path), CompressionLevel.SmallestSize);
        JsonSerializer.Serialize(file, new StoredCards(version, sheets, [.. all.Select(c => Stored(c.Name, c.Card))]),
            JsonSerializerOptions.Web);
    }

    private static StoredCard Stored(string name, JobCard card)
    {
        List<Recorded> history = [.. card.History];
        return new(name, card.Sheet.Id.Text, [.. history.Select(r => new StoredEvent(r.At, r.By, r.Command, CardJson.Write(r.Event)))],
            [.. Enumerable.Range(1, history.Count).Select(n => CardDigest.Short(CardDigest.Of(JobCard.Replay(card.Sheet, history[..n]))))],
            CardDigest.Of(card));
    }
}
