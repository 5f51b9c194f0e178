using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Practice;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.Practice;

/// <summary>Makes a lesson of something that was noted on a real card; plate and names are left out.</summary>
public sealed class FromModel(CardStore cards, VehicleStore vehicles, PeopleStore people, LessonShelf lessons, Viewer viewer) : PageModel
{
    private JobCard _card = null!;

    // What the step was about at which it was noted; empty for none.
    private ThingId _at;

    public ModelSheet Sheet { get; private set; } = null!;
    public IReadOnlyList<JobId> Jobs { get; private set; } = [];
    public IReadOnlyList<FaultToChoose> Faults { get; private set; } = [];
    public LessonDraft Draft { get; private set; } = null!;
    public IReadOnlyList<Refusal> Refusals { get; private set; } = [];

    /// <summary>What was noted, without plate and names.</summary>
    public string Noted { get; private set; } = "";

    private IActionResult? Load(long card, int seq)
    {
        if (!viewer.Member!.Person.WorksOnCards)
            return Forbid();
        if (cards.Find(card) is not { } found || found.History.FirstOrDefault(h => h.Seq == seq) is not { } noted
            || Noting(noted.Event) is not var (step, words) || lessons.Sheet(found.Sheet.Id) is not { } sheet)
            return NotFound();
        (_card, _at, Sheet) = (found, found.Step(step)?.What ?? default, sheet);
        Jobs = [.. found.Jobs.Where(sheet.Jobs.ContainsKey)];
        Faults = LessonMaking.Faults(sheet, Jobs, _at);
        Noted = Bare(words);
        return Jobs.Count > 0 ? null : NotFound();
    }

    private static (StepId Step, string Words)? Noting(CardEvent noted) => noted switch
    {
        FindingNoted f => (f.Step, f.Text),
        DeviationTaken d => (d.Step, d.Reason),
        _ => null,
    };

    private string Bare(string? text) => LessonMaking.Without(text ?? "", vehicles.Known().Append(_card.Opened.Plate),
        people.All().Select(p => p.Name).Concat(_card.History.Select(h => h.By.Name))
            .Append(vehicles.Find(_card.Opened.Plate)?.Task ?? "").Distinct());

    public IActionResult OnGet(long card, int seq)
    {
        if (Load(card, seq) is { } missing)
            return missing;
        var nearest = Faults.FirstOrDefault(f => !_at.IsEmpty && f.Notice.What.Text == _at.Text);
        Draft = new(Noted.Length <= 60 ? Noted : "", "It happened here, on a day like any other.", nearest?.Key ?? "",
            nearest?.Notice.Says ?? Noted, "", true);
        return Page();
    }

    public async Task<IActionResult> OnPostAsync([FromRoute] long card, [FromRoute] int seq, string? name, string? story, string? fault,
        string? says, string? right, string? hot)
    {
        if (Load(card, seq) is { } missing)
            return missing;
        Draft = new(Bare(name), Bare(story), fault ?? "", Bare(says), Bare(right), hot == "yes");
        var (lesson, wrong) = LessonMaking.Make(Draft, Sheet, Jobs);
        if (lesson is { } made)
            (lesson, wrong) = lessons.Find(made.Id) is null ? await lessons.Keep(LessonFile.Write(made), viewer.Member!.Id)
                : (null, [new("There is a lesson of that name.", "Give it another name.", Field: "name")]);
        if (lesson is { } kept)
            return Redirect($"/practice/lesson/{Uri.EscapeDataString(kept.Id.Text)}");
        Refusals = wrong;
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }
}
