using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Practice;
using Anakyklos.Web.Coaches;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Anakyklos.Web.Pages.Practice;

/// <summary>A run told again, thing by thing: what was done or told, and how card and vehicle stood then.</summary>
public sealed class ReplayModel(PracticeDesk practice, Viewer viewer) : PracticePage(practice, viewer)
{
    /// <summary>Which thing, from 1.</summary>
    public int At { get; private set; }

    /// <summary>How the bay stood before it.</summary>
    public PracticeRun Before { get; private set; } = null!;

    public PracticeEntry Happened { get; private set; } = null!;

    /// <summary>What the card was told and was not so, by this very thing; null for nothing.</summary>
    public FalseClaim? Claim { get; private set; }

    /// <summary>What was hidden then, and could have been seen.</summary>
    public IReadOnlyList<string> Hidden { get; private set; } = [];

    /// <summary>Minutes from the beginning.</summary>
    public string When => FormattableString.Invariant($"{(Happened.At - Run.Card.History[0].At).TotalMinutes:0} min");

    /// <summary>What happened, in words.</summary>
    public string Says => Happened switch
    {
        HandDid did => $"{did.By.Name} {did.Words}",
        CardTold told => $"{told.By.Name} told the card: {CardLine.Of(Before.Hears(told), told.Said)}",
        GateStopped stopped => $"The card stopped {stopped.By.Name}: {stopped.Reasons[0].What}",
        _ => "",
    };

    public IActionResult OnGet(long id, int at = 1)
    {
        if (Load(id) is { } missing)
            return missing;
        if (Entry.EndedAt is null)
            return Redirect($"/practice/{id}");
        if (Run.Log.IsEmpty)
            return Redirect($"/practice/{id}/debrief");
        At = Math.Clamp(at, 1, Run.Log.Count);
        (Before, Happened) = Run.Moments().ElementAt(At - 1);
        var back = Debrief.Of(Run);
        Claim = Happened is CardTold ? back.Claims.FirstOrDefault(c => c.At == Happened.At) : null;
        Hidden = [.. back.Noticed.Where(n => n.ShownAt <= Happened.At && (n.SeenAt is null || n.SeenAt > Happened.At))
            .Select(n => n.Notice.Says)];
        return Page();
    }
}
