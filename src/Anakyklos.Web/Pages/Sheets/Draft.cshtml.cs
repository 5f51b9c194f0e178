using Anakyklos.Core.Authoring;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Composing;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Practice;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Wording;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.Sheets;

/// <summary>A field of a sheet as it is drawn.</summary>
/// <param name="Shape">What can be typed.</param>
/// <param name="Path">Where it stands.</param>
/// <param name="Page">The page.</param>
public sealed record SheetField(EntryShape Shape, string Path, DraftModel Page);

/// <summary>The desk of one sheet: its things, the one that is written, what is wrong, and the card that it makes.</summary>
public sealed class DraftModel(SheetDesk desk, TorqueTable torqueTable, PeopleStore people, Viewer viewer) : PageModel
{
    private const int MostRows = 60;

    /// <summary>The draft.</summary>
    public DraftNow Now { get; private set; } = null!;

    /// <summary>The thing that is written; empty for what the sheet says of the model as a whole.</summary>
    public string At { get; private set; } = "";

    public EntryShape Shape { get; private set; } = SheetShape.Sheet;

    /// <summary>What could not be taken.</summary>
    public IReadOnlyList<Refusal> Refusals { get; private set; } = [];

    public IReadOnlyList<SheetGroup> Groups { get; private set; } = [];

    /// <summary>The jobs whose card stands beside, and its steps.</summary>
    public IReadOnlyList<JobId> Jobs { get; private set; } = [];

    public IReadOnlyList<(string Title, string At)> Card { get; private set; } = [];

    public int Steps { get; private set; }

    /// <summary>The sheet whose card stands beside: the draft, or what of it is sound; null where no card comes of it yet.</summary>
    public ModelSheet? Shown { get; private set; }

    /// <summary>The paths that were left out of it because something is wrong there.</summary>
    public IReadOnlyList<string> Without { get; private set; } = [];

    /// <summary>What came of walking the card; null where it was not walked.</summary>
    public DryWalked? Walked { get; private set; }

    public Person? Me => viewer.Member?.Person;

    public bool Works => Me?.WorksOnCards == true;

    /// <summary>What was typed, where the page is shown again because something is wrong with it.</summary>
    private bool IsAgain { get; set; }

    public string Name(PersonId id) => people.Find(id)?.Person.Name ?? id.Text;

    public IActionResult OnGet(long n, string? at, string[] job, string? walk)
    {
        if (Load(n, at, job) is { } missing)
            return missing;
        if (walk == "yes" && Shown is { } sheet && Card.Count > 0)
            Walked = DryWalk.Of(sheet, Jobs);
        return Page();
    }

    private IActionResult? Load(long n, string? at, string[] job)
    {
        if (desk.Find(n) is not { } now)
            return NotFound();
        Now = now;
        At = at is not null && SheetDesk.ThingOf(at) is { Length: > 0 } thing && now.Text.Has(thing) ? thing : "";
        Shape = SheetShape.At(At)!;
        Groups = SheetGroup.Of(now.Text, SheetWords.Table);
        Shown = now.Reading.Sheet;
        if (Shown is null && SoundPart.Of(now.Text) is { } sound)
            (Shown, Without) = (sound.Sheet, sound.Without);
        if (Shown is { } sheet)
        {
            Jobs = [.. job.Select(JobId.Of).Where(sheet.Jobs.ContainsKey).Distinct()];
            // Unasked, the first job is shown of which a card comes.
            if (Jobs.Count > 0)
                Compose(sheet);
            else if (sheet.Jobs.Keys.FirstOrDefault(j => Plan(sheet, [j]).Work is not null) is { IsEmpty: false } first)
            {
                Jobs = [first];
                Compose(sheet);
            }
        }
        return null;
    }

    // Jobs that only do not go together were told as wrong; three of them may still not.
    private void Compose(ModelSheet sheet)
    {
        var (plan, why) = Plan(sheet, Jobs);
        Refusals = why is null ? [] : [new(why, "Choose other jobs.")];
        Steps = plan?.Steps.Count ?? 0;
        Card = [.. (plan?.Steps ?? []).Take(MostRows).Select(s => (s.Title, s.What.IsEmpty ? $"steps.{s.Id}"
            : SheetShape.Tables.Select(t => $"{t.Name}.{s.What}").FirstOrDefault(Now.Text.Has) ?? $"steps.{s.Id}"))];
    }

    private static (CardPlan? Work, string? Why) Plan(ModelSheet sheet, IReadOnlyList<JobId> jobs)
    {
        try
        {
            return (CardPlanner.Plan(sheet, jobs), null);
        }
        catch (ComposingException e)
        {
            return (null, e.Message);
        }
    }

