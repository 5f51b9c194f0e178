using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;

namespace Anakyklos.Desk;

/// <summary>What was measured at a place that wears, on every card that measured it.</summary>
/// <param name="Name">What is measured.</param>
/// <param name="Limit">The least that passes.</param>
/// <param name="Read">The day, the odometer on the clock of now, and the least that was there; the oldest first.</param>
/// <param name="Forecast">How fast it wears, from the last two; null where they do not tell.</param>
/// <param name="Until">Down to the limit at this reading; null where nothing tells.</param>
/// <param name="Day">Down to the limit on this day, at the usual use; null where nothing tells.</param>
public sealed record WearStory(string Name, Gauged Limit, IReadOnlyList<(DateOnly Day, Quantity<Distance> Odometer, Gauged Least)> Read,
    WearForecast? Forecast, Quantity<Distance>? Until, DateOnly? Day)
{
    private const int FarDays = 3650;

    private static readonly string[] Places = ["front", "rear", "left", "right", "inner", "outer", "middle"];

    /// <summary>What is there now by the forecast, at the last reading of the odometer; what was read last where there is none.</summary>
    /// <param name="odometer">Where the vehicle stands.</param>
    public Gauged Likely(Quantity<Distance> odometer) => Forecast is { } f && odometer > Read[^1].Odometer
        ? f.After(odometer - Read[^1].Odometer) : Read[^1].Least;

    /// <summary>Everything that wears and was measured on a vehicle.</summary>
    /// <param name="signed">Its signed cards, the newest first.</param>
    /// <param name="history">Its odometers.</param>
    /// <param name="now">The day.</param>
    /// <param name="day">The day in the workshop of a moment.</param>
    /// <returns>What is down first comes first, then what nothing is known of.</returns>
    public static IReadOnlyList<WearStory> Of(IReadOnlyList<CardAtHand> signed, OdometerHistory history, DateOnly now,
        Func<DateTimeOffset, DateOnly> day)
    {
        var read = new Dictionary<(StepId, string), (string Name, Gauged Limit, List<(DateOnly, Quantity<Distance>, Gauged)> All)>();
        foreach (var (entry, card) in signed.Reverse())
            foreach (var step in card.Steps)
                foreach (var point in (step.Spec as InspectSpec)?.Points ?? [])
                    if (point.Measure is { Rule: GaugeRule.Wear, Low: { } low }
                        && card.FoundAt(step.Id).FirstOrDefault(f => f.Point == point.Id) is { } found
                        && JobCard.LeastOf(found.Left) is { } least)
                    {
                        var before = read.TryGetValue((step.Id, point.Id), out var known) ? known.All : [];
                        before.Add((day(entry.SignedAt!.Value),
                            history.OnThisClock(entry.Id, card.Opened.Odometer, entry.OpenedAt), least));
                        read[(step.Id, point.Id)] = (NameOf(step, point), low, before);
                    }
        return [.. read.Values.Select(w => One(w.Name, w.Limit, w.All, history, now)).OrderBy(w => w.Until is null).ThenBy(w => w.Until)];
    }

    // A name that is only a place does not tell what is there: the phase of its step does.
    private static string NameOf(SheetStep step, InspectPoint point) => point.Name.Split([' ', ','], StringSplitOptions.RemoveEmptyEntries)
        .All(w => Places.Contains(w, StringComparer.OrdinalIgnoreCase)) ? $"{step.Phase}, {Words.Low(point.Name)}" : point.Name;

    private static WearStory One(string name, Gauged limit, List<(DateOnly Day, Quantity<Distance> Odometer, Gauged Least)> all,
        OdometerHistory history, DateOnly now)
    {
        var (last, forecast) = (all[^1], (WearForecast?)null);
        if (all is [.., var before, _])
            forecast = WearForecast.Of(new InspectedBefore(default, before.Day, before.Odometer, default, "", before.Least), last.Least,
                last.Odometer);
        var until = forecast is { } f ? last.Odometer + f.Lasts(limit) : (Quantity<Distance>?)null;
        var today = history.LastMark?.Odometer ?? last.Odometer;
        DateOnly? when = until is not { } at ? null : at <= today ? now
            : history.Use is { } use && use.Usual > Quantity<Distance>.Zero
                ? now.AddDays((int)Math.Min(FarDays, Math.Ceiling((at - today) / use.Usual))) : null;
        return new(name, limit, all, forecast, until, when);
    }
}
