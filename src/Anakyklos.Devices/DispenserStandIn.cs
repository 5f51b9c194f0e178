using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Simulation;

namespace Anakyklos.Devices;

/// <summary>A run of the dispenser.</summary>
/// <param name="Shown">What its meter showed in the end.</param>
/// <param name="RanDry">The container had no more.</param>
/// <param name="Harms">What should not have happened to the vehicle.</param>
public sealed record Delivery(Typed<Volume> Shown, bool RanDry, IReadOnlyList<Harm> Harms);

/// <summary>
/// A stand-in for an oil dispenser: a pump in a container, a hose with a trigger, and a meter that shuts at what it is set to. Its valve
/// can shut late or early, and its meter can read wrong.
/// </summary>
/// <param name="name">What is painted on it.</param>
public sealed class DispenserStandIn(string name) : SendingStandIn(name)
{
    /// <summary>The most that it can be set to.</summary>
    public static readonly Quantity<Volume> Most = Litres(60);

    /// <summary>The smallest step of its meter.</summary>
    public static readonly Quantity<Volume> Step = Litres(0.01m);

    /// <summary>The container of the stores in which it hangs; null for none.</summary>
    public int? DrawsFrom { get; set; }

    /// <summary>What its meter shuts at.</summary>
    public Quantity<Volume> Setting { get; private set; } = Litres(1);

    /// <summary>What it shows of each litre; 1 when it is in calibration.</summary>
    public decimal Shows { get; set; } = 1;

    /// <summary>So much more than its setting runs through before the valve is shut; below zero where it shuts before.</summary>
    public Quantity<Volume> ShutsLate { get; set; }

    /// <summary>Sets its meter.</summary>
    /// <param name="to">To what; taken into what it can be set to, a step at least.</param>
    public void Set(Quantity<Volume> to) => Setting = to < Step ? Step : to > Most ? Most : (to + Step * 0.5m).DownTo(Step);

    /// <summary>How much really runs when the trigger is held until it shuts by itself.</summary>
    /// <param name="left">What is in the container.</param>
    public Quantity<Volume> RunsUntilShut(Quantity<Volume> left)
    {
        var shuts = (Setting + ShutsLate) * (1 / Shows);
        return shuts < Quantity<Volume>.Zero ? Quantity<Volume>.Zero : shuts < left ? shuts : left;
    }

    /// <summary>What the meter shows of what ran.</summary>
    /// <param name="ran">How much really ran.</param>
    public Typed<Volume> Shown(Quantity<Volume> ran) =>
        new(Quantity<Volume>.Of(Math.Round((ran * Shows).In(Volume.Litre), 2), Volume.Litre), Volume.Litre);

    /// <summary>Holds the trigger with the nozzle in a filler.</summary>
    /// <param name="behind">The vehicle.</param>
    /// <param name="into">The fluid's filler.</param>
    /// <param name="upTo">When the hand lets go, by what the meter shows; null to hold it until it shuts.</param>
    /// <param name="product">What the container holds.</param>
    /// <param name="left">How much the container holds.</param>
    /// <param name="suits">Whether that may go in there.</param>
    /// <param name="now">When, by the workshop's clock.</param>
    /// <returns>What the meter showed; that goes to its memory when anything ran.</returns>
    public Delivery Run(VehicleBehind behind, FluidId into, Quantity<Volume>? upTo, string product, Quantity<Volume> left, bool suits,
        DateTimeOffset now)
    {
        var ends = RunsUntilShut(left);
        var ran = upTo is { } hand && hand * (1 / Shows) < ends ? hand * (1 / Shows) : ends;
        var shown = Shown(ran);
        if (shown.Value <= Quantity<Volume>.Zero)
            return new(shown, ran == left, []);
        var answer = behind.Dispense(new(into, ran, product, suits), shown.Value, now);
        if (answer.Harms.Any(h => h.Kind == HarmKind.OutOfReach))
            return new(Shown(Quantity<Volume>.Zero), false, answer.Harms);
        Keep(new MeasuredVolume(shown, DrawsFrom), now);
        return new(shown, ran == left, answer.Harms);
    }

    private static Quantity<Volume> Litres(decimal number) => Quantity<Volume>.Of(number, Volume.Litre);
}
