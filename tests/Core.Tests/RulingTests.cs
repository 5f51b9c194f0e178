using Anakyklos.Core.Cards;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Records;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Where sources disagree nothing is used before somebody has said what holds.</summary>
public sealed class RulingTests
{
    private static readonly ModelSheet Fen = ComposerTests.Sheets["corran-fen-12"];
    private static readonly DisputedValue Plug = Fen.Disputed().Single(d => d.Key == "torque/engine-drain-plug");
    private static readonly DisputedValue Oil = Fen.Disputed().Single(d => d.Key == "amount/engine-oil");
    private DateTimeOffset _now = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);

    private static JobCard Opened(params Ruling[] rulings)
    {
        JobId[] jobs = ["engine-oil-and-filter"];
        var card = CardWalk.Open(Fen, jobs, CardPlanner.Compose(Fen, jobs));
        return JobCard.Replay(Fen, [card.History[0] with { Event = card.Opened with { Rulings = rulings } }]);
    }

    // By the usual press, but for what is disputed, until something is.
    private JobCard UpToADispute(JobCard card)
    {
        while (card.Next is { } step && !card.UnruledAt(step).Any())
            card = Given(card, UsualPress.Of(card, step));
        return card;
    }

    private JobCard Given(JobCard card, CardCommand said, Person? by = null, CardFacts? facts = null)
    {
        _now = card.Waits.Select(w => w.Until).Append(_now.AddMinutes(1)).Max();
        var decided = card.Decide(said, by ?? Iona, _now, facts ?? UsualPress.Facts(Fen));
        return card.Taking(Assert.IsType<Accepted>(decided), Guid.NewGuid(), by ?? Iona, _now).Card;
    }

    private string Refused(JobCard card, CardCommand said, CardFacts? facts = null) =>
        Assert.IsType<Refused>(card.Decide(said, Iona, _now.AddHours(3), facts ?? UsualPress.Facts(Fen))).Reasons[0].ToString();

    [Fact]
    public void The_keys_name_each_dispute_once_and_say_where_it_is_used()
    {
        foreach (var sheet in ComposerTests.Sheets.Values)
            Assert.Equal(sheet.Disputed().Count(), sheet.Disputed().Select(d => d.Key).Distinct().Count());
        Assert.Equal((DisputeUse.Tightening, "35 N·m (32 to 38 N·m)"), (Plug.Use, Plug.Holds));
        Assert.Contains("30 N·m", Plug.OthersSay);
        Assert.Equal(DisputeUse.Filling, Oil.Use);
    }

    [Fact]
    public void Without_a_ruling_no_reading_is_noted_no_oil_poured_and_another_key_helps_nothing()
    {
        var card = UpToADispute(Opened());
        var step = card.Next!;
        Assert.Equal("engine-drain-plug", step.What.Text);
        Assert.Contains("Say first what holds", Refused(card, new TakeReading(step.Id, Nm(35))));
        Assert.Contains("Nothing is to be ruled on", Refused(card, new RuleValue(step.Id, Oil.Key, "It is so")));
        Assert.Contains("Nothing is to be ruled on", Refused(card, new RuleValue("drain", Plug.Key, "It is so")));
        Assert.Contains("reason", Refused(card, new RuleValue(step.Id, Plug.Key, " ")), StringComparison.OrdinalIgnoreCase);
        Assert.Contains("has not ruled", Refused(card, new TakeRuling(step.Id, Plug.Key)));
        // A finding, or leaving it for later, uses no value.
        Given(card, new NoteFinding(step.Id, FindingGrade.PlanIt, "Thread looks worn"));
        Given(card, new PutAside(step.Id, "Ask the lead"));
    }

    [Fact]
    public void What_is_said_here_counts_here_as_a_deviation_and_is_named_on_the_record()
    {
        var card = UpToADispute(Opened());
        card = Given(card, new RuleValue(card.Next!.Id, Plug.Key, " Plug was changed to steel "));
        Assert.Empty(card.UnruledAt(card.Next!));
        var deviation = Assert.Single(card.Deviations).Event;
        Assert.Equal((DeviationKind.DisputedValue, "Plug was changed to steel"), (deviation.Kind, deviation.Reason));
        card = UpToADispute(card);
        Assert.Equal("engine-oil", card.Next!.What.Text);
        card = Given(card, new RuleValue(card.Next!.Id, Oil.Key, "Measured twice"));
        card = UpToADispute(card);
        Assert.Null(card.Next);
        var rulings = ServiceRecord.Of(card).Rulings!;
        Assert.Equal([("Engine oil, amount", "Iona R.", "Measured twice"), ("Engine drain plug, tightening torque", "Iona R.",
            "Plug was changed to steel")], rulings.Select(r => (r.Of, r.By, r.Reason)));
        Assert.All(rulings, r => Assert.NotEqual(default, r.At));
        // Played again from its events it is the same.
        Assert.Equal(rulings, ServiceRecord.Of(JobCard.Replay(Fen, card.History)).Rulings);
    }

    [Fact]
    public void What_the_lead_ruled_before_asks_nobody_and_what_was_ruled_since_is_taken()
    {
        var before = Plug.Ruled("Manual is newer", "Una B.", _now);
        var card = UpToADispute(Opened(before));
        Assert.Equal("engine-oil", card.Next!.What.Text);
        var since = UsualPress.Facts(Fen) with { Rulings = [Oil.Ruled("Counted on three", "Una B.", _now)] };
        // A ruling on other words is none on these.
        Assert.Contains("has not ruled", Refused(card, new TakeRuling(card.Next!.Id, Oil.Key), since with
        {
            Rulings = [Oil.Ruled("x", "Una B.", _now) with { Others = "3.0 L" }],
        }));
        card = UpToADispute(Given(card, new TakeRuling(card.Next!.Id, Oil.Key), facts: since));
        Assert.Null(card.Next);
        Assert.Empty(card.Deviations);
        Assert.Equal(["Una B.", "Una B."], ServiceRecord.Of(card).Rulings!.Select(r => r.By));
    }

    [Fact]
    public void Taken_back_it_is_asked_again_until_something_was_done_by_it()
    {
        var card = UpToADispute(Opened());
        var step = card.Next!;
        card = Given(card, new RuleValue(step.Id, Plug.Key, "It is so"));
        var back = Given(card, new TakeBack(card.History[^1].Seq));
        Assert.Single(back.UnruledAt(step));
        Assert.Empty(back.Deviations);
        card = Given(card, UsualPress.Of(card, step), Tavish);
        Assert.IsType<Refused>(card.Decide(new TakeBack(card.LastPressOf("iona")!.Seq), Iona, _now, UsualPress.Facts(Fen)));
    }

    [Fact]
    public void The_usual_press_alone_brings_every_disputed_model_to_its_end()
    {
        foreach (var sheet in ComposerTests.Sheets.Values.Where(s => s.Disputed().Any()))
        {
            JobId[] jobs = [.. sheet.Jobs.Keys.Where(j => j.Text is "engine-oil-and-filter" or "gearbox-oil" or "rear-axle-oil"
                or "wheel-recheck")];
            var walked = CardWalk.Open(sheet, jobs, CardPlanner.Compose(sheet, jobs));
            var card = JobCard.Replay(sheet, [walked.History[0] with { Event = walked.Opened with { Rulings = [] } }]);
            for (var most = 0; card.Next is { } step; most++)
            {
                Assert.True(most < 400, $"{sheet.Id}: {step.Id}");
                _now = card.Waits.Select(w => w.Until).Append(_now.AddMinutes(1)).Max();
                var decided = card.Decide(UsualPress.Of(card, step), Iona, _now, UsualPress.Facts(sheet));
                card = card.Taking(Assert.IsType<Accepted>(decided), Guid.NewGuid(), Iona, _now).Card;
            }
            Assert.NotEmpty(ServiceRecord.Of(card).Rulings!);
        }
    }
}
