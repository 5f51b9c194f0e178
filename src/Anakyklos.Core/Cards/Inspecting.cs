using Anakyklos.Core.Due;
using Anakyklos.Core.Ids;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Cards;

/// <summary>What a reading or an answer is worth.</summary>
public enum PointOutcome
{
    /// <summary>It is as it should be, or it was only to be noted.</summary>
    Good,

    /// <summary>Too little: it is set and measured again.</summary>
    TooLittle,

    /// <summary>Too much: it is set and measured again.</summary>
    TooMuch,

    /// <summary>An eye is kept on it.</summary>
    Watch,

    /// <summary>It is planned.</summary>
    Plan,

    /// <summary>The lead decides before the vehicle goes.</summary>
    Stop,

    /// <summary>It is put right there and then, and looked at again.</summary>
    Amiss,
}

/// <summary>How a point was found, and left.</summary>
/// <param name="Step">The step.</param>
/// <param name="Point">The point of it.</param>
/// <param name="Found">What was read or chosen first.</param>
/// <param name="Left">What was read or chosen last; the same where it was done once.</param>
/// <param name="Outcome">What the last is worth.</param>
/// <param name="Settled">Whether nothing more is done there on this card.</param>
public sealed record PointFound(StepId Step, string Point, string Found, string Left, PointOutcome Outcome, bool Settled);

/// <summary>What was read and chosen at the points of this card, and on the cards before.</summary>
public sealed partial class JobCard
{
    /// <summary>What was found at the points of a step, in the order in which they were begun.</summary>
    /// <param name="step">A step of this card.</param>
    public IReadOnlyList<PointFound> FoundAt(StepId step) => [.. _state.Points.Where(p => p.Step == step)];

    /// <summary>What was read there on the last card of this vehicle that measured it; null where none did.</summary>
    /// <param name="step">The step.</param>
    /// <param name="point">The point of it.</param>
    public InspectedBefore? InspectedBefore(StepId step, string point) =>
        Opened.InspectedBefore?.LastOrDefault(b => b.Step == step && b.Point == point);

    /// <summary>How fast what is measured at a point wears, and what that makes at the next service.</summary>
    /// <param name="step">The step.</param>
    /// <param name="point">The point of it.</param>
    /// <param name="now">The least that is there now.</param>
    /// <param name="today">The day.</param>
    /// <returns>The forecast, and how far the next service of its jobs lies ahead; null where it has no distance.</returns>
    public (WearForecast? Forecast, Quantity<Distance>? Next) WearOf(SheetStep step, string point, Gauged now, DateOnly today) =>
        (WearForecast.Of(InspectedBefore(step.Id, point), now, Opened.Odometer), NextServiceOf(step, today));

    /// <summary>What the next card of this vehicle is told: the last reading of each point that was ever measured.</summary>
    /// <param name="card">The number of this card.</param>
    /// <param name="day">The day on which it was signed.</param>
    public IReadOnlyList<InspectedBefore> InspectedUntil(CardNumber card, DateOnly day)
    {
        IReadOnlyList<InspectedBefore> now = [.. _state.Points.Select(p => (Point: p, Least: LeastOf(p.Left)))
            .Where(p => p.Least is not null)
            .Select(p => new InspectedBefore(card, day, Opened.Odometer, p.Point.Step, p.Point.Point, p.Least!.Value))];
        return [.. (Opened.InspectedBefore ?? []).Where(b => now.All(n => n.Step != b.Step || n.Point != b.Point)), .. now];
    }

    /// <summary>The least of what was read, as an event writes it down; null where an answer was chosen.</summary>
    /// <param name="written">What was read, in full.</param>
    public static Gauged? LeastOf(string written) =>
        written.Split("; ").Select(Gauged.Find).ToList() is var all && all.TrueForAll(g => g is not null) ? all.Min() : null;

    private Quantity<Distance>? NextServiceOf(SheetStep step, DateOnly today)
    {
        var now = new Intervals.UseMark(Opened.Odometer, today, Opened.Hours);
        var next = ServiceItem.Of(Sheet, Opened.Use, Opened.OwnRules ?? []).Where(i => !i.Once && step.Jobs.Contains(i.Job))
            .Select(i => i.After(now).At).OfType<Quantity<Distance>>().Select(at => at - Opened.Odometer).ToList();
        return next.Count > 0 ? next.Min() : null;
    }
}
