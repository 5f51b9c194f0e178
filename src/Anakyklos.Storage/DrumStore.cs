using System.Globalization;
using Anakyklos.Core.Booking;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Stores;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>A line of the book of drums.</summary>
/// <param name="At">When.</param>
/// <param name="Person">Who.</param>
/// <param name="Drum">Into or out of which; null where there was none for it.</param>
/// <param name="Card">From which card; null for a collection.</param>
/// <param name="Waste">What it is.</param>
/// <param name="Name">Its name.</param>
/// <param name="Amount">How much fluid, signed.</param>
/// <param name="Pieces">How many pieces, signed.</param>
/// <param name="Kind">in, back or collected.</param>
/// <param name="Words">Who took it away, with the number of the paper; empty otherwise.</param>
public sealed record DrumLine(DateTimeOffset At, PersonId Person, string? Drum, CardNumber? Card, Waste Waste, string Name,
    Quantity<Volume> Amount, int Pieces, string Kind, string Words);

/// <summary>Drums for used oil, filters and what else came out.</summary>
public sealed class DrumStore(WorkshopDatabase database)
{
    /// <summary>All drums in use, by name.</summary>
    public IReadOnlyList<WasteDrum> All()
    {
        using var connection = database.Connect();
        return Drums(connection);
    }

    /// <summary>Everything that went in and out, the oldest first.</summary>
    public IReadOnlyList<DrumLine> Book()
    {
        using var connection = database.Connect();
        return Lines(connection);
    }

    /// <summary>Puts a drum up, also one that was taken out of use, or changes what is known of one.</summary>
    /// <param name="drum">The drum.</param>
    public Task<int> Put(WasteDrum drum) => database.Writes.Run(scope => scope.Connection.Execute("""
        insert into drum (name, waste, holds_l, pieces, keep_days) values (@Name, @waste, @holds, @Pieces, @KeepDays)
        on conflict do update set waste = @waste, holds_l = @holds, pieces = @Pieces, keep_days = @KeepDays, gone_at = null
        """, new
    {
        drum.Name, waste = $"{drum.Waste}", holds = StockBooking.Litres(drum.Holds), drum.Pieces, drum.KeepDays,
    }));

    /// <summary>Takes a drum out of use; its lines stay in the book.</summary>
    /// <param name="name">The drum.</param>
    /// <param name="at">When.</param>
    /// <returns>Whether it is out; false where there is none of that name, or something is in it.</returns>
    public Task<bool> TakeOut(string name, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        var there = Lines(scope.Connection).Where(l => l.Drum == name).ToList();
        return there.Aggregate(Quantity<Volume>.Zero, (sum, l) => sum + l.Amount) <= Quantity<Volume>.Zero && there.Sum(l => l.Pieces) <= 0
            && scope.Connection.Execute("update drum set gone_at = @at where name = @name and gone_at is null",
                new { name, at = CardStore.Iso(at) }) == 1;
    });

    /// <summary>Notes that all that was in a drum at a time was taken away.</summary>
    /// <param name="name">The drum.</param>
    /// <param name="words">Who took it, and the number of the paper.</param>
    /// <param name="by">Who saw to it.</param>
    /// <param name="at">When.</param>
    /// <returns>Whether anything was in it; otherwise nothing is written.</returns>
    public Task<bool> Collect(string name, string words, PersonId by, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        if (Drums(scope.Connection).FirstOrDefault(d => d.Name == name) is not { } drum)
            return false;
        var there = Lines(scope.Connection).Where(l => l.Drum == name && l.At <= at).ToList();
        var (amount, pieces) = (there.Aggregate(Quantity<Volume>.Zero, (sum, l) => sum + l.Amount), there.Sum(l => l.Pieces));
        if (amount <= Quantity<Volume>.Zero && pieces <= 0)
            return false;
        Note(scope, null, null, at, by, name, new(drum.Waste, name, Quantity<Volume>.Zero - amount, -pieces), "collected", words);
        return true;
    });

    /// <summary>Books what an event of a card brings into the drums.</summary>
    internal static void Book(WriteScope scope, CardNumber id, JobCard card, Recorded e)
    {
        if (e.Event is TakenBack back)
        {
            foreach (var line in Lines(scope.Connection, "where card_id = @id and seq between @From and @To and kind = 'in'",
                new { id, back.From, back.To }))
                Note(scope, id, e.Seq, e.At, e.By.Id, line.Drum, new(line.Waste, line.Name, Quantity<Volume>.Zero - line.Amount,
                    -line.Pieces), "back", "");
            return;
        }
        foreach (var move in WasteMoves.Of(card, e))
            Note(scope, id, e.Seq, e.At, e.By.Id, For(scope.Connection, move.Waste, DateOnly.FromDateTime(e.At.DateTime)), move, "in", "");
    }

    private static string? For(SqliteConnection connection, Waste waste, DateOnly today)
    {
        var drums = Drums(connection);
        if (drums.All(d => d.Waste != waste))
            return null;
        var lines = Lines(connection).ToLookup(l => l.Drum);
        return DrumStand.For(waste, drums.Select(d => (d, DrumStand.Of(d, [.. lines[d.Name].Select(Entry)], today).Full)))?.Name;
    }

    /// <summary>A line of the book as a drum's own.</summary>
    /// <param name="line">The line.</param>
    public static DrumEntry Entry(DrumLine line) => new(DateOnly.FromDateTime(line.At.DateTime), line.Amount, line.Pieces,
        line.Kind == "collected");

    private static void Note(WriteScope scope, CardNumber? id, int? seq, DateTimeOffset at, PersonId by, string? drum, WasteMove move,
        string kind, string words) => scope.Connection.Execute("""
        insert into drum_entry (drum, at, person_id, card_id, seq, waste, name, amount_l, pieces, kind, words)
        values (@drum, @at, @by, @id, @seq, @waste, @Name, @amount, @Pieces, @kind, @words)
        """, new
    {
        drum, at = CardStore.Iso(at), by, id, seq, waste = $"{move.Waste}", move.Name, amount = StockBooking.Litres(move.Amount),
        move.Pieces, kind, words,
    });

    private static List<WasteDrum> Drums(SqliteConnection connection) =>
        [.. connection.Query<(string Name, string Waste, string Holds, int Pieces, int KeepDays)>(
            "select name, waste, holds_l, pieces, keep_days from drum where gone_at is null order by name")
            .Select(d => new WasteDrum(d.Name, Enum.Parse<Waste>(d.Waste), Litres(d.Holds), d.Pieces, d.KeepDays))];

    private static List<DrumLine> Lines(SqliteConnection connection, string where = "", object? values = null) =>
        [.. connection.Query<(string At, string Person, string? Drum, long? Card, string Waste, string Name, string Amount, int Pieces,
            string Kind, string Words)>($"""
            select at, person_id, drum, card_id, waste, name, amount_l, pieces, kind, words from drum_entry {where} order by at, id
            """, values ?? new { })
            .Select(l => new DrumLine(CardStore.Time(l.At), l.Person, l.Drum, l.Card, Enum.Parse<Waste>(l.Waste), l.Name, Litres(l.Amount),
                l.Pieces, l.Kind, l.Words))];

    private static Quantity<Volume> Litres(string litres) =>
        Quantity<Volume>.Of(decimal.Parse(litres, CultureInfo.InvariantCulture), Volume.Litre);
}
