using System.Collections.Immutable;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Cards;

/// <summary>
/// A job card: a pure function of its sheet and its events. What has been opened is in <see cref="Open"/> until it is closed; the card can be
/// signed when nothing is. A card is never changed: <see cref="With"/> gives the next one.
/// </summary>
public sealed partial class JobCard
{
    private ImmutableList<Recorded> _history;
    private readonly Dictionary<string, StepState> _steps = [];
    private readonly Dictionary<string, OpenItem> _open = [];
    private readonly Dictionary<string, RunningWait> _waits = [];
    private readonly HashSet<string> _fitted = [];
    private readonly Dictionary<string, FluidState> _fluids = [];
    private readonly Dictionary<string, int> _closedAt = [];
    private ImmutableList<Noted<DeviationTaken>> _deviations = [];
    private ImmutableList<Noted<FindingNoted>> _findings = [];
    private readonly List<PartAwaited> _awaited = [];
    private readonly HashSet<int> _countersigned = [];
    private readonly HashSet<string> _overTorqued = [];
    private IReadOnlyList<SheetStep> _plan;
    private DateTimeOffset? _hotAt;
    private int _ranAt;
    private int _lookedAt;

    private JobCard(ModelSheet sheet, CardOpened opened, ImmutableList<Recorded> history)
    {
        Sheet = sheet;
        Opened = opened;
        _history = history;
        _plan = opened.Steps;
        foreach (var step in opened.Steps)
            _steps[step.Id] = new(StepStatus.Waiting, null);
        foreach (var step in opened.Steps.Where(s => s.EndsReset))
            _open[step.What] = new(step.What, sheet.Resets[step.What].Name, "lit", step.Id, 1);
    }

