using Anakyklos.Core.Cards;
using Anakyklos.Core.Workshop;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage.Tests;

/// <summary>Only one program writes to the file. Where another does all the same, it is noticed, and nothing that was remembered is
/// believed any more.</summary>
public sealed class StrangerTests : IDisposable
{
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    private static Task<int> Write(WorkshopDatabase database, string name) => database.Writes.Run(scope =>
        scope.Connection.Execute("insert into setting (name, value) values (@name, 'x')", new { name }));

    [Fact]
    public async Task Its_own_writing_reading_copies_and_check_points_are_nobody_elses()
    {
        var (database, cards, card) = await _workshop.WithCard();
        for (var i = 0; i < 40; i++)
        {
            await Write(database, $"s{i}");
            using var reading = database.Connect();
            Assert.Equal(i + 1, reading.ExecuteScalar<int>("select count(*) from setting where name like 's%'"));
            // Enough at a time for the log to be put into the file and begun anew.
            if (i % 10 == 3)
                await database.Writes.Run(scope => scope.Connection.Execute(
                    "insert into setting (name, value) values (@name, hex(zeroblob(3000000)))", new { name = $"large{i}" }));
            if (i % 10 == 7)
                database.Backup(_workshop.Beside($"copy{i}.db"));
        }
        await Assert.ThrowsAsync<SqliteException>(() => database.Writes.Run(s => s.Connection.Execute("insert into nowhere values (1)")));
        await Write(database, "last");
        Assert.NotNull(cards.Find(card));
        Assert.Null(database.Writes.StrangerAt);
    }

    [Fact]
    public async Task Somebody_elses_is_noticed_before_anything_more_is_written_each_time()
    {
        var (database, _) = _workshop.Open();
        await Write(database, "first");
        var noticed = 0;
        database.Writes.StrangerWrote += () => noticed++;
        using (var other = new SqliteConnection($"Data Source={_workshop.File};Pooling=False"))
        {
            other.Open();
            other.Execute("begin immediate; insert into setting (name, value) values ('theirs', 'x'); rollback");
            await Write(database, "second");
            Assert.Equal(0, noticed);
            other.Execute("insert into setting (name, value) values ('theirs', 'x')");
        }
        Assert.Equal(1, await database.Writes.Run(_ => noticed));
        await Write(database, "third");
        Assert.Equal(1, noticed);
        Assert.NotNull(database.Writes.StrangerAt);
    }

    // Two servers on one folder that no lock keeps apart: both press the same card, sign people out, and take parts.
    [Fact]
    public async Task Two_that_serve_the_same_file_at_once_judge_by_what_is_there()
    {
        var (one, cards, card) = await _workshop.WithCard();
        var (two, others) = _workshop.Open();
        var sessions = new SessionStore(one);
        var people = new PeopleStore(one, sessions);
        await people.Add(new(PersonId.Of("una"), "Una B.", Role.Lead, "hash", "metric", "device"));
        await people.Add(new(PersonId.Of("iona"), "Iona R.", Role.Technician, "hash", "metric", "device"));
        var before = cards.Find(card)!.History.Count;
        await sessions.Begin("browser", PersonId.Of("iona"), "lift", TemporaryWorkshop.Monday);
        Assert.NotNull(sessions.Of("browser", TemporaryWorkshop.Monday));
        Assert.Equal(Role.Technician, people.Find(PersonId.Of("iona"))!.Role);
        await Task.WhenAll(Press(cards), Press(others), Press(cards), Press(others));
        Assert.Equal(before + 40, cards.Find(card)!.History.Count);
        Assert.Equal(before + 40, others.Find(card)!.History.Count);
        var otherSessions = new SessionStore(two);
        var otherPeople = new PeopleStore(two, otherSessions);
        await otherSessions.End("browser", TemporaryWorkshop.Monday);
        await otherPeople.SetRole(PersonId.Of("iona"), Role.Stores, TemporaryWorkshop.Monday);
        await one.Writes.Run(_ => 0);
        Assert.Null(sessions.Of("browser", TemporaryWorkshop.Monday));
        Assert.Equal(Role.Stores, people.Find(PersonId.Of("iona"))!.Role);
        Assert.NotNull(one.Writes.StrangerAt);
        Assert.NotNull(two.Writes.StrangerAt);
        Assert.Empty(Verification.Run(one, out _, out _));

        async Task Press(CardStore store)
        {
            for (var i = 0; i < 10; i++)
                Assert.IsType<Accepted>((await store.Handle(card, Guid.NewGuid(),
                    new NoteFinding("warm-up", FindingGrade.Sound, $"seen {i}"), TemporaryWorkshop.Iona,
                    TemporaryWorkshop.Monday))!.Decision);
        }
    }
}
