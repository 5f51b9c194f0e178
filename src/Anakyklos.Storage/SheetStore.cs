using System.Collections.Concurrent;
using Anakyklos.Core.Sheets;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>Model sheets in all their revisions; a revision is never changed.</summary>
public sealed class SheetStore(WorkshopDatabase database)
{
    private const string InUse = "in use";
    private const string ForPractice = "practice";

    private readonly ConcurrentDictionary<(SheetId, int), ModelSheet> _read = database.Remembered<(SheetId, int), ModelSheet>();

    /// <summary>Takes in a sheet that was read without errors.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="json">Its file text, kept as it is.</param>
    /// <param name="at">When.</param>
    /// <returns>Whether it was new; false when this very text is there already.</returns>
    /// <exception cref="WorkshopFileException">Another text is there under this revision.</exception>
    public Task<bool> BringIn(ModelSheet sheet, string json, DateTimeOffset at) => BringIn(sheet, json, at, InUse);

    /// <summary>Takes in a made-up model for the practice bay, where no such revision is there yet.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="json">Its file text.</param>
    /// <param name="at">When.</param>
    /// <returns>Whether it was new; false when this revision is there already, for practice or in use.</returns>
    public Task<bool> BringInForPractice(ModelSheet sheet, string json, DateTimeOffset at) => BringIn(sheet, json, at, ForPractice);

    private Task<bool> BringIn(ModelSheet sheet, string json, DateTimeOffset at, string state) => database.Writes.Run(scope =>
    {
        var there = scope.Connection.QuerySingleOrDefault<string>("select content from sheet where id = @Id and revision = @Revision",
            new { sheet.Id, sheet.Revision });
        if (there is not null && there != json && state == InUse)
            throw new WorkshopFileException($"Revision {sheet.Revision} of {sheet.FullName} is here with other content. Give the "
                + "file a higher revision.");
        if (there is not null)
            // What was there for practice is taken into use as it is.
            return state == InUse && scope.Connection.Execute("update sheet set state = @state where id = @Id and revision = @Revision "
                + "and state = @ForPractice", new { sheet.Id, sheet.Revision, state, ForPractice }) == 1;
        return scope.Connection.Execute("""
            insert into sheet (id, revision, content, brought_in_at, state) values (@Id, @Revision, @json, @at, @state)
            """, new { sheet.Id, sheet.Revision, json, at = CardStore.Iso(at), state }) == 1;
    });

    /// <summary>A sheet in one revision, or null.</summary>
    /// <returns>The sheet, or null when the file has no such revision.</returns>
    public ModelSheet? Find(SheetId id, int revision)
    {
        if (_read.TryGetValue((id, revision), out var known))
            return known;
        using var connection = database.Connect();
        var json = connection.QuerySingleOrDefault<string>("select content from sheet where id = @id and revision = @revision",
            new { id, revision });
        var sheet = json is null ? null : SheetReader.Read(json).Sheet;
        return sheet is null ? null : _read.GetOrAdd((id, revision), sheet);
    }

