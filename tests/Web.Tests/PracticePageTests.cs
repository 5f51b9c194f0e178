using System.Net;
using System.Text;
using Anakyklos.Core.Cards;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>The practice bay in the browser: who may what, what is refused, and that nothing of it is found anywhere else.</summary>
public sealed class PracticePageTests() : InTheDemo("tavish")
{
    private const string Lesson = "ring-that-stayed-on";

    private PracticeStore Runs => Host.Services.GetRequiredService<PracticeStore>();

    private async Task<long> Begin(string lesson = Lesson, Browser? who = null)
    {
        who ??= Me;
        await who.Get($"/practice/lesson/{lesson}");
        Assert.Equal(HttpStatusCode.OK, await who.Submit("form[action='?handler=Begin']"));
        Assert.StartsWith("/lift/9", who.Address.AbsolutePath);
        return long.Parse(who.Address.AbsolutePath.Split('/')[2], System.Globalization.CultureInfo.InvariantCulture);
    }

    // Fields of a hand that is on the page; another choice is put in its place.
    private static async Task<HttpStatusCode> Do(Browser who, long run, string thing, string choice, string typed = "")
    {
        await who.Get($"/lift/{run}?thing={thing}");
        return await who.Submit(".bay-vehicle form[action*='handler=Do']", ("choice", choice), ("typed", typed));
    }

    // All that the workshop has of real vehicles.
    private string Real()
    {
        var cards = Host.Services.GetRequiredService<CardStore>();
        var shelf = Host.Services.GetRequiredService<ShelfStore>();
        return string.Join(' ', cards.Unsigned().Count, cards.LastSigned(int.MaxValue).Count, shelf.Book(int.MaxValue).Count,
            Host.Services.GetRequiredService<VehicleStore>().All().Count, string.Join(',', shelf.Read().Parts.Select(p => p.Free)),
            string.Join(',', shelf.Read().Containers.Select(c => $"{c.Left}")));
    }

    [Fact]
    public async Task A_run_goes_from_the_road_to_the_look_back_and_is_told_again()
    {
        var real = Real();
        await Me.Get("/practice");
        Assert.Contains("0 of 22 rings closed", Me.Text);
        var run = await Begin();
        Assert.NotNull(Me.Page.QuerySelector(".practice-mark"));
        Assert.Equal(HttpStatusCode.OK, await Do(Me, run, "access:wheel-chocks", "access:wheel-chocks/set"));
        Assert.Contains("sets: wheel chocks", Me.Text);
        await Me.Get($"/lift/{run}");
        Assert.Equal(HttpStatusCode.OK, await Me.Submit("form[action*='handler=Wait']", ("minutes", "5")));
        // The card is told before anything is laid out: it takes what it is told, and the look back knows better.
        await Me.Get($"/lift/{run}");
        Assert.Equal(HttpStatusCode.OK, await Me.Submit("#kit", ("pan", "20 L")));
        for (var press = 0; press < 3; press++)
            Assert.Equal(HttpStatusCode.OK, await Me.Submit(".lift-main form"));
        await Me.Get($"/practice/{run}/handover");
        Assert.Contains("Not yet to be signed", Me.Heading);
        Assert.Equal(HttpStatusCode.Conflict, await Me.Submit("form[action='?handler=Sign']"));
        Assert.Equal(HttpStatusCode.OK, await Me.Submit("form[action*='handler=End']"));
        Assert.Equal($"/practice/{run}/debrief", Me.Address.AbsolutePath);
        Assert.Contains("The ring was not closed", Me.Heading);
        Assert.Contains("nobody had taken the bonnet off", Me.Text);
        Assert.Contains("not seen", Me.Text);
        await Me.Get($"/practice/{run}/replay?at=1");
        Assert.Contains("Tavish M. sets: wheel chocks", Me.Heading);
        for (var at = 2; Me.Page.QuerySelector(".answers a.main") is { } next; at++)
        {
            await Me.Get($"/practice/{run}/replay{next.GetAttribute("href")}");
            Assert.Contains($"{at} of ", Me.Text);
        }
        Assert.Equal(HttpStatusCode.OK, Me.Status);
        await Me.Get($"/lift/{run}");
        Assert.Equal(HttpStatusCode.Conflict, await Me.Submit(".lift-main form"));
        Assert.Equal(real, Real());
        await Me.Get("/find?q=PRACTICE");
        Assert.DoesNotContain($"{run}", Me.Text);
        await Me.Get("/");
        Assert.DoesNotContain("PRACTICE", Me.Text);
    }

