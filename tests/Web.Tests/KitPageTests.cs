using System.Net;
using Anakyklos.Core.Cards;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>The kit page and the stores: what is missing, what waits, what is refused.</summary>
public sealed class KitPageTests : IAsyncLifetime
{
    private WorkshopHost _host = null!;
    private Browser _browser = null!;

    public async ValueTask InitializeAsync() => _browser = await (_host = await WorkshopHost.Demo()).SignedIn();

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private CardStore Cards => _host.Services.GetRequiredService<CardStore>();

    private async Task<long> Opened(string plate = "HD-07", string odometer = "148200", params string[] jobs)
    {
        await _browser.Get($"/intake?plate={plate}");
        await _browser.Submit("main form", [("odometer", odometer), .. jobs.Select(j => ("job", j))]);
        Assert.StartsWith("/lift/", _browser.Address.AbsolutePath);
        return long.Parse(_browser.Address.AbsolutePath.Split('/')[2]);
    }

    private string Part(string number) => string.Join(' ',
        _browser.Page.QuerySelectorAll(".kit-part")
        .Single(p => p.QuerySelector(".kit-number")!.TextContent == number).TextContent.Split((char[]?)null,
        StringSplitOptions.RemoveEmptyEntries));

    [Fact]
    public async Task The_missing_washer_waits_for_the_boat_and_wakes_when_it_is_booked_in()
    {
        var card = await Opened();
        await _browser.Get($"/kit/{card}");
        Assert.Equal("One old seal, or wait", _browser.Heading);
        Assert.Contains("the old one may go in once more", Part("TC-0714-R"));
        await _browser.Submit("button[formaction*=Await]");
        Assert.Contains("waits until", Part("TC-0714-R"));
        var awaited = Cards.Find(card)!.Awaited.Single();
        Assert.Contains(awaited.Boat!.Value.DayOfWeek, new[] { DayOfWeek.Tuesday, DayOfWeek.Friday });
        Assert.True(awaited.Boat > new DateOnly(2026, 3, 9));

        var effie = await _host.SignedIn("effie");
        await effie.Get("/stores?q=tc0714r");
        Assert.Contains("0 on the shelf", effie.Page.QuerySelector(".shelf-found")!.TextContent);
        await effie.Submit("form[action*=Part]", ("number", "tc 0714 r"), ("count", "5"));
        Assert.Contains($"5 on the shelf now. Card {card} waited for it and goes on", effie.Text);
        Assert.Empty(Cards.Find(card)!.Awaited);
        await _browser.Get($"/kit/{card}");
        Assert.Equal("All of it is here", _browser.Heading);
    }

