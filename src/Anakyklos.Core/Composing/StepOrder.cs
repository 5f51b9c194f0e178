using Anakyklos.Core.Ordering;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Composing;

/// <summary>What comes before what among the steps of one card, and why; from the kinds of the steps and the sheet, never from a model's
/// name.</summary>
internal sealed class StepOrder
{
    private readonly ModelSheet _sheet;
    private readonly IReadOnlyList<JobId> _jobs;
    private readonly SheetStep[] _steps;
    private readonly Dictionary<StepId, int> _index;
    private readonly Dictionary<ThingId, SheetStep> _opens;
    private readonly Dictionary<ThingId, SheetStep> _closes;
    private readonly Reachability _after;
    private readonly Dictionary<(int Before, int After), (TimeSpan Lag, string Why)> _links = [];
    private readonly HashSet<(int Before, int After)> _ways = [];

    private StepOrder(ModelSheet sheet, IReadOnlyList<JobId> jobs, SheetStep[] steps)
    {
        (_sheet, _jobs, _steps) = (sheet, jobs, steps);
        _index = steps.Select((s, i) => (s.Id, i)).ToDictionary(p => p.Id, p => p.i);
        _opens = steps.Where(s => s.Traits.LeavesOpen
            && !UsualSteps.IsAgain(s)).DistinctBy(s => s.What).ToDictionary(s => s.What);
        _closes = steps.Where(s => s.Traits.Shuts && !UsualSteps.IsAgain(s)).DistinctBy(s =>
            s.What).ToDictionary(s => s.What);
        _after = new(steps.Length);
    }

    internal static ComposedWork Put(ModelSheet sheet, IReadOnlyList<JobId> jobs, SheetStep[] steps, WorkSchools schools)
    {
        var order = new StepOrder(sheet, jobs, steps);
        order.Ways(schools);
        order.Joints();
        order.Fluids();
        order.AirAfter(schools);
        order.Warmth();
        order.Engine();
        order.Beginning();
        order.End();
        order.Said();
        order.Holding();
        order.LastThings();
        return order.Result();
    }

    /// <summary>The order of steps that carry theirs in <see cref="SheetStep.After"/> and <see cref="SheetStep.Awaits"/> already.</summary>
    internal static ComposedWork Again(ModelSheet sheet, IReadOnlyList<JobId> jobs, SheetStep[] steps)
    {
        var order = new StepOrder(sheet, jobs, steps);
        order.Said();
        return order.Result();
    }

    private IEnumerable<SheetStep> Of(Func<StepTraits, bool> which) => _steps.Where(s => which(s.Traits));

    private void Link(SheetStep? before, SheetStep? after, string why, TimeSpan lag = default)
    {
        if (before is null || after is null || before.Id == after.Id)
            return;
        var (a, b) = (_index[before.Id], _index[after.Id]);
        if (!_after.Add(a, b))
            throw new ComposingException($"“{before.Title}” must come before “{after.Title}” ({why}), but it also comes after it: "
                + $"{Path(b, a)}.", _jobs.Count == 1 ? $"jobs.{_jobs[0]}" : "jobs");
        if (!_links.TryGetValue((a, b), out var known) || lag > known.Lag)
            _links[(a, b)] = (lag, known.Why is null ? why : known.Why);
    }

    private string Path(int from, int to)
    {
        var path = new List<string>();
        for (var at = from; at != to && path.Count < 12;)
        {
            path.Add($"“{_steps[at].Title}”");
            at = _links.Keys.Where(k => k.Before == at && (k.After == to || _after.Reaches(k.After, to))).Select(k => k.After)
                .DefaultIfEmpty(to).First();
        }
        return string.Join(", then ", path.Append($"“{_steps[to].Title}”"));
    }

