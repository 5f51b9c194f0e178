using Anakyklos.Core.Due;
using Anakyklos.Core.Workshop;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;

namespace Anakyklos.Desk.Files;

/// <summary>A vehicle with the jobs that come.</summary>
/// <param name="Vehicle">The vehicle.</param>
/// <param name="Model">Its model.</param>
/// <param name="Ahead">The jobs.</param>
public sealed record VehicleAhead(Vehicle Vehicle, string Model, IReadOnlyList<ComingJob> Ahead);

/// <summary>What falls due, as a calendar that other programs follow.</summary>
public static class DueCalendar
{
    /// <summary>Writes it: a whole day for each vehicle and day on which something falls due; what is overdue stands on today.</summary>
    /// <param name="name">The name of the calendar.</param>
    /// <param name="vehicles">The vehicles.</param>
    /// <param name="now">When it is written.</param>
    /// <param name="page">The address of a vehicle's page.</param>
    /// <returns>iCalendar (RFC 5545).</returns>
    public static string Write(string name, IEnumerable<VehicleAhead> vehicles, DateTimeOffset now, Func<string, string> page)
    {
        var calendar = new Calendar { ProductId = "-//Anakyklos//Due//EN" };
        calendar.AddProperty("X-WR-CALNAME", name);
        var today = DateOnly.FromDateTime(now.DateTime);
        foreach (var v in vehicles)
            foreach (var day in v.Ahead.Where(a => a.Standing.IsDue || a.Due is not null)
                .GroupBy(a => a.Standing.IsDue || a.Due!.Day < today ? today : a.Due!.Day))
            {
                var jobs = day.ToList();
                calendar.Events.Add(new CalendarEvent
                {
                    // The same jobs keep their name when their day moves.
                    Uid = $"{v.Vehicle.Plate}-{string.Join("-", jobs.Select(j => j.Standing.Item.Job.Text))}@anakyklos".Replace(' ', '_'),
                    DtStamp = new(now.UtcDateTime),
                    Start = new(day.Key),
                    End = new(day.Key.AddDays(1)),
                    Summary = $"{v.Vehicle.Plate}: {string.Join(", ", jobs.Select(j => j.Standing.Item.Name))}",
                    Description = $"{v.Model}. {string.Join(" ", jobs.Select(Says))}",
                    Url = new(page(v.Vehicle.Plate)),
                    Transparency = TransparencyType.Transparent,
                });
            }
        return new CalendarSerializer().SerializeToString(calendar)!;
    }

    private static string Says(ComingJob job)
    {
        var of = job.Standing.Item.Name;
        return job.Standing.State switch
        {
            DueState.Overdue => $"{of}: overdue.",
            DueState.Due => $"{of}: due today.",
            DueState.Unknown => $"{of}: nobody knows when it was last done.",
            _ => job.Due is { } due && due.Earliest != due.Day ? $"{of}: as it is driven, from {due.Earliest:d MMM yyyy} on." : $"{of}.",
        };
    }
}
