using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Tests;

public class SheetTests
{
    private static string Text => Workbench.SheetText;

    private static IReadOnlyList<Refusal> ErrorsWith(string old, string @new)
    {
        Assert.Contains(old, Text);
        var reading = SheetReader.Read(Text.Replace(old, @new));
        Assert.Null(reading.Sheet);
        return reading.Errors;
    }

    private static int LineOf(string part) => Text[..Text.IndexOf(part, StringComparison.Ordinal)].Count(c => c == '\n') + 1;

    // The book amount of 6.4 L stands 0.2 L under the top mark here: the first pour of 5.2 L reaches the bottom mark.
    [Theory]
    [InlineData("6.6 L", "")]
    [InlineData("4.9 L", "fluids.engine-oil.safeToStart fluids.engine-oil.atTopMark")]
    [InlineData("7.9 L", "fluids.engine-oil.atTopMark")]
    public void A_top_mark_may_carry_an_amount_of_its_own_near_the_book(string top, string wrong)
    {
        var read = SheetReader.Read(Workbench.SheetText.Replace("\"reading\": {",
            $$"""
            "atTopMark": { "is": "{{top}}", "from": "wm", "at": "p. 59" },
            "reading": {
            """, StringComparison.Ordinal));
        Assert.Equal(wrong, string.Join(" ", read.Errors.Select(e => e.Field)));
        if (read.Sheet is not { } sheet)
            return;
        JobId[] oil = ["engine-oil-and-filter"];
        var card = Rehearsal.CardWalk.Open(sheet, oil, Planning.CardPlanner.Compose(sheet, oil));
        Assert.Equal(Workbench.L(5.2m), card.Wanted("engine-oil"));
        Assert.Equal(new Filling.Level(1), new Filling.Level(card.FillOf("engine-oil").Warn(Workbench.L(5.2m), Workbench.L(1.4m), null,
            Workbench.L(0)).Reaches.Fraction));
    }

    [Fact]
    public void The_demo_sheet_reads_without_a_complaint()
    {
        var reading = SheetReader.Read(Text);
        Assert.Empty(reading.Errors);
        Assert.Equal("Tarn Courier 2.0 D", reading.Sheet!.FullName);
        Assert.Equal("Workshop manual 4.2, p. 61, checked by two", reading.Sheet.Fasteners["engine-drain-plug"].Tightening.From.ToString());
        Assert.Equal("45 N·m", reading.Sheet.Fasteners["engine-drain-plug"].Tightening.Disputed.Single().Says);
    }

