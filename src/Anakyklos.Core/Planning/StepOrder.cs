using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Planning;

/// <summary>What comes before what among the steps of one card, and why; from the kinds of the steps and the sheet, never from a model's name.</summary>
internal sealed class StepOrder
{
    private readonly ModelSheet _sheet;
    private readonly IReadOnlyList<string> _jobs;
    private readonly SheetStep[] _steps;
    private readonly Dictionary<string, int> _index;
    private readonly Dictionary<string, SheetStep> _opens;
    private readonly Dictionary<string, SheetStep> _closes;
    private readonly Reachability _after;
    private readonly Dictionary<(int Before, int After), (TimeSpan Lag, string Why)> _links = [];

    private StepOrder(ModelSheet sheet, IReadOnlyList<string> jobs, SheetStep[] steps)
    {
        (_sheet, _jobs, _steps) = (sheet, jobs, steps);
        _index = steps.Select((s, i) => (s.Id, i)).ToDictionary(p => p.Id, p => p.i);
        _opens = steps.Where(s => s.What.Length > 0 && s.Kind is StepKind.Open or StepKind.Drain or StepKind.Secure).DistinctBy(s => s.What).ToDictionary(s => s.What);
        _closes = steps.Where(s => s.Kind is StepKind.Close or StepKind.Tighten).DistinctBy(s => s.What).ToDictionary(s => s.What);
        _after = new(steps.Length);
    }

    internal static ComposedWork Put(ModelSheet sheet, IReadOnlyList<string> jobs, SheetStep[] steps)
    {
        var order = new StepOrder(sheet, jobs, steps);
        order.Ways();
        order.Joints();
        order.Fluids();
        order.Warmth();
        order.Engine();
        order.Beginning();
        order.End();
        order.Said();
        var spans = order.Spans();
        order.FollowFrom(spans);
        return order.Result(spans);
    }

    /// <summary>The order of steps that carry theirs in <see cref="SheetStep.After"/> and <see cref="SheetStep.Awaits"/> already.</summary>
    internal static ComposedWork Again(ModelSheet sheet, IReadOnlyList<string> jobs, SheetStep[] steps)
    {
        var order = new StepOrder(sheet, jobs, steps);
        order.Said();
        var spans = order.Spans();
        order.FollowFrom(spans);
        return order.Result(spans);
    }

    private IEnumerable<SheetStep> Of(params StepKind[] kinds) => _steps.Where(s => kinds.Contains(s.Kind));

    private void Link(SheetStep? before, SheetStep? after, string why, TimeSpan lag = default)
    {
        if (before is null || after is null || before.Id == after.Id)
            return;
        var (a, b) = (_index[before.Id], _index[after.Id]);
        if (!_after.Add(a, b))
            throw new ComposingException($"“{before.Title}” must come before “{after.Title}” ({why}), but it also comes after it: {Way(b, a)}.", _jobs.Count == 1 ? $"jobs.{_jobs[0]}" : "jobs");
        if (!_links.TryGetValue((a, b), out var known) || lag > known.Lag)
            _links[(a, b)] = (lag, known.Why is null ? why : known.Why);
    }

    private string Way(int from, int to)
    {
        var path = new List<string>();
        for (var at = from; at != to && path.Count < 12;)
        {
            path.Add($"“{_steps[at].Title}”");
            at = _links.Keys.Where(k => k.Before == at && (k.After == to || _after.Reaches(k.After, to))).Select(k => k.After).DefaultIfEmpty(to).First();
        }
        return string.Join(", then ", path.Append($"“{_steps[to].Title}”"));
    }

    private static string Low(string name) => UsualSteps.Low(name);

    private void Ways()
    {
        foreach (var step in _steps)
            foreach (var id in Reach.Of(_sheet, step))
            {
                if (id == step.What)
                    continue;
                var name = Low(_sheet.Access[id].Name);
                Link(_opens.GetValueOrDefault(id), step, $"needs the {name} open");
                Link(step, _closes.GetValueOrDefault(id), $"is reached through the {name}, which goes back after it");
            }
        foreach (var hold in _sheet.Access.Values.Where(a => a.HoldsVehicle && _opens.ContainsKey(a.Id)))
            foreach (var step in _steps.Where(s => s.What != hold.Id && (s.Lift == LiftNeed.Up || _sheet.Stands == Stand.Ground && s.Kind is StepKind.Open or StepKind.Drain or StepKind.Tighten or StepKind.Look)))
            {
                Link(_opens[hold.Id], step, $"needs the {Low(hold.Name)} in place");
                Link(step, _closes[hold.Id], $"needs the {Low(hold.Name)} in place");
            }
    }