    /// <summary>What is wrong at a field, and at nothing below it that is drawn.</summary>
    public IReadOnlyList<Refusal> WrongAt(string path, bool below = false) =>
        [.. Now.Reading.Errors.Concat(Refusals).Where(r => r.Field is { } f
            && (f == path || (below && (f.StartsWith($"{path}.", StringComparison.Ordinal)
            || f.StartsWith($"{path}[", StringComparison.Ordinal)))))];

    /// <summary>What stands in a field: what was typed where it could not be taken, or what the sheet says.</summary>
    public string Value(string path) => IsAgain && Request.Form.TryGetValue(path, out var typed) ? Joined(typed)
        : CitedValue.Typed(Now.Text, path);

    private static string Joined(Microsoft.Extensions.Primitives.StringValues typed) =>
        string.Join('\n', typed.Where(t => !string.IsNullOrEmpty(t)));

    /// <summary>How the thing stood when this page was made.</summary>
    public string Was => IsAgain ? Request.Form["was"].ToString() : At.Length > 0 ? SheetDesk.Mark(Now.Text.Raw(At)!) : "";

    /// <summary>What a field can name: the ids of a table with their names.</summary>
    public IReadOnlyList<(string Id, string Name)> Named(EntryShape shape) => shape.Choices.Count > 0
        ? [.. shape.Choices.Select(c => (c, SheetWords.Choice(c)))]
        : shape.RefersTo switch
        {
            "" => [],
            "cautions" => [.. Caution.ByKey.Keys.Select(c => (c, SheetWords.Choice(c)))],
            "things" => [.. Ids("access", "fluids", "fasteners", "parts")],
            "openings" => [.. Ids("access", "fasteners")],
            "sources" => [.. Now.Text.Names("sources").Select(id => (id, Now.Text.Said($"sources.{id}.title")))],
            var table => [.. Ids(table)],
        };

    private IEnumerable<(string, string)> Ids(params string[] tables) =>
        tables.SelectMany(t => Now.Text.Names(t).Select(id => (id, SheetGroup.Name(Now.Text, $"{t}.{id}"))));

    /// <summary>What was typed for a path; null for what did not stand on the page.</summary>
    private string? Typed(string path) => Request.Form.TryGetValue(path, out var typed) ? Joined(typed) : null;

    public async Task<IActionResult> OnPostWriteAsync(long n, string? at, string? was) =>
        Answer(n, at, await desk.Change(n, Me!, SheetDesk.ThingOf(at ?? ""), was ?? "", Typed), at ?? "");

    public async Task<IActionResult> OnPostAddAsync(long n, string? at, string? table, string? called)
    {
        var (path, wrong) = await desk.Add(n, Me!, table ?? "", called ?? "");
        return Answer(n, at, wrong, path ?? "");
    }

    public async Task<IActionResult> OnPostRemoveAsync(long n, string? at) => Answer(n, at, await desk.Remove(n, Me!, at ?? ""), "");

    public async Task<IActionResult> OnPostTextAsync(long n, int edition, string? text) =>
        Answer(n, "", await desk.Rewrite(n, Me!, edition, text ?? ""), "");

    public async Task<IActionResult> OnPostTorquesAsync(long n, string? torques)
    {
        var (_, wrong) = await torqueTable.TakeIn(n, Me!, torques ?? "");
        return Answer(n, "", wrong, "");
    }

    public async Task<IActionResult> OnPostReadHereAsync(long n) => Answer(n, "", await desk.ReadHere(n, Me!), "");

    public async Task<IActionResult> OnPostRuleAsync(long n, string? value, string? reader) =>
        Answer(n, value, await desk.Rule(n, Me!, value ?? "", reader ?? ""), SheetDesk.ThingOf(value ?? ""));

    public async Task<IActionResult> OnPostWalkAsync(long n, string[] job)
    {
        var (run, wrong) = await desk.Walk(n, Me!, [.. job.Select(JobId.Of)]);
        return run is not null ? Redirect($"/lift/{run}") : Answer(n, "", wrong, "");
    }

    public async Task<IActionResult> OnPostThrowAwayAsync(long n)
    {
        var wrong = await desk.ThrowAway(n, Me!);
        return wrong.Count == 0 ? Redirect("/library") : Answer(n, "", wrong, "");
    }

    private IActionResult Answer(long n, string? at, IReadOnlyList<Refusal> wrong, string next)
    {
        if (wrong.Count == 0)
            return Redirect($"/library/draft/{n}?at={Uri.EscapeDataString(SheetDesk.ThingOf(next))}");
        IsAgain = true;
        if (Load(n, SheetDesk.ThingOf(at ?? ""), []) is { } missing)
            return missing;
        Refusals = wrong;
        Response.StatusCode = wrong.Any(r => r.Field is not null) ? StatusCodes.Status422UnprocessableEntity
            : Works ? StatusCodes.Status409Conflict : StatusCodes.Status403Forbidden;
        return Page();
    }
}
