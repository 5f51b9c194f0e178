using Anakyklos.Core.Cards;
using Anakyklos.Core.Records;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Anakyklos.Web.Pages;

/// <summary>The record of a card, to be read and printed.</summary>
public sealed class RecordModel(CardStore cards, SettingStore settings, PeopleStore people, PersonBehind behind, LabelDesk labels,
    WorkshopClock clock, Viewer viewer) : NamedPage(cards, behind, clock, viewer)
{
    public string WorkshopName { get; private set; } = "";

    /// <summary>What it shows.</summary>
    public ServiceRecord Record { get; private set; } = null!;

    /// <summary>How its label stands that was sent to a printer last; null where there is none.</summary>
    public string? Printer => labels.Says(Id);

    /// <summary>Those who may put something right beside it.</summary>
    public IEnumerable<Member> Signers => people.All().Where(p => p.Person.WorksOnCards);

    public IActionResult OnGet(long id) => PracticeStore.IsRun(id) ? Redirect($"/practice/{id}") : Load(id) ?? Show();

    /// <inheritdoc/>
    protected override IActionResult Show()
    {
        WorkshopName = settings.Read().Name;
        Record = ServiceRecord.Of(Card);
        return Page();
    }

    /// <inheritdoc/>
    protected override bool Takes(string? handler) => handler == "amend";

    /// <inheritdoc/>
    protected override string Onward(CardCommand given) => $"/record/{Id}";
}
