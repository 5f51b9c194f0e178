using System.Collections.Immutable;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Cards;

/// <summary>What each event and each effect makes of a card.</summary>
public sealed partial class JobCard
{
    private JobCard After(Recorded r) => new(this, Fold(_state, r), r.Event is JobDropped);

    // From state to state; a card in between is made only for an event that does not say itself what it did.
    private CardState Fold(CardState s, Recorded r) => r.Event switch
    {
        CardOpened or TakenBack or SampleTaken or WordLeft => s,
        PlanChanged e => Planned(s, e),
        PartAwaited e => s with { Awaited = WithoutNumber(s, e.Number).Add(e) },
        PartCame e => s with { Awaited = WithoutNumber(s, e.Number) },
        WaitCut e => Apply(s, new WaitEnds(e.Wait), r),
        PanEmptied e => Apply(s, new PanIsEmpty(e.Pan), r),
        FeltCold => s with { IsFeltCold = true },
        StepPutAside e => s with { Steps = s.Steps.SetItem(e.Step, new(StepStatus.Aside, r, e.Reason)) },
        DeviationTaken e => All(s with { Deviations = s.Deviations.Add(new(r.Seq, r, e)) }, r),
        Countersigned e => s with { Countersigned = s.Countersigned.Add(e.Of) },
        FindingNoted e => Found(s, new(r.Seq, r, e)),
        StopDecided e => s with { Decided = s.Decided.SetItem(e.Of, new(r.Seq, r, e)) },
        StoodBeside e => s with { Beside = s.Beside.Add(e.Who) },
        CarriedMended e => s with { Mended = s.Mended.Add(e.Index) },
        LiftMoved e => Apply(s, new LiftMoves(e.Up), r),
        JobDropped e => s with { Dropped = s.Dropped.SetItem(e.Job, new(r.Seq, r, e)) },
        Signed => s with { Signature = r },
        ValueRuled e => s with { Rulings = s.Rulings.Add(e.ByLibrary ? e.Ruling : e.Ruling with { By = r.By.Name, At = r.At }) },
        VoidAsked e => s with { ToVoid = new(r.Seq, r, e) },
        CardVoided => s with { Voided = r },
        Amended e => s with { Amendments = s.Amendments.Add(new(r.Seq, r, e)) },
        IStepEvent => All(s with { ToVoid = null }, r),
        _ => throw new InvalidOperationException($"The card does not know what {r.Event.GetType().Name} means."),
    };

    private CardState All(CardState s, Recorded r)
    {
        foreach (var effect in r.Event.Frozen?.Effects ?? new JobCard(this, s, false).EffectsOf(r.Event))
            s = Apply(s, effect, r);
        return s;
    }

    /// <summary>What an event did: as it was written down, or, on cards from before that was done, as the kind of its step says.</summary>
    internal IReadOnlyList<Effect> EffectsOf(CardEvent e) => e switch
    {
        { Frozen: { } frozen } => frozen.Effects,
        DeviationTaken { Kind: not (DeviationKind.NoReading or DeviationKind.StepLeftOut) } => [],
        DeviationTaken d => Coach.Of(Known(d.Step)).Effects(this, Known(d.Step), d),
        IStepEvent at => Coach.Of(Known(at.Step)).Effects(this, Known(at.Step), e),
        _ => [],
    };

