using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Anakyklos.Web.Pages.Practice;

/// <summary>The end of a run: what stands in the way of the signature, a lead who answers, the signature, the look back.</summary>
public sealed class HandoverModel(PracticeDesk practice, Viewer viewer) : PracticePage(practice, viewer)
{
    /// <summary>The lead of the practice bay, who believes what is said.</summary>
    private static readonly Person Lead = new("practice-lead", "The lead of the practice bay", Role.Lead);

    /// <summary>What stands in the way of the signature.</summary>
    public IReadOnlyList<Refusal> InTheWay { get; private set; } = [];

    /// <summary>What the card said against the last thing that was wanted.</summary>
    public IReadOnlyList<Refusal> Refusals { get; private set; } = [];

    public IActionResult OnGet(long id) => Load(id) ?? (Entry.EndedAt is not null ? Redirect($"/practice/{id}/debrief") : Show());

    private IActionResult Show()
    {
        if (!PracticeDesk.MaySee(Entry, Me))
            return Forbid();
        InTheWay = Run.Card.Ended is null ? [.. Run.Card.BeforeSigning()] : [];
        return Page();
    }

    public Task<IActionResult> OnPostSignAsync(long id) => Say(id, new Sign(), true);

    /// <summary>The lead decides about a stop.</summary>
    /// <param name="id">The run.</param>
    /// <param name="of">Seq of the finding.</param>
    /// <param name="mended">"yes" where it was put right.</param>
    public Task<IActionResult> OnPostDecideAsync(long id, int of, string? mended) =>
        Say(id, new DecideStop(of, mended == "yes", mended == "yes" ? "Put right" : "Stays as it is, told"), false);

    /// <summary>A second name is put to a deviation.</summary>
    /// <param name="id">The run.</param>
    /// <param name="of">Its seq.</param>
    public Task<IActionResult> OnPostCountersignAsync(long id, int of) => Say(id, new Countersign(of), false);

    private async Task<IActionResult> Say(long id, CardCommand command, bool isMine)
    {
        if (Load(id) is { } missing)
            return missing;
        Refusals = await Bay.Say(Id, Me, command, isMine ? Me : Lead);
        if (Refusals.Count == 0)
            return Redirect($"/practice/{id}/handover");
        Load(id);
        Response.StatusCode = StatusCodes.Status409Conflict;
        return Show();
    }
}
