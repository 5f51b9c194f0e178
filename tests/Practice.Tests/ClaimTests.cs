using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Fitting;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Simulation;

namespace Anakyklos.Practice.Tests;

/// <summary>Whoever leaves one kind of hand's work out and tells the card all the same is found out for it.</summary>
public sealed class ClaimTests
{
    private static readonly IReadOnlyDictionary<string, Type> Hands = typeof(Hand).Assembly.GetTypes()
        .Where(t => t.IsSubclassOf(typeof(Hand))).ToDictionary(t => t.Name);

    private static Lesson Of(string sheet, string job) =>
        new("no-fault", "Nothing wrong", 1, "All of it", "", sheet, [job], false, 1, [], [], [], "", [], null, []);

    private static Debrief Without(string hand, string sheet, string job, bool feels = true) =>
        new PracticeHand(Of(sheet, job), hasEyes: false) { Means = h => h.GetType() == Hands[hand] ? null : h, Feels = feels }.Through();

    [Theory]
    [InlineData("Drives", "corran-fen-12", "brake-fluid", "nobody had driven it")]
    [InlineData("SucksOut", "corran-fen-12", "brake-fluid", "nobody had emptied the reservoir")]
    [InlineData("TopsUp", "corran-fen-12", "brake-fluid", "nobody had filled the reservoir")]
    [InlineData("Strokes", "skelling-tourer-1100", "brake-fluid", "strokes were told, none made")]
    [InlineData("RunsWarm", "tarn-courier-20d", "engine-oil-and-filter", "the engine was not warm")]
    [InlineData("RunsWarm", "skelling-tourer-1100", "engine-oil-and-filter", "the engine was not warm")]
    [InlineData("Fits", "corran-fen-12", "air-filter", "nobody had fitted a new air filter")]
    [InlineData("EmptiesPan", "tarn-courier-20d", "engine-oil-and-filter", "pan 1 was still full")]
    [InlineData("Pours", "corran-fen-12", "engine-oil-and-filter", "was told, none went in")]
    [InlineData("Inflates", "corran-fen-12", "tyre-rotation", "front left had")]
    [InlineData("RunsIn", "corran-fen-12", "spark-plugs", "nobody had run the spark plugs in")]
    public void What_nobody_did_is_told(string hand, string sheet, string job, string says)
    {
        var claims = Without(hand, sheet, job).Claims;
        Assert.Equal(claims.Count, claims.DistinctBy(c => (c.Step, c.Sort)).Count());
        Assert.True(claims.Any(c => c.Says.Contains(says, StringComparison.Ordinal)), string.Join('\n', claims.Select(c => c.Says)));
    }

    [Fact]
    public void A_pedal_that_nobody_pressed_is_told() =>
        Assert.Contains("nobody had pressed it",
            Without("Charges", "corran-fen-12", "brake-fluid", feels: false).Claims.Select(c => c.How));

    [Theory]
    [InlineData("Drives", "nobody had driven it")]
    [InlineData("TopsUp", "nobody had filled the reservoir")]
    public void What_proves_the_work_comes_first_and_what_is_in_it_next(string hand, string says)
    {
        var talker = new PracticeHand(Of("corran-fen-12", "brake-fluid"), hasEyes: false)
        {
            Means = h => h is SucksOut || h.GetType() == Hands[hand] ? null : h,
        };
        Assert.Equal([says, "nobody had emptied the reservoir"],
            Claimed(talker.Through()).Select(b => b[(b.LastIndexOf(": ", StringComparison.Ordinal) + 2)..].TrimEnd('.')));
    }

    [Fact]
    public void The_same_again_is_counted()
    {
        var debrief = Without("TopsUp", "corran-fen-12", "brake-fluid");
        var filled = debrief.Claims.Count(c => c.How == "nobody had filled the reservoir");
        Assert.InRange(filled, 2, 9);
        Assert.StartsWith($"The card was told what was not so, {filled} times. “Fill the reservoir", Claimed(debrief).First());
    }

    private static IEnumerable<string> Claimed(Debrief debrief) =>
        debrief.Better.Where(b => b.StartsWith("The card was told", StringComparison.Ordinal));

    // Not everybody's press: what the card takes beside it, told without and with the hand that does it.
    [Fact]
    public void A_new_filter_that_nobody_filled_is_told() => Told("engine-oil-and-filter",
        c => c.Next is { Kind: "fit", What.Text: "oil-filter" }, "fastener:oil-filter-can/oil-filter/prefill", "0.15 L",
        s => new FillPart(s.Id, Quantity<Volume>.Read("0.15 L", out string _)!.Value), "0.15 L was told, none went in");

    [Fact]
    public void A_starter_that_nobody_turned_is_told() => Told("engine-oil-and-filter",
        c => c.Next is { Kind: "run" }, "engine/crank", "", s => new CrankEngine(s.Id), "nobody had cranked it");

    private static void Told(string job, Func<JobCard, bool> at, string choice, string typed, Func<SheetStep, CardCommand> says, string how)
    {
        foreach (var does in (bool[])[false, true])
        {
            var hand = new PracticeHand(Of("corran-fen-12", job), hasEyes: false);
            var told = hand.At(at, does ? choice : "", typed, says);
            Assert.Empty(hand.Missing);
            Assert.Equal("", string.Join(' ', told.Stopped.SelectMany(g => g.Reasons)));
            Assert.Equal(does ? [] : [how], told.Claims.Select(c => c.How));
        }
    }
}
