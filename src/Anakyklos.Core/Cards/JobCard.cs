using System.Collections.Immutable;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Cards;

/// <summary>
/// A job card: a pure function of its sheet and its events. What has been opened is in <see cref="Open"/> until it is closed; the card can be
/// signed when nothing is. A card is never changed: <see cref="With"/> gives the next one.
/// </summary>
public sealed partial class JobCard
{
    private ImmutableList<Recorded> _history;
    private readonly Dictionary<string, StepState> _steps = [];
    private readonly Dictionary<OpenRef, OpenItem> _open = [];
    private readonly Dictionary<string, RunningWait> _waits = [];
    private readonly HashSet<string> _fitted = [];
    private readonly Dictionary<string, FluidState> _fluids = [];
    private readonly Dictionary<string, int> _closedAt = [];
    private ImmutableList<Noted<DeviationTaken>> _deviations = [];
    private ImmutableList<Noted<FindingNoted>> _findings = [];
    private ImmutableDictionary<int, Noted<StopDecided>> _decided = ImmutableDictionary<int, Noted<StopDecided>>.Empty;
    private ImmutableDictionary<string, Noted<JobDropped>> _dropped = ImmutableDictionary<string, Noted<JobDropped>>.Empty;
    private readonly List<PartAwaited> _awaited = [];
    private readonly HashSet<int> _countersigned = [];
    private readonly HashSet<int> _mended = [];
    private readonly HashSet<string> _overTorqued = [];
    private IReadOnlyList<SheetStep> _plan;
    private DateTimeOffset? _hotAt;
    private int _ranAt;
    private int _lookedAt;
    private SheetStep? _next;

    private JobCard(ModelSheet sheet, CardOpened opened, ImmutableList<Recorded> history)
    {
        Sheet = sheet;
        Opened = opened;
        _history = history;
        _plan = opened.Steps;
        foreach (var step in opened.Steps)
            _steps[step.Id] = new(StepStatus.Waiting, null);
        foreach (var step in opened.Steps.Where(s => s.EndsReset))
            OpenUp(new(OpenKind.Indicator, step.What), sheet.Resets[step.What].Name, "lit", step.Id, 1);
    }

    private JobCard(JobCard from)
    {
        (Sheet, Opened, _history) = (from.Sheet, from.Opened, from._history);
        (_steps, _open, _waits, _fluids, _closedAt) = (new(from._steps), new(from._open), new(from._waits), new(from._fluids), new(from._closedAt));
        (_fitted, _countersigned, _mended, _overTorqued) = ([.. from._fitted], [.. from._countersigned], [.. from._mended],
            [.. from._overTorqued]);
        (_deviations, _findings, _decided, _dropped, _awaited) = (from._deviations, from._findings, from._decided, from._dropped,
            [.. from._awaited]);
        (_plan, _hotAt, _work) = (from._plan, from._hotAt, from._work);
        (_ranAt, _lookedAt, LiftUp, EngineRuns) = (from._ranAt, from._lookedAt, from.LiftUp, from.EngineRuns);
        (Kit, Signature, Voided) = (from.Kit, from.Signature, from.Voided);
    }

    /// <summary>The sheet in the revision the card was opened with.</summary>
    public ModelSheet Sheet { get; }

    /// <summary>How it was opened.</summary>
    public CardOpened Opened { get; }

    /// <summary>Everything that happened, in order.</summary>
    public IReadOnlyList<Recorded> History => _history;

    /// <summary>The steps in plan order.</summary>
    public IReadOnlyList<SheetStep> Steps => _plan;

    /// <summary>What is still open, in the order it was opened.</summary>
    public IReadOnlyList<OpenItem> Open => [.. _open.Values.OrderBy(o => o.Since)];

    /// <summary>Waits that were started and not cut, whether over or not.</summary>
    public IReadOnlyCollection<RunningWait> Waits => _waits.Values;

    /// <summary>What strayed from the book.</summary>
    public IReadOnlyList<Noted<DeviationTaken>> Deviations => _deviations;

    /// <summary>What was seen.</summary>
    public IReadOnlyList<Noted<FindingNoted>> Findings => _findings;

