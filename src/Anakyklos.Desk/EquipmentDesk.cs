using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Records;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A torque wrench as it was typed.</summary>
/// <param name="Name">What is painted on it.</param>
/// <param name="Low">Lowest setting, with its unit.</param>
/// <param name="High">Highest setting, with its unit.</param>
/// <param name="Step">One graduation, with its unit.</param>
/// <param name="Accuracy">Percent of the reading; empty for 4.</param>
/// <param name="Calibrated">The last day of its calibration.</param>
/// <param name="Lever">From square to grip, with its unit; empty where nobody measured it.</param>
public sealed record TypedWrench(string Name, string Low, string High, string Step, string Accuracy, string Calibrated, string Lever = "");

/// <summary>A calibration as it was typed.</summary>
/// <param name="Day">When it was.</param>
/// <param name="Off">How far off it was found, in percent; above zero where it gave more than it said.</param>
/// <param name="Until">The last day on which it may be used.</param>
public sealed record TypedCalibration(string Day, string Off, string Until);

/// <summary>A card on which a wrench tightened that was found to be off later.</summary>
/// <param name="Card">Its number.</param>
/// <param name="Plate">The vehicle.</param>
/// <param name="Lines">What does not pass, if it was off by as much then.</param>
public sealed record SuspectCard(CardNumber Card, string Plate, IReadOnlyList<SuspectLine> Lines);

/// <summary>What a calibration that found a wrench off means for what it tightened since the calibration before.</summary>
/// <param name="Calibration">The calibration.</param>
/// <param name="Cards">Cards with something that does not pass.</param>
/// <param name="Pass">How many fasteners pass all the same.</param>
public sealed record FoundOffStory(Calibration Calibration, IReadOnlyList<SuspectCard> Cards, int Pass);

