using System.Net;
using Anakyklos.Core.Cards;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

public sealed class PageTests : IAsyncLifetime
{
    private WorkshopHost _host = null!;

    public async ValueTask InitializeAsync() => _host = await WorkshopHost.Demo();

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private async Task<(Browser Browser, long Card)> OnNewCard(string odometer = "148200")
    {
        var browser = await _host.SignedIn();
        await _host.Services.GetRequiredService<ShelfStore>()
            .Receive("TC-0714-R", 5, new("effie", "Effie S.", Role.Stores), _host.Clock.GetUtcNow());
        await browser.Get("/intake?plate=HD-07");
        await browser.Submit("main form", ("odometer", odometer));
        Assert.StartsWith("/lift/", browser.Address.AbsolutePath);
        return (browser, long.Parse(browser.Address.AbsolutePath.Split('/')[2]));
    }

    private async Task WorkUpTo(Browser browser, long card, string? stop)
    {
        for (var presses = 0; presses < 80; presses++)
        {
            await browser.Get($"/lift/{card}");
            if (browser.Address.AbsolutePath.StartsWith("/handover") || (stop is not null && browser.Heading.StartsWith(stop)))
                return;
            if (browser.Page.QuerySelector(".waiting-main") is not null)
                _host.Clock.Advance(TimeSpan.FromMinutes(5));
            else if (browser.Page.QuerySelector("#gauge") is not null)
                await browser.Submit("#gauge", ("level", "3/4"));
            else
                await browser.Submit(".lift-main button");
            if (browser.Page.QuerySelector(".question")?.TextContent.Contains("Was the light out", StringComparison.Ordinal) == true)
                await browser.Submit(".question button");
            Assert.True(browser.Status == HttpStatusCode.OK, $"{browser.Heading}: {browser.Status} {browser.Text}");
            _host.Clock.Advance(TimeSpan.FromSeconds(30));
        }
        Assert.Fail($"Never came to {stop}.");
    }

    [Fact]
    public async Task The_whole_card_can_be_worked_without_script_by_the_main_button()
    {
        var (browser, card) = await OnNewCard();
        await WorkUpTo(browser, card, null);
        Assert.Contains("Nothing is open", browser.Heading);
        await browser.Submit("form[action='?handler=sign']", ("pin", "2468"));
        Assert.Equal($"/record/{card}", browser.Address.AbsolutePath);
        Assert.Contains("158 200 km", browser.Text);
        Assert.Contains("Signed by Iona R.", browser.Text);
        await browser.Get("/vehicle/HD-07");
        Assert.Equal(10 + 1, browser.Page.QuerySelectorAll(".service").Length);
        await browser.Get($"/lift/{card}");
        Assert.Equal($"/record/{card}", browser.Address.AbsolutePath);
    }

    [Fact]
    public async Task Draining_too_early_is_refused_on_the_page_and_when_posted_past_it()
    {
        var (browser, card) = await OnNewCard();
        await browser.Get($"/lift/{card}?step=drain");
        Assert.Contains("The kit has not been confirmed yet.", browser.Text);
        var hidden = browser.Page.QuerySelectorAll("input[type=hidden]");
        await browser.Get($"/lift/{card}?step=warm-up");
        Assert.Equal(HttpStatusCode.Conflict, await browser.Submit("form[action='?handler=done'] button", ("step", "drain")));
        Assert.Contains("The vehicle is down.", browser.Text);
        Assert.DoesNotContain("Exception", browser.Text);
    }

