using System.Net;
using Anakyklos.Core.Cards;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>
/// Questions answered both ways, presses taken back, jobs given up, cards made void, stops decided: each through the page.
/// </summary>
public sealed class WayOnTests : IAsyncLifetime
{
    private WorkshopHost _host = null!;
    private Browser _browser = null!;
    private long _card;

    public async ValueTask InitializeAsync()
    {
        _host = await WorkshopHost.Demo();
        _browser = await _host.SignedIn();
        await _host.Services.GetRequiredService<ShelfStore>().Receive("TC-0714-R", 5, new("effie", "Effie S.", Role.Stores),
            _host.Clock.GetUtcNow());
        await _browser.Get("/intake?plate=HD-07");
        await _browser.Submit("main form", ("odometer", "148200"));
        _card = long.Parse(_browser.Address.AbsolutePath.Split('/')[2]);
    }

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private JobCard Card => _host.Services.GetRequiredService<CardStore>().Find(_card)!;

    private async Task WorkUpTo(string? stop)
    {
        for (var presses = 0; presses < 120; presses++)
        {
            await _browser.Get($"/lift/{_card}");
            if (_browser.Address.AbsolutePath.StartsWith("/handover") || (stop is not null && _browser.Heading.StartsWith(stop)))
                return;
            if (_browser.Page.QuerySelector(".waiting-main") is not null)
                _host.Clock.Advance(TimeSpan.FromMinutes(5));
            else if (_browser.Page.QuerySelector("#gauge") is not null)
                await _browser.Submit("#gauge", ("level", "3/4"));
            else
                await _browser.Submit(".lift-main button");
            // The clock here goes by half a minute a press: late is what the light was said to be.
            if (_browser.Page.QuerySelector(".question")?.TextContent.Contains("Was the light out", StringComparison.Ordinal) == true)
                await _browser.Submit(".question button");
            Assert.True(_browser.Status == HttpStatusCode.OK, $"{_browser.Heading}: {_browser.Status} {_browser.Text}");
            _host.Clock.Advance(TimeSpan.FromSeconds(30));
        }
        Assert.Fail($"Never came to {stop}.");
    }

    [Fact]
    public async Task A_question_about_a_pour_is_answered_with_yes_and_does_not_ask_again()
    {
        await WorkUpTo("Pour the first amount");
        await _browser.Get($"/lift/{_card}?panel=amount");
        Assert.Equal(HttpStatusCode.Conflict, await _browser.Submit(".panel", ("amount", "7 L")));
        Assert.Contains("Was it really 7.00 L?", _browser.Text);
        Assert.Equal(HttpStatusCode.OK, await _browser.Submit(".question button"));
        Assert.Empty(_browser.Page.QuerySelectorAll(".question"));
        var poured = Card.History.Select(h => h.Event).OfType<Poured>().Single();
        Assert.Equal("7.00 L", poured.Amount.ToString());
        Assert.NotEmpty(poured.AgainstWarning);
    }

    [Fact]
    public async Task A_question_about_a_pour_is_answered_with_no_and_nothing_was_written()
    {
        await WorkUpTo("Pour the first amount");
        await _browser.Get($"/lift/{_card}?panel=amount");
        await _browser.Submit(".panel", ("amount", "7 L"));
        await _browser.Get(_browser.Page.QuerySelector(".question a.main")!.GetAttribute("href")!);
        Assert.NotNull(_browser.Page.QuerySelector("#amount"));
        Assert.DoesNotContain(Card.History, h => h.Event is Poured);
    }

    [Theory]
    [InlineData(".question .main", "28.04 lbf·ft")]
    [InlineData(".question .side", "28.04 N·m")]
    public async Task A_question_about_a_unit_is_answered_both_ways_to_the_last_digit(string answer, string kept)
    {
        await WorkUpTo("Tighten the engine drain plug");
        await _browser.Get($"/lift/{_card}?panel=reading");
        await _browser.Submit(".panel", ("torque", "28.04 Nm"));
        await _browser.Submit(answer);
        Assert.Equal(kept, Card.History.Select(h => h.Event).OfType<ReadingTaken>().Last().Reading.Exact);
        Assert.Empty(_browser.Page.QuerySelectorAll(".question"));
    }

