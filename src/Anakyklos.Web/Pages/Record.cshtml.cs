using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Records;
using Anakyklos.Core.Tightening;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Coaches.Inspecting;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Anakyklos.Web.Pages;

/// <summary>The record of a card, to be read and printed.</summary>
public sealed class RecordModel(CardStore cards, SettingStore settings, WorkshopClock clock, Viewer viewer) : CardPage(cards, clock, viewer)
{
    public string WorkshopName { get; private set; } = "";

    /// <summary>What it shows.</summary>
    public ServiceRecord Record { get; private set; } = null!;

    public IActionResult OnGet(long id)
    {
        WorkshopName = settings.Read().Name;
        if (Load(id) is { } missing)
            return missing;
        Record = ServiceRecord.Of(Card);
        return Page();
    }

    /// <summary>What the wrench said, or why there is no number.</summary>
    public static string Reading(TightenedLine line) => line switch
    {
        { Each: { } each } => Each(each),
        { Reading: { } reading, Wrench: { } clicked } => $"{clicked} clicked at {reading}"
            + (line.AtFastener is { } at ? $", {at} at the fastener" : ""),
        { Reading: { } reading } => $"{reading}{(line.AtFastener is { } at ? $", {at} at the fastener" : "")}"
            + (line.Outcome == TorqueOutcome.TooMuch ? ", too much" : "")
            + (line.Device is { } wrench ? $", {wrench}" : ""),
        { State: RecordState.NotYet } => "not yet",
        { State: RecordState.LeftOut } => "left out",
        { Book: null } => "done so",
        _ => "no reading",
    };

    // Those that were said alike stand together; whatever was read stands by itself.
    private static string Each(IReadOnlyList<TightenedPlace> each) => string.Join("; ", each
        .GroupBy(p => (p.Wrench, p.Device, p.Reading, p.Outcome)).Select(g =>
        {
            var numbers = g.Count() == each.Count ? $"all {each.Count}"
                : string.Join(" and ", g.Select(p => p.Named));
            var how = g.Key switch
            {
                { Wrench: { } wrench } => $"{wrench} clicked at {g.Key.Reading}"
                    + (g.Any(p => p.Together > 1) ? ", said together, in order" : ""),
                { Device: { } device } => $"{g.Key.Reading}, {device}",
                _ => $"{g.Key.Reading}",
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
    public string Book(TightenedLine line)
    {
        var unit = Viewer.TorqueUnits[0];
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
