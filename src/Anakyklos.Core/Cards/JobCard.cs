using System.Collections.Immutable;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Cards;

/// <summary>
/// A job card: a pure function of its sheet and its events. What has been opened is in <see cref="Open"/> until it is closed; the card can
/// be
/// signed when nothing is. A card is never changed: <see cref="With"/> gives the next one.
/// </summary>
public sealed partial class JobCard
{
    private readonly ImmutableList<Recorded> _history;
    private readonly CardState _state;
    private SheetStep? _next;

    private JobCard(ModelSheet sheet, CardOpened opened, ImmutableList<Recorded> history)
    {
        (Sheet, Opened, _history) = (sheet.With(opened.OwnLists ?? []), opened, history);
        _state = new()
        {
            Plan = opened.Steps,
            Steps = opened.Steps.ToImmutableDictionary(s => s.Id, _ => new StepState(StepStatus.Waiting, null)),
            Open = [.. opened.Steps.Where(s => s.EndsReset)
                .Select(s => new OpenItem(new(OpenKind.Indicator, s.What), sheet.Resets[s.What].Name, "lit", s.Id, 1))],
        };
    }

    private JobCard(JobCard before, CardState state, bool workChanged)
    {
        (Sheet, Opened, _history, _state) = (before.Sheet, before.Opened, before._history, state);
        _work = workChanged ? null : before._work;
    }

    private JobCard(JobCard before, ImmutableList<Recorded> history) =>
        (Sheet, Opened, _history, _state, _work) = (before.Sheet, before.Opened, history, before._state, before._work);

    /// <summary>The sheet in the revision the card was opened with.</summary>
    public ModelSheet Sheet { get; }

    /// <summary>How it was opened.</summary>
    public CardOpened Opened { get; }

    /// <summary>Everything that happened, in order.</summary>
    public IReadOnlyList<Recorded> History => _history;

    /// <summary>The steps in plan order.</summary>
    public IReadOnlyList<SheetStep> Steps => _state.Plan;

    /// <summary>What is still open, in the order it was opened.</summary>
    public IReadOnlyList<OpenItem> Open => [.. _state.Open.OrderBy(o => o.Since)];

    /// <summary>Waits that were started and not cut, whether over or not.</summary>
    public IReadOnlyCollection<RunningWait> Waits => _state.Waits;

    /// <summary>What strayed from the book.</summary>
    public IReadOnlyList<Noted<DeviationTaken>> Deviations => _state.Deviations;

    /// <summary>What was seen.</summary>
    public IReadOnlyList<Noted<FindingNoted>> Findings => _state.Findings;

    /// <summary>Jobs that were given up, with why.</summary>
    public IEnumerable<Noted<JobDropped>> Dropped => _state.Dropped.Values.OrderBy(d => d.Seq);

    /// <summary>The jobs that are to be done: those it was opened with, less those that were given up.</summary>
    public IReadOnlyList<JobId> Jobs => [.. Opened.Jobs.Where(j => !_state.Dropped.ContainsKey(j))];

    /// <summary>Whether the vehicle is up on the lift.</summary>
    public bool LiftUp => _state.LiftUp;

    /// <summary>Whether the engine runs.</summary>
    public bool EngineRuns => _state.EngineRuns;

    /// <summary>The kit as it was laid out, or null.</summary>
    public KitConfirmed? Kit => _state.Kit;

    /// <summary>What the card waits for before its kit can be laid out; empty when it waits for nothing.</summary>
    public IReadOnlyList<PartAwaited> Awaited => _state.Awaited;

    /// <summary>The signature, or null while the card is open.</summary>
    public Recorded? Signature => _state.Signature;

    /// <summary>What made the card void, or null.</summary>
    public Recorded? Voided => _state.Voided;

    /// <summary>What ended the card, a signature or its being made void; null while it is open.</summary>
    public Recorded? Ended => Signature ?? Voided;

    /// <summary>How often the dipstick was read or oil poured, by fluid.</summary>
    /// <returns>What the card knows of it; untouched where nothing was done to it, also for an id that the sheet does not have.</returns>
    public FluidState Fluid(FluidId id) => _state.Fluids.GetValueOrDefault(id) ?? FluidState.Untouched;

    /// <summary>How a step stands.</summary>
    /// <returns>How the step stands.</returns>
    /// <exception cref="KeyNotFoundException">The card has no such step.</exception>
    public StepState State(StepId step) => _state.Steps[step];

    /// <summary>The step with this id, or null.</summary>
    /// <returns>The step, or null when the card has none of this id.</returns>
    public SheetStep? Step(StepId id) => Steps.FirstOrDefault(s => s.Id == id);

