using System.Net;
using Anakyklos.Core.Filling;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

public class FirstRunTests
{
    [Fact]
    public async Task An_empty_workshop_asks_for_its_first_lead_and_only_once()
    {
        await using var host = await WorkshopHost.Empty();
        var browser = host.NewBrowser();
        await browser.Get("/");
        Assert.Equal("/setup", browser.Address.AbsolutePath);
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await browser.Submit("main form", ("workshop", "Quay Garage"), ("name", "Mhairi"), ("pin", "12"), ("again", "13")));
        Assert.Contains("four to twelve digits", browser.Text);
        Assert.Contains("not what the program printed", browser.Text);
        Assert.Contains("The two PINs differ", browser.Text);
        Assert.Equal("Mhairi", browser.Page.QuerySelector("#name")!.GetAttribute("value"));
        var other = host.NewBrowser();
        await other.Get("/setup?token=0123456789abcdef");
        await other.Submit("main form", ("workshop", "Mine"), ("name", "Mallory"), ("pin", "135790"), ("again", "135790"));
        Assert.Contains("not what the program printed", other.Text);
        await browser.Submit("main form", ("console", host.SetupWord), ("workshop", "Quay Garage"), ("name", "Mhairi"),
            ("pin", "135790"), ("again", "135790"));
        Assert.Equal("/first-hour", browser.Address.AbsolutePath);
        await other.Get("/setup");
        Assert.Equal("/signin", other.Address.AbsolutePath);
        Assert.DoesNotContain("demo", other.Heading);

        await browser.Get("/intake");
        Assert.Equal("No model is here yet", browser.Heading);
        await browser.Get("/library");
        var sheet = await System.IO.File.ReadAllTextAsync(Path.Combine(AppContext.BaseDirectory, "sheets", "corran-fen-12.json"));
        await browser.Submit("form[action*='Add'], form:has([formaction*='Add']) [formaction*='Add']", ("text", sheet));
        await browser.Get("/intake");
        await browser.Submit("main form", ("plate", ""), ("newPlate", "qg-1"), ("year", "19"), ("task", "Bread"), ("odometer", "10"));
        Assert.Contains("not a model year", browser.Text);
        await browser.Submit("main form", ("plate", ""), ("newPlate", "qg-1"), ("year", "2019"), ("task", "Bread"),
            ("odometer", "12000 km"));
        Assert.True(browser.Address.AbsolutePath.StartsWith("/lift/"), browser.Text);

        await browser.Get("/people");
        await browser.Submit("form[action*='Add']", ("name", "Mhairi"), ("pin", "2222"));
        Assert.Contains("has that name already", browser.Text);
        await browser.Submit("form[action*='Add']", ("name", "Desk"), ("pin", "2222"), ("role", "Viewer"));
        await browser.Get("/equipment");
        await browser.Submit("form[action*='Wrench']", ("name", "W1"), ("low", "60 Nm"), ("high", "5 Nm"), ("step", "1"));
        Assert.Contains("Add the unit", browser.Text);
        await browser.Get("/workshop");
        await browser.Submit("form[action*='School']", ("school", "TopMark"), ("stages", "InOne"));
        Assert.Equal("TopMark", browser.Page.QuerySelector("[name=school]:checked")!.GetAttribute("value"));
        Assert.Equal("InOne", browser.Page.QuerySelector("[name=stages]:checked")!.GetAttribute("value"));

        await browser.Get("/intake");
        await browser.Submit("main form", ("plate", ""), ("newPlate", "qg-2"), ("year", "2020"), ("task", "Milk"), ("odometer", "900 km"));
        var opened = host.Services.GetRequiredService<CardStore>().Find(long.Parse(browser.Address.Segments[2]))!.Opened;
        Assert.Equal((TargetSchool.TopMark, PourStages.InOne), (opened.School, opened.Stages));

        await other.Get("/signin");
        var desk = other.Page.QuerySelectorAll("[name=person]").Select(p => p.GetAttribute("value")!)
            .First(v => other.Page.QuerySelector($"[value='{v}']")!.ParentElement!.TextContent.Contains("Desk"));
        await other.Submit("form", ("person", desk), ("pin", "2222"));
        await other.Get("/intake");
        Assert.Equal("Not with your role", other.Heading);
    }

    [Fact]
    public async Task Health_is_told_to_anybody()
    {
        await using var host = await WorkshopHost.Empty();
        var browser = host.NewBrowser();
        Assert.Equal(HttpStatusCode.OK, await browser.Get("/healthz"));
        Assert.Contains("first lead", browser.Text);
    }
}
