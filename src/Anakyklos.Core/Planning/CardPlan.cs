using Anakyklos.Core.Composing;
using Anakyklos.Core.Ordering;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Planning;

/// <summary>A step in its time.</summary>
/// <param name="Step">The step.</param>
/// <param name="Begins">From now.</param>
/// <param name="Ends">From now.</param>
/// <param name="Person">0 for the first person, 1 for the second.</param>
public sealed record PlannedStep(SheetStep Step, TimeSpan Begins, TimeSpan Ends, int Person);

/// <summary>A wait in its time.</summary>
/// <param name="Step">The step that begins it.</param>
/// <param name="For">What it waits for.</param>
/// <param name="Begins">From now.</param>
/// <param name="Ends">From now.</param>
public sealed record PlannedWait(StepId Step, string For, TimeSpan Begins, TimeSpan Ends);

/// <summary>The work of a card in its order, with the moves of the lift, in time.</summary>
public sealed class CardPlan
{
    internal CardPlan(ComposedWork work, PlanStart start, OrderedWork ordering, int people)
    {
        (Work, Ordered, People) = (work, ordering, people);
        var rows = new List<PlannedStep>();
        var usual = new UsualSteps(work.Sheet);
        var (up, ups, downs) = (start.LiftUp, start.Moves.Up, start.Moves.Down);
        foreach (var task in ordering.Tasks)
        {
            if (task.LiftMoveBegins is { } at)
                Move(at, task.Person);
            var step = work.Steps[task.Task];
            var begins = TimeSpan.FromSeconds(task.Begins);
            rows.Add(new(step, begins, begins + step.Takes, task.Person));
        }
        if (up && ordering.Tasks.Count > 0)
            Move((int)rows.Max(r => r.Ends).TotalSeconds, 0);
        Rows = rows;
        Waits = [.. rows.Where(r => r.Step.Wait is not null)
            .Select(r => new PlannedWait(r.Step.Id, r.Step.Wait!.For, r.Ends, r.Ends + r.Step.Wait.Lasts)),
            .. start.Waits.Where(w => w.Value > TimeSpan.Zero && work.Steps.Any(s => s.Id == w.Key && s.Wait is not null))
                .Select(w => new PlannedWait(w.Key, work.Steps.First(s => s.Id == w.Key).Wait!.For, TimeSpan.Zero, w.Value))];

        void Move(int seconds, int person)
        {
            up = !up;
            var number = up ? ++ups : ++downs;
            var at = TimeSpan.FromSeconds(seconds);
            foreach (var step in usual.LiftMove(up))
            {
                rows.Add(new(step with { Id = number == 1 ? step.Id : $"{step.Id}-{number}", After = [], Awaits = [] }, at, at + step.Takes,
                    person));
                at += step.Takes;
            }
        }
    }

    /// <summary>The work that was put in order.</summary>
    public ComposedWork Work { get; }

    /// <summary>The names of what is opened and closed again, without what holds the vehicle.</summary>
    public IReadOnlyList<string> OpenedNames => [.. Work.Opened
        .Where(id => !Work.Sheet.Access.TryGetValue(id, out var access) || !access.HoldsVehicle)
        .Select(id => Work.Sheet.Access.GetValueOrDefault(id)?.Name ?? Work.Sheet.Fasteners[id].Name)];

    /// <summary>How long two people are needed in all.</summary>
    public TimeSpan ForTwo => TimeSpan.FromTicks(Rows.Where(r => r.Step.People == 2).Sum(r => r.Step.Takes.Ticks));

    /// <summary>The order and its bound.</summary>
    public OrderedWork Ordered { get; }

    /// <summary>How many people do it.</summary>
    public int People { get; }

    /// <summary>All steps with the lift's moves, by their beginning.</summary>
    public IReadOnlyList<PlannedStep> Rows { get; }

    /// <summary>The waits that nobody stands beside.</summary>
    public IReadOnlyList<PlannedWait> Waits { get; }

    /// <summary>The steps in order.</summary>
    public IReadOnlyList<SheetStep> Steps => [.. Rows.Select(r => r.Step)];

    /// <summary>To the end of everything.</summary>
    public TimeSpan Total => TimeSpan.FromSeconds(Ordered.Cost.Seconds);

    /// <summary>Proven: nobody can be faster.</summary>
    public TimeSpan Bound => TimeSpan.FromSeconds(Ordered.Bound.Seconds);

    /// <summary>What it would take if every wait were waited out.</summary>
    public TimeSpan OneAfterAnother => Rows.Aggregate(TimeSpan.Zero, (sum, r) => sum + r.Step.Takes)
        + Waits.Where(w => Work.Links.Any(l => l.Before == w.Step && l.Lag > TimeSpan.Zero))
        .Aggregate(TimeSpan.Zero, (sum, w) => sum + (w.Ends - w.Begins));

    /// <summary>Why a step stands where it does: what it needs, which waits it fills, and what waits for it.</summary>
    /// <param name="step">A step of this plan.</param>
    /// <returns>Each of its lists may be empty.</returns>
    /// <exception cref="InvalidOperationException">The plan has no such step.</exception>
    public PlanReason Why(StepId step)
    {
        var row = Rows.First(r => r.Step.Id == step);
        if (row.Step.MovesLift)
        {
            var next = Rows.FirstOrDefault(r => r.Begins >= row.Ends && !r.Step.MovesLift && r.Step.Lift != LiftNeed.Any);
            return new([next is null ? "brings the vehicle down at the end" : $"is needed for “{next.Step.Title}”"], Fills(row), []);
        }
        return new(
            [.. Work.Links.Where(l => l.After == step).Select(l => l.Why).Distinct()],
            Fills(row),
            [.. Work.Links.Where(l => l.Before == step).SelectMany(l => Rows.Where(r => r.Step.Id == l.After)).Select(r => r.Step)]);
    }

    private IReadOnlyList<string> Fills(PlannedStep row) =>
        [.. Waits.Where(w => w.Step != row.Step.Id && w.Begins <= row.Begins && row.Ends <= w.Ends && IsAwaited(w.Step)).Select(w => w.For)
            .Distinct()];

    private bool IsAwaited(StepId step) => Work.Links.Any(l => l.Before == step && l.Lag > TimeSpan.Zero);
}

/// <summary>Why a step stands where it does.</summary>
/// <param name="Needs">What it needs, each as the end of a sentence.</param>
/// <param name="Fills">The waits that it fills.</param>
/// <param name="Opens">The steps of the plan that wait for it; what is done already waits no more.</param>
public sealed record PlanReason(IReadOnlyList<string> Needs, IReadOnlyList<string> Fills, IReadOnlyList<SheetStep> Opens);
