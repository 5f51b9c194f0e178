using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>Where people are signed in. A session ends with signing out, with another PIN or role, with letting its person go, with a
/// backup that is put back, and after some days by itself.</summary>
public sealed class SessionStore(WorkshopDatabase database)
{
    /// <summary>So long it lasts at most, however often it is used.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromDays(7);

    // Every request asks. Sessions change only through this store and the one of people, which tells it.
    private readonly ConcurrentDictionary<string, (PersonId Person, DateTimeOffset Begun)?> _known =
        database.Remembered<string, (PersonId Person, DateTimeOffset Begun)?>();

    /// <summary>Whose session it is; null where it has ended or there never was one.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="now">Now.</param>
    public PersonId? Of(string id, DateTimeOffset now)
    {
        if (!_known.TryGetValue(id, out var session))
        {
            using var connection = database.Connect();
            var row = connection.QuerySingleOrDefault<(string Person, string Begun)?>(
                "select person_id, begun_at from session where id = @id and ended_at is null", new { id = Kept(id) });
            session = row is var (person, begun) ? (PersonId.Of(person), CardStore.Time(begun)) : null;
            // Ids that are made up are not kept: they would fill the memory.
            if (session is not null)
                _known.TryAdd(id, session);
        }
        if (session is { } there && now - there.Begun < Longest)
            return there.Person;
        return null;
    }

    /// <summary>Begins a session.</summary>
    /// <param name="id">Its id, which nobody can guess.</param>
    /// <param name="person">Whose.</param>
    /// <param name="place">Where from.</param>
    /// <param name="at">When.</param>
    public Task<int> Begin(string id, PersonId person, string place, DateTimeOffset at) => database.Writes.Run(scope => scope.Run(
        "insert into session (id, person_id, begun_at, place) values (@id, @person, @at, @place)", ("@id", Kept(id)),
        ("@person", person.Text), ("@at", CardStore.Iso(at)), ("@place", place)));

    /// <summary>Ends a session.</summary>
    /// <returns>1, or 0 where it had ended.</returns>
    public Task<int> End(string id, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        scope.OnCommit(() => _known[id] = null);
        return scope.Run("update session set ended_at = @at where id = @id and ended_at is null", ("@at", CardStore.Iso(at)),
            ("@id", Kept(id)));
    });

    /// <summary>Ends all sessions of a person but one, in a piece of writing that does something else, too.</summary>
    internal void EndAll(WriteScope scope, PersonId person, string except, DateTimeOffset at)
    {
        scope.Run("update session set ended_at = @at where person_id = @person and id <> @except and ended_at is null",
            ("@at", CardStore.Iso(at)), ("@person", person.Text), ("@except", Kept(except)));
        scope.OnCommit(_known.Clear);
    }

    // Whoever reads the file gets no session out of it.
    private static string Kept(string id) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(id)));

    /// <summary>Ends every session.</summary>
    internal static int EndEvery(WriteScope scope, DateTimeOffset at) =>
        scope.Run("update session set ended_at = @at where ended_at is null", ("@at", CardStore.Iso(at)));
}
