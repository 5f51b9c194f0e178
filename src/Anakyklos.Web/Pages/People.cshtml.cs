using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Who works here: roles, PINs, who comes and who goes. For the lead.</summary>
public sealed class PeopleModel(PeopleStore people, PeopleDesk desk, SettingStore settings) : PageModel
{
    /// <summary>Everybody there ever was; those who are gone come last.</summary>
    public IReadOnlyList<Member> Everybody => [.. people.Ever().OrderBy(p => p.GoneAt is not null)];

    public List<Refusal> Refusals { get; } = [];

    /// <summary>The name of a new person as it was typed.</summary>
    public string Name { get; private set; } = "";

    /// <summary>The person at whom something is wrong.</summary>
    public string At { get; private set; } = "";

    /// <summary>Whether a new PIN has six digits at least.</summary>
    public bool LongPins => settings.Read().LongPins == true;

    public async Task<IActionResult> OnPostAddAsync(string? name, string? pin, string? role)
    {
        Name = (name ?? "").Trim();
        return Answer("", (await desk.TakeIn(Name, pin, role)).Wrong);
    }

    public async Task<IActionResult> OnPostRoleAsync(string? person, string? role) =>
        Answer(person, await desk.GiveRole(person ?? "", role));

    public async Task<IActionResult> OnPostPinAsync(string? person, string? pin, string? again) =>
        Answer(person, await desk.GivePin(person ?? "", pin, again));

    public async Task<IActionResult> OnPostGoAsync(string? person) => Answer(person, await desk.LetGo(person ?? ""));

    public async Task<IActionResult> OnPostBackAsync(string? person) => Answer(person, await desk.TakeBack(person ?? ""));

    public async Task<IActionResult> OnPostDigitsAsync(bool? six)
    {
        if (six is null)
            return BadRequest();
        await settings.Change(now => now with { LongPins = six.Value ? true : null });
        return RedirectToPage();
    }

    private IActionResult Answer(string? person, IReadOnlyList<Refusal> wrong)
    {
        if (wrong.Count == 0)
            return RedirectToPage();
        At = person ?? "";
        Refusals.AddRange(wrong.Select(r => r with { Field = $"{At}-{r.Field}" }));
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }
}