    /// <summary>Jobs that were given up, with why.</summary>
    public IEnumerable<Noted<JobDropped>> Dropped => _dropped.Values.OrderBy(d => d.Seq);

    /// <summary>The jobs that are to be done: those it was opened with, less those that were given up.</summary>
    public IReadOnlyList<string> Jobs => [.. Opened.Jobs.Where(j => !_dropped.ContainsKey(j))];

    /// <summary>Whether the vehicle is up on the lift.</summary>
    public bool LiftUp { get; private set; }

    /// <summary>Whether the engine runs.</summary>
    public bool EngineRuns { get; private set; }

    /// <summary>The kit as it was laid out, or null.</summary>
    public KitConfirmed? Kit { get; private set; }

    /// <summary>What the card waits for before its kit can be laid out; empty when it waits for nothing.</summary>
    public IReadOnlyList<PartAwaited> Awaited => _awaited;

    /// <summary>The signature, or null while the card is open.</summary>
    public Recorded? Signature { get; private set; }

    /// <summary>What made the card void, or null.</summary>
    public Recorded? Voided { get; private set; }

    /// <summary>What ended the card, a signature or its being made void; null while it is open.</summary>
    public Recorded? Ended => Signature ?? Voided;

    /// <summary>How often the dipstick was read or oil poured, by fluid.</summary>
    public FluidState Fluid(string id) => _fluids.GetValueOrDefault(id) ?? FluidState.Untouched;

    /// <summary>How a step stands.</summary>
    /// <exception cref="KeyNotFoundException">The card has no such step.</exception>
    public StepState State(string step) => _steps[step];

    /// <summary>The step with this id, or null.</summary>
    public SheetStep? Step(string id) => Steps.FirstOrDefault(s => s.Id == id);

    /// <summary>Whether a part was fitted and what holds it was not opened since.</summary>
    public bool IsFitted(string part) => _fitted.Contains(part);

    /// <summary>Whether something is open.</summary>
    public bool IsOpen(OpenRef what) => _open.ContainsKey(what);

    /// <summary>Whether somebody put a second name to this deviation.</summary>
    public bool IsCountersigned(int seq) => _countersigned.Contains(seq);

    /// <summary>What the lead decided about a finding graded stop, or null.</summary>
    public Noted<StopDecided>? DecisionOn(int finding) => _decided.GetValueOrDefault(finding);

    /// <summary>Whether the step stands still after too much torque.</summary>
    public bool IsOverTorqued(string step) => _overTorqued.Contains(step);

    /// <summary>
    /// What the hands do next: the first step in the order that is not done and that nothing but a wait stands in the way of. When
    /// something stands in the way of all of them, the first of them; it says what. Null when all is done.
    /// </summary>
    public SheetStep? Next => _next ??= Remaining.FirstOrDefault(s => CanBegin(s)
        && (!s.MovesLift || IsWorthMoving(s))) ?? Remaining.FirstOrDefault();

    /// <summary>The step that would close an open item, or null when none of those left does.</summary>
    public SheetStep? Closing(OpenItem item) => item.Kind switch
    {
        OpenKind.Lift => Remaining.FirstOrDefault(s => s.Kind == StepKind.Lower),
        OpenKind.Engine => Remaining.FirstOrDefault(s => s.Kind == StepKind.Settle),
        OpenKind.Access => Remaining.FirstOrDefault(s => s.Kind == StepKind.Close && s.What == item.Id),
        OpenKind.Fastener => Remaining.FirstOrDefault(s => s.Kind == StepKind.Tighten && s.What == item.Id),
        OpenKind.Fluid => Remaining.FirstOrDefault(s => s.Kind is StepKind.Pour or StepKind.Gauge or StepKind.Measure && s.What == item.Id),
        _ => Remaining.FirstOrDefault(s => s.Kind == StepKind.Reset && s.What == item.Id),
    };

    /// <summary>Steps that must still be done, in plan order.</summary>
    public IEnumerable<SheetStep> Remaining => Steps.Where(s => IsLeft(s.Id));

    /// <summary>Deviations that still need a second name.</summary>
    public IEnumerable<int> WantingCountersignature => _deviations.Where(d => d.Event.NeedsCountersignature
        && !_countersigned.Contains(d.Seq)).Select(d => d.Seq);

