using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Due;

/// <summary>An odometer that was exchanged for another one.</summary>
/// <param name="At">When the new one was seen first.</param>
/// <param name="Was">What the old one would have shown then.</param>
/// <param name="Shows">What the new one showed at the same moment.</param>
public sealed record ExchangedClock(DateTimeOffset At, Quantity<Distance> Was, Quantity<Distance> Shows)
{
    /// <summary>What is known of an exchange, completed by what is likely: between the last reading and today the vehicle went on as
    /// usual.</summary>
    /// <param name="at">When the new one is read.</param>
    /// <param name="now">What it shows then.</param>
    /// <param name="oldShowed">What the old one showed when it was taken out; null where nobody knows.</param>
    /// <param name="newShowed">What the new one showed when it was put in; null where nobody knows.</param>
    /// <param name="last">The last reading of the old one.</param>
    /// <param name="use">The vehicle's use a day; null where it is not known: then it has not moved.</param>
    /// <param name="days">Days since the last reading.</param>
    /// <returns>Where both are known, the two together; where only the old one's end is, the new one is taken to have begun at zero; where
    /// only the new one's beginning is, or nothing, what was driven since the last reading is taken from the use, to the
    /// kilometre.</returns>
    public static ExchangedClock Of(DateTimeOffset at, Quantity<Distance> now, Quantity<Distance>? oldShowed,
        Quantity<Distance>? newShowed, Quantity<Distance> last, DailyUse? use, int days)
    {
        if (oldShowed is { } end)
            return new(at, end + (now - (newShowed ?? Quantity<Distance>.Zero)), now);
        var likely = last + Whole((use?.Usual ?? Quantity<Distance>.Zero) * Math.Max(0, days));
        // What the new one has run by itself is driven for certain.
        var least = newShowed is { } began ? last + (now - began) : last;
        return new(at, likely < least ? least : likely, now);
    }

    /// <summary>What lies between the two: added to a reading of the old one it gives what the new one would have shown.</summary>
    public Quantity<Distance> Apart => Shows - Was;

    private static Quantity<Distance> Whole(Quantity<Distance> far) =>
        Quantity<Distance>.Of(decimal.Round(far.In(Distance.Kilometre)), Distance.Kilometre);
}
