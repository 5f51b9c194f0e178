using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Coaches.Reading;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>What is seen of what came out, and what follows from it: on this card, for the next interval, on the next card.</summary>
public sealed class LookTests
{
    private readonly Workbench _bench = new();

    private static readonly Look Glitter = new(LookSubject.Magnet, Appearance.Glitter);
    private static readonly Look Fuel = new(LookSubject.Fluid, Appearance.Thin);

    // By hand, from the general rules of the trade: what is normal wear, what is watched, what is not started before somebody looked.
    [Theory]
    [InlineData(Appearance.Clean, LookOutcome.CarryOn, null)]
    [InlineData(Appearance.Paste, LookOutcome.CarryOn, null)]
    [InlineData(Appearance.Glitter, LookOutcome.Sample, FindingGrade.PlanIt)]
    [InlineData(Appearance.Slivers, LookOutcome.Specialist, FindingGrade.Stop)]
    [InlineData(Appearance.Lumps, LookOutcome.Hold, FindingGrade.Stop)]
    public void What_is_on_the_magnet_leads_to_an_outcome(Appearance looks, LookOutcome leads, FindingGrade? grade)
    {
        _bench.WorkUpTo("look-at-plug");
        _bench.Do(new See("look-at-plug", new(LookSubject.Magnet, looks)));
        var seen = Assert.Single(_bench.Card.History.Select(h => h.Event).OfType<Seen>());
        Assert.Equal((leads, StepStatus.Done), (seen.Leads, _bench.Card.State("look-at-plug").Status));
        Assert.Equal(grade, _bench.Card.Findings.SingleOrDefault()?.Event.Grade);
        if (grade is not null)
            Assert.Equal($"Magnet of the engine drain plug: {LookRules.Says(seen.Look)}", _bench.Card.Findings[0].Event.Text);
    }

    [Fact]
    public void What_is_not_looked_at_or_cannot_be_seen_is_refused()
    {
        _bench.WorkUpTo("look-at-plug");
        Assert.Contains("asks what was seen", _bench.Refusals(new ConfirmStep("look-at-plug"))[0].What);
        Assert.Equal("subject", _bench.Refusals(new See("look-at-plug", Fuel))[0].Field);
        Assert.Equal("looks", _bench.Refusals(new See("look-at-plug", new(LookSubject.Magnet, Appearance.Milky)))[0].Field);
        Assert.Equal("looks", _bench.Refusals(new See("look-at-plug", new(LookSubject.Magnet, (Appearance)99)))[0].Field);
        _bench.Do(new See("look-at-plug", Glitter));
        Assert.Contains("did this at", _bench.Refusals(new See("look-at-plug", Glitter))[0].What);
        Assert.Contains("no step", Describe(_bench.Try(new See("wash-joints", Glitter))).ToLowerInvariant());
    }

    [Fact]
    public void Lumps_hold_the_vehicle_until_the_lead_decides()
    {
        _bench.WorkUpTo("look-at-plug");
        _bench.Do(new See("look-at-plug", new(LookSubject.Magnet, Appearance.Lumps)));
        _bench.WorkUpTo("start");
        Assert.Contains("graded stop", Describe(_bench.Try(new ConfirmStep("start"))));
        _bench.Do(new DecideStop(_bench.Card.Stops.Single().Seq, true, "Sump off, bearing shells are new"), Una);
        _bench.Do(new EngineRunsNow("start"));
    }

    // A wrong picture is taken back like a press, and the finding with it.
    [Fact]
    public void What_was_tapped_by_mistake_is_taken_back()
    {
        _bench.WorkUpTo("look-at-plug");
        _bench.Do(new See("look-at-plug", new(LookSubject.Magnet, Appearance.Lumps)));
        _bench.Do(new TakeBack(_bench.Card.LastPressOf(Iona.Id)!.Seq));
        Assert.Equal((0, 0, StepStatus.Waiting), (_bench.Card.Findings.Count, _bench.Card.SeenAt("look-at-plug").Count,
            _bench.Card.State("look-at-plug").Status));
        _bench.Do(UsualPress.Of(_bench.Card, _bench.Card.Next!));
        Assert.Empty(_bench.Card.Findings);
    }

