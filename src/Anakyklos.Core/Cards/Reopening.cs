using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Cards;

/// <summary>How a joint that was closed counts as open again: it leaks, or its reading was noted wrongly. What lies before it is opened
/// once more, and what was proved of it is proved once more, however much was closed since.</summary>
public sealed partial class JobCard
{
    /// <summary>What it does that a joint which was tight counts as open again.</summary>
    /// <param name="tighten">The step that tightens it.</param>
    /// <param name="why">Why, in a few words.</param>
    /// <param name="leaks">Whether it was seen to leak: then it is proved again whatever runs through it.</param>
    /// <returns>That it is open, that what lies before it is opened again, and that what was proved of it is proved again.</returns>
    internal IEnumerable<Effect> CountsAsOpen(SheetStep tighten, string why, bool leaks = false)
    {
        var fastener = Sheet.Fasteners[tighten.What];
        return
        [
            new StepBeginsAgain(tighten.Id), new Opens(new(OpenKind.Fastener, fastener.Id), fastener.Name, why, tighten.Id),
            .. leaks && fastener.SealsWith is not null ? new[] { new SealLeaks(fastener.Id) } : [],
            .. IsDoneAgain(tighten, leaks || fastener.IsJoint, leaks || IsPumped(fastener)),
        ];
    }

    /// <summary>What it does that a step which was done is done once more.</summary>
    /// <param name="step">The step, done to a fastener.</param>
    /// <param name="isProved">Whether the joints are looked at for it, where that was done.</param>
    /// <param name="runs">Whether the engine runs before that look.</param>
    /// <returns>Every step that begins again with it; not the step itself.</returns>
    internal IEnumerable<Effect> IsDoneAgain(SheetStep step, bool isProved, bool runs)
    {
        var looks = isProved ? Steps.Where(s => s.Traits.LooksAtJoints && WasDone(s)).ToList() : [];
        var proofs = isProved && runs
            ? Steps.Where(s => s.Traits.Engine is EngineUse.Starts or EngineUse.Stops && WasDone(s)).ToList() : [];
        var goesUp = step.Lift == LiftNeed.Up || looks.Any(s => s.Lift == LiftNeed.Up);
        var needs = looks.Concat(proofs).Append(step).SelectMany(s => s.Needs).Select(n => (AccessId)n).Where(Sheet.Access.ContainsKey);
        var shut = InFrontOf(Sheet.Fasteners[step.What].Needs.Concat(needs), goesUp).Where(a => !HasOpen(a)).ToList();
        // What is done with a tool above is looked over again, whatever is proved of it.
        IEnumerable<SheetStep> swept = proofs.Count == 0 && !TakesToolsAbove(step) ? []
            : Steps.Where(s => s.Traits.LooksOver && !s.MovesLift && WasDone(s) && s.Needs.Select(n => (AccessId)n)
                .Where(Sheet.Access.ContainsKey).Select(id => Sheet.Access[id]).All(a => HasOpen(a) || shut.Contains(a)));
        IReadOnlyList<StepId> again =
        [
            .. looks.Concat(proofs).Concat(swept).Select(s => s.Id),
            .. shut.SelectMany(a => IsOpenedAgain(a, a.ClosedToRun && proofs.Count > 0)),
            .. proofs.Count > 0 ? KeyComesOut() : [],
        ];
        return
        [
            .. again.Concat(IsDoneWith([step.Id, .. again])).Concat(IsLookedAtAgain([step.Id, .. again], shut))
                .SelectMany(id => new Effect[] { new StepBeginsAgain(id), new WaitEnds(id) }),
        ];
    }

    /// <summary>What it does that something is set once more which a fastener holds: it is slackened, the work under it is done again, and
    /// it is tightened again.</summary>
    /// <param name="held">The fastener.</param>
    /// <returns>Every step that begins again.</returns>
    internal IEnumerable<Effect> IsSlackenedAgain(FastenerId held) =>
        Steps.Where(s => WasDone(s) && !s.Traits.OnlyLooks
            && (s.Needs.Contains(held) || (s.What == held && (s.Traits.Opens || s.Traits.Tightens))))
            .Select(s => new StepBeginsAgain(s.Id));

    /// <summary>What it does that so much was taken out again that the engine may not start: the fluid is filled once more.</summary>
    /// <param name="fluid">The fluid.</param>
    /// <param name="left">What is left of what was poured.</param>
    /// <returns>The filling, with what it is poured through; nothing where enough is left.</returns>
    internal IEnumerable<Effect> IsFilledAgain(FluidId fluid, Quantity<Volume> left)
    {
        var system = Sheet.Fluids[fluid];
        if (system.SafeToStart?.Value is not { } safe || left >= safe
            || Steps.FirstOrDefault(s => s.Traits.Fills && s.What == fluid && WasDone(s)) is not { } fill)
            return [];
        var shut = InFrontOf(system.Through, fill.Lift == LiftNeed.Up).Where(a => !HasOpen(a));
        return [.. shut.SelectMany(a => IsOpenedAgain(a, false)).Prepend(fill.Id).Select(id => new StepBeginsAgain(id))];
    }

