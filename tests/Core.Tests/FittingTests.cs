using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Fitting;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Which way round a filter goes in, where the old ring is, which line goes where: a wrong answer is put right there and
/// then.</summary>
public sealed class FittingTests
{
    private CardAtHand _hand = null!;

    private SheetStep UpTo(string sheet, string job, string step)
    {
        _hand = new(On(sheet, job));
        return _hand.UpTo(s => s.Id == step);
    }

    [Theory]
    [InlineData("skelling-tourer-1100", "fuel-filter", "fit-fuel-filter", "to the engine", "to the tank")]
    [InlineData("corran-fen-12", "engine-oil-and-filter", "fit-oil-filter", "came off with the old filter", "still on the engine")]
    [InlineData("hespin-16", "air-filter", "fit-air-filter", "above", "below")]
    [InlineData("tarn-courier-20d", "cabin-filter", "fit-cabin-filter", "to the rear", "to the front")]
    public void It_goes_in_only_as_the_right_answer_says(string sheet, string job, string id, string right, string wrong)
    {
        var step = UpTo(sheet, job, id);
        var part = _hand.Card.Sheet.Parts[step.What];
        Assert.Equal(part.Asks!.Asks, _hand.No(new ConfirmStep(step.Id)));
        Assert.Equal("That is not one of the answers.", _hand.No(new FitPart(step.Id, "somehow")));
        var refused = Assert.Single(Assert.IsType<Refused>(_hand.Say(new FitPart(step.Id, wrong))).Reasons);
        Assert.Equal(($"{part.Name}: {wrong}.", "says"), (refused.What, refused.Field));
        Assert.Contains(part.Asks.Answers.Single(a => a.Says == wrong).Means, refused.Do, StringComparison.Ordinal);
        Assert.Equal(StepStatus.Waiting, _hand.Card.State(step.Id).Status);
        _hand.Do(new FitPart(step.Id, right));
        Assert.Equal(StepStatus.Done, _hand.Card.State(step.Id).Status);
        Assert.Contains(new PartGoesIn(step.What), _hand.Card.History[^1].Event.Frozen!.Effects);
        Assert.Contains("did this at", _hand.No(new FitPart(step.Id, right)));
    }

    [Fact]
    public void Where_nothing_is_asked_nothing_is_answered()
    {
        var step = UpTo("tarn-courier-20d", "engine-oil-and-filter", "fit-filter");
        Assert.Contains("Nothing is asked", _hand.No(new FitPart(step.Id, "above")));
        _hand.Do(new ConfirmStep(step.Id));
    }

    [Fact]
    public void Crossed_lines_are_changed_over_and_looked_at_again()
    {
        var step = UpTo("tarn-courier-20d", "fuel-filter", "fuel-lines-right");
        _hand.Do(new AnswerPoint(step.Id, "ports", "crossed"));
        var found = Assert.Single(_hand.Card.FoundAt(step.Id));
        Assert.Equal(("crossed", PointOutcome.Amiss, false), (found.Left, found.Outcome, found.Settled));
        Assert.Empty(_hand.Card.Findings);
        _hand.Do(new AnswerPoint(step.Id, "ports", "white on IN, green on OUT"));
        found = Assert.Single(_hand.Card.FoundAt(step.Id));
        Assert.Equal(("crossed", "white on IN, green on OUT", true), (found.Found, found.Left, found.Settled));
        Assert.Equal(StepStatus.Waiting, _hand.Card.State(step.Id).Status);
        _hand.Do(new AnswerPoint(step.Id, "latched", "latched"));
        Assert.Equal(StepStatus.Done, _hand.Card.State(step.Id).Status);
    }

    [Fact]
    public void What_cannot_be_put_right_is_for_the_lead()
    {
        var step = UpTo("tarn-courier-20d", "fuel-filter", "fuel-lines-right");
        Assert.Contains("does not stand outside", _hand.No(new LetPointStay(step.Id, "latched")));
        _hand.Do(new AnswerPoint(step.Id, "latched", "one comes off"));
        _hand.Do(new LetPointStay(step.Id, "latched"));
        var finding = Assert.Single(_hand.Card.Findings).Event;
        Assert.Equal((FindingGrade.Stop, "Pulled at, both: one comes off, and cannot be put right"), (finding.Grade, finding.Text));
        Assert.Contains("graded stop", string.Join(" ", _hand.Card.Holds));
    }

    // By hand: what is cleaned for the filter, the filter, and the lid follow each other, and nothing else stands open meanwhile.
    [Theory]
    [InlineData("tarn-courier-20d", "fuel-filter air-filter")]
    [InlineData("corran-fen-12", "engine-oil-and-filter air-filter spark-plugs cabin-filter")]
    [InlineData("ostler-brae-28d", "air-filter fuel-filter grease brake-fluid")]
    public void An_air_box_stands_open_for_its_own_work_only(string sheet, string jobs)
    {
        var order = CardPlanner.Compose(ComposerTests.Sheets[sheet], jobs.Split(' ').Select(j => (JobId)j)).Select(s => s.Id.Text).ToList();
        Assert.Equal(["air-box-off", "look-at-old-air-filter", "vacuum-air-box", "fit-air-filter", "air-box-on"],
            order.Skip(order.IndexOf("air-box-off")).Take(5));
    }

    [Fact]
    public void Nothing_is_opened_between_the_run_and_its_level()
    {
        foreach (var sheet in ComposerTests.Sheets.Values)
        {
            var order = CardPlanner.Compose(sheet, sheet.Jobs.Keys).ToList();
            var stop = order.FindIndex(s => s.Kind == StepKind.Settle);
            var level = order.FindLastIndex(s => s.Kind == StepKind.Gauge && sheet.Fluids[s.What].Pumped);
            Assert.DoesNotContain(order.Skip(stop).Take(level - stop),
                s => s.Traits.Opens && !s.Id.Text.EndsWith("-again", StringComparison.Ordinal));
        }
    }

    [Theory]
    [InlineData("\"leads\": \"mend\", \"shown\": \"arrow-up\"", "\"leads\": \"stop\", \"shown\": \"arrow-up\"", "leads to good or to mend")]
    [InlineData("\"leads\": \"mend\", \"shown\": \"arrow-up\"", "\"shown\": \"arrow-up\"", "one wrong way")]
    [InlineData("\"means\": \"Pull it and turn it round: the air flows down\", ", "", "put right there and then")]
    [InlineData("up to the windscreen", "down to the floor", "stands here twice")]
    [InlineData("\"shown\": \"arrow-up\"", "\"shown\": \"arrow-sideways\"", "arrow-sideways")]
    public void A_question_with_a_fault_is_named(string old, string now, string complaint)
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "corran-fen-12.json"));
        Assert.Contains(old, text, StringComparison.Ordinal);
        Assert.Contains(SheetReader.Read(text.Replace(old, now, StringComparison.Ordinal)).Errors,
            e => e.What.Contains(complaint, StringComparison.Ordinal));
    }
}
