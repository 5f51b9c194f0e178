using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;
using Anakyklos.Simulation;

namespace Anakyklos.Devices;

/// <summary>A pull at the wrench.</summary>
/// <param name="Read">The highest torque that the wrench read.</param>
/// <param name="Clicked">It reached its setting and clicked; only then is it a reading.</param>
/// <param name="Harms">What should not have happened to the joint.</param>
public sealed record Pull(Typed<Torque> Read, bool Clicked, IReadOnlyList<Harm> Harms);

/// <summary>
/// A stand-in for a torque wrench that clicks at its setting and sends the highest torque of each pull that clicked. Its calibration can be
/// spoilt.
/// </summary>
/// <param name="wrench">What it is: name, range, scale.</param>
public sealed class WrenchStandIn(TorqueWrench wrench) : SendingStandIn(wrench.Name)
{
    // How finely a pull is followed, in degrees.
    private const decimal Fine = 0.25m;

    // A hand needs a moment to stop: so many degrees the head of a clicking wrench swings free.
    private const decimal GivesWay = 12;

    /// <summary>What it is.</summary>
    public TorqueWrench Wrench => wrench;

    /// <summary>What it clicks at, on a mark of its scale and inside its range.</summary>
    public Quantity<Torque> Setting { get; private set; } = wrench.Low;

    /// <summary>What is across its head, so that the fastener gets more than it reads; null for nothing. Its lever is known then.</summary>
    public CrowFoot? With { get; set; }

    /// <summary>What it reads of each newton metre; 1 when it is in calibration.</summary>
    public decimal Shows { get; set; } = 1;

    /// <summary>Turns its setting to the nearest mark inside its range.</summary>
    /// <param name="to">Where to.</param>
    public void Set(Quantity<Torque> to)
    {
        var mark = (to + wrench.Step * 0.5m).DownTo(wrench.Step);
        Setting = mark < wrench.Low ? wrench.Low : mark > wrench.High ? wrench.High : mark;
    }

    /// <summary>Pulls at a fastener.</summary>
    /// <param name="behind">The vehicle that it hangs on.</param>
    /// <param name="on">The fastener.</param>
    /// <param name="degrees">How far; above zero.</param>
    /// <param name="now">When, by the workshop's clock.</param>
    /// <param name="place">Which of a group, by its number; 0 for the only one.</param>
    /// <returns>What it read and whether it clicked; what it read goes to its memory when it did.</returns>
    public Pull Pull(VehicleBehind behind, FastenerId on, decimal degrees, DateTimeOffset now, int place = 0)
    {
        if (degrees <= 0)
            throw new ArgumentException("A wrench is pulled, not pushed.", nameof(degrees));
        var drawn = Drawn(behind.Vehicle, on, degrees, place);
        // The highest on the way: where a thread gives way, what is left in the end is less.
        var top = Enumerable.Range(1, (int)(drawn / Fine)).Select(s => s * Fine).Append(drawn)
            .Max(d => behind.Vehicle.TorqueAfter(on, d, place));
        var answer = behind.Do(new Turns(on, drawn, place), now);
        if (answer.Harms.Any(h => h.Kind == HarmKind.OutOfReach))
            return new(new(Quantity<Torque>.Zero, wrench.Scale), false, answer.Harms);
        var read = Shown(top);
        var clicked = read.Value >= Setting;
        if (clicked)
            Keep(new MeasuredTorque(read), now);
        return new(read, clicked, answer.Harms);
    }

    /// <summary>What it shows after a pull of so many degrees, before it is pulled.</summary>
    /// <param name="vehicle">The vehicle.</param>
    /// <param name="on">The fastener.</param>
    /// <param name="degrees">How far the lever goes.</param>
    /// <param name="place">Which of a group, by its number; 0 for the only one.</param>
    public Typed<Torque> After(Vehicle vehicle, FastenerId on, decimal degrees, int place = 0) =>
        Shown(vehicle.TorqueAfter(on, Drawn(vehicle, on, degrees, place), place));

    /// <summary>After how many degrees it clicks.</summary>
    /// <param name="vehicle">The vehicle.</param>
    /// <param name="on">The fastener.</param>
    /// <param name="place">Which of a group, by its number; 0 for the only one.</param>
    /// <returns>In quarters of a degree, at most half a turn; null when it does not click in that.</returns>
    public decimal? ClicksAfter(Vehicle vehicle, FastenerId on, int place = 0) => Enumerable.Range(1, (int)(180 / Fine))
        .Select(s => (decimal?)(s * Fine)).FirstOrDefault(d => Shown(vehicle.TorqueAfter(on, d!.Value, place)).Value >= Setting);

    // At the click the head gives way a little before it draws the joint on.
    private decimal Drawn(Vehicle vehicle, FastenerId on, decimal degrees, int place) =>
        ClicksAfter(vehicle, on, place) is { } click && degrees > click ? click + Math.Max(0, degrees - click - GivesWay) : degrees;

    // It feels what is at its own square, and not what comes to the fastener behind a crow-foot.
    private Typed<Torque> Shown(Quantity<Torque> torque) =>
        new(Quantity<Torque>.Of(Math.Round((torque / (wrench.Gain(With) ?? 1) * Shows).In(wrench.Scale), 1), wrench.Scale), wrench.Scale);
}
