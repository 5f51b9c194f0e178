using System.Net;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Desk;
using Anakyklos.Devices;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>The dispenser of the demo runs into the vehicle behind a card, and what it metered comes to the card over the device
/// protocol.</summary>
public sealed class DispenserTests : IAsyncLifetime
{
    private static readonly Person Iona = new("iona", "Iona R.", Role.Technician);

    private WorkshopHost _host = null!;
    private Browser _iona = null!;

    private JobCard Card => _host.Services.GetRequiredService<CardStore>().Find(1058)!;

    private ShelfStore Stores => _host.Services.GetRequiredService<ShelfStore>();

    private DispenserStandIn Pump => _host.Services.GetRequiredService<DemoDispenser>().Device!;

    private VehicleBehind Behind => _host.Services.GetRequiredService<DemoVehicles>() is var vehicles
        ? vehicles.Behind(vehicles.All.First(c => c.Number == 1058)) : throw new InvalidOperationException();

    // HD-08 stands in the first bay, drained and shut, and its first pour is next.
    public async ValueTask InitializeAsync()
    {
        _host = await WorkshopHost.Demo();
        await _host.Services.GetRequiredService<CardStore>().MoveTo(1058, "Bay 1");
        _host.Services.GetRequiredService<DemoVehicles>().Begin();
        _iona = await _host.SignedIn();
        while (Card.Next is { } step && step.Id.Text != "first-pour")
        {
            var answer = await _host.Services.GetRequiredService<CardStore>().Handle(1058, Guid.NewGuid(), UsualPress.Of(Card, step), Iona,
                _host.Clock.GetUtcNow());
            if (answer!.Decision is not Accepted)
                _host.Clock.Advance(TimeSpan.FromMinutes(5));
        }
        await _host.Services.GetRequiredService<DemoDispenser>().Begin();
        await Hang(1);
    }

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    // Into a container, and the workshop is told so.
    private async Task Hang(int container)
    {
        await _iona.Get("/stand-ins/dispenser");
        await _iona.Submit("form[action='?handler=Hang'] button", ("container", $"{container}"));
        Assert.Null(await _host.Services.GetRequiredService<DeviceDesk>().Hang("OD-1", container));
    }

    private async Task Run(string upTo)
    {
        await _iona.Get("/stand-ins/dispenser");
        await _iona.Submit("form[action='?handler=Run'] button[type=submit]", ("upTo", upTo));
    }

    private decimal Left(int container) => Stores.Read().Containers.First(c => c.Id == container).Left.In(Volume.Litre);

