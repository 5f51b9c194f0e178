namespace Anakyklos.Core.Ordering;

/// <summary>
/// Puts the tasks in order for two people. Orders grow by the beginning of the next task; the widest are kept, and what is dropped stays in
/// the bound.
/// </summary>
internal sealed class PairOrdering
{
    private sealed class Node
    {
        internal required TaskSet Begun;
        internal required int[] Free, At, Running, Ready;
        internal required int Lift, Moves, Changes, Last, Task, Begins, Person;
        internal required int? MovesAt;
        internal required Node? Parent;
        internal long Least;
    }

    private static readonly int[] Widths = [25, 160, 900];

    private readonly OrderingShape _shape;
    private readonly int[] _tail;
    private readonly (int After, int Seconds)[][] _follow;
    private Node? _best;
    private long _bestCost = long.MaxValue;

    private PairOrdering(OrderingShape shape)
    {
        _shape = shape;
        var lags = shape.Problem.Lags.ToLookup(l => l.Before, l => (l.After, l.Seconds));
        _follow = [.. shape.Range().Select(i => shape.Range().Where(j => shape.Before[j][i] || lags[i].Any(l => l.After == j))
            .Select(j => (j, lags[i].Where(l => l.After == j).Select(l => l.Seconds).DefaultIfEmpty(0).Max())).ToArray())];
        _tail = new int[shape.Count];
        foreach (var i in shape.Range().OrderBy(i => shape.Descendants[i].Count))
            _tail[i] = shape.Seconds[i] + _follow[i].Where(f => shape.Active[f.After]).Select(f => f.Seconds + _tail[f.After])
                .DefaultIfEmpty(0).Max();
    }

    internal static OrderedWork? Solve(OrderingShape shape)
    {
        var pair = new PairOrdering(shape);
        var start = shape.Problem.Start;
        var ready = new int[shape.Count];
        foreach (var (task, seconds) in start.ReadyIn)
            ready[task] = seconds;
        var root = new Node
        {
            Begun = shape.Done, Free = [0, 0], At = [start.Place is { } p ? (int)p : -1, -1], Running = [-1, -1], Ready = ready,
                Lift = start.LiftUp ? OrderingShape.Up : OrderingShape.Down,
            Moves = 0, Changes = 0, Last = 0, Task = -1, Begins = 0, Person = 0, MovesAt = null, Parent = null,
        };
        root.Least = pair.Least(root);
        if (shape.Active.IsEmpty)
            pair.Finish(root);
        var bound = root.Least;
        foreach (var width in Widths)
        {
            bound = Math.Max(bound, Math.Min(pair._bestCost, pair.Pass(root, width)));
            if (pair._best is not null && (bound >= pair._bestCost || shape.Active.Count * width > 6000))
                break;
        }
        return pair._best is null ? null : new(pair.Unwind(), OrderCost.Unpack(pair._bestCost),
            OrderCost.Unpack(Math.Min(bound, pair._bestCost)));
    }

    private long Pass(Node root, int width)
    {
        var dropped = long.MaxValue;
        List<Node> level = [root];
        while (level.Count > 0)
        {
            var kept = new Dictionary<(TaskSet, int, int, int), List<Node>>();
            foreach (var node in level)
                Grow(node, kept);
            level = [.. kept.Values.SelectMany(nodes => nodes)];
            if (level.Count <= width)
                continue;
            level.Sort(static (a, b) => a.Least != b.Least ? a.Least.CompareTo(b.Least)
                : (a.Free[0] + a.Free[1]).CompareTo(b.Free[0] + b.Free[1]));
            dropped = Math.Min(dropped, level[width].Least);
            level.RemoveRange(width, level.Count - width);
        }
        return dropped;
    }

    private void Grow(Node node, Dictionary<(TaskSet, int, int, int), List<Node>> kept)
    {
        var barred = _shape.BarredAt(node.Begun);
        var left = _shape.Active - node.Begun - barred;
        for (var t = left.Next(0); t >= 0; t = t == 255 ? -1 : left.Next(t + 1))
        {
            if (!(_shape.Before[t] & _shape.Active).IsWithin(node.Begun))
                continue;
            for (var person = 0; person < (_shape.Problem.Tasks[t].People == 2 ? 1 : 2); person++)
            {
                // Both free and in the same place: the two are alike.
                if (person == 1 && node.Free[0] == node.Free[1] && node.At[0] == node.At[1])
                    continue;
                var child = After(node, t, person);
                if (child.Begins < node.Last || child.Least >= _bestCost)
                    continue;
                if (_shape.Active.IsWithin(child.Begun))
                    Finish(child);
                else
                    Keep(child, kept);
            }
        }
    }

