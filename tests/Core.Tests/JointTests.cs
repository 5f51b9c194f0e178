using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Booking;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Rehearsal;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>The joints that a card opened, each looked at by itself; and the places that are looked over, thing by thing.</summary>
public sealed class JointTests
{
    private static readonly FastenerId Plug = "engine-drain-plug", Cap = "oil-filter-cap";

    private CardAtHand _hand = null!;

    private SheetStep Look(string sheet = "tarn-courier-20d", params string[] jobs)
    {
        _hand = new(On(sheet, [.. (jobs.Length > 0 ? jobs : ["engine-oil-and-filter"]).Select(j => (JobId)j)]));
        return _hand.UpTo(s => s.Kind == StepKind.Look);
    }

    [Fact]
    public void Exactly_those_that_were_opened_are_listed_with_what_brings_a_leak_out()
    {
        var look = Look();
        Assert.Equal([("Engine drain plug", LookWhile.EngineRan, null), ("Oil filter cap", LookWhile.EngineRan, null)],
            LookedAtJoint.Of(_hand.Card, look).Select(j => (j.Fastener.Name, j.While, j.Look)));
        Assert.Contains("There is no step", _hand.No(new ReportDry(look.Id, "fuel-filter-lid")));
        look = Look("corran-fen-12", "brake-fluid", "gearbox-oil");
        var joints = LookedAtJoint.Of(_hand.Card, look).ToLookup(j => j.While, j => j.Fastener.Name);
        Assert.Equal(4, joints[LookWhile.Pressed].Count());
        Assert.Equal(["Gearbox drain plug", "Gearbox fill plug"], joints[LookWhile.AsItStands].Order(StringComparer.Ordinal));
        Assert.Empty(joints[LookWhile.EngineRan]);
    }

    [Fact]
    public void The_last_that_is_said_to_be_dry_ends_it()
    {
        var look = Look();
        _hand.Do(new ReportDry(look.Id, Cap));
        Assert.Equal(StepStatus.Waiting, _hand.Card.State(look.Id).Status);
        _hand.Do(new ReportDry(look.Id, Plug));
        Assert.Equal(StepStatus.Done, _hand.Card.State(look.Id).Status);
    }

    [Fact]
    public void One_that_weeps_is_wiped_waited_for_and_said_by_itself()
    {
        var look = Look();
        _hand.Do(new ReportWeep(look.Id, Plug));
        Assert.Equal(("Wiped: engine drain plug", _hand.Now.AddMinutes(5)),
            (_hand.Card.Waits.Single(w => w.Id == look.Id).For, _hand.Card.Waits.Single(w => w.Id == look.Id).Until));
        // The other is looked at meanwhile; this one shows itself only then.
        _hand.Do(new ReportDry(look.Id, Cap));
        _hand.Now += TimeSpan.FromMinutes(4.9);
        Assert.Contains("Wiped: engine drain plug", _hand.No(new ReportDry(look.Id, Plug)));
        _hand.Now += TimeSpan.FromMinutes(0.1);
        Assert.Contains("wept and was wiped", _hand.No(new ConfirmStep(look.Id)));
        _hand.Do(new ReportDry(look.Id, Plug));
        Assert.Equal(StepStatus.Done, _hand.Card.State(look.Id).Status);
        Assert.DoesNotContain(_hand.Card.Waits, w => w.Id == look.Id);
    }

    [Fact]
    public void One_that_weeps_again_leaks_and_what_was_said_of_the_others_counts_no_more()
    {
        var look = Look();
        _hand.Do(new ReportDry(look.Id, Cap));
        _hand.Do(new ReportWeep(look.Id, Plug));
        _hand.Now += TimeSpan.FromMinutes(1);
        // It is told whenever it is seen, also before its time.
        _hand.Do(new ReportWeep(look.Id, Plug));
        Assert.Contains(_hand.Card.Open, o => o.Id == (ThingId)Plug && o.Detail == "leaks");
        Assert.DoesNotContain(_hand.Card.Waits, w => w.Id == look.Id);
        Assert.All(LookedAtJoint.Of(_hand.Card, look), j => Assert.Null(j.Look));
        look = _hand.UpTo(s => s.Kind == StepKind.Look);
        _hand.Do(new ReportDry(look.Id, Plug));
        Assert.Equal(StepStatus.Waiting, _hand.Card.State(look.Id).Status);
        _hand.Do(new ReportDry(look.Id, Cap));
        _hand.UpTo(_ => false);
        Assert.Empty(_hand.Card.BeforeSigning());
    }