    [Fact]
    public async Task What_cannot_be_done_there_is_refused_in_words_and_leads_back()
    {
        var run = await Begin();
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Do(Me, run, "lift", "fastener:engine-drain-plug/undo"));
        Assert.Contains("cannot be done from where you stand", Me.Text);
        Assert.NotNull(Me.Page.QuerySelector($"a[href='/lift/{run}']"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Do(Me, run, "tyres", "tyres/set", "a lot"));
        Assert.Equal("a lot", Me.Page.QuerySelector("input[name=typed]")!.GetAttribute("value"));
        Assert.Equal(HttpStatusCode.OK, await Me.Submit("main form", ("typed", "2.4 bar")));
        await Me.Get($"/lift/{run}");
        Assert.Equal(HttpStatusCode.Conflict, await Me.Submit("form[action*='handler=Wait']", ("minutes", "9999")));
        await Me.Get($"/lift/{run}");
        Assert.Equal(HttpStatusCode.Conflict, await Me.Submit("form[action*='handler=Wait']", ("minutes", "")));
        Assert.Contains("Nothing is waited for", Me.Text);
        // Where a form leads back to is a page of this run, whatever is sent.
        await Me.Get($"/lift/{run}?thing=doors");
        await Me.Submit(".bay-vehicle form[action*='handler=Do']", ("choice", "doors/shut"), ("back", "//example.org"));
        Assert.Equal("localhost", Me.Address.Host);
        foreach (var elsewhere in new[] { $"/kit/{run}", $"/api/v1/cards/{run}", $"/putright/{run}",
            "/practice/900000999", "/lift/900000999",
            "/practice/lesson/hologram", "/practice/from/1058/9999" })
        {
            await Me.Get(elsewhere);
            Assert.True(Me.Status == HttpStatusCode.NotFound, $"{elsewhere}: {Me.Status}");
        }
        await Me.Get($"/handover/{run}");
        Assert.Equal($"/practice/{run}/handover", Me.Address.AbsolutePath);
        await Me.Get($"/record/{run}");
        Assert.Equal($"/lift/{run}", Me.Address.AbsolutePath);
        foreach (var real in new[] { "plan", "stands" })
        {
            await Me.Get($"/{real}/{run}");
            Assert.NotNull(Me.Page.QuerySelector(".practice-mark"));
        }
    }

    [Fact]
    public async Task A_run_is_its_own_persons_and_the_leads_to_see_and_nobody_elses()
    {
        var run = await Begin();
        var iona = await Host.SignedIn("iona");
        foreach (var page in new[] { "/lift/{0}", "/practice/{0}", "/practice/{0}/handover", "/plan/{0}", "/stands/{0}" })
        {
            await iona.Get(string.Format(System.Globalization.CultureInfo.InvariantCulture, page, run));
            Assert.True(iona.Status == HttpStatusCode.Forbidden, page);
        }
        var una = await Host.SignedIn("una");
        await una.Get($"/lift/{run}");
        Assert.Equal(HttpStatusCode.OK, una.Status);
        Assert.Equal(HttpStatusCode.Conflict, await una.Submit("#kit", ("pan", "20 L")));
        Assert.Contains("Somebody else practises here", una.Text);
        Assert.Single(Host.Services.GetRequiredService<PracticeDesk>().Run(new(run))!.Card.History);
        await una.Get("/practice");
        Assert.Contains("How everybody stands", una.Text);
        await iona.Get("/practice");
        Assert.DoesNotContain("How everybody stands", iona.Text);
        foreach (var person in new[] { "effie", "desk" })
        {
            var other = await Host.SignedIn(person);
            await other.Get($"/practice/lesson/{Lesson}");
            Assert.Null(other.Page.QuerySelector("form[action='?handler=Begin']"));
            await other.Get("/practice");
            Assert.Null(other.Page.QuerySelector("form[action*='handler=Free']"));
        }
    }

