using System.Globalization;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Weeks;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>
/// What the lead sets for the workshop: school, weather, wrenches, rules beside the makers', and vehicles from a file. Whatever cannot be
/// taken as typed is told by its field, and nothing is kept of it.
/// </summary>
public sealed class SettingDesk(SettingStore settings, VehicleStore vehicles, SheetStore sheets, PeopleStore people, VisitStore visits,
    TrailStore trail, WorkshopClock clock)
{
    private const decimal UsualAccuracy = 4;
    private const decimal UsualMeter = 0.5m;
    private const int FarthestCelsius = 70, LongestName = 60;

    /// <summary>What a workshop may be called.</summary>
    /// <param name="name">As typed, without space around it.</param>
    /// <returns>What is wrong, by the field <c>workshop</c>; null for nothing.</returns>
    public static Refusal? CheckName(string name) => name.Length is > 0 and <= LongestName && !name.Any(char.IsControl) ? null
        : new($"Give the workshop a name of up to {LongestName} characters, in one line.", Field: "workshop");

    /// <summary>Names the workshop; papers that were printed before keep the name that they have.</summary>
    /// <param name="name">As typed.</param>
    /// <returns>What is wrong, by the field <c>workshop</c>.</returns>
    public async Task<IReadOnlyList<Refusal>> SetName(string? name)
    {
        var called = (name ?? "").Trim();
        if (CheckName(called) is { } wrong)
            return [wrong];
        await settings.Change(now => now with { Name = called });
        return [];
    }

    /// <summary>Sets how high the workshop fills, and how much on one reading.</summary>
    /// <param name="school">The name of a <see cref="TargetSchool"/>; empty for what each sheet wants.</param>
    /// <param name="stages">The name of one of <see cref="PourStages"/>; of this and the next two, empty leaves it as it is.</param>
    /// <param name="drain">The name of a <see cref="DrainSchool"/>.</param>
    /// <param name="drip">Minutes as typed; empty for what each sheet wants.</param>
    /// <param name="filter">The name of a <see cref="FilterSchool"/>.</param>
    /// <returns>What is wrong, by the field <c>drip</c>, or <c>school</c> for whatever was chosen.</returns>
    public async Task<IReadOnlyList<Refusal>> SetSchool(string? school, string? stages, string? drain, string? drip, string? filter)
    {
        var (minutes, wrong) = (0, new List<Refusal>());
        var height = Chosen<TargetSchool>(school, wrong);
        var (staged, drained) = (Chosen<PourStages>(stages, wrong), Chosen<DrainSchool>(drain, wrong));
        var filtered = Chosen<FilterSchool>(filter, wrong);
        if (!string.IsNullOrWhiteSpace(drip)
            && (!int.TryParse(drip.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out minutes)
                || minutes > WorkSchools.LongestDrip))
            wrong.Add(new($"“{(drip.Length > 20 ? drip[..20] + "…" : drip).Trim()}” is not a number of minutes.",
                $"Type 0 to {WorkSchools.LongestDrip}.", Field: "drip"));
        if (wrong.Count > 0)
            return wrong;
        await settings.Change(now => now with
        {
            School = height,
            Stages = staged ?? now.Stages,
            Schools = new(drained ?? Ways(now).Drain, minutes, filtered ?? Ways(now).Filter),
        });
        return [];
    }

    private static WorkSchools Ways(WorkshopSettings now) => now.Schools ?? WorkSchools.Usual;

    private static T? Chosen<T>(string? word, List<Refusal> wrong) where T : struct, Enum
    {
        if (string.IsNullOrEmpty(word))
            return null;
        if (Enum.GetNames<T>().Contains(word))
            return Enum.Parse<T>(word);
        wrong.Add(new($"“{(word.Length > 20 ? word[..20] + "…" : word)}” is none of the ways to choose from.", "Choose one of the list.",
            Field: "school"));
        return null;
    }

    /// <summary>Sets a rule beside the maker's, or takes it away when both fields are empty.</summary>
    /// <param name="plate">The vehicle, or empty for the depot's rule for all.</param>
    /// <param name="job">Job id, of that vehicle's model or of any.</param>
    /// <param name="distance">As typed, or empty.</param>
    /// <param name="months">As typed, or empty.</param>
    /// <param name="unit">The unit of a bare number.</param>
    /// <returns>What is wrong, by the fields <c>job</c>, <c>distance</c> and <c>months</c>.</returns>
    public async Task<IReadOnlyList<Refusal>> SetRule(string plate, string? job, string? distance, string? months, Unit<Distance> unit)
    {
        var wrong = new List<Refusal>();
        if (!Jobs(plate).Any(j => j.Id == job))
            wrong.Add(new("No model has this job.", "Choose one of the list.", Field: "job"));
        var every = ReadDistance(distance, unit, wrong);
        var span = ReadMonths(months, wrong);
        if (wrong.Count == 0)
            await vehicles.SetRule(plate, job!, every is null && span is null ? null : new(every, span));
        return wrong;
    }

    /// <summary>The jobs for which a rule can be set, each id once, by name.</summary>
    /// <param name="plate">A vehicle, or empty for all models.</param>
    public IReadOnlyList<Job> Jobs(string plate = "")
    {
        var models = plate.Length == 0 ? sheets.Newest()
            : vehicles.Find(plate) is { } vehicle && sheets.Newest(vehicle.SheetId) is { } sheet ? [sheet] : [];
        return [.. models.SelectMany(s => s.Jobs.Values).DistinctBy(j => j.Id).OrderBy(j => j.Name, StringComparer.Ordinal)];
    }

    /// <summary>Sets the weather of the place, which the oils must bear.</summary>
    /// <param name="coldest">As typed; °C unless it says otherwise.</param>
    /// <param name="hottest">As typed.</param>
    /// <returns>What is wrong, by the fields <c>coldest</c> and <c>hottest</c>.</returns>
    public async Task<IReadOnlyList<Refusal>> SetWeather(string? coldest, string? hottest)
    {
        var wrong = new List<Refusal>();
        var (low, high) = (ReadDegrees(coldest, "coldest", wrong), ReadDegrees(hottest, "hottest", wrong));
        if (low >= high)
            wrong.Add(new("The hottest must be above the coldest.", Field: "hottest"));
        if (wrong.Count == 0)
            await settings.Change(now => now with { Coldest = low, Hottest = high });
        return wrong;
    }

    /// <summary>Sets when the supplier brings what is ordered.</summary>
    /// <param name="days">Names of the days of the week; none for what nobody knows.</param>
    /// <param name="orderBy">Until when an order counts for its day, such as 12:00.</param>
    /// <param name="lead">Days from the order until it can come, as typed.</param>
    /// <returns>What is wrong, by the fields <c>days</c>, <c>order-by</c> and <c>lead</c>.</returns>
    public async Task<IReadOnlyList<Refusal>> SetDeliveries(IReadOnlyCollection<string> days, string? orderBy, string? lead)
    {
        var (wrong, known) = (new List<Refusal>(), Enum.GetValues<DayOfWeek>().Where(d => days.Contains($"{d}")).ToList());
        if (known.Count != days.Distinct().Count())
            wrong.Add(new("There is no such day.", "Choose from Monday to Sunday.", Field: "days"));
        if (!TimeOnly.TryParseExact(orderBy?.Trim(), ["HH:mm", "H:mm"], CultureInfo.InvariantCulture, DateTimeStyles.None, out var until))
            wrong.Add(new("That is no time of the day.", "Type such as 12:00.", Field: "order-by"));
        if (!int.TryParse(lead?.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var after) || after > Deliveries.Longest)
            wrong.Add(new("That is not a number of days.", $"Type 0 to {Deliveries.Longest}.", Field: "lead"));
        if (wrong.Count == 0)
            await settings.Change(now => now with { Deliveries = known.Count == 0 ? null : new(known, until, after) });
        return wrong;
    }

    /// <summary>Sets whether a card is opened only where two people have read every value that it uses.</summary>
    /// <param name="only">Whether it is.</param>
    public Task<bool> SetReadByTwo(bool only) => settings.Change(now => now with { ReadByTwo = only ? true : null });

    /// <summary>Sets when the workshop is open, and when people are there: all of it or nothing.</summary>
    /// <param name="open">As <see cref="WeeklyTimes"/> are written.</param>
    /// <param name="hours">Times by the id of each person; whoever is not in it stays as before.</param>
    /// <returns>What is wrong, by the field <c>open</c> or the id of the person after <c>hours-</c>.</returns>
    public async Task<IReadOnlyList<Refusal>> SetWeek(string? open, IReadOnlyDictionary<string, string> hours)
    {
        var (wrong, times) = (new List<Refusal>(), new Dictionary<PersonId, WeeklyTimes>());
        var opening = WeeklyTimes.Read(open, out var problem);
        if (opening is null || opening.Equals(WeeklyTimes.Never))
            wrong.Add(new(opening is null ? problem : "It is never open so.", opening is null ? "" : "Write such as Mo-Fr 08:00-16:30.",
                Field: "open"));
        foreach (var person in people.All().Where(p => hours.ContainsKey(p.Id.Text)))
        {
            if (WeeklyTimes.Read(hours[person.Id.Text], out var not) is { } there)
                times[person.Id] = there;
            else
                wrong.Add(new(not, Field: $"hours-{person.Id}"));
        }
        if (wrong.Count > 0)
            return wrong;
        await settings.Change(now => now with { Open = opening!.ToString() });
        await visits.SetHours(times);
        return [];
    }

    /// <summary>What a file of vehicles and their odometer history would change.</summary>
    /// <param name="text">Its text.</param>
    /// <param name="coming">Is told how far it is; null where nobody waits for it.</param>
    /// <returns>What would change; or what is wrong, by row and column.</returns>
    public (Preview? Would, IReadOnlyList<Refusal> Wrong) LookAtVehicles(string text, ComingFile? coming = null)
    {
        var (brought, readings, rows, wrong) = Brought(text, coming);
        return wrong.Count > 0 ? (null, wrong) : (Preview.Of(brought, readings, rows), []);
    }

    /// <summary>Takes in vehicles and their odometer history from a file: all of it or nothing.</summary>
    /// <param name="text">Its text.</param>
    /// <param name="person">Id of who brings it.</param>
    /// <param name="coming">Is told how far it is; null where nobody waits for it.</param>
    /// <returns>How many were new; or what is wrong, by row and column.</returns>
    public async Task<(int Vehicles, int Readings, IReadOnlyList<Refusal> Wrong)> BringInVehicles(string text, PersonId person,
        ComingFile? coming = null)
    {
        var (brought, readings, _, wrong) = Brought(text, coming);
        if (wrong.Count > 0)
            return (0, 0, wrong);
        var (newVehicles, newReadings) = await vehicles.BringIn(brought, readings, person,
            (done, of) => coming?.At(FileStage.Kept, done, of));
        await trail.Note(person.Text, "brought in", $"{newVehicles} vehicles and {newReadings} readings from a file", clock.Now);
        return (newVehicles, newReadings, []);
    }

    // What is here already, of that day and at that distance, is not a second reading.
    private (IReadOnlyList<Vehicle> Vehicles, IReadOnlyList<(string Plate, OdometerReading Reading)> Readings, int Rows,
        IReadOnlyList<Refusal> Wrong) Brought(string text, ComingFile? coming)
    {
        var models = sheets.Newest().SelectMany(s => new[] { (s.Id.Text, s.Id), (s.FullName, s.Id) }).DistinctBy(m => m.Item1)
            .ToDictionary(m => m.Item1, m => m.Item2);
        var (brought, readings, wrong) = FleetFile.Read(text, models, [.. vehicles.Known()], clock, coming);
        string[] plates = [.. readings.Select(r => r.Item1).Distinct()];
        var known = new Dictionary<string, HashSet<(DateOnly, Quantity<Distance>)>>();
        foreach (var plate in plates)
        {
            known[plate] = vehicles.Odometer(plate).Select(o => (clock.Day(o.At), o.Reading)).ToHashSet();
            coming?.At(FileStage.Compared, known.Count, plates.Length);
        }
        return (brought, [.. readings.Where(r => !known[r.Item1].Contains((clock.Day(r.Item2.At), r.Item2.Reading)))], readings.Count,
            wrong);
    }

    private static Quantity<Distance>? ReadDistance(string? text, Unit<Distance> unit, List<Refusal> wrong)
    {
        if (string.IsNullOrWhiteSpace(text))
            return null;
        if (Quantity<Distance>.Read(text, out var problem, unit) is not { } typed)
            wrong.Add(new(problem, Field: "distance"));
        else if (typed.Value < Quantity<Distance>.Of(100, Distance.Kilometre)
            || typed.Value > Quantity<Distance>.Of(500_000, Distance.Kilometre))
            wrong.Add(new($"{typed} is not an interval.", "Type 100 to 500 000 km.", Field: "distance"));
        else
            return typed.Value;
        return null;
    }

    private static int? ReadMonths(string? text, List<Refusal> wrong)
    {
        if (string.IsNullOrWhiteSpace(text))
            return null;
        if (int.TryParse(text.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var n) && n is >= 1 and <= 240)
            return n;
        wrong.Add(new($"“{text.Trim()}” is not a number of months.", "Type 1 to 240.", Field: "months"));
        return null;
    }

    private static int? ReadDegrees(string? text, string field, List<Refusal> wrong)
    {
        var read = Temperature.Read((text ?? "").Trim(), out var problem, TemperatureScale.Celsius)?.In(TemperatureScale.Celsius);
        if (read is >= -FarthestCelsius and <= FarthestCelsius)
            return (int)read;
        wrong.Add(read is null ? new(problem, Field: field)
            : new($"That is no weather.", $"Type -{FarthestCelsius} to {FarthestCelsius} °C.", Field: field));
        return null;
    }
}
