using System.Net;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Schools;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>What no workshop can mean is refused with words, and nothing of the form that said it is kept.</summary>
public sealed class AbsurdSettingTests() : InTheDemo("una")
{
    [Theory]
    [InlineData("School", "school", "Hologram", "is none of the ways to choose from")]
    [InlineData("School", "school", "1", "is none of the ways to choose from")]
    [InlineData("School", "school", "TopMark, LittleUnder", "is none of the ways to choose from")]
    [InlineData("School", "stages", "7", "is none of the ways to choose from")]
    [InlineData("School", "drain", "airfirst", "is none of the ways to choose from")]
    [InlineData("School", "filter", "Wet", "is none of the ways to choose from")]
    [InlineData("School", "drip", "121", "is not a number of minutes")]
    [InlineData("School", "drip", "-5", "is not a number of minutes")]
    [InlineData("Week", "open", "Mo-Fr 16:00-08:00", "08:00")]
    [InlineData("Weather", "coldest", "-71", "That is no weather")]
    [InlineData("Weather", "hottest", "1e9", "")]
    [InlineData("Weather", "coldest", "60", "The hottest must be above the coldest")]
    [InlineData("Wrench", "high", "38000 Nm", "38000 N·m is more than any wrench here gives")]
    [InlineData("Wrench", "low", "0 Nm", "It must be above zero")]
    [InlineData("Wrench", "step", "200 Nm", "by at least one graduation")]
    [InlineData("Wrench", "accuracy", "0", "percent")]
    [InlineData("Wrench", "accuracy", "21", "percent")]
    [InlineData("Wrench", "lever", "9000 mm", "how far it is from its square")]
    [InlineData("Wrench", "calibrated", "31.2.2026", "is not a day")]
    [InlineData("Rule", "distance", "79228162514264337593543950335 km", "")]
    [InlineData("Rule", "distance", "0.001 km", "is not an interval")]
    [InlineData("Rule", "months", "241", "is not a number of months")]
    [InlineData("Rule", "job", "hologram", "No model has this job")]
    [InlineData("Dispenser", "accuracy", "-1", "percent")]
    public async Task What_no_workshop_can_mean_is_refused(string form, string field, string value, string words)
    {
        var settings = Host.Services.GetRequiredService<SettingStore>();
        var before = System.Text.Json.JsonSerializer.Serialize(settings.Read());
        await Me.Get(form is "Wrench" or "Dispenser" ? "/equipment" : "/workshop");
        (string Name, string Value)[] usual = form switch
        {
            "Wrench" => [("name", "W9"), ("low", "5 Nm"), ("high", "60 Nm"), ("step", "1 Nm"), ("calibrated", "2026-12-01")],
            "Dispenser" => [("name", "D9"), ("calibrated", "2026-12-01")],
            "Rule" => [("distance", "10000 km"), ("months", "12")],
            _ => [],
        };
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await Me.Submit($"form[action*='handler={form}']:not(:has([name=known]))",
                [.. usual.Where(u => u.Name != field), (field, value)]));
        Assert.True(Me.Text.Contains(words), string.Join(' ', Me.Page.QuerySelectorAll(".problem").Select(p => p.TextContent)));
        Assert.NotEmpty(Me.Page.QuerySelectorAll(".problem"));
        Assert.Equal(before, System.Text.Json.JsonSerializer.Serialize(settings.Read()));
    }

    [Theory]
    [InlineData("/people", "?handler=Digits", "six", "banana")]
    [InlineData("/people", "?handler=Digits", "six", "")]
    [InlineData("/you", "", "units", "cubits")]
    [InlineData("/you", "", "look", "dusk")]
    [InlineData("/you", "", "language", "xx")]
    public async Task A_choice_that_nobody_offers_changes_nothing(string page, string handler, string field, string value)
    {
        await Say("/you", "", ("units", "us"), ("look", "night"), ("language", "en"));
        await Say("/people", "?handler=Digits", ("six", "true"));
        (string, string)[] other = page != "/you" ? []
            : [.. new[] { ("units", "metric"), ("look", "day") }.Where(o => o.Item1 != field)];
        var status = await Say(page, handler, [(field, value), .. other]);
        Assert.Equal(HttpStatusCode.BadRequest, status);
        await Me.Get("/you");
        Assert.Equal(["us", "night", "en"], Me.Page.QuerySelectorAll("input:checked").Select(i => i.GetAttribute("value")));
        Assert.True(Host.Services.GetRequiredService<SettingStore>().Read().LongPins);
    }

    [Theory]
    [InlineData("bay", "Bay 9", "There is no Bay 9")]
    [InlineData("remaining", "99999999 km", "No service is so far away")]
    [InlineData("tripLength", "0.0000000001", "no distance of a trip")]
    [InlineData("hours", "200001", "These are not running hours")]
    [InlineData("oilLife", "101", "not an oil life")]
    [InlineData("sheet", "hologram", "")]
    public async Task What_no_vehicle_can_have_opens_no_card(string field, string value, string words)
    {
        await Me.Get("/intake?plate=HD-04");
        (string Name, string Value)[] typed = [("odometer", "122000"), (field, value)];
        if (field == "sheet")
            typed = [.. typed, ("plate", "")];
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("form[action*='intake'] button.main, form button.main", typed));
        Assert.Contains(words, Me.Text);
    }

    // As a form of the page would, with just these fields.
    private async Task<HttpStatusCode> Say(string page, string handler, params (string Name, string Value)[] fields)
    {
        await Me.Get(page);
        return await Me.Post(page + handler, [.. new[] { "__RequestVerificationToken", "form-id" }.Select(own =>
            (own, Me.Page.QuerySelector($"main [name={own}]")!.GetAttribute("value")!)), .. fields]);
    }

    [Fact]
    public async Task What_a_form_does_not_say_stays_as_it_is()
    {
        var settings = Host.Services.GetRequiredService<SettingStore>();
        await Me.Get("/workshop");
        await Me.Submit("form[action*='School']", ("stages", "InOne"), ("drain", "PlugFirst"), ("filter", "Filled"));
        await Say("/workshop", "?handler=School", ("drip", "20"));
        Assert.Equal((PourStages.InOne, new WorkSchools(DrainSchool.PlugFirst, 20, FilterSchool.Filled)),
            (settings.Read().Stages, settings.Read().Schools));
    }
}
