using System.Globalization;
using Anakyklos.Core.Due;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Weeks;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>Where a visit stands.</summary>
/// <param name="Plate">The vehicle.</param>
/// <param name="Day">The day.</param>
/// <param name="Begins">Its first quarter of the day, 0 to 95.</param>
/// <param name="Bay">The bay.</param>
/// <param name="IsFixed">Whether a person put it there; otherwise the plan had it there.</param>
public sealed record KeptVisit(string Plate, DateOnly Day, int Begins, string Bay, bool IsFixed);

/// <summary>A vehicle that is not to be brought in for some time.</summary>
/// <param name="Plate">The vehicle.</param>
/// <param name="Until">The first day on which it counts again.</param>
/// <param name="Reason">Why.</param>
/// <param name="By">The name of who said so.</param>
public sealed record DroppedVisit(string Plate, DateOnly Until, string Reason, string By);

/// <summary>What people have said of the week: where visits stand, who is not to come, when vehicles are needed and people are
/// there.</summary>
public sealed class VisitStore(WorkshopDatabase database)
{
    private long _changes;

    /// <summary>Another number after everything that was written here.</summary>
    public long Changes => Interlocked.Read(ref _changes);

    /// <summary>All visits that have a place, by plate.</summary>
    public IReadOnlyList<KeptVisit> All()
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string Plate, string Day, int Begins, string Bay, bool Fixed)>(
            "select plate, day, begins, bay, fixed from visit order by plate")
            .Select(r => new KeptVisit(r.Plate, Day(r.Day), r.Begins, r.Bay, r.Fixed))];
    }

    /// <summary>Keeps the visits as they stand now, and no others.</summary>
    /// <param name="visits">Each vehicle once.</param>
    /// <param name="person">Who agreed to it.</param>
    /// <param name="at">When.</param>
    public Task<int> Keep(IReadOnlyList<KeptVisit> visits, PersonId person, DateTimeOffset at) => Write(scope =>
    {
        scope.Connection.Execute("delete from visit");
        return Put(scope, visits, person, at);
    });

    /// <summary>Vehicles that are not to be brought in, by plate.</summary>
    /// <param name="today">Only those whose time is not over on this day.</param>
    public IReadOnlyList<DroppedVisit> Dropped(DateOnly today)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string Plate, string Until, string Reason, string By)>("""
            select plate, until, reason, person.name from visit_dropped join person on person.id = person_id
            where until > @today order by plate
            """, new { today = Text(today) }).Select(r => new DroppedVisit(r.Plate, Day(r.Until), r.Reason, r.By))];
    }

    /// <summary>Leaves a vehicle out of the week, and keeps where the others stand then.</summary>
    /// <param name="plate">The vehicle.</param>
    /// <param name="until">The first day on which it counts again.</param>
    /// <param name="reason">Why.</param>
    /// <param name="visits">Where the others stand.</param>
    /// <param name="person">Who says so.</param>
    /// <param name="at">When.</param>
    public Task<int> Drop(string plate, DateOnly until, string reason, IReadOnlyList<KeptVisit> visits, PersonId person,
        DateTimeOffset at) => Write(scope =>
    {
        scope.Connection.Execute("delete from visit");
        Put(scope, visits, person, at);
        return scope.Connection.Execute("""
            insert into visit_dropped (plate, until, reason, person_id, at) values (@plate, @until, @reason, @person, @at)
            on conflict do update set until = @until, reason = @reason, person_id = @person, at = @at
            """, new { plate, until = Text(until), reason, person, at = CardStore.Iso(at) });
    });

    /// <summary>Lets a vehicle that was left out count again.</summary>
    /// <returns>1, or 0 when it was not left out.</returns>
    public Task<int> TakeBack(string plate) =>
        Write(scope => scope.Connection.Execute("delete from visit_dropped where plate = @plate", new { plate }));

    /// <summary>When vehicles cannot be missed, by plate; one that is not in it can always be.</summary>
    public IReadOnlyDictionary<string, WeeklyTimes> Needed() => Times("select plate, times from vehicle_needed");

    /// <summary>Sets when a vehicle cannot be missed.</summary>
    public Task<int> SetNeeded(string plate, WeeklyTimes times) => Write(scope => times.Equals(WeeklyTimes.Never)
        ? scope.Connection.Execute("delete from vehicle_needed where plate = @plate", new { plate })
        : scope.Connection.Execute("""
            insert into vehicle_needed (plate, times) values (@plate, @times) on conflict do update set times = @times
            """, new { plate, times = times.ToString() }));

    /// <summary>When people are there, by the text of their id; who is not in it is there as usual for the role.</summary>
    public IReadOnlyDictionary<string, WeeklyTimes> Hours() => Times("select person_id, times from person_hours");

    /// <summary>Sets when people are there, all at once.</summary>
    /// <param name="hours">By person.</param>
    public Task<int> SetHours(IReadOnlyDictionary<PersonId, WeeklyTimes> hours) => Write(scope => hours.Sum(h => scope.Connection.Execute(
        "insert into person_hours (person_id, times) values (@Key, @times) on conflict do update set times = @times",
        new { h.Key, times = h.Value.ToString() })));

    /// <summary>Trips ahead, by plate.</summary>
    /// <param name="today">Only those that do not leave before this day.</param>
    public IReadOnlyDictionary<string, Trip> Trips(DateOnly today)
    {
        using var connection = database.Connect();
        return connection.Query<(string Plate, string Leaves, string Km, int Days)>(
            "select plate, leaves, km, days from planned_trip where leaves >= @today", new { today = Text(today) })
            .ToDictionary(r => r.Plate, r => new Trip(
                Quantity<Distance>.Of(decimal.Parse(r.Km, CultureInfo.InvariantCulture), Distance.Kilometre), Day(r.Leaves), r.Days));
    }

    /// <summary>Notes the next trip of a vehicle; null takes it back.</summary>
    public Task<int> SetTrip(string plate, Trip? trip, PersonId person, DateTimeOffset at) => Write(scope => trip is null
        ? scope.Connection.Execute("delete from planned_trip where plate = @plate", new { plate })
        : scope.Connection.Execute("""
            insert into planned_trip (plate, leaves, km, days, person_id, at) values (@plate, @leaves, @km, @Days, @person, @at)
            on conflict do update set leaves = @leaves, km = @km, days = @Days, person_id = @person, at = @at
            """, new { plate, leaves = Text(trip.Leaves), km = trip.Length.In(Distance.Kilometre).ToString(CultureInfo.InvariantCulture),
                trip.Days, person, at = CardStore.Iso(at) }));

    /// <summary>What dashes show, as was told, by plate.</summary>
    public IReadOnlyDictionary<string, string> Told()
    {
        using var connection = database.Connect();
        return connection.Query<(string Plate, string Code)>("select plate, code from dash_told").ToDictionary(r => r.Plate, r => r.Code);
    }

    /// <summary>Notes what a dash shows; empty takes it back.</summary>
    public Task<int> Tell(string plate, string code, PersonId person, DateTimeOffset at) => Write(scope => code.Length == 0
        ? scope.Connection.Execute("delete from dash_told where plate = @plate", new { plate })
        : scope.Connection.Execute("""
            insert into dash_told (plate, code, person_id, at) values (@plate, @code, @person, @at)
            on conflict do update set code = @code, person_id = @person, at = @at
            """, new { plate, code, person, at = CardStore.Iso(at) }));

    private Task<int> Write(Func<WriteScope, int> what) => database.Writes.Run(scope =>
    {
        scope.OnCommit(() => Interlocked.Increment(ref _changes));
        return what(scope);
    });

    private static int Put(WriteScope scope, IReadOnlyList<KeptVisit> visits, PersonId person, DateTimeOffset at) =>
        visits.Sum(v => scope.Connection.Execute("""
            insert into visit (plate, day, begins, bay, fixed, person_id, at) values (@Plate, @day, @Begins, @Bay, @IsFixed, @person, @at)
            """, new { v.Plate, day = Text(v.Day), v.Begins, v.Bay, v.IsFixed, person, at = CardStore.Iso(at) }));

    private IReadOnlyDictionary<string, WeeklyTimes> Times(string query)
    {
        using var connection = database.Connect();
        return connection.Query<(string Of, string Times)>(query).ToDictionary(r => r.Of, r => WeeklyTimes.Read(r.Times, out var problem)
            ?? throw new WorkshopFileException($"The times of {r.Of} cannot be read: {problem}"));
    }

    private static DateOnly Day(string day) => DateOnly.ParseExact(day, "O", CultureInfo.InvariantCulture);

    private static string Text(DateOnly day) => day.ToString("O", CultureInfo.InvariantCulture);
}
