using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Readings;

/// <summary>What a scan tool read out of a vehicle.</summary>
/// <param name="Id">The tool's own id of it: the same id twice is one report.</param>
/// <param name="Device">Which tool.</param>
/// <param name="Bay">The bay where it says it is.</param>
/// <param name="Identity">What the vehicle says that it is; never empty.</param>
/// <param name="At">When it was read, put right by what the tool's clock was off.</param>
/// <param name="Odometer">What the odometer shows.</param>
/// <param name="Code">The message code on the dash; empty for none.</param>
/// <param name="Left">Distance left by the dash's counter, below nought when it is over; null where it has none.</param>
/// <param name="OilLife">Oil life left, 0 to 100 percent; null where it has none.</param>
/// <param name="Hours">Running hours; null where they are not counted.</param>
public sealed record VehicleReport(Guid Id, DeviceId Device, string Bay, string Identity, DateTimeOffset At, Typed<Distance> Odometer,
    string Code, Typed<Distance>? Left, int? OilLife, int? Hours)
{
    /// <summary>How long what was read is taken for what the vehicle shows now: it has not gone far meanwhile.</summary>
    public static readonly TimeSpan Fresh = TimeSpan.FromHours(4);

    /// <summary>Whether it may still be taken over at intake.</summary>
    /// <param name="now">Now.</param>
    public bool IsFresh(DateTimeOffset now) => At <= now + Landing.Ahead && now - At <= Fresh;

    /// <summary>Why it is not noted of a vehicle: what was read of one is never noted of another.</summary>
    /// <param name="chosen">Plate of the vehicle that is chosen; empty for one that is new here.</param>
    /// <param name="calls">What that one is known to call itself; empty where nobody has read it.</param>
    /// <param name="of">Plate of the vehicle that is known by what was read; null for none.</param>
    /// <returns>The reason, at the plate; null when it may be noted.</returns>
    public Refusal? NotOf(string chosen, string calls, string? of) => of is { } plate && plate != chosen
        ? new($"{Device} read {plate}, and {(chosen.Length > 0 ? chosen : "another")} is chosen.",
            $"Choose {plate}, or type what this one shows.") { Field = "plate" }
        : of is null && calls.Length > 0
        ? new($"{Device} read a vehicle that calls itself {Identity}; {chosen} calls itself {calls}.",
            "Choose the one that it was plugged into, or type what this one shows.", Ground: Ground.Tool) { Field = "plate" } : null;
}
