using Anakyklos.Core.Cards;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>Labels go to whatever label printer asks for them; it says itself what became of each.</summary>
public sealed class LabelDesk(LabelJobStore jobs, DeviceStore devices, WorkshopClock clock)
{
    /// <summary>Whether any label printer was taken in.</summary>
    public bool HasPrinter => devices.All().Any(d => d.Kind == DeviceKind.LabelPrinter);

    /// <summary>The printers that were heard lately.</summary>
    public bool IsAnyHeard => devices.All().Any(d => d.Kind == DeviceKind.LabelPrinter && d.SeenAt is { } seen
        && clock.Now - seen <= DeviceDesk.Lost * clock.Speed);

    /// <summary>Sends a label to be printed.</summary>
    /// <param name="card">Of which card.</param>
    /// <param name="by">Who sends it.</param>
    /// <param name="label">The label: as SVG, how wide and how long in mm.</param>
    /// <returns>Why it cannot be; null where it waits for a printer now.</returns>
    public async Task<Refusal?> Send(CardNumber card, Person by, (string Svg, double Width, double Length) label)
    {
        if (!by.WorksOnCards)
            return new("You can look at labels, not print them.", "Ask a technician or the lead.");
        if (!HasPrinter)
            return new("No label printer was taken in.", "Print the PDF, or have the lead take one in at the bay page.");
        await jobs.Send(new(Guid.CreateVersion7(), card, clock.Now, label.Width, label.Length, label.Svg, LabelState.Waiting, "", ""),
            by.Id);
        return null;
    }

    /// <summary>How the label of a card stands that was sent last; empty where none was, null where the workshop has no printer.</summary>
    /// <param name="card">The card.</param>
    public string? Says(CardNumber card) => !HasPrinter ? null : jobs.LastOf(card) switch
    {
        null => "",
        { State: LabelState.Waiting } => IsAnyHeard ? "Waits for the printer." : "Waits: no label printer is heard.",
        { State: LabelState.Sent, Printer: var at } => $"{at} prints it.",
        { State: LabelState.Printed, Printer: var at } => $"Printed on {at}.",
        { Printer: var at, Words: var why } => $"{at} could not: {why}. Send it again.",
    };
}
