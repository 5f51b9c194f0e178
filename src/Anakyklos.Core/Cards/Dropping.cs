using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Cards;

/// <summary>A job that cannot be finished, and a card that comes to nothing.</summary>
public sealed partial class JobCard
{
    /// <summary>Whether the card can still be made void: nothing is open and nothing was changed on the vehicle.</summary>
    public bool CanBeVoid => Ended is null && _state.Open.All(o => o.Kind == OpenKind.Indicator) && _state.ClosedAt.Count == 0
        && _state.Fitted.Count == 0 && !IsAnyFluidTouched;

    /// <summary>Who asked that the card be made void, and why; null where nobody did, or work went on since.</summary>
    public Noted<VoidAsked>? ToVoid => _state.ToVoid;

    // What was only looked at is as it was.
    private bool IsAnyFluidTouched => _state.Fluids.Values.Any(f => f.Out || f.Pours > 0);

    private Decision MakeVoid(VoidCard c)
    {
        if (Wordless(c.Reason, "reason", "The reason") is { } missing)
            return missing;
        return NotVoid() is { } not ? not : Yes(new VoidAsked(c.Reason.Trim()));
    }

    private Decision VoidedBy(Noted<VoidAsked> asked) => NotVoid() is { } not ? not : Yes(new CardVoided(asked.Event.Reason, asked.Seq));

    // Why it cannot come to nothing; null where it can.
    private Refused? NotVoid()
    {
        if (Open.Where(o => o.Kind != OpenKind.Indicator).ToList() is { Count: > 0 } open)
            return new Refused([.. open
                .Select(o => new Refusal($"{o.Name}: still open.", "Close it first, then make the card void.", Closing(o)?.Id,
                    Ground: Ground.Shut))]);
        return CanBeVoid ? null
            : No("Something on the vehicle was opened or changed on this card.",
                "Give up the jobs that cannot be finished, close what is open, and sign what was done.");
    }

    // A road test is for brakes and wheels, and for gears by the way.
    private bool IsProvedOnTheRoad(JobId job) => Steps.Any(s => s.Jobs.Contains(job) && s.Spec is not DriveSpec && !s.MovesLift
        && !Sheet.Access.ContainsKey(s.What) && IsEssential(s));

    private Decision Drop(DropJob c, Person by, DateTimeOffset now)
    {
        if (!Jobs.Contains(c.Job))
            return No("This job is not on the card any more.", "Choose one of those that are.", ground: Ground.Already);
        if (Wordless(c.Reason, "reason", "The reason") is { } missing)
            return missing;
        var (job, kept) = (Sheet.Jobs[c.Job], Without(c.Job));
        var dropped = new JobDropped(c.Job, job.Name, c.Reason.Trim());
        List<CardEvent> events = [dropped];
        // Brakes, steering or wheels that were begun and are not finished: the vehicle is held.
        if (Steps.FirstOrDefault(s => s.Jobs.Contains(c.Job) && (s.Traits.FeelsPedal || kept.All(k => k.Id != s.Id)) && !s.MovesLift
            && s.Traits is { Sets: false, Closes: false } && IsLeft(s.Id) && IsEssential(s)
            && (s.Spec is not DriveSpec || IsProvedOnTheRoad(c.Job))) is { } essential && IsWorkedOn(c.Job))
            events.Add(new DeviationTaken("", DeviationKind.JobGivenUp, c.Job.Text, $"{job.Name} given up before “{TitleOf(essential)}”",
                c.Reason.Trim(), true));
        events.Add(new PlanChanged(kept, $"{job.Name} given up: {c.Reason.Trim()}", TimeSpan.Zero));
        var after = Soon(events, by, now);
        if (after.Replanned(now, [], null, ((PlanChanged)events[^1]).Why).FirstOrDefault() is { } ordered)
            events[^1] = ordered;
        return new Accepted(events);
    }

