using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>HD-02's brakes are tried on the road: three things in order, how far and where, and nobody else at it meanwhile.</summary>
public sealed class RoadTests
{
    private CardAtHand _hand = null!;

    private StepId Road()
    {
        _hand = new(On("corran-fen-12", "brake-fluid", "cabin-filter"));
        return _hand.UpTo(s => s.Kind == StepKind.Drive).Id;
    }

    private static Typed<Distance> Far(decimal km) => new(Km(km), Distance.Kilometre);

    [Fact]
    public void Each_try_has_its_answer_and_then_distance_and_place()
    {
        var road = Road();
        Assert.Contains("has not set off", _hand.No(new SayTried(road, 0, TryWent.Well)));
        Assert.Contains("told try by try", _hand.No(new ConfirmStep(road)));
        _hand.Do(new SetOff(road));
        Assert.Contains("It is on the road", _hand.No(new SetOff(road)));
        for (var i = 0; i < 3; i++)
        {
            Assert.Contains("has no answer", _hand.No(new ComeBack(road, Far(4), "Harbour road")));
            _hand.Do(new SayTried(road, i, i == 1 ? TryWent.Strange : TryWent.Well, i == 1 ? "A rub at the rear left" : ""));
        }
        Assert.Equal((FindingGrade.PlanIt, "On the road, three stops from 50 km/h: A rub at the rear left"),
            (_hand.Card.Findings[^1].Event.Grade, _hand.Card.Findings[^1].Event.Text));
        Assert.Equal("far", Assert.IsType<Refused>(_hand.Say(new ComeBack(road, Far(0), "Harbour road"))).Reasons[0].Field);
        Assert.Equal("where", Assert.IsType<Refused>(_hand.Say(new ComeBack(road, Far(4), " "))).Reasons[0].Field);
        _hand.Do(new ComeBack(road, Far(4.2m), "Harbour road"));
        Assert.Equal((StepStatus.Done, null), (_hand.Card.State(road).Status, _hand.Card.Away));
    }

    // Each with what belongs to it: stops after brakes, a shake after wheels, gears after their oil, full lock after steering.
    [Theory]
    [InlineData("corran-fen-12", "brake-fluid",
        "Three stops from walking pace; Three stops from 50 km/h; Hands lightly on the wheel on a level road")]
    [InlineData("corran-fen-12", "tyre-rotation", "Hands lightly on the wheel on a level road; From 60 to 80 km/h on the straight")]
    [InlineData("hespin-16", "gearbox-oil", "Through all gears, up and down")]
    [InlineData("ostler-brae-28d", "grease", "Hands lightly on the wheel on a level road; Full lock to both sides at walking pace")]
    [InlineData("ostler-brae-28d", "transfer-oil", "Low range and back, stopped")]
    [InlineData("ostler-brae-28d", "transfer-oil front-axle-oil", "Low range and back, stopped; Through all gears, up and down")]
    public void What_was_worked_on_is_tried_and_nothing_else(string sheet, string jobs, string tries)
    {
        var card = On(sheet, [.. jobs.Split(' ').Select(JobId.Of)]);
        var road = Assert.Single(card.Steps, s => s.Kind == StepKind.Drive);
        Assert.Equal(tries.Split("; ").Order(StringComparer.Ordinal),
            ((DriveSpec)road.Spec!).Tries.Select(t => t.Do).Order(StringComparer.Ordinal));
        Assert.DoesNotContain(On(sheet, "air-filter").Steps, s => s.Kind == StepKind.Drive);
    }

    [Fact]
    public void A_gear_oil_given_up_before_the_road_holds_no_vehicle_and_brakes_do()
    {
        foreach (var (sheet, job, holds) in new[] { ("ostler-brae-28d", "transfer-oil", false), ("hespin-16", "brake-fluid", true) })
        {
            _hand = new(On(sheet, job, "air-filter"));
            _hand.UpTo(s => s.Kind == StepKind.Drive);
            _hand.Do(new DropJob(job, "Called away"));
            Assert.Equal(holds, _hand.Card.WantingCountersignature.Any());
        }
    }

    [Fact]
    public void Until_it_is_back_nothing_else_is_done_to_it()
    {
        var road = Road();
        _hand.Do(new SetOff(road));
        Assert.All(_hand.Card.Remaining.Where(s => s.Id != road),
            s => Assert.Contains(_hand.Card.InTheWay(s, _hand.Now), r => r.What == "The vehicle is on the road." && r.Step == road));
        Assert.Contains("on the road", _hand.No(new MoveLift(true, true)));
        Assert.Equal(road, _hand.Card.Next!.Id);
        _hand.Do(new PutAside(road, "Rang from the road"));
        Assert.Equal(road, _hand.Card.Next!.Id);
        // Given up on the way, it stands here again.
        _hand.Do(new DropJob("brake-fluid", "Towed back"));
        Assert.Null(_hand.Card.Away);
    }

    [Fact]
    public void What_does_not_do_what_it_should_comes_back_and_is_tried_again_after_the_lead_decided()
    {
        var road = Road();
        _hand.Do(new SetOff(road));
        Assert.Equal("words", Assert.IsType<Refused>(_hand.Say(new SayTried(road, 0, TryWent.Failed))).Reasons[0].Field);
        Assert.Equal("try", Assert.IsType<Refused>(_hand.Say(new SayTried(road, 3, TryWent.Well))).Reasons[0].Field);
        _hand.Do(new SayTried(road, 0, TryWent.Failed, "It pulls to the left"));
        // It comes back though a stop stands against driving.
        _hand.Do(new ComeBack(road, Far(0.4m), "Yard"));
        Assert.Equal(StepStatus.Waiting, _hand.Card.State(road).Status);
        Assert.Contains("graded stop", _hand.No(new SetOff(road)));
        var stop = _hand.Card.Stops.Single();
        var decided = Assert.IsType<Accepted>(_hand.Card.Decide(new DecideStop(stop.Seq, true, "Caliper freed"), Una, _hand.Now));
        _hand = new(_hand.Card.Taking(decided, Guid.NewGuid(), Una, _hand.Now).Card) { Now = _hand.Now };
        _hand.Do(new SetOff(road));
        Assert.Equal(0, RoadTest.Of(_hand.Card, _hand.Card.Step(road)!).Next);
    }

    [Fact]
    public void What_turns_out_loose_on_the_way_is_driven_again_once_it_is_tight()
    {
        var road = Road();
        _hand.Do(new SetOff(road));
        for (var i = 0; i < 3; i++)
            _hand.Do(new SayTried(road, i, TryWent.Well));
        var screw = _hand.Card.CanBePutRight[^1];
        _hand.Do(new CorrectReading(screw.Seq, Nm(2), "Read the wrong line"));
        Assert.Equal(road, _hand.Card.Next!.Id);
        _hand.Do(new ComeBack(road, Far(4), "Harbour road"));
        Assert.Equal(StepStatus.Waiting, _hand.Card.State(road).Status);
        _hand.UpTo(_ => false);
        Assert.Empty(_hand.Card.BeforeSigning());
    }

    [Fact]
    public void Left_out_on_the_way_needs_a_second_name_and_it_stands_here_again()
    {
        var road = Road();
        _hand.Do(new SetOff(road));
        _hand.Do(new Deviate(road, DeviationKind.StepLeftOut, "Road is flooded"));
        Assert.Null(_hand.Card.Away);
        Assert.Single(_hand.Card.WantingCountersignature);
    }
}
