namespace Anakyklos.Core.Weeks;

/// <summary>One day of the bays while it is being filled: who stands where, and who is left to work.</summary>
internal sealed class DayBoard
{
    // A day that is not packed within so many tries counts as full.
    private const int MostTries = 120;

    private readonly WeekProblem _problem;
    private readonly int _day;
    private readonly int[] _inOrder;
    private readonly UInt128[] _bays;
    private readonly int[] _people;
    private readonly List<int> _here = [];
    private readonly VisitSlot[] _slots;
    private readonly HashSet<ulong> _full = [];
    private UInt128 _nobody, _oneOnly;
    private ulong _key;
    private int _room, _hands;

    internal DayBoard(WeekProblem problem, int day)
    {
        (_problem, _day) = (problem, day);
        _bays = new UInt128[problem.Bays.Count];
        _slots = new VisitSlot[problem.Visits.Count];
        _people = [.. problem.Days[day].People];
        _inOrder = [.. Enumerable.Range(0, problem.Bays.Count).OrderBy(b => problem.Bays[b].Lift)];
        foreach (var taken in problem.Taken.Where(t => t.Day == day))
        {
            if (taken.Bay is { } bay)
                _bays[bay] |= taken.When.Set;
            foreach (var when in taken.IsStaffed ? [taken.When, taken.Second] : Array.Empty<Quarters>())
                foreach (var (from, to) in when.Stretches())
                    Take(from, to, 1);
        }
        Take(0, Quarters.InDay, 0);
        var open = problem.Days[day].Open;
        _room = _bays.Sum(b => open.Without(new(b)).Count);
        _hands = Enumerable.Range(0, Quarters.InDay).Where(open.Has).Sum(q => Math.Max(0, _people[q]));
    }

    /// <summary>How many places have been tried so far.</summary>
    internal long Tries { get; private set; }

    /// <summary>Where each visit stands that is not fixed.</summary>
    internal (int Visit, VisitSlot Slot)[] Stands() => [.. _here.Select(v => (v, _slots[v]))];

    /// <summary>Puts all where they stood once, and nothing else.</summary>
    internal void StandAgain((int Visit, VisitSlot Slot)[] stood)
    {
        while (_here.Count > 0)
            Remove(_here[^1]);
        foreach (var (visit, slot) in stood)
            Stand(visit, slot);
    }

    /// <summary>Whether a visit may stand at a place, as far as bay and people go.</summary>
    internal bool Fits(int visit, int bay, int begins)
    {
        Tries++;
        var v = _problem.Visits[visit];
        var run = Quarters.Between(begins, begins + v.Length);
        return (!v.Lift || _problem.Bays[bay].Lift) && run.Count == v.Length && _problem.Days[_day].Open.Covers(run)
            && (_bays[bay] & run.Set) == UInt128.Zero && Staffed(v, run, begins);
    }

    /// <summary>Whether a visit may begin at a time in any bay, as it stands now.</summary>
    internal bool FitsSomewhere(int visit, int begins) => _inOrder.Any(bay => Fits(visit, bay, begins));

    /// <summary>Puts a visit where a person wants it, for good.</summary>
    internal void Fix(int visit, int bay, int begins) => Put(_problem.Visits[visit], bay, begins, 1);

    /// <summary>Finds a place for one more, moving the others where it has to.</summary>
    /// <param name="visit">The visit.</param>
    /// <param name="all">When each could begin on this day, the most wanted first.</param>
    /// <returns>False where there is none, or none was found in time; then nothing has changed.</returns>
    internal bool Insert(int visit, Func<int, int[]> all)
    {
        var (v, begins, key) = (_problem.Visits[visit], all(visit), _key ^ Name(visit));
        if (begins.Length == 0 || v.Length > _room || v.Length + v.Second.Count > _hands || _full.Contains(key))
            return false;
        foreach (var at in begins)
        {
            Tries++;
            var run = Quarters.Between(at, at + v.Length);
            if (!Staffed(v, run, at))
                continue;
            foreach (var bay in BaysFor(visit))
                if ((!v.Lift || _problem.Bays[bay].Lift) && (_bays[bay] & run.Set) == UInt128.Zero)
                {
                    Stand(visit, new(_day, at, bay));
                    return true;
                }
        }
        if (Repack(visit, all))
            return true;
        _full.Add(key);
        return false;
    }

