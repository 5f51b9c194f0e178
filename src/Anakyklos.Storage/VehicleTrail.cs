using System.Globalization;
using Anakyklos.Core.Due;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Workshop;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>A reading that was wrong, and what it was.</summary>
/// <param name="Of">The moment by which the reading is known.</param>
/// <param name="Was">What was noted.</param>
/// <param name="Now">What it was.</param>
/// <param name="Reason">Why, in words.</param>
public sealed record ReadingPutRight(DateTimeOffset Of, Quantity<Distance> Was, Quantity<Distance> Now, string Reason);

/// <summary>One thing that was changed of a vehicle.</summary>
/// <param name="What">The field; or reading, exchange, elsewhere.</param>
/// <param name="Subject">Which of several: a reading's moment, a job's id and day; empty for a field.</param>
/// <param name="Was">What stood there; distances in km.</param>
/// <param name="Now">What stands there now.</param>
/// <param name="Reason">Why, in words.</param>
public sealed record Changed(string What, string Subject, string Was, string Now, string Reason);

/// <summary>A change with who made it.</summary>
/// <param name="At">When.</param>
/// <param name="By">The name of who did.</param>
/// <param name="Of">What was changed.</param>
public sealed record VehicleChange(DateTimeOffset At, string By, Changed Of);

/// <summary>A job that was done by others, or before this workshop kept the cards.</summary>
/// <param name="Job">Job id.</param>
/// <param name="Day">When.</param>
/// <param name="Odometer">At which reading of the odometer that it had then.</param>
/// <param name="Where">By whom and where, in words; empty where nobody said.</param>
public sealed record DoneElsewhere(JobId Job, DateOnly Day, Quantity<Distance> Odometer, string Where);

/// <summary>What is put right of vehicles, with a trail of who did and why.</summary>
public sealed class VehicleTrail(WorkshopDatabase database)
{
    // The tables that name a vehicle by its plate; events keep what was written.
    private static readonly string[] NamedBy = ["odometer", "odometer_exchange", "card", "done_job", "own_rule", "sample",
        "brought_record", "vehicle_change", "visit", "visit_dropped", "vehicle_needed", "planned_trip", "dash_told"];

