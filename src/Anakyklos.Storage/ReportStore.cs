using System.Globalization;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>What scan tools read out of vehicles.</summary>
public sealed class ReportStore(WorkshopDatabase database)
{
    /// <summary>Keeps a report.</summary>
    /// <param name="report">What was read.</param>
    /// <param name="at">When it came.</param>
    /// <returns>1, or 0 when the tool sent this one before.</returns>
    public Task<int> Keep(VehicleReport report, DateTimeOffset at) => database.Writes.Run(scope => scope.Connection.Execute("""
        insert or ignore into vehicle_report
            (device_id, id, said_bay, identity, at, received_at, odometer_km, odometer_unit, code, left_km, left_unit, oil_life, hours)
        values (@Device, @id, @Bay, @Identity, @at, @received, @km, @unit, @Code, @left, @leftUnit, @OilLife, @Hours)
        """, new
    {
        report.Device, id = report.Id.ToString(), report.Bay, report.Identity, at = CardStore.Iso(report.At), received = CardStore.Iso(at),
        km = Km(report.Odometer), unit = report.Odometer.Unit.Symbol, report.Code, left = report.Left is { } l ? Km(l) : null,
        leftUnit = report.Left?.Unit.Symbol ?? "", report.OilLife, report.Hours,
    }));

    /// <summary>One report.</summary>
    /// <param name="device">The tool.</param>
    /// <param name="id">Its id.</param>
    /// <returns>The report, or null when this tool sent none of this id.</returns>
    public VehicleReport? Find(DeviceId device, Guid id) =>
        Query("where device_id = @device and id = @id", new { device, id = id.ToString() }).FirstOrDefault();

    /// <summary>What was read last of each vehicle since a time.</summary>
    /// <param name="since">From when on.</param>
    /// <returns>The newest first, one for each identity.</returns>
    public IReadOnlyList<VehicleReport> Newest(DateTimeOffset since) =>
        [.. Query("order by at desc, id limit 200", new { }).Where(r => r.At >= since).DistinctBy(r => r.Identity)];

    private static string Km(Typed<Distance> distance) => distance.Value.In(Distance.Kilometre).ToString(CultureInfo.InvariantCulture);

    private List<VehicleReport> Query(string where, object values)
    {
        using var connection = database.Connect();
        return [.. connection.Query<ReportRow>($"select * from vehicle_report {where}", values).Select(r => r.ToReport())];
    }

    private sealed class ReportRow
    {
        public string device_id { get; set; } = "";
        public string id { get; set; } = "";
        public string said_bay { get; set; } = "";
        public string identity { get; set; } = "";
        public string at { get; set; } = "";
        public string odometer_km { get; set; } = "";
        public string odometer_unit { get; set; } = "";
        public string code { get; set; } = "";
        public string? left_km { get; set; }
        public string left_unit { get; set; } = "";
        public int? oil_life { get; set; }
        public int? hours { get; set; }

        public VehicleReport ToReport() => new(Guid.Parse(id), device_id, said_bay, identity, CardStore.Time(at),
            Read(odometer_km, odometer_unit), code, left_km is null ? null : Read(left_km, left_unit), oil_life, hours);

        private Typed<Distance> Read(string km, string unit) =>
            new(Quantity<Distance>.Of(decimal.Parse(km, CultureInfo.InvariantCulture), Distance.Kilometre),
                Distance.Units.FirstOrDefault(u => u.Symbol == unit)
                    ?? throw new WorkshopFileException($"The report {id} of {device_id} has the unit “{unit}”, which is no distance."));
    }
}
