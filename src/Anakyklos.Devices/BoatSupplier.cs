using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;

namespace Anakyklos.Devices;

/// <summary>
/// A stand-in for a supplier whose goods come with the supply boat on Tuesdays and Fridays. An order before noon goes with the next boat
/// after that day;
/// what it does not keep itself takes one boat more. The same number always answers the same.
/// </summary>
public sealed class BoatSupplier : ISupplier
{
    private static readonly TimeSpan LastOrder = TimeSpan.FromHours(12);

    /// <inheritdoc />
    public DateOnly? Arrives(string number, DateTimeOffset ordered, Shelf known)
    {
        if (known.Find(number) is null && known.Oils.Find(number) is null)
            return null;
        var from = DateOnly.FromDateTime(ordered.DateTime).AddDays(ordered.TimeOfDay < LastOrder ? 1 : 2);
        var boat = NextBoat(from);
        // About one number in five has to come from further away.
        return PartNumber.Bare(number).Sum(c => c) % 5 == 0 ? NextBoat(boat.AddDays(1)) : boat;
    }

    /// <summary>The first boat on a day or after it.</summary>
    public static DateOnly NextBoat(DateOnly from)
    {
        while (from.DayOfWeek is not (DayOfWeek.Tuesday or DayOfWeek.Friday))
            from = from.AddDays(1);
        return from;
    }
}
