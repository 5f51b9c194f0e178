using System.Globalization;
using Anakyklos.Core.Composing;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Cards;

public sealed partial class JobCard
{
    /// <summary>What is left of the card in its best order from here.</summary>
    /// <param name="now">The time, for running waits.</param>
    /// <param name="people">1 or 2.</param>
    /// <returns>The plan of what is left; empty when nothing is.</returns>
    public CardPlan PlanFrom(DateTimeOffset now, int people = 1) => CardPlanner.Order(Work, StandsAt(now, [], null), people);

    /// <summary>What is left of the card when a step is taken first; null when it cannot be taken now.</summary>
    /// <param name="step">Step id.</param>
    /// <param name="now">The time.</param>
    /// <returns>The plan, and how much longer it takes than the best one.</returns>
    public (CardPlan Plan, TimeSpan Costs)? PlanWith(StepId step, DateTimeOffset now)
    {
        if (Step(step) is not { } first || first.MovesLift || State(step).Status is StepStatus.Done or StepStatus.LeftOut
            || InTheWay(first, now).Count > 0)
            return null;
        var plan = CardPlanner.Order(Work, StandsAt(now, [], step));
        return (plan, first.Takes + plan.Total - PlanFrom(now).Total);
    }

    /// <summary>The work of this card, without the lift's moves.</summary>
    public ComposedWork Work => _work ??= FindWork();

    private ComposedWork? _work;

    // Composed afresh where that gives the steps that were frozen, since only then is it known why each link is there.
    private ComposedWork FindWork()
    {
        if (_state.Dropped.Count > 0)
            return CardPlanner.Work(Sheet, Jobs, Steps);
        var frozen = CardPlanner.Work(Sheet, Opened.Jobs, Opened.Steps);
        try
        {
            var fresh = CardComposer.Compose(Sheet, Opened.Jobs, Opened.Schools);
            return fresh.Steps.Select(s => s.Id).ToHashSet().SetEquals(frozen.Steps.Select(s => s.Id)) ? fresh : frozen;
        }
        catch (Exception e) when (e is ComposingException or KeyNotFoundException)
        {
            return frozen;
        }
    }

    private Decision Early(TakeEarly c, DateTimeOffset now)
    {
        if (Step(c.Step) is not { } step || step.MovesLift)
            return NoSuchStep(c.Step);
        if (Next?.Id == c.Step)
            return No("This is the next step anyway.", "Do it.", c.Step, ground: Ground.Already);
        if (IsOver(step, now) is { } over)
            return over;
        if (InTheWay(step, now) is { Count: > 0 } reasons)
            return new Refused(reasons);
        return Replanned(now, [], c.Step, $"“{TitleOf(step)}” taken early").ToArray() is { Length: > 0 } events ? Yes(events)
            : No("It is in its place already: nothing comes between.", "Do it.", c.Step, ground: Ground.Already);
    }

    private Decision AgainFromHere(DateTimeOffset now) =>
        Replanned(now, [], null, "Put in order again from here").ToArray() is { Length: > 0 } events ? Yes(events)
        : No("The order is the best there is already.", "Go on with the next step.", Next?.Id, ground: Ground.Already);

    // The next step is always one that can be done now, where there is any. What was left for later and is done, and a lift moved by hand,
    // let the rest take its place again in any case.
    private IEnumerable<CardEvent> OrderedAfter(CardCommand command, IReadOnlyList<CardEvent> events, JobCard after, Person by,
        DateTimeOffset now)
    {
        if (events.Any(e => e is PlanChanged or Signed or VoidAsked or CardVoided or Amended))
            return [];
        if (command is MoveLift)
            return after.Replanned(now, [], null, after.LiftUp ? "The vehicle was raised" : "The vehicle was lowered");
        var effects = events.SelectMany(e => e.Frozen?.Effects ?? []).ToList();
        if (Among(effects.Select(e => e is StepEnds ends ? ends.Step : (e as StepLeftOut)?.Step))
            .FirstOrDefault(s => State(s.Id).Status == StepStatus.Aside && after.IsDone(s)) is { } done)
            return after.Replanned(now, [], null, $"“{TitleOf(done)}” is done");
        if (Among(effects.Select(e => (e as StepBeginsAgain)?.Step)).FirstOrDefault(s => WasDone(s) && after.IsLeft(s.Id)) is { } again)
            return after.Replanned(now, [], null, $"“{TitleOf(again)}” is to be done again");
        if (after.Next is not { } next || after.CanBegin(next))
            return [];
        // Where no order helps, the order stays, and the step says what stands in its way.
        var other = after.Replanned(now, [], null, "What comes next cannot be done as it stands").ToList();
        return other.Count > 0
            && after.Soon(other, by, now) is { Next: { } better } then
            && then.CanBegin(better) ? other : [];
    }

