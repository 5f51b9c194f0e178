using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>What every page of a card shares: loading it, bringing a command to it, and what others did meanwhile.</summary>
public abstract class CardPage(CardStore cards, WorkshopClock clock, Viewer viewer) : PageModel
{
    protected CardStore Cards => cards;
    protected WorkshopClock Clock => clock;
    protected Viewer Viewer => viewer;

    public long Id { get; private set; }
    public JobCard Card { get; private set; } = null!;
    public CardEntry Entry { get; private set; } = null!;
    public List<Refusal> Refusals { get; } = [];
    public Question? Question { get; private set; }

    /// <summary>A fresh id for the next command from this page.</summary>
    public Guid Command { get; } = Guid.CreateVersion7();

    /// <summary>What others did after the last event this screen had seen.</summary>
    public IReadOnlyList<Recorded> Meanwhile { get; private set; } = [];

    /// <summary>What was typed into a field of the form that was sent, or empty.</summary>
    public string Typed(string field) => Request.HasFormContentType ? Request.Form[field].ToString() : "";

    /// <summary>What this person pressed last and could take back, or null.</summary>
    public Recorded? Last => viewer.Member is { } me && Card.Ended is null ? Card.LastPressOf(me.Id) : null;

    /// <summary>Reads a kit as it was posted; null when an amount could not be read.</summary>
    protected ConfirmKit? ReadKit(string step, Func<Part, KitPart> lies)
    {
        IReadOnlyList<Quantity<Volume>?> pans = Card.FluidsDrained.Any() ? [.. Typed("pan").Split('+', ';')
            .Select(pan => ReadAmount("pan", pan))] : [];
        var oils = Card.FluidsWanted.ToDictionary(f => f.Id,
            f => (Amount: ReadAmount($"oil-{f.Id}"), Product: Typed($"product-{f.Id}"), Reason: Typed($"reason-{f.Id}").Trim()));
        if (pans.Any(p => p is null) || oils.Values.Any(o => o.Amount is null))
            return null;
        return new(step, Card.PartsWanted.ToDictionary(p => p.Id, lies), [.. pans.Select(p => p!.Value)],
            oils.ToDictionary(o => o.Key, o => new OilLaidOut(o.Value.Amount!.Value, o.Value.Product, o.Value.Reason)));
    }

    private Quantity<Volume>? ReadAmount(string field, string? text = null)
    {
        var read = Quantity<Volume>.Read(text ?? Typed(field), out var problem);
        if (read is null)
            Refusals.Add(new(problem, "", Field: field));
        return read?.Value;
    }

    protected IActionResult? Load(long id)
    {
        if (cards.Entry(id) is not { } entry || cards.Find(id) is not { } card)
            return NotFound();
        (Id, Entry, Card) = (id, entry, card);
        if (int.TryParse(Request.Query["since"], out var since))
            Meanwhile = [.. card.History.Where(h => h.Seq > since && h.By.Id != viewer.Member?.Id).TakeLast(5)];
        return null;
    }

    /// <summary>Carries a command out; the address to go to, or null when this page must be shown again with what stands in the
    /// way.</summary>
    protected async Task<string?> Carry(long id, Func<CardCommand?> read, Person? by = null)
    {
        if (viewer.Member?.Person is not { } me || !Guid.TryParse(Typed("command"), out var command))
            Refusals.Add(new("This form is too old to be sent.", "Load the page again; nothing was written."));
        else if (read() is { } wanted)
        {
            var answer = (await cards.Handle(id, command, wanted, by ?? me, clock.Now))!;
            Card = answer.Card;
            switch (answer.Decision)
            {
                case Accepted:
                    return $"/lift/{id}?since={(int.TryParse(Typed("seen"), out var seen) ? seen : Card.History.Count)}";
                case Refused refused:
                    Refusals.AddRange(refused.Reasons);
                    break;
                case Asked asked:
                    Question = asked.Question;
                    break;
            }
        }
        Response.StatusCode = Refusals.Any(r => r.Field is not null) ? StatusCodes.Status422UnprocessableEntity
            : StatusCodes.Status409Conflict;
        return null;
    }
}
