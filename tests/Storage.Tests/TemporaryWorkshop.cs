using Anakyklos.Core.Cards;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage.Tests;

/// <summary>A real database file in a folder of its own, with one van and one open card.</summary>
internal sealed class TemporaryWorkshop : IDisposable
{
    internal static readonly Person Iona = new("iona", "Iona R.", Role.Technician);
    internal static readonly DateTimeOffset Monday = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);
    internal static readonly string SheetText =
        System.IO.File.ReadAllText(System.IO.Path.Combine(AppContext.BaseDirectory, "tarn-courier-20d.json"));
    internal static readonly ModelSheet Sheet = SheetReader.Read(SheetText).Sheet!;

    private readonly string _folder = Directory.CreateDirectory(
        System.IO.Path.Combine(Directory.CreateTempSubdirectory("anakyklos-").FullName, "data")).Parent!.FullName;
    private readonly List<WorkshopDatabase> _opened = [];

    internal string File => System.IO.Path.Combine(_folder, "data", "anakyklos.db");

    internal string Beside(string name) => System.IO.Path.Combine(_folder, name);

    internal (WorkshopDatabase Database, CardStore Cards) Open(string? file = null)
    {
        var database = new WorkshopDatabase(file ?? File);
        _opened.Add(database);
        return (database, new(database, new(database)));
    }

    internal async Task<(WorkshopDatabase Database, CardStore Cards, CardNumber Card)> WithCard()
    {
        var (database, cards) = Open();
        await new SheetStore(database).BringIn(Sheet, SheetText, Monday);
        await new VehicleStore(database).Add(new("HD-07", Sheet.Id, "Ferry mail", 2019, Use.Harsh));
        return (database, cards, await cards.Open(Opening(), "Bay 2", Iona, Monday, Guid.NewGuid()));
    }

    internal static CardOpened Opening() => new("HD-07", Sheet.Id, Sheet.Revision, ["engine-oil-and-filter"],
        CardPlanner.Compose(Sheet, ["engine-oil-and-filter"]),
        Quantity<Distance>.Of(148_200, Distance.Kilometre), Use.Harsh, null, new Dictionary<PartId, int>());

    /// <summary>What there is in the file, each with its type before its name.</summary>
    internal IReadOnlyList<string> Names(string where)
    {
        using var connection = new SqliteConnection($"Data Source={File};Pooling=false");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = $"select type || ' ' || name from sqlite_master where {where} order by type";
        using var reader = command.ExecuteReader();
        var names = new List<string>();
        while (reader.Read())
            names.Add(reader.GetString(0));
        return names;
    }

    internal static PeopleStore People(WorkshopDatabase database) => new(database, new(database));

    /// <summary>As the program itself would write: the journal knows of it.</summary>
    internal static Task<int> Write(WorkshopDatabase database, string sql) =>
        database.Writes.Run(scope => Dapper.SqlMapper.Execute(scope.Connection, sql));

    /// <summary>As somebody would who opens the file with another program.</summary>
    internal void Execute(string sql)
    {
        using var connection = new SqliteConnection($"Data Source={File}");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    public void Dispose()
    {
        foreach (var database in _opened)
            database.Dispose();
        SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, true);
    }
}
