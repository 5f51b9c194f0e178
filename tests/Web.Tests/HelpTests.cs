using System.Net;
using Anakyklos.Core.Cards;
using Anakyklos.Web.Wording;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Tests;

/// <summary>Help on every page, how the card thinks, and a first card for whoever tries things.</summary>
public sealed class HelpTests() : InTheDemo("una")
{
    [Fact]
    public void Somebody_wrote_for_every_page()
    {
        var root = typeof(Pages.IndexModel).Namespace!;
        var pages = typeof(Pages.IndexModel).Assembly.GetTypes().Where(t => t.IsSubclassOf(typeof(PageModel)) && !t.IsAbstract)
            .Select(t => t.FullName![root.Length..^"Model".Length].Replace('.', '/'))
            .Concat(["/Plan", "/Stands"]).ToList();
        Assert.DoesNotContain(pages, p => HelpTopics.Of(p) is null);
        Assert.Equal(HelpTopics.All.Count, HelpTopics.All.Select(t => t.Id).Distinct().Count());
        Assert.All(HelpTopics.All, t => Assert.True(t.For.Length > 20 && t.Lines.All(l => l.What.Length > 0 && l.How.Length > 5), t.Id));
    }

    [Theory]
    [InlineData("/", "yard")]
    [InlineData("/intake?plate=HD-07", "intake")]
    [InlineData("/lift/1058", "lift")]
    [InlineData("/handover/1057", "handover")]
    [InlineData("/plan/1058", "plan")]
    [InlineData("/stands/1058", "stands")]
    [InlineData("/stores", "stores")]
    [InlineData("/vehicle/HD-07", "vehicle")]
    [InlineData("/practice", "practice")]
    [InlineData("/tokens", "programs")]
    [InlineData("/signin", "sign-in")]
    public async Task The_mark_on_a_page_leads_to_what_is_said_of_it(string page, string topic)
    {
        await Me.Get(page);
        var mark = Me.Page.QuerySelector("header .help-mark")!;
        Assert.Equal($"/help/{topic}", mark.GetAttribute("href"));
        Assert.Equal(HttpStatusCode.OK, await Me.Get(mark.GetAttribute("href")!));
        Assert.Equal(HelpTopics.Find(topic)!.Title, Me.Heading);
    }

    [Fact]
    public async Task What_nobody_wrote_is_not_there_and_all_that_was_is_listed()
    {
        Assert.Equal(HttpStatusCode.NotFound, await Me.Get("/help/nothing"));
        Assert.Equal(HttpStatusCode.OK, await Me.Get("/help"));
        foreach (var link in Me.Page.QuerySelectorAll(".help-topics a").Select(a => a.GetAttribute("href")!).ToList())
            Assert.Equal((link, HttpStatusCode.OK), (link, await Me.Get(link)));
    }

    [Fact]
    public async Task How_the_card_thinks_is_what_a_card_says_while_it_is_worked()
    {
        await Me.Get("/help/how-the-card-thinks");
        var rings = Me.Page.QuerySelectorAll(".thinks-rings .ring-count").Select(c => int.Parse(c.TextContent.Trim())).ToList();
        Assert.Equal(2, rings.Count);
        Assert.True(rings[0] < rings[1]);
        var rows = Me.Page.QuerySelectorAll(".thinks-open tbody tr");
        Assert.Equal(rings[1], rows.Length);
        Assert.All(rows, r => Assert.True(r.Children[2].TextContent.Trim().Length > 3));
        Assert.Contains("still open", Me.Page.QuerySelector(".thinks-says")!.TextContent);
        Assert.NotNull(Me.Page.QuerySelector("#gates ~ .thinks-says"));
    }

    [Fact]
    public async Task In_a_workshop_of_ones_own_it_is_worked_on_a_model_that_lies_there_for_practice()
    {
        await using var host = await WorkshopHost.Empty();
        var lead = await host.FirstLead();
        Assert.Equal(HttpStatusCode.OK, await lead.Get("/help/how-the-card-thinks"));
        Assert.Equal(3, lead.Page.QuerySelectorAll(".thinks-rings svg").Length);
        // Nobody is guided along a made-up vehicle there.
        await lead.Get("/");
        Assert.Null(lead.Page.QuerySelector(".guide-begins"));
        Assert.NotEqual(HttpStatusCode.OK, await lead.Post("/?handler=Guide", ("form-id", $"{Guid.NewGuid()}")));
    }

    [Fact]
    public async Task A_first_card_is_opened_once_told_beside_its_steps_and_for_this_browser_only()
    {
        var iona = await Host.SignedIn();
        await iona.Get("/");
        await iona.Submit(".guide-begins");
        var card = iona.Address.AbsolutePath;
        Assert.StartsWith("/lift/", card);
        Assert.Contains("held against the list", iona.Page.QuerySelector(".guide")!.TextContent);
        await iona.Get("/");
        await iona.Submit(".guide-begins");
        Assert.Equal(card, iona.Address.AbsolutePath);
        var other = await Host.SignedIn("tavish");
        await other.Get(card);
        Assert.Null(other.Page.QuerySelector(".guide"));
        var desk = await Host.SignedIn("desk");
        await desk.Get("/");
        Assert.Null(desk.Page.QuerySelector(".guide-begins"));
    }

    [Fact]
    public void A_word_is_said_at_the_first_step_of_its_kind_only()
    {
        var sheet = Anakyklos.Core.Sheets.SheetReader.Read(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets",
            "hespin-16.json"))).Sheet!;
        var said = new List<string>();
        foreach (var card in Anakyklos.Core.Rehearsal.CardWalk.Along(sheet, ["air-filter"]))
            if (card.Next is { } step && GuideWords.Of(card, step) is { Length: > 0 } && (said.Count == 0 || said[^1] != step.Id.Text))
                said.Add(step.Id.Text);
        Assert.Equal(["lay-out-kit", "bonnet-off", "look-at-old-air-filter", "vacuum-air-box", "fit-air-filter", "air-mass-sensor-on",
            "clear-top"], said);
    }
}
