using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Composing;

/// <summary>
/// Works out everything that a set of jobs asks for on a model: what must be opened to reach what, each opening and closing once, the
/// fittings and
/// fillings that follow, and the proof at the end. It knows no model: all it uses stands in the sheet.
/// </summary>
public sealed class CardComposer
{
    private readonly ModelSheet _sheet;
    private readonly UsualSteps _usual;
    private readonly Dictionary<StepId, SheetStep> _steps = [];
    private readonly Dictionary<StepId, HashSet<JobId>> _serves = [];
    private readonly WorkSchools _schools;
    private JobId _job;

    private CardComposer(ModelSheet sheet, WorkSchools schools) => (_sheet, _usual, _schools) = (sheet, new(sheet), schools);

    /// <summary>Composes the jobs into one set of steps. The same input gives the same steps in the same order.</summary>
    /// <param name="sheet">The model's sheet.</param>
    /// <param name="jobs">Ids of jobs in that sheet; each counts once.</param>
    /// <param name="schools">How the workshop works; null for the usual.</param>
    /// <returns>The steps in an order that every link allows, with the links and spans that an order must keep.</returns>
    /// <exception cref="KeyNotFoundException">The sheet has no such job.</exception>
    /// <exception cref="ComposingException">The sheet asks for a circle.</exception>
    public static ComposedWork Compose(ModelSheet sheet, IEnumerable<JobId> jobs, WorkSchools? schools = null)
    {
        JobId[] wanted = [.. jobs.Distinct()];
        var composer = new CardComposer(sheet, schools ?? WorkSchools.Usual);
        foreach (var id in wanted)
            composer.Take(sheet.Jobs[id]);
        composer.LooksWhereTheyAre();
        composer.AfterTheRoad();
        composer.NotRiddenWhileHeld();
        var settles = composer._steps.Values.FirstOrDefault(s => s.Traits.Engine == EngineUse.Stops)?.Wait;
        SheetStep[] steps = [.. composer._steps.Values.Select(s => s with
        {
            Jobs = [.. composer._serves[s.Id]],
            // Nobody sits in a vehicle that is up.
            Lift = sheet.Stands != Stand.Lift ? LiftNeed.Any : s.Place == Place.Cab ? LiftNeed.Down : s.Lift,
            Place = sheet.IsMotorcycle && s.Place is (Place.Cab or Place.Top) ? Place.Side : s.Place,
            Takes = s.Hold > s.Takes ? s.Hold.Value : s.Takes,
            // Settling starts again after every run.
            Wait = s.WheelsTurn ? s.Wait ?? settles : composer.Waited(s),
            Map = composer._usual.MapOf(s),
            Spec = s.Spec is DriveSpec drive ? drive.After(wanted) : s.Spec,
            // Ridden or driven it is not indoors.
            Cautions = s.IsDriven ? [.. s.Cautions.Where(c => c != "exhaust-gas")] : s.Cautions,
        })];
        return StepOrder.Put(sheet, wanted, steps, composer._schools);
    }

    // What runs out is left to run for as long as sheet and workshop want.
    private StepWait? Waited(SheetStep step) => step is { Wait: { } wait, Traits.LetsOut: true }
        ? wait with { Lasts = _schools.Drips(wait.Lasts) } : step.Wait;

    private void Take(Job job)
    {
        _job = job.Id;
        foreach (var id in job.WorksOn)
            WorkOn(id, job);
        foreach (var id in job.Steps)
            foreach (var step in Expand(_sheet.Steps[id]))
                Add(step);
        foreach (var part in job.Parts.Where(p => !_steps.ContainsKey(_usual.Fitting(p).Id) && _usual.Holder(p) is not null))
            Add(_usual.Fitting(part));
        foreach (var reset in job.Resets)
            foreach (var move in Expand(_usual.Reset(_sheet.Resets[reset])))
                Add(move);
        if (job.Parts.Count > 0 || _steps.Values.Any(s => s.Traits.LetsOut || s.Traits.Fills))
            Add(_usual.Kit);
        if (_steps.Values.Any(s => s.Traits.LetsOut || s.Traits.CatchesInABottle))
            Add(_sheet.Steps.GetValueOrDefault(UsualSteps.UsedOil) ?? _usual.UsedOilAway);
        Add(_sheet.Steps.GetValueOrDefault(UsualSteps.Label) ?? _usual.LabelUp);
    }

    // Nobody goes under it for joints that are all above.
    private void LooksWhereTheyAre()
    {
        if (_sheet.Stands != Stand.Lift || _steps.Values.FirstOrDefault(s => s.Traits.LooksAtJoints) is not { } look)
            return;
        var joints = _sheet.Fasteners.Values
            .Where(f => f.IsJoint && _steps.Values.Any(s => s.What == f.Id && (s.Traits.Opens || s.Traits.Fastens))).ToList();
        if (joints.Count == 0 || joints.Any(j => j.IsUnderneath))
            return;
        var place = joints.Any(j => j.Place == Place.Top) ? Place.Top : Place.Side;
        _steps[look.Id] = look with { Place = place, Lift = place.UsualLift(), Map = _usual.MapOf(joints[0].Id) };
    }

