using System.Net;
using System.Text.Json.Nodes;
using Anakyklos.Core.Sheets;
using Anakyklos.Storage;
using Anakyklos.Web.Drawing;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>The library: what it shows of the sheets, and a sheet brought in with and without errors.</summary>
public sealed class LibraryTests : IAsyncLifetime
{
    private WorkshopHost _host = null!;

    public async ValueTask InitializeAsync() => _host = await WorkshopHost.Demo();

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private SheetStore Sheets => _host.Services.GetRequiredService<SheetStore>();

    private int Fen => Sheets.Newest("corran-fen-12")!.Revision;

    private string Changed(string id, Action<JsonObject> change)
    {
        var sheet = (JsonObject)JsonNode.Parse(Sheets.Text(id, Sheets.Newest(id)!.Revision)!)!;
        change(sheet);
        return sheet.ToJsonString(new() { WriteIndented = true });
    }

    [Fact]
    public async Task It_lists_every_model_what_is_disputed_and_who_asks_for_what()
    {
        var browser = await _host.SignedIn();
        await browser.Get("/library");
        Assert.Equal(7, browser.Page.QuerySelectorAll(".sheet-card").Length);
        Assert.Contains("47 N·m", browser.Page.QuerySelectorAll(".disputes").First().TextContent);
        Assert.Contains("Ostler OB-2", browser.Page.QuerySelector(".approvals")!.TextContent);
        Assert.Contains("The workshop lead checks sheets and brings them in", browser.Text);
    }

    [Fact]
    public async Task A_sheet_shows_the_right_plug_and_what_it_is_mistaken_for()
    {
        var browser = await _host.SignedIn();
        await browser.Get("/library/maelor-ridge-900?point=engine-drain-plug");
        Assert.Single(browser.Page.QuerySelectorAll(".map-here"));
        Assert.Contains("not this: gearbox", browser.Page.QuerySelector(".drawings")!.TextContent);
        Assert.Equal(HttpStatusCode.NotFound, await browser.Get("/library/no-such-model"));
    }

    [Fact]
    public async Task The_file_comes_out_as_it_went_in()
    {
        var browser = await _host.SignedIn();
        await browser.Get("/library/corran-fen-12?handler=File");
        Assert.Equal(Sheets.Text("corran-fen-12", Fen), await browser.Answer.Content.ReadAsStringAsync());
        Assert.Contains($"corran-fen-12-r{Fen}.json", browser.Answer.Content.Headers.ContentDisposition!.ToString());
    }

    [Fact]
    public async Task Errors_come_with_their_lines_and_what_was_pasted_stays()
    {
        var lead = await _host.SignedIn("una");
        await lead.Get("/library");
        var text = Changed("corran-fen-12", s => s["fasteners"]!["gearbox-fill-plug"]!["torque"]!["is"] = "30 bananas");
        var line = text.Split('\n').ToList().FindIndex(l => l.Contains("bananas")) + 1;
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await lead.Submit("button[formaction='/library?handler=Add']", ("text", text)));
        Assert.Contains($"Line {line}", lead.Page.QuerySelector(".sheet-errors")!.TextContent);
        Assert.Contains("bananas", lead.Page.QuerySelector("#text")!.TextContent);
        Assert.Equal([Fen], Sheets.Revisions("corran-fen-12"));
    }

    [Fact]
    public async Task A_newer_revision_comes_in_and_the_same_number_with_other_content_does_not()
    {
        var (lead, newest) = (await _host.SignedIn("una"), Fen);
        await lead.Get("/library");
        var other = Changed("corran-fen-12", s => s["name"] = "Fen 1.2 S");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await lead.Submit("button[formaction='/library?handler=Add']", ("text", other)));
        Assert.Contains("Give the file a higher revision", lead.Text);
        var newer = Changed("corran-fen-12", s => (s["name"], s["revision"]) = ("Fen 1.2 S", newest + 1));
        await lead.Get("/library");
        await lead.Submit("button[formaction='/library?handler=Check']", ("text", newer));
        Assert.Contains("no errors", lead.Text);
        Assert.Equal([Fen], Sheets.Revisions("corran-fen-12"));
        await lead.Submit("button[formaction='/library?handler=Add']", ("text", newer));
        // It changes nothing until the lead has seen what it changes.
        Assert.Equal([newest], Sheets.Revisions("corran-fen-12"));
        await lead.Submit("form.stack", ("reason", "A better name"));
        Assert.Equal("Corran Fen 1.2 S", lead.Heading);
        Assert.Equal([newest + 1, newest], Sheets.Revisions("corran-fen-12"));
    }

    [Theory]
    [InlineData("", "Choose a file, or paste its text")]
    [InlineData("{", "Line 1")]
    [InlineData("[]", "one JSON object")]
    public async Task Nonsense_is_answered_in_words(string text, string say)
    {
        var lead = await _host.SignedIn("una");
        await lead.Get("/library");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await lead.Submit("button[formaction='/library?handler=Check']", ("text", text)));
        Assert.Contains(say, lead.Text);
    }

    [Fact]
    public async Task A_technician_neither_checks_nor_brings_in()
    {
        var browser = await _host.SignedIn();
        await browser.Get("/library");
        Assert.Null(browser.Page.QuerySelector("form.bring-in"));
        var fields = new[] { "form-id", "__RequestVerificationToken" };
        await browser.Get("/you");
        var own = fields.Select(n => (n, browser.Page.QuerySelector($"[name={n}]")!.GetAttribute("value")!)).ToArray();
        foreach (var handler in new[] { "Check", "Add" })
            Assert.Equal(HttpStatusCode.Forbidden, await browser.Post($"/library?handler={handler}", [.. own,
                ("text", Changed("hespin-16", _ => { }))]));
    }

    [Fact]
    public void Codes_stand_apart_in_the_drawing_and_every_line_ends_at_one()
    {
        var graph = ApprovalGraph.Of(Sheets.Newest(), _host.Services.GetRequiredService<ShelfStore>().Read().Oils);
        Assert.All(graph.Codes.Zip(graph.Codes.Skip(1)), p => Assert.True(p.Second.Y - p.First.Y >= 30));
        Assert.All(graph.Lines, l => Assert.Contains(graph.Codes, c => c.Y == l.To));
        Assert.Equal(Sheets.Newest().Sum(s => s.Fluids.Values.Sum(f => f.Approvals.Value.Count)), graph.Lines.Count);
        // Corran asks for C7: only an oil of C8 is there, which covers it. Tarn's T-41L is claimed itself.
        Assert.Contains(graph.Served, l => l.Way == "Corran C8 covers Corran C7");
        Assert.Contains(graph.Products, p => p.Text == "Gannet Lowash 5W-30");
        Assert.DoesNotContain(graph.Served, l => l.Way.Contains("T-41 covers Tarn T-41L"));
        Assert.Equal(graph.Products.Count, graph.Products.DistinctBy(p => p.Y).Count());
    }

    [Fact]
    public void Every_disputed_value_of_a_sheet_is_found()
    {
        var disputed = Sheets.Newest("ostler-brae-28d")!.Disputed().ToList();
        Assert.Equal(["Engine oil, amount", "Rear axle oil, amount", "Transfer case drain plug, tightening torque"],
            disputed.Select(d => d.Of));
        Assert.Equal("47 N·m", disputed[2].Others.Single().Says);
    }
}
