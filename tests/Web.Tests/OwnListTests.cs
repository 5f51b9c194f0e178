using System.Net;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>A list of one's own from the library to a card; and how a card stands, for whoever takes it over.</summary>
public sealed class OwnListTests : IAsyncLifetime
{
    private static readonly (string, string)[] Half =
    [
        ("points", "Hoses under the bonnet\nHand brake: at most 7 clicks"), ("name", "half-year look"), ("book", "Owner's handbook"),
        ("page", "p. 88"), ("every", "10000"), ("months", "6"), ("where", "side"),
    ];

    private WorkshopHost _host = null!;
    private Browser _iona = null!;

    public async ValueTask InitializeAsync()
    {
        _host = await WorkshopHost.Demo();
        _iona = await _host.SignedIn();
    }

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private async Task Make(params (string Name, string Value)[] other)
    {
        await _iona.Get("/library/lumen-ardent/own");
        await _iona.Submit(".own-form", [.. Half.Where(h => other.All(o => o.Name != h.Item1)), .. other]);
    }

    [Fact]
    public async Task A_list_becomes_a_job_is_due_and_is_worked()
    {
        await Make();
        Assert.Equal("/library/lumen-ardent", _iona.Address.AbsolutePath);
        Assert.Contains("Half-year look 2 points, every 10 000 km or 6 months; Owner's handbook, p. 88", _iona.Text.Replace('\u202f', ' '));
        await _iona.Get("/intake?plate=HD-09");
        Assert.NotNull(_iona.Page.QuerySelector("input[name=job][value=own-1]"));
        await _iona.Submit("main form", ("plate", "HD-09"), ("odometer", "2900"), ("job", "own-1"), ("bay", "Bay 1"),
            ("drop-first-check", "Next week"), ("drop-engine-oil-and-filter", "Next week"));
        Assert.StartsWith("/lift/", _iona.Address.AbsolutePath);
        Assert.Equal("Half-year look", _iona.Heading);
        // The card keeps it though it is taken away.
        var card = _iona.Address.AbsolutePath;
        await _iona.Get("/library/lumen-ardent/own/own-1");
        await _iona.Submit("button[formaction='?handler=Remove']");
        Assert.DoesNotContain("Half-year look", _iona.Text);
        await _iona.Get(card);
        Assert.Equal("Half-year look", _iona.Heading);
    }

