using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Tests;

/// <summary>The examples of how sheets are written are steps of sheets that come with the program; there is one of every kind.</summary>
public sealed partial class SheetExampleTests
{
    private static readonly string Text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheet-examples.md"));

    [GeneratedRegex("""
        \#\#\ `(?<kind>[a-z]+)`\n\n(?<says>[^`\n].*?)\n\n
        `(?<sheet>[a-z0-9.-]+)`,\ `(?<table>[a-z]+)`:\n\n```json\n(?<json>.*?)\n```
        """, RegexOptions.Singleline | RegexOptions.IgnorePatternWhitespace)]
    private static partial Regex Example();

    public static TheoryData<string> Kinds => [.. StepKinds.Words];

    [Theory]
    [MemberData(nameof(Kinds))]
    public void Every_kind_has_one_which_a_sheet_has_letter_for_letter_and_a_card_comes_to(string kind)
    {
        var example = Assert.Single(Example().Matches(Text), m => m.Groups["kind"].Value == kind);
        var (id, value) = Assert.Single(JsonNode.Parse("{" + example.Groups["json"].Value + "}")!.AsObject());
        var file = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", example.Groups["sheet"].Value));
        Assert.True(JsonNode.DeepEquals(value, JsonNode.Parse(file)![example.Groups["table"].Value]![id]), id);
        var sheet = SheetReader.Read(file).Sheet!;
        // A reset becomes a step a move, of the same kind; what is measured follows from its fluid.
        Assert.Contains(sheet.Jobs.Keys, job => Planning.CardPlanner.Compose(sheet, [job]).Any(s => s.Kind == kind
            && (s.Id.Text == id || kind == "reset" && s.Id.Text.StartsWith(id, StringComparison.Ordinal)
                || kind == "measure" && s.What.Text == id)));
        Assert.True(example.Groups["says"].Value.Length > 60);
    }

    [Fact]
    public void No_kind_is_told_that_nobody_knows() =>
        Assert.Equal(StepKinds.Words, Example().Matches(Text).Select(m => m.Groups["kind"].Value).Order(StringComparer.Ordinal));
}
