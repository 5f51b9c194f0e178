using Anakyklos.Core.Quantities;

namespace Anakyklos.Simulation;

/// <summary>The numbers that no sheet gives, each with its reason.</summary>
internal static class Physics
{
    /// <summary>A sump runs out like a vessel with a hole: a steady share of what is left in each moment. After five of these less than a
    /// hundredth is left, which is what "until it drips" means; where the sheet says how long it runs, a fifth of that.</summary>
    internal static readonly TimeSpan RunsOutBy = TimeSpan.FromMinutes(2);

    /// <summary>How many of those are in the time that a sheet gives for running out.</summary>
    internal const int PartsOfRunningOut = 5;

    /// <summary>Share of a pumped system's amount that stands in filter and galleries while the engine runs: between a twentieth and a
    /// tenth in engines of this size.</summary>
    internal const decimal InFilter = 0.07m;

    /// <summary>A maker's least amount to start with has a margin; below this share of it the pump draws air.</summary>
    internal const decimal DrawsAirBelow = 0.9m;

    /// <summary>Where the sheet gives no least amount, half of what goes in.</summary>
    internal const decimal LeastWithoutWord = 0.5m;

    /// <summary>Above the top mark by so much of the way between the marks, a crankshaft begins to beat the oil into froth.</summary>
    internal const decimal FrothsAbove = 0.5m;

    /// <summary>A thread bears so much more than the highest torque that passes before it is strained: makers keep about a third in
    /// hand.</summary>
    internal const decimal ThreadBears = 1.3m;

    /// <summary>From the contact of its face to its torque, a joint is drawn down within a sixth of a turn; torque rises evenly with the
    /// angle.</summary>
    internal const decimal DegreesToTorque = 60;

    /// <summary>So far beyond what it bears a thread has given way altogether.</summary>
    internal const decimal DegreesToStrip = 45;

    /// <summary>A thread that gave way drags with so much of its torque.</summary>
    internal const decimal StrippedDrags = 0.15m;

    /// <summary>The fewest strokes that a sheet asks for have a margin: what runs is fresh after so much of them.</summary>
    internal const decimal ClearsAfter = 0.8m;

    /// <summary>An engine that ran is hot metal for so long where the sheet does not say how long it cools.</summary>
    internal static readonly TimeSpan CoolsIn = TimeSpan.FromHours(1);

    /// <summary>Less than this in a sump is a film on its walls, not a fluid that runs.</summary>
    internal static readonly Quantity<Volume> Film = Quantity<Volume>.Of(0.02m, Volume.Litre);
}
