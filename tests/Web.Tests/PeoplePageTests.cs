using System.Net;
using Anakyklos.Core.Cards;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>Who works here: PINs, roles, who comes and goes, and what each of that does to screens that are signed in.</summary>
public sealed class PeoplePageTests() : InTheDemo("una")
{
    private static readonly PinPlace Elsewhere = new("", "203.0.113.9");

    private PeopleStore People => Host.Services.GetRequiredService<PeopleStore>();

    private PeopleDesk Desk => Host.Services.GetRequiredService<PeopleDesk>();

    [Fact]
    public async Task One_changes_ones_own_pin_and_is_signed_out_everywhere_else()
    {
        var (here, there) = (await Host.SignedIn("iona"), await Host.SignedIn("iona"));
        await here.Get("/you");
        await here.Submit("form[action*='Pin']", ("old", "1111"), ("pin", "97531"), ("again", "97531"));
        Assert.Contains("That PIN is not right", here.Text);
        await here.Submit("form[action*='Pin']", ("old", "2468"), ("pin", "97"), ("again", "98"));
        Assert.Contains("four to twelve digits", here.Text);
        Assert.Contains("The two PINs differ", here.Text);
        await here.Submit("form[action*='Pin']", ("old", "2468"), ("pin", "97531"), ("again", "97531"));
        Assert.Contains("The PIN is changed", here.Text);
        await here.Get("/");
        Assert.Equal("/", here.Address.AbsolutePath);
        await there.Get("/");
        Assert.Equal("/signin", there.Address.AbsolutePath);
        Assert.Null((await Desk.Try("iona", "2468", Elsewhere)).Member);
        Assert.NotNull((await Desk.Try("iona", "97531", new("", ""))).Member);
    }

    [Fact]
    public async Task The_lead_gives_a_pin_a_role_lets_go_and_takes_back_and_it_holds_at_the_next_request()
    {
        var tavish = await Host.SignedIn("tavish");
        await Me.Get("/people");
        await Give("Pin", "tavish", ("pin", "8642"), ("again", "8642"));
        await tavish.Get("/");
        Assert.Equal("/signin", tavish.Address.AbsolutePath);
        await tavish.Submit("form", ("person", "tavish"), ("pin", "8642"));
        await Give("Role", "tavish", ("role", "Stores"));
        await tavish.Get("/");
        Assert.Equal("/signin", tavish.Address.AbsolutePath);
        await tavish.Submit("form", ("person", "tavish"), ("pin", "8642"));
        await tavish.Get("/intake");
        Assert.Equal("Not with your role", tavish.Heading);

        await Give("Go", "tavish");
        Assert.Equal(HttpStatusCode.Unauthorized, await tavish.Get("/api/v1/session"));
        await tavish.Get("/");
        Assert.DoesNotContain("Tavish", tavish.Text);
        Assert.Null((await Desk.Try("tavish", "8642", Elsewhere)).Member);
        // Their name still stands where they did something.
        Assert.Contains("gone since 9 March 2026", Me.Text);
        await Give("Back", "tavish");
        Assert.NotNull((await Desk.Try("tavish", "8642", Elsewhere)).Member);
    }

    [Fact]
    public async Task Whoever_leads_alone_stays_and_a_role_is_one_of_the_list()
    {
        await Me.Get("/people");
        await Give("Role", "una", ("role", "Technician"));
        Assert.Contains("Nobody would be left who leads", Me.Text);
        Assert.Equal(Role.Lead, People.Find("una")!.Role);
        foreach (var none in new[] { "99", "1", "technician", "Captain", "" })
        {
            await Me.Get("/people");
            Assert.Equal(HttpStatusCode.UnprocessableEntity,
                await Me.Submit("form[action*='Add']", ("name", $"New {none}"), ("pin", "135790"), ("role", none)));
            Assert.Contains("There is no such role", Me.Text);
            await Give("Role", "iona", ("role", none));
            Assert.Equal(Role.Technician, People.Find("iona")!.Role);
        }
        Assert.Equal(5, People.All().Count);
    }

    [Fact]
    public async Task Others_neither_see_nor_change_people_and_trail()
    {
        foreach (var person in new[] { "iona", "effie", "desk" })
        {
            var other = await Host.SignedIn(person);
            foreach (var page in new[] { "/people", "/trail", "/workshop", "/equipment" })
            {
                await other.Get(page);
                Assert.Equal("Not with your role", other.Heading);
            }
            await other.Get("/you");
            var id = other.Page.QuerySelector("[name=form-id]")!.GetAttribute("value")!;
            var token = other.Page.QuerySelector("[name=__RequestVerificationToken]")!.GetAttribute("value")!;
            Assert.Equal(HttpStatusCode.Forbidden, await other.Post("/people?handler=Role", ("person", person), ("role", "Lead"),
                ("form-id", id), ("__RequestVerificationToken", token)));
            Assert.NotEqual(Role.Lead, People.Find(person)!.Role);
        }
    }

    [Fact]
    public async Task Signing_out_ends_the_session_whoever_has_a_copy_of_its_cookie()
    {
        var iona = await Host.SignedIn("iona");
        var thief = iona.Copy();
        await thief.Get("/");
        Assert.Equal("/", thief.Address.AbsolutePath);
        await iona.Get("/you");
        await iona.Submit("form[action*='out']");
        await thief.Get("/");
        Assert.Equal("/signin", thief.Address.AbsolutePath);
    }