    [Fact]
    public void A_torque_ten_times_too_large_is_found_with_its_line_and_in_the_words_of_the_trade()
    {
        var error = Assert.Single(ErrorsWith("\"is\": \"38 N·m\", \"low\": \"35 N·m\", \"high\": \"41 N·m\"",
            "\"is\": \"380 N·m\", \"low\": \"350 N·m\", \"high\": \"410 N·m\""));
        Assert.Equal($"line {LineOf("\"is\": \"38 N·m\"")}, `fasteners.engine-drain-plug.torque`: 380 N·m is ten times what an M14 "
            + "plug takes. Check the number and its unit.", error.ToString());
    }

    [Fact]
    public void Every_error_is_given_at_once_in_the_order_of_lines()
    {
        var broken = Text.Replace("\"revision\": 12", "\"revision\": 0").Replace("\"1.4 L\"",
            "\"9 L\"").Replace("\"seal\": \"drain-washer\"", "\"seal\": \"gasket\"").Replace("\"takes\": \"7 min\"", "\"takes\": \"soon\"");
        var errors = SheetReader.Read(broken).Errors;
        Assert.Equal(["revision", "fluids.engine-oil.betweenMarks", "fluids.engine-oil.safeToStart", "fasteners.engine-drain-plug.seal",
            "steps.warm-up.takes"],
            errors.Select(e => e.Field).OrderBy(p => Array.IndexOf(["revision", "fluids.engine-oil.betweenMarks",
                "fluids.engine-oil.safeToStart", "fasteners.engine-drain-plug.seal", "steps.warm-up.takes"], p)));
        Assert.Equal(errors.Select(e => e.Line).Order(), errors.Select(e => e.Line));
    }

    [Theory]
    [InlineData("\"needs\": [\"bonnet\"], \"closedToRun\"", "\"needs\": [\"hatch\"], \"closedToRun\"", "no access “hatch”")]
    [InlineData("\"name\": \"Bonnet\",", "\"name\": \"Bonnet\", \"needs\": [\"engine-cover\"],", "only be reached through itself")]
    [InlineData("\"6.4 L\"", "\"6,400 L\"", "could be 6.400 or 6400")]
    [InlineData("\"6.4 L\"", "\"6.4\"", "Add the unit")]
    [InlineData("\"6.4 L\"", "\"-6.4 L\"", "negative")]
    [InlineData("\"4.6 L\"", "\"5.01 L\"", "the first pour brings 5.00 L")]
    [InlineData("\"from\": \"cap\"", "\"from\": \"forum\"", "no source “forum”")]
    [InlineData("\"kind\": \"drain\"", "\"kind\": \"spill\"", "“spill” is not known here")]
    [InlineData("\"what\": \"oil-filter-cap\", \"title\": \"Tighten", "\"what\": \"dipstick\", \"title\": \"Tighten",
        "works on a fastener")]
    [InlineData("\"reusableTimes\": 1,", "", "how often it is reusable")]
    [InlineData("\"make\": \"Tarn\"", "\"make\": \"Tarn\", \"maker\": \"Tarn\"", "“maker” is not known here")]
    [InlineData("\"thread\": \"M14x1.5\"", "\"thread\": \"14 mm\"", "not a metric thread")]
    [InlineData("\"low\": \"35 N·m\"", "\"low\": \"39 N·m\"", "does not lie between")]
    [InlineData("\"make\": \"Tarn\"", "\"make\": \"\"", "This is empty")]
    [InlineData("\"revision\": 12", "\"revision\": \"three\"", "should be a whole number")]
    public void A_wrong_value_is_named(string old, string @new, string complaint) =>
        Assert.Contains(ErrorsWith(old, @new), e => e.What.Contains(complaint) && e.Line > 1);

    [Fact]
    public void Broken_text_is_told_with_its_line()
    {
        var cut = Text[..Text.IndexOf("\"fasteners\"", StringComparison.Ordinal)];
        var error = Assert.Single(SheetReader.Read(cut).Errors);
        Assert.InRange(error.Line!.Value, LineOf("\"fasteners\"") - 1, LineOf("\"fasteners\"") + 1);
        Assert.Contains("well-formed", error.What);
        Assert.NotEmpty(SheetReader.Read("").Errors);
        Assert.NotEmpty(SheetReader.Read("[]").Errors);
        Assert.NotEmpty(SheetReader.Read([0x7b, 0xff, 0xfe]).Errors);
        Assert.Contains(SheetReader.Read("{\"format\":\"anakyklos/model-sheet/9\"}").Errors, e => e.What.Contains("model-sheet/1"));
    }

    [Fact]
    public void A_newer_revision_tells_what_it_says_otherwise()
    {
        var newer = SheetReader.Read(Text.Replace("\"is\": \"38 N·m\"", "\"is\": \"40 N·m\"").Replace("TC-0621-F", "TC-0631-F")
            .Replace("\"drain-washer\"", "\"plug-washer\"")).Sheet!;
        Assert.Equal(["Engine drain plug: 40 N·m (35 to 41 N·m), Hex 14, was 38 N·m (35 to 41 N·m), Hex 14",
            "Oil filter cartridge: TC-0631-F, was TC-0621-F",
            "Washer for the drain plug is new", "Washer for the drain plug is gone"], SheetDifference.Between(Workbench.Courier, newer));
        Assert.Empty(SheetDifference.Between(Workbench.Courier, Workbench.Courier));
    }

    [Fact]
    public void A_missing_value_is_missed_by_its_own_name() =>
        Assert.Contains(ErrorsWith("\"tolerance\": {", "\"tolerances\": {"),
            e => e is { Field: "fluids.engine-oil.tolerance", What: "This is missing." });
}
