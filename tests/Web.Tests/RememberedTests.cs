using System.Net;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>What one card leaves to the next: recommendations and what became of them, wear, what was left out or given up.</summary>
public sealed class RememberedTests : InTheDemo
{
    private static readonly Person Iona = new("iona", "Iona R.", Role.Technician);

    private CardStore Cards => Host.Services.GetRequiredService<CardStore>();
    private DateTimeOffset Now => Host.Clock.GetUtcNow();

    private async Task Say(CardNumber card, CardCommand command)
    {
        Host.Clock.Advance(TimeSpan.FromMinutes(2));
        var answer = await Cards.Handle(card, Guid.CreateVersion7(), command, Iona, Now);
        Assert.True(answer!.Decision is Accepted, $"{command}: {answer.Decision}");
    }

    // The nurse's card is done but for the name under it.
    private async Task<CardNumber> Signed(params CardCommand[] before)
    {
        var card = Cards.OfVehicle("HD-02")[0].Id;
        foreach (var command in before)
            await Say(card, command);
        await Say(card, new Sign());
        return card;
    }

    [Fact]
    public async Task A_recommendation_is_there_until_somebody_says_what_became_of_it_and_who_declined_it()
    {
        var card = Cards.OfVehicle("HD-02")[0].Id;
        var step = Cards.Find(card)!.Steps[^1].Id;
        await Signed(new NoteFinding(step, FindingGrade.PlanIt, "Left drive shaft boot is cracked"),
            new NoteFinding(step, FindingGrade.KeepAnEye, "Sill weeps rust"));

        await Me.Get("/intake?plate=HD-02");
        var said = Me.Page.QuerySelector(".last-time")!.TextContent;
        Assert.Contains("Left drive shaft boot is cracked: to be planned since card 1057", string.Join(' ', said.Split((char[]?)null,
            StringSplitOptions.RemoveEmptyEntries)));
        Assert.Contains("Sill weeps rust", said);
        // Found now, it is to be planned within a month: too far for the week, but it comes along with what is due.
        var week = Host.Services.GetRequiredService<WeekDesk>().Week();
        Assert.Contains(week.Of("HD-02")!.Of.Wish.Wishes, w => w.What == "Left drive shaft boot is cracked");

        await Me.Get("/vehicle/HD-02");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("#recommended form"));
        Assert.Contains("Choose done or declined", Me.Text);
        Assert.Contains("A name is missing", Me.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await Me.Submit("#recommended form", ("became", "declined"), ("who", "Transport desk")));
        Assert.Equal("Transport desk", Me.Page.QuerySelector("#b0-who")!.GetAttribute("value"));
        await Me.Submit("#recommended form", ("became", "declined"), ("words", "It is sold in spring"));
        Assert.Equal("/vehicle/HD-02", Me.Address.AbsolutePath);
        Assert.Contains("declined Transport desk, 9 Mar 2026: It is sold in spring noted by Iona R.", Me.Text);
        await Me.Get("/intake?plate=HD-02");
        Assert.DoesNotContain("drive shaft boot", Me.Text);
        Assert.DoesNotContain(Host.Services.GetRequiredService<WeekDesk>().Week().Of("HD-02")?.Of.Wish.Wishes ?? [],
            w => w.What == "Left drive shaft boot is cracked");
        // It may become something else later; of a finding that there is not nothing is noted.
        await Me.Get("/vehicle/HD-02");
        await Me.Submit("#recommended form", ("became", "done"), ("who", "Quay Garage"), ("words", "New boot"));
        Assert.Contains("done Quay Garage", Me.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await Me.Submit("#recommended form", ("of", "1057.1"), ("became", "done"), ("who", "a"), ("words", "b")));
        var desk = await Host.SignedIn("desk");
        await desk.Get("/vehicle/HD-02");
        Assert.Contains("Left drive shaft boot is cracked", desk.Text);
        Assert.Null(desk.Page.QuerySelector("#recommended form"));
    }

    [Fact]
    public async Task What_wears_is_projected_from_the_last_two_times_it_was_measured()
    {
        var sheet = Host.Services.GetRequiredService<SheetStore>().Newest("hespin-16")!;
        await Me.Get("/vehicle/HD-02");
        Assert.Contains("Measured once: how fast it wears is not known yet.", Me.Text);
        var km = Quantity<Distance>.Of(121_900, Distance.Kilometre);
        var id = await Cards.Open(new("HD-04", sheet.Id, sheet.Revision, ["wear-check"], CardPlanner.Compose(sheet, ["wear-check"]), km,
            Use.Harsh, null, new Dictionary<PartId, int>()), "Bay 1", Iona, Now, Guid.CreateVersion7(), new(null, new(Now, km, "")));
        while (Cards.Find(id)!.Next is { } step)
        {
            var said = UsualPress.Of(Cards.Find(id)!, step);
            await Say(id, said is MeasurePoint { Point: "front-left" } m && step.Id == "brake-pads" ? m with { Value = "3.9 3.6" } : said);
        }
        await Say(id, new Sign());

        await Me.Get("/vehicle/HD-04");
        var row = Me.Page.QuerySelectorAll(".wears li").First(r => r.QuerySelector("b")!.TextContent == "Front left pads");
        var text = string.Join(' ', row.TextContent.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)).Replace('\u202f', ' ');
        // A millimetre in the 6,750 km since 115,150: the 1.6 mm that are left above 2 mm last 10,800 km.
        Assert.Contains("4.6 mm on 30 Sep 2025, 3.6 mm on 9 Mar 2026; at least 2 mm", text);
        Assert.Contains("0.15 mm in 1000 km: down to the limit at 132 700 km, about ", text);
        var use = Host.Services.GetRequiredService<VehicleStore>().History("HD-04", d => DateOnly.FromDateTime(d.UtcDateTime)).Use!;
        var day = new DateOnly(2026, 3, 9).AddDays((int)Math.Ceiling(10_800 / use.Usual.In(Distance.Kilometre)));
        Assert.Contains($"about {day:MMMM yyyy}.", text);
        // What is down first stands first.
        Assert.Equal("Front left pads", Me.Page.QuerySelector(".wears b")!.TextContent);
    }

    [Fact]
    public void A_seal_on_its_second_use_and_what_was_left_are_told_to_the_next_card()
    {
        // In the summer of last year the washer box was empty.
        var (id, sheet) = (Cards.OfVehicle("HD-07").Single(c => Cards.Find(c.Id)!.Deviations.Any()).Id,
            Host.Services.GetRequiredService<SheetStore>().Newest("tarn-courier-20d")!);
        Assert.Contains(Of(Cards.Find(id)!, []),
            r => r.What == "Washer for the drain plug" && r.Says == $"used again once up to card {id}: it wants a new one this time");
        var card = Cards.Find(id)!;
        var opened = card.Opened with { LeftForLater = [new("fuel-filter", "Fuel filter", "No filter on the boat")] };
        var other = JobCard.Replay(card.Sheet, [card.History[0] with { Event = opened }, .. card.History.Skip(1)]);
        Remembered left = new("Fuel filter", $"left for later on card {id}: No filter on the boat");
        Assert.Contains(left, Of(other, []));
        // It was done before that, and then since.
        var day = DateOnly.FromDateTime(card.Signature!.At.DateTime);
        Assert.Contains(left, Of(other, new() { ["fuel-filter"] = day.AddDays(-1) }));
        Assert.DoesNotContain(left, Of(other, new() { ["fuel-filter"] = day }));

        IReadOnlyList<Remembered> Of(JobCard last, Dictionary<JobId, DateOnly> done) =>
            LastTime.Of(new(id, last), [new(id, last)], done, sheet, at => DateOnly.FromDateTime(at.DateTime));
    }

    [Fact]
    public async Task A_job_that_was_given_up_two_cards_ago_is_remembered_until_it_is_done()
    {
        // The card of 110 days ago gave the air filter up, the last one only greased.
        var given = Cards.OfVehicle("HD-11").Single(c => Cards.Find(c.Id)!.Dropped.Any()).Id;
        Assert.NotEqual(given, Cards.OfVehicle("HD-11")[0].Id);
        var says = $"Air filter given up on card {given}: The boat brought the filter of another model";
        foreach (var page in new[] { "/vehicle/HD-11", "/intake?plate=HD-11" })
        {
            await Me.Get(page);
            Assert.Contains(says, Me.Text.Replace("Air filter: given", "Air filter given", StringComparison.Ordinal));
        }
        var trail = Host.Services.GetRequiredService<VehicleTrail>();
        await trail.Note("HD-11", [new("air-filter", new(2026, 3, 8), Quantity<Distance>.Of(87_900, Distance.Kilometre), "At the light")],
            Iona.Id, Now);
        await Me.Get("/vehicle/HD-11");
        Assert.DoesNotContain("given up on card", Me.Text);
    }

    [Fact]
    public async Task What_an_eye_is_kept_on_outlasts_the_next_card_and_stands_once()
    {
        var found = Cards.OfVehicle("HD-11")[0].Id;
        var watched = Cards.Find(found)!.Findings.Single(f => f.Event.Grade == FindingGrade.KeepAnEye).Event.Text;
        var sheet = Host.Services.GetRequiredService<SheetStore>().Newest("ostler-brae-28d")!;
        var km = Quantity<Distance>.Of(88_300, Distance.Kilometre);
        var next = await Cards.Open(new("HD-11", sheet.Id, sheet.Revision, ["grease"], CardPlanner.Compose(sheet, ["grease"]), km,
            Use.Harsh, null, new Dictionary<PartId, int>()), "Bay 1", Iona, Now, Guid.CreateVersion7(), new(null, new(Now, km, "")));
        var again = false;
        while (Cards.Find(next)!.Next is { } step)
        {
            // It is seen once more, in the same words.
            if (!again)
                await Say(next, new NoteFinding(step.Id, FindingGrade.KeepAnEye, watched));
            again = true;
            await Say(next, UsualPress.Of(Cards.Find(next)!, step));
        }
        await Say(next, new Sign());
        var bare = await Cards.Open(new("HD-11", sheet.Id, sheet.Revision, [], [], km, Use.Harsh, null, new Dictionary<PartId, int>()),
            "Bay 1", Iona, Now, Guid.CreateVersion7(), new(null, new(Now, km, "")));
        await Say(bare, new Sign());

        await Me.Get("/intake?plate=HD-11");
        Assert.Contains($"{watched}: an eye is kept on it since card {next}.", Me.Text);
        Assert.Single(Me.Page.QuerySelectorAll(".last-time li"), l => l.TextContent.Contains(watched, StringComparison.Ordinal));
        // Nobody plans a visit for it alone.
        Assert.DoesNotContain(Host.Services.GetRequiredService<WeekDesk>().Week().Of("HD-11")?.Of.Wish.Wishes ?? [],
            w => w.What == watched);
        await Me.Get("/vehicle/HD-11");
        await Me.Submit("#recommended form", ("became", "done"), ("who", "Quay Garage"), ("words", "New joint"));
        Assert.Contains("done Quay Garage", Me.Text);
        await Me.Get("/intake?plate=HD-11");
        Assert.DoesNotContain(watched, Me.Text);
    }

    [Fact]
    public async Task Every_second_oil_service_counts_those_that_were_done_and_both_readings_are_shown()
    {
        // Gearbox oil at 21,200 km, engine oil at 23,300 km since: with the next one it is the second.
        await Me.Get("/vehicle/HD-15");
        var row = Me.Page.QuerySelectorAll(".coming li").First(l => l.QuerySelector("b")!.TextContent == "Gearbox oil");
        var text = string.Join(' ', row.TextContent.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)).Replace('\u202f', ' ');
        Assert.Contains(", with every second time of “Engine oil and filter”", text);
        Assert.Contains("1 of 2 times of “Engine oil and filter” done since; by its own interval at 29 200 km or on ", text);
        Assert.Contains(": the services count", text);
        await Me.Get("/library/maelor-ridge-900");
        Assert.Contains("every second time, and with every second time of “Engine oil and filter”", Me.Text);
        // The yard goes by the same.
        var yard = Host.Services.GetRequiredService<FleetBook>().ByUrgency().Single(v => v.Vehicle.Plate == "HD-15");
        var alone = Host.Services.GetRequiredService<DueDesk>().Of(yard.Vehicle)!;
        Assert.Equal(alone.Items.MaxBy(i => i.State).State, yard.Standing.Worst!.Value.State);
    }

    [Fact]
    public async Task A_trip_that_is_noted_counts_at_intake_unless_another_is_typed()
    {
        await Me.Get("/intake?plate=HD-11");
        Assert.Contains("A trip is noted: 1 400 km from Thu 19 Mar on. It counts unless another is typed.", Me.Text);
        Assert.Contains("Would run over on the trip", Me.Text);
        await Me.Submit("button[data-plain]", ("odometer", "88 000"), ("tripLength", "10"));
        Assert.DoesNotContain("A trip is noted", Me.Text);
        Assert.DoesNotContain("Would run over on the trip", Me.Text);
        await Me.Get("/intake?plate=HD-07");
        Assert.Contains("Its driver said that the dash shows 17.", Me.Text);
        Assert.Equal("", Me.Page.QuerySelector("#dash")!.GetAttribute("value") ?? "");
    }
}
