using System.Net;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>Bays, wrenches and devices are added, put right, calibrated, and taken out of use and back.</summary>
public sealed class EquipmentPageTests() : InTheDemo("una")
{
    private const string Known = "form[action*='handler=Wrench']:has([name=known])";

    private WorkshopSettings Settings => Host.Services.GetRequiredService<SettingStore>().Read();

    private EquipmentDesk Desk => Host.Services.GetRequiredService<EquipmentDesk>();

    private string Of(string name, string handler) => $"form[action*='handler={handler}']:has([name=name][value='{name}'])";

    [Fact]
    public async Task A_bay_with_a_new_name_keeps_what_stands_and_what_is_planned_there()
    {
        var planned = Host.Services.GetRequiredService<WeekMoves>();
        Assert.Empty(await planned.Fix("HD-11", "2026-03-11", "09:00", "Bay 2", new("una", "Una B.", Role.Lead)));
        await Host.Services.GetRequiredService<DeviceDesk>().Pair("TW-2", "Bay 2");
        await Me.Get("/equipment");
        await Me.Submit("form[action*='Bays']", ("bay", "Bay 1"), ("bay", "North lift"), ("bay", "Pit"), ("lift", "0"), ("lift", "1"));
        Assert.Contains("The bays are set", Me.Text);
        Assert.Equal(["Bay 1", "North lift", "Pit", "Outside"], Settings.Bays.All);
        Assert.Equal((true, false), (Settings.HasLift("North lift"), Settings.HasLift("Pit")));
        await Me.Get("/bay/north-lift");
        Assert.Contains("HD-08", Me.Text);
        Assert.Contains("TW-2", Me.Text);
        Assert.Equal(HttpStatusCode.NotFound, await Me.Get("/bay/bay-2"));
        var week = Host.Services.GetRequiredService<WeekDesk>().Week();
        Assert.Equal("North lift", week.BayOf(week.Of("HD-11")!.Slot!.Value));
        Assert.Equal(3, week.Plan.Problem.Bays.Count);
        // What is past stays where it was done.
        var past = Host.Services.GetRequiredService<CardStore>().LastSigned(50).Select(c => c.Bay).Distinct();
        Assert.DoesNotContain("North lift", past);
    }

