using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A job and when it comes.</summary>
/// <param name="Standing">How it stands.</param>
/// <param name="Due">The day it falls due, or null when that cannot be said.</param>
public sealed record ComingJob(Standing Standing, DueDay? Due);

/// <summary>Everything the workshop knows of one vehicle.</summary>
/// <param name="Vehicle">The vehicle.</param>
/// <param name="Model">Its model's name, or the sheet's id where there is no sheet.</param>
/// <param name="History">What was read of its odometers.</param>
/// <param name="Open">The card that is worked on, or null.</param>
/// <param name="Signed">Its signed cards, newest first.</param>
/// <param name="Stops">What was graded stop and is not mended, in words: on its open card undecided, or let go on the last one.</param>
/// <param name="Standing">How its jobs stand, or null without a sheet.</param>
/// <param name="Ahead">The jobs that come, overdue ones first, then by day.</param>
/// <param name="Rules">The owner's own rules.</param>
/// <param name="Fluids">What its fluids had in them and what was used.</param>
/// <param name="Samples">Its samples, the newest first.</param>
public sealed record VehicleStory(Vehicle Vehicle, string Model, OdometerHistory History, CardAtHand? Open,
    IReadOnlyList<CardAtHand> Signed, IReadOnlyList<string> Stops, VehicleStanding? Standing, IReadOnlyList<ComingJob> Ahead,
    IReadOnlyList<OwnRule> Rules, IReadOnlyList<FluidStory> Fluids, IReadOnlyList<SampleEntry> Samples)
{
    /// <summary>Indicators that are lit, though their service was done.</summary>
    public IReadOnlyList<IndicatorLit> Lit { get; internal init; } = [];

    /// <summary>What is to be planned and then what an eye is kept on, each the newest first, and what became of it.</summary>
    public IReadOnlyList<Recommendation> Recommended { get; internal init; } = [];

    /// <summary>What wears, as it was measured.</summary>
    public IReadOnlyList<WearStory> Wear { get; internal init; } = [];

    /// <summary>What its cards leave to the next one.</summary>
    public IReadOnlyList<Remembered> LastTime { get; internal init; } = [];

    /// <summary>What was changed of it, newest first.</summary>
    public IReadOnlyList<VehicleChange> Changes { get; internal init; } = [];

    /// <summary>Jobs that no card here has, newest first.</summary>
    public IReadOnlyList<DoneElsewhere> Elsewhere { get; internal init; } = [];
}

/// <summary>Brings together what the workshop knows of one vehicle.</summary>
public sealed class VehicleDesk(VehicleStore vehicles, SheetStore sheets, CardStore cards, DueDesk due,
    FluidDesk fluids, SampleStore samples, VehicleTrail trail, RecommendationDesk recommendations, CardOpening opening,
    WorkshopClock clock)
{
    /// <summary>Everything known of a vehicle.</summary>
    /// <param name="plate">Its plate.</param>
    /// <returns>The story, or null when no vehicle has this plate.</returns>
    public VehicleStory? Of(string plate)
    {
        if (vehicles.Find(plate) is not { } vehicle)
            return null;
        IReadOnlyList<CardAtHand> all = [.. cards.OfVehicle(plate).Select(entry => new CardAtHand(entry, cards.Find(entry.Id)!))];
        var open = all.FirstOrDefault(c => c.Entry.IsOpen);
        IReadOnlyList<CardAtHand> signed = [.. all.Where(c => c.Entry.SignedAt is not null)];
        var (standing, history) = (due.Of(vehicle), vehicles.History(plate, clock.Day));
        return new(vehicle, sheets.Newest(vehicle.SheetId)?.FullName ?? vehicle.SheetId.Text, history,
            open, signed, Stops(open, signed), standing, standing is null ? [] : Ahead(standing), vehicles.OwnRules(plate),
            fluids.Of(signed, history), [.. samples.Of(plate).Reverse()])
        {
            Recommended = [.. recommendations.Of(plate).OrderBy(r => r.IsWatched)],
            Wear = WearStory.Of(signed, history, clock.Today, clock.Day),
            LastTime = (standing?.Sheet ?? signed.FirstOrDefault()?.Card.Sheet) is { } sheet ? opening.Remembered(plate, sheet) : [],
            Changes = trail.Of(plate),
            Elsewhere = trail.Elsewhere(plate),
            Lit = (open ?? signed.FirstOrDefault()) is { } now ? now.Card.LitAfter(now.Entry.Id) : [],
        };
    }

    private static IReadOnlyList<string> Stops(CardAtHand? open, IReadOnlyList<CardAtHand> signed)
    {
        var last = open ?? signed.FirstOrDefault();
        return
        [
            .. open?.Card.Holds ?? [],
            .. (last?.Card.StopsLeft(last.Entry.Id) ?? []).Select(s => $"“{s.Text}”, card {s.Card}: let go by {s.By}, {s.Words}"),
        ];
    }

    /// <summary>The jobs of a vehicle that come, overdue ones first, then by day.</summary>
    public static IReadOnlyList<ComingJob> Ahead(VehicleStanding standing) =>
    [
        .. standing.Items.Where(i => i.State != DueState.Done)
            .Select(i => new ComingJob(i, DueDay.Of(i, standing.Now, standing.Use)))
            .OrderByDescending(c => c.Standing.State == DueState.Overdue)
            .ThenBy(c => c.Due?.Day ?? DateOnly.MaxValue),
    ];
}
