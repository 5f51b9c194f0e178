using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>The lead's page: school, wrenches, people.</summary>
public sealed class WorkshopModel(PeopleStore people, SettingStore settings, PinDesk desk) : PageModel
{
    private readonly Dictionary<string, string> _typed = [];

    public WorkshopSettings Settings { get; private set; } = settings.Read();
    public IReadOnlyList<Member> People { get; private set; } = people.All();
    public Dictionary<string, string> Problems { get; private set; } = [];

    public string Typed(string field) => _typed.GetValueOrDefault(field, "");

    public void OnGet() { }

    public async Task<IActionResult> OnPostSchoolAsync(string? school)
    {
        await settings.Write(Settings with { School = Enum.TryParse<TargetSchool>(school, out var s) ? s : null });
        return RedirectToPage();
    }

    public async Task<IActionResult> OnPostWrenchAsync(string? name, string? low, string? high, string? step)
    {
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
        await settings.Write(Settings with { Wrenches = [.. Settings.Wrenches, new(Typed("name"), l!.Value, h!.Value, s!.Value)] });
        return RedirectToPage();
    }

    public async Task<IActionResult> OnPostPersonAsync(string? name, string? pin, Role role)
    {
        _typed["p-name"] = (name ?? "").Trim();
        Problems = NewMember.Problems(Typed("p-name"), pin).ToDictionary(p => $"p-{p.Key}", p => p.Value);
        if (Problems.Count == 0 && !await people.Add(NewMember.Make(Typed("p-name"), Enum.IsDefined(role) ? role : Role.Viewer, pin!, desk)))
            Problems["p-name"] = "Somebody has that name already.";
        return Problems.Count > 0 ? Again() : RedirectToPage();
    }

    private PageResult Again()
    {
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }
}
