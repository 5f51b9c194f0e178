using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Drawing;

/// <summary>How a map and what is pointed at on it are turned.</summary>
public static class MapTurns
{
    /// <summary>Seen from its other side, a drawing is mirrored.</summary>
    public static string Mirror(VehicleMap map) =>
        (map.Outline, map.Front) is (MapOutline.CarSide, Facing.Right) or (MapOutline.MotorcycleSide, Facing.Left)
            ? "matrix(-1 0 0 1 100 0)" : "";

    /// <summary>An arrow that points upwards, turned the way that a point faces.</summary>
    public static string Arrow(Facing faces) => $"rotate({Degrees(faces)})";

    private static int Degrees(Facing? facing) => facing switch
    {
        Facing.Up => 0,
        Facing.Right => 90,
        Facing.Down => 180,
        _ => 270,
    };
}
