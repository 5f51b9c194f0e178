using System.Collections.Immutable;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Simulation;

/// <summary>Brakes: a reservoir, a hose at each wheel, air, and what the pedal does.</summary>
public sealed partial record Vehicle
{
    /// <summary>Whether the pedal goes to the floor: air is in a line, or a bleed screw is open.</summary>
    public bool PedalIsSoft => Brakes.Values.Any(b => b.Lines.Any(l => l.Value.Air > 0 || !Joints[l.Key].IsTight));

    /// <summary>Whether the reservoir of a brake fluid stands at its upper line.</summary>
    public bool IsFull(FluidId fluid) => Known(Brakes, fluid).Reservoir >= Holds(fluid);

    /// <summary>What runs through the hose at a bleed screw.</summary>
    /// <param name="screw">The screw.</param>
    /// <returns>Whether bubbles run, and whether what runs is fresh.</returns>
    /// <exception cref="ArgumentException">It is no bleed screw.</exception>
    public (bool Bubbles, bool Fresh) HoseAt(FastenerId screw)
    {
        var (spec, brake) = BrakeAt(screw);
        var line = brake.Lines[screw];
        return (line.Air > 0, line.Driven >= spec.Strokes * Physics.ClearsAfter);
    }

    private static ImmutableDictionary<FluidId, Brake> BrakesOf(ModelSheet sheet) => Screws(sheet).GroupBy(s => s.Spec.Fluid)
        .ToImmutableDictionary(g => g.Key, g => new Brake(g.First().Spec.Reservoir,
            g.Select(s => s.Screw).Distinct().ToImmutableDictionary(s => s, _ => new BrakeLine(0, 0))));

    private static IEnumerable<(FastenerId Screw, BleedSpec Spec)> Screws(ModelSheet sheet) =>
        sheet.Steps.Values.Where(s => s.Spec is BleedSpec).Select(s => ((FastenerId)s.What, (BleedSpec)s.Spec!));

    private (BleedSpec Spec, Brake Brake) BrakeAt(FastenerId screw) =>
        Screws(Sheet).FirstOrDefault(s => s.Screw == screw).Spec is { } spec ? (spec, Brakes[spec.Fluid])
            : throw new ArgumentException($"“{screw}” is no bleed screw.", nameof(screw));

    private Answer SuckOut(Brake brake, FluidId fluid) => ShutAbove(fluid)
        ?? Well(this with { Brakes = Brakes.SetItem(fluid, brake with { Reservoir = Quantity<Volume>.Zero }) });

    private Answer TopUp(Brake brake, TopsUp hand)
    {
        var holds = Holds(hand.What);
        var level = hand.Amount is { } amount && brake.Reservoir + amount < holds ? brake.Reservoir + amount : holds;
        return ShutAbove(hand.What) ?? Well(this with { Brakes = Brakes.SetItem(hand.What, brake with { Reservoir = level }) });
    }

    private Quantity<Volume> Holds(FluidId fluid) => Screws(Sheet).First(s => s.Spec.Fluid == fluid).Spec.Reservoir;

    private Answer? ShutAbove(FluidId fluid) => Behind(Sheet.Fluids[fluid].Name, Sheet.Fluids[fluid].Through);

    // A stroke drives out its volume while the reservoir has it, and air with it; from an empty one it draws air in.
    private Answer Stroke(Fastener screw, int count)
    {
        var (spec, brake) = BrakeAt(screw.Id);
        if (Joints[screw.Id].IsIn)
            return Cannot(screw.Name, "it is shut");
        var (reservoir, line) = (brake.Reservoir, brake.Lines[screw.Id]);
        for (var stroke = 0; stroke < count; stroke++)
            if (reservoir >= spec.PerStroke)
                (reservoir, line) = (reservoir - spec.PerStroke, new(line.Driven + 1, Math.Max(0, line.Air - 1)));
            else
                line = line with { Air = line.Air + 1 };
        var next = brake with { Reservoir = reservoir, Lines = brake.Lines.SetItem(screw.Id, line) };
        Harm[] harms = line.Air > brake.Lines[screw.Id].Air
            ? [new(HarmKind.AirDrawn, Sheet.Fluids[spec.Fluid].Name, "the reservoir is empty")] : [];
        return new(this with { Brakes = Brakes.SetItem(spec.Fluid, next) }, harms);
    }
}

/// <summary>A brake circuit.</summary>
/// <param name="Reservoir">What stands above its lower line.</param>
/// <param name="Lines">The line to each bleed screw.</param>
public sealed record Brake(Quantity<Volume> Reservoir, ImmutableDictionary<FastenerId, BrakeLine> Lines);

/// <summary>The line to a wheel.</summary>
/// <param name="Driven">Strokes that drove fluid out there.</param>
/// <param name="Air">Strokes' worth of air in it.</param>
public sealed record BrakeLine(int Driven, int Air);
