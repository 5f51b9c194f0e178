using Anakyklos.Core.Weeks;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Wording;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Two weeks of the bays: who comes when, and why.</summary>
public sealed class WeekModel(WeekDesk desk, SettingStore settings, VehicleStore vehicles, WorkshopClock clock) : PageModel
{
    private const int Days = 7;

    public WorkshopWeek Week { get; private set; } = null!;
    public WeekDrawing Drawing { get; private set; } = null!;

    /// <summary>Which of the two weeks, 1 or 2.</summary>
    public int Which { get; private set; } = 1;

    public DateOnly Today => clock.Today;

    /// <summary>Who stands in the week that is shown, by day and time.</summary>
    public IEnumerable<IGrouping<DateOnly, WeekVisit>> Shown => Week.Visits
        .Where(v => v.Slot is { } s && s.Day / Days + 1 == Which)
        .OrderBy(v => v.Slot!.Value.Day).ThenBy(v => v.Slot!.Value.Begins).ThenBy(v => v.Slot!.Value.Bay)
        .GroupBy(v => Week.Days[v.Slot!.Value.Day].Date);

    /// <summary>Who should come and finds no place.</summary>
    public IEnumerable<WeekVisit> Unplaced => Week.Visits.Where(v => v.Slot is null);

    /// <summary>When a card will be done: the time today, else the day.</summary>
    public string Ends(WeekCard card) => card.Ends is not { } ends ? "–"
        : clock.Day(ends) == Today ? $"{clock.Local(ends):HH:mm}" : $"{ends:ddd}";

    /// <summary>What a vehicle does.</summary>
    public string Task(string plate) => vehicles.Find(plate)?.Task ?? "";

    public void OnGet(int week = 1)
    {
        (Week, Which) = (desk.Week(), week == 2 ? 2 : 1);
        Drawing = WeekDrawing.Of(Week, (Which - 1) * Days, Days, settings.Read().Opening, clock.Now,
            x => x is WeekVisit v ? WeekWords.Visit(v, Week) : WeekWords.Card((WeekCard)x, clock.Now));
        Response.Headers["Refresh"] = "300";
    }
}
