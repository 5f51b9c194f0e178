using System.Security.Claims;
using System.Text.Encodings.Web;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.Extensions.Options;

namespace Anakyklos.Web.Hosting;

/// <summary>What a program must be allowed to do at an address; without it no program comes in there.</summary>
/// <param name="Scope">One scope.</param>
public sealed record ForPrograms(Scope Scope);

/// <summary>Signs a program in by its token, in the name of the token's person.</summary>
internal sealed class TokenSignIn(TokenDesk tokens, IOptionsMonitor<AuthenticationSchemeOptions> options, ILoggerFactory log,
    UrlEncoder encoder) : AuthenticationHandler<AuthenticationSchemeOptions>(options, log, encoder)
{
    /// <summary>The scheme, and the one that chooses between it and the cookie of a browser.</summary>
    internal const string TokenScheme = "token", Either = "token or cookie";

    private const string Bearer = "Bearer ", ScopesClaim = "scopes";

    /// <summary>By what a request signs in: a program that sends a token never comes in by a cookie beside it.</summary>
    internal static string Choose(HttpContext context) => Sent(context.Request) is null ? CookieAuthenticationDefaults.AuthenticationScheme
        : TokenScheme;

    /// <summary>Whether a request came in by a token.</summary>
    internal static bool IsProgram(ClaimsPrincipal user) => user.Identity?.AuthenticationType == TokenScheme;

    /// <summary>Lets a program in where its token is for, and nowhere else.</summary>
    internal static async Task Keep(HttpContext context, RequestDelegate next)
    {
        if (!IsProgram(context.User) || context.GetEndpoint() is null)
        {
            await next(context);
            return;
        }
        var scopes = Scopes.Read((context.User.FindFirstValue(ScopesClaim) ?? "").Split(' ')) ?? Scope.None;
        var wanted = context.GetEndpoint()?.Metadata.GetMetadata<ForPrograms>()?.Scope ?? Scope.None;
        if (wanted != Scope.None && scopes.HasFlag(wanted))
        {
            await next(context);
            return;
        }
        await Results.Problem(wanted == Scope.None ? "No program comes in here. What programs may do is in /openapi/v1.json."
            : $"This token is for {scopes.Words()}, not for {wanted.Word()}. The lead makes one that is.", statusCode: 403,
            title: "Not with this token").ExecuteAsync(context);
    }

    protected override Task<AuthenticateResult> HandleAuthenticateAsync()
    {
        if (Sent(Request) is not { } secret)
            return Task.FromResult(AuthenticateResult.NoResult());
        if (tokens.Of(secret) is not var (token, person))
            return Task.FromResult(AuthenticateResult.Fail("no such token"));
        var identity = new ClaimsIdentity([new(ClaimTypes.NameIdentifier, person.Id.Text), new(ScopesClaim, token.Scopes.Words()),
            new(BrowserSignIn.SessionClaim, $"token {token.Id}")], TokenScheme);
        return Task.FromResult(AuthenticateResult.Success(new(new(identity), TokenScheme)));
    }

    // Devices have keys of their own, which are no tokens.
    private static string? Sent(HttpRequest request) => request.Headers.Authorization.ToString() is var sent
        && sent.StartsWith(Bearer, StringComparison.OrdinalIgnoreCase)
        && !request.Path.StartsWithSegments("/api/v1/devices") ? sent[Bearer.Length..].Trim() : null;
}

/// <summary>No other site makes a browser send a token: what comes with one needs no proof of the page that it came from.</summary>
internal sealed class ProgramAntiforgery(IAntiforgery inner) : IAntiforgery
{
    public AntiforgeryTokenSet GetAndStoreTokens(HttpContext httpContext) => inner.GetAndStoreTokens(httpContext);

    public AntiforgeryTokenSet GetTokens(HttpContext httpContext) => inner.GetTokens(httpContext);

    public Task<bool> IsRequestValidAsync(HttpContext httpContext) =>
        TokenSignIn.IsProgram(httpContext.User) ? Task.FromResult(true) : inner.IsRequestValidAsync(httpContext);

    public Task ValidateRequestAsync(HttpContext httpContext) =>
        TokenSignIn.IsProgram(httpContext.User) ? Task.CompletedTask : inner.ValidateRequestAsync(httpContext);

    public void SetCookieTokenAndHeader(HttpContext httpContext) => inner.SetCookieTokenAndHeader(httpContext);
}
