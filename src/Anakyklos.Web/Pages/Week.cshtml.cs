using Anakyklos.Core.Weeks;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Wording;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Two weeks of the bays: who comes when, and why.</summary>
public sealed class WeekModel(WeekDesk desk, SettingStore settings, VehicleStore vehicles, PeopleStore people, VisitStore visits,
    WorkshopClock clock) : PageModel
{
    private const int Days = 7;

    public WorkshopWeek Week { get; private set; } = null!;
    public WeekDrawing Drawing { get; private set; } = null!;

    /// <summary>Which of the two weeks, 1 or 2.</summary>
    public int Which { get; private set; } = 1;

    public DateOnly Today => clock.Today;

    /// <summary>The one day that is shown; null for the seven.</summary>
    public DateOnly? Day { get; private set; }

    /// <summary>The days before and after it on which the workshop is open; null for none.</summary>
    public (DateOnly? Before, DateOnly? After) Beside { get; private set; }

    /// <summary>Who stands in the days that are shown, by day and time.</summary>
    public IEnumerable<IGrouping<DateOnly, WeekVisit>> Shown => Week.Visits
        .Where(v => v.Slot is { } s && (Day is { } day ? Week.Days[s.Day].Date == day : s.Day / Days + 1 == Which))
        .OrderBy(v => v.Slot!.Value.Day).ThenBy(v => v.Slot!.Value.Begins).ThenBy(v => v.Slot!.Value.Bay)
        .GroupBy(v => Week.Days[v.Slot!.Value.Day].Date);

    /// <summary>Who works when; people with the same times together.</summary>
    public IEnumerable<string> Hours()
    {
        var set = visits.Hours();
        return people.All().Select(p => (p.Name, Times: WeekDesk.HoursOf(p, set).ToString())).Where(p => p.Times.Length > 0)
            .GroupBy(p => p.Times).Select(g => $"{string.Join(", ", g.Select(p => p.Name))}: {g.Key}");
    }

    /// <summary>Who should come and finds no place.</summary>
    public IEnumerable<WeekVisit> Unplaced => Week.Visits.Where(v => v.Slot is null);

    /// <summary>When a card will be done: the time today, else the day.</summary>
    public string Ends(WeekCard card) => card.Ends is not { } ends ? "–"
        : clock.Day(ends) == Today ? $"{clock.Local(ends):HH:mm}" : $"{ends:ddd}";

    /// <summary>What a vehicle does.</summary>
    public string Task(string plate) => vehicles.Find(plate)?.Task ?? "";

    /// <summary>Shows the seven days, the seven after, or one day alone.</summary>
    /// <param name="week">1 or 2.</param>
    /// <param name="day">A day of these two weeks; any other shows the week.</param>
    public void OnGet(int week = 1, DateOnly? day = null)
    {
        (Week, Which) = (desk.Week(), week == 2 ? 2 : 1);
        var opening = settings.Read().Opening;
        List<DateOnly> open = [.. Week.Days.Select(d => d.Date).Where(d => opening.On(d) != Quarters.None)];
        if (day is { } one && open.Contains(one))
        {
            (Day, Which) = (one, (one.DayNumber - Today.DayNumber) / Days + 1);
            Beside = (open.Where(d => d < one).Select(d => (DateOnly?)d).LastOrDefault(),
                open.Where(d => d > one).Select(d => (DateOnly?)d).FirstOrDefault());
        }
        var from = Day is { } only ? only.DayNumber - Today.DayNumber : (Which - 1) * Days;
        Drawing = WeekDrawing.Of(Week, from, Day is null ? Days : 1, opening, clock.Now, Words);
        Response.Headers["Refresh"] = "300";
    }

    private (string, IReadOnlyList<string>) Words(object of) => of is WeekVisit v
        ? (WeekWords.Visit(v, Week), [Task(v.Plate), WeekWords.Most(v, Today)])
        : of is WeekCard c ? (WeekWords.Card(c, clock.Now), [c.Task, $"card {c.Entry.Id}"]) : ("", []);
}