    // What holds the vehicle is taken away for a road test, and a key that is locked away comes out to start; where there is work after
    // that which needs it, it is put back, and what was opened is looked at once more.
    private void AfterTheRoad()
    {
        var driven = _steps.Values.FirstOrDefault(s => s.Traits.Engine == EngineUse.Drives);
        var look = _steps.Values.FirstOrDefault(s => s.Traits.LooksAtJoints);
        if (driven is not null && look is not null)
        {
            _steps[UsualSteps.Again(look.Id)] = look with { Id = UsualSteps.Again(look.Id),
                Title = $"After the road: {Words.Low(look.Title)}", After = [driven.Id], Awaits = [], Wait = null };
            _serves[UsualSteps.Again(look.Id)] = [.. _serves[look.Id]];
        }
        foreach (var hold in _sheet.Access.Values.Where(a => a.HoldsVehicle))
        {
            if ((hold.ClosedToRun ? _steps.Values.FirstOrDefault(s => s.Traits.Engine == EngineUse.Stops) : null) is null
                && (driven is null || look is null))
                continue;
            if (look is null || !_steps.Values.Any(s => s.Traits.Sets && s.What == hold.Id))
                continue;
            foreach (var step in new[] { _usual.Opening(hold.Id), _usual.Closing(hold.Id) })
            {
                _steps[UsualSteps.Again(step.Id)] = step with { Id = UsualSteps.Again(step.Id), After = [], Awaits = [],
                    Phase = step.Traits.Sets ? "Prove" : step.Phase };
                _serves[UsualSteps.Again(step.Id)] = [.. _serves[look.Id]];
            }
        }
    }

    // What is done cold comes before anything runs; where it needs the vehicle held, that stays, and it is run warm as it stands.
    private void NotRiddenWhileHeld()
    {
        if (_steps.Values.FirstOrDefault(s => s is { Moves: true, Spec: WarmSpec { Held.Length: > 0 } }) is { } ride
            && _steps.Values.Any(s => s.Cold) && _sheet.Access.Values.Any(a => a is { HoldsVehicle: true, ClosedToRun: false }
                && _steps.Values.Any(s => s.Traits.Sets && s.What == a.Id)))
            _steps[ride.Id] = ride with { Moves = false, Title = ((WarmSpec)ride.Spec!).Held };
    }

    private void WorkOn(ThingId id, Job job)
    {
        if (_sheet.Fluids.ContainsKey(id))
        {
            foreach (var plug in _sheet.Fasteners.Values.Where(f => f.Drains == id))
                Add(_usual.Opening(plug.Id));
            if (_sheet.Fasteners.Values.Any(f => f.Drains == id) || _sheet.Steps.Values.Any(s => s.Traits.Fills && s.What == id))
                Fill(id);
        }
        else if (_sheet.Parts.ContainsKey(id))
            Add(_usual.Fitting(id));
        else if (!job.Steps.Any(s => _sheet.Steps[s] is { Traits.Checks: true } check && check.What == id))
            Add(_usual.Opening(id));
    }

    private void Fill(FluidId fluid)
    {
        Add(_usual.Pour(fluid));
        if (_sheet.Fluids[fluid].FillBy == FillBy.MeasuredReturn)
            Add(_usual.Measure(fluid));
        if (_usual.Gauge(fluid) is { } gauge)
            Add(gauge);
        foreach (var plug in _sheet.Fasteners.Values.Where(f => f.Fills == fluid))
            Add(_usual.Opening(plug.Id));
    }

    private void Add(SheetStep step)
    {
        if (step.MovesLift)
            return;
        // A step that serves a second job brings what it needs along for that job too, so that the page can say for what a thing is open.
        if (!Serve(step.Id))
            return;
        if (!_steps.TryAdd(step.Id, step) && _steps[step.Id] is var known
            && (known.Kind != step.Kind || (known.What != step.What && step.Traits.Engine is not (EngineUse.Warms or EngineUse.Starts))))
            throw new ComposingException($"“{known.Title}” and “{step.Title}” are both called “{step.Id}”. Give one of them another id.",
                $"steps.{step.Id}");
        // What it is reached through is the same for all jobs that it serves, or one of them given up would take it away.
        foreach (var access in Reached(_steps[step.Id]))
        {
            Add(_usual.Opening(access));
            Add(_usual.Closing(access));
        }
        foreach (var fastener in _steps[step.Id].Needs.Where(n => _sheet.Fasteners.ContainsKey(n)))
            Add(_usual.Opening(fastener));
        Follow(step);
    }

    private bool Serve(StepId step)
    {
        if (!_serves.TryGetValue(step, out var jobs))
            _serves[step] = jobs = [];
        return jobs.Add(_job);
    }

