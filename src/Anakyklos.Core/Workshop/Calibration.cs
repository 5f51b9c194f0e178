namespace Anakyklos.Core.Workshop;

/// <summary>A wrench or a meter was calibrated.</summary>
/// <param name="Device">What is painted on it.</param>
/// <param name="Day">The day on which it was.</param>
/// <param name="Off">By how much it gave more than it said before it was set right, in percent; below zero where it gave less.</param>
/// <param name="Until">The last day on which it may be used.</param>
/// <param name="By">Who wrote it down, a person's id.</param>
/// <param name="At">When it was written down.</param>
public sealed record Calibration(string Device, DateOnly Day, decimal Off, DateOnly Until, PersonId By, DateTimeOffset At);
