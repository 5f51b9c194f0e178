using System.Collections.Immutable;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Cards;

/// <summary>How a step stands.</summary>
public enum StepStatus
{
    /// <summary>Not done.</summary>
    Waiting,

    /// <summary>Done.</summary>
    Done,

    /// <summary>Left for later; it must still be done before the card is signed.</summary>
    Aside,

    /// <summary>Left out for good, as a deviation.</summary>
    LeftOut,
}

/// <summary>The state of a step and the event that brought it there.</summary>
/// <param name="Status">How it stands.</param>
/// <param name="Through">The event, null while nothing happened.</param>
/// <param name="Reason">Why it was left, empty otherwise.</param>
public sealed record StepState(StepStatus Status, Recorded? Through, string Reason = "");

/// <summary>What kind of thing is open.</summary>
public enum OpenKind
{
    /// <summary>An access: a cover, a cap, a lead; also what holds the vehicle.</summary>
    Access,

    /// <summary>A plug, cap or group of screws with a tightening of its own.</summary>
    Fastener,

    /// <summary>A fluid that was let out and is not at its mark.</summary>
    Fluid,

    /// <summary>An indicator that is lit.</summary>
    Indicator,

    /// <summary>The engine runs.</summary>
    Engine,

    /// <summary>The vehicle is up.</summary>
    Lift,
}

/// <summary>
/// What an open item is: its kind and its id in the sheet, so that things of different kinds never mix, whatever they are called.
/// </summary>
/// <param name="Kind">The kind.</param>
/// <param name="Id">Id in the sheet; empty for engine and lift, of which there is one.</param>
public readonly record struct OpenRef(OpenKind Kind, ThingId Id)
{
    /// <summary>The running engine.</summary>
    public static OpenRef Engine { get; } = new(OpenKind.Engine, "");

    /// <summary>The raised vehicle.</summary>
    public static OpenRef Lift { get; } = new(OpenKind.Lift, "");
}

/// <summary>Something open that must be closed.</summary>
/// <param name="What">What it is.</param>
/// <param name="Name">Name with a capital.</param>
/// <param name="Detail">A few words more, or empty.</param>
/// <param name="By">The step that opened it; empty when it was no step.</param>
/// <param name="Since">Seq of the event that opened it.</param>
/// <param name="Count">Fasteners that came out, 0 where they are not counted.</param>
public sealed record OpenItem(OpenRef What, string Name, string Detail, StepId By, int Since, int Count = 0)
{
    /// <summary>Its id in the sheet; empty for engine and lift.</summary>
    public ThingId Id => What.Id;

    /// <summary>Its kind.</summary>
    public OpenKind Kind => What.Kind;
}

/// <summary>A wait that runs by itself.</summary>
/// <param name="Id">The step that it belongs to.</param>
/// <param name="For">What it waits for.</param>
/// <param name="From">When it began.</param>
/// <param name="Until">When it is over.</param>
public sealed record RunningWait(StepId Id, string For, DateTimeOffset From, DateTimeOffset Until);

/// <summary>An event of one kind with its place.</summary>
/// <typeparam name="T">The kind of event.</typeparam>
/// <param name="Seq">Its seq.</param>
/// <param name="Recorded">When and by whom.</param>
/// <param name="Event">The event.</param>
public sealed record Noted<T>(int Seq, Recorded Recorded, T Event) where T : CardEvent;

/// <summary>How a fluid system stands on this card.</summary>
/// <param name="Out">It was drained and has not been brought to the mark since.</param>
/// <param name="Poured">Sum of what went in since it was drained, less what was taken out.</param>
/// <param name="Pours">How many pours.</param>
/// <param name="Level">Last reading, null before the first.</param>
/// <param name="SinceReading">What went in after the last reading.</param>
/// <param name="Good">The last reading was inside the target, or the whole amount went in where nothing is read.</param>
/// <param name="CameOut">What was measured coming out; null when it was not.</param>
public sealed record FluidState(bool Out, Quantity<Volume> Poured, int Pours, Level? Level, Quantity<Volume> SinceReading, bool Good,
    Quantity<Volume>? CameOut = null)
{
    /// <summary>Where it stood before it was let out; null where nobody looked.</summary>
    public Level? Found { get; init; }

    /// <summary>Where it stood before the first run on what went in, the filter still empty; null where nobody looked.</summary>
    public Level? BeforeRun { get; init; }

    /// <summary>The last reading as a depth below the filler; null where it is not read on a rod.</summary>
    public Typed<Length>? Depth { get; init; }

    /// <summary>It was taken apart and is dry inside: the book's amount for that holds.</summary>
    public bool Stripped { get; init; }

    /// <summary>What was poured through since it was let out; none of it stays in.</summary>
    public Quantity<Volume> Rinsed { get; init; }

    /// <summary>What of <see cref="Poured"/> went into a part before that was fitted, such as a filter.</summary>
    public Quantity<Volume> InPart { get; init; }

    internal static readonly FluidState Untouched = new(false, Quantity<Volume>.Zero, 0, null, Quantity<Volume>.Zero, false);
}

