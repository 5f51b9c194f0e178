using System.Globalization;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Workshop;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>Vehicles and their odometer readings.</summary>
public sealed class VehicleStore(WorkshopDatabase database)
{
    /// <summary>All vehicles, by plate.</summary>
    /// <returns>By plate.</returns>
    public IReadOnlyList<Vehicle> All() => Query("order by plate", new { });

    /// <summary>One vehicle, or null.</summary>
    /// <returns>The vehicle, or null when there is none of this plate.</returns>
    public Vehicle? Find(string plate) => Query("where plate = @plate", new { plate }).FirstOrDefault();

    /// <summary>The vehicle that tells a scan tool that it is this.</summary>
    /// <param name="identity">As the vehicle says it.</param>
    /// <returns>The vehicle, or null when none is known by it.</returns>
    public Vehicle? WithIdentity(string identity) =>
        identity.Length == 0 ? null : Query("where identity = @identity", new { identity }).FirstOrDefault();

    /// <summary>Adds a vehicle.</summary>
    /// <returns>Whether it was added; false when the plate is there already.</returns>
    public Task<bool> Add(Vehicle vehicle) => database.Writes.Run(scope => Insert(scope, vehicle) == 1);

    /// <summary>Notes an odometer reading.</summary>
    public Task<int> Note(string plate, OdometerReading reading, PersonId person) =>
        database.Writes.Run(scope => Insert(scope, plate, reading, person));

