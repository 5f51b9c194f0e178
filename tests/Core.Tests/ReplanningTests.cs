using Anakyklos.Core.Kit;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Records;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Cards of other models at work: gates of side-filled oils, measured return, cold plugs, steps taken early or held up.</summary>
public class ReplanningTests
{
    private DateTimeOffset _now = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);
    private JobCard _card = null!;

    private void Open(string sheetId, params JobId[] jobs)
    {
        var sheet = ComposerTests.Sheets[sheetId];
        _card = JobCard.Replay(sheet, [new(1, _now, Iona, Guid.NewGuid(),
            new CardOpened("HD-X", sheet.Id, sheet.Revision, jobs, CardPlanner.Compose(sheet, jobs), Km(1000), Use.Normal, null,
            new Dictionary<PartId, int>()))]);
    }

    private Decision Give(CardCommand command)
    {
        var decision = _card.Decide(command, Iona, _now, UsualPress.Facts(_card.Sheet));
        if (decision is Accepted accepted)
        {
            var (seq, id) = (_card.History.Count, Guid.NewGuid());
            _card = _card.With([.. accepted.Events.Select(e => new Recorded(++seq, _now, Iona, id, e))]);
        }
        return decision;
    }

    private void Do(CardCommand command) =>
        Assert.True(Give(command) is Accepted, $"{command}: {Describe(_card.Decide(command, Iona, _now, UsualPress.Facts(_card.Sheet)))}");

    private string Refused(CardCommand command) => Describe(Assert.IsType<Refused>(Give(command)));

    private void Press(SheetStep step)
    {
        foreach (var wait in _card.Waits.Where(w => (step.Awaits.Contains(w.Id) || w.Id == step.Id) && w.Until > _now))
            _now = wait.Until;
        _now += step.Takes;
        if (_card.AsksIfCold(step, _now))
            Do(new FeelCold());
        switch (step.Kind)
        {
            case StepKind.Kit:
                Do(new ConfirmKit(step.Id, _card.PartsWanted.ToDictionary(p => p.Id, _ => new KitPart(KitChoice.InHand)),
                    [L(20), L(20), L(20), L(20)], _card.FluidsWanted.ToDictionary(f => f.Id, f => new OilLaidOut(L(20), f.Name))));
                break;
            case StepKind.Measure:
                Do(new Measure(step.Id, Litres(7.1m)));
                break;
            case StepKind.Bleed or StepKind.Inspect or StepKind.Rotate:
            case StepKind.Read or StepKind.Pour or StepKind.Gauge or StepKind.Tighten or StepKind.Retighten:
                while (_card.State(step.Id).Status != StepStatus.Done)
                    Do(Rehearsal.UsualPress.Of(_card, step));
                break;
            case StepKind.Refill or StepKind.Fit:
                Do(Rehearsal.UsualPress.Of(_card, step));
                break;
            case StepKind.Reset or StepKind.Run or StepKind.Drive:
                for (; _card.State(step.Id).Status != StepStatus.Done; _now += TimeSpan.FromSeconds(15))
                    Do(Rehearsal.UsualPress.Of(_card, step));
                break;
            case StepKind.Prime:
                for (; _card.State(step.Id).Status != StepStatus.Done; _now += TimeSpan.FromSeconds(10))
                    Do(Rehearsal.UsualPress.Of(_card, step));
                break;
            case StepKind.Pedal:
                Do(Rehearsal.UsualPress.Of(_card, step));
                _now += TimeSpan.FromSeconds(30);
                Do(Rehearsal.UsualPress.Of(_card, step));
                break;
            case StepKind.Warm:
                for (; _card.State(step.Id).Status != StepStatus.Done; _now += TimeSpan.FromMinutes(10))
                    Do(Rehearsal.UsualPress.Of(_card, step));
                break;
            default:
                Do(new ConfirmStep(step.Id));
                break;
        }
    }

    private void WorkUpTo(StepId? stop = null)
    {
        while (_card.Next is { } step && step.Id != stop)
        {
            Press(step);
            Assert.True(_card.State(step.Id).Status == StepStatus.Done, $"“{step.Title}” was pressed and is not done");
        }
        Assert.True(stop is null || _card.Next?.Id == stop, $"never came to {stop}");
    }

    public static TheoryData<string> Models() => [.. ComposerTests.Sheets.Keys.Select(k => k.Text)];

    [Theory]
    [MemberData(nameof(Models))]
    public void The_full_service_of_every_model_can_be_worked_to_its_signature_as_planned(string sheet)
    {
        Open(sheet, [.. ComposerTests.Sheets[sheet].Jobs.Keys]);
        WorkUpTo();
        Do(new Sign());
        Assert.Empty(_card.Open);
        Assert.Equal(_card.Opened.Jobs.Where(j => !_card.Sheet.Intervals[_card.Sheet.Jobs[j].Interval].Once),
            ((Signed)_card.Signature!.Event).Due.Select(d => d.Job));
    }

    [Fact]
    public void A_drain_plug_stays_shut_until_its_fill_plug_is_loose()
    {
        Open("ostler-brae-28d", "gearbox-oil");
        WorkUpTo("undo-gearbox-fill-plug");
        Assert.Contains("The gearbox fill plug has not been loosened yet. Loosen it first, or the gearbox oil cannot be filled again.",
            Refused(new ConfirmStep("drain-gearbox-oil")));
        Do(new ConfirmStep("undo-gearbox-fill-plug"));
        Do(new ConfirmStep("drain-gearbox-oil"));
    }

    [Fact]
    public void Running_over_too_early_is_asked_about_and_closes_the_fluid()
    {
        Open("ostler-brae-28d", "front-axle-oil");
        WorkUpTo("fill-front-axle-oil");
        Assert.Contains("Nothing has been poured yet.", Refused(new RunOver("fill-front-axle-oil")));
        Do(new Pour("fill-front-axle-oil", Litres(0.9m)));
        var asked = Assert.IsType<RunOverQuestion>(Assert.IsType<Asked>(Give(new RunOver("fill-front-axle-oil"))).Question);
        Assert.Contains("It runs over at 0.90 L, but the book says 1.50 L", asked.Text);
        Assert.Contains(_card.Open, o => o.Id == "front-axle-oil");
        Assert.False(ServiceRecord.Of(_card).Filled.Single(f => f.Name == "Front axle oil").RanOver);
        Do(new RunOver("fill-front-axle-oil", WarningSeen: true));
        Assert.True(ServiceRecord.Of(_card).Filled.Single(f => f.Name == "Front axle oil").RanOver);
        Assert.DoesNotContain(_card.Open, o => o.Id == "front-axle-oil");
    }

    [Fact]
    public void Bottle_after_bottle_goes_in_and_only_running_over_is_the_end()
    {
        Open("ostler-brae-28d", "front-axle-oil");
        WorkUpTo("fill-front-axle-oil");
        Do(new Pour("fill-front-axle-oil", Litres(1)));
        Assert.Equal(new Pour("fill-front-axle-oil", Litres(0.5m)), Rehearsal.UsualPress.Of(_card, _card.Step("fill-front-axle-oil")!));
        Do(new Pour("fill-front-axle-oil", Litres(0.5m)));
        Assert.Equal(StepStatus.Waiting, _card.State("fill-front-axle-oil").Status);
        Assert.IsType<RunOver>(Rehearsal.UsualPress.Of(_card, _card.Step("fill-front-axle-oil")!));
        // Past the book and its tolerance of 0.1 L it is asked what does not agree, and more may go in all the same.
        Assert.IsType<PourQuestion>(Assert.IsType<Asked>(Give(new Pour("fill-front-axle-oil", Litres(0.2m)))).Question);
        Do(new Pour("fill-front-axle-oil", Litres(0.2m), WarningSeen: true));
        Do(new RunOver("fill-front-axle-oil"));
        Assert.Equal(L(1.7m), _card.Fluid("front-axle-oil").Poured);
        Assert.Equal(StepStatus.Done, _card.State("fill-front-axle-oil").Status);
    }

    [Fact]
    public void What_came_out_goes_back_and_more_is_asked_about()
    {
        Open("hespin-16", "gearbox-oil");
        WorkUpTo("measure-gearbox-oil");
        Assert.Contains("What came out has not been measured", Refused(new Pour("fill-gearbox-oil", Litres(7))));
        Do(new Measure("measure-gearbox-oil", Litres(6.8m), true));
        WorkUpTo("fill-gearbox-oil");
        Assert.Equal(L(6.8m), _card.Wanted("gearbox-oil"));
        Assert.IsType<Asked>(Give(new Pour("fill-gearbox-oil", Litres(7.5m))));
        Do(new Pour("fill-gearbox-oil", Litres(4)));
        Assert.Equal(StepStatus.Waiting, _card.State("fill-gearbox-oil").Status);
        Do(new Pour("fill-gearbox-oil", Litres(2.8m)));
        Assert.Equal(StepStatus.Done, _card.State("fill-gearbox-oil").Status);
    }

    [Fact]
    public void Plugs_wait_until_a_warm_engine_is_cold()
    {
        Open("corran-fen-12", "engine-oil-and-filter", "spark-plugs");
        WorkUpTo("undo-spark-plugs-in");
        var plugs = _card.Step("undo-spark-plugs-in")!;
        Assert.True(_card.AsksIfCold(plugs, _now));
        Do(new FeelCold());
        Assert.Empty(_card.InTheWay(plugs, _now));
        Do(new MoveLift(true, true));
        Do(new MoveLift(false, true));
        _card = JobCard.Replay(_card.Sheet, [.. _card.History,
            new(_card.History.Count + 1, _now, Iona, Guid.NewGuid(), new StepDone("warm-up"))]);
        Assert.Contains(_card.InTheWay(plugs, _now.AddMinutes(44)), r => r.What.Contains("still hot"));
        // What was felt before does not count any more, and a hot engine is not felt cold.
        Assert.False(_card.AsksIfCold(plugs, _now.AddMinutes(44)));
        Assert.Contains("still hot", Refused(new FeelCold()));
        Assert.Empty(_card.InTheWay(plugs, _now.AddMinutes(45)));
    }

    [Fact]
    public void A_step_taken_early_comes_first_and_the_rest_is_ordered_around_it()
    {
        Open("ostler-brae-28d", ComposerTests.FullService);
        WorkUpTo("air-box-off");
        var later = _card.Remaining.First(s => s.Id != "air-box-off" && !s.MovesLift && _card.InTheWay(s, _now).Count == 0
            && _card.Steps.ToList().IndexOf(s) > 14);
        var costs = _card.PlanWith(later.Id, _now)!.Value.Costs;
        Assert.True(costs >= TimeSpan.Zero);
        Do(new TakeEarly(later.Id));
        Assert.Equal(later.Id, _card.Next!.Id);
        Assert.Equal(costs, Assert.IsType<PlanChanged>(_card.History[^1].Event).Costs);
        Assert.Contains("next step anyway", Refused(new TakeEarly(later.Id)));
        WorkUpTo();
        Do(new Sign());
    }

    [Fact]
    public void What_waits_for_a_part_goes_last_and_nothing_is_opened_that_it_would_leave_open()
    {
        Open("ostler-brae-28d", "front-axle-oil", "rear-axle-oil");
        WorkUpTo("undo-front-axle-fill-plug");
        Do(new PutAside("fit-rear-drain-washer", "On Friday's boat"));
        Assert.Contains(_card.History, h => h.Event is PlanChanged);
        var plan = _card.PlanFrom(_now);
        Assert.DoesNotContain(plan.Rows, r => r.Step.Id.Text is "drain-rear-axle-oil" or "fit-rear-drain-washer");
        for (var presses = 0; presses < 90 && _card.Next is { } next && _card.PlanFrom(_now).Rows.Any(r => r.Step.Id == next.Id); presses++)
            Press(next);
        Assert.DoesNotContain(_card.Open, o => o.Id.Text.StartsWith("rear-axle-drain"));
        Assert.Equal(StepStatus.Done, _card.State("tighten-front-axle-fill-plug").Status);
    }

    [Fact]
    public void What_was_left_for_later_brings_back_all_it_held_up_when_it_is_done()
    {
        Open("ostler-brae-28d", "gearbox-oil");
        WorkUpTo("rear-skid-plate-off");
        Do(new PutAside("rear-skid-plate-off", "The socket is lent"));
        Do(new ConfirmStep("rear-skid-plate-off"));
        Assert.Equal(StepStatus.Done, _card.State("rear-skid-plate-off").Status);
        Assert.DoesNotContain(_card.Steps, s => _card.State(s.Id).Status == StepStatus.Aside);
        WorkUpTo();
        Do(new Sign());
    }

    [Fact]
    public void A_step_that_is_not_ready_cannot_be_taken_early()
    {
        Open("ostler-brae-28d", "rear-axle-oil");
        Assert.Contains("The vehicle is down", Refused(new TakeEarly("drain-rear-axle-oil")));
        Assert.Contains("no step", Refused(new TakeEarly("raise")));
        Assert.Null(_card.PlanWith("drain-rear-axle-oil", _now));
        Assert.Contains("best there is", Refused(new OrderAgain()));
    }

    [Fact]
    public void Nothing_is_driven_with_anything_open()
    {
        Open("ostler-brae-28d", "brake-fluid");
        WorkUpTo("bonnet-on");
        Assert.Contains("still open", Refused(new SetOff("road-test")));
    }

    [Fact]
    public void Orders_and_measures_survive_writing_and_reading()
    {
        Open("hespin-16", "gearbox-oil");
        WorkUpTo("measure-gearbox-oil");
        Do(new Measure("measure-gearbox-oil", Litres(7)));
        Do(new PutAside(_card.Remaining.Last(s => !s.MovesLift).Id, "later"));
        var read = _card.History.Select(h => h with { Event = CardJson.Read(CardJson.Write(h.Event)) }).ToList();
        var again = JobCard.Replay(_card.Sheet, read);
        Assert.Equal(_card.Steps.Select(s => s.Id), again.Steps.Select(s => s.Id));
        Assert.Equal(_card.Next!.Id, again.Next!.Id);
        Assert.Equal(L(7), again.Fluid("gearbox-oil").CameOut);
    }
}