/// <summary>
/// Bays, wrenches, dispensers, scan tools and printers of the workshop: added, put right, calibrated, taken out of use and back. Whatever
/// cannot be taken as typed is told by its field, and nothing is kept of it.
/// </summary>
public sealed class EquipmentDesk(SettingStore settings, BayStore bays, CalibrationStore calibrations, CardStore cards,
    WorkshopClock clock)
{
    private const decimal UsualAccuracy = 4;
    private const decimal UsualMeter = 0.5m;

    /// <summary>Changes the bays: all of it or nothing.</summary>
    /// <param name="changed">Each bay of now with its new name, empty to give it up; and new ones.</param>
    /// <returns>What is wrong, by the field <c>bays</c>.</returns>
    public async Task<IReadOnlyList<Refusal>> SetBays(IReadOnlyList<ChangedBay> changed)
    {
        if (!changed.Select(b => b.Was).Where(w => w.Length > 0).Order().SequenceEqual(settings.Read().Bays.Inside.Order()))
            return [new("Somebody changed the bays meanwhile.", "Look at them once more.", Field: "bays")];
        if (Bays.Check([.. changed.Where(b => b.Name.Length > 0).Select(b => b.Name)], "bays") is { } odd)
            return [odd];
        var there = await bays.Change(changed);
        return there.Count == 0 ? [] : [new($"{there[0].Bay} is not empty: {string.Join(", ", there.Where(t => t.Bay == there[0].Bay)
            .Select(t => t.What))}.", "Take it to another bay first, or give this one another name.", Field: "bays")];
    }

    /// <summary>Adds a torque wrench to the crib, or puts right what is known of one.</summary>
    /// <param name="typed">As typed.</param>
    /// <param name="known">Whether it is there already; its name stays, since readings are known by it.</param>
    /// <returns>What is wrong, by the names of <see cref="TypedWrench"/> in small letters.</returns>
    public async Task<IReadOnlyList<Refusal>> PutWrench(TypedWrench typed, bool known)
    {
        var wrong = Named(typed.Name, known && settings.Read().Wrenches.Any(w => w.Name == typed.Name));
        var low = ReadSetting(typed.Low, "low", wrong);
        var high = ReadSetting(typed.High, "high", wrong);
        var step = ReadSetting(typed.Step, "step", wrong);
        if (low is { } l && high is { } h && step is { } s && (l.Value >= h.Value || s.Value > h.Value - l.Value))
            wrong.Add(new("The highest must lie above the lowest by at least one graduation.", Field: "high"));
        var (accuracy, due) = ReadCalibration(typed.Accuracy, UsualAccuracy, typed.Calibrated, wrong);
        var lever = ReadLever(typed.Lever, wrong);
        if (wrong.Count > 0)
            return wrong;
        var wrench = new WrenchEntry(typed.Name, low!.Value, high!.Value, step!.Value, accuracy, due, lever);
        return await Put(typed.Name, known, now => now.Wrenches.Any(w => w.Name == typed.Name), now => now with
        {
            Wrenches = known ? [.. now.Wrenches.Select(w => w.Name == typed.Name ? wrench : w)] : [.. now.Wrenches, wrench],
        });
    }

    /// <summary>Adds an oil dispenser, or puts right what is known of one.</summary>
    /// <param name="name">What is painted on it.</param>
    /// <param name="accuracy">Of its meter, in percent either way; empty for the usual half.</param>
    /// <param name="calibrated">The last day of its calibration.</param>
    /// <param name="known">Whether it is there already.</param>
    /// <returns>What is wrong, by the names name, accuracy and calibrated.</returns>
    public async Task<IReadOnlyList<Refusal>> PutDispenser(string name, string accuracy, string calibrated, bool known)
    {
        var wrong = Named(name, known && settings.Read().Dispenser(name) is not null);
        var (within, due) = ReadCalibration(accuracy, UsualMeter, calibrated, wrong);
        if (wrong.Count > 0)
            return wrong;
        var dispenser = new CribDispenser(name, within, due);
        return await Put(name, known, now => now.Dispenser(name) is not null, now => now with
        {
            Dispensers = known ? [.. now.Dispensers!.Select(d => d.Name == name ? dispenser : d)] : [.. now.Dispensers ?? [], dispenser],
        });
    }

    /// <summary>Adds a scan tool.</summary>
    /// <param name="name">What is painted on it.</param>
    /// <returns>What is wrong, by the name name.</returns>
    public Task<IReadOnlyList<Refusal>> AddScanTool(string name) =>
        Add(name, now => now with { ScanTools = [.. now.ScanTools ?? [], name] });

    /// <summary>Adds a label printer.</summary>
    /// <param name="name">What is painted on it.</param>
    /// <returns>What is wrong, by the name name.</returns>
    public Task<IReadOnlyList<Refusal>> AddLabelPrinter(string name) =>
        Add(name, now => now with { LabelPrinters = [.. now.LabelPrinters ?? [], name] });

    /// <summary>Takes a wrench, a dispenser, a scan tool or a printer out of use; what it measured stays under its name.</summary>
    /// <param name="name">What is painted on it.</param>
    /// <returns>Why not; null when it is out of use.</returns>
    public async Task<Refusal?> TakeOut(string name) => await settings.Change(now =>
        now.Wrenches.FirstOrDefault(w => w.Name == name) is { } wrench
            ? now with { Wrenches = [.. now.Wrenches.Where(w => w != wrench)], OldWrenches = [.. now.OldWrenches ?? [], wrench] }
        : now.Dispenser(name) is { } dispenser
            ? now with
            {
                Dispensers = [.. now.Dispensers!.Where(d => d != dispenser)], OldDispensers = [.. now.OldDispensers ?? [], dispenser],
            }
        : now.HasScanTool(name) ? now with { ScanTools = [.. now.ScanTools!.Where(t => t != name)] }
        : now.HasLabelPrinter(name) ? now with { LabelPrinters = [.. now.LabelPrinters!.Where(p => p != name)] }
        : null) ? null : Unknown(name);

    /// <summary>Takes a wrench or a dispenser back into use, with the calibration that it had.</summary>
    /// <param name="name">What is painted on it.</param>
    /// <returns>Why not; null when it is back.</returns>
    public async Task<Refusal?> TakeBack(string name) => await settings.Change(now =>
        now.OldWrenches?.FirstOrDefault(w => w.Name == name) is { } wrench
            ? now with { OldWrenches = [.. now.OldWrenches.Where(w => w != wrench)], Wrenches = [.. now.Wrenches, wrench] }
        : now.OldDispensers?.FirstOrDefault(d => d.Name == name) is { } dispenser
            ? now with
            {
                OldDispensers = [.. now.OldDispensers.Where(d => d != dispenser)], Dispensers = [.. now.Dispensers ?? [], dispenser],
            }
        : null) ? null : Unknown(name);

    /// <summary>Writes down that a wrench or a dispenser was calibrated.</summary>
    /// <param name="name">What is painted on it.</param>
    /// <param name="typed">As typed.</param>
    /// <param name="by">Who writes it down.</param>
    /// <returns>What is wrong, by the names day, off and until.</returns>
    public async Task<IReadOnlyList<Refusal>> Recalibrate(string name, TypedCalibration typed, PersonId by)
    {
        var wrong = new List<Refusal>();
        var (day, odd) = StockFiles.Day(typed.Day, clock.Today);
        if (day is null)
            wrong.Add(typed.Day.Length > 0 ? new(odd, Field: "day") : new("The day of the calibration is missing.", Field: "day"));
        else if (day > clock.Today)
            wrong.Add(new("That day is still to come.", "Type the day on which it was calibrated.", Field: "day"));
        if (!decimal.TryParse(typed.Off.TrimEnd(' ', '%'), NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture, out var off) || Math.Abs(off) > FoundOff.Furthest)
            wrong.Add(new("How far off it was found is missing.", "Type it in percent, such as 2.5, or -3 where it gave too little; 0 "
                + "where it was right.", Field: "off"));
        var (until, not) = StockFiles.Day(typed.Until, clock.Today);
        if (until is null || day > until)
            wrong.Add(new(until is not null ? "It ends before it begins." : typed.Until.Length > 0 ? not
                : "The last day of the calibration is missing.", Field: "until"));
        if (wrong.Count > 0)
            return wrong;
        var kept = await calibrations.Keep(new(name, day!.Value, off, until!.Value, by, clock.Now), now =>
            now.Wrenches.Any(w => w.Name == name)
                ? now with { Wrenches = [.. now.Wrenches.Select(w => w.Name == name ? w with { CalibrationDue = until } : w)] }
            : now.Dispenser(name) is not null
                ? now with { Dispensers = [.. now.Dispensers!.Select(d => d.Name == name ? d with { CalibrationDue = until } : d)] }
            : null);
        return kept ? [] : [Unknown(name) with { Field = "day" }];
    }

    /// <summary>The calibrations of each wrench and dispenser, the newest first.</summary>
    public ILookup<string, Calibration> Calibrations() => calibrations.All();

    /// <summary>What the last calibration of a wrench means for what it tightened since the one before.</summary>
    /// <param name="wrench">The wrench.</param>
    /// <param name="its">Its calibrations, the newest first.</param>
    /// <returns>Null where it was found within its accuracy, or was never calibrated here.</returns>
    public FoundOffStory? Story(WrenchEntry wrench, IEnumerable<Calibration> its)
    {
        if (its.Take(2).ToList() is not [var last, ..] two || Math.Abs(last.Off) <= wrench.Accuracy)
            return null;
        var since = two.Count > 1 ? clock.At(two[1].Day, default) : (DateTimeOffset?)null;
        var until = clock.At(last.Day.AddDays(1), default);
        var found = calibrations.CardsWith(wrench.Name, since, until).Select(id => (Id: id, Card: cards.Find(id)!))
            .Select(c => (c.Id, c.Card, Lines: FoundOff.Of(c.Card, wrench.Name, last.Off))).ToList();
        return new(last, [.. found.Select(c => new SuspectCard(c.Id, c.Card.Opened.Plate,
                [.. c.Lines.Where(l => l.Outcome != TorqueOutcome.Passes)])).Where(c => c.Lines.Count > 0)],
            found.Sum(c => c.Lines.Where(l => l.Outcome == TorqueOutcome.Passes).Sum(l => l.Count)));
    }

    // It is needed only where something goes across the head of the wrench.
    private static Quantity<Length>? ReadLever(string typed, List<Refusal> wrong)
    {
        if (typed.Length == 0)
            return null;
        if (Quantity<Length>.Read(typed, out var problem) is not { } lever)
            wrong.Add(new(problem, Field: "lever"));
        else if (lever.Value < Quantity<Length>.Of(50, Length.Millimetre) || lever.Value > Quantity<Length>.Of(2000, Length.Millimetre))
            wrong.Add(new("Type how far it is from its square to the middle of its grip, such as 260 mm.", Field: "lever"));
        else
            return lever.Value;
        return null;
    }

    // A reading is known by what is painted on its device: no two have the same, also of those out of use.
    private List<Refusal> Named(string name, bool isKnown) =>
        name.Length is 0 or > 40 || (!isKnown && IsTaken(name, settings.Read())) ? [Taken] : [];

    private static Refusal Taken => new("Give it a name that no other wrench, dispenser, scan tool or printer has.", Field: "name");

    private static Refusal Unknown(string name) => new($"There is no {(name.Length > 40 ? name[..40] + "…" : name)} here any more.",
        "Load the page again.");

    private static bool IsTaken(string name, WorkshopSettings now) => now.Wrenches.Concat(now.OldWrenches ?? []).Any(w => w.Name == name)
        || (now.Dispensers ?? []).Concat(now.OldDispensers ?? []).Any(d => d.Name == name) || now.HasScanTool(name)
        || now.HasLabelPrinter(name);

    private async Task<IReadOnlyList<Refusal>> Add(string name, Func<WorkshopSettings, WorkshopSettings> add) =>
        Named(name, false) is { Count: > 0 } wrong ? wrong : await Put(name, false, _ => false, add);

    // Somebody may have given the name to another since it was looked at, or taken the thing out of use.
    private async Task<IReadOnlyList<Refusal>> Put(string name, bool known, Func<WorkshopSettings, bool> isThere,
        Func<WorkshopSettings, WorkshopSettings> change) =>
        await settings.Change(now => known ? isThere(now) ? change(now) : null : IsTaken(name, now) ? null : change(now)) ? [] : [Taken];

    private (decimal Accuracy, DateOnly? Due) ReadCalibration(string typedAccuracy, decimal usual, string calibrated, List<Refusal> wrong)
    {
        var accuracy = usual;
        if (typedAccuracy.Length > 0 && (!decimal.TryParse(typedAccuracy.TrimEnd(' ', '%'), NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture, out accuracy) || accuracy is <= 0 or > 20))
            wrong.Add(new("Type it in percent of the reading, such as 4.", Field: "accuracy"));
        var (due, problem) = StockFiles.Day(calibrated, clock.Today);
        if (due is null)
            wrong.Add(calibrated.Length > 0 ? new(problem, Field: "calibrated")
                : new("The last day of its calibration is missing.", "What is not calibrated is taken for nothing.",
                    Field: "calibrated"));
        return (accuracy, due);
    }

    private static Typed<Torque>? ReadSetting(string text, string field, List<Refusal> wrong)
    {
        var read = Quantity<Torque>.Read(text, out var problem);
        if (read is { } torque && torque.Value > Quantity<Torque>.Zero && torque.Value <= TorqueWrench.Strongest)
            return torque;
        wrong.Add(new(read is not { } typed ? problem
            : typed.Value > TorqueWrench.Strongest ? $"{typed} is more than any wrench here gives." : "It must be above zero.",
            Field: field));
        return null;
    }
}
