using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Weeks;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>Where a visit stood and stands then; null where it has no place.</summary>
/// <param name="Plate">The vehicle.</param>
/// <param name="From">Before.</param>
/// <param name="To">Afterwards.</param>
public sealed record Shift(string Plate, VisitSlot? From, VisitSlot? To);

/// <summary>What would come of a change of the week.</summary>
/// <param name="Week">The week as it would be.</param>
/// <param name="Visit">The visit that is moved, as it would stand; null where it would not come at all.</param>
/// <param name="Shifts">Which others would stand elsewhere.</param>
/// <param name="Costs">What the change costs in the points of the plan; below zero where it gains.</param>
public sealed record WeekChange(WorkshopWeek Week, WeekVisit? Visit, IReadOnlyList<Shift> Shifts, int Costs);

/// <summary>People move, fix and drop visits, and say what the plan should know of a vehicle.</summary>
public sealed class WeekMoves(WeekDesk weeks, VisitStore visits, VehicleStore vehicles, SheetStore sheets, WorkshopClock clock)
{
    private const int LongestDrop = 365;

    private static readonly Refusal NotWanted = new("Nothing was changed: it need not come in these two weeks any more.",
        "It is here, left out, or done.");

    /// <summary>For each day on which the workshop is open: what would come of having a vehicle here then.</summary>
    /// <param name="plate">A vehicle that wants to come.</param>
    /// <returns>In the order of the days; a visit without a place says why.</returns>
    public IReadOnlyList<(DateOnly Day, WeekChange Change)> Choices(string plate)
    {
        var now = weeks.Week();
        return [.. weeks.OnEachDay(w => w with { Fixed = Without(w.Fixed, plate) }, plate)
            .Select(c => (c.Day, Change(now, c.Week, plate)))];
    }

    /// <summary>What would come of putting a visit somewhere.</summary>
    /// <param name="plate">The vehicle.</param>
    /// <param name="day">As typed.</param>
    /// <param name="time">As typed, such as 08:30.</param>
    /// <param name="bay">The name of a bay.</param>
    /// <returns>What would come of it, and the slot; or what is wrong, by the fields.</returns>
    public (WeekChange? Change, KeptVisit? Slot, IReadOnlyList<Refusal> Wrong) Try(string plate, string? day, string? time, string? bay)
    {
        var (now, wrong) = (weeks.Week(), new List<Refusal>());
        if (now.Of(plate) is not { } visit)
            return (null, null, [NotWanted]);
        var at = ReadDay(day, now, wrong);
        if (!TimeOnly.TryParseExact(time?.Trim(), ["HH:mm", "H:mm"], CultureInfo.InvariantCulture, DateTimeStyles.None, out var begins))
            wrong.Add(new("That is no time of the day.", "Type such as 08:30.", Field: "time"));
        if (bay is null || now.Plan.Problem.Bays.All(b => b.Name != bay))
            wrong.Add(new("There is no such bay.", "Choose one of the list.", Field: "bay"));
        if (wrong.Count > 0)
            return (null, null, wrong);
        var slot = new KeptVisit(plate, at!.Value, Quarters.At(begins), bay!, true);
        var change = Change(now, weeks.With(w => w with { Fixed = With(w.Fixed, slot) }), plate);
        // What a person fixed does not give way to another.
        if (change.Week.Visits.FirstOrDefault(v => v.Plate != plate && v.Pushed && now.Of(v.Plate) is { Pushed: false, IsFixed: true })
            is { } other && now.Of(other.Plate)!.Slot is { } taken)
            return (null, slot, [new($"{other.Plate} is fixed in {now.BayOf(taken)} from {Quarters.Time(taken.Begins):HH:mm} to "
                + $"{Quarters.Time(taken.Begins + other.Work.Length):HH:mm}.", "Choose another time, or move that one first.",
                Field: "time")]);
        if (change.Visit?.Slot is { } stands && !change.Visit.Pushed && now.Days[stands.Day].Date == slot.Day)
            return (change, slot, []);
        return (null, slot, [Not(now, visit, slot, change.Visit)]);
    }

    /// <summary>Puts a visit somewhere for good, with the others where they stand then.</summary>
    /// <returns>What is wrong, by the fields.</returns>
    public async Task<IReadOnlyList<Refusal>> Fix(string plate, string? day, string? time, string? bay, Person by)
    {
        var (change, _, wrong) = Try(plate, day, time, bay);
        if (change is not null)
            await Keep(change.Week, by);
        return wrong;
    }

