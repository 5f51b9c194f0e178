namespace Anakyklos.Core.Sheets;

/// <summary>A drawing of one side of the vehicle, 100 wide and 120 high.</summary>
/// <param name="Id">Id.</param>
/// <param name="Title">Such as "Seen from below".</param>
/// <param name="Outline">The shape around it.</param>
/// <param name="Blocks">Engine, gearbox and so on as rectangles.</param>
/// <param name="Points">Things to find, and things to leave alone.</param>
/// <param name="Front">Where the front is: up on drawings from above and of the underside (drawn through from above, so left is the
/// vehicle's left), left or right on those of a side.</param>
/// <param name="Belts">Drive belts and their way over the pulleys.</param>
public sealed record VehicleMap(string Id, string Title, MapOutline Outline, Facing Front, IReadOnlyList<MapBlock> Blocks,
    IReadOnlyList<MapPoint> Points, IReadOnlyList<BeltRoute> Belts)
{
    /// <summary>The id of a point of a car that stands for its lifting points; the step that sets the arms shows it.</summary>
    public const string LiftingPoints = "lifting-points";

    /// <summary>What the drawing points at for a step: what it works on, or the step itself; null when it shows neither.</summary>
    /// <param name="step">The step.</param>
    /// <returns>The point of what the step is done to, else that of the step itself, else null.</returns>
    public MapPoint? PointOf(SheetStep step) => Points.FirstOrDefault(p => !p.For.IsEmpty && p.For == step.What)
        ?? Points.FirstOrDefault(p => p.For == step.Id.Text);
}

/// <summary>The shape around what is drawn.</summary>
public enum MapOutline
{
    /// <summary>Four wheels, from above or below.</summary>
    Car,

    /// <summary>Four wheels, from the side.</summary>
    CarSide,

    /// <summary>Two wheels, from the side.</summary>
    MotorcycleSide,

    /// <summary>Two wheels, from above or below.</summary>
    Motorcycle,

    /// <summary>A part of the vehicle only: nothing around it.</summary>
    None,
}

/// <summary>Which way a plug faces on the drawing.</summary>
public enum Facing
{
    /// <summary>Towards the one who looks, or not said.</summary>
    None,

    /// <summary>Towards the upper edge.</summary>
    Up,

    /// <summary>Towards the lower edge.</summary>
    Down,

    /// <summary>To the left.</summary>
    Left,

    /// <summary>To the right.</summary>
    Right,
}

/// <summary>A rectangle of the drawing.</summary>
/// <param name="Name">What it is.</param>
/// <param name="X">Left edge, 0 to 100.</param>
/// <param name="Y">Upper edge, 0 to 120.</param>
/// <param name="Width">Width.</param>
/// <param name="Height">Height.</param>
public sealed record MapBlock(string Name, int X, int Y, int Width, int Height);

/// <summary>A point of the drawing.</summary>
/// <param name="For">Id of the fastener, access, fluid, part or step it marks; empty for a look-alike.</param>
/// <param name="X">0 to 100.</param>
/// <param name="Y">0 to 120.</param>
/// <param name="Label">Words beside it.</param>
/// <param name="NotFor">Id of the thing that it is mistaken for; empty for a right point.</param>
/// <param name="Faces">Which way it faces.</param>
public sealed record MapPoint(ThingId For, int X, int Y, string Label, ThingId NotFor, Facing Faces);
