using Anakyklos.Core.Cards;
using Anakyklos.Core.Records;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Hand over: what happened, what is still open, second names, the signature.</summary>
public sealed class HandoverModel(CardStore cards, PeopleStore people, PersonBehind behind, WorkshopClock clock, Viewer viewer)
    : NamedPage(cards, behind, clock, viewer)
{
    public IReadOnlyList<Refusal> InTheWay { get; private set; } = [];
    public ServiceRecord Record { get; private set; } = null!;

    /// <summary>What wants a second name.</summary>
    public IReadOnlyList<StrayedLine> Wanting { get; private set; } = [];

    /// <summary>What is left, in one line; empty when it can be signed.</summary>
    public string Left { get; private set; } = "";
    public IReadOnlyList<Member> Countersigners { get; private set; } = [];

    /// <summary>Those who are asked for a lesson before they work on the brakes of this card, where something is left to do
    /// there.</summary>
    public IReadOnlyList<Person> NotAlone { get; private set; } = [];

    /// <summary>What the lead asks for before brakes; null for nothing.</summary>
    public BrakeLesson? Brakes { get; private set; }

    /// <summary>Those who may work on brakes alone, and so stand beside others.</summary>
    public IEnumerable<Member> MayStandBeside => Countersigners.Where(p => Brakes?.MayAlone(p.Person) == true);

    /// <summary>Those who decide about a stop.</summary>
    public IEnumerable<Member> Leads => Countersigners.Where(p => p.Role == Role.Lead);

    public IActionResult OnGet(long id) => PracticeStore.IsRun(id)
        ? Redirect($"/practice/{id}/handover") : Load(id) ?? (Card.Ended is null ? Show() : Redirect($"/record/{id}"));

    /// <inheritdoc/>
    protected override IActionResult Show()
    {
        InTheWay = [.. Card.BeforeSigning()];
        Record = ServiceRecord.Of(Card);
        Wanting = [.. Record.Strayed.Where(s => s.WantsSecondName)];
        Left = string.Join(", ", new[]
        {
            Card.Open.Count > 0 ? $"{Card.Open.Count} open" : "",
            Card.Remaining.Any() ? $"{Card.Remaining.Count()} to do" : "",
            Wanting.Count > 0 ? $"{Wanting.Count} to countersign" : "",
            Card.ToVoid is not null ? "to be made void" : "",
            Card.Stops.Any() ? "the lead decides" : "",
        }.Where(t => t.Length > 0));
        Countersigners = [.. people.All().Where(p => p.Person.WorksOnCards)];
        Brakes = Card.Remaining.Any(Card.IsOnBrakes) ? Cards.BeforeBrakes() : null;
        NotAlone = Brakes is null ? [] : [.. Brakes.People.Values
            .Where(p => Card.Remaining.Any(s => Card.NotAlone(s, p, Brakes) is not null)).OrderBy(p => p.Id != Me?.Id).ThenBy(p => p.Name)];
        return Page();
    }

    /// <inheritdoc/>
    protected override bool Takes(string? handler) => handler != "amend";

    /// <inheritdoc/>
    protected override string Onward(CardCommand given) => given switch
    {
        StandBeside => $"/lift/{Id}",
        CorrectionCommand => $"/handover/{Id}#readings",
        _ => $"/handover/{Id}",
    };
}
