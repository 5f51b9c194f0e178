using System.Net;
using Anakyklos.Core.Sheets;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>The oil book is written product by product and cover by cover.</summary>
public sealed class OilDeskTests() : InTheDemo("effie")
{
    private OilDesk Desk => Host.Services.GetRequiredService<OilDesk>();

    private string Text => Host.Services.GetRequiredService<ShelfStore>().OilBookText()!;

    private const string Product = "form[action*='handler=Product']";
    private const string Cover = "form[action*='handler=Cover']";

    [Fact]
    public async Task A_product_is_written_put_right_and_taken_out_and_the_file_is_as_before()
    {
        var before = Text;
        await Me.Get("/stores/oils");
        await Me.Submit(Product, ("name", "Gannet Trike 10W-40"), ("grades", "SAE 10W-40"), ("codes", "Tarn T-41L\nGL-4"),
            ("additives", ""), ("openDays", "30"));
        Assert.Contains("Gannet Trike 10W-40 is in the book", Me.Text);
        var added = Desk.Book.Find("gannet trike 10w40")!;
        Assert.Equal(["SAE 10W-40"], added.Grades);
        Assert.Equal(["Tarn T-41L", "GL-4"], added.Codes);
        Assert.Equal(30, added.OpenDays);
        await Me.Get("/stores/oils?name=Gannet%20Trike%2010W-40");
        await Me.Submit(Product, ("grades", "SAE 10W-40"), ("codes", "GL-4"), ("additives", "LS"), ("lowAsh", "yes"), ("openDays", ""));
        added = Desk.Book.Find("Gannet Trike 10W-40")!;
        Assert.Equal(["GL-4"], added.Codes);
        Assert.Equal(["LS"], added.Additives);
        Assert.Equal((true, (int?)null), (added.LowAsh, added.OpenDays));
        await Me.Get("/stores/oils?name=Gannet%20Trike%2010W-40");
        await Me.Submit("form[action*='handler=Remove']");
        Assert.Equal(before, Text);
    }