    // 20,000 km and 12 months in harsh use are 10,000 and 6: half of 10,000 km and 6 months after glitter.
    [Fact]
    public void After_wear_the_next_interval_is_half_as_long_once()
    {
        NextDue Next(Appearance looks)
        {
            var bench = new Workbench();
            bench.WorkUpTo("look-at-plug");
            bench.Do(new See("look-at-plug", new(LookSubject.Magnet, looks)));
            bench.WorkUpTo();
            bench.Do(new Sign());
            return ((Signed)bench.Card.Signature!.Event).Due.Single().Next;
        }
        var (usual, halved) = (Next(Appearance.Paste), Next(Appearance.Glitter));
        Assert.Equal((usual.At!.Value - Km(148_200)) / 2, halved.At!.Value - Km(148_200));
        var day = new DateOnly(2026, 3, 9);
        var months = (usual.By!.Value.Year - day.Year) * 12 + usual.By.Value.Month - day.Month;
        Assert.Equal(day.AddMonths(months / 2), halved.By);
        Assert.Equal(new ServiceInterval(Km(2500), 1, 1), new ServiceInterval(Km(5000), 1, 1).Half);
    }

    [Fact]
    public void Glitter_with_fuel_or_a_second_time_wants_a_specialist()
    {
        Assert.Equal(LookOutcome.Sample, LookRules.Judge(Glitter, LookOutcome.Sample, [], []));
        Assert.Equal(LookOutcome.Specialist, LookRules.Judge(Glitter, LookOutcome.Sample, [Fuel], []));
        Assert.Equal(LookOutcome.Specialist, LookRules.Judge(Fuel, LookOutcome.Sample, [Glitter], []));
        Assert.Equal(LookOutcome.Specialist, LookRules.Judge(Glitter, LookOutcome.Sample, [], [Glitter]));
        Assert.Equal(LookOutcome.Sample, LookRules.Judge(Fuel, LookOutcome.Sample, [], [Fuel]));
        Assert.Equal(LookOutcome.Hold, LookRules.Judge(new(LookSubject.Magnet, Appearance.Lumps), LookOutcome.Hold, [Fuel], [Glitter]));
    }

    // The magnet and the old oil of one gearbox, one after the other at one step.
    [Fact]
    public void Two_things_are_looked_at_one_after_the_other_and_judged_together()
    {
        var card = On("ostler-brae-28d", "gearbox-oil");
        var now = card.History[0].At;
        void Do(CardCommand command)
        {
            var decision = card.Decide(command, Iona, now, UsualPress.Facts(card.Sheet));
            Assert.True(decision is Accepted, $"{command}: {Describe(decision)}");
            card = card.Taking((Accepted)decision, Guid.NewGuid(), Iona, now).Card;
        }
        for (; card.Next is { Kind: not StepKind.Read } step; now += TimeSpan.FromHours(1))
            Do(UsualPress.Of(card, step));
        var look = card.Next!;
        Assert.Equal([LookSubject.Magnet, LookSubject.Fluid], card.ToLookAt(look));
        Do(new See(look.Id, Glitter));
        Assert.Equal((StepStatus.Waiting, look.Id), (card.State(look.Id).Status, card.Next!.Id));
        Assert.Equal([LookSubject.Fluid], card.ToLookAt(look));
        Do(new See(look.Id, Fuel));
        Assert.Equal(StepStatus.Done, card.State(look.Id).Status);
        Assert.Equal([LookOutcome.Sample, LookOutcome.Specialist], card.SeenAt(look.Id).Select(s => s.Leads));
        Assert.Equal("Old gearbox oil: thin, smells of fuel", card.Stops.Single().Event.Text);
    }

