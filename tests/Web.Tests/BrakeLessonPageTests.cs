using System.Net;
using System.Text.Json.Nodes;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>The lesson that the lead asks for before anybody works on brakes alone: who asks, whom it stops, by whatever way they come,
/// and how they go on.</summary>
public sealed class BrakeLessonPageTests() : InTheDemo("iona")
{
    private const string Lesson = "air-in-the-rear-right";

    private T The<T>() where T : notnull => Host.Services.GetRequiredService<T>();

    private static async Task<HttpStatusCode> Ask(Browser who, string lesson, bool ask)
    {
        await who.Get($"/practice/lesson/{lesson}");
        var request = new HttpRequestMessage(HttpMethod.Post, new Uri($"http://localhost/practice/lesson/{lesson}?handler=Ask"))
        {
            Content = new FormUrlEncodedContent([new("ask", ask ? "true" : "false"), new("form-id", $"{Guid.NewGuid()}")]),
        };
        request.Headers.Add("X-Antiforgery", await who.Token());
        return await who.Send(request);
    }

    // A card of HD-04 with nothing but its brake fluid.
    private async Task<long> Brakes()
    {
        await Me.Get("/intake?plate=HD-04");
        await Me.Submit("main form", ("plate", "HD-04"), ("odometer", "122000"), ("job", "brake-fluid"), ("bay", "Bay 1"));
        return The<CardStore>().OfVehicle("HD-04").First(c => c.IsOpen).Id.Value;
    }

    private JobCard Card(long id) => The<CardStore>().Find(id)!;

    private Task<HttpStatusCode> ByPage(long card, string handler, params (string Name, string Value)[] fields) =>
        ByPage(Me, card, handler, fields);

    private static async Task<HttpStatusCode> ByPage(Browser who, long card, string handler, params (string Name, string Value)[] fields)
    {
        var request = new HttpRequestMessage(HttpMethod.Post, new Uri($"http://localhost/lift/{card}?handler={handler}"))
        {
            Content = new FormUrlEncodedContent(fields.Select(f => KeyValuePair.Create(f.Name, f.Value))
                .Append(new("command", $"{Guid.CreateVersion7()}"))),
        };
        request.Headers.Add("X-Antiforgery", await who.Token());
        return await who.Send(request);
    }

    // By the lead's hand up to a step.
    private async Task<string> UpTo(long id, Browser una, Func<SheetStep, bool> which)
    {
        if (Card(id).Kit is null)
        {
            await una.Get($"/lift/{id}");
            Assert.Equal(HttpStatusCode.OK, await una.Submit("#kit"));
        }
        await The<CardStore>().Work(id, card => card.Next is { } next && !which(next)
            ? new(UsualPress.Of(card, next), new("una", "Una B.", Role.Lead),
                card.Waits.Select(w => w.Until).Append(Host.Clock.GetUtcNow()).Max()) : null);
        Assert.True(which(Card(id).Next!), Card(id).Next!.Id.Text);
        return Card(id).Next!.Id.Text;
    }

    [Fact]
    public async Task The_lead_asks_with_a_name_and_nobody_else_does()
    {
        var una = await Host.SignedIn("una");
        Assert.Equal(HttpStatusCode.Forbidden, await Ask(Me, Lesson, true));
        Assert.Equal(HttpStatusCode.Conflict, await Ask(una, "first-oil-change", true));
        Assert.Contains("No brakes are opened", una.Text);
        Assert.Null(The<SettingStore>().Read().BeforeBrakes);
        Assert.Equal(HttpStatusCode.OK, await Ask(una, Lesson, true));
        Assert.Contains("Una B. asks for it before anybody works on brakes alone", una.Text);
        Assert.Equal("Una B.", The<SettingStore>().Read().BeforeBrakes!.By);
        await una.Get("/practice");
        Assert.Contains("Not yet: Iona R., Tavish M.", una.Text);
        await una.Get("/trail");
        Assert.Contains("lesson before brakes: nothing → Air in the rear right", una.Text);
        Assert.Equal(HttpStatusCode.OK, await Ask(una, Lesson, false));
        Assert.Null(The<SettingStore>().Read().BeforeBrakes);
    }