    private Node After(Node node, int t, int person)
    {
        var both = _shape.Problem.Tasks[t].People == 2;
        var moves = _shape.Lift[t] >= 0 && _shape.Lift[t] != node.Lift;
        var latest = Math.Max(node.Free[0], node.Free[1]);
        var free = moves ? latest + _shape.MoveSeconds(1, node.Lift) : both ? latest : node.Free[person];
        var begins = Math.Max(Math.Max(free, node.Ready[t]), node.Last);
        // What is barred while this is open must have ended, and what barred this must have been closed.
        for (var other = 0; other < 2; other++)
            if (node.Running[other] is var r and >= 0 && (_shape.Problem.Tasks[t].Excludes(_shape.Problem.Tasks[r])
                || _shape.Bars.Any(b => (b.Opens == t && b.Barred[r]) || (b.Closes == r && b.Barred[t]))))
                begins = Math.Max(begins, node.Free[other]);
        var ends = begins + _shape.Seconds[t];
        // Nothing begins before this any more, so the other one's idle time until now is spent.
        var others = Math.Max(begins, moves ? free : node.Free[1 - person]);
        int[] freed = both ? [ends, ends] : person == 0 ? [ends, others] : [others, ends];
        int[] at = both ? [_shape.Place[t], _shape.Place[t]] : person == 0 ? [_shape.Place[t], node.At[1]] : [node.At[0], _shape.Place[t]];
        int[] running = both ? [t, t] : person == 0 ? [t, node.Running[1]] : [node.Running[0], t];
        var ready = (int[])node.Ready.Clone();
        foreach (var (after, seconds) in _follow[t])
            ready[after] = Math.Max(ready[after], ends + seconds);
        var child = new Node
        {
            Begun = node.Begun.With(t), Free = freed, At = at, Running = running, Ready = ready, Lift = moves ? _shape.Lift[t] : node.Lift,
            Moves = node.Moves + (moves ? 1 : 0),
            Changes = node.Changes + Enumerable.Range(0, 2).Count(i => node.At[i] >= 0 && node.At[i] != at[i]),
            Last = begins, Task = t, Begins = begins, Person = person, MovesAt = moves ? latest : null, Parent = node,
        };
        child.Least = Math.Max(Least(child), node.Least);
        return child;
    }

    private static void Keep(Node child, Dictionary<(TaskSet, int, int, int), List<Node>> kept)
    {
        var key = (child.Begun, child.Lift, child.At[0], child.At[1]);
        if (!kept.TryGetValue(key, out var others))
            kept[key] = others = [];
        if (others.Any(other => NoWorse(other, child)))
            return;
        others.RemoveAll(other => NoWorse(child, other));
        others.Add(child);
    }

    private static bool NoWorse(Node a, Node b)
    {
        if (a.Free[0] > b.Free[0] || a.Free[1] > b.Free[1] || a.Last > b.Last || (a.Moves, a.Changes).CompareTo((b.Moves, b.Changes)) > 0
            || a.Running[0] != b.Running[0] || a.Running[1] != b.Running[1])
            return false;
        for (var t = 0; t < a.Ready.Length; t++)
            if (!a.Begun[t] && a.Ready[t] > b.Ready[t])
                return false;
        return true;
    }

    private void Finish(Node node)
    {
        var up = node.Lift == OrderingShape.Up ? 1 : 0;
        var cost = new OrderCost(Math.Max(node.Free[0], node.Free[1]) + _shape.MoveSeconds(up, node.Lift), node.Moves + up,
            node.Changes).Packed;
        if (cost < _bestCost)
            (_best, _bestCost) = (node, cost);
    }

    private long Least(Node node)
    {
        var left = _shape.Active - node.Begun;
        // Changes of place are shared between two people, so only the moves of the lift are bounded.
        var switches = _shape.FewestSwitches(node.Begun, node.Lift, -1);
        if (switches >= OrderingShape.Never)
            return long.MaxValue;
        var moves = (int)(switches >> 12);
        var work = 0;
        var least = Math.Max(node.Free[0], node.Free[1]);
        for (var t = left.Next(0); t >= 0; t = t == 255 ? -1 : left.Next(t + 1))
        {
            work += _shape.Seconds[t] * _shape.Problem.Tasks[t].People;
            least = Math.Max(least, Math.Max(node.Last, node.Ready[t]) + _tail[t]);
        }
        least = Math.Max(least, (node.Free[0] + node.Free[1] + work + 1) / 2 + _shape.MoveSeconds(moves, node.Lift));
        return new OrderCost(least, node.Moves + moves, node.Changes).Packed;
    }

    private IReadOnlyList<OrderedTask> Unwind()
    {
        var tasks = new List<OrderedTask>();
        for (var node = _best; node is { Task: >= 0 }; node = node.Parent)
            tasks.Add(new(node.Task, node.Begins, node.Person, node.MovesAt));
        tasks.Reverse();
        return tasks;
    }
}
