using System.Security.Claims;
using Anakyklos.Core.Workshop;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;

namespace Anakyklos.Web.Hosting;

/// <summary>Who is signed in at a browser is kept in its cookie.</summary>
internal static class BrowserSignIn
{
    /// <summary>Signs a person in at this browser.</summary>
    internal static Task SignIn(HttpContext context, Member member) => context.SignInAsync(
        CookieAuthenticationDefaults.AuthenticationScheme,
        new ClaimsPrincipal(new ClaimsIdentity([new(ClaimTypes.NameIdentifier, member.Id.Text)],
            CookieAuthenticationDefaults.AuthenticationScheme)));
}
