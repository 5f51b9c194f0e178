using Anakyklos.Core.Cards;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Anakyklos.Web.Pages;

/// <summary>A page at which people put their names to things, each with a PIN of their own.</summary>
public abstract class NamedPage(CardStore cards, PersonBehind behind, WorkshopClock clock, Viewer viewer)
    : CommandPage(cards, clock, viewer)
{
    /// <summary>What is wrong with the PIN, or with whose it is; empty for nothing.</summary>
    public string PinProblem { get; private set; } = "";

    /// <summary>Whether a command is said at this page at all.</summary>
    /// <param name="handler">Its name.</param>
    protected abstract bool Takes(string? handler);

    /// <summary>The page as it is drawn.</summary>
    protected abstract IActionResult Show();

    // Somebody else puts a name to it, at this screen, with a PIN of their own.
    /// <inheritdoc/>
    protected override async Task<(Person? By, IActionResult? Refused)> SaidBy(string? handler)
    {
        if (!Takes(handler))
            return (null, NotFound());
        if (CommandBook.Find(handler) is not { WantsPin: true } || Me is not { } me)
            return (null, null);
        if (Read(handler) is not { } wanted)
        {
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return (null, Again(me));
        }
        var (by, not) = await behind.Of(Card, wanted, me, Typed("who"), Typed("pin"),
            person => HttpContext.RequestServices.GetRequiredService<BrowserSignIn>().Place(HttpContext, person));
        if (by is not null)
            return (by, null);
        if (not is [{ Field: "pin" } pin])
            PinProblem = pin.What;
        else
            Refusals.AddRange(not);
        Response.StatusCode = not.Any(r => r.Field is not null) ? StatusCodes.Status422UnprocessableEntity : StatusCodes.Status409Conflict;
        return (null, Show());
    }

    /// <inheritdoc/>
    protected override IActionResult Again(Person? by)
    {
        if (by is not null)
        {
            PinProblem = string.Join(" ", Refusals);
            Refusals.Clear();
        }
        return Show();
    }
}
