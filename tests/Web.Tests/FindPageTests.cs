using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>Whatever was written down is found from every page.</summary>
public sealed class FindPageTests : InTheDemo
{
    private IEnumerable<string> Links(string section) => Me.Page.QuerySelectorAll($"section[aria-label='{section}'] a.found-one")
        .Select(a => a.GetAttribute("href")!);

    [Fact]
    public async Task Every_page_leads_there()
    {
        foreach (var address in new[] { "/", "/stores", "/library", "/vehicle/HD-07", "/lift/1058", "/intake", "/record/1048" })
        {
            await Me.Get(address);
            Assert.Equal("/find", Me.Page.QuerySelector("[data-key='/']")?.GetAttribute("href"));
        }
    }

    [Fact]
    public async Task Vehicles_cards_parts_words_and_people_lead_to_their_pages()
    {
        await Me.Get("/find?q=hd07");
        Assert.Equal(["/vehicle/HD-07"], Links("Vehicles"));
        Assert.Contains("/record/1048", Links("Cards"));
        await Me.Get("/find?q=1058");
        Assert.Equal(["/lift/1058"], Links("Cards"));
        await Me.Get("/find?q=tc-0621");
        Assert.Contains("/stores?q=TC0621F", Links("Parts"));
        await Me.Get("/find?q=washer box");
        Assert.NotEmpty(Links("Written on cards"));
        await Me.Get("/find?q=effie");
        Assert.Empty(Links("People"));
        Assert.Contains("Effie S.", Me.Text);
        var una = await Host.SignedIn("una");
        await una.Get("/find?q=effie");
        Assert.Contains("/people", una.Page.QuerySelectorAll("a.found-one").Select(a => a.GetAttribute("href")));
        await una.Get("/people");
        Assert.Equal("People", una.Heading);
    }

    [Fact]
    public async Task A_batch_names_the_vehicles_that_got_of_it()
    {
        var (shelf, cards) = (Host.Services.GetRequiredService<ShelfStore>(), Host.Services.GetRequiredService<CardStore>());
        var iona = new Person("iona", "Iona R.", Role.Technician);
        var twenty = Quantity<Volume>.Of(20, Volume.Litre);
        await shelf.Receive(new(0, "Gannet Lowash 5W-30", twenty, twenty, Volume.Litre, null, "M-2207"), iona, Host.Clock.GetUtcNow());
        await Me.Get("/find?q=m2207");
        Assert.Contains("No card took of it.", Me.Text);
        // The van in bay 2 is filled, by the usual presses, out of what is open or comes first; then out of the new can alone.
        foreach (var can in shelf.Read().Containers.Where(c => c.Product == "Gannet Lowash 5W-30" && c.Batch != "M-2207"))
            await shelf.BringIn(new([], [can with { Left = default }], [], []), iona, Host.Clock.GetUtcNow());
        var card = cards.Find(1058)!;
        for (var at = Host.Clock.GetUtcNow(); !card.History.Any(h => h.Event is Poured) && card.Next is { } step;)
        {
            at += TimeSpan.FromMinutes(40);
            card = (await cards.Handle(1058, Guid.NewGuid(), Core.Rehearsal.UsualPress.Of(card, step), iona, at))!.Card;
        }
        await Me.Get("/find?q=m2207");
        Assert.Equal(["/lift/1058"], Me.Page.QuerySelectorAll(".went a").Select(a => a.GetAttribute("href")));
        Assert.Contains("HD-08", Me.Page.QuerySelector(".went")!.TextContent);
    }

    [Theory]
    [InlineData("")]
    [InlineData("   ")]
    [InlineData("\"")]
    [InlineData("* OR : NEAR(")]
    [InlineData("{kind} : ^x AND NOT")]
    [InlineData("-")]
    public async Task Whatever_is_typed_is_looked_for_and_is_never_a_command(string typed)
    {
        await Me.Get($"/find?q={Uri.EscapeDataString(typed)}");
        Assert.Equal(System.Net.HttpStatusCode.OK, Me.Status);
        Assert.Empty(Me.Page.QuerySelectorAll(".found li"));
        if (typed.Any(char.IsLetterOrDigit))
            Assert.Contains("Nothing has", Me.Text);
    }
}
