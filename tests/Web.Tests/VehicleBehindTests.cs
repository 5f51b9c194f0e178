using System.Net;
using Anakyklos.Core.Sheets;
using Anakyklos.Simulation;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Wording;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>The page of the simulated vehicle behind a card.</summary>
public sealed class VehicleBehindTests : IAsyncLifetime
{
    private WorkshopHost _host = null!;
    private Browser _iona = null!;

    public async ValueTask InitializeAsync()
    {
        _host = await WorkshopHost.Demo();
        _iona = await _host.SignedIn();
    }

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private async Task Press(string step)
    {
        var said = new { say = "done", step, command = Guid.NewGuid() };
        await _iona.Api(HttpMethod.Post, "/api/v1/cards/1058/commands", said, await _iona.Token());
    }

    [Fact]
    public async Task Only_a_demo_has_it_and_only_open_cards_have_one()
    {
        Assert.Equal(HttpStatusCode.NotFound, await _iona.Get("/stand-ins/vehicle?card=1058"));
        _host.Services.GetRequiredService<DemoVehicles>().Begin();
        Assert.Equal(HttpStatusCode.OK, await _iona.Get("/stand-ins/vehicle?card=1058"));
        Assert.Contains("what stands behind card 1058", _iona.Text);
        Assert.Equal(HttpStatusCode.OK, await _iona.Get("/stand-ins/vehicle"));
        Assert.Equal(HttpStatusCode.NotFound, await _iona.Get("/stand-ins/vehicle?card=1003"));
        Assert.Equal(HttpStatusCode.NotFound, await _iona.Get("/stand-ins/vehicle?card=99999"));
    }

    // HD-08 is up with its drain plug out, and its next step takes the filter cap off.
    [Fact]
    public async Task A_fault_shows_where_it_can_be_seen_until_hands_put_it_right()
    {
        _host.Services.GetRequiredService<DemoVehicles>().Begin();
        await _iona.Get("/stand-ins/vehicle?card=1058");
        Assert.Contains("is open on the vehicle", _iona.Text);
        Assert.Matches(@"Engine oil \d\.\d\d L .*\d\.\d\d L in the pan", _iona.Text);
        var faults = Vehicle.FaultsOf(_host.Services.GetRequiredService<DemoVehicles>().All.First(c => c.Number == 1058).Card.Sheet);
        var wrong = faults.ToList().IndexOf(new WrongInBox("oil-filter"));
        await _iona.Submit("form[action='?handler=Spoil'] button", ("fault", $"{wrong}"));
        Assert.DoesNotContain("half the size", _iona.Text);
        await Press("filter-cap-off");
        await _iona.Get("/stand-ins/vehicle?card=1058");
        Assert.Contains("Oil filter cartridge: half the size of the old one", _iona.Text);
        await _iona.Submit("form[action='?handler=Mend'] button");
        Assert.DoesNotContain("half the size", _iona.Text);
        Assert.Contains("No harm came to it.", _iona.Text);
        // What nobody thought of is refused.
        await _iona.Submit("form[action='?handler=Spoil'] button", ("fault", "9999"));
        Assert.Equal(HttpStatusCode.NotFound, _iona.Status);
    }

    [Fact]
    public async Task A_press_that_the_vehicle_could_not_follow_is_told_apart()
    {
        var vehicles = _host.Services.GetRequiredService<DemoVehicles>();
        vehicles.Begin();
        var card = vehicles.All.First(c => c.Number == 1058);
        vehicles.At(card, b => b.Do(new Seized("oil-filter-cap"), _host.Clock.GetUtcNow()));
        await Press("filter-cap-off");
        await _iona.Get("/stand-ins/vehicle?card=1058");
        Assert.Contains("Oil filter cap: the card says open, the vehicle is tight", _iona.Text);
        Assert.Contains("Oil filter cap: it does not move", _iona.Text);
    }

    [Fact]
    public void Every_fault_of_every_model_and_what_hands_do_about_it_has_words()
    {
        foreach (var file in Directory.GetFiles(Path.Combine(AppContext.BaseDirectory, "sheets"), "*.json"))
        {
            var sheet = SheetReader.Read(File.ReadAllBytes(file)).Sheet!;
            var vehicle = Vehicle.AsItComes(sheet, default);
            foreach (var fault in Vehicle.FaultsOf(sheet).Append(new Stripped(sheet.Fasteners.Keys.First())))
            {
                Assert.NotEqual("", StandInWords.Of(fault, sheet).Wrong);
                foreach (var hand in vehicle.With(fault).Remedies)
                    Assert.NotEqual("", StandInWords.Of(hand, sheet));
            }
            Assert.Equal(Vehicle.FaultsOf(sheet).Count, Vehicle.FaultsOf(sheet).Select(f => StandInWords.Of(f, sheet)).Distinct().Count());
        }
    }
}
