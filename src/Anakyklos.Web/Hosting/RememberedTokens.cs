using System.Collections.Concurrent;
using System.Security.Claims;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Authentication;

namespace Anakyklos.Web.Hosting;

/// <summary>
/// Remembers what was found out about a token. Opening one is a pure function of its text that costs more than the rest of a request, and a
/// screen
/// sends the same ones all day. Bounded: when it is full it forgets everything and starts over.
/// </summary>
internal sealed class Remembered<T>
{
    private const int Most = 2000;

    private readonly ConcurrentDictionary<string, T> _known = new(StringComparer.Ordinal);

    internal bool TryGet(string text, out T found) => _known.TryGetValue(text, out found!);

    internal void Keep(string text, T found)
    {
        if (_known.Count >= Most)
            _known.Clear();
        _known[text] = found;
    }
}

/// <summary>The sign-in cookie's format: opens each cookie once. Expiry is looked at afterwards, at every request, by the cookie
/// handler.</summary>
internal sealed class RememberedTickets(ISecureDataFormat<AuthenticationTicket> inner) : ISecureDataFormat<AuthenticationTicket>
{
    private readonly Remembered<AuthenticationTicket> _tickets = new();

    public string Protect(AuthenticationTicket data) => inner.Protect(data);

    public string Protect(AuthenticationTicket data, string? purpose) => inner.Protect(data, purpose);

    public AuthenticationTicket? Unprotect(string? protectedText) => Unprotect(protectedText, null);

    public AuthenticationTicket? Unprotect(string? protectedText, string? purpose)
    {
        if (protectedText is null)
            return null;
        if (_tickets.TryGet($"{purpose}\n{protectedText}", out var known))
            return known;
        var ticket = inner.Unprotect(protectedText, purpose);
        // Shared between requests: nothing here changes a principal, and the cookie handler renews a copy.
        if (ticket is not null)
            _tickets.Keep($"{purpose}\n{protectedText}", ticket);
        return ticket;
    }
}

/// <summary>Antiforgery for the JSON endpoints: the same pair of tokens by the same person is validated once.</summary>
public sealed class RememberedAntiforgery(IAntiforgery antiforgery, Options options)
{
    private readonly Remembered<bool> _pairs = new();

    /// <summary>Whether the request carries a pair of tokens that belong together and to this person.</summary>
    public async Task<bool> IsValid(HttpContext context)
    {
        // A program proves nothing for a browser of the same person.
        if (TokenSignIn.IsProgram(context.User))
            return true;
        var pair =
            $"{context.User.FindFirstValue(ClaimTypes.NameIdentifier)}\n"
                + $"{context.Request.Cookies[options.Cookie + "-form"]}\n{context.Request.Headers["X-Antiforgery"]}";
        if (_pairs.TryGet(pair, out _))
            return true;
        var valid = await antiforgery.IsRequestValidAsync(context);
        if (valid)
            _pairs.Keep(pair, true);
        return valid;
    }
}
