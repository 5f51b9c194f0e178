using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Intervals;

/// <summary>How hard a vehicle is used.</summary>
public enum Use
{
    /// <summary>The maker's normal interval.</summary>
    Normal,

    /// <summary>Salt, dust, short trips, towing: the shorter interval.</summary>
    Harsh,
}

/// <summary>After so far, so many months or so many running hours, whichever is first. At least one of them is given.</summary>
/// <param name="Every">Distance, or null where distance does not matter.</param>
/// <param name="Months">Calendar months, or null where age does not matter.</param>
/// <param name="Hours">Running hours, or null.</param>
public sealed record ServiceInterval(Quantity<Distance>? Every, int? Months, int? Hours = null)
{
    /// <summary>When it is due next after being done.</summary>
    /// <param name="odometer">The reading when it was done.</param>
    /// <param name="done">The day it was done. A month without that day ends on its last one.</param>
    public NextDue After(Quantity<Distance> odometer, DateOnly done) =>
        new(Every is { } every ? odometer + every : null, Months is { } months ? done.AddMonths(months) : null);
}

/// <summary>Due at whichever comes first; a measure that does not count is null.</summary>
/// <param name="At">Odometer reading.</param>
/// <param name="By">Day.</param>
public sealed record NextDue(Quantity<Distance>? At, DateOnly? By)
{
    /// <summary>Whether either has been passed; on the day and at the very reading it is due, not overdue.</summary>
    /// <param name="odometer">The last reading.</param>
    /// <param name="today">The day in the workshop.</param>
    public bool IsOverdue(Quantity<Distance> odometer, DateOnly today) => odometer > At || today > By;
}
