using Anakyklos.Core.Booking;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using CsCheck;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

public sealed class KitTests
{
    private static readonly DateOnly Today = new(2026, 3, 9);
    private static readonly OilProduct Lowash = new("Gannet Lowash 5W-30", ["SAE 5W-30"], ["Tarn T-41L"], [], true);
    private static readonly OilProduct Classic = new("Gannet Classic 5W-30", ["SAE 5W-30"], ["Tarn T-41"], [], false);

    private static StockPart Part(string number, int count, string successor = "", params string[] same) =>
        new(number, number, count, 0, successor, same);

    private static OilContainer Can(int id, decimal left, int? openedDaysAgo, string product = "Gannet Lowash 5W-30") =>
        new(id, product, L(20), L(left), Volume.Litre, openedDaysAgo is { } ago ? Today.AddDays(-ago) : null, "");

    private static CribWrench Wrench(string name, decimal low, decimal high, DateOnly? due) =>
        new(new(name, Nm(low).Value, Nm(high).Value, Nm(1).Value, Torque.NewtonMetre, 4), due);

    private static readonly Shelf Full = new(
        [Part("TC-0621-F", 2), Part("TC-0622-R", 3), Part("TC-0714-R", 3), Part("TC-8030-F", 1), Part("TC-8031-R", 1),
            Part("TC-8805-A", 1)],
        [Can(1, 3, 40), Can(2, 20, null), Can(3, 5, null)],
        [new("Hex 14", "board"), new("T30 bit", "rack")], [Wrench("TW-2", 5, 60, Today)],
        [new("Large", L(16)), new("Small", L(8))], new([Lowash, Classic], CoverBook.Empty));

    private static KitList Of(Shelf shelf, IReadOnlyDictionary<PartId, int>? seals = null, params JobId[] jobs)
    {
        JobId[] all = jobs.Length > 0 ? jobs : ["engine-oil-and-filter"];
        return KitCheck.Of(Courier, all, CardPlanner.Compose(Courier, all), seals ?? new Dictionary<PartId, int>(), shelf, null, Today);
    }

    private static Shelf With(params StockPart[] parts) =>
        Full with { Parts = [.. Full.Parts.Where(p => parts.All(n => !PartNumber.Same(n.Number, p.Number))), .. parts] };

    [Fact]
    public void With_everything_there_nothing_stops_and_each_tool_is_listed_once_with_its_uses()
    {
        var kit = Of(Full);
        Assert.Equal(KitVerdict.InHand, kit.Verdict);
        Assert.Equal(["TC-0621-F", "TC-0622-R", "TC-0714-R"], kit.Parts.Select(p => p.Number));
        Assert.Equal(kit.Tools.Count, kit.Tools.DistinctBy(t => PartNumber.Bare(t.Size)).Count());
        var hex = kit.Tools.Single(t => t.Size == "Hex 14");
        Assert.Equal(["Engine drain plug"], hex.For);
        Assert.Equal("board", hex.Tool!.Where);
        Assert.Null(kit.Tools.Single(t => t.Size == "Hex 32").Tool);
        Assert.DoesNotContain(kit.Tools, t => t.Size.Contains("hand"));
        Assert.Equal(["Oil filter cap"], kit.Drips.Select(f => f.Name));
        Assert.True(kit.Parts[0].Compare);
    }

    [Theory]
    [InlineData("TC-0714-R", 0, KitVerdict.Worse)] // this washer may go in once more
    [InlineData("TC-0714-R", 1, KitVerdict.Stops)] // and was already
    [InlineData("TC-0622-R", 0, KitVerdict.Stops)] // this ring is used once only
    [InlineData("TC-0621-F", 0, KitVerdict.Stops)]
    public void What_is_missing_stops_the_job_or_makes_it_worse(string number, int usedAgain, KitVerdict verdict)
    {
        var line = Of(With(Part(number, 0)), new Dictionary<PartId, int> { ["drain-washer"] = usedAgain }).Parts
            .Single(p => p.Number == number);
        Assert.Equal((verdict, 1), (line.Verdict, line.Missing));
    }

