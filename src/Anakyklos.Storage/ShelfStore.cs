using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>A line of the stores' book.</summary>
/// <param name="At">When.</param>
/// <param name="Person">Person id.</param>
/// <param name="Card">The card it was for, or null.</param>
/// <param name="Kind">used, returned, received, counted or poured.</param>
/// <param name="Name">What.</param>
/// <param name="Amount">Signed: pieces, or litres for oil.</param>
/// <param name="IsOil">It is oil, in litres.</param>
/// <param name="Reason">Why it was counted otherwise, or empty.</param>
public sealed record StockLine(DateTimeOffset At, PersonId Person, CardNumber? Card, string Kind, string Name, string Amount, bool IsOil,
    string Reason);

/// <summary>What a stock file brings in.</summary>
/// <param name="Parts">Parts; the count replaces what was there.</param>
/// <param name="Containers">Containers; one with the number of a container that is there says what is left in it, any other is
/// added.</param>
/// <param name="Tools">Tools.</param>
/// <param name="Pans">Drain pans.</param>
public sealed record StockFile(IReadOnlyList<StockPart> Parts, IReadOnlyList<OilContainer> Containers, IReadOnlyList<CribTool> Tools,
    IReadOnlyList<DrainPan> Pans)
{
    /// <summary>Columns that the file does not have: of what is there already they stay as they are.</summary>
    public IReadOnlySet<string> Left { get; init; } = new HashSet<string>();
}

/// <summary>Stores and crib.</summary>
public sealed class ShelfStore(WorkshopDatabase database, SettingStore settings)
{
    /// <summary>Everything that a kit is checked against.</summary>
    /// <param name="card">A card whose own reservations count as free, or null.</param>
    /// <returns>Everything on the shelf; what is kept for that card counts as free.</returns>
    public Shelf Read(CardNumber? card = null)
    {
        using var connection = database.Connect();
        return new(database.Parts.Read(connection, card, false), ReadContainers(connection),
            [.. connection.Query<(string Size, string Place)>("select size, place from tool order by size")
                .Select(t => new CribTool(t.Size, t.Place))],
            [.. settings.Read().Wrenches.Select(w => w.InCrib)],
            [.. connection.Query<(string Name, string Holds)>("select name, holds_l from pan order by name")
                .Select(p => new DrainPan(p.Name, Litres(p.Holds)))], ReadOils(connection));
    }

    /// <summary>Something that is another once a part, a container or a reservation has changed, and the same until then.</summary>
    public string Stamp()
    {
        using var connection = database.Connect();
        return PartBook.Changed(connection).ToString(CultureInfo.InvariantCulture);
    }

    internal static OilBook ReadOils(SqliteConnection connection) =>
        connection.QuerySingleOrDefault<string>("select content from oil_book") is { } json ? OilBook.Read(json).Book ?? OilBook.Empty
            : OilBook.Empty;

    /// <summary>The oil book's file, or null.</summary>
    /// <returns>The book as it was brought in, or null when there is none.</returns>
    public string? OilBookText()
    {
        using var connection = database.Connect();
        return connection.QuerySingleOrDefault<string>("select content from oil_book");
    }

    /// <summary>Replaces the oil book by one that was read without errors.</summary>
    public Task<int> WriteOilBook(string json) => database.Writes.Run(scope =>
        scope.Connection.Execute("insert into oil_book (id, content) values (1, @json) on conflict do update set content = @json",
            new { json }));

    /// <summary>Replaces the oil book, where it is still the one that was read.</summary>
    /// <param name="was">The text that was read; null where there was none.</param>
    /// <param name="json">The next one, read without errors.</param>
    /// <returns>Whether it was; false where somebody was quicker.</returns>
    public Task<bool> ReplaceOilBook(string? was, string json) => database.Writes.Run(scope =>
        scope.Connection.QuerySingleOrDefault<string>("select content from oil_book") == was && scope.Connection.Execute(
            "insert into oil_book (id, content) values (1, @json) on conflict do update set content = @json", new { json }) == 1);

