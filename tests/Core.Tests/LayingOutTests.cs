using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>The kit judged at its edges: numbers, reasons, amounts, pans, and oils that are poured already.</summary>
public sealed class LayingOutTests
{
    private const string Lowash = "Gannet Lowash 5W-30";
    private const string Classic = "Gannet Classic 5W-30";

    private readonly Workbench _bench = new();

    private JobCard Card => _bench.Card;

    private static ConfirmKit With(string part, KitPart lies)
    {
        var kit = FullKit();
        return kit with { Parts = new Dictionary<PartId, KitPart>(kit.Parts) { [part] = lies } };
    }

    private static ConfirmKit Oil(decimal litres, string product, string reason = "") =>
        FullKit() with { Oils = EngineOil(litres, product, reason) };

    private Refusal Only(ConfirmKit kit) => Assert.Single(_bench.Refusals(kit));

    [Theory]
    [InlineData(KitChoice.InHand, 40, "is not the number of the")]
    [InlineData(KitChoice.InHand, 41, "is too long.")]
    [InlineData(KitChoice.Other, 41, "is too long.")]
    [InlineData(KitChoice.Missing, 41, "is too long.")]
    [InlineData(KitChoice.OldAgain, 41, "is too long.")]
    public void A_number_has_forty_signs_at_most(KitChoice choice, int signs, string says)
    {
        _bench.WorkUpTo("lay-out-kit");
        var refused = Only(With("drain-washer", new(choice, new string('7', signs))));
        Assert.Contains(says, refused.What);
        Assert.Equal("parts.drain-washer", refused.Field);
    }

    [Theory]
    [InlineData("oil-filter", KitChoice.Other, "", "", "Which oil filter cartridge is it?")]
    [InlineData("oil-filter", KitChoice.Other, " tc-0621f ", "So", "Which oil filter cartridge is it?")]
    [InlineData("oil-filter", KitChoice.Other, "TC-0630-F", "", "The reason for the oil filter cartridge is missing.")]
    [InlineData("oil-filter", KitChoice.Other, "TC-0630-F", "x", "“x” says nothing.")]
    [InlineData("oil-filter", KitChoice.OldAgain, "", "Box is empty", "The oil filter cartridge is not a seal.")]
    [InlineData("oil-filter", KitChoice.Missing, "", "", "The oil filter cartridge (TC-0621-F) is not in hand.")]
    [InlineData("drain-washer", KitChoice.OldAgain, "", " ", "The reason for the washer for the drain plug is missing.")]
    [InlineData("drain-washer", KitChoice.OldAgain, "", "y", "“y” says nothing.")]
    [InlineData("drain-washer", (KitChoice)99, "", "Because", "Nobody knows what lies there for the washer for the drain plug.")]
    public void What_lies_there_must_be_able_to_go_in(string part, KitChoice choice, string number, string reason, string says)
    {
        _bench.WorkUpTo("lay-out-kit");
        var refused = Only(With(part, new(choice, number, reason)));
        Assert.Equal((says, $"parts.{part}"), (refused.What, refused.Field));
        Assert.Null(Card.Kit);
    }

    [Fact]
    public void A_missing_seal_may_go_back_old_and_a_missing_filter_may_not()
    {
        _bench.WorkUpTo("lay-out-kit");
        Assert.Contains("use the old one again", Only(With("drain-washer", new(KitChoice.Missing))).Do);
        Assert.DoesNotContain("old one", Only(With("oil-filter", new(KitChoice.Missing))).Do);
        // A part that nobody said a word about is not in hand.
        Assert.Equal(3, _bench.Refusals(FullKit() with { Parts = new Dictionary<PartId, KitPart>() }).Count);
    }