    [Fact]
    public async Task Wrong_pins_count_over_all_addresses_and_nobody_is_locked_out_where_they_work()
    {
        var iona = await Host.SignedIn("iona");
        // Each from another address: they are one count all the same.
        for (var i = 0; i < 8; i++)
            await People.BookAttempt("iona", "", $"198.51.100.{i}", false, TimeProvider.System.GetUtcNow());
        Assert.Contains("15 minutes", (await Desk.Try("iona", "2468", new("", "198.51.100.200"))).Problem);
        var stranger = Host.NewBrowser();
        await stranger.Get("/signin");
        await stranger.Submit("form", ("person", "iona"), ("pin", "2468"));
        Assert.Contains("Too many wrong PINs", stranger.Text);
        // Where she was signed in before she comes in.
        await iona.Get("/you");
        await iona.Submit("form[action*='out']");
        await iona.Get("/signin");
        await iona.Submit("form", ("person", "iona"), ("pin", "2468"));
        Assert.Equal("/", iona.Address.AbsolutePath);
        // That says nothing for Tavish at this browser, and nothing for her elsewhere.
        Assert.Contains("15 minutes", (await Desk.Try("iona", "2468", Elsewhere)).Problem);
        // A PIN that the lead gives opens at once.
        await Me.Get("/people");
        await Give("Pin", "iona", ("pin", "4444"), ("again", "4444"));
        Assert.NotNull((await Desk.Try("iona", "4444", Elsewhere)).Member);
        Assert.Equal("Choose who you are.", (await Desk.Try("nobody", "2468", Elsewhere)).Problem);
    }

    [Theory]
    [InlineData(0, 0)]
    [InlineData(2, 0)]
    [InlineData(3, 2)]
    [InlineData(7, 32)]
    [InlineData(8, 900)]
    [InlineData(19, 900)]
    [InlineData(20, 3600)]
    [InlineData(5000, 3600)]
    public void The_pause_grows_with_wrong_pins(int failures, int seconds) =>
        Assert.Equal(TimeSpan.FromSeconds(seconds), PeopleDesk.Pause(failures));

    [Fact]
    public void All_pins_of_four_digits_take_longer_than_a_year()
    {
        var (left, tries) = (TimeSpan.FromDays(365), 0);
        for (; left > TimeSpan.Zero; tries++)
            left -= PeopleDesk.Pause(tries);
        Assert.InRange(tries, 8_000, 9_000);
    }

    [Fact]
    public async Task Six_digits_may_be_asked_for_and_a_shorter_pin_leads_to_where_it_is_changed()
    {
        await Me.Get("/people");
        await Me.Submit("form[action*='Digits']");
        Assert.Contains("six digits at least", Me.Text);
        await Me.Submit("form[action*='Add']", ("name", "Gus"), ("pin", "1234"), ("role", "Viewer"));
        Assert.Contains("six to twelve digits", Me.Text);
        var iona = await Host.SignedIn("iona");
        Assert.Equal("/you", iona.Address.AbsolutePath);
        Assert.Contains("asks for PINs of six digits", iona.Text);
        await iona.Submit("form[action*='Pin']", ("old", "2468"), ("pin", "135790"), ("again", "135790"));
        Assert.Contains("The PIN is changed", iona.Text);
    }

    [Fact]
    public async Task The_trail_tells_who_came_in_what_was_refused_and_what_was_changed()
    {
        var iona = Host.NewBrowser();
        await iona.Get("/signin");
        await iona.Submit("form", ("person", "iona"), ("pin", "1111"));
        await iona.Submit("form", ("person", "iona"), ("pin", "2468"));
        await Me.Get("/people");
        await Give("Role", "tavish", ("role", "Viewer"));
        await Give("Pin", "effie", ("pin", "8642"), ("again", "8642"));
        await Me.Get("/workshop");
        await Me.Submit("form[action*='Weather']", ("coldest", "-20"), ("hottest", "30"));
        await Me.Get("/files/vehicles.csv");
        await Me.Get("/trail");
        foreach (var told in new[] { "refused PIN", "Iona R. signed in", "Tavish M.: role: technician → viewer", "Effie S.: another PIN",
            "coldest: -12 → -20", "taken out /files/vehicles.csv" })
            Assert.Contains(told, Me.Text);
        Assert.DoesNotContain("AQAAAA", Me.Text); // how a hash of a PIN begins
        Assert.Contains("Una B. person Tavish M.: role", Me.Text);
        var pages = 0;
        for (; Me.Page.QuerySelector("a[href^='?before=']")?.GetAttribute("href") is { } before && pages < 20; pages++)
            await Me.Get("/trail" + before);
        Assert.Contains("Una B. came in as lead", Me.Text);
    }

    private async Task Give(string handler, string person, params (string, string)[] typed)
    {
        var form = Me.Page.QuerySelectorAll($"form[action*='handler={handler}']")
            .First(f => f.QuerySelector("[name=person]")!.GetAttribute("value") == person);
        form.SetAttribute("data-now", "");
        await Me.Submit("form[data-now]", typed);
    }
}
