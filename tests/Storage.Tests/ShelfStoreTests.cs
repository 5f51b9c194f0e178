using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;

namespace Anakyklos.Storage.Tests;

/// <summary>What cards take from the stores, in a real file.</summary>
public sealed class ShelfStoreTests : IDisposable
{
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    private static Quantity<Volume> L(decimal litres) => Quantity<Volume>.Of(litres, Volume.Litre);

    private static Quantity<Distance> Km(decimal km) => Quantity<Distance>.Of(km, Distance.Kilometre);

    private static readonly StockFile Stock = new(
        [new("TC-0621-F", "Oil filter cartridge", 2, 0, "", []), new("TC-0622-R", "Ring", 1, 0, "", ["MG-1"]),
            new("TC-0714-R", "Washer", 0, 0, "TC-0718-R", []), new("TC-0718-R", "Washer, new", 4, 0, "", [])],
        [new(0, "Gannet Lowash 5W-30", L(20), L(3), Volume.Litre, new(2026, 1, 5), "B1"),
            new(0, "Gannet Lowash 5W-30", L(5), L(5), Volume.Quart, null, "B2")],
        [new("Hex 14", "board")], [new("Pan 8", L(8))]);

    private async Task<(ShelfStore Shelf, CardStore Cards, CardNumber Card, WorkshopDatabase Database)> Stocked()
    {
        var (database, cards) = _workshop.Open();
        var shelf = new ShelfStore(database, new SettingStore(database));
        await shelf.BringIn(Stock, TemporaryWorkshop.Iona, TemporaryWorkshop.Monday);
        await shelf.WriteOilBook("""
            {
              "format": "anakyklos/oil-book/1",
              "products": [{"name": "Gannet Lowash 5W-30", "grades": ["SAE 5W-30"], "codes": ["Tarn T-41L"], "lowAsh": true}]
            }
            """);
        return await _workshop.WithCard() is var w ? (shelf, w.Cards, w.Card, database) : default;
    }

    private static async Task<JobCard> Work(CardStore cards, CardNumber id, StepId? stop = null)
    {
        var card = cards.Find(id)!;
        var at = TemporaryWorkshop.Monday;
        while (card.Next is { } step && step.Id != stop)
        {
            at = at.AddMinutes(70);
            CardCommand command = step.Kind switch
            {
                StepKind.Kit => new ConfirmKit(step.Id, card.PartsWanted.ToDictionary(p => p.Id, p => p.Id == "drain-washer"
                    ? new KitPart(KitChoice.InHand, "TC-0718-R") : new KitPart(KitChoice.InHand)),
                    [L(8)], new Dictionary<FluidId, OilLaidOut> { ["engine-oil"] = new(L(8), "gannet lowash 5w-30") }),
                StepKind.Tighten => new TakeReading(step.Id,
                    new NumberSaid<Torque>(step.What == "engine-drain-plug" ? 38 : 25, Torque.NewtonMetre)),
                StepKind.Pour => new Pour(step.Id, new(L(5), Volume.Litre)),
                StepKind.Gauge => new ReadGauge(step.Id, new(0.75m)),
                _ => Core.Rehearsal.UsualPress.Of(card, step),
            };
            var answer = (await cards.Handle(id, Guid.NewGuid(), command, TemporaryWorkshop.Iona, at))!;
            Assert.True(answer.Decision is Accepted, $"{command}: {answer.Decision}");
            card = answer.Card;
        }
        return card;
    }

    private static int OnShelf(ShelfStore shelf, string number) => shelf.Read().Parts.Single(p => p.Number == number).OnShelf;

    private static int Reserved(ShelfStore shelf, string number, CardNumber? card = null) =>
        shelf.Read(card).Parts.Single(p => p.Number == number).Reserved;