    /// <summary>Whether a part was fitted and what holds it was not opened since.</summary>
    public bool IsFitted(PartId part) => _state.Fitted.Contains(part);

    /// <summary>Whether something is open.</summary>
    public bool IsOpen(OpenRef what) => _state.Open.Any(o => o.What == what);

    /// <summary>Whether somebody put a second name to this deviation.</summary>
    public bool IsCountersigned(int seq) => _state.Countersigned.Contains(seq);

    /// <summary>What the lead decided about a finding graded stop, or null.</summary>
    /// <returns>The decision, or null while there is none.</returns>
    public Noted<StopDecided>? DecisionOn(int finding) => _state.Decided.GetValueOrDefault(finding);

    /// <summary>Whether the step stands still after too much torque.</summary>
    public bool IsOverTorqued(StepId step) => _state.StandStill.Contains(step);

    /// <summary>The fasteners of a step that were drawn down so far, by pass.</summary>
    internal IReadOnlySet<PlaceDrawn> DrawnAt(StepId step) => DrawnAt(_state, step);

    /// <summary>The wrench that somebody took for a step; null where nobody took another than the card says.</summary>
    internal WrenchTakenUp? InHand(StepId step) => _state.InHand.GetValueOrDefault(step);

    /// <summary>
    /// What the hands do next: the first step in the order that is not done and that nothing but a wait stands in the way of. When
    /// something stands in the way of all of them, the first of them, which says what; a vehicle that is up in the way of a step that is
    /// not done on the ground alone comes down first. Null when all is done.
    /// </summary>
    public SheetStep? Next => _next ??= Remaining.FirstOrDefault(IsUnderWay)
        ?? Remaining.FirstOrDefault(s => CanBegin(s) && (!s.MovesLift || IsWorthMoving(s)))
        ?? (LiftUp && Remaining.FirstOrDefault()?.Lift == LiftNeed.Any ? Remaining.FirstOrDefault(s => ComesDown(s) && CanBegin(s)) : null)
        ?? Remaining.FirstOrDefault();

    private static bool ComesDown(SheetStep step) => step.Traits.Lift is LiftMove.ReadyToLower or LiftMove.Lowers;

    /// <summary>The step that would close an open item, or null when none of those left does.</summary>
    /// <returns>The step, or null when nothing that is left closes it.</returns>
    public SheetStep? Closing(OpenItem item) => Remaining.FirstOrDefault(s => item.Kind switch
    {
        OpenKind.Lift => s.Traits.Lift == LiftMove.Lowers,
        OpenKind.Engine => s.Traits.Engine == EngineUse.Stops,
        OpenKind.Access => s.Traits.Closes && s.What == item.Id,
        OpenKind.Fastener => s.Traits.Fastens && s.What == item.Id,
        OpenKind.Fluid => s.Traits is { Fills: true } or { Levels: true } or { MeasuresOut: true } && s.What == item.Id,
        OpenKind.Indicator => s.Traits.PutsOut && s.What == item.Id,
        _ => throw new InvalidOperationException($"Nobody has said what closes a {item.Kind}."),
    });

    /// <summary>Steps that must still be done, in plan order.</summary>
    public IEnumerable<SheetStep> Remaining => Steps.Where(s => IsLeft(s.Id));

    /// <summary>Deviations that still need a second name.</summary>
    public IEnumerable<int> WantingCountersignature => _state.Deviations.Where(d => d.Event.NeedsCountersignature
        && !IsCountersigned(d.Seq)).Select(d => d.Seq);

    /// <summary>Findings graded stop about which the lead has not decided: nothing starts, drives or is signed until then.</summary>
    public IEnumerable<Noted<FindingNoted>> Stops => _state.Stops.Where(f => DecisionOn(f.Seq) is null);

    /// <summary>How a fluid of this card is filled, with the card's school.</summary>
    /// <returns>The fill, with the school of the workshop where the card was opened with one.</returns>
    /// <exception cref="KeyNotFoundException">The sheet has no such fluid.</exception>
    public DipstickFill FillOf(FluidId fluid)
    {
        var f = Sheet.Fluids[fluid];
        var between = f.BetweenMarks ?? throw new ArgumentException($"{f.Name} has no gauge.", nameof(fluid));
        return new(BookOf(fluid), between.Value, f.Tolerance.Value, Opened.School ?? f.Target, Opened.Stages, f.AtTopMark?.Value);
    }

