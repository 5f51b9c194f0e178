using Dapper;

namespace Anakyklos.Storage;

/// <summary>The trail of what happened beside the cards.</summary>
public sealed class TrailStore(WorkshopDatabase database)
{
    /// <summary>Notes something.</summary>
    /// <param name="person">The id of who did; empty for nobody.</param>
    /// <param name="what">What kind of thing.</param>
    /// <param name="words">What it was.</param>
    /// <param name="at">When.</param>
    public Task<int> Note(string person, string what, string words, DateTimeOffset at) =>
        database.Writes.Run(scope => Note(scope, person, what, words, at));

    internal static int Note(WriteScope scope, string person, string what, string words, DateTimeOffset at) =>
        scope.Run("insert into trail (at, person_id, what, words) values (@at, @person, @what, @words)", ("@at", CardStore.Iso(at)),
            ("@person", person), ("@what", what), ("@words", words));

    /// <summary>What was written to the journal of people, settings, rules, sheets, devices and of what happened, newest first.</summary>
    /// <param name="before">Only entries before this one; null for the newest.</param>
    /// <param name="most">So many at most.</param>
    public IReadOnlyList<TrailEntry> Read(long? before, int most)
    {
        using var connection = database.Connect();
        // The partial index of the journal serves only what names the same tables.
        return [.. connection.Query<(long, string, string, string, string, string?, string?)>($"""
            select id, at, coalesce((select name from person where id = person_id), person_id), item, key, row,
                (select row from journal earlier where {Followed} and earlier.item = now.item and earlier.key = now.key
                    and earlier.id < now.id order by earlier.id desc limit 1)
            from journal now where {Followed} and (@before is null or id < @before) and hash <> x'' order by id desc limit @most
            """, new { before, most }).Select(r => new TrailEntry(r.Item1, CardStore.Time(r.Item2), r.Item3, r.Item4, r.Item5, r.Item6,
                r.Item7))];
    }

    private const string Followed = """
        item in ('person', 'session', 'setting', 'own_rule', 'oil_book', 'sheet', 'own_list', 'ruling', 'device', 'brought_record', 'trail')
        """;
}

/// <summary>A change as the journal has it.</summary>
/// <param name="Id">Its place in the journal.</param>
/// <param name="At">When.</param>
/// <param name="By">The name of who did; empty for the program by itself.</param>
/// <param name="Item">The table.</param>
/// <param name="Key">The row's key, a JSON array.</param>
/// <param name="Now">What it became, a JSON object; null where it was removed.</param>
/// <param name="Was">What it was before; null where it is new.</param>
public sealed record TrailEntry(long Id, DateTimeOffset At, string By, string Item, string Key, string? Now, string? Was);
