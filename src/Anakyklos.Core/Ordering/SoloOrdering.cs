namespace Anakyklos.Core.Ordering;

/// <summary>
/// Puts the tasks in order for one person. Orders grow one task at a time; of two that have done the same and stand in the same place the
/// one that
/// is no worse in everything is kept; those that cannot beat the best known are dropped. A first narrow pass usually meets its own bound;
/// if not,
/// wider passes follow, and the last of them is exhaustive unless the effort runs out. What a pass drops for width stays in the bound.
/// </summary>
internal sealed class SoloOrdering
{
    private sealed class Node
    {
        internal required TaskSet Done;
        internal required int Lift, Place, Time, Moves, Changes, Idle, Task, Begins;
        internal required int? MovesAt;
        internal required int[] Ready;
        internal required long Switches;
        internal required Node? Parent;
        internal long Least;
    }

    private static readonly int[] Widths = [6, 40, 300, 3000, 40000, int.MaxValue];

    private readonly OrderingShape _shape;
    private readonly OrderingProblem _problem;
    private Node? _best;
    private long _bestCost = long.MaxValue;
    private int _grown;

    private SoloOrdering(OrderingShape shape) => (_shape, _problem) = (shape, shape.Problem);

    /// <summary>The best order, or null when there is none.</summary>
    internal static OrderedWork? Solve(OrderingShape shape, int effort)
    {
        var solo = new SoloOrdering(shape);
        var root = solo.Root();
        var bound = root.Least;
        foreach (var width in Widths)
        {
            bound = Math.Max(bound, Math.Min(solo._bestCost, solo.Pass(root, width, effort)));
            if (solo._best is not null && (bound >= solo._bestCost || solo._grown > effort))
                break;
        }
        if (solo._best is null)
            return null;
        return new(solo.Unwind(), OrderCost.Unpack(solo._bestCost), OrderCost.Unpack(Math.Min(bound, solo._bestCost)));
    }

    private Node Root()
    {
        var start = _problem.Start;
        var (lift, place) = (start.LiftUp ? OrderingShape.Up : OrderingShape.Down, start.Place is { } p ? (int)p : -1);
        var root = new Node
        {
            Done = _shape.Done, Lift = lift, Place = place, Time = 0, Moves = 0, Changes = 0, Idle = 0, Task = -1, Begins = 0,
                MovesAt = null, Parent = null,
            Ready = [.. _shape.SlotTask.Select(t => start.ReadyIn.GetValueOrDefault(t))],
            Switches = _shape.FewestSwitches(_shape.Done, lift, place),
        };
        root.Least = Least(root);
        return root;
    }

    /// <summary>One pass of a width; the least cost of what was dropped for width, or the most there is when nothing was.</summary>
    private long Pass(Node root, int width, int effort)
    {
        var dropped = long.MaxValue;
        List<Node> level = [root];
        if (_shape.Active.IsEmpty)
            Finish(root);
        var kept = new Dictionary<(TaskSet, int, int), List<Node>>();
        while (level.Count > 0)
        {
            kept.Clear();
            foreach (var node in level)
                Grow(node, kept);
            level = [.. kept.Values.SelectMany(nodes => nodes)];
            _grown += level.Count;
            var most = _grown > effort * 2L ? Math.Min(width, 300) : width;
            if (level.Count <= most)
                continue;
            level.Sort(static (a, b) => a.Least != b.Least ? a.Least.CompareTo(b.Least) : a.Idle != b.Idle ? a.Idle.CompareTo(b.Idle)
                : a.Time.CompareTo(b.Time));
            dropped = Math.Min(dropped, level[most].Least);
            level.RemoveRange(most, level.Count - most);
        }
        return dropped;
    }

    private void Grow(Node node, Dictionary<(TaskSet, int, int), List<Node>> kept)
    {
        var barred = _shape.BarredAt(node.Done);
        var left = _shape.Active - node.Done - barred;
        for (var t = left.Next(0); t >= 0; t = t == 255 ? -1 : left.Next(t + 1))
        {
            if (!(_shape.Before[t] & _shape.Active).IsWithin(node.Done))
                continue;
            Take(After(node, t, _shape.Lift[t] is var need && need >= 0 ? need : node.Lift), kept);
            // Where it has to be waited for anyway, the lift can be moved meanwhile for what comes later.
            if (_shape.Lift[t] < 0 && _shape.SlotOf[t] is var slot and >= 0 && node.Ready[slot] > node.Time)
                Take(After(node, t, 1 - node.Lift), kept);
        }
    }

    private void Take(Node child, Dictionary<(TaskSet, int, int), List<Node>> kept)
    {
        if (child.Least >= _bestCost)
            return;
        if (_shape.Active.IsWithin(child.Done))
            Finish(child);
        else
            Keep(child, kept);
    }

