using Anakyklos.Core.Cards;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A card with its entry in the list.</summary>
/// <param name="Entry">Number, vehicle, bay and when.</param>
/// <param name="Card">The card as it stands.</param>
public sealed record CardAtHand(CardEntry Entry, JobCard Card);

/// <summary>What is going on in the workshop.</summary>
/// <param name="Name">The workshop's name.</param>
/// <param name="Open">Cards that are worked on, oldest first.</param>
/// <param name="Vehicles">The vehicles of one page, those that wait for a service first.</param>
/// <param name="Page">Which page, from 1.</param>
/// <param name="Pages">How many there are.</param>
/// <param name="Count">How many vehicles there are in all.</param>
/// <param name="Signed">The last cards that were signed, newest first.</param>
/// <param name="Answers">What the laboratory answered and nobody took note of yet.</param>
public sealed record Yard(string Name, IReadOnlyList<CardAtHand> Open, IReadOnlyList<VehicleInFleet> Vehicles,
    int Page, int Pages, int Count, IReadOnlyList<CardAtHand> Signed, IReadOnlyList<SampleEntry> Answers);

/// <summary>Brings together what is going on in the workshop.</summary>
public sealed class YardDesk(CardStore cards, SettingStore settings, FleetBook fleet, LabDesk laboratory)
{
    private const int LatelySigned = 4;

    /// <summary>So many vehicles stand on one page.</summary>
    public const int OnPage = 40;

    /// <summary>Looks over the yard.</summary>
    /// <param name="page">The page of the vehicles, from 1; one that there is not is the nearest that there is.</param>
    /// <returns>The yard as it is now.</returns>
    public Yard Look(int page = 1)
    {
        var all = fleet.ByUrgency();
        var pages = Math.Max(1, (all.Count + OnPage - 1) / OnPage);
        page = Math.Clamp(page, 1, pages);
        return new(settings.Read().Name, AtHand(cards.Unsigned()), [.. all.Skip((page - 1) * OnPage).Take(OnPage)], page, pages, all.Count,
            AtHand(cards.LastSigned(LatelySigned)), laboratory.Unseen());
    }

    private IReadOnlyList<CardAtHand> AtHand(IEnumerable<CardEntry> entries) =>
        [.. entries.Select(entry => new CardAtHand(entry, cards.Find(entry.Id)!))];
}
