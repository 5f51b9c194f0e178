using Anakyklos.Core.Filling;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Sheets;

/// <summary>What the maker says of one model, format <c>anakyklos/model-sheet/1</c>. Immutable; everything is found by its id.</summary>
public sealed record ModelSheet
{
    /// <summary>The format this room reads and writes.</summary>
    public const string Format = "anakyklos/model-sheet/1";

    /// <summary>Lasting id of the model.</summary>
    public required SheetId Id { get; init; }

    /// <summary>Counts up with every correction, from 1.</summary>
    public required int Revision { get; init; }

    /// <summary>Maker.</summary>
    public required string Make { get; init; }

    /// <summary>Model name.</summary>
    public required string Name { get; init; }

    /// <summary>Variants that share this sheet.</summary>
    public required IReadOnlyList<Variant> Variants { get; init; }

    /// <summary>Where the values come from.</summary>
    public required IReadOnlyDictionary<string, Source> Sources { get; init; }

    /// <summary>Things that are opened to reach others.</summary>
    public required IReadOnlyDictionary<AccessId, Access> Access { get; init; }

    /// <summary>Fluid systems.</summary>
    public required IReadOnlyDictionary<FluidId, FluidSystem> Fluids { get; init; }

    /// <summary>Fasteners with a tightening of their own.</summary>
    public required IReadOnlyDictionary<FastenerId, Fastener> Fasteners { get; init; }

    /// <summary>The fluid that stands in a part which is held by what keeps that fluid in, such as a filter; null for none.</summary>
    /// <param name="part">Part id.</param>
    public FluidSystem? FluidIn(PartId part) => Fasteners.Values.FirstOrDefault(f => f.Holds.Contains(part))?.System is { } fluid
        ? Fluids.GetValueOrDefault(fluid) : null;

    /// <summary>Whether a joint comes under pressure by a pedal or lever: what runs through it is bled.</summary>
    /// <param name="joint">A fastener of this sheet.</param>
    public bool IsPressed(Fastener joint) => joint.System is { } fluid && Steps.Values.Any(s => s.Spec is BleedSpec bleed
        && bleed.Fluid == fluid);

    /// <summary>Whether a job opens brakes: something is bled in it, or a pedal is felt.</summary>
    /// <param name="job">Job id.</param>
    public bool OpensBrakes(JobId job) => Jobs.TryGetValue(job, out var of)
        && of.Steps.Any(id => Steps.TryGetValue(id, out var s) && (s.Traits.FeelsPedal || s.Spec is BleedSpec));

    /// <summary>The fluid that a step pours: its own, or the one that goes into the part that it fits.</summary>
    /// <param name="step">A step.</param>
    /// <returns>Null for a step that pours nothing.</returns>
    public FluidSystem? Pours(SheetStep step) => Fluids.GetValueOrDefault(step.What)
        ?? (step.Spec is BleedSpec bleed ? Fluids[bleed.Fluid]
            : Parts.TryGetValue(step.What, out var part) && part.Prefill is not null ? FluidIn(part.Id) : null);

    /// <summary>Parts.</summary>
    public required IReadOnlyDictionary<PartId, Part> Parts { get; init; }

    /// <summary>Steps that jobs are made of.</summary>
    public required IReadOnlyDictionary<StepId, SheetStep> Steps { get; init; }

    /// <summary>Jobs.</summary>
    public required IReadOnlyDictionary<JobId, Job> Jobs { get; init; }

    /// <summary>The first of some jobs that follows another of them. It looks again at what has been driven since, and comes on a card
    /// of its own.</summary>
    /// <param name="jobs">Ids of jobs of this sheet.</param>
    /// <returns>The two; null where none follows another.</returns>
    public (Job First, Job Follower)? Followed(IReadOnlyCollection<JobId> jobs) => Jobs.Values
        .Where(j => jobs.Contains(j.Id) && j.Follows is { } before && jobs.Contains(before))
        .Select(j => ((Job, Job)?)(Jobs[j.Follows!.Value], j)).FirstOrDefault();

