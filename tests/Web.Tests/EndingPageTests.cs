using System.Net;

namespace Anakyklos.Web.Tests;

/// <summary>The ends of a card by page: made void by two, and a record that is amended beside.</summary>
public sealed class EndingPageTests : InTheDemo
{
    private const int Ready = 1057;
    private const string Amend = "form[action='?handler=amend']";

    [Fact]
    public async Task A_card_is_made_void_by_whoever_asks_and_another_with_a_pin()
    {
        // HD-16's card: its kit is not laid out yet.
        await Me.Get("/handover/1056");
        await Me.Submit("form[action='?handler=void']", ("reason", "Wrong motorcycle"));
        Assert.Contains("To be made void", Me.Text);
        var counter = Me.Page.QuerySelector("form[action='?handler=countersign']")!;
        Assert.DoesNotContain(counter.QuerySelectorAll("option"), o => o.GetAttribute("value") == "iona");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("form[action='?handler=countersign']", ("who", "una"),
            ("pin", "1")));
        await Me.Get("/");
        Assert.Contains("to be made void, second name", Me.Text);
        await Me.Get("/lift/1056");
        Assert.Contains("To be made void: Wrong motorcycle.", Me.Text);
        await Me.Get("/handover/1056");
        await Me.Submit("form[action='?handler=countersign']", ("who", "una"), ("pin", "2468"));
        Assert.Equal("/record/1056", Me.Address.AbsolutePath);
        Assert.Contains("Made void by Una B.", Me.Text);
        Assert.Contains("Asked for by Iona R.", Me.Text);
        // A card that came to nothing has nothing to put right, and no other command is said at a record.
        Assert.Null(Me.Page.QuerySelector(Amend));
    }

    [Fact]
    public async Task A_record_is_amended_with_a_pin_beside_the_line_it_corrects()
    {
        await Me.Get($"/handover/{Ready}");
        await Me.Submit("form[action='?handler=sign']", ("pin", "2468"));
        await Me.Get($"/record/{Ready}");
        var filter = Me.Page.QuerySelector("#amend-line option")!;
        var (line, words) = (filter.GetAttribute("value")!, "CF-8806-D went in, the box is here");
        foreach (var (pin, problem) in new[] { ("", "PIN is missing"), ("1357", "not right") })
        {
            Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(Amend, ("line", line), ("words", words), ("pin", pin)));
            Assert.Contains(problem, Me.Page.QuerySelector(".amend [role=alert]")!.TextContent);
            Assert.Equal(words, Me.Page.QuerySelector("#amend-words")!.GetAttribute("value"));
            Assert.True(Me.Page.QuerySelector(".amend")!.HasAttribute("open"));
        }
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(Amend, ("line", line), ("words", ""), ("pin", "2468")));
        await Me.Submit(Amend, ("line", line), ("words", words), ("who", "una"), ("pin", "2468"));
        var row = Me.Page.QuerySelectorAll("td").Single(d => d.TextContent.Contains(words));
        Assert.Contains("Una B.", row.TextContent);
        Assert.Contains(filter.TextContent, row.TextContent);
        Assert.Contains("Signed by Iona R.", Me.Text);
        // Who only looks is not offered it.
        var desk = await Host.SignedIn("desk");
        await desk.Get($"/record/{Ready}");
        Assert.Null(desk.Page.QuerySelector(Amend));
    }

    [Fact]
    public async Task Nothing_but_an_amendment_is_said_at_a_record_and_none_at_hand_over()
    {
        await Me.Get($"/handover/{Ready}");
        Me.Page.QuerySelector("form[action='?handler=sign']")!.SetAttribute("action", "?handler=amend");
        Assert.Equal(HttpStatusCode.NotFound, await Me.Submit(Amend, ("line", "odometer"), ("words", "More"), ("pin", "2468")));
        await Me.Get($"/handover/{Ready}");
        await Me.Submit("form[action='?handler=sign']", ("pin", "2468"));
        Me.Page.QuerySelector(Amend)!.SetAttribute("action", "?handler=word");
        Assert.Equal(HttpStatusCode.NotFound, await Me.Submit("form[action='?handler=word']", ("text", "Hello there")));
    }
}
