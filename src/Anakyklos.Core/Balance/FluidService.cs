using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Balance;

/// <summary>One service of a vehicle as far as one fluid goes.</summary>
/// <param name="Day">When.</param>
/// <param name="Odometer">Where it stood.</param>
/// <param name="Drained">Whether the old fluid was let out.</param>
/// <param name="Found">What was in before anything was done, by its gauge; null where nobody looked.</param>
/// <param name="CameOut">What was measured coming out; null where it was not.</param>
/// <param name="In">What went in.</param>
/// <param name="Stands">What was in at the end, by its gauge or because it was empty before; null where nobody knows.</param>
public sealed record FluidService(DateOnly Day, Quantity<Distance> Odometer, bool Drained, Quantity<Volume>? Found,
    Quantity<Volume>? CameOut, Quantity<Volume> In, Quantity<Volume>? Stands)
{
    /// <summary>What was in before: by the gauge, else what came out; null where neither is known.</summary>
    public Quantity<Volume>? Had => Found ?? CameOut;
}

/// <summary>What a vehicle had in it after its last service, and what was topped up since.</summary>
/// <param name="Day">When that was.</param>
/// <param name="Odometer">Where it stood then.</param>
/// <param name="Stands">What was in at the end of it.</param>
/// <param name="ToppedUp">What went in since without a drain.</param>
public sealed record FilledBefore(DateOnly Day, Quantity<Distance> Odometer, Quantity<Volume> Stands, Quantity<Volume> ToppedUp)
{
    /// <summary>What was used since.</summary>
    /// <param name="day">Today.</param>
    /// <param name="odometer">Where the vehicle stands now.</param>
    /// <param name="had">What is in now.</param>
    /// <param name="byGauge">Whether that was read on the gauge; else it was measured as it came out.</param>
    public FluidUse Until(DateOnly day, Quantity<Distance> odometer, Quantity<Volume> had, bool byGauge) =>
        new(Day, day, odometer - Odometer, odometer, Stands, ToppedUp, had, byGauge);
}
