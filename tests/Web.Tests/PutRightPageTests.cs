using System.Net;
using Anakyklos.Core.Quantities;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>What is known of a vehicle is put right through its page and at intake, with a reason that stays.</summary>
public sealed class PutRightPageTests : InTheDemo
{
    private static Quantity<Distance> Km(decimal km) => Quantity<Distance>.Of(km, Distance.Kilometre);

    private VehicleStore Vehicles => Host.Services.GetRequiredService<VehicleStore>();

    private const string First = "#readings li:first-child form";

    [Fact]
    public async Task A_last_reading_that_does_not_fit_is_said_left_out_and_put_right()
    {
        await Vehicles.Note("HD-07", new(Host.Clock.GetUtcNow(), Km(640_500), ""), "iona");
        await Me.Get("/vehicle/HD-07");
        Assert.Contains("640\u202f500 km", Me.Page.QuerySelector(".came")!.TextContent);
        Assert.Contains("left out", Me.Page.QuerySelector(".came")!.TextContent);
        // The head and the forecast go by the one before.
        Assert.Contains("146\u202f100 km on", Me.Page.QuerySelector(".lead")!.TextContent);
        await Me.Get("/intake?plate=HD-07");
        Assert.Contains("Last 146 100 km", Me.Text);
        Assert.Contains("does not fit the others", Me.Text);

        await Me.Get("/vehicle/HD-07/put-right");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(First, ("odometer", "64 050"), ("reason", "A digit")));
        Assert.Contains("It was between 146 100 km and ", Me.Text);
        Assert.Equal("64 050", Me.Page.QuerySelector("#r0-odometer")!.GetAttribute("value"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(First, ("odometer", "146 300"), ("reason", "")));
        Assert.Contains("The reason is missing", Me.Text);
        await Me.Submit(First, ("odometer", "146 300"), ("reason", "Read the trip meter"));
        Assert.Contains("640\u202f500 km was 146\u202f300 km; Read the trip meter, Iona R.",
            Me.Page.QuerySelector("#trail")!.TextContent.Replace("\n", " "));
        await Me.Get("/vehicle/HD-07");
        Assert.Null(Me.Page.QuerySelector(".came"));
        Assert.Contains("146\u202f300 km on", Me.Page.QuerySelector(".lead")!.TextContent);
    }

