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

/// <summary>Where a PIN is typed.</summary>
/// <param name="Known">A browser where this person has been signed in before; empty for any other.</param>
/// <param name="Address">Its address, for the trail.</param>
public sealed record PinPlace(string Known, string Address);

/// <summary>
/// Takes people in and checks their PINs. Wrong ones are counted for each person over all browsers that do not know them: from the third
/// on, each doubles the pause before the next is looked at; from the eighth it is a quarter of an hour, from the twentieth a whole one. A
/// browser where they have been signed in before has a count of its own, so that nobody can lock another out where they work. The count
/// lies in the database: a restart forgives nothing.
/// </summary>
public sealed class PeopleDesk(PeopleStore people, SettingStore settings, IPasswordHasher<Member> hasher, WorkshopClock clock)
{
    private const int LongestName = 40;
    private const int LongestPin = 12;
    private const int FreeTries = 2;
    private const int LockAfter = 8;
    private const int LongLockAfter = 20;
    private static readonly TimeSpan Locked = TimeSpan.FromMinutes(15);
    private static readonly TimeSpan LockedLong = TimeSpan.FromHours(1);

    // The demo's clock may hurry; nobody who tries PINs is to gain by that.
    private static readonly TimeProvider Time = TimeProvider.System;

    /// <summary>The hash of a PIN, salted.</summary>
    public string Hash(Member member, string pin) => hasher.HashPassword(member, pin);

    /// <summary>How many digits a new PIN has at least.</summary>
    public int Digits => settings.Read().PinDigits;

    /// <summary>What is wrong with a name and a PIN, by the fields <c>name</c> and <c>pin</c>; empty when a person can be made of
    /// them.</summary>
    /// <param name="name">The name, trimmed.</param>
    /// <param name="pin">The PIN as typed.</param>
    public IReadOnlyList<Refusal> Check(string name, string? pin)
    {
        var wrong = new List<Refusal>();
        if (name.Length is 0 or > LongestName)
            wrong.Add(new($"Give a name of up to {LongestName} characters.", Field: "name"));
        if (Short(pin) is { } not)
            wrong.Add(not);
        return wrong;
    }

