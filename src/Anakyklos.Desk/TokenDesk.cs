using System.Security.Cryptography;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>The lead makes tokens for programs, and ends them. A token comes in its person's name, for no more than its scopes, and for
/// nothing once that person is gone.</summary>
public sealed class TokenDesk(TokenStore tokens, PeopleStore people, TrailStore trail, WorkshopClock clock)
{
    /// <summary>What every token begins with, so that one that got somewhere by mistake is known for what it is.</summary>
    public const string Begins = "anakyklos_";

    private const int Longest = 60;

    /// <summary>All there ever were.</summary>
    public IReadOnlyList<AccessToken> All() => tokens.All();

    /// <summary>The token that a program sent, and its person; null where it is none, was ended, or its person is gone.</summary>
    /// <param name="secret">What was sent.</param>
    public (AccessToken Token, Member Person)? Of(string secret) => secret.StartsWith(Begins, StringComparison.Ordinal)
        && tokens.Of(secret) is { } token && people.Find(token.Person.Text) is { GoneAt: null } person ? (token, person) : null;

    /// <summary>Makes one.</summary>
    /// <param name="name">What it is for.</param>
    /// <param name="person">The id of the person in whose name it comes.</param>
    /// <param name="scopes">The words of its scopes.</param>
    /// <param name="by">Who makes it.</param>
    /// <returns>What the program is to send, shown this once; or what is wrong, by <c>token</c>, <c>person</c> and <c>scope</c>.</returns>
    public async Task<(string? Secret, IReadOnlyList<Refusal> Wrong)> Make(string? name, string? person, IReadOnlyList<string> scopes,
        Person by)
    {
        var (called, wrong) = ((name ?? "").Trim(), new List<Refusal>());
        if (called.Length is 0 or > Longest || called.Any(char.IsControl))
            wrong.Add(new($"Say what it is for, in up to {Longest} characters.", Field: "token"));
        if (people.Find(person ?? "") is not { GoneAt: null } member)
        {
            wrong.Add(new("There is nobody of that name.", "Choose who it acts for.", Field: "person"));
            member = null;
        }
        if (Scopes.Read(scopes) is not { } scope)
        {
            wrong.Add(new("It may do nothing.", "Choose what it may do, one thing at least.", Field: "scope"));
            scope = Scope.None;
        }
        if (wrong.Count > 0 || member is null)
            return (null, wrong);
        var secret = Begins + Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(20));
        var id = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(6));
        await tokens.Make(new(id, called, member.Id, scope, clock.Now, by.Id, null), secret);
        await trail.Note(by.Id.Text, "token", $"“{called}” was made for {member.Name}: {scope.Words()}", clock.Now);
        return (secret, []);
    }

    /// <summary>Ends one, at once and for good.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="by">Who ends it.</param>
    /// <returns>What is wrong.</returns>
    public async Task<IReadOnlyList<Refusal>> End(string? id, Person by)
    {
        if (tokens.All().FirstOrDefault(t => t.Id == id && t.EndedAt is null) is not { } token
            || await tokens.End(token.Id, clock.Now) == 0)
            return [new("There is no such token any more.", "Look at the list again.")];
        await trail.Note(by.Id.Text, "token", $"“{token.Name}” was ended", clock.Now);
        return [];
    }
}