    [Fact]
    public async Task An_opened_card_keeps_its_parts_and_does_not_stand_in_its_own_way()
    {
        var (shelf, _, card, _) = await Stocked();
        Assert.Equal((1, 1, 1), (Reserved(shelf, "TC-0621-F"), Reserved(shelf, "TC-0622-R"),
            Reserved(shelf, "TC-0718-R"))); // the washer under its new number
        Assert.Equal(0, Reserved(shelf, "TC-0621-F", card));
    }

    [Fact]
    public async Task What_is_fitted_and_poured_leaves_the_shelf_and_signing_releases_the_rest()
    {
        var (shelf, cards, id, _) = await Stocked();
        await Work(cards, id);
        Assert.Equal((1, 0, 3), (OnShelf(shelf, "TC-0621-F"), OnShelf(shelf, "TC-0622-R"), OnShelf(shelf, "TC-0718-R")));
        // 5 L: the open one's 3, then 2 of the shut one, which is open from that day.
        Assert.Equal([(L(0), new DateOnly(2026, 1, 5)), (L(3), new DateOnly(2026, 3, 10))],
            shelf.Read().Containers.Select(c => (c.Left, c.Opened!.Value)));
        await cards.Handle(id, Guid.NewGuid(), new Sign(), TemporaryWorkshop.Iona, TemporaryWorkshop.Monday.AddDays(3));
        Assert.Equal(0, shelf.Read().Parts.Sum(p => p.Reserved));
        Assert.Equal(["poured", "poured", "used", "used", "used"], shelf.Book().Where(b => b.Card == id).Select(b => b.Kind).Order());
    }

    [Fact]
    public async Task A_fitted_part_taken_back_is_on_the_shelf_again_and_the_same_press_twice_takes_one()
    {
        var (shelf, cards, id, _) = await Stocked();
        var card = await Work(cards, id, "fit-filter");
        var fit = card.Steps.First(s => s.Kind == StepKind.Fit && s.What == "oil-filter");
        card = await Work(cards, id, fit.Id);
        var (press, at) = (Guid.NewGuid(), TemporaryWorkshop.Monday.AddDays(2));
        await cards.Handle(id, press, new ConfirmStep(fit.Id), TemporaryWorkshop.Iona, at);
        var done = (await cards.Handle(id, press, new ConfirmStep(fit.Id), TemporaryWorkshop.Iona, at))!.Card;
        Assert.Equal(1, OnShelf(shelf, "TC-0621-F"));
        await cards.Handle(id, Guid.NewGuid(), new TakeBack(done.History.Count), TemporaryWorkshop.Iona, at);
        Assert.Equal((2, 1), (OnShelf(shelf, "TC-0621-F"), Reserved(shelf, "TC-0621-F")));
    }

    [Fact]
    public async Task A_pour_taken_back_is_in_its_cans_again()
    {
        var (shelf, cards, id, _) = await Stocked();
        var card = await Work(cards, id, "filler-cap-on");
        Assert.Equal([L(0), L(3)], shelf.Read().Containers.Select(c => c.Left));
        var pour = card.History.Last(h => h.Event is Poured);
        await cards.Handle(id, Guid.NewGuid(), new TakeBack(pour.Seq), TemporaryWorkshop.Iona, TemporaryWorkshop.Monday.AddDays(3));
        Assert.Equal([L(3), L(5)], shelf.Read().Containers.Select(c => c.Left));
    }

    [Fact]
    public async Task A_pour_is_booked_out_of_the_can_that_it_came_from_and_the_record_says_so()
    {
        var (shelf, cards, id, _) = await Stocked();
        var card = await Work(cards, id, "first-pour");
        var cans = shelf.Read().Containers;
        Assert.Equal([L(3), L(5)], cans.Select(c => c.Left));
        var at = TemporaryWorkshop.Monday.AddDays(2);

        // The opened one would come first: the hand took the other.
        var pour = new Pour("first-pour", new(L(4.6m), Volume.Litre), From: cans[1].Id);
        card = (await cards.Handle(id, Guid.NewGuid(), pour, TemporaryWorkshop.Iona, at))!.Card;
        Assert.Equal([L(3), L(0.4m)], shelf.Read().Containers.Select(c => c.Left));
        Assert.Equal(DateOnly.FromDateTime(at.DateTime), shelf.Read().Containers[1].Opened);
        Assert.Equal([(cans[1].Id, L(4.6m))], card.CansOf("engine-oil").Select(c => (c.Can, c.Takes)));
        Assert.Equal(card.CansOf("engine-oil"), JobCard.Replay(card.Sheet, card.History).CansOf("engine-oil"));
    }