    private void Joints()
    {
        foreach (var f in _sheet.Fasteners.Values.Where(f => _opens.ContainsKey(f.Id)))
        {
            var (open, close, name) = (_opens[f.Id], _closes[f.Id], Low(f.Name));
            Link(open, close, $"closes the {name}", open.Wait?.Lasts ?? default);
            foreach (var fit in Of(StepKind.Fit).Where(s => s.What == f.Seal || f.Holds.Contains(s.What)))
            {
                Link(open, fit, $"needs the {name} out", open.Kind == StepKind.Drain ? open.Wait?.Lasts ?? default : default);
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
            var name = Low(fluid.Name);
            var joints = _sheet.Fasteners.Values.Where(f => f.System == fluid.Id && f.Fills != fluid.Id).ToList();
            var fillPlugs = _sheet.Fasteners.Values.Where(f => f.Fills == fluid.Id && _opens.ContainsKey(f.Id)).ToList();
            var drains = Of(StepKind.Drain).Where(s => joints.Any(j => j.Id == s.What)).ToList();
            foreach (var drain in drains)
            {
                foreach (var plug in fillPlugs)
                    Link(_opens[plug.Id], drain, $"waits until the {Low(plug.Name)} is proven loose, or the {name} could not go back in");
                foreach (var measure in Of(StepKind.Measure).Where(s => s.What == fluid.Id))
                    Link(drain, measure, $"measures what ran out", drain.Wait?.Lasts ?? default);
            }
            foreach (var measure in Of(StepKind.Measure).Where(s => s.What == fluid.Id))
                foreach (var pour in Of(StepKind.Pour).Where(s => s.What == fluid.Id))
                    Link(measure, pour, "needs to know how much came out");
            foreach (var pour in Of(StepKind.Pour).Where(s => s.What == fluid.Id))
            {
                foreach (var joint in joints.Where(j => _closes.ContainsKey(j.Id)))
                    Link(_closes[joint.Id], pour, $"needs the {Low(joint.Name)} tight, or it would run straight out");
                foreach (var plug in fillPlugs)
                    Link(pour, _closes[plug.Id], "goes in through it", pour.Wait?.Lasts ?? default);
                foreach (var gauge in Of(StepKind.Gauge).Where(s => s.What == fluid.Id))
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
        foreach (var warm in Of(StepKind.Warm))
        {
            foreach (var drain in Of(StepKind.Drain).Where(d => _sheet.Fasteners[d.What].Drains is { } f && _sheet.Fluids[f].DrainHot))
                Link(warm, drain, "runs out better warm");
        }
        foreach (var hot in Of(StepKind.Warm, StepKind.Run))
            foreach (var cold in _steps.Where(s => s.Cold))
                Link(cold, hot, "needs the engine cold");
    }

    private void Engine()
    {
        var (run, settle) = (Of(StepKind.Run).FirstOrDefault(), Of(StepKind.Settle).FirstOrDefault());
        var look = Of(StepKind.Look).ToList();
        var pumped = _sheet.Fluids.Values.Where(f => f.Pumped).Select(f => f.Id).ToHashSet();
        if (run is not null)
        {
            var clear = Of(StepKind.Clear).ToList();
            IEnumerable<SheetStep> first = [
                .. Of(StepKind.Pour).Where(s => pumped.Contains(s.What)),
                .. Of(StepKind.Tighten).Where(s => _sheet.Fasteners[s.What].System is { } f && pumped.Contains(f)),
                .. Of(StepKind.Prime),
                .. pumped.SelectMany(f => _sheet.Fluids[f].Through).Distinct().Where(_closes.ContainsKey).Select(id => _closes[id]) ];
            foreach (var step in first)
            {
                foreach (var c in clear)
                    Link(step, c, "is looked over before the engine runs");
                Link(step, run, step.Kind == StepKind.Prime ? "is needed for it to start" : "must be in place before the engine runs");
            }
            foreach (var c in clear)
                Link(c, run, "comes before anything turns");
            Link(run, settle, "stops what was started", run.Wait?.Lasts ?? default);
            foreach (var gauge in Of(StepKind.Gauge).Where(g => pumped.Contains(g.What)))
                Link(settle, gauge, "is read when it has settled", settle?.Wait?.Lasts ?? default);
        }
        foreach (var l in look)
        {
            Link(settle, l, "shows leaks only after the engine has run");
            foreach (var tight in Of(StepKind.Tighten).Where(s => _sheet.Fasteners[s.What] is var f && (f.Seal is not null || f.System is not null)))
                Link(tight, l, "looks at every joint that was opened");
            foreach (var pour in Of(StepKind.Pour).Where(p => !pumped.Contains(p.What)))
                Link(pour, l, "looks at every joint that was opened");
            foreach (var cover in _sheet.Access.Values.Where(a => a.AfterLeakCheck && _closes.ContainsKey(a.Id)))
                Link(l, _closes[cover.Id], "goes back only after the leak check");
        }
    }

    private void Beginning()
    {
        foreach (var kit in Of(StepKind.Kit))
            foreach (var open in Of(StepKind.Open, StepKind.Drain, StepKind.Secure))
                Link(kit, open, "waits until everything lies ready");
    }

    private void End()
    {
        foreach (var reset in Of(StepKind.Reset).Where(s => s.After.All(a => !_index.ContainsKey(a) || _steps[_index[a]].Kind != StepKind.Reset)))
            foreach (var step in Of(StepKind.Pour, StepKind.Gauge, StepKind.Settle, StepKind.Tighten).Where(s => s.Jobs.Intersect(reset.Jobs).Any()))
                Link(step, reset, "comes before the indicator is put out");
        foreach (var drive in Of(StepKind.Drive))
            foreach (var step in Of(StepKind.Close, StepKind.Tighten, StepKind.Gauge, StepKind.Look, StepKind.Pour, StepKind.Settle).Where(s => !IsAfter(s, drive)))
                Link(step, drive, "is closed before it is driven");
        if (_index.TryGetValue(UsualSteps.UsedOil, out var waste))
        {
            foreach (var drain in Of(StepKind.Drain))
                Link(drain, _steps[waste], "puts away what ran out", drain.Wait?.Lasts ?? default);
            foreach (var fit in Of(StepKind.Fit))
                Link(fit, _steps[waste], "puts away what was replaced");
        }
        if (_index.TryGetValue(UsualSteps.Label, out var label))
            foreach (var step in Of(StepKind.Gauge, StepKind.Look, StepKind.Pour, StepKind.Fit, StepKind.Retighten))
                Link(step, _steps[label], "is written when the work is done");
    }

    private bool IsAfter(SheetStep step, SheetStep drive) => step.After.Any(a => a == drive.Id || _index.TryGetValue(a, out var i) && IsAfter(_steps[i], drive));

    private void Said()
    {
        foreach (var step in _steps)
        {
            foreach (var id in step.After.Where(_index.ContainsKey))
                Link(_steps[_index[id]], step, $"comes after “{_steps[_index[id]].Title}”");
            foreach (var id in step.Awaits.Where(_index.ContainsKey))
                Link(_steps[_index[id]], step, $"waits for it: {_steps[_index[id]].Wait!.For}", _steps[_index[id]].Wait!.Lasts);
        }
    }

    private List<OpenSpan> Spans()
    {
        var spans = new List<OpenSpan>();
        string[] running = [.. Of(StepKind.Warm, StepKind.Run, StepKind.Drive).Select(s => s.Id)];
        string[] down = [.. _steps.Where(s => s.Lift == LiftNeed.Down).Select(s => s.Id)];
        foreach (var (what, open) in _opens.Where(o => _closes.ContainsKey(o.Key)))
        {
            var close = _closes[what].Id;
            if (_sheet.Fasteners.TryGetValue(what, out var f))
                spans.Add(new(open.Id, close, [.. (open.Lift == LiftNeed.Up ? down.Concat(running) : running).Distinct()], $"the {Low(f.Name)} is out"));
            else if (_sheet.Access[what] is { } a && (a.ClosedToRun || a.Intake))
                spans.Add(new(open.Id, close, running, $"the {Low(a.Name)} is open"));
        }
        foreach (var drain in Of(StepKind.Drain))
            if (_sheet.Fasteners[drain.What].Drains is { } fluid && _sheet.Fluids[fluid].SafeToStart is not null && Of(StepKind.Pour).FirstOrDefault(s => s.What == fluid) is { } pour)
                spans.Add(new(drain.Id, pour.Id, running, $"there is no {Low(_sheet.Fluids[fluid].Name)} in it"));
        if (Of(StepKind.Run).FirstOrDefault() is { } run && Of(StepKind.Settle).FirstOrDefault() is { } settle)
            spans.Add(new(run.Id, settle.Id, [.. _steps.Where(s => s.Id != run.Id && s.Id != settle.Id).Select(s => s.Id)], "the engine is running"));
        return [.. spans.Where(s => s.Barred.Count > 0)];
    }

    // A barred step that must come before the closing must come before the opening too, and one that comes after the opening comes after the closing.
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

    private ComposedWork Result(List<OpenSpan> spans)
    {
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
        var links = _links.Where(l => l.Value.Lag > TimeSpan.Zero || !follows[l.Key.Before].Any(m => m != l.Key.After && _after.Reaches(m, l.Key.After)))
            .Select(l => new StepLink(_steps[l.Key.Before].Id, _steps[l.Key.After].Id, l.Value.Lag, l.Value.Why)).ToList();
        var before = links.ToLookup(l => l.After);
        return new(_sheet, _jobs, [.. sorted.Select(s => s with
        {
            After = [.. before[s.Id].Where(l => l.Lag == TimeSpan.Zero).Select(l => l.Before)],
            Awaits = [.. before[s.Id].Where(l => l.Lag > TimeSpan.Zero).Select(l => l.Before)],
        })], links, spans);
    }
}
