using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Readings;

/// <summary>What a scan tool shows while an indicator is put out with it.</summary>
/// <param name="Id">The tool's own id of it: the same id twice is one message.</param>
/// <param name="Device">Which tool.</param>
/// <param name="Bay">The bay where it says it is.</param>
/// <param name="Identity">What the vehicle on its plug says that it is; empty while it finds none.</param>
/// <param name="Shows">What it shows.</param>
/// <param name="At">When, put right by what its clock was off.</param>
public sealed record ToolMessage(Guid Id, DeviceId Device, string Bay, string Identity, string Shows, DateTimeOffset At)
{
    /// <summary>Says where it goes. It is told to a card only where nothing speaks against it; else the tool is told why not, and whoever
    /// holds it says at the lift what it showed.</summary>
    /// <param name="device">The tool as the workshop knows it.</param>
    /// <param name="bay">The open cards in the workshop's bay of the tool.</param>
    /// <param name="plugged">The plate of the vehicle of that identity; null where nobody here knows it.</param>
    /// <param name="now">When it came, in the workshop's time zone.</param>
    /// <returns>The move that it answers, or why it answers none.</returns>
    public (LandsAt? At, Refusal? Not) Land(Device device, IReadOnlyList<CardInBay> bay, string? plugged, DateTimeOffset now)
    {
        if (device.Kind != DeviceKind.ScanTool)
            return Not($"{device.Id} is no scan tool.", "Send readings.");
        if (Bay != device.Bay)
            return Not($"{device.Id} says it is in {Bay}; the workshop has it in {device.Bay}.", "Move it to where it is.");
        if (bay.Count != 1)
            return Not(bay.Count == 0 ? $"No card is open in {device.Bay}." : $"{bay.Count} cards are open in {device.Bay}.",
                "Say at the lift what it shows.");
        var (number, card) = bay[0];
        if (Identity.Length > 0 && plugged is null)
            return Not($"No vehicle here is known as {Identity}.", $"Look whether it is on {card.Opened.Plate}; read it at intake.");
        if (Identity.Length > 0 && plugged != card.Opened.Plate)
            return Not($"It is plugged into {plugged}; the card in {device.Bay} is that of {card.Opened.Plate}.", "Take it off there.");
        if (card.Next is not { } step || card.Hears(step, Shows, device.Id) is not { } command)
            return Not(card.Next is { } at ? $"The card is at “{card.TitleOf(at)}”, which waits for no scan tool."
                : "Everything on the card is done.", "Press at the lift what was done.");
        if (card.InTheWay(step, now) is { Count: > 0 } ways)
            return (null, ways[0]);
        if (At < card.History[^1].At)
            return Not("The card has moved on since.", "Say at the lift what it shows.");
        if (At - now > Landing.Ahead)
            return Not($"{device.Id} says it was shown later than now: its clock was set meanwhile.", "Say at the lift what it shows.");
        var last = card.History[^1];
        return !last.By.WorksOnCards || now - last.At > Landing.AtTheCard
            ? Not($"Nobody has pressed at this card for {(int)(now - last.At).TotalMinutes} min.", "Press at the lift first.")
            : (new(number, step.Id, command, last.By), null);
    }

    private static (LandsAt?, Refusal?) Not(string what, string then) => (null, new(what, then));
}
