using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Anakyklos.Core.Authoring;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Languages;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>A sheet that brings its own words along: written at the desk, put in use, and read by whoever is spoken to in them.</summary>
public sealed class WordsPageTests() : InTheDemo("una")
{
    private static readonly Person Una = new("una", "Una B.", Role.Lead);
    private static readonly SheetId Fen = "corran-fen-12";
    private const string Plug = "fasteners.engine-drain-plug";

    private SheetDesk Desk => Host.Services.GetRequiredService<SheetDesk>();

    private SheetStore Sheets => Host.Services.GetRequiredService<SheetStore>();

    private PhraseBook German => Host.Services.GetRequiredService<WorkshopWords>().Book(CultureInfo.GetCultureInfo("de"))!;

    private DraftNow Now(long draft) => Desk.Find(draft)!;

    private async Task<long> Begun() => (await Desk.Revise(Una, Fen, Sheets.Newest(Fen)!.Revision)).Draft!.Value;

    private string Said(long draft, string text, string language = "de") =>
        SheetTexts.Said(Now(draft).Text, language).GetValueOrDefault(text, "");

    private int Place(string text) => Me.Page.QuerySelectorAll("input[name=english]")
        .Select(i => i.GetAttribute("value")).ToList().IndexOf(text);

    // As a browser sends it: each text with its word, in their order.
    private async Task<HttpStatusCode> Keep(string text, string said)
    {
        var (texts, words) = (Me.Page.QuerySelectorAll("input[name=english]"), Me.Page.QuerySelectorAll("input[name=said]"));
        var fields = texts.Zip(words).SelectMany(w => new[]
        {
            ("english", w.First.GetAttribute("value")!),
            ("said", w.First.GetAttribute("value") == text ? said : w.Second.GetAttribute("value") ?? ""),
        });
        return await Me.Post(Me.Page.QuerySelector("form.write-form")!.GetAttribute("action")!,
            [.. Me.Page.QuerySelectorAll("form.write-form input[type=hidden]:not([name=english])")
                .Select(i => (i.GetAttribute("name")!, i.GetAttribute("value") ?? "")), .. fields]);
    }

    [Fact]
    public async Task A_word_is_kept_and_read_once_the_lead_has_put_the_sheet_in_use()
    {
        var draft = await Begun();
        await Me.Get($"/library/draft/{draft}");
        Assert.NotNull(Me.Page.QuerySelector($"a[href='/library/draft/{draft}/words/de']"));
        await Me.Get($"/library/draft/{draft}/words/de?at={Plug}");
        Assert.Equal("Motorölablassschraube",
            Me.Page.QuerySelectorAll("input[name=said]")[Place("Engine drain plug")].GetAttribute("value"));
        var before = Now(draft).Text.ToString();
        await Keep("Engine drain plug", "Motorölablassschraube");
        Assert.Equal(before, Now(draft).Text.ToString());
        await Me.Get($"/library/draft/{draft}/words/de?at={Plug}");
        await Keep("Engine drain plug", "Die Ablassschraube am Motor");
        Assert.Equal("Die Ablassschraube am Motor", Said(draft, "Engine drain plug"));
        Assert.Equal(Now(draft).Checked, CitedValue.AllOf(Now(draft).Text).Count(v => v.IsChecked));
        Assert.DoesNotContain("Die Ablassschraube am Motor", German.Say("Engine drain plug").Text, StringComparison.Ordinal);

        await Me.Get($"/library/draft/{draft}/use");
        Assert.Contains("Words in “de”: 1 new or otherwise, 0 gone", Me.Text, StringComparison.Ordinal);
        var revisions = Host.Services.GetRequiredService<RevisionDesk>();
        var newest = Sheets.Newest(Fen)!.Revision;
        Assert.Empty((await revisions.PutInUse(draft, Una, Now(draft).Draft.Edition, newest, "Better German")).Wrong);
        Assert.Equal("Die Ablassschraube am Motor", German.Say("Engine drain plug").Text);
        Assert.Empty(await revisions.Withdraw(Fen, newest + 1, Una, "It was not better"));
        // What an older card was opened with may still be read: the word of a withdrawn revision stays known.
        Assert.True(German.Say("Engine drain plug").IsKnown);
    }

    [Fact]
    public async Task What_nobody_has_said_is_counted_and_the_next_without_a_word_follows()
    {
        var draft = await Begun();
        await Desk.Rewrite(draft, Una, Now(draft).Draft.Edition, Now(draft).Text.Without("words").ToString());
        await Me.Get($"/library/draft/{draft}/words/de");
        var open = Me.Page.QuerySelectorAll("a.write-thing.unsaid").Length;
        Assert.True(open > 20);
        // What the program knows by itself is shown, and left as it is.
        await Me.Get($"/library/draft/{draft}/words/de?at={Plug}");
        Assert.Contains(Me.Page.QuerySelectorAll("input[name=said]"), i => i.GetAttribute("placeholder") is { Length: > 0 }
            && i.GetAttribute("value") is null or "");
        await Me.Get($"/library/draft/{draft}/words/fr?at=access.bonnet");
        Assert.Equal("fr", Me.Page.QuerySelector(".said-in")!.TextContent);
        await Keep("Bonnet", "Capot");
        Assert.Equal("Capot", Said(draft, "Bonnet", "fr"));
        Assert.Empty(SheetTexts.Said(Now(draft).Text, "de"));
    }