    /// <summary>The newest revision of each sheet with its own lists, by name.</summary>
    /// <returns>The newest revision of each model, by make and name.</returns>
    public IReadOnlyList<ModelSheet> Newest()
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string Id, int Revision)>("""
            select id, max(revision) from sheet where state = @InUse group by id
            """, new { InUse })
            .Select(r => Find(r.Id, r.Revision)).OfType<ModelSheet>().Select(s => s.With(OwnListStore.Of(connection, s.Id)))
            .OrderBy(s => s.FullName)];
    }

    /// <summary>The file of a sheet as it was brought in, or null.</summary>
    /// <returns>The sheet as it was brought in, letter by letter, or null.</returns>
    public string? Text(SheetId id, int revision)
    {
        using var connection = database.Connect();
        return connection.QuerySingleOrDefault<string>("select content from sheet where id = @id and revision = @revision",
            new { id, revision });
    }

    /// <summary>Is another whenever a sheet is brought in, put in use, walked as a draft or withdrawn.</summary>
    public string Stamp()
    {
        using var connection = database.Connect();
        var (rows, last, used) = connection.QuerySingle<(long, long, long)>("""
            select count(*), coalesce(max(rowid), 0), coalesce(sum(state = @InUse), 0) from sheet
            """, new { InUse });
        return $"{rows}/{last}/{used}";
    }

    /// <summary>The texts of all sheets that bring words in other languages along, what came in last first; of drafts that were walked
    /// the last of each, behind all others.</summary>
    public IReadOnlyList<string> WithWords()
    {
        using var connection = database.Connect();
        return [.. connection.Query<string>("""
            select content from sheet s where content like '%"words"%' and (state <> 'draft'
                or revision = (select max(revision) from sheet where id = s.id and state = 'draft'))
            order by state = 'draft', brought_in_at desc, rowid desc
            """)];
    }

    /// <summary>The revisions of a sheet that are here, newest first.</summary>
    /// <returns>The newest first; empty for a model that is not here.</returns>
    public IReadOnlyList<int> Revisions(SheetId id)
    {
        using var connection = database.Connect();
        return [.. connection.Query<int>("""
            select revision from sheet where id = @id and state = @InUse order by revision desc
            """, new { id, InUse })];
    }

    // Drafts that are walked in the practice bay stand above all others.
    private const int FirstWalked = 9001;
    private const int LastWalked = 9999;

    /// <summary>The revision that comes next: one that was withdrawn keeps its number.</summary>
    /// <param name="id">The model.</param>
    /// <returns>1 for a model that is not here.</returns>
    public int NextRevision(SheetId id)
    {
        using var connection = database.Connect();
        return (connection.QuerySingleOrDefault<int?>("select max(revision) from sheet where id = @id and revision < @FirstWalked",
            new { id, FirstWalked }) ?? 0) + 1;
    }

    /// <summary>Keeps a draft as it stands, so that it can be walked in the practice bay. It is in use nowhere.</summary>
    /// <param name="id">The model.</param>
    /// <param name="written">The draft's sheet and text under a revision that is given to it.</param>
    /// <param name="at">When.</param>
    /// <returns>Its revision; null where as many have been walked as can be.</returns>
    public Task<int?> KeepToWalk(SheetId id, Func<int, string> written, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        var last = scope.Connection.QuerySingleOrDefault<int?>("select max(revision) from sheet where id = @id and state = 'draft'",
            new { id }) ?? FirstWalked - 1;
        // The same text is kept once.
        if (last >= FirstWalked && scope.Connection.QuerySingle<string>("select content from sheet where id = @id and revision = @last",
            new { id, last }) == written(last))
            return last;
        if (last >= LastWalked)
            return (int?)null;
        scope.Connection.Execute("""
            insert into sheet (id, revision, content, brought_in_at, state) values (@id, @revision, @content, @at, 'draft')
            """, new { id, revision = last + 1, content = written(last + 1), at = CardStore.Iso(at) });
        return last + 1;
    });

    /// <summary>The newest revision of one sheet with its own lists, or null.</summary>
    /// <returns>The newest revision, or null when the model is not here.</returns>
    public ModelSheet? Newest(SheetId id)
    {
        using var connection = database.Connect();
        return connection.QuerySingleOrDefault<int?>("select max(revision) from sheet where id = @id and state = @InUse", new { id, InUse })
            is { } revision ? Find(id, revision)?.With(OwnListStore.Of(connection, id)) : null;
    }

    /// <summary>The newest revision of each model that can be practised on: those made up for the practice bay, and those in use.</summary>
    /// <returns>By make and name, with the workshop's own lists.</returns>
    public IReadOnlyList<ModelSheet> ToPractise()
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string Id, int Revision)>("""
            select id, max(revision) from sheet where state in (@InUse, @ForPractice) group by id
            """, new { InUse, ForPractice }).Select(r => Find(r.Id, r.Revision)).OfType<ModelSheet>()
            .Select(s => s.With(OwnListStore.Of(connection, s.Id))).OrderBy(s => s.FullName)];
    }
}
