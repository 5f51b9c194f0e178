namespace Anakyklos.Core.Planning;

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

    private ShortOpening(OrderingShape shape)
    {
        _shape = shape;
        _pairs = [.. shape.Problem.Pairs.Where(p => shape.Active[p.Closes])];
        var lags = shape.Problem.Lags.Where(l => l.Seconds > 0).ToLookup(l => l.Before, l => (l.After, l.Seconds));
        _lags = [.. shape.Range().Select(i => lags[i].ToArray())];
    }

    private sealed record Timed(OrderedTask[] Tasks, OrderCost Cost, long Open);

    internal static Ordering Of(OrderingShape shape, Ordering found)
    {
        var search = new ShortOpening(shape);
        if (search._pairs.Count == 0 || found.Tasks.Count > Most || search.Time([.. found.Tasks.Select(t => t.Task)]) is not { } best
            || best.Cost != found.Cost)
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
            if (Time(order) is { } timed && timed.Cost.CompareTo(now.Cost) <= 0 && timed.Open < (best ?? now).Open)
                best = timed;
        }
        return best;
    }

    private Timed? Time(int[] order)
    {
        var start = _shape.Problem.Start;
        var (done, lift, place, time, moves, changes) = (_shape.Done, start.LiftUp ? OrderingShape.Up : OrderingShape.Down,
            start.Place is { } p ? (int)p : -1, 0, 0, 0);
        var (ready, begins, tasks) = (new int[_shape.Count], new int[_shape.Count], new OrderedTask[order.Length]);
        foreach (var (task, seconds) in start.ReadyIn)
            ready[task] = seconds;
        for (var i = 0; i < order.Length; i++)
        {
            var t = order[i];
            if (!(_shape.Before[t] & _shape.Active).IsWithin(done) || _shape.BarredAt(done)[t])
                return null;
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
            done = done.With(t);
            foreach (var (after, seconds) in _lags[t])
                ready[after] = Math.Max(ready[after], time + seconds);
        }
        var up = lift == OrderingShape.Up ? 1 : 0;
        var cost = new OrderCost(time + _shape.MoveSeconds(up, lift), moves + up, changes);
        return new(tasks, cost, _pairs.Sum(pair => (long)begins[pair.Closes] - (_shape.Active[pair.Opens] ? begins[pair.Opens] : 0)));
    }
}
