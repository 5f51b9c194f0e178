using Anakyklos.Core.Ids;

namespace Anakyklos.Core.Workshop;

/// <summary>What became of a recommendation.</summary>
/// <param name="IsDeclined">Whether it was declined; otherwise it was done.</param>
/// <param name="Who">Who declined it, or who did it and where.</param>
/// <param name="Words">Why, or what was done.</param>
/// <param name="By">The name of who noted it.</param>
/// <param name="At">When.</param>
public sealed record RecommendationAnswer(bool IsDeclined, string Who, string Words, string By, DateTimeOffset At);

/// <summary>Something that was found on a signed card and outlasts it: graded “plan it”, or “keep an eye on it”.</summary>
/// <param name="Card">The card.</param>
/// <param name="Seq">Seq of the finding.</param>
/// <param name="At">When it was found.</param>
/// <param name="Text">What was found.</param>
/// <param name="By">Who found it.</param>
/// <param name="Answer">What became of it; null while it is open.</param>
/// <param name="IsWatched">Whether an eye is kept on it; otherwise it is to be planned.</param>
public sealed record Recommendation(CardNumber Card, int Seq, DateTimeOffset At, string Text, string By, RecommendationAnswer? Answer,
    bool IsWatched = false)
{
    /// <summary>Whether nothing has become of it yet.</summary>
    public bool IsOpen => Answer is null;

    /// <summary>Whether it waits for its planning.</summary>
    public bool IsToPlan => IsOpen && !IsWatched;
}
