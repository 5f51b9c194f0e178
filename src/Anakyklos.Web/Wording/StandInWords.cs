using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Simulation;

namespace Anakyklos.Web.Wording;

/// <summary>What can be wrong with a simulated vehicle and what hands do about it, in words.</summary>
public static class StandInWords
{
    /// <summary>A fault: what is wrong, and with what.</summary>
    /// <param name="fault">The fault.</param>
    /// <param name="sheet">The model it is on.</param>
    public static (string Wrong, string Thing) Of(Fault fault, ModelSheet sheet) => fault switch
    {
        Seized f => ("Seized", sheet.Fasteners[f.What].Name),
        Slivers f => ("Slivers on the magnet", sheet.Fasteners[f.What].Name),
        OldRingStays f => ("Old ring stays on its face", sheet.Fasteners[f.What].Name),
        WrongInBox f => ("Another size in the box", sheet.Parts[f.What].Name),
        WrongInCan f => ("Another oil in the can", sheet.Fluids[f.What].Name),
        Milky f => ("Water in it", sheet.Fluids[f.What].Name),
        Thinned f => ("Fuel in it", sheet.Fluids[f.What].Name),
        Missing f => ($"{f.By} short", sheet.Fluids[f.What].Name),
        MisreadStick { By: > 0 } f => ("Stick is read too high", sheet.Fluids[f.What].Name),
        MisreadStick f => ("Stick is read too low", sheet.Fluids[f.What].Name),
        BesideItsGroove f => ("Beside its groove", sheet.Parts[f.What].Name),
        ResetFailsOnce f => ("Stays lit the first time", sheet.Resets[f.What].Name),
        SlowPuncture f => ("Nail in it", $"Tyre {f.Wheel}"),
        WeakBattery => ("Weak", "Battery"),
        TrappedWire => ("Wire is trapped", "Oil pressure switch"),
        Stripped f => ("Thread is gone", sheet.Fasteners[f.What].Name),
        _ => throw new ArgumentException($"Nobody has said what {fault.GetType().Name} is called.", nameof(fault)),
    };

    /// <summary>What is worked at a dash.</summary>
    /// <param name="control">Which.</param>
    public static string Of(DashControl control) => control switch
    {
        DashControl.Key => "Key or power",
        DashControl.Button => "Trip button",
        DashControl.Brake => "Brake pedal",
        DashControl.Accelerator => "Accelerator",
        DashControl.Stalk => "End of the stalk",
        DashControl.Screen => "Screen",
        DashControl.Tool => "Scan tool ST-1",
        DashControl.Lead => "Service lead",
        DashControl.Plug => "Scan tool's plug",
        DashControl.Choice => "Choose the vehicle on the scan tool",
        _ => throw new ArgumentOutOfRangeException(nameof(control), control, "Nobody has said what that is called."),
    };

    /// <summary>What a hand would do to put something right.</summary>
    /// <param name="hand">The hand.</param>
    /// <param name="sheet">The model.</param>
    public static string Of(Hand hand, ModelSheet sheet) => hand switch
    {
        Frees h => $"Free the {Words.Low(sheet.Fasteners[h.What].Name)} with heat",
        MendsThread h => $"Cut the thread of the {Words.Low(sheet.Fasteners[h.What].Name)} anew",
        PicksOff h => $"Pick the old ring off at the {Words.Low(sheet.Fasteners[h.What].Name)}",
        FetchesRight h => $"Fetch the right {Words.Low(sheet.Parts[h.What].Name)}",
        FetchesRightCan h => $"Fetch the right can of {Words.Low(sheet.Fluids[h.What].Name)}",
        SeatsBelt h => $"Seat the {Words.Low(sheet.Parts[h.What].Name)} in its grooves",
        FreesWire => "Free the wire of the oil pressure switch",
        Charges => "Charge the battery",
        _ => throw new ArgumentException($"Nobody has said what {hand.GetType().Name} is called.", nameof(hand)),
    };
}
