using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Practice;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.Practice;

/// <summary>What is shared by the pages of one run: who may see it.</summary>
public abstract class PracticePage(PracticeDesk practice, Viewer viewer) : PageModel
{
    protected PracticeDesk Bay => practice;

    public CardNumber Id { get; private set; }
    public PracticeRun Run { get; private set; } = null!;
    public PracticeEntryOf Entry { get; private set; } = null!;
    public Person Me => viewer.Member!.Person;

    /// <summary>Finds the run, and refuses whoever has no business with it.</summary>
    protected IActionResult? Load(long id)
    {
        if (practice.Of(id) is not { } entry || practice.Run(id) is not { } run)
            return NotFound();
        (Id, Entry, Run) = (id, entry, run);
        return PracticeDesk.MaySee(entry, Me) || practice.MayJoin(entry, Me) ? null : Forbid();
    }
}

/// <summary>A run: what hands do in it, and time that is let pass.</summary>
public sealed class RunModel(PracticeDesk practice, Viewer viewer) : PracticePage(practice, viewer)
{
    /// <summary>What was wrong with what somebody wanted to do.</summary>
    public Refusal? Wrong { get; private set; }

    /// <summary>Where to go on from it.</summary>
    public string Back { get; private set; } = "";

    /// <summary>What they had typed.</summary>
    public string Typed { get; private set; } = "";

    /// <summary>The choice that it was about; null where it is not there any more.</summary>
    public Choice? Choice { get; private set; }

    public IActionResult OnGet(long id) => Load(id)
        ?? (Entry.EndedAt is not null ? Redirect($"/practice/{id}/debrief") : PracticeDesk.MaySee(Entry, Me)
            ? Redirect(Run.Card.Ended is null ? $"/lift/{id}" : $"/practice/{id}/handover") : Redirect("/practice"));

    public async Task<IActionResult> OnPostDoAsync(long id, string? choice, string? typed, string? back)
    {
        if (Load(id) is { } missing)
            return missing;
        // Only a question of this very page leads back to it.
        Back = back is { Length: > 0 and < 400 } && back[0] == '?' ? $"/lift/{id}{back}" : $"/lift/{id}";
        var (before, said) = (choice ?? "", typed ?? "");
        Wrong = await Bay.Do(Id, Me, before, said);
        if (Wrong is null)
            return Redirect(Back);
        Typed = said;
        Choice = Run.Reach(Me.Name).SelectMany(t => t.Choices).FirstOrDefault(c => c.Id == before);
        Response.StatusCode = Wrong.Field is null ? StatusCodes.Status409Conflict : StatusCodes.Status422UnprocessableEntity;
        return Page();
    }

    public async Task<IActionResult> OnPostWaitAsync(long id, string? minutes)
    {
        if (Load(id) is { } missing)
            return missing;
        Back = $"/lift/{id}";
        TimeSpan? time = string.IsNullOrEmpty(minutes) ? null
            : int.TryParse(minutes, NumberStyles.None, CultureInfo.InvariantCulture, out var n) && n is > 0 and <= 720
            ? TimeSpan.FromMinutes(n) : TimeSpan.Zero;
        Wrong = await Bay.Wait(Id, Me, time);
        if (Wrong is null)
            return Redirect(Back);
        Response.StatusCode = StatusCodes.Status409Conflict;
        return Page();
    }

    public async Task<IActionResult> OnPostJoinAsync(long id)
    {
        if (Load(id) is { } missing)
            return missing;
        Back = "/practice";
        Wrong = await Bay.Join(Id, Me);
        if (Wrong is null)
            return Redirect($"/lift/{id}");
        Response.StatusCode = StatusCodes.Status409Conflict;
        return Page();
    }

    public async Task<IActionResult> OnPostEndAsync(long id)
    {
        if (Load(id) is { } missing)
            return missing;
        Back = $"/practice/{id}";
        Wrong = await Bay.End(Id, Me);
        if (Wrong is null)
            return Redirect($"/practice/{id}/debrief");
        Response.StatusCode = StatusCodes.Status409Conflict;
        return Page();
    }
}
