using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>What the lead ruled on disputed values, sheet by sheet; nothing is ever taken out of it.</summary>
public sealed class RulingStore(WorkshopDatabase database)
{
    /// <summary>The rulings of a sheet, the newest first: of several on a value the first holds.</summary>
    /// <param name="sheet">The sheet.</param>
    public IReadOnlyList<Ruling> Of(SheetId sheet)
    {
        using var connection = database.Connect();
        return Of(connection, sheet);
    }

    /// <summary>Keeps a ruling.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="ruling">The ruling.</param>
    /// <param name="by">Who ruled.</param>
    public Task<int> Keep(SheetId sheet, Ruling ruling, Person by) => database.Writes.Run(scope => scope.Connection.Execute("""
        insert into ruling (sheet_id, value, of, holds, others, reason, person_id, person_name, at)
        values (@sheet, @Value, @Of, @Holds, @Others, @Reason, @Id, @Name, @at)
        """, new
    {
        sheet, ruling.Value, ruling.Of, ruling.Holds, ruling.Others, ruling.Reason, by.Id, by.Name, at = CardStore.Iso(ruling.At),
    }));

    internal static IReadOnlyList<Ruling> Of(SqliteConnection connection, SheetId sheet) =>
        [.. connection.Query<(string Value, string Of, string Holds, string Others, string Reason, string Name, string At)>(
            "select value, of, holds, others, reason, person_name, at from ruling where sheet_id = @sheet order by id desc", new { sheet })
            .Select(r => new Ruling(r.Value, r.Of, r.Holds, r.Others, r.Reason, r.Name, CardStore.Time(r.At)))];
}
