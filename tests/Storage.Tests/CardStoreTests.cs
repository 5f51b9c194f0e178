using Anakyklos.Core.Cards;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;
using static Anakyklos.Storage.Tests.TemporaryWorkshop;

namespace Anakyklos.Storage.Tests;

public sealed class CardStoreTests : IDisposable
{
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    [Fact]
    public async Task What_was_saved_is_there_after_reopening()
    {
        var (database, cards, id) = await _workshop.WithCard();
        await cards.Handle(id, Guid.NewGuid(), new ConfirmStep("warm-up"), Iona, Monday.AddMinutes(7));
        await cards.Handle(id, Guid.NewGuid(), new NoteFinding("warm-up", FindingGrade.KeepAnEye, "Whistles when cold – “Fan” ½"), Iona,
            Monday.AddMinutes(8));
        var before = cards.Find(id)!;
        database.Dispose();

        var (again, reopened) = _workshop.Open();
        var card = reopened.Find(id)!;
        Assert.Equal(before.History.Select(h => (h.Seq, h.At.UtcTicks, h.By, h.Command)),
            card.History.Select(h => (h.Seq, h.At.UtcTicks, h.By, h.Command)));
        Assert.Equal(before.History.Select(h => CardJson.Write(h.Event)), card.History.Select(h => CardJson.Write(h.Event)));
        Assert.Equal("lay-out-kit", card.Next!.Id);
        Assert.Equal("Whistles when cold – “Fan” ½", card.Findings.Single().Event.Text);
        Assert.Empty(Verification.Run(again, out var count, out var events));
        Assert.Equal((1, 3), (count, events));
    }

    [Fact]
    public async Task A_newcomer_its_reading_and_its_card_are_kept_at_once_or_not_at_all()
    {
        var (database, cards, _) = await _workshop.WithCard();
        var vehicles = new VehicleStore(database);
        var opening = Opening() with { Plate = "HD-40" };
        var arrival = new Arrival(new("HD-40", Sheet.Id, "Post", 2022, Use.Normal), new(Monday, opening.Odometer, "", 900));
        // The sheet's revision is not here: the card cannot be opened, and nothing is left of the vehicle either.
        await Assert.ThrowsAsync<WorkshopFileException>(() =>
            cards.Open(opening with { SheetRevision = 99 }, "", Iona, Monday, Guid.NewGuid(), arrival));
        Assert.Null(vehicles.Find("HD-40"));
        Assert.Empty(vehicles.Odometer("HD-40"));
        var command = Guid.NewGuid();
        var id = await cards.Open(opening, "", Iona, Monday, command, arrival);
        Assert.Equal(id, await cards.Open(opening, "", Iona, Monday.AddMinutes(1), command, arrival with
        {
            Reading = arrival.Reading with { At = Monday.AddMinutes(1) },
        }));
        Assert.Equal("Post", vehicles.Find("HD-40")!.Task);
        Assert.Equal((opening.Odometer, 900), (Assert.Single(vehicles.Odometer("HD-40")).Reading, vehicles.Odometer("HD-40")[0].Hours));
    }

    [Fact]
    public async Task The_same_command_twice_is_one_event_also_after_a_restart()
    {
        var (database, cards, id) = await _workshop.WithCard();
        var command = Guid.NewGuid();
        var first = await cards.Handle(id, command, new ConfirmStep("warm-up"), Iona, Monday);
        var second = await cards.Handle(id, command, new ConfirmStep("warm-up"), Iona, Monday.AddMinutes(1));
        database.Dispose();
        var (_, reopened) = _workshop.Open();
        var third = await reopened.Handle(id, command, new ConfirmStep("warm-up"), Iona, Monday.AddMinutes(2));
        Assert.Equal((false, true, true), (first!.Repeated, second!.Repeated, third!.Repeated));
        Assert.All([first, second, third], a => Assert.IsType<Accepted>(a.Decision));
        Assert.Equal(2, third.Card.History.Count);
    }

    [Fact]
    public async Task A_command_id_of_another_card_is_refused_and_an_unknown_card_is_none()
    {
        var (database, cards, id) = await _workshop.WithCard();
        await new VehicleStore(database).Add(new("HD-08", Sheet.Id, "Spare", 2019, Use.Normal));
        var other = await cards.Open(Opening() with { Plate = "HD-08" }, "", Iona, Monday, Guid.NewGuid());
        var command = Guid.NewGuid();
        await cards.Handle(id, command, new ConfirmStep("warm-up"), Iona, Monday);
        Assert.IsType<Refused>((await cards.Handle(other, command, new ConfirmStep("warm-up"), Iona, Monday))!.Decision);
        Assert.Null(await cards.Handle(999_999, Guid.NewGuid(), new Sign(), Iona, Monday));
        Assert.Null(cards.Find(999_999));
    }

