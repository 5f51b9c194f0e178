using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Localization;

namespace Anakyklos.Web.Languages;

/// <summary>The language that a person has chosen; who has chosen none, or has not signed in, is spoken to as their browser asks.</summary>
public sealed class PersonLanguage : RequestCultureProvider
{
    /// <inheritdoc/>
    public override Task<ProviderCultureResult?> DetermineProviderCultureResult(HttpContext httpContext)
    {
        var chosen = httpContext.RequestServices.GetRequiredService<Viewer>().Member?.Language;
        var language = string.IsNullOrEmpty(chosen) ? Asked(httpContext.Request) : chosen;
        return Task.FromResult(language is null ? null : new ProviderCultureResult(Offered.English.Name, language));
    }

    // "de-AT" asks for German: no country has words of its own here.
    private static string? Asked(HttpRequest request) => request.GetTypedHeaders().AcceptLanguage
        .Where(l => l.Quality is not 0).OrderByDescending(l => l.Quality ?? 1)
        .Select(l => l.Value.Value?.Split('-')[0].ToLowerInvariant())
        .FirstOrDefault(l => Offered.All.Any(o => o.Code == l));
}
