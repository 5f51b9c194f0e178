using System.Security.Cryptography;
using System.Text;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>Calendars of what falls due. A calendar program cannot sign in: whoever knows the key in the address may read, and nobody
/// else; with a new key every old address is dead.</summary>
public sealed class CalendarDesk(VehicleStore vehicles, DueDesk due, WeekDesk weeks, SettingStore settings, WorkshopClock clock)
{
    /// <summary>The key in the addresses, made when it is first asked for.</summary>
    public async Task<string> Key() => settings.CalendarKey() ?? await settings.SetCalendarKey(NewKey(), replace: false);

    /// <summary>Makes a new key; the addresses with the old one say nothing any more.</summary>
    public Task<string> Renew() => settings.SetCalendarKey(NewKey(), replace: true);

    /// <summary>Whether a key is the right one.</summary>
    /// <param name="key">As it stands in an address.</param>
    public bool IsKey(string key) => settings.CalendarKey() is { } right
        && CryptographicOperations.FixedTimeEquals(Encoding.UTF8.GetBytes(key), Encoding.UTF8.GetBytes(right));

    /// <summary>What falls due, of all vehicles or of one.</summary>
    /// <param name="plate">One vehicle, or null for all.</param>
    /// <param name="page">The address of a vehicle's page.</param>
    /// <returns>iCalendar; null where there is no such vehicle.</returns>
    public string? Write(string? plate, Func<string, string> page)
    {
        if (plate is not null && vehicles.Find(plate) is null)
            return null;
        var all = plate is null ? due.OfAll() : due.Of(vehicles.Find(plate)!) is { } one ? [one] : [];
        var name = settings.Read().Name;
        return DueCalendar.Write(plate is null ? $"{name}, services" : $"{plate}, services",
            all.Select(s => new VehicleAhead(s.Vehicle, s.Sheet.FullName, VehicleDesk.Ahead(s))),
            clock.Now, page);
    }

    /// <summary>Who comes to the workshop when.</summary>
    /// <param name="page">The address of a visit's page.</param>
    /// <returns>iCalendar.</returns>
    public string WriteWeek(Func<string, string> page) => WeekCalendar.Write($"{settings.Read().Name}, visits", weeks.Week(),
        (day, quarter) => clock.At(day, default).AddMinutes(quarter * Core.Weeks.Quarters.Minutes), clock.Now, page);

    private static string NewKey() => Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(16));
}