    [Fact]
    public async Task What_does_not_hold_enough_is_emptied_and_the_next_one_goes_on()
    {
        var (shelf, cards, id, _) = await Stocked();
        await Work(cards, id, "first-pour");
        var pour = new Pour("first-pour", new(L(5), Volume.Litre));
        var card = (await cards.Handle(id, Guid.NewGuid(), pour, TemporaryWorkshop.Iona, TemporaryWorkshop.Monday.AddDays(2)))!.Card;
        Assert.Equal([L(3), L(2)], card.CansOf("engine-oil").Select(c => c.Takes));
        Assert.Equal([L(0), L(3)], shelf.Read().Containers.Select(c => c.Left));
    }

    [Theory]
    [InlineData(99, "There is no container 99 in the stores.")]
    [InlineData(-1, "There is no container -1 in the stores.")]
    [InlineData(3, "Drum 3 holds Fulmar Heavy 10W-40, and gannet lowash 5w-30 was laid out.")]
    [InlineData(4, "Can 4 is empty by the stores' book.")]
    public async Task Nothing_is_poured_out_of_a_can_that_is_not_there_or_holds_something_else(int can, string says)
    {
        var (shelf, cards, id, _) = await Stocked();
        await Work(cards, id, "first-pour");
        foreach (var more in (OilContainer[])[new(0, "Fulmar Heavy 10W-40", L(60), L(41), Volume.Litre, null, ""),
            new(0, "Gannet Lowash 5W-30", L(5), L(0), Volume.Litre, null, "")])
            await shelf.Receive(more, TemporaryWorkshop.Iona, TemporaryWorkshop.Monday);
        var pour = new Pour("first-pour", new(L(5), Volume.Litre), From: can);
        var answer = await cards.Handle(id, Guid.NewGuid(), pour, TemporaryWorkshop.Iona, TemporaryWorkshop.Monday.AddDays(2));
        var refusal = Assert.Single(Assert.IsType<Refused>(answer!.Decision).Reasons);
        Assert.Equal((says, "from"), (refusal.What, refusal.Field));
        Assert.Equal([L(3), L(5)], shelf.Read().Containers.Where(c => c.Id <= 2).Select(c => c.Left));
    }

    [Fact]
    public async Task A_signed_card_is_the_start_of_the_next_interval()
    {
        var (_, cards, id, database) = await Stocked();
        await Work(cards, id);
        await cards.Handle(id, Guid.NewGuid(), new Sign(), TemporaryWorkshop.Iona, TemporaryWorkshop.Monday.AddDays(3));
        var vehicles = new VehicleStore(database);
        Assert.Equal(new DoneJob("engine-oil-and-filter", new(Km(148_200), new(2026, 3, 12))),
            vehicles.LastDone("HD-07")["HD-07"].Single());
        await vehicles.NoteDone("HD-07", new("engine-oil-and-filter", new(Km(100_000), new(2024, 1, 1))));
        Assert.Equal(Km(148_200), vehicles.LastDone()["HD-07"].Single().Done.Odometer); // the newest counts, whatever comes in later
    }

