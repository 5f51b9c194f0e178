using Anakyklos.Core.Cards;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using DbUp;
using static Anakyklos.Storage.Tests.TemporaryWorkshop;

namespace Anakyklos.Storage.Tests;

/// <summary>Devices and their readings on a real file: what came is kept once, and settled once.</summary>
public sealed class DeviceStoreTests : IDisposable
{
    private readonly TemporaryWorkshop _workshop = new();
    private readonly List<string> _told = [];

    public void Dispose() => _workshop.Dispose();

    private async Task<(DeviceStore Devices, CardStore Cards, CardNumber Card)> Paired()
    {
        var (database, cards, card) = await _workshop.WithCard();
        var devices = new DeviceStore(database, cards);
        await devices.Pair("TW-2", DeviceKind.TorqueWrench, "Bay 2", "hash");
        devices.Changed += _told.Add;
        return (devices, cards, card);
    }

    private static DeviceReading Reading(decimal nm = 38.2m, int second = 0, string bay = "Bay 2") => new(Guid.NewGuid(), "TW-2", bay,
        new MeasuredTorque(new(Quantity<Torque>.Of(nm, Torque.NewtonMetre), Torque.NewtonMetre)), Monday.AddSeconds(second));

    // A finding stands in for a torque: what is asked here is what is written together, not what a card makes of it.
    private static LandsAt Lands(CardNumber card, string step = "warm-up") =>
        new(card, step, new NoteFinding(step, FindingGrade.KeepAnEye, "Seen"), Iona);

    [Fact]
    public async Task A_device_is_known_by_its_key_and_a_new_key_makes_the_old_one_worthless()
    {
        var (devices, _, _) = await Paired();
        Assert.Equal(new("TW-2", DeviceKind.TorqueWrench, "Bay 2", "", TimeSpan.Zero, null), devices.WithKey("hash"));
        await devices.Heard("TW-2", "Bay 1", TimeSpan.FromSeconds(-3.25), Monday);
        await devices.Pair("TW-2", DeviceKind.TorqueWrench, "Bay 1", "other");
        Assert.Null(devices.WithKey("hash"));
        var now = devices.WithKey("other")!;
        Assert.Equal(("Bay 1", "Bay 1", -3.25, Monday), (now.Bay, now.SaidBay, now.ClockOff.TotalSeconds, now.SeenAt));
        Assert.Equal(1, await devices.Move("TW-2", "Outside"));
        Assert.Equal(0, await devices.Move("TW-9", "Outside"));
        Assert.Equal("Outside", Assert.Single(devices.All()).Bay);
        // Told when it comes, says another bay, or is moved; not each time it is heard.
        await devices.Heard("TW-2", "Bay 1", TimeSpan.Zero, Monday);
        Assert.Equal(["Bay 2", "Bay 1", "Bay 1", "Outside"], _told);
    }

    [Fact]
    public async Task A_reading_that_waits_is_kept_once_and_seen_where_it_is_and_where_it_says_it_is()
    {
        var (devices, _, _) = await Paired();
        var reading = Reading(bay: "Bay 1");
        Assert.Equal(1, await devices.Wait(reading, "Bay 2", new("Why", "Then"), Monday.AddSeconds(2)));
        Assert.Equal(0, await devices.Wait(reading, "Bay 2", new("Other", ""), Monday.AddSeconds(3)));
        await devices.Wait(Reading(12, 1), "Bay 2", new("Later", ""), Monday.AddSeconds(4));
        var kept = devices.Waiting("Bay 2")[0];
        Assert.Equal((reading, Monday.AddSeconds(2), ReadingState.Waiting, new("Why", "Then")),
            (kept.Reading, kept.ReceivedAt, kept.State, kept.Why));
        Assert.Equal(["Bay 1", "Bay 2", "Bay 1", "Bay 2", "Bay 2"], _told);
        Assert.Equal([38.2m], devices.Waiting("Bay 1").Select(r => r.Reading.Read.Number));
        Assert.Equal(2, devices.Waiting("Bay 2").Count);
        Assert.Empty(devices.Waiting("Outside"));
        Assert.Null(devices.LastPlaced("TW-2"));
    }

    [Fact]
    public async Task What_lands_is_on_the_card_and_in_the_list_together()
    {
        var (devices, cards, card) = await Paired();
        var reading = Reading();
        var answer = await devices.Land(reading, "Bay 2", Lands(card), Monday.AddMinutes(1));
        Assert.IsType<Accepted>(answer!.Decision);
        var kept = devices.Find("TW-2", reading.Id)!;
        Assert.Equal((ReadingState.Placed, card, 2, "warm-up", Iona.Id),
            (kept.State, kept.Card!.Value, kept.Seq!.Value, kept.Step.Text, kept.By!.Value));
        Assert.Null(kept.Why);
        Assert.Equal(new("warm-up", Monday), devices.LastPlaced("TW-2"));
        // Sent again it is the same command, and nothing is written twice.
        Assert.True((await devices.Land(reading, "Bay 2", Lands(card), Monday.AddMinutes(2)))!.Repeated);
        Assert.Equal(2, cards.Find(card)!.History.Count);
        // Another device with the same id is another reading.
        await devices.Pair("TW-4", DeviceKind.TorqueWrench, "Bay 2", "hash 4");
        Assert.False((await devices.Land(reading with { Device = "TW-4" }, "Bay 2", Lands(card), Monday.AddMinutes(3)))!.Repeated);
        Assert.Equal([Monday.AddMinutes(3), Monday.AddMinutes(1)], devices.Settled("Bay 2", 9).Select(r => r.ReceivedAt));
    }

