using System.Collections.Concurrent;
using Anakyklos.Core.Sheets;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>Model sheets in all their revisions; a revision is never changed.</summary>
public sealed class SheetStore(WorkshopDatabase database)
{
    private readonly ConcurrentDictionary<(SheetId, int), ModelSheet> _read = database.Remembered<(SheetId, int), ModelSheet>();

    /// <summary>Takes in a sheet that was read without errors.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="json">Its file text, kept as it is.</param>
    /// <param name="at">When.</param>
    /// <returns>Whether it was new; false when this very text is there already.</returns>
    /// <exception cref="WorkshopFileException">Another text is there under this revision.</exception>
    public Task<bool> BringIn(ModelSheet sheet, string json, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        var there = scope.Connection.QuerySingleOrDefault<string>("select content from sheet where id = @Id and revision = @Revision",
            new { sheet.Id, sheet.Revision });
        if (there is not null && there != json)
            throw new WorkshopFileException($"Revision {sheet.Revision} of {sheet.FullName} is here with other content. Give the "
                + "file a higher revision.");
        return there is null
            && scope.Connection.Execute("insert into sheet (id, revision, content, brought_in_at) values (@Id, @Revision, @json, @at)",
            new { sheet.Id, sheet.Revision, json, at = CardStore.Iso(at) }) == 1;
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
        return [.. connection.Query<(string Id, int Revision)>("select id, max(revision) from sheet group by id")
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

    /// <summary>The revisions of a sheet that are here, newest first.</summary>
    /// <returns>The newest first; empty for a model that is not here.</returns>
    public IReadOnlyList<int> Revisions(SheetId id)
    {
        using var connection = database.Connect();
        return [.. connection.Query<int>("select revision from sheet where id = @id order by revision desc", new { id })];
    }

    /// <summary>The newest revision of one sheet with its own lists, or null.</summary>
    /// <returns>The newest revision, or null when the model is not here.</returns>
    public ModelSheet? Newest(SheetId id)
    {
        using var connection = database.Connect();
        return connection.QuerySingleOrDefault<int?>("select max(revision) from sheet where id = @id", new { id }) is { } revision
            ? Find(id, revision)?.With(OwnListStore.Of(connection, id)) : null;
    }
}
