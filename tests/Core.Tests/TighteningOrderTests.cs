using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;
using CsCheck;
using Xunit;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>In which order fasteners are drawn down, in which passes, and what the wrench is set to.</summary>
public sealed class TighteningOrderTests
{
    private static IReadOnlyList<FastenerPlace> Circle(int count) => [.. FastenerGroup.Circle(count)];

    private static ToTorque To(decimal target, decimal low, decimal high) => new(Nm(target).Value, Nm(low).Value, Nm(high).Value);

    private static Quantity<Length> Mm(decimal mm) => Quantity<Length>.Of(mm, Length.Millimetre);

    private static TorqueWrench Wrench(decimal low, decimal high, decimal step, decimal accuracy = 4, decimal? lever = null) =>
        new("TW", Nm(low).Value, Nm(high).Value, Nm(step).Value, Torque.NewtonMetre, accuracy, lever is { } mm ? Mm(mm) : null);

    [Fact]
    public void On_a_circle_each_comes_once_and_from_five_on_never_a_neighbour_after_a_neighbour() =>
        Gen.Select(Gen.Int[2, 40], Gen.Int[0, 39]).Sample((count, turned) =>
        {
            // Which comes first on the list is chance; neighbours are told from the numbers round the circle.
            var places = Circle(count).Skip(turned % count).Concat(Circle(count).Take(turned % count)).ToList();
            var order = FasteningOrder.Of(TighteningOrder.Star, places);
            Assert.Equal(places[0], order[0]);
            Assert.Equal(count, order.Select(p => p.Number).Distinct().Count());
            foreach (var (before, after) in order.Zip(order.Skip(1)))
                if (count >= 5)
                    Assert.DoesNotContain((after.Number - before.Number + count) % count, new[] { 1, count - 1 });
        }, 400);

    // By hand: a wheel with five, one with six, and four across.
    [Theory]
    [InlineData(4, "1 3 2 4")]
    [InlineData(5, "1 3 5 2 4")]
    [InlineData(6, "1 4 2 5 3 6")]
    [InlineData(8, "1 5 2 6 3 7 4 8")]
    public void Small_circles_go_across(int count, string order) =>
        Assert.Equal(order, string.Join(" ", FasteningOrder.Of(TighteningOrder.Star, Circle(count)).Select(p => p.Number)));

    [Fact]
    public void On_a_pan_it_goes_from_the_middle_out() => Gen.Int[0, 100].Array[2].Array[1, 40].Sample(spots =>
    {
        List<FastenerPlace> places = [.. spots.DistinctBy(s => (s[0], s[1])).Select((s, i) => new FastenerPlace(i + 1, s[0], s[1]))];
        var order = FasteningOrder.Of(TighteningOrder.FromTheMiddle, places);
        Assert.Equal(places.Count, order.Distinct().Count());
        var (wide, high) = (places.Max(p => p.X) - places.Min(p => p.X), places.Max(p => p.Y) - places.Min(p => p.Y));
        var along = order.Select(p => wide >= high ? p.X : p.Y).ToList();
        var middle = (along.Min() + along.Max()) / 2;
        var furthest = 0m;
        foreach (var at in along.Select(a => Math.Abs(a - middle)))
        {
            // Those alike, to a twenty-fifth of the drawing, go in any order among themselves.
            Assert.True(at >= furthest - 4, $"{at} after {furthest}");
            furthest = Math.Max(furthest, at);
        }
    }, 300);

    [Fact]
    public void A_long_pan_goes_crosswise_and_its_ends_come_last()
    {
        // Two rows of three and one at either end.
        FastenerPlace[] pan = [new(1, 10, 0), new(2, 50, 0), new(3, 90, 0), new(4, 10, 100), new(5, 50, 100), new(6, 90, 100),
            new(7, 0, 50), new(8, 100, 50)];
        Assert.Equal([2, 5, 1, 6, 3, 4, 8, 7], FasteningOrder.Of(TighteningOrder.FromTheMiddle, pan).Select(p => p.Number));
    }

    [Fact]
    public void Wheel_by_wheel_and_pass_by_pass_every_fastener_comes_once_a_pass()
    {
        var group = FastenerGroup.Of(TighteningOrder.Star, Circle(5), ["Left", "Right"], [0, 50, 100]);
        var plan = TighteningPlan.Of(To(100, 95, 105), group, false);
        Assert.Equal(30, plan.Slots.Count);
        Assert.Equal([.. Enumerable.Repeat("Left", 15), .. Enumerable.Repeat("Right", 15)], plan.Slots.Select(s => s.Place.At));
        Assert.Equal([1, 2, 3, 4, 5, 1, 2, 3, 4, 5, 1, 2, 3, 4, 5, 6], plan.Slots.Take(16).Select(s => s.Place.Number));
        Assert.Equal([1, 1, 1, 1, 1, 2, 2, 2, 2, 2, 3, 3, 3, 3, 3], plan.Slots.Take(15).Select(s => s.Pass));
        Assert.Equal(["Right, number 1", "Left, number 5"], new[] { group.Named(6), group.Named(5) });
        // A check of what stays in is the last torque alone.
        Assert.All(TighteningPlan.Of(To(100, 95, 105), group, true).Slots, s => Assert.Equal(To(100, 95, 105), s.Spec));
        Assert.Equal(10, TighteningPlan.Of(To(100, 95, 105), group, true).Slots.Count);
    }

