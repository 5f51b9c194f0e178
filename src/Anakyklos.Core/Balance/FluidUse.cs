using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Balance;

/// <summary>How much of a fluid a vehicle used between two services.</summary>
/// <param name="From">The day of the first.</param>
/// <param name="Until">The day of the second.</param>
/// <param name="Over">The distance between them.</param>
/// <param name="Odometer">Where it stood at the second.</param>
/// <param name="Stood">What was in at the first.</param>
/// <param name="ToppedUp">What went in between.</param>
/// <param name="Had">What was still there at the second.</param>
/// <param name="ByGauge">Whether it was read on the gauge; else it was measured as it came out, and a film always stays inside.</param>
public sealed record FluidUse(DateOnly From, DateOnly Until, Quantity<Distance> Over, Quantity<Distance> Odometer, Quantity<Volume> Stood,
    Quantity<Volume> ToppedUp, Quantity<Volume> Had, bool ByGauge)
{
    /// <summary>What was filled and topped up, less what was still there; negative where there was more.</summary>
    public Quantity<Volume> Used => Stood + ToppedUp - Had;

    /// <summary>1,000 km: use is reckoned over it whatever the dash counts in.</summary>
    public static readonly Quantity<Distance> Thousand = Quantity<Distance>.Of(1000, Distance.Kilometre);

    /// <summary>What was used in 1,000 km; null where less than 100 km were driven, which tell nothing.</summary>
    public Quantity<Volume>? PerThousand => Over >= Thousand / 10 ? Used / (Over / Thousand) : null;
}

/// <summary>What the use of a fluid says.</summary>
public enum UseVerdict
{
    /// <summary>Within the limit.</summary>
    Usual,

    /// <summary>More than the limit.</summary>
    Much,

    /// <summary>More is in than was filled: something else ran in, or it was filled too high.</summary>
    Gained,
}

/// <summary>Which way the use of a fluid goes.</summary>
public enum UseTrend
{
    /// <summary>There are too few services to tell.</summary>
    Unknown,

    /// <summary>No way that a reading would show.</summary>
    Steady,

    /// <summary>More each time.</summary>
    Rising,

    /// <summary>Less each time.</summary>
    Falling,
}
