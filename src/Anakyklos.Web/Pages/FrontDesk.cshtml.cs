using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>The front desk: what is back, what is held and why, what waits for which boat, who comes when. There is nothing to
/// press.</summary>
public sealed class FrontDeskModel(FrontDesk desk, WeekDesk weeks, SettingStore settings, VehicleStore vehicles) : PageModel
{
    private const int Days = 7;

    /// <summary>Who comes within the next days, by day and time.</summary>
    public IEnumerable<IGrouping<DateOnly, (int Begins, WeekVisit Visit)>> ToCome()
    {
        var week = weeks.Week();
        return week.Visits.Where(v => v.Slot?.Day < Days).OrderBy(v => v.Slot!.Value.Day).ThenBy(v => v.Slot!.Value.Begins)
            .GroupBy(v => week.Days[v.Slot!.Value.Day].Date, v => (v.Slot!.Value.Begins, v));
    }

    /// <summary>What a vehicle does.</summary>
    public string Task(string plate) => vehicles.Find(plate)?.Task ?? "";


    /// <summary>What stands there.</summary>
    public DeskBoard Board { get; private set; } = null!;

    /// <summary>The workshop.</summary>
    public string WorkshopName { get; private set; } = "";

    public void OnGet()
    {
        (Board, WorkshopName) = (desk.Look(), settings.Read().Name);
        // It hangs there and is looked at: it comes anew every minute, with script or without.
        Response.Headers["Refresh"] = "60";
    }
}
