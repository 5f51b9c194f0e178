using Anakyklos.Desk;
using Dapper;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>The lead is told when another program writes to the workshop's file while it is served.</summary>
public sealed class FileWatchTests() : InTheDemo("una")
{
    private FileWatch Watch => Host.Services.GetRequiredService<FileWatch>();

    private void WriteAsAStranger()
    {
        using var other = new SqliteConnection($"Data Source={Host.File};Pooling=False");
        other.Open();
        other.Execute("update vehicle set task = 'Gone fishing' where plate = 'HD-07'");
    }

    [Fact]
    public async Task It_stands_in_the_yard_and_on_the_workshops_page_with_what_to_do_and_once_in_the_trail()
    {
        await Watch.Look();
        await Me.Get("/workshop");
        Assert.DoesNotContain("Another program", Me.Text);
        WriteAsAStranger();
        await Watch.Look();
        foreach (var page in (string[])["/", "/workshop"])
        {
            await Me.Get(page);
            Assert.Contains("Another program wrote to the workshop's file, last noticed on 9 March at 09:00.", Me.Text);
            Assert.Contains("whether a second server runs on the same folder", Me.Text);
        }
        Host.Clock.Advance(TimeSpan.FromMinutes(40));
        WriteAsAStranger();
        await Watch.Look();
        await Me.Get("/trail");
        Assert.Equal(2, Me.Text.Split("another program wrote to the workshop's file").Length);
        var iona = await Host.SignedIn("iona");
        await iona.Get("/");
        Assert.DoesNotContain("Another program", iona.Text);
    }

    [Fact]
    public async Task A_press_notices_it_too()
    {
        await Me.Get("/workshop");
        WriteAsAStranger();
        await Me.Get("/vehicle/HD-07");
        await Me.Get("/workshop");
        await Me.Submit("form[action*='Copy']");
        Assert.Contains("Another program wrote", Me.Text);
    }
}
