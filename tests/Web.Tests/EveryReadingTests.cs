using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using Anakyklos.Core.Cards;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>What is read comes typed at the page, through the API, from a device and out of a file: the same judgement stands at each,
/// shown at workshops that begin alike.</summary>
public sealed class EveryReadingTests
{
    private const int Card = 1058;
    private const string Step = "tighten-filter-cap";

    private static JobCard Now(WorkshopHost host) => host.Services.GetRequiredService<CardStore>().Find(Card)!;

    // All that the card made of it, by whomever it was said.
    private static string Stands(WorkshopHost host) => Now(host) is var card
        ? $"{card.Next?.Id} {card.IsOverTorqued(Step)} {card.Stops.Count()} "
        + $"{card.TorqueAt(card.Step(Step)!)?.Reading} {card.Deviations.Count} {card.Findings.Count} {card.State(Step).Status}" : "";

    private static async Task<WorkshopHost> AtTheCap(bool isInTheWay)
    {
        var host = await WorkshopHost.Demo();
        await host.Services.GetRequiredService<CardStore>().MoveTo(Card, "Bay 1");
        var iona = await host.SignedIn();
        var token = await iona.Token();
        foreach (var said in WorkshopHost.FilterGoesIn().SkipLast(isInTheWay ? 1 : 0))
        {
            said["command"] = Guid.NewGuid();
            await iona.Api(HttpMethod.Post, $"/api/v1/cards/{Card}/commands", said, token);
        }
        return host;
    }

    private static async Task<bool> ByPage(WorkshopHost host, string torque)
    {
        var browser = await host.SignedIn();
        var request = new HttpRequestMessage(HttpMethod.Post, new Uri($"http://localhost/lift/{Card}?handler=reading"))
        {
            Content = new FormUrlEncodedContent([new("step", Step), new("torque", torque), new("command", $"{Guid.NewGuid()}")]),
        };
        request.Headers.Add("X-Antiforgery", await browser.Token());
        return await browser.Send(request) == HttpStatusCode.OK;
    }

    private static async Task<bool> ByApi(WorkshopHost host, string torque)
    {
        var browser = await host.SignedIn();
        await browser.Api(HttpMethod.Post, $"/api/v1/cards/{Card}/commands",
            new JsonObject { ["say"] = "reading", ["step"] = Step, ["torque"] = torque, ["command"] = Guid.NewGuid() },
            await browser.Token());
        return browser.Status == HttpStatusCode.OK;
    }

    private static async Task<bool> ByDevice(WorkshopHost host, string torque)
    {
        var key = (await host.Services.GetRequiredService<DeviceDesk>().Pair("TW-2", "Bay 1")).Key!;
        var (number, unit) = (torque.Split(' ')[0], torque.Split(' ')[1]);
        var body = $$"""
            {"hello":"TW-2","bay":"Bay 1","now":"2026-03-09T09:00:00+00:00"}
            {"reading":"{{Guid.NewGuid()}}","at":"2026-03-09T09:00:00+00:00","value":{{number}},"unit":"{{unit}}"}
            """;
        var request = new HttpRequestMessage(HttpMethod.Post, "/api/v1/devices") { Content = new StringContent(body, Encoding.UTF8) };
        request.Content.Headers.ContentType = MediaTypeHeaderValue.Parse("application/x-ndjson");
        request.Headers.Authorization = new("Bearer", key);
        var answer = await host.NewClient().SendAsync(request);
        return (await answer.Content.ReadAsStringAsync()).Contains("placed", StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("25 N·m", false)]
    [InlineData("24 N·m", false)]
    [InlineData("12 N·m", false)]
    [InlineData("31 N·m", false)]
    [InlineData("60 N·m", false)]
    [InlineData("18.4 lbf·ft", false)]
    [InlineData("25 N·m", true)]
    [InlineData("0 N·m", false)]
    [InlineData("-25 N·m", false)]
    [InlineData("100000 N·m", false)]
    [InlineData("25 bar", false)]
    public async Task A_torque_is_judged_the_same_typed_sent_and_clicked(string torque, bool isInTheWay)
    {
        List<(bool Taken, string Stands)> came = [];
        foreach (var way in new Func<WorkshopHost, string, Task<bool>>[] { ByPage, ByApi, ByDevice })
        {
            await using var host = await AtTheCap(isInTheWay);
            var before = Stands(host);
            var taken = await way(host, torque);
            Assert.True(taken || before == Stands(host), $"{torque}: {before} became {Stands(host)}");
            came.Add((taken, Stands(host)));
        }
        Assert.True(came.Distinct().Count() == 1, string.Join("; ", came));
    }

    [Theory]
    [InlineData("-5")]
    [InlineData("-5 km")]
    [InlineData("4000000")]
    [InlineData("1e30")]
    [InlineData("99999999999999999999999999999999")]
    [InlineData("5 stone")]
    [InlineData("ninety")]
    [InlineData("60,5,5")]
    public async Task What_can_be_no_odometer_reading_is_refused_at_intake_and_out_of_a_file(string shows)
    {
        await using var host = await WorkshopHost.Demo();
        var vehicles = host.Services.GetRequiredService<VehicleStore>();
        var before = vehicles.Odometer("HD-11").Count;
        var una = await host.SignedIn("una");
        await una.Get("/intake?plate=HD-11");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await una.Submit("form.intake, main form[method=post]", ("odometer", shows)));
        var (_, readings, wrong) = await host.Services.GetRequiredService<SettingDesk>()
            .BringInVehicles($"plate,day,odometer\nHD-11,2026-03-01,\"{shows}\"\n", "una");
        Assert.Equal(0, readings);
        Assert.NotEmpty(wrong);
        Assert.Equal(before, vehicles.Odometer("HD-11").Count);
        Assert.DoesNotContain(host.Services.GetRequiredService<CardStore>().Unsigned(), c => c.Plate == "HD-11");
    }
}
