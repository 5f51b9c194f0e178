using System.Security.Claims;
using Anakyklos.Storage;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;

namespace Anakyklos.Web.Hosting;

/// <summary>How a try at a PIN ended.</summary>
/// <param name="Member">The person, when it was right.</param>
/// <param name="Problem">What to say, when it was not.</param>
public sealed record PinOutcome(Member? Member, string Problem);

/// <summary>
/// Checks PINs. From the third wrong one on, each doubles the pause before the next is looked at; the eighth locks this person at this
/// address for a
/// quarter of an hour. The count lies in the database, so a restart forgives nothing.
/// </summary>
public sealed class PinDesk(PeopleStore people, IPasswordHasher<Member> hasher)
{
    private const int FreeTries = 2;
    private const int LockAfter = 8;
    private static readonly TimeSpan Locked = TimeSpan.FromMinutes(15);
    private static readonly TimeProvider Time = TimeProvider.System;

    /// <summary>Four to twelve digits.</summary>
    public static bool IsPin(string? pin) => pin is { Length: >= 4 and <= 12 } && pin.All(char.IsAsciiDigit);

    /// <summary>The hash of a PIN, salted.</summary>
    public string Hash(Member member, string pin) => hasher.HashPassword(member, pin);

    /// <summary>Looks at a PIN, unless this person and address have to pause.</summary>
    public async Task<PinOutcome> Try(string personId, string? pin, string address)
    {
        if (people.Find(personId) is not { } member)
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

    /// <summary>Signs a person in at this browser.</summary>
    public static Task SignIn(HttpContext context, Member member) => context.SignInAsync(CookieAuthenticationDefaults.AuthenticationScheme,
        new ClaimsPrincipal(new ClaimsIdentity([new(ClaimTypes.NameIdentifier, member.Id)],
            CookieAuthenticationDefaults.AuthenticationScheme)));
}