    private IEnumerable<SheetStep> Among(IEnumerable<StepId?> steps) => steps.OfType<StepId>().Select(Step).OfType<SheetStep>();

    private PlanStart StandsAt(DateTimeOffset now, IReadOnlyList<StepId> alsoBlocked, StepId? first)
    {
        var begun = first is { } id ? Step(id) : null;
        return new(
            Steps.Where(s => IsDone(s) || s.Id == first).Select(s => s.Id).ToHashSet(),
            Steps.Where(s => s.Id != first && (State(s.Id).Status == StepStatus.Aside || (IsLeft(s.Id) && StopInTheWay(s).Any())))
                .Select(s => s.Id).Concat(alsoBlocked).ToHashSet(),
            _state.Waits.Where(w => w.Until > now).ToDictionary(w => w.Id, w => w.Until - now - (begun?.Takes ?? TimeSpan.Zero))
                .Concat(begun?.Wait is { } wait ? [new(begun.Id, wait.Lasts)] : []).ToDictionary(),
            LiftUp, (begun ?? LastDone)?.Place,
            (Moves(Steps.Where(IsDone), true), Moves(Steps.Where(IsDone), false)))
        {
            Reopened = _state.Open.Where(o => o.Kind == OpenKind.Fastener && Step(o.By) is { Traits.Fastens: true })
                .Select(o => o.By).ToHashSet(),
        };
    }

    // The number of the last move in this direction; a move that was only begun counts, so that the next one is looked at afresh.
    private static int Moves(IEnumerable<SheetStep> steps, bool up) =>
        steps.Where(s => s.MovesLift && s.Traits.Lift is (LiftMove.Raises or LiftMove.ReadyToRaise) == up)
        .Select(s => s.Id.Text.AsSpan(s.Id.Text.LastIndexOf('-') + 1) is var last
            && int.TryParse(last, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : 1)
        .DefaultIfEmpty(0).Max();

    private bool IsDone(SheetStep s) => State(s.Id).Status is StepStatus.Done or StepStatus.LeftOut;

    private SheetStep? LastDone => Steps.Where(s => State(s.Id).Status == StepStatus.Done).MaxBy(s => State(s.Id).Through!.Seq);

    /// <summary>The change of plan, when there is any: what is done stays first, then the step taken early, then the rest in its best
    /// order, what waits last.</summary>
    private IEnumerable<CardEvent> Replanned(DateTimeOffset now, IReadOnlyList<StepId> alsoBlocked, StepId? first, string why)
    {
        var before = CardPlanner.Order(Work, StandsAt(now, [], null));
        var plan = alsoBlocked.Count == 0 && first is null ? before : CardPlanner.Order(Work, StandsAt(now, alsoBlocked, first));
        var ahead = plan.Steps;
        IReadOnlyList<SheetStep> done = [.. Steps.Where(IsDone)];
        IReadOnlyList<SheetStep> taken = first is { } early ? [Known(early)] : [];
        IReadOnlyList<SheetStep> soon = [.. done.Concat(taken).Concat(ahead)];
        var placed = soon.Select(s => s.Id).ToHashSet();
        // What waits comes last, with the moves of the lift that it will need then.
        var later = Work.Steps.All(s => placed.Contains(s.Id)) ? []
            : CardPlanner.Order(Work, new(placed, new HashSet<StepId>(), new Dictionary<StepId, TimeSpan>(),
            ahead.Count == 0 && LiftUp, null, (Moves(soon, true), Moves(soon, false)))).Steps;
        placed.UnionWith(later.Select(s => s.Id));
        // Begun moves of the lift (arms set, not yet raised) are looked at again: the plan's own come afresh.
        IReadOnlyList<SheetStep> waiting = [.. Steps.Where(s => !placed.Contains(s.Id) && !s.MovesLift)];
        IReadOnlyList<SheetStep> steps = [.. soon.Concat(later).Concat(waiting).DistinctBy(s => s.Id)];
        if (steps.Select(s => s.Id).SequenceEqual(Steps.Select(s => s.Id)))
            return [];
        var costs = alsoBlocked.Count > 0 ? TimeSpan.Zero
            : (first is { } taking ? Known(taking).Takes : TimeSpan.Zero) + plan.Total - before.Total;
        return [new PlanChanged(steps, why, costs)];
    }
}