    private void Ways(WorkSchools schools)
    {
        foreach (var step in _steps)
            foreach (var id in Reach.Of(_sheet, step, schools))
            {
                if (step.What == id)
                    continue;
                var name = Words.Low(_sheet.Access[id].Name);
                Way(_opens.GetValueOrDefault(id), step, $"needs the {name} open");
                Way(step, _closes.GetValueOrDefault(id), $"is reached through the {name}, which goes back after it");
            }
    }

    private void AirAfter(WorkSchools schools)
    {
        foreach (var drain in Of(t => t.LetsOut))
            foreach (var way in Reach.AirAfter(_sheet, drain, schools).Where(w => _opens.ContainsKey(w)))
                LinkIfFree(drain, _opens[way], "is loosened when the plug is out, as this workshop does");
    }

    // Holds for its own sake: when a step is done again, what lay between it and the cover may be done long since.
    private void Way(SheetStep? before, SheetStep? after, string why)
    {
        Link(before, after, why);
        if (before is not null && after is not null)
            _ways.Add((_index[before.Id], _index[after.Id]));
    }

    // What holds the vehicle is set before the work that needs it and stays until the last of it: also the pedal test, and a level that is
    // read in that position. It goes before the vehicle is driven; a key that is locked away, before the engine is started. What needs it
    // after that has it set a second time.
    private void Holding()
    {
        foreach (var hold in _sheet.Access.Values.Where(a => a.HoldsVehicle && _opens.ContainsKey(a.Id)))
        {
            var (set, away) = (_opens[hold.Id], _closes[hold.Id]);
            var (again, last) = (Again(set), Again(away));
            var because = $"needs the {Words.Low(hold.Name)} in place";
            SheetStep[] breaks = [.. _steps.Where(s => s.Traits.Engine == EngineUse.Drives
                || (hold.ClosedToRun && s.Traits.Engine == EngineUse.Starts))];
            foreach (var warm in _steps.Where(s => s.Traits.Engine == EngineUse.Warms && (s.Moves || hold.ClosedToRun)))
                Link(warm, set, FreeOf(hold));
            foreach (var drive in breaks)
                Link(away, drive, FreeOf(hold));
            foreach (var step in _steps.Where(s => !IsHold(s) && !IsPaper(s) && !breaks.Contains(s)
                && !s.Traits.LaysOut && s.Traits.Engine is not (EngineUse.Warms or EngineUse.Stops)))
            {
                var after = breaks.Any(x => Reaches(x, step)) || (breaks.Length > 0 && UsualSteps.IsAgain(step));
                if (after && again is null)
                    continue;
                if (NeedsHold(step))
                    Link(after ? again : set, step, because);
                if (NeedsHold(step) || !Reaches(after ? last! : away, step))
                    Link(step, after ? last : away, because);
            }
            if (again is not null)
                foreach (var x in breaks)
                    Link(_steps.FirstOrDefault(s => s.Traits.Engine == EngineUse.Stops && x.Traits.Engine == EngineUse.Starts) ?? x, again,
                        "is set again for the work after it");
            Link(again, last, $"takes the {Words.Low(hold.Name)} away again");
            Link(away, again, "was taken away before");
        }
        // What is set from the cab, as a jacking position is, ends last.
        foreach (var cab in _sheet.Access.Values.Where(a => a.HoldsVehicle && a.Place == Place.Cab && _opens.ContainsKey(a.Id)))
            foreach (var other in _sheet.Access.Values.Where(a => a.HoldsVehicle && a.Place != Place.Cab && _opens.ContainsKey(a.Id)))
                LinkIfFree(Again(_closes[other.Id]) ?? _closes[other.Id], Again(_closes[cab.Id]) ?? _closes[cab.Id],
                    $"ends after the {Words.Low(other.Name)} went");

        static string FreeOf(Access hold) => $"needs the {Words.Low(hold.Name)} away";
    }

    private bool IsHold(SheetStep s) => (s.Traits.Sets || s.Traits.Closes) && _sheet.Access.TryGetValue(s.What, out var a)
        && a.HoldsVehicle;