    // What was undone and begins again, such as a nut that is slackened once more, was worked on all the same.
    private bool IsWorkedOn(JobId job) => Steps.Any(s => s.Jobs.Contains(job) && (WasUndone(s.What)
        || (State(s.Id).Status == StepStatus.Done
            && s.Traits is { LaysOut: false, Sets: false, OnlyLooks: false, Engine: not EngineUse.Warms } && !s.MovesLift
            && !(s.Traits is { Opens: true, LetsOut: false } && Sheet.Access.ContainsKey(s.What)))));

    private bool WasUndone(ThingId what) =>
        Sheet.Fasteners.TryGetValue(what, out var f) && (HasOpen(f) || _state.ClosedAt.ContainsKey(f.Id));

    // What is done stays; what other jobs need stays; of the rest only what closes what is open, with the proof that it holds.
    private IReadOnlyList<SheetStep> Without(JobId job)
    {
        var rest = Jobs.Where(j => j != job).ToHashSet();
        var opened = Sheet.Fasteners.Keys.Where(f => WasUndone(f)).ToHashSet();
        var touched = opened.Count > 0 || IsAnyFluidTouched;
        var above = Steps.Any(s => !IsLeft(s.Id) && TakesToolsAbove(s));
        var (reach, bled) = (Reach(), Bled());
        var stays = Steps.FirstOrDefault(s => s.Traits.Engine == EngineUse.Drives) is { } road
            && (!IsLeft(road.Id) || road.Jobs.Any(rest.Contains));
        var kept = Steps.Where(s => !IsLeft(s.Id) || (!s.MovesLift && (s.Jobs.Any(rest.Contains) || ClosesWhatIsOpen(s) || Reaches(s)
            || (touched && Proves(s)) || (above && s.Traits.LooksOver)))).ToList();
        kept = [.. Steps.Where(s => (kept.Contains(s) && !LooksThroughShut(s)) || HoldsIt(s))];
        var ids = kept.Select(s => s.Id).ToHashSet();
        var last = kept.Where(k => k.Traits.Closes && IsLeft(k.Id) && Sheet.Access[k.What].HoldsVehicle).GroupBy(k => k.What)
            .Select(g => g.Last().Id).ToHashSet();
        return [.. kept.Select(s =>
            s with { After = [.. Before(s).Where(b => s.Lift != LiftNeed.Up || !last.Contains(b)).Where(b => !WaitsForNoLook(s, b))
                .Concat(Held(s)).Distinct()],
            Awaits = [.. s.Awaits.Where(ids.Contains)] })];

        // What goes up for the rest is held, though it was the job given up that would have set what holds it.
        bool HoldsIt(SheetStep s)
        {
            var up = kept.FindIndex(k => IsLeft(k.Id) && k.Lift == LiftNeed.Up);
            if (up < 0 || !IsLeft(s.Id) || !(s.Traits.Sets || s.Traits.Closes) || !Sheet.Access.TryGetValue(s.What, out var hold)
                || !hold.HoldsVehicle || HasOpen(hold) || kept.Take(up).Any(k => k.Traits.Sets && k.What == s.What && IsLeft(k.Id)))
                return false;
            return Remaining.First(r => r.What == s.What && r.Traits.Sets == s.Traits.Sets).Id == s.Id;
        }

        // What was to be looked over through a cover that nobody opens any more was not worked at.
        bool LooksThroughShut(SheetStep s) => IsLeft(s.Id) && s.Traits.LooksOver && s.Needs.Select(n => (AccessId)n)
            .Where(Sheet.Access.ContainsKey).Any(a => !HasOpen(Sheet.Access[a])
                && !kept.Any(k => IsLeft(k.Id) && k.Traits.Opens && k.What == a));

        // A cover that waited for a look after the road goes on before it where that look went with the job.
        bool WaitsForNoLook(SheetStep s, StepId before) =>
            s.Traits.Closes && !s.After.Contains(before) && Step(before) is { IsDriven: true };

        // What is set and taken away twice is taken away once more at most.
        bool ClosesWhatIsOpen(SheetStep s) => s.Traits switch
        {
            { Closes: true } => IsOpen(new(OpenKind.Access, s.What))
                && Remaining.First(r => r.Traits.Closes && r.What == s.What).Id == s.Id,
            { Tightens: true } or { ShutsAgain: true } => IsOpen(new(OpenKind.Fastener, s.What)),
            { Fits: true } => Sheet.Fasteners.Values.Any(f => HasOpen(f) && f.Fitted.Contains(s.What))
                || (Sheet.Parts[s.What].Secures is { } held && opened.Contains(held)),
            { Fills: true } or { MeasuresOut: true } or { Levels: true } => Fluid(s.What) is { Out: true } or { Pours: > 0, Good: false }
                || (s.Traits.Fills && IsBledFrom(s.What)),
            { Engine: EngineUse.Stops } => EngineRuns,
            _ => false,
        };

        // A screw that is open is bled until it runs clear, however far the reservoir falls.
        bool IsBledFrom(FluidId fluid) => Remaining.Any(b => b.Traits.ShutsAgain && Sheet.Fasteners.TryGetValue(b.What, out var screw)
            && screw.System == fluid && HasOpen(screw));

        // A joint that turned out loose may lie behind what was shut since, and what is out is filled through what is not open yet.
        HashSet<AccessId> Reach()
        {
            var loose = Sheet.Fasteners.Values.Where(HasOpen).ToList();
            var fastens = Remaining.Where(s => s.Traits.Fastens && loose.Any(f => s.What == f.Id)).ToList();
            var goesUp = fastens.Any(s => s.Lift == LiftNeed.Up);
            var through = fastens.SelectMany(s => s.Needs).Select(n => (AccessId)n).Where(Sheet.Access.ContainsKey);
            var fills = Remaining.Where(s => s.Traits.Fills && Fluid(s.What).Out).ToList();
            return [.. InFrontOf(loose.SelectMany(f => f.Needs).Concat(through), goesUp)
                .Concat(InFrontOf(fills.SelectMany(s => Sheet.Fluids[s.What].Through), fills.Any(s => s.Lift == LiftNeed.Up)))
                .Where(a => !HasOpen(a)).Select(a => a.Id)];
        }

        bool Reaches(SheetStep s) => s.Traits is { Opens: true, LetsOut: false } or { Sets: true } or { Closes: true }
            && Sheet.Access.TryGetValue(s.What, out var access) && reach.Contains(access.Id);

        bool Proves(SheetStep s) =>
            s.Traits is { Engine: EngineUse.Starts or EngineUse.Stops } or { LooksAtJoints: true } or { LooksOver: true }
            || s.Traits.Lift == LiftMove.ReadyToLower
            || s.Id == Composing.UsualSteps.UsedOil || (Composing.UsualSteps.IsAgain(s) && (stays || IsForTheRun(s)))
            || (s.Traits.Primes && IsBegun(s)) || (s.Traits.FeelsPedal && bled.Contains(s.What));

        // What holds it is taken away for a run as well as for the road.
        bool IsForTheRun(SheetStep s) => Sheet.Access.TryGetValue(s.What, out var hold) && hold.ClosedToRun;

        // Brakes that were opened are felt before anybody moves it; whether it is driven the lead decides, who is asked for his name.
        HashSet<FluidId> Bled() => [.. Steps.Where(s => s.Traits.CatchesInABottle)
            .Where(s => s.Traits.SucksOut ? State(s.Id).Status == StepStatus.Done : WasUndone(s.What))
            .Select(s => s.Traits.SucksOut ? (FluidId)s.What : Sheet.Fasteners[s.What].System!.Value)];

        // What holds the vehicle goes last, after all that still needs the lift.
        IEnumerable<StepId> Held(SheetStep s) => last.Contains(s.Id) ? kept.Where(k => IsLeft(k.Id) && k.Lift == LiftNeed.Up)
            .Select(k => k.Id) : [];

        // The order through a step that is gone is kept.
        IEnumerable<StepId> Before(SheetStep s) => s.After.Concat(s.Awaits.Where(a => !ids.Contains(a)))
            .SelectMany(a => ids.Contains(a) ? [a] : Step(a) is { } gone ? Before(gone).Concat(gone.Awaits.Where(ids.Contains))
                : Enumerable.Empty<StepId>());
    }
}