    // What follows from a step, by what it does.
    private void Follow(SheetStep step)
    {
        var does = step.Traits;
        if ((does.Opens || does.Tightens) && _sheet.Fasteners.TryGetValue(step.What, out var f))
            Join(f);
        else if (does.LeavesOpen || does.Closes)
        {
            Add(_usual.Opening(step.What));
            Add(_usual.Closing(step.What));
            if (_sheet.Access.GetValueOrDefault(step.What) is { Place: Place.Top, IsByHand: false, HoldsVehicle: false } cover)
                LookOver(cover.Needs);
        }
        if (does.Fits && _usual.Holder(step.What) is { } holder)
            Add(_usual.Opening(holder.Id));
        if (does.Fills && _sheet.Fluids[step.What].Pumped)
            Prove(step.What);
        if (does.Primes)
            Prove("");
        if (does.Engine == EngineUse.Starts)
            Add(_usual.Settle);
        if (step.Lift == LiftNeed.Up && _sheet.Stands == Stand.Lift || step.Traits.Opens && _sheet.Stands == Stand.Ground)
            foreach (var hold in _sheet.Access.Values.Where(a => a.HoldsVehicle))
                Add(_usual.Opening(hold.Id));
    }

    private void Join(Fastener f)
    {
        Add(_usual.Opening(f.Id));
        foreach (var part in f.Fitted)
            Add(_usual.Fitting(part));
        Add(_usual.Closing(f.Id));
        if (f.Drains is { } fluid)
        {
            Fill(fluid);
            if (_sheet.Fluids[fluid].DrainHot)
                Add(_usual.Warm(fluid));
        }
        if (f.IsJoint)
            Add(_usual.Look);
        if (f.Place == Place.Top)
            LookOver(f.Needs);
        if (f.System is { } system && _sheet.Fluids[system].Pumped)
            Prove(system);
    }

    // Tools were used up there: it is looked over before anybody starts or drives it, with open what lets one look in.
    private void LookOver(IEnumerable<AccessId> through)
    {
        if (!_sheet.IsMotorcycle)
            Add(_usual.ClearTop with { Needs = [.. through.SelectMany(Outermost).Distinct()] });
    }

    private void Prove(FluidId fluid)
    {
        Add(_usual.ClearTop is var clear && clear.Needs.Count > 0 || fluid.IsEmpty ? clear
            : clear with { Needs = [.. _sheet.Fluids[fluid].Through.SelectMany(a => _sheet.Access[a].Needs).Distinct()] });
        Add(_usual.Run(!fluid.IsEmpty ? fluid : _sheet.Fluids.Values.FirstOrDefault(f => f.Pumped && f.SafeToStart is not null)?.Id
            ?? ""));
        Add(_usual.Settle);
        Add(_usual.Look);
    }

    private IEnumerable<ThingId> Outermost(AccessId access) => _sheet.Access[access].Needs is { Count: > 0 } needs
        ? needs.SelectMany(Outermost) : [access];

    /// <summary>The accesses that a step reaches its work through.</summary>
    private IEnumerable<AccessId> Reached(SheetStep step) => Reach.Of(_sheet, step, _schools);

    private IEnumerable<SheetStep> Expand(SheetStep step)
    {
        if (!step.Traits.PutsOut)
            return [step];
        var ritual = _sheet.Resets[step.What];
        return ritual.Moves.Select((move, i) => step with
        {
            Id = $"{step.Id}-{i + 1}",
            Title = move.Do,
            Hold = move.Timed,
            Expect = move.Expect,
            Spec = move,
            EndsReset = i + 1 == ritual.Moves.Count,
            After = i == 0 ? step.After : [$"{step.Id}-{i}"],
            From = ritual.From,
        });
    }
}

/// <summary>What must be open to reach what.</summary>
internal static class Reach
{
    /// <summary>The ways by which air comes to an engine oil once its plug is out, where the workshop lets it run first.</summary>
    internal static IEnumerable<AccessId> AirAfter(ModelSheet sheet, SheetStep step, WorkSchools schools) =>
        schools.Drain == DrainSchool.PlugFirst && step.Traits.LetsOut && sheet.Fasteners.GetValueOrDefault(step.What)?.Drains is { } fluid
            && sheet.Fluids[fluid].Pumped ? sheet.Fluids[fluid].Through : [];

    internal static IEnumerable<AccessId> Of(ModelSheet sheet, SheetStep step, WorkSchools schools)
    {
        var own = step.Needs.Select(n => (AccessId)n).Where(sheet.Access.ContainsKey);
        if (sheet.Fasteners.TryGetValue(step.What, out var f))
            own = own.Concat(f.Needs);
        else if (sheet.Access.TryGetValue(step.What, out var a))
            own = own.Concat(a.Needs);
        else if (step.Traits.Fits && sheet.Fasteners.Values.FirstOrDefault(x => x.Seal == step.What
            || x.Holds.Contains(step.What)) is { } holder)
            own = own.Concat(holder.Needs);
        else if (step.Traits.Fills)
            own = own.Concat(sheet.Fluids[step.What].Through);
        else if (step.Traits.Levels)
            own = own.Concat(sheet.Fluids[step.What].Through.SelectMany(a => sheet.Access[a].Needs));
        if (step.Traits.LetsOut && f?.Drains is { } fluid)
            own = own.Concat(sheet.Fluids[fluid].Through.Except(AirAfter(sheet, step, schools)));
        return own.Distinct();
    }
}
