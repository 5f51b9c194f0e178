using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>What a new card is opened with: what the vehicle's cards before leave to it, its owner's rules, and how the workshop
/// works.</summary>
public sealed class CardOpening(VehicleStore vehicles, CardStore cards, SettingStore settings, FluidDesk fluids, LabDesk laboratory,
    RulingDesk rulings, WorkshopClock clock)
{
    /// <summary>The opening of a card.</summary>
    /// <param name="vehicle">The vehicle.</param>
    /// <param name="model">The newest sheet of its model.</param>
    /// <param name="jobs">The jobs.</param>
    /// <param name="steps">Their steps, in order.</param>
    /// <param name="odometer">What the odometer shows.</param>
    /// <param name="knowing">What was read of its odometers, with what is told just now.</param>
    public CardOpened Of(Vehicle vehicle, ModelSheet model, IReadOnlyList<JobId> jobs, IReadOnlyList<SheetStep> steps,
        Typed<Distance> odometer, OdometerHistory knowing)
    {
        var (workshop, last) = (settings.Read(), LastSigned(vehicle.Plate));
        return new(vehicle.Plate, model.Id, model.Revision, jobs, steps, odometer.Value, vehicle.Use, workshop.School, last.SealsUsedAgain,
            vehicles.OwnRules(vehicle.Plate) is { Count: > 0 } own ? own : null, null, null,
            last.Stops is { Count: > 0 } stops ? stops : null, workshop.Stages, SeenBefore(last),
            fluids.Before(vehicle.Plate, knowing), workshop.Schools ?? WorkSchools.Usual,
            laboratory.LastOf(vehicle.Plate), InspectedBefore(last, knowing),
            PlannedCards.OwnAmong(model, jobs).ToList() is { Count: > 0 } lists ? lists : null,
            last.Lit is { Count: > 0 } lit ? lit : null, null, rulings.Holding(model),
            odometer.Unit == Distance.Kilometre ? null : odometer);
    }

    /// <summary>The last card of a vehicle that was signed.</summary>
    /// <param name="plate">The vehicle.</param>
    public LastCard LastSigned(string plate)
    {
        var last = cards.OfVehicle(plate).FirstOrDefault(c => c.SignedAt is not null);
        return new(last?.Id ?? default, last is null ? null : cards.Find(last.Id));
    }

    /// <summary>What the next card should know of those before.</summary>
    /// <param name="plate">The vehicle.</param>
    /// <param name="sheet">The newest sheet of its model.</param>
    public IReadOnlyList<Remembered> Remembered(string plate, ModelSheet sheet) => LastTime.Of(LastSigned(plate),
        [.. cards.WithJobsNotDone(plate).Select(n => new LastCard(n, cards.Find(n)))],
        vehicles.LastDone(plate)[plate].ToDictionary(d => d.Job, d => d.Done.Day), sheet, clock.Day);

    private IReadOnlyList<LookBefore>? SeenBefore(LastCard last) => last.Card is { } card
        && card.SeenUntil(last.Number, clock.Day(card.Signature!.At)) is { Count: > 0 } seen ? seen : null;

    private IReadOnlyList<InspectedBefore>? InspectedBefore(LastCard last, OdometerHistory history)
    {
        if (last.Card?.InspectedUntil(last.Number, clock.Day(last.Card.Signature!.At)) is not { Count: > 0 } read)
            return null;
        return [.. read.Select(r => r with { Odometer = history.OnThisClock(r.Card, r.Odometer, cards.Entry(r.Card)!.OpenedAt) })];
    }
}

/// <summary>The last card of a vehicle that was signed, and what it leaves to the next one.</summary>
/// <param name="Number">Its number.</param>
/// <param name="Card">The card; null where there is none.</param>
public sealed record LastCard(CardNumber Number, JobCard? Card)
{
    /// <summary>Stops that nobody mended.</summary>
    public IReadOnlyList<StopCarried> Stops => Card?.StopsLeft(Number) ?? [];

    /// <summary>Indicators that were left lit.</summary>
    public IReadOnlyList<IndicatorLit> Lit => Card?.LitAfter(Number) ?? [];

    /// <summary>How often the seals that sit in the vehicle were used again, by part.</summary>
    public IReadOnlyDictionary<PartId, int> SealsUsedAgain => Card?.SealsLeftIn ?? new Dictionary<PartId, int>();
}