/// <summary>A fastener of a group that was drawn down in a pass.</summary>
/// <param name="Pass">Which pass, from 1.</param>
/// <param name="Place">Its number on the drawing.</param>
public readonly record struct PlaceDrawn(int Pass, int Place);

/// <summary>How something went that was tried on the road.</summary>
public enum TryWent
{
    /// <summary>As it should.</summary>
    Well,

    /// <summary>Something was strange.</summary>
    Strange,

    /// <summary>It did not do it.</summary>
    Failed,
}

/// <summary>How a joint looks after it was closed; one that leaks is open.</summary>
public enum JointLook
{
    /// <summary>Dry.</summary>
    Dry,

    /// <summary>It wept, was wiped, and is looked at again.</summary>
    Wept,
}

/// <summary>How the seal of a joint stands that leaked after it was closed.</summary>
public enum SealAfterLeak
{
    /// <summary>Nobody has said yet.</summary>
    Leaked,

    /// <summary>The joint had been loose, and its seal stays.</summary>
    Stays,

    /// <summary>It leaked again with that seal.</summary>
    LeakedAgain,

    /// <summary>A new one is in.</summary>
    Renewed,
}

/// <summary>A wrench that somebody took up.</summary>
/// <param name="Name">Its name; empty for the one that the card says.</param>
/// <param name="With">What is across its head, or null.</param>
public sealed record WrenchTakenUp(string Name, CrowFoot? With);

/// <summary>
/// Where a card stands: what its events made of it so far. A value that is never changed; the next event makes the next one.
/// </summary>
internal sealed record CardState
{
    /// <summary>The steps in plan order.</summary>
    internal required IReadOnlyList<SheetStep> Plan { get; init; }

    /// <summary>How each step stands.</summary>
    internal required ImmutableDictionary<StepId, StepState> Steps { get; init; }

    /// <summary>What is open, in the order it was opened.</summary>
    internal ImmutableList<OpenItem> Open { get; init; } = [];

    /// <summary>Waits that were begun and not ended, whether over or not.</summary>
    internal ImmutableList<RunningWait> Waits { get; init; } = [];

    /// <summary>Parts that are in their place.</summary>
    internal ImmutableHashSet<PartId> Fitted { get; init; } = [];

    /// <summary>Fluids that were touched.</summary>
    internal ImmutableDictionary<FluidId, FluidState> Fluids { get; init; } = ImmutableDictionary<FluidId, FluidState>.Empty;

    /// <summary>The seq at which each fastener was closed that was open before.</summary>
    internal ImmutableDictionary<FastenerId, int> ClosedAt { get; init; } = ImmutableDictionary<FastenerId, int>.Empty;

    /// <summary>Steps that stand still.</summary>
    internal ImmutableHashSet<StepId> StandStill { get; init; } = [];

    /// <summary>The fasteners of a step that were drawn down, by pass.</summary>
    internal ImmutableDictionary<StepId, ImmutableHashSet<PlaceDrawn>> Drawn { get; init; } =
        ImmutableDictionary<StepId, ImmutableHashSet<PlaceDrawn>>.Empty;

    /// <summary>The wrench that somebody took for a step in place of the one that the card says.</summary>
    internal ImmutableDictionary<StepId, WrenchTakenUp> InHand { get; init; } = ImmutableDictionary<StepId, WrenchTakenUp>.Empty;

    /// <summary>What strayed from the book.</summary>
    internal ImmutableList<Noted<DeviationTaken>> Deviations { get; init; } = [];

