using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Bays, wrenches and devices of the workshop. Each form has the name of what it is about before the names of its fields, or a
/// letter where it adds something.</summary>
public sealed class EquipmentModel(SettingStore settings, EquipmentDesk desk, Viewer viewer) : PageModel
{
    /// <summary>How many empty lines there are for new bays.</summary>
    private const int NewBays = 1;

    private readonly Dictionary<string, string> _typed = [];

    public WorkshopSettings Settings { get; } = settings.Read();
    public List<Refusal> Refusals { get; } = [];

    /// <summary>What was just done.</summary>
    public string Said { get; private set; } = "";

    /// <summary>The form that was sent, which stays open; empty for none.</summary>
    public string At { get; private set; } = "";

    /// <summary>The calibrations of everything, the newest first.</summary>
    public ILookup<string, Calibration> Calibrations { get; } = desk.Calibrations();

    /// <summary>The bays as they were typed, or as they are, with room for a new one.</summary>
    public IReadOnlyList<ChangedBay> Bays { get; private set; } = [];

    public string Typed(string field, string otherwise = "") => _typed.GetValueOrDefault(field, otherwise);

    /// <summary>What a wrench that was found off means; null for nothing.</summary>
    public FoundOffStory? Story(WrenchEntry wrench) => desk.Story(wrench, Calibrations[wrench.Name]);

    /// <summary>A wrench's own fields, with their labels and how they are now; all but the name.</summary>
    public static IEnumerable<(string Field, string Label, string Now)> Fields(WrenchEntry? w) =>
    [
        ("low", "Lowest, with unit", $"{w?.Low}"), ("high", "Highest, with unit", $"{w?.High}"),
        ("step", "One graduation, with unit", $"{w?.Step}"), ("accuracy", "Accuracy, %", $"{w?.Accuracy:0.##}"),
        ("calibrated", "Calibrated until, 2026-03-09", $"{w?.CalibrationDue:yyyy-MM-dd}"),
        ("lever", "Square to grip, for crow-feet: 260 mm", w?.Lever is { } l ? $"{l.Print(Core.Quantities.Length.Millimetre)}" : ""),
    ];

    public void OnGet(string? said)
    {
        Said = said is { Length: < 200 } ? said : "";
        ShowBays();
    }

    /// <summary>The bays, one line each; one whose name is taken away is given up.</summary>
    public async Task<IActionResult> OnPostBaysAsync(string[] was, string[] bay, int[] lift)
    {
        if (was.Length != bay.Length)
            return BadRequest();
        List<ChangedBay> changed = [.. bay.Select((name, i) => new ChangedBay(was[i] ?? "", (name ?? "").Trim(), lift.Contains(i)))
            .Where(b => b.Was.Length > 0 || b.Name.Length > 0)];
        Bays = changed;
        return Answer("", await desk.SetBays(changed), "The bays are set");
    }

    public async Task<IActionResult> OnPostWrenchAsync(string? name, string? low, string? high, string? step, string? accuracy,
        string? calibrated, string? lever, bool known)
    {
        var form = known ? $"{name}-" : "w-";
        Keep(form, ("name", name), ("low", low), ("high", high), ("step", step), ("accuracy", accuracy), ("calibrated", calibrated),
            ("lever", lever));
        return Answer(form, await desk.PutWrench(new(Typed($"{form}name"), Typed($"{form}low"), Typed($"{form}high"), Typed($"{form}step"),
            Typed($"{form}accuracy"), Typed($"{form}calibrated"), Typed($"{form}lever")), known),
            $"{name} is {(known ? "put right" : "in")}");
    }

    public async Task<IActionResult> OnPostDispenserAsync(string? name, string? accuracy, string? calibrated, bool known)
    {
        var form = known ? $"{name}-" : "d-";
        Keep(form, ("name", name), ("accuracy", accuracy), ("calibrated", calibrated));
        return Answer(form, await desk.PutDispenser(Typed($"{form}name"), Typed($"{form}accuracy"), Typed($"{form}calibrated"), known),
            $"{name} is {(known ? "put right" : "in")}");
    }

    public async Task<IActionResult> OnPostLabelPrinterAsync(string? name)
    {
        Keep("l-", ("name", name));
        return Answer("l-", await desk.AddLabelPrinter(Typed("l-name")), $"{name} is in");
    }

    public async Task<IActionResult> OnPostScanToolAsync(string? name)
    {
        Keep("s-", ("name", name));
        return Answer("s-", await desk.AddScanTool(Typed("s-name")), $"{name} is in");
    }

    /// <summary>A wrench or a dispenser was calibrated.</summary>
    public async Task<IActionResult> OnPostCalibratedAsync(string? name, string? day, string? off, string? until)
    {
        var form = $"{name}-c-";
        Keep(form, ("day", day), ("off", off), ("until", until));
        return Answer(form, await desk.Recalibrate(name ?? "", new(Typed($"{form}day"), Typed($"{form}off"), Typed($"{form}until")),
            viewer.Member!.Id), $"The calibration of {name} is written down");
    }

    public async Task<IActionResult> OnPostOutAsync(string? name) => Answer(await desk.TakeOut(name ?? ""), $"{name} is out of use");

    public async Task<IActionResult> OnPostBackAsync(string? name) => Answer(await desk.TakeBack(name ?? ""), $"{name} is back");

    private void Keep(string form, params (string Field, string? Text)[] typed)
    {
        foreach (var (field, text) in typed)
            _typed[form + field] = (text ?? "").Trim();
    }

    private IActionResult Answer(Refusal? wrong, string said) => Answer("", wrong is null ? [] : [wrong with { Field = "what" }], said);

    private IActionResult Answer(string form, IReadOnlyList<Refusal> wrong, string said)
    {
        if (wrong.Count == 0)
            return RedirectToPage(new { said });
        Refusals.AddRange(wrong.Select(r => r with { Field = form + r.Field }));
        At = form;
        ShowBays();
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }

    private void ShowBays()
    {
        if (Bays.Count == 0)
            Bays = [.. Settings.Bays.Inside.Select(b => new ChangedBay(b, b, Settings.HasLift(b)))];
        var room = Math.Min(NewBays, Core.Workshop.Bays.Most - Bays.Count(b => b.Name.Length > 0));
        Bays = [.. Bays, .. Enumerable.Repeat(new ChangedBay("", "", true), room)];
    }
}
