using System.Net;
using Anakyklos.Core.Quantities;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Demo;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>A workshop of some size: its pages show a part and lead to the rest, and what was worked out once is worked out again as soon
/// as something of it changes.</summary>
public sealed class LargeWorkshopTests : InTheDemo
{
    private readonly List<string> _said = [];

    public override async ValueTask InitializeAsync()
    {
        await base.InitializeAsync();
        await Host.Services.GetRequiredService<LargeWorkshop>().Fill(new(70, 150, 300), _said.Add);
    }

    private int Count => Host.Services.GetRequiredService<VehicleStore>().All().Count;

    [Fact]
    public async Task It_is_made_whole_and_the_same_each_time()
    {
        Assert.Contains("150 cards", _said);
        var database = Host.Services.GetRequiredService<WorkshopDatabase>();
        Assert.Empty(Verification.Run(database, out var cards, out _));
        Assert.Equal(58 + 150, cards);
        var of = Host.Services.GetRequiredService<CardStore>().OfVehicle("LD-00007");
        Assert.Equal([3, 0], new[] { of.Count, of.Count(c => c.IsOpen) });
        await using var again = await WorkshopHost.Demo();
        await again.Services.GetRequiredService<LargeWorkshop>().Fill(new(70, 150, 300), _ => { });
        Assert.Equal(of.Select(c => (c.OpenedAt, c.SignedAt)),
            again.Services.GetRequiredService<CardStore>().OfVehicle("LD-00007").Select(c => (c.OpenedAt, c.SignedAt)));
        await Me.Get("/vehicle/LD-00007");
        Assert.Equal(3, Me.Page.QuerySelectorAll(".services li").Length);
    }

    [Fact]
    public async Task The_yard_shows_the_most_urgent_and_leads_to_all_the_others()
    {
        await Me.Get("/");
        var seen = new List<string>();
        for (var page = 1; ; page++)
        {
            seen.AddRange(Me.Page.QuerySelectorAll(".yard-bays .rows .plate").Select(p => p.TextContent.Trim()));
            Assert.Contains($"{page} of 2", Me.Text);
            if (Me.Page.QuerySelector("a[rel=next]")?.GetAttribute("href") is not { } next)
                break;
            await Me.Get(next);
        }
        Assert.Equal(Count, seen.Count);
        Assert.Equal(Count, seen.Distinct().Count());
        await Me.Get("/?at=99");
        Assert.Contains("2 of 2", Me.Text);
        await Me.Get("/?at=-1");
        Assert.Contains("1 of 2", Me.Text);
    }

    [Fact]
    public async Task What_stands_on_the_yard_follows_every_change()
    {
        var vehicles = Host.Services.GetRequiredService<VehicleStore>();
        var fleet = Host.Services.GetRequiredService<FleetBook>();
        VehicleInFleet Now() => fleet.ByUrgency().Single(v => v.Vehicle.Plate == "LD-00008");
        var before = fleet.ByUrgency();
        Assert.Same(before, fleet.ByUrgency());
        // Everything was done today: nothing is due, until it has gone far.
        Assert.Equal(0, Now().Standing.Overdue);
        Host.Clock.Advance(TimeSpan.FromHours(2));
        await vehicles.SetRule("LD-00008", Now().Standing.Worst!.Value.Item.Job, new(null, 1));
        Assert.Equal(Core.Due.RuleOf.Owner, Now().Standing.Worst!.Value.ByOf);
        Host.Clock.Advance(TimeSpan.FromDays(40));
        Assert.True(Now().Standing.Overdue > 0);
        Assert.NotEmpty(Now().ThisWeek);
    }

    [Fact]
    public async Task At_intake_a_vehicle_is_looked_for()
    {
        await Me.Get("/intake");
        Assert.Contains($"The most urgent of {Count}", Me.Text);
        Assert.True(Me.Page.QuerySelectorAll("#which .tile").Length is > 10 and < 16);
        const string button = "button[formaction='/intake?handler=Preview']:not([data-plain])";
        await Me.Submit(button, ("find", "ld00061"));
        Assert.Contains("One fits", Me.Text);
        Assert.Contains("LD-00061", Me.Page.QuerySelector("#which .tile")!.TextContent);
        await Me.Submit(button, ("find", "no such thing"));
        Assert.Contains("0 fit", Me.Text);
        // What was chosen stays to be seen, whatever is looked for.
        await Me.Get("/intake?plate=LD-00033");
        await Me.Submit(button, ("find", "mail ferry"));
        Assert.Equal("LD-00033", Me.Page.QuerySelector("#which input[checked]")!.GetAttribute("value"));
        Assert.Contains("2 fit", Me.Text);
        await Me.Submit("main form", ("odometer", "900 000"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, Me.Status);
        await Me.Get("/intake?plate=HD-07");
        await Me.Submit("main form", ("odometer", "146 300"));
        Assert.StartsWith("/lift/", Me.Address.AbsolutePath);
    }

    [Fact]
    public async Task The_stores_show_a_page_of_parts_and_find_the_rest()
    {
        await Me.Get("/stores");
        Assert.True(Me.Page.QuerySelectorAll(".part-rows li").Length <= 120);
        var others = Me.Page.QuerySelector("#others nav a[rel=next]")!.GetAttribute("href")!;
        Assert.False(Me.Page.QuerySelector("#others")!.HasAttribute("open"));
        await Me.Get(others);
        Assert.True(Me.Page.QuerySelector("#others")!.HasAttribute("open"));
        Assert.Contains("2 of ", Me.Page.QuerySelector("#others nav")!.TextContent);
        await Me.Get("/stores?q=lp-000123");
        Assert.Equal("LP-000123", Me.Page.QuerySelector(".kit-number")!.TextContent);
        await Me.Get("/stores?q=lp");
        Assert.Contains("Found: 300", Me.Text);
        await Me.Get("/stores?q=nothing like it");
        Assert.Contains("The stores do not know", Me.Text);
        // A part that came in is counted at once.
        await Me.Get("/stores?q=lp-000123");
        var before = int.Parse(Me.Page.QuerySelector(".shelf-count")!.TextContent.Trim().Split(' ')[0]);
        await Me.Submit("form[action*=Part]", ("number", "LP-000123"), ("count", "7"));
        await Me.Get("/stores?q=lp-000123");
        Assert.StartsWith($"{before + 7} ", Me.Page.QuerySelector(".shelf-count")!.TextContent.Trim());
    }

    [Fact]
    public async Task The_order_follows_the_shelf()
    {
        var orders = Host.Services.GetRequiredService<OrderDesk>();
        var first = orders.Lines();
        Assert.Same(first, orders.Lines());
        var missing = first.First(l => l.Count is > 1 && l.Number.Length > 0);
        var shelf = Host.Services.GetRequiredService<ShelfStore>();
        await shelf.Receive(missing.Number, 1, new("iona", "Iona R.", Core.Cards.Role.Technician), Host.Clock.GetUtcNow());
        Assert.Equal(missing.Count - 1, orders.Lines().Single(l => l.Number == missing.Number).Count);
    }
}