    [Theory]
    [InlineData("name", "", "The name is missing")]
    [InlineData("name", "Brake fluid", "This model has “Brake fluid” already")]
    [InlineData("page", "", "The page or place in it is missing")]
    [InlineData("points", "Washer fluid: lots", "does not say what passes")]
    [InlineData("every", "10 bananas", "Type such as")]
    [InlineData("every", "3", "3 km cannot be")]
    [InlineData("months", "900", "is no number of months")]
    [InlineData("where", "7", "Choose one of the four")]
    [InlineData("where", "roof", "Choose one of the four")]
    public async Task What_is_wrong_stands_beside_its_field_and_nothing_is_lost(string field, string typed, string says)
    {
        if (typed == "Brake fluid")
            typed = "Engine oil and filter";
        await Make((field, typed));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, _iona.Status);
        Assert.Contains(says.Replace("Brake fluid", "Engine oil and filter"), _iona.Page.QuerySelector($"#problem-{field}")!.TextContent);
        Assert.Equal(field == "book" ? typed : "Owner's handbook", _iona.Page.QuerySelector("#book")!.GetAttribute("value"));
    }

    [Fact]
    public async Task Neither_distance_nor_months_is_asked_about_and_a_second_change_is_told()
    {
        await Make(("every", ""), ("months", ""));
        Assert.Contains("nowhere how often", _iona.Text);
        await Make(("every", ""));
        await _iona.Get("/library/lumen-ardent/own/own-1");
        var una = await _host.SignedIn("una");
        await una.Get("/library/lumen-ardent/own/own-1");
        await una.Submit(".own-form", ("name", "By Una"), ("points", "Hoses"), ("where", "top"));
        await _iona.Submit(".own-form", ("name", "By Iona"), ("points", "Hoses"), ("where", "top"));
        Assert.Equal(HttpStatusCode.Conflict, _iona.Status);
        Assert.Contains("Somebody has changed or removed this list meanwhile", _iona.Text);
        Assert.Equal("By Iona", _iona.Page.QuerySelector("#name")!.GetAttribute("value"));
        Assert.Equal(HttpStatusCode.NotFound, await _iona.Get("/library/lumen-ardent/own/own-9"));
    }

    [Fact]
    public async Task Who_only_looks_changes_nothing()
    {
        var desk = await _host.SignedIn("desk");
        await desk.Get("/library/lumen-ardent/own");
        Assert.Null(desk.Page.QuerySelector(".own-do"));
        await desk.Submit(".own-form", Half);
        Assert.Empty(_host.Services.GetRequiredService<OwnListStore>().Of("lumen-ardent"));
    }

    [Fact]
    public async Task A_vehicle_with_a_rule_of_its_own_has_its_card_opened()
    {
        await _host.Services.GetRequiredService<VehicleStore>().SetRule("HD-04", "cabin-filter",
            new ServiceInterval(Quantity<Distance>.Of(5_000, Distance.Kilometre), 6));
        await _iona.Get("/intake?plate=HD-04");
        await _iona.Submit("main form", ("plate", "HD-04"), ("odometer", "121900"), ("job", "cabin-filter"), ("bay", "Bay 1"));
        Assert.StartsWith("/lift/", _iona.Address.AbsolutePath);
    }

    [Fact]
    public async Task Whoever_takes_a_card_over_reads_how_it_stands()
    {
        var una = await _host.SignedIn("una");
        await una.Get("/lift/1058");
        Assert.Contains("Iona R. worked here last", una.Text);
        await una.Get("/stands/1058");
        Assert.Equal("Unscrew the oil filter cap, chute under it", una.Heading);
        Assert.Contains("10 open", una.Text);
        Assert.Contains("1 running Oil runs out", una.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await una.Submit(".stands-leave", ("text", " ")));
        Assert.Contains("The word is missing", una.Page.QuerySelector("#problem-text")!.TextContent);
        await una.Submit(".stands-leave", ("text", "Tray screw 2: new one on the bench"));
        await _iona.Get("/stands/1058");
        Assert.Contains("“Tray screw 2: new one on the bench” Una B.", _iona.Text);
        await _iona.Get("/handover/1058");
        Assert.Contains("Word for whoever goes on: Tray screw 2", _iona.Text);
        // Una has worked on it now, if only in words.
        await una.Get("/lift/1058");
        Assert.DoesNotContain("worked here last", una.Text);
        Assert.Equal(HttpStatusCode.NotFound, await una.Get("/stands/999999"));
        await una.Get("/stands/1003");
        Assert.Equal("/record/1003", una.Address.AbsolutePath);
    }

    [Fact]
    public async Task The_drawing_is_shown_large_where_there_is_one()
    {
        await _iona.Get("/lift/1058?step=tighten-drain-plug&panel=map");
        Assert.NotNull(_iona.Page.QuerySelector(".map-near .map-here"));
        Assert.Single(_iona.Page.QuerySelectorAll(".map"));
        await _iona.Get("/lift/1058?step=fit-filter&panel=map");
        Assert.Null(_iona.Page.QuerySelector(".map-near"));
    }

    [Fact]
    public async Task A_wrong_answer_as_a_part_goes_in_says_what_to_do_and_leaves_the_answers_there()
    {
        foreach (var said in WorkshopHost.FilterGoesIn().Take(2))
        {
            said["command"] = Guid.NewGuid();
            await _iona.Api(HttpMethod.Post, "/api/v1/cards/1058/commands", said, await _iona.Token());
        }
        await _iona.Get("/lift/1058");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await _iona.Submit("button[value='still in the cap']"));
        Assert.Contains("Take it out first: two rings leak.", _iona.Text);
        await _iona.Submit("button[value='out of the cap, in my hand']");
        Assert.Equal("Click the new cartridge into the cap, stud into its hole", _iona.Heading);
        await _iona.Get("/handover/1058");
        Assert.Contains("New ring into the upper groove of the cap, wetted with oil: out of the cap, in my hand", _iona.Text);
    }
}
