using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Anakyklos.Web.Pages;

/// <summary>The record of a card, to be read and printed.</summary>
public sealed class RecordModel(CardStore cards, SettingStore settings, WorkshopClock clock, Viewer viewer) : CardPage(cards, clock, viewer)
{
    public string WorkshopName { get; private set; } = "";
    public IReadOnlyList<JobDue> Due => Card.Signature?.Event is Signed s ? s.Due : [];

    public IActionResult OnGet(long id)
    {
        WorkshopName = settings.Read().Name;
        return Load(id) ?? Page();
    }

    /// <summary>The reading that holds for each fastener of the card, with what the book asks.</summary>
    public IEnumerable<(string Name, string Reading, string Book)> Tightened
    {
        get
        {
            foreach (var step in Card.Steps.Where(s => s.Traits.Tightens))
            {
                var fastener = Card.Sheet.Fasteners[step.What];
                var reading = Card.State(step.Id) is { Status: StepStatus.Done }
                    ? Card.History.Select(h => h.Event).OfType<ReadingTaken>().LastOrDefault(r => r.Step == step.Id)?.Reading.ToString()
                    ?? "no reading" : "not yet";
                yield return (fastener.Name, reading, fastener.Tightening.Value is ToTorque to
                    ? $"{to.Target.Print(Viewer.TorqueUnits[0])} ({to.Low.Print(Viewer.TorqueUnits[0]).Number} to "
                        + $"{to.High.Print(Viewer.TorqueUnits[0]).Number})" : "by hand");
            }
        }
    }

    /// <summary>Who countersigned, or null.</summary>
    public string? SecondName(int seq) => Card.History.FirstOrDefault(h => h.Event is Countersigned c && c.Of == seq)?.By.Name;
}
