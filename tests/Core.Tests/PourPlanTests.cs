using Anakyklos.Core.Kit;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Stores;
using CsCheck;
using Xunit;

namespace Anakyklos.Core.Tests;

/// <summary>One pour out of the containers that stand in the stores.</summary>
public sealed class PourPlanTests
{
    private const string Oil = "Gannet Lowash 5W-30";
    private static readonly DateOnly Today = new(2026, 3, 9);
    private static readonly Unit<Volume>[] Scales = [Volume.Litre, Volume.Millilitre, Volume.Quart, Volume.FluidOunce, Volume.ImperialPint];

    private static Quantity<Volume> L(decimal litres) => Quantity<Volume>.Of(litres, Volume.Litre);

    private static Quantity<Volume> Oz(decimal ounces) => Quantity<Volume>.Of(ounces, Volume.FluidOunce);

    private static OilContainer Can(int id, Quantity<Volume> size, Quantity<Volume> left, Unit<Volume> scale, int? openDays = null,
        string product = Oil) => new(id, product, size, left, scale, openDays is { } days ? Today.AddDays(-days) : null, $"B{id}");

    private static Shelf Stores(params OilContainer[] cans) => Shelf.Empty with { Containers = cans };

    [Fact]
    public void A_can_is_poured_from_until_it_shows_what_is_left()
    {
        var plan = PourPlan.Of(L(5.8m), [Oil], Stores(Can(1, L(20), L(7.1m), Volume.Litre, 40)), Today)!;
        var share = Assert.Single(plan.From);
        Assert.Equal((L(5.8m), L(1.3m)), (share.Takes, share.Leaves));
        Assert.Equal("5.80 L", $"{plan.Amount}");
    }

    // 34 fl oz are one bottle of 32 and two of the next: 30 are left in it.
    [Fact]
    public void A_bottle_and_a_bit_are_said_in_the_unit_of_the_bottles()
    {
        var bottles = Stores(Can(25, Oz(32), Oz(32), Volume.FluidOunce), Can(26, Oz(32), Oz(32), Volume.FluidOunce));
        // A litre is 33.81 fl oz, and the scale shows tenths.
        var plan = PourPlan.Of(Oz(34.04m), [Oil], bottles, Today)!;
        Assert.Equal([(25, Oz(32), Oz(0)), (26, Oz(2), Oz(30))], plan.From.Select(s => (s.Container.Id, s.Takes, s.Leaves)));
        Assert.Equal((Oz(34), Volume.FluidOunce), (plan.Amount.Value, plan.Amount.Unit));
        Assert.Equal("1.0055000051 L", $"{decimal.Round(plan.Amount.Value.In(Volume.Litre), 10)} L");
    }

    [Fact]
    public void Who_wants_another_can_first_gets_it_and_the_others_follow_as_the_stores_give_them_out()
    {
        var stores = Stores(Can(1, L(5), L(1), Volume.Litre, 9), Can(2, L(5), L(2), Volume.Litre, 3), Can(3, L(5), L(5), Volume.Litre));
        Assert.Equal([1, 2], PourPlan.Of(L(2.5m), [Oil], stores, Today)!.From.Select(s => s.Container.Id));
        var other = PourPlan.Of(L(2.5m), [Oil], stores, Today, first: 2)!;
        Assert.Equal([2, 1], other.From.Select(s => s.Container.Id));
        Assert.Equal([3], other.Others.Select(c => c.Id));
    }

    [Fact]
    public void What_the_stores_do_not_have_is_said_and_none_at_all_is_no_plan()
    {
        var plan = PourPlan.Of(L(3), [Oil], Stores(Can(1, L(5), L(2.2m), Volume.Litre, 9)), Today)!;
        Assert.Equal((L(0.8m), L(3)), (plan.Elsewhere, plan.Amount.Value));
        Assert.Null(PourPlan.Of(L(3), [Oil], Stores(Can(1, L(5), L(0), Volume.Litre, 9)), Today));
        Assert.Null(PourPlan.Of(L(3), ["Fulmar Road 5W-40"], Stores(Can(1, L(5), L(5), Volume.Litre)), Today));
    }

    [Fact]
    public void Two_products_that_go_into_one_fill_are_both_poured_from()
    {
        var stores = Stores(Can(1, L(1), L(1), Volume.Litre, 9), Can(2, L(5), L(5), Volume.Litre, 3, "Fulmar Road 5W-40"));
        Assert.Equal([(1, L(1)), (2, L(2))], PourPlan.Of(L(3), ["gannet lowash 5w30", "Fulmar Road 5W-40"], stores, Today)!.From
            .Select(s => (s.Container.Id, s.Takes)));
    }

    [Fact]
    public void What_draws_water_is_not_poured_out_of_a_can_that_was_open_for_too_long()
    {
        var book = new OilBook([new(Oil, ["DOT 4"], [], [], false, OpenDays: 180)], CoverBook.Empty);
        Shelf With(int? days) => Stores(Can(1, L(1), L(0.8m), Volume.Litre, days)) with { Oils = book };
        Assert.NotNull(PourPlan.Of(L(0.5m), [Oil], With(180), Today));
        Assert.Null(PourPlan.Of(L(0.5m), [Oil], With(181), Today));
        Assert.NotNull(PourPlan.Of(L(0.5m), [Oil], With(null), Today));
    }

    [Fact]
    public void What_goes_in_is_never_more_than_is_wanted_adds_up_and_lies_on_a_scale() =>
        Gen.Select(Gen.Int[1, 12_000], Gen.Select(Gen.Int[0, 200], Gen.Int[0, 90].Nullable(), Gen.Int[0, 4]).Array[0, 8], Gen.Int[0, 9],
            Gen.Bool).Sample((want, cans, first, cup) =>
        {
            var stores = Stores([.. cans.Select((c, i) =>
                Can(i, L(20), Quantity<Volume>.Of(c.Item1 / 10m, Scales[c.Item3]), Scales[c.Item3], c.Item2))]);
            var wanted = L(want / 1000m);
            var plan = PourPlan.Of(wanted, [Oil], stores, Today, first, cup ? Volume.Millilitre : null);
            var has = stores.Containers.Aggregate(L(0), (sum, c) => sum + c.Left);
            Assert.Equal(has == L(0), plan is null);
            if (plan is null)
                return;
            Assert.True(plan.Amount.Value <= wanted);
            Near(plan.Amount.Value, plan.From.Aggregate(plan.Elsewhere, (sum, s) => sum + s.Takes));
            Assert.All(plan.From, s => Near(s.Takes + s.Leaves, s.Container.Left));
            Assert.All(plan.From.SkipLast(1), s => Assert.True(s.EmptiesIt));
            Assert.Equal(stores.Containers.Count(c => c.Left > L(0)), plan.From.Count + plan.Others.Count);
            // The last one is stopped at a line that its scale has.
            var last = plan.From[^1];
            if (!cup && !last.EmptiesIt)
                Near(last.Takes, last.Takes.RoundDown(last.Container.Scale));
            // What is booked is what was shown.
            var booked = PourPlan.Emptied(plan.Amount.Value, [Oil], stores, Today, first)!;
            Assert.Equal(plan.From.Select(s => s.Container.Id), booked.Select(b => b.Can));
            Assert.All(plan.From.Zip(booked), p => Near(p.First.Takes, p.Second.Takes));
        }, iter: 3000);

    // Units of the one system are no whole parts of the other's: they differ in the last of 28 digits.
    private static void Near(Quantity<Volume> a, Quantity<Volume> b) =>
        Assert.Equal(a.In(Volume.Litre), b.In(Volume.Litre), 12);
}
