using Anakyklos.Core.Cards;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>A reading of a wrench goes to the step that wants it by itself only where nothing speaks against it.</summary>
public sealed class LandingTests
{
    private readonly Workbench _bench = new();
    private LandedBefore? _before;

    private static Device Wrench(string bay = "Bay 1", string calibrated = "2026-12-31", bool inCrib = true) => new("TW-2",
        DeviceKind.TorqueWrench, bay, inCrib ? new(new("TW-2", Nm(5).Value, Nm(60).Value, Nm(1).Value, Torque.NewtonMetre, 4),
            DateOnly.ParseExact(calibrated, "yyyy-MM-dd")) : null);

    private DeviceReading Reading(MeasuredValue? read = null, string bay = "Bay 1", double secondsAgo = 0) =>
        new(Guid.NewGuid(), "TW-2", bay, read ?? new MeasuredTorque(Nm(25)), _bench.Now.AddSeconds(-secondsAgo));

    private Landing Land(DeviceReading? reading = null, Device? device = null, int cards = 1) => Landing.Of(reading ?? Reading(),
        device ?? Wrench(), [.. Enumerable.Range(0, cards).Select(i => new CardInBay(1007 + i, _bench.Card))], _before, _bench.Now);

    private string Why(DeviceReading? reading = null, Device? device = null, int cards = 1) =>
        Assert.IsType<WaitsInSight>(Land(reading, device, cards)).Why.What;

    public LandingTests() => _bench.WorkUpTo("tighten-filter-cap");

    [Fact]
    public void It_goes_to_the_open_step_in_the_name_of_who_works_there_and_says_who_read_it()
    {
        var lands = Assert.IsType<LandsAt>(Land());
        Assert.Equal((new CardNumber(1007), "tighten-filter-cap", Iona), (lands.Card, lands.Step.Text, lands.By));
        _bench.Do(lands.Command);
        Assert.Equal(new DeviceId("TW-2"), _bench.Card.ReadBy(_bench.Card.Step("tighten-filter-cap")!));
        Assert.Equal((Nm(25), TorqueOutcome.Passes), _bench.Card.TorqueAt(_bench.Card.Step("tighten-filter-cap")!));
        Assert.True(_bench.Card.IsFromDevice(_bench.Card.History[^1]));
        // What a person reads off is no device's.
        _bench.WorkUpTo();
        Assert.Null(_bench.Card.ReadBy(_bench.Card.Step("tighten-drain-plug")!));
    }

    [Fact]
    public void A_device_knows_its_unit_and_is_not_asked_about_it()
    {
        // 18.5 N·m does not pass and 18.5 lbf·ft would: a person is asked, a wrench is not; what it read counts as it stands.
        Assert.IsType<Asked>(_bench.Try(new TakeReading("tighten-filter-cap", Nm(18.5m))));
        _bench.Do(Assert.IsType<LandsAt>(Land(Reading(new MeasuredTorque(Nm(18.5m))))).Command);
        Assert.Equal(TorqueOutcome.TooLittle, _bench.Card.TorqueAt(_bench.Card.Next!)!.Value.Outcome);
        _bench.Do(Assert.IsType<LandsAt>(Land(Reading(new MeasuredTorque(Nm(31))))).Command);
        Assert.True(_bench.Card.IsOverTorqued("tighten-filter-cap"));
        Assert.Contains("tightened too far", Why());
    }

    [Fact]
    public void What_is_in_doubt_of_the_device_waits()
    {
        Assert.StartsWith("TW-2 measures torque, and 2.00 L is a volume", Why(Reading(new MeasuredVolume(Litres(2)))));
        Assert.StartsWith("TW-2 says it is in Bay 2; the workshop has it in Bay 1", Why(Reading(bay: "Bay 2")));
        Assert.StartsWith("The tool crib has no TW-2", Why(device: Wrench(inCrib: false)));
        Assert.StartsWith("The calibration of TW-2 is past", Why(device: Wrench(calibrated: "2026-03-08")));
        Assert.IsType<LandsAt>(Land(device: Wrench(calibrated: "2026-03-09")));
        Assert.StartsWith("4.9 N·m is outside", Why(Reading(new MeasuredTorque(Nm(4.9m)))));
        Assert.StartsWith("60.1 N·m is outside", Why(Reading(new MeasuredTorque(Nm(60.1m)))));
        Assert.IsType<LandsAt>(Land(Reading(new MeasuredTorque(Nm(60)))));
        Assert.StartsWith("TW-2 says it was measured later than now", Why(Reading(secondsAgo: -61)));
        Assert.IsType<LandsAt>(Land(Reading(secondsAgo: -60)));
    }

