using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Simulation;

/// <summary>Something that happens to a vehicle: a hand does it, or it is a fault.</summary>
public abstract record Happening;

/// <summary>Something that a hand does to the vehicle. It says what was done, not what was meant.</summary>
public abstract record Hand : Happening
{
    /// <summary>Whose hand; empty where it does not matter, and then it reaches everywhere that is open.</summary>
    public string By { get; init; } = "";
}

/// <summary>Goes to another place at the vehicle. Nobody reaches what is elsewhere.</summary>
/// <param name="To">Where to.</param>
public sealed record Goes(Place To) : Hand;

/// <summary>Takes an access off: a cover, a cap, a lead.</summary>
/// <param name="What">The access.</param>
/// <param name="Count">Screws or clips that came out; null for all of them.</param>
public sealed record TakesOff(AccessId What, int? Count = null) : Hand;

/// <summary>Puts an access back.</summary>
/// <param name="What">The access.</param>
/// <param name="Count">Screws or clips that went in; null for all of them.</param>
public sealed record PutsOn(AccessId What, int? Count = null) : Hand;

/// <summary>Sets what holds the vehicle: chocks, stands, straps.</summary>
/// <param name="What">The access.</param>
public sealed record Sets(AccessId What) : Hand;

/// <summary>Takes away what holds the vehicle.</summary>
/// <param name="What">The access.</param>
public sealed record TakesAway(AccessId What) : Hand;

/// <summary>Undoes a fastener until it is out.</summary>
/// <param name="What">The fastener.</param>
public sealed record Undoes(FastenerId What) : Hand;

/// <summary>Slackens a fastener and leaves it in its thread.</summary>
/// <param name="What">The fastener.</param>
/// <param name="Place">Which of a group, by its number; 0 for all of them, or the only one.</param>
public sealed record Loosens(FastenerId What, int Place = 0) : Hand;

/// <summary>Puts a part in the place it belongs to, the one before it having come out.</summary>
/// <param name="What">The part.</param>
/// <param name="Old">The one that was in goes back.</param>
public sealed record Fits(PartId What, bool Old = false) : Hand;

/// <summary>Screws a fastener in and tightens it as the sheet says, or to a torque.</summary>
/// <param name="What">The fastener.</param>
/// <param name="To">What the wrench clicked at; null for the sheet's own way.</param>
/// <param name="Place">Which of a group, by its number; 0 for all of them, or the only one.</param>
public sealed record Tightens(FastenerId What, Quantity<Torque>? To = null, int Place = 0) : Hand;

/// <summary>Starts a fastener in its thread and runs it in with the fingers until it touches.</summary>
/// <param name="What">The fastener.</param>
public sealed record RunsIn(FastenerId What) : Hand;

/// <summary>Turns a fastener that is in its thread further with a wrench.</summary>
/// <param name="What">The fastener.</param>
/// <param name="Degrees">How far, above zero.</param>
/// <param name="Place">Which of a group, by its number; 0 for the only one.</param>
public sealed record Turns(FastenerId What, decimal Degrees, int Place = 0) : Hand;

/// <summary>Makes a thread good that gave way: it is cut again, or the fastener is a new one.</summary>
/// <param name="What">The fastener.</param>
public sealed record MendsThread(FastenerId What) : Hand;

/// <summary>Brings a can, with what is in it, or carries one that is there to another place.</summary>
/// <param name="Can">What the can is called.</param>
/// <param name="Of">The fluid in it.</param>
/// <param name="Holds">How much is in it.</param>
/// <param name="To">Where it is put down.</param>
public sealed record Brings(string Can, FluidId Of, Quantity<Volume> Holds, Place To) : Hand;

/// <summary>Pours a fluid in.</summary>
/// <param name="What">The fluid.</param>
/// <param name="Amount">How much.</param>
/// <param name="Can">The can that it is poured from; empty where nobody asks.</param>
public sealed record Pours(FluidId What, Quantity<Volume> Amount, string Can = "") : Hand;

/// <summary>Pours a little through while the plug is out.</summary>
/// <param name="What">The fluid.</param>
/// <param name="Amount">How much.</param>
public sealed record RunsThrough(FluidId What, Quantity<Volume> Amount) : Hand;

/// <summary>Fills a part with fresh fluid before it is fitted, such as a filter.</summary>
/// <param name="What">The fluid.</param>
/// <param name="Amount">How much.</param>
public sealed record FillsPart(FluidId What, Quantity<Volume> Amount) : Hand;

/// <summary>Lets a dispenser run into a fluid's filler.</summary>
/// <param name="What">The fluid that it goes in with.</param>
/// <param name="Amount">How much really ran.</param>
/// <param name="Product">What the container holds in which it hangs.</param>
/// <param name="Suits">Whether that may go in there.</param>
public sealed record Dispenses(FluidId What, Quantity<Volume> Amount, string Product, bool Suits) : Hand;

/// <summary>Sucks a brake reservoir empty.</summary>
/// <param name="What">Its fluid.</param>
public sealed record SucksOut(FluidId What) : Hand;

/// <summary>Fills a brake reservoir.</summary>
/// <param name="What">Its fluid.</param>
/// <param name="Amount">How much goes in; null to its upper line.</param>
public sealed record TopsUp(FluidId What, Quantity<Volume>? Amount = null) : Hand;