    /// <summary>Takes a person in.</summary>
    /// <param name="name">The name, trimmed.</param>
    /// <param name="pin">Four to twelve digits.</param>
    /// <param name="role">The name of what they do.</param>
    /// <returns>The person; or null with what is wrong, by field.</returns>
    public async Task<(Member? Member, IReadOnlyList<Refusal> Wrong)> TakeIn(string name, string? pin, string? role)
    {
        var wrong = Check(name, pin).ToList();
        if (RoleOf(role) is not { } known)
            wrong.Add(NoRole);
        else if (wrong.Count == 0 && Make(name, pin!, known) is var member)
            return await people.Add(member) ? (member, [])
                : (null, [new("Somebody has that name already.", "Add what tells the two apart.", Field: "name")]);
        return (null, wrong);
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

    /// <summary>Looks at a PIN, unless this person has to pause there.</summary>
    /// <param name="person">Person id.</param>
    /// <param name="pin">The PIN as typed.</param>
    /// <param name="place">Where it was typed.</param>
    public async Task<PinOutcome> Try(PersonId person, string? pin, PinPlace place)
    {
        if (people.Find(person) is not { GoneAt: null } member)
            return new(null, "Choose who you are.");
        var (failures, last) = people.Attempts(member.Id, place.Known);
        var left = last + Pause(failures) - Time.GetUtcNow();
        if (left > TimeSpan.Zero)
            return new(null, left.TotalMinutes > 1 ? $"Too many wrong PINs. Try again in {Math.Ceiling(left.TotalMinutes)} minutes, at a "
                + "screen where you were signed in before, or let the lead give you a new one."
                : $"Wait {Math.Ceiling(left.TotalSeconds)} seconds, then try again.");
        var right = IsPin(pin) && hasher.VerifyHashedPassword(member, member.PinHash, pin!) != PasswordVerificationResult.Failed;
        if (right && failures == 0)
            return new(member, "");
        await people.BookAttempt(member.Id, place.Known, place.Address, right, Time.GetUtcNow());
        return right ? new(member, "") : new(null, "That PIN is not right.");
    }

    /// <summary>The pause after so many wrong PINs in a row.</summary>
    /// <param name="failures">How many.</param>
    public static TimeSpan Pause(int failures) => failures switch
    {
        >= LongLockAfter => LockedLong,
        >= LockAfter => Locked,
        > FreeTries => TimeSpan.FromSeconds(Math.Pow(2, failures - FreeTries)),
        _ => TimeSpan.Zero,
    };

    /// <summary>Changes one's own PIN; wherever else they are signed in, they are no more.</summary>
    /// <param name="member">Who.</param>
    /// <param name="old">The PIN so far.</param>
    /// <param name="pin">The new one.</param>
    /// <param name="again">The new one once more.</param>
    /// <param name="place">Where it is typed.</param>
    /// <param name="session">The session in which it is typed.</param>
    /// <returns>What is wrong, by the fields <c>old</c>, <c>pin</c> and <c>again</c>.</returns>
    public async Task<IReadOnlyList<Refusal>> ChangePin(Member member, string? old, string? pin, string? again, PinPlace place,
        string session)
    {
        var wrong = New(pin, again);
        if (wrong.Count > 0)
            return wrong;
        if (await Try(member.Id, old, place) is { Member: null } not)
            return [new(not.Problem, Field: "old")];
        return Told(await people.SetPin(member.Id, Hash(member, pin!), session, clock.Now));
    }

    /// <summary>The lead gives somebody a new PIN, who is signed out everywhere.</summary>
    /// <returns>What is wrong, by the fields <c>pin</c> and <c>again</c>.</returns>
    public async Task<IReadOnlyList<Refusal>> GivePin(PersonId person, string? pin, string? again)
    {
        var wrong = New(pin, again);
        return wrong.Count > 0 ? wrong : people.Find(person) is { } member
            ? Told(await people.SetPin(person, Hash(member, pin!), "", clock.Now)) : Told(PersonChange.Nobody);
    }

    /// <summary>The lead gives somebody another role, who signs in anew.</summary>
    /// <returns>What is wrong, by the field <c>role</c>.</returns>
    public async Task<IReadOnlyList<Refusal>> GiveRole(PersonId person, string? role) =>
        RoleOf(role) is { } known ? Told(await people.SetRole(person, known, clock.Now)) : [NoRole];

    /// <summary>The lead lets somebody go.</summary>
    public async Task<IReadOnlyList<Refusal>> LetGo(PersonId person) => Told(await people.LetGo(person, clock.Now));

    /// <summary>The lead takes somebody back who had gone.</summary>
    public async Task<IReadOnlyList<Refusal>> TakeBack(PersonId person) => Told(await people.TakeBack(person));

    private static IReadOnlyList<Refusal> Told(PersonChange change) => change switch
    {
        PersonChange.Made => [],
        PersonChange.LastLead => [new("Nobody would be left who leads the workshop.", "Make somebody else a lead first.", Field: "role")],
        _ => [new("That person is not here.", "Load the page again.", Field: "role")],
    };

    private static Refusal NoRole => new("There is no such role.", "Choose one of the list.", Field: "role");

    // By its name and nothing else: a number is no role.
    private static Role? RoleOf(string? name) => Enum.GetValues<Role>().Where(r => $"{r}" == name).Select(r => (Role?)r).FirstOrDefault();

    private List<Refusal> New(string? pin, string? again)
    {
        var wrong = new List<Refusal>();
        if (Short(pin) is { } not)
            wrong.Add(not);
        if (pin != again)
            wrong.Add(new("The two PINs differ.", "Type the same one twice.", Field: "again"));
        return wrong;
    }

    private Refusal? Short(string? pin) => IsPin(pin) && pin!.Length >= Digits ? null
        : new($"A PIN has {(Digits == 6 ? "six" : "four")} to twelve digits.", Field: "pin");

    private static bool IsPin(string? pin) => pin is { Length: >= 4 and <= LongestPin } && pin.All(char.IsAsciiDigit);

    private Member Make(string name, string pin, Role role)
    {
        var member = new Member(Guid.CreateVersion7().ToString("N"), name, role, "", settings.Read().Units ?? "metric", "device");
        return member with { PinHash = Hash(member, pin) };
    }
}
