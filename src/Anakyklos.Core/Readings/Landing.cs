using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Readings;

/// <summary>An open card that stands in a bay.</summary>
/// <param name="Number">Its number.</param>
/// <param name="Card">The card.</param>
public sealed record CardInBay(CardNumber Number, JobCard Card);

/// <summary>The reading of a device that was placed last.</summary>
/// <param name="Step">The step it went to.</param>
/// <param name="At">When it was measured.</param>
public sealed record LandedBefore(StepId Step, DateTimeOffset At);

/// <summary>Where a reading goes.</summary>
public abstract record Landing
{
    /// <summary>What is measured more than this after now was measured by a clock that was set on the way.</summary>
    public static readonly TimeSpan Ahead = TimeSpan.FromSeconds(60);

    /// <summary>A second click within this time of the one before is the same hand on the same joint: nobody walks to the next one so
    /// soon.</summary>
    public static readonly TimeSpan SameClick = TimeSpan.FromSeconds(5);

    /// <summary>A second click within this time at a group is taken for the same fastener: the wrench is not on the next one so
    /// soon.</summary>
    public static readonly TimeSpan SameFastener = TimeSpan.FromSeconds(2);

    /// <summary>Whoever pressed at a card not longer ago than this is taken for the one who works there.</summary>
    public static readonly TimeSpan AtTheCard = TimeSpan.FromHours(2);

    /// <summary>Says where a reading goes. It is placed only where nothing speaks against it; whatever is in doubt waits for a
    /// person.</summary>
    /// <param name="reading">What came.</param>
    /// <param name="device">The device as the workshop knows it.</param>
    /// <param name="bay">The open cards in the workshop's bay of the device.</param>
    /// <param name="before">What this device had placed last, or null.</param>
    /// <param name="now">When it came, in the workshop's time zone.</param>
    /// <returns>The step that takes it, or why it waits.</returns>
    public static Landing Of(DeviceReading reading, Device device, IReadOnlyList<CardInBay> bay, LandedBefore? before, DateTimeOffset now)
    {
        if (Doubt(reading, device, now) is { } doubt)
            return new WaitsInSight(doubt);
        if (bay.Count != 1)
            return Waits(bay.Count == 0 ? $"No card is open in {device.Bay}." : $"{bay.Count} cards are open in {device.Bay}.",
                "Say where it belongs, or discard it.");
        var (number, card) = bay[0];
        if (card.Next is not { } step)
            return Waits("Everything on the card is done.", "Discard it, or put a reading right at hand-over.");
        if (card.CommandFor(step, reading.Read, device.Id) is not { } command)
            return Waits($"The card is at “{card.TitleOf(step)}”, which takes no {reading.Read.Kind} from a device.",
                "Say where it belongs, or discard it.");
        if (card.InTheWay(step, now) is { Count: > 0 } ways)
            return new WaitsInSight(ways[0]);
        // It was kept while the line was dead, and somebody has gone on meanwhile: nobody knows but who was there.
        if (reading.At < card.History[^1].At)
            return Waits("The card has moved on since it was measured.", "Say where it belongs, or discard it.");
        if (device.Kind == DeviceKind.TorqueWrench && before is not null && before.Step != step.Id
            && (reading.At - before.At).Duration() < SameClick)
            return Waits("It came within five seconds of the one before, which was placed at another joint.",
                "Discard it if it clicked twice, or say where it belongs.");
        if (device.Kind == DeviceKind.TorqueWrench && before?.Step == step.Id && card.Sheet.Fasteners[step.What].Count > 1
            && (reading.At - before.At).Duration() < SameFastener)
            return Waits("It came within two seconds of the one before: perhaps it clicked twice on the same one.",
                "Discard it if it did, or say where it belongs.");
        var last = card.History[^1];
        if (!last.By.WorksOnCards || now - last.At > AtTheCard)
            return Waits($"Nobody has pressed at this card for {(int)(now - last.At).TotalMinutes} min.",
                "Say where it belongs: it is noted in your name.");
        return new LandsAt(number, step.Id, command, last.By);
    }