    /// <summary>What was changed of a vehicle, newest first.</summary>
    public IReadOnlyList<VehicleChange> Of(string plate)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string At, string By, string What, string Subject, string Was, string Now, string Reason)>("""
            select at, coalesce(name, person_id), what, subject, was, now, reason from vehicle_change
            left join person on person.id = person_id where plate = @plate order by vehicle_change.id desc
            """, new { plate }).Select(r =>
                new VehicleChange(CardStore.Time(r.At), r.By, new(r.What, r.Subject, r.Was, r.Now, r.Reason)))];
    }

    /// <summary>The vehicles that have changed in what makes them due.</summary>
    /// <param name="since">Those that changed after this; 0 for all that ever did.</param>
    /// <returns>Their plates, an empty one for all vehicles, and how far this looked: what to ask with next time.</returns>
    public (IReadOnlyList<string> Plates, long Until) Touched(long since)
    {
        using var connection = database.Connect();
        // The partial index of the journal serves only what names the same tables.
        var rows = connection.Query<(string Plate, long Id)>("""
            select case when item in ('sheet', 'own_list') then '' else json_extract(key, '$[0]') end, id from journal
            where item in ('vehicle', 'odometer', 'odometer_exchange', 'done_job', 'own_rule', 'sheet', 'own_list') and id > @since
            """, new { since }).ToList();
        return ([.. rows.Select(r => r.Plate).Distinct()], rows.Count == 0 ? since : rows.Max(r => r.Id));
    }

    /// <summary>The plate that a vehicle has now, by one that it had before; null when no vehicle had it.</summary>
    public string? Now(string former)
    {
        using var connection = database.Connect();
        return connection.QuerySingleOrDefault<string>("select now from former_plate where plate = @former", new { former });
    }

    /// <summary>Changes what is known of a vehicle, with everything that is kept under its plate.</summary>
    /// <param name="plate">The plate it has.</param>
    /// <param name="changed">What it becomes.</param>
    /// <param name="trail">What of it changes, and why.</param>
    /// <param name="person">Who says so.</param>
    /// <param name="at">When.</param>
    /// <returns>Whether it was changed; false when there is none of this plate, a card of it is open, or the new plate is
    /// another's.</returns>
    public Task<bool> Change(string plate, Vehicle changed, IReadOnlyList<Changed> trail, PersonId person, DateTimeOffset at) =>
        database.Writes.Run(scope =>
    {
        var there = scope.Connection.ExecuteScalar<int>("""
            select (select count(*) from vehicle where plate = @plate)
                - (select count(*) from card where plate = @plate and signed_at is null and voided_at is null)
                - (select count(*) from vehicle where plate = @to and plate <> @plate)
            """, new { plate, to = changed.Plate });
        if (there != 1)
            return false;
        scope.Connection.Execute("pragma defer_foreign_keys = on");
        scope.Connection.Execute("""
            update vehicle set plate = @to, sheet_id = @SheetId, task = @Task, year = @Year, harsh_use = @harsh, delivered = @delivered,
                history_unknown = @unknown, warranty_until = @warranty where plate = @plate
            """, new { plate, to = changed.Plate, changed.SheetId, changed.Task, changed.Year,
                harsh = changed.Use == Core.Intervals.Use.Harsh, delivered = Day(changed.Delivered), unknown = changed.HistoryUnknown,
                warranty = Day(changed.WarrantyUntil) });
        if (changed.Plate != plate)
        {
            foreach (var table in NamedBy)
                scope.Connection.Execute($"update {table} set plate = @to where plate = @plate", new { plate, to = changed.Plate });
            scope.Connection.Execute("""
                delete from former_plate where plate = @to;
                update former_plate set now = @to where now = @plate;
                insert into former_plate (plate, now) values (@plate, @to)
                """, new { plate, to = changed.Plate });
        }
        foreach (var one in trail)
            VehicleStore.Trail(scope, changed.Plate, CardStore.Iso(at), person, one);
        return true;
    });

    /// <summary>Jobs of a vehicle that no card here has.</summary>
    /// <returns>The newest first.</returns>
    public IReadOnlyList<DoneElsewhere> Elsewhere(string plate)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string Job, string Day, string Km, string Where)>("""
            select job, day, km, elsewhere from done_job where plate = @plate and card_id is null order by day desc, job
            """, new { plate }).Select(r => new DoneElsewhere(r.Job, DateOnly.ParseExact(r.Day, "O", CultureInfo.InvariantCulture),
                Quantity<Distance>.Of(decimal.Parse(r.Km, CultureInfo.InvariantCulture), Distance.Kilometre), r.Where))];
    }

    /// <summary>Notes jobs that were done elsewhere, all or none.</summary>
    /// <returns>Whether they were; false when one of them is on record on that day already.</returns>
    public Task<bool> Note(string plate, IReadOnlyList<DoneElsewhere> done, PersonId person, DateTimeOffset at) =>
        database.Writes.Run(scope =>
    {
        if (done.Any(d => scope.Connection.ExecuteScalar<int>("select count(*) from done_job where plate = @plate and job = @Job "
            + "and day = @day", new { plate, d.Job, day = Day(d.Day) }) > 0))
            return false;
        foreach (var d in done)
        {
            scope.Connection.Execute("insert into done_job (plate, job, day, km, elsewhere) values (@plate, @Job, @day, @km, @Where)",
                new { plate, d.Job, day = Day(d.Day), km = Km(d), d.Where });
            VehicleStore.Trail(scope, plate, CardStore.Iso(at), person, new("elsewhere", Key(d), "", Km(d), d.Where));
        }
        return true;
    });

    /// <summary>Takes out a job that was noted as done elsewhere, with a reason.</summary>
    /// <returns>Whether it was there; one of a card here is never taken out.</returns>
    public Task<bool> Forget(string plate, JobId job, DateOnly day, string reason, PersonId person, DateTimeOffset at) =>
        database.Writes.Run(scope =>
    {
        var gone = scope.Connection.Query<string>("""
            delete from done_job where plate = @plate and job = @job and day = @day and card_id is null returning km
            """, new { plate, job, day = Day(day) }).ToList();
        if (gone.Count == 0)
            return false;
        VehicleStore.Trail(scope, plate, CardStore.Iso(at), person, new("elsewhere", $"{job} {Day(day)}", gone[0], "", reason));
        return true;
    });

    private static string Key(DoneElsewhere d) => $"{d.Job} {Day(d.Day)}";

    private static string Km(DoneElsewhere d) => d.Odometer.In(Distance.Kilometre).ToString(CultureInfo.InvariantCulture);

    private static string? Day(DateOnly? day) => day?.ToString("O", CultureInfo.InvariantCulture);
}