    /// <summary>What it does that a fluid was let down and poured back, or stood over a joint that was open: its level is read once
    /// more.</summary>
    /// <param name="fluid">The fluid.</param>
    /// <returns>The reading, where there was one, with what it is read through.</returns>
    internal IEnumerable<Effect> LevelIsReadAgain(FluidId fluid)
    {
        var own = Steps.Where(s => s.What == fluid && (s.Traits.Levels || s.Traits.Fills)).ToList();
        // Where nothing is read it is poured until it runs over, and seen to run over once more.
        var levels = own.Where(s => s.Traits.Levels || (Sheet.Fluids[fluid].FillBy == FillBy.Overflow && own.All(o => !o.Traits.Levels)))
            .Where(WasDone).ToList();
        foreach (var level in levels)
        {
            var plugs = Sheet.Fasteners.Values.Where(f => f.Fills == fluid || level.Needs.Contains(f.Id)).ToList();
            var covers = InFrontOf(level.Needs.Select(n => (AccessId)n).Where(Sheet.Access.ContainsKey)
                .Concat(Sheet.Fluids[fluid].Through).Concat(plugs.SelectMany(p => p.Needs)), level.Lift == LiftNeed.Up)
                .Where(a => !HasOpen(a));
            IEnumerable<StepId> again =
            [
                level.Id, .. covers.SelectMany(a => IsOpenedAgain(a, false)),
                .. Steps.Where(s => WasDone(s) && plugs.Any(p => s.What == p.Id ? s.Traits.Opens || s.Traits.Tightens
                    : s.Traits.Fits && p.Fitted.Contains(s.What))).Select(s => s.Id),
            ];
            foreach (var id in again)
                yield return new StepBeginsAgain(id);
        }
    }

    // What is looked at because something was shut, such as which line is on which port, is looked at again when that is shut again, as far
    // as it can be seen then.
    private IEnumerable<StepId> IsLookedAtAgain(IReadOnlyCollection<StepId> again, IReadOnlyCollection<Access> opened) =>
        Steps.Where(s => s.Traits.OnlyLooks && WasDone(s) && Sheet.Steps.TryGetValue(s.Id, out var own)
            && own.After.Any(a => again.Contains(a) && Step(a) is { Traits.Shuts: true })
            && s.Needs.Select(n => (AccessId)n).Where(Sheet.Access.ContainsKey).Select(id => Sheet.Access[id])
                .All(a => HasOpen(a) || opened.Contains(a))).Select(s => s.Id);

    // What was done so that a level is read at once, such as going through the gears, is done again when other work comes in between.
    private IEnumerable<StepId> IsDoneWith(IReadOnlyCollection<StepId> again) => Work.Spans
        .Where(span => !span.IsWish && Step(span.Opens) is { Traits: { Opens: false, LetsOut: false, Sets: false } } begun && WasDone(begun)
            && Step(span.Closes) is { Traits.Levels: true } && IsLeft(span.Closes) && span.Barred.Any(again.Contains))
        .Select(span => span.Opens).Distinct();

    // A key that was locked away a second time comes out once more for the run.
    private IEnumerable<StepId> KeyComesOut()
    {
        foreach (var set in Steps.Where(s => s.Traits.Sets && Composing.UsualSteps.IsAgain(s) && WasDone(s)))
            if (Sheet.Access[set.What] is { ClosedToRun: true } hold && HasOpen(hold)
                && Steps.FirstOrDefault(s => s.Traits.Closes && s.What == hold.Id) is { } away)
            {
                yield return set.Id;
                yield return away.Id;
            }
    }

    // All that has to be off to get at something; with what holds the vehicle where it goes up.
    private IEnumerable<Access> InFrontOf(IEnumerable<AccessId> needs, bool goesUp)
    {
        var found = new HashSet<AccessId>();
        var left = new Queue<AccessId>(needs.Concat(goesUp ? Sheet.Access.Values.Where(a => a.HoldsVehicle).Select(a => a.Id) : []));
        while (left.TryDequeue(out var id))
            if (found.Add(id))
                foreach (var behind in Sheet.Access[id].Needs)
                    left.Enqueue(behind);
        return found.Select(id => Sheet.Access[id]);
    }

    // What must be shut while the engine runs is opened for the work and once more for the look; otherwise once is enough.
    private IEnumerable<StepId> IsOpenedAgain(Access access, bool eachTime)
    {
        var opened = Steps.Where(s => s.What == access.Id && (s.Traits.Opens || s.Traits.Sets) && WasDone(s)).Select(s => s.Id);
        var closed = Steps.Where(s => s.What == access.Id && s.Traits.Closes && WasDone(s)).Select(s => s.Id);
        return eachTime ? opened.Concat(closed) : opened.TakeLast(1).Concat(closed.TakeLast(1));
    }

    private bool WasDone(SheetStep step) => State(step.Id).Status == StepStatus.Done;
}