    [Fact]
    public async Task A_hand_that_has_not_practised_is_refused_by_page_API_outbox_and_the_way_ahead()
    {
        await Ask(await Host.SignedIn("una"), Lesson, true);
        var card = await Brakes();
        await Me.Get($"/lift/{card}");
        Assert.Contains("Una B. asks for the lesson “Air in the rear right” before anybody works on brakes alone", Me.Text);
        Assert.NotNull(Me.Page.QuerySelector($".lift-main a.main[href='/handover/{card}#beside']"));
        Assert.NotNull(Me.Page.QuerySelector($".lift-main a[href='/practice/lesson/{Lesson}']"));
        Assert.Null(Me.Page.QuerySelector("#kit, .lift-main form"));
        var una = await Host.SignedIn("una");
        // What is simply done, and what is measured.
        foreach (var which in (Func<SheetStep, bool>[])[s => s.Traits.Opens, s => s.Traits.Fastens])
        {
            var step = await UpTo(card, una, which);
            var seq = Card(card).History.Count;
            if (Card(card).Next!.Traits.Opens)
                Assert.Equal(HttpStatusCode.OK, await ByPage(una, card, "ahead", ("moves", $"[\"handler=done&step={step}\"]")));
            Assert.Equal(HttpStatusCode.Conflict, await ByPage(card, "done", ("step", step)));
            Assert.Contains("asks for the lesson", Me.Text);
            Assert.Equal(HttpStatusCode.Conflict, await ByPage(card, "done", ("step", step), ("kept", "4000")));
            Assert.Equal(HttpStatusCode.Conflict, await ByPage(card, "ahead", ("moves", $"[\"handler=done&step={step}\"]")));
            await Me.Api(HttpMethod.Post, $"/api/v1/cards/{card}/commands",
                new JsonObject { ["command"] = Guid.NewGuid(), ["say"] = "reading", ["step"] = step, ["torque"] = "9 N·m" },
                await Me.Token());
            Assert.Equal(HttpStatusCode.Conflict, Me.Status);
            Assert.Equal(seq, Card(card).History.Count);
        }
    }

    [Fact]
    public async Task Somebody_stands_beside_with_their_own_PIN_and_the_record_says_so()
    {
        await Ask(await Host.SignedIn("una"), Lesson, true);
        var card = await Brakes();
        await Me.Get($"/handover/{card}");
        var whom = Me.Page.QuerySelectorAll("#beside-whom option").Select(o => o.TextContent);
        Assert.Equal(["Iona R.", "Tavish M."], whom);
        Assert.Equal(["Una B."], Me.Page.QuerySelectorAll("#beside-who option").Select(o => o.TextContent));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("#beside", ("pin", "")));
        Assert.Contains("PIN is missing", Me.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("#beside", ("pin", "1111")));
        // Tavish has not done it either, whatever a client offers.
        Assert.NotEqual(HttpStatusCode.OK, await Me.Submit("#beside", ("who", "tavish"), ("pin", "2468")));
        Assert.Contains("Tavish M. has not done the lesson", Me.Text);
        Assert.Equal(HttpStatusCode.OK, await Me.Submit("#beside", ("who", "una"), ("pin", "2468")));
        Assert.Equal($"/lift/{card}", Me.Address.AbsolutePath);
        Assert.NotNull(Me.Page.QuerySelector("#kit"));
        Assert.Equal("una", Card(card).History.Single(h => h.Event is StoodBeside).By.Id.Text);
        await Me.Get($"/handover/{card}");
        Assert.Equal(["Tavish M."], Me.Page.QuerySelectorAll("#beside-whom option").Select(o => o.TextContent));
        Assert.Contains("Stands beside Iona R. at the brakes", Me.Text);
    }

    [Fact]
    public async Task Whoever_has_done_it_well_is_not_asked_and_stands_beside_others()
    {
        await Ask(await Host.SignedIn("una"), Lesson, true);
        var (run, _) = await The<PracticeDesk>().Begin(The<LessonShelf>().Find(Lesson)!.Lesson, new("iona", "Iona R.", Role.Technician));
        await The<PracticeStore>().Add(run!.Value, 0, [], PersonId.Of("tavish"));
        var card = await Brakes();
        await The<PracticeStore>().End(run.Value, 0, false, Host.Clock.GetUtcNow());
        await Me.Get($"/lift/{card}");
        Assert.Contains("asks for the lesson", Me.Text);
        (run, _) = await The<PracticeDesk>().Begin(The<LessonShelf>().Find(Lesson)!.Lesson, new("iona", "Iona R.", Role.Technician));
        await The<PracticeStore>().Add(run!.Value, 0, [], PersonId.Of("tavish"));
        await The<PracticeStore>().End(run.Value, 0, true, Host.Clock.GetUtcNow());
        foreach (var who in (Browser[])[Me, await Host.SignedIn("tavish")])
        {
            await who.Get($"/lift/{card}");
            Assert.DoesNotContain("asks for the lesson", who.Text);
        }
        await Me.Get($"/handover/{card}");
        Assert.Null(Me.Page.QuerySelector("#beside"));
    }

    [Fact]
    public async Task What_is_asked_for_stays_as_it_is()
    {
        var file = LessonFileText("own-bleeding");
        var una = new Person("una", "Una B.", Role.Lead);
        Assert.Empty((await The<LessonShelf>().Keep(file, una.Id)).Wrong);
        Assert.Null(await The<LessonShelf>().AskBeforeBrakes("own-bleeding", una));
        Assert.Contains("stays as it is", (await The<LessonShelf>().Keep(file, PersonId.Of("iona"))).Wrong[0].ToString());
        Assert.Contains("asked for", (await The<LessonShelf>().GiveUp("own-bleeding"))!.ToString());
        Assert.Contains("Ask the lead", (await The<LessonShelf>().AskBeforeBrakes(null, una with { Role = Role.Technician }))!.ToString());
        Assert.Null(await The<LessonShelf>().AskBeforeBrakes(null, una));
        Assert.Null(await The<LessonShelf>().GiveUp("own-bleeding"));
    }

    private string LessonFileText(string id) => Practice.LessonFile.Write(The<LessonShelf>().Find(Lesson)!.Lesson with { Id = id });
}
