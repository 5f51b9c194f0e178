using System.Net;
using Anakyklos.Core.Weeks;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>The week of the bays in the demo: Monday morning, three vehicles to come, two people and for half of the day a third.</summary>
public sealed class WeekPageTests : InTheDemo
{
    private WeekDesk Weeks => Host.Services.GetRequiredService<WeekDesk>();
    private VisitStore Visits => Host.Services.GetRequiredService<VisitStore>();

    private WeekVisit Of(string plate) => Weeks.Week().Of(plate)!;

    private DateOnly DayOf(string plate) => Weeks.Week().Days[Of(plate).Slot!.Value.Day].Date;

    private const string Another = "details:has(#day) form", Left = "form[action*='Drop']", Needed = "form[action*='Needed']",
        Trip = "form[action*='Trip']", Dash = "form[action*='Dash']";

    [Fact]
    public async Task The_week_says_who_comes_when_and_why_in_drawing_and_list()
    {
        await Me.Get("/week");
        var week = Weeks.Week();
        Assert.Equal(["HD-04", "HD-07", "HD-09", "HD-11"], week.Visits.Select(v => v.Plate).Order());
        Assert.All(week.Visits, v => Assert.NotNull(v.Slot));
        Assert.InRange(week.Plan.Bound, week.Plan.Cost - 3, week.Plan.Cost);
        foreach (var v in week.Visits.Where(v => v.Slot!.Value.Day < 7))
        {
            Assert.NotNull(Me.Page.QuerySelector($".week-bays a[href='/week/{v.Plate}']"));
            Assert.NotNull(Me.Page.QuerySelector($".week-list a[href='/week/{v.Plate}']"));
        }
        Assert.Contains("First check over since", Me.Text);
        Assert.Contains("card 1056, Outside: waits until Tue 10 Mar", Me.Text);
        Assert.Contains("all is done, it is to be signed", Me.Text);
        // The keepers leave on the nineteenth: three days before that is soon enough.
        await Me.Get("/week?week=2");
        Assert.Equal(new DateOnly(2026, 3, 16), DayOf("HD-11"));
        Assert.Contains("Monday 16 March", Me.Text);
        await Me.Get("/week/HD-11");
        Assert.Contains("Engine oil and filter: would run over on the trip of Thu 19 Mar", Me.Text);
        await Me.Get("/week/HD-07");
        Assert.Contains("Fuel filter: the dash asks for it", Me.Text);
        // One day alone, with what is next to it; a day that is none shows the week.
        await Me.Get("/week?day=2026-03-16");
        Assert.Equal("Monday 16 March", Me.Heading);
        Assert.Equal(["/week?day=2026-03-13", "/week?week=2", "/week?day=2026-03-17"],
            Me.Page.QuerySelectorAll(".week-days a").Select(a => a.GetAttribute("href")));
        Assert.Equal(["/week/HD-11"],
            Me.Page.QuerySelectorAll(".week-list a.week-row[href^='/week/']").Select(a => a.GetAttribute("href")));
        await Me.Get("/week?day=2026-03-15");
        Assert.Equal("The next seven days", Me.Heading);
    }

    [Fact]
    public async Task A_visit_is_fixed_at_another_time_and_freed_again()
    {
        await Me.Get("/week/HD-11");
        Assert.Equal(HttpStatusCode.OK, await Me.Submit($"{Another} [formaction*='Try']", ("day", "2026-03-18"), ("time", "09:00")));
        Assert.Contains("the very day it is due; nothing else moves", Me.Text);
        Assert.Equal("2026-03-18", Me.Page.QuerySelector("#day")!.GetAttribute("value"));
        Assert.Empty(Visits.All());
        await Me.Submit($"{Another} [formaction*='Fix']");
        Assert.Contains("Wed 18 Mar 09:00", Me.Text);
        Assert.True(Of("HD-11").IsFixed);
        Assert.Equal(new DateOnly(2026, 3, 18), DayOf("HD-11"));
        Assert.Equal(4, Visits.All().Count);
        await Me.Submit("form[action*='Free']");
        Assert.Contains("Proposed.", Me.Text);
        Assert.False(Of("HD-11").IsFixed);
        // One press on the page of days.
        await Me.Submit("form:has(button[aria-label^='Fix it on Fri 13 Mar'])");
        Assert.Equal(new DateOnly(2026, 3, 13), DayOf("HD-11"));
    }

