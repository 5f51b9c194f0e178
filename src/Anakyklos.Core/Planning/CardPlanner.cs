using Anakyklos.Core.Composing;
using Anakyklos.Core.Ordering;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Planning;

/// <summary>Makes the plan of a card from the jobs wanted, and makes it again from wherever the card stands.</summary>
public static class CardPlanner
{
    /// <summary>The steps of the jobs in their best order for one person, the lift's moves among them.</summary>
    /// <param name="sheet">The model's sheet.</param>
    /// <param name="jobs">Ids of jobs in that sheet.</param>
    /// <returns>The steps in their best order, with the moves of the lift.</returns>
    /// <exception cref="KeyNotFoundException">The sheet has no such job.</exception>
    /// <exception cref="ComposingException">The sheet asks for a circle.</exception>
    public static IReadOnlyList<SheetStep> Compose(ModelSheet sheet, IEnumerable<JobId> jobs) => Plan(sheet, jobs).Steps;

    /// <summary>The plan of a new card.</summary>
    /// <param name="sheet">The model's sheet.</param>
    /// <param name="jobs">Ids of jobs in that sheet.</param>
    /// <param name="people">1 or 2.</param>
    /// <param name="schools">How the workshop works; null for the usual.</param>
    /// <returns>The plan, begun at zero.</returns>
    /// <exception cref="KeyNotFoundException">The sheet has no such job.</exception>
    /// <exception cref="ComposingException">The sheet asks for a circle.</exception>
    public static CardPlan Plan(ModelSheet sheet, IEnumerable<JobId> jobs, int people = 1, WorkSchools? schools = null) =>
        Order(CardComposer.Compose(sheet, jobs, schools), PlanStart.Fresh, people);

    /// <summary>Puts work in order from where it stands.</summary>
    /// <param name="work">The work.</param>
    /// <param name="start">Where it stands.</param>
    /// <param name="people">1 or 2.</param>
    /// <returns>The plan of what is left, with the moves of the lift; what is blocked and what depends on it is not in it.</returns>
    public static CardPlan Order(ComposedWork work, PlanStart start, int people = 1)
    {
        var problem = Problem(work, start);
        var ordering = people == 1 ? StepOrdering.ForOne(problem) : StepOrdering.ForTwo(problem);
        return new(work, start, ordering, people);
    }

    /// <summary>The work of a card that is open, from its own frozen steps.</summary>
    /// <param name="sheet">The sheet revision of the card.</param>
    /// <param name="jobs">Its jobs.</param>
    /// <param name="steps">All its steps; the lift's moves are left out of the work.</param>
    /// <returns>The work with the links that its steps name.</returns>
    public static ComposedWork Work(ModelSheet sheet, IReadOnlyList<JobId> jobs, IReadOnlyList<SheetStep> steps) =>
        StepOrder.Again(sheet, jobs, [.. steps.Where(s => !s.MovesLift)]);

    /// <summary>The same work in the terms of ordering: tasks in the order of the work's steps.</summary>
    /// <param name="work">The work.</param>
    /// <param name="start">Where it stands.</param>
    /// <returns>One task a step, begun or not; times in whole seconds, waits rounded up.</returns>
    public static OrderingProblem Problem(ComposedWork work, PlanStart start)
    {
        var index = work.Steps.Select((s, i) => (s.Id, i)).ToDictionary(p => p.Id, p => p.i);
        var usual = new UsualSteps(work.Sheet);
        static int Seconds(IEnumerable<SheetStep> steps) => steps.Sum(s => (int)s.Takes.TotalSeconds);
        return new(
            [.. work.Steps.Select(s => new OrderingTask((int)s.Takes.TotalSeconds, s.Lift, s.Place, s.People, s.Alone,
                s.Traits.LaysOut || s.Id == UsualSteps.UsedOil))],
            [.. work.Links.Select(l => new OrderingLag(index[l.Before], index[l.After], (int)l.Lag.TotalSeconds))],
            [.. work.Spans.Where(s => !start.Reopened.Contains(s.Closes) && !(s.IsWish && start.Done.Contains(s.Opens)))
                .Select(s => new OrderingBar(index[s.Opens], index[s.Closes], [.. s.Barred.Select(b => index[b])]))],
            Seconds(usual.LiftMove(true)), Seconds(usual.LiftMove(false)))
        {
            Pairs = [.. Pairs(work).Select(p => (index[p.Opens.Id], index[p.Closes.Id]))],
            Start = new(
                start.Done.Where(index.ContainsKey).Select(id => index[id]).ToHashSet(),
                start.Blocked.Where(index.ContainsKey).Select(id => index[id]).ToHashSet(),
                work.Links.Where(l => start.Waits.ContainsKey(l.Before) && start.Waits[l.Before] > TimeSpan.Zero && l.Lag > TimeSpan.Zero)
                    .GroupBy(l => index[l.After]).ToDictionary(g => g.Key,
                        g => (int)Math.Ceiling(g.Max(l => start.Waits[l.Before]).TotalSeconds)),
                start.LiftUp, start.Place),
        };
    }