    /// <summary>Findings graded stop about which the lead has not decided: nothing starts, drives or is signed until then.</summary>
    public IEnumerable<Noted<FindingNoted>> Stops => _findings.Where(f => f.Event.Grade == FindingGrade.Stop
        && !_decided.ContainsKey(f.Seq));

    /// <summary>How a fluid of this card is filled, with the card's school.</summary>
    public DipstickFill FillOf(string fluid)
    {
        var f = Sheet.Fluids[fluid];
        var between = f.BetweenMarks ?? throw new ArgumentException($"{f.Name} has no gauge.", nameof(fluid));
        return new(f.Amount.Value, between.Value, f.Tolerance.Value, Opened.School ?? f.Target);
    }

    /// <summary>What was laid out for a fluid, or null.</summary>
    /// <param name="fluid">Fluid id.</param>
    public KitOil? OilInHand(string fluid) => Kit?.Oils.GetValueOrDefault(fluid);

    /// <summary>Whether the first pour aims at the marks of a gauge; otherwise at an amount.</summary>
    /// <param name="fluid">Fluid id.</param>
    public bool FillsByMarks(string fluid) => Sheet.Fluids[fluid].FillBy is FillBy.Dipstick or FillBy.SightGlass or FillBy.Rod;

    /// <summary>What the filling step should bring in all: the first pour by marks, what came out, or the book amount.</summary>
    /// <param name="fluid">Fluid id.</param>
    public Quantity<Volume> Wanted(string fluid) => FillsByMarks(fluid) ? FillOf(fluid).FirstPour
        : Sheet.Fluids[fluid].FillBy == FillBy.MeasuredReturn ? Fluid(fluid).CameOut ?? Sheet.Fluids[fluid].Amount.Value
        : Sheet.Fluids[fluid].Amount.Value;

    /// <summary>The fluids that this card lets out, in plan order.</summary>
    public IEnumerable<FluidSystem> FluidsDrained => PanPlan.Drained(Sheet, Steps);

    /// <summary>Rebuilds a card from its events.</summary>
    /// <param name="sheet">The sheet revision named in the first event.</param>
    /// <param name="history">All events in order; the first is <see cref="CardOpened"/>.</param>
    /// <exception cref="ArgumentException">The history is empty, does not begin with the opening, or has a gap.</exception>
    public static JobCard Replay(ModelSheet sheet, IReadOnlyList<Recorded> history)
    {
        if (history.Count == 0 || history[0].Event is not CardOpened opened)
            throw new ArgumentException("A card begins with its opening.", nameof(history));
        for (var i = 0; i < history.Count; i++)
            if (history[i].Seq != i + 1)
                throw new ArgumentException($"Event {i + 1} is missing.", nameof(history));
        var taken = TakenIn(history);
        var card = new JobCard(sheet, opened, [.. history]);
        foreach (var recorded in history)
            if (!taken.Contains(recorded.Seq))
                card.Apply(recorded);
        return card;
    }

    /// <summary>The card after more events.</summary>
    /// <param name="more">The events that follow the last one.</param>
    public JobCard With(IReadOnlyList<Recorded> more)
    {
        // Only what was taken back changes the meaning of earlier events; all else goes on from where the card stands.
        if (more.Any(r => r.Event is TakenBack))
            return Replay(Sheet, [.. _history, .. more]);
        var next = new JobCard(this);
        foreach (var recorded in more)
        {
            if (recorded.Seq != next._history.Count + 1)
                throw new ArgumentException($"Event {next._history.Count + 1} is missing.", nameof(more));
            next._history = next._history.Add(recorded);
            next.Apply(recorded);
        }
        return next;
    }

    private bool IsLeft(string step) => _steps[step].Status is StepStatus.Waiting or StepStatus.Aside;

    private SheetStep Known(string id) => Step(id) ?? throw new ArgumentException($"The card has no step {id}.");

    private bool HasOpen(Access a) => _open.ContainsKey(new(OpenKind.Access, a.Id));

    private bool HasOpen(Fastener f) => _open.ContainsKey(new(OpenKind.Fastener, f.Id));
}