    private Node After(Node node, int t, int lift)
    {
        var moves = lift != node.Lift;
        var free = node.Time + (moves ? _shape.MoveSeconds(1, node.Lift) : 0);
        var begins = _shape.SlotOf[t] is var own and >= 0 ? Math.Max(free, node.Ready[own]) : free;
        var ends = begins + _shape.Seconds[t];
        var ready = node.Ready;
        foreach (var (_, slot, seconds) in _shape.LagsFrom[t])
        {
            if (ReferenceEquals(ready, node.Ready))
                ready = [.. ready];
            ready[slot] = Math.Max(ready[slot], ends + seconds);
        }
        var place = _shape.Place[t];
        var done = node.Done.With(t);
        var child = new Node
        {
            Done = done, Lift = lift, Place = place, Time = ends, Task = t, Begins = begins, MovesAt = moves ? node.Time : null,
                Ready = ready, Parent = node,
            Moves = node.Moves + (moves ? 1 : 0),
            Changes = node.Changes + (node.Place >= 0 && node.Place != place ? 1 : 0),
            Idle = node.Idle + begins - free,
            Switches = lift == node.Lift && place == node.Place && !_shape.IsOpening(t) ? node.Switches
                : _shape.FewestSwitches(done, lift, place),
        };
        child.Least = Math.Max(Least(child), node.Least);
        return child;
    }

    private static void Keep(Node child, Dictionary<(TaskSet, int, int), List<Node>> kept)
    {
        var key = (child.Done, child.Lift, child.Place);
        if (!kept.TryGetValue(key, out var others))
        {
            kept[key] = [child];
            return;
        }
        foreach (var other in others)
            if (NoWorse(other, child))
                return;
        others.RemoveAll(other => NoWorse(child, other));
        others.Add(child);
    }

    private static bool NoWorse(Node a, Node b)
    {
        if (a.Time > b.Time || (a.Moves, a.Changes).CompareTo((b.Moves, b.Changes)) > 0)
            return false;
        for (var i = 0; i < a.Ready.Length; i++)
            if (a.Ready[i] > b.Ready[i] && a.Ready[i] > b.Time)
                return false;
        return true;
    }

    private void Finish(Node node)
    {
        var up = node.Lift == OrderingShape.Up ? 1 : 0;
        var cost = new OrderCost(node.Time + _shape.MoveSeconds(up, node.Lift), node.Moves + up, node.Changes).Packed;
        if (cost < _bestCost)
            (_best, _bestCost) = (node, cost);
    }

    /// <summary>What no completion of this beginning can beat.</summary>
    private long Least(Node node)
    {
        var left = _shape.Active - node.Done;
        if (node.Switches >= OrderingShape.Never)
            return long.MaxValue;
        var (moves, changes) = ((int)(node.Switches >> 12), (int)(node.Switches & 0xFFF));
        var moving = _shape.MoveSeconds(moves, node.Lift);
        var least = node.Time + left.Sum(_shape.Seconds) + moving;
        foreach (var group in _shape.Waits)
            if (Waiting(node, group) is var waiting and > 0)
            {
                var whole = node.Time + waiting + (left & group.Outside).Sum(_shape.Seconds) + moving;
                if (whole > least && !group.LiftStays)
                    whole += MovesOutside(node, left, group) - moving;
                least = Math.Max(least, whole);
            }
        return new OrderCost(least, node.Moves + moves, node.Changes + changes).Packed;
    }

    private static int Waiting(Node node, OrderingShape.WaitGroup group)
    {
        var (before, after, slot, seconds) = group.Windows[0];
        if (node.Done[after])
            return 0;
        var sum = before < 0 || node.Done[before] ? Math.Max(0, node.Ready[slot] - node.Time) : seconds;
        for (var w = 1; w < group.Windows.Length; w++)
            sum += group.Windows[w].Seconds;
        return sum;
    }

    // Where the lift may move during the wait, only those moves count that must come before it begins or after it ends.
    private int MovesOutside(Node node, in TaskSet left, OrderingShape.WaitGroup group)
    {
        var (first, last) = (group.Windows[0], group.Windows[^1]);
        var after = (_shape.Descendants[last.After].With(last.After)) & left;
        var lift = _shape.Lift[last.After];
        var tail = lift < 0 ? 0 : _shape.MoveSeconds((int)(_shape.FewestSwitches(_shape.Active - after | node.Done, lift, -1, false) >> 12),
            lift);
        if (first.Before < 0 || node.Done[first.Before])
            return tail;
        var before = (_shape.Ancestors[first.Before].With(first.Before)) & left;
        var switches = _shape.FewestSwitches(_shape.Active - before | node.Done, node.Lift, -1, false) >> 12;
        // Coming down at the very end is counted in the tail, not here.
        return tail + _shape.MoveSeconds((int)Math.Max(0, switches - 1), node.Lift);
    }

    private IReadOnlyList<OrderedTask> Unwind()
    {
        var tasks = new List<OrderedTask>();
        for (var node = _best; node is { Task: >= 0 }; node = node.Parent)
            tasks.Add(new(node.Task, node.Begins, 0, node.MovesAt));
        tasks.Reverse();
        return tasks;
    }
}
