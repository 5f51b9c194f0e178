using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Lists of inspections that somebody types from the maker's book.</summary>
public sealed class OwnListTests
{
    private const string Lines = """
        Hoses under the bonnet
        Free play of the clutch: 10 to 20 mm
        rear pads: at least 2 mm
        Hand brake: at most 7 clicks

        Ride height: mm
        """;

    private static readonly ModelSheet Fen = ComposerTests.Sheets["corran-fen-12"];

    private static OwnList List(string id = "own-1", string lines = Lines) => new(id, "Half-year look", "Owner's handbook", "p. 88",
        new(Km(10_000), 6), Place.Side, OwnPoints.Read(lines, out _));

    [Fact]
    public void Each_line_is_looked_at_measured_or_counted()
    {
        var points = OwnPoints.Read(Lines, out var wrong);
        Assert.Empty(wrong);
        Assert.Equal(["Hoses under the bonnet", "Free play of the clutch", "Rear pads", "Hand brake", "Ride height"],
            points.Select(p => p.Name));
        Assert.Equal([AnswerLeads.Good, AnswerLeads.Watch, AnswerLeads.Plan, AnswerLeads.Stop], points[0].Answers.Select(a => a.Leads));
        Assert.Equal([("10 to 20 mm", GaugeRule.Adjust), ("at least 2 mm", GaugeRule.Wear), ("at most 7 clicks", GaugeRule.Adjust),
            ("is noted", GaugeRule.Note)], points.Skip(1).Select(p => (p.Measure!.Passes, p.Measure.Rule)));
    }

    [Theory]
    [InlineData("Tyres: 2,2 to 2,4 bar", "Tyres: 2.2 to 2.4 bar")]
    [InlineData("Tyres: 2.2-2.4 bar", "Tyres: 2.2 to 2.4 bar")]
    [InlineData("gap: 0.75 – 0.85mm", "Gap: 0.75 to 0.85 mm")]
    [InlineData("Valve: inlet: at least 0.1 mm", "Valve: inlet: at least 0.1 mm")]
    [InlineData("Hoses:", "Hoses")]
    public void It_is_written_as_it_is_read(string typed, string written)
    {
        Assert.Equal(written, OwnPoints.Write(OwnPoints.Read(typed, out var wrong)));
        Assert.Empty(wrong);
        Assert.Equal(written, OwnPoints.Write(OwnPoints.Read(written, out _)));
    }

    [Theory]
    [InlineData("Washer fluid: lots", "Line 1: “lots” does not say what passes.")]
    [InlineData("Washer fluid: 2 litres", "does not say what passes")]
    [InlineData("Hoses\nPads: -1 to 2 mm", "Line 2: “-1 to 2 mm”")]
    [InlineData("Pads: 3 to 2 mm", "3 mm is more than 2 mm")]
    [InlineData("Pads: 2.12345 to 3 mm", "does not say what passes")]
    [InlineData("Pads: 2 mm", "does not say what passes")]
    [InlineData("Hoses\nhoses", "stands here twice")]
    [InlineData("x", "2 to 80 characters")]
    [InlineData(": 2 to 3 mm", "2 to 80 characters")]
    [InlineData(" \n ", "nothing to inspect")]
    public void What_cannot_be_read_is_told_by_its_line(string typed, string says)
    {
        OwnPoints.Read(typed, out var wrong);
        var refusal = Assert.Single(wrong);
        Assert.Contains(says, refusal.What, StringComparison.Ordinal);
        Assert.Equal("points", refusal.Field);
    }

    [Fact]
    public void More_than_sixty_are_too_many()
    {
        var lines = Enumerable.Range(1, 61).Select(n => $"Point {n}").ToList();
        OwnPoints.Read(string.Join('\n', lines.Take(60)), out var wrong);
        Assert.Empty(wrong);
        OwnPoints.Read(string.Join('\n', lines), out wrong);
        Assert.Contains("61 points are too many", Assert.Single(wrong).What);
    }

    [Fact]
    public void It_is_a_job_of_the_model_with_an_interval_of_its_own()
    {
        var model = Fen.With([List()]);
        Assert.Equal(Fen.Jobs.Count + 1, model.Jobs.Count);
        Assert.Equal(["own-1", "label"], CardPlanner.Compose(model, ["own-1"]).Select(s => s.Id.Text));
        var item = ServiceItem.Of(model, Use.Normal, []).Single(i => i.Job == "own-1");
        var due = item.After(new(Km(39_000), new(2026, 3, 9)));
        Assert.Equal(("Half-year look", Km(49_000), new DateOnly(2026, 9, 9)), (item.Name, due.At!.Value, due.By!.Value));
        Assert.Same(Fen, Fen.With([]));
        // The newer takes the place of the older, and there is one.
        var newer = model.With([List(lines: "Hoses")]);
        Assert.Equal((1, 1), (newer.OwnLists.Count, newer.OwnLists[0].Points.Count));
    }

    [Fact]
    public void A_card_keeps_its_own_copy_whatever_becomes_of_the_list()
    {
        var model = Fen.With([List()]);
        var opened = new CardOpened("HD-02", Fen.Id, Fen.Revision, ["own-1"], CardPlanner.Compose(model, ["own-1"]), Km(39_000),
            Use.Harsh, null, new Dictionary<PartId, int>(), OwnLists: [List()]);
        var read = Assert.IsType<CardOpened>(CardJson.Read(CardJson.Write(opened)));
        // The sheet has nothing of it.
        var hand = new CardAtHand(JobCard.Replay(Fen, [new(1, new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero), Iona, Guid.NewGuid(), read)]));
        hand.Do(new AnswerPoint("own-1", "point-1", "as it should be"));
        hand.Do(new MeasurePoint("own-1", "point-2", "25"));
        hand.Do(new MeasurePoint("own-1", "point-2", "14"));
        hand.Do(new MeasurePoint("own-1", "point-3", "1.9"));
        Assert.Contains("the limit is 2 mm: replace it now", Assert.Single(hand.Card.Findings).Event.Text);
        hand.Do(new MeasurePoint("own-1", "point-4", "6"));
        hand.Do(new MeasurePoint("own-1", "point-5", "140"));
        hand.UpTo(_ => false);
        Assert.Null(hand.Card.Next);
        Assert.Equal("Half-year look", hand.Card.Sheet.Jobs["own-1"].Name);
    }

    [Fact]
    public void A_rule_of_the_owner_can_be_written_down_with_a_card()
    {
        var rule = new OwnRule("engine-oil-and-filter", new(Km(5_000), 6), RuleOf.Owner);
        var json = JsonSerializer.Serialize(rule, CardJson.Options);
        Assert.Equal(rule, JsonSerializer.Deserialize<OwnRule>(json, CardJson.Options));
    }

    [Fact]
    public void No_sheet_takes_the_name_of_an_own_list()
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "corran-fen-12.json"))
            .Replace("\"wear-check\"", "\"own-7\"", StringComparison.Ordinal);
        Assert.Contains(SheetReader.Read(text).Errors, e => e.Field == "jobs.own-7" && e.What.Contains("begins with “own-”"));
    }

    private static Quantity<Distance> Km(decimal km) => Quantity<Distance>.Of(km, Distance.Kilometre);
}
