using Anakyklos.Web.Hosting;
using Anakyklos.Desk;
using System.Net;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>Intake with the composed card, and the plan: what they say, without script.</summary>
public sealed class PlanPageTests : IAsyncLifetime
{
    private WorkshopHost _host = null!;
    private Browser _browser = null!;

    public async ValueTask InitializeAsync()
    {
        _host = await WorkshopHost.Demo();
        _browser = await _host.SignedIn();
    }

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private CardStore Cards => _host.Services.GetRequiredService<CardStore>();

    private async Task<long> Opened(string plate, string odometer, params string[] jobs)
    {
        await _browser.Get($"/intake?plate={plate}");
        foreach (var box in _browser.Page.QuerySelectorAll("input[name=job]"))
            box.RemoveAttribute("checked");
        await _browser.Submit("main form", [("odometer", odometer), .. jobs.Select(j => ("job", j))]);
        Assert.StartsWith("/lift/", _browser.Address.AbsolutePath);
        return long.Parse(_browser.Address.AbsolutePath.Split('/')[2]);
    }

    [Fact]
    public async Task Intake_offers_the_jobs_of_the_vehicle_and_shows_the_card_they_make()
    {
        await _browser.Get("/intake?plate=HD-15");
        var jobs = _browser.Page.QuerySelectorAll("input[name=job]").Select(j => j.GetAttribute("value")).ToList();
        Assert.Contains("primary-oil", jobs);
        Assert.DoesNotContain("fuel-filter", jobs);
        Assert.Contains("Engine drain plug", _browser.Page.QuerySelector("#composed")!.TextContent);
    }

    [Fact]
    public async Task A_preview_keeps_what_was_typed_and_opens_nothing()
    {
        var before = Cards.Unsigned().Count;
        await _browser.Get("/intake?plate=HD-02");
        await _browser.Submit("button[data-plain]", ("plate", "HD-11"), ("odometer", "88 4oo"), ("job", "grease"), ("bay", "Bay 2"));
        Assert.Equal(HttpStatusCode.OK, _browser.Status);
        Assert.Equal("88 4oo", _browser.Page.QuerySelector("#odometer")!.GetAttribute("value"));
        Assert.Contains("Grease points", _browser.Page.QuerySelector("#jobs")!.TextContent);
        // 29 min of greasing and 8 on the road.
        Assert.Contains("0:37", _browser.Page.QuerySelector("#composed .plan-total")!.TextContent);
        Assert.Equal(before, Cards.Unsigned().Count);
    }