    /// <summary>Indicator resets.</summary>
    public required IReadOnlyDictionary<ResetId, ResetRitual> Resets { get; init; }

    /// <summary>Intervals by id.</summary>
    public required IReadOnlyDictionary<IntervalId, IntervalRule> Intervals { get; init; }

    /// <summary>What the engine burns.</summary>
    public Fuel Fuel { get; init; }

    /// <summary>What the dash can show.</summary>
    public DashScheme Dash { get; init; } = DashScheme.None;

    /// <summary>Drawings of where things are.</summary>
    public required IReadOnlyDictionary<string, VehicleMap> Maps { get; init; }

    /// <summary>What carries the vehicle while it is worked on.</summary>
    public Stand Stands { get; init; }

    /// <summary>How long the engine takes from warm to cold enough to be touched.</summary>
    public TimeSpan CoolsIn { get; init; }

    /// <summary>How long it may be cranked; null where the sheet does not say, as with an engine that has no starter.</summary>
    public StarterLimits? Starter { get; init; }

    /// <summary>What its texts are in other languages: by the language's code, such as <c>de</c>, and then by the text as the sheet has
    /// it.</summary>
    public IReadOnlyDictionary<string, IReadOnlyDictionary<string, string>> Words { get; init; } = OtherTongues.None;

    /// <summary>Whether an access, fluid system, fastener or part of this id is in the sheet.</summary>
    /// <returns>True when one of the four tables has it.</returns>
    public bool Names(ThingId id) => Access.ContainsKey(id) || Fluids.ContainsKey(id) || Fasteners.ContainsKey(id) || Parts.ContainsKey(id);

    /// <summary>Whether it has two wheels: there is no cab to sit in and no bonnet to look under, all of it is beside the person.</summary>
    public bool IsMotorcycle => Maps.Values.Any(m => m.Outline is MapOutline.Motorcycle or MapOutline.MotorcycleSide);

    /// <summary>Make and name.</summary>
    public string FullName => $"{Make} {Name}";

    /// <summary>Lists of inspections that are kept with the model beside its sheet; their jobs and steps are among its own.</summary>
    public IReadOnlyList<OwnList> OwnLists { get; private init; } = [];

    /// <summary>The sheet with own lists beside what the maker says.</summary>
    /// <param name="lists">The lists; one that is there already takes the place of the older.</param>
    /// <returns>The same sheet where there are none.</returns>
    public ModelSheet With(IReadOnlyList<OwnList> lists) => lists.Count == 0 ? this : this with
    {
        OwnLists = [.. OwnLists.ExceptBy(lists.Select(l => l.Id), l => l.Id), .. lists],
        Steps = Together(Steps, lists, l => l.Step),
        Jobs = Together(Jobs, lists, l => l.Job),
        Intervals = Together(Intervals, lists, l => l.Interval),
    };

    private static IReadOnlyDictionary<Ids.Id<T>, TValue> Together<T, TValue>(IReadOnlyDictionary<Ids.Id<T>, TValue> there,
        IReadOnlyList<OwnList> lists, Func<OwnList, TValue> of)
    {
        var all = new Dictionary<Ids.Id<T>, TValue>(there);
        foreach (var list in lists)
            all[list.Id] = of(list);
        return all;
    }
}

/// <summary>How long a starter may turn an engine that does not fire.</summary>
/// <param name="Longest">The longest at a time.</param>
/// <param name="Rest">How long it rests after that.</param>
/// <param name="Tries">So many times, then it cools, and what is primed is primed again.</param>
/// <param name="Cools">How long it cools then.</param>
/// <param name="From">Source.</param>
public sealed record StarterLimits(TimeSpan Longest, TimeSpan Rest, int Tries, TimeSpan Cools, Citation From);

/// <summary>What an engine burns.</summary>
public enum Fuel
{
    /// <summary>Petrol, hybrids with them.</summary>
    Petrol,

    /// <summary>Diesel.</summary>
    Diesel,
}

