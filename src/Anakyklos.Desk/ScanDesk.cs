using Anakyklos.Core.Cards;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A report of a scan tool, and whose it is.</summary>
/// <param name="Report">What was read.</param>
/// <param name="Plate">The vehicle; null where nobody here knows its identity.</param>
public sealed record ReportOf(VehicleReport Report, string? Plate)
{
    /// <summary>By what it is named in a form: tool and id.</summary>
    public string Name => $"{Report.Device}/{Report.Id}";
}

/// <summary>What became of something that a tool showed.</summary>
/// <param name="Card">The card that took it; null for none.</param>
/// <param name="Noted">What was noted there; null for nothing.</param>
/// <param name="Again">It had been noted before.</param>
/// <param name="Not">Why it was noted nowhere; null where it was.</param>
public sealed record Heard(CardNumber? Card, Recorded? Noted, bool Again, Refusal? Not)
{
    internal static Heard Nowhere(Refusal why) => new(null, null, false, why);
}

/// <summary>What scan tools read out of vehicles, and what they show while an indicator is put out.</summary>
public sealed class ScanDesk(ReportStore reports, DeviceStore devices, VehicleStore vehicles, CardStore cards, WorkshopClock clock)
{
    /// <summary>A tool read a vehicle: it is kept for its intake. The same one again changes nothing.</summary>
    /// <param name="report">What was read.</param>
    /// <returns>Whose it is, and whether it had come before.</returns>
    public async Task<(ReportOf Kept, bool Again)> Keep(VehicleReport report)
    {
        var again = await reports.Keep(report, clock.Now) == 0;
        return (Of(reports.Find(report.Device, report.Id)!), again);
    }

    /// <summary>What was read lately of vehicles that have no open card, and may be taken over at intake; the newest first.</summary>
    public IReadOnlyList<ReportOf> Lately
    {
        get
        {
            var open = cards.Unsigned().Select(c => c.Plate).ToHashSet();
            return [.. reports.Newest(clock.Now - VehicleReport.Fresh).Where(r => r.IsFresh(clock.Now)).Select(Of)
                .Where(r => r.Plate is null || !open.Contains(r.Plate))];
        }
    }

    /// <summary>The report of a name, if it may still be taken over.</summary>
    /// <param name="name">As <see cref="ReportOf.Name"/> gives it.</param>
    /// <returns>The report, or null.</returns>
    public ReportOf? Find(string? name) => name?.Split('/') is [var device, var id] && Guid.TryParse(id, out var own)
        && reports.Find(device, own) is { } report && report.IsFresh(clock.Now) ? Of(report) : null;

    /// <summary>A tool shows something while an indicator is put out with it.</summary>
    /// <param name="tool">Which tool.</param>
    /// <param name="message">What it shows.</param>
    /// <returns>The card and what it noted, whether that had been noted before; or why it was noted nowhere.</returns>
    public async Task<Heard> Hear(DeviceEntry tool, ToolMessage message)
    {
        if (devices.Told(message) is var (told, seq))
            return new(told, NotedAt(told, seq), true, null);
        var here = cards.Unsigned().Where(c => c.Bay == tool.Bay).Select(c => new CardInBay(c.Id, cards.Find(c.Id)!)).ToList();
        var (lands, not) = message.Land(new(tool.Id, tool.Kind, tool.Bay, null), here, vehicles.WithIdentity(message.Identity)?.Plate,
            clock.Now);
        if (lands is null)
            return Heard.Nowhere(not!);
        var answer = await devices.Tell(message, lands, clock.Now);
        return answer?.Decision is Accepted ? new(lands.Card, NotedAt(lands.Card, devices.Told(message)!.Value.Seq), false, null)
            : Heard.Nowhere(answer?.Decision is Refused { Reasons: [var first, ..] } ? first with { Field = null }
                : new("The card did not take it.", "Say at the lift what it shows."));
    }

    private Recorded? NotedAt(CardNumber card, int seq) => cards.Find(card)?.History.FirstOrDefault(h => h.Seq == seq);

    private ReportOf Of(VehicleReport report) => new(report, vehicles.WithIdentity(report.Identity)?.Plate);
}
