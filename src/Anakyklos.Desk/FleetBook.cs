using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A vehicle as it stands in the fleet.</summary>
/// <param name="Vehicle">The vehicle.</param>
/// <param name="Model">Its model's name, or the sheet's id where there is no sheet.</param>
/// <param name="Standing">What of it is overdue, due and near.</param>
/// <param name="Now">Its last reading that is believed, on this day.</param>
/// <param name="ThisWeek">The jobs that are due, or will be within a week.</param>
public sealed record VehicleInFleet(Vehicle Vehicle, string Model, FleetRow Standing, UseMark Now, IReadOnlyList<JobId> ThisWeek);

/// <summary>Who of the fleet is due, kept from one look to the next: only vehicles that changed since are worked out again, and all of
/// them when a day begins.</summary>
public sealed class FleetBook(VehicleStore vehicles, VehicleTrail trail, SheetStore sheets, WorkshopClock clock)
{
    // With more changes than this one pass over all is quicker.
    private const int Many = 200, Week = 7;

    private readonly Lock _looking = new();
    private readonly Dictionary<string, VehicleInFleet> _known = [];
    private IReadOnlyList<VehicleInFleet> _byUrgency = [];
    private long _until = -1;
    private DateOnly _day;

    /// <summary>All vehicles, those that wait for a service first, then by plate.</summary>
    public IReadOnlyList<VehicleInFleet> ByUrgency()
    {
        lock (_looking)
        {
            var (since, today) = (_until, clock.Today);
            var (touched, until) = trail.Touched(Math.Max(0, since));
            if (since >= 0 && _day == today && touched.Count == 0)
                return _byUrgency;
            // Whatever fails half way is begun anew next time.
            _until = -1;
            if (since < 0 || _day != today || touched.Contains("") || touched.Count > Many)
            {
                _known.Clear();
                WorkOut(null);
            }
            else
            {
                foreach (var plate in touched)
                {
                    _known.Remove(plate);
                    WorkOut(plate);
                }
            }
            _byUrgency = [.. _known.Values.OrderByDescending(v => v.Standing.Overdue > 0)
                .ThenByDescending(v => v.Standing.Due > 0)
                .ThenByDescending(v => v.Standing.Soon > 0)
                .ThenBy(v => v.Vehicle.Plate, StringComparer.Ordinal)];
            (_until, _day) = (until, today);
            return _byUrgency;
        }
    }

    private void WorkOut(string? plate)
    {
        IReadOnlyList<Vehicle> all = plate is null ? vehicles.All() : vehicles.Find(plate) is { IsGone: false } one ? [one] : [];
        var (done, read, rules) = (vehicles.LastDone(plate), vehicles.Histories(clock.Day, plate), vehicles.OwnRules());
        var models = sheets.Newest().ToDictionary(s => s.Id);
        var times = vehicles.TimesSince(DueDesk.Counting(models.Values), plate);
        var items = new Dictionary<(SheetId, Use), IReadOnlyList<ServiceItem>>();
        var fleet = new List<(Vehicle Vehicle, string Model, FleetVehicle Stands)>();
        foreach (var v in all)
        {
            if (!models.TryGetValue(v.SheetId, out var sheet))
            {
                _known[v.Plate] = new(v, v.SheetId.Text, default, new(default, clock.Today), []);
                continue;
            }
            if (rules.Contains(v.Plate) || !items.TryGetValue((v.SheetId, v.Use), out var known))
                known = ServiceItem.Of(sheet, v.Use, [.. rules[""], .. rules[v.Plate]]);
            if (!rules.Contains(v.Plate))
                items[(v.SheetId, v.Use)] = known;
            var last = done[v.Plate].ToDictionary(d => d.Job, d => d.Done);
            var history = read.GetValueOrDefault(v.Plate);
            var mark = history?.LastMark;
            fleet.Add((v, sheet.FullName, new(v.Plate, known,
                [.. known.Select(i => last.TryGetValue(i.Job, out var d) ? d : (UseMark?)null)],
                new(mark?.Odometer ?? default, clock.Today, mark?.Hours), history?.PastOf(v) ?? v.Past,
                [.. known.Select(i => times.GetValueOrDefault((v.Plate, i.Job)))])));
        }
        foreach (var (row, of) in FleetCheck.Of([.. fleet.Select(f => f.Stands)], DueWindow.Usual).Zip(fleet))
            _known[row.Plate] = new(of.Vehicle, of.Model, row, of.Stands.Now,
                ThisWeek(row, of.Stands, read.GetValueOrDefault(row.Plate)?.Use));
    }

    // What falls due within a week is near already: of most vehicles nothing has to be looked at once more.
    private JobId[] ThisWeek(FleetRow row, FleetVehicle of, DailyUse? use) => row.Overdue + row.Due + row.Soon == 0 ? []
        : [.. ServiceItem.Of(of.Items, of.Now, of.Last, of.Past, DueWindow.Usual, of.Times)
            .Where(s => s.IsDue || (s.State >= DueState.NotYet
                && DueDay.Of(s, of.Now, use) is { } due && due.Day <= clock.Today.AddDays(Week))).Select(s => s.Item.Job)];
}
