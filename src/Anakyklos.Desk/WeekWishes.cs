using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Weeks;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A vehicle that should come.</summary>
/// <param name="Vehicle">The vehicle.</param>
/// <param name="Sheet">Its sheet.</param>
/// <param name="Wish">What for.</param>
public sealed record WantsVisit(Vehicle Vehicle, ModelSheet Sheet, VisitWish Wish);

/// <summary>Which vehicles should come within two weeks and what for; of those that have not changed it is kept.</summary>
public sealed class WeekWishes(FleetBook fleet, DueDesk due, CardStore cards, SampleStore samples, VisitStore visits,
    RecommendationDesk recommendations, WorkshopClock clock)
{
    /// <summary>So many days are planned, with today.</summary>
    public const int Days = 14;

    // Of a small fleet everybody is looked at; of a large one those of whom something is near.
    private const int Small = 400, AfterAnswer = 7, AfterFinding = 30;

    private readonly Lock _looking = new();
    private readonly Dictionary<string, (VehicleInFleet Of, string Told, WantsVisit? Wants)> _known = [];
    private DateOnly _day;
    private IReadOnlyList<VehicleInFleet>? _fleet;
    private long _looks;

    /// <summary>Something else once other vehicles may want to come.</summary>
    public string Stamp()
    {
        lock (_looking)
        {
            if (!ReferenceEquals(_fleet, fleet.ByUrgency()))
                (_fleet, _looks) = (fleet.ByUrgency(), _looks + 1);
            return $"{_looks}.{recommendations.Changes}.{samples.Answered(clock.Now.AddDays(-AfterFinding)).Count}";
        }
    }

    /// <summary>Who should come, the most urgent first.</summary>
    /// <param name="most">No more than so many.</param>
    /// <param name="except">Plates that are not asked about.</param>
    /// <returns>They, and how many more there are.</returns>
    public (IReadOnlyList<WantsVisit> Wants, int More) Of(int most, IReadOnlySet<string> except)
    {
        lock (_looking)
        {
            if (_day != clock.Today)
                _known.Clear();
            _day = clock.Today;
            var all = fleet.ByUrgency();
            var (trips, told) = (visits.Trips(clock.Today), visits.Told());
            var answered = samples.Answered(clock.Now.AddDays(-AfterFinding)).ToLookup(s => s.Sample.Plate);
            var asked = all.Where(v => !except.Contains(v.Vehicle.Plate) && (all.Count <= Small
                || v.Standing.Overdue + v.Standing.Due + v.Standing.Soon > 0 || trips.ContainsKey(v.Vehicle.Plate)
                || told.ContainsKey(v.Vehicle.Plate) || answered.Contains(v.Vehicle.Plate))).ToList();
            // By urgency the fleet stands already: who is further down than twice as many waits anyway.
            var wants = asked.Take(2 * most + Small).Select(v => Of(v, trips.GetValueOrDefault(v.Vehicle.Plate),
                told.GetValueOrDefault(v.Vehicle.Plate, ""), [.. answered[v.Vehicle.Plate]])).OfType<WantsVisit>()
                .OrderByDescending(w => VisitCost.Waits(w.Wish.Wishes, clock.Today, clock.Today.AddDays(Days - 1)))
                .ThenBy(w => w.Vehicle.Plate, StringComparer.Ordinal).ToList();
            return ([.. wants.Take(most)], Math.Max(0, wants.Count - most) + Math.Max(0, asked.Count - 2 * most - Small));
        }
    }

    private WantsVisit? Of(VehicleInFleet v, Trip? trip, string told, IReadOnlyList<SampleEntry> answered)
    {
        var plate = v.Vehicle.Plate;
        var also = $"{trip} {told} {recommendations.Changes} {string.Join(' ', answered.Select(a => a.Sample.Code))}";
        if (_known.TryGetValue(plate, out var known) && ReferenceEquals(known.Of, v) && known.Told == also)
            return known.Wants;
        var wants = due.Of(v.Vehicle) is { } s
            && VisitWish.Of(s.Items, s.Now, s.Past, s.Use, s.Sheet.Dash, told, trip, Others(plate, answered),
                clock.Today.AddDays(Days - 1), due.Window) is { } wish ? new WantsVisit(v.Vehicle, s.Sheet, wish) : null;
        _known[plate] = (v, also, wants);
        return wants;
    }

    // What was found last time and is not mended, and what a laboratory answered since.
    private IReadOnlyList<Wish> Others(string plate, IReadOnlyList<SampleEntry> answered)
    {
        var last = cards.OfVehicle(plate).FirstOrDefault(c => c.SignedAt is not null);
        var (wishes, signed) = (new List<Wish>(), last is null ? DateOnly.MinValue : clock.Day(last.SignedAt!.Value));
        if (last is not null && cards.Find(last.Id) is { } card)
        {
            wishes.AddRange(card.StopsLeft(last.Id).Select(s => new Wish(WishBecause.Stop, s.Text, null, signed, signed)));
        }
        wishes.AddRange(recommendations.Of(plate).Where(r => r.IsToPlan).Select(r => new Wish(WishBecause.Recommended, r.Text, null,
            clock.Day(r.At), clock.Day(r.At).AddDays(AfterFinding))));
        wishes.AddRange(answered.Where(a => a.Leads >= LookOutcome.Specialist && a.Result!.Day >= signed)
            .Select(a => new Wish(WishBecause.Laboratory, $"{a.Sample.FluidName}: {a.Says}", null, a.Result!.Day,
                a.Result!.Day.AddDays(AfterAnswer))));
        return wishes;
    }
}
