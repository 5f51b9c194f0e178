using Anakyklos.Desk;
using System.Net;
using Anakyklos.Core.Cards;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>Every handler of the lift and of the hand-over, fed with what a person or a broken client might send.</summary>
public sealed class BadInputTests : IAsyncLifetime
{
    private const string Form = ".lift-bar form";
    private WorkshopHost _host = null!;

    public async ValueTask InitializeAsync() => _host = await WorkshopHost.Demo();

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private JobCard HalfDone => _host.Services.GetRequiredService<CardStore>().Find(1058)!;

    // Whatever is declared, and one that is not. Putting in order says nothing but that, so there is nothing bad to say in it.
    public static TheoryData<string> Handlers => [.. CommandBook.All.Select(c => c.Name).Where(n => n != "order"), "sing", ""];

    [Theory]
    [MemberData(nameof(Handlers))]
    public async Task No_handler_breaks_or_writes_on_empty_endless_or_hostile_fields(string handler)
    {
        var browser = await _host.SignedIn();
        var before = HalfDone.History.Count;
        foreach (var junk in new[] { "", "   ", "<script>alert(1)</script>", "' or 1=1 --", new string('x', 5000), "-1",
            "99999999999999999999", "NaN" })
        {
            await browser.Get("/lift/1058");
            var form = (AngleSharp.Html.Dom.IHtmlFormElement)browser.Page.QuerySelector(Form)!;
            form.SetAttribute("action", $"?handler={handler}");
            var status = await browser.Submit(Form, [("torque", junk), ("amount", junk), ("level", junk), ("count", junk),
                ("reason", junk.Trim().Length is > 0 and < 5000 ? "" : junk), ("text", junk.Length > 400 ? junk : ""),
                ("grade", junk), ("kind", junk), ("of", junk), ("wait", junk), ("fastener", junk), ("what", ""), ("pan", junk),
                    ("oils.engine-oil.amount", junk), ("oils.engine-oil.product", junk), ("seen", junk),
                    ("step", handler == "done" ? "drain" : "filter-cap-off"), ("panel", "stuck")]);
            Assert.True(status is HttpStatusCode.Conflict or HttpStatusCode.UnprocessableEntity,
                $"{handler} with “{(junk.Length > 30 ? "…" : junk)}”: {status} {browser.Heading}");
            Assert.Empty(browser.Page.QuerySelectorAll("main script"));
            Assert.DoesNotContain("   at Anakyklos", browser.Text);
        }
        Assert.Equal(before, HalfDone.History.Count);
    }

    [Theory]
    [InlineData("not-a-guid", HttpStatusCode.Conflict)]
    [InlineData("", HttpStatusCode.Conflict)]
    public async Task A_command_without_its_id_writes_nothing(string id, HttpStatusCode status)
    {
        var browser = await _host.SignedIn();
        await browser.Get("/lift/1058");
        Assert.Equal(status, await browser.Submit(".lift-main button", ("command", id)));
        Assert.Contains("too old to be sent", browser.Text);
        await browser.Get("/lift/1058");
        Assert.Equal(HttpStatusCode.NotFound, await browser.Submit(".lift-main button", ("step", "no-such-step")));
    }

    [Fact]
    public async Task What_was_typed_into_the_kit_is_still_there_when_it_is_refused()
    {
        var browser = await _host.SignedIn();
        await browser.Get("/intake?plate=HD-07");
        await browser.Submit("main form", ("odometer", "148400"));
        await browser.Submit(".lift-main button");
        Assert.StartsWith("Lay out parts", browser.Heading);
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await browser.Submit("#kit", ("parts.oil-filter.number", "TC-0617-F"), ("parts.drain-washer.choice", "OldAgain"),
            ("parts.drain-washer.reason", ""), ("pan", "8"), ("oils.engine-oil.amount", "7 L"), ("oils.engine-oil.product", "Gannet")));
        Assert.Contains("Add the unit to “8”", browser.Page.QuerySelector("#problem-pan")!.TextContent);
        Assert.Equal("8", browser.Page.QuerySelector("#pan")!.GetAttribute("value"));
        Assert.Equal("TC-0617-F", browser.Page.QuerySelector("[name='parts.oil-filter.number']")!.GetAttribute("value"));
        await browser.Submit("#kit", ("pan", "8 L"));
        Assert.Contains("9 mm shorter", browser.Page.QuerySelector("[id='problem-parts.oil-filter']")!.TextContent);
        Assert.Contains("reason for the washer", browser.Page.QuerySelector("[id='problem-parts.drain-washer']")!.TextContent);
        Assert.NotNull(browser.Page.QuerySelector("[name='parts.drain-washer.choice'][value=OldAgain][checked]"));
    }

    [Fact]
    public async Task Who_only_reads_can_look_and_not_press()
    {
        var people = _host.Services.GetRequiredService<PeopleStore>();
        await people.Add(people.Find("iona")! with { Id = "desk", Name = "Transport desk", Role = Role.Viewer,
            PinHash = _host.Services.GetRequiredService<PeopleDesk>().Hash(people.Find("iona")!, "2468") });
        var desk = await _host.SignedIn("desk");
        Assert.Equal("/", desk.Address.AbsolutePath);
        Assert.Null(desk.Page.QuerySelector("a[href='/intake']"));
        await desk.Get("/lift/1058");
        Assert.Equal(HttpStatusCode.Forbidden, await desk.Submit(".lift-main button"));
        Assert.Contains("You can look at cards, not work on them.", desk.Text);
        await desk.Get("/handover/1058");
        Assert.Null(desk.Page.QuerySelector("form[action='?handler=sign']"));
        await desk.Get("/record/1058");
        Assert.Contains("not signed yet", desk.Text);
    }
}
