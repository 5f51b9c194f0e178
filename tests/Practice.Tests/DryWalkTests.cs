using Anakyklos.Core.Sheets;

namespace Anakyklos.Practice.Tests;

/// <summary>A card of a sheet walked beside a vehicle in software: what the sheet forgot is found there.</summary>
public class DryWalkTests
{
    private static readonly IReadOnlyDictionary<string, string> Texts = Directory.GetFiles(AppContext.BaseDirectory, "*-*.json",
        SearchOption.AllDirectories).Select(f => (Name: Path.GetFileNameWithoutExtension(f), Text: File.ReadAllText(f)))
        .Where(f => f.Text.Contains(ModelSheet.Format, StringComparison.Ordinal)).DistinctBy(f => f.Name)
        .ToDictionary(f => f.Name, f => f.Text);

    private static ModelSheet Of(string text)
    {
        var reading = SheetReader.Read(text);
        Assert.True(reading.Sheet is not null, string.Join("\n", reading.Errors));
        return reading.Sheet;
    }

    public static TheoryData<string> Models => [.. Texts.Keys.Order()];

    [Theory]
    [MemberData(nameof(Models))]
    public void Every_job_of_every_model_is_walked_without_harm(string model)
    {
        var sheet = Of(Texts[model]);
        foreach (var job in sheet.Jobs.Keys)
        {
            var walked = DryWalk.Of(sheet, [job]);
            Assert.True(walked.IsSigned && walked.Findings.Count == 0, $"{job}: {string.Join("; ", walked.Findings)}");
            Assert.InRange(walked.Presses, 2, 400);
        }
    }

    // Each is a sheet without errors that forgot one thing; where the walk stands still was looked up by hand.
    [Theory]
    [InlineData("corran-fen-12", "brake-fluid", "fill-brake-fluid", "Rear right: bleed until it runs clear", "reservoir is not filled")]
    [InlineData("tarn-courier-20d", "fuel-filter", "prime-fuel", "Look at every joint that was opened, with a lamp", "has not run")]
    public void What_a_sheet_forgot_is_found_where_it_shows(string model, string job, string step, string at, string says)
    {
        var sheet = Core.Authoring.SheetText.Read(Texts[model], out _)!;
        var place = sheet.Names($"jobs.{job}.steps").Single(i => sheet.Said($"jobs.{job}.steps[{i}]") == step);
        var walked = DryWalk.Of(Of(sheet.Without($"jobs.{job}.steps[{place}]").ToString()), [job]);
        Assert.False(walked.IsSigned);
        var found = Assert.Single(walked.Findings);
        Assert.Equal(at, found.At);
        Assert.Contains(says, found.Says);
    }
}
