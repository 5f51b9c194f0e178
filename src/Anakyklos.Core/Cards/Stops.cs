using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Cards;

/// <summary>Findings graded stop: what they hold up, who decides, and what the vehicle carries on.</summary>
public sealed partial class JobCard
{
    /// <summary>Why the vehicle is not to be driven, in words; empty when nothing holds it.</summary>
    public IReadOnlyList<string> Holds =>
    [
        .. Stops.Select(s => $"“{s.Event.Text}” was graded stop."),
        .. Deviations.Where(HoldsVehicle).Select(d => $"{d.Event.What}: the lead has not put a name to it."),
    ];

    /// <summary>Stops that the vehicle carries to its next card: those with which it was let go as it is, here or before.</summary>
    /// <param name="card">The number of this card.</param>
    /// <returns>In the order in which they were found; empty when nothing is left.</returns>
    public IReadOnlyList<StopCarried> StopsLeft(CardNumber card) =>
    [
        .. (Opened.Carried ?? []).Where((_, i) => !IsMended(i)),
        .. Findings.Select(f => (Finding: f, Decision: DecisionOn(f.Seq))).Where(x => x.Decision is { Event.Mended: false })
            .Select(x => new StopCarried(card, x.Finding.Event.Text, x.Decision!.Event.Words, x.Decision.Recorded.By.Name)),
    ];

    /// <summary>Whether a carried stop was mended on this card.</summary>
    /// <param name="index">Its place in <see cref="CardOpened.Carried"/>, from 0.</param>
    public bool IsMended(int index) => _state.Mended.Contains(index);

    private bool HoldsVehicle(Noted<DeviationTaken> d) => d.Event.NeedsCountersignature && !IsCountersigned(d.Seq)
        && (d.Event.Kind == DeviationKind.JobGivenUp || (d.Event.Kind == DeviationKind.StepLeftOut && Step(d.Event.Step) is { } step
            && IsEssential(step)));

    private Decision OnStop(DecideStop c, Person by)
    {
        if (Stops.All(s => s.Seq != c.Of))
            return No("There is no stop to decide about there.", "Choose one from the list.");
        if (by.Role != Role.Lead)
            return No("The workshop lead decides about this.", "Ask the lead.", ground: Ground.Lead);
        return Wordless(c.Words, "words", "What was decided") ?? (Decision)Yes(new StopDecided(c.Of, c.Mended, c.Words.Trim()));
    }

    private Decision Mend(MendCarried c, Person by)
    {
        if (c.Index < 0 || c.Index >= (Opened.Carried?.Count ?? 0) || IsMended(c.Index))
            return No("There is nothing of that kind to be mended.", "Choose one from the list.");
        if (by.Role != Role.Lead)
            return No("The workshop lead says when this is mended.", "Ask the lead.", ground: Ground.Lead);
        return Wordless(c.Words, "words", "What was done") ?? (Decision)Yes(new CarriedMended(c.Index, c.Words.Trim()));
    }
}
