using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Sheets;

/// <summary>The wheel that a screw belongs to.</summary>
public enum Wheel
{
    /// <summary>Front left, seen from the seat.</summary>
    FrontLeft,

    /// <summary>Front right.</summary>
    FrontRight,

    /// <summary>Rear left.</summary>
    RearLeft,

    /// <summary>Rear right.</summary>
    RearRight,

    /// <summary>The front wheel of two.</summary>
    Front,

    /// <summary>The rear wheel of two.</summary>
    Rear,

    /// <summary>No wheel: the cylinder at the clutch, fed from the same reservoir.</summary>
    Clutch,
}

/// <summary>What a sheet says of bleeding one wheel.</summary>
/// <param name="Fluid">The fluid that is driven through.</param>
/// <param name="Wheel">The wheel.</param>
/// <param name="Strokes">The fewest full strokes until it may count as clear.</param>
/// <param name="PerStroke">What one full stroke of pedal or lever drives out.</param>
/// <param name="Reservoir">What the reservoir holds between its two lines.</param>
public sealed record BleedSpec(FluidId Fluid, Wheel Wheel, int Strokes, Quantity<Volume> PerStroke, Quantity<Volume> Reservoir) : WorkSpec
{
    /// <summary>Full strokes from the upper line to the lower, rounded down; one more would draw the level below the lower line, and
    /// air at last.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public int StrokesInReservoir => PerStroke > Quantity<Volume>.Zero ? (int)decimal.Floor(Reservoir / PerStroke) : 0;

    internal static BleedSpec Read(SheetCursor c)
    {
        var spec = new BleedSpec(c.Text("fluid"), c.Word<Wheel>("wheel"), c.Whole("strokes", 1, 60, 10), c.Amount<Volume>("perStroke"),
            c.Amount<Volume>("reservoir"));
        if (spec.StrokesInReservoir < 1)
            c.Complain("reservoir",
                "The reservoir must hold one stroke at least between its lines, and a stroke must drive something out.");
        return spec;
    }
}

/// <summary>What a sheet says of pressing a pedal or lever before the vehicle moves.</summary>
/// <param name="Hold">For how long it is held.</param>
/// <param name="Again">The steps that are done again when it is not hard.</param>
public sealed record PedalSpec(TimeSpan Hold, IReadOnlyList<StepId> Again) : WorkSpec
{
    internal static PedalSpec Read(SheetCursor c)
    {
        var spec = new PedalSpec(c.Duration("hold") ?? default, c.Ids<StepId>("again", true));
        if (spec.Hold <= TimeSpan.Zero)
            c.Complain("hold", "It is held for some time, such as “30 s”.");
        return spec;
    }
}