    [Theory]
    [InlineData("2026-03-14", "09:00", "Bay 1", "day", "The workshop is not open then")]
    [InlineData("2026-04-14", "09:00", "Bay 1", "day", "not within these two weeks")]
    [InlineData("2026-03-10", "16:00", "Bay 1", "time", "the workshop is not open all that time")]
    [InlineData("2026-03-10", "half past", "Bay 1", "time", "That is no time of the day")]
    [InlineData("2026-03-10", "09:00", "Bay 7", "bay", "There is no such bay")]
    public async Task What_cannot_be_is_refused_at_its_field_and_nothing_is_kept(string day, string time, string bay, string field,
        string says)
    {
        await Me.Get("/week/HD-11");
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await Me.Submit($"{Another} [formaction*='Fix']", ("day", day), ("time", time), ("bay", bay)));
        Assert.Contains(says, Me.Page.QuerySelector($"#problem-{field}")!.TextContent);
        Assert.Empty(Visits.All());
    }

    [Fact]
    public async Task Where_another_is_fixed_the_bay_is_taken_and_what_is_only_proposed_gives_way()
    {
        await Me.Get("/week/HD-09");
        await Me.Submit($"{Another} [formaction*='Fix']", ("day", "2026-03-12"), ("time", "09:00"), ("bay", "Bay 1"));
        Assert.Equal(new VisitSlot(3, 36, 0), Of("HD-09").Slot);
        await Me.Get("/week/HD-11");
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await Me.Submit($"{Another} [formaction*='Fix']", ("day", "2026-03-12"), ("time", "08:30"), ("bay", "Bay 1")));
        Assert.Contains("HD-09 is fixed in Bay 1 from 09:00 to 09:45.", Me.Text);
        await Me.Submit($"{Another} [formaction*='Fix']", ("bay", "Bay 2"));
        Assert.Equal(new VisitSlot(3, 34, 1), Of("HD-11").Slot);
        // The mail's own visit is put onto its neighbour's place, which only was proposed there.
        await Me.Get("/week/HD-09");
        await Me.Submit("form[action*='Free']");
        var stands = Of("HD-09").Slot!.Value;
        await Me.Get("/week/HD-07");
        await Me.Submit($"{Another} [formaction*='Fix']", ("day", $"{DayOf("HD-09"):yyyy-MM-dd}"), ("time", "14:00"), ("bay", "Bay 2"));
        Assert.True(Of("HD-07").IsFixed, Me.Text);
        Assert.Equal(stands.Day, Of("HD-09").Slot!.Value.Day);
    }

    [Fact]
    public async Task What_runs_over_pushes_what_was_fixed_behind_it()
    {
        // The spare van stands half done in the second bay.
        await Me.Get("/week/HD-09");
        await Me.Submit($"{Another} [formaction*='Fix']", ("day", "2026-03-09"), ("time", "14:00"), ("bay", "Bay 1"));
        Assert.Equal(new VisitSlot(0, 56, 0), Of("HD-09").Slot);
        Host.Clock.Advance(TimeSpan.FromMinutes(320));
        // It is twenty past two, and it has not come.
        Assert.Equal(new VisitSlot(0, 57, 0), Of("HD-09").Slot);
        await Me.Get("/week");
        Assert.Contains("pushed back", Me.Text);
        // Too late for today: the plan has it again.
        Host.Clock.Advance(TimeSpan.FromHours(2));
        Assert.NotEqual(0, Of("HD-09").Slot!.Value.Day);
        Host.Clock.Advance(TimeSpan.FromHours(12));
        var morning = await Host.SignedIn();
        await morning.Get("/week/HD-09");
        Assert.Contains("It was to come on Mon 9 Mar, and did not.", morning.Text);
        await morning.Submit("form:has(button[aria-label^='Fix it on Wed 11 Mar'])");
        Assert.DoesNotContain("did not", morning.Text);
    }

    [Fact]
    public async Task Who_is_left_out_needs_a_day_and_a_reason_and_counts_again_when_taken_back()
    {
        await Me.Get("/week/HD-11");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(Left, ("until", "2026-03-09"), ("reason", "")));
        Assert.Contains("That is no day to come", Me.Page.QuerySelector("#problem-until")!.TextContent);
        Assert.Contains("A reason is missing", Me.Page.QuerySelector("#problem-reason")!.TextContent);
        await Me.Submit(Left, ("until", "2026-03-30"), ("reason", "The light wants painting"));
        Assert.Contains("Until Mon 30 Mar: The light wants painting (Iona R.)", Me.Text);
        Assert.Null(Weeks.Week().Of("HD-11"));
        await Me.Get("/week");
        Assert.Contains("Left out", Me.Text);
        await Me.Get("/week/HD-11");
        await Me.Submit("form[action*='TakeBack']");
        Assert.NotNull(Weeks.Week().Of("HD-11"));
    }

    [Fact]
    public async Task When_it_cannot_be_missed_where_it_goes_and_what_its_dash_shows_change_the_plan()
    {
        await Me.Get("/week/HD-09");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(Needed, ("needed", "always")));
        Assert.Equal("always", Me.Page.QuerySelector("#needed")!.GetAttribute("value"));
        await Me.Submit(Needed, ("needed", "Mo-We 8-17"));
        Assert.Equal("Mo-We 08:00-17:00", Me.Page.QuerySelector("#needed")!.GetAttribute("value"));
        Assert.Equal(new DateOnly(2026, 3, 12), DayOf("HD-09"));
        Assert.Contains("it cannot be missed for so long", Me.Text);
        await Me.Submit(Needed, ("needed", "Mo-Su 0-24"));
        Assert.Contains("No place", Me.Text);
        Assert.Contains("cannot be missed for so long", Me.Text);

        await Me.Get("/week/HD-15");
        Assert.Contains("Nothing asks for it within two weeks", Me.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(Dash, ("dash", "88")));
        Assert.Contains("It shows SERV", Me.Text);
        await Me.Submit(Dash, ("dash", "SERV"));
        Assert.Contains("the dash asks for it", Me.Text);
        await Me.Submit(Dash, ("dash", ""));
        Assert.Contains("Nothing asks for it within two weeks", Me.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(Trip, ("tripLength", ""), ("tripLeaves", "2026-03-20")));
        Assert.Contains("How far it goes is missing", Me.Text);
        await Me.Submit(Trip, ("tripLength", "6 000"), ("tripLeaves", "2026-03-20"), ("tripDays", "9"));
        Assert.Contains("would run over on the trip of Fri 20 Mar", Me.Text);
        await Me.Submit(Trip, ("tripLength", ""), ("tripLeaves", ""), ("tripDays", ""));
        Assert.Contains("Nothing asks for it within two weeks", Me.Text);
    }

    [Fact]
    public async Task Once_its_card_is_open_it_stands_in_its_bay()
    {
        var other = await Host.SignedIn("una");
        await other.Get("/week/HD-09");
        await Me.Get("/intake?plate=HD-09");
        await Me.Submit("main form", ("odometer", "2 900"), ("bay", "Bay 1"));
        Assert.StartsWith("/lift/", Me.Address.AbsolutePath);
        await Me.Get("/week/HD-09");
        Assert.Contains("It is here", Me.Text);
        // The other tab is told, and nothing is kept.
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await other.Submit($"{Another} [formaction*='Fix']"));
        Assert.Contains("it need not come in these two weeks any more", other.Text);
        Assert.Empty(Visits.All());
        var card = Weeks.Week().Cards.Single(c => c.Entry.Plate == "HD-09");
        Assert.Equal(new DateOnly(2026, 3, 9), DateOnly.FromDateTime(card.Ends!.Value.DateTime));
        await Me.Get("/week");
        Assert.NotNull(Me.Page.QuerySelector($".week-bays a[href='/card/{card.Entry.Id}']"));
    }

    [Fact]
    public async Task Whoever_only_looks_sees_the_week_and_moves_nothing()
    {
        var desk = await Host.SignedIn("desk");
        await desk.Get("/week/HD-11");
        Assert.Contains("Engine oil and filter", desk.Text);
        Assert.Null(desk.Page.QuerySelector("main form"));
        await desk.Get("/you");
        desk.Page.QuerySelector("main form")!.SetAttribute("action", "/week/HD-11?handler=Drop");
        await desk.Submit("main form", ("until", "2026-03-30"), ("reason", "x"));
        Assert.Equal("Not with your role", desk.Heading);
        Assert.Empty(Visits.Dropped(new(2026, 3, 9)));
        await desk.Get("/desk");
        Assert.Contains("To be brought in", desk.Text);
        Assert.Contains("HD-09", desk.Page.QuerySelector(".desk-back")!.TextContent);
    }

    [Fact]
    public async Task The_order_for_the_boat_is_for_the_visits_of_the_week()
    {
        var orders = Host.Services.GetRequiredService<OrderDesk>();
        Assert.Contains(orders.Lines(), l => l.For.Contains("HD-07") && l.Name == "Washer for the drain plug");
        await Me.Get("/week/HD-07");
        Assert.Contains("Washer for the drain plug: comes Tue 10 Mar", Me.Text);
        Assert.Contains("its parts come on Tue 10 Mar", Me.Text);
        await Me.Submit(Left, ("until", "2026-03-30"), ("reason", "Sold"));
        Assert.DoesNotContain(orders.Lines(), l => l.For.Contains("HD-07"));
    }

    [Fact]
    public async Task A_calendar_program_reads_the_visits()
    {
        var key = await Host.Services.GetRequiredService<CalendarDesk>().Key();
        var stranger = Host.NewBrowser();
        Assert.DoesNotContain("BEGIN:VCALENDAR", await stranger.Content("/calendar/wrong/week.ics"));
        var text = (await stranger.Content($"/calendar/{key}/week.ics")).Replace("\r\n ", "");
        var slot = Of("HD-11").Slot!.Value;
        Assert.Contains("UID:HD-11-visit@anakyklos", text);
        Assert.Contains($"DTSTART:{DayOf("HD-11"):yyyyMMdd}T{Quarters.Time(slot.Begins):HHmm}00Z", text);
        Assert.Contains("STATUS:TENTATIVE", text);
        await Me.Get("/week/HD-11");
        await Me.Submit("form:has(button[aria-label^='Fix it on Fri 13 Mar'])");
        Assert.Contains("STATUS:CONFIRMED", await stranger.Content($"/calendar/{key}/week.ics"));
    }

    [Fact]
    public async Task The_lead_sets_when_it_is_open_which_bay_has_a_lift_and_when_people_are_there()
    {
        var lead = await Host.SignedIn("una");
        await lead.Get("/workshop");
        const string form = "form[action*='Week']";
        Assert.Equal("Mo-Fr 08:00-12:00", lead.Page.QuerySelector("#o-hours-una")!.GetAttribute("value"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await lead.Submit(form, ("open", ""), ("hours-iona", "mornings")));
        Assert.Contains("It is never open so", lead.Page.QuerySelector("#problem-o-open")!.TextContent);
        Assert.Contains("“mornings” does not begin with days", lead.Page.QuerySelector("#problem-o-hours-iona")!.TextContent);
        Assert.Equal("mornings", lead.Page.QuerySelector("#o-hours-iona")!.GetAttribute("value"));
        Assert.Equal(WeeklyTimes.Usual, Host.Services.GetRequiredService<SettingStore>().Read().Opening);

        // Open on three days, with nobody but Iona, and no lift in the first bay.
        await lead.Get("/workshop");
        await lead.Submit(form, ("open", "Tu-Th 9-17"), ("hours-tavish", ""), ("hours-una", ""), ("hours-iona", "Mo-Fr 8-17"));
        await lead.Get("/equipment");
        await lead.Submit("form[action*='Bays']", ("lift", "1"));
        var week = Weeks.Week();
        Assert.Equal([1, 2, 3, 8, 9, 10], Enumerable.Range(0, 14).Where(d => week.Days[d].Open != Quarters.None));
        Assert.Equal([false, true], week.Plan.Problem.Bays.Select(b => b.Lift));
        Assert.Equal(1, week.Days[1].People[40]);
        Assert.All(week.Visits.Where(v => v.Work.Lift && v.Slot is not null), v => Assert.Equal(1, v.Slot!.Value.Bay));
        await Me.Get("/week/HD-11");
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await Me.Submit($"{Another} [formaction*='Fix']", ("day", "2026-03-11"), ("time", "09:00"), ("bay", "Bay 1")));
        Assert.Contains("It has to be raised, and Bay 1 has no lift.", Me.Text);
    }
}
