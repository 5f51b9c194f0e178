using System.Net;
using System.Net.Http.Headers;
using System.Text;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Ids;
using Anakyklos.Desk;
using Anakyklos.Devices;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>Labels on a printer: over its protocol, without paper, with its line cut, and where they are put up.</summary>
public sealed class LabelPrinterTests : IAsyncLifetime
{
    private Guid _first = Guid.Parse("6f0c2f5e-3b0e-4c39-9d1c-0a4d7b1f6a41");
    private WorkshopHost _host = null!;
    private Browser _iona = null!;
    private string _key = "";

    public async ValueTask InitializeAsync()
    {
        _host = await WorkshopHost.Demo();
        _iona = await _host.SignedIn();
        _key = (await _host.Services.GetRequiredService<DeviceDesk>().Pair("LP-1", "Bay 1")).Key!;
    }

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private LabelJobStore Jobs => _host.Services.GetRequiredService<LabelJobStore>();

    private Task<int> Sent(Guid id, double width = 62, CardNumber? card = null) => Jobs.Send(new(id, card ?? 1057,
        _host.Clock.GetUtcNow(), width, 44, "<svg/>", LabelState.Waiting, "", ""), PersonId.Of("iona"));

    private async Task<string[]> Say(params string[] lines)
    {
        var hello = """{"hello":"LP-1","bay":"Bay 1","now":"2026-03-09T09:00:00+00:00"}""";
        var request = new HttpRequestMessage(HttpMethod.Post, "/api/v1/devices")
        {
            Content = new StringContent(string.Join('\n', [hello, .. lines]), Encoding.UTF8, "application/x-ndjson"),
        };
        request.Headers.Authorization = new AuthenticationHeaderValue("Bearer", _key);
        var answer = await _host.NewClient().SendAsync(request);
        return (await answer.Content.ReadAsStringAsync()).Split('\n', StringSplitOptions.RemoveEmptyEntries)[1..];
    }

    [Fact]
    public async Task The_example_that_is_written_down_is_true()
    {
        await Sent(_first);
        var block = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "devices.md")).Split("```")
            .Select(b => b.Trim().Split('\n')).Single(b => b[0].Contains("LP-1", StringComparison.Ordinal));
        var said = await Say([.. block.Where(l => l.StartsWith('>')).Skip(1).Select(l => l[2..])]);
        Assert.Equal(block.Where(l => l.StartsWith('<')).Skip(1).Select(l => l[2..]), said);
        Assert.Equal((LabelState.Failed, "the roll is at its end"), (Jobs.LastOf(1057)!.State, Jobs.LastOf(1057)!.Words));
    }

    [Theory]
    [InlineData("""{"print":"all","widthMm":62}""", "what is next")]
    [InlineData("""{"print":"next"}""", "How wide is the roll")]
    [InlineData("""{"print":"next","widthMm":-62}""", "How wide is the roll")]
    [InlineData("""{"printed":"yes"}""", "Which label")]
    [InlineData("""{"printed":"6f0c2f5e-3b0e-4c39-9d1c-0a4d7b1f6a41","not":""}""", "in a few words why")]
    [InlineData("""{"reading":"6f0c2f5e-3b0e-4c39-9d1c-0a4d7b1f6a43","at":"2026-03-09T09:00:00Z","value":7,"unit":"N·m"}""", "Discard it")]
    public async Task What_it_says_otherwise_is_refused_in_words(string line, string words)
    {
        await Sent(_first);
        Assert.Contains(words, Assert.Single(await Say(line)));
        Assert.Equal(LabelState.Waiting, Jobs.LastOf(1057)!.State);
    }

    [Fact]
    public async Task The_same_label_comes_until_it_is_said_to_be_printed_and_to_one_printer_only()
    {
        await Sent(_first);
        var once = Assert.Single(await Say("""{"print":"next","widthMm":62}"""));
        Assert.Equal(once, Assert.Single(await Say("""{"print":"next","widthMm":62}""")));
        await Say($$"""{"printed":"{{_first}}"}""");
        Assert.Contains("noted", Assert.Single(await Say($$"""{"printed":"{{_first}}"}""")));
        Assert.Contains("has no such label", Assert.Single(await Say($$"""{"printed":"{{_first}}","not":"torn"}""")));
        Assert.Equal(LabelState.Printed, Jobs.LastOf(1057)!.State);
        // Sent again before it was asked for, the newer takes the older's place.
        await Sent(Guid.NewGuid());
        await Sent(_first = Guid.NewGuid());
        Assert.Contains($"{_first}", Assert.Single(await Say("""{"print":"next","widthMm":62}""")));
        Assert.Contains("nothing", (await Say($$"""{"printed":"{{_first}}"}""", """{"print":"next","widthMm":62}"""))[1]);
    }

    [Fact]
    public async Task Without_paper_whoever_sent_it_is_told_and_with_a_cut_line_it_comes_later_once()
    {
        var printer = new LabelPrinterStandIn("LP-1") { Bay = "Bay 1" };
        var protocol = _host.Services.GetRequiredService<DeviceProtocol>();
        var desk = _host.Services.GetRequiredService<LabelDesk>();
        printer.Load(false);
        await Sent(_first);
        await Turn();
        await Turn();
        Assert.Equal("LP-1 could not: the roll is at its end. Send it again.", desk.Says(1057));
        printer.Load(true);
        await Sent(Guid.NewGuid());
        // Its answer is lost: it prints what it has, and says so the next time.
        await Turn();
        await protocol.Answer(_key, printer.Message(_host.Clock.GetUtcNow()));
        await Turn();
        await Turn();
        Assert.Single(printer.Labels);
        Assert.Equal("Printed on LP-1.", desk.Says(1057));
        Assert.Equal(8_000 - 44, printer.Left);

        async Task Turn() => printer.Hear((await protocol.Answer(_key, printer.Message(_host.Clock.GetUtcNow()))).Lines);
    }

    [Fact]
    public async Task It_is_sent_where_it_is_put_up_by_whoever_works_there()
    {
        var demo = _host.Services.GetRequiredService<DemoLabelPrinter>();
        await demo.Begin();
        await _iona.Get("/handover/1057");
        await _iona.Submit("form[action='?handler=sign']", ("pin", "2468"));
        await _iona.Submit("form[action$='/label']");
        Assert.Equal("/record/1057", _iona.Address.AbsolutePath);
        Assert.Contains("Printed on LP-1.", _iona.Text);
        await _iona.Get("/stand-ins/printer");
        var picture = _iona.Page.QuerySelector(".labels-out img")!.GetAttribute("src")!;
        Assert.Contains("HD-02", await _iona.Content(picture));
        await _iona.Submit("form[action*='Roll']");
        Assert.Contains("No paper", _iona.Text);
        // A form without its token prints nothing, and who only looks prints nothing.
        var token = new HttpRequestMessage(HttpMethod.Post, "http://localhost/record/1057/label");
        await _iona.Raw(token);
        Assert.Equal(HttpStatusCode.BadRequest, _iona.Status);
        var desk = _host.Services.GetRequiredService<LabelDesk>();
        Assert.NotNull(await desk.Send(1057, new(PersonId.Of("desk"), "Desk", Role.Viewer), ("<svg/>", 62, 40)));
        Assert.Single(demo.Device!.Labels);
    }
}