    [Fact]
    public void The_next_card_knows_what_was_seen()
    {
        _bench.WorkUpTo("look-at-plug");
        _bench.Do(new See("look-at-plug", Glitter));
        _bench.WorkUpTo();
        _bench.Do(new Sign());
        var before = _bench.Card.SeenUntil(7, new(2026, 3, 9));
        Assert.Equal([new LookBefore(7, new(2026, 3, 9), "look-at-plug", Glitter)], before);
        var next = JobCard.Replay(Courier, [new(1, _bench.Now, Iona, Guid.NewGuid(), _bench.Card.Opened with { SeenBefore = before })]);
        Assert.Equal(before[0], next.SeenBefore("look-at-plug", LookSubject.Magnet));
        Assert.Equal(LookOutcome.Specialist, next.LeadsTo(next.Step("look-at-plug")!, Glitter));
        Assert.Equal(before, next.SeenUntil(8, new(2026, 9, 9))); // nobody looked on this one yet
        // It survives the disk.
        var read = (CardOpened)CardJson.Read(CardJson.Write(next.Opened));
        Assert.Equal(before, read.SeenBefore);
    }

    [Theory]
    [InlineData("\"looks\": [\"magnet\"]", "\"looks\": []", "empty")]
    [InlineData("\"looks\": [\"magnet\"]", "\"looks\": [\"magnet\", \"magnet\"]", "each once")]
    [InlineData("\"looks\": [\"magnet\"]", "\"looks\": [\"moon\"]", "“moon” is not known here")]
    [InlineData("\"looks\": [\"magnet\"]", "\"looks\": [\"magnet\"], \"leads\": {\"milky\": \"hold\"}", "not seen of what is looked at")]
    [InlineData("\"looks\": [\"magnet\"]", "\"looks\": [\"magnet\"], \"leads\": {\"glitter\": \"pray\"}", "“pray” is not known here")]
    [InlineData("\"fluid\": \"engine-oil\"}, \"notes\"", "\"fluid\": \"beer\"}, \"notes\"", "a fluid of this sheet")]
    public void A_sheet_that_says_it_wrong_is_told(string old, string wrong, string complaint)
    {
        Assert.Contains(old, SheetText);
        Assert.Contains(complaint, string.Join(" ", SheetReader.Read(SheetText.Replace(old, wrong)).Errors));
    }

    [Fact]
    public void A_sheet_may_overrule_what_follows()
    {
        var sheet = SheetReader.Read(SheetText.Replace("\"looks\": [\"magnet\"]",
            "\"looks\": [\"magnet\"], \"leads\": {\"glitter\": \"carry-on\", \"paste\": \"shorten\"}")).Sheet!;
        var spec = (ReadSpec)sheet.Steps["look-at-plug"].Spec!;
        Assert.Equal((LookOutcome.CarryOn, LookOutcome.Shorten, LookOutcome.Hold), (spec.Alone(Glitter),
            spec.Alone(new(LookSubject.Magnet, Appearance.Paste)), spec.Alone(new(LookSubject.Magnet, Appearance.Lumps))));
    }

    [Fact]
    public void Every_picture_has_a_word_and_the_usual_one_carries_on()
    {
        foreach (var subject in Enum.GetValues<LookSubject>())
        {
            Assert.Contains(LookRules.Usual(subject), LookRules.Of(subject));
            Assert.Equal(LookOutcome.CarryOn, LookRules.General(new(subject, LookRules.Usual(subject))));
            Assert.All(LookRules.Of(subject).Zip(LookRules.Of(subject).Skip(1)), p => Assert.True(
                LookRules.General(new(subject, p.First)) <= LookRules.General(new(subject, p.Second)), $"{p}: from the best to the worst"));
        }
        Assert.All(Enum.GetValues<Appearance>(), a => Assert.Single(Enum.GetValues<LookSubject>(), s => LookRules.Knows(new(s, a))));
    }
}