    [Fact]
    public async Task Before_the_lift_comes_down_what_was_left_for_later_up_there_is_one_press_away()
    {
        var title = Card.TitleOf(Card.Step("undertray-on")!);
        await WorkUpTo(title);
        await _browser.Get($"/lift/{_card}?panel=stuck");
        await _browser.Submit("button[formaction='?handler=aside']", ("reason", "Two screws are on the bench"));
        await WorkUpTo("Pan, chute, lamp and tools");
        Assert.Contains("Left for later, and only while it is up: " + title, _browser.Text);
        Assert.Contains("Two screws are on the bench", _browser.Text);
        await _browser.Get(_browser.Page.QuerySelector(".came a")!.GetAttribute("href")!);
        Assert.Contains("It was left for later, and can be done now.", _browser.Text);
        await _browser.Submit(".lift-main button.main");
        Assert.Equal(StepStatus.Done, Card.State("undertray-on").Status);
        await _browser.Get($"/lift/{_card}");
        Assert.DoesNotContain("Left for later, and only", _browser.Text);
    }

    [Fact]
    public async Task Too_little_torque_is_said_loudly()
    {
        await WorkUpTo("Tighten the engine drain plug");
        await _browser.Get($"/lift/{_card}?panel=reading");
        await _browser.Submit(".panel", ("torque", "20 Nm"));
        Assert.Contains("20 N·m is too little.", _browser.Page.QuerySelector(".too-little")!.TextContent);
    }

    [Fact]
    public async Task A_level_tapped_by_mistake_is_taken_back_from_the_step_itself()
    {
        await WorkUpTo("Wipe, dip");
        _host.Clock.Advance(TimeSpan.FromMinutes(6));
        await _browser.Get($"/lift/{_card}");
        await _browser.Submit("#gauge", ("level", "9/8"));
        Assert.Contains("above the top mark", _browser.Text);
        await _browser.Submit(".last-press form");
        Assert.Null(Card.Fluid("engine-oil").Level);
        Assert.NotNull(_browser.Page.QuerySelector("#gauge"));
    }