    [Fact]
    public async Task The_examples_that_are_written_down_are_true()
    {
        var examples = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "devices.md")).Split("```").Select(b => b.Trim().Split('\n'))
            .Where(b => b[0].Contains("\"hello\":\"OD-1\"", StringComparison.Ordinal)).ToList();
        Assert.Equal(2, examples.Count);
        var key = (await _host.Services.GetRequiredService<DeviceDesk>().Pair("OD-1", "Bay 1")).Key!;
        var now = _host.Clock.GetUtcNow().ToString("yyyy-MM-ddTHH:mm:sszzz", System.Globalization.CultureInfo.InvariantCulture);
        foreach (var block in examples)
        {
            // The card came to its pour later than the examples say.
            var said = block.Where(l => l.StartsWith('>'))
                .Select(l => l[2..].Replace("2026-03-09T09:00:00+00:00", now, StringComparison.Ordinal));
            var (_, lines) = await _host.Services.GetRequiredService<DeviceProtocol>().Answer(key, string.Join('\n', said));
            Assert.Equal(block.Where(l => l.StartsWith('<')).Select(l => l[2..]), lines.Trim().Split('\n'));
        }
    }

    [Fact]
    public async Task What_runs_is_in_the_vehicle_on_the_card_and_out_of_the_container()
    {
        var before = (In: Behind.Vehicle.Fluids["engine-oil"].Inside.In(Volume.Litre), Left: Left(1));
        await _iona.Get("/lift/1058");
        Assert.Contains("OD-1 sends what it meters here", _iona.Text);
        await _iona.Get("/stand-ins/dispenser");
        await _iona.Submit("button.wrench-wants");
        Assert.Equal(5m, Pump.Setting.In(Volume.Litre));
        await Run("");
        Assert.Contains("is noted at “Pour the first amount, then stop”", _iona.Text);
        var poured = Card.Fluid("engine-oil").Poured.In(Volume.Litre);
        Assert.Equal(5.00m, poured);
        Assert.Equal((poured, poured),
            (Behind.Vehicle.Fluids["engine-oil"].Inside.In(Volume.Litre) - before.In, before.Left - Left(1)));
        Assert.DoesNotContain(Behind.Differences, d => $"{d}".Contains("oil", StringComparison.OrdinalIgnoreCase));
        await _iona.Get("/record/1058");
        Assert.Contains("OD-1", _iona.Text);
    }

    [Fact]
    public async Task A_valve_that_shuts_late_pours_too_much_and_a_person_says_that_it_is_so()
    {
        await _iona.Get("/stand-ins/dispenser");
        await _iona.Submit("form[action='?handler=Set'] button", ("to", "5 L"));
        await _iona.Submit("form[action='?handler=Spoil'] button", ("late", "2500"), ("clock", "0"), ("shows", "100"));
        await Run("");
        Assert.Contains("Was it really 7.50 L?", _iona.Text);
        Assert.Equal(0, Card.Fluid("engine-oil").Poured.In(Volume.Litre));
        await _iona.Get("/bay/bay-1");
        Assert.Contains("Yes, at “Pour the first amount, then stop”", _iona.Text);
        await _iona.Submit(".reading form button[name=place]");
        Assert.Equal(7.5m, Card.Fluid("engine-oil").Poured.In(Volume.Litre));
        await _iona.Get("/bay/bay-1");
        Assert.Contains("placed by Iona R.", _iona.Text);
    }

    [Fact]
    public async Task One_that_shuts_early_pours_less_and_the_rest_is_still_wanted()
    {
        await _iona.Get("/stand-ins/dispenser");
        await _iona.Submit("form[action='?handler=Set'] button", ("to", "5 L"));
        await _iona.Submit("form[action='?handler=Spoil'] button", ("late", "-1400"), ("clock", "0"), ("shows", "100"));
        await Run("");
        Assert.Equal((3.6m, "first-pour"), (Card.Fluid("engine-oil").Poured.In(Volume.Litre), Card.Next!.Id.Text));
        await _iona.Get("/stand-ins/dispenser");
        Assert.Contains("As the card wants it: 1.40 L", _iona.Text);
    }

    [Fact]
    public async Task The_wrong_oil_is_in_the_vehicle_and_not_on_the_card()
    {
        await Hang(8);
        await Run("0.5 L");
        Assert.Contains("Fulmar Heavy 10W-40 went in", _iona.Text);
        Assert.Contains("Drum 8 holds Fulmar Heavy 10W-40", _iona.Text);
        Assert.Contains(Behind.Harms, h => h.Harm.Kind == Simulation.HarmKind.WrongOil);
        Assert.Equal((0, 41), (Card.Fluid("engine-oil").Poured.In(Volume.Litre), Left(8)));
        await _iona.Get("/bay/bay-1");
        Assert.DoesNotContain("It was “Pour", _iona.Text);
        Assert.Contains("It is in: say at the kit", _iona.Text);
    }

    [Fact]
    public async Task What_ran_while_the_line_was_dead_comes_when_it_is_back_and_only_once()
    {
        await _iona.Get("/stand-ins/dispenser");
        await _iona.Submit("form[action='?handler=Spoil'] button", ("cut", "true"), ("late", "0"), ("clock", "0"), ("shows", "100"));
        await Run("0.7 L");
        Assert.Contains("The line is cut", _iona.Text);
        Assert.Contains("keeps 1 0.70 L", _iona.Text);
        Assert.Equal(0, Card.Fluid("engine-oil").Poured.In(Volume.Litre));
        Assert.Contains($"{Left(1) - 0.7m:0.00} L left", _iona.Text);
        // The answer to what it sent was lost on the way: it sends the same again, and nothing is poured twice.
        var message = Pump.Message(_host.Clock.GetUtcNow());
        var key = (await _host.Services.GetRequiredService<DeviceDesk>().Pair("OD-1", "Bay 1")).Key!;
        var protocol = _host.Services.GetRequiredService<DeviceProtocol>();
        Assert.Contains("\"is\":\"placed\",\"card\":1058", (await protocol.Answer(key, message)).Lines);
        var again = (await protocol.Answer(key, message)).Lines;
        Assert.Contains("\"again\":true", again);
        Pump.Hear(again);
        Assert.Empty(Pump.Unsent);
        Assert.Equal(0.7m, Card.Fluid("engine-oil").Poured.In(Volume.Litre));
        // What a person had noted meanwhile is not noted again by it.
        await _iona.Api(HttpMethod.Post, "/api/v1/cards/1058/commands",
            new { say = "pour", step = "first-pour", amount = "4.3 L", command = Guid.NewGuid() }, await _iona.Token());
        Assert.NotEqual("first-pour", Card.Next!.Id.Text);
    }

    [Fact]
    public async Task A_press_that_is_taken_back_leaves_in_the_vehicle_what_ran()
    {
        var before = Behind.Vehicle.Fluids["engine-oil"].Inside;
        await Run("0.7 L");
        var back = await _host.Services.GetRequiredService<CardStore>().Handle(1058, Guid.NewGuid(),
            new TakeBack(Card.History[^1].Seq), Iona, _host.Clock.GetUtcNow());
        Assert.IsType<Accepted>(back!.Decision);
        Assert.Equal(0, Card.Fluid("engine-oil").Poured.In(Volume.Litre));
        Assert.Equal(0.7m, (Behind.Vehicle.Fluids["engine-oil"].Inside - before).In(Volume.Litre));
    }

    [Theory]
    [InlineData("x")]
    [InlineData("-1 L")]
    [InlineData("0")]
    [InlineData("1 kg")]
    public async Task What_is_no_amount_runs_nothing(string typed)
    {
        await Run(typed);
        Assert.Equal(HttpStatusCode.OK, _iona.Status);
        Assert.Empty(Pump.Unsent);
        Assert.Equal(0, Card.Fluid("engine-oil").Poured.In(Volume.Litre));
    }

    [Fact]
    public async Task The_bay_says_where_it_hangs_and_takes_no_container_that_is_not_there()
    {
        await _iona.Get("/bay/bay-1");
        Assert.Contains("Draws from can 1, Gannet Lowash 5W-30, 13.40 L left", _iona.Text);
        await _iona.Submit("form[action='?handler=Hang'] button", ("container", "3"));
        await _iona.Get("/bay/bay-1");
        Assert.Contains("Draws from can 3", _iona.Text);
        // None has the number 999, and 15 is a bottle.
        foreach (var none in (string[])["999", "15"])
        {
            await _iona.Get("/bay/bay-1");
            await _iona.Submit("form[action='?handler=Hang'] button", ("container", none));
            Assert.Equal(HttpStatusCode.Conflict, _iona.Status);
            Assert.Contains($"There is no can and no drum {none}", _iona.Text);
        }
        var desk = _host.Services.GetRequiredService<DeviceDesk>();
        Assert.Equal("There is no such dispenser.", (await desk.Hang("OD-9", 3))!.What);
        Assert.Equal(new DeviceId("OD-1"), desk.DispenserFor("Bay 1", ["Gannet Lowash 5W-30"]));
        Assert.Null(desk.DispenserFor("Bay 1", ["Fulmar Heavy 10W-40"]));
        Assert.Null(desk.DispenserFor("Bay 2", ["Gannet Lowash 5W-30"]));
    }

    [Fact]
    public async Task A_workshop_of_its_own_adds_its_dispensers()
    {
        var desk = _host.Services.GetRequiredService<EquipmentDesk>();
        Assert.Equal(["name", "accuracy", "calibrated"], (await desk.PutDispenser("TW-2", "most", "", false)).Select(r => r.Field));
        Assert.Equal(["name"], (await desk.PutDispenser("OD-1", "", "2026-12-31", false)).Select(r => r.Field));
        Assert.Empty(await desk.PutDispenser("OD-2", "", "2026-12-31", false));
        Assert.Equal(new("OD-2", 0.5m, new(2026, 12, 31)), _host.Services.GetRequiredService<SettingStore>().Read().Dispenser("OD-2"));
        Assert.NotNull((await _host.Services.GetRequiredService<DeviceDesk>().Pair("OD-2", "Bay 2")).Key);
        Assert.Null((await _host.Services.GetRequiredService<DeviceDesk>().Pair("OD-3", "Bay 2")).Key);
        var una = await _host.SignedIn("una");
        await una.Get("/equipment");
        Assert.Contains("OD-2 within 0.5 %, calibrated until 31 Dec 2026", una.Text);
    }
}
