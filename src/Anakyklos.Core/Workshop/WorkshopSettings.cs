using System.Text.Json.Serialization;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Weeks;

namespace Anakyklos.Core.Workshop;

/// <summary>What the workshop has set for itself.</summary>
/// <param name="Name">The workshop's name.</param>
/// <param name="School">How high it fills; null for each sheet's own target.</param>
/// <param name="Wrenches">Its torque wrenches.</param>
/// <param name="Coldest">Lowest outdoor temperature of the place, in °C; null when oils are not to be checked for it.</param>
/// <param name="Hottest">Highest outdoor temperature, in °C.</param>
/// <param name="Stages">How much it tops up on one reading.</param>
/// <param name="Schools">How it works where the trade has several schools; null before anything was set.</param>
/// <param name="Dispensers">Its oil dispensers; null for none.</param>
/// <param name="ScanTools">What is painted on its scan tools; null for none.</param>
/// <param name="LabelPrinters">What is painted on its label printers; null for none.</param>
/// <param name="Open">When it is open, as <see cref="WeeklyTimes"/> are written; null for the usual.</param>
/// <param name="Ground">Bays that have no lift; null for none.</param>
/// <param name="LongPins">Whether a new PIN has six digits at least, in place of four.</param>
/// <param name="BeforeBrakes">The lesson that is asked for before somebody works on brakes alone; null for none.</param>
/// <param name="Inside">Names of the bays inside; null before they were set.</param>
/// <param name="OldWrenches">Torque wrenches out of use; null for none.</param>
/// <param name="OldDispensers">Oil dispensers out of use; null for none.</param>
/// <param name="Deliveries">When the supplier brings what is ordered; null before it was set.</param>
/// <param name="Units">The units that come first for whoever is new: metric or us; null for metric, before anybody chose.</param>
/// <param name="Skipped">What was skipped of the first hour; null for nothing.</param>
/// <param name="HourIsOver">The first hour is over: nothing of it is asked for any more.</param>
/// <param name="ReadByTwo">A card is opened only where every value that it uses was read in its source by two.</param>
public sealed record WorkshopSettings(string Name, TargetSchool? School, IReadOnlyList<WrenchEntry> Wrenches, int? Coldest = null,
    int? Hottest = null, PourStages Stages = PourStages.ByHalves, WorkSchools? Schools = null,
    IReadOnlyList<CribDispenser>? Dispensers = null, IReadOnlyList<string>? ScanTools = null,
    IReadOnlyList<string>? LabelPrinters = null, string? Open = null, IReadOnlyList<string>? Ground = null,
    bool? LongPins = null, AskedLesson? BeforeBrakes = null, IReadOnlyList<string>? Inside = null,
    IReadOnlyList<WrenchEntry>? OldWrenches = null, IReadOnlyList<CribDispenser>? OldDispensers = null,
    Deliveries? Deliveries = null, string? Units = null, IReadOnlyList<string>? Skipped = null, bool? HourIsOver = null,
    bool? ReadByTwo = null)
{
    /// <summary>Before anything was set.</summary>
    public static WorkshopSettings Unset { get; } = new("Workshop", null, []);

    /// <summary>How many digits a new PIN has at least.</summary>
    [JsonIgnore]
    public int PinDigits => LongPins == true ? 6 : 4;

    /// <summary>When vehicles are worked on.</summary>
    [JsonIgnore]
    public WeeklyTimes Opening => WeeklyTimes.Read(Open, out _) is { } open && Open is not null ? open : WeeklyTimes.Usual;

    /// <summary>The places where a vehicle stands.</summary>
    [JsonIgnore]
    public Bays Bays => new(Inside ?? Bays.Usual);

    /// <summary>Whether a bay has a lift.</summary>
    /// <param name="bay">Its name.</param>
    public bool HasLift(string bay) => Ground?.Contains(bay) != true;

    /// <summary>The dispenser of a name, or null.</summary>
    /// <param name="name">What is painted on it.</param>
    public CribDispenser? Dispenser(string name) => Dispensers?.FirstOrDefault(d => d.Name == name);

    /// <summary>Whether it has a scan tool of that name.</summary>
    /// <param name="name">What is painted on it.</param>
    public bool HasScanTool(string name) => ScanTools?.Contains(name) == true;

    /// <summary>Whether it has a label printer of that name.</summary>
    /// <param name="name">What is painted on it.</param>
    public bool HasLabelPrinter(string name) => LabelPrinters?.Contains(name) == true;

    /// <summary>The weather that oils must bear, or null when it is not set.</summary>
    [JsonIgnore]
    public Climate? Climate => Coldest is { } low && Hottest is { } high
        ? new(Temperature.Of(low, TemperatureScale.Celsius), Temperature.Of(high, TemperatureScale.Celsius)) : null;
}

/// <summary>A lesson of the practice bay that the lead asks for.</summary>
/// <param name="Lesson">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="By">The lead.</param>
/// <param name="Since">Since when.</param>
public sealed record AskedLesson(LessonId Lesson, string Name, string By, DateTimeOffset Since);

/// <summary>A torque wrench as it is stored; the unit of its lowest setting is its scale.</summary>
/// <param name="Name">What is painted on it.</param>
/// <param name="Low">Lowest setting.</param>
/// <param name="High">Highest setting.</param>
/// <param name="Step">Graduation.</param>
/// <param name="Accuracy">Of the reading, in percent either way.</param>
/// <param name="CalibrationDue">The last day on which it may be used; null when it is not calibrated.</param>
/// <param name="Lever">From the middle of its square to the middle of its grip; null where nobody measured it.</param>
public sealed record WrenchEntry(string Name, Typed<Torque> Low, Typed<Torque> High, Typed<Torque> Step, decimal Accuracy = 4,
    DateOnly? CalibrationDue = null, Quantity<Length>? Lever = null)
{
    /// <summary>As the crib knows it.</summary>
    [JsonIgnore]
    public CribWrench InCrib => new(Wrench, CalibrationDue);

    /// <summary>As a setting is chosen on it.</summary>
    [JsonIgnore]
    public TorqueWrench Wrench => new(Name, Low.Value, High.Value, Step.Value, Low.Unit, Accuracy, Lever);
}