    /// <summary>All readings of a vehicle, newest first.</summary>
    /// <returns>The oldest first.</returns>
    public IReadOnlyList<OdometerReading> Odometer(string plate)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string At, string Km, string Reason,
            int? Hours)>("select at, km, reason, hours from odometer where plate = @plate order by at desc", new { plate })
            .Select(r => new OdometerReading(CardStore.Time(r.At), Km(r.Km), r.Reason, r.Hours))];
    }

    /// <summary>Where every vehicle stood when each job was last done, by plate.</summary>
    /// <param name="plate">One vehicle, or null for all.</param>
    /// <returns>For each plate the last time of each job.</returns>
    public ILookup<string, DoneJob> LastDone(string? plate = null)
    {
        using var connection = database.Connect();
        return connection.Query<(string Plate, string Job, string Day, string Km, int? Hours, bool Shortened)>("""
            select plate, job, max(day), km, hours, shortened from done_job where @plate is null or plate = @plate group by plate, job
            """, new { plate }).ToLookup(r => r.Plate, r =>
                new DoneJob(r.Job, new(Km(r.Km), DateOnly.ParseExact(r.Day, "O", CultureInfo.InvariantCulture), r.Hours,
                    r.Shortened)));
    }

    /// <summary>The newest reading of every vehicle, by plate.</summary>
    /// <returns>By plate; a vehicle without any reading is not in it.</returns>
    public IReadOnlyDictionary<string, OdometerReading> Newest()
    {
        using var connection = database.Connect();
        return connection.Query<(string Plate, string At, string Km, string Reason,
            int? Hours)>("select plate, max(at), km, reason, hours from odometer group by plate")
            .ToDictionary(r => r.Plate, r => new OdometerReading(CardStore.Time(r.At), Km(r.Km), r.Reason, r.Hours));
    }

    /// <summary>Notes a job that was done before this workshop kept the cards, or elsewhere.</summary>
    public Task<int> NoteDone(string plate, DoneJob done) => database.Writes.Run(scope => scope.Connection.Execute("""
        insert into done_job (plate, job, day, km, hours) values (@plate, @Job, @day, @km, @Hours) on conflict do nothing
        """, new { plate, done.Job, day = Day(done.Done.Day),
            km = done.Done.Odometer.In(Distance.Kilometre).ToString(CultureInfo.InvariantCulture), done.Done.Hours }));

    /// <summary>The rules that count for a vehicle beside the maker's: the owner's, and the depot's for all.</summary>
    /// <returns>Those of the vehicle and those of the workshop.</returns>
    public IReadOnlyList<OwnRule> OwnRules(string plate) => OwnRules() is var all && plate.Length > 0 ? [.. all[""], .. all[plate]]
        : [.. all[""]];

    /// <summary>All rules beside the makers', by plate; those of the depot under the empty plate.</summary>
    public ILookup<string, OwnRule> OwnRules()
    {
        using var connection = database.Connect();
        return connection.Query<(string Plate, string Job, string? Km, int? Months,
            int? Hours)>("select plate, job, km, months, hours from own_rule order by plate, job")
            .ToLookup(r => r.Plate, r => new OwnRule(r.Job, new(r.Km is null ? null : Km(r.Km), r.Months, r.Hours),
                r.Plate.Length == 0 ? RuleOf.Depot : RuleOf.Owner));
    }

    /// <summary>Sets a rule beside the maker's, or takes it away.</summary>
    /// <param name="plate">The vehicle, or empty for the depot's rule for all.</param>
    /// <param name="job">Job id.</param>
    /// <param name="interval">The interval; null takes the rule away.</param>
    public Task<int> SetRule(string plate, JobId job, ServiceInterval? interval) => database.Writes.Run(scope => interval is null
        ? scope.Connection.Execute("delete from own_rule where plate = @plate and job = @job", new { plate, job })
        : scope.Connection.Execute("""
            insert into own_rule (plate, job, km, months, hours) values (@plate, @job, @km, @Months, @Hours)
            on conflict do update set km = @km, months = @Months, hours = @Hours
            """, new { plate, job,
                km = interval.Every?.In(Distance.Kilometre).ToString(CultureInfo.InvariantCulture), interval.Months, interval.Hours }));

    /// <summary>Takes in vehicles and readings, all or none.</summary>
    /// <param name="vehicles">New vehicles; those that are there stay as they are.</param>
    /// <param name="readings">Readings by plate.</param>
    /// <param name="person">Who brings them in.</param>
    /// <returns>How many vehicles and readings were new.</returns>
    public async Task<(int Vehicles, int Readings)> BringIn(IReadOnlyList<Vehicle> vehicles,
        IReadOnlyList<(string Plate, OdometerReading Reading)> readings, PersonId person) => await database.Writes.Run(scope =>
        (vehicles.Sum(v => Insert(scope, v)), readings.Sum(r => Insert(scope, r.Plate, r.Reading, person))));

    /// <summary>Keeps a vehicle that has arrived, with what its odometer showed, as part of another piece of writing.</summary>
    internal static void Arrive(WriteScope scope, string plate, Arrival arrival, PersonId person)
    {
        if (arrival.Newcomer is { } newcomer)
            Insert(scope, newcomer);
        else if (arrival.Identity.Length > 0)
            scope.Connection.Execute("update vehicle set identity = @Identity where plate = @plate and identity = ''",
                new { plate, arrival.Identity });
        Insert(scope, plate, arrival.Reading, person);
    }

    private static int Insert(WriteScope scope, Vehicle v) => scope.Connection.Execute("""
        insert into vehicle (plate, sheet_id, task, year, harsh_use, delivered, history_unknown, warranty_until, identity)
        values (@Plate, @SheetId, @Task, @Year, @harsh, @delivered, @unknown, @warranty, @Identity) on conflict do nothing
        """, new { v.Plate, v.SheetId, v.Task, v.Year, v.Identity, harsh = v.Use == Use.Harsh ? 1 : 0,
            delivered = Day(v.Delivered), unknown = v.HistoryUnknown ? 1 : 0, warranty = Day(v.WarrantyUntil) });

    private static int Insert(WriteScope scope, string plate, OdometerReading reading, PersonId person) => scope.Connection.Execute("""
        insert into odometer (plate, at, km, person_id, reason, hours)
        values (@plate, @at, @km, @person, @Reason, @Hours) on conflict do nothing
        """, new { plate, at = CardStore.Iso(reading.At),
            km = reading.Reading.In(Distance.Kilometre).ToString(CultureInfo.InvariantCulture), person, reading.Reason, reading.Hours });

    private static Quantity<Distance> Km(string km) =>
        Quantity<Distance>.Of(decimal.Parse(km, CultureInfo.InvariantCulture), Distance.Kilometre);

    private static DateOnly? Day(string? day) => day is null ? null : DateOnly.ParseExact(day, "O", CultureInfo.InvariantCulture);

    private static string? Day(DateOnly? day) => day?.ToString("O", CultureInfo.InvariantCulture);

    private List<Vehicle> Query(string where, object values)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string Plate, string Sheet, string Task, int Year, int Harsh, string? Delivered, int Unknown,
            string? Warranty, string Identity)>($"""
            select plate, sheet_id, task, year, harsh_use, delivered, history_unknown, warranty_until, identity from vehicle {where}
            """, values)
            .Select(r => new Vehicle(r.Plate, r.Sheet, r.Task, r.Year, r.Harsh == 1 ? Use.Harsh : Use.Normal, Day(r.Delivered),
                r.Unknown == 1, Day(r.Warranty), r.Identity))];
    }
}
