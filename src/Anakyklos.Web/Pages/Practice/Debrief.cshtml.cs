using Anakyklos.Desk;
using Anakyklos.Practice;
using Anakyklos.Storage;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Anakyklos.Web.Pages.Practice;

/// <summary>The look back on a run that has ended, and the same told again step by step.</summary>
public sealed class DebriefModel(PracticeDesk practice, PeopleStore people, Viewer viewer) : PracticePage(practice, viewer)
{
    public Debrief Back { get; private set; } = null!;
    public OrderDrawing Order { get; private set; } = null!;

    /// <summary>Whose it was.</summary>
    public string Whose => string.Join(" and ", new[] { Entry.Person, Entry.Second ?? default }.Where(p => !p.IsEmpty)
        .Select(p => people.Find(p)?.Name ?? p.Text));

    /// <summary>Minutes and seconds from the beginning.</summary>
    public string At(DateTimeOffset at) => FormattableString.Invariant($"{Math.Floor((at - Run.Card.History[0].At).TotalMinutes):0} min");

    public IActionResult OnGet(long id)
    {
        if (Load(id) is { } missing)
            return missing;
        if (Entry.EndedAt is null)
            return Redirect($"/practice/{id}");
        Back = Debrief.Of(Run);
        Order = OrderDrawing.Of(Run, Back);
        return Page();
    }
}