    private JobCard(JobCard from)
    {
        (Sheet, Opened, _history) = (from.Sheet, from.Opened, from._history);
        (_steps, _open, _waits, _fluids, _closedAt) = (new(from._steps), new(from._open), new(from._waits), new(from._fluids), new(from._closedAt));
        (_fitted, _countersigned, _overTorqued) = ([.. from._fitted], [.. from._countersigned], [.. from._overTorqued]);
        (_deviations, _findings, _awaited) = (from._deviations, from._findings, [.. from._awaited]);
        (_plan, _hotAt, _work) = (from._plan, from._hotAt, from._work);
        (_ranAt, _lookedAt, LiftUp, EngineRuns, Kit, Signature) = (from._ranAt, from._lookedAt, from.LiftUp, from.EngineRuns, from.Kit, from.Signature);
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

    /// <summary>How often the dipstick was read or oil poured, by fluid.</summary>
    public FluidState Fluid(string id) => _fluids.GetValueOrDefault(id) ?? FluidState.Untouched;

    /// <summary>How a step stands.</summary>
    /// <exception cref="KeyNotFoundException">The card has no such step.</exception>
    public StepState State(string step) => _steps[step];

    /// <summary>The step with this id, or null.</summary>
    public SheetStep? Step(string id) => Steps.FirstOrDefault(s => s.Id == id);

    /// <summary>Whether somebody put a second name to this deviation or finding.</summary>
    public bool IsCountersigned(int seq) => _countersigned.Contains(seq);

    /// <summary>Whether the step stands still after too much torque.</summary>
    public bool IsOverTorqued(string step) => _overTorqued.Contains(step);

    /// <summary>What the hands do next: the first step not done, those left for later last. Null when all is done.</summary>
    public SheetStep? Next => Steps.FirstOrDefault(s => _steps[s.Id].Status == StepStatus.Waiting) ?? Steps.FirstOrDefault(s => _steps[s.Id].Status == StepStatus.Aside);

    /// <summary>The step that would close an open item, or null when none of those left does.</summary>
    public SheetStep? Closing(OpenItem item) => FirstOpen(s => s.What == item.Id && s.Kind is not (StepKind.Open or StepKind.Drain or StepKind.Secure)) is { } id ? Known(id)
        : item.Id == "lift" ? Remaining.FirstOrDefault(s => s.Kind == StepKind.Lower) : null;

    /// <summary>Steps that must still be done, in plan order.</summary>
    public IEnumerable<SheetStep> Remaining => Steps.Where(s => _steps[s.Id].Status is StepStatus.Waiting or StepStatus.Aside);

    /// <summary>Deviations and stops that still need a second name.</summary>
    public IEnumerable<int> WantingCountersignature =>
        _deviations.Where(d => d.Event.NeedsCountersignature).Select(d => d.Seq)
            .Concat(_findings.Where(f => f.Event.Grade == FindingGrade.Stop).Select(f => f.Seq))
            .Where(seq => !_countersigned.Contains(seq));

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
        var taken = history.Select(h => h.Event).OfType<TakenBack>().SelectMany(t => Enumerable.Range(t.From, t.To - t.From + 1)).ToHashSet();
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

    private void Apply(Recorded r)
    {
        switch (r.Event)
        {
            case KitConfirmed e:
                Kit = e;
                _awaited.Clear();
                // A kit laid out again replaces the one before, with what strayed in it.
                _deviations = _deviations.RemoveAll(d => d.Event.Step == e.Step && d.Recorded.Command != r.Command);
                Done(e.Step, r);
                break;
            case StepDone e:
                ApplyStep(Known(e.Step), e, r);
                break;
            case ReadingTaken e:
                ApplyReading(e, r);
                break;
            case OverTorqueSettled e:
                _overTorqued.Remove(e.Step);
                break;
            case Poured e:
                ChangeAmount(e.Step, e.Amount.Value, r);
                break;
            case TakenOut e:
                ChangeAmount(e.Step, Quantity<Volume>.Zero - e.Amount.Value, r);
                break;
            case GaugeRead e:
                ApplyGauge(e, r);
                break;
            case Measured e:
                _fluids[Known(e.Step).What] = Fluid(Known(e.Step).What) with { CameOut = e.Amount.Value };
                Done(e.Step, r);
                break;
            case PlanChanged e:
                ChangePlan(e);
                break;
            case PartAwaited e:
                _awaited.RemoveAll(a => PartNumber.Same(a.Number, e.Number));
                _awaited.Add(e);
                break;
            case PartCame e:
                _awaited.RemoveAll(a => PartNumber.Same(a.Number, e.Number));
                break;
            case WaitCut e:
                _waits.Remove(e.Wait);
                break;
            case StepPutAside e:
                _steps[e.Step] = new(StepStatus.Aside, r, e.Reason);
                break;
            case DeviationTaken e:
                _deviations = _deviations.Add(new(r.Seq, r, e));
                ApplyDeviation(e, r);
                break;
            case Countersigned e:
                _countersigned.Add(e.Of);
                break;
            case FindingNoted e:
                _findings = _findings.Add(new(r.Seq, r, e));
                break;
            case LeakFound e:
                ApplyLeak(e, r);
                break;
            case ResetFailed e:
                foreach (var move in Steps.Where(s => s.Kind == StepKind.Reset && s.What == Known(e.Step).What))
                    _steps[move.Id] = new(StepStatus.Waiting, null);
                break;
            case LiftMoved e:
                MoveTo(e.Up, r);
                break;
            case Signed:
                Signature = r;
                break;
        }
    }

    private SheetStep Known(string id) => Step(id) ?? throw new ArgumentException($"The card has no step {id}.");

    private void Done(string step, Recorded r)
    {
        _steps[step] = new(StepStatus.Done, r);
        if (Known(step).Wait is { } wait)
            _waits[step] = new(step, wait.For, r.At, r.At + wait.Lasts);
    }

    private void ChangePlan(PlanChanged e)
    {
        foreach (var gone in _plan.Where(s => e.Steps.All(n => n.Id != s.Id)))
            _steps.Remove(gone.Id);
        foreach (var step in e.Steps)
            _steps.TryAdd(step.Id, new(StepStatus.Waiting, null));
        _plan = e.Steps;
    }

    private void ApplyStep(SheetStep step, StepDone e, Recorded r)
    {
        Done(step.Id, r);
        switch (step.Kind)
        {
            case StepKind.Raise or StepKind.Lower:
                MoveTo(step.Kind == StepKind.Raise, r);
                break;
            case StepKind.Secure or StepKind.Open or StepKind.Drain when step.What.Length > 0:
                OpenUp(step, e, r);
                break;
            case StepKind.Close:
                _open.Remove(step.What);
                break;
            case StepKind.Fit:
                _fitted.Add(step.What);
                break;
            case StepKind.Tighten:
                Shut(step.What, r);
                break;
            case StepKind.Warm:
                _hotAt = r.At;
                break;
            case StepKind.Run:
                _hotAt = r.At;
                EngineRuns = true;
                _ranAt = r.Seq;
                _open["engine"] = new("engine", "Engine running", "until it is switched off", step.Id, r.Seq);
                break;
            case StepKind.Settle:
                EngineRuns = false;
                _open.Remove("engine");
                break;
            case StepKind.Look:
                _lookedAt = r.Seq;
                break;
            case StepKind.Reset when step.EndsReset:
                _open.Remove(step.What);
                break;
        }
    }

    private void OpenUp(SheetStep step, StepDone e, Recorded r)
    {
        if (Sheet.Access.TryGetValue(step.What, out var access))
        {
            var detail = access.Count > 0 ? $"{e.Count ?? access.Count} {access.CountOf} out" : "";
            _open[access.Id] = new(access.Id, access.Name, access.HoldsVehicle ? "in place" : detail, step.Id, r.Seq, e.Count ?? access.Count);
            return;
        }
        var fastener = Sheet.Fasteners[step.What];
        _open[fastener.Id] = new(fastener.Id, fastener.Name, fastener.Seal is { } seal ? SealDetail(seal) : "", step.Id, r.Seq);
        _closedAt.Remove(fastener.Id);
        foreach (var part in PartsOf(fastener))
            _fitted.Remove(part);
        if (fastener.Drains is not { } fluid)
            return;
        _fluids[fluid] = FluidState.Untouched with { Out = true };
        _open[fluid] = new(fluid, Sheet.Fluids[fluid].Name, "not at the mark", step.Id, r.Seq);
    }

    private string SealDetail(string seal) =>
        _deviations.Any(d => d.Event.Kind == DeviationKind.OldSealAgain && d.Event.Part == seal) ? "old seal again" : "new seal";

    internal static IEnumerable<string> PartsOf(Fastener f) => f.Seal is null ? f.Holds : [f.Seal, .. f.Holds];

    private void Shut(string fastener, Recorded r)
    {
        _open.Remove(fastener);
        _closedAt[fastener] = r.Seq;
    }

    private void ApplyReading(ReadingTaken e, Recorded r)
    {
        var step = Known(e.Step);
        if (e.Outcome == TorqueOutcome.Passes)
        {
            _overTorqued.Remove(e.Step);
            if (_steps[e.Step].Status != StepStatus.Done)
            {
                Done(e.Step, r);
                if (step.Kind == StepKind.Tighten)
                    Shut(step.What, r);
            }
            return;
        }
        if (e.Outcome == TorqueOutcome.TooMuch)
            _overTorqued.Add(e.Step);
        if (_steps[e.Step].Status == StepStatus.Done)
            Reopen(step, "the reading was put right and does not pass", r);
    }

    private void Reopen(SheetStep tighten, string why, Recorded r)
    {
        _steps[tighten.Id] = new(StepStatus.Waiting, null);
        if (tighten.Kind == StepKind.Retighten)
            return;
        _open[tighten.What] = new(tighten.What, Sheet.Fasteners[tighten.What].Name, why, tighten.Id, r.Seq);
        _closedAt.Remove(tighten.What);
    }

    private void ApplyLeak(LeakFound e, Recorded r)
    {
        if (Steps.FirstOrDefault(s => s.Kind == StepKind.Tighten && s.What == e.Fastener) is { } tighten)
            Reopen(tighten, "leaks", r);
        foreach (var again in Steps.Where(s => s.Kind is StepKind.Run or StepKind.Settle or StepKind.Look))
        {
            _steps[again.Id] = new(StepStatus.Waiting, null);
            _waits.Remove(again.Id);
        }
    }

    private void ChangeAmount(string stepId, Quantity<Volume> amount, Recorded r)
    {
        var step = Known(stepId);
        var state = Fluid(step.What);
        state = state with { Poured = state.Poured + amount, SinceReading = state.SinceReading + amount, Pours = state.Pours + 1 };
        _fluids[step.What] = state;
        if (step.Kind == StepKind.Pour && IsPoured(step, state))
        {
            Done(stepId, r);
            if (!Steps.Any(s => s.Kind == StepKind.Gauge && s.What == step.What))
            {
                _fluids[step.What] = state with { Good = true, Out = false };
                _open.Remove(step.What);
            }
        }
        if (step.Kind == StepKind.Gauge)
        {
            var settle = Sheet.Fluids[step.What].SettleAfterPour;
            _waits[stepId] = new(stepId, "Oil runs down", r.At, r.At + settle);
        }
    }

    private bool IsPoured(SheetStep step, FluidState state)
    {
        var fluid = Sheet.Fluids[step.What];
        if (FillsByMarks(step.What))
            return fluid.SafeToStart is not { } safe || state.Poured >= safe.Value;
        return fluid.FillBy == FillBy.Overflow || state.Poured >= Wanted(step.What) - fluid.Tolerance.Value;
    }

    private void ApplyGauge(GaugeRead e, Recorded r)
    {
        var fluid = Known(e.Step).What;
        var good = FillOf(fluid).After(e.Level).Verdict == FillVerdict.Good;
        _fluids[fluid] = Fluid(fluid) with { Level = e.Level, SinceReading = Quantity<Volume>.Zero, Good = good, Out = Fluid(fluid).Out && !good };
        _waits.Remove(e.Step);
        if (!good)
            return;
        Done(e.Step, r);
        _open.Remove(fluid);
    }

    private void ApplyDeviation(DeviationTaken e, Recorded r)
    {
        var step = Known(e.Step);
        if (e.Kind == DeviationKind.NoReading)
        {
            Done(e.Step, r);
            if (step.Kind == StepKind.Tighten)
                Shut(step.What, r);
        }
        if (e.Kind != DeviationKind.StepLeftOut)
            return;
        var left = step.Kind == StepKind.Reset ? Steps.Where(s => s.Kind == StepKind.Reset && s.What == step.What) : [step];
        foreach (var s in left)
            _steps[s.Id] = new(StepStatus.LeftOut, r, e.Reason);
        if (step.Kind == StepKind.Reset)
            _open.Remove(step.What);
    }

    private void MoveTo(bool up, Recorded r)
    {
        LiftUp = up;
        if (up)
            _open["lift"] = new("lift", "Vehicle on the lift", "up", "", r.Seq);
        else
            _open.Remove("lift");
    }
}
