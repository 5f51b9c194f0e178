using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;
using Anakyklos.Devices;

namespace Anakyklos.Simulation.Tests;

/// <summary>What the stand-in of the wrench reads at a joint of the simulated vehicle.</summary>
public sealed class WrenchStandInTests
{
    private static Quantity<Torque> Nm(decimal nm) => Quantity<Torque>.Of(nm, Torque.NewtonMetre);

    private static Quantity<Length> Mm(int mm) => Quantity<Length>.Of(mm, Length.Millimetre);

    // HD-08's drain plug is at 38 N·m after a sixth of a turn. By hand: 40 mm before a lever of 210 mm make 250 / 210 of what the wrench
    // feels, so that it reads 38 * 210 / 250 = 31.92 there.
    [Fact]
    public void Behind_a_crow_foot_it_reads_less_than_comes_to_the_fastener()
    {
        var vehicle = Vehicle.AsItComes(BothWalk.Sheets["tarn-courier-20d"], default);
        foreach (var hand in new Hand[] { new Sets("wheel-chocks"), new SetsArms(), new Raises(), new TakesOff("undertray"),
            new SlidesPanUnder(), new Undoes("engine-drain-plug"), new Fits("drain-washer"), new RunsIn("engine-drain-plug") })
            vehicle = vehicle.Answer(hand, default).Vehicle;
        var wrench = new WrenchStandIn(new("TW-2", Nm(5), Nm(60), Nm(1), Torque.NewtonMetre, 4, Mm(210)));
        wrench.Set(Nm(38));
        Assert.Equal(60m, wrench.ClicksAfter(vehicle, "engine-drain-plug"));
        Assert.Equal(Nm(38), wrench.After(vehicle, "engine-drain-plug", 60).Value);
        wrench.With = new CrowFoot(Mm(40), 0);
        Assert.Equal(Nm(31.9m), wrench.After(vehicle, "engine-drain-plug", 60).Value);
        wrench.Set(Nm(32));
        Assert.Equal(60.25m, wrench.ClicksAfter(vehicle, "engine-drain-plug"));
        // Across, the lever is as long as without it.
        wrench.With = new CrowFoot(Mm(40), 90);
        wrench.Set(Nm(38));
        Assert.Equal(Nm(38), wrench.After(vehicle, "engine-drain-plug", 60).Value);
    }
}