    [Fact]
    public async Task What_is_wrong_is_told_at_its_field_and_what_was_typed_stays()
    {
        var before = Text;
        await Me.Get("/stores/oils");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(Product, ("name", "Gannet Lowash 5W-30"), ("grades", ""),
            ("codes", "X"), ("additives", ""), ("openDays", "soon")));
        Assert.Contains("is in the book already", Me.Page.QuerySelector("#problem-name")!.TextContent);
        Assert.NotNull(Me.Page.QuerySelector("#problem-grades"));
        Assert.NotNull(Me.Page.QuerySelector("#problem-open-days"));
        Assert.Equal("soon", Me.Page.QuerySelector("#open-days")!.GetAttribute("value"));
        Assert.Equal(before, Text);
    }

    [Fact]
    public async Task What_is_still_in_a_can_stays_in_the_book()
    {
        await Me.Get("/stores/oils?name=Gannet%20Lowash%205W-30");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("form[action*='handler=Remove']"));
        Assert.Contains("still holds it", Me.Text);
        Assert.NotNull(Desk.Book.Find("Gannet Lowash 5W-30"));
    }

    // The demo's book says that Corran C8 covers Corran C7.
    [Fact]
    public async Task A_circle_of_covers_is_asked_about_and_kept_when_it_is_meant()
    {
        await Me.Get("/stores/oils");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(Cover, ("code", "corran c7"), ("covers", "Corran C8")));
        Assert.Contains("Corran C8 covers Corran C7 already. Does each cover the other?",
            Me.Page.QuerySelector("#problem-meant")!.TextContent);
        Assert.Null(Desk.Book.Book.Way("Corran C7", "Corran C8", Fuel.Petrol));
        await Me.Submit(Cover, ("meant", "yes"));
        Assert.NotNull(Desk.Book.Book.Way("Corran C7", "Corran C8", Fuel.Petrol));
        // Through a third one as well.
        Assert.Empty(await Desk.Cover("Corran C9", "Corran C8", "", false));
        Assert.Equal("meant", Assert.Single(await Desk.Cover("Corran C7", "Corran C9", "", false)).Field);
    }

    [Fact]
    public async Task A_cover_for_one_fuel_is_changed_and_taken_out()
    {
        var before = Text;
        Assert.Empty(await Desk.Cover("Tarn T-50", "Tarn T-41L", "diesel", false));
        Assert.NotNull(Desk.Book.Book.Way("Tarn T-50", "Tarn T-41L", Fuel.Diesel));
        Assert.Null(Desk.Book.Book.Way("Tarn T-50", "Tarn T-41L", Fuel.Petrol));
        Assert.Empty(await Desk.Cover("Tarn T-50", "Tarn T-41L", "", false));
        Assert.NotNull(Desk.Book.Book.Way("Tarn T-50", "Tarn T-41L", Fuel.Petrol));
        Assert.Empty(await Desk.Uncover("Tarn T-50", "Tarn T-41L"));
        Assert.Equal(before, Text);
        Assert.Equal("covers", Assert.Single(await Desk.Cover("GL-4", "gl 4", "", false)).Field);
        Assert.Equal(["code", "covers"], (await Desk.Cover("", " ", "", false)).Select(w => w.Field));
        Assert.Equal("fuel", Assert.Single(await Desk.Cover("A", "B", "steam", false)).Field);
    }

    [Fact]
    public async Task What_no_product_serves_is_named_and_viewers_change_nothing()
    {
        await Me.Get("/stores/oils");
        Assert.DoesNotContain("No product serves", Me.Text);
        Assert.Empty(await Desk.Uncover("Corran C8", "Corran C7"));
        await Me.Get("/stores/oils");
        Assert.Contains("No product serves Corran C7", Me.Text);
        var viewer = await Host.SignedIn("desk");
        await viewer.Get("/stores/oils");
        Assert.Null(viewer.Page.QuerySelector("main form"));
        await viewer.Get("/you");
        var id = viewer.Page.QuerySelector("[name=form-id]")!.GetAttribute("value")!;
        var token = viewer.Page.QuerySelector("[name=__RequestVerificationToken]")!.GetAttribute("value")!;
        Assert.Equal(HttpStatusCode.Forbidden, await viewer.Post("/stores/oils?handler=Uncover", ("code", "DOT 4"), ("covers", "DOT 3"),
            ("form-id", id), ("__RequestVerificationToken", token)));
        Assert.NotNull(Desk.Book.Book.Way("DOT 4", "DOT 3", Fuel.Petrol));
    }

    [Fact]
    public async Task What_a_product_or_a_cover_would_serve_is_drawn_before_anything_is_written_down()
    {
        var before = Text;
        await Me.Get("/stores/oils");
        Assert.Empty(Me.Page.QuerySelectorAll(".approval-line.new"));
        var drawn = Me.Page.QuerySelectorAll(".approval-line").Length;
        await Me.Submit("button[formaction*='TryProduct']", ("name", "Gannet Trike 10W-40"), ("grades", "SAE 10W-40"),
            ("codes", "Tarn T-41L"), ("additives", ""), ("openDays", "30"));
        Assert.Contains("Gannet Trike 10W-40", Me.Page.QuerySelector(".oil-tried")!.TextContent, StringComparison.Ordinal);
        Assert.NotEmpty(Me.Page.QuerySelectorAll(".approval-line.new"));
        Assert.True(Me.Page.QuerySelectorAll(".approval-line").Length > drawn);
        // What was typed stays, and is written down by the other press.
        Assert.Equal("Tarn T-41L", Me.Page.QuerySelector("textarea[name=codes]")!.TextContent.Trim());
        Assert.Equal("30", Me.Page.QuerySelector("#open-days")!.GetAttribute("value"));
        Assert.Equal(before, Text);

        await Me.Get("/stores/oils");
        await Me.Submit("button[formaction*='TryCover']", ("code", "Gannet G-1"), ("covers", "Tarn T-41L"));
        Assert.Contains("Gannet G-1 covers Tarn T-41L", Me.Page.QuerySelector(".oil-tried")!.TextContent, StringComparison.Ordinal);
        Assert.Equal("Gannet G-1", Me.Page.QuerySelector("#code")!.GetAttribute("value"));
        Assert.Equal(before, Text);
        // A line that is drawn already is not new.
        Assert.Empty(Me.Page.QuerySelectorAll(".approval-line.new"));
        await Me.Get("/stores/oils");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("button[formaction*='TryCover']", ("code", ""), ("covers", "X")));
        Assert.NotNull(Me.Page.QuerySelector("#problem-code"));
        Assert.Null(Me.Page.QuerySelector(".oil-tried"));
    }
}
