using Anakyklos.Core.Cards;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>How a label stands.</summary>
public enum LabelState
{
    /// <summary>No printer has asked for it yet.</summary>
    Waiting,

    /// <summary>A printer has it and has not said what became of it.</summary>
    Sent,

    /// <summary>It is printed.</summary>
    Printed,

    /// <summary>The printer could not, and said why.</summary>
    Failed,
}

/// <summary>A label that was sent to be printed.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Card">Of which card.</param>
/// <param name="At">When it was sent.</param>
/// <param name="Width">How wide it is, in mm.</param>
/// <param name="Length">How long it is, in mm.</param>
/// <param name="Svg">The label.</param>
/// <param name="State">How it stands.</param>
/// <param name="Printer">The printer that has it; empty for none.</param>
/// <param name="Words">What the printer said where it could not.</param>
public sealed record LabelJob(Guid Id, CardNumber Card, DateTimeOffset At, double Width, double Length, string Svg, LabelState State,
    string Printer, string Words);

/// <summary>Labels on their way to a printer.</summary>
public sealed class LabelJobStore(WorkshopDatabase database)
{
    private const string Columns = "id, card_id, at, width_mm, length_mm, svg, state, coalesce(printer, ''), words";

    /// <summary>Sends a label to be printed; one of the same card that still waits makes way.</summary>
    /// <param name="job">The label.</param>
    /// <param name="by">Who sent it.</param>
    public Task<int> Send(LabelJob job, PersonId by) => database.Writes.Run(scope =>
    {
        scope.Connection.Execute("delete from label_job where card_id = @Card and state = 'waiting'", new { job.Card });
        return scope.Connection.Execute("""
            insert into label_job (id, card_id, at, person_id, width_mm, length_mm, svg, state, printer, words)
            values (@id, @Card, @at, @by, @Width, @Length, @Svg, 'waiting', null, '')
            """, new { id = job.Id.ToString(), job.Card, at = CardStore.Iso(job.At), by, job.Width, job.Length, job.Svg });
    });

    /// <summary>The label that a printer is to print now: the one that it has and said nothing of, or the oldest that waits.</summary>
    /// <param name="printer">The printer.</param>
    /// <param name="widest">How wide its roll is, in mm; a wider label waits for another.</param>
    /// <returns>The label, which that printer has from now on; null where none waits.</returns>
    public Task<LabelJob?> Next(DeviceId printer, double widest) => database.Writes.Run(scope =>
    {
        var next = scope.Connection.QuerySingleOrDefault<string>("""
            select id from label_job where (state = 'sent' and printer = @printer) or (state = 'waiting' and width_mm <= @widest)
            order by state = 'waiting', at limit 1
            """, new { printer, widest });
        if (next is null)
            return null;
        scope.Connection.Execute("update label_job set state = 'sent', printer = @printer where id = @next", new { printer, next });
        return Read(scope.Connection, "where id = @next", new { next }).Single();
    });

    /// <summary>Notes what became of a label.</summary>
    /// <param name="printer">The printer that says so.</param>
    /// <param name="id">The label.</param>
    /// <param name="not">Why it could not be printed; empty where it was.</param>
    /// <returns>Whether that printer had it, or had said so before.</returns>
    public Task<bool> Settle(DeviceId printer, Guid id, string not) => database.Writes.Run(scope => scope.Connection.Execute("""
        update label_job set state = @state, words = @not where id = @id and printer = @printer and state in ('sent', @state)
        """, new { printer, id = id.ToString(), not, state = not.Length > 0 ? "failed" : "printed" }) == 1);

    /// <summary>The label of a card that was sent last; null for none.</summary>
    /// <param name="card">The card.</param>
    public LabelJob? LastOf(CardNumber card)
    {
        using var connection = database.Connect();
        return Read(connection, "where card_id = @card order by at desc, rowid desc limit 1", new { card }).FirstOrDefault();
    }

    private static IEnumerable<LabelJob> Read(Microsoft.Data.Sqlite.SqliteConnection connection, string where, object values) =>
        connection.Query<(string Id, long Card, string At, double Width, double Length, string Svg, string State, string Printer,
            string Words)>($"select {Columns} from label_job {where}", values)
            .Select(j => new LabelJob(Guid.Parse(j.Id), j.Card, CardStore.Time(j.At), j.Width, j.Length, j.Svg,
                Enum.Parse<LabelState>(j.State, true), j.Printer, j.Words));
}