    [Fact]
    public async Task Of_many_who_bring_a_vehicle_at_once_one_opens_its_card()
    {
        var (database, cards, _) = await _workshop.WithCard();
        await new VehicleStore(database).Add(new("HD-08", Sheet.Id, "Spare", 2019, Use.Normal));
        var tries = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ =>
            cards.TryOpen(Opening() with { Plate = "HD-08" }, "", Iona, Monday, Guid.NewGuid())));
        Assert.Single(tries, t => !t.IsAnother);
        Assert.Single(tries.Select(t => t.Card).Distinct());
        Assert.Single(cards.OfVehicle("HD-08"));
        await Assert.ThrowsAsync<InvalidOperationException>(() => cards.Open(Opening(), "", Iona, Monday, Guid.NewGuid()));
    }

    [Fact]
    public async Task A_refusal_writes_nothing()
    {
        var (_, cards, id) = await _workshop.WithCard();
        var answer = await cards.Handle(id, Guid.NewGuid(), new Sign(), Iona, Monday);
        Assert.IsType<Refused>(answer!.Decision);
        Assert.Single(cards.Find(id)!.History);
    }

    [Fact]
    public async Task Work_in_one_piece_is_judged_press_by_press_and_ends_where_one_is_refused()
    {
        var (_, cards, id) = await _workshop.WithCard();
        var told = 0;
        cards.Changed += (_, _) => told++;
        var said = new Queue<CardCommand>([new ConfirmStep("warm-up"), new Sign(), new ConfirmStep("warm-up")]);
        var seen = new List<int>();
        var answer = await cards.Work(id, card =>
        {
            seen.Add(card.History.Count);
            return new(said.Dequeue(), Iona, Monday);
        });
        // The first is written, the second refused, the third never asked for.
        Assert.IsType<Refused>(answer!.Decision);
        Assert.Equal((2, 1, 1), (cards.Find(id)!.History.Count, said.Count, told));
        Assert.Equal([1, 2], seen);
        Assert.Null(await cards.Work(id, _ => null));
        Assert.Null(await cards.Work(999_999, _ => new(new Sign(), Iona, Monday)));
        Assert.Equal(2, cards.Find(id)!.History.Count);
    }

    [Fact]
    public async Task Cards_with_jobs_that_were_not_done_are_found_once_they_are_signed()
    {
        var (database, cards, _) = await _workshop.WithCard();
        await new VehicleStore(database).Add(new("HD-08", Sheet.Id, "Spare", 2019, Use.Normal));
        var opening = Opening() with { Plate = "HD-08", Jobs = [], Steps = [] };
        var all = await cards.Open(opening, "", Iona, Monday, Guid.NewGuid());
        await Signed(all);
        var left = await cards.Open(opening with { LeftForLater = [new("cabin-filter", "Cabin filter", "Not here")] }, "", Iona, Monday,
            Guid.NewGuid());
        Assert.Empty(cards.WithJobsNotDone(opening.Plate));
        await Signed(left);
        Assert.Equal([left], cards.WithJobsNotDone(opening.Plate));

        async Task Signed(CardNumber id) =>
            Assert.IsType<Accepted>((await cards.Handle(id, Guid.NewGuid(), new Sign(), Iona, Monday.AddMinutes(1)))!.Decision);

        Assert.Empty(cards.WithJobsNotDone("HD-99"));
    }

    [Fact]
    public async Task Two_programs_on_one_file_lose_nothing_and_do_nothing_twice()
    {
        var (_, one, id) = await _workshop.WithCard();
        var (database, two) = _workshop.Open();
        var findings = Enumerable.Range(0, 40).Select(i => (i % 2 == 0 ? one : two)
            .Handle(id, Guid.NewGuid(), new NoteFinding("warm-up", FindingGrade.Sound, $"look {i}"), Iona, Monday.AddSeconds(i)));
        var steps = new[] { one, two, one, two }.Select(store =>
            store.Handle(id, Guid.NewGuid(), new ConfirmStep("warm-up"), Iona, Monday));
        var answers = await Task.WhenAll([.. findings, .. steps]);
        Assert.Equal(41, answers.Count(a => a!.Decision is Accepted));
        Assert.Equal(3, answers.Count(a => a!.Decision is Refused));
        var card = one.Find(id)!;
        Assert.Equal(42, card.History.Count);
        Assert.Equal(40, card.Findings.Select(f => f.Event.Text).Distinct().Count());
        Assert.Equal(CardJson.Write(card.History[^1].Event), CardJson.Write(two.Find(id)!.History[^1].Event));
        Assert.Empty(Verification.Run(database, out _, out _));
    }

    [Fact]
    public async Task A_listener_that_fails_does_not_turn_a_saved_press_into_an_error()
    {
        var (database, cards, id) = await _workshop.WithCard();
        var (told, failed) = (new List<int>(), new List<Exception>());
        database.Writes.ListenerFailed += failed.Add;
        cards.Changed += (_, _) => throw new InvalidOperationException("The screen is gone");
        cards.Changed += (_, seq) => told.Add(seq);
        var answer = await cards.Handle(id, Guid.NewGuid(), new ConfirmStep("warm-up"), Iona, Monday);
        Assert.IsType<Accepted>(answer!.Decision);
        Assert.Equal([2], told);
        Assert.Equal("The screen is gone", Assert.Single(failed).Message);
        Assert.Equal(2, _workshop.Open().Cards.Find(id)!.History.Count);
    }

    [Fact]
    public async Task A_void_card_is_neither_open_nor_signed_and_stays_so()
    {
        var (_, cards, id) = await _workshop.WithCard();
        await cards.Handle(id, Guid.NewGuid(), new VoidCard("Wrong van"), Iona, Monday);
        Assert.True(_workshop.Open().Cards.Entry(id)!.IsOpen);
        await cards.Handle(id, Guid.NewGuid(), new Countersign(cards.Find(id)!.ToVoid!.Seq), new("una", "Una B.", Role.Lead), Monday);
        var entry = _workshop.Open().Cards.Entry(id)!;
        Assert.Equal((false, true), (entry.IsOpen, entry.VoidedAt is not null));
        Assert.Null(entry.SignedAt);
        Assert.DoesNotContain(cards.Unsigned(), c => c.Id == id);
    }

    [Fact]
    public async Task Many_at_once_are_answered_in_one_line()
    {
        var (database, cards, id) = await _workshop.WithCard();
        var seen = new List<int>();
        cards.Changed += (_, seq) => seen.Add(seq);
        await Task.WhenAll(Enumerable.Range(0, 200)
            .Select(i => cards.Handle(id, Guid.NewGuid(), new NoteFinding("warm-up", FindingGrade.Sound, $"look {i}"), Iona, Monday)));
        Assert.Equal(Enumerable.Range(2, 200), seen);
        Assert.Equal(201, cards.Find(id)!.History.Count);
        Assert.Empty(Verification.Run(database, out _, out _));
    }

    [Fact]
    public async Task A_piece_of_work_that_fails_takes_nothing_else_with_it()
    {
        var (database, cards, id) = await _workshop.WithCard();
        var good = cards.Handle(id, Guid.NewGuid(), new ConfirmStep("warm-up"), Iona, Monday);
        var bad = database.Writes.Run<int>(_ => throw new InvalidOperationException("spanner"));
        var more = cards.Handle(id, Guid.NewGuid(), new NoteFinding("warm-up", FindingGrade.Sound, "fine"), Iona, Monday);
        Assert.Equal("spanner", (await Assert.ThrowsAsync<InvalidOperationException>(() => bad)).Message);
        await Task.WhenAll(good, more);
        Assert.Equal(3, cards.Find(id)!.History.Count);
    }

    [Fact]
    public async Task Events_cannot_be_changed_and_a_change_by_force_is_found()
    {
        var (database, cards, id) = await _workshop.WithCard();
        await cards.Handle(id, Guid.NewGuid(), new ConfirmStep("warm-up"), Iona, Monday);
        await cards.Handle(id, Guid.NewGuid(), new NoteFinding("warm-up", FindingGrade.Sound, "fine"), Iona, Monday);
        Assert.Throws<Microsoft.Data.Sqlite.SqliteException>(() => _workshop.Execute("update event set person_name = 'Nobody'"));
        Assert.Throws<Microsoft.Data.Sqlite.SqliteException>(() => _workshop.Execute("delete from event where seq = 2"));

        _workshop.Execute("drop trigger event_is_not_changed; update event set person_name = 'Nobody' where seq = 2");
        Assert.Equal(["The trigger \"event_is_not_changed\" is missing.", $"Card {id}: event 2 was changed after it was written."],
            Verification.Run(database, out _, out _));
        _workshop.Execute("update event set person_name = 'Iona R.' where seq = 2; drop trigger event_is_not_removed; delete from "
            + "event where seq = 3");
        Assert.Contains($"Card {id}: it should end with event 3, but ends with 2.", Verification.Run(database, out _, out _));
    }

    [Fact]
    public async Task A_backup_taken_meanwhile_is_a_workshop_of_its_own()
    {
        var (database, cards, id) = await _workshop.WithCard();
        await cards.Handle(id, Guid.NewGuid(), new ConfirmStep("warm-up"), Iona, Monday);
        var copy = _workshop.Beside("copy.db");
        database.Backup(copy);
        Assert.Contains("exists already", Assert.Throws<WorkshopFileException>(() => database.Backup(copy)).Message);
        await cards.Handle(id, Guid.NewGuid(),
            new ConfirmKit("lay-out-kit", Sheet.Parts.Keys.ToDictionary(p => p, _ => new KitPart(KitChoice.InHand)),
            [Quantity<Volume>.Of(8, Volume.Litre)],
            new Dictionary<FluidId, OilLaidOut> { ["engine-oil"] = new(Quantity<Volume>.Of(7, Volume.Litre), "Gannet",
                "No book here yet") }), Iona, Monday);
        var (_, restored) = _workshop.Open(copy);
        Assert.Equal((2, 4), (restored.Find(id)!.History.Count, cards.Find(id)!.History.Count)); // the kit, and the oil that no book knows
    }

    [Fact]
    public void A_file_that_is_no_workshop_is_told_and_left_alone()
    {
        var file = _workshop.Beside("letter.db");
        File.WriteAllText(file, new string('x', 5000));
        Assert.Contains("letter.db", Assert.Throws<WorkshopFileException>(() => new WorkshopDatabase(file)).Message);
        Assert.Equal(new string('x', 5000), File.ReadAllText(file));
    }

    [Fact]
    public async Task Migrations_run_once_and_keep_what_is_there()
    {
        var (first, _, id) = await _workshop.WithCard();
        first.Dispose();
        for (var i = 0; i < 3; i++)
        {
            var (database, cards) = _workshop.Open();
            Assert.NotNull(cards.Find(id));
            database.Dispose();
        }
    }

    [Fact]
    public void Quantities_keep_every_digit_through_json()
    {
        var reading = new Typed<Torque>(Quantity<Torque>.Of(28, Torque.PoundFoot), Torque.PoundFoot);
        var json = CardJson.Write(new ReadingTaken("tighten-drain-plug", reading, TorqueOutcome.Passes));
        Assert.Contains("\"28 lbf·ft\"", json);
        Assert.Equal(reading, ((ReadingTaken)CardJson.Read(json)).Reading);
    }

    [Fact]
    public async Task The_last_signed_come_newest_first_and_no_more_than_asked_for()
    {
        var (database, cards, open) = await _workshop.WithCard();
        Assert.Empty(cards.LastSigned(4));
        var numbers = new List<CardNumber>();
        foreach (var plate in new[] { "HD-41", "HD-42", "HD-43" })
        {
            await new VehicleStore(database).Add(new(plate, Sheet.Id, "Post", 2022, Use.Normal));
            numbers.Add(await cards.Open(Opening() with { Plate = plate, Jobs = [], Steps = [] }, "", Iona, Monday, Guid.NewGuid()));
        }
        foreach (var (number, minutes) in new[] { (numbers[1], 1), (numbers[2], 2), (numbers[0], 3) })
            Assert.IsType<Accepted>((await cards.Handle(number, Guid.NewGuid(), new Sign(), Iona, Monday.AddMinutes(minutes)))!.Decision);
        Assert.Equal([numbers[0], numbers[2]], cards.LastSigned(2).Select(c => c.Id));
        Assert.Equal([numbers[0], numbers[2], numbers[1]], cards.LastSigned(9).Select(c => c.Id));
        Assert.DoesNotContain(cards.LastSigned(9), c => c.Id == open);
    }
}