/// <summary>A grade with the outdoor temperatures between which it is allowed.</summary>
/// <param name="Grade">Such as "SAE 5W-30".</param>
/// <param name="From">Not colder than this; null for no limit.</param>
/// <param name="To">Not hotter than this; null for no limit.</param>
public sealed record GradeRange(string Grade, Temperature? From, Temperature? To);

/// <summary>A variant of the model.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">What tells it apart.</param>
public sealed record Variant(string Id, string Name);

/// <summary>A document or plate that values come from.</summary>
/// <param name="Id">Id.</param>
/// <param name="Title">Title as printed.</param>
/// <param name="ByMaker">Whether the maker of the vehicle issued it.</param>
public sealed record Source(string Id, string Title, bool ByMaker);

/// <summary>Where one value stands.</summary>
/// <param name="Source">The document.</param>
/// <param name="At">Page or place in it.</param>
/// <param name="CheckedBy">How many people compared it with the source.</param>
public sealed record Citation(Source Source, string At, int CheckedBy)
{
    /// <summary>For the page: title, place, and by how many it was checked.</summary>
    public override string ToString() =>
        $"{Source.Title}, {At}, " + CheckedBy switch
        {
            0 => "not checked yet",
            1 => "checked by one",
            2 => "checked by two",
            _ => $"checked by {CheckedBy}",
        };
}

/// <summary>A value and where it comes from.</summary>
/// <typeparam name="T">The kind of value.</typeparam>
/// <param name="Value">The value that holds.</param>
/// <param name="From">Its source.</param>
/// <param name="Disputed">What other sources say instead; empty when none disagrees.</param>
public sealed record Sourced<T>(T Value, Citation From, IReadOnlyList<OtherSaying> Disputed);

/// <summary>What another source says.</summary>
/// <param name="Says">Its value, as printed there.</param>
/// <param name="From">The source.</param>
public sealed record OtherSaying(string Says, Citation From);

/// <summary>Where the person stands.</summary>
public enum Place
{
    /// <summary>In the cab.</summary>
    Cab,

    /// <summary>Above, under the bonnet.</summary>
    Top,

    /// <summary>Beside the vehicle.</summary>
    Side,

    /// <summary>Under the vehicle.</summary>
    Below,
}

/// <summary>Where the lift has to be.</summary>
public enum LiftNeed
{
    /// <summary>Anywhere.</summary>
    Any,

    /// <summary>On the ground.</summary>
    Down,

    /// <summary>Up.</summary>
    Up,
}

/// <summary>What follows from a place.</summary>
public static class Places
{
    /// <summary>Where a lift usually is for work in this place: up below, down in the cab and under the bonnet, anywhere at the
    /// side.</summary>
    public static LiftNeed UsualLift(this Place place) =>
        place switch { Place.Below => LiftNeed.Up, Place.Side => LiftNeed.Any, _ => LiftNeed.Down };
}

/// <summary>What carries the vehicle while it is worked on.</summary>
public enum Stand
{
    /// <summary>A lift: it is raised for what is done below, and lowered for the cab and the engine bay.</summary>
    Lift,

    /// <summary>A stand, ramps or the ground: everything is reached as it stands.</summary>
    Ground,
}

/// <summary>Something that is opened to reach something else, and must be closed again.</summary>
public sealed record Access
{
    /// <summary>Id.</summary>
    public required AccessId Id { get; init; }

    /// <summary>Name with a capital.</summary>
    public required string Name { get; init; }

    /// <summary>Where it is.</summary>
    public required Place Place { get; init; }

    /// <summary>Tool for its fasteners.</summary>
    public required string Tool { get; init; }

    /// <summary>How many fasteners hold it, counted out and in; 0 for none.</summary>
    public required int Count { get; init; }

    /// <summary>What those are called, in the plural.</summary>
    public required string CountOf { get; init; }

    /// <summary>Access that must be open before.</summary>
    public required IReadOnlyList<AccessId> Needs { get; init; }

    /// <summary>It goes back only after the opened joints were looked at with the engine having run.</summary>
    public required bool AfterLeakCheck { get; init; }

