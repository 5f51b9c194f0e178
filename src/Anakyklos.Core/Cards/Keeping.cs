namespace Anakyklos.Core.Cards;

public sealed partial class JobCard
{
    /// <summary>So long a press may have been kept at a screen without a line: as long as anybody stays signed in.</summary>
    public static readonly TimeSpan KeptAtMost = TimeSpan.FromHours(12);

    /// <summary>
    /// When something was pressed that was kept at a screen until there was a line again. Only that screen knows it, so it is taken to lie
    /// after all that the card had heard of by then, and the event says that it came later.
    /// </summary>
    /// <param name="came">When it came to the workshop.</param>
    /// <param name="kept">How long the screen says that it was kept; not negative, at most <see cref="KeptAtMost"/>.</param>
    /// <returns>Never before the card's last event and never after it came, unless the last event itself is later.</returns>
    /// <exception cref="ArgumentOutOfRangeException">It was kept for less than nothing, or for too long.</exception>
    public DateTimeOffset PressedAt(DateTimeOffset came, TimeSpan kept)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(kept, TimeSpan.Zero);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(kept, KeptAtMost);
        var (said, last) = (came - kept, _history[^1].At);
        return said > last ? said : last < came ? last : came;
    }
}