    /// <summary>The last lines of the stores' book, newest first.</summary>
    /// <param name="most">The most lines.</param>
    /// <param name="item">One part, by its bare number, or one container, as <c>container:7</c>; null for all.</param>
    /// <returns>The newest first.</returns>
    public IReadOnlyList<StockLine> Book(int most = 40, string? item = null)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string At, string Person, long? Card, string Kind, string Name, string Amount, bool IsOil,
            string Reason)>("""
            select at, person_id, card_id, kind, name, amount, item like 'container:%', reason from movement
            where @item is null or item = @item order by id desc limit @most
            """, new { most, item })
            .Select(m => new StockLine(CardStore.Time(m.At), m.Person, m.Card, m.Kind, m.Name, m.Amount, m.IsOil, m.Reason))];
    }

    /// <summary>Books parts in.</summary>
    /// <param name="number">Number, however typed.</param>
    /// <param name="count">How many; above 0.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    /// <returns>The part as it is known, or null when the stores do not know the number; then nothing is booked.</returns>
    public Task<StockPart?> Receive(string number, int count, Person by, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        var bare = PartNumber.Bare(number);
        if (scope.Connection.Execute("update part set on_shelf = on_shelf + @count where bare = @bare", new { bare, count }) == 0)
            return null;
        var part = scope.Parts(null).Find(bare)!;
        StockBooking.Note(scope, null, null, at, by.Id, "received", bare, part.Name, $"{count}");
        return part;
    });

    /// <summary>Books a container in.</summary>
    /// <returns>The number of the container.</returns>
    public Task<int> Receive(OilContainer container, Person by, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        var id = Insert(scope, container);
        StockBooking.Note(scope, null, null, at, by.Id, "received", $"container:{id}", container.Product,
            StockBooking.Litres(container.Left));
        return id;
    });

    /// <summary>Takes in a stock file, all of it or nothing.</summary>
    /// <param name="file">The file.</param>
    /// <param name="by">Who brings it in.</param>
    /// <param name="at">When.</param>
    /// <param name="kept">Is told before each part which of all is written; nothing counts until all are.</param>
    /// <returns>How many lines were brought in.</returns>
    public Task<int> BringIn(StockFile file, Person by, DateTimeOffset at, Action<int, int>? kept = null) => database.Writes.Run(scope =>
    {
        foreach (var (p, i) in file.Parts.Select((p, i) => (p, i)))
        {
            kept?.Invoke(i + 1, file.Parts.Count);
            var bare = PartNumber.Bare(p.Number);
            var was = scope.Connection.QuerySingleOrDefault<int?>("select on_shelf from part where bare = @bare", new { bare });
            scope.Connection.Execute("""
                insert into part (bare, number, name, on_shelf, superseded_by, equivalents, minimum, place)
                values (@bare, @Number, @Name, @OnShelf, @SupersededBy, @equivalents, @Minimum, @Place)
                on conflict do update set number = @Number, name = @Name, on_shelf = @OnShelf, superseded_by = @SupersededBy,
                    equivalents = @equivalents, minimum = iif(@minimumLeft, minimum, @Minimum), place = iif(@placeLeft, place, @Place)
                """, new
            {
                bare, p.Number, p.Name, p.OnShelf, p.SupersededBy, equivalents = string.Join(';', p.Equivalents), p.Minimum, p.Place,
                minimumLeft = file.Left.Contains("minimum"), placeLeft = file.Left.Contains("place"),
            });
            if (was != p.OnShelf && (was ?? 0) != p.OnShelf)
                StockBooking.Note(scope, null, null, at, by.Id, "counted", bare, p.Name, $"{p.OnShelf - (was ?? 0)}");
        }
        foreach (var c in file.Containers)
            Count(scope, c, by, at, file.Left.Contains("place"));
        foreach (var t in file.Tools)
            Put(scope, t);
        foreach (var p in file.Pans)
            Put(scope, p);
        return file.Parts.Count + file.Containers.Count + file.Tools.Count + file.Pans.Count;
    });

    /// <summary>Keeps a part as it is written by hand: what is known of it, and how many lie there.</summary>
    /// <param name="part">The part.</param>
    /// <param name="isNew">Whether the stores are not to know its number yet.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    /// <returns>False where it is new and the number is known, or not new and unknown; then nothing is kept.</returns>
    public Task<bool> Keep(StockPart part, bool isNew, Person by, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        var bare = PartNumber.Bare(part.Number);
        var was = scope.Connection.QuerySingleOrDefault<int?>("select on_shelf from part where bare = @bare", new { bare });
        if (isNew != was is null)
            return false;
        scope.Connection.Execute("""
            insert into part (bare, number, name, on_shelf, superseded_by, equivalents, minimum, place)
            values (@bare, @Number, @Name, @OnShelf, @SupersededBy, @equivalents, @Minimum, @Place)
            on conflict do update set number = @Number, name = @Name, on_shelf = @OnShelf, superseded_by = @SupersededBy,
                equivalents = @equivalents, minimum = @Minimum, place = @Place
            """, new
        {
            bare, part.Number, part.Name, part.OnShelf, part.SupersededBy, equivalents = string.Join(';', part.Equivalents), part.Minimum,
            part.Place,
        });
        if (part.OnShelf != (was ?? 0))
            StockBooking.Note(scope, null, null, at, by.Id, "counted", bare, part.Name, $"{part.OnShelf - (was ?? 0)}");
        return true;
    });

    /// <summary>Takes a part out of the stores' list, where none lies there and none is kept for a card.</summary>
    /// <param name="number">Its number, however typed.</param>
    /// <returns>1, or 0 where it is not there or not empty.</returns>
    public Task<int> Drop(string number) => database.Writes.Run(scope => scope.Connection.Execute("""
        delete from part where bare = @bare and on_shelf = 0 and not exists (select 1 from reservation where bare = @bare)
        """, new { bare = PartNumber.Bare(number) }));

    /// <summary>Keeps a container as it is counted, put right or moved.</summary>
    /// <param name="container">The container, with its number.</param>
    /// <param name="reason">Why it was counted otherwise, or empty.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    /// <returns>False where there is no such container.</returns>
    public Task<bool> Keep(OilContainer container, string reason, Person by, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        if (ReadContainers(scope.Connection).All(c => c.Id != container.Id))
            return false;
        Count(scope, container, by, at, reason: reason);
        return true;
    });

    /// <summary>Keeps a pan or a tool, new or as it is now.</summary>
    public Task<int> Keep(DrainPan pan) => database.Writes.Run(scope => Put(scope, pan));

    /// <summary>Keeps a tool, new or as it is now.</summary>
    public Task<int> Keep(CribTool tool) => database.Writes.Run(scope => Put(scope, tool));

    /// <summary>Takes a pan out of use.</summary>
    /// <param name="name">What is painted on it.</param>
    /// <returns>1, or 0 where there is none.</returns>
    public Task<int> DropPan(string name) =>
        database.Writes.Run(scope => scope.Connection.Execute("delete from pan where name = @name", new { name }));

    /// <summary>Takes a tool out of use.</summary>
    /// <param name="size">As it is written.</param>
    /// <returns>1, or 0 where there is none.</returns>
    public Task<int> DropTool(string size) => database.Writes.Run(scope =>
        scope.Connection.Execute("delete from tool where bare = @bare", new { bare = PartNumber.Bare(size) }));

    private static int Put(WriteScope scope, CribTool t) => scope.Connection.Execute("insert into tool (bare, size, place) "
        + "values (@bare, @Size, @Where) on conflict do update set size = @Size, place = @Where",
        new { bare = PartNumber.Bare(t.Size), t.Size, t.Where });

    private static int Put(WriteScope scope, DrainPan p) => scope.Connection.Execute("insert into pan (name, holds_l) "
        + "values (@Name, @holds) on conflict do update set holds_l = @holds", new { p.Name, holds = StockBooking.Litres(p.Holds) });

    // A container is known by its number; what was counted otherwise than the book says goes into the book.
    private static void Count(WriteScope scope, OilContainer c, Person by, DateTimeOffset at, bool placeLeft = false, string reason = "")
    {
        if (c.Id == 0 || ReadContainers(scope.Connection).FirstOrDefault(known => known.Id == c.Id) is not { } there)
        {
            Insert(scope, c);
            return;
        }
        scope.Connection.Execute("update container set product = @Product, size_l = @size, left_l = @left, scale = @scale, "
            + "opened = @opened, batch = @Batch, place = iif(@placeLeft, place, @Place) where id = @Id", new
            {
                c.Place, placeLeft,
                c.Id, c.Product, c.Batch, size = StockBooking.Litres(c.Size), left = StockBooking.Litres(c.Left), scale = c.Scale.Symbol,
                opened = c.Opened?.ToString("O", CultureInfo.InvariantCulture),
            });
        if (there.Left != c.Left)
            StockBooking.Note(scope, null, null, at, by.Id, "counted", $"container:{c.Id}", c.Product,
                StockBooking.Litres(c.Left - there.Left), reason);
    }

    private static int Insert(WriteScope scope, OilContainer c) => scope.Connection.ExecuteScalar<int>("""
        insert into container (id, product, size_l, left_l, scale, opened, batch, place)
        values (@id, @Product, @size, @left, @scale, @opened, @Batch, @Place) returning id
        """, new
        {
            id = c.Id == 0 ? (int?)null : c.Id,
            c.Product,
            size = StockBooking.Litres(c.Size),
            left = StockBooking.Litres(c.Left),
            scale = c.Scale.Symbol,
            opened = c.Opened?.ToString("O", CultureInfo.InvariantCulture),
            c.Batch,
            c.Place,
        });

    internal static List<OilContainer> ReadContainers(SqliteConnection connection) =>
        [.. connection.Query<(int Id, string Product, string Size, string Left, string Scale, string? Opened,
            string Batch, string Place)>("""
            select id, product, size_l, left_l, scale, opened, batch, place from container order by product, id
            """)
            .Select(c => new OilContainer(c.Id, c.Product, Litres(c.Size), Litres(c.Left),
                Volume.Units.FirstOrDefault(u => u.Symbol == c.Scale) ?? Volume.Litre,
                c.Opened is null ? null : DateOnly.ParseExact(c.Opened, "O", CultureInfo.InvariantCulture), c.Batch, c.Place))];

    private static Quantity<Volume> Litres(string litres) =>
        Quantity<Volume>.Of(decimal.Parse(litres, CultureInfo.InvariantCulture), Volume.Litre);
}
