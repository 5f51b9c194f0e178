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

/// <summary>After so far or so many months, whichever is first.</summary>
/// <param name="Every">Distance.</param>
/// <param name="Months">Calendar months.</param>
public sealed record ServiceInterval(Quantity<Distance> Every, int Months)
{
    /// <summary>When it is due next after being done.</summary>
    /// <param name="odometer">The reading when it was done.</param>
    /// <param name="done">The day it was done. A month without that day ends on its last one.</param>
    public NextDue After(Quantity<Distance> odometer, DateOnly done) => new(odometer + Every, done.AddMonths(Months));
}

/// <summary>Due at whichever comes first.</summary>
/// <param name="At">Odometer reading.</param>
/// <param name="By">Day.</param>
public sealed record NextDue(Quantity<Distance> At, DateOnly By)
{
    /// <summary>Whether either has been passed; on the day and at the very reading it is due, not overdue.</summary>
    /// <param name="odometer">The last reading.</param>
    /// <param name="today">The day in the workshop.</param>
    public bool IsOverdue(Quantity<Distance> odometer, DateOnly today) => odometer > At || today > By;
}
