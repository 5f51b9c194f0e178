using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>The way from an empty workshop to its first card, on one page. The names of a form's fields begin with its stage.</summary>
public sealed class FirstHourModel(FirstHour hour, SettingStore settings, SettingDesk setting, EquipmentDesk equipment, StoresDesk stores,
    PeopleDesk people, Viewer viewer) : PageModel
{
    private readonly Dictionary<string, string> _typed = [];

    public IReadOnlyList<HourStanding> Stands { get; private set; } = [];
    public WorkshopSettings Settings => settings.Read();
    public List<Refusal> Refusals { get; } = [];

    /// <summary>The stage that stands open: the one whose form was sent, or the first that is asked for.</summary>
    public HourStage? At { get; private set; }

    /// <summary>Nothing of it is asked for any more.</summary>
    public bool IsOver { get; private set; }

    public string Typed(string field, string otherwise = "") => _typed.GetValueOrDefault(field, otherwise);

    /// <summary>What a stage is called.</summary>
    public static string Title(HourStage stage) => stage switch
    {
        HourStage.Name => "The workshop's name",
        HourStage.Bays => "The bays",
        HourStage.Units => "Units",
        HourStage.Climate => "The weather here",
        HourStage.People => "Who works here",
        HourStage.Wrenches => "A torque wrench",
        HourStage.Pans => "A drain pan",
        HourStage.Deliveries => "When parts come",
        HourStage.Oils => "Oils",
        HourStage.Model => "The first model",
        HourStage.Vehicle => "The first vehicle",
        HourStage.Card => "The first card",
        _ => throw new ArgumentOutOfRangeException(nameof(stage)),
    };

    /// <summary>What is missing later where a stage is skipped.</summary>
    public static string Lacks(HourStage stage) => stage switch
    {
        HourStage.Name => "Papers and files that leave here do not say from where.",
        HourStage.Bays => "Bay 1 and Bay 2 are taken for granted, each with a lift.",
        HourStage.Units => "N·m, litres and kilometres come first.",
        HourStage.Climate => "No oil is refused for being too thick in the cold or too thin in the heat.",
        HourStage.People => "Nobody can put a second name to a deviation.",
        HourStage.Wrenches => "No card says what a wrench is set to; each torque is read off and typed.",
        HourStage.Pans => "The kit cannot say whether what runs out fits into a pan.",
        HourStage.Deliveries => "Nobody knows when a part comes; visits that wait for one find no place in the week.",
        HourStage.Oils => "No oil can be compared with what a model asks for; it is typed off the can, with a reason.",
        HourStage.Model => "No vehicle can be taken in.",
        HourStage.Vehicle => "Nothing can fall due.",
        HourStage.Card => "Nothing is on record.",
        _ => throw new ArgumentOutOfRangeException(nameof(stage)),
    };

    public void OnGet(HourStage? at) => Show(at is { } s && Enum.IsDefined(s) ? s : null);

    public async Task<IActionResult> OnPostNameAsync(string? workshop)
    {
        Keep(("Name-workshop", workshop));
        return Answer(HourStage.Name, await setting.SetName(workshop));
    }

    public async Task<IActionResult> OnPostBaysAsync(string? bays, string[] lift)
    {
        Keep(("Bays-bays", bays));
        var names = Typed("Bays-bays").Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        var known = Settings.Bays.Inside;
        // Line by line: what stood in a line before has the name that stands there now.
        List<ChangedBay> changed = [.. names.Select((n, i) => new ChangedBay(i < known.Count ? known[i] : "", n, lift.Length > 0)),
            .. known.Skip(names.Length).Select(k => new ChangedBay(k, "", false))];
        return Answer(HourStage.Bays, await equipment.SetBays(changed));
    }

    public async Task<IActionResult> OnPostUnitsAsync(string? units) => Answer(HourStage.Units,
        await hour.SetUnits(units, viewer.Member!) ? [] : [new("These are no units.", "Choose one of the two.", Field: "units")]);

    public async Task<IActionResult> OnPostClimateAsync(string? coldest, string? hottest)
    {
        Keep(("Climate-coldest", coldest), ("Climate-hottest", hottest));
        return Answer(HourStage.Climate, await setting.SetWeather(coldest, hottest));
    }

    public async Task<IActionResult> OnPostPeopleAsync(string? name, string? pin, string? role)
    {
        Keep(("People-name", name), ("People-role", role));
        return Answer(HourStage.People, (await people.TakeIn(Typed("People-name"), pin, role)).Wrong);
    }

    public async Task<IActionResult> OnPostWrenchesAsync(string? name, string? low, string? high, string? step, string? accuracy,
        string? calibrated, string? lever)
    {
        Keep(("Wrenches-name", name), ("Wrenches-low", low), ("Wrenches-high", high), ("Wrenches-step", step),
            ("Wrenches-accuracy", accuracy), ("Wrenches-calibrated", calibrated), ("Wrenches-lever", lever));
        string Of(string field) => Typed($"Wrenches-{field}");
        return Answer(HourStage.Wrenches, await equipment.PutWrench(new(Of("name"), Of("low"), Of("high"), Of("step"), Of("accuracy"),
            Of("calibrated"), Of("lever")), false));
    }

    public async Task<IActionResult> OnPostPansAsync(string? name, string? holds)
    {
        Keep(("Pans-name", name), ("Pans-holds", holds));
        return Answer(HourStage.Pans, await stores.PutPan(Typed("Pans-name"), Typed("Pans-holds")));
    }

    public async Task<IActionResult> OnPostDeliveriesAsync(string[] day, string? orderBy, string? lead)
    {
        Keep(("Deliveries-order-by", orderBy), ("Deliveries-lead", lead));
        return Answer(HourStage.Deliveries, day.Length == 0 ? [new("No day is chosen.", "Choose one at least, or skip this.",
            Field: "days")] : await setting.SetDeliveries(day, orderBy, lead));
    }

    public async Task<IActionResult> OnPostSkipAsync(HourStage stage, bool skip)
    {
        if (!Enum.IsDefined(stage))
            return BadRequest();
        await hour.Skip(stage, skip);
        return Redirect(skip ? "/first-hour" : $"/first-hour?at={stage}#{stage}");
    }

    public async Task<IActionResult> OnPostEndAsync(bool over)
    {
        await hour.End(over);
        return Redirect(over ? "/" : "/first-hour");
    }

    private void Keep(params (string Field, string? Text)[] typed)
    {
        foreach (var (field, text) in typed)
            _typed[field] = (text ?? "").Trim();
    }

    private IActionResult Answer(HourStage stage, IReadOnlyList<Refusal> wrong)
    {
        if (wrong.Count == 0)
            return Redirect("/first-hour");
        Refusals.AddRange(wrong.Select(w => w with { Field = $"{stage}-{w.Field}" }));
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        Show(stage);
        return Page();
    }

    private void Show(HourStage? at)
    {
        Stands = hour.Stands();
        IsOver = Settings.HourIsOver == true;
        At = at ?? Stands.Where(s => !s.IsDone && !s.IsSkipped).Select(s => (HourStage?)s.Stage).FirstOrDefault();
    }
}