    [Theory]
    [InlineData("tc 0621 f", ScanVerdict.Good, "oil-filter")]
    [InlineData("TC-0640-F", ScanVerdict.Good, "oil-filter")] // what supersedes it
    [InlineData("TC0622R", ScanVerdict.Enough, "filter-cap-ring")]
    [InlineData("tc-0617-f", ScanVerdict.WrongButFits, "oil-filter")]
    [InlineData("TC-0716-R", ScanVerdict.WrongButFits, "drain-washer")]
    [InlineData("OB-2201-F", ScanVerdict.Foreign, null)]
    [InlineData("", ScanVerdict.Foreign, null)]
    public void A_scanned_number_is_held_against_the_sheet(string scan, ScanVerdict verdict, string? part)
    {
        var shelf = With(Part("TC-0621-F", 2, "TC-0640-F"), Part("TC-0640-F", 0));
        var found = ScannedPart.Of(Of(shelf), shelf, new HashSet<PartId> { "filter-cap-ring" }, scan);
        Assert.Equal((verdict, part), (found.Verdict, found.Part?.Id.Text));
        Assert.Equal(verdict == ScanVerdict.WrongButFits, found.Why.Length > 0);
    }

    [Fact]
    public void What_other_cards_wait_for_is_not_free() =>
        Assert.Equal(KitVerdict.Stops, Of(With(Part("TC-0621-F", 2) with { Reserved = 2 })).Verdict);

    [Fact]
    public void A_superseded_number_leads_to_the_new_one_and_an_equivalent_is_told_as_such()
    {
        var shelf = With(Part("TC-0621-F", 0, "TC-0630-F"), Part("TC-0630-F", 0, "TC-0640-F"), Part("TC-0640-F", 1),
            Part("MG-14-W", 2, "", "TC-0714-R"), Part("TC-0714-R", 0));
        var kit = Of(shelf);
        Assert.Equal(("TC-0640-F", FoundAs.Successor, 0), (kit.Parts[0].Found!.Number, kit.Parts[0].As, kit.Parts[0].Missing));
        Assert.Equal(("MG-14-W", FoundAs.Equivalent), (kit.Parts[2].Found!.Number, kit.Parts[2].As));
        Assert.True(shelf.IsGoodFor("tc 0640 f", "TC-0621-F"));
        Assert.False(shelf.IsGoodFor("TC-0621-F", "TC-0640-F"));
        // A circle of successors, which somebody will type one day, ends.
        Assert.NotNull(With(Part("TC-0621-F", 0, "TC-0630-F"), Part("TC-0630-F", 0, "TC-0621-F")).Find("TC-0621-F"));
    }

    [Fact]
    public void Oil_comes_from_opened_containers_first_then_from_the_smallest()
    {
        var oil = Of(Full).Oils.Single();
        Assert.Equal([(1, L(3), L(0)), (3, L(3.4m), L(1.6m))], oil.Shares.Select(s => (s.Container.Id, s.Takes, s.Leaves)));
        var dry = Of(Full with { Containers = [Can(1, 3, 40), Can(4, 20, null, "Gannet Classic 5W-30")] }).Oils.Single();
        Assert.Equal((L(3.4m), KitVerdict.Stops), (dry.Short, dry.Verdict));
        Assert.Equal([Lack.Approval, Lack.Ash], dry.Others.Single().Lacks.Select(l => l.Of));
        Assert.Null(Of(Full with { Containers = [Can(4, 20, null, "Gannet Classic 5W-30")] }).Oils.Single().Chosen);
    }

