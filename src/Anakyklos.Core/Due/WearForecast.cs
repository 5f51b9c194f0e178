using Anakyklos.Core.Ids;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Due;

/// <summary>What was read at a point on an earlier card of the vehicle.</summary>
/// <param name="Card">The number of that card.</param>
/// <param name="Day">When.</param>
/// <param name="Odometer">At which reading of the odometer.</param>
/// <param name="Step">The step.</param>
/// <param name="Point">The point of it.</param>
/// <param name="Least">The least that was read there.</param>
public sealed record InspectedBefore(CardNumber Card, DateOnly Day, Quantity<Distance> Odometer, StepId Step, string Point, Gauged Least);

/// <summary>How fast something wears, from two readings of one vehicle: a straight line through them.</summary>
/// <param name="Now">What is there now.</param>
/// <param name="PerKilometre">What is lost in a kilometre, in the base unit of the reading; above zero.</param>
public sealed record WearForecast(Gauged Now, decimal PerKilometre)
{
    /// <summary>So far at least lie two readings apart that tell anything.</summary>
    public static Quantity<Distance> Apart { get; } = Quantity<Distance>.Of(500, Distance.Kilometre);

    /// <summary>The forecast from a reading before and one now.</summary>
    /// <param name="before">The reading before.</param>
    /// <param name="now">What is there now.</param>
    /// <param name="odometer">The odometer now.</param>
    /// <returns>Null where too little lies between them, and where nothing was lost: a new one was fitted, or it was misread.</returns>
    public static WearForecast? Of(InspectedBefore? before, Gauged now, Quantity<Distance> odometer) =>
        before is null || before.Least.Scale.Kind != now.Scale.Kind || odometer - before.Odometer < Apart || before.Least <= now ? null
            : new(now, (before.Least.Base - now.Base) / (odometer - before.Odometer).In(Distance.Kilometre));

    /// <summary>What will be there after some distance; never less than nothing.</summary>
    /// <param name="far">From zero.</param>
    public Gauged After(Quantity<Distance> far) => Now with { Base = Math.Max(0, Now.Base - PerKilometre * far.In(Distance.Kilometre)) };

    /// <summary>How far it goes until it is down to a limit, to the kilometre, rounded down; zero where it is there already.</summary>
    /// <param name="limit">The least that passes.</param>
    public Quantity<Distance> Lasts(Gauged limit) =>
        Quantity<Distance>.Of(Math.Max(0, Math.Floor((Now.Base - limit.Base) / PerKilometre)), Distance.Kilometre);
}
