using Anakyklos.Core.Cards;
using Anakyklos.Core.Composing;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Weeks;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>How long work takes in the bay.</summary>
/// <param name="Takes">From in to out.</param>
/// <param name="Length">The same in quarter hours.</param>
/// <param name="Second">When it takes two, in quarters from its beginning.</param>
/// <param name="Lift">Whether it is raised.</param>
public sealed record WorkLength(TimeSpan Takes, int Length, Quarters Second, bool Lift);

/// <summary>A visit in the week.</summary>
/// <param name="Of">The vehicle and what for.</param>
/// <param name="Work">How long it takes.</param>
/// <param name="Boat">The day on which all that is missing for it can be here; null where nothing is missing, or nobody knows.</param>
/// <param name="Missing">What is missing for it, by name.</param>
/// <param name="NobodyKnows">Whether something is missing of which nobody knows when it comes.</param>
/// <param name="Slot">Where it stands, or null.</param>
/// <param name="IsFixed">Whether a person put it there.</param>
/// <param name="Pushed">Whether it could not stand where it was put.</param>
/// <param name="Why">Why it has no place; null where it has one.</param>
/// <param name="DidNotCome">The day for which it was fixed and on which it did not come; null for none.</param>
public sealed record WeekVisit(WantsVisit Of, WorkLength Work, DateOnly? Boat, IReadOnlyList<string> Missing, bool NobodyKnows,
    VisitSlot? Slot, bool IsFixed, bool Pushed, NoPlace? Why, DateOnly? DidNotCome)
{
    /// <summary>Its plate.</summary>
    public string Plate => Of.Vehicle.Plate;
}

/// <summary>An open card in the week.</summary>
/// <param name="Entry">Number, vehicle, bay.</param>
/// <param name="Task">What the vehicle does.</param>
/// <param name="Left">How much work is left, or null where it waits for something of which nobody knows when it comes.</param>
/// <param name="GoesOn">The day on which what it waits for can be here; null where it waits for nothing.</param>
/// <param name="Spans">When it stands in its bay or is worked on: the day from 0, and when.</param>
/// <param name="Ends">When it will be done, or null where nobody can say.</param>
public sealed record WeekCard(CardEntry Entry, string Task, TimeSpan? Left, DateOnly? GoesOn,
    IReadOnlyList<(int Day, Quarters When, bool Worked)> Spans, DateTimeOffset? Ends);

/// <summary>Two weeks of the bays as they are planned.</summary>
/// <param name="Plan">Days, bays and places.</param>
/// <param name="Visits">Who comes, in the order of the plan's visits.</param>
/// <param name="Cards">What is open.</param>
/// <param name="Dropped">Who is left out, and until when.</param>
/// <param name="More">So many more should come than can be planned at all.</param>
public sealed record WorkshopWeek(WeekPlan Plan, IReadOnlyList<WeekVisit> Visits, IReadOnlyList<WeekCard> Cards,
    IReadOnlyList<DroppedVisit> Dropped, int More)
{
    /// <summary>The days.</summary>
    public IReadOnlyList<WorkDay> Days => Plan.Problem.Days;

    /// <summary>The visit of a vehicle, or null.</summary>
    /// <param name="plate">Its plate.</param>
    public WeekVisit? Of(string plate) => Visits.FirstOrDefault(v => v.Plate == plate);

    /// <summary>The name of the bay of a slot.</summary>
    /// <param name="slot">A slot of this week.</param>
    public string BayOf(VisitSlot slot) => Plan.Problem.Bays[slot.Bay].Name;

    /// <summary>The longest that anything will be over, in days; 0 for nothing.</summary>
    public int DaysOver => Visits.Select(v => VisitCost.DaysOver(v.Of.Wish.Wishes, Days[v.Slot?.Day ?? Days.Count - 1].Date)
        - VisitCost.DaysOver(v.Of.Wish.Wishes, Days[0].Date)).Append(0).Max();
}

/// <summary>What a person decided of the week.</summary>
/// <param name="Fixed">Where visits were put, by plate.</param>
/// <param name="Before">Where the others stood, by plate.</param>
/// <param name="Dropped">Who is left out.</param>
public sealed record WeekDecisions(IReadOnlyDictionary<string, KeptVisit> Fixed, IReadOnlyDictionary<string, KeptVisit> Before,
    IReadOnlyList<DroppedVisit> Dropped);

