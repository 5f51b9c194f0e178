using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Simulation;

namespace Anakyklos.Web.Drawing;

/// <summary>A fluid of a simulated vehicle as a vessel with what is in it, the pan below, and what is open. Lengths in the units of a
/// drawing that is 120 wide and 190 high.</summary>
/// <param name="Fluid">The fluid.</param>
/// <param name="Top">Where its surface stands.</param>
/// <param name="Marks">Where its two marks are, top first; none for a fluid without.</param>
/// <param name="Holds">What is in it, to a hundredth of a litre.</param>
/// <param name="InPan">What ran into the pan, to a hundredth of a litre.</param>
/// <param name="OnFloor">What ran onto the floor, to a hundredth of a litre.</param>
/// <param name="PanTop">Where the surface in the pan stands.</param>
/// <param name="IsOpenAbove">A way in is open.</param>
/// <param name="IsOpenBelow">It can run out.</param>
public sealed record Vessel(FluidSystem Fluid, decimal Top, IReadOnlyList<decimal> Marks, Quantity<Volume> Holds, Quantity<Volume> InPan,
    Quantity<Volume> OnFloor, decimal PanTop, bool IsOpenAbove, bool IsOpenBelow)
{
    /// <summary>The top and the bottom of the vessel.</summary>
    public const decimal Lid = 20;

    /// <inheritdoc cref="Lid" />
    public const decimal Bottom = 110;

    /// <summary>The bottom of the pan.</summary>
    public const decimal PanBottom = 176;

    // A fifth more than belongs in it is drawn before it runs over.
    private const decimal Room = 1.2m;

    /// <summary>Every fluid of a vehicle that can be let out, filled or read, in the order of its sheet.</summary>
    /// <param name="vehicle">The vehicle.</param>
    public static IReadOnlyList<Vessel> Of(Vehicle vehicle) => [.. vehicle.Sheet.Fluids.Values.Select(f => Of(vehicle, f))];

    private static Vessel Of(Vehicle vehicle, FluidSystem fluid)
    {
        var (stands, fasteners) = (vehicle.Fluids[fluid.Id], vehicle.Sheet.Fasteners.Values);
        decimal At(Quantity<Volume> inside) => Bottom - Math.Clamp(inside / (fluid.Amount.Value * Room), 0, 1) * (Bottom - Lid);
        IReadOnlyList<decimal> marks = [];
        if (fluid.BetweenMarks is { Value: var between })
        {
            // The top mark is where the surface would stand with what is missing to it.
            var top = stands.Inside + between * (1 - vehicle.LevelOf(fluid.Id));
            marks = [At(top), At(top - between)];
        }
        Quantity<Volume> Shown(Quantity<Volume> of) => Quantity<Volume>.Of(Math.Round(of.In(Volume.Litre), 2), Volume.Litre);
        return new(fluid, At(stands.Inside), marks, Shown(stands.Inside + stands.Filter), Shown(stands.Pan), Shown(stands.Floor),
            PanBottom - Math.Clamp(stands.Pan / (fluid.Amount.Value * Room), 0, 1) * 26,
            fluid.Through.Any(vehicle.IsOff) || fasteners.Any(f => f.Fills == fluid.Id && !vehicle.Joints[f.Id].IsIn),
            fasteners.Any(f => !vehicle.Joints[f.Id].IsIn && (f.Drains == fluid.Id || (f.System == fluid.Id && f.HoldsBack))));
    }
}