    [Fact]
    public async Task Booking_in_knows_its_numbers()
    {
        var (shelf, _, _, _) = await Stocked();
        Assert.Equal(2, (await shelf.Receive("tc 0714 r", 2, TemporaryWorkshop.Iona, TemporaryWorkshop.Monday))!.OnShelf);
        Assert.Null(await shelf.Receive("TC-9999-X", 2, TemporaryWorkshop.Iona, TemporaryWorkshop.Monday));
        await shelf.Receive(new OilContainer(0, "Gannet Lowash 5W-30", L(20), L(20), Volume.Litre, null, "B9"), TemporaryWorkshop.Iona,
            TemporaryWorkshop.Monday);
        Assert.Equal(3, shelf.Read().Containers.Count);
        Assert.Equal(Volume.Quart, shelf.Read().Containers[1].Scale);
    }

    [Fact]
    public async Task A_file_that_fails_half_way_leaves_nothing_behind()
    {
        var (database, _) = _workshop.Open();
        var shelf = new ShelfStore(database, new SettingStore(database));
        var broken = Stock with { Parts = [.. Stock.Parts, new("BAD", "Below zero", -1, 0, "", [])] };
        await Assert.ThrowsAnyAsync<Exception>(() => shelf.BringIn(broken, TemporaryWorkshop.Iona, TemporaryWorkshop.Monday));
        Assert.Empty(shelf.Read().Parts);
        Assert.Empty(shelf.Book());
    }

    [Fact]
    public async Task Own_rules_and_the_life_of_a_vehicle_survive_the_program()
    {
        var (database, _, _) = await _workshop.WithCard();
        var vehicles = new VehicleStore(database);
        await vehicles.Add(new("HD-20", TemporaryWorkshop.Sheet.Id, "Harbour crane", 2020, Use.Harsh, new DateOnly(2020, 5, 4), true,
            new DateOnly(2027, 1, 1)));
        await vehicles.SetRule("", "engine-oil-and-filter", new(Km(12_000), 12));
        await vehicles.SetRule("HD-20", "engine-oil-and-filter", new(null, 4, 150));
        await vehicles.SetRule("HD-20", "air-filter", new(Km(5_000), null));
        await vehicles.SetRule("HD-20", "air-filter", null);
        database.Dispose();
        var again = new VehicleStore(_workshop.Open().Database);
        Assert.Equal([new OwnRule("engine-oil-and-filter", new(Km(12_000), 12), RuleOf.Depot),
            new OwnRule("engine-oil-and-filter", new(null, 4, 150), RuleOf.Owner)], again.OwnRules("HD-20"));
        var crane = again.Find("HD-20")!;
        Assert.Equal((new UseMark(default, new(2020, 5, 4)), true), (crane.Past.Delivered, crane.Past.IsUnknown));
        Assert.True(crane.IsUnderWarranty(new(2027, 1, 1)));
        Assert.False(crane.IsUnderWarranty(new(2027, 1, 2)));
    }

    [Fact]
    public async Task A_file_of_the_version_before_brings_its_signed_jobs_along()
    {
        var (_, cards, id, database) = await Stocked();
        await Work(cards, id);
        await cards.Handle(id, Guid.NewGuid(), new Sign(), TemporaryWorkshop.Iona, TemporaryWorkshop.Monday.AddDays(3));
        database.Dispose();
        // Back to how the file was before the second migration; what is made of these tables since goes with them.
        foreach (var name in _workshop.Names("type in ('view', 'trigger') and (name like 'found%' or name like 'journal%')"))
            _workshop.Execute($"drop {name}");
        _workshop.Execute("""
            drop table movement; drop table reservation; drop table pan; drop table tool; drop table container; drop table part;
            drop table oil_book; drop table own_rule; drop table done_job;
            alter table vehicle drop column delivered; alter table vehicle drop column history_unknown;
            alter table vehicle drop column warranty_until; alter table odometer drop column hours;
            delete from SchemaVersions where ScriptName like '%0002%' or ScriptName like '%0005%';
            """);
        var again = new VehicleStore(_workshop.Open().Database);
        Assert.Equal(new DoneJob("engine-oil-and-filter", new(Km(148_200), new(2026, 3, 12))), again.LastDone("HD-07")["HD-07"].Single());
        Assert.False(again.Find("HD-07")!.HistoryUnknown);
    }
}
