using System.Collections.Concurrent;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Workshop;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>What came of a change to a person.</summary>
public enum PersonChange
{
    /// <summary>It was made.</summary>
    Made,

    /// <summary>There is no such person, or they are gone already.</summary>
    Nobody,

    /// <summary>Nobody would be left who leads the workshop.</summary>
    LastLead,
}

/// <summary>People and their PINs.</summary>
public sealed class PeopleStore(WorkshopDatabase database, SessionStore sessions)
{
    /// <summary>Everybody who has not gone, by name.</summary>
    /// <returns>By name.</returns>
    public IReadOnlyList<Member> All() => Query("where gone_at is null order by name", new { });

    /// <summary>Everybody who works on cards and has not gone, as a transaction sees it.</summary>
    internal static IReadOnlyList<Person> WhoWorks(SqliteConnection connection) =>
        [.. connection.Query<(string Id, string Name, string Role)>("select id, name, role from person where gone_at is null")
            .Select(r => new Person(r.Id, r.Name, Enum.Parse<Role>(r.Role, true))).Where(p => p.WorksOnCards)];

    /// <summary>Everybody there ever was, by name.</summary>
    /// <returns>By name.</returns>
    public IReadOnlyList<Member> Ever() => Query("order by name", new { });

    // Every request asks who it is from. People change only through this store, so what was read holds until it writes.
    private readonly ConcurrentDictionary<PersonId, Member> _known = database.Remembered<PersonId, Member>();

    /// <summary>One person, or null.</summary>
    /// <returns>The person, or null when nobody has this id.</returns>
    public Member? Find(PersonId id)
    {
        if (_known.TryGetValue(id, out var known))
            return known;
        var member = Query("where id = @id", new { id }).FirstOrDefault();
        return member is null ? null : _known.GetOrAdd(id, member);
    }

    /// <summary>Whether nobody is there yet.</summary>
    public bool Nobody
    {
        get
        {
            using var connection = database.Connect();
            return connection.ExecuteScalar<long>("select count(*) from person") == 0;
        }
    }

    /// <summary>Adds a person.</summary>
    /// <param name="member">The person.</param>
    /// <param name="onlyAsFirst">Adds nobody when somebody is there already.</param>
    /// <returns>Whether the person was added; false for a name or id that is taken.</returns>
    public Task<bool> Add(Member member, bool onlyAsFirst = false) => database.Writes.Run(scope => scope.Connection.Execute("""
        insert into person (id, name, role, pin_hash, units, look)
        select @Id, @Name, @role, @PinHash, @Units, @Look
        where not exists (select 1 from person where id = @Id or name = @Name collate nocase)
            and (not @onlyAsFirst or not exists (select 1 from person))
        """, new { member.Id, member.Name, role = Word(member.Role), member.PinHash, member.Units, member.Look, onlyAsFirst }) == 1);

    /// <summary>Changes how a person likes to see things.</summary>
    /// <param name="id">Who.</param>
    /// <param name="units">"metric" or "us".</param>
    /// <param name="look">"device", "day" or "night".</param>
    /// <param name="language">"en" or "de"; empty for the one that their browser asks for.</param>
    /// <returns>1, or 0 when nobody has this id.</returns>
    public Task<int> Prefer(PersonId id, string units, string look, string language) => database.Writes.Run(scope =>
    {
        scope.OnCommit(() => _known.TryRemove(id, out _));
        return scope.Connection.Execute("update person set units = @units, look = @look, language = @language where id = @id",
            new { id, units, look, language });
    });

    /// <summary>Gives a person another PIN; wherever else they are signed in, they are no more. Wrong ones before are forgotten.</summary>
    /// <param name="id">Who.</param>
    /// <param name="hash">The hash of the new PIN.</param>
    /// <param name="staying">The session in which they change it themselves; empty where somebody else does.</param>
    /// <param name="at">When.</param>
    public Task<PersonChange> SetPin(PersonId id, string hash, string staying, DateTimeOffset at) => Change(id, staying, at, scope =>
    {
        scope.Run("delete from pin_attempt where person_id = @id", ("@id", id.Text));
        scope.Run("update person set pin_hash = @hash where id = @id", ("@hash", hash), ("@id", id.Text));
    });