    [Fact]
    public async Task The_job_goes_on_with_the_old_washer_by_name_and_the_next_card_brings_it_up()
    {
        var id = await Opened();
        await _browser.Get($"/kit/{id}");
        (string, string)[] ticks = [("tick-oil-filter", "yes"), ("tick-filter-cap-ring", "yes"), ("compared-oil-filter", "yes"),
            ("old-drain-washer", "yes")];
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await _browser.Submit("button[formaction*=Confirm]", ticks));
        Assert.Contains("The reason for the washer for the drain plug is missing", _browser.Text);
        await _browser.Submit("button[formaction*=Confirm]", [.. ticks, ("parts.drain-washer.reason", "Mail boat sails at noon")]);
        var deviation = Cards.Find(id)!.Deviations.Single();
        Assert.Equal(("Iona R.", "Mail boat sails at noon"), (deviation.Recorded.By.Name, deviation.Event.Reason));
        Assert.Equal(KitConfirmed.OldOneAgain, Cards.Find(id)!.Kit!.Parts["drain-washer"]);
    }

    [Fact]
    public async Task At_the_lift_one_press_does_not_claim_what_the_stores_lack()
    {
        var id = await Opened();
        await _browser.Get($"/lift/{id}?step=lay-out-kit");
        Assert.Contains("Washer for the drain plug TC-0714-R is not on the shelf", _browser.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await _browser.Submit("#kit"));
        Assert.Contains("The washer for the drain plug (TC-0714-R) is not in hand", _browser.Text);
        // One lay in the drawer after all.
        await _browser.Submit("#kit", ("parts.drain-washer.choice", "InHand"));
        Assert.NotNull(Cards.Find(id)!.Kit);
    }

    [Fact]
    public async Task A_wrong_part_is_refused_by_its_number_and_a_right_one_is_ticked()
    {
        var card = await Opened();
        await _browser.Get($"/kit/{card}");
        await _browser.Submit("button.side[formaction*=Scan]", ("scan", "tc-0617-f"));
        Assert.Contains("TC-0617-F is the wrong oil filter cartridge: the same width but 9 mm shorter", _browser.Text);
        Assert.Empty(_browser.Page.QuerySelectorAll("input[name=tick-oil-filter][checked]"));
        await _browser.Submit("button.side[formaction*=Scan]", ("scan", "TC 0621 F"));
        Assert.Single(_browser.Page.QuerySelectorAll("input[name=tick-oil-filter][checked]"));
        await _browser.Submit("button.side[formaction*=Scan]", ("scan", "TC0621F"));
        Assert.Contains("all of them are ticked already", _browser.Text);
        await _browser.Submit("button.side[formaction*=Scan]", ("scan", "<script>"));
        Assert.Contains("<script> does not belong to this kit", _browser.Text);
    }

    [Fact]
    public async Task The_filter_must_have_been_held_against_the_old_one()
    {
        var card = await Opened();
        await _browser.Get($"/kit/{card}");
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await _browser.Submit("button[formaction*=Confirm]", ("tick-oil-filter", "yes"), ("tick-filter-cap-ring", "yes"),
            ("old-drain-washer", "yes"), ("parts.drain-washer.reason", "boat")));
        Assert.Contains("was not held against the old one", _browser.Text);
        Assert.Null(Cards.Find(card)!.Kit);
    }

    [Fact]
    public async Task Only_one_of_four_oils_fits_and_the_page_says_what_each_of_the_others_lacks()
    {
        var card = await Opened();
        await _browser.Get($"/kit/{card}");
        var oil = string.Join(' ', _browser.Page.QuerySelector(".kit-oil")!.TextContent.Split((char[]?)null,
            StringSplitOptions.RemoveEmptyEntries));
        Assert.Contains("Gannet Lowash 5W-30 fits: SAE 5W-30, Tarn T-41L", oil);
        Assert.Contains("Gannet Classic 5W-30 lacks the approval Tarn T-41L (it has Tarn T-41), low ash", oil);
        Assert.Contains("Fulmar Road 5W-40 lacks the grade SAE 5W-30 or SAE 0W-30 (it has SAE 5W-40)", oil);
        Assert.Contains("Fulmar Petrol 5W-30 lacks", oil);
        Assert.Equal(3, _browser.Page.QuerySelectorAll(".others li").Length);
        // 13.4 L open, 6.4 wanted.
        Assert.Contains("take 6.40 L, 7.00 L left", oil);
    }

    [Fact]
    public async Task Another_oil_goes_in_only_with_a_reason_and_never_under_warranty()
    {
        var card = await Opened();
        await _browser.Get($"/kit/{card}");
        (string, string)[] kit = [("tick-oil-filter", "yes"), ("tick-filter-cap-ring", "yes"), ("compared-oil-filter", "yes"),
            ("old-drain-washer", "yes"), ("parts.drain-washer.reason", "boat"), ("oils.engine-oil.product", "Fulmar Road 5W-40")];
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await _browser.Submit("button[formaction*=Confirm]", kit));
        Assert.Contains("Fulmar Road 5W-40 lacks the grade", _browser.Text);
        await _browser.Submit("button[formaction*=Confirm]", [.. kit, ("oils.engine-oil.reason", "Out of warranty, owner wants it")]);
        Assert.Contains(Cards.Find(card)!.Deviations, d => d.Event.Kind == DeviationKind.OtherOil && d.Event.NeedsCountersignature);

        var young = await Opened("HD-09", "2560", "first-check", "engine-oil-and-filter");
        await _browser.Get($"/kit/{young}");
        await _browser.Submit("button.side[formaction*=All]");
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await _browser.Submit("button[formaction*=Confirm]", ("oils.engine-oil.product", "Fulmar Petrol 5W-30"),
            ("oils.engine-oil.reason", "nothing else there")));
        Assert.Contains("and the vehicle is under warranty. Take one that fits.", _browser.Text);
    }

    [Fact]
    public async Task The_kit_and_the_order_come_out_as_files()
    {
        var card = await Opened();
        await _browser.Get($"/kit/{card}?handler=File");
        var kit = await _browser.Answer.Content.ReadAsStringAsync();
        Assert.StartsWith("kind,what,number or size,wanted,in hand,for\npart,Oil filter cartridge,TC-0621-F,1,1,", kit);
        await _browser.Get("/stores?handler=order");
        var order = await _browser.Answer.Content.ReadAsStringAsync();
        Assert.Contains("SK-3312-S,", order);
        Assert.Contains("TC-0714-R,Washer for the drain plug,1,pieces,", order);

        // Nothing is ordered for a job that was given up.
        await _browser.Get($"/lift/{card}?panel=stuck");
        await _browser.Submit("button[formaction*=drop]", ("reason", "Called to the ferry"));
        await _browser.Get("/stores?handler=order");
        Assert.DoesNotContain("TC-0714-R", await _browser.Answer.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task A_superseded_number_leads_to_the_new_one()
    {
        await _browser.Get("/stores?q=cf8802c");
        var found = string.Join(' ', _browser.Page.QuerySelector(".shelf-found")!.TextContent.Split((char[]?)null,
            StringSplitOptions.RemoveEmptyEntries));
        Assert.Contains("CF-8806-C", found);
        Assert.Contains("which supersedes cf8802c", found);
        await _browser.Get("/stores?q=nothing-like-it");
        Assert.Contains("The stores do not know “nothing-like-it”", _browser.Text);
    }

    [Theory]
    [InlineData("parts", "number,name,on shelf\nX-1,One,3\nx 1,Again,2\n,Nameless,-1\n", "Row 3, number: x 1 is in row 2 already",
        "Row 4, on shelf: “-1” is not a count")]
    [InlineData("containers", "product,size,left\nNo such oil,20 L,21 L\n", "Row 2, product: “No such oil” is not in the oil book",
        "Row 2, left: 21.00 L is more than the container holds")]
    [InlineData("tools", "kind,name,holds\nhammer,Big,\npan,Tray,many\n", "Row 2, kind: “hammer” is not a kind", "Row 3, holds")]
    [InlineData("parts", "number;name\nX-1;One\n", "There is no column “on shelf”", "Row 1")]
    [InlineData("oils", "{ \"format\": \"anakyklos/oil-book/1\" }", "products", "Nothing was taken in")]
    public async Task A_stock_file_with_errors_is_told_row_by_row_and_loads_nothing(string kind, string text, params string[] says)
    {
        var shelf = _host.Services.GetRequiredService<ShelfStore>();
        var before = (shelf.Read().Parts.Count, shelf.Read().Containers.Count, shelf.OilBookText());
        var effie = await _host.SignedIn("effie");
        await effie.Get("/stores");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await effie.Submit("form[enctype]", ("kind", kind), ("text", text)));
        Assert.All(says, say => Assert.Contains(say, effie.Text));
        Assert.Equal(text.ReplaceLineEndings("\n").Trim(), effie.Page.QuerySelector("#text")!.TextContent.ReplaceLineEndings("\n").Trim());
        Assert.Equal(before, (shelf.Read().Parts.Count, shelf.Read().Containers.Count, shelf.OilBookText()));
    }

    [Fact]
    public async Task What_went_out_as_a_file_comes_back_in_unchanged()
    {
        var shelf = _host.Services.GetRequiredService<ShelfStore>();
        await _browser.Get("/stores?handler=File&kind=parts");
        var file = await _browser.Answer.Content.ReadAsStringAsync();
        var before = shelf.Read().Parts;
        await _browser.Get("/stores");
        await _browser.Submit("form[enctype]", ("kind", "parts"), ("text", file));
        Assert.Contains("rows of parts are in", _browser.Text);
        Assert.Equal(before.Select(p => (p.Number, p.Name, p.OnShelf, p.SupersededBy)),
            shelf.Read().Parts.Select(p => (p.Number, p.Name, p.OnShelf, p.SupersededBy)));
    }

    [Fact]
    public async Task The_transport_desk_looks_and_books_nothing()
    {
        var desk = await _host.SignedIn("desk");
        await desk.Get("/stores");
        Assert.Empty(desk.Page.QuerySelectorAll("form[method=post]"));
        Assert.Equal(HttpStatusCode.NotFound, await desk.Get("/stores?handler=File&kind=people"));
    }
}
