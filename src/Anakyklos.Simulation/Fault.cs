using Anakyklos.Core.Quantities;

namespace Anakyklos.Simulation;

/// <summary>Something that is wrong with a vehicle and that no hand did.</summary>
public abstract record Fault : Happening;

/// <summary>A joint that was tightened weeps all the same: it counts as loose until it is tightened again.</summary>
/// <param name="What">The fastener.</param>
/// <param name="Place">Which of a group, by its number; 0 for all of them, or the only one.</param>
public sealed record JointWeeps(FastenerId What, int Place = 0) : Fault;

/// <summary>A fastener is seized: no hand here moves it. It is felt when somebody tries to undo it.</summary>
/// <param name="What">The fastener.</param>
public sealed record Seized(FastenerId What) : Fault;

/// <summary>A thread is stripped, or the captive nut behind it spins: it turns on and on and never gets tight.</summary>
/// <param name="What">The fastener.</param>
public sealed record Stripped(FastenerId What) : Fault;

/// <summary>The box holds a part that also fits: a filter of half the size. It is seen when it is held against the old one.</summary>
/// <param name="What">The part.</param>
public sealed record WrongInBox(PartId What) : Fault;

/// <summary>The old ring will stay on its face when the fastener is undone. It is seen when one looks there; under a new one it
/// leaks.</summary>
/// <param name="What">The fastener.</param>
public sealed record OldRingStays(FastenerId What) : Fault;

/// <summary>Slivers hang on the magnet of a plug. They are seen when it is out.</summary>
/// <param name="What">The plug.</param>
public sealed record Slivers(FastenerId What) : Fault;

/// <summary>A fluid is milky: water is in it. It is seen when it runs.</summary>
/// <param name="What">The fluid.</param>
public sealed record Milky(FluidId What) : Fault;

/// <summary>Fuel is in an oil: it is thin and smells. It is seen when it runs.</summary>
/// <param name="What">The fluid.</param>
public sealed record Thinned(FluidId What) : Fault;

/// <summary>The can that was brought holds another oil. It is seen when one reads what is on it.</summary>
/// <param name="What">The fluid it is for.</param>
public sealed record WrongInCan(FluidId What) : Fault;

/// <summary>Whoever dips a fluid reads it so much off, all the time.</summary>
/// <param name="What">The fluid.</param>
/// <param name="By">As a share of the way between the marks; above zero reads high.</param>
public sealed record MisreadStick(FluidId What, decimal By) : Fault;

/// <summary>The battery is weak: the engine turns slowly and does not catch.</summary>
public sealed record WeakBattery : Fault;

/// <summary>A belt lies beside one of its grooves. It is seen when it is on and one looks along it.</summary>
/// <param name="What">The belt.</param>
public sealed record BesideItsGroove(PartId What) : Fault;

/// <summary>A tyre loses its air slowly.</summary>
/// <param name="Wheel">Which wheel, as the vehicle names it.</param>
public sealed record SlowPuncture(string Wheel) : Fault;

/// <summary>The indicator stays lit the first time that it is put out.</summary>
/// <param name="What">The reset.</param>
public sealed record ResetFailsOnce(ResetId What) : Fault;

/// <summary>The wire of the oil pressure switch is trapped: the oil light burns while the key is on, whatever the pressure.</summary>
public sealed record TrappedWire : Fault;

/// <summary>A door is not shut; on a motorcycle, its side stand is up. The dash says so, where its ritual asks for it.</summary>
public sealed record DoorAjar : Fault;

/// <summary>A fluid stands lower than it should when the vehicle comes in.</summary>
/// <param name="What">The fluid.</param>
/// <param name="By">How much is missing.</param>
public sealed record Missing(FluidId What, Quantity<Volume> By) : Fault;

/// <summary>A wrench clicked at another torque than was read off it.</summary>
/// <param name="What">The fastener.</param>
/// <param name="At">What it was really tightened to.</param>
/// <param name="Place">Which of a group, by its number; 0 for the only one.</param>
public sealed record WasReallyTightenedTo(FastenerId What, Quantity<Torque> At, int Place = 0) : Fault;
