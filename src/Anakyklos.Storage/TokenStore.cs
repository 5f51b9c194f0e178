using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using Anakyklos.Core.Workshop;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>With what a program comes in.</summary>
/// <param name="Id">Its id, which is no secret.</param>
/// <param name="Name">What it is for.</param>
/// <param name="Person">In whose name it comes.</param>
/// <param name="Scopes">For what.</param>
/// <param name="MadeAt">When it was made.</param>
/// <param name="MadeBy">By whom.</param>
/// <param name="EndedAt">When it was ended; null while it is good.</param>
public sealed record AccessToken(string Id, string Name, PersonId Person, Scope Scopes, DateTimeOffset MadeAt, PersonId MadeBy,
    DateTimeOffset? EndedAt);

/// <summary>The tokens of programs. What a program sends is kept as its SHA-256 only: whoever reads the file gets in with nothing of
/// it.</summary>
public sealed class TokenStore(WorkshopDatabase database)
{
    // Every request asks. Tokens change through this store only.
    private readonly ConcurrentDictionary<string, AccessToken> _known = database.Remembered<string, AccessToken>();

    /// <summary>All there ever were, those that are good first, then by their age, the newest first.</summary>
    public IReadOnlyList<AccessToken> All()
    {
        using var connection = database.Connect();
        return [.. connection.Query<Row>($"select {Columns} from token order by ended_at is not null, made_at desc, id")
            .Select(r => r.Token)];
    }

    /// <summary>The token that a program sent; null where it is none, or was ended.</summary>
    /// <param name="secret">What it sent.</param>
    public AccessToken? Of(string secret)
    {
        var hash = Kept(secret);
        if (_known.TryGetValue(hash, out var token))
            return token;
        using var connection = database.Connect();
        token = connection.QuerySingleOrDefault<Row>($"select {Columns} from token where key_hash = @hash and ended_at is null",
            new { hash })?.Token;
        // What is made up is not kept: it would fill the memory.
        if (token is not null)
            _known.TryAdd(hash, token);
        return token;
    }

    /// <summary>Keeps a new one.</summary>
    /// <param name="token">The token.</param>
    /// <param name="secret">What the program sends.</param>
    public Task<int> Make(AccessToken token, string secret) => database.Writes.Run(scope => scope.Run("""
        insert into token (id, name, person_id, scopes, key_hash, made_at, made_by)
        values (@id, @name, @person, @scopes, @hash, @at, @by)
        """, ("@id", token.Id), ("@name", token.Name), ("@person", token.Person.Text), ("@scopes", token.Scopes.Words()),
        ("@hash", Kept(secret)), ("@at", CardStore.Iso(token.MadeAt)), ("@by", token.MadeBy.Text)));

    /// <summary>Ends one, for good.</summary>
    /// <returns>1, or 0 where there is none that is good.</returns>
    public Task<int> End(string id, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        scope.OnCommit(_known.Clear);
        return scope.Run("update token set ended_at = @at where id = @id and ended_at is null", ("@at", CardStore.Iso(at)), ("@id", id));
    });

    /// <summary>Ends every token: one that was ended since a backup must not come back with it.</summary>
    internal static int EndEvery(WriteScope scope, DateTimeOffset at) =>
        scope.Run("update token set ended_at = @at where ended_at is null", ("@at", CardStore.Iso(at)));

    private const string Columns = "id, name, person_id person, scopes, made_at made, made_by maker, ended_at ended";

    private static string Kept(string secret) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(secret)));

    private sealed record Row(string Id, string Name, string Person, string Scopes, string Made, string Maker, string? Ended)
    {
        // A word that this program does not know is no permission.
        internal AccessToken Token => new(Id, Name, PersonId.Of(Person), Core.Workshop.Scopes.Read(Scopes.Split(' ')) ?? Scope.None,
            CardStore.Time(Made), PersonId.Of(Maker), Ended is { } end ? CardStore.Time(end) : null);
    }
}
