using System.Globalization;
using System.Text.Json;
using Anakyklos.Core.Due;
using Anakyklos.Core.Ids;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Workshop;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>Vehicles and their odometer readings.</summary>
public sealed class VehicleStore(WorkshopDatabase database)
{
    /// <summary>All vehicles, by plate.</summary>
    /// <returns>By plate.</returns>
    public IReadOnlyList<Vehicle> All() => Query("where gone_at is null order by plate", new { });

    /// <summary>The plates of all vehicles, also of those that are gone.</summary>
    public IReadOnlyList<string> Known()
    {
        using var connection = database.Connect();
        return [.. connection.Query<string>("select plate from vehicle order by plate")];
    }

    /// <summary>A vehicle goes, or is here again; what was done to it stays.</summary>
    /// <param name="plate">Its plate.</param>
    /// <param name="gone">Whether it goes.</param>
    /// <param name="reason">Why.</param>
    /// <param name="person">Who says so.</param>
    /// <param name="at">When.</param>
    /// <returns>Whether it did; false while a card of it is open, or where it was so already.</returns>
    public Task<bool> Go(string plate, bool gone, string reason, PersonId person, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        var now = CardStore.Iso(at);
        if (scope.Connection.Execute("""
            update vehicle set gone_at = iif(@gone, @now, null) where plate = @plate and (gone_at is null) = @gone
                and not exists (select 1 from card where card.plate = @plate and signed_at is null and voided_at is null)
            """, new { plate, gone, now }) == 0)
            return false;
        if (gone)
            scope.Connection.Execute("delete from visit where plate = @plate", new { plate });
        Trail(scope, plate, now, person, new("gone", "", gone ? "here" : "gone", gone ? "gone" : "here", reason));
        return true;
    });

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

    /// <summary>All readings of a vehicle as they were put right last, newest first.</summary>
    public IReadOnlyList<OdometerReading> Odometer(string plate)
    {
        using var connection = database.Connect();
        return [.. Readings(connection, plate).Select(r => r.Reading)];
    }

    /// <summary>All readings of all vehicles as they were put right last, by plate, each the newest first.</summary>
    public ILookup<string, OdometerReading> Odometers()
    {
        using var connection = database.Connect();
        return Readings(connection, null).ToLookup(r => r.Plate, r => r.Reading);
    }

    /// <summary>What was read of a vehicle's odometers.</summary>
    /// <param name="plate">Its plate.</param>
    /// <param name="day">The day in the workshop of a moment.</param>
    public OdometerHistory History(string plate, Func<DateTimeOffset, DateOnly> day) => Histories(day, plate) is var all
        && all.TryGetValue(plate, out var history) ? history : new([], [], day);

    /// <summary>What was read of the odometers of all vehicles, by plate; one without any reading is not in it.</summary>
    /// <param name="day">The day in the workshop of a moment.</param>
    /// <param name="plate">One vehicle, or null for all.</param>
    public IReadOnlyDictionary<string, OdometerHistory> Histories(Func<DateTimeOffset, DateOnly> day, string? plate = null)
    {
        using var connection = database.Connect();
        var exchanged = Exchanged(connection, plate);
        return Readings(connection, plate).GroupBy(r => r.Plate, r => r.Reading)
            .ToDictionary(g => g.Key, g => new OdometerHistory([.. g], [.. exchanged[g.Key]], day));
    }

    private static IEnumerable<(string Plate, OdometerReading Reading)> Readings(SqliteConnection connection, string? plate) =>
        connection.Query<(string Plate, string At, string Km, string Reason, int? Hours, bool Twice, long? Card)>($"""
            select plate, at, km, reason, hours, looked_twice, card_id from odometer {(plate is null ? "" : "where plate = @plate")}
            order by plate, at desc
            """, new { plate }).Select(r => (r.Plate, new OdometerReading(CardStore.Time(r.At), Km(r.Km), r.Reason, r.Hours, r.Twice,
                r.Card is { } card ? new CardNumber(card) : (CardNumber?)null)));

    private static ILookup<string, ExchangedClock> Exchanged(SqliteConnection connection, string? plate) =>
        connection.Query<(string Plate, string At, string Was, string Shows)>($"""
            select plate, at, was_km, shows_km from odometer_exchange {(plate is null ? "" : "where plate = @plate")}
            """, new { plate }).ToLookup(r => r.Plate, r => new ExchangedClock(CardStore.Time(r.At), Km(r.Was), Km(r.Shows)));

    /// <summary>Where every vehicle stood when each job was last done, by plate, as the odometer that it has now would have shown
    /// it.</summary>
    /// <param name="plate">One vehicle, or null for all.</param>
    /// <returns>For each plate the last time of each job.</returns>
    public ILookup<string, DoneJob> LastDone(string? plate = null)
    {
        using var connection = database.Connect();
        return LastDone(connection, plate);
    }

    /// <summary>How often a job was done since another that counts its times was done itself; on the same day they were done
    /// together.</summary>
    /// <param name="counting">For each sheet the jobs that count, and the job that each counts.</param>
    /// <param name="plate">One vehicle, or null for all.</param>
    /// <returns>By plate and by the job that counts; what is not in it was done at no time.</returns>
    public IReadOnlyDictionary<(string Plate, JobId Job), int> TimesSince(IEnumerable<(SheetId Sheet, JobId Job, JobId Of)> counting,
        string? plate = null)
    {
        var pairs = counting.ToList();
        if (pairs.Count == 0)
            return new Dictionary<(string, JobId), int>();
        using var connection = database.Connect();
        return connection.Query<(string Plate, string Job, int Times)>($"""
            with pair as (select json_extract(value, '$[0]') as sheet, json_extract(value, '$[1]') as job,
                json_extract(value, '$[2]') as of from json_each(@pairs))
            select vehicle.plate, pair.job, count(*) from vehicle join pair on pair.sheet = vehicle.sheet_id
            join done_job on done_job.plate = vehicle.plate and done_job.job = pair.of
            where done_job.day > coalesce((select max(day) from done_job own where own.plate = vehicle.plate and own.job = pair.job), '')
                {(plate is null ? "" : "and vehicle.plate = @plate")}
            group by vehicle.plate, pair.job
            """, new { plate, pairs = JsonSerializer.Serialize(pairs.Select(p => new[] { p.Sheet.Text, p.Job.Text, p.Of.Text })) })
            .ToDictionary(r => (r.Plate, JobId.Of(r.Job)), r => r.Times);
    }

    /// <summary>The same, as part of another piece of reading or writing.</summary>
    internal static ILookup<string, DoneJob> LastDone(SqliteConnection connection, string? plate)
    {
        var exchanged = Exchanged(connection, plate);
        return connection.Query<(string Plate, string Job, string Day, string Km, int? Hours, bool Shortened, string? Opened)>($"""
            select done_job.plate, job, max(day), km, hours, shortened, opened_at from done_job left join card on card.id = card_id
            {(plate is null ? "" : "where done_job.plate = @plate")} group by done_job.plate, job
            """, new { plate }).ToLookup(r => r.Plate, r => new DoneJob(r.Job,
                new(OnThisClock(r.Plate, Km(r.Km), r.Opened ?? r.Day), Day(r.Day)!.Value, r.Hours, r.Shortened)));

        // Times are kept so that their texts are in the order of time; a day alone stands before every moment of it.
        Quantity<Distance> OnThisClock(string of, Quantity<Distance> read, string at) => !exchanged.Contains(of) ? read
            : exchanged[of].Where(e => string.CompareOrdinal(CardStore.Iso(e.At), at) > 0).Aggregate(read, (sum, e) => sum + e.Apart);
    }

    /// <summary>Notes a job that was done before this workshop kept the cards, or elsewhere.</summary>
    public Task<int> NoteDone(string plate, DoneJob done) => database.Writes.Run(scope => scope.Connection.Execute("""
        insert into done_job (plate, job, day, km, hours) values (@plate, @Job, @day, @km, @Hours) on conflict do nothing
        """, new { plate, done.Job, day = Day(done.Done.Day), km = Km(done.Done.Odometer), done.Done.Hours }));

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
                km = interval.Every is { } every ? Km(every) : null, interval.Months, interval.Hours }));

    /// <summary>Takes in vehicles and readings, all or none.</summary>
    /// <param name="vehicles">New vehicles; those that are there stay as they are.</param>
    /// <param name="readings">Readings by plate.</param>
    /// <param name="person">Who brings them in.</param>
    /// <param name="kept">Is told after each reading how many of all are written; nothing counts until all are.</param>
    /// <returns>How many vehicles and readings were new.</returns>
    public async Task<(int Vehicles, int Readings)> BringIn(IReadOnlyList<Vehicle> vehicles,
        IReadOnlyList<(string Plate, OdometerReading Reading)> readings, PersonId person, Action<int, int>? kept = null) =>
        await database.Writes.Run(scope =>
        {
            var came = vehicles.Sum(v => Insert(scope, v));
            var read = 0;
            for (var i = 0; i < readings.Count; i++)
            {
                read += Insert(scope, readings[i].Plate, readings[i].Reading, person);
                kept?.Invoke(i + 1, readings.Count);
            }
            return (came, read);
        });

    /// <summary>Keeps a vehicle that has arrived, as part of another piece of writing.</summary>
    internal static void Arrive(WriteScope scope, string plate, Arrival arrival)
    {
        if (arrival.Newcomer is { } newcomer)
            Insert(scope, newcomer);
        else if (arrival.Identity.Length > 0)
            scope.Connection.Execute("update vehicle set identity = @Identity where plate = @plate and identity = ''",
                new { plate, arrival.Identity });
    }

    /// <summary>Keeps what the odometer showed when a card was opened, and what that says of the readings before.</summary>
    internal static void Read(WriteScope scope, string plate, Arrival arrival, PersonId person, CardNumber card)
    {
        var at = CardStore.Iso(arrival.Reading.At);
        if (arrival.PutRight is { } right)
            PutRight(scope, plate, right, person, at);
        if (arrival.Exchanged is { } exchanged)
        {
            scope.Connection.Execute("insert into odometer_exchange (plate, at, was_km, shows_km) values (@plate, @at, @was, @shows)",
                new { plate, at, was = Km(exchanged.Was), shows = Km(exchanged.Shows) });
            Trail(scope, plate, at, person, new("exchange", "", Km(exchanged.Was), Km(exchanged.Shows), arrival.Reading.Reason));
        }
        Insert(scope, plate, arrival.Reading with { Card = card }, person);
    }

    /// <summary>Puts a reading right, with the jobs and samples that were noted at it.</summary>
    /// <param name="plate">The vehicle.</param>
    /// <param name="right">Which reading, what it was, and why.</param>
    /// <param name="person">Who says so.</param>
    /// <param name="at">When.</param>
    /// <returns>Whether it was; false when that reading is not there, or is another by now.</returns>
    public Task<bool> PutRight(string plate, ReadingPutRight right, PersonId person, DateTimeOffset at) =>
        database.Writes.Run(scope => PutRight(scope, plate, right, person, CardStore.Iso(at)));

    private static bool PutRight(WriteScope scope, string plate, ReadingPutRight right, PersonId person, string at)
    {
        var (of, was, now) = (CardStore.Iso(right.Of), Km(right.Was), Km(right.Now));
        if (scope.Connection.Execute("update odometer set km = @now, looked_twice = 1 where plate = @plate and at = @of and km = @was",
            new { plate, of, was, now }) == 0)
            return false;
        scope.Connection.Execute("""
            update done_job set km = @now where card_id = (select card_id from odometer where plate = @plate and at = @of);
            update sample set on_oil_km = case when on_oil_km is null then null else cast(on_oil_km + (@now - @was) as text) end, km = @now
            where card_id = (select card_id from odometer where plate = @plate and at = @of)
            """, new { plate, of, was, now });
        Trail(scope, plate, at, person, new("reading", of, was, now, right.Reason));
        return true;
    }

    /// <summary>Keeps what was changed of a vehicle.</summary>
    internal static void Trail(WriteScope scope, string plate, string at, PersonId person, Changed changed) => scope.Connection.Execute("""
        insert into vehicle_change (plate, at, person_id, what, subject, was, now, reason)
        values (@plate, @at, @person, @What, @Subject, @Was, @Now, @Reason)
        """, new { plate, at, person, changed.What, changed.Subject, changed.Was, changed.Now, changed.Reason });

    private static int Insert(WriteScope scope, Vehicle v) => scope.Connection.Execute("""
        insert into vehicle (plate, sheet_id, task, year, harsh_use, delivered, history_unknown, warranty_until, identity)
        values (@Plate, @SheetId, @Task, @Year, @harsh, @delivered, @unknown, @warranty, @Identity) on conflict do nothing
        """, new { v.Plate, v.SheetId, v.Task, v.Year, v.Identity, harsh = v.Use == Use.Harsh ? 1 : 0,
            delivered = Day(v.Delivered), unknown = v.HistoryUnknown ? 1 : 0, warranty = Day(v.WarrantyUntil) });

    private static int Insert(WriteScope scope, string plate, OdometerReading reading, PersonId person) => scope.Connection.Execute("""
        insert into odometer (plate, at, km, person_id, reason, hours, looked_twice, card_id)
        values (@plate, @at, @km, @person, @Reason, @Hours, @LookedTwice, @Card) on conflict do nothing
        """, new { plate, at = CardStore.Iso(reading.At), km = Km(reading.Reading), person, reading.Reason, reading.Hours,
            reading.LookedTwice, reading.Card });

    private static string Km(Quantity<Distance> distance) => distance.In(Distance.Kilometre).ToString(CultureInfo.InvariantCulture);

    private static Quantity<Distance> Km(string km) =>
        Quantity<Distance>.Of(decimal.Parse(km, CultureInfo.InvariantCulture), Distance.Kilometre);

    private static DateOnly? Day(string? day) => day is null ? null : DateOnly.ParseExact(day, "O", CultureInfo.InvariantCulture);

    private static string? Day(DateOnly? day) => day?.ToString("O", CultureInfo.InvariantCulture);

    private List<Vehicle> Query(string where, object values)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string Plate, string Sheet, string Task, int Year, int Harsh, string? Delivered, int Unknown,
            string? Warranty, string Identity, bool Gone)>($"""
            select plate, sheet_id, task, year, harsh_use, delivered, history_unknown, warranty_until, identity, gone_at is not null
            from vehicle {where}
            """, values)
            .Select(r => new Vehicle(r.Plate, r.Sheet, r.Task, r.Year, r.Harsh == 1 ? Use.Harsh : Use.Normal, Day(r.Delivered),
                r.Unknown == 1, Day(r.Warranty), r.Identity, r.Gone))];
    }
}