    internal void Remove(int visit)
    {
        _here.RemoveAt(_here.LastIndexOf(visit));
        _key ^= Name(visit);
        var slot = _slots[visit];
        Put(_problem.Visits[visit], slot.Bay, slot.Begins, -1);
    }

    internal void Stand(int visit, VisitSlot slot)
    {
        _here.Add(visit);
        _slots[visit] = slot;
        _key ^= Name(visit);
        Put(_problem.Visits[visit], slot.Bay, slot.Begins, 1);
    }

    private IEnumerable<int> BaysFor(int visit) =>
        _problem.Visits[visit].Before is { } before && before.Day == _day && before.Bay < _inOrder.Length
            ? _inOrder.Where(b => b != before.Bay).Prepend(before.Bay) : _inOrder;

    private bool Repack(int more, Func<int, int[]> all)
    {
        var before = Stands();
        while (_here.Count > 0)
            Remove(_here[^1]);
        // Who has the least choice comes first, of equals the longest.
        var order = before.Select(b => b.Visit).Append(more)
            .OrderBy(v => all(v).Length).ThenByDescending(v => _problem.Visits[v].Length).ThenBy(v => v).ToArray();
        var tries = MostTries;
        if (Place(0))
            return true;
        foreach (var (visit, slot) in before)
            Stand(visit, slot);
        return false;

        bool Place(int at)
        {
            if (at == order.Length)
                return true;
            var visit = order[at];
            var v = _problem.Visits[visit];
            foreach (var begins in all(visit))
            {
                Tries++;
                var run = Quarters.Between(begins, begins + v.Length);
                if (!Staffed(v, run, begins))
                    continue;
                for (var i = 0; i < _inOrder.Length; i++)
                {
                    var bay = _inOrder[i];
                    if ((v.Lift && !_problem.Bays[bay].Lift) || (_bays[bay] & run.Set) != UInt128.Zero || SameAsBefore(i))
                        continue;
                    if (tries-- <= 0)
                        return false;
                    Stand(visit, new(_day, begins, bay));
                    if (Place(at + 1))
                        return true;
                    Remove(visit);
                }
            }
            return false;
        }

        bool SameAsBefore(int i) => i > 0 && _bays[_inOrder[i]] == _bays[_inOrder[i - 1]]
            && _problem.Bays[_inOrder[i]].Lift == _problem.Bays[_inOrder[i - 1]].Lift;
    }

    private bool Staffed(WantedVisit v, Quarters run, int begins) =>
        (run.Set & _nobody) == UInt128.Zero && (v.Second.Later(begins).Set & _oneOnly) == UInt128.Zero;

    private void Put(WantedVisit v, int bay, int begins, int sign)
    {
        _bays[bay] ^= Quarters.Between(begins, begins + v.Length).Set;
        Take(begins, begins + v.Length, sign);
        _room -= sign * v.Length;
        _hands -= sign * v.Length;
        if (v.Second == Quarters.None)
            return;
        foreach (var (from, to) in v.Second.Later(begins).Stretches())
            Take(from, to, sign);
        _hands -= sign * v.Second.Count;
    }

    private void Take(int from, int to, int people)
    {
        for (var q = from; q < to; q++)
        {
            var left = _people[q] -= people;
            var bit = UInt128.One << q;
            _nobody = left < 1 ? _nobody | bit : _nobody & ~bit;
            _oneOnly = left < 2 ? _oneOnly | bit : _oneOnly & ~bit;
        }
    }

    // So that a set of visits has a number of its own, too.
    private static ulong Name(int visit) => FixedChance.Of((ulong)visit + 1);
}