    /// <summary>The engine may not run while it is open.</summary>
    public required bool ClosedToRun { get; init; }

    /// <summary>It is part of the intake.</summary>
    public required bool Intake { get; init; }

    /// <summary>Whether it is opened and closed without a tool.</summary>
    public bool IsByHand => Tool.Contains("by hand", StringComparison.Ordinal);

    /// <summary>While it is off there is no current, as with a battery lead.</summary>
    public bool CutsCurrent { get; init; }

    /// <summary>It stays in place while the vehicle is up, as wheel chocks do.</summary>
    public required bool HoldsVehicle { get; init; }

    /// <summary>Where its count and tool come from.</summary>
    public required Citation From { get; init; }

    /// <summary>About how long opening it takes.</summary>
    public TimeSpan Takes { get; init; }

    /// <summary>About how long closing it takes.</summary>
    public TimeSpan TakesBack { get; init; }

    /// <summary>What to do to open it, as a sentence without a full stop; empty for the usual words.</summary>
    public string Off { get; init; } = "";

    /// <summary>What to do to close it; empty for the usual words.</summary>
    public string On { get; init; } = "";

    /// <summary>Lines shown while it is opened and closed.</summary>
    public IReadOnlyList<StepNote> Notes { get; init; } = [];

    /// <summary>Keys of the cautions that apply to it.</summary>
    public IReadOnlyList<string> Cautions { get; init; } = [];
}

/// <summary>How a fluid system is brought to its level.</summary>
public enum FillBy
{
    /// <summary>Between the marks of a dipstick.</summary>
    Dipstick,

    /// <summary>Between the marks of a window.</summary>
    SightGlass,

    /// <summary>By the depth on a marked rod.</summary>
    Rod,

    /// <summary>Between two places on a part inside, such as the run of a chain.</summary>
    Part,

    /// <summary>Until it runs out of the filling hole.</summary>
    Overflow,

    /// <summary>What was measured coming out goes back.</summary>
    MeasuredReturn,

    /// <summary>The book amount, measured out.</summary>
    Book,
}

/// <summary>A fluid system that is drained and filled.</summary>
public sealed record FluidSystem
{
    /// <summary>Id.</summary>
    public required FluidId Id { get; init; }

    /// <summary>Name with a capital.</summary>
    public required string Name { get; init; }

    /// <summary>The amount with filter.</summary>
    public required Sourced<Quantity<Volume>> Amount { get; init; }

    /// <summary>What goes in where it was taken apart and everything inside is dry; null where the sheet has no such amount.</summary>
    public Sourced<Quantity<Volume>>? AfterStrip { get; init; }

    /// <summary>By how much a sum may pass the amount without a word.</summary>
    public required Sourced<Quantity<Volume>> Tolerance { get; init; }

    /// <summary>What a litre of it weighs, at the heat at which it is let out; null where nobody measures it by weight.</summary>
    public Sourced<Quantity<Mass>>? LitreWeighs { get; init; }

    /// <summary>The most that it may use in 1,000 km; null where the maker names none.</summary>
    public Sourced<Quantity<Volume>>? MayUse { get; init; }

    /// <summary>How much fresh fluid may be poured through with the drain plug out, to rinse out the last of the old; null where the sheet
    /// does not allow it.</summary>
    public Sourced<Quantity<Volume>>? Rinse { get; init; }

    /// <summary>How it is brought to its level.</summary>
    public FillBy FillBy { get; init; }

    /// <summary>A pump moves it when the engine runs, so a leak shows only then, and a filter fills only then.</summary>
    public bool Pumped { get; init; }

    /// <summary>It is let out warm, so that it carries its dirt.</summary>
    public bool DrainHot { get; init; }

    /// <summary>Accesses that stay open from draining to filling: filler cap, dipstick.</summary>
    public IReadOnlyList<AccessId> Through { get; init; } = [];

    /// <summary>With less than this the engine may not be started; null for what does not matter to the engine.</summary>
    public Sourced<Quantity<Volume>>? SafeToStart { get; init; }

