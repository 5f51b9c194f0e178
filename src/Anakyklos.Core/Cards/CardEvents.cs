using Anakyklos.Core.Due;
using Anakyklos.Core.Balance;
using System.Text.Json.Serialization;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Cards;

/// <summary>Something that happened to a card. Events are appended and never changed. Their names are on disk and stay.</summary>
public abstract record CardEvent
{
    /// <summary>What it did, as worked out when it happened; null for events that speak for themselves, and on cards from before
    /// 2026-12.</summary>
    public FrozenEffects? Frozen { get; init; }

    /// <summary>When it came to the workshop, where it was pressed without a line and kept at the screen until there was one; then the
    /// time at which it is recorded is what that screen says. Null where it came at once.</summary>
    public DateTimeOffset? Came { get; init; }
}

/// <summary>An event of the work at a step; the kind of that step says what it did.</summary>
public interface IStepEvent
{
    /// <summary>Step id.</summary>
    StepId Step { get; }

    /// <summary>Whether it goes on from an earlier event of the same step or fluid, as a second reading does.</summary>
    [JsonIgnore]
    bool GoesOn => false;
}

/// <summary>An event that goes on from an earlier one of the same step, and does not end it.</summary>
public interface IGoesOn : IStepEvent
{
    bool IStepEvent.GoesOn => true;
}

/// <summary>A fluid was poured out of containers.</summary>
public interface IPourEvent : IStepEvent
{
    /// <summary>How much, in the unit it was given in.</summary>
    Typed<Volume> Amount { get; }

    /// <summary>Out of which containers of the stores, in the order in which they were taken; null where they had none of it.</summary>
    IReadOnlyList<PouredFrom>? From { get; }

    /// <summary>The dispenser that metered it; null when a person measured it.</summary>
    DeviceId? Device => null;

    /// <inheritdoc/>
    bool IStepEvent.GoesOn => true;
}

/// <summary>An event in its place: when, by whom, through which command.</summary>
/// <param name="Seq">Place in the card, from 1.</param>
/// <param name="At">When, with the workshop's offset.</param>
/// <param name="By">Who.</param>
/// <param name="Command">The client's id of the command; events of one command share it.</param>
/// <param name="Event">What.</param>
public sealed record Recorded(int Seq, DateTimeOffset At, Person By, Guid Command, CardEvent Event);

/// <summary>The card was opened. Plan, sheet revision and school are frozen here.</summary>
/// <param name="Plate">The vehicle.</param>
/// <param name="SheetId">Model sheet.</param>
/// <param name="SheetRevision">Its revision.</param>
/// <param name="Jobs">Job ids.</param>
/// <param name="Steps">The steps, in order.</param>
/// <param name="Odometer">Reading at intake.</param>
/// <param name="Use">Which interval applies.</param>
/// <param name="School">How high the workshop fills; null for the sheet's own target.</param>
/// <param name="SealsUsedAgain">Seals that the last cards left in, and how often by now.</param>
/// <param name="OwnRules">Rules of the depot and the owner beside the maker's; null for none.</param>
/// <param name="Hours">Running hours at intake, or null.</param>
/// <param name="LeftForLater">Jobs that were due and are not done this time; null for none.</param>
/// <param name="Carried">Stops of earlier cards that are not mended; null for none.</param>
/// <param name="Stages">How much the workshop tops up on one reading.</param>
/// <param name="SeenBefore">What was seen of what came out on earlier cards; null for nothing.</param>
/// <param name="FilledBefore">What each fluid had in it after the services before; null for nothing known.</param>
/// <param name="Schools">How the workshop works where the trade has several schools; null for cards opened before that was kept.</param>
/// <param name="SampledBefore">What a laboratory said of the vehicle's last sample of each fluid; null for nothing known.</param>
/// <param name="InspectedBefore">What was read last at each point of the vehicle that is measured; null for nothing known.</param>
/// <param name="OwnLists">The lists among its jobs that are kept with the model beside its sheet, as they were then; null for none.</param>
/// <param name="LeftLit">Indicators that earlier cards left lit; null for none.</param>
/// <param name="ReadBy">The scan tool that read the odometer; null when a person typed it.</param>
/// <param name="Rulings">What the lead had ruled on disputed values of the sheet; null on cards from before that was
/// asked.</param>
/// <param name="AsRead">The odometer where it was read in another unit than kilometres; null otherwise.</param>
public sealed record CardOpened(string Plate, SheetId SheetId, int SheetRevision, IReadOnlyList<JobId> Jobs, IReadOnlyList<SheetStep> Steps,
    Quantity<Distance> Odometer, Use Use, TargetSchool? School, IReadOnlyDictionary<PartId, int> SealsUsedAgain,
    IReadOnlyList<OwnRule>? OwnRules = null, int? Hours = null, IReadOnlyList<JobLeft>? LeftForLater = null,
        IReadOnlyList<StopCarried>? Carried = null,
        [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] PourStages Stages = PourStages.ByHalves,
        IReadOnlyList<LookBefore>? SeenBefore = null,
        IReadOnlyDictionary<FluidId, FilledBefore>? FilledBefore = null, WorkSchools? Schools = null,
        IReadOnlyList<SampledBefore>? SampledBefore = null, IReadOnlyList<InspectedBefore>? InspectedBefore = null,
        IReadOnlyList<OwnList>? OwnLists = null, IReadOnlyList<IndicatorLit>? LeftLit = null,
        DeviceId? ReadBy = null, IReadOnlyList<Ruling>? Rulings = null, Typed<Distance>? AsRead = null) : CardEvent
{
    /// <summary>The odometer with the unit in which the dash shows it.</summary>
    [JsonIgnore]
    public Typed<Distance> OdometerAsRead => AsRead ?? new(Odometer, Distance.Kilometre);
}

