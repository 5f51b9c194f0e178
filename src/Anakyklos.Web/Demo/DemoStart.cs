using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Demo;

/// <summary>How the made-up depot begins: its folder cleared and filled, or kept as it was left, its vehicles and devices
/// awake.</summary>
public static class DemoStart
{
    /// <summary>Readies the depot, before it is served.</summary>
    /// <param name="options">Where it lies.</param>
    /// <param name="keep">Whether it is to be kept as it was left.</param>
    /// <param name="clock">Its clock.</param>
    /// <param name="build">Puts the application together; called once, when the folder is ready for it.</param>
    public static async Task<WebApplication> Begin(Options options, bool keep, HurriedClock clock, Func<WebApplication> build)
    {
        var past = new DemoPast(options.Folder, options.Seals, DateOnly.FromDateTime(clock.GetLocalNow().DateTime));
        if (!keep)
        {
            DemoDepot.Clear(options.Folder);
            options.Seals.ForgetAnchors();
            DemoDepot.ClearCopies(options);
            past.Lay();
        }
        var app = build();
        if (!keep)
            await app.Services.GetRequiredService<DemoDepot>().Fill(past);
        else if (app.Services.GetRequiredService<CardStore>().LastAt() is { } last)
            clock.NotBefore(last);
        app.Services.GetRequiredService<DemoVehicles>().Begin();
        foreach (var sender in app.Services.GetServices<IDemoSender>())
            await sender.Begin();
        return app;
    }
}
