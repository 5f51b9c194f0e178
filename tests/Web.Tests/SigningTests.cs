using System.Net;
using System.Text.Json.Nodes;

namespace Anakyklos.Web.Tests;

/// <summary>A name is put to a card by whoever types their own PIN, each time, by page and by API alike.</summary>
public sealed class SigningTests : InTheDemo
{
    // HD-02's card of the demo, at which nothing is open.
    private const int Ready = 1057;
    private const string Sign = "form[action='?handler=sign']";

    [Fact]
    public async Task Without_the_pin_or_with_a_wrong_one_it_is_not_signed()
    {
        await Me.Get($"/handover/{Ready}");
        foreach (var (pin, says) in new[] { ("", "The PIN is missing."), ("9999", "That PIN is not right.") })
        {
            Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(Sign, ("pin", pin)));
            Assert.Contains(says, Me.Page.QuerySelector(".sign [role=alert]")!.TextContent);
            Assert.Contains("Nothing is open", Me.Heading);
        }
        await Me.Submit(Sign, ("pin", "2468"));
        Assert.Equal($"/record/{Ready}", Me.Address.AbsolutePath);
        Assert.Contains("Signed by Iona R.", Me.Text);
    }

    [Fact]
    public async Task Who_signs_may_be_another_than_who_worked_and_both_are_named()
    {
        await Me.Get($"/handover/{Ready}");
        await Me.Submit(Sign, ("who", "una"), ("pin", "2468"));
        Assert.Contains("Signed by Una B.", Me.Text);
        Assert.Matches("worked by [A-Z]", Me.Text);
        Assert.DoesNotContain("worked by Una B.;", Me.Text);
    }

    [Fact]
    public async Task What_stands_in_the_way_is_told_before_any_pin_and_no_other_page_signs()
    {
        await Me.Get("/handover/1058");
        Assert.Equal(HttpStatusCode.Conflict, await Me.Submit(Sign));
        Assert.Contains("It cannot be signed yet.", Me.Text);
        Assert.DoesNotContain("PIN is missing", Me.Text);
        await Me.Get("/lift/1058");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await SignAtTheLift());
        Assert.Contains("That is said at hand-over.", Me.Text);
    }

    [Fact]
    public async Task The_api_asks_for_it_too()
    {
        Assert.Equal((HttpStatusCode.UnprocessableEntity, "pin"), await Say(new { say = "sign", command = Guid.NewGuid() }));
        Assert.Equal((HttpStatusCode.UnprocessableEntity, "pin"),
            await Say(new { say = "sign", command = Guid.NewGuid(), who = "una", pin = "1111" }));
        Assert.Equal((HttpStatusCode.UnprocessableEntity, "pin"),
            await Say(new { say = "sign", command = Guid.NewGuid(), who = "nobody", pin = "2468" }));
        // A PIN belongs to what wants one, and to nothing else.
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Say(new { say = "order", command = Guid.NewGuid(), pin = "2468" })).Status);
        // Stores look, and sign nothing.
        foreach (var (who, status) in new[] { ("effie", HttpStatusCode.Forbidden), ("una", HttpStatusCode.OK) })
            Assert.Equal(status, (await Say(new { say = "sign", command = Guid.NewGuid(), who, pin = "2468" })).Status);
    }

    private Task<HttpStatusCode> SignAtTheLift()
    {
        Me.Page.QuerySelector(".lift-main form")!.SetAttribute("action", "?handler=sign");
        return Me.Submit(".lift-main form");
    }

    private async Task<(HttpStatusCode Status, string? Field)> Say(object said)
    {
        var answer = await Me.Api(HttpMethod.Post, $"/api/v1/cards/{Ready}/commands", said, await Me.Token());
        return (Me.Status, (answer["reasons"] as JsonArray)?[0]?["field"]?.GetValue<string>());
    }
}
