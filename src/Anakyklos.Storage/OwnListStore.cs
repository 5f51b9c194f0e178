using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>Lists of inspections that are kept with a model beside its sheet. Cards that were opened keep their own copy.</summary>
public sealed class OwnListStore(WorkshopDatabase database)
{
    /// <summary>The most lists of one model.</summary>
    public const int Most = 20;

    /// <summary>Keeps a list: a new one under the next free id, or a change of one that is there.</summary>
    /// <param name="sheet">The model.</param>
    /// <param name="list">The list; with an empty id it is new. A change says how often it was changed when it was looked at.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    /// <returns>The list as it is kept; null where another has changed or removed it since, or there are as many as there can be.</returns>
    public Task<OwnList?> Keep(SheetId sheet, OwnList list, PersonId by, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        var there = scope.Connection.Query<(string Id, int Changed, string Content)>(
            "select id, changed, content from own_list where sheet_id = @sheet", new { sheet }).ToList();
        if (list.Id.Length == 0 && there.Count(l => l.Content.Length > 0) >= Most)
            return null;
        var kept = list.Id.Length == 0 ? list with { Id = $"{OwnList.Mark}{there.Count + 1}", Changed = 1 }
            : there.Any(l => l.Id == list.Id && l.Changed == list.Changed && l.Content.Length > 0)
                ? list with { Changed = list.Changed + 1 } : null;
        if (kept is not null)
            Write(scope.Connection, sheet, kept.Id, kept.Changed, JsonSerializer.Serialize(kept, CardJson.Options), by, at);
        return kept;
    });

    /// <summary>Removes a list; its id is not given out again.</summary>
    /// <param name="sheet">The model.</param>
    /// <param name="id">The list.</param>
    /// <param name="changed">How often it was changed when it was looked at.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    /// <returns>Whether it was there, as it was looked at.</returns>
    public Task<bool> Remove(SheetId sheet, string id, int changed, PersonId by, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        if (Of(scope.Connection, sheet).All(l => l.Id != id || l.Changed != changed))
            return false;
        Write(scope.Connection, sheet, id, changed + 1, "", by, at);
        return true;
    });

    /// <summary>The lists of a model, in the order in which they were made.</summary>
    public IReadOnlyList<OwnList> Of(SheetId sheet)
    {
        using var connection = database.Connect();
        return Of(connection, sheet);
    }

    internal static IReadOnlyList<OwnList> Of(SqliteConnection connection, SheetId sheet) =>
        [.. connection.Query<string>("select content from own_list where sheet_id = @sheet and content <> ''", new { sheet })
            .Select(c => JsonSerializer.Deserialize<OwnList>(c, CardJson.Options)!)
            .OrderBy(l => l.Id.Length).ThenBy(l => l.Id, StringComparer.Ordinal)];

    private static void Write(SqliteConnection connection, SheetId sheet, string id, int changed, string content, PersonId by,
        DateTimeOffset at) => connection.Execute("""
            insert into own_list (sheet_id, id, changed, content, at, person_id) values (@sheet, @id, @changed, @content, @at, @by)
            on conflict (sheet_id, id) do update set changed = @changed, content = @content, at = @at, person_id = @by
            """, new { sheet, id, changed, content, at = CardStore.Iso(at), by });
}