    private SheetStep? Again(SheetStep step) => _index.TryGetValue(UsualSteps.Again(step.Id), out var i) ? _steps[i] : null;

    private bool Reaches(SheetStep a, SheetStep b) => _after.Reaches(_index[a.Id], _index[b.Id]);

    // On the ground everything that loosens or turns something could push the vehicle off its stand; on a lift it is what is done while it
    // is up.
    private bool NeedsHold(SheetStep s) => s.Lift == LiftNeed.Up || (_sheet.Stands == Stand.Ground
        && (s.Traits is { Opens: true } or { Tightens: true } or { Checks: true } or { LooksAtJoints: true } or { Levels: true }
            or { Fills: true } or { Fits: true } || (s.Traits.Closes && !_sheet.Access[s.What].HoldsVehicle)));

    // Display, label and paperwork come when the work is done; the used oil is carried away whenever there is time.
    private static bool IsPaper(SheetStep s) => s.Traits.PutsOut || s.Id.Text is UsualSteps.UsedOil or UsualSteps.Label;

    private void Joints()
    {
        foreach (var f in _sheet.Fasteners.Values.Where(f => _opens.ContainsKey(f.Id)))
        {
            var (open, close, name) = (_opens[f.Id], _closes[f.Id], Words.Low(f.Name));
            Link(open, close, $"closes the {name}", open.Wait?.Lasts ?? default);
            foreach (var fit in Of(t => t.Fits).Where(s => s.What == f.Seal || f.Holds.Contains(s.What)))
            {
                Link(open, fit, $"needs the {name} out", open.Traits.LetsOut ? open.Wait?.Lasts ?? default : default);
                Link(fit, close, $"goes in before the {name} is tightened");
                foreach (var look in _steps.Where(s => s.Needs.Contains(f.Id)))
                    Link(look, fit, $"comes before anything new goes on the {name}");
            }
            foreach (var look in _steps.Where(s => s.Needs.Contains(f.Id)))
            {
                Link(open, look, $"needs the {name} out");
                Link(look, close, $"needs the {name} out");
            }
        }
    }

    private void Fluids()
    {
        foreach (var fluid in _sheet.Fluids.Values)
        {
            var name = Words.Low(fluid.Name);
            var joints = _sheet.Fasteners.Values.Where(f => f.System == fluid.Id && f.Fills != fluid.Id).ToList();
            var fillPlugs = _sheet.Fasteners.Values.Where(f => f.Fills == fluid.Id && _opens.ContainsKey(f.Id)).ToList();
            var drains = Of(t => t.LetsOut).Where(s => joints.Any(j => s.What == j.Id)).ToList();
            foreach (var drain in drains)
            {
                foreach (var plug in fillPlugs)
                    Link(_opens[plug.Id], drain,
                        $"waits until the {Words.Low(plug.Name)} is proven loose, or the {name} could not go back in");
                foreach (var measure in Of(t => t.MeasuresOut).Where(s => s.What == fluid.Id))
                    Link(drain, measure, $"measures what ran out", drain.Wait?.Lasts ?? default);
                // A filter belongs to the drain of its fluid; a pan comes off when nothing runs out any more.
                foreach (var joint in joints.Where(j => j.GoesWithDrain && _opens.ContainsKey(j.Id)))
                    Link(drain, _opens[joint.Id], joint.HoldsBack ? "comes off when nothing runs any more"
                        : "goes with the old oil, not before it",
                        joint.HoldsBack ? drain.Wait?.Lasts ?? default : default);
            }
            foreach (var measure in Of(t => t.MeasuresOut).Where(s => s.What == fluid.Id))
                foreach (var pour in Of(t => t.Fills).Where(s => s.What == fluid.Id))
                    Link(measure, pour, "needs to know how much came out");
            foreach (var pour in Of(t => t.Fills).Where(s => s.What == fluid.Id))
            {
                foreach (var joint in joints.Where(j => _closes.ContainsKey(j.Id)))
                    Link(_closes[joint.Id], pour, $"needs the {Words.Low(joint.Name)} tight, or it would run straight out");
                foreach (var plug in fillPlugs)
                    Link(pour, _closes[plug.Id], "goes in through it", pour.Wait?.Lasts ?? default);
                foreach (var gauge in Of(t => t.Levels).Where(s => s.What == fluid.Id))
                {
                    Link(pour, gauge, "reads what was poured");
                    if (!fluid.Pumped)
                        foreach (var plug in fillPlugs)
                            Link(gauge, _closes[plug.Id], "is read through it");
                }
            }
        }
    }

