namespace Anakyklos.Core.Tests;

/// <summary>The words of the kinds of step, written out once more by hand: they stand in sheets and on disk, and must not change.</summary>
internal static class StepKind
{
    internal const string Do = "do", Warm = "warm", Kit = "kit", Secure = "secure", Raise = "raise", Lower = "lower", Open = "open",
        Close = "close",
        Drain = "drain", Fit = "fit", Tighten = "tighten", Pour = "pour", Clear = "clear", Run = "run", Settle = "settle", Gauge = "gauge",
        Look = "look", Reset = "reset", Measure = "measure", Prime = "prime", Retighten = "retighten", Drive = "drive", Bleed = "bleed",
        Empty = "empty", Read = "read", Suck = "suck", Refill = "refill", Pedal = "pedal", Inspect = "inspect",
        Rotate = "rotate";

    internal static readonly string[] All = [Do, Warm, Kit, Secure, Raise, Lower, Open, Close, Drain, Fit, Tighten, Pour, Clear, Run,
        Settle, Gauge, Look,
        Reset, Measure, Prime, Retighten, Drive, Bleed, Empty, Read, Suck, Refill, Pedal, Inspect, Rotate];
}
