using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Demo;

/// <summary>A service that a made-up vehicle had in the depot.</summary>
/// <param name="DaysAgo">When.</param>
/// <param name="Km">What the odometer showed.</param>
/// <param name="Jobs">The jobs of the card.</param>
public sealed record DemoVisit(int DaysAgo, int Km, params string[] Jobs)
{
    /// <summary>Where the engine oil stood before it was let out, between the marks; null where nobody looked.</summary>
    public decimal? Found { get; init; }

    /// <summary>Dipstick readings after the first pour, the last inside the target; null where it rose by what went in.</summary>
    public decimal[]? TopUps { get; init; }

    /// <summary>The reading on the drain plug of the engine, in N·m; null for its torque.</summary>
    public decimal? Plug { get; init; }

    /// <summary>What a borrowed wrench said at the wheel nuts, in N·m; null where one of the crib goes so far.</summary>
    public decimal? WheelNuts { get; init; }

    /// <summary>Why the old washer of the drain plug went back; empty where it was renewed.</summary>
    public string OldWasher { get; init; } = "";

    /// <summary>Whether oil went to the laboratory.</summary>
    public bool Sampled { get; init; }

    /// <summary>What was seen, and at which step.</summary>
    public (string Step, FindingGrade Grade, string Text)? Finding { get; init; }

    /// <summary>What became of the finding: whether it was declined, how many days ago, by whom, and in which words.</summary>
    public (bool Declined, int DaysAgo, string Who, string Words)? Became { get; init; }

    /// <summary>A job that was given up, and why.</summary>
    public (string Job, string Reason)? Dropped { get; init; }

    /// <summary>What was read at points that are measured, as it was typed; anything else was in good order.</summary>
    public Dictionary<(StepId Step, string Point), string> Read { get; init; } = [];

    /// <summary>Half hours after eight in the morning at which it came in.</summary>
    public int HalfHours { get; init; }

    /// <summary>The pads of the wheels in turn, inner and outer, and the front discs, in mm.</summary>
    /// <param name="pads">Front left, front right, rear left, rear right.</param>
    /// <param name="discs">Front left, front right.</param>
    public DemoVisit Worn(string[] pads, string[] discs)
    {
        string[] wheels = ["front-left", "front-right", "rear-left", "rear-right"];
        foreach (var (wheel, read) in wheels.Zip(pads))
            Read[("brake-pads", wheel)] = read;
        foreach (var (wheel, read) in wheels.Zip(discs))
            Read[("brake-discs", wheel)] = read;
        return this;
    }

    /// <summary>The tread of each tyre from its outer edge to its inner, in mm.</summary>
    /// <param name="tread">Tyre and readings.</param>
    public DemoVisit Tread(params (string Tyre, string Read)[] tread)
    {
        foreach (var (tyre, read) in tread)
            Read[("tread", tyre)] = read;
        return this;
    }
}
