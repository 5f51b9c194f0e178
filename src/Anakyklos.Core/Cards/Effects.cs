using Anakyklos.Core.Filling;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Cards;

/// <summary>
/// What an event did to the vehicle and to the card. Open items, gates, kit, record and ring follow from effects alone, whatever kind of
/// work they came from. They are written down with the event and never worked out again, so that a later change of a tolerance or a school
/// leaves a signed card as it was.
/// </summary>
public abstract record Effect;

/// <summary>A step is done; a wait that it begins runs from now.</summary>
/// <param name="Step">Step id.</param>
public sealed record StepEnds(StepId Step) : Effect;

/// <summary>A step counts as not done, and its wait as not begun.</summary>
/// <param name="Step">Step id.</param>
public sealed record StepBeginsAgain(StepId Step) : Effect;

/// <summary>A step is left out for good.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Reason">Why.</param>
public sealed record StepLeftOut(StepId Step, string Reason) : Effect;

/// <summary>A step stands still until somebody says what was done about it.</summary>
/// <param name="Step">Step id.</param>
public sealed record StepStops(StepId Step) : Effect;

/// <summary>A step that stood still goes on.</summary>
/// <param name="Step">Step id.</param>
public sealed record StepGoesOn(StepId Step) : Effect;

/// <summary>Fasteners of a group were drawn down in a pass.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Pass">Which pass, from 1.</param>
/// <param name="Places">Their numbers on the drawing.</param>
public sealed record PlacesAreDrawn(StepId Step, int Pass, IReadOnlyList<int> Places) : Effect;

/// <summary>A fastener of a group counts as not drawn down in a pass after all.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Pass">Which pass, from 1.</param>
/// <param name="Place">Its number on the drawing.</param>
public sealed record PlaceIsLoose(StepId Step, int Pass, int Place) : Effect;

/// <summary>Somebody took a wrench for a step.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Wrench">Its name; empty for the one that the card says.</param>
/// <param name="With">What is across its head, or null.</param>
public sealed record WrenchIsTaken(StepId Step, string Wrench, CrowFoot? With) : Effect;

/// <summary>Something is open from now on.</summary>
/// <param name="What">What.</param>
/// <param name="Name">Its name with a capital.</param>
/// <param name="Detail">A few words more, or empty.</param>
/// <param name="By">The step that opened it; empty when it was none.</param>
/// <param name="Count">Fasteners that came out, 0 where they are not counted.</param>
public sealed record Opens(OpenRef What, string Name, string Detail, StepId By, int Count = 0) : Effect;

/// <summary>Something is closed.</summary>
/// <param name="What">What.</param>
public sealed record Closes(OpenRef What) : Effect;

/// <summary>A part is in its place.</summary>
/// <param name="Part">Part id.</param>
public sealed record PartGoesIn(PartId Part) : Effect;

/// <summary>A part is in its place no more.</summary>
/// <param name="Part">Part id.</param>
public sealed record PartComesOut(PartId Part) : Effect;

/// <summary>A fluid is let out: what was poured and read before counts no more.</summary>
/// <param name="Fluid">Fluid id.</param>
public sealed record FluidRunsOut(FluidId Fluid) : Effect;

/// <summary>A fluid runs into a pan.</summary>
/// <param name="Fluid">Fluid id.</param>
/// <param name="Pan">Which pan of the kit, from 0.</param>
/// <param name="Amount">How much of it is expected there.</param>
public sealed record FillsPan(FluidId Fluid, int Pan, Quantity<Volume> Amount) : Effect;

/// <summary>A pan was emptied.</summary>
/// <param name="Pan">Which pan of the kit, from 0.</param>
public sealed record PanIsEmpty(int Pan) : Effect;

/// <summary>An amount went in, or came out again where it is negative.</summary>
/// <param name="Fluid">Fluid id.</param>
/// <param name="Amount">How much.</param>
public sealed record FluidGoesIn(FluidId Fluid, Quantity<Volume> Amount) : Effect;

/// <summary>Fresh fluid stands in a part that is fitted filled.</summary>
/// <param name="Fluid">Fluid id.</param>
/// <param name="Part">The part.</param>
/// <param name="Amount">How much.</param>
public sealed record PartHolds(FluidId Fluid, PartId Part, Quantity<Volume> Amount) : Effect;

/// <summary>What a fluid goes into is dry inside, since it was taken apart.</summary>
/// <param name="Fluid">Fluid id.</param>
public sealed record FluidMeetsDry(FluidId Fluid) : Effect;

/// <summary>Fresh fluid was poured through and ran out again.</summary>
/// <param name="Fluid">Fluid id.</param>
/// <param name="Amount">How much.</param>
public sealed record FluidRunsThrough(FluidId Fluid, Quantity<Volume> Amount) : Effect;

/// <summary>What ran out was measured.</summary>
/// <param name="Fluid">Fluid id.</param>
/// <param name="Amount">How much.</param>
public sealed record FluidMeasured(FluidId Fluid, Quantity<Volume> Amount) : Effect;

/// <summary>A level was read before the fluid is let out.</summary>
/// <param name="Fluid">Fluid id.</param>
/// <param name="Level">Where it stood.</param>
public sealed record LevelFound(FluidId Fluid, Level Level) : Effect;