    /// <summary>What lies between the marks of the gauge; null for what has none.</summary>
    public Sourced<Quantity<Volume>>? BetweenMarks { get; init; }

    /// <summary>What is in, filter included, where it stands at the top mark; null where that is the amount.</summary>
    public Sourced<Quantity<Volume>>? AtTopMark { get; init; }

    /// <summary>How the level is read, such as "warm, on level ground"; null for what has no gauge.</summary>
    public Sourced<string>? Reading { get; init; }

    /// <summary>The marks of the rod, as depths below the filler; null for what is read in another way.</summary>
    public Sourced<RodMarks>? Rod { get; init; }

    /// <summary>The part inside by which it is read, such as "lower run of the chain"; empty for what is read in another way. Its lower
    /// edge is the bottom mark, its upper edge the top mark.</summary>
    public string Part { get; init; } = "";

    /// <summary>What its level is read on, without an article: dipstick, window, rod, or the part.</summary>
    public string Gauge => FillBy switch
    {
        FillBy.SightGlass => "window",
        FillBy.Rod => "rod",
        FillBy.Part => Part,
        _ => "dipstick",
    };

    /// <summary>How long the oil settles after a top-up before the next reading.</summary>
    public TimeSpan SettleAfterPour { get; init; }

    /// <summary>The maker's own target.</summary>
    public required TargetSchool Target { get; init; }

    /// <summary>Viscosity grade or grades that fit, such as SAE 5W-30.</summary>
    public required Sourced<IReadOnlyList<string>> Grades { get; init; }

    /// <summary>Approval codes, any of which fits.</summary>
    public required Sourced<IReadOnlyList<string>> Approvals { get; init; }

    /// <summary>The weather for which each grade is allowed; a grade that is not here is allowed in any.</summary>
    public IReadOnlyList<GradeRange> Climate { get; init; } = [];

    /// <summary>Additives that it must hold, such as LS.</summary>
    public IReadOnlyList<string> Additives { get; init; } = [];

    /// <summary>It must be low in ash, because of a particulate filter.</summary>
    public bool LowAsh { get; init; }
}

/// <summary>A plug, cap or bolt with a tightening of its own.</summary>
public sealed record Fastener
{
    /// <summary>Id.</summary>
    public required FastenerId Id { get; init; }

    /// <summary>Name with a capital.</summary>
    public required string Name { get; init; }

    /// <summary>Metric thread such as M14x1.5, or empty where it has none that is named.</summary>
    public required string Thread { get; init; }

    /// <summary>What the thread is cut into, such as aluminium.</summary>
    public required string Material { get; init; }

    /// <summary>Drive and size, such as "Hex 14".</summary>
    public required string Drive { get; init; }

    /// <summary>How it is tightened.</summary>
    public required Sourced<TighteningSpec> Tightening { get; init; }

    /// <summary>Part id of its seal, or null.</summary>
    public required PartId? Seal { get; init; }

    /// <summary>Parts that are fitted under it before it is tightened.</summary>
    public required IReadOnlyList<PartId> Holds { get; init; }

    /// <summary>What to do after too much.</summary>
    public required OverTorqueRule TooMuch { get; init; }

    /// <summary>Fluid that runs out when it is opened, or null.</summary>
    public required FluidId? Drains { get; init; }

    /// <summary>Access that must be open to reach it.</summary>
    public required IReadOnlyList<AccessId> Needs { get; init; }

    /// <summary>Where it is reached from.</summary>
    public Place Place { get; init; } = Place.Below;

    /// <summary>Where the lift has to be for it, when not where the place says.</summary>
    public LiftNeed? Lift { get; init; }

    /// <summary>About how long it takes to open, and again to close.</summary>
    public TimeSpan Takes { get; init; }

    /// <summary>How many of them, tightened alike; 1 unless several.</summary>
    public int Count { get; init; } = 1;

    /// <summary>The order and the passes in which several are tightened, or empty.</summary>
    public string Order { get; init; } = "";