    private void Warmth()
    {
        foreach (var warm in Of(t => t.Engine == EngineUse.Warms))
        {
            foreach (var drain in Of(t => t.LetsOut).Where(d => _sheet.Fasteners[d.What].Drains is { } f && _sheet.Fluids[f].DrainHot))
                Link(warm, drain, "runs out better warm");
        }
        foreach (var hot in Of(t => t.Engine is EngineUse.Warms or EngineUse.Starts))
            foreach (var cold in _steps.Where(s => s.Cold))
                Link(cold, hot, "needs the engine cold");
    }

    private void Engine()
    {
        var (run, settle) = (Of(t => t.Engine == EngineUse.Starts).FirstOrDefault(), Of(t => t.Engine == EngineUse.Stops).FirstOrDefault());
        var look = Of(t => t.LooksAtJoints).ToList();
        var pumped = _sheet.Fluids.Values.Where(f => f.Pumped).Select(f => f.Id).ToHashSet();
        if (run is not null)
        {
            var clear = Of(t => t.LooksOver || t.Lift == LiftMove.ReadyToLower).ToList();
            IEnumerable<SheetStep> first = [
                .. Of(t => t.Fills).Where(s => pumped.Contains(s.What)),
                .. Of(t => t.Tightens).Where(s => _sheet.Fasteners[s.What].System is { } f && pumped.Contains(f)),
                .. Of(t => t.Primes),
                .. pumped.SelectMany(f => _sheet.Fluids[f].Through).Distinct().Where(id => _closes.ContainsKey(id))
                    .Select(id => _closes[id]) ];
            foreach (var step in first)
            {
                foreach (var c in clear)
                    Link(step, c, "is looked over before the engine runs");
                Link(step, run, step.Traits.Primes ? "is needed for it to start" : "must be in place before the engine runs");
            }
            foreach (var c in clear)
                Link(c, run, "comes before anything turns");
            Link(run, settle, "stops what was started", run.Wait?.Lasts ?? default);
            foreach (var gauge in Of(t => t.Levels).Where(g => pumped.Contains(g.What)))
            {
                Link(settle, gauge, "is read when it has settled", settle?.Wait?.Lasts ?? default);
                // Settling starts again after each run; what is read running or straight after names that run itself.
                foreach (var turn in _steps.Where(s => s.WheelsTurn && !gauge.After.Contains(s.Id)))
                    Link(turn, gauge, "is read when it has settled after the last run", settle?.Wait?.Lasts ?? default);
            }
            foreach (var turn in _steps.Where(s => s.WheelsTurn))
                Link(settle, turn, "comes after the first run");
        }
        foreach (var l in look)
        {
            Link(settle, l, "shows leaks only after the engine has run");
            foreach (var tight in Of(t => t.Tightens).Where(s => _sheet.Fasteners[s.What].IsJoint))
                Link(tight, l, "looks at every joint that was opened");
            foreach (var pour in Of(t => t.Fills).Where(p => !pumped.Contains(p.What)))
                Link(pour, l, "looks at every joint that was opened");
            foreach (var cover in _sheet.Access.Values.Where(a => a.AfterLeakCheck && _closes.ContainsKey(a.Id)))
                Link(l, _closes[cover.Id], "goes back only after the leak check");
        }
    }

