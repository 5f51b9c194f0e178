using System.Globalization;
using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Laboratory;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Quantities;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>A sample as it stands.</summary>
/// <param name="Sample">What was taken.</param>
/// <param name="SentAt">When it went to the laboratory; null while it has not.</param>
/// <param name="Result">What the laboratory answered; null while it has not.</param>
/// <param name="Leads">What follows from it; null while there is no answer.</param>
/// <param name="Says">That in words.</param>
/// <param name="SeenBy">Who took note of the answer; null while nobody did.</param>
public sealed record SampleEntry(OilSample Sample, DateTimeOffset? SentAt, OilResult? Result, LookOutcome? Leads, string Says,
    PersonId? SeenBy);

/// <summary>An answer that was judged.</summary>
/// <param name="Result">What was measured.</param>
/// <param name="Leads">What follows from it.</param>
/// <param name="Says">That in words.</param>
public sealed record JudgedResult(OilResult Result, LookOutcome Leads, string Says);

/// <summary>Samples of oils and what a laboratory said of them.</summary>
public sealed class SampleStore(WorkshopDatabase database)
{
    private const string Columns = "code, card_id as Card, plate, model, fluid, fluid_name as FluidName, grades, taken_at as Taken, km, "
        + "on_oil_km as OnOil, sent_at as Sent, result, result_day as Day, leads, says, seen_by as SeenBy";

    private sealed record Row(string Code, long Card, string Plate, string Model, string Fluid, string FluidName, string Grades,
        string Taken, string Km, string? OnOil, string? Sent, string? Result, string? Day, string Leads, string Says, string? SeenBy);

    /// <summary>All samples, the newest first.</summary>
    public IReadOnlyList<SampleEntry> All() => List("order by taken_at desc, code desc", new { });

    /// <summary>The samples of a vehicle, the oldest first.</summary>
    /// <param name="plate">Its plate.</param>
    public IReadOnlyList<SampleEntry> Of(string plate) => List("where plate = @plate order by taken_at, code", new { plate });

    /// <summary>Answers that nobody took note of yet, the oldest first.</summary>
    public IReadOnlyList<SampleEntry> Unseen() =>
        List("where answered_at is not null and seen_by is null order by answered_at, code", new { });

    /// <summary>What was answered since a time, the oldest first.</summary>
    /// <param name="since">From when on.</param>
    public IReadOnlyList<SampleEntry> Answered(DateTimeOffset since) =>
        List("where answered_at >= @since order by answered_at, code", new { since = CardStore.Iso(since) });

    /// <summary>A sample by its code, or null.</summary>
    /// <param name="code">As it stands on the label.</param>
    public SampleEntry? Find(string code) => List("where code = @code", new { code }).FirstOrDefault();

    /// <summary>Notes that a sample went to the laboratory; once is enough.</summary>
    /// <param name="code">Its code.</param>
    /// <param name="at">When.</param>
    /// <returns>1, or 0 when there is none of this code that was not sent.</returns>
    public Task<int> Send(string code, DateTimeOffset at) => database.Writes.Run(scope => scope.Connection.Execute(
        "update sample set sent_at = @at where code = @code and sent_at is null", new { code, at = CardStore.Iso(at) }));

    /// <summary>Notes who took note of an answer; the first stays.</summary>
    /// <param name="code">The code.</param>
    /// <param name="by">Who.</param>
    /// <returns>1, or 0 when there is nothing to take note of.</returns>
    public Task<int> Seen(string code, PersonId by) => database.Writes.Run(scope => scope.Connection.Execute(
        "update sample set seen_by = @by where code = @code and seen_by is null and answered_at is not null", new { code, by }));

