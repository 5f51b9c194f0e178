using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Coaches.Tightening;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Torques;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>What is under pressure and in sight is looked at while the engine runs; a leak switches it off, and all is proved
/// again.</summary>
public sealed class RunningLookTests
{
    private CardAtHand _hand = null!;

    private SheetStep Stop(string sheet, params JobId[] jobs)
    {
        _hand = new(On(sheet, jobs));
        var step = _hand.UpTo(s => s.Kind == StepKind.Settle);
        _hand.Now += TimeSpan.FromMinutes(5);
        return step;
    }

    // Nobody is under it while it runs: HD-04's cap and HD-07's fuel filter are above, every drain plug below. A motorcycle hides none.
    [Theory]
    [InlineData("tarn-courier-20d", "engine-oil-and-filter", "")]
    [InlineData("tarn-courier-20d", "engine-oil-and-filter fuel-filter", "fuel-filter-lid")]
    [InlineData("hespin-16", "engine-oil-and-filter", "oil-filter-cap")]
    [InlineData("corran-fen-12", "engine-oil-and-filter gearbox-oil", "")]
    [InlineData("maelor-ridge-900", "engine-oil-and-filter gearbox-oil", "engine-drain-plug oil-filter-can")]
    public void Joints_under_pressure_and_in_sight(string sheet, string jobs, string joints)
    {
        Stop(sheet, [.. jobs.Split(' ').Select(JobId.Of)]);
        Assert.Equal(joints, string.Join(' ', _hand.Card.JointsInSight.Select(f => f.Id.Text).Order(StringComparer.Ordinal)));
    }

    [Fact]
    public void Dry_while_it_ran_is_kept_with_what_was_looked_at_and_no_look_is_spared_by_it()
    {
        var stop = Stop("hespin-16", "engine-oil-and-filter");
        _hand.Do(new SwitchOffDry(stop.Id));
        Assert.Equal(["oil-filter-cap"], Assert.IsType<SwitchedOffDry>(_hand.Card.History[^1].Event).Joints.Select(j => j.Text));
        Assert.False(_hand.Card.EngineRuns);
        Assert.Contains("did this at", _hand.No(new SwitchOffDry(stop.Id)));
        Assert.Contains(_hand.Card.Remaining, s => s.Kind == StepKind.Look);
        _hand.UpTo(_ => false);
        Assert.Empty(_hand.Card.BeforeSigning());
    }

    [Fact]
    public void Where_nothing_is_in_sight_nobody_says_it_was_dry()
    {
        var stop = Stop("corran-fen-12", "engine-oil-and-filter");
        Assert.Contains("in sight and under pressure", _hand.No(new SwitchOffDry(stop.Id)));
        Assert.Contains("no step", _hand.No(new ReportLeak(stop.Id, "engine-drain-plug")));
        _hand.Do(new ConfirmStep(stop.Id));
    }

    [Fact]
    public void A_leak_switches_it_off_at_once_and_run_and_look_come_again()
    {
        _hand = new(On("hespin-16", "engine-oil-and-filter"));
        var stop = _hand.UpTo(s => s.Kind == StepKind.Settle);
        // The filter still fills: a leak does not wait for that.
        Assert.NotEmpty(_hand.Card.InTheWay(stop, _hand.Now));
        Assert.Contains("to go", _hand.No(new SwitchOffDry(stop.Id)));
        _hand.Do(new ReportLeak(stop.Id, "oil-filter-cap"));
        Assert.False(_hand.Card.EngineRuns);
        Assert.Contains(_hand.Card.Open, o => o.Id == "oil-filter-cap");
        Assert.Equal(FindingGrade.PlanIt, _hand.Card.Findings[^1].Event.Grade);
        Assert.Contains("comes first", _hand.No(new SwitchOffDry(stop.Id)));
        var tighten = _hand.UpTo(s => s.What == "oil-filter-cap");
        Assert.Contains("leaked", _hand.No(UsualReading(tighten)));
        _hand.Do(new SayJointWasLoose(tighten.Id));
        var runs = _hand.Card.History.Count(h => h.Event is EngineCaught);
        _hand.UpTo(_ => false);
        Assert.Equal(runs + 1, _hand.Card.History.Count(h => h.Event is EngineCaught));
        Assert.Single(_hand.Card.History, h => h.Event is SwitchedOffDry);
        Assert.Empty(_hand.Card.BeforeSigning());
    }

    // A filter that carries its own ring: a new one is empty, and drinks.
    [Fact]
    public void A_spin_on_that_leaks_again_is_renewed_whole_and_the_level_is_read_once_more()
    {
        _hand = new(On("maelor-ridge-900", "engine-oil-and-filter"));
        foreach (var again in new[] { false, true })
        {
            var stop = _hand.UpTo(s => s.Kind == StepKind.Settle);
            _hand.Do(new ReportLeak(stop.Id, "oil-filter-can"));
            var tighten = _hand.UpTo(s => s.What == "oil-filter-can");
            if (!again)
                _hand.Do(new SayJointWasLoose(tighten.Id));
            else
                Assert.Contains("leaks again", _hand.No(new SayJointWasLoose(tighten.Id)));
        }
        var can = _hand.Card.Next!;
        Assert.Contains("number", Assert.IsType<Refused>(_hand.Say(new RenewSeal(can.Id, "TC-0000"))).Reasons[0].Field);
        _hand.Do(new RenewSeal(can.Id, _hand.Card.Sheet.Parts["oil-filter"].Number.Value));
        _hand.UpTo(s => s.Kind == StepKind.Gauge && s.What == "engine-oil");
        _hand.UpTo(_ => false);
        Assert.Empty(_hand.Card.BeforeSigning());
    }

    private static CardCommand UsualReading(SheetStep step) => new TakeReading(step.Id, Nm(25), true);
}