    [Fact]
    public async Task What_the_card_refuses_is_in_neither()
    {
        var (devices, cards, card) = await Paired();
        var reading = Reading();
        var lands = Lands(card) with { Command = new TakeReading("tighten-filter-cap", ((MeasuredTorque)reading.Read).Torque) };
        Assert.IsType<Refused>((await devices.Land(reading, "Bay 2", lands, Monday))!.Decision);
        Assert.Null(await devices.Land(reading, "Bay 2", Lands(9999), Monday));
        Assert.Null(devices.Find("TW-2", reading.Id));
        Assert.Single(cards.Find(card)!.History);
    }

    [Fact]
    public async Task A_reading_is_settled_by_the_first_who_does()
    {
        var (devices, cards, card) = await Paired();
        await devices.Wait(Reading(), "Bay 2", new("Why"), Monday);
        var kept = devices.Waiting("Bay 2")[0];
        Assert.Equal(1, await devices.Discard("TW-2", kept.Reading.Id, Iona.Id, "Clicked twice", Monday.AddMinutes(1)));
        Assert.Equal(0, await devices.Discard("TW-2", kept.Reading.Id, "una", "Me too", Monday.AddMinutes(2)));
        Assert.Null(await devices.Place(kept, Lands(card), Monday.AddMinutes(3)));
        Assert.Single(cards.Find(card)!.History);
        var after = Assert.Single(devices.Settled("Bay 2", 9));
        Assert.Equal((ReadingState.Discarded, "Clicked twice", Iona.Id), (after.State, after.Words, after.By!.Value));

        await devices.Wait(Reading(12), "Bay 2", new("Why"), Monday);
        var other = devices.Waiting("Bay 2")[0];
        Assert.IsType<Accepted>((await devices.Place(other, Lands(card), Monday.AddMinutes(4)))!.Decision);
        Assert.Equal(0, await devices.Discard("TW-2", other.Reading.Id, Iona.Id, "Too late", Monday.AddMinutes(5)));
        Assert.Equal(2, cards.Find(card)!.History.Count);
        Assert.Empty(devices.Waiting("Bay 2"));
        Assert.Empty(Verification.Run(_workshop.Open().Database, out _, out _));
    }

    [Fact]
    public async Task A_vehicle_is_moved_while_its_card_is_open()
    {
        var (_, cards, card) = await Paired();
        Assert.Equal(1, await cards.MoveTo(card, "Bay 1"));
        Assert.Equal("Bay 1", cards.Entry(card)!.Bay);
        Assert.Equal(0, await cards.MoveTo(9999, "Bay 1"));
    }

    [Fact]
    public async Task A_dispenser_hangs_in_a_container_and_its_readings_keep_out_of_which_they_came()
    {
        var (devices, _, _) = await Paired();
        await devices.Pair("OD-1", DeviceKind.Dispenser, "Bay 2", "pump");
        Assert.Equal(new("OD-1", DeviceKind.Dispenser, "Bay 2", "", TimeSpan.Zero, null), devices.WithKey("pump"));
        Assert.Equal(1, await devices.Hang("OD-1", 8));
        Assert.Equal(8, devices.WithKey("pump")!.DrawsFrom);
        // A wrench hangs in nothing.
        Assert.Equal((0, 0), (await devices.Hang("TW-2", 8), await devices.Hang("OD-9", 8)));
        Assert.Null(devices.WithKey("hash")!.DrawsFrom);
        var reading = new DeviceReading(Guid.NewGuid(), "OD-1", "Bay 2",
            new MeasuredVolume(new(Quantity<Volume>.Of(4.02m, Volume.Litre), Volume.Litre), 8), Monday);
        await devices.Wait(reading, "Bay 2", new("Why", "Then"), Monday);
        Assert.Equal(reading, devices.Find("OD-1", reading.Id)!.Reading);
        await devices.Hang("OD-1", null);
        Assert.Null(devices.WithKey("pump")!.DrawsFrom);
    }

    [Fact]
    public void A_file_from_before_there_were_dispensers_keeps_its_wrenches_and_all_they_sent()
    {
        var before = DeployChanges.To.SqliteDatabase($"Data Source={_workshop.File}")
            .WithScriptsEmbeddedInAssembly(typeof(WorkshopDatabase).Assembly, s => !s.Contains("0008", StringComparison.Ordinal))
            .WithTransaction().LogToNowhere().Build().PerformUpgrade();
        Assert.True(before.Successful);
        _workshop.Execute("""
            insert into device (id, kind, bay, key_hash, said_bay, clock_off_s, seen_at)
                values ('TW-2', 'torque-wrench', 'Bay 2', 'hash', 'Bay 1', '1.5', '2026-03-09T08:00:00.0000000+00:00');
            insert into device_reading (device_id, id, bay, said_bay, number, unit, at, received_at, state, why)
                values ('TW-2', '6f0c2f5e-3b0e-4c39-9d1c-0a4d7b1f6a01', 'Bay 2', 'Bay 1', '38.2', 'N·m',
                    '2026-03-09T08:00:00.0000000+00:00', '2026-03-09T08:00:01.0000000+00:00', 'waiting', 'Why');
            """);
        var (database, cards) = _workshop.Open();
        var devices = new DeviceStore(database, cards);
        Assert.Equal(new("TW-2", DeviceKind.TorqueWrench, "Bay 2", "Bay 1", TimeSpan.FromSeconds(1.5), Monday), devices.WithKey("hash"));
        var kept = Assert.Single(devices.Waiting("Bay 2"));
        Assert.Equal(("38.2 N·m", "Why", Monday), ($"{kept.Reading.Read}", kept.Why!.What, kept.Reading.At));
    }
}