    /// <summary>Keeps what a laboratory answered, all of it or nothing; the next interval of the jobs is shortened where that follows. What
    /// was answered before is left as it is.</summary>
    /// <param name="results">Answers to samples that are known.</param>
    /// <param name="at">When they came.</param>
    /// <returns>How many were new.</returns>
    public Task<int> Answer(IReadOnlyList<JudgedResult> results, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        var kept = 0;
        foreach (var (result, leads, says) in results)
        {
            var fresh = scope.Connection.Execute("""
                update sample set result = @json, result_day = @day, leads = @word, says = @says, answered_at = @at,
                    sent_at = coalesce(sent_at, @at)
                where code = @Code and answered_at is null
                """, new { result.Code, json = JsonSerializer.Serialize(new Measured(result.Values, result.Remark), CardJson.Options),
                    day = result.Day.ToString("O", CultureInfo.InvariantCulture), word = $"{leads}", says, at = CardStore.Iso(at) });
            kept += fresh;
            if (fresh > 0 && leads > LookOutcome.CarryOn)
                scope.Connection.Execute("""
                    update done_job set shortened = 1 where exists (select 1 from sample where code = @Code
                        and sample.card_id = done_job.card_id and instr(jobs, ' ' || done_job.job || ' ') > 0)
                    """, new { result.Code });
        }
        return kept;
    });

    /// <summary>Keeps a sample with the event by which it was taken.</summary>
    internal static void Note(WriteScope scope, CardNumber id, JobCard card, Recorded recorded, SampleTaken taken)
    {
        var fluid = card.Sheet.Fluids[taken.Fluid];
        var jobs = $" {string.Join(' ', card.JobsOf(fluid.Id))} ";
        // How far it ran on that oil: since one of these jobs was done last.
        var filled = VehicleStore.LastDone(scope.Connection, card.Opened.Plate)[card.Opened.Plate]
            .Where(d => jobs.Contains($" {d.Job} ", StringComparison.Ordinal)).Select(d => d.Done.Odometer)
            .Where(km => km < card.Opened.Odometer).ToList();
        scope.Connection.Execute("""
            insert into sample (code, card_id, seq, plate, model, fluid, fluid_name, grades, jobs, taken_at, km, on_oil_km)
            values (@code, @id, @Seq, @Plate, @model, @fluid, @Name, @grades, @jobs, @at, @km, @onOil)
            """, new
        {
            code = SampleCode.Of(id, taken.Number),
            id,
            recorded.Seq,
            card.Opened.Plate,
            model = card.Sheet.FullName,
            fluid = fluid.Id.Text,
            fluid.Name,
            grades = string.Join('\n', fluid.Grades.Value),
            jobs,
            at = CardStore.Iso(recorded.At),
            km = Kilometres(card.Opened.Odometer),
            onOil = filled.Count > 0 ? Kilometres(card.Opened.Odometer - filled.Max()) : null,
        });
    }

    /// <summary>Forgets samples whose taking was taken back; one that went to the laboratory is there, whatever was pressed.</summary>
    internal static void Forget(WriteScope scope, CardNumber id, int from, int to) => scope.Connection.Execute(
        "delete from sample where card_id = @id and seq between @from and @to and sent_at is null", new { id, from, to });

    private sealed record Measured(IReadOnlyDictionary<Analyte, decimal> Values, string Remark);

    private List<SampleEntry> List(string where, object values)
    {
        using var connection = database.Connect();
        return [.. connection.Query<Row>($"select {Columns} from sample {where}", values).Select(Entry)];
    }

    private static SampleEntry Entry(Row r)
    {
        var measured = r.Result is null ? null : JsonSerializer.Deserialize<Measured>(r.Result, CardJson.Options)!;
        return new(new(r.Code, r.Plate, r.Model, r.Fluid, r.FluidName, r.Grades.Split('\n', StringSplitOptions.RemoveEmptyEntries), r.Card,
            CardStore.Time(r.Taken), Distance(r.Km), r.OnOil is null ? null : Distance(r.OnOil)),
            r.Sent is null ? null : CardStore.Time(r.Sent),
            measured is null ? null : new(r.Code, DateOnly.ParseExact(r.Day!, "O", CultureInfo.InvariantCulture), measured.Values,
                measured.Remark),
            r.Leads.Length == 0 ? null : Enum.Parse<LookOutcome>(r.Leads), r.Says, r.SeenBy is null ? null : (PersonId)r.SeenBy);
    }

    private static string Kilometres(Quantity<Distance> d) =>
        d.In(Core.Quantities.Distance.Kilometre).ToString(CultureInfo.InvariantCulture);

    private static Quantity<Distance> Distance(string km) =>
        Quantity<Distance>.Of(decimal.Parse(km, CultureInfo.InvariantCulture), Core.Quantities.Distance.Kilometre);
}
