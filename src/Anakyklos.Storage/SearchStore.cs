using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>What kind of thing was found.</summary>
public enum FoundKind
{
    /// <summary>A vehicle, by its plate, a former plate, what it does, its model or year.</summary>
    Vehicle,

    /// <summary>A part of the stores, by its number, its name, or a number that stands for the same.</summary>
    Part,

    /// <summary>A container, by its batch or product.</summary>
    Batch,

    /// <summary>A card, by its number, plate, jobs, or who opened or signed it.</summary>
    Card,

    /// <summary>Words that somebody left on a card: a finding, a deviation, a reason, an amendment.</summary>
    Finding,

    /// <summary>A person, by name.</summary>
    Person,
}

/// <summary>Where a part or what was in a container went.</summary>
/// <param name="Plate">The vehicle.</param>
/// <param name="Card">The card.</param>
/// <param name="At">When.</param>
public sealed record WentInto(string Plate, CardNumber Card, DateTimeOffset At);

/// <summary>Something that was found.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Key">By which it is known: plate, bare part number, container or card number, person id; of words the card.</param>
/// <param name="Plate">The vehicle that it belongs to, or empty.</param>
/// <param name="At">When it was written; null where that does not matter.</param>
/// <param name="Title">What it says.</param>
/// <param name="Went">Of parts and containers, the vehicles that got of it, the last first.</param>
public sealed record Found(FoundKind Kind, string Key, string Plate, DateTimeOffset? At, string Title, IReadOnlyList<WentInto> Went);

/// <summary>Looks for anything that the workshop has written down.</summary>
public sealed class SearchStore(WorkshopDatabase database)
{
    /// <summary>So many words are looked for; what is typed beyond that is not.</summary>
    public const int MostWords = 8;

    private const int MostWent = 40, Together = 200;

    /// <summary>So few letters and digits fit almost everything: nothing is looked for.</summary>
    public const int TooFew = 1;

    /// <summary>What fits every word that was typed; each word may be the beginning of a longer one.</summary>
    /// <param name="text">What was typed.</param>
    /// <param name="most">So many of each kind at most.</param>
    /// <returns>By kind, in each the newest first; nothing where no more than <see cref="TooFew"/> letters or digits were typed.</returns>
    public IReadOnlyList<Found> Find(string text, int most)
    {
        var words = text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries).Where(w => w.Any(char.IsLetterOrDigit))
            .Take(MostWords).Select(Word).ToList();
        if (text.Count(char.IsLetterOrDigit) <= TooFew)
            return [];
        using var connection = database.Connect();
        var (match, kinds) = (string.Join(" AND ", words), Enum.GetValues<FoundKind>());
        // What fits is gone through to its end where there is little of it, and most of what there is are cards: all the others are looked
        // through at once, and kind by kind only where there is much of them.
        var others = Find(connection, [.. kinds.Where(k => k != FoundKind.Card)], match, Together);
        return [.. kinds.SelectMany(kind => kind != FoundKind.Card && others.Count < Together
            ? others.Where(f => f.Kind == kind).Take(most) : Find(connection, [kind], match, most))
            .Select(f => f with { Went = Went(connection, f.Kind, f.Key) })];
    }

    private static List<Found> Find(SqliteConnection connection, IReadOnlyList<FoundKind> kinds, string match, int most) =>
        [.. connection.Query<(string Kind, string Key, string Plate, string At, string Title)>("""
            select found_entry.kind, key, plate, at, found_entry.title from found join found_entry on found_entry.id = found.rowid
            where found match @match order by found.rowid desc limit @most
            """, new { match = $"kind : ({string.Join(" OR ", kinds.Select(k => k.ToString().ToLowerInvariant()))}) AND {match}", most })
            .Select(r => (Kind: Enum.Parse<FoundKind>(r.Kind, true), r))
            .Select(f => new Found(f.Kind, f.Kind == FoundKind.Finding ? f.r.Key.Split('.')[0] : f.r.Key, f.r.Plate,
                f.r.At.Length == 0 ? null : CardStore.Time(f.r.At), f.r.Title, []))];

    // As it is written, or with nothing between its letters: HD-07 and hd07 are one.
    private static string Word(string word)
    {
        var bare = new string([.. word.Where(char.IsLetterOrDigit)]);
        var asWritten = $"{{title words}} : \"{word.Replace("\"", "")}\" *";
        return bare.Any(char.IsDigit) ? $"({asWritten} OR bare : \"{bare}\" *)" : asWritten;
    }

    private static IReadOnlyList<WentInto> Went(SqliteConnection connection, FoundKind kind, string key) =>
        kind is not (FoundKind.Part or FoundKind.Batch) ? []
        : [.. connection.Query<(string Plate, long Card, string At)>("""
            select card.plate, card_id, max(at) from movement join card on card.id = card_id
            where item = @item and kind in ('used', 'poured', 'returned')
            group by card_id having sum(cast(amount as real)) < 0 order by max(movement.id) desc limit @MostWent
            """, new { item = kind == FoundKind.Part ? key : $"container:{key}", MostWent })
            .Select(r => new WentInto(r.Plate, r.Card, CardStore.Time(r.At)))];
}
