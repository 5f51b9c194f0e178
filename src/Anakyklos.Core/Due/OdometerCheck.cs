using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Due;

/// <summary>What may be believed of an odometer reading without asking once more.</summary>
public static class OdometerCheck
{
    private const int Times = 3;
    private static readonly Quantity<Distance> Anyway = Quantity<Distance>.Of(2_000, Distance.Kilometre);
    private static readonly Quantity<Distance> UnknownADay = Quantity<Distance>.Of(400, Distance.Kilometre);

    /// <summary>The highest reading that is believed.</summary>
    /// <param name="last">The last reading.</param>
    /// <param name="use">The vehicle's use a day; null where it is not known: then 400 km a day are.</param>
    /// <param name="today">The day.</param>
    /// <returns>Three times its busy use since then and 2,000 km more, but never further than any vehicle goes
    /// (<see cref="DailyUse.MostADay"/>); the same day counts as one.</returns>
    public static Quantity<Distance> Most(in UseMark last, DailyUse? use, DateOnly today)
    {
        var days = Math.Max(1, today.DayNumber - last.Day.DayNumber);
        var likely = (use is { } known ? known.High * Times : UnknownADay) * days + Anyway;
        var possible = DailyUse.MostADay * days;
        return last.Odometer + (likely < possible ? likely : possible);
    }

    /// <summary>What may have been meant by a reading that is not believed: the same with a digit more or less at its end.</summary>
    /// <param name="reading">What was typed.</param>
    /// <param name="last">The last reading.</param>
    /// <param name="most">The highest that is believed.</param>
    /// <returns>A reading between the two, in whole units of the dash; null where neither fits.</returns>
    public static Typed<Distance>? Meant(Typed<Distance> reading, Quantity<Distance> last, Quantity<Distance> most)
    {
        var shown = reading.Value.In(reading.Unit);
        foreach (var other in new[] { decimal.Floor(shown / 10), shown * 10 })
            if (Quantity<Distance>.Of(other, reading.Unit) is var meant && meant >= last && meant <= most)
                return new(meant, reading.Unit);
        return null;
    }

    /// <summary>Whether a number can be read in two ways: "146.200" as 146,200 or as 146.2.</summary>
    /// <param name="text">What was typed.</param>
    /// <returns>True for digits in threes after one point or comma.</returns>
    public static bool IsTwofold(string text)
    {
        var digits = text.Trim().TakeWhile(c => char.IsAsciiDigit(c) || c is '.' or ',').ToArray();
        var parts = new string(digits).Split('.', ',');
        return parts.Length == 2 && parts[0].Length is > 0 and <= 3 && parts[1].Length == 3;
    }
}