    [Fact]
    public void What_comes_off_goes_against_the_order_and_what_holds_it_stays_till_last()
    {
        var group = FastenerGroup.Of(TighteningOrder.InTurn, [new(1, 0, 0), new(2, 30, 0), new(3, 60, 0), new(4, 90, 0)], [], [100],
            lastOut: [3]);
        Assert.Equal([4, 2, 1, 3], group.ComesOff.Select(p => p.Number));
    }

    // 60 % of 9 N·m is 5.4; 15 % either way is 4.59 to 6.21. 95 % of it would reach beyond the target and does not.
    [Fact]
    public void An_earlier_pass_passes_around_its_share_and_never_above_the_target()
    {
        var share = To(9, 8, 10).Share(60);
        Assert.Equal((Nm(5.4m).Value, Nm(4.59m).Value, Nm(6.21m).Value), (share.Target, share.Low, share.High));
        Assert.Equal(Nm(9).Value, To(9, 8, 10).Share(95).High);
        Assert.Equal(To(9, 8, 10), To(9, 8, 10).Share(100));
        Assert.Throws<ArgumentOutOfRangeException>(() => To(9, 8, 10).Share(0));
    }

    // The oracle tries every mark of the scale.
    [Fact]
    public void The_setting_is_the_nearest_mark_at_which_the_fastener_gets_what_passes_however_far_the_wrench_is_off() => Gen.Select(
        Gen.Int[50, 3000], Gen.Int[0, 150], Gen.Int[0, 150], Gen.Int[1, 100], Gen.Int[0, 10]).Select((t, l, h, s, a) => (t, l, h, s, a))
        .Sample(v =>
        {
            var target = v.t / 10m;
            var (spec, accuracy) = (To(target, target * (1 - v.l / 1000m), target * (1 + v.h / 1000m)), (decimal)v.a);
            var wrench = Wrench(v.s * 2, v.s * 60, v.s, accuracy);
            var marks = Enumerable.Range(2, 59).Select(n => (decimal)(n * v.s)).Where(m => m * (1 - accuracy / 100) >= spec.Low.In(Nmx)
                && m * (1 + accuracy / 100) <= spec.High.In(Nmx)).ToList();
            var set = wrench.Setting(spec)?.In(Nmx);
            Assert.Equal(marks.Count > 0, set is not null);
            if (set is { } at)
                Assert.Equal(marks.Min(m => Math.Abs(m - target)), Math.Abs(at - target));
        }, 3000);

    private static Unit<Torque> Nmx => Torque.NewtonMetre;

    // 103 within 98 to 108, 4 % off: from 102.1 to 103.8. A scale of fives has no mark there; one of pounds has 76 (103.04 N·m).
    [Fact]
    public void A_window_that_the_accuracy_makes_narrow_leaves_one_mark_or_none()
    {
        var nuts = To(103, 98, 108);
        Assert.False(Wrench(40, 200, 5).Covers(nuts));
        Assert.True(Wrench(40, 200, 5, 2.5m).Covers(nuts));
        Assert.Equal(Nm(103).Value, Wrench(40, 200, 1).Setting(nuts));
        var pounds = new TorqueWrench("TW-3", Quantity<Torque>.Of(15, Torque.PoundFoot), Quantity<Torque>.Of(90, Torque.PoundFoot),
            Quantity<Torque>.Of(1, Torque.PoundFoot), Torque.PoundFoot, 4);
        Assert.Equal(76, Math.Round(pounds.Setting(nuts)!.Value.In(Torque.PoundFoot), 6));
    }

    // Lever 450 and 40 more: 490/450 comes through. 65 wants 59.7, and 60 makes 65.3. Across nothing changes; 100 back leaves three
    // quarters of 400.
    [Fact]
    public void A_crow_foot_changes_the_setting_by_its_length_and_its_angle()
    {
        var bolts = To(65, 60, 70);
        var wrench = Wrench(40, 200, 5, 4, 450);
        Assert.Equal(Nm(60).Value, wrench.Setting(bolts, new(Mm(40), 0)));
        Assert.Equal(Nm(65).Value, wrench.Setting(bolts, new(Mm(40), 90)));
        Assert.Equal(0.75m, new CrowFoot(Mm(100), 180).Gain(Mm(400)));
        Assert.Equal(1.125m, Math.Round(new CrowFoot(Mm(100), 60).Gain(Mm(400)), 4));
        Assert.Null(wrench.Setting(bolts, new(Mm(450), 180)));
        // Of a wrench whose lever nobody measured, nobody knows what comes through.
        Assert.Null(Wrench(40, 200, 5).Setting(bolts, new(Mm(40), 0)));
    }
}
