using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;
using Microsoft.AspNetCore.Identity;

namespace Anakyklos.Desk;

/// <summary>How a try at a PIN ended.</summary>
/// <param name="Member">The person, when it was right.</param>
/// <param name="Problem">What to say, when it was not.</param>
public sealed record PinOutcome(Member? Member, string Problem);

/// <summary>
/// Takes people in and checks their PINs. From the third wrong one on, each doubles the pause before the next is looked at; the eighth
/// locks this person at this address for a quarter of an hour. The count lies in the database, so a restart forgives nothing.
/// </summary>
public sealed class PeopleDesk(PeopleStore people, IPasswordHasher<Member> hasher)
{
    private const int LongestName = 40;
    private const int FreeTries = 2;
    private const int LockAfter = 8;
    private static readonly TimeSpan Locked = TimeSpan.FromMinutes(15);
    private static readonly TimeProvider Time = TimeProvider.System;

    /// <summary>The hash of a PIN, salted.</summary>
    public string Hash(Member member, string pin) => hasher.HashPassword(member, pin);

    /// <summary>What is wrong with a name and a PIN, by the fields <c>name</c> and <c>pin</c>; empty when a person can be made of
    /// them.</summary>
    /// <param name="name">The name, trimmed.</param>
    /// <param name="pin">The PIN as typed.</param>
    public static IReadOnlyList<Refusal> Check(string name, string? pin)
    {
        var wrong = new List<Refusal>();
        if (name.Length is 0 or > LongestName)
            wrong.Add(new($"Give a name of up to {LongestName} characters.", Field: "name"));
        if (!IsPin(pin))
            wrong.Add(new("A PIN has four to twelve digits.", Field: "pin"));
        return wrong;
    }

    /// <summary>Takes a person in.</summary>
    /// <param name="name">The name, trimmed.</param>
    /// <param name="pin">Four to twelve digits.</param>
    /// <param name="role">What they do; a role that does not exist reads only.</param>
    /// <returns>The person; or null with what is wrong, by field.</returns>
    public async Task<(Member? Member, IReadOnlyList<Refusal> Wrong)> TakeIn(string name, string? pin, Role role)
    {
        if (Check(name, pin) is { Count: > 0 } wrong)
            return (null, wrong);
        var member = Make(name, pin!, Enum.IsDefined(role) ? role : Role.Viewer);
        return await people.Add(member) ? (member, [])
            : (null, [new("Somebody has that name already.", "Add what tells the two apart.", Field: "name")]);
    }

    /// <summary>Takes in the first person, who leads the workshop.</summary>
    /// <param name="name">The name, trimmed.</param>
    /// <param name="pin">Four to twelve digits; see <see cref="Check"/>.</param>
    /// <returns>The lead; null when somebody is there already.</returns>
    public async Task<Member?> TakeInFirst(string name, string pin)
    {
        var lead = Make(name, pin, Role.Lead);
        return await people.Add(lead, onlyAsFirst: true) ? lead : null;
    }

    /// <summary>Looks at a PIN, unless this person and address have to pause.</summary>
    /// <param name="person">Person id.</param>
    /// <param name="pin">The PIN as typed.</param>
    /// <param name="address">Where it was typed.</param>
    public async Task<PinOutcome> Try(PersonId person, string? pin, string address)
    {
        if (people.Find(person) is not { } member)
            return new(null, "Choose who you are.");
        var (failures, last) = people.Attempts(member.Id, address);
        var pause = failures >= LockAfter ? Locked : failures <= FreeTries ? TimeSpan.Zero
            : TimeSpan.FromSeconds(Math.Pow(2, failures - FreeTries));
        var left = last + pause - Time.GetUtcNow();
        if (left > TimeSpan.Zero)
            return new(null, left.TotalMinutes > 1 ? $"Too many wrong PINs. Try again in {Math.Ceiling(left.TotalMinutes)} minutes."
                : $"Wait {Math.Ceiling(left.TotalSeconds)} seconds, then try again.");
        if (failures >= LockAfter)
            await people.BookAttempt(member.Id, address, true, Time.GetUtcNow());
        var right = IsPin(pin) && hasher.VerifyHashedPassword(member, member.PinHash, pin!) != PasswordVerificationResult.Failed;
        if (right && failures == 0)
            return new(member, "");
        await people.BookAttempt(member.Id, address, right, Time.GetUtcNow());
        return right ? new(member, "") : new(null, "That PIN is not right.");
    }

    private static bool IsPin(string? pin) => pin is { Length: >= 4 and <= 12 } && pin.All(char.IsAsciiDigit);

    private Member Make(string name, string pin, Role role)
    {
        var member = new Member(Guid.CreateVersion7().ToString("N"), name, role, "", "metric", "device");
        return member with { PinHash = Hash(member, pin) };
    }
}