    [Fact]
    public void One_that_leaks_was_loose_or_wants_a_new_seal_and_a_second_time_nothing_but_that()
    {
        var look = Look();
        _hand.Do(new ReportLeak(look.Id, Plug));
        var tighten = _hand.UpTo(s => s.Traits.Tightens && s.What == Plug);
        Assert.Equal("The engine drain plug leaked.", _hand.No(new TakeReading(tighten.Id, Nm(38))));
        Assert.Equal("The engine drain plug leaked.", _hand.No(_hand.Card.CommandFor(tighten,
            new Quantities.MeasuredTorque(Nm(38)), "TW-2")!));
        _hand.Do(new SayJointWasLoose(tighten.Id));
        Assert.Equal("It did not leak.", _hand.No(new SayJointWasLoose(tighten.Id)));
        Assert.Equal("No new seal is wanted here.", _hand.No(new RenewSeal(tighten.Id, "TC-0714-R")));
        _hand.Do(new TakeReading(tighten.Id, Nm(38)));
        look = _hand.UpTo(s => s.Kind == StepKind.Look);
        _hand.Do(new ReportLeak(look.Id, Plug));
        _hand.UpTo(s => s.Id == tighten.Id);
        Assert.Equal("It was tightened before and leaks again.", _hand.No(new SayJointWasLoose(tighten.Id)));
        Assert.Equal("The number on the new washer for the drain plug is missing.", _hand.No(new RenewSeal(tighten.Id, " ")));
        Assert.Equal("TC-0001-R is not the number of the washer for the drain plug.", _hand.No(new RenewSeal(tighten.Id, "TC-0001-R")));
        _hand.Do(new RenewSeal(tighten.Id, "tc 0714 r"));
        Assert.Equal(SealAfterLeak.Renewed, _hand.Card.SealAt(Plug));
        // One more is off the shelf.
        Assert.Equal(new PartUsed("tc 0714 r", "Washer for the drain plug"), StockMoves.Of(_hand.Card, _hand.Card.History[^1].Event));
        _hand.UpTo(_ => false);
        Assert.Empty(_hand.Card.BeforeSigning());
        // A new one that leaks was not the fault of the one before it.
        look = Look();
        _hand.Do(new ReportLeak(look.Id, Plug));
        _hand.UpTo(s => s.Id == tighten.Id);
        _hand.Do(new RenewSeal(tighten.Id, "TC-0714-R"));
        look = _hand.UpTo(s => s.Kind == StepKind.Look);
        _hand.Do(new ReportLeak(look.Id, Plug));
        Assert.Equal(SealAfterLeak.Leaked, _hand.Card.SealAt(Plug));
    }

    [Fact]
    public void What_was_let_down_over_a_new_seal_is_read_again_through_what_it_is_read_through()
    {
        // HD-11's gearbox: its level was read at the fill plug, which is shut by then.
        var look = Look("ostler-brae-28d", "gearbox-oil");
        var level = _hand.Card.Steps.Single(s => s.Traits.Fills && s.What == "gearbox-oil");
        Assert.Equal(StepStatus.Done, _hand.Card.State(level.Id).Status);
        _hand.Do(new ReportLeak(look.Id, "gearbox-drain-plug"));
        Assert.Equal(StepStatus.Done, _hand.Card.State(level.Id).Status);
        var tighten = _hand.UpTo(s => s.Traits.Tightens && s.What == (FastenerId)"gearbox-drain-plug");
        _hand.Do(UsualPress.Of(_hand.Card, tighten));
        Assert.Equal(StepStatus.Waiting, _hand.Card.State(level.Id).Status);
        Assert.Equal(level.Id, _hand.UpTo(s => s.Id == level.Id).Id);
        Assert.Contains(_hand.Card.Open, o => o.Id == (ThingId)"gearbox-fill-plug");
        _hand.UpTo(_ => false);
        Assert.Empty(_hand.Card.BeforeSigning());
        // HD-07's plug that had been loose lets nothing down.
        look = Look();
        _hand.Do(new ReportLeak(look.Id, Cap));
        tighten = _hand.UpTo(s => s.Traits.Tightens && s.What == Cap);
        _hand.Do(new SayJointWasLoose(tighten.Id));
        _hand.UpTo(_ => false);
        Assert.Empty(_hand.Card.BeforeSigning());
    }

    [Fact]
    public void Nobody_goes_under_it_for_a_joint_that_is_above()
    {
        var above = Look("tarn-courier-20d", "fuel-filter");
        Assert.Equal((Place.Top, LiftNeed.Down), (above.Place, above.Lift));
        Assert.DoesNotContain(_hand.Card.Steps, s => s.MovesLift);
        Assert.Equal(LiftNeed.Up, Look("tarn-courier-20d", "engine-oil-and-filter", "fuel-filter").Lift);
    }

    [Fact]
    public void Above_it_is_looked_for_the_tools_used_there_what_was_off_and_rags()
    {
        _hand = new(On("tarn-courier-20d", "fuel-filter"));
        var clear = _hand.UpTo(s => s.Traits.LooksOver);
        var items = SweepItem.Of(_hand.Card, clear);
        Assert.Equal("Rags, foil and lamp", Assert.Single(items, i => i.For == SweepFor.Loose).What);
        Assert.Contains(items, i => i is { For: SweepFor.Tool, What: "Torque wrench" });
        Assert.All(items.Where(i => i.For == SweepFor.BackOn), i => Assert.DoesNotContain(_hand.Card.Open, o => o.Name == i.What));
        Assert.Equal(items.Count, items.Select(i => i.What).Distinct().Count());
        foreach (var item in items.SkipLast(1))
            _hand.Do(new SweepOne(clear.Id, item.What));
        Assert.Contains("has said so already", _hand.No(new SweepOne(clear.Id, items[0].What)));
        Assert.Contains("not among what is looked for", _hand.No(new SweepOne(clear.Id, "Spare wheel")));
        Assert.Equal(StepStatus.Waiting, _hand.Card.State(clear.Id).Status);
        _hand.Do(new SweepOne(clear.Id, items[^1].What));
        Assert.Equal(StepStatus.Done, _hand.Card.State(clear.Id).Status);
    }

    [Fact]
    public void What_was_looked_for_counts_no_more_once_there_was_work_again()
    {
        _hand = new(On("tarn-courier-20d", "fuel-filter"));
        var clear = _hand.UpTo(s => s.Traits.LooksOver);
        _hand.Do(new SweepOne(clear.Id, "Rags, foil and lamp"));
        var reading = _hand.Card.CanBePutRight[^1];
        _hand.Do(new CorrectReading(reading.Seq, Nm(3), "Read the wrong line"));
        _hand.UpTo(s => s.Traits.LooksOver);
        Assert.All(SweepItem.Of(_hand.Card, clear), i => Assert.False(i.Seen, i.What));
    }
}