    [Fact]
    public async Task The_kit_step_takes_more_while_the_plug_is_out()
    {
        await WorkUpTo("Wipe the plug");
        await _browser.Get($"/lift/{_card}?step=lay-out-kit");
        Assert.Equal(HttpStatusCode.OK, await _browser.Submit("#kit", ("pan", "8 L + 5 L"), ("oils.engine-oil.amount", "9 L")));
        Assert.Equal(2, Card.Kit!.AllPans.Count);
        await _browser.Get($"/lift/{_card}?step=lay-out-kit");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await _browser.Submit("#kit", ("oils.engine-oil.product", "Salad oil")));
        Assert.Contains("not in the oil book", _browser.Text);
    }

    [Fact]
    public async Task A_job_is_given_up_from_the_step_and_what_was_opened_is_closed()
    {
        await WorkUpTo("Wipe the plug");
        await _browser.Get($"/lift/{_card}?panel=stuck");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await _browser.Submit("button[formaction*=drop]"));
        await _browser.Submit("button[formaction*=drop]", ("reason", "Called to the ferry"));
        Assert.Empty(Card.Jobs);
        await _browser.Get($"/plan/{_card}");
        Assert.StartsWith("given up: Engine oil and filter.", _browser.Page.QuerySelector(".plan-jobs")!.TextContent.Trim());
        await WorkUpTo(null);
        await _browser.Submit("form[action*=sign]", ("pin", "2468"));
        Assert.Contains("Called to the ferry", _browser.Text);
        Assert.StartsWith("given up: Engine oil and filter at", _browser.Page.QuerySelector("main .lead")!.TextContent.Trim());
        await _browser.Get("/vehicle/HD-07");
        Assert.Contains("given up: Engine oil and filter", _browser.Text);
    }

    [Fact]
    public async Task A_card_on_which_nothing_was_opened_is_made_void_and_another_one_can_be_opened()
    {
        await _browser.Get($"/lift/{_card}?panel=stuck");
        await _browser.Submit("button[formaction*=void]", ("reason", "Wrong van"));
        Assert.Equal($"/handover/{_card}", _browser.Address.AbsolutePath);
        await _browser.Submit("form[action='?handler=countersign']", ("who", "una"), ("pin", "2468"));
        Assert.Equal($"/record/{_card}", _browser.Address.AbsolutePath);
        Assert.Contains("Made void by Una B.", _browser.Text);
        await _browser.Get("/");
        Assert.DoesNotContain($"/lift/{_card}", _browser.Page.Body!.InnerHtml);
        await _browser.Get("/intake?plate=HD-07");
        await _browser.Submit("main form", ("odometer", "148201"));
        Assert.StartsWith("/lift/", _browser.Address.AbsolutePath);
    }

    [Fact]
    public async Task A_stop_waits_for_the_lead_and_stands_on_the_next_card()
    {
        await WorkUpTo("Wipe the plug");
        await _browser.Get($"/lift/{_card}?panel=saw");
        await _browser.Submit(".panel", ("grade", "Stop"), ("text", "Slivers on the magnet"));
        Assert.Contains("Slivers on the magnet", _browser.Page.QuerySelector(".held")!.TextContent);
        await WorkUpTo("Start it");
        Assert.Contains("graded stop", _browser.Text);
        await _browser.Get($"/handover/{_card}");
        await _browser.Submit(".stop-decision button[value=no]", ("who", "una"), ("pin", "2468"), ("words", "Sample sent, may run"));
        Assert.Empty(Card.Stops);
        await _browser.Get($"/lift/{_card}");
        Assert.Null(_browser.Page.QuerySelector(".held"));
        await WorkUpTo(null);
        await _browser.Submit("form[action*=sign]", ("pin", "2468"));
        await _browser.Get("/vehicle/HD-07");
        Assert.Contains("Slivers on the magnet", _browser.Text);
        await _browser.Get("/intake?plate=HD-07");
        await _browser.Submit("main form", ("odometer", "149000"));
        await _browser.Get(_browser.Address.AbsolutePath.Replace("lift", "handover"));
        Assert.Contains("Slivers on the magnet", _browser.Text);
    }

    [Fact]
    public async Task The_endpoints_judge_a_kit_as_the_page_does_and_believe_nothing_that_is_claimed()
    {
        var token = await _browser.Token();
        var body = """
            {"command":"COMMAND","say":"kit","step":"lay-out-kit","pan":["8 L"],
            "parts":{"oil-filter":{"choice":"in-hand"},"filter-cap-ring":{"choice":"in-hand"},"drain-washer":{"choice":"in-hand"}},
            "oils":{"engine-oil":{"amount":"7 L","product":"Salad oil"}}}
            """
            .Replace("COMMAND", Guid.NewGuid().ToString());
        await _browser.Api(HttpMethod.Post, $"/api/v1/cards/{_card}/commands", body, token);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, _browser.Status);
        await _browser.Api(HttpMethod.Post, $"/api/v1/cards/{_card}/commands",
            body.Replace("\"drain-washer\":{\"choice\":\"in-hand\"}", "\"drain-washer\":{\"choice\":\"stands-in\",\"number\":\"X\"}"),
            token);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, _browser.Status);
        await _browser.Api(HttpMethod.Post, $"/api/v1/cards/{_card}/commands",
            body.Replace("Salad oil", "Gannet Lowash 5W-30").Replace("8 L", "6 L"), token);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, _browser.Status);
        Assert.Null(Card.Kit);
        await _browser.Api(HttpMethod.Post, $"/api/v1/cards/{_card}/commands",
            body.Replace("Salad oil", "gannet lowash 5w30"), token);
        Assert.Equal(HttpStatusCode.OK, _browser.Status);
    }
}