/// <summary>A finding graded stop on an earlier card, with which the vehicle was let go as it is.</summary>
/// <param name="Card">The number of that card.</param>
/// <param name="Text">What was found.</param>
/// <param name="Words">What the lead decided then.</param>
/// <param name="By">Who decided.</param>
public sealed record StopCarried(CardNumber Card, string Text, string Words, string By);

/// <summary>A job that was due and is not done this time.</summary>
/// <param name="Job">Job id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Reason">Why not.</param>
public sealed record JobLeft(JobId Job, string Name, string Reason);

/// <summary>A step was done.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Count">Fasteners out or in, where they are counted.</param>
/// <param name="LookedAbove">The engine bay was looked over for tools and rags before it.</param>
public sealed record StepDone(StepId Step, int? Count = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool LookedAbove = false) : CardEvent, IStepEvent;

/// <summary>The engine was cranked for as long as it may be, and did not fire.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Cools">Whether that was the last try for now: the starter cools.</param>
/// <param name="Rests">How long it rests or cools.</param>
/// <param name="Again">Steps that are done again before the next try: what is primed.</param>
public sealed record EngineCranked(StepId Step, bool Cools, TimeSpan Rests, IReadOnlyList<StepId> Again) : CardEvent, IGoesOn, IMayStray
{
    Stray? IMayStray.Strayed => Stray.NoStart;
}

/// <summary>Parts, pans and oil were laid out.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Parts">Number in hand by part id.</param>
/// <param name="Pan">What the drain pans hold in all.</param>
/// <param name="Oils">What is in hand for each fluid, by fluid id.</param>
/// <param name="Pans">What each pan holds; null on cards from the time when there was one.</param>
public sealed record KitConfirmed(StepId Step, IReadOnlyDictionary<PartId, string> Parts, Quantity<Volume> Pan,
    IReadOnlyDictionary<FluidId, KitOil> Oils,
    IReadOnlyList<Quantity<Volume>>? Pans = null) : CardEvent, IStepEvent
{
    /// <summary>Stands in place of a number where the old seal goes back.</summary>
    public const string OldOneAgain = KitPart.OldOneAgain;

    /// <summary>What each pan holds.</summary>
    [JsonIgnore]
    public IReadOnlyList<Quantity<Volume>> AllPans => Pans ?? [Pan];
}

/// <summary>The card waits for something that is not in hand.</summary>
/// <param name="Number">Part number or oil product, as the stores know it.</param>
/// <param name="Name">What it is.</param>
/// <param name="Boat">The day it should be here; null when nobody knows.</param>
/// <param name="Comes">It is said to come on that day; false where it was noted while everything came by boat.</param>
public sealed record PartAwaited(string Number, string Name, DateOnly? Boat,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool Comes = false) : CardEvent;

/// <summary>What the card waited for is here.</summary>
/// <param name="Number">Part number or oil product.</param>
public sealed record PartCame(string Number) : CardEvent;

/// <summary>What is left was put in another order.</summary>
/// <param name="Steps">All steps of the card, in the new order; what is done comes first.</param>
/// <param name="Why">Why, in words.</param>
/// <param name="Costs">How much later it ends than before; negative when earlier.</param>
public sealed record PlanChanged(IReadOnlyList<SheetStep> Steps, string Why, TimeSpan Costs) : CardEvent;

/// <summary>A wait was ended before its time.</summary>
/// <param name="Wait">Id of the wait.</param>
/// <param name="Reason">Why.</param>
public sealed record WaitCut(StepId Wait, string Reason) : CardEvent, IMayStray
{
    Stray? IMayStray.Strayed => Stray.WaitCut;
}

/// <summary>Somebody felt that the engine was cold as the vehicle came in.</summary>
public sealed record FeltCold : CardEvent;

/// <summary>A drain pan was emptied into its drum.</summary>
/// <param name="Pan">Which pan of the kit, from 0.</param>
public sealed record PanEmptied(int Pan) : CardEvent;

/// <summary>A step was left for later.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Reason">Why.</param>
public sealed record StepPutAside(StepId Step, string Reason) : CardEvent;