    /// <summary>Lets the plan decide again where a visit stands.</summary>
    /// <returns>What is wrong.</returns>
    public async Task<IReadOnlyList<Refusal>> Free(string plate, Person by)
    {
        if (weeks.Week().Of(plate) is not { } visit || !weeks.Decided().Fixed.ContainsKey(plate))
            return [new("Nobody fixed this visit.", "Load the week again.")];
        var fixedNow = weeks.Decided().Fixed[plate];
        await Keep(weeks.With(w => w with
        {
            Fixed = Without(w.Fixed, plate),
            Before = With(w.Before, fixedNow with { IsFixed = false }),
        }), by);
        return [];
    }

    /// <summary>What would come of leaving a vehicle out.</summary>
    /// <param name="plate">The vehicle.</param>
    public WeekChange Without(string plate)
    {
        var now = weeks.Week();
        return Change(now, weeks.With(w => Left(w, new(plate, DateOnly.MaxValue, "", ""))), plate);
    }

    /// <summary>Leaves a vehicle out until a day, with a reason.</summary>
    /// <param name="plate">The vehicle.</param>
    /// <param name="until">The first day on which it counts again, as typed.</param>
    /// <param name="reason">Why.</param>
    /// <param name="by">Who says so.</param>
    /// <returns>What is wrong, by the fields <c>until</c> and <c>reason</c>.</returns>
    public async Task<IReadOnlyList<Refusal>> Drop(string plate, string? until, string? reason, Person by)
    {
        var (wrong, why) = (new List<Refusal>(), (reason ?? "").Trim());
        if (weeks.Week().Of(plate) is null)
            return [NotWanted];
        if (!DateOnly.TryParseExact(until, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
            || day <= clock.Today || day > clock.Today.AddDays(LongestDrop))
            wrong.Add(new("That is no day to come.", $"Choose one after today, within {LongestDrop} days.", Field: "until"));
        if (why.Length == 0)
            wrong.Add(new("A reason is missing.", "Say why it does not come.", Field: "reason"));
        else if (why.Length > Decision.LongestText)
            wrong.Add(new($"The reason is {why.Length} characters long.", $"Keep it to {Decision.LongestText}.", Field: "reason"));
        if (wrong.Count > 0)
            return wrong;
        var week = weeks.With(w => Left(w, new(plate, day, why, by.Name)));
        await visits.Drop(plate, day, why, WeekDesk.Kept(week), by.Id, clock.Now);
        weeks.Agreed(week);
        return [];
    }

    /// <summary>Lets a vehicle that was left out count again.</summary>
    /// <returns>What is wrong.</returns>
    public async Task<IReadOnlyList<Refusal>> TakeBack(string plate) =>
        await visits.TakeBack(plate) == 0 ? [new("This vehicle was not left out.", "Load the week again.")] : [];

    /// <summary>Sets when a vehicle cannot be missed.</summary>
    /// <returns>What is wrong, by the field <c>needed</c>.</returns>
    public async Task<IReadOnlyList<Refusal>> SetNeeded(string plate, string? times)
    {
        if (WeeklyTimes.Read(times, out var problem) is not { } read)
            return [new(problem, Field: "needed")];
        await visits.SetNeeded(plate, read);
        return [];
    }

    /// <summary>Notes a trip ahead; with no length the one that is noted is taken back.</summary>
    /// <returns>What is wrong, by the fields of the trip at intake.</returns>
    public async Task<IReadOnlyList<Refusal>> SetTrip(string plate, string? length, string? leaves, string? days, Unit<Distance> unit,
        Person by)
    {
        var reading = new IntakeReading(new() { TripLength = length, TripLeaves = leaves, TripDays = days }, unit, clock.Today);
        var trip = reading.Trip();
        if (trip is null && string.IsNullOrWhiteSpace(length)
            && !(string.IsNullOrWhiteSpace(leaves) && string.IsNullOrWhiteSpace(days)) && !visits.Trips(clock.Today).ContainsKey(plate))
            return [new("How far it goes is missing.", "Type it there and back, such as 1 600 km.", Field: "tripLength")];
        if (reading.Refusals.Count == 0)
            await visits.SetTrip(plate, trip, by.Id, clock.Now);
        return reading.Refusals;
    }

    /// <summary>Notes what the dash shows, as its driver told; nothing takes it back.</summary>
    /// <returns>What is wrong, by the field <c>dash</c>.</returns>
    public async Task<IReadOnlyList<Refusal>> Tell(string plate, string? code, Person by)
    {
        var told = (code ?? "").Trim();
        if (told.Length > 0 && vehicles.Find(plate) is { } v && sheets.Newest(v.SheetId) is { } sheet && sheet.Dash.Find(told) is null)
            return [new($"“{(told.Length > 20 ? told[..20] + "…" : told)}” is no message that this model shows.",
                sheet.Dash.Messages.Count == 0 ? "It shows none."
                    : $"It shows {string.Join(", ", sheet.Dash.Messages.Select(m => m.Code))}.",
                Field: "dash")];
        await visits.Tell(plate, told, by.Id, clock.Now);
        return [];
    }

    private async Task Keep(WorkshopWeek week, Person by)
    {
        await visits.Keep(WeekDesk.Kept(week), by.Id, clock.Now);
        weeks.Agreed(week);
    }

    private static WeekChange Change(WorkshopWeek now, WorkshopWeek then, string plate)
    {
        var before = now.Visits.ToDictionary(v => v.Plate, v => v.Slot);
        return new(then, then.Of(plate), [.. then.Visits.Where(v => v.Plate != plate && before.TryGetValue(v.Plate, out var slot)
            && slot != v.Slot).Select(v => new Shift(v.Plate, before[v.Plate], v.Slot))], then.Plan.Cost - now.Plan.Cost);
    }

    private DateOnly? ReadDay(string? day, WorkshopWeek week, List<Refusal> wrong)
    {
        if (DateOnly.TryParseExact(day, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var read)
            && week.Days.Any(d => d.Date == read && d.Open != Quarters.None))
            return read;
        wrong.Add(new("The workshop is not open then, or that is not within these two weeks.", "Choose a day of the week.", Field: "day"));
        return null;
    }

    // Why a visit cannot stand where somebody wants it.
    private static Refusal Not(WorkshopWeek week, WeekVisit visit, KeptVisit slot, WeekVisit? stands)
    {
        var day = week.Days.First(d => d.Date == slot.Day);
        var run = Quarters.Between(slot.Begins, slot.Begins + visit.Work.Length);
        var ends = run.Count < visit.Work.Length ? Quarters.InDay : slot.Begins + visit.Work.Length;
        if (run.Count < visit.Work.Length || !day.Open.Covers(run))
            return new($"It takes {Words(visit.Work.Length)}: until {Quarters.Time(ends):HH:mm}, and the workshop is not open all that "
                + "time, or it is past.", "Choose another time.", Field: "time");
        if (visit.Work.Lift && !week.Plan.Problem.Bays.First(b => b.Name == slot.Bay).Lift)
            return new($"It has to be raised, and {slot.Bay} has no lift.", "Choose another bay.", Field: "bay");
        var can = stands?.Slot is { } s ? $"It could begin at {Quarters.Time(s.Begins):HH:mm} in {week.BayOf(s)}."
            : "Choose another day.";
        return new($"{slot.Bay} is taken then, or too few people are there.", can, Field: "time");
    }

    private static string Words(int quarters) => quarters < 4 ? $"{quarters * Quarters.Minutes} minutes"
        : quarters % 4 == 0 ? $"{quarters / 4} h" : $"{quarters / 4} h {quarters % 4 * Quarters.Minutes:00}";

    private static WeekDecisions Left(WeekDecisions w, DroppedVisit dropped) => w with
    {
        Fixed = Without(w.Fixed, dropped.Plate),
        Dropped = [.. w.Dropped.Where(d => d.Plate != dropped.Plate), dropped],
    };

    private static Dictionary<string, KeptVisit> Without(IReadOnlyDictionary<string, KeptVisit> all, string plate) =>
        all.Where(v => v.Key != plate).ToDictionary();

    private static Dictionary<string, KeptVisit> With(IReadOnlyDictionary<string, KeptVisit> all, KeptVisit visit) =>
        new(Without(all, visit.Plate)) { [visit.Plate] = visit };
}
