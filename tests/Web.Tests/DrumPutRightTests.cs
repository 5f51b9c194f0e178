using System.Net;
using Anakyklos.Core.Stores;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>A drum for used fluids is put right, and taken out of use once nothing is in it.</summary>
public sealed class DrumPutRightTests() : InTheDemo("effie")
{
    private WasteDrum? Drum(string name) => Host.Services.GetRequiredService<DrumStore>().All().FirstOrDefault(d => d.Name == name);

    private Task<HttpStatusCode> Send(string handler, params (string, string)[] fields) =>
        Me.Post($"/drums?handler={handler}", [.. fields, ("form-id", $"{Guid.NewGuid()}"), ("__RequestVerificationToken",
            Me.Page.QuerySelector("[name=__RequestVerificationToken]")!.GetAttribute("value")!)]);

    [Fact]
    public async Task What_it_holds_is_put_right_and_what_lies_in_it_does_not_become_something_else()
    {
        await Me.Get("/drums");
        Assert.Equal(HttpStatusCode.OK, await Send("Put", ("name", "Old oil"), ("waste", "Oil"), ("holds", "200 L"), ("keep", "180")));
        Assert.Equal((200m, 180), (Drum("Old oil")!.Holds.In(Anakyklos.Core.Quantities.Volume.Litre), Drum("Old oil")!.KeepDays));
        await Me.Get("/drums");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Send("Put", ("name", "Old oil"), ("waste", "Coolant"), ("holds", "200 L")));
        Assert.Contains("Have it collected first", Me.Text);
        Assert.Equal(Waste.Oil, Drum("Old oil")!.Waste);
    }

    [Fact]
    public async Task Empty_it_is_taken_out_of_use_with_something_in_it_it_is_not_and_it_can_be_put_up_again()
    {
        await Me.Get("/drums");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Send("Out", ("drum", "Old oil")));
        Assert.NotNull(Drum("Old oil"));
        await Me.Get("/drums");
        await Send("Put", ("name", "Bucket"), ("waste", "Coolant"), ("holds", "20 L"));
        await Me.Get("/drums");
        await Send("Out", ("drum", "Bucket"));
        Assert.Null(Drum("Bucket"));
        await Me.Get("/drums");
        Assert.DoesNotContain("Bucket", Me.Text);
        await Send("Put", ("name", "Bucket"), ("waste", "Coolant"), ("holds", "30 L"));
        Assert.NotNull(Drum("Bucket"));
    }

    [Fact]
    public async Task Whoever_only_looks_changes_nothing()
    {
        var desk = await Host.SignedIn("desk");
        await desk.Get("/drums");
        Assert.Null(desk.Page.QuerySelector("main form"));
        await Me.Get("/drums");
        var token = await desk.Token();
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await desk.Post("/drums?handler=Out", ("drum", "Brake fluid"),
            ("form-id", $"{Guid.NewGuid()}"), ("__RequestVerificationToken", token)));
        Assert.NotNull(Drum("Brake fluid"));
    }
}
