namespace Anakyklos.Core.Sheets;

/// <summary>A drawing of one side of the vehicle, 100 wide and 120 high, front upwards.</summary>
/// <param name="Id">Id.</param>
/// <param name="Title">Such as "Seen from below".</param>
/// <param name="Blocks">Engine, gearbox and so on as rectangles.</param>
/// <param name="Points">Things to find, and things to leave alone.</param>
public sealed record VehicleMap(string Id, string Title, IReadOnlyList<MapBlock> Blocks, IReadOnlyList<MapPoint> Points);

/// <summary>A rectangle of the drawing.</summary>
/// <param name="Name">What it is.</param>
/// <param name="X">Left edge, 0 to 100.</param>
/// <param name="Y">Upper edge, 0 to 120.</param>
/// <param name="Width">Width.</param>
/// <param name="Height">Height.</param>
public sealed record MapBlock(string Name, int X, int Y, int Width, int Height);

/// <summary>A point of the drawing.</summary>
/// <param name="For">Id of the fastener or access it marks; empty for a look-alike.</param>
/// <param name="X">0 to 100.</param>
/// <param name="Y">0 to 120.</param>
/// <param name="Label">Words beside it.</param>
/// <param name="NotFor">Id of the thing that it is mistaken for; empty for a right point.</param>
public sealed record MapPoint(string For, int X, int Y, string Label, string NotFor);