    private void Beginning()
    {
        foreach (var kit in Of(t => t.LaysOut))
            foreach (var open in Of(t => t.LeavesOpen || t.Lift == LiftMove.ReadyToRaise))
                Link(kit, open, "waits until everything lies ready");
    }

    private void End()
    {
        foreach (var drive in Of(t => t.Engine == EngineUse.Drives))
            foreach (var step in Of(t => t.Shuts || t.Levels || t.LooksAtJoints || t.LooksOver || t.Fills || t.Engine == EngineUse.Stops)
                .Where(s => !IsAfter(s, drive) && !UsualSteps.IsAgain(s) && !IsLookedBehind(s)))
                Link(step, drive, "is closed before it is driven");
        if (_index.TryGetValue(UsualSteps.UsedOil, out var waste))
        {
            foreach (var drain in Of(t => t.LetsOut))
                Link(drain, _steps[waste], "puts away what ran out", drain.Wait?.Lasts ?? default);
            foreach (var fit in Of(t => t.Fits))
                Link(fit, _steps[waste], "puts away what was replaced");
            foreach (var bottle in _steps.Where(s => s.Traits.CatchesInABottle))
                Link(bottle, _steps[waste], "puts away what was caught in the bottle");
        }
    }

    // A cover that goes on after the look goes on after the second look too, where there is a road test.
    private bool IsLookedBehind(SheetStep s) => s.Traits.Closes && _sheet.Access.TryGetValue(s.What, out var a)
        && a.AfterLeakCheck;

    // Where nothing that was said forbids it: "nothing left in there" after the last tool was used there, the display after the work, the
    // label after that.
    private void LastThings()
    {
        foreach (var clear in Of(t => t.LooksOver))
            foreach (var step in _steps.Where(s => s.Place == clear.Place && s.Id != clear.Id
                && s.Traits is { Levels: false, LaysOut: false, PutsOut: false, LooksAtJoints: false, Sets: false }
                && s.Traits.Engine is not (EngineUse.Starts or EngineUse.Stops) && s.Traits.Lift != LiftMove.ReadyToRaise && !IsPaper(s)
                    && !IsHold(s) && !Of(t => t.PutsOut).Any(r => Reaches(r, s))))
                LinkIfFree(step, clear, "is looked over when the last tool was used there");
        StepId[] first = [.. Of(t => t.PutsOut)
            .Where(s => s.After.All(a => !_index.ContainsKey(a) || !_steps[_index[a]].Traits.PutsOut)).Select(s => s.Id)];
        foreach (var reset in first.Select(id => _steps[_index[id]]))
            foreach (var step in _steps.Where(s => !IsPaper(s) && !s.Traits.LaysOut
                && (!(s.Traits.Sets || s.Traits.Lift == LiftMove.ReadyToRaise) || UsualSteps.IsAgain(s))))
                LinkIfFree(step, reset, "comes before the indicator is put out");
        if (_index.TryGetValue(UsualSteps.Label, out var label))
            foreach (var step in _steps.Where(s => s.Id.Text is not (UsualSteps.Label or UsualSteps.UsedOil)))
                LinkIfFree(step, _steps[label], "is written when the work is done");
    }

    private void LinkIfFree(SheetStep before, SheetStep after, string why)
    {
        if (!Reaches(after, before))
            Link(before, after, why);
    }

    private bool IsAfter(SheetStep step, SheetStep drive) =>
        step.After.Any(a => a == drive.Id || _index.TryGetValue(a, out var i) && IsAfter(_steps[i], drive));

    private void Said()
    {
        foreach (var step in _steps)
        {
            foreach (var id in step.After.Where(_index.ContainsKey))
                Link(_steps[_index[id]], step, $"comes after “{_steps[_index[id]].Title}”");
            foreach (var id in step.Awaits.Where(_index.ContainsKey))
                Link(_steps[_index[id]], step, $"waits for it: {_steps[_index[id]].Wait?.For ?? _steps[_index[id]].Title}",
                    _steps[_index[id]].Wait?.Lasts ?? default);
        }
    }