    /// <summary>The steps that could take a reading now, in plan order.</summary>
    /// <param name="card">An open card.</param>
    /// <param name="reading">What was measured.</param>
    /// <param name="device">By which device.</param>
    /// <param name="now">Now, in the workshop's time zone.</param>
    public static IEnumerable<(SheetStep Step, CardCommand Command)> Choices(JobCard card, MeasuredValue reading, DeviceId device,
        DateTimeOffset now) =>
        from step in card.Remaining
        let command = card.CommandFor(step, reading, device)
        where command is not null && card.InTheWay(step, now).Count == 0
        select (step, command);

    // What is in doubt of the reading itself, whatever the card is at.
    private static Refusal? Doubt(DeviceReading reading, Device device, DateTimeOffset now)
    {
        if (reading.Read.Kind != device.Measures)
            return new($"{device.Id} measures {device.Measures}, and {reading.Read} is a {reading.Read.Kind}.", "Discard it.",
                Ground: Ground.Tool);
        if (reading.Bay != device.Bay)
            return new($"{device.Id} says it is in {reading.Bay}; the workshop has it in {device.Bay}.",
                "Move it to where it is, then say where the reading belongs.", Ground: Ground.Tool);
        var today = DateOnly.FromDateTime(now.DateTime);
        if ((device.Kind == DeviceKind.Dispenser ? OfDispenser(reading, device, today) : OfWrench(reading, device, today)) is { } wrong)
            return wrong;
        return reading.At - now > Ahead ? new($"{device.Id} says it was measured later than now: its clock was set meanwhile.",
            "Say where it belongs, or discard it.", Ground: Ground.Tool) : null;
    }

    private static Refusal? OfWrench(DeviceReading reading, Device device, DateOnly today)
    {
        if (device.Wrench is not { } wrench)
            return new($"The tool crib has no {device.Id}.", "Have the lead add it with its range and calibration.", Ground: Ground.Tool);
        if (!wrench.IsCalibrated(today))
            return new($"The calibration of {device.Id} is past.", "Tighten with a wrench that is in calibration.", Ground: Ground.Tool);
        return reading.Read is MeasuredTorque { Torque.Value: var torque } && (torque < wrench.Wrench.Low || torque > wrench.Wrench.High)
            ? new($"{reading.Read} is outside what {device.Id} can read, {wrench.Wrench.Low} to {wrench.Wrench.High}.",
                "Tighten with a wrench that covers it.", Ground: Ground.Tool) : null;
    }

    private static Refusal? OfDispenser(DeviceReading reading, Device device, DateOnly today)
    {
        if (device.Meter is not { } meter)
            return new($"The workshop has no dispenser {device.Id}.", "Have the lead add it with the calibration of its meter.",
                Ground: Ground.Tool);
        if (!meter.IsCalibrated(today))
            return new($"The calibration of {device.Id} is past.", "Measure with something else, and have its meter checked.",
                Ground: Ground.Tool);
        if (reading.Read is not MeasuredVolume { From: { } from })
            return new($"{device.Id} does not say out of which container it came.", "Say at the lift how much went in, and discard this.",
                Ground: Ground.Tool);
        return device.DrawsFrom != from ? new($"{device.Id} says it draws from container {from}; the workshop has it in "
            + $"{(device.DrawsFrom is { } known ? $"container {known}" : "none")}.",
                "Look in which one it hangs and say so at the bay, then say where this belongs.") : null;
    }

    private static WaitsInSight Waits(string what, string then) => new(new Refusal(what, then));
}

/// <summary>The reading goes to a step by itself.</summary>
/// <param name="Card">The card.</param>
/// <param name="Step">The step.</param>
/// <param name="Command">What the card is told.</param>
/// <param name="By">Whose hands it was: who pressed last at the card.</param>
public sealed record LandsAt(CardNumber Card, StepId Step, CardCommand Command, Person By) : Landing;

/// <summary>The reading waits until a person places or discards it.</summary>
/// <param name="Why">Why, and what to do.</param>
public sealed record WaitsInSight(Refusal Why) : Landing;
