using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Coaches;
using Anakyklos.Web.Commands;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>What every page of a card shares: loading it, bringing a command to it, and what others did meanwhile.</summary>
public abstract class CardPage(CardStore cards, WorkshopClock clock, Viewer viewer, CardRooms? rooms = null) : PageModel
{
    private ICardRoom Room(CardNumber id) => rooms?.Of(id) ?? cards;

    /// <summary>Whether it is a card of the practice bay.</summary>
    public bool IsPractice => PracticeStore.IsRun(Id);

    /// <summary>How much has happened in the practice bay when this page is drawn; null for the card of a vehicle.</summary>
    public string? Moved => IsPractice ? $"{rooms?.Moved(Id)}" : null;

    protected CardStore Cards => cards;
    protected WorkshopClock Clock => clock;
    protected Viewer Viewer => viewer;

    /// <summary>When this page is drawn, in the workshop's time zone; of a page that is prepared ahead, when it would be.</summary>
    public DateTimeOffset Now { get; private protected set; } = clock.Now;

    public CardNumber Id { get; private set; }
    public JobCard Card { get; private protected set; } = null!;
    public CardEntry Entry { get; private set; } = null!;
    public List<Refusal> Refusals { get; } = [];
    public Question? Question { get; private set; }

    /// <summary>The field that says how long a press was kept at the screen.</summary>
    internal const string Kept = "kept";

    /// <summary>A fresh id for the next command from this page.</summary>
    public Guid Command { get; } = Guid.CreateVersion7();

    /// <summary>What goes with a press on this page.</summary>
    /// <param name="step">Step id, or empty.</param>
    public PressFields Fields(StepId step = default) => new(Command, Card.History.Count, step);

    /// <summary>What others did after the last event this screen had seen.</summary>
    public IReadOnlyList<Recorded> Meanwhile { get; private set; } = [];

    /// <summary>What was typed into a field of the form that was sent, or empty.</summary>
    public string Typed(string field) => Request.HasFormContentType ? Request.Form[field].ToString() : "";

    /// <summary>What this person pressed last and could take back, or null.</summary>
    public Recorded? Last => viewer.Member is { } me && Card.Ended is null ? Card.LastPressOf(me.Id) : null;

    /// <summary>Whoever is signed in; null for nobody.</summary>
    protected Person? Me => viewer.Member?.Person;

    protected IActionResult? Load(long id)
    {
        if (Room(id).Entry(id) is not { } entry || Room(id).Find(id) is not { } card)
            return NotFound();
        if (rooms is not null && Me is { } who && !rooms.MaySee(id, who))
            return Forbid();
        Now = rooms?.Now(id, Now) ?? Now;
        (Id, Entry, Card) = (id, entry, card);
        if (int.TryParse(Request.Query["since"], out var since))
            Meanwhile = [.. card.History.Where(h => h.Seq > since && (h.By.Id != viewer.Member?.Id || card.IsFromDevice(h))).TakeLast(5)];
        return null;
    }

    /// <summary>Reads a command by its name from the form that was sent; null when it could not be read, and why is among the
    /// refusals.</summary>
    protected CardCommand? Read(string? name)
    {
        var form = new FormFields(Request.HasFormContentType ? Request.Form : FormCollection.Empty);
        var read = CommandBook.Read(name, form, out var problems);
        Refusals.AddRange(problems);
        return read;
    }

