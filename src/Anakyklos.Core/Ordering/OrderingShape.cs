using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Ordering;

/// <summary>What an ordering problem says about itself before any order is tried: what follows from what, and where waiting cannot be
/// avoided.</summary>
internal sealed class OrderingShape
{
    internal const int Down = 0, Up = 1;

    internal readonly OrderingProblem Problem;
    internal readonly int Count;
    internal readonly TaskSet Active, Done;
    internal readonly TaskSet[] Before, Ancestors, Descendants;
    internal readonly int[] Seconds, Place, Lift;
    internal readonly (int Opens, int Closes, TaskSet Barred)[] Bars;
    internal readonly (int After, int Slot, int Seconds)[][] LagsFrom;
    internal readonly int[] SlotOf, SlotTask;
    internal readonly IReadOnlyList<WaitGroup> Waits;

    private readonly TaskSet[] _reachable = new TaskSet[8];
    private readonly Dictionary<(TaskSet, int, int), long> _switches = [], _plainSwitches = [];
    private readonly List<int> _long = [];
    private TaskSet _openings;

    // More than any order costs, and small enough to be added to.
    internal const long Never = 1L << 40;

    /// <summary>One wait, or several that follow each other: what can never be done meanwhile, and whether the lift stays.</summary>
    internal sealed record WaitGroup((int Before, int After, int Slot, int Seconds)[] Windows, TaskSet Outside, bool LiftStays);

    internal OrderingShape(OrderingProblem problem)
    {
        Problem = problem;
        Count = problem.Tasks.Count;
        if (Count > OrderingProblem.Most)
            throw new ArgumentException($"{Count} tasks are more than the {OrderingProblem.Most} that can be put in order at once.",
                nameof(problem));
        Seconds = [.. problem.Tasks.Select(t => t.Seconds)];
        Place = [.. problem.Tasks.Select(t => (int)t.Place)];
        Lift = [.. problem.Tasks.Select(t => t.Lift switch { LiftNeed.Down => Down, LiftNeed.Up => Up, _ => -1 })];
        Bars = [.. problem.Bars.Select(b => (b.Opens, b.Closes, TaskSet.Of(b.Barred)))];
        var order = Closed(problem);
        Ancestors = [.. Range().Select(j => TaskSet.Of(Range().Where(i => order.Reaches(i, j))))];
        Descendants = [.. Range().Select(i => TaskSet.Of(Range().Where(j => order.Reaches(i, j))))];
        Done = TaskSet.Of(problem.Start.Done);
        // The nearest that are not done: what begins again comes first, though what lay between is done.
        Before = [.. Ancestors.Select(before => before - Done)
            .Select(left => left - Range().Where(i => left[i]).Aggregate(default(TaskSet), (set, i) => set | Ancestors[i]))];
        Active = TaskSet.Of(Range()) - Done - LeftOut(problem.Start);

        SlotTask = [.. problem.Lags.Where(l => l.Seconds > 0).Select(l => l.After).Concat(problem.Start.ReadyIn.Keys).Distinct()
            .Where(t => Active[t])];
        SlotOf = [.. Range().Select(t => Array.IndexOf(SlotTask, t))];
        LagsFrom = [.. Range().Select(i => problem.Lags.Where(l => l.Before == i && l.Seconds > 0 && SlotOf[l.After] >= 0)
            .Select(l => (l.After, SlotOf[l.After], l.Seconds)).ToArray())];
        for (var c = 0; c < 8; c++)
            _reachable[c] = TaskSet.Of(Range().Where(t => Active[t] && Place[t] == c >> 1 && (Lift[t] < 0 || Lift[t] == (c & 1))));
        FindLongBars();
        Waits = Groups();
    }

    internal IEnumerable<int> Range() => Enumerable.Range(0, Count);