    [Theory]
    [InlineData(0, "the first time")]
    [InlineData(1, "the second time")]
    [InlineData(2, "3 times by now")]
    [InlineData(6, "7 times by now")]
    public void How_often_a_seal_went_back_is_told(int before, string says)
    {
        var bench = new Workbench(seals: new Dictionary<PartId, int> { ["drain-washer"] = before });
        bench.WorkUpTo("lay-out-kit");
        bench.Do(With("drain-washer", new(KitChoice.OldAgain, "", "Box is empty")));
        Assert.Equal($"Washer for the drain plug used again, {says}", bench.Card.Deviations.Single().Event.What);
        Assert.Equal(KitConfirmed.OldOneAgain, bench.Card.Kit!.Parts["drain-washer"]);
        Assert.Equal("TC-0621-F", bench.Card.Kit.Parts["oil-filter"]);
    }

    [Fact]
    public void What_was_typed_is_kept_as_the_number_and_what_was_not_is_the_sheets()
    {
        _bench.WorkUpTo("lay-out-kit");
        _bench.Do(With("oil-filter", new(KitChoice.InHand, " tc 0621 f ")));
        Assert.Equal(("tc 0621 f", "TC-0714-R"), (Card.Kit!.Parts["oil-filter"], Card.Kit.Parts["drain-washer"]));
    }

    [Theory]
    [InlineData(6.4, null)] // just what the book asks for
    [InlineData(6.39, "Only 6.39 L of engine oil is in hand, and 6.40 L must go in.")]
    [InlineData(0, "0.00 L cannot be how much engine oil is in hand.")]
    [InlineData(-6.4, "-6.40 L cannot be how much engine oil is in hand.")]
    [InlineData(1000, null)] // the drum by the door
    [InlineData(1000.5, "1000.50 L cannot be how much engine oil is in hand.")]
    public void Oil_in_hand_is_as_much_as_goes_in(double litres, string? says)
    {
        _bench.WorkUpTo("lay-out-kit");
        if (says is null)
            _bench.Do(Oil((decimal)litres, Lowash));
        else
            Assert.Equal((says, "oils.engine-oil.amount"),
                (Only(Oil((decimal)litres, Lowash)).What.Replace(",000", "000").Replace("−", "-"),
                    Only(Oil((decimal)litres, Lowash)).Field));
    }

    [Fact]
    public void A_fluid_that_nobody_spoke_of_is_not_in_hand()
    {
        _bench.WorkUpTo("lay-out-kit");
        var reasons = _bench.Refusals(FullKit() with { Oils = new Dictionary<FluidId, OilLaidOut>() });
        Assert.Equal(["oils.engine-oil.amount", "oils.engine-oil.product"], reasons.Select(r => r.Field));
        Assert.Equal("oils.engine-oil.product", Only(Oil(7, "x")).Field);
        Assert.Equal("oils.engine-oil.product", Only(Oil(7, new string('x', 401))).Field);
    }

    [Theory]
    [InlineData(0, 8, false)]
    [InlineData(1, 8, true)]
    [InlineData(12, 8, true)]
    [InlineData(13, 8, false)]
    [InlineData(2, 0, false)]
    [InlineData(2, 1001, false)]
    [InlineData(1, 1000, true)]
    public void Pans_are_one_to_twelve_and_each_holds_something(int pans, int litres, bool good)
    {
        _bench.WorkUpTo("lay-out-kit");
        var kit = FullKit() with { Pans = [.. Enumerable.Repeat(L(litres), pans)] };
        if (good)
            _bench.Do(kit);
        else
            Assert.Equal("pan", Only(kit).Field);
        Assert.Equal(good, Card.Kit?.Pan == L(pans * litres));
    }

    [Fact]
    public void A_card_that_drains_nothing_asks_for_no_pan()
    {
        var card = On("tarn-courier-20d", "air-filter");
        var kit = new ConfirmKit(card.Steps.First(s => s.Kind == StepKind.Kit).Id,
            new Dictionary<PartId, KitPart> { ["air-filter"] = new(KitChoice.InHand) }, [], new Dictionary<FluidId, OilLaidOut>());
        Assert.IsType<Accepted>(card.Decide(kit, Iona, card.History[0].At));
    }