    private CardState Apply(CardState s, Effect effect, Recorded r) => effect switch
    {
        StepEnds e => StepEnded(s, e.Step, r),
        StepBeginsAgain e => s with
        {
            Steps = s.Steps.SetItem(e.Step, new(StepStatus.Waiting, null)),
            Seen = s.Seen.RemoveAll(x => x.Step == e.Step),
            Drawn = s.Drawn.Remove(e.Step),
            Points = s.Points.RemoveAll(x => x.Step == e.Step),
            Proving = s.Proving?.Step == e.Step ? null : s.Proving,
            Joints = s.Joints.RemoveRange(s.Joints.Keys.Where(k => k.Step == e.Step)),
            Tried = s.Tried.RemoveRange(s.Tried.Keys.Where(k => k.Step == e.Step)),
            Swept = s.Swept.Except(s.Swept.Where(k => k.Step == e.Step)),
        },
        PlacesAreDrawn e => s with
        {
            Drawn = s.Drawn.SetItem(e.Step, DrawnAt(s, e.Step).Union(e.Places.Select(p => new PlaceDrawn(e.Pass, p)))),
        },
        PlaceIsLoose e => s with { Drawn = s.Drawn.SetItem(e.Step, DrawnAt(s, e.Step).Remove(new(e.Pass, e.Place))) },
        WrenchIsTaken e => s with { InHand = s.InHand.SetItem(e.Step, new(e.Wrench, e.With)) },
        StepLeftOut e => s with { Steps = s.Steps.SetItem(e.Step, new(StepStatus.LeftOut, r, e.Reason)) },
        StepStops e => s with { StandStill = s.StandStill.Add(e.Step) },
        StepGoesOn e => s with { StandStill = s.StandStill.Remove(e.Step) },
        Opens e => OpenedUp(s, e, r.Seq),
        Closes e => Closed(s, e.What, r.Seq),
        PartGoesIn e => s with { Fitted = s.Fitted.Add(e.Part) },
        PartComesOut e => WithWhatStoodIn(e.Part, s with { Fitted = s.Fitted.Remove(e.Part) }),
        FluidMeetsDry e => Changed(s, e.Fluid, f => f with { Stripped = true }),
        FluidRunsThrough e => Changed(s, e.Fluid, f => f with { Rinsed = f.Rinsed + e.Amount }),
        PartHolds e => Changed(s, e.Fluid, f => f with { Poured = f.Poured + e.Amount, InPart = f.InPart + e.Amount }),
        FluidRunsOut e => Changed(s, e.Fluid, f => FluidState.Untouched with { Out = true, Found = f.Found }),
        LevelFound e => Changed(s, e.Fluid, f => f with { Found = e.Level }),
        LevelBeforeRun e => Changed(s, e.Fluid, f => f with { BeforeRun = e.Level }),
        FillsPan e => s with { Pans = s.Pans.SetItem(e.Pan, s.Pans[e.Pan].With(Sheet.Fluids[e.Fluid], e.Amount)) },
        PanIsEmpty e => s with { Pans = s.Pans.SetItem(e.Pan, s.Pans[e.Pan] with { In = [] }) },
        FluidGoesIn e => Changed(s, e.Fluid, f =>
            f with { Poured = f.Poured + e.Amount, SinceReading = f.SinceReading + e.Amount, Pours = f.Pours + 1 }),
        FluidMeasured e => Changed(s, e.Fluid, f => f with { CameOut = e.Amount }),
        LevelIs e => Changed(s, e.Fluid, f =>
            f with { Level = e.Level, Depth = e.Depth, SinceReading = Quantity<Volume>.Zero, Good = e.Good, Out = f.Out && !e.Good }),
        FluidFalls e => Changed(s, e.Fluid, f => f with { Good = false }),
        FluidIsIn e => Changed(s, e.Fluid, f => f with { Good = true, Out = false }),
        WaitBegins e => s with { Waits = Waiting(s, e.Wait).Add(new(e.Wait, e.For, r.At, r.At + e.Lasts)) },
        WaitEnds e => s with { Waits = Waiting(s, e.Wait) },
        EngineHeats => s with { HotAt = r.At },
        EngineStarts e => s with
        {
            // What was seen of a joint before a run says nothing after it.
            HotAt = r.At, EngineRuns = true, RanAt = r.Seq, Joints = s.Joints.Clear(),
            Proving = e.Proving is { } step ? (step, r.At) : null,
        },
        EngineStops => s with { HotAt = s.EngineRuns ? r.At : s.HotAt, EngineRuns = false, Proving = null },
        LiftMoves e => Moved(s, e.Up, r.Seq),
        LooksLike e => s with { Seen = s.Seen.Add(new(e.Step, e.Look, e.Leads)) },
        PointReads e => s with { Points = Reads(s.Points, e) },
        SetsOff e => s with { Away = e.Step, HotAt = r.At },
        ComesBack => s with { Away = null, HotAt = r.At },
        TryGoes e => s with { Tried = s.Tried.SetItem((e.Step, e.Try), e.Went) },
        ThingIsSeen e => s with { Swept = s.Swept.Add((e.Step, e.What)) },
        JointLooks e => s with { Joints = s.Joints.SetItem((e.Step, e.Joint), e.How) },
        SealLeaks e => s with
        {
            Seals = s.Seals.SetItem(e.Joint, s.Seals.GetValueOrDefault(e.Joint) is SealAfterLeak.Stays or SealAfterLeak.LeakedAgain
                ? SealAfterLeak.LeakedAgain : SealAfterLeak.Leaked),
        },
        SealStays e => s with { Seals = s.Seals.SetItem(e.Joint, SealAfterLeak.Stays) },
        SealIsNew e => s with { Seals = s.Seals.SetItem(e.Joint, SealAfterLeak.Renewed) },
        JointsSeen => s with { LookedAt = r.Seq },
        KitLies => Laid(s, r),
        _ => throw new InvalidOperationException($"The card does not know what {effect.GetType().Name} does."),
    };

    // What was found first stays beside what was left.
    private static ImmutableList<PointFound> Reads(ImmutableList<PointFound> points, PointReads e)
    {
        var at = points.FindIndex(p => p.Step == e.Step && p.Point == e.Point);
        return at < 0 ? points.Add(new(e.Step, e.Point, e.Reads, e.Reads, e.Outcome, e.Settled))
            : points.SetItem(at, points[at] with { Left = e.Reads, Outcome = e.Outcome, Settled = e.Settled });
    }

    private static CardState Found(CardState s, Noted<FindingNoted> finding) => s with
    {
        Findings = s.Findings.Add(finding),
        Stops = finding.Event.Grade == FindingGrade.Stop ? s.Stops.Add(finding) : s.Stops,
    };

