namespace Anakyklos.Core.Weeks;

/// <summary>The search for the days of those visits that nobody fixed.</summary>
internal sealed class WeekSearch
{
    private const ulong Seed = 20_260;
    private const double Hot = 25, Cold = 0.4;

    private readonly WeekProblem _problem;
    private readonly DayBoard[] _boards;
    private readonly int[] _free;
    private readonly int[][] _loads;
    private readonly int?[][] _costs;
    private readonly int[][][] _begins;
    private readonly int[] _day;
    private readonly int[] _load;
    private VisitSlot?[] _best;
    private long _tries;
    private FixedChance _chance = new(Seed);

    internal WeekSearch(WeekProblem problem, DayBoard[] boards, int[] free, int[] fixedLoad)
    {
        (_problem, _boards, _free) = (problem, boards, free);
        _begins = new int[problem.Visits.Count][][];
        _costs = new int?[problem.Visits.Count][];
        foreach (var v in free)
        {
            _begins[v] = [.. Enumerable.Range(0, boards.Length).Select(d => Begins(v, d))];
            _costs[v] = [.. _begins[v].Select((b, d) => b.Length == 0 ? (int?)null : problem.CostOn(v, d))];
        }
        _loads = [.. Enumerable.Range(0, boards.Length).Select(d =>
            problem.LoadCosts(d).Skip(WeekPlan.LoadOf(problem, d, fixedLoad[d])).ToArray())];
        _day = [.. problem.Visits.Select(_ => -1)];
        _load = new int[boards.Length];
        _best = new VisitSlot?[problem.Visits.Count];
    }

    internal int Cost { get; private set; }

    internal int Bound { get; private set; }

    internal VisitSlot? SlotOf(int visit) => _best[visit];

    internal NoPlace WhyNot(int visit)
    {
        var wanted = _problem.Visits[visit];
        if (_problem.Days.All(d => !d.Open.Stretches().Any(s => s.To - s.From >= wanted.Length)))
            return NoPlace.LongerThanADay;
        if (wanted.Lift && !_problem.Bays.Any(b => b.Lift))
            return NoPlace.NoLift;
        return _begins[visit] is { } begins && begins.Any(b => b.Length > 0) ? NoPlace.Full : NoPlace.NeverFree;
    }

    internal void Run(int rounds, int moves, long tries)
    {
        _tries = tries;
        Begin();
        Descend();
        Keep(Now());
        int[] lengths = [.. _free.Select(v => _problem.Visits[v].Length)];
        Bound = WeekBound.Of(lengths, [.. _free.Select(v => _costs[v])], [.. _free.Select(v => _problem.Visits[v].Waits)], _loads, Cost);
        for (var round = 0; round < rounds && Cost > Bound && Tried < tries; round++)
        {
            _chance = new(Seed + (ulong)round);
            Anneal(moves);
            Descend();
            if (Now() is var now && now < Cost)
                Keep(now);
            else
                Restore();
        }
    }

    // Where it stood before, first; whoever has the least choice and loses most without a day comes before the others.
    private void Begin()
    {
        foreach (var v in _free.OrderBy(v => _problem.Visits[v].Before is not { } b || _costs[v][b.Day] is null)
            .ThenByDescending(v => _problem.Visits[v].Waits - (_costs[v].Min() ?? 0)).ThenBy(v => v))
        {
            var at = _problem.Visits[v].Before?.Day;
            foreach (var d in Enumerable.Range(0, _boards.Length).Where(d => _costs[v][d] < _problem.Visits[v].Waits)
                .OrderBy(d => d != at).ThenBy(d => _costs[v][d] + More(d, _problem.Visits[v].Length)))
                if (Enter(v, d))
                    break;
        }
    }

    private void Anneal(int moves)
    {
        if (_free.Length == 0 || _boards.Length == 0)
            return;
        var (now, best) = (Now(), Cost);
        var cooling = Math.Pow(Cold / Hot, 1.0 / moves);
        for (var (move, heat) = (0, Hot); move < moves && best > Bound && Tried < _tries; move++, heat *= cooling)
        {
            var v = _free[_chance.Next(_free.Length)];
            var w = _free[_chance.Next(_free.Length)];
            var swaps = _chance.Next(3) == 0 && _day[v] != _day[w];
            var to = swaps ? _day[w] : _chance.Next(_boards.Length + 1) - 1;
            if (to == _day[v])
                continue;
            if (Change(v, to, swaps ? w : null) is not { } change
                || (change > 0 && _chance.Part() >= Math.Exp(-change / heat)))
                continue;
            if (!Move(v, to, swaps ? w : null))
                continue;
            now += change;
            if (now >= best)
                continue;
            best = now;
            Keep(now);
        }
        if (best < now)
            Restore();
    }

