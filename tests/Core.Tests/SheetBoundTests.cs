using System.Text;
using System.Text.Json.Nodes;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Tests;

/// <summary>Sheets that no trade would write: too much of everything, names of nothing, torques and intervals that cannot be.</summary>
public class SheetBoundTests
{
    private static IReadOnlyList<string> Wrong(Action<JsonNode> change)
    {
        var sheet = JsonNode.Parse(Workbench.SheetText)!;
        change(sheet);
        var reading = SheetRehearsal.Read(Encoding.UTF8.GetBytes(sheet.ToJsonString(new() { WriteIndented = true })));
        Assert.Null(reading.Sheet);
        Assert.All(reading.Errors, e => Assert.True(e.Line > 1, $"{e}"));
        return [.. reading.Errors.Select(e => $"{e.Field}: {e.What}")];
    }

    [Theory]
    [InlineData("parts")]
    [InlineData("fasteners")]
    [InlineData("jobs")]
    public void A_sheet_of_80000_names_is_answered(string table)
    {
        var many = new JsonObject();
        for (var i = 0; i < 80_000; i++)
            many[$"thing-{i}"] = new JsonObject();
        Assert.Contains($"{table}: 80000 things stand here; 1000 is the most.", Wrong(s => s[table] = many));
    }

    [Fact]
    public void A_list_of_80000_is_answered_and_40_jobs_are_the_most()
    {
        Assert.Contains("jobs.engine-oil-and-filter.worksOn: 80000 things stand here; 1000 is the most.", Wrong(s =>
            s["jobs"]!["engine-oil-and-filter"]!["worksOn"] = new JsonArray(
                [.. Enumerable.Range(0, 80_000).Select(i => (JsonNode)$"t-{i}")])));
        Assert.Contains("jobs: These are 45 jobs; 40 is the most for one model.", Wrong(s =>
        {
            for (var i = s["jobs"]!.AsObject().Count; i < 45; i++)
                s["jobs"]![$"again-{i}"] = s["jobs"]!["engine-oil-and-filter"]!.DeepClone();
        }));
    }

    [Fact]
    public void Digits_of_another_script_are_no_time_and_no_thread()
    {
        Assert.Contains(Wrong(s => s["access"]!["air-box"]!["takes"] = "١٢ min"), w => w.StartsWith("access.air-box.takes:"));
        Assert.Contains(Wrong(s => s["fasteners"]!["engine-drain-plug"]!["thread"] = "M١٤x1.5"),
            w => w.StartsWith("fasteners.engine-drain-plug.thread:"));
    }

    [Fact]
    public void A_name_of_nothing_is_told_at_its_line()
    {
        foreach (var nothing in new[] { "", "  " })
            Assert.Contains("jobs.engine-oil-and-filter.worksOn[0]: This is empty. Write the id of what is meant.",
                Wrong(s => s["jobs"]!["engine-oil-and-filter"]!["worksOn"] = new JsonArray(nothing)));
        Assert.Contains(Wrong(s => s["parts"]!["Gasket No 1"] = s["parts"]!["drain-washer"]!.DeepClone()), e => e.Contains("is not an id"));
    }

    [Fact]
    public void Torques_that_no_joint_takes_and_ranges_that_no_wrench_is_set_by_are_refused()
    {
        Assert.Contains(Wrong(s => Torque(s, "35 N·m", "38000 N·m", "38000 N·m")),
            e => e.Contains("more than any joint of a vehicle takes"));
        Assert.Contains(Wrong(s => Torque(s, "1 N·m", "900 N·m", null)), e => e.Contains("more than 3 times 1 N·m"));
        Assert.Contains(Wrong(s => Torque(s, "10 N·m", "30.1 N·m", "20 N·m")), e => e.Contains("more than 3 times"));

        static void Torque(JsonNode s, string low, string high, string? @is)
        {
            var torque = s["fasteners"]!["engine-drain-plug"]!["torque"]!.AsObject();
            (torque["low"], torque["high"]) = (low, high);
            torque.Remove("is");
            if (@is is not null)
                torque["is"] = @is;
        }
    }

    [Fact]
    public void An_interval_of_nothing_and_a_harsh_one_that_is_longer_are_refused()
    {
        var rule = JsonNode.Parse(Workbench.SheetText)!["intervals"]!.AsObject().First(i => i.Value!["normal"]!["distance"] is not null
            && i.Value["harsh"]!["distance"] is not null).Key;
        Assert.Contains($"intervals.{rule}.normal.distance: 0 km is no interval. It should be 10 km at least.",
            Wrong(s => s["intervals"]![rule]!["normal"]!["distance"] = "0 km"));
        Assert.Contains($"intervals.{rule}.harsh: In harsh use it is longer than in normal use. Are the two exchanged?",
            Wrong(s => s["intervals"]![rule]!["harsh"]!["distance"] = "900000 km"));
    }

    [Fact]
    public void Nobody_waits_any_more_and_it_ends()
    {
        using var gone = new CancellationTokenSource();
        gone.Cancel();
        Assert.Throws<OperationCanceledException>(() => SheetRehearsal.Read(Encoding.UTF8.GetBytes(Workbench.SheetText), gone.Token));
    }
}
