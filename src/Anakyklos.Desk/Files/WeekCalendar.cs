using Anakyklos.Core.Weeks;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.Serialization;

namespace Anakyklos.Desk.Files;

/// <summary>Who comes to the workshop when, as a calendar that other programs follow.</summary>
public static class WeekCalendar
{
    /// <summary>Writes it: an entry for each visit, from in to out; one that nobody fixed yet is tentative.</summary>
    /// <param name="name">The name of the calendar.</param>
    /// <param name="week">The plan.</param>
    /// <param name="at">A time of a day in the workshop.</param>
    /// <param name="now">When it is written.</param>
    /// <param name="page">The address of a visit's page.</param>
    /// <returns>iCalendar (RFC 5545), in UTC.</returns>
    public static string Write(string name, WorkshopWeek week, Func<DateOnly, int, DateTimeOffset> at, DateTimeOffset now,
        Func<string, string> page)
    {
        var calendar = new Calendar { ProductId = "-//Anakyklos//Week//EN" };
        calendar.AddProperty("X-WR-CALNAME", name);
        foreach (var v in week.Visits.Where(v => v.Slot is not null))
        {
            var (slot, day) = (v.Slot!.Value, week.Days[v.Slot.Value.Day].Date);
            calendar.Events.Add(new CalendarEvent
            {
                // A vehicle has one visit ahead, and keeps its name when that moves.
                Uid = $"{v.Plate}-visit@anakyklos".Replace(' ', '_'),
                DtStamp = new(now.UtcDateTime),
                Start = new(at(day, slot.Begins).UtcDateTime),
                End = new(at(day, slot.Begins + v.Work.Length).UtcDateTime),
                Summary = $"{v.Plate}: {v.Of.Vehicle.Task}, {week.BayOf(slot)}",
                Description = string.Join(", ", v.Of.Wish.Wishes.Select(w => w.What)) + ".",
                Status = v.IsFixed ? EventStatus.Confirmed : EventStatus.Tentative,
                Url = new(page(v.Plate)),
            });
        }
        return new CalendarSerializer().SerializeToString(calendar)!;
    }
}