    [Fact]
    public void What_is_taken_adds_up_and_no_container_gives_more_than_it_has() =>
        Gen.Select(Gen.Int[1, 200], Gen.Select(Gen.Int[0, 200], Gen.Int[0, 90].Nullable()).Array[0, 6]).Sample((want, cans) =>
        {
            var containers = cans.Select((c, i) => Can(i, c.Item1 / 10m, c.Item2)).ToList();
            var shares = ContainerShare.Of(["gannet lowash 5w-30"], L(want / 10m), containers);
            var has = containers.Aggregate(L(0), (sum, c) => sum + c.Left);
            Assert.Equal(has < L(want / 10m) ? has : L(want / 10m), shares.Aggregate(L(0), (sum, s) => sum + s.Takes));
            Assert.All(shares, s => Assert.True(s.Takes > L(0) && s.Leaves >= L(0) && s.Takes + s.Leaves == s.Container.Left));
            // Whoever opens a new one has emptied all that were open.
            if (shares.Any(s => s.Container.Opened is null))
                Assert.All(containers.Where(c => c.Opened is not null && c.Left > L(0)),
                    c => Assert.Contains(shares, s => s.Container == c && s.Leaves == L(0)));
        });

    [Fact]
    public void The_wrench_covers_the_torque_and_is_in_calibration()
    {
        Assert.Equal("TW-2", Of(Full).Torques.Single(t =>
            t.Fastener.Id == "engine-drain-plug").Wrench!.Wrench.Name); // good on its last day
        var late = Of(Full with { Wrenches = [Wrench("TW-2", 5, 60, Today.AddDays(-1)),
            Wrench("TW-9", 80, 200, Today)] }).Torques.Single(t => t.Fastener.Id == "engine-drain-plug");
        Assert.Null(late.Wrench);
        Assert.Equal("TW-2", late.OutOfCalibration!.Wrench.Name);
    }

