using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;

namespace Anakyklos.Web.Wording;

/// <summary>The words for what wears.</summary>
public static class WearWords
{
    private const int Shown = 4, Nearest = 100;

    /// <summary>What was read, the oldest first.</summary>
    public static string Readings(WearStory wear) => string.Join(", ", wear.Read.TakeLast(Shown)
        .Select(r => $"{r.Least} on {r.Day:d MMM yyyy}")) + $"; at least {wear.Limit}";

    /// <summary>How fast it goes and when it is down.</summary>
    public static string Forecast(WearStory wear, Unit<Distance> unit)
    {
        if (wear.Forecast is not { } f || wear.Until is not { } until)
            return wear.Read[^1].Least <= wear.Limit ? "Down to the limit already."
                : wear.Read.Count < 2 ? "Measured once: how fast it wears is not known yet."
                : "The last two readings do not tell how fast it wears.";
        var fast = f.Now.Scale.Of(0) with { Base = f.PerKilometre * 1000 };
        if (f.Now <= wear.Limit)
            return "Down to the limit already.";
        // Two readings do not tell it nearer than that, and earlier is safer than later.
        var at = Quantity<Distance>.Of(Math.Floor(until.In(unit) / Nearest) * Nearest, unit);
        return $"{fast} in 1000 km: down to the limit at {OdometerText.Of(at, unit)}"
            + (wear.Day is { } day ? $", about {day:MMMM yyyy}." : ".");
    }
}
