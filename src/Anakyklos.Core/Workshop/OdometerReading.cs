using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Workshop;

/// <summary>An odometer reading.</summary>
/// <param name="At">When.</param>
/// <param name="Reading">What it said.</param>
/// <param name="Reason">Why it is lower than the one before; empty otherwise.</param>
/// <param name="Hours">Running hours, or null.</param>
public sealed record OdometerReading(DateTimeOffset At, Quantity<Distance> Reading, string Reason, int? Hours = null);
