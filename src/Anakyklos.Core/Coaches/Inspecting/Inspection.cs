using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Coaches.Inspecting;

/// <summary>How a list of inspections stands.</summary>
/// <param name="Spec">What the sheet says.</param>
/// <param name="Found">What was found so far.</param>
public sealed record Inspection(InspectSpec Spec, IReadOnlyList<PointFound> Found)
{
    /// <summary>How it stands at a step.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A step of this kind.</param>
    public static Inspection Of(JobCard card, SheetStep step) => new((InspectSpec)step.Spec!, card.FoundAt(step.Id));

    /// <summary>What is left, in the order of the sheet: not begun, or to be measured again.</summary>
    public IReadOnlyList<InspectPoint> Left => [.. Spec.Points.Where(p => At(p) is not { Settled: true })];

    /// <summary>What is inspected next; null when nothing is left.</summary>
    public InspectPoint? Next => Left.Count > 0 ? Left[0] : null;

    /// <summary>Whether all that is left may be said to be as usual at once: nothing of it is measured.</summary>
    public bool RestIsAnswered => !Spec.OneByOne && Left.Count > 1 && Left.All(p => p.Measure is null && At(p) is null);

    /// <summary>What was found at a point; null where nothing was.</summary>
    public PointFound? At(InspectPoint point) => Found.FirstOrDefault(f => f.Point == point.Id);

    /// <summary>Turns of the adjuster that bring a reading into the middle of what passes, to a quarter turn and signed: positive
    /// tightens what gives too much.</summary>
    /// <param name="ask">How it is measured.</param>
    /// <param name="read">What was read.</param>
    /// <returns>Null where the sheet does not say what a turn does, or it passes.</returns>
    public static decimal? Turns(GaugeAsk ask, Gauged read) =>
        ask is not { PerTurn: { Base: > 0 } turn, Low: { } low, High: { } high } || (read >= low && read <= high) ? null
            : Math.Round((read.Base - (low.Base + high.Base) / 2) / turn.Base * 4, MidpointRounding.AwayFromZero) / 4;
}
