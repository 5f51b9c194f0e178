using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Tightening;

/// <summary>A crow-foot or extension across the head of a wrench: it lengthens the lever, so that more comes to the fastener than the
/// wrench is set to.</summary>
/// <param name="Length">From the middle of the wrench's square to the middle of the fastener; above zero.</param>
/// <param name="Degrees">From the line of the handle: 0 straight on, 90 across, 180 back along it.</param>
public sealed record CrowFoot(Quantity<Length> Length, int Degrees)
{
    /// <summary>How often what the wrench says comes to the fastener: (lever + length × cos angle) / lever.</summary>
    /// <param name="lever">From the middle of the wrench's square to the middle of its grip.</param>
    /// <returns>1 at 90 degrees; above it below that.</returns>
    public decimal Gain(Quantity<Length> lever) => 1 + Length / lever * Cosine(Degrees);

    /// <summary>As it is said, such as "40 mm crow-foot, straight on".</summary>
    public override string ToString() => $"{Length.Print(Quantities.Length.Millimetre)} crow-foot, {Degrees switch
    {
        0 => "straight on",
        90 => "across",
        180 => "back along the handle",
        _ => $"at {Degrees}°",
    }}";

    // The three that are used most are exact.
    private static decimal Cosine(int degrees) => degrees switch
    {
        0 => 1,
        90 => 0,
        180 => -1,
        _ => Math.Round((decimal)Math.Cos(degrees * Math.PI / 180), 6),
    };
}

/// <summary>A torque wrench of the workshop.</summary>
/// <param name="Name">What is painted on it.</param>
/// <param name="Low">Lowest setting.</param>
/// <param name="High">Highest setting.</param>
/// <param name="Step">Graduation of its scale.</param>
/// <param name="Scale">The unit of its scale.</param>
/// <param name="Accuracy">Of its setting, in percent either way.</param>
/// <param name="Lever">From the middle of its square to the middle of its grip; null where nobody measured it.</param>
public sealed record TorqueWrench(string Name, Quantity<Torque> Low, Quantity<Torque> High, Quantity<Torque> Step, Unit<Torque> Scale,
    decimal Accuracy, Quantity<Length>? Lever = null)
{
    /// <summary>More than any wrench of a vehicle workshop gives, and than any joint there takes: 2000 N·m. What is above is a slip of
    /// number or unit.</summary>
    public static readonly Quantity<Torque> Strongest = Quantity<Torque>.Of(2000, Torque.NewtonMetre);

    /// <summary>Whether some graduation of it does, whatever it strays by.</summary>
    /// <param name="spec">The torque wanted.</param>
    /// <param name="with">What is across its head, or null.</param>
    public bool Covers(ToTorque spec, CrowFoot? with = null) => Setting(spec, with) is not null;

    /// <summary>What it is set to: of the graduations in its range at which the fastener gets what passes even where the wrench is off by
    /// all of its accuracy, the one nearest to the target; of two as near the lower.</summary>
    /// <param name="spec">The torque wanted at the fastener.</param>
    /// <param name="with">What is across its head, or null; a wrench whose lever nobody measured takes none.</param>
    /// <returns>A graduation of its scale, or null when none does.</returns>
    public Quantity<Torque>? Setting(ToTorque spec, CrowFoot? with = null)
    {
        if (Gain(with) is not { } gain || gain <= 0)
            return null;
        var off = Accuracy / 100;
        var (least, most) = (spec.Low / (gain * (1 - off)), spec.High / (gain * (1 + off)));
        var lowest = UpTo(least > Low ? least : Low);
        var highest = (most < High ? most : High).DownTo(Step);
        if (lowest > highest)
            return null;
        var (wanted, below) = (spec.Target / gain, (spec.Target / gain).DownTo(Step));
        var nearest = wanted - below > below + Step - wanted ? below + Step : below;
        return nearest < lowest ? lowest : nearest > highest ? highest : nearest;
    }

    private Quantity<Torque> UpTo(Quantity<Torque> torque) =>
        torque.DownTo(Step) is var below && below < torque ? below + Step : torque;

    /// <summary>How often what it says comes to the fastener; 1 with nothing across its head, null where that cannot be known.</summary>
    public decimal? Gain(CrowFoot? with) => with is null ? 1 : Lever is { } lever ? with.Gain(lever) : null;

    /// <summary>The wrench to take: of those that cover the torque, the one that can be set nearest to it; of equals the shortest range,
    /// which reads finest.</summary>
    /// <param name="crib">The workshop's wrenches.</param>
    /// <param name="spec">The torque wanted.</param>
    /// <param name="with">What is across its head, or null.</param>
    /// <returns>The wrench, or null when none covers it.</returns>
    public static TorqueWrench? For(IEnumerable<TorqueWrench> crib, ToTorque spec, CrowFoot? with = null) =>
        crib.Where(w => w.Covers(spec, with)).MinBy(w =>
            (Math.Abs((w.Setting(spec, with)!.Value * w.Gain(with)!.Value - spec.Target).In(Torque.NewtonMetre)),
            (w.High - w.Low).In(Torque.NewtonMetre)));
}