/// <summary>Plans the bays for two weeks: who should come, when it can be missed, what is here, who is there to work.</summary>
public sealed class WeekDesk(WeekWishes wishes, VisitStore visits, CardStore cards, VehicleStore vehicles, PeopleStore people,
    SettingStore settings, ShelfStore shelf, WorkAhead ahead, PlannedCards plans, WorkshopClock clock)
{
    // No more are planned than would fill the bays so many times over; the rest waits in any case.
    private const decimal Filled = 1.5m;
    private const int Most = 200, UsualVisit = 8, LeastVisit = 2, JustALook = 4, Unloaded = 12 * 4;

    private readonly Lock _planning = new();
    private (string Stamp, WorkshopWeek Week)? _known;

    /// <summary>The two weeks as they stand.</summary>
    public WorkshopWeek Week()
    {
        lock (_planning)
        {
            var stamp = Stamp();
            if (_known is { } known && known.Stamp == stamp)
                return known.Week;
            var asked = Ask(Decided());
            var week = asked.Of(WeekPlanner.Plan(asked.Problem));
            _known = (stamp, week);
            return week;
        }
    }

    /// <summary>What people have decided so far.</summary>
    public WeekDecisions Decided()
    {
        var kept = visits.All();
        return new(kept.Where(v => v.IsFixed).ToDictionary(v => v.Plate), kept.Where(v => !v.IsFixed).ToDictionary(v => v.Plate),
            visits.Dropped(clock.Today));
    }

    /// <summary>Where every visit stands now, as it is kept.</summary>
    /// <param name="week">The week.</param>
    public static IReadOnlyList<KeptVisit> Kept(WorkshopWeek week) => [.. week.Visits.Where(v => v.Slot is not null)
        .Select(v => new KeptVisit(v.Plate, week.Days[v.Slot!.Value.Day].Date, v.Slot.Value.Begins, week.BayOf(v.Slot.Value),
            v.IsFixed))];

    /// <summary>The week as it would be with other decisions; the others stay where they stand now where nothing much is gained.</summary>
    /// <param name="change">What changes of what is decided.</param>
    public WorkshopWeek With(Func<WeekDecisions, WeekDecisions> change)
    {
        var asked = Ask(change(Standing()));
        return asked.Of(WeekPlanner.Adjust(asked.Problem));
    }

    /// <summary>The same once for each day on which the workshop is open, with one vehicle that may come on that day only.</summary>
    /// <param name="change">What changes of what is decided.</param>
    /// <param name="plate">The vehicle.</param>
    public IReadOnlyList<(DateOnly Day, WorkshopWeek Week)> OnEachDay(Func<WeekDecisions, WeekDecisions> change, string plate)
    {
        var asked = Ask(change(Standing()));
        var (problem, days) = (asked.Problem, asked.Problem.Days);
        return [.. days.Where(d => d.Open != Quarters.None).Select(d => (d.Date, asked.Of(WeekPlanner.Adjust(problem with
        {
            Visits = [.. problem.Visits.Select(v => v.Plate != plate ? v
                : v with { Away = [.. v.Away.Select((away, i) => days[i].Date == d.Date ? away : Quarters.AllDay)] })],
        }))))];
    }

    // What people have decided, and where all the others stand.
    private WeekDecisions Standing() =>
        Decided() with { Before = Kept(Week()).Where(v => !v.IsFixed).ToDictionary(v => v.Plate) };

    /// <summary>Keeps a week that somebody agreed to, and shows it from now on.</summary>
    internal void Agreed(WorkshopWeek week)
    {
        lock (_planning)
            _known = (Stamp(), week);
    }

    // All that the plan goes by; it is the same through a quarter of an hour in which nothing happens.
    private string Stamp()
    {
        var workshop = settings.Read();
        return string.Join(' ', [$"{clock.Today:O}", $"{Quarters.At(TimeOnly.FromDateTime(clock.Now.DateTime))}", $"{visits.Changes}",
            shelf.Stamp(), wishes.Stamp(), workshop.Open ?? "", .. workshop.Ground ?? [], $"{workshop.Schools}",
            .. people.All().Select(p => $"{p.Id}.{p.Role}"),
            .. cards.Unsigned().Select(c => $"{c.Id}.{c.Bay}.{cards.HeadHash(c.Id)}")]);
    }

    // Who is asked for, with all that is known of each; and how a plan of it is shown.
    private sealed record Asked(WeekProblem Problem, IReadOnlyList<WantsVisit> Wants, IReadOnlyList<WorkLength> Work,
        ILookup<string, OrderLine> Missing, IReadOnlyList<WeekCard> Cards, WeekDecisions Decided, int More)
    {
        internal WorkshopWeek Of(WeekPlan plan) => new(plan, [.. Wants.Select((w, i) =>
        {
            var (lines, visit) = (Missing[w.Vehicle.Plate].ToList(), plan.Visits[i]);
            return new WeekVisit(w, Work[i], lines.Max(l => l.Boat), [.. lines.Select(l => l.Name)], lines.Any(l => l.Boat is null),
                visit.Slot, visit.Visit.Fixed is not null && visit.Slot is not null, visit.Pushed, visit.Why,
                Decided.Fixed.TryGetValue(w.Vehicle.Plate, out var put) && put.Day < Problem.Days[0].Date ? put.Day : null);
        })], Cards, Decided.Dropped, More);
    }

    private Asked Ask(WeekDecisions decided)
    {
        var workshop = settings.Read();
        var open = cards.Unsigned();
        var except = open.Select(c => c.Plate).Concat(decided.Dropped.Select(d => d.Plate)).ToHashSet();
        var days = Days(workshop);
        var room = days.Sum(d => d.Open.Count) * workshop.Bays.Inside.Count;
        var (wants, more) = wishes.Of(Math.Min(Most, (int)(room * Filled / UsualVisit)), except);
        var here = Cards(open, days, workshop);
        var (inside, work) = (workshop.Bays.Inside.ToList(), wants.Select(w => Length(w, workshop)).ToList());
        var missing = Missing(open, wants);
        var needed = visits.Needed();
        return new(new(days, [.. inside.Select(b => new BayPlace(b, workshop.HasLift(b)))], [.. here.SelectMany(c => Taken(c, inside))],
            [.. wants.Select((w, i) => Wanted(w, work[i], missing[w.Vehicle.Plate], needed, days, inside, decided))]),
            wants, work, missing, here, decided, more);
    }

    private List<WorkDay> Days(WorkshopSettings workshop)
    {
        var (hours, opening) = (visits.Hours(), workshop.Opening);
        List<WeeklyTimes> all = [.. people.All().Select(p => HoursOf(p, hours))];
        // Of today what is past is no room any more.
        var past = Quarters.Between(0, Quarters.At(TimeOnly.FromDateTime(clock.Now.DateTime)));
        return [.. Enumerable.Range(0, WeekWishes.Days).Select(d => clock.Today.AddDays(d)).Select(d => new WorkDay(d,
            d == clock.Today ? opening.On(d).Without(past) : opening.On(d),
            [.. Enumerable.Range(0, Quarters.InDay).Select(q => all.Count(t => t.On(d).Has(q)))]))];
    }

    /// <summary>When a person is there to work on vehicles.</summary>
    /// <param name="person">The person.</param>
    /// <param name="hours">What was set.</param>
    /// <returns>As set; else the usual times for technicians and leads, and never for the others.</returns>
    public static WeeklyTimes HoursOf(Member person, IReadOnlyDictionary<string, WeeklyTimes> hours) =>
        hours.TryGetValue(person.Id.Text, out var set) ? set : person.Role is Role.Technician or Role.Lead ? WeeklyTimes.Usual
            : WeeklyTimes.Never;

    /// <summary>How long a visit takes.</summary>
    private WorkLength Length(WantsVisit wants, WorkshopSettings workshop)
    {
        if (wants.Wish.Jobs.Count == 0)
            return new(TimeSpan.FromMinutes(JustALook * Quarters.Minutes), JustALook, Quarters.None, true);
        var plan = plans.Plan(wants.Sheet, wants.Wish.Jobs, workshop.Schools ?? WorkSchools.Usual);
        return new(plan.Total, Math.Clamp(Quarters.Up(plan.Total), LeastVisit, Quarters.InDay),
            plan.Rows.Where(r => r.Step.People == 2).Select(r => Quarters.Between((int)(r.Begins.TotalMinutes / Quarters.Minutes),
                Quarters.Up(r.Ends))).Aggregate(Quarters.None, (all, q) => all.And(q)),
            plan.Ordered.Cost.LiftMoves > 0);
    }

    // What is on the shelf goes to the open cards first, then to the most urgent.
    private ILookup<string, OrderLine> Missing(IReadOnlyList<CardEntry> open, IReadOnlyList<WantsVisit> wants)
    {
        var lines = ahead.Lines([.. ahead.OfCards(open), .. wants.Where(w => w.Wish.Jobs.Count > 0)
            .Select(w => ahead.Of(w.Vehicle.Plate, w.Sheet, w.Wish.Jobs))]);
        return lines.SelectMany(l => l.For.Select(f => (Plate: f, Line: l))).ToLookup(x => x.Plate, x => x.Line);
    }

    private WantedVisit Wanted(WantsVisit wants, WorkLength work, IEnumerable<OrderLine> missing,
        IReadOnlyDictionary<string, WeeklyTimes> needed, List<WorkDay> days, List<string> inside, WeekDecisions decided)
    {
        var (today, plate) = (days[0].Date, wants.Vehicle.Plate);
        var now = Quarters.Between(0, Quarters.At(TimeOnly.FromDateTime(clock.Now.DateTime)) + 1);
        var lines = missing.ToList();
        var boat = lines.Any(l => l.Boat is null) ? DateOnly.MaxValue : lines.Max(l => l.Boat) ?? DateOnly.MinValue;
        return new(plate, work.Length, work.Second, work.Lift,
            [.. days.Select(d => (needed.TryGetValue(plate, out var times) ? times.On(d.Date) : Quarters.None)
                .And(d.Date < boat ? Quarters.AllDay : d.Date == boat ? Quarters.Between(0, Unloaded) : Quarters.None)
                .And(d.Date == today ? now : Quarters.None))],
            [.. days.Select(d => VisitCost.On(wants.Wish.Wishes, today, d.Date))], VisitCost.Waits(wants.Wish.Wishes, today, days[^1].Date))
        {
            Fixed = Slot(decided.Fixed.GetValueOrDefault(plate), days, inside),
            Before = Slot(decided.Before.GetValueOrDefault(plate), days, inside),
        };
    }

    private static VisitSlot? Slot(KeptVisit? kept, List<WorkDay> days, List<string> inside) => kept is not null
        && days.FindIndex(d => d.Date == kept.Day) is var day and >= 0 && inside.IndexOf(kept.Bay) is var bay and >= 0
        ? new(day, kept.Begins, bay) : null;

    private List<WeekCard> Cards(IReadOnlyList<CardEntry> open, List<WorkDay> days, WorkshopSettings workshop) =>
        [.. open.Select(entry => Card(entry, cards.Find(entry.Id)!, days, workshop.Opening))];

    private WeekCard Card(CardEntry entry, JobCard card, List<WorkDay> days, WeeklyTimes opening)
    {
        var left = card.PlanFrom(clock.Now).Total;
        // What waits is left out of what can be done from here; with what it waits for all the rest can be.
        var whole = card.Awaited.Count == 0 ? left : TimeSpan.FromTicks(card.Steps
            .Where(s => card.State(s.Id).Status is not (StepStatus.Done or StepStatus.LeftOut)).Sum(s => s.Takes.Ticks));
        var nobodyKnows = card.Awaited.Any(a => a.Boat is null);
        var boat = card.Awaited.Count == 0 || nobodyKnows ? (DateOnly?)null : card.Awaited.Max(a => a.Boat!.Value);
        var task = vehicles.Find(entry.Plate)?.Task ?? "";
        var first = Quarters.At(TimeOnly.FromDateTime(clock.Now.DateTime));
        var inside = entry.Bay != Bays.Outside;
        var spans = new List<(int, Quarters, bool)>();
        if (nobodyKnows)
            return new(entry, task, null, null, inside ? [.. days.Select((d, i) => (i, i == 0 ? d.Open.Without(Quarters.Between(0, first))
                : d.Open, false))] : [], null);
        var rest = Quarters.Up(whole);
        DateTimeOffset? ends = null;
        for (var i = 0; i < days.Count && rest > 0; i++)
        {
            var here = days[i].Open.Without(i == 0 ? Quarters.Between(0, first) : Quarters.None);
            var waits = days[i].Date < boat ? here : days[i].Date == boat
                ? new(here.Set & Quarters.Between(0, Unloaded).Set) : Quarters.None;
            var worked = Quarters.None;
            foreach (var (from, to) in here.Without(waits).Stretches())
            {
                var until = Math.Min(to, from + rest);
                if (until <= from)
                    break;
                worked = worked.And(Quarters.Between(from, until));
                rest -= until - from;
                if (rest == 0)
                    ends = clock.At(days[i].Date, Quarters.Time(until));
            }
            if (inside && waits != Quarters.None)
                spans.Add((i, waits, false));
            if (worked != Quarters.None)
                spans.Add((i, worked, true));
        }
        return new(entry, task, whole, boat, spans, ends);
    }

    private static IEnumerable<BayTaken> Taken(WeekCard card, List<string> inside)
    {
        var bay = inside.IndexOf(card.Entry.Bay);
        foreach (var (day, when, worked) in card.Spans)
            // A vehicle that only stands takes its bay and nobody's time.
            if (worked || bay >= 0)
                yield return new(day, bay < 0 ? null : bay, when, Quarters.None) { IsStaffed = worked };
    }
}