/// <summary>Makes full strokes at an open bleed screw: press, open, close, release.</summary>
/// <param name="What">The screw.</param>
/// <param name="Count">How many.</param>
public sealed record Strokes(FastenerId What, int Count) : Hand;

/// <summary>Fetches the right can in place of one with another oil.</summary>
/// <param name="What">The fluid.</param>
public sealed record FetchesRightCan(FluidId What) : Hand;

/// <summary>Seats a belt in its grooves.</summary>
/// <param name="What">The belt.</param>
public sealed record SeatsBelt(PartId What) : Hand;

/// <summary>Brings the tyres to a pressure.</summary>
/// <param name="To">Which.</param>
public sealed record Inflates(Quantity<Pressure> To) : Hand;

/// <summary>Charges the battery, or lays a lead to another.</summary>
public sealed record Charges : Hand;

/// <summary>Frees a fastener that was seized, with heat, oil and time.</summary>
/// <param name="What">The fastener.</param>
public sealed record Frees(FastenerId What) : Hand;

/// <summary>Turns the key.</summary>
/// <param name="On">On, or off.</param>
public sealed record TurnsKey(bool On) : Hand;

/// <summary>Takes tools and rags out of the engine bay.</summary>
public sealed record ClearsAbove : Hand;

/// <summary>Fetches the right part in place of a wrong one from the box.</summary>
/// <param name="What">The part.</param>
public sealed record FetchesRight(PartId What) : Hand;

/// <summary>Lets down what stands over a joint, puts a new seal under it, and pours that back; the joint is in, and not tight.</summary>
/// <param name="What">The fastener.</param>
public sealed record RenewsSeal(FastenerId What) : Hand;

/// <summary>Frees the trapped wire of the oil pressure switch.</summary>
public sealed record FreesWire : Hand;

/// <summary>Picks off a ring that stayed on its face.</summary>
/// <param name="What">The fastener whose ring it was.</param>
public sealed record PicksOff(FastenerId What) : Hand;

/// <summary>Draws a fluid off from above.</summary>
/// <param name="What">The fluid.</param>
/// <param name="Amount">How much.</param>
public sealed record DrawsOff(FluidId What, Quantity<Volume> Amount) : Hand;

/// <summary>Puts a pan under the vehicle, with what is in it already.</summary>
/// <param name="Holds">What it holds; null for one that is never full.</param>
/// <param name="Pan">What the pan is called.</param>
/// <param name="Under">The fluid under whose holes it stands; null for one so wide that it stands under all of them.</param>
public sealed record SlidesPanUnder(Quantity<Volume>? Holds = null, string Pan = "Pan", FluidId? Under = null) : Hand;

/// <summary>Empties a pan into its drum, wherever it stands.</summary>
/// <param name="Pan">What the pan is called.</param>
public sealed record EmptiesPan(string Pan = "Pan") : Hand;

/// <summary>Takes pans, lamp and tools out from under the vehicle; nobody stays there, and what is in a pan stays in it.</summary>
public sealed record ClearsBelow : Hand;

/// <summary>Looks at the four lifting points with the arms on them; nobody sits in the vehicle then.</summary>
public sealed record SetsArms : Hand;

/// <summary>Raises the vehicle.</summary>
public sealed record Raises : Hand;

/// <summary>Lowers the vehicle.</summary>
public sealed record Lowers : Hand;

/// <summary>Lets the pump fill a fuel filter.</summary>
/// <param name="What">The filter.</param>
public sealed record Primes(PartId What) : Hand;

/// <summary>Starts the engine: it is cranked until it catches.</summary>
public sealed record Starts : Hand;

/// <summary>Cranks the engine with its fuel or spark shut off, or with no fuel in its filter: it turns and does not catch.</summary>
/// <param name="For">How long, above zero.</param>
public sealed record Cranks(TimeSpan For) : Hand;

/// <summary>Runs the engine until it is warm and switches it off again; it ends at the moment that is given.</summary>
public sealed record RunsWarm : Hand;

/// <summary>Switches the engine off.</summary>
public sealed record Stops : Hand;

/// <summary>Drives or rides the vehicle, and comes back with the engine off.</summary>
/// <param name="Far">How far; null for as far as it takes until it is warm.</param>
public sealed record Drives(Quantity<Distance>? Far = null) : Hand;

/// <summary>Works something at the dash in the course of a reset.</summary>
/// <param name="What">The reset.</param>
/// <param name="Control">What is worked.</param>
/// <param name="Held">For how long it is held.</param>
/// <param name="Typed">What is typed in; empty for nothing.</param>
/// <param name="Trouble">What keeps it from coming to the dash, such as a plug that is not home.</param>
public sealed record WorksDash(ResetId What, DashControl Control, TimeSpan Held, string Typed = "",
    DashTrouble Trouble = DashTrouble.None) : Hand;

/// <summary>Brings the vehicle onto level ground: what is dipped stands where it belongs.</summary>
public sealed record StandsLevel : Hand;

/// <summary>Shuts all doors.</summary>
public sealed record ShutsDoors : Hand;

/// <summary>Puts the service indicator out.</summary>
/// <param name="What">The reset.</param>
public sealed record PutsOut(ResetId What) : Hand;