    // A barred task that leads to the closing leads to the opening, and one that follows from the opening follows from the closing.
    private Reachability Closed(OrderingProblem problem)
    {
        var order = new Reachability(Count);
        foreach (var lag in problem.Lags)
            Must(order.Add(lag.Before, lag.After));
        foreach (var bar in Bars)
            Must(bar.Opens == bar.Closes || order.Add(bar.Opens, bar.Closes));
        for (var again = true; again;)
        {
            again = false;
            foreach (var bar in Bars)
                for (var t = bar.Barred.Next(0); t >= 0; t = t == 255 ? -1 : bar.Barred.Next(t + 1))
                {
                    // What was done out of turn is done; where that makes a circle, the search finds what cannot be reached.
                    var begun = problem.Start.Done.Contains(bar.Opens);
                    if (problem.Start.Done.Contains(t) || problem.Start.Done.Contains(bar.Closes))
                        continue;
                    if (!begun && order.Reaches(t, bar.Closes) && !order.Reaches(t, bar.Opens))
                        again |= Must(order.Add(t, bar.Opens));
                    if (order.Reaches(bar.Opens, t) && !order.Reaches(bar.Closes, t))
                        again |= begun ? order.Add(bar.Closes, t) : Must(order.Add(bar.Closes, t));
                }
        }
        return order;

        // Begun work may stand in a way that no order leads to; then the search finds what can still be done.
        bool Must(bool added) => added ? true : problem.Start.Done.Count + problem.Start.LeftOut.Count > 0 ? false
            : throw new ArgumentException("The tasks go round in a circle.", nameof(problem));
    }

    // What cannot be closed is not opened; what is open and cannot be closed keeps what it bars from being done.
    private TaskSet LeftOut(OrderingStart start)
    {
        var left = default(TaskSet);
        var next = TaskSet.Of(start.LeftOut) - Done;
        while (!next.IsWithin(left))
        {
            left |= next;
            next = default;
            foreach (var t in Range().Where(t => left[t]))
                next |= Descendants[t];
            foreach (var (opens, closes, barred) in Bars)
                if (left[closes])
                    next |= Done[opens] ? barred : default(TaskSet).With(opens);
            next -= Done;
        }
        return left;
    }

    /// <summary>Tasks that cannot be reached from here in any order, as far as doing everything possible shows.</summary>
    internal TaskSet Unreachable()
    {
        var done = Done;
        for (var again = true; again;)
        {
            again = false;
            var left = Active - done - BarredAt(done);
            for (var t = left.Next(0); t >= 0 && !again; t = t == 255 ? -1 : left.Next(t + 1))
                if ((Before[t] & Active).IsWithin(done))
                    (done, again) = (done.With(t), true);
        }
        return Active - done;
    }

    private List<WaitGroup> Groups()
    {
        var lags = Problem.Lags.Where(l => l.Seconds > 0 && Active[l.After] && (Active[l.Before] || Done[l.Before])).ToList();
        // A running wait has no beginning in this problem: it stands as one from nothing.
        var singles = lags.Where(l => Active[l.Before]).Select(l => Single(l.Before, l.After, l.Seconds))
            .Concat(Problem.Start.ReadyIn.Where(r => r.Value > 0 && Active[r.Key]).Select(r => Single(-1, r.Key, r.Value))).ToList();
        var groups = new List<WaitGroup>(singles);
        for (var level = singles; level.Count is > 0 and < 400 && level[0].Windows.Length < 3;)
        {
            level = [.. from a in level from b in singles where b.Windows[0].Before >= 0
                && Follows(a.Windows[^1].After, b.Windows[0].Before)
                        select new WaitGroup([.. a.Windows, .. b.Windows], a.Outside & b.Outside, a.LiftStays && b.LiftStays)];
            groups.AddRange(level);
        }
        return [.. groups.Select(g => (Group: g, Spare: (Active - g.Outside).Sum(Seconds) - g.Windows.Sum(w => w.Seconds)))
            .OrderBy(g => g.Spare).Take(48).Select(g => g.Group)];
    }

    private bool Follows(int a, int b) => a == b || Ancestors[b][a];

    private WaitGroup Single(int i, int j, int seconds)
    {
        var outside = Descendants[j].With(j);
        if (i >= 0)
            outside |= Ancestors[i].With(i);
        foreach (var bar in Bars)
            if ((i < 0 ? Done[bar.Opens] : bar.Opens == i || Ancestors[i][bar.Opens]) && (bar.Closes == j || Descendants[j][bar.Closes]))
                outside |= bar.Barred;
        var filler = Active - outside;
        var lift = i < 0 ? (Problem.Start.LiftUp ? Up : Down) : Lift[i];
        var stays = lift >= 0 && Lift[j] == lift && !Range().Any(t => filler[t] && Lift[t] == 1 - lift);
        return new([(i, j, SlotOf[j], seconds)], outside & Active, stays);
    }

