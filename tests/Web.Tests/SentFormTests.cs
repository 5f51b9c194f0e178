using System.Net;
using Anakyklos.Core.Quantities;
using Anakyklos.Storage;
using Dapper;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>A form counts once however often it arrives; and what the workshop's file does not take comes back to whoever sent
/// it.</summary>
public sealed class SentFormTests() : InTheDemo("effie")
{
    private Microsoft.Data.Sqlite.SqliteConnection? _writing;

    private WorkshopDatabase Database => Host.Services.GetRequiredService<WorkshopDatabase>();

    private int Containers => Host.Services.GetRequiredService<ShelfStore>().Read().Containers.Count;

    private IReadOnlyList<(string, string)> Container(string batch) =>
    [
        ("product", "Gannet Lowash 5W-30"), ("size", "5 l"), ("batch", batch),
        .. new[] { "form-id", "__RequestVerificationToken" }.Select(n => (n, Me.Page.QuerySelector($"form[action*='Container'] [name={n}]")!
            .GetAttribute("value")!)),
    ];

    [Fact]
    public async Task The_same_form_is_carried_out_once_and_another_of_the_same_page_as_well()
    {
        var before = Containers;
        await Me.Get("/stores");
        var form = Container("B-1");
        for (var i = 0; i < 3; i++)
        {
            await Me.Post("/stores?handler=Container", [.. form]);
            Assert.Equal((HttpStatusCode.OK, "/stores"), (Me.Status, Me.Address.AbsolutePath));
        }
        Assert.Equal(before + 1, Containers);
        // Going back and typing another batch is another form.
        await Me.Post("/stores?handler=Container", [.. form.Where(f => f.Item1 != "batch"), ("batch", "B-2")]);
        Assert.Equal(before + 2, Containers);
        // And so is the same once the page was shown anew.
        await Me.Get("/stores");
        await Me.Post("/stores?handler=Container", [.. Container("B-2")]);
        Assert.Equal(before + 3, Containers);
    }

    [Fact]
    public async Task Eight_at_once_are_one()
    {
        var before = Containers;
        await Me.Get("/stores");
        var form = Container("B-1");
        await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => Me.Copy().Post("/stores?handler=Container", [.. form])));
        Assert.Equal(before + 1, Containers);
    }

    [Fact]
    public async Task What_was_refused_may_be_sent_again_and_a_form_without_an_id_is_too_old()
    {
        await Me.Get("/stores");
        var before = Containers;
        var wrong = Container("B-1").Select(f => f.Item1 == "size" ? (f.Item1, "huge") : f).ToArray();
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Post("/stores?handler=Container", wrong));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Post("/stores?handler=Container", wrong));
        await Me.Get("/stores");
        Assert.Equal(HttpStatusCode.BadRequest,
            await Me.Post("/stores?handler=Container", [.. Container("B-1").Where(f => f.Item1 != "form-id")]));
        Assert.Equal("That form was too old", Me.Heading);
        Assert.Equal(before, Containers);
    }

    [Fact]
    public async Task A_form_in_the_midst_of_which_the_program_was_stopped_is_not_guessed_at()
    {
        await Me.Get("/stores");
        var form = Container("B-1");
        await Me.Post("/stores?handler=Container", [.. form]);
        var before = Containers;
        await Database.Writes.Run(scope => scope.Connection.Execute("update form_sent set done = 0"));
        Assert.Equal(HttpStatusCode.Conflict, await Me.Post("/stores?handler=Container", [.. form]));
        Assert.Contains("It is not known how that ended", Me.Heading);
        Assert.Equal(before, Containers);
    }

    [Fact]
    public async Task A_file_that_takes_nothing_gives_words_and_keeps_what_was_typed()
    {
        var before = Containers;
        await Me.Get("/stores");
        var form = Container("B-77");
        await Full(true);
        Assert.Equal(HttpStatusCode.ServiceUnavailable, await Me.Post("/stores?handler=Container", [.. form]));
        Assert.Contains("is full, so nothing was written. Make room on it", Me.Text);
        Assert.Contains("Batch: B-77", Me.Text);
        await Full(false);
        await Me.Submit("main form");
        Assert.Equal("/stores", Me.Address.AbsolutePath);
        Assert.Equal(before + 1, Containers);
        // Somebody holds the file as no writing can be done in it.
        await Writable(false);
        await Me.Get("/stores");
        Assert.Equal(HttpStatusCode.ServiceUnavailable, await Me.Post("/stores?handler=Container", [.. Container("B-78")]));
        Assert.Contains("may not be written to", Me.Text);
    }

    [Fact]
    public async Task The_api_says_so_too_and_a_press_is_not_lost_when_nothing_can_be_written()
    {
        var iona = await Host.SignedIn("iona");
        var token = (await iona.Api(HttpMethod.Get, "/api/v1/session"))["antiforgery"]!.ToString();
        var press = new { command = Guid.NewGuid(), say = "done", step = "filter-cap-off" };
        await Writable(false);
        var said = await iona.Api(HttpMethod.Post, "/api/v1/cards/1058/commands", press, token);
        Assert.Equal(HttpStatusCode.ServiceUnavailable, iona.Status);
        Assert.Contains("may not be written to", said["detail"]!.ToString());
        await Writable(true);
        await iona.Api(HttpMethod.Post, "/api/v1/cards/1058/commands", press, token);
        Assert.Equal(HttpStatusCode.OK, iona.Status);
        Assert.Empty(Verification.Run(Database, out _, out _));
    }

    [Fact]
    public async Task A_sign_in_when_nothing_can_be_written_asks_for_the_pin_again_and_shows_it_nowhere()
    {
        var iona = Host.NewBrowser();
        await iona.Get("/signin");
        await Writable(false);
        Assert.Equal(HttpStatusCode.ServiceUnavailable, await iona.Submit("form", ("person", "iona"), ("pin", "2468")));
        Assert.DoesNotContain("2468", iona.Page.DocumentElement.OuterHtml);
        await Writable(true);
        await iona.Submit("main form", ("pin", "2468"));
        Assert.Equal("/", iona.Address.AbsolutePath);
    }

    // SQLite itself then refuses whatever is to be written, from the beginning of a transaction on.
    private async Task Writable(bool on)
    {
        if (on)
            _writing!.Execute("pragma query_only = off");
        else
            await Database.Writes.Run(scope => (_writing = scope.Connection).Execute("pragma query_only = on"));
    }

    // As many pages as the file has, and none of them free: whatever needs another is refused by SQLite itself, which then gives up the
    // whole transaction.
    private async Task Full(bool on)
    {
        if (!on)
        {
            await Database.Writes.Run(scope => scope.Connection.Execute("pragma max_page_count = 1000000; drop table ballast"));
            return;
        }
        await Database.Writes.Run(scope => scope.Connection.Execute("create table ballast (b blob)"));
        await Database.Writes.Run(scope =>
            scope.Connection.Execute($"pragma max_page_count = {scope.Connection.ExecuteScalar<long>("pragma page_count")}"));
        foreach (var size in new[] { 40_000, 3_000, 900, 50 })
            while (await Fits(size))
            {
                // One more of this size.
            }
    }

    private async Task<bool> Fits(int size)
    {
        try
        {
            return await Database.Writes.Run(scope => scope.Connection.Execute("insert into ballast values (zeroblob(@size))",
                new { size })) == 1;
        }
        catch (Microsoft.Data.Sqlite.SqliteException)
        {
            return false;
        }
    }
}
