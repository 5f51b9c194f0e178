using System.Globalization;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Looks for whatever was written down: vehicles, parts, batches, cards, words, people.</summary>
public sealed class FindModel(SearchStore search, CardStore cards, WorkshopClock clock, Viewer viewer) : PageModel
{
    private const int Most = 8, Longest = 80;

    /// <summary>What is looked for.</summary>
    public string Q { get; private set; } = "";

    /// <summary>What was found, by what it is.</summary>
    public IReadOnlyList<IGrouping<FoundKind, Found>> Groups { get; private set; } = [];

    /// <summary>Whether there was something to look for.</summary>
    public bool IsAsked => Q.Count(char.IsLetterOrDigit) > SearchStore.TooFew;

    public void OnGet(string? q)
    {
        Q = (q ?? "").Trim() is var text && text.Length > Longest ? text[..Longest] : text;
        Groups = [.. search.Find(Q, Most).GroupBy(f => f.Kind)];
    }

    /// <summary>What stands above the things of a kind.</summary>
    public static string Name(FoundKind kind) => kind switch
    {
        FoundKind.Vehicle => "Vehicles",
        FoundKind.Part => "Parts",
        FoundKind.Batch => "Batches",
        FoundKind.Card => "Cards",
        FoundKind.Finding => "Written on cards",
        _ => "People",
    };

    /// <summary>Where it is to be seen; null where it has no page that this person may see.</summary>
    public string? To(Found found) => found.Kind switch
    {
        FoundKind.Vehicle => $"/vehicle/{Uri.EscapeDataString(found.Key)}",
        FoundKind.Part => $"/stores?q={Uri.EscapeDataString(found.Key)}",
        FoundKind.Batch => null,
        FoundKind.Person => viewer.Member!.Role == Core.Cards.Role.Lead ? "/people" : null,
        _ => To(long.Parse(found.Key, CultureInfo.InvariantCulture)),
    };

    /// <summary>Where a card is to be seen: at the lift while it is open, else its record.</summary>
    public string? To(CardNumber card) => cards.Entry(card) is { } entry ? entry.IsOpen ? $"/lift/{card}" : $"/record/{card}" : null;

    /// <summary>What is said of it beside its title.</summary>
    public string Beside(Found found) => found.Kind switch
    {
        FoundKind.Card => $"opened {clock.Local(found.At!.Value):d MMM yyyy}",
        FoundKind.Finding => $"card {found.Key}, {found.Plate}, {clock.Local(found.At!.Value):d MMM yyyy}",
        FoundKind.Batch => $"container no. {found.Key}",
        _ => "",
    };

    /// <summary>The day of something.</summary>
    public string Day(DateTimeOffset at) => $"{clock.Local(at):d MMM yyyy}";
}
