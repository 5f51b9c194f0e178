using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Cards;

/// <summary>Words for whoever goes on with a card.</summary>
/// <param name="Text">The words.</param>
public sealed record WordLeft(string Text) : CardEvent;

/// <summary>Leaves words for whoever goes on.</summary>
/// <param name="Text">The words.</param>
public sealed record LeaveWord(string Text) : CardCommand;

/// <summary>Something that whoever goes on must know.</summary>
/// <param name="Says">It in a sentence without a full stop.</param>
/// <param name="By">Who noted it; null where it follows from what was done.</param>
/// <param name="At">When; null where it follows from what was done.</param>
public sealed record Strange(string Says, Person? By = null, DateTimeOffset? At = null);

/// <summary>A card as it stands in the middle of the work, for somebody who takes it over.</summary>
/// <param name="Open">What is open, the last opened first.</param>
/// <param name="Waits">What runs by itself, the next to end first.</param>
/// <param name="Last">What was done last, the newest first; at most three.</param>
/// <param name="Strange">What was strange: what stands half done first, then what was noted, the newest first.</param>
/// <param name="Words">Words that were left, the newest first.</param>
/// <param name="Next">What is next; null when nothing is left.</param>
public sealed record AsItStands(IReadOnlyList<OpenItem> Open, IReadOnlyList<RunningWait> Waits, IReadOnlyList<Recorded> Last,
    IReadOnlyList<Strange> Strange, IReadOnlyList<Recorded> Words, SheetStep? Next);

/// <summary>What is told to somebody who takes a card over.</summary>
public sealed partial class JobCard
{
    /// <summary>How the card stands now.</summary>
    /// <param name="now">The time, for waits.</param>
    public AsItStands Standing(DateTimeOffset now)
    {
        var taken = TakenIn(_history);
        var holds = _history.Where(h => !taken.Contains(h.Seq)).Reverse().ToList();
        return new([.. Open.Reverse()], [.. _state.Waits.Where(w => w.Until > now).OrderBy(w => w.Until)],
            [.. holds.Where(h => h.Event is IStepEvent or LiftMoved or PanEmptied).DistinctBy(h => h.Command).Take(3)],
            [.. HalfDone(), .. holds.Select(Noteworthy).OfType<Strange>()],
            [.. holds.Where(h => h.Event is WordLeft)], Next);
    }

    /// <summary>Whether somebody comes to this card who has not worked on it for a while, though another has.</summary>
    /// <param name="person">Who.</param>
    /// <param name="now">The time.</param>
    /// <returns>The last that another did; null when there is none, or this person has done something in the last half hour.</returns>
    public Recorded? WorkedOnBefore(PersonId person, DateTimeOffset now) =>
        _history.Any(h => h.By.Id == person && now - h.At < TimeSpan.FromMinutes(30)) ? null
            : _history.LastOrDefault(h => h.Event is IStepEvent or LiftMoved or WordLeft) is { } last && last.By.Id != person ? last : null;

    private IEnumerable<Strange> HalfDone()
    {
        foreach (var step in Steps.Where(s => IsOverTorqued(s.Id)))
            yield return new($"{Sheet.Fasteners[step.What].Name}: tightened too far, and not seen to yet");
        foreach (var step in Steps.Where(s => State(s.Id).Status == StepStatus.Aside))
            yield return new($"“{TitleOf(step)}” is left for later: {State(step.Id).Reason}");
        foreach (var step in Remaining.Where(s => FoundAt(s.Id).Any(f => !f.Settled)))
            yield return new($"“{TitleOf(step)}” has something that does not pass yet");
        foreach (var awaited in Awaited)
            yield return new($"It waits for {awaited.Name} {awaited.Number}");
        foreach (var stop in (Opened.Carried ?? []).Where((_, i) => !IsMended(i)))
            yield return new($"From card {stop.Card}: {stop.Text}");
        foreach (var lit in StillLit)
            yield return new($"From card {lit.Card}: {lit.Name} left lit, {lit.Reason}");
    }

    private Strange? Noteworthy(Recorded recorded) => recorded.Event switch
    {
        FindingNoted f => new(f.Text, recorded.By, recorded.At),
        DeviationTaken d => new($"{d.What}: {d.Reason}", recorded.By, recorded.At),
        WaitCut w => new($"A wait was ended early: {w.Reason}", recorded.By, recorded.At),
        JobDropped j => new($"{j.Name} was given up: {j.Reason}", recorded.By, recorded.At),
        EngineCranked => new("It was cranked and did not fire", recorded.By, recorded.At),
        _ => null,
    };

    private Decision Leave(LeaveWord c) => Wordless(c.Text, "text", "The word") ?? (Decision)Yes(new WordLeft(c.Text.Trim()));
}
