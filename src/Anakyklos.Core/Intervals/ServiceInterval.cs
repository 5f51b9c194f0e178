using System.Text.Json.Serialization;
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

/// <summary>A point in a vehicle's life.</summary>
/// <param name="Odometer">The reading.</param>
/// <param name="Day">The day in the workshop.</param>
/// <param name="Hours">Running hours, or null where they are not known.</param>
/// <param name="Shortened">Whether what was seen then asks for the work again after half its interval.</param>
public readonly record struct UseMark(Quantity<Distance> Odometer, DateOnly Day, int? Hours = null, bool Shortened = false);

/// <summary>After so far, so many months or so many running hours, whichever is first. At least one of them is given.</summary>
/// <param name="Every">Distance, or null where distance does not matter.</param>
/// <param name="Months">Calendar months, or null where age does not matter.</param>
/// <param name="Hours">Running hours, or null.</param>
public sealed record ServiceInterval(Quantity<Distance>? Every, int? Months, int? Hours = null)
{
    /// <summary>When it is due next after being done.</summary>
    /// <param name="done">Where the vehicle stood then. A month without that day ends on its last one; hours count only where both ends are
    /// known.</param>
    /// <returns>What it is due at; null for what the interval does not count.</returns>
    public NextDue After(in UseMark done) =>
        new(Every is { } every ? done.Odometer + every : null, Months is { } months ? done.Day.AddMonths(months) : null,
            done.Hours + Hours);

    /// <summary>Half of it, for work at which wear was seen: months and hours rounded down, at least one.</summary>
    [JsonIgnore]
    public ServiceInterval Half => new(Every is { } every ? every / 2 : null, Months is { } months ? Math.Max(1, months / 2) : null,
        Hours is { } hours ? Math.Max(1, hours / 2) : null);

    /// <summary>So many of it, for what is done only every so many times it falls due.</summary>
    /// <param name="times">1 or more.</param>
    /// <returns>The interval with each of its limits so many times as long.</returns>
    public ServiceInterval Times(int times) => times == 1 ? this : new(Every * times, Months * times, Hours * times);
}

/// <summary>Due at whichever comes first; a measure that does not count is null.</summary>
/// <param name="At">Odometer reading.</param>
/// <param name="By">Day.</param>
/// <param name="AtHours">Running hours.</param>
public sealed record NextDue(Quantity<Distance>? At, DateOnly? By, int? AtHours = null);
