using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Records;
using Anakyklos.Core.Tightening;
using Anakyklos.Web.Coaches.Inspecting;

namespace Anakyklos.Web.Coaches;

/// <summary>What a record says, in words: its page and its paper say the same.</summary>
public static class RecordWords
{
    /// <summary>What the wrench said, or why there is no number; in the reader's unit, with what was read beside it where that is
    /// another.</summary>
    /// <param name="line">The line.</param>
    /// <param name="unit">The reader's unit.</param>
    public static string Reading(TightenedLine line, Unit<Torque> unit) => line switch
    {
        { Each: { } each } => Each(each, unit),
        { Reading: { } reading, Wrench: { } clicked } => $"{clicked} clicked at {In(reading, unit)}"
            + (line.AtFastener is { } at ? $", {In(at, unit)} at the fastener" : ""),
        { Reading: { } reading } => In(reading, unit) + (line.AtFastener is { } at ? $", {In(at, unit)} at the fastener" : "")
            + (line.Outcome == TorqueOutcome.TooMuch ? ", too much" : "")
            + (line.Device is { } wrench ? $", {wrench}" : ""),
        { State: RecordState.NotYet } => "not yet",
        { State: RecordState.LeftOut } => "left out",
        { Book: null } => "done so",
        _ => "no reading",
    };

    private static string In(Typed<Torque> read, Unit<Torque> unit) =>
        read.Unit == unit ? $"{read}" : $"{read.Value.Print(unit)} (read as {read})";

    /// <summary>How far the vehicle had gone, in the reader's unit, with what the dash showed beside it where that is another.</summary>
    /// <param name="reading">The odometer, in the unit of the dash.</param>
    /// <param name="unit">The reader's unit.</param>
    public static string Odometer(Typed<Distance> reading, Unit<Distance> unit) => OdometerText.Of(reading.Value, unit)
        + (unit == reading.Unit ? "" : $" ({OdometerText.Of(reading.Value, reading.Unit)})");

    // Those that were said alike stand together; whatever was read stands by itself.
    private static string Each(IReadOnlyList<TightenedPlace> each, Unit<Torque> unit) => string.Join("; ", each
        .GroupBy(p => (p.Wrench, p.Device, p.Reading, p.Outcome)).Select(g =>
        {
            var numbers = g.Count() == each.Count ? $"all {each.Count}"
                : string.Join(" and ", g.Select(p => p.Named));
            var how = g.Key switch
            {
                { Wrench: { } wrench } => $"{wrench} clicked at {In(g.Key.Reading, unit)}"
                    + (g.Any(p => p.Together > 1) ? ", said together, in order" : ""),
                { Device: { } device } => $"{In(g.Key.Reading, unit)}, {device}",
                _ => In(g.Key.Reading, unit),
            };
            return $"{numbers}: {how}{(g.Key.Outcome == TorqueOutcome.TooMuch ? ", too much" : "")}";
        }));

    /// <summary>How a point was found and left, and what followed.</summary>
    public static string Found(InspectedLine line) => InspectScene.Says(line) + InspectScene.Outcome(line.Outcome);

    /// <summary>What the last card read there, and how far it goes by that; empty where no card did.</summary>
    public static string Wears(InspectedLine line, Unit<Distance> unit) => line.Before is not { } before ? ""
        : $"{before} last time{(line.Lasts is { } lasts ? $"; lasts about {OdometerText.Of(lasts, unit)}" : "")}";

    /// <summary>What a dispenser metered of it; empty where none did.</summary>
    public static string Metered(FilledLine line, Unit<Volume> unit) => line switch
    {
        { Meter: null } => "",
        { Metered: { } some } when some < line.In => $"; {line.Meter} metered {some.Print(unit)} of it",
        _ => $", metered by {line.Meter}",
    };

    /// <summary>Where a fluid stood at last; empty where it has no gauge and no hole to run over at.</summary>
    public static string Stands(FilledLine line) => line switch
    {
        { RanOver: true } => "ran over",
        { Depth: { } depth } => $"{depth} deep, {line.Level}",
        _ => $"{line.Level}",
    };

    /// <summary>What the book asks.</summary>
    /// <param name="line">The line.</param>
    /// <param name="unit">The reader's unit.</param>
    public static string Book(TightenedLine line, Unit<Torque> unit)
    {
        return line is { Asks: not InStages, Book: { } to }
            ? $"{to.Target.Print(unit)} ({to.Low.Print(unit).Number} to {to.High.Print(unit).Number})" : line.Asks.InWords;
    }

    /// <summary>Who strayed, and who put a second name to it.</summary>
    public static string Names(StrayedLine line) => line.By.Name + line switch
    {
        { SecondName: { } second } => $", countersigned by {second}",
        { NeedsSecondName: true } => ", not countersigned yet",
        _ => "",
    };

    /// <summary>What lies there for a part, and whether it is in its place.</summary>
    public static string Number(FittedLine line) =>
        line.OldAgain ? KitConfirmed.OldOneAgain : line.Number.Length > 0 ? line.Number : "not yet";
}
