namespace Anakyklos.Core.Sheets;

/// <summary>What a sheet says of one step for its kind of work alone: each kind reads its own, and nobody else looks into it.</summary>
public abstract record WorkSpec;