    // What is opened and closed, save what holds the vehicle; what is done to a part or through
    // one opening, one after the other; and what is hot or settled and read then.
    private static IEnumerable<(SheetStep Opens, SheetStep Closes)> Pairs(ComposedWork work)
    {
        foreach (var open in work.Steps.Where(s => s.Traits.Opens))
            if (work.Steps.FirstOrDefault(s => s.Traits.Shuts && s.What == open.What) is { } close)
                yield return (open, close);
        foreach (var fit in work.Steps.Where(s => s.Traits.Fits && work.Sheet.Parts.ContainsKey(s.What)))
            foreach (var before in work.Steps.Where(s => work.Sheet.Parts[fit.What].After.Contains(s.Id)))
                yield return (before, fit);
        foreach (var step in work.Steps.Where(s => work.Sheet.Steps.ContainsKey(s.Id)))
            foreach (var before in work.Steps.Where(b => work.Sheet.Steps[step.Id].After.Contains(b.Id)
                && b.Needs.Intersect(step.Needs).Any()))
                yield return (before, step);
        foreach (var settle in work.Steps.Where(s => s.Traits.Engine == EngineUse.Stops))
            foreach (var gauge in work.Steps.Where(s => s.Traits.Levels && work.Sheet.Fluids[s.What].Pumped))
                yield return (settle, gauge);
        foreach (var warm in work.Steps.Where(s => s.Traits.Engine == EngineUse.Warms))
            foreach (var drain in work.Steps.Where(s => s.Traits.LetsOut
                && work.Sheet.Fluids[work.Sheet.Fasteners[s.What].Drains!.Value].DrainHot))
                yield return (warm, drain);
    }
}

/// <summary>Where a card stands, for its plan.</summary>
/// <param name="Done">Steps that are done or left out.</param>
/// <param name="Blocked">Steps that wait for something that is not here.</param>
/// <param name="Waits">What is left of running waits, by the step that began them.</param>
/// <param name="LiftUp">Where the lift is.</param>
/// <param name="Place">Where the person stands; null when nowhere yet.</param>
/// <param name="Moves">The number of the last move of the lift by a step of the plan, up and down; 0 for none.</param>
public sealed record PlanStart(IReadOnlySet<StepId> Done, IReadOnlySet<StepId> Blocked, IReadOnlyDictionary<StepId, TimeSpan> Waits,
    bool LiftUp, Place? Place, (int Up, int Down) Moves)
{
    /// <summary>Steps that close what counts as open again, though what opened it was done long ago: what is barred while it is open for
    /// the first time, such as work that needs the vehicle down, is not barred now.</summary>
    public IReadOnlySet<StepId> Reopened { get; init; } = new HashSet<StepId>();

    /// <summary>Nothing done, lift down.</summary>
    public static PlanStart Fresh { get; } = new(new HashSet<StepId>(), new HashSet<StepId>(), new Dictionary<StepId, TimeSpan>(), false,
        null, (0, 0));
}
