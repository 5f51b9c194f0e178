using System.Collections.Concurrent;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Workshop;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>People and their PINs.</summary>
public sealed class PeopleStore(WorkshopDatabase database)
{
    /// <summary>Everybody, by name.</summary>
    /// <returns>By name.</returns>
    public IReadOnlyList<Member> All() => Query("order by name", new { });

    // Every request asks who it is from. People change only through this store, so what was read holds until it writes.
    private readonly ConcurrentDictionary<PersonId, Member> _known = new();

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
    /// <returns>1, or 0 when nobody has this id.</returns>
    public Task<int> Prefer(PersonId id, string units, string look) => database.Writes.Run(scope =>
    {
        scope.OnCommit(() => _known.TryRemove(id, out _));
        return scope.Connection.Execute("update person set units = @units, look = @look where id = @id", new { id, units, look });
    });

    /// <summary>How often a PIN was wrong since it was last right, from one address, and when last.</summary>
    /// <returns>How many in a row failed, and when the last one was; 0 when none did.</returns>
    public (int Failures, DateTimeOffset LastAt) Attempts(PersonId person, string address)
    {
        using var connection = database.Connect();
        var row = connection.QuerySingleOrDefault<(int,
            string)?>("select failures, last_at from pin_attempt where person_id = @person and address = @address",
            new { person, address });
        return row is var (failures, at) ? (failures, CardStore.Time(at)) : (0, DateTimeOffset.MinValue);
    }

    /// <summary>Books a right or a wrong PIN.</summary>
    public Task<int> BookAttempt(PersonId person, string address, bool right, DateTimeOffset at) => database.Writes.Run(scope => right
        ? scope.Connection.Execute("delete from pin_attempt where person_id = @person and address = @address", new { person, address })
        : scope.Connection.Execute("""
            insert into pin_attempt (person_id, address, failures, last_at) values (@person, @address, 1, @at)
            on conflict do update set failures = failures + 1, last_at = @at
            """, new { person, address, at = CardStore.Iso(at) }));

    private List<Member> Query(string where, object values)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string Id, string Name, string Role, string Hash, string Units,
            string Look)>($"select id, name, role, pin_hash, units, look from person {where}", values)
            .Select(r => new Member(r.Id, r.Name, Enum.Parse<Role>(r.Role, true), r.Hash, r.Units, r.Look))];
    }

    private static string Word(Role role) => role.ToString().ToLowerInvariant();
}
