namespace Anakyklos.Core.Cards;

/// <summary>How something strayed from the usual course without leaving the book: it is told first at hand-over, and on the
/// record.</summary>
public enum Stray
{
    /// <summary>A joint wept or leaked, or what was done about it.</summary>
    Leak,

    /// <summary>A fastener was tightened too far, or what was done about it.</summary>
    TooMuch,

    /// <summary>A reading was put right afterwards.</summary>
    PutRight,

    /// <summary>It was gone on against a warning, or a question about it was answered with yes.</summary>
    Warned,

    /// <summary>A wait was ended before its time.</summary>
    WaitCut,

    /// <summary>The oil light stayed on, was said to be out in time only later, or what was found.</summary>
    Light,

    /// <summary>The engine did not fire.</summary>
    NoStart,

    /// <summary>A reset failed, or what was found.</summary>
    Reset,

    /// <summary>What did not pass was let stay.</summary>
    LetStay,
}

/// <summary>An event that may have strayed from the usual course.</summary>
public interface IMayStray
{
    /// <summary>How it did; null where it did not.</summary>
    Stray? Strayed { get; }
}

/// <summary>What strayed from the usual course and was not taken back, and who worked.</summary>
public sealed partial class JobCard
{
    /// <summary>The names of those who did the steps of this card, in the order in which each came to it.</summary>
    public IReadOnlyList<string> WorkedBy
    {
        get
        {
            var taken = TakenIn(_history);
            return [.. _history.Where(h => h.Event is IStepEvent && !taken.Contains(h.Seq)).Select(h => h.By.Name).Distinct()];
        }
    }

    /// <summary>What strayed without being a deviation or a finding, in the order it happened.</summary>
    public IEnumerable<(Recorded Recorded, Stray How)> Strays
    {
        get
        {
            var taken = TakenIn(_history);
            return _history.Where(h => !taken.Contains(h.Seq)).Select(h => (h, (h.Event as IMayStray)?.Strayed))
                .Where(h => h.Strayed is not null).Select(h => (h.h, h.Strayed!.Value));
        }
    }
}
