using Anakyklos.Core.Balance;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>What is known of one fluid of a vehicle over its services.</summary>
/// <param name="Fluid">The fluid, as its newest sheet has it.</param>
/// <param name="Services">The services, the oldest first.</param>
/// <param name="Uses">What was used between them, the oldest first.</param>
/// <param name="Trend">Which way that goes.</param>
public sealed record FluidStory(FluidSystem Fluid, IReadOnlyList<FluidService> Services, IReadOnlyList<FluidUse> Uses, UseTrend Trend);

/// <summary>Reads from the signed cards of a vehicle what each of its fluids had in it and what was used.</summary>
public sealed class FluidDesk(CardStore cards, WorkshopClock clock)
{
    /// <summary>What each fluid of a vehicle has in it after its last service.</summary>
    /// <param name="plate">Its plate.</param>
    /// <param name="history">What was read of its odometers, with what is told just now.</param>
    /// <returns>Where it stood is on the odometer of now. Null where nothing is known of any.</returns>
    public IReadOnlyDictionary<FluidId, FilledBefore>? Before(string plate, OdometerHistory history)
    {
        IReadOnlyList<CardAtHand> signed = [.. cards.OfVehicle(plate).Where(c => c.SignedAt is not null)
            .Select(entry => new CardAtHand(entry, cards.Find(entry.Id)!))];
        var known = Of(signed, history).Select(s => (s.Fluid.Id, Now: FluidBalance.Now(s.Services))).Where(k => k.Now is not null)
            .ToDictionary(k => k.Id, k => k.Now!);
        return known.Count > 0 ? known : null;
    }

    /// <summary>What is known of the fluids of a vehicle.</summary>
    /// <param name="signed">Its signed cards, the newest first.</param>
    /// <param name="history">Its odometers, on whose scale it is told.</param>
    /// <returns>Those of which something was kept, in the order of the sheet.</returns>
    public IReadOnlyList<FluidStory> Of(IReadOnlyList<CardAtHand> signed, OdometerHistory history) => signed.Count == 0 ? []
        : [.. signed[0].Card.Sheet.Fluids.Values.Select(f => Of(f, signed, history)).Where(s => s.Services.Count > 0)];

    private FluidStory Of(FluidSystem fluid, IReadOnlyList<CardAtHand> signed, OdometerHistory history)
    {
        // Each card by the sheet that it was worked by.
        IReadOnlyList<FluidService> services = [.. signed.Reverse().Select(c => c.Card.Sheet.Fluids.GetValueOrDefault(fluid.Id) is { } then
            && c.Card.ServiceOf(then, clock.Day(c.Entry.SignedAt!.Value)) is { } service
            ? service with { Odometer = history.OnThisClock(c.Entry.Id, service.Odometer, c.Entry.OpenedAt) }
            : null).OfType<FluidService>()];
        var uses = FluidBalance.Uses(services);
        return new(fluid, services, uses, FluidBalance.Trend(uses, fluid.BetweenMarks?.Value));
    }
}