    /// <summary>Where each of several sits, and in which order and passes they are tightened; null where the sheet does not say.</summary>
    public FastenerGroup? Group { get; init; }

    /// <summary>The crow-foot or extension without which no wrench gets at it; null where a socket does.</summary>
    public CrowFoot? CrowFoot { get; init; }

    /// <summary>The fluid system whose joint it is; null for none.</summary>
    public FluidId? System { get; init; }

    /// <summary>The fluid that is filled through it, or null.</summary>
    public FluidId? Fills { get; init; }

    /// <summary>How long the fluid runs out once it is open, when it drains one.</summary>
    public TimeSpan RunsOut { get; init; }

    /// <summary>What to know while opening or tightening it.</summary>
    public IReadOnlyList<StepNote> Notes { get; init; } = [];

    /// <summary>The warning at its tightening, or empty.</summary>
    public string Warning { get; init; } = "";

    /// <summary>Keys of the cautions that apply to opening it.</summary>
    public IReadOnlyList<string> Cautions { get; init; } = [];

    /// <summary>What runs out when it is opened drips on something hot: a chute or foil goes under it.</summary>
    public bool Drips { get; init; }

    /// <summary>The engine must be cold to open it.</summary>
    public bool Cold { get; init; }

    /// <summary>It holds back what is still running out, as a pan does: it comes off only when nothing runs any more.</summary>
    public bool HoldsBack { get; init; }

    /// <summary>Something runs through it that is no fluid of the sheet, such as fuel.</summary>
    public bool Carries { get; init; }

    /// <summary>Whether it is reached from below: the vehicle is up for it.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool IsUnderneath => (Lift ?? Place.UsualLift()) == LiftNeed.Up;

    /// <summary>Whether it can leak: it is sealed, belongs to a fluid system or carries something else. What was opened of these is
    /// looked at before the vehicle goes.</summary>
    public bool IsJoint => Seal is not null || System is not null || Carries;

    /// <summary>Whether it goes with the old fluid and not before it: it holds a filter, or it is the pan.</summary>
    public bool GoesWithDrain => System is not null && Drains is null && Fills is null && (Holds.Count > 0 || HoldsBack);

    /// <summary>Everything that is done until it is tight.</summary>
    /// <param name="isCheck">It stays in and only its last torque is checked.</param>
    public TighteningPlan Plan(bool isCheck) => TighteningPlan.Of(Tightening.Value, Group ?? FastenerGroup.InARow(Count), isCheck);

    /// <summary>The torque that it has in the end; null where it is tightened by hand or by a turn alone.</summary>
    public ToTorque? LastTorque => Tightening.Value switch
    {
        ToTorque torque => torque,
        InStages stages => stages.Stages.OfType<ToTorque>().LastOrDefault(),
        _ => null,
    };

    /// <summary>The parts that are fitted before it is tightened: its seal and what it holds.</summary>
    public IEnumerable<PartId> Fitted => Seal is { } seal ? [seal, .. Holds] : Holds;

    /// <summary>What it seals with, and what is new where that leaks: its ring or washer, or a filter that carries its own; null where the
    /// metal itself seals.</summary>
    public PartId? SealsWith => Seal ?? (System is not null && Holds.Count == 1 ? Holds[0] : (PartId?)null);

    /// <summary>Whether it is a filter that carries its own seal, and its oil with it.</summary>
    public bool IsSpinOn => Seal is null && SealsWith is not null;

    /// <summary>"is" or "are", as the name asks for.</summary>
    public string Is => IsSeveral ? "are" : "is";

    /// <summary>"was" or "were".</summary>
    public string Was => IsSeveral ? "were" : "was";

    /// <summary>"has" or "have".</summary>
    public string Has => IsSeveral ? "have" : "has";

    private bool IsSeveral => Count > 1 && Name.EndsWith('s');
}

/// <summary>A part with its number.</summary>
public sealed record Part
{
    /// <summary>Id.</summary>
    public required PartId Id { get; init; }