    /// <summary>What was seen.</summary>
    internal ImmutableList<Noted<FindingNoted>> Findings { get; init; } = [];

    /// <summary>Those of them that were graded stop, decided or not; every step that runs the engine asks for these.</summary>
    internal ImmutableList<Noted<FindingNoted>> Stops { get; init; } = [];

    /// <summary>What the lead decided, by the seq of the finding.</summary>
    internal ImmutableDictionary<int, Noted<StopDecided>> Decided { get; init; } = ImmutableDictionary<int, Noted<StopDecided>>.Empty;

    /// <summary>Jobs that were given up.</summary>
    internal ImmutableDictionary<JobId, Noted<JobDropped>> Dropped { get; init; } = ImmutableDictionary<JobId, Noted<JobDropped>>.Empty;

    /// <summary>What the card waits for.</summary>
    internal ImmutableList<PartAwaited> Awaited { get; init; } = [];

    /// <summary>Deviations with a second name, by seq.</summary>
    internal ImmutableHashSet<int> Countersigned { get; init; } = [];

    /// <summary>Those at whose side somebody stands at the brakes.</summary>
    internal ImmutableHashSet<PersonId> Beside { get; init; } = [];

    /// <summary>Carried stops that were mended, by place.</summary>
    internal ImmutableHashSet<int> Mended { get; init; } = [];

    /// <summary>When the engine was last hot.</summary>
    internal DateTimeOffset? HotAt { get; init; }

    /// <summary>Whether somebody felt that the engine was cold as the vehicle came in.</summary>
    internal bool IsFeltCold { get; init; }

    /// <summary>The seq at which the engine was last started.</summary>
    internal int RanAt { get; init; }

    /// <summary>The seq at which the joints were last looked at.</summary>
    internal int LookedAt { get; init; }

    /// <summary>Whether the vehicle is up.</summary>
    internal bool LiftUp { get; init; }

    /// <summary>Whether the engine runs.</summary>
    internal bool EngineRuns { get; init; }

    /// <summary>The step that started the engine and goes on while it runs, and when it did; null where none does.</summary>
    internal (StepId Step, DateTimeOffset At)? Proving { get; init; }

    /// <summary>The kit as it was laid out.</summary>
    internal KitConfirmed? Kit { get; init; }

    /// <summary>What was seen of what came out, in the order in which it was.</summary>
    internal ImmutableList<SeenThere> Seen { get; init; } = [];

    /// <summary>What was found at the points of lists of inspections, in the order in which they were begun.</summary>
    internal ImmutableList<PointFound> Points { get; init; } = [];

    /// <summary>How joints looked, by the step at which they were looked at.</summary>
    internal ImmutableDictionary<(StepId Step, FastenerId Joint), JointLook> Joints { get; init; } =
        ImmutableDictionary<(StepId, FastenerId), JointLook>.Empty;

    /// <summary>How the seals of joints stand that leaked.</summary>
    internal ImmutableDictionary<FastenerId, SealAfterLeak> Seals { get; init; } =
        ImmutableDictionary<FastenerId, SealAfterLeak>.Empty;

    /// <summary>What was looked for by itself, by the step that looks a place over.</summary>
    internal ImmutableHashSet<(StepId Step, string What)> Swept { get; init; } = [];

    /// <summary>The step with which the vehicle is on the road; null while it stands here.</summary>
    internal StepId? Away { get; init; }

    /// <summary>What was tried on the road, by the step and its place in the list.</summary>
    internal ImmutableDictionary<(StepId Step, int Try), TryWent> Tried { get; init; } =
        ImmutableDictionary<(StepId, int), TryWent>.Empty;

    /// <summary>The pans of the kit, with what is in them.</summary>
    internal ImmutableList<PanInUse> Pans { get; init; } = [];

    /// <summary>The signature.</summary>
    internal Recorded? Signature { get; init; }

    /// <summary>What was ruled here on disputed values.</summary>
    internal ImmutableList<Ruling> Rulings { get; init; } = [];

    /// <summary>That it is to be made void; null where nobody asked, or work went on since.</summary>
    internal Noted<VoidAsked>? ToVoid { get; init; }

    /// <summary>What was put right after it was signed.</summary>
    internal ImmutableList<Noted<Amended>> Amendments { get; init; } = [];

    /// <summary>What made the card void.</summary>
    internal Recorded? Voided { get; init; }
}
