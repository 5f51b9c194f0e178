using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Tightening;

/// <summary>A torque wrench of the workshop.</summary>
/// <param name="Name">What is painted on it.</param>
/// <param name="Low">Lowest setting.</param>
/// <param name="High">Highest setting.</param>
/// <param name="Step">Graduation of its scale.</param>
/// <param name="Scale">The unit of its scale.</param>
public sealed record TorqueWrench(string Name, Quantity<Torque> Low, Quantity<Torque> High, Quantity<Torque> Step, Unit<Torque> Scale)
{
    /// <summary>Whether the setting nearest to the target lies in its range and inside what passes.</summary>
    /// <param name="spec">The torque wanted.</param>
    /// <returns>True when the nearest setting lies within the range of the wrench and the limits of the fastener.</returns>
    public bool Covers(ToTorque spec) => Setting(spec) is var set && set >= Low && set <= High && set >= spec.Low && set <= spec.High;

    /// <summary>The graduation nearest to the target; half a graduation goes up.</summary>
    /// <param name="spec">The torque wanted.</param>
    /// <returns>The target at the nearest mark of the scale; halfway goes up.</returns>
    public Quantity<Torque> Setting(ToTorque spec) => (spec.Target + Step * 0.5m).DownTo(Step);

    /// <summary>The wrench to take: of those that cover the torque, the one that can be set nearest to it; of equals the shortest range,
    /// which reads finest.</summary>
    /// <param name="crib">The workshop's wrenches.</param>
    /// <param name="spec">The torque wanted.</param>
    /// <returns>The wrench, or null when none covers it.</returns>
    public static TorqueWrench? For(IEnumerable<TorqueWrench> crib, ToTorque spec) =>
        crib.Where(w => w.Covers(spec)).MinBy(w =>
            (Math.Abs((w.Setting(spec) - spec.Target).In(Torque.NewtonMetre)), (w.High - w.Low).In(Torque.NewtonMetre)));
}