    /// <summary>Brings a command to the card, in the name of whoever is signed in.</summary>
    /// <param name="wanted">The command; null when it could not be read.</param>
    /// <param name="by">Somebody else who said it at this screen, or null.</param>
    /// <returns>Whether it was carried out; otherwise this page must be shown again with what stands in the way.</returns>
    protected async Task<bool> Carry(CardCommand? wanted, Person? by = null)
    {
        var isForRole = false;
        if (Me is not { } me || !Guid.TryParse(Typed("command"), out var command))
            Refusals.Add(new("This form is too old to be sent.", "Load the page again; nothing was written."));
        else if (wanted is not null && KeptFor(by) is var (kept, isKept))
        {
            var answer = (await Room(Id).Handle(Id, command, new(wanted, by ?? me, Now, isKept ? kept : null)))!;
            Card = answer.Card;
            switch (answer.Decision)
            {
                case Accepted:
                    return true;
                case Refused refused:
                    isForRole = refused.IsForRole;
                    Refusals.AddRange(refused.Reasons);
                    break;
                case Asked asked:
                    Question = asked.Question;
                    break;
            }
        }
        Response.StatusCode = isForRole ? StatusCodes.Status403Forbidden
            : Refusals.Any(r => r.Field is not null) ? StatusCodes.Status422UnprocessableEntity : StatusCodes.Status409Conflict;
        return false;
    }

    // How long the screen kept it without a line, in milliseconds; null where that is no time, and why is among the refusals.
    private (TimeSpan Kept, bool IsKept)? KeptFor(Person? by)
    {
        if (Typed(Kept) is not { Length: > 0 } typed)
            return (TimeSpan.Zero, false);
        if (by is null && long.TryParse(typed, NumberStyles.None, CultureInfo.InvariantCulture, out var ms)
            && ms <= JobCard.KeptAtMost.TotalMilliseconds)
            return (TimeSpan.FromMilliseconds(ms), true);
        Refusals.Add(by is not null ? new("What somebody puts their PIN to is not kept without a line.", "Say it again at this screen.")
            : new("Nobody can tell when that was pressed.", "Look at the card, and press it again there if it still holds."));
        return null;
    }

    /// <summary>The lift after a press, with what others did since this screen was drawn.</summary>
    protected string Lift => $"/lift/{Id}?since={(int.TryParse(Typed("seen"), out var seen) ? seen : Card.History.Count)}";
}

/// <summary>A page of a card at which anything may be said that is declared: one way in for all commands.</summary>
public abstract class CommandPage(CardStore cards, WorkshopClock clock, Viewer viewer, CardRooms? rooms = null)
    : CardPage(cards, clock, viewer, rooms)
{
    /// <summary>A command is given.</summary>
    /// <param name="id">Card number.</param>
    /// <param name="handler">The name of the command.</param>
    public async Task<IActionResult> OnPostAsync(long id, string? handler)
    {
        if (Load(id) is { } missing)
            return missing;
        if (Typed("step") is { Length: > 0 } step && Card.Step(step) is null)
            return NotFound();
        var (by, stranger) = await SaidBy(handler);
        if (stranger is not null)
            return stranger;
        if (by is null && CommandBook.Find(handler) is { WantsPin: true })
        {
            Refusals.Add(new("That is said at hand-over.", "Whoever puts a name to it types their own PIN there."));
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return Again(null);
        }
        if (!await Prepare(handler, by))
            return Again(by);
        var wanted = Read(handler);
        if (!await Carry(wanted, by))
            return Again(by);
        return Card.Ended is null ? Redirect(Onward(wanted!)) : Redirect($"/record/{id}");
    }

    /// <summary>Who says it, when it is somebody else than who is signed in; or the answer to one who could not prove it.</summary>
    /// <param name="handler">The name of the command.</param>
    protected virtual Task<(Person? By, IActionResult? Refused)> SaidBy(string? handler) =>
        Task.FromResult<(Person?, IActionResult?)>((null, null));

    /// <summary>Takes in what a form brings along that is no field; false when that cannot be, and why is among the refusals.</summary>
    protected virtual Task<bool> Prepare(string? handler, Person? by) => Task.FromResult(true);

    /// <summary>Where to go when it is done.</summary>
    protected abstract string Onward(CardCommand given);

    /// <summary>This page again, with what stands in the way.</summary>
    protected abstract IActionResult Again(Person? by);
}