    private static CardState Changed(CardState s, FluidId fluid, Func<FluidState, FluidState> change) =>
        s with { Fluids = s.Fluids.SetItem(fluid, change(s.Fluids.GetValueOrDefault(fluid) ?? FluidState.Untouched)) };

    // What stood in a part goes out with it.
    private CardState WithWhatStoodIn(PartId part, CardState s) =>
        Sheet.FluidIn(part) is { } fluid && s.Fluids.GetValueOrDefault(fluid.Id) is { } state && state.InPart > Quantity<Volume>.Zero
            ? Changed(s, fluid.Id, f => f with { Poured = f.Poured - f.InPart, InPart = Quantity<Volume>.Zero }) : s;

    private static ImmutableHashSet<PlaceDrawn> DrawnAt(CardState s, StepId step) => s.Drawn.GetValueOrDefault(step) ?? [];

    private static ImmutableList<RunningWait> Waiting(CardState s, StepId without) => s.Waits.RemoveAll(w => w.Id == without);

    private static CardState StepEnded(CardState s, StepId step, Recorded r)
    {
        var done = s with
        {
            Steps = s.Steps.SetItem(step, new(StepStatus.Done, r)), Proving = s.Proving?.Step == step ? null : s.Proving,
        };
        return s.Plan.FirstOrDefault(p => p.Id == step)?.Wait is { } wait
            ? done with { Waits = Waiting(s, step).Add(new(step, wait.For, r.At, r.At + wait.Lasts)) } : done;
    }

    private static CardState OpenedUp(CardState s, Opens e, int seq)
    {
        var item = new OpenItem(e.What, e.Name, e.Detail, e.By, seq, e.Count);
        var at = s.Open.FindIndex(o => o.What == e.What);
        var open = s with { Open = at < 0 ? s.Open.Add(item) : s.Open.SetItem(at, item) };
        return e.What.Kind != OpenKind.Fastener ? open : open with
        {
            ClosedAt = s.ClosedAt.Remove(e.What.Id),
            Joints = s.Joints.RemoveRange(s.Joints.Keys.Where(k => (ThingId)k.Joint == e.What.Id)),
        };
    }

    private static CardState Closed(CardState s, OpenRef what, int seq)
    {
        var closed = s with { Open = s.Open.RemoveAll(o => o.What == what) };
        return what.Kind == OpenKind.Fastener ? closed with { ClosedAt = s.ClosedAt.SetItem(what.Id, seq) } : closed;
    }

    private static CardState Moved(CardState s, bool up, int seq)
    {
        var moved = s with { LiftUp = up };
        return up ? OpenedUp(moved, new(OpenRef.Lift, "Vehicle on the lift", "up", ""), seq) : Closed(moved, OpenRef.Lift, seq);
    }

    // A kit laid out again replaces the one before, with what strayed in it; what is in the vehicle already stays as it was.
    private static CardState Laid(CardState s, Recorded r)
    {
        var kit = (KitConfirmed)r.Event;
        return s with
        {
            Kit = kit,
            Pans = LaidAgain(s.Pans, [.. kit.AllPans.Where(p => p > Quantity<Volume>.Zero)]),
            Awaited = [],
            Deviations = s.Deviations.RemoveAll(d => d.Event.Step == kit.Step && d.Recorded.Command != r.Command
                && d.Event.Kind is DeviationKind.OldSealAgain or DeviationKind.OtherPart or DeviationKind.OtherOil && !IsIn(d.Event.Part)),
        };

        bool IsIn(ThingId what) => s.Fitted.Contains(what) || s.Fluids.GetValueOrDefault(what) is { Pours: > 0 };
    }

    // What is in a pan stays in it; one that is named no more stands aside with what it caught.
    private static ImmutableList<PanInUse> LaidAgain(ImmutableList<PanInUse> before, IReadOnlyList<Quantity<Volume>> holds)
    {
        var used = before.Where(p => p.In.Count > 0).ToList();
        return [.. holds.Select(h => used.Find(p => p.Holds == h) is { } same && used.Remove(same) ? same : new PanInUse(h))];
    }

    private static ImmutableList<PartAwaited> WithoutNumber(CardState s, string number) =>
        s.Awaited.RemoveAll(a => PartNumber.Same(a.Number, number));

    private static CardState Planned(CardState s, PlanChanged e)
    {
        var steps = s.Steps.RemoveRange(s.Plan.Where(gone => e.Steps.All(n => n.Id != gone.Id)).Select(gone => gone.Id));
        foreach (var step in e.Steps.Where(n => !steps.ContainsKey(n.Id)))
            steps = steps.Add(step.Id, new(StepStatus.Waiting, null));
        return s with
        {
            Plan = e.Steps,
            Steps = steps,
            Away = e.Steps.Any(n => n.Id == s.Away) ? s.Away : null,
            // An indicator whose reset went with a dropped job stays as it is: the service it asks for was not done.
            Open = s.Open.RemoveAll(o => o.Kind == OpenKind.Indicator && e.Steps.All(n => !n.EndsReset || n.What != o.Id)),
        };
    }
}