    [Fact]
    public async Task What_an_earlier_version_kept_and_this_one_cannot_do_again_is_said_to_be_so()
    {
        var run = await Begin();
        Assert.True(await Runs.Add(new(run), 0, [new(Host.Clock.GetUtcNow(), new("tavish", "Tavish M.", Role.Technician), "did",
            """{"choice":"part:hologram/polish","typed":""}""")], null));
        var bay = Host.Services.GetRequiredService<PracticeDesk>();
        var tavish = new Person("tavish", "Tavish M.", Role.Technician);
        Assert.Contains("cannot be done again", (await bay.Do(new(run), tavish, "doors/shut", ""))!.What);
        Assert.Contains("Begin the lesson anew", (await bay.End(new(run), tavish))!.Do);
        await Begin();
    }

    [Fact]
    public async Task Two_work_in_one_bay_and_a_third_does_not()
    {
        var run = await Begin("air-in-the-rear-right");
        var (iona, una) = (await Host.SignedIn("iona"), await Host.SignedIn("una"));
        await iona.Get("/practice");
        Assert.Contains("Tavish M. waits for a second person", iona.Text);
        await una.Get("/practice");
        Assert.Equal(HttpStatusCode.OK, await iona.Submit("form[action*='handler=Join']"));
        Assert.Equal(HttpStatusCode.Conflict, await una.Submit("form[action*='handler=Join']"));
        Assert.Equal(HttpStatusCode.OK, await Do(iona, run, "doors", "feet/cab"));
        Assert.Equal(HttpStatusCode.OK, await Do(Me, run, "doors", "doors/shut"));
        await Me.Get($"/lift/{run}");
        Assert.Contains("Iona R. into the cab", Me.Text);
        Assert.Equal("beside it", Me.Page.QuerySelector(".bay-here")!.TextContent);
        await iona.Get($"/lift/{run}");
        Assert.Equal("cab", iona.Page.QuerySelector(".bay-here")!.TextContent);
        Assert.Equal("iona", Runs.Entry(new(run))!.Second!.Value.Text);
        Assert.Equal("2", await iona.FirstMessage($"/api/v1/cards/{run}/changes"));
    }