    [Fact]
    public async Task What_somebody_else_said_meanwhile_is_not_written_over_and_what_was_typed_stays()
    {
        var draft = await Begun();
        await Me.Get($"/library/draft/{draft}/words/de?at={Plug}");
        var was = SheetDesk.WordsMark(Now(draft), "de");
        Assert.Empty(await Desk.Say(draft, Una, "de", was, new Dictionary<string, string> { ["Bonnet"] = "Haube" }));
        Assert.Equal(HttpStatusCode.Conflict, await Keep("Engine drain plug", "Unsere Schraube"));
        Assert.Contains("Somebody else has changed this draft just now.", Me.Text, StringComparison.Ordinal);
        Assert.Equal("Unsere Schraube", Me.Page.QuerySelectorAll("input[name=said]")[Place("Engine drain plug")].GetAttribute("value"));
        Assert.Equal("Haube", Said(draft, "Bonnet"));
        Assert.NotEqual("Unsere Schraube", Said(draft, "Engine drain plug"));
    }

    [Fact]
    public async Task What_is_too_long_is_told_at_its_text_and_nothing_is_kept()
    {
        var draft = await Begun();
        var before = Now(draft).Text.ToString();
        await Me.Get($"/library/draft/{draft}/words/de?at={Plug}");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Keep("Engine drain plug", new('s', 301)));
        Assert.Contains("301 characters", Me.Page.QuerySelector($"#problem-said-{Place("Engine drain plug")}")!.TextContent,
            StringComparison.Ordinal);
        Assert.Equal(before, Now(draft).Text.ToString());
    }

    [Theory]
    [InlineData("en")]
    [InlineData("German")]
    [InlineData("de-AT")]
    public async Task There_is_no_page_for_what_is_no_other_language(string language) =>
        Assert.Equal(HttpStatusCode.NotFound, await Me.Get($"/library/draft/{await Begun()}/words/{language}"));

    [Fact]
    public async Task Who_does_not_work_on_vehicles_reads_them_and_says_none()
    {
        var draft = await Begun();
        var stores = await Host.SignedIn("effie");
        await stores.Get($"/library/draft/{draft}/words/de?at={Plug}");
        Assert.Null(stores.Page.QuerySelector("form.write-form button"));
        var effie = new Person("effie", "Effie S.", Role.Stores);
        Assert.NotEmpty(await Desk.Say(draft, effie, "de", SheetDesk.WordsMark(Now(draft), "de"),
            new Dictionary<string, string> { ["Bonnet"] = "Haube" }));
    }

    [Fact]
    public async Task A_word_that_looks_like_a_sentence_of_the_program_takes_no_page_down()
    {
        var draft = await Begun();
        Assert.Empty(await Desk.Say(draft, Una, "de", SheetDesk.WordsMark(Now(draft), "de"),
            new Dictionary<string, string> { ["Bonnet"] = "{7} Haube {x}" }));
        var revisions = Host.Services.GetRequiredService<RevisionDesk>();
        Assert.Empty((await revisions.PutInUse(draft, Una, Now(draft).Draft.Edition, Sheets.Newest(Fen)!.Revision, "A trap")).Wrong);
        Assert.NotNull(German.Say("Bonnet").Text);
        using var client = Host.NewClient();
        client.DefaultRequestHeaders.Add("Accept-Language", "de");
        Assert.Equal(HttpStatusCode.OK, (await client.GetAsync("/signin", TestContext.Current.CancellationToken)).StatusCode);
    }

    [Fact]
    public void Every_text_of_the_sheets_that_come_with_the_application_is_said_in_German()
    {
        foreach (var sheet in Sheets.Newest())
        {
            var (said, program) = (SheetTexts.Said(SheetText.Read(Sheets.Text(sheet.Id, sheet.Revision)!, out _)!, "de"),
                Offered.Book(CultureInfo.GetCultureInfo("de"))!);
            Assert.Empty(SheetTexts.Of(SheetText.Read(Sheets.Text(sheet.Id, sheet.Revision)!, out _)!)
                .Where(s => !said.ContainsKey(s.Text) && !program.Say(s.Text).IsKnown).Select(s => $"{sheet.Id}: {s.Text}"));
        }
    }

    [Fact]
    public async Task A_program_says_them_as_a_page_does()
    {
        var draft = await Begun();
        var (secret, _) = await Host.Services.GetRequiredService<TokenDesk>().Make("A program", "una", ["workshop"], Una);
        using var program = Host.Program(secret!);
        JsonObject Body(params string[] said) => new()
        {
            ["was"] = SheetDesk.WordsMark(Now(draft), "de"), ["english"] = new JsonArray("Bonnet"), ["command"] = Guid.NewGuid().ToString(),
            ["said"] = new JsonArray([.. said.Select(s => JsonValue.Create(s))]),
        };
        async Task<HttpStatusCode> Say(JsonObject body) => (await program.PostAsJsonAsync($"/api/v1/library/draft/{draft}/words/de", body,
            TestContext.Current.CancellationToken)).StatusCode;
        Assert.Equal(HttpStatusCode.BadRequest, await Say(Body("Haube", "Klappe")));
        Assert.Equal(HttpStatusCode.OK, await Say(Body("Haube")));
        Assert.Equal("Haube", Said(draft, "Bonnet"));
        Assert.Equal(HttpStatusCode.OK, await Say(Body("")));
        Assert.Equal("", Said(draft, "Bonnet"));
    }
}