    // Every move and every exchange that makes it cheaper, until there is none.
    private void Descend()
    {
        for (var better = true; better;)
        {
            better = false;
            foreach (var v in _free)
            {
                for (var to = -1; to < _boards.Length; to++)
                    if (to != _day[v] && Change(v, to, null) < 0 && Move(v, to, null))
                        better = true;
                foreach (var w in _free)
                    if (w > v && _day[v] != _day[w] && Change(v, _day[w], w) < 0 && Move(v, _day[w], w))
                        better = true;
            }
        }
    }

    // What it costs more when a visit goes to a day, or out of the week (-1), and another takes its day; null where one of them cannot.
    private int? Change(int v, int to, int? other)
    {
        var from = _day[v];
        if (CostAt(v, to) is not { } there)
            return null;
        var change = there - CostAt(v, from)!.Value;
        var (leaves, comes) = (_problem.Visits[v].Length, 0);
        if (other is { } w)
        {
            if (CostAt(w, from) is not { } back)
                return null;
            change += back - CostAt(w, to)!.Value;
            comes = _problem.Visits[w].Length;
        }
        if ((from >= 0 && _load[from] - leaves + comes >= _loads[from].Length)
            || (to >= 0 && _load[to] + leaves - comes >= _loads[to].Length))
            return null;
        if (from >= 0)
            change += _loads[from][_load[from] - leaves + comes] - _loads[from][_load[from]];
        if (to >= 0)
            change += _loads[to][_load[to] + leaves - comes] - _loads[to][_load[to]];
        return change;
    }

    private bool Move(int v, int to, int? other)
    {
        var from = _day[v];
        var (here, there) = (from < 0 ? null : _boards[from].Stands(), to < 0 ? null : _boards[to].Stands());
        Leave(v);
        if (other is { } w)
            Leave(w);
        if ((to < 0 || Enter(v, to)) && (other is not { } x || from < 0 || Enter(x, from)))
            return true;
        // To the very places they had: packing anew might not find them again.
        if (_day[v] >= 0)
            Leave(v);
        Back(v, from, here);
        if (other is { } y)
            Back(y, to, there);
        if (to >= 0)
            _boards[to].StandAgain(there!);
        if (from >= 0)
            _boards[from].StandAgain(here!);
        return false;
    }

    private void Back(int v, int day, (int Visit, VisitSlot Slot)[]? stood)
    {
        if (stood is null)
            return;
        (_day[v], _load[day]) = (day, _load[day] + _problem.Visits[v].Length);
    }

    private bool Enter(int v, int day)
    {
        if (!_boards[day].Insert(v, x => _begins[x][day]))
            return false;
        (_day[v], _load[day]) = (day, _load[day] + _problem.Visits[v].Length);
        return true;
    }

    private void Leave(int v)
    {
        if (_day[v] is var day && day < 0)
            return;
        _boards[day].Remove(v);
        (_day[v], _load[day]) = (-1, _load[day] - _problem.Visits[v].Length);
    }

    private long Tried => _boards.Sum(b => b.Tries);

    private int? CostAt(int v, int day) => day < 0 ? _problem.Visits[v].Waits : _costs[v][day];

    private int More(int day, int length) =>
        _load[day] + length < _loads[day].Length ? _loads[day][_load[day] + length] - _loads[day][_load[day]] : 0;

    private int Now() => _free.Sum(v => CostAt(v, _day[v])!.Value) + _load.Select((l, d) => _loads[d][l]).Sum();

    private void Keep(int cost)
    {
        (Cost, _best) = (cost, new VisitSlot?[_problem.Visits.Count]);
        foreach (var board in _boards)
            foreach (var (visit, slot) in board.Stands())
                _best[visit] = slot;
    }

    private void Restore()
    {
        foreach (var v in _free)
            Leave(v);
        foreach (var v in _free)
            if (_best[v] is { } slot)
            {
                _boards[slot.Day].Stand(v, slot);
                (_day[v], _load[slot.Day]) = (slot.Day, _load[slot.Day] + _problem.Visits[v].Length);
            }
    }

    // When it could begin on a day by itself, where it stood before first, then the earliest.
    private int[] Begins(int visit, int day)
    {
        var (v, of) = (_problem.Visits[visit], _problem.Days[day]);
        var open = of.Open.Without(v.Away[day]);
        var begins = Enumerable.Range(0, Quarters.InDay - v.Length + 1)
            .Where(b => open.Covers(Quarters.Between(b, b + v.Length)) && _boards[day].FitsSomewhere(visit, b));
        return [.. v.Before is { } before && before.Day == day ? begins.OrderBy(b => b != before.Begins).ThenBy(b => b) : begins];
    }
}
