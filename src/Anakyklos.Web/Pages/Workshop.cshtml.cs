using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>The lead's page: school, rules, weather, the week, vehicles from a file, copies. Each form has its own letter before the names
/// of its fields.</summary>
public sealed class WorkshopModel(PeopleStore people, SettingStore settings, VehicleStore vehicles, SettingDesk desk, BackupDesk backups,
    FileWatch file, CalendarDesk calendars, VisitStore visits, ComingFiles coming, Options options, Viewer viewer) : PageModel
{
    private const int MostFile = 5_000_000;

    private readonly Dictionary<string, string> _typed = [];

    public WorkshopSettings Settings { get; } = settings.Read();
    public IReadOnlyList<Member> People { get; } = people.All();
    public List<Refusal> Refusals { get; } = [];

    /// <summary>Its supplier is a stand-in.</summary>
    public bool IsDemo => options.Demo;

    /// <summary>The key in the addresses of the calendars.</summary>
    public Task<string> CalendarKey() => calendars.Key();

    public string Typed(string field) => _typed.GetValueOrDefault(field, "");

    /// <summary>What was just brought in.</summary>
    public string Said { get; private set; } = "";

    public IReadOnlyList<Refusal> FileErrors { get; private set; } = [];

    /// <summary>Jobs of all models, each id once.</summary>
    public IReadOnlyList<Job> Jobs { get; } = desk.Jobs();

    public IReadOnlyList<OwnRule> Rules => vehicles.OwnRules("");

    public void OnGet(string? said) => Said = said is { Length: < 200 } ? said : "";

    /// <summary>Makes a new key for the calendars.</summary>
    public async Task<IActionResult> OnPostCalendarAsync()
    {
        await calendars.Renew();
        return RedirectToPage(new { said = "The calendars have new addresses" });
    }

    public WorkSchools Schools => Settings.Schools ?? WorkSchools.Usual;

    /// <summary>For how long it runs out at least, in minutes; empty for what each sheet wants.</summary>
    public string Drip => Schools.DripMinutes > 0 ? $"{Schools.DripMinutes}" : "";

    public async Task<IActionResult> OnPostSchoolAsync(string? school, string? stages, string? drain, string? drip, string? filter)
    {
        Keep("s-", ("drip", drip));
        return Answer("s-", await desk.SetSchool(school, stages, drain, drip, filter));
    }

    /// <summary>The depot's rule for a job of all vehicles.</summary>
    public async Task<IActionResult> OnPostRuleAsync(string? job, string? distance, string? months)
    {
        Keep("r-", ("job", job), ("distance", distance), ("months", months));
        return Answer("r-", await desk.SetRule("", job, distance, months, viewer.DistanceUnit));
    }

    /// <summary>The weather of the place, which the oils must bear.</summary>
    public async Task<IActionResult> OnPostWeatherAsync(string? coldest, string? hottest)
    {
        Keep("c-", ("coldest", coldest), ("hottest", hottest));
        return Answer("c-", await desk.SetWeather(coldest, hottest));
    }

    /// <summary>Those who work on vehicles, each with when they are there.</summary>
    public IReadOnlyList<(Member Person, string Hours)> Hours
    {
        get
        {
            var set = visits.Hours();
            return [.. People.Where(p => p.Role is Role.Technician or Role.Lead || set.ContainsKey(p.Id.Text))
                .Select(p => (p, WeekDesk.HoursOf(p, set).ToString()))];
        }
    }

    /// <summary>When it is open, and when people are there.</summary>
    public async Task<IActionResult> OnPostWeekAsync(string? open)
    {
        var hours = Hours.Select(h => h.Person.Id.Text).Where(id => Request.Form.ContainsKey($"hours-{id}"))
            .ToDictionary(id => id, id => $"{Request.Form[$"hours-{id}"]}");
        Keep("o-", [("open", open), .. hours.Select(h => ($"hours-{h.Key}", (string?)h.Value))]);
        return Answer("o-", await desk.SetWeek(open, hours));
    }

    /// <summary>When the supplier brings what is ordered.</summary>
    public async Task<IActionResult> OnPostDeliveriesAsync(string[] day, string? orderBy, string? lead)
    {
        Keep("p-", ("order-by", orderBy), ("lead", lead));
        return Answer("p-", await desk.SetDeliveries(day, orderBy, lead));
    }

    /// <summary>Whether cards are opened with values that fewer than two have read.</summary>
    public async Task<IActionResult> OnPostReadByTwoAsync(string? only)
    {
        await desk.SetReadByTwo(only == "yes");
        return Answer("", []);
    }

    /// <summary>Vehicles and their odometer history from a file.</summary>
    public Task<IActionResult> OnPostVehiclesAsync(string? text) => VehicleFile(text, false);

    /// <summary>Shows what a file of vehicles would change, and takes nothing in.</summary>
    public Task<IActionResult> OnPostLookAsync(string? text) => VehicleFile(text, true);

    /// <summary>What the file that was sent would change; null where none was looked at.</summary>
    public Preview? Would { get; private set; }

    private async Task<IActionResult> VehicleFile(string? text, bool look)
    {
        var file = Request.Form.Files.GetFile("file");
        if (file?.Length > MostFile || text?.Length > MostFile)
        {
            FileErrors = [Refusal.At(1, "", "The file is too large. Bring it in as several files, of 5 MB each at most.")];
            return Again();
        }
        if (file is { Length: > 0 })
            text = (await TextFile.Of(file.OpenReadStream())).Text;
        _typed["v-text"] = text ?? "";
        using var comes = coming.Begin(viewer.Member!.Id, SentForms.IdOf(Request.Form));
        if (look)
        {
            (Would, FileErrors) = desk.LookAtVehicles(text ?? "", comes);
            return FileErrors.Count > 0 ? Again() : Page();
        }
        (var newVehicles, var newReadings, FileErrors) = await desk.BringInVehicles(text ?? "", viewer.Member!.Person.Id, comes);
        return FileErrors.Count > 0 ? Again() : RedirectToPage(new { said = $"{newVehicles} vehicles and {newReadings} readings are in" });
    }

    /// <summary>The nightly copies.</summary>
    public BackupDesk Backups => backups;

    /// <summary>What is wrong with the workshop's file or its copies.</summary>
    public IReadOnlyList<string> Troubles => file.Troubles;

    /// <summary>Those that are there, the newest first.</summary>
    public IReadOnlyList<BackupThere> Copies { get; } = backups.All;

    /// <summary>A copy beside the nightly ones.</summary>
    public async Task<IActionResult> OnPostCopyAsync() => RedirectToPage(new
    {
        said = await backups.Round(true) is { } made ? $"{made.Name} is made and looked through"
            : backups.Trouble.Length > 0 ? "" : "One was made this minute already",
    });

    private void Keep(string form, params (string Field, string? Text)[] typed)
    {
        foreach (var (field, text) in typed)
            _typed[form + field] = (text ?? "").Trim();
    }

    private IActionResult Answer(string form, IReadOnlyList<Refusal> wrong)
    {
        Refusals.AddRange(wrong.Select(r => r with { Field = form + r.Field }));
        return wrong.Count > 0 ? Again() : RedirectToPage();
    }

    private PageResult Again()
    {
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }
}