    [Fact]
    public async Task A_bay_is_given_up_only_once_nothing_is_in_it()
    {
        var devices = Host.Services.GetRequiredService<DeviceDesk>();
        Assert.Null(await devices.MoveVehicle(1057, "Bay 1"));
        await Me.Get("/equipment");
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await Me.Submit("form[action*='Bays']", ("bay", ""), ("bay", "Bay 2"), ("bay", "")));
        Assert.Contains("Bay 1 is not empty: HD-02", Me.Page.QuerySelector("#problem-bays")!.TextContent);
        Assert.Equal(["Bay 1", "Bay 2"], Settings.Bays.Inside);
        Assert.Null(await devices.MoveVehicle(1057, "Outside"));
        await Me.Get("/equipment");
        await Me.Submit("form[action*='Bays']", ("bay", ""), ("bay", "Bay 2"), ("bay", ""));
        Assert.Equal(["Bay 2"], Settings.Bays.Inside);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("form[action*='Bays']", ("bay", ""), ("bay", "")));
        Assert.Contains("There is no bay", Me.Text);
    }

    [Fact]
    public async Task Two_who_change_the_bays_do_not_undo_each_other()
    {
        var other = await Host.SignedIn("una");
        await other.Get("/equipment");
        await Me.Get("/equipment");
        await Me.Submit("form[action*='Bays']", ("bay", "Bay 1"), ("bay", "Bay 2"), ("bay", "Pit"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await other.Submit("form[action*='Bays']", ("bay", "East"), ("bay", "West"), ("bay", "")));
        Assert.Contains("Somebody changed the bays meanwhile", other.Text);
        Assert.Equal(["Bay 1", "Bay 2", "Pit"], Settings.Bays.Inside);
    }

    [Fact]
    public async Task What_is_known_of_a_wrench_is_put_right_and_its_name_stays()
    {
        await Me.Get("/equipment");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(Known, ("high", "4 N·m")));
        Assert.NotEmpty(Me.Page.QuerySelectorAll("details[open] .problem"));
        await Me.Get("/equipment");
        await Me.Submit(Known, ("high", "80 N·m"), ("accuracy", "3"));
        var wrench = Settings.Wrenches.First(w => w.Name == "TW-2");
        Assert.Equal(("80 N·m", 3m), ($"{wrench.High}", wrench.Accuracy));
        Assert.Equal(4, Settings.Wrenches.Count);
        // A form that says of a name nobody knows that it is known adds nothing.
        Assert.NotEmpty(await Desk.PutWrench(new("TW-77", "5 Nm", "60 Nm", "1 Nm", "4", "2026-12-01"), true));
        Assert.NotEmpty(await Desk.PutWrench(new("TW-2", "5 Nm", "60 Nm", "1 Nm", "4", "2026-12-01"), false));
    }

    [Fact]
    public async Task What_is_out_of_use_is_offered_no_more_and_can_be_taken_back()
    {
        await Me.Get("/equipment");
        await Me.Submit(Of("TW-2", "Out"));
        Assert.DoesNotContain(Settings.Wrenches, w => w.Name == "TW-2");
        Assert.DoesNotContain(Host.Services.GetRequiredService<ShelfStore>().Read().Wrenches, w => w.Wrench.Name == "TW-2");
        Assert.Null((await Host.Services.GetRequiredService<DeviceDesk>().Pair("TW-2", "Bay 1")).Key);
        // Its name is not given to another.
        Assert.NotEmpty(await Desk.PutWrench(new("TW-2", "5 Nm", "60 Nm", "1 Nm", "4", "2026-12-01"), false));
        Assert.NotNull(await Desk.TakeOut("TW-2"));
        await Me.Submit(Of("TW-2", "Back"));
        Assert.Contains(Settings.Wrenches, w => w.Name == "TW-2");
        foreach (var name in new[] { "OD-1", "ST-1", "LP-1" })
            await Me.Submit(Of(name, "Out"));
        Assert.Empty(Settings.Dispensers!);
        Assert.Empty(Settings.ScanTools!);
        Assert.Empty(Settings.LabelPrinters!);
        await Me.Submit(Of("OD-1", "Back"));
        Assert.NotNull(Settings.Dispenser("OD-1"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Post("/equipment?handler=Out", [.. Tokens, ("name", "nothing")]));
    }

    [Fact]
    public async Task A_calibration_that_found_a_wrench_off_names_what_it_tightened_wrong()
    {
        await Me.Get("/equipment");
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await Me.Submit(Of("TW-4", "Calibrated"), ("day", "2026-04-01"), ("off", "much"), ("until", "")));
        Assert.Equal(["problem-TW-4-c-day", "problem-TW-4-c-off", "problem-TW-4-c-until"],
            Me.Page.QuerySelectorAll(".problem").Select(p => p.Id));
        Assert.Empty(Desk.Calibrations());
        // By the sheets and a calculator: wheel bolts said at 110 N·m came to 123.2, wheel nuts at 125 to 140.
        await Me.Submit(Of("TW-4", "Calibrated"), ("day", "2026-03-06"), ("off", "12"), ("until", "2027-03-05"));
        Assert.Equal(new DateOnly(2027, 3, 5), Settings.Wrenches.First(w => w.Name == "TW-4").CalibrationDue);
        var story = Desk.Story(Settings.Wrenches.First(w => w.Name == "TW-4"), Desk.Calibrations()["TW-4"])!;
        Assert.NotEmpty(story.Cards);
        Assert.Contains("said 110 N·m, came to 123.2 N·m", Me.Text);
        Assert.Contains("16 of them", Me.Text);
        Assert.All(story.Cards.SelectMany(c => c.Lines), l => Assert.True(l.Was.Value > l.Book.High, $"{l.Name} {l.Was} {l.Book.High}"));
        Assert.All(story.Cards.SelectMany(c => c.Lines),
            l => Assert.Equal(l.Said.Value.In(l.Said.Unit) * 1.12m, l.Was.Value.In(l.Said.Unit), 6));
        // A second one that finds it right says that nothing is wrong any more, and a small stray within its accuracy says nothing.
        Host.Clock.Advance(TimeSpan.FromMinutes(1));
        await Me.Submit(Of("TW-4", "Calibrated"), ("day", "2026-03-09"), ("off", "-3.5 %"), ("until", "2027-03-08"));
        Assert.Null(Desk.Story(Settings.Wrenches.First(w => w.Name == "TW-4"), Desk.Calibrations()["TW-4"]));
        // Off by much since the last one: but nothing was tightened with it since.
        Host.Clock.Advance(TimeSpan.FromMinutes(1));
        await Me.Submit(Of("TW-4", "Calibrated"), ("day", "2026-03-09"), ("off", "-30"), ("until", "2027-03-08"));
        Assert.Contains("Nothing was tightened with it since the calibration before", Me.Text);
    }

    private IEnumerable<(string, string)> Tokens => new[] { "__RequestVerificationToken", "form-id" }.Select(own =>
        (own, Me.Page.QuerySelector($"main [name={own}]")!.GetAttribute("value")!));
}
