using System.Net;
using System.Text.Json.Nodes;
using Anakyklos.Core.Laboratory;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Simulation;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>Samples on their way to the laboratory and back, over the pages and in files.</summary>
public sealed class LaboratoryTests : IAsyncLifetime
{
    private static readonly DateOnly Today = new(2026, 3, 9);
    private static readonly string Docs = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "laboratory.md"));
    private WorkshopHost _host = null!;
    private Browser _iona = null!;

    public async ValueTask InitializeAsync() => _iona = await (_host = await WorkshopHost.Demo()).SignedIn();

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private SampleStore Samples => _host.Services.GetRequiredService<SampleStore>();

    // HD-08 stands half done: its oil is running out.
    private async Task<string> Sampled()
    {
        var said = new { say = "sample", fluid = "engine-oil", command = Guid.NewGuid() };
        await _iona.Api(HttpMethod.Post, "/api/v1/cards/1058/commands", said, await _iona.Token());
        Assert.Equal(HttpStatusCode.OK, _iona.Status);
        return SampleCode.Of(1058, 1);
    }

    private Task<HttpStatusCode> BringIn(string text) => _iona.Submit("form[action='?handler=Results']", ("text", text));

    private static string Result(string code, string values, string day = "2026-03-09") =>
        $$"""{"format":"{{LabFiles.Results}}","results":[{"code":"{{code}}","day":"{{day}}","values":{{values}}}]}""";

    [Fact]
    public async Task A_sample_goes_out_and_its_answer_stands_wherever_somebody_looks_next()
    {
        var code = await Sampled();
        await _iona.Get("/laboratory");
        Assert.Equal("To be sent 1", _iona.Heading);
        await _iona.Submit("form[action='?handler=Sent'] button");
        Assert.Contains($"{code} is on its way", _iona.Text);
        await BringIn(Result(code, """{"iron": 170, "water": 0.01}"""));
        Assert.Contains("One answer is in", _iona.Text);

        await _iona.Get("/");
        Assert.Contains("have it looked at", _iona.Page.QuerySelector(".answers-in")!.TextContent);
        await _iona.Get($"/sample/{code.ToLowerInvariant()}");
        Assert.Contains("Iron 170 mg/kg, too much", _iona.Heading);
        await _iona.Submit("form[action='?handler=Seen'] button");
        Assert.Contains("Iona R. took note of it.", _iona.Text);
        await _iona.Get("/");
        Assert.Null(_iona.Page.QuerySelector(".answers-in"));
        await _iona.Get("/vehicle/HD-08");
        Assert.Contains("iron 170 mg/kg, too much", _iona.Text);
        await _iona.Get("/intake?plate=HD-08");
        Assert.Contains("iron 170 mg/kg, too much", _iona.Page.QuerySelector(".lab-said")!.TextContent);
        await _iona.Get("/record/1058");
        Assert.Contains($"A sample of the engine oil was taken, {code}", _iona.Text);

        // The same file once more changes nothing, another value is not believed.
        await _iona.Get("/laboratory");
        await BringIn(Result(code, """{"water": 0.01, "iron": 170}"""));
        Assert.Contains("These answers were in already", _iona.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await BringIn(Result(code, """{"iron": 17, "water": 0.01}""")));
        Assert.Contains($"{code} was answered before, with other values.", _iona.Text);
    }

    // HD-08's magnet showed grey paste, and the card says so; but there is water in its oil.
    [Fact]
    public async Task The_stand_in_measures_what_is_in_the_simulated_vehicle_though_nobody_saw_it()
    {
        var code = await Sampled();
        var vehicles = _host.Services.GetRequiredService<DemoVehicles>();
        vehicles.Begin();
        vehicles.At(vehicles.All.First(c => c.Number == 1058), b => b.Do(new Milky("engine-oil"), _host.Clock.GetUtcNow()));
        await _iona.Get("/laboratory");
        await _iona.Submit("form[action='?handler=Sent'] button");
        await _iona.Get("/stand-ins/laboratory");
        await _iona.Submit("form[action='?handler=Answer'] button");
        Assert.Contains("Water 0.9 %, too much", _iona.Heading);
        Assert.Equal(0.9m, Samples.Find(code)!.Result!.Values[Analyte.Water]);
    }

    [Fact]
    public async Task A_sample_that_was_taken_back_is_none_but_one_that_was_sent_stays()
    {
        var code = await Sampled();
        var card = _host.Services.GetRequiredService<CardStore>().Find(1058)!;
        async Task Back() => await _iona.Api(HttpMethod.Post, "/api/v1/cards/1058/commands",
            new { say = "back", of = card.History.Count, command = Guid.NewGuid() }, await _iona.Token());
        await Back();
        Assert.Null(Samples.Find(code));
        await Sampled();
        await Samples.Send(code, card.History[^1].At);
        card = _host.Services.GetRequiredService<CardStore>().Find(1058)!;
        await Back();
        Assert.Equal(HttpStatusCode.OK, _iona.Status);
        Assert.NotNull(Samples.Find(code));
    }

    [Theory]
    [InlineData("", "There is no file and no text.")]
    [InlineData("{", "The file ends in the middle, or is not JSON from here on.")]
    [InlineData("""{"format":"anakyklos/oil-results/1","results":[{"code":"1048-1P","day":"2026-""", "The file ends in the middle")]
    [InlineData("[]", "This is not a file of results.")]
    [InlineData("""{"format":"anakyklos/oil-results/2","results":[]}""", "This is not a file of results.")]
    [InlineData("""{"format":"anakyklos/oil-results/1","results":[]}""", "There are 0 results in it.")]
    [InlineData("""{"format":"anakyklos/oil-results/1","results":[7]}""", "“” is not the code of a sample.")]
    [InlineData("""{"format":"anakyklos/oil-results/1","results":[{"code":"1048-1A","day":"2026-03-09","values":{"iron":1}}]}""",
        "“1048-1A” is not the code of a sample.")]
    [InlineData("""{"format":"anakyklos/oil-results/1","results":[{"code":"1048-1P","day":"2026-03-10","values":{"iron":1}}]}""",
        "2026-03-10 cannot be the day of a report.")]
    [InlineData("""{"format":"anakyklos/oil-results/1","results":[{"code":"1048-1P","day":"9.3.26","values":{"iron":1}}]}""",
        "“9.3.26” is not a day.")]
    [InlineData("""{"format":"anakyklos/oil-results/1","results":[{"code":"1048-1P","day":"2026-03-09","values":{"iron":-1}}]}""",
        "“-1” cannot be. Write a number from 0 to 100000, in mg/kg.")]
    [InlineData("""{"format":"anakyklos/oil-results/1","results":[{"code":"1048-1P","day":"2026-03-09","values":{"iron":"much"}}]}""",
        "“much” cannot be.")]
    [InlineData("""{"format":"anakyklos/oil-results/1","results":[{"code":"1048-1P","day":"2026-03-09","values":{"gold":1}}]}""",
        "“gold” is not measured here.")]
    [InlineData("""{"format":"anakyklos/oil-results/1","results":[{"code":"1048-1P","day":"2026-03-09","values":{}}]}""",
        "Nothing was measured.")]
    [InlineData("code,day\n1048-1P,2026-03-09", "Nothing was measured.")]
    [InlineData("code,day,water\n1048-1P,2026-03-09,101", "“101” cannot be. Write a number from 0 to 100, in %.")]
    [InlineData("day,iron\n2026-03-09,7", "There is no column “code”.")]
    [InlineData("code,day,iron\n2001-1R,2026-03-09,7", "No sample 2001-1R was taken here.")]
    public async Task What_cannot_be_read_or_believed_is_refused_with_its_place_and_nothing_is_kept(string file, string says)
    {
        await _iona.Get("/laboratory");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await BringIn(file));
        Assert.Contains(says, _iona.Text);
        Assert.Equal(file.Trim(), _iona.Page.QuerySelector("#text")!.TextContent.Trim());
        Assert.All(Samples.All(), s => Assert.True(s.Result is null || s.Result.Remark == "Measured by the stand-in."));
    }

    [Fact]
    public async Task One_wrong_result_keeps_out_all_of_a_file()
    {
        var code = await Sampled();
        await _iona.Get("/laboratory");
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            await BringIn($"code,day,iron\n{code},2026-03-09,7\n{SampleCode.Of(2001, 1)},2026-03-09,7"));
        Assert.Null(Samples.Find(code)!.Result);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await BringIn($"code,day,iron\n{code},2026-03-09,7\n{code},2026-03-09,7"));
        Assert.Contains("is there 2 times", _iona.Text);
        Assert.Null(Samples.Find(code)!.Result);
    }

    [Fact]
    public async Task Who_only_looks_changes_nothing()
    {
        var code = await Sampled();
        var desk = await _host.SignedIn("desk");
        Assert.Equal(HttpStatusCode.OK, await desk.Get("/laboratory"));
        Assert.Null(desk.Page.QuerySelector("form[action='?handler=Results']"));
        Assert.Equal(HttpStatusCode.OK, await desk.Get($"/sample/{code}"));
        Assert.Equal(HttpStatusCode.NotFound, await desk.Get("/sample/1058-1A"));
        Assert.Equal(HttpStatusCode.NotFound, await desk.Get("/sample/nothing"));
        await _iona.Get("/laboratory");
        Assert.NotNull(_iona.Page.QuerySelector("form[action='?handler=Sent']"));
        Assert.Null(Samples.Find(code)!.SentAt);
    }

    [Fact]
    public void The_files_of_the_docs_are_read_and_written_as_they_stand()
    {
        static string Block(string language) => Docs.Split($"```{language}\n")[1].Split("```")[0];
        var (json, wrong) = LabFiles.Read(Block("json"), Today);
        Assert.Empty(wrong);
        var (table, _) = LabFiles.Read(Block("csv"), Today);
        Assert.Equal(json.Single().Values.OrderBy(v => v.Key), table.Single().Values.OrderBy(v => v.Key));
        Assert.Equal((json[0].Code, json[0].Day, json[0].Remark), (table[0].Code, table[0].Day, table[0].Remark));
        var again = LabFiles.Read(LabFiles.Write(json), Today).Read.Single();
        Assert.Equal(json[0].Values.OrderBy(v => v.Key), again.Values.OrderBy(v => v.Key));
        Assert.Equal((json[0].Code, json[0].Day, json[0].Remark), (again.Code, again.Day, again.Remark));
    }

    [Fact]
    public async Task The_request_says_what_the_laboratory_must_know()
    {
        await _iona.Api(HttpMethod.Get, $"/sample/{Samples.Of("HD-07")[^1].Sample.Code}?handler=Request");
        var request = JsonNode.Parse(await _iona.Answer.Content.ReadAsStringAsync())!;
        Assert.Equal((LabFiles.Request, "HD-07", "138050 km", "10570 km"), ((string)request["format"]!, (string)request["plate"]!,
            (string)request["odometer"]!, (string)request["onOil"]!));
        Assert.Equal(12, request["wanted"]!.AsArray().Count);
    }
}