/// <summary>A level was read before the first run on what went in.</summary>
/// <param name="Fluid">Fluid id.</param>
/// <param name="Level">Where it stood.</param>
public sealed record LevelBeforeRun(FluidId Fluid, Level Level) : Effect;

/// <summary>A level was read.</summary>
/// <param name="Fluid">Fluid id.</param>
/// <param name="Level">Where it stood.</param>
/// <param name="Good">Whether that is where it should be.</param>
/// <param name="Depth">The reading as a depth below the filler; null where it is not read on a rod.</param>
public sealed record LevelIs(FluidId Fluid, Level Level, bool Good, Typed<Length>? Depth = null) : Effect;

/// <summary>A fluid falls below the line to which it was filled, as a reservoir does that is bled from.</summary>
/// <param name="Fluid">Fluid id.</param>
public sealed record FluidFalls(FluidId Fluid) : Effect;

/// <summary>The whole amount is in, where nothing is read.</summary>
/// <param name="Fluid">Fluid id.</param>
public sealed record FluidIsIn(FluidId Fluid) : Effect;

/// <summary>Something that came out looks like this.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Look">What was seen.</param>
/// <param name="Leads">What followed from it.</param>
public sealed record LooksLike(StepId Step, Look Look, LookOutcome Leads) : Effect;

/// <summary>A wait begins that is not a step's own.</summary>
/// <param name="Wait">Id of the step that it belongs to.</param>
/// <param name="For">What it waits for.</param>
/// <param name="Lasts">How long.</param>
public sealed record WaitBegins(StepId Wait, string For, TimeSpan Lasts) : Effect;

/// <summary>A wait is over or was ended.</summary>
/// <param name="Wait">Its id.</param>
public sealed record WaitEnds(StepId Wait) : Effect;

/// <summary>The engine ran: it is hot from now on.</summary>
public sealed record EngineHeats : Effect;

/// <summary>The engine runs from now on.</summary>
/// <param name="Proving">The step that goes on while it runs, such as until a light is out; null where none does.</param>
public sealed record EngineStarts(StepId? Proving = null) : Effect;

/// <summary>The engine is off.</summary>
public sealed record EngineStops : Effect;

/// <summary>The vehicle leaves for the road; nothing else is done to it until it is back.</summary>
/// <param name="Step">The step that drives it.</param>
public sealed record SetsOff(StepId Step) : Effect;

/// <summary>The vehicle is back from the road, the engine off.</summary>
public sealed record ComesBack : Effect;

/// <summary>Something was tried on the road.</summary>
/// <param name="Step">The step that drives it.</param>
/// <param name="Try">Which, from 0.</param>
/// <param name="Went">How it went.</param>
public sealed record TryGoes(StepId Step, int Try, TryWent Went) : Effect;

/// <summary>The lift moved.</summary>
/// <param name="Up">Up or down.</param>
public sealed record LiftMoves(bool Up) : Effect;

/// <summary>A point of a list of inspections was measured or looked at.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Point">The point of it.</param>
/// <param name="Reads">What was read or chosen.</param>
/// <param name="Outcome">What it is worth.</param>
/// <param name="Settled">Whether nothing more is done there.</param>
public sealed record PointReads(StepId Step, string Point, string Reads, PointOutcome Outcome, bool Settled) : Effect;

/// <summary>A joint was looked at.</summary>
/// <param name="Step">The step at which it was.</param>
/// <param name="Joint">Fastener id.</param>
/// <param name="How">What was seen.</param>
public sealed record JointLooks(StepId Step, FastenerId Joint, JointLook How) : Effect;

/// <summary>A thing was looked for where a place is looked over.</summary>
/// <param name="Step">The step.</param>
/// <param name="What">The thing.</param>
public sealed record ThingIsSeen(StepId Step, string What) : Effect;

/// <summary>A joint with a seal leaks.</summary>
/// <param name="Joint">The joint.</param>
public sealed record SealLeaks(FastenerId Joint) : Effect;

/// <summary>A joint that leaked had been loose: its seal stays.</summary>
/// <param name="Joint">The joint.</param>
public sealed record SealStays(FastenerId Joint) : Effect;

/// <summary>A joint that leaked has a new seal.</summary>
/// <param name="Joint">The joint.</param>
/// <param name="Part">The seal.</param>
/// <param name="Number">The number on it.</param>
public sealed record SealIsNew(FastenerId Joint, PartId Part, string Number) : Effect;

/// <summary>The joints were looked at and are dry.</summary>
public sealed record JointsSeen : Effect;

/// <summary>The kit of this event lies there.</summary>
public sealed record KitLies : Effect;

/// <summary>Effects as they were worked out when the event happened.</summary>
/// <param name="Rules">The version of the rules by which they were; see <see cref="Now"/>.</param>
/// <param name="Effects">In their order.</param>
public sealed record FrozenEffects(int Rules, IReadOnlyList<Effect> Effects)
{
    /// <summary>The version of the rules that this program goes by. It grows whenever an event would have other effects than
    /// before.</summary>
    public const int Now = 7;

    /// <summary>The rules since which a record tells a step's title as the card does; before, as the sheet does.</summary>
    internal const int SinceTitlesAreTold = 2;
}
