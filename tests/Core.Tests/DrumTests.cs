using Anakyklos.Core.Booking;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>How full a drum is, when it is collected, and what a card brings into it.</summary>
public sealed class DrumTests
{
    private static readonly DateOnly Today = new(2026, 7, 1);
    private static readonly WasteDrum Oil = new("Oil", Waste.Oil, L(100), 0, 365);

    private static DrumEntry In(int daysAgo, decimal litres) => new(Today.AddDays(-daysAgo), L(litres), 0, false);

    [Fact]
    public void An_empty_drum_is_not_collected()
    {
        Assert.Equal((0m, null, null), Stand());
        // What was taken back, or away, leaves it empty again.
        Assert.Equal((0m, null, null), Stand(In(3, 6), In(3, -6)));
        Assert.Equal((0m, null, null), Stand(In(300, 80), new(Today.AddDays(-200), L(-80), 0, true)));

        static (decimal, DateOnly?, DateOnly?) Stand(params DrumEntry[] entries) =>
            DrumStand.Of(Oil, entries, Today) is var s ? (s.Full, s.Since, s.CollectBy) : default;
    }

    [Fact]
    public void It_is_collected_when_nine_tenths_are_full_or_when_its_time_is_over()
    {
        Assert.Equal(Today, DrumStand.Of(Oil, [In(1, 90)], Today).CollectBy);
        Assert.True(DrumStand.Of(Oil, [In(1, 120)], Today).IsDue(Today));
        // 1 L 400 days ago: over its 365 days since five weeks.
        var old = DrumStand.Of(Oil, [In(400, 1)], Today);
        Assert.Equal((Today.AddDays(-35), true), (old.CollectBy, old.IsByTime));
        // 60 L in thirty days, 30 L to go to nine tenths: fifteen days.
        var fast = DrumStand.Of(Oil, [In(29, 20), In(15, 20), In(0, 20)], Today);
        Assert.Equal((Today.AddDays(15), false), (fast.CollectBy, fast.IsByTime));
        // 10 L on the first day do not come every day: 1 L in three, and 80 L to go.
        var first = DrumStand.Of(Oil, [In(0, 10)], Today);
        Assert.Equal((Today.AddDays(240), false), (first.CollectBy, first.IsByTime));
        // Too slow to plan: its time alone counts.
        Assert.Equal(Today.AddDays(365 - 100), DrumStand.Of(Oil, [In(100, 1)], Today).CollectBy);
        Assert.Null(DrumStand.Of(Oil with { KeepDays = 0 }, [In(100, 1)], Today).CollectBy);
    }

    [Fact]
    public void After_a_collection_of_part_of_it_its_time_begins_anew()
    {
        var stand = DrumStand.Of(Oil, [In(300, 50), new(Today.AddDays(-100), L(-30), 0, true)], Today);
        Assert.Equal((20m, Today.AddDays(-100)), (stand.Amount.In(Volume.Litre), stand.Since));
    }

    [Fact]
    public void Of_several_drums_the_first_with_room_takes_it_and_what_has_none_goes_nowhere()
    {
        var second = Oil with { Name = "Oil 2" };
        Assert.Equal("Oil", DrumStand.For(Waste.Oil, [(Oil, 0.5m), (second, 0)])!.Name);
        Assert.Equal("Oil 2", DrumStand.For(Waste.Oil, [(Oil, 0.95m), (second, 0.2m)])!.Name);
        Assert.Equal("Oil 2", DrumStand.For(Waste.Oil, [(Oil, 1.2m), (second, 0.95m)])!.Name);
        Assert.Null(DrumStand.For(Waste.Coolant, [(Oil, 0)]));
    }

    [Fact]
    public void Every_fluid_of_every_sheet_has_a_kind()
    {
        var kinds = ComposerTests.Sheets.Values.SelectMany(s => s.Fluids.Values).Select(f => (f.Id.Text, Kind: DrumStand.Of(f))).ToList();
        Assert.DoesNotContain(kinds, k => k.Kind == Waste.Other);
        Assert.All(kinds.Where(k => k.Text.Contains("brake")), k => Assert.Equal(Waste.BrakeFluid, k.Kind));
        Assert.All(kinds.Where(k => k.Text.Contains("coolant")), k => Assert.Equal(Waste.Coolant, k.Kind));
        Assert.All(kinds.Where(k => k.Text.Contains("oil")), k => Assert.Equal(Waste.Oil, k.Kind));
    }

    [Fact]
    public void A_card_brings_in_once_what_came_out_and_its_filter_with_the_last_of_it()
    {
        foreach (var (sheet, job) in new[] { ("tarn-courier-20d", "engine-oil-and-filter"), ("hespin-16", "engine-oil-and-filter") })
        {
            var hand = new CardAtHand(On(sheet, job));
            hand.UpTo(_ => false);
            var card = hand.Card;
            var moves = card.History.SelectMany(e => WasteMoves.Of(card, e)).ToList();
            var oil = card.Sheet.Fluids["engine-oil"];
            Assert.Equal(card.Fluid("engine-oil").CameOut ?? oil.Amount.Value,
                moves.Where(m => m.Waste == Waste.Oil).Aggregate(L(0), (sum, m) => sum + m.Amount));
            Assert.Equal(1, moves.Where(m => m.Waste == Waste.Filters).Sum(m => m.Pieces));
        }
    }

    [Theory]
    [InlineData("hespin-16")]
    [InlineData("corran-fen-12")]
    [InlineData("ostler-brae-28d")]
    [InlineData("skelling-tourer-1100")]
    public void What_was_caught_in_a_bottle_at_the_brakes_is_brought_in_once(string sheet)
    {
        var hand = new CardAtHand(On(sheet, "brake-fluid"));
        hand.UpTo(_ => false);
        var card = hand.Card;
        var strokes = card.History.Where(e => e.Event is StrokesMade).Aggregate(L(0), (sum, e) => sum
            + ((BleedSpec)card.Step(((StrokesMade)e.Event).Step)!.Spec!).PerStroke * ((StrokesMade)e.Event).Strokes);
        var reservoir = card.Steps.Select(s => s.Spec).OfType<BleedSpec>().First().Reservoir;
        var sucked = card.Steps.Any(s => s.Kind == "suck") ? reservoir : L(0);
        Assert.True(strokes > L(0));
        var moves = card.History.SelectMany(e => WasteMoves.Of(card, e)).Where(m => m.Waste == Waste.BrakeFluid).ToList();
        Assert.Equal(strokes + sucked, moves.Aggregate(L(0), (sum, m) => sum + m.Amount));
    }
}
