using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;
using Anakyklos.Web.Files;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>The lead's page: school, wrenches, people.</summary>
public sealed class WorkshopModel(PeopleStore people, SettingStore settings, VehicleStore vehicles, SheetStore sheets, PinDesk desk,
    WorkshopClock clock, Viewer viewer) : PageModel
{
    private readonly Dictionary<string, string> _typed = [];

    public WorkshopSettings Settings { get; private set; } = settings.Read();
    public IReadOnlyList<Member> People { get; private set; } = people.All();
    public Dictionary<string, string> Problems { get; private set; } = [];

    public string Typed(string field) => _typed.GetValueOrDefault(field, "");

    /// <summary>What was just brought in.</summary>
    public string Said { get; private set; } = "";

    public IReadOnlyList<Refusal> FileErrors { get; private set; } = [];

    /// <summary>Jobs of all models, each id once.</summary>
    public IReadOnlyList<Job> Jobs { get; } =
        [.. sheets.Newest().SelectMany(s => s.Jobs.Values).DistinctBy(j => j.Id).OrderBy(j => j.Name, StringComparer.Ordinal)];

    public IReadOnlyList<OwnRule> Rules => vehicles.OwnRules("");

    public void OnGet(string? said) => Said = said is { Length: < 200 } ? said : "";

    public async Task<IActionResult> OnPostSchoolAsync(string? school)
    {
        await settings.Write(Settings with { School = Enum.TryParse<TargetSchool>(school, out var s) ? s : null });
        return RedirectToPage();
    }

    /// <summary>The depot's rule for a job of all vehicles.</summary>
    public async Task<IActionResult> OnPostRuleAsync(string? job, string? distance, string? months)
    {
        (_typed["r-job"], _typed["r-distance"], _typed["r-months"]) = (job ?? "", (distance ?? "").Trim(), (months ?? "").Trim());
        var (interval, problem) = RuleText.Read(distance, months, viewer.DistanceUnit);
        if (!Jobs.Any(j => j.Id == job))
            Problems["r-job"] = "No model has this job.";
        if (problem.Length > 0)
            Problems["r-distance"] = problem;
        if (Problems.Count > 0)
            return Again();
        await vehicles.SetRule("", job!, interval);
        return RedirectToPage();
    }

    /// <summary>The weather of the place, which the oils must bear.</summary>
    public async Task<IActionResult> OnPostWeatherAsync(string? coldest, string? hottest)
    {
        (_typed["c-coldest"], _typed["c-hottest"]) = ((coldest ?? "").Trim(), (hottest ?? "").Trim());
        int? Degrees(string field)
        {
            var read = Temperature.Read(Typed(field), out var problem, TemperatureScale.Celsius)?.In(TemperatureScale.Celsius);
            if (read is null or < -70 or > 70)
                Problems[field] = read is null ? problem : "Type -70 to 70 °C.";
            return (int?)read;
        }
        var (low, high) = (Degrees("c-coldest"), Degrees("c-hottest"));
        if (low >= high)
            Problems["c-hottest"] = "The hottest must be above the coldest.";
        if (Problems.Count > 0)
            return Again();
        await settings.Write(Settings with { Coldest = low, Hottest = high });
        return RedirectToPage();
    }

    /// <summary>Vehicles and their odometer history from a file.</summary>
    public async Task<IActionResult> OnPostVehiclesAsync(string? text)
    {
        if (Request.Form.Files.GetFile("file") is { Length: > 0 and < 5_000_000 } file)
            text = await new StreamReader(file.OpenReadStream()).ReadToEndAsync();
        _typed["v-text"] = text ?? "";
        var models = sheets.Newest().SelectMany(s => new[] { (s.Id, s.Id), (s.FullName, s.Id) }).DistinctBy(m => m.Item1)
            .ToDictionary(m => m.Item1, m => m.Item2);
        var (brought, readings, errors) = FleetFile.Read(text ?? "", models, [.. vehicles.All().Select(v => v.Plate)], clock);
        FileErrors = errors;
        if (errors.Count > 0)
            return Again();
        var (newVehicles, newReadings) = await vehicles.BringIn(brought, readings, viewer.Member!.Person.Id);
        return RedirectToPage(new { said = $"{newVehicles} vehicles and {newReadings} readings are in" });
    }

    public async Task<IActionResult> OnPostWrenchAsync(string? name, string? low, string? high, string? step, string? accuracy,
        string? calibrated)
    {
        _typed["accuracy"] = (accuracy ?? "").Trim();
        var percent = 4m;
        if (Typed("accuracy").Length > 0 && (!decimal.TryParse(Typed("accuracy").TrimEnd(' ', '%'),
            System.Globalization.NumberStyles.AllowDecimalPoint, System.Globalization.CultureInfo.InvariantCulture, out percent)
            || percent is <= 0 or > 20))
            Problems["w-accuracy"] = "Type it in percent of the reading, such as 4.";
        _typed["calibrated"] = (calibrated ?? "").Trim();
        DateOnly? due = null;
        if (Typed("calibrated").Length > 0)
        {
            (due, var problem) = StockFiles.Day(Typed("calibrated"), clock.Today);
            if (due is null)
                Problems["w-calibrated"] = problem;
        }
        foreach (var (field, value) in new[] { ("name", name), ("low", low), ("high", high), ("step", step) })
            _typed[field] = (value ?? "").Trim();
        if (Typed("name").Length == 0 || Settings.Wrenches.Any(w => w.Name == Typed("name")))
            Problems["w-name"] = "Give it a name that no other wrench has.";
        Typed<Torque>? Torque(string field)
        {
            var read = Quantity<Torque>.Read(Typed(field), out var problem);
            if (read is null || read.Value.Value <= Quantity<Torque>.Zero)
                Problems[$"w-{field}"] = read is null ? problem : "It must be above zero.";
            return read;
        }
        var (l, h, s) = (Torque("low"), Torque("high"), Torque("step"));
        if (Problems.Count == 0 && (l!.Value.Value >= h!.Value.Value || s!.Value.Value > h.Value.Value - l.Value.Value))
            Problems["w-high"] = "The highest must lie above the lowest by at least one graduation.";
        if (Problems.Count > 0)
            return Again();
        await settings.Write(Settings with { Wrenches = [.. Settings.Wrenches,
            new(Typed("name"), l!.Value, h!.Value, s!.Value, percent, due)] });
        return RedirectToPage();
    }

    public async Task<IActionResult> OnPostPersonAsync(string? name, string? pin, Role role)
    {
        _typed["p-name"] = (name ?? "").Trim();
        Problems = NewMember.Problems(Typed("p-name"), pin).ToDictionary(p => $"p-{p.Key}", p => p.Value);
        if (Problems.Count == 0 && !await people.Add(NewMember.Make(Typed("p-name"), Enum.IsDefined(role) ? role : Role.Viewer, pin!,
            desk)))
            Problems["p-name"] = "Somebody has that name already.";
        return Problems.Count > 0 ? Again() : RedirectToPage();
    }

    private PageResult Again()
    {
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }
}
