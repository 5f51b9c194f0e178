using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A card with its entry in the list.</summary>
/// <param name="Entry">Number, vehicle, bay and when.</param>
/// <param name="Card">The card as it stands.</param>
public sealed record CardAtHand(CardEntry Entry, JobCard Card);

/// <summary>A vehicle as the yard shows it.</summary>
/// <param name="Vehicle">The vehicle.</param>
/// <param name="Model">Its model's name, or the sheet's id where there is no sheet.</param>
/// <param name="Standing">What of it is overdue, due and near.</param>
/// <param name="Now">Its last reading, on this day.</param>
public sealed record VehicleInYard(Vehicle Vehicle, string Model, FleetRow Standing, UseMark Now);

/// <summary>What is going on in the workshop.</summary>
/// <param name="Name">The workshop's name.</param>
/// <param name="Open">Cards that are worked on, oldest first.</param>
/// <param name="Vehicles">All vehicles, those that wait for a service first.</param>
/// <param name="Signed">The last cards that were signed, newest first.</param>
/// <param name="Answers">What the laboratory answered and nobody took note of yet.</param>
public sealed record Yard(string Name, IReadOnlyList<CardAtHand> Open, IReadOnlyList<VehicleInYard> Vehicles,
    IReadOnlyList<CardAtHand> Signed, IReadOnlyList<SampleEntry> Answers);

/// <summary>Brings together what is going on in the workshop.</summary>
public sealed class YardDesk(CardStore cards, VehicleStore vehicles, SheetStore sheets, SettingStore settings, DueDesk due,
    LabDesk laboratory, WorkshopClock clock)
{
    private const int LatelySigned = 4;

    /// <summary>Looks over the yard.</summary>
    /// <returns>The yard as it is now.</returns>
    public Yard Look()
    {
        var (fleet, newest) = (due.Fleet().ToDictionary(row => row.Plate), vehicles.Newest());
        var all = vehicles.All()
            .Select(v => (Vehicle: v, Standing: fleet.GetValueOrDefault(v.Plate), Last: newest.GetValueOrDefault(v.Plate)));
        return new(settings.Read().Name, AtHand(cards.Unsigned()),
        [
            .. all.OrderByDescending(v => v.Standing.Overdue > 0)
                .ThenByDescending(v => v.Standing.Due > 0)
                .ThenByDescending(v => v.Standing.Soon > 0)
                .ThenBy(v => v.Vehicle.Plate)
                .Select(v => new VehicleInYard(v.Vehicle, sheets.Newest(v.Vehicle.SheetId)?.FullName ?? v.Vehicle.SheetId.Text, v.Standing,
                    new(v.Last?.Reading ?? default, clock.Today, v.Last?.Hours))),
        ],
        AtHand(cards.LastSigned(LatelySigned)), laboratory.Unseen());
    }

    private IReadOnlyList<CardAtHand> AtHand(IEnumerable<CardEntry> entries) =>
        [.. entries.Select(entry => new CardAtHand(entry, cards.Find(entry.Id)!))];
}