    [Fact]
    public async Task A_reading_in_the_wrong_unit_is_asked_about_and_a_bad_one_keeps_what_was_typed()
    {
        var (browser, card) = await OnNewCard();
        await WorkUpTo(browser, card, "Tighten the engine drain plug");
        await browser.Get($"/lift/{card}?panel=reading");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await browser.Submit(".panel", ("torque", "28 lb <b>")));
        Assert.Equal("28 lb <b>", browser.Page.QuerySelector("#torque")!.GetAttribute("value"));
        Assert.Contains("not a unit of torque", browser.Page.QuerySelector("#problem-torque")!.TextContent);
        Assert.Equal(HttpStatusCode.Conflict, await browser.Submit(".panel", ("torque", "28 Nm")));
        Assert.Contains("28 N·m does not pass, but 28 lbf·ft would", browser.Text);
        await browser.Submit(".question form");
        Assert.StartsWith("Wash plug and cap", browser.Heading);
    }

    [Fact]
    public async Task Too_much_torque_stops_the_step_until_somebody_says_what_was_done()
    {
        var (browser, card) = await OnNewCard();
        await WorkUpTo(browser, card, "Tighten the oil filter cap");
        await browser.Get($"/lift/{card}?panel=reading");
        await browser.Submit(".panel", ("torque", "31 N·m"));
        Assert.Contains("was tightened too far. Slacken it fully", browser.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await browser.Submit(".lift-main button", ("what", "")));
        await browser.Submit(".lift-main button", ("what", "Slackened, cap looked at, no crack"));
        Assert.Equal("25", browser.Page.QuerySelector(".value-figure")!.TextContent);
        await browser.Submit(".lift-main button");
        Assert.StartsWith("Wipe the sealing face", browser.Heading);
    }

    [Fact]
    public async Task A_wrench_whose_calibration_is_past_is_not_offered()
    {
        // TW-1 covers the cap's 25 N·m with a finer scale, but its calibration ended 18 days ago.
        var (browser, card) = await OnNewCard();
        await WorkUpTo(browser, card, "Tighten the oil filter cap");
        Assert.Contains("TW-2 set to 25 N·m", browser.Text);
    }

    [Fact]
    public async Task The_odometer_goes_down_only_with_a_reason()
    {
        var browser = await _host.SignedIn();
        await browser.Get("/intake?plate=HD-07");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await browser.Submit("main form", ("odometer", "9 000")));
        Assert.Contains("is less than the last reading, 146 100 km", browser.Text);
        Assert.Equal("9 000", browser.Page.QuerySelector("#odometer")!.GetAttribute("value"));
        await browser.Submit("main form", ("reason", "New instrument cluster"));
        Assert.Contains("or say below how that is", browser.Text);
        await browser.Submit("main form", ("lower", "exchanged"));
        Assert.StartsWith("/lift/", browser.Address.AbsolutePath);
    }

    [Theory]
    [InlineData("odometer", "-5", "cannot be an odometer reading")]
    [InlineData("odometer", "148,200", "could be 148.200 or 148200")]
    [InlineData("odometer", "9999999999", "cannot be an odometer reading")]
    [InlineData("plate", "HD-99", "not on the list")]
    [InlineData("job", "paint", "No job of this model")]
    public async Task Bad_intake_is_told_beside_the_field_and_opens_nothing(string field, string value, string say)
    {
        var browser = await _host.SignedIn();
        await browser.Get("/intake?plate=HD-07");
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await browser.Submit("main form", field == "odometer" ? [(field, value)] : [("odometer", "148400"), (field, value)]));
        Assert.Contains(say, browser.Page.QuerySelector($"#problem-{field}")!.TextContent);
        Assert.Equal(3, _host.Services.GetRequiredService<CardStore>().Unsigned().Count);
    }

    [Fact]
    public async Task One_vehicle_has_one_open_card_and_a_repeat_of_the_form_opens_no_second()
    {
        var browser = await _host.SignedIn();
        await browser.Get("/intake?plate=HD-07");
        var command = browser.Page.QuerySelector("input[name=command]")!.GetAttribute("value")!;
        await browser.Submit("main form", ("odometer", "148400"));
        var first = browser.Address.AbsolutePath;
        await browser.Get("/intake?plate=HD-07");
        await browser.Submit("main form", ("odometer", "148400"), ("command", command));
        Assert.Equal(first, browser.Address.AbsolutePath);
        await browser.Get("/intake?plate=HD-07");
        Assert.Equal(HttpStatusCode.Conflict, await browser.Submit("main form", ("odometer", "148401")));
        Assert.Contains("is still open", browser.Text);
    }

    [Fact]
    public async Task A_second_screen_is_told_what_changed()
    {
        var (iona, card) = await OnNewCard();
        var una = await _host.SignedIn("una");
        await WorkUpTo(una, card, "Chock");
        await una.Get($"/lift/{card}");
        await iona.Get($"/lift/{card}");
        var before = _host.Services.GetRequiredService<CardStore>().Find(card)!.History.Count;
        await una.Submit(".lift-main button");
        Assert.Equal(HttpStatusCode.Conflict, await iona.Submit(".lift-main button"));
        Assert.Contains("Una B. did this", iona.Text);
        await iona.Get($"/lift/{card}?since=1");
        Assert.Contains("Meanwhile: Una B.", iona.Text);
        Assert.Equal(before + 1, _host.Services.GetRequiredService<CardStore>().Find(card)!.History.Count);
    }

    [Fact]
    public async Task A_deviation_waits_for_a_second_name_with_a_pin_of_its_own()
    {
        var (browser, card) = await OnNewCard();
        await WorkUpTo(browser, card, "Refit the undertray");
        await browser.Get($"/lift/{card}?panel=count");
        await browser.Submit(".panel", ("count", "8"));
        Assert.Equal("8", browser.Page.QuerySelector("#count")!.GetAttribute("value"));
        Assert.NotNull(browser.Page.QuerySelector("#problem-reason"));
        await browser.Submit(".panel", ("count", "8"), ("reason", "Captive nut spins"));
        await WorkUpTo(browser, card, null);
        // Nothing is left at the lift: the big button leads to the PIN, not back there.
        var main = browser.Page.QuerySelector(".hand-ring .main")!;
        Assert.Equal(browser.Page.QuerySelector(".counter input[name=pin]")!.Id, main.GetAttribute("for"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await browser.Submit(".counter", ("who", "una"), ("pin", "0000")));
        Assert.Contains("not right", browser.Text);
        await browser.Submit(".counter", ("who", "una"), ("pin", "2468"));
        await browser.Submit("form[action='?handler=sign']", ("pin", "2468"));
        Assert.Contains("countersigned by Una B.", browser.Text);
    }

    [Fact]
    public async Task A_reading_is_put_right_at_hand_over_and_opens_the_plug_again()
    {
        var (browser, card) = await OnNewCard();
        await WorkUpTo(browser, card, "Wash plug and cap");
        await browser.Get($"/handover/{card}");
        await browser.Submit("#readings li:last-child details form", ("torque", "31 N·m"), ("reason", "Read the wrong line"));
        await browser.Get($"/lift/{card}");
        Assert.StartsWith("Tighten the engine drain plug", browser.Heading);
    }

    [Fact]
    public async Task The_last_press_can_be_taken_back()
    {
        var (browser, card) = await OnNewCard();
        await WorkUpTo(browser, card, "Open the bonnet");
        await browser.Get($"/lift/{card}");
        Assert.Contains("Take back what you pressed last Run the engine warm", browser.Text);
        await browser.Submit("form[action='?handler=back']");
        Assert.StartsWith("Run the engine warm", browser.Heading);
        await browser.Submit("form[action='?handler=back']");
        Assert.StartsWith("Chock the rear wheels", browser.Heading);
    }

    [Theory]
    [InlineData("/lift/999999", HttpStatusCode.NotFound)]
    [InlineData("/lift/1058?step=none", HttpStatusCode.NotFound)]
    [InlineData("/record/999999", HttpStatusCode.NotFound)]
    [InlineData("/vehicle/HD-99", HttpStatusCode.NotFound)]
    [InlineData("/nowhere", HttpStatusCode.NotFound)]
    [InlineData("/workshop", HttpStatusCode.Forbidden)]
    [InlineData("/equipment", HttpStatusCode.Forbidden)]
    public async Task What_is_not_there_or_not_yours_is_said_in_words(string address, HttpStatusCode status)
    {
        var browser = await _host.SignedIn();
        var got = await browser.Get(address);
        Assert.True(got == status || (status == HttpStatusCode.Forbidden && browser.Heading == "Not with your role"),
            $"{got} {browser.Text}");
        Assert.NotEmpty(browser.Heading);
    }

    [Fact]
    public async Task A_form_without_its_token_writes_nothing()
    {
        var (browser, card) = await OnNewCard();
        Assert.Equal(HttpStatusCode.BadRequest, await browser.Submit(".lift-main button", ("__RequestVerificationToken", "forged")));
        Assert.Single(_host.Services.GetRequiredService<CardStore>().Find(card)!.History);
    }

    [Fact]
    public async Task Wrong_pins_are_slowed()
    {
        var browser = _host.NewBrowser();
        await browser.Get("/signin");
        for (var i = 0; i < 3; i++)
            await browser.Submit("form", ("person", "iona"), ("pin", "1111"));
        await browser.Submit("form", ("person", "iona"), ("pin", "2468"));
        Assert.Contains("Wait", browser.Text);
        await browser.Submit("form", ("person", "una"), ("pin", "2468"));
        Assert.Equal("/", browser.Address.AbsolutePath);
    }

    [Fact]
    public async Task Pages_carry_a_strict_policy_and_load_only_from_here()
    {
        var (browser, _) = await OnNewCard();
        var policy = browser.Answer.Headers.GetValues("Content-Security-Policy").Single();
        Assert.Contains("script-src 'self'", policy);
        Assert.DoesNotContain("unsafe", policy);
        Assert.All(browser.Page.QuerySelectorAll("[src], link[href]"),
            e => Assert.StartsWith("/", e.GetAttribute("src") ?? e.GetAttribute("href")));
        Assert.Empty(browser.Page.QuerySelectorAll("[style], style, script:not([src])"));
    }

    [Fact]
    public async Task The_unit_on_the_wrench_comes_first_and_the_persons_own_stands_beside_it()
    {
        var (browser, card) = await OnNewCard();
        await browser.Get("/you");
        await browser.Submit("main form", ("units", "us"), ("look", "night"));
        Assert.Equal("night", browser.Page.DocumentElement.GetAttribute("data-look"));
        await WorkUpTo(browser, card, "Tighten the engine drain plug");
        Assert.Equal("38", browser.Page.QuerySelector(".value-figure")!.TextContent);
        Assert.Contains("28 lbf·ft", browser.Page.QuerySelector(".value-beside")!.TextContent);
        await browser.Submit(".lift-main button");
        Assert.StartsWith("Wash", browser.Heading);
    }
}
