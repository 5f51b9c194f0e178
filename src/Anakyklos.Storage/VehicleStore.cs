using System.Globalization;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>A vehicle.</summary>
/// <param name="Plate">Its plate.</param>
/// <param name="SheetId">Its model sheet.</param>
/// <param name="Task">What it does.</param>
/// <param name="Year">Model year.</param>
/// <param name="Use">How hard it is used.</param>
public sealed record Vehicle(string Plate, string SheetId, string Task, int Year, Use Use);

/// <summary>An odometer reading.</summary>
/// <param name="At">When.</param>
/// <param name="Reading">What it said.</param>
/// <param name="Reason">Why it is lower than the one before; empty otherwise.</param>
public sealed record OdometerReading(DateTimeOffset At, Quantity<Distance> Reading, string Reason);

/// <summary>Vehicles and their odometer readings.</summary>
public sealed class VehicleStore(WorkshopDatabase database)
{
    /// <summary>All vehicles, by plate.</summary>
    public IReadOnlyList<Vehicle> All() => Query("order by plate", new { });

    /// <summary>One vehicle, or null.</summary>
    public Vehicle? Find(string plate) => Query("where plate = @plate", new { plate }).FirstOrDefault();

    /// <summary>Adds a vehicle.</summary>
    /// <returns>Whether it was added; false when the plate is there already.</returns>
    public Task<bool> Add(Vehicle vehicle) => database.Writes.Run(scope => scope.Connection.Execute("""
        insert into vehicle (plate, sheet_id, task, year, harsh_use) values (@Plate, @SheetId, @Task, @Year, @harsh) on conflict do nothing
        """, new { vehicle.Plate, vehicle.SheetId, vehicle.Task, vehicle.Year, harsh = vehicle.Use == Use.Harsh ? 1 : 0 }) == 1);

    /// <summary>Notes an odometer reading.</summary>
    public Task<int> Note(string plate, OdometerReading reading, string person) => database.Writes.Run(scope => scope.Connection.Execute("""
        insert into odometer (plate, at, km, person_id, reason) values (@plate, @at, @km, @person, @Reason) on conflict do nothing
        """, new { plate, at = CardStore.Iso(reading.At), km = reading.Reading.In(Distance.Kilometre).ToString(CultureInfo.InvariantCulture), person, reading.Reason }));

    /// <summary>All readings of a vehicle, newest first.</summary>
    public IReadOnlyList<OdometerReading> Odometer(string plate)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string At, string Km, string Reason)>("select at, km, reason from odometer where plate = @plate order by at desc", new { plate })
            .Select(r => new OdometerReading(CardStore.Time(r.At), Quantity<Distance>.Of(decimal.Parse(r.Km, CultureInfo.InvariantCulture), Distance.Kilometre), r.Reason))];
    }

    private List<Vehicle> Query(string where, object values)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string Plate, string Sheet, string Task, int Year, int Harsh)>($"select plate, sheet_id, task, year, harsh_use from vehicle {where}", values)
            .Select(r => new Vehicle(r.Plate, r.Sheet, r.Task, r.Year, r.Harsh == 1 ? Use.Harsh : Use.Normal))];
    }
}