    [Fact]
    public void The_fewest_and_smallest_pans_in_which_all_finds_room_or_a_word_on_what_is_missing()
    {
        Assert.Equal(["Small"], Of(Full).Pan!.Pans.Select(p => p.Name)); // 6.4 L
        var brae = SheetReader.Read(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "ostler-brae-28d.json"))).Sheet!;
        JobId[] jobs = ["engine-oil-and-filter", "gearbox-oil", "coolant"];
        var kit = KitCheck.Of(brae, jobs, CardPlanner.Compose(brae, jobs), new Dictionary<PartId, int>(), Full, null, Today);
        // The coolant, 9.8 L, has the large one to itself; of the oils 7.2 L and 2.4 L do not both go into the small one of 8 L.
        Assert.Equal(["Large", "Small"], kit.Pan!.Pans.Select(p => p.Name));
        Assert.Equal(L(19.4m), kit.Pan.ComesOut);
        Assert.Contains("9.80 L of coolant", kit.Pan.Short!.What);
        Assert.Contains("the coolant cannot share one", kit.Pan.Short.What.Replace("the engine oil and the gearbox oil and ",
            "").Replace("the coolant and the engine oil and the gearbox oil", "the coolant"));
        Assert.Equal(KitVerdict.Stops, kit.Verdict);
        Assert.Equal(["Gearbox oil"], kit.SidewaysFills.Select(f => f.Name));
    }

    [Fact]
    public void An_order_promises_each_piece_once()
    {
        PlannedWork Work(string who) => new(who, Courier, ["engine-oil-and-filter"],
            CardPlanner.Compose(Courier, ["engine-oil-and-filter"]));
        var lines = OrderList.Of([Work("A"), Work("B"), Work("C"), Work("D")], Full, Today, _ => Today.AddDays(1));
        // 4 wanted of each: 2 filters, 3 rings, 3 washers there; 25.6 L of oil wanted, 28 L there.
        Assert.Equal([("TC-0621-F", 2), ("TC-0622-R", 1), ("TC-0714-R", 1)], lines.Select(l => (l.Number, l.Count!.Value)));
        Assert.Equal(["C", "D"], lines[0].For);
        var dry = OrderList.Of([Work("A"), Work("B")], Full with { Containers = [Can(1, 10, 3)] }, Today, _ => null)
            .Single(l => l.Count is null);
        Assert.Equal(("Gannet Lowash 5W-30", L(2.8m)), (dry.Number, dry.Amount!.Value));
    }

    [Fact]
    public void A_card_waits_for_its_part_and_wakes_when_it_is_here()
    {
        var bench = new Workbench();
        bench.Do(new AwaitPart("TC-0714-R", "Washer", new(2026, 3, 10)));
        Assert.Equal("TC-0714-R", bench.Card.Awaited.Single().Number);
        Assert.Contains("waits for Washer already", bench.Refusals(new AwaitPart("tc0714r", "Washer", new(2026, 3, 10)))[0].What);
        Assert.Contains("does not wait", bench.Refusals(new PartIsHere("TC-0621-F"))[0].What);
        bench.Do(new PartIsHere("tc 0714 r"), new("effie", "Effie S.", Role.Stores));
        Assert.Empty(bench.Card.Awaited);
        bench.Do(new AwaitPart("TC-0714-R", "Washer", null));
        Assert.Contains(bench.Refusals(new ConfirmStep("drain")), r => r.What.Contains("the card waits for washer TC-0714-R"));
        bench.WorkUpTo("set-chocks");
        Assert.Empty(bench.Card.Awaited); // the kit was laid out: nothing is waited for any more
        Assert.IsType<Refused>(bench.Try(new AwaitPart("X", "X", null), Desk));
    }

    [Fact]
    public void An_oil_that_lacks_something_needs_a_reason_and_a_second_name()
    {
        var bench = new Workbench();
        bench.WorkUpTo("lay-out-kit");
        ConfirmKit Kit(string reason) => FullKit() with { Oils = EngineOil(7, "gannet classic 5w30", reason) };
        Assert.Contains("low ash", bench.Refusals(Kit(""))[0].What);
        bench.Do(Kit("Boat is late, 200 km to go"));
        var deviation = bench.Card.Deviations.Single().Event;
        Assert.Equal((DeviationKind.OtherOil, true), (deviation.Kind, deviation.NeedsCountersignature));
    }

    [Fact]
    public void Events_say_what_leaves_the_shelf()
    {
        var bench = new Workbench();
        bench.WorkUpTo();
        var moves = bench.Card.History
            .Select((h, i) => StockMoves.Of(JobCard.Replay(Courier, [.. bench.Card.History.Take(i + 1)]),
            h.Event)).OfType<StockMove>().ToList();
        Assert.Equal(["TC-0621-F", "TC-0622-R", "TC-0714-R"], moves.OfType<PartUsed>().Select(m => m.Number).Order());
        Assert.Equal(L(5), moves.OfType<OilPoured>().Aggregate(L(0), (sum, m) => sum + m.Amount));
        Assert.Equal(3, moves.OfType<KitKept>().Single().Numbers.Count);
        bench.Do(new Sign());
        Assert.IsType<KitReleased>(StockMoves.Of(bench.Card, bench.Card.History[^1].Event));
    }

    [Fact]
    public void Tools_stand_by_size_and_a_wrench_that_is_good_needs_no_other()
    {
        var kit = Of(Full);
        Assert.Equal(kit.Tools.Select(t => t.Size).Order(StringComparer.OrdinalIgnoreCase), kit.Tools.Select(t => t.Size));
        Assert.All(kit.Torques, t => Assert.Null(t.OutOfCalibration));
        Assert.Empty(kit.OutOfReach);
        Assert.NotEmpty(Of(Full with { Wrenches = [] }).OutOfReach);
        Assert.Equal([["Engine oil"]], kit.Pan!.Fluids.Select(f => f.Select(x => x.Name)));
    }

    [Fact]
    public void Whatever_is_short_stops_the_kit()
    {
        Assert.Equal(KitVerdict.Stops, Of(Full with { Containers = [] }).Verdict);
        Assert.Equal(KitVerdict.Stops, Of(Full with { Pans = [new("Tiny", L(3))] }).Verdict);
        Assert.Equal(KitVerdict.Worse, Of(With(Part("TC-0714-R", 0))).Verdict);
    }

    [Fact]
    public void Of_opened_containers_the_oldest_of_shut_ones_the_smallest_and_of_equals_the_first()
    {
        IEnumerable<int> From(params OilContainer[] cans) =>
            Of(Full with { Containers = cans }).Oils.Single().Shares.Select(s => s.Container.Id);
        Assert.Equal([2, 1, 5], From(Can(1, 3, 10), Can(2, 3, 40), Can(4, 20, null), Can(5, 5, null)));
        Assert.Equal([7, 8], From(Can(8, 5, null), Can(7, 5, null)));
        Assert.Equal([3], From(Can(1, 0, 90), Can(3, 20, null)));
    }

    [Fact]
    public void One_number_in_two_places_is_one_line_with_the_worse_of_its_seals()
    {
        var washer = Courier.Parts["drain-washer"];
        var sheet = Courier with
        {
            Parts = new Dictionary<PartId, Part>(Courier.Parts) { ["second"] = washer with { Id = "second", Compare = true } },
            Jobs = new Dictionary<JobId, Job>(Courier.Jobs)
            {
                ["engine-oil-and-filter"] =
                    Courier.Jobs["engine-oil-and-filter"] with { Parts = [.. Courier.Jobs["engine-oil-and-filter"].Parts, "second"] },
            },
        };
        JobId[] jobs = ["engine-oil-and-filter"];
        KitPartLine Line(int there, int first, int second) => KitCheck.Of(sheet, jobs, CardPlanner.Compose(Courier, jobs),
            new Dictionary<PartId, int> { ["drain-washer"] = first, ["second"] = second }, With(Part("TC-0714-R", there)), null, Today)
            .Parts.Single(p => p.Number == "TC-0714-R");
        Assert.Equal((2, 1, 3, true), (Line(1, 3, 0).Wanted, Line(1, 3, 0).Missing, Line(1, 3, 0).UsedAgain, Line(1, 3, 0).Compare));
        Assert.Equal(KitVerdict.Worse, Line(1, 1, 0).Verdict); // the one that was not used again may stay
        Assert.Equal(KitVerdict.Stops, Line(0, 1, 0).Verdict);
    }

    [Fact]
    public void A_foreign_number_leads_to_nothing()
    {
        var found = ScannedPart.Of(Of(Full), Full, new HashSet<PartId>(), "OB-2201-F");
        Assert.Equal((ScanVerdict.Foreign, null, "", ""), (found.Verdict, found.Part, found.Number, found.Why));
        Assert.Equal("", ScannedPart.Of(Of(Full), Full, new HashSet<PartId>(), "TC-0621-F").Why);
        var enough = ScannedPart.Of(Of(Full), Full, new HashSet<PartId> { "oil-filter" }, "TC-0621-F");
        Assert.Equal((ScanVerdict.Enough, "TC-0621-F", ""), (enough.Verdict, enough.Number, enough.Why));
    }

    [Fact]
    public void An_order_names_what_fits_or_what_is_asked_for_and_for_whom()
    {
        PlannedWork Work(string who) => new(who, Courier, ["engine-oil-and-filter"],
            CardPlanner.Compose(Courier, ["engine-oil-and-filter"]));
        OrderLine Oil(Shelf shelf) => OrderList.Of([Work("A"), Work("B")], shelf, Today, _ => null).Single(l => l.Count is null);
        var fits = Oil(Full with { Containers = [] });
        Assert.Equal(("Gannet Lowash 5W-30", "Engine oil", L(12.8m)), (fits.Number, fits.Name, fits.Amount!.Value));
        Assert.Equal(["A", "B"], fits.For);
        Assert.Equal("Tarn T-41L or SAE 5W-30", Oil(Full with { Containers = [], Oils = OilBook.Empty }).Number);
        // A number that the stores know under another is ordered under that one.
        var washers = OrderList.Of([Work("A"), Work("B")], With(Part("TC-0714-R", 0), Part("MG-14-W", 1, "", "TC-0714-R")) with
        {
            Parts = [.. Full.Parts.Where(p => p.Number != "TC-0714-R"), Part("MG-14-W", 1, "", "TC-0714-R")],
        }, Today, _ => null);
        Assert.Contains(washers, l => l is { Number: "MG-14-W", Count: 1 });
    }

    [Fact]
    public void An_order_lists_parts_then_fluids_each_by_name()
    {
        var brae = ComposerTests.Sheets["ostler-brae-28d"];
        JobId[] jobs = ["engine-oil-and-filter", "gearbox-oil", "coolant"];
        var lines = OrderList.Of([new("A", brae, jobs, CardPlanner.Compose(brae, jobs))], Shelf.Empty, Today, _ => null);
        var fluids = lines.Where(l => l.Count is null).Select(l => l.Number).ToList();
        Assert.Equal(3, fluids.Count);
        Assert.Equal(fluids.Order(StringComparer.Ordinal), fluids);
        Assert.Equal(lines.Count - 3, lines.TakeWhile(l => l.Count is not null).Count());
    }

    private static FluidSystem Fluid(string name, decimal litres, FillBy by = FillBy.Dipstick, params string[] grades) =>
        Courier.Fluids["engine-oil"] with
    {
        Id = name, Name = name, FillBy = by,
        Amount = Courier.Fluids["engine-oil"].Amount with { Value = L(litres) },
        Grades = Courier.Fluids["engine-oil"].Grades with { Value = grades.Length > 0 ? grades : ["SAE 5W-30"] },
    };

    [Fact]
    public void Pans_are_tried_until_all_finds_room() =>
        // The first choice, 6 L into the pan of 10, leaves no room for two of 5 L.
        Assert.Equal([1, 0, 0], PanPlan.Of([Fluid("A", 6), Fluid("B", 5), Fluid("C", 5)], [L(10), L(6)])!);

    [Fact]
    public void What_pans_are_short_of_is_said_in_full()
    {
        Assert.Equal("The pan holds 3.00 L, but 6.40 L of engine oil will come out. "
            + "Take a larger pan or one more and say so at the kit.", $"{PanPlan.Short([[Fluid("Engine oil", 6.4m)]], [L(3)])}");
        Assert.Equal("The pans hold 3.00 L and 2.00 L, but 6.40 L of engine oil, 9.80 L of coolant will come out together, and the engine "
            + "oil and the coolant cannot share one.",
            PanPlan.Short([[Fluid("Engine oil", 6.4m), Fluid("Coolant", 9.8m, FillBy.Book, "Blue 40")]], [L(3), L(2)])!.What);
        Assert.Equal("The pan holds 3.00 L, but 6.40 L of engine oil, 2.00 L of axle oil will come out together.",
            PanPlan.Short([[Fluid("Engine oil", 6.4m), Fluid("Axle oil", 2, FillBy.Overflow, "GL-5", "SAE 80W-90")]], [L(3)])!.What);
        Assert.Equal("No pan is here, but 6.40 L of engine oil will come out.", PanPlan.Short([[Fluid("Engine oil", 6.4m)]], [])!.What);
        Assert.Null(PanPlan.Short([], [L(3)]));
        Assert.Null(PanPlan.Short([[Fluid("Engine oil", 3)]], [L(3)]));
        // One after the other each has the pan to itself.
        Assert.Null(PanPlan.Short([[Fluid("Engine oil", 3)], [Fluid("Coolant", 3, FillBy.Book, "Blue 40")]], [L(3)]));
    }

    [Fact]
    public void What_is_measured_on_its_way_out_has_a_pan_of_its_own()
    {
        Assert.False(PanPlan.MayShare(Fluid("A", 1, FillBy.MeasuredReturn), Fluid("B", 1)));
        Assert.False(PanPlan.MayShare(Fluid("A", 1), Fluid("B", 1, FillBy.MeasuredReturn)));
        Assert.True(PanPlan.MayShare(Fluid("A", 1), Fluid("B", 1, FillBy.Overflow, "atf Red")));
        Assert.False(PanPlan.MayShare(Fluid("A", 1), Fluid("B", 1, FillBy.Book, "DOT 4")));
    }
}
