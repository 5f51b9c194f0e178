using Anakyklos.Core.Filling;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Cards;

/// <summary>What each event does to the card.</summary>
public sealed partial class JobCard
{
    private void Apply(Recorded r)
    {
        _next = null;
        switch (r.Event)
        {
            case CardOpened or TakenBack:
                break;
            case KitConfirmed e:
                ApplyKit(e, r);
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
            case StopDecided e:
                _decided = _decided.SetItem(e.Of, new(r.Seq, r, e));
                break;
            case CarriedMended e:
                _mended.Add(e.Index);
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
            case JobDropped e:
                _dropped = _dropped.SetItem(e.Job, new(r.Seq, r, e));
                _work = null;
                break;
            case Signed:
                Signature = r;
                break;
            case CardVoided:
                Voided = r;
                break;
            default:
                throw new InvalidOperationException($"The card does not know what {r.Event.GetType().Name} means.");
        }
    }

    private void OpenUp(OpenRef what, string name, string detail, string by, int since, int count = 0) =>
        _open[what] = new(what, name, detail, by, since, count);

    private void Done(string step, Recorded r)
    {
        _steps[step] = new(StepStatus.Done, r);
        if (Known(step).Wait is { } wait)
            _waits[step] = new(step, wait.For, r.At, r.At + wait.Lasts);
    }

    private void ApplyKit(KitConfirmed e, Recorded r)
    {
        var before = Kit;
        Kit = e;
        _awaited.Clear();
        // A kit laid out again replaces the one before, with what strayed in it; what is in the vehicle already stays as it was.
        _deviations = _deviations.RemoveAll(d => d.Event.Step == e.Step && d.Recorded.Command != r.Command
            && d.Event.Kind is DeviationKind.OldSealAgain or DeviationKind.OtherPart or DeviationKind.OtherOil && !IsIn(d.Event.Part));
        if (before is null)
            Done(e.Step, r);

        bool IsIn(string what) => _fitted.Contains(what) || Fluid(what).Pours > 0;
    }

    private void ChangePlan(PlanChanged e)
    {
        foreach (var gone in _plan.Where(s => e.Steps.All(n => n.Id != s.Id)))
            _steps.Remove(gone.Id);
        foreach (var step in e.Steps)
            _steps.TryAdd(step.Id, new(StepStatus.Waiting, null));
        _plan = e.Steps;
        // An indicator whose reset went with a dropped job stays as it is: the service it asks for was not done.
        foreach (var lit in _open.Keys.Where(k => k.Kind == OpenKind.Indicator && _plan.All(s => !s.EndsReset || s.What != k.Id)).ToList())
            _open.Remove(lit);
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
                OpenThing(step, e, r);
                break;
            case StepKind.Close:
                _open.Remove(new(OpenKind.Access, step.What));
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
                OpenUp(OpenRef.Engine, "Engine running", "until it is switched off", step.Id, r.Seq);
                break;
            case StepKind.Settle:
                EngineRuns = false;
                _open.Remove(OpenRef.Engine);
                break;
            case StepKind.Look:
                _lookedAt = r.Seq;
                break;
            case StepKind.Reset when step.EndsReset:
                _open.Remove(new(OpenKind.Indicator, step.What));
                break;
        }
    }

    private void OpenThing(SheetStep step, StepDone e, Recorded r)
    {
        if (Sheet.Access.TryGetValue(step.What, out var access))
        {
            var detail = access.HoldsVehicle ? "in place" : access.Count > 0 ? $"{e.Count ?? access.Count} {access.CountOf} out" : "";
            OpenUp(new(OpenKind.Access, access.Id), access.Name, detail, step.Id, r.Seq, e.Count ?? access.Count);
            return;
        }
        var fastener = Sheet.Fasteners[step.What];
        OpenUp(new(OpenKind.Fastener, fastener.Id), fastener.Name, fastener.Seal is { } seal ? SealDetail(seal) : "", step.Id, r.Seq);
        _closedAt.Remove(fastener.Id);
        foreach (var part in fastener.Fitted)
            _fitted.Remove(part);
        if (fastener.Drains is not { } fluid)
            return;
        _fluids[fluid] = FluidState.Untouched with { Out = true };
        OpenUp(new(OpenKind.Fluid, fluid), Sheet.Fluids[fluid].Name, "not at the mark", step.Id, r.Seq);
    }

    private string SealDetail(string seal) => Kit?.Parts.GetValueOrDefault(seal) == KitConfirmed.OldOneAgain ? "old seal again"
        : "new seal";

    private void Shut(string fastener, Recorded r)
    {
        _open.Remove(new(OpenKind.Fastener, fastener));
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
        OpenUp(new(OpenKind.Fastener, tighten.What), Sheet.Fasteners[tighten.What].Name, why, tighten.Id, r.Seq);
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
        // A key that was locked away a second time comes out once more for the run.
        foreach (var set in Steps.Where(s => s.Kind == StepKind.Secure && s.What.Length > 0 && UsualSteps.IsAgain(s)
            && _steps[s.Id].Status == StepStatus.Done).ToList())
            if (Sheet.Access[set.What] is { ClosedToRun: true } hold && HasOpen(hold) && Steps.FirstOrDefault(s => s.Kind == StepKind.Close
                && s.What == hold.Id) is { } away)
            {
                _steps[set.Id] = new(StepStatus.Waiting, null);
                _steps[away.Id] = new(StepStatus.Waiting, null);
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
                _open.Remove(new(OpenKind.Fluid, step.What));
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
        _fluids[fluid] = Fluid(fluid) with { Level = e.Level, SinceReading = Quantity<Volume>.Zero, Good = good, Out = Fluid(fluid).Out
            && !good };
        _waits.Remove(e.Step);
        if (!good)
            return;
        Done(e.Step, r);
        _open.Remove(new(OpenKind.Fluid, fluid));
    }

    private void ApplyDeviation(DeviationTaken e, Recorded r)
    {
        if (e.Kind is not (DeviationKind.NoReading or DeviationKind.StepLeftOut))
            return;
        var step = Known(e.Step);
        if (e.Kind == DeviationKind.NoReading)
        {
            Done(e.Step, r);
            if (step.Kind == StepKind.Tighten)
                Shut(step.What, r);
            return;
        }
        var left = step.Kind == StepKind.Reset ? Steps.Where(s => s.Kind == StepKind.Reset && s.What == step.What) : [step];
        foreach (var s in left)
            _steps[s.Id] = new(StepStatus.LeftOut, r, e.Reason);
        if (step.Kind == StepKind.Reset)
            _open.Remove(new(OpenKind.Indicator, step.What));
    }

    private void MoveTo(bool up, Recorded r)
    {
        LiftUp = up;
        if (up)
            OpenUp(OpenRef.Lift, "Vehicle on the lift", "up", "", r.Seq);
        else
            _open.Remove(OpenRef.Lift);
    }
}