    private List<OpenSpan> Spans()
    {
        var spans = new List<OpenSpan>();
        StepId[] running = [.. _steps.Where(s => s.RunsEngine).Select(s => s.Id)];
        StepId[] down = [.. _steps.Where(s => s.Lift == LiftNeed.Down).Select(s => s.Id)];
        foreach (var (what, open) in _opens.Where(o => _closes.ContainsKey(o.Key)))
        {
            var close = _closes[what];
            if (_sheet.Fasteners.TryGetValue(what, out var f))
                spans.Add(new(open.Id, close.Id,
                    [.. (open.Lift == LiftNeed.Up && close.Lift == LiftNeed.Up ? down.Concat(running) : running).Distinct()],
                    $"the {Words.Low(f.Name)} {f.Is} out"));
            else if (_sheet.Access[what] is { } a && (a.ClosedToRun || a.Intake))
                spans.Add(new(open.Id, close.Id, running, $"the {Words.Low(a.Name)} is open"));
        }
        foreach (var pour in Of(t => t.Fills).Where(p => _sheet.Fluids[p.What] is { SafeToStart: not null } or { Pumped: true }))
            foreach (var joint in _sheet.Fasteners.Values.Where(f => f.System == pour.What && f.Fills is null && _opens.ContainsKey(f.Id)))
                spans.Add(new(_opens[joint.Id].Id, pour.Id, running, $"there is no new {Words.Low(_sheet.Fluids[pour.What].Name)} in it"));
        // From the moment a fuel filter is opened, nothing runs before it is primed, not even to warm up.
        foreach (var prime in Of(t => t.Primes))
            foreach (var open in _steps.Where(s => s.Traits.Opens && _sheet.Fasteners.ContainsKey(s.What)
                && s.Jobs.Intersect(prime.Jobs).Any() && !Reaches(prime, s)))
                spans.Add(new(open.Id, prime.Id, running, "it is not primed"));
        if (Of(t => t.Engine == EngineUse.Starts).FirstOrDefault() is { } run
            && Of(t => t.Engine == EngineUse.Stops).FirstOrDefault() is { } settle)
            spans.Add(new(run.Id, settle.Id, [.. _steps.Where(s => s.Id != run.Id && s.Id != settle.Id).Select(s => s.Id)],
                "the engine is running"));
        return [.. spans.Where(s => s.Barred.Count > 0)];
    }

    // Warm oil is let out within minutes, and brake fluid stands open no longer than its own work takes: nothing that could wait comes in
    // between.
    private IEnumerable<OpenSpan> ShortlyAfter()
    {
        SheetStep[] hot = [.. Of(t => t.LetsOut).Where(d => _sheet.Fluids[_sheet.Fasteners[d.What].Drains!.Value].DrainHot)];
        foreach (var warm in Of(t => t.Engine == EngineUse.Warms))
            foreach (var drain in hot.Where(d => Reaches(warm, d)))
                yield return new(warm.Id, drain.Id,
                    [.. _steps.Where(s => s.Id != warm.Id && !hot.Contains(s) && !hot.Any(h => Reaches(s, h))).Select(s => s.Id)],
                    "it is warm for the drain");
        foreach (var gauge in Of(t => t.Levels))
            foreach (var turn in _steps.Where(s => s.WheelsTurn && gauge.After.Contains(s.Id)))
                yield return new(turn.Id, gauge.Id,
                    [.. _steps.Where(s => s.Id != turn.Id && s.Id != gauge.Id && !(Reaches(turn, s) && Reaches(s, gauge)))
                    .Select(s => s.Id)], "it is hot for the reading");
        foreach (var reservoir in _sheet.Access.Values.Where(a => a.Cautions.Contains("brake-fluid") && _opens.ContainsKey(a.Id)
            && _closes.ContainsKey(a.Id)))
        {
            var (open, close) = (_opens[reservoir.Id], _closes[reservoir.Id]);
            yield return new(open.Id, close.Id,
                [.. _steps.Where(s => s.Id != open.Id && s.Id != close.Id && !(Reaches(open, s) && Reaches(s, close))).Select(s => s.Id)],
                $"the {Words.Low(reservoir.Name)} is open");
        }
    }