    /// <summary>Name with a capital.</summary>
    public required string Name { get; init; }

    /// <summary>Number as printed.</summary>
    public required Sourced<string> Number { get; init; }

    /// <summary>How often a seal may be used again; null for what is not a seal.</summary>
    public required int? ReusableTimes { get; init; }

    /// <summary>Its shape is to be held against the old one before anything is opened.</summary>
    public bool Compare { get; init; }

    /// <summary>Numbers that also fit but are wrong, with why.</summary>
    public required IReadOnlyDictionary<string, string> WrongButFits { get; init; }

    /// <summary>How much oil goes into a new filter before it is fitted, which can be done where it hangs open side up; null for what is
    /// fitted dry.</summary>
    public Sourced<Quantity<Volume>>? Prefill { get; init; }

    /// <summary>Access that must be open to fit it, when no fastener holds it.</summary>
    public IReadOnlyList<AccessId> Needs { get; init; } = [];

    /// <summary>Where it is fitted, when no fastener holds it.</summary>
    public Place Place { get; init; } = Place.Top;

    /// <summary>About how long fitting it takes.</summary>
    public TimeSpan Takes { get; init; }

    /// <summary>What to do to fit it; empty for the usual words.</summary>
    public string Fitting { get; init; } = "";

    /// <summary>What to know while fitting it.</summary>
    public IReadOnlyList<StepNote> Notes { get; init; } = [];

    /// <summary>Steps that come before it is fitted, wherever both are on a card.</summary>
    public IReadOnlyList<StepId> After { get; init; } = [];

    /// <summary>What is asked as it is fitted; null for nothing.</summary>
    public FitQuestion? Asks { get; init; }

    /// <summary>What the big button says once it is fitted; empty for the usual words.</summary>
    public string Said { get; init; } = "";

    /// <summary>The fastener that it keeps from turning once that is tight, such as a split pin; null for none. Whatever becomes of the
    /// job, it goes in where that fastener was slackened.</summary>
    public FastenerId? Secures { get; init; }

    /// <summary>Whether it is a seal.</summary>
    public bool IsSeal => ReusableTimes is not null;
}

/// <summary>A job: what it works on, and what it does beside.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name with a capital.</param>
/// <param name="WorksOn">Fluids, fasteners and parts it works on.</param>
/// <param name="Steps">Steps of its own, beside the opening, draining, fitting, closing and filling that follow from what it works
/// on.</param>
/// <param name="Parts">Parts it uses up.</param>
/// <param name="Interval">Interval id.</param>
/// <param name="Resets">Indicators to reset afterwards.</param>
/// <param name="Follows">The job after which it is due, once each time, by its interval; null for one that is due by itself.</param>
public sealed record Job(JobId Id, string Name, IReadOnlyList<ThingId> WorksOn, IReadOnlyList<StepId> Steps, IReadOnlyList<PartId> Parts,
    IntervalId Interval, IReadOnlyList<ResetId> Resets, JobId? Follows = null);

/// <summary>Normal and harsh interval with their source.</summary>
/// <param name="Id">Id.</param>
/// <param name="Normal">Normal use.</param>
/// <param name="Harsh">Harsh use.</param>
/// <param name="EveryTime">1 when it is done every time it falls due, 2 every second time, and so on.</param>
/// <param name="From">Source.</param>
/// <param name="Upper">Never longer than this, whatever the dash says; null for no such bound.</param>
/// <param name="Once">Done once in the vehicle's life, as a first check is.</param>
/// <param name="Of">The job whose times are counted, such as the oil service of “every second oil service”; null where only its own
/// interval counts.</param>
public sealed record IntervalRule(IntervalId Id, ServiceInterval Normal, ServiceInterval Harsh, int EveryTime, Citation From,
    ServiceInterval? Upper = null, bool Once = false, JobId? Of = null)
{
    /// <summary>The interval for a use, before it is multiplied by <see cref="EveryTime"/>.</summary>
    public ServiceInterval For(Use use) => use == Use.Harsh ? Harsh : Normal;
}