    /// <summary>The tasks that may not begin now because of what is open.</summary>
    internal TaskSet BarredAt(in TaskSet done)
    {
        var barred = default(TaskSet);
        foreach (var (opens, closes, set) in Bars)
            if (done[opens] && !done[closes])
                barred |= set;
        return barred;
    }

    /// <summary>Seconds that so many moves of the lift take, beginning where it is.</summary>
    internal int MoveSeconds(int moves, int lift) => moves / 2 * (Problem.RaiseSeconds + Problem.LowerSeconds)
        + (moves % 2 == 0 ? 0 : lift == Up ? Problem.LowerSeconds : Problem.RaiseSeconds);

    /// <summary>
    /// The fewest moves of the lift, and with those the fewest changes of place, for all that is left when nothing has to be waited for: no
    /// order
    /// does with fewer. Packed as moves × 4096 + changes. What can be done without moving may always be done first, save the opening of
    /// what
    /// bars something; so only the moves and those openings are searched. Bars of things that close where they open are left out of
    /// account.
    /// </summary>
    /// <param name="done">What is done.</param>
    /// <param name="lift">Where the lift is.</param>
    /// <param name="place">Where the person is, or −1.</param>
    /// <param name="barring">Whether bars count at all; not for a part of the work that does not hold both ends of them.</param>
    internal long FewestSwitches(in TaskSet done, int lift, int place, bool barring = true)
    {
        var all = place < 0 ? done : Exhaust(done, lift, place, barring);
        if (Active.IsWithin(all))
            return lift == Up ? 1 << 12 : 0;
        var known = barring ? _switches : _plainSwitches;
        if (known.TryGetValue((all, lift, place), out var found))
            return found;
        var best = Never;
        for (var c = 0; c < 8; c++)
        {
            var (toLift, toPlace) = (c & 1, c >> 1);
            var cost = (toLift == lift ? 0 : 1L << 12) + (toPlace == place || place < 0 ? 0 : 1);
            var more = Exhaust(all, toLift, toPlace, barring);
            if (more != all)
                best = Math.Min(best, cost + FewestSwitches(more, toLift, toPlace, barring));
            if (!barring)
                continue;
            var opening = (_openings & _reachable[c]) - all - LongBarred(all);
            for (var t = opening.Next(0); t >= 0; t = t == 255 ? -1 : opening.Next(t + 1))
                if ((Before[t] & Active).IsWithin(all))
                    best = Math.Min(best, cost + FewestSwitches(all.With(t), toLift, toPlace, barring));
        }
        return known[(all, lift, place)] = best;
    }

    /// <summary>Whether doing this task bars others in a way that counts for <see cref="FewestSwitches"/>.</summary>
    internal bool IsOpening(int task) => _openings[task];

    private TaskSet LongBarred(in TaskSet done)
    {
        var barred = default(TaskSet);
        foreach (var k in _long)
            if (done[Bars[k].Opens] && !done[Bars[k].Closes])
                barred |= Bars[k].Barred;
        return barred;
    }

    // A bar counts when it is not settled by the order already and when its opening and closing, or what lies between, are in different
    // places.
    private void FindLongBars()
    {
        for (var k = 0; k < Bars.Length; k++)
        {
            var (opens, closes, barred) = Bars[k];
            if (Done[closes] || !Active[closes])
                continue;
            var unsettled = barred & Active;
            foreach (var t in Range().Where(t => unsettled[t] && (Ancestors[opens][t] || Descendants[closes][t])))
                unsettled -= default(TaskSet).With(t);
            var inside = Range().Where(t => Active[t] && (t == opens || t == closes || (Descendants[opens][t] && Ancestors[closes][t])))
                .Select(t => (Place[t], Lift[t])).Distinct().Count();
            if (unsettled.IsEmpty || (inside < 2 && !Done[opens]))
                continue;
            _long.Add(k);
            if (Active[opens])
                _openings = _openings.With(opens);
        }
    }

    private TaskSet Exhaust(TaskSet done, int lift, int place, bool barring)
    {
        var mine = _reachable[place << 1 | lift];
        if (barring)
            mine -= _openings;
        for (var again = true; again;)
        {
            again = false;
            var left = mine - done;
            if (barring && _long.Count > 0)
                left -= LongBarred(done);
            for (var t = left.Next(0); t >= 0; t = t == 255 ? -1 : left.Next(t + 1))
                if ((Before[t] & Active).IsWithin(done))
                    (done, again) = (done.With(t), true);
        }
        return done;
    }
}