    [Fact]
    public void What_is_in_doubt_of_the_bay_waits()
    {
        Assert.Equal("No card is open in Bay 1.", Why(cards: 0));
        Assert.Equal("2 cards are open in Bay 1.", Why(cards: 2));
        // The one press that was made after it was measured: somebody went on meanwhile.
        Assert.IsType<LandsAt>(Land(Reading(secondsAgo: 60)));
        Assert.StartsWith("The card has moved on", Why(Reading(secondsAgo: 61)));
        _bench.Wait(119);
        Assert.IsType<LandsAt>(Land());
        _bench.Wait(1.1);
        Assert.StartsWith("Nobody has pressed at this card for 121 min", Why());
    }

    [Fact]
    public void What_the_card_does_not_want_now_waits()
    {
        var fresh = new Workbench();
        Assert.StartsWith("The card is at “Lay out", Assert.IsType<WaitsInSight>(Landing.Of(Reading() with { At = fresh.Now }, Wrench(),
            [new(1, fresh.Card)], null, fresh.Now)).Why.What);
        _bench.WorkUpTo();
        Assert.StartsWith("Everything on the card is done", Why());
    }

    [Fact]
    public void Two_clicks_within_five_seconds_are_not_two_joints()
    {
        var clicked = _bench.Now;
        _bench.Do(Assert.IsType<LandsAt>(Land()).Command);
        _bench.WorkUpTo("tighten-drain-plug");
        clicked = _bench.Now;
        _before = new("tighten-filter-cap", clicked.AddSeconds(-4.9));
        Assert.StartsWith("It came within five seconds", Why());
        _before = new("tighten-filter-cap", clicked.AddSeconds(-5));
        Assert.IsType<LandsAt>(Land());
        _before = new(_bench.Card.Next!.Id, clicked.AddSeconds(-1));
        Assert.IsType<LandsAt>(Land());
    }

    [Fact]
    public void A_second_click_at_a_group_within_two_seconds_may_be_the_same_fastener()
    {
        var card = On("corran-fen-12", "tyre-rotation");
        var (now, facts) = (card.History[0].At, Rehearsal.UsualPress.Facts(card.Sheet));
        while (card.Next is { Id: var id } && id != "tighten-wheels")
        {
            now += TimeSpan.FromMinutes(20);
            card = card.Taking((Accepted)card.Decide(Rehearsal.UsualPress.Of(card, card.Next), Iona, now, facts), Guid.NewGuid(), Iona, now)
                .Card;
        }
        var large = new TorqueWrench("TW-2", Nm(40).Value, Nm(200).Value, Nm(1).Value, Torque.NewtonMetre, 4);
        var crib = Wrench() with { Wrench = new(large, new(2026, 12, 31)) };
        Landing At(double seconds) => Landing.Of(new(Guid.NewGuid(), "TW-2", "Bay 1", new MeasuredTorque(Nm(55)), now.AddSeconds(10)), crib,
            [new(1007, card)], new("tighten-wheels", now.AddSeconds(10 - seconds)), now.AddSeconds(10));
        Assert.StartsWith("It came within two seconds", Assert.IsType<WaitsInSight>(At(1.9)).Why.What);
        Assert.IsType<LandsAt>(At(2));
    }

    [Fact]
    public void A_person_is_offered_every_joint_that_can_be_tightened_now_and_nothing_else()
    {
        IEnumerable<string> Offered(MeasuredValue read) =>
            Landing.Choices(_bench.Card, read, "TW-2", _bench.Now).Select(c => c.Step.Id.Text);
        Assert.Equal(["tighten-filter-cap"], Offered(new MeasuredTorque(Nm(38))));
        Assert.Empty(Offered(new MeasuredVolume(Litres(1))));
    }

    [Theory]
    [InlineData("38.2", "N·m", "38.2 N·m")]
    [InlineData("38.2", "nm", "38.2 N·m")]
    [InlineData("28", "ft-lb", "28 lbf·ft")]
    [InlineData("1.5", "L", "1.50 L")]
    [InlineData("0", "mL", "0 mL")]
    public void A_value_is_read_with_its_unit(string number, string unit, string says)
    {
        var read = MeasuredValue.Read(decimal.Parse(number, System.Globalization.CultureInfo.InvariantCulture), unit, null,
            out var problem);
        Assert.Equal((says, ""), ($"{read}", problem));
        Assert.Equal(says.EndsWith('L') ? "volume" : "torque", read!.Kind);
    }

    [Theory]
    [InlineData(-1, "N·m", "from 0 to")]
    [InlineData(1_000_001, "N·m", "from 0 to")]
    [InlineData(5, "bar", "“bar” is no unit")]
    [InlineData(5, "", "is no unit")]
    [InlineData(5, "lb", "pounds alone could be either")]
    [InlineData(5, "gal", "US gal")]
    public void A_value_that_means_nothing_is_refused_in_words(int number, string unit, string words)
    {
        Assert.Null(MeasuredValue.Read(number, unit, null, out var problem));
        Assert.Contains(words, problem);
    }
}
