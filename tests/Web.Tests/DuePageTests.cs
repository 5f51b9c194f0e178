using System.Net;
using Anakyklos.Core.Cards;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>Why a vehicle is in: intake, vehicle and yard.</summary>
public sealed class DuePageTests : IAsyncLifetime
{
    private WorkshopHost _host = null!;
    private Browser _browser = null!;

    public async ValueTask InitializeAsync() => _browser = await (_host = await WorkshopHost.Demo()).SignedIn();

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private string Why(string job) => string.Join(' ',
        _browser.Page.QuerySelector($"#why-{job}")!.TextContent.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));

    private bool IsTicked(string job) => _browser.Page.QuerySelector($"input[name=job][value={job}]")!.HasAttribute("checked");

    private VehicleStore Vehicles => _host.Services.GetRequiredService<VehicleStore>();

    [Fact]
    public async Task The_code_on_the_dash_is_translated_and_differs_from_our_sum_by_one_job()
    {
        await _browser.Get("/intake?plate=HD-09");
        await _browser.Submit("button[data-plain]", ("plate", "HD-09"), ("odometer", "2 560"), ("dash", "m20"));
        Assert.Contains("M-20 First check and engine oil: first check, engine oil and filter", _browser.Text);
        Assert.True(IsTicked("first-check"));
        Assert.False(IsTicked("engine-oil-and-filter"));
        Assert.Contains("The dash asks for it too (M-20)", Why("first-check"));
        // Done at 1,900 km: 15,000 on from there less 2,560.
        Assert.Contains("14 340 km", Why("engine-oil-and-filter").Replace('\u202f', ' '));
        Assert.Contains("it was done since, and the dash was not set back then", Why("engine-oil-and-filter"));
        await _browser.Submit("button[data-plain]", ("dash", "Z-9"));
        Assert.Contains("This model has no code “Z-9”. It has M-10, M-20, M-31.", _browser.Text);
    }

    [Fact]
    public async Task A_bay_that_is_taken_says_by_whom_and_the_first_free_place_is_offered()
    {
        await _browser.Get("/intake?plate=HD-04");
        Assert.Equal(["Bay 1", "Bay 2, HD-08 is there", "Outside"],
            _browser.Page.QuerySelectorAll("#bay option").Select(o => o.TextContent));
        Assert.Equal("Bay 1", _browser.Page.QuerySelector("#bay option[selected]")!.GetAttribute("value"));
        // Two may stand in one bay all the same, one behind the other.
        await _browser.Submit("main form", ("plate", "HD-04"), ("odometer", "121900"), ("job", "cabin-filter"), ("bay", "Bay 2"));
        Assert.Equal("Bay 2", _host.Services.GetRequiredService<CardStore>().OfVehicle("HD-04")[0].Bay);
    }

    [Fact]
    public async Task A_job_and_the_check_that_follows_it_some_distance_later_are_no_one_card()
    {
        await _browser.Get("/intake?plate=HD-04");
        await _browser.Submit("main form", ("plate", "HD-04"), ("odometer", "121900"), ("job", "tyre-rotation"), ("job", "wheel-recheck"));
        Assert.Contains("looks again at what “Tyre rotation and pressures” did", _browser.Text);
        Assert.DoesNotContain(_host.Services.GetRequiredService<CardStore>().OfVehicle("HD-04"), c => c.IsOpen);
    }

    [Theory]
    [InlineData("1220000", "122 000 km would fit")]
    [InlineData("190000", "Look again")]
    public async Task An_odometer_too_high_for_its_use_is_asked_about_and_taken_once_somebody_looked_again(string typed, string says)
    {
        await _browser.Get("/intake?plate=HD-04");
        Assert.Contains("Last 121 300 km on", _browser.Text);
        (string, string)[] form = [("plate", "HD-04"), ("odometer", typed), ("job", "cabin-filter"), ("bay", "Bay 1")];
        await _browser.Submit("main form", form);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, _browser.Status);
        Assert.Contains(says, _browser.Page.QuerySelector("#problem-odometer")!.TextContent.Replace('\u202f', ' '));
        // What is asked about makes nothing due.
        Assert.DoesNotContain("Air filter is due and not chosen", _browser.Text);
        // What was looked at again was another number: that is asked about once more.
        await _browser.Submit("main form", [.. form, ("meant", "190001 km")]);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, _browser.Status);
        var tick = _browser.Page.QuerySelector("input[name=meant]")!;
        Assert.False(tick.HasAttribute("checked"));
        // Said, but not all jobs are chosen that are due then: it stays said.
        await _browser.Submit("main form", [.. form, ("meant", tick.GetAttribute("value")!)]);
        Assert.Contains("Air filter is due and not chosen", _browser.Text);
        Assert.True(_browser.Page.QuerySelector("input[name=meant]")!.HasAttribute("checked"));
        var jobs = _browser.Page.QuerySelectorAll("input[name=job]").Select(i => ("job", i.GetAttribute("value")!))
            .Where(j => j.Item2 != "wheel-recheck");
        await _browser.Submit("main form", [.. form.Where(f => f.Item1 != "job"), .. jobs, ("meant", tick.GetAttribute("value")!)]);
        Assert.Equal("", string.Join('|', _browser.Page.QuerySelectorAll("[role=alert]").Select(a => a.TextContent)));
        Assert.StartsWith("/lift/", _browser.Address.AbsolutePath);
    }

    [Theory]
    [InlineData("122.000", "can be read in two ways")]
    [InlineData("12200", "122 000 km would fit")]
    public async Task An_odometer_that_can_be_read_in_two_ways_or_lacks_a_digit_is_not_taken(string typed, string says)
    {
        await _browser.Get("/intake?plate=HD-04");
        await _browser.Submit("main form", ("plate", "HD-04"), ("odometer", typed), ("job", "cabin-filter"), ("bay", "Bay 1"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, _browser.Status);
        Assert.Contains(says, _browser.Page.QuerySelector("#problem-odometer")!.TextContent.Replace('\u202f', ' '));
    }

    [Fact]
    public async Task A_trip_ahead_brings_forward_the_two_jobs_that_would_run_over()
    {
        // None is noted beforehand.
        await _host.Services.GetRequiredService<VisitStore>().SetTrip("HD-11", null, "iona", _host.Clock.GetUtcNow());
        await _browser.Get("/intake?plate=HD-11");
        Assert.Equal(["engine-oil-and-filter"], _browser.Page.QuerySelectorAll("input[name=job][checked]")
            .Select(i => i.GetAttribute("value")));
        await _browser.Submit("button[data-plain]", ("plate", "HD-11"), ("odometer", "88000"), ("tripLength", "1600"), ("tripDays", "6"));
        Assert.Equal(["engine-oil-and-filter", "grease"],
            _browser.Page.QuerySelectorAll("input[name=job][checked]").Select(i => i.GetAttribute("value")));
        Assert.Contains("Would run over on the trip by 700 km; done now, 12 % of its interval is given away", Why("engine-oil-and-filter"));
        Assert.Contains("by 600 km", Why("grease"));
    }

    [Theory]
    [InlineData("tripLength", "far", "#problem-tripLength")]
    [InlineData("oilLife", "140", "#problem-oilLife")]
    [InlineData("remaining", "soon", "#problem-remaining")]
    [InlineData("hours", "-4", "#problem-hours")]
    public async Task What_cannot_be_read_is_told_beside_its_field_and_opens_nothing(string field, string value, string problem)
    {
        await _browser.Get("/intake?plate=HD-11");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await _browser.Submit("main form", ("odometer", "88000"), (field, value)));
        Assert.NotNull(_browser.Page.QuerySelector(problem));
        Assert.Equal(value, _browser.Page.QuerySelector($"#{field}")!.GetAttribute("value"));
    }

    [Fact]
    public async Task A_trip_that_cannot_be_read_is_told_before_anything_is_opened()
    {
        await _browser.Get("/intake?plate=HD-11");
        await _browser.Submit("button[data-plain]", ("odometer", "88000"), ("tripLength", "1,600 km"));
        Assert.Contains("1600", _browser.Page.QuerySelector("#jobs .problem")!.TextContent);
        Assert.Equal("1,600 km", _browser.Page.QuerySelector("#tripLength")!.GetAttribute("value"));
    }

    [Fact]
    public async Task A_due_job_is_left_out_only_with_a_reason_which_goes_onto_the_card()
    {
        await _browser.Get("/intake?plate=HD-09");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await _browser.Submit("main form", ("odometer", "2560"), ("job", "air-filter")));
        Assert.Contains("First check is due and not chosen. Choose it, or say why not.", _browser.Text);
        await _browser.Submit("main form", ("odometer", "2560"), ("job", "air-filter"),
            ("drop-first-check", "The maker's man does it on Thursday"));
        Assert.StartsWith("/lift/", _browser.Address.AbsolutePath);
        var card = _host.Services.GetRequiredService<CardStore>().Find(long.Parse(_browser.Address.AbsolutePath.Split('/')[2]))!;
        Assert.Equal(new JobLeft("first-check", "First check", "The maker's man does it on Thursday"), card.Opened.LeftForLater!.Single());
    }

    [Fact]
    public async Task A_counter_that_disagrees_is_shown_beside_our_sum()
    {
        await _browser.Get("/intake?plate=HD-07");
        await _browser.Submit("button[data-plain]", ("plate", "HD-07"), ("odometer", "147050"), ("remaining", "6 000"));
        // Done at 138,050, every 10,000 km in harsh use: 1,000 km left.
        Assert.Contains("The dash's counter says 6 000 km left, our sum 1 000 km", _browser.Text.Replace('\u202f', ' '));
    }

    [Fact]
    public async Task Unknown_history_makes_everything_due_and_says_so()
    {
        await _browser.Get("/intake");
        await _browser.Submit("main form", ("plate", ""), ("newPlate", "HD-30"), ("sheet", "corran-fen-12"), ("year", "2019"),
            ("unknown", "true"), ("odometer", "51000"), ("job", "cabin-filter"));
        await _browser.Get("/vehicle/HD-30");
        Assert.Contains("Nobody knows its history", _browser.Text);
        Assert.Contains("Nobody knows when it was last done, so it counts as due", _browser.Text);
    }

    [Fact]
    public async Task The_yard_says_who_is_due_who_waits_and_for_what()
    {
        await _browser.Get("/");
        Assert.Contains("waits for spark plugs SK-3312-S, comes Tuesday 10 March", _browser.Text); // ordered on Monday before noon
        var rows = _browser.Page.QuerySelectorAll(".rows .plate").Select(p => p.TextContent).ToList();
        Assert.True(rows.IndexOf("HD-09") < rows.IndexOf("HD-04"));
        Assert.Contains("First check: over by", _browser.Text);
        Assert.Contains("ring closed, sign it", _browser.Text);
    }

    [Fact]
    public async Task The_vehicle_shows_its_life_its_use_and_what_comes_next()
    {
        await _browser.Get("/vehicle/HD-11");
        Assert.NotNull(_browser.Page.QuerySelector(".life .life-band"));
        Assert.Contains("km a day, between", _browser.Text);
        var coming = _browser.Page.QuerySelectorAll(".coming li b").Select(b => b.TextContent).ToList();
        Assert.Equal(10, coming.Count);
        Assert.Equal("Engine oil and filter", coming[0]);
    }

    [Fact]
    public async Task The_owners_rule_counts_where_it_is_shorter_and_only_the_lead_sets_it()
    {
        var lead = await _host.SignedIn("una");
        await lead.Get("/vehicle/HD-11");
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await lead.Submit("form[action*=Rule], .own-rules form", ("job", "engine-oil-and-filter"), ("distance", "5 furlongs")));
        Assert.Equal("5 furlongs", lead.Page.QuerySelector("#distance[aria-invalid=true]")!.GetAttribute("value"));
        await lead.Submit(".own-rules form", ("job", "engine-oil-and-filter"), ("distance", "5000"), ("months", ""));
        // Done at 81,400: 5,000 on is 86,400, and it stands at 87,950.
        Assert.Contains("Over by 1 550 km", lead.Text.Replace('\u202f', ' '));
        Assert.Contains("by the owner's rule", lead.Text);
        await _browser.Get("/vehicle/HD-11");
        Assert.Null(_browser.Page.QuerySelector(".own-rules form"));
    }

    [Fact]
    public async Task Vehicles_come_in_from_a_file_or_not_at_all()
    {
        var lead = await _host.SignedIn("una");
        const string Head = "plate,model,task,year,use,delivered,history,day,odometer,hours\n";
        await lead.Get("/workshop");
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await lead.Submit("form[enctype]", ("text",
            Head + "HD-40,corran-fen-12,Post,2022,harsh,,known,2026-01-05,12000,\nHD-40,,,,,,,2026-02-31,13000 "
                + "km,\nHD-41,no-such,Post,22,harsh,,known,2026-04-01,-5,\n")));
        foreach (var say in new[] { "Row 3, day: “2026-02-31” is not a day", "Row 4, model: There is no sheet of “no-such”", "Row 4, year",
            "Row 4, day: 2026-04-01 is in the future", "Row 4, odometer" })
            Assert.Contains(say, lead.Text);
        Assert.Null(Vehicles.Find("HD-40"));
        await lead.Submit("form[enctype]", ("text",
            Head + "HD-40,Corran Fen 1.2,Post,2022,harsh,2022-03-01,known,2026-01-05,12000,\nHD-40,,,,,,,5.2.2026,8000 mi,\n"));
        Assert.Contains("1 vehicles and 2 readings are in", lead.Text);
        Assert.Equal(12_874.752m, Vehicles.Odometer("HD-40")[0].Reading.In(Core.Quantities.Distance.Kilometre));
    }
}
