using System.Net;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Tests;

/// <summary>The made-up depot beside a workshop: who may bring it in, and that a demo has none.</summary>
public sealed class MadeUpTests
{
    [Theory]
    [InlineData("iona")]
    [InlineData("effie")]
    [InlineData("desk")]
    public async Task Only_the_lead_brings_it_in_and_takes_it_out(string person)
    {
        await using var host = await WorkshopHost.Demo();
        var at = await host.SignedIn(person);
        Assert.Equal(HttpStatusCode.Forbidden, await at.Get("/made-up"));
        Assert.Equal(HttpStatusCode.Forbidden, await at.Post("/made-up?handler=In"));
        Assert.Equal(HttpStatusCode.Forbidden, await at.Post("/made-up?handler=Out"));
    }

    [Fact]
    public async Task A_demo_is_made_up_itself_and_has_none_beside_it()
    {
        await using var host = await WorkshopHost.Demo();
        var una = await host.SignedIn("una");
        await una.Get("/made-up");
        Assert.Contains("nothing to bring in", una.Text);
        Assert.Null(una.Page.QuerySelector("main form"));
    }

    [Fact]
    public void Its_cookies_are_its_own_because_cookies_know_no_ports() =>
        Assert.NotEqual(new Options().Cookie, new Options { IsMadeUp = true }.Cookie);

    [Theory]
    [InlineData("--samples-port", "0")]
    [InlineData("--samples-port", "next")]
    [InlineData("--samples-at", "samples.example")]
    [InlineData("--samples-at", "ftp://samples.example")]
    public void Where_it_is_served_is_read_or_refused(string option, string value) =>
        Assert.Contains(option, Assert.Throws<OptionException>(() => Options.Read([option, value])).Message);

    [Fact]
    public void Where_it_is_served_and_reached_can_be_said()
    {
        var options = Options.Read(["--samples-port", "6000", "--samples-at", "https://samples.example"]);
        Assert.Equal((6000, "https://samples.example"), (options.MadeUpPort, options.MadeUpAt));
    }
}
