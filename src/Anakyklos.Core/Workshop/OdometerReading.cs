using Anakyklos.Core.Ids;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Workshop;

/// <summary>An odometer reading.</summary>
/// <param name="At">When.</param>
/// <param name="Reading">What it said, as it was put right last.</param>
/// <param name="Reason">Why it is lower than the one before; empty otherwise.</param>
/// <param name="Hours">Running hours, or null.</param>
/// <param name="LookedTwice">It was asked about, and somebody looked again: the dash showed just that.</param>
/// <param name="Card">The card that was opened with it, or null.</param>
public sealed record OdometerReading(DateTimeOffset At, Quantity<Distance> Reading, string Reason, int? Hours = null,
    bool LookedTwice = false, CardNumber? Card = null);
