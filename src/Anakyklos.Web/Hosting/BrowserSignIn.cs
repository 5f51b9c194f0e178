using System.Security.Claims;
using System.Security.Cryptography;
using System.Text.Json;
using Anakyklos.Core.Ids;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;

namespace Anakyklos.Web.Hosting;

/// <summary>Who is signed in at a browser is a session, named in its cookie; and a browser remembers who was signed in there
/// before.</summary>
public sealed class BrowserSignIn(SessionStore sessions, WorkshopClock clock, IDataProtectionProvider protection,
    Options options)
{
    internal const string SessionClaim = "session";

    private string Cookie => options.Cookie + "-known";

    private readonly IDataProtector _known = protection.CreateProtector("Anakyklos.Known");

    /// <summary>Signs a person in at this browser.</summary>
    public async Task SignIn(HttpContext context, Member member)
    {
        var id = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(16));
        await sessions.Begin(id, member.Id, Address(context), clock.Now);
        Remember(context, member.Id);
        await context.SignInAsync(CookieAuthenticationDefaults.AuthenticationScheme, new ClaimsPrincipal(new ClaimsIdentity(
            [new(ClaimTypes.NameIdentifier, member.Id.Text), new(SessionClaim, id)], CookieAuthenticationDefaults.AuthenticationScheme)));
    }

    /// <summary>Signs out at this browser: its session is no good any more, whoever has a copy of the cookie.</summary>
    public async Task SignOut(HttpContext context)
    {
        if (Session(context.User) is { Length: > 0 } id)
            await sessions.End(id, clock.Now);
        await context.SignOutAsync();
    }

    /// <summary>The session that a request came in; empty for none.</summary>
    public static string Session(ClaimsPrincipal? user) => user?.FindFirstValue(SessionClaim) ?? "";

    /// <summary>Whether a cookie still speaks for its person: asked at every request.</summary>
    public async Task Validate(CookieValidatePrincipalContext context)
    {
        var person = context.Principal?.FindFirstValue(ClaimTypes.NameIdentifier);
        if (person is not null && Session(context.Principal) is { Length: > 0 } id && sessions.Of(id, clock.Now)?.Text == person)
            return;
        context.RejectPrincipal();
        await context.HttpContext.SignOutAsync(CookieAuthenticationDefaults.AuthenticationScheme);
    }

    /// <summary>Where a PIN of a person is typed.</summary>
    public PinPlace Place(HttpContext context, PersonId person) =>
        new(Read(context) is { } known && known.People.Contains(person.Text) ? known.Browser : "", Address(context));

    private static string Address(HttpContext context) => context.Connection.RemoteIpAddress?.ToString() ?? "";

    private void Remember(HttpContext context, PersonId person)
    {
        var known = Read(context) ?? new(Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(8)), []);
        if (known.People.Contains(person.Text))
            return;
        known = known with { People = [.. known.People, person.Text] };
        context.Response.Cookies.Append(Cookie, _known.Protect(JsonSerializer.Serialize(known)),
            new() { HttpOnly = true, SameSite = SameSiteMode.Strict, Secure = context.Request.IsHttps, MaxAge = TimeSpan.FromDays(400) });
    }

    private KnownHere? Read(HttpContext context)
    {
        try
        {
            return context.Request.Cookies[Cookie] is { Length: > 0 and < 8000 } text
                ? JsonSerializer.Deserialize<KnownHere>(_known.Unprotect(text)) : null;
        }
        catch (Exception e) when (e is CryptographicException or JsonException)
        {
            return null;
        }
    }

    private sealed record KnownHere(string Browser, IReadOnlyList<string> People);
}