    [Fact]
    public async Task Practice_without_a_lesson_wants_a_model_a_job_and_how_much_is_wrong()
    {
        await Me.Get("/practice?sheet=corran-fen-12");
        const string Form = "form[action*='handler=Free']";
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(Form));
        Assert.Contains("No job is chosen", Me.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(Form, ("job", "engine-oil-and-filter"), ("faults", "99")));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(Form, ("job", "hologram")));
        Assert.Equal(HttpStatusCode.OK, await Me.Submit(Form, ("job", "engine-oil-and-filter"), ("faults", "several")));
        Assert.StartsWith("/lift/9", Me.Address.AbsolutePath);
        Assert.InRange(Host.Services.GetRequiredService<PracticeDesk>().Run(Runs.All()[0].Id)!.Lesson.Faults.Count, 2, 4);
    }

    [Fact]
    public async Task A_lesson_is_made_of_what_was_noted_on_a_card_without_plate_and_names()
    {
        var cards = Host.Services.GetRequiredService<CardStore>();
        var noted = cards.Find(new(1058))!;
        await cards.Handle(new(1058), Guid.NewGuid(), new NoteFinding(noted.Steps.First(s => s.What == "oil-filter-cap").Id,
            FindingGrade.KeepAnEye, $"Iona saw on {noted.Opened.Plate} that the old ring sat on the cap"),
            new("tavish", "Tavish M.", Role.Technician), Host.Clock.GetUtcNow());
        var seq = cards.Find(new(1058))!.History.Count;
        await Me.Get($"/practice/from/1058/{seq}");
        Assert.Contains("“somebody saw on the vehicle that the old ring sat on the cap”", Me.Text);
        // What can be wrong where it was noted is chosen already.
        Assert.EndsWith("/oil-filter-cap", Me.Page.QuerySelector("#fault option[selected]")!.GetAttribute("value"),
            StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("main form", ("name", "The cap of HD-08")));
        Assert.Contains("What is right is missing", Me.Text);
        Assert.Equal(HttpStatusCode.OK, await Me.Submit("main form", ("name", "The cap of HD-08"), ("fault", "OldRingStays/oil-filter-cap"),
            ("says", "The ring stayed, Iona"), ("right", "Wipe it, look at it.")));
        Assert.Equal("The cap of the vehicle", Me.Heading);
        Assert.DoesNotContain("Iona", await Me.Content(Me.Address.AbsolutePath + "?handler=File"));
        await Begin("own-the-cap-of-the-vehicle");
        var una = await Host.SignedIn("una");
        await una.Get("/practice/lesson/own-the-cap-of-the-vehicle");
        Assert.Equal(HttpStatusCode.OK, await una.Submit("form[action='?handler=GiveUp']"));
        await una.Get("/practice/lesson/own-the-cap-of-the-vehicle");
        Assert.Equal(HttpStatusCode.NotFound, una.Status);
        // What was begun of it goes on.
        await Me.Get("/practice");
        Assert.Contains("The cap of the vehicle", Me.Text);
    }

    [Fact]
    public async Task The_file_of_a_lesson_is_taken_in_or_told_line_by_line()
    {
        await Me.Get("/practice");
        var text = await Me.Content($"/practice/lesson/{Lesson}?handler=File");
        await Me.Get("/practice");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Upload("form[action*='handler=File']", "file", "a.json",
            Encoding.UTF8.GetBytes(text)));
        Assert.Contains("comes with the application", Me.Text);
        await Me.Get("/practice");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Upload("form[action*='handler=File']", "file", "a.json",
            Encoding.UTF8.GetBytes(text.Replace("\"hot\": true", "\"hot\": 7", StringComparison.Ordinal))));
        Assert.Matches("line [0-9]+, `hot`", Me.Text);
        await Me.Get("/practice");
        Assert.Equal(HttpStatusCode.OK, await Me.Upload("form[action*='handler=File']", "file", "a.json",
            Encoding.UTF8.GetBytes(text.Replace(Lesson, "our-ring", StringComparison.Ordinal))));
        Assert.Equal("/practice/lesson/our-ring", Me.Address.AbsolutePath);
    }

    [Fact]
    public async Task In_practice_no_press_was_kept_and_no_way_lies_ahead()
    {
        var run = await Begin();
        var token = await Me.Token();
        foreach (var (handler, fields) in new (string, (string, string)[])[]
        {
            ("word", [("text", "A word"), ("kept", "0")]), ("ahead", [("moves", "[]")]),
        })
        {
            var request = new HttpRequestMessage(HttpMethod.Post, new Uri($"http://localhost/lift/{run}?handler={handler}"))
            {
                Content = new FormUrlEncodedContent(fields.Append(("command", $"{Guid.NewGuid()}"))
                    .Select(f => KeyValuePair.Create(f.Item1, f.Item2))),
            };
            request.Headers.Add("X-Antiforgery", token);
            Assert.Equal(HttpStatusCode.Conflict, await Me.Send(request));
        }
        Assert.Single(Host.Services.GetRequiredService<PracticeDesk>().Run(new(run))!.Card.History);
    }
}
