using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Microsoft.Extensions.DependencyInjection;
using NJsonSchema;

namespace Anakyklos.Web.Tests;

/// <summary>A signed record goes to another, empty installation as a file, is verified there and says the same.</summary>
public sealed class RecordFileTests : IAsyncLifetime
{
    private WorkshopHost _host = null!;
    private Browser _iona = null!;
    private string _file = "";

    public async ValueTask InitializeAsync()
    {
        _host = await WorkshopHost.Demo();
        _iona = await _host.SignedIn();
        _file = await _iona.Content("/record/1003/record.json");
    }

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    [Fact]
    public async Task It_is_as_its_schema_says()
    {
        var schema = await JsonSchema.FromFileAsync(Path.Combine(AppContext.BaseDirectory, "record.schema.json"));
        Assert.Empty(schema.Validate(_file));
        var poorer = JsonNode.Parse(_file)!;
        ((JsonObject)poorer["events"]![0]!).Remove("hash");
        Assert.NotEmpty(schema.Validate(poorer.ToJsonString()));
    }

    [Fact]
    public async Task Another_workshop_verifies_it_keeps_it_and_reads_the_same()
    {
        await using var other = await WorkshopHost.WithModels();
        var browser = await other.FirstLead();
        await browser.Get("/brought-in");
        Assert.Contains("None has been brought in.", browser.Text);
        await browser.Upload("form[enctype]", "file", "record-1003.json", Encoding.UTF8.GetBytes(_file));
        Assert.StartsWith("/brought-in/", browser.Address.AbsolutePath);
        Assert.Contains("verified", browser.Text);
        Assert.Contains("Card 1003 of Harbour Depot", browser.Text);
        var there = browser.Page.QuerySelector(".record-columns")!.TextContent;
        await _iona.Get("/record/1003");
        // What only the workshop itself can do with it is no part of the record, and not on its paper.
        foreach (var link in _iona.Page.QuerySelectorAll(".record-columns .no-print").ToList())
            link.Remove();
        Assert.Equal(Letters(_iona.Page.QuerySelector(".record-columns")!.TextContent), Letters(there));
        // Twice is once.
        await browser.Get("/brought-in");
        await browser.Upload("form[enctype]", "file", "again.json", Encoding.UTF8.GetBytes(_file));
        await browser.Get("/brought-in");
        Assert.Single(browser.Page.QuerySelectorAll(".rows .plate"));
        Assert.Equal(HttpStatusCode.NotFound, await browser.Get("/brought-in/0000"));
    }

    [Fact]
    public void Whatever_was_changed_is_found_and_nothing_is_kept()
    {
        Assert.Empty(RecordFile.Read(_file).Wrong);
        Wrong("Event 4 was changed", f => f["events"]![3]!["body"] =
            f["events"]![3]!["body"]!.GetValue<string>().Replace("\"", "\" ", StringComparison.Ordinal));
        Wrong("Event 2 was changed", f => f["events"]![1]!["person"]!["name"] = "Somebody Else");
        Wrong("Event 1 was changed", f => f["card"] = 1009);
        Wrong("Event 3 is missing", f => ((JsonArray)f["events"]!).RemoveAt(2));
        Wrong("not what was signed", f => f["record"]!["tightened"]![0]!["reading"] = "26 N·m");
        Wrong("not what was signed", f => f["plate"] = "HD-08");
        Wrong("not that of the card", f => f["sheet"]!["revision"] = 1);
        Wrong("format", f => f["format"] = "anakyklos/record/9");
        Wrong("cannot be read", f => ((JsonObject)f["events"]![0]!).Remove("at"));
        // Cut short before its signature, it was not signed.
        Wrong("not signed", f =>
        {
            var events = (JsonArray)f["events"]!;
            while (!events[^1]!["body"]!.GetValue<string>().Contains("\"Signed\"", StringComparison.Ordinal))
                events.RemoveAt(events.Count - 1);
            events.RemoveAt(events.Count - 1);
        });
        foreach (var text in new[] { "", "[]", "{", "null", "7", new string(' ', RecordFile.Longest + 1) })
            Assert.NotEmpty(RecordFile.Read(text).Wrong);
    }

    [Fact]
    public async Task No_file_of_a_card_that_is_not_signed_and_stores_bring_nothing_in()
    {
        Assert.Equal(HttpStatusCode.NotFound, await _iona.Get("/record/1057/record.json"));
        var effie = await _host.SignedIn("effie");
        await effie.Get("/brought-in");
        Assert.Null(effie.Page.QuerySelector("form[enctype]"));
        await _iona.Get("/brought-in");
        await _iona.Upload("form[enctype]", "file", "x.json", Encoding.UTF8.GetBytes("{}"));
        Assert.Contains("This is no record in the format", _iona.Text);
    }

    [Fact]
    public async Task An_amendment_goes_with_it()
    {
        await _iona.Get("/record/1003");
        await _iona.Submit("form[action='?handler=amend']", ("line", "odometer"), ("words", "It was 88,240 km"), ("pin", "2468"));
        var (record, wrong) = RecordFile.Read(await _iona.Content("/record/1003/record.json"));
        Assert.Empty(wrong);
        Assert.Equal("It was 88,240 km", record!.Record.Amended!.Single().Words);
        Assert.NotEqual(JsonNode.Parse(_file)!["hash"]!.GetValue<string>(), record.Hash);
        Assert.Equal(JsonNode.Parse(_file)!["hash"]!.GetValue<string>(),
            _host.Services.GetRequiredService<RecordDesk>().Hash(1003, record.Card.Signature!.Seq));
    }

    private void Wrong(string says, Action<JsonNode> change)
    {
        var file = JsonNode.Parse(_file)!;
        change(file);
        var (record, wrong) = RecordFile.Read(file.ToJsonString());
        Assert.Null(record);
        Assert.Contains(says, Assert.Single(wrong).What + wrong[0].Do);
    }

    private static string Letters(string text) => string.Concat(text.Where(c => !char.IsWhiteSpace(c)));
}
