namespace Anakyklos.Core.Ordering;

/// <summary>
/// Among orders for one person that cost the same, one in which things stand open for less time: an opening moves towards its use and a
/// closing towards the last use, while neither time, moves of the lift nor changes of place grow. A search from neighbour to neighbour; it
/// makes no claim to the least.
/// </summary>
internal sealed class ShortOpening
{
    // Past this many tasks the card must not wait for it.
    private const int Most = 140;

    private readonly OrderingShape _shape;
    private readonly IReadOnlyList<(int Opens, int Closes)> _pairs;
    private readonly (int After, int Seconds)[][] _lags;
    private readonly (int Opens, int Closes, TaskSet Barred)[][] _barsOf;
    private readonly int[] _at;

    private ShortOpening(OrderingShape shape)
    {
        _shape = shape;
        _pairs = [.. shape.Problem.Pairs.Where(p => shape.Active[p.Closes])];
        var lags = shape.Problem.Lags.Where(l => l.Seconds > 0).ToLookup(l => l.Before, l => (l.After, l.Seconds));
        _lags = [.. shape.Range().Select(i => lags[i].ToArray())];
        var bars = shape.Bars.Where(b => !shape.Done[b.Closes] && (shape.Active[b.Opens] || shape.Done[b.Opens])).ToList();
        _barsOf = [.. shape.Range().Select(i => bars.Where(b => b.Opens == i || b.Closes == i || b.Barred[i]).ToArray())];
        _at = new int[shape.Count];
    }

    private sealed record Timed(OrderedTask[] Tasks, OrderCost Cost, long Open);

    internal static OrderedWork Of(OrderingShape shape, OrderedWork found)
    {
        var search = new ShortOpening(shape);
        if (search._pairs.Count == 0 || found.Tasks.Count > Most)
            return found;
        var best = search.Time([.. found.Tasks.Select(t => t.Task)]);
        if (best.Cost != found.Cost)
            return found;
        for (var better = true; better;)
        {
            better = false;
            for (var from = 0; from < best.Tasks.Length; from++)
                for (var step = -1; step <= 1; step += 2)
                    if (search.Moved(best, from, step) is { } shorter)
                        (best, better) = (shorter, true);
        }
        return found with { Tasks = best.Tasks };
    }

    // The task goes as far as nothing that belongs before or after it stands in between; the best place on the way counts.
    private Timed? Moved(Timed now, int from, int step)
    {
        var order = now.Tasks.Select(t => t.Task).ToArray();
        Timed? best = null;
        for (int at = from, to = from + step; to >= 0 && to < order.Length; (at, to) = (to, to + step))
        {
            var (first, second) = step > 0 ? (order[at], order[to]) : (order[to], order[at]);
            if (_shape.Descendants[first][second])
                break;
            (order[at], order[to]) = (order[to], order[at]);
            if (!IsAllowed(order, order[to]))
                continue;
            var timed = Time(order);
            if (timed.Cost.CompareTo(now.Cost) <= 0 && timed.Open < (best ?? now).Open)
                best = timed;
        }
        return best;
    }

    // What comes before what is kept by where the move stops; only a bar that the moved task opens, closes or stands under can be broken
    // by it.
    private bool IsAllowed(int[] order, int moved)
    {
        for (var i = 0; i < order.Length; i++)
            _at[order[i]] = i;
        foreach (var (opens, closes, barred) in _barsOf[moved])
        {
            var from = _shape.Active[opens] ? _at[opens] : -1;
            var to = _shape.Active[closes] ? _at[closes] : int.MaxValue;
            if (opens != moved && closes != moved)
            {
                if (_at[moved] > from && _at[moved] < to)
                    return false;
                continue;
            }
            var others = barred & _shape.Active;
            for (var t = others.Next(0); t >= 0; t = t == 255 ? -1 : others.Next(t + 1))
                if (_at[t] > from && _at[t] < to)
                    return false;
        }
        return true;
    }

    private Timed Time(int[] order)
    {
        var start = _shape.Problem.Start;
        var (lift, place, time, moves, changes) = (start.LiftUp ? OrderingShape.Up : OrderingShape.Down,
            start.Place is { } p ? (int)p : -1, 0, 0, 0);
        var (ready, begins, tasks) = (new int[_shape.Count], new int[_shape.Count], new OrderedTask[order.Length]);
        foreach (var (task, seconds) in start.ReadyIn)
            ready[task] = seconds;
        for (var i = 0; i < order.Length; i++)
        {
            var t = order[i];
            int? moved = null;
            if (_shape.Lift[t] >= 0 && _shape.Lift[t] != lift)
            {
                (moved, moves, time) = (time, moves + 1, time + _shape.MoveSeconds(1, lift));
                lift = _shape.Lift[t];
            }
            changes += place >= 0 && place != _shape.Place[t] ? 1 : 0;
            place = _shape.Place[t];
            begins[t] = Math.Max(time, ready[t]);
            time = begins[t] + _shape.Seconds[t];
            tasks[i] = new(t, begins[t], 0, moved);
            foreach (var (after, seconds) in _lags[t])
                ready[after] = Math.Max(ready[after], time + seconds);
        }
        var up = lift == OrderingShape.Up ? 1 : 0;
        var cost = new OrderCost(time + _shape.MoveSeconds(up, lift), moves + up, changes);
        return new(tasks, cost, _pairs.Sum(pair => (long)begins[pair.Closes] - (_shape.Active[pair.Opens] ? begins[pair.Opens] : 0)));
    }
}