    [Fact]
    public async Task At_intake_a_lower_reading_says_that_the_last_one_was_wrong()
    {
        // 1,900 km in eight days is believed: nobody knew better.
        await Vehicles.Note("HD-07", new(Host.Clock.GetUtcNow(), Km(148_000), ""), "iona");
        Host.Clock.Advance(TimeSpan.FromHours(1));
        await Me.Get("/intake?plate=HD-07");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("main form", ("odometer", "146 500")));
        Assert.Contains("is less than the last reading, 148 000 km", Me.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("main form", ("lower", "wrong"), ("reason", "Slip")));
        Assert.Contains("What it was is missing", Me.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("main form", ("lower", "wrong"), ("right", "147 000")));
        Assert.Contains("It was between 146 100 km and 146 500 km.", Me.Text);
        await Me.Submit("main form", ("lower", "wrong"), ("right", "146 400"));
        Assert.StartsWith("/lift/", Me.Address.AbsolutePath);
        Assert.Equal([Km(146_500), Km(146_400), Km(146_100)], Vehicles.Odometer("HD-07").Take(3).Select(r => r.Reading));
        await Me.Get("/vehicle/HD-07/put-right");
        Assert.Contains("148 000 km was 146 400 km; Slip", Me.Text);
    }

    [Fact]
    public async Task With_more_than_one_reading_above_none_is_called_wrong_by_a_press()
    {
        await Me.Get("/intake?plate=HD-07");
        await Me.Submit("main form", ("odometer", "144 000"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await Me.Submit("main form", ("lower", "wrong"), ("right", "143 900"), ("reason", "Slip")));
        Assert.Contains("More than one reading is higher than 144 000 km.", Me.Text);
    }

    [Fact]
    public async Task An_exchanged_odometer_carries_what_is_due_over()
    {
        var fleet = Host.Services.GetRequiredService<FleetBook>();
        var stood = Stands();
        await Me.Get("/vehicle/HD-07");
        var before = Oil();
        await Me.Get("/intake?plate=HD-07");
        await Me.Submit("main form", ("odometer", "10"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await Me.Submit("main form", ("lower", "exchanged"), ("oldShowed", "146 000"), ("reason", "New cluster")));
        Assert.Contains("The old one showed 146 100 km", Me.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await Me.Submit("main form", ("lower", "exchanged"), ("oldShowed", "146 100"), ("newShowed", "11")));
        Assert.Contains("It shows 10 km now.", Me.Text);
        await Me.Submit("main form", ("lower", "exchanged"), ("oldShowed", "146 100"), ("newShowed", "10"));
        Assert.StartsWith("/lift/", Me.Address.AbsolutePath);
        await Me.Get("/vehicle/HD-07");
        Assert.Contains("146 100 km on the old one is 10 km on the new one", Me.Text.Replace("\n", " "));
        Assert.Equal(before, Oil());
        Assert.Equal(stood, Stands());
        // What the card was told of the oil in it lies on the new odometer as well: filled at 138,050 of the old one.
        var cards = Host.Services.GetRequiredService<CardStore>();
        var told = cards.Find(cards.OfVehicle("HD-07")[0].Id)!.Opened.FilledBefore!;
        Assert.Equal(Km(138_050 - 146_090), told["engine-oil"].Odometer);

        (int, int, int) Stands() => fleet.ByUrgency().Single(v => v.Vehicle.Plate == "HD-07").Standing is var s
            ? (s.Overdue, s.Due, s.Soon) : default;

        // What is left, without when it was done last: that lies on the other odometer.
        string Oil() => Me.Page.QuerySelectorAll(".coming li").First(l => l.TextContent.Contains("Engine oil"))
            .QuerySelectorAll("span").Last().TextContent.Split(';')[0].Trim();
    }

    [Fact]
    public async Task A_service_elsewhere_counts_from_the_day_it_was_done()
    {
        await Me.Get("/vehicle/HD-07/put-right");
        const string form = "form[action='?handler=Elsewhere']";
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(form, ("day", "2030-01-01"), ("odometer", "145 000")));
        Assert.Contains("still to come", Me.Text);
        Assert.Contains("No job of this model is chosen", Me.Text);
        Assert.Contains("By whom and where is missing", Me.Text);
        await Me.Submit(form, ("job", "drive-belt"), ("day", "2026-03-02"), ("odometer", "146 100"), ("where", "Kells Garage"));
        await Me.Get("/vehicle/HD-07");
        Assert.Contains("Drive belt", Me.Text);
        Assert.Contains("Kells Garage", Me.Text);
        Assert.Contains("2 Mar 2026", Me.Page.QuerySelectorAll(".coming li").First(l => l.TextContent.Contains("Drive belt")).TextContent);
        await Me.Get("/vehicle/HD-07/put-right");
        await Me.Submit("form[action='?handler=NotDone']", ("reason", "Another van"));
        Assert.Contains("not done elsewhere: Drive belt", Me.Text);
    }

    [Fact]
    public async Task Its_description_is_changed_with_a_reason_and_not_while_a_card_is_open()
    {
        const string form = "form[action='?handler=Description']";
        await Me.Get("/vehicle/HD-07/put-right");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(form, ("plate", "HD-70"), ("year", "19")));
        Assert.Contains("The reason is missing", Me.Text);
        Assert.Contains("not a model year", Me.Text);
        Assert.Equal("HD-70", Me.Page.QuerySelector("#its-plate")!.GetAttribute("value"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(form, ("plate", "HD-08"), ("year", "2019"), ("reason", "x")));
        Assert.Contains("HD-08 is the plate of another vehicle", Me.Text);
        await Me.Submit(form, ("plate", "HD-70"), ("reason", "New plates"));
        Assert.Equal("/vehicle/HD-70/put-right", Me.Address.AbsolutePath);
        Assert.Contains("plate: “HD-07” is now “HD-70”; New plates", Me.Text);
        await Me.Get("/vehicle/HD-07");
        Assert.Equal("/vehicle/HD-70", Me.Address.AbsolutePath);
        await Me.Get("/");
        Assert.DoesNotContain("HD-07", Me.Page.QuerySelector(".rows")!.TextContent);

        await Me.Get("/vehicle/HD-16/put-right");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(form, ("task", "Spare"), ("reason", "x")));
        Assert.Contains("Card 1056 is open", Me.Text);
        var desk = await Host.SignedIn("desk");
        await desk.Get("/vehicle/HD-70/put-right");
        Assert.Equal("Not with your role", desk.Heading);
        await desk.Get("/vehicle/HD-70");
        Assert.DoesNotContain("Put right", desk.Text);
    }
}
