using System.Globalization;
using System.Text.RegularExpressions;
using Anakyklos.Web.Languages;
using AngleSharp.Html.Dom;
using Microsoft.Extensions.DependencyInjection;
using Xunit;

namespace Anakyklos.Web.Tests;

/// <summary>The application in German: every page that links lead to, in the words of its book.</summary>
public sealed partial class LanguageTests() : InTheDemo("una")
{
    // So many pages of one kind are enough.
    private const int OfAKind = 3;

    // What people of the demo wrote themselves, names of models, and what is for programs; it stays as it is.
    private static readonly string[] _own =
    [
        "School run", "Council pool", "Ferry mail", "District nurse", "Harbour police", "Islands warden", "Lighthouse keepers",
        "Hespin 16 minibus", "Lumen Ardent hybrid", "has served us well", "A little glitter in the paste on the magnet",
        "Left headlamp glass dull", "Rear brake pipe rusty", "The car is replaced next spring", "Free play of the clutch", "Hand brake",
        "Rear pads", "(it has Tarn T-41, Ostler OB-3)", "plate, model, task, year", "name: nothing",
    ];

    [Theory]
    [InlineData("una")]
    [InlineData("iona")]
    public async Task Every_page_that_links_lead_to_is_said_whole(string person)
    {
        var browser = await Host.SignedIn(person);
        var german = Host.Services.GetRequiredService<WorkshopWords>().Book(CultureInfo.GetCultureInfo("de"))!;
        var unknown = new SortedDictionary<string, string>(StringComparer.Ordinal);
        var (waiting, seen, kinds) = (new Queue<string>(["/"]), new HashSet<string> { "/" }, new Dictionary<string, int>());
        while (waiting.TryDequeue(out var address))
        {
            await browser.Get(address);
            if (browser.Answer.Content.Headers.ContentType?.MediaType != "text/html")
                continue;
            SpokenPages.Say(await browser.Answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken), german,
                (text, said) => _ = said.IsKnown || unknown.TryAdd(Regex.Replace(text, @"\s+", " ").Trim(), address));
            foreach (var link in browser.Page.QuerySelectorAll("a[href]").OfType<IHtmlAnchorElement>())
            {
                var to = new Uri(browser.Address, link.GetAttribute("href")).PathAndQuery;
                var kind = Numbers().Replace(to, "#");
                if (to.StartsWith("/api", StringComparison.Ordinal) || !seen.Add(to) || kinds.GetValueOrDefault(kind) >= OfAKind)
                    continue;
                kinds[kind] = kinds.GetValueOrDefault(kind) + 1;
                waiting.Enqueue(to);
            }
        }
        if (Environment.GetEnvironmentVariable("ANAKYKLOS_UNSAID") is { } file)
            await File.AppendAllLinesAsync(file, unknown.Select(u => $"{u.Value}\t{u.Key}"), TestContext.Current.CancellationToken);
        Assert.True(seen.Count > 200, $"Only {seen.Count} pages were found.");
        Assert.Empty(unknown.Where(u => !_own.Any(u.Key.Contains)).Select(u => $"{u.Value}: {u.Key}"));
    }

    [Fact]
    public async Task A_person_who_chooses_German_is_spoken_to_in_it_and_nobody_else()
    {
        await Me.Get("/you");
        await Me.Submit("form.stack", ("language", "de"));
        Assert.Equal("de", Me.Page.DocumentElement.GetAttribute("lang"));
        Assert.Contains("Ein Fahrzeug ist da", Me.Text, StringComparison.Ordinal);
        Assert.Contains("Montag, 9. März", Me.Text, StringComparison.Ordinal);
        var iona = await Host.SignedIn("iona");
        await iona.Get("/");
        Assert.Equal("en", iona.Page.DocumentElement.GetAttribute("lang"));
        Assert.Contains("A vehicle is here", iona.Text, StringComparison.Ordinal);
        await Me.Get("/you");
        await Me.Submit("form.stack", ("language", "browser"));
        Assert.Equal("en", Me.Page.DocumentElement.GetAttribute("lang"));
    }

    [Fact]
    public async Task A_language_that_is_not_offered_is_refused()
    {
        await Me.Get("/you");
        Assert.Equal(System.Net.HttpStatusCode.BadRequest, await Me.Submit("form.stack", ("language", "xx")));
    }

    [Theory]
    [InlineData("de", "de")]
    [InlineData("de-AT,en;q=0.5", "de")]
    [InlineData("fr,de;q=0.4,en;q=0.8", "en")]
    [InlineData("fr", "en")]
    [InlineData("de;q=0,en", "en")]
    public async Task Whoever_has_chosen_none_is_spoken_to_as_the_browser_asks(string asks, string language)
    {
        using var client = Host.NewClient();
        client.DefaultRequestHeaders.Add("Accept-Language", asks);
        var page = await client.GetStringAsync("/signin", TestContext.Current.CancellationToken);
        Assert.Contains($"<html lang=\"{language}\"", page, StringComparison.Ordinal);
        Assert.Contains(language == "de" ? "Wer ist an der Bühne?" : "Who is at the lift?", page, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_refusal_is_said_in_German_and_what_is_kept_is_the_same()
    {
        await Me.Get("/you");
        await Me.Submit("form.stack", ("language", "de"));
        await Me.Get("/intake?plate=HD-11");
        await Me.Submit("main form[method=post]", ("odometer", "12"));
        Assert.Contains("ist weniger als die letzte Ablesung", Me.Text, StringComparison.Ordinal);
        var iona = await Host.SignedIn("iona");
        Assert.Equal((await iona.Api(HttpMethod.Get, "/api/v1/cards/1058")).ToJsonString(),
            (await Me.Api(HttpMethod.Get, "/api/v1/cards/1058")).ToJsonString());
    }

    [GeneratedRegex(@"\d+|HD-\d+|[a-z]+-[a-z]+-\w+|=[^&]*")]
    private static partial Regex Numbers();
}