    // No other work is begun between the run and the reading that it was for. Where it has come to that all the same, it bars nothing.
    private IEnumerable<OpenSpan> Wishes()
    {
        if (Of(t => t.Engine == EngineUse.Stops).FirstOrDefault() is { } stop)
            foreach (var gauge in Of(t => t.Levels).Where(g => _sheet.Fluids[g.What].Pumped && Reaches(stop, g)))
                yield return new(stop.Id, gauge.Id, [.. _steps.Where(s => s.Traits.Opens && !Reaches(stop, s) && !Reaches(s, gauge))
                    .Select(s => s.Id)], "the level is read soon after the run", IsWish: true);
    }

    // A barred step that must come before the closing must come before the opening too, and one that comes after the opening comes after
    // the closing.
    private void FollowFrom(List<OpenSpan> spans)
    {
        for (var again = true; again;)
        {
            again = false;
            foreach (var span in spans)
            {
                var (open, close) = (_index[span.Opens], _index[span.Closes]);
                foreach (var b in span.Barred.Select(id => _index[id]))
                {
                    if (_after.Reaches(b, close) && !_after.Reaches(b, open))
                        (again, _) = (true, Then(_steps[b], _steps[open], span.Why));
                    else if (_after.Reaches(open, b) && !_after.Reaches(close, b))
                        (again, _) = (true, Then(_steps[close], _steps[b], span.Why));
                }
            }
        }

        bool Then(SheetStep before, SheetStep after, string why)
        {
            Link(before, after, $"cannot be done while {why}");
            return true;
        }
    }

    private ComposedWork Result()
    {
        var (open, soon) = (Spans(), ShortlyAfter().ToList());
        FollowFrom([.. open, .. soon]);
        // What must come before a drain or a reading, and is done again meanwhile, could not wait.
        IReadOnlyList<OpenSpan> spans = [.. open, .. soon.Select(s => s with
        {
            Barred = [.. s.Barred.Where(b => !_after.Reaches(_index[b], _index[s.Closes]))],
        }).Concat(Wishes()).Where(s => s.Barred.Count > 0)];
        var left = _links.Keys.GroupBy(k => k.After).ToDictionary(g => g.Key, g => g.Count());
        var follows = _links.Keys.ToLookup(k => k.Before, k => k.After);
        var ready = new SortedSet<int>(Enumerable.Range(0, _steps.Length).Where(i => !left.ContainsKey(i)));
        var sorted = new List<SheetStep>();
        while (ready.Count > 0)
        {
            var i = ready.Min;
            ready.Remove(i);
            sorted.Add(_steps[i]);
            foreach (var j in follows[i])
                if (--left[j] == 0)
                    ready.Add(j);
        }
        var links = _links.Where(l => l.Value.Lag > TimeSpan.Zero || _ways.Contains(l.Key)
            || !follows[l.Key.Before].Any(m => m != l.Key.After && _after.Reaches(m, l.Key.After)))
            .Select(l => new StepLink(_steps[l.Key.Before].Id, _steps[l.Key.After].Id, l.Value.Lag, l.Value.Why)).ToList();
        var before = links.ToLookup(l => l.After);
        return new(_sheet, _jobs, [.. sorted.Select(s => s with
        {
            After = [.. before[s.Id].Where(l => l.Lag == TimeSpan.Zero).Select(l => l.Before)],
            Awaits = [.. before[s.Id].Where(l => l.Lag > TimeSpan.Zero).Select(l => l.Before)],
        })], links, spans);
    }
}
