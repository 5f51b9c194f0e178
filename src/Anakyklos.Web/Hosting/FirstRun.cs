using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>Sends everybody to the setup page until the first workshop lead is there.</summary>
public sealed class FirstRun(RequestDelegate next)
{
    private volatile bool _someone;

    /// <summary>Passes on, or redirects.</summary>
    public Task InvokeAsync(HttpContext context, PeopleStore people)
    {
        _someone = _someone || !people.Nobody;
        var path = context.Request.Path;
        if (_someone || path.StartsWithSegments("/setup") || path.StartsWithSegments("/healthz") || path.StartsWithSegments("/openapi")
            || path.StartsWithSegments("/error") || path.StartsWithSegments("/kept"))
            return next(context);
        context.Response.Redirect("/setup");
        return Task.CompletedTask;
    }
}
