using Anakyklos.Core.Quantities;
using Anakyklos.Core.Stores;

namespace Anakyklos.Core.Readings;

/// <summary>What a device is.</summary>
public enum DeviceKind
{
    /// <summary>A torque wrench; it sends what it clicked at.</summary>
    TorqueWrench,

    /// <summary>An oil dispenser; it sends how much ran through its meter, and out of which container.</summary>
    Dispenser,

    /// <summary>A scan tool; it sends what it reads out of a vehicle, and what it shows while an indicator is put out.</summary>
    ScanTool,

    /// <summary>A label printer; it asks what there is to print, and says what became of it.</summary>
    LabelPrinter,
}

/// <summary>A device as the workshop knows it, whatever it says of itself.</summary>
/// <param name="Id">What is painted on it.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Bay">The bay where the workshop has it.</param>
/// <param name="Wrench">Range and calibration from the tool crib; null when the crib has no wrench of this name.</param>
/// <param name="Meter">Calibration of its meter; null when the workshop has no dispenser of this name.</param>
/// <param name="DrawsFrom">The container of the stores in which the workshop has it; null for none.</param>
public sealed record Device(DeviceId Id, DeviceKind Kind, string Bay, CribWrench? Wrench, CribDispenser? Meter = null,
    int? DrawsFrom = null)
{
    /// <summary>The kind of quantity that such a device can measure.</summary>
    /// <exception cref="InvalidOperationException">Nobody has said what it measures.</exception>
    public string Measures => Kind switch
    {
        DeviceKind.TorqueWrench => Torque.Name,
        DeviceKind.Dispenser => Volume.Name,
        DeviceKind.ScanTool or DeviceKind.LabelPrinter => "nothing by itself",
        _ => throw new InvalidOperationException($"Nobody has said what a {Kind} measures."),
    };
}

/// <summary>What a device sent.</summary>
/// <param name="Id">The device's own id of this reading: the same id twice is one reading.</param>
/// <param name="Device">Which device.</param>
/// <param name="Bay">The bay where it says it is.</param>
/// <param name="Read">What it measured.</param>
/// <param name="At">When it measured, put right by what its clock was off when it sent it.</param>
public sealed record DeviceReading(Guid Id, DeviceId Device, string Bay, MeasuredValue Read, DateTimeOffset At);
