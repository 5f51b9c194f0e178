using System.Net;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>An empty workshop is empty, and is brought to its first card on one page.</summary>
public sealed class FirstHourTests : IAsyncLifetime
{
    private WorkshopHost _host = null!;
    private Browser _me = null!;

    private WorkshopSettings Settings => _host.Services.GetRequiredService<SettingStore>().Read();

    private IReadOnlyList<HourStage> Asked => _host.Services.GetRequiredService<FirstHour>().Asked();

    public async ValueTask InitializeAsync()
    {
        _host = await WorkshopHost.Empty();
        _me = _host.NewBrowser();
        await _me.Get("/");
        await _me.Submit("main form", ("console", _host.SetupWord), ("workshop", "Quay Garage"), ("name", "Mhairi"), ("pin", "135790"),
            ("again", "135790"));
    }

    public ValueTask DisposeAsync() => _host.DisposeAsync();

    [Fact]
    public async Task Nothing_made_up_is_in_it_and_lessons_have_their_own_models()
    {
        Assert.Empty(_host.Services.GetRequiredService<SheetStore>().Newest());
        var shelf = _host.Services.GetRequiredService<ShelfStore>().Read();
        Assert.Empty(shelf.Parts);
        Assert.Empty(shelf.Oils.Products);
        // No supplier that nobody named: nobody knows when something comes.
        Assert.Null(_host.Services.GetRequiredService<ISupplier>().Arrives("X-1",
            _host.Clock.GetUtcNow(), Shelf.Empty with { Parts = [new("X-1", "Filter", 0, 0, "", [])] }));
        await _me.Get("/library");
        Assert.DoesNotContain("Tarn", _me.Text);
        foreach (var page in new[] { "/", "/intake", "/week", "/stores", "/workshop", "/equipment", "/stores/crib", "/find?q=tarn",
            "/practice" })
            Assert.Equal(HttpStatusCode.OK, await _me.Get(page));
        Assert.Equal(22, _me.Page.QuerySelectorAll("a[href^='/practice/lesson/']").Length);
        await _me.Get("/practice/lesson/first-oil-change");
        await _me.Submit("form[action*='Begin'], main form");
        Assert.StartsWith("/lift/9", _me.Address.AbsolutePath);
        Assert.Empty(_host.Services.GetRequiredService<SheetStore>().Newest());
    }

    [Fact]
    public async Task Each_stage_is_done_on_the_page_and_the_next_stands_open()
    {
        Assert.Equal("/first-hour", _me.Address.AbsolutePath);
        // The name was asked for with the first lead, and is put right here.
        Assert.Equal([.. Enum.GetValues<HourStage>().Where(s => s != HourStage.Name)], Asked);
        Assert.Equal("Bays", Open);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Send("Name", ("workshop", "  ")));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Send("Name", ("workshop", new('n', 61))));
        Assert.Equal("Name", Open);
        Assert.Equal("Quay Garage", Settings.Name);
        await Send("Name", ("workshop", " Quay Garage & Sons "));
        Assert.Equal("Quay Garage & Sons", Settings.Name);
        Assert.Equal("Bays", Open);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Send("Bays", ("bays", "Pit\npit"), ("lift", "yes")));
        Assert.Contains("stands there twice", _me.Page.QuerySelector("#problem-Bays-bays")!.TextContent);
        await Send("Bays", ("bays", "Lift\r\nPit\r\nYard shed"), ("lift", "yes"));
        Assert.Equal(["Lift", "Pit", "Yard shed"], Settings.Bays.Inside);
        Assert.Equal("Units", Open);
        await Send("Units", ("units", "us"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Send("Climate", ("coldest", "30"), ("hottest", "-10")));
        Assert.Equal("Climate", Open);
        Assert.Equal("30", _me.Page.QuerySelector("#Climate-coldest")!.GetAttribute("value"));
        await Send("Climate", ("coldest", "-10"), ("hottest", "30"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Send("People", ("name", "Struan"), ("pin", "12"), ("role", "Technician")));
        await Send("People", ("name", "Struan"), ("pin", "246801"), ("role", "Technician"));
        Assert.Equal("us", _host.Services.GetRequiredService<PeopleStore>().All().First(p => p.Name == "Struan").Units);
        await Send("Wrenches", ("name", "W1"), ("low", "5 Nm"), ("high", "60 Nm"), ("step", "1 Nm"), ("calibrated", "2026-12-01"));
        await Send("Pans", ("name", "Blue"), ("holds", "12 L"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Send("Deliveries", ("orderBy", "12:00"), ("lead", "1")));
        await Send("Deliveries", ("day", "Wednesday"), ("orderBy", "12:00"), ("lead", "1"));
        Assert.Equal(new Deliveries([DayOfWeek.Wednesday], new(12, 0), 1).Arrives(_host.Clock.GetUtcNow()),
            Settings.Deliveries!.Arrives(_host.Clock.GetUtcNow()));
        Assert.Equal([HourStage.Oils, HourStage.Model, HourStage.Vehicle, HourStage.Card], Asked);
        Assert.Equal("Oils", Open);
    }

    [Fact]
    public async Task What_is_skipped_says_what_is_missing_and_is_asked_for_again()
    {
        await _me.Submit(Of("Bays", "Skip"));
        Assert.DoesNotContain(HourStage.Bays, Asked);
        Assert.Contains("Bay 1 and Bay 2 are taken for granted", _me.Text);
        await _me.Get("/");
        Assert.Contains("The first hour: units next", _me.Text);
        await _me.Get("/first-hour?at=Bays");
        await _me.Submit(Of("Bays", "Skip"));
        Assert.Contains(HourStage.Bays, Asked);
        await _me.Submit("form[action*='End']");
        Assert.Equal("/", _me.Address.AbsolutePath);
        Assert.DoesNotContain("The first hour", _me.Page.QuerySelector("main")!.TextContent);
        await _me.Get("/first-hour");
        await _me.Submit("form[action*='End']");
        Assert.NotEmpty(Asked);
        await _me.Get("/first-hour?at=99");
        Assert.Equal("Bays", Open);
    }

    [Fact]
    public async Task Whoever_does_not_lead_is_not_asked()
    {
        await Send("People", ("name", "Struan"), ("pin", "246801"), ("role", "Technician"));
        var struan = _host.NewBrowser();
        await struan.Get("/signin");
        var id = _host.Services.GetRequiredService<PeopleStore>().All().First(p => p.Name == "Struan").Id;
        await struan.Submit("form", ("person", id.Text), ("pin", "246801"));
        Assert.DoesNotContain("The first hour", struan.Text);
        await struan.Get("/first-hour");
        Assert.Equal("Not with your role", struan.Heading);
        await struan.Get("/intake");
        Assert.Contains("The workshop lead brings model sheets in", struan.Text);
    }

    private string Open => _me.Page.QuerySelector(".hour li:has(details[open])")!.Id!;

    private static string Of(string stage, string handler) => $"#{stage} form[action*='handler={handler}']";

    private Task<HttpStatusCode> Send(string stage, params (string, string)[] fields) => _me.Submit(Of(stage, stage), fields);
}