    /// <summary>What was laid out for a fluid, or null.</summary>
    /// <param name="fluid">Fluid id.</param>
    /// <returns>What was laid out, or null before the kit was confirmed.</returns>
    public KitOil? OilInHand(FluidId fluid) => Kit?.Oils.GetValueOrDefault(fluid);

    /// <summary>Whether the first pour aims at the marks of a gauge; otherwise at an amount.</summary>
    /// <param name="fluid">Fluid id.</param>
    public bool FillsByMarks(FluidId fluid) => Sheet.Fluids[fluid].FillBy
        is FillBy.Dipstick or FillBy.SightGlass or FillBy.Rod or FillBy.Part;

    /// <summary>
    /// What the filling step should bring in all: the first pour by marks, what came out but no more than the book, or the book amount;
    /// never less than the engine may start with.
    /// </summary>
    /// <param name="fluid">Fluid id.</param>
    /// <returns>Where what came out was not measured yet, the amount of the sheet.</returns>
    public Quantity<Volume> Wanted(FluidId fluid)
    {
        var system = Sheet.Fluids[fluid];
        var wanted = FillsByMarks(fluid) ? FillOf(fluid).FirstPour
            : system.FillBy == FillBy.MeasuredReturn && Fluid(fluid).CameOut is { } came && came < system.Amount.Value ? came
            : BookOf(fluid);
        return system.SafeToStart?.Value is { } safe && safe > wanted ? safe : wanted;
    }

    /// <summary>Whether a part that is fitted can be filled now before it goes in: it can be filled at all, the old fluid is out, and
    /// nothing is in it yet.</summary>
    /// <param name="step">A step of this card.</param>
    public bool MayFillFirst(SheetStep step) => step.Traits.Fits && Sheet.Pours(step) is { } fluid
        && Fluid(fluid.Id) is { Out: true } state && state.InPart == Quantity<Volume>.Zero;

    /// <summary>What the book has a fluid take: its amount, or the one after a full strip where somebody said that it is dry
    /// inside.</summary>
    /// <param name="fluid">Fluid id.</param>
    public Quantity<Volume> BookOf(FluidId fluid) =>
        (Fluid(fluid).Stripped ? Sheet.Fluids[fluid].AfterStrip : null)?.Value ?? Sheet.Fluids[fluid].Amount.Value;

    /// <summary>The fluids that this card lets out, in plan order.</summary>
    public IEnumerable<FluidSystem> FluidsDrained => PanPlan.Drained(Sheet, Steps);

    /// <summary>Rebuilds a card from its events.</summary>
    /// <param name="sheet">The sheet revision named in the first event.</param>
    /// <param name="history">All events in order; the first is <see cref="CardOpened"/>.</param>
    /// <returns>The card as it stands after the last event.</returns>
    /// <exception cref="InvalidOperationException">An event means nothing to this program.</exception>
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
        return new(card, history.Where(r => !taken.Contains(r.Seq)).Aggregate(card._state, card.Fold), true);
    }

    /// <summary>The card after more events.</summary>
    /// <param name="more">The events that follow the last one.</param>
    /// <returns>A new card; this one stays as it is.</returns>
    /// <exception cref="InvalidOperationException">An event means nothing to this program.</exception>
    /// <exception cref="ArgumentException">One of them does not follow the one before it.</exception>
    public JobCard With(IReadOnlyList<Recorded> more)
    {
        // Only what was taken back changes the meaning of earlier events; all else goes on from where the card stands.
        if (more.Any(r => r.Event is TakenBack))
            return Replay(Sheet, [.. _history, .. more]);
        var (state, history) = (_state, _history);
        foreach (var recorded in more)
        {
            if (recorded.Seq != history.Count + 1)
                throw new ArgumentException($"Event {history.Count + 1} is missing.", nameof(more));
            history = history.Add(recorded);
            state = Fold(state, recorded);
        }
        return new(new JobCard(this, history), state, more.Any(r => r.Event is JobDropped));
    }

    internal bool IsLeft(StepId step) => State(step).Status is StepStatus.Waiting or StepStatus.Aside;

    internal SheetStep Known(StepId id) => Step(id) ?? throw new ArgumentException($"The card has no step {id}.");

    internal bool HasOpen(Access a) => IsOpen(new(OpenKind.Access, a.Id));

    internal bool HasOpen(Fastener f) => IsOpen(new(OpenKind.Fastener, f.Id));

    /// <summary>Whether it is out of its place: open, and none of it run in again.</summary>
    internal bool IsOut(Fastener f) => HasOpen(f) && !Steps.Any(s => s.Traits.Tightens && s.What == f.Id && DrawnAt(s.Id).Count > 0);
}