/// <summary>The last thing done was pressed by mistake and does not count.</summary>
/// <param name="From">First seq that does not count.</param>
/// <param name="To">Last seq that does not count.</param>
public sealed record TakenBack(int From, int To) : CardEvent;

/// <summary>Something strayed from the book.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Kind">What kind.</param>
/// <param name="Part">Part id, or empty.</param>
/// <param name="What">In words, for the record.</param>
/// <param name="Reason">Why, in the person's words.</param>
/// <param name="NeedsCountersignature">Whether another person must put their name to it.</param>
public sealed record DeviationTaken(StepId Step, DeviationKind Kind, ThingId Part, string What, string Reason, bool NeedsCountersignature)
    : CardEvent;

/// <summary>Another person put their name to a deviation or a finding.</summary>
/// <param name="Of">Its seq.</param>
public sealed record Countersigned(int Of) : CardEvent;

/// <summary>Something was seen.</summary>
/// <param name="Step">Step at which it was seen.</param>
/// <param name="Grade">How bad.</param>
/// <param name="Text">What.</param>
/// <param name="Photo">The id of the picture of it; null for none.</param>
public sealed record FindingNoted(StepId Step, FindingGrade Grade, string Text, string? Photo = null) : CardEvent;

/// <summary>The lead decided about a finding graded stop.</summary>
/// <param name="Of">Seq of the finding.</param>
/// <param name="Mended">Whether what was found is put right.</param>
/// <param name="Words">What was decided.</param>
public sealed record StopDecided(int Of, bool Mended, string Words) : CardEvent;

/// <summary>A stop that came from an earlier card was mended.</summary>
/// <param name="Index">Its place in <see cref="CardOpened.Carried"/>, from 0.</param>
/// <param name="Words">What was done.</param>
public sealed record CarriedMended(int Index, string Words) : CardEvent;

/// <summary>A job was given up.</summary>
/// <param name="Job">Job id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Reason">Why.</param>
public sealed record JobDropped(JobId Job, string Name, string Reason) : CardEvent;

/// <summary>Somebody said which value holds where sources disagree.</summary>
/// <param name="Step">The step that uses it.</param>
/// <param name="Ruling">What holds; without a name and a time where it was said here, in the name of whoever said it.</param>
/// <param name="ByLibrary">It is the lead's, from the library.</param>
public sealed record ValueRuled(StepId Step, Ruling Ruling, bool ByLibrary) : CardEvent;

/// <summary>Somebody asked that the card be made void; it is once another person has put a name to it, unless work goes on.</summary>
/// <param name="Reason">Why.</param>
public sealed record VoidAsked(string Reason) : CardEvent;

/// <summary>The card was made void; nothing had been opened.</summary>
/// <param name="Reason">Why.</param>
/// <param name="Asked">The seq at which it was asked for; null on cards from the time when one name was enough.</param>
public sealed record CardVoided(string Reason, int? Asked = null) : CardEvent;

/// <summary>Somebody put right what a signed card says; the card itself stays as it was signed.</summary>
/// <param name="Of">What is put right, as <see cref="Amendable.Of"/> names it.</param>
/// <param name="Name">Its name then.</param>
/// <param name="Words">How it really was, and how that came out.</param>
public sealed record Amended(string Of, string Name, string Words) : CardEvent;

/// <summary>The lift was moved outside the plan.</summary>
/// <param name="Up">Up or down.</param>
public sealed record LiftMoved(bool Up) : CardEvent;

/// <summary>The card was signed: the ring is closed.</summary>
/// <param name="Due">When each job is due next.</param>
public sealed record Signed(IReadOnlyList<JobDue> Due) : CardEvent;

/// <summary>When a job is due next.</summary>
/// <param name="Job">Job id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Next">Distance and day.</param>
public sealed record JobDue(JobId Job, string Name, NextDue Next);

/// <summary>Four grades of findings.</summary>
public enum FindingGrade
{
    /// <summary>Nothing wrong.</summary>
    Sound,

    /// <summary>Keep an eye on it.</summary>
    KeepAnEye,

    /// <summary>Plan it.</summary>
    PlanIt,

    /// <summary>It must not go on like this; the lead decides.</summary>
    Stop,
}

/// <summary>Ways of straying from the book.</summary>
public enum DeviationKind
{
    /// <summary>An old seal goes back in.</summary>
    OldSealAgain,

    /// <summary>A part with another number is fitted.</summary>
    OtherPart,

    /// <summary>An oil that lacks something the sheet asks for goes in.</summary>
    OtherOil,

    /// <summary>Tightened without a reading.</summary>
    NoReading,

    /// <summary>Fewer fasteners went in than came out.</summary>
    CountShort,

    /// <summary>A step was not done at all.</summary>
    StepLeftOut,

    /// <summary>A job was given up before brakes, steering, wheels or lifting were whole again.</summary>
    JobGivenUp,

    /// <summary>A value was used on which sources disagree, without a ruling of the lead.</summary>
    DisputedValue,
}