    /// <summary>Gives a person another role.</summary>
    public Task<PersonChange> SetRole(PersonId id, Role role, DateTimeOffset at) => Change(id, "", at, scope =>
        scope.Run("update person set role = @role where id = @id", ("@role", Word(role)), ("@id", id.Text)));

    /// <summary>Lets a person go: they are named where they did something, and cannot sign in.</summary>
    public Task<PersonChange> LetGo(PersonId id, DateTimeOffset at) => Change(id, "", at, scope =>
        scope.Run("update person set gone_at = @at where id = @id", ("@at", CardStore.Iso(at)), ("@id", id.Text)));

    /// <summary>Takes a person back who had gone.</summary>
    public Task<PersonChange> TakeBack(PersonId id) => database.Writes.Run(scope =>
    {
        scope.OnCommit(() => _known.TryRemove(id, out _));
        return scope.Run("update person set gone_at = null where id = @id and gone_at is not null", ("@id", id.Text)) == 1
            ? PersonChange.Made : PersonChange.Nobody;
    });

    private Task<PersonChange> Change(PersonId id, string staying, DateTimeOffset at, Action<WriteScope> change) =>
        database.Writes.Run(scope =>
    {
        if (scope.Connection.ExecuteScalar<int>("select count(*) from person where id = @id and gone_at is null", new { id }) == 0)
            return PersonChange.Nobody;
        scope.Connection.Execute("savepoint change");
        change(scope);
        if (scope.Connection.ExecuteScalar<int>("select count(*) from person where role = 'lead' and gone_at is null") == 0)
        {
            scope.Connection.Execute("rollback to change; release change");
            return PersonChange.LastLead;
        }
        scope.Connection.Execute("release change");
        sessions.EndAll(scope, id, staying, at);
        scope.OnCommit(() => _known.TryRemove(id, out _));
        return PersonChange.Made;
    });

    /// <summary>How often a PIN was wrong since it was last right, at one place, and when last.</summary>
    /// <param name="person">Whose.</param>
    /// <param name="place">A browser where this person has been signed in before; empty for all others together.</param>
    /// <returns>How many in a row failed, and when the last one was; 0 when none did.</returns>
    public (int Failures, DateTimeOffset LastAt) Attempts(PersonId person, string place)
    {
        using var connection = database.Connect();
        var row = connection.QuerySingleOrDefault<(int,
            string)?>("select failures, last_at from pin_attempt where person_id = @person and address = @place",
            new { person, place });
        return row is var (failures, at) ? (failures, CardStore.Time(at)) : (0, DateTimeOffset.MinValue);
    }

    /// <summary>Books a right or a wrong PIN; a wrong one goes into the trail, too.</summary>
    /// <param name="person">Whose.</param>
    /// <param name="place">See <see cref="Attempts"/>.</param>
    /// <param name="address">Where it was typed, for the trail.</param>
    /// <param name="right">Whether it was right.</param>
    /// <param name="at">When.</param>
    public Task<int> BookAttempt(PersonId person, string place, string address, bool right, DateTimeOffset at) =>
        database.Writes.Run(scope =>
    {
        if (right)
            return scope.Connection.Execute("delete from pin_attempt where person_id = @person and address = @place",
                new { person, place });
        TrailStore.Note(scope, person.Text, "refused-pin", $"A PIN that was not theirs, at {(address.Length > 0 ? address : "the lift")}"
            + (place.Length > 0 ? ", where they have been signed in before" : ""), at);
        return scope.Connection.Execute("""
            insert into pin_attempt (person_id, address, failures, last_at) values (@person, @place, 1, @at)
            on conflict do update set failures = failures + 1, last_at = @at
            """, new { person, place, at = CardStore.Iso(at) });
    });

    private List<Member> Query(string where, object values)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string Id, string Name, string Role, string Hash, string Units,
            string Look, string? Gone, string Language)>(
            $"select id, name, role, pin_hash, units, look, gone_at, language from person {where}", values)
            .Select(r => new Member(r.Id, r.Name, Enum.Parse<Role>(r.Role, true), r.Hash, r.Units, r.Look,
                r.Gone is null ? null : CardStore.Time(r.Gone), r.Language))];
    }

    private static string Word(Role role) => role.ToString().ToLowerInvariant();
}
