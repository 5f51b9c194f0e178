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

    /// <summary>Above it by so much, what cannot go anywhere else goes past a seal.</summary>
    internal const decimal BlowsAbove = 2;

    /// <summary>A thread bears so much more than the highest torque that passes before it is strained: makers keep about a third in
    /// hand.</summary>
    internal const decimal ThreadBears = 1.3m;

    /// <summary>From the contact of its face to its torque, a joint is drawn down within a sixth of a turn; torque rises evenly with the
    /// angle.</summary>
    internal const decimal DegreesToTorque = 60;

    /// <summary>So far beyond what it bears a thread has given way altogether.</summary>
    internal const decimal DegreesToStrip = 45;

    /// <summary>Drawn to more than this share of its torque, a screw bends what it holds where another of the group is hardly in.</summary>
    internal const decimal DrawnFar = 0.72m;

    /// <summary>Below this share of its torque a screw is hardly in.</summary>
    internal const decimal DrawnHardly = 0.2m;

    /// <summary>A thread that gave way drags with so much of its torque.</summary>
    internal const decimal StrippedDrags = 0.15m;

    /// <summary>The fewest strokes that a sheet asks for have a margin: what runs is fresh after so much of them.</summary>
    internal const decimal ClearsAfter = 0.8m;

    /// <summary>The workshop, in degrees Celsius.</summary>
    internal const decimal Surroundings = 15;

    /// <summary>A running engine is held at 90 °C by its thermostat, so many degrees above its surroundings.</summary>
    internal const decimal Warm = 75;

    /// <summary>Above so many degrees over its surroundings (45 °C) a hand cannot stay on metal.</summary>
    internal const decimal TooHotToTouch = 30;

    /// <summary>It comes near to its 90 °C in about ten minutes: two thirds of the way in each three.</summary>
    internal static readonly TimeSpan WarmsBy = TimeSpan.FromMinutes(3);

    /// <summary>In the time that the sheet gives for cooling, a warm engine falls to 43 °C: e to the minus so much of 75 is 28.</summary>
    internal const double CoolingTimes = 0.985;

    /// <summary>On the road two thirds of the way come in each so much: what three minutes are at 60 km/h.</summary>
    internal static readonly Quantity<Distance> WarmsOn = Quantity<Distance>.Of(3, Distance.Kilometre);

    /// <summary>After so many of those it counts as warm: a hundredth is missing then.</summary>
    internal const int WarmAfter = 5;

    /// <summary>What an oil pump of this size brings at idle, in litres a second: a dry filter is full within five seconds, which is
    /// how long makers let the oil light burn.</summary>
    internal const decimal PumpBrings = 0.15m;

    /// <summary>So long a film of old oil carries the bearings without pressure.</summary>
    internal static readonly TimeSpan FilmCarries = TimeSpan.FromSeconds(10);

    /// <summary>The share of its charge that a battery needs to crank an engine until it catches.</summary>
    internal const decimal CrankNeeds = 0.3m;

    /// <summary>What a start takes out of it.</summary>
    internal const decimal CrankTakes = 0.02m;

    /// <summary>How long a start takes that takes so much: an engine in order catches within that time.</summary>
    internal static readonly TimeSpan CatchesIn = TimeSpan.FromSeconds(2);

    /// <summary>A starter turns an engine at about a quarter of its idle, and the oil pump with it.</summary>
    internal const decimal CrankPumps = 0.25m;

    /// <summary>Makers let a starter work for so long at a stretch before it must cool.</summary>
    internal static readonly TimeSpan StarterBears = TimeSpan.FromSeconds(10);

    /// <summary>What a running generator brings back in an hour.</summary>
    internal const decimal ChargesByHour = 0.5m;

    /// <summary>What is left in a weak one.</summary>
    internal const decimal Weak = 0.15m;

    /// <summary>What a tyre of these sizes holds, in bar, when the vehicle comes in; the sheets say it in words at their step.</summary>
    internal const decimal TyreHolds = 2.3m;

    /// <summary>A nail lets so much out in an hour, in bar.</summary>
    internal const decimal NailLetsOut = 0.4m;

    /// <summary>Below so much, in bar, a tyre comes off its seat in the first bend.</summary>
    internal const decimal TyreNeeds = 1.2m;

    /// <summary>An engine that ran is hot metal for so long where the sheet does not say how long it cools.</summary>
    internal static readonly TimeSpan CoolsIn = TimeSpan.FromHours(1);

    /// <summary>What hangs on the rim of a pan that is full, a few drops, does not fall.</summary>
    internal static readonly Quantity<Volume> Drops = Quantity<Volume>.Of(0.5m, Volume.Millilitre);

    /// <summary>Less than this in a sump is a film on its walls, not a fluid that runs.</summary>
    internal static readonly Quantity<Volume> Film = Quantity<Volume>.Of(0.02m, Volume.Litre);
}
