using Anakyklos.Core.Quantities;

namespace Anakyklos.Simulation;

/// <summary>Something that is wrong with a vehicle and that no hand did.</summary>
public abstract record Fault : Happening;

/// <summary>A joint that was tightened weeps all the same: it counts as loose until it is tightened again.</summary>
/// <param name="What">The fastener.</param>
public sealed record JointWeeps(FastenerId What) : Fault;

/// <summary>A fastener is seized: no hand here moves it. It is felt when somebody tries to undo it.</summary>
/// <param name="What">The fastener.</param>
public sealed record Seized(FastenerId What) : Fault;

/// <summary>A thread is stripped, or the captive nut behind it spins: it turns on and on and never gets tight.</summary>
/// <param name="What">The fastener.</param>
public sealed record Stripped(FastenerId What) : Fault;

/// <summary>A wrench clicked at another torque than was read off it.</summary>
/// <param name="What">The fastener.</param>
/// <param name="At">What it was really tightened to.</param>
public sealed record WasReallyTightenedTo(FastenerId What, Quantity<Torque> At) : Fault;
