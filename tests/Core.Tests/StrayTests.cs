using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Records;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Torques;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Whatever strayed from the usual course is told first at hand-over and stands on the record; what was taken back does
/// not.</summary>
public sealed class StrayTests
{
    private CardAtHand _hand = null!;

    private IReadOnlyList<Stray> Told => [.. (ServiceRecord.Of(_hand.Card).Unusual ?? []).Select(u => u.How)];

    // Whoever writes a new event says here, or on it, whether it may stray.
    [Fact]
    public void Every_event_has_been_thought_of()
    {
        const string Usual = "Amended BleedScrewShut CardOpened CardVoided CarriedMended Countersigned DeviationTaken EngineCaught "
            + "FastenersDrawn FeltCold FindingNoted HoseSeen JobDropped JointDry KitConfirmed LiftMoved PanEmptied "
            + "PartAwaited PartCame PartFilled PartFitted PedalFelt PedalPressed PlanChanged PointInspected PrimeCounted "
            + "PrimeHeld ReservoirFilled ResetAnswered ResetHeld ResetShown Rinsed RoadBegun RoadEnded RoadTried "
            + "SampleTaken Seen Signed StartMoveMade StepDone StepPutAside StoodBeside StopDecided StrokesMade SweptFor "
            + "SwitchedOffDry TakenBack TakenOut TreadLookedAt ValueRuled VoidAsked WarmingBegun WasStripped WordLeft WrenchTaken";
        var events = typeof(CardEvent).Assembly.GetTypes().Where(t => !t.IsAbstract && t.IsAssignableTo(typeof(CardEvent))).ToList();
        Assert.Equal(Usual.Split(' ').Order(StringComparer.Ordinal), events.Where(t => !t.IsAssignableTo(typeof(IMayStray)))
            .Select(t => t.Name).Order(StringComparer.Ordinal));
        // Deviations and findings have lists of their own.
        Assert.True(events.Count(t => t.IsAssignableTo(typeof(IMayStray))) >= 15);
    }

    [Fact]
    public void By_the_book_nothing_is_told_and_one_person_is_named()
    {
        _hand = new(On("hespin-16", "engine-oil-and-filter"));
        _hand.UpTo(_ => false);
        Assert.Empty(Told);
        Assert.Equal([Iona.Name], ServiceRecord.Of(_hand.Card).WorkedBy!);
    }

    [Fact]
    public void A_leak_too_much_torque_a_reading_put_right_and_a_wait_that_was_cut()
    {
        _hand = new(On("hespin-16", "engine-oil-and-filter"));
        var plug = _hand.UpTo(s => s is { Kind: StepKind.Tighten } && s.What == "engine-drain-plug");
        _hand.Do(new TakeReading(plug.Id, Nm(90), true));
        _hand.Do(new SettleOverTorque(plug.Id, "Slackened, new washer"));
        Assert.Equal([Stray.TooMuch, Stray.TooMuch], Told);
        var stop = _hand.UpTo(s => s.Kind == StepKind.Settle);
        _hand.Do(new ReportLeak(stop.Id, "oil-filter-cap"));
        var cap = _hand.UpTo(s => s.What == "oil-filter-cap");
        _hand.Do(new SayJointWasLoose(cap.Id));
        _hand.UpTo(s => s.Kind == StepKind.Settle);
        _hand.Do(new CutWait(_hand.Card.Waits.Last().Id, "It was full at once"));
        _hand.UpTo(_ => false);
        var last = _hand.Card.CanBePutRight[^1];
        _hand.Do(new CorrectReading(last.Seq, ((ReadingTaken)last.Event).Reading, "Wrong line"));
        Assert.Equal([Stray.TooMuch, Stray.TooMuch, Stray.Leak, Stray.Leak, Stray.WaitCut, Stray.PutRight], Told);
        var lines = ServiceRecord.Of(_hand.Card).Unusual!;
        Assert.All(lines, l => Assert.Equal(l.At, _hand.Card.History[l.Seq - 1].At));
    }

    [Fact]
    public void The_light_and_a_reset_that_failed_are_told_with_what_was_found()
    {
        _hand = new(On("hespin-16", "engine-oil-and-filter"));
        var start = _hand.UpTo(s => s.Kind == StepKind.Run);
        _hand.Do(new EngineRunsNow(start.Id));
        _hand.Do(new LightStaysOn(start.Id));
        _hand.Do(new LookIntoLight(start.Id, "Lead off"));
        Assert.Equal([Stray.Light, Stray.Light], Told);
        // What was taken back never was.
        _hand.Do(new TakeBack(_hand.Card.History[^1].Seq));
        Assert.Equal([Stray.Light], Told);
        _hand.Do(new LookIntoLight(start.Id, "Lead off"));
        _hand.UpTo(s => s.Traits.PutsOut);
        _hand.Do(new Coaches.Resetting.FailReset(_hand.Card.Next!.Id));
        Assert.Equal([Stray.Light, Stray.Light, Stray.Reset], Told);
    }

    [Fact]
    public void A_part_with_another_number_is_told_with_the_one_that_it_stands_in_for()
    {
        _hand = new(On("hespin-16", "engine-oil-and-filter"));
        _hand.UpTo(_ => false);
        Assert.All(ServiceRecord.Of(_hand.Card).Fitted, f => Assert.Null(f.StoodInFor));
        var (card, kit) = (_hand.Card, _hand.Card.History.First(h => h.Event is KitConfirmed));
        var laid = (KitConfirmed)kit.Event;
        var other = JobCard.Replay(card.Sheet, [.. card.History.Select(h => h.Seq != kit.Seq ? h : h with
        {
            Event = laid with { Parts = laid.Parts.ToDictionary(p => p.Key, p => p.Key == "oil-filter" ? "HS-9999-F" : p.Value) },
        })]);
        var filter = ServiceRecord.Of(other).Fitted.Single(f => f.Number == "HS-9999-F");
        Assert.Equal(card.Sheet.Parts["oil-filter"].Number.Value, filter.StoodInFor);
    }
}