    [Fact]
    public void Two_oils_in_one_fill_must_each_fit()
    {
        _bench.WorkUpTo("lay-out-kit");
        Assert.StartsWith($"{Lowash} + {Classic} lacks", Only(Oil(7, $"{Lowash} + {Classic}")).What);
        Assert.Contains("Salad oil is not in the oil book", Only(Oil(7, $"{Lowash} + Salad oil")).What);
        Assert.Contains("it is not in the oil book", Only(Oil(7, "Salad oil")).What);
        _bench.Do(Oil(7, $" {Lowash} + ++ gannet lowash 5w30"));
        Assert.Empty(Card.Deviations);
        Assert.Equal(("", ""), (Card.OilInHand("engine-oil")!.Lacks, Card.OilInHand("engine-oil")!.Reason));
    }

    [Fact]
    public void A_reason_is_kept_only_where_something_strays()
    {
        _bench.WorkUpTo("lay-out-kit");
        _bench.Do(Oil(7, Lowash, "Because I like it"));
        Assert.Equal("", Card.OilInHand("engine-oil")!.Reason);
        _bench.Do(Oil(7, Classic, "Boat is late"));
        Assert.Equal("Boat is late", Card.OilInHand("engine-oil")!.Reason);
        // Not poured yet: laid out again it is judged again, and the reason is asked for again.
        Assert.Equal("oils.engine-oil.reason", Only(Oil(7, Classic)).Field);
        Assert.Equal("oils.engine-oil.reason", Only(Oil(7, Classic, "x")).Field);
        Assert.Single(Card.Deviations);
        _bench.Do(Oil(7, Lowash));
        Assert.Empty(Card.Deviations);
    }

    [Fact]
    public void Under_warranty_no_reason_helps_an_oil_that_lacks_something_but_one_outside_the_book_may_be_answered_for()
    {
        _bench.Facts = _bench.Facts with { UnderWarranty = true };
        _bench.WorkUpTo("lay-out-kit");
        var refused = Only(Oil(7, Classic, "Boat is late"));
        Assert.Equal(("oils.engine-oil.product", true), (refused.Field, refused.What.EndsWith("the vehicle is under warranty.")));
        Assert.Equal("oils.engine-oil.reason", Only(Oil(7, "Maker's own 5W-30")).Field);
        _bench.Do(Oil(7, "Maker's own 5W-30", "From the maker's drum"));
        Assert.Equal((DeviationKind.OtherOil, "engine-oil", true), Card.Deviations.Select(d =>
            (d.Event.Kind, d.Event.Part, d.Event.NeedsCountersignature)).Single());
    }

    [Fact]
    public void What_is_poured_was_judged_when_it_was_laid_out_and_what_is_added_is_judged_now()
    {
        _bench.WorkUpTo("lay-out-kit");
        _bench.Do(Oil(7, Classic, "Boat is late"));
        _bench.WorkUpTo("filler-cap-on");
        Assert.Equal(1, Card.Fluid("engine-oil").Pours);
        // The same product, more of it: no second reason, and the first deviation stands.
        _bench.Do(Oil(9, "gannet classic 5w30"));
        Assert.Single(Card.Deviations, d => d.Event.Kind == DeviationKind.OtherOil);
        Assert.StartsWith("Some of", Only(Oil(9, Lowash)).What);
        // Both, with what is poured among them: judged anew, for now something else goes in as well.
        Assert.Equal("oils.engine-oil.reason", Only(Oil(9, $"{Classic} + {Lowash}")).Field);
        _bench.Do(Oil(9, $"{Lowash} + {Classic}", "Rest of the can"));
        Assert.Equal(L(9), Card.OilInHand("engine-oil")!.Amount);
    }

    [Fact]
    public void What_is_fitted_stays_as_it_was_laid_out()
    {
        _bench.WorkUpTo("lay-out-kit");
        _bench.Do(With("drain-washer", new(KitChoice.OldAgain, "", "Box is empty")));
        _bench.WorkUpTo("tighten-drain-plug");
        _bench.Do(With("drain-washer", new(KitChoice.Missing)));
        Assert.Equal(KitConfirmed.OldOneAgain, Card.Kit!.Parts["drain-washer"]);
        Assert.Single(Card.Deviations, d => d.Event.Part == "drain-washer");
    }
}