    [Fact]
    public async Task A_job_of_another_model_is_refused()
    {
        await _browser.Get("/intake?plate=HD-15");
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await _browser.Submit("main form", ("odometer", "25000"), ("job", "transfer-oil")));
        Assert.Contains("No job of this model is chosen", _browser.Text);
    }

    [Fact]
    public async Task The_plan_shows_time_bound_lanes_and_the_same_as_a_list()
    {
        var card = await Opened("HD-11", "88400", "gearbox-oil", "transfer-oil");
        await _browser.Get($"/plan/{card}");
        var steps = Cards.Find(card)!.Steps;
        Assert.Equal(steps.Select(s => s.Title), _browser.Page.QuerySelectorAll(".plan-list").First()
            .QuerySelectorAll("a > span:nth-child(2)").Select(s => s.TextContent));
        Assert.Equal(steps.Count, _browser.Page.QuerySelectorAll(".lanes .lane-block").Length);
        Assert.Contains("cannot be done faster than", _browser.Text);
        Assert.NotNull(_browser.Page.QuerySelector(".lane-lift"));
        Assert.Contains("gearbox oil runs out", _browser.Page.QuerySelector(".lanes")!.TextContent);
    }

    [Fact]
    public async Task Tapping_a_step_says_why_it_stands_there()
    {
        var card = await Opened("HD-11", "88400", "gearbox-oil", "transfer-oil");
        await _browser.Get($"/plan/{card}?step=drain-gearbox-oil");
        var why = _browser.Page.QuerySelector(".why")!.TextContent;
        Assert.Contains("gearbox fill plug is proven loose", why);
        Assert.Contains("Not now:", why);
        await _browser.Get($"/plan/{card}?step=no-such-step");
        Assert.Equal(HttpStatusCode.OK, _browser.Status);
        await _browser.Get("/plan/99999");
        Assert.Equal(HttpStatusCode.NotFound, _browser.Status);
    }

    [Fact]
    public async Task A_step_taken_early_moves_to_the_front_and_the_lift_says_so()
    {
        var card = await Opened("HD-11", "88400", "engine-oil-and-filter", "grease");
        await _browser.Get($"/plan/{card}?step=grease-hinges");
        await _browser.Submit(".why-do form");
        Assert.Equal($"/lift/{card}", _browser.Address.AbsolutePath);
        Assert.StartsWith("Oil door hinges", _browser.Heading);
        Assert.Equal("grease-hinges", Cards.Find(card)!.Next!.Id);
        Assert.IsType<PlanChanged>(Cards.Find(card)!.History[^1].Event);
    }

    [Fact]
    public async Task The_lift_says_what_it_costs_to_go_ahead_and_where_to_stay()
    {
        var card = await Opened("HD-11", "88400", "engine-oil-and-filter", "grease");
        await _browser.Get($"/lift/{card}?step=grease-hinges");
        Assert.Contains("Taken before its turn.", _browser.Text);
        Assert.NotNull(_browser.Page.QuerySelector("form[action='?handler=early']"));
        await _browser.Get($"/lift/{card}?step=undo-oil-filter-can");
        Assert.Matches("Stay below: .* more here, then lower it", _browser.Text);
    }

    [Fact]
    public async Task What_waits_is_named_and_the_rest_goes_on()
    {
        var card = await Opened("HD-11", "88400", "front-axle-oil", "rear-axle-oil");
        await _browser.Get($"/lift/{card}?step=fit-rear-drain-washer&panel=stuck");
        await _browser.Submit("button[formaction='?handler=aside']", ("reason", "Washer on Friday's boat"));
        await _browser.Get($"/plan/{card}");
        var blocked = _browser.Page.QuerySelector(".blocked")!.TextContent;
        Assert.Contains("Washer on Friday's boat", blocked);
        Assert.Contains("rear axle drain plug out", blocked);
        Assert.DoesNotContain(_browser.Page.QuerySelectorAll(".plan-list a"),
            a => a.TextContent.Contains("Take the rear axle drain plug out"));
        Assert.Contains(_browser.Page.QuerySelectorAll(".plan-list a"), a => a.TextContent.Contains("Take the front axle drain plug out"));
    }

    [Fact]
    public async Task Two_people_have_a_plan_of_their_own()
    {
        var card = await Opened("HD-04", "121900", "engine-oil-and-filter", "brake-fluid");
        await _browser.Get($"/plan/{card}");
        var alone = _browser.Page.QuerySelector(".plan-total")!.TextContent;
        await _browser.Get($"/plan/{card}?people=2");
        Assert.Contains("With one person", _browser.Text);
        Assert.Contains("second person", _browser.Text);
        Assert.Contains(", both", _browser.Text);
        Assert.True(string.CompareOrdinal(_browser.Page.QuerySelector(".plan-total")!.TextContent, alone) < 0);
    }

    [Fact]
    public async Task The_desk_sees_the_plan_and_moves_nothing()
    {
        var people = _host.Services.GetRequiredService<PeopleStore>();
        var pins = _host.Services.GetRequiredService<PeopleDesk>();
        var member = new Member("desk", "Transport desk", Role.Viewer, "", "metric", "device");
        await people.Add(member with { PinHash = pins.Hash(member, Options.DemoPin) });
        var card = await Opened("HD-11", "88400", "engine-oil-and-filter", "grease");
        var desk = await _host.SignedIn("desk");
        Assert.Equal(HttpStatusCode.OK, await desk.Get($"/plan/{card}?step=grease-hinges"));
        if (desk.Page.QuerySelector(".why-do form") is not null)
            await desk.Submit(".why-do form");
        Assert.DoesNotContain(Cards.Find(card)!.History, h => h.Event is PlanChanged);
    }
}
