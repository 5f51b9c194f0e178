using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Workshop;
using Microsoft.Data.Sqlite;
using static Anakyklos.Storage.Tests.TemporaryWorkshop;

namespace Anakyklos.Storage.Tests;

/// <summary>What scan tools read, on a real file: kept once, and the newest of each vehicle found again as it was read.</summary>
public sealed class ReportStoreTests : IDisposable
{
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    private static VehicleReport Report(string identity, int minute, decimal far, Unit<Distance>? unit = null) => new(Guid.NewGuid(),
        "ST-1", "Bay 1", identity, Monday.AddMinutes(minute),
        new(Quantity<Distance>.Of(far, unit ?? Distance.Kilometre), unit ?? Distance.Kilometre), "17",
        new(Quantity<Distance>.Of(-120.5m, Distance.Mile), Distance.Mile), 0, 3_140);

    private async Task<(ReportStore Reports, WorkshopDatabase Database)> Paired()
    {
        var (database, cards, _) = await _workshop.WithCard();
        await new DeviceStore(database, cards).Pair("ST-1", DeviceKind.ScanTool, "Bay 1", "hash");
        return (new(database), database);
    }

    [Fact]
    public async Task It_comes_back_as_it_was_read_and_the_same_again_changes_nothing()
    {
        var (reports, _) = await Paired();
        foreach (var report in new[] { Report("A-1", 0, 91_860.4m, Distance.Mile),
            Report("A-2", 0, 0) with { Code = "", Left = null, OilLife = null, Hours = null } })
        {
            Assert.Equal(1, await reports.Keep(report, Monday.AddMinutes(1)));
            Assert.Equal(0, await reports.Keep(report with { Code = "99" }, Monday.AddMinutes(2)));
            Assert.Equal(report, reports.Find("ST-1", report.Id));
        }
        Assert.Null(reports.Find("ST-2", reports.Newest(Monday)[0].Id));
    }

    [Fact]
    public async Task Of_each_vehicle_the_newest_counts_and_nothing_from_before_a_time()
    {
        var (reports, _) = await Paired();
        foreach (var report in new[] { Report("A-1", 0, 100), Report("A-1", 20, 120), Report("A-2", 10, 50), Report("A-3", -300, 7) })
            await reports.Keep(report, Monday);
        Assert.Equal([("A-1", 120m), ("A-2", 50m)],
            reports.Newest(Monday.AddHours(-4)).Select(r => (r.Identity, r.Odometer.Value.In(Distance.Kilometre))));
    }

    [Fact]
    public async Task No_two_vehicles_are_known_by_the_same_identity_and_none_by_no_identity()
    {
        var (_, database) = await Paired();
        var vehicles = new VehicleStore(database);
        Assert.True(await vehicles.Add(new("HD-21", "tarn-courier-20d", "", 2020, Use.Normal, Identity: "A-1")));
        Assert.True(await vehicles.Add(new("HD-22", "tarn-courier-20d", "", 2020, Use.Normal)));
        Assert.True(await vehicles.Add(new("HD-23", "tarn-courier-20d", "", 2020, Use.Normal)));
        Assert.False(await vehicles.Add(new("HD-24", "tarn-courier-20d", "", 2020, Use.Normal, Identity: "A-1")));
        Assert.Equal("HD-21", vehicles.WithIdentity("A-1")!.Plate);
        Assert.Null(vehicles.WithIdentity(""));
        Assert.Equal("A-1", vehicles.Find("HD-21")!.Identity);
    }

    [Fact]
    public async Task A_device_that_nobody_took_in_leaves_no_report()
    {
        var (reports, _) = await Paired();
        await Assert.ThrowsAsync<SqliteException>(() => reports.Keep(Report("A-1", 0, 1) with { Device = "ST-9" }, Monday));
        Assert.Empty(reports.Newest(Monday.AddDays(-1)));
    }
}
